//! The path of a sheet: what each tool does in which order, where it runs, and how long that takes.

use std::collections::BTreeMap;

use kurbo::{PathEl, Point, Rect, Vec2};

use super::CutPlan;
use super::holding::nicked;
use super::operations::{Operation, operations};
use super::order::{Strand, Turn, order};
use super::trailing::{axis_way, overcut};
use crate::LineKind;
use crate::geometry::flattened_to;
use crate::job::Tooling;
use crate::memory::Weighty;
use crate::workshop::{AllowedBy, Corner, Cutter, Pace, Tool};

/// How far what is sent may stray from curves, mm.
const FINE: f64 = 0.01;

/// A turn from which on a machine comes to a stop, radians.
const STOP: f64 = 0.5;

/// A tool's way along one line, once.
#[derive(Debug, Clone, PartialEq)]
pub struct Stretch {
    /// Which of the operations.
    pub operation: usize,
    /// Which of the plan's strokes.
    pub stroke: usize,
    /// Which pass, from 1.
    pub pass: u32,
    /// Where the tip is to run.
    pub line: Vec<Point>,
    /// What is sent: the same, or where the blade's axis goes.
    pub way: Vec<Point>,
    /// When it begins, s; 0 where the pace is not known.
    pub begins: f64,
    /// How long it takes, s; 0 where the pace is not known.
    pub takes: f64,
}

/// What an operation comes to.
#[derive(Debug, Clone, PartialEq)]
pub struct Worked {
    /// The operation.
    pub operation: Operation,
    /// Lines, each counted once.
    pub lines: usize,
    /// How far the tool goes while it is down, mm.
    pub length: f64,
    /// How far it goes while it is up, mm.
    pub travel: f64,
    /// How long it takes, s; `None` where the pace is not known.
    pub seconds: Option<f64>,
}

/// The path of one sheet.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct ToolPath {
    /// The operations, in order, also those that are off or lack a station.
    pub worked: Vec<Worked>,
    /// All that is done, in order.
    pub stretches: Vec<Stretch>,
    /// Where the tool begins.
    pub start: Point,
    /// How long all of it takes, s; `None` where the pace is not known.
    pub seconds: Option<f64>,
    /// How much was asked for twice and is worked once, mm.
    pub left_out: f64,
}

impl Weighty for ToolPath {
    fn weight(&self) -> usize {
        let points: usize = self.stretches.iter().map(|own| own.line.len() + own.way.len()).sum();
        size_of::<Point>() * points + size_of::<Stretch>() * self.stretches.len()
    }
}

impl ToolPath {
    /// The path of a plan on a page.
    #[must_use]
    pub fn of(plan: &CutPlan, tooling: &Tooling, cutter: Option<&Cutter>, page: Rect) -> Self {
        let start = corner(page, cutter.map_or(Corner::TopLeft, |cutter| cutter.start));
        let all = operations(plan.strokes.iter().map(|stroke| stroke.kind), tooling, cutter);
        let pace = cutter.and_then(|cutter| cutter.pace);
        let mut own =
            Self { start, seconds: pace.map(|_| 0.0), left_out: plan.left_out, ..Self::default() };
        let (mut here, mut now) = (start, 0.0);
        let mut heading = Vec2::new(0.0, 1.0);
        for (number, operation) in all.into_iter().enumerate() {
            let mut worked = Worked {
                lines: 0,
                length: 0.0,
                travel: 0.0,
                seconds: pace.map(|_| 0.0),
                operation: operation.clone(),
            };
            if operation.is_off {
                own.worked.push(worked);
                continue;
            }
            let (strands, of) = strands(plan, &operation, tooling);
            let began = now;
            let mut turns: BTreeMap<usize, Turn> = BTreeMap::new();
            for turn in order(&strands, here) {
                turns.insert(turn.strand, turn);
                let strand = &strands[turn.strand];
                let asked = turn.points(strand);
                worked.lines += 1;
                let passes = operation.passes.max(1) * plan.strokes[of[turn.strand]].times.max(1);
                for pass in 1..=passes {
                    let line = passed(&asked, strand.is_closed, pass);
                    let way = sent(&line, strand.is_closed, &operation, cutter, &mut heading);
                    let (Some(first), Some(last)) = (way.first(), way.last()) else { continue };
                    let far = here.distance(*first);
                    worked.travel += far;
                    worked.length +=
                        way.windows(2).map(|pair| pair[0].distance(pair[1])).sum::<f64>();
                    let begins =
                        now + pace.map_or(0.0, |pace| moving(far, pace.travel, &pace) + pace.lift);
                    let takes = pace.map_or(0.0, |pace| {
                        working(&way, operation.speed.unwrap_or(pace.working), &pace)
                    });
                    now = begins + takes;
                    here = *last;
                    own.stretches.push(Stretch {
                        operation: number,
                        stroke: of[turn.strand],
                        pass,
                        line,
                        way,
                        begins,
                        takes,
                    });
                }
            }
            worked.seconds = pace.map(|_| now - began);
            own.worked.push(worked);
        }
        own.seconds = pace.map(|_| now);
        own
    }

    /// How far tools go down, and up, mm.
    #[must_use]
    pub fn lengths(&self) -> (f64, f64) {
        let sum = |of: &dyn Fn(&Worked) -> f64| self.worked.iter().map(of).sum();
        (sum(&|own| own.length), sum(&|own| own.travel))
    }
}

fn corner(page: Rect, corner: Corner) -> Point {
    match corner {
        Corner::TopLeft => Point::new(page.x0, page.y0),
        Corner::TopRight => Point::new(page.x1, page.y0),
        Corner::BottomRight => Point::new(page.x1, page.y1),
        Corner::BottomLeft => Point::new(page.x0, page.y1),
    }
}

/// The lines of an operation, and which of the plan's strokes each is.
fn strands(plan: &CutPlan, operation: &Operation, tooling: &Tooling) -> (Vec<Strand>, Vec<usize>) {
    let (mut strands, mut of) = (Vec::new(), Vec::new());
    let own = plan.strokes.iter().enumerate().filter(|(_, own)| own.kind == operation.kind);
    for (number, stroke) in own {
        let is_closed = stroke.path.elements().last() == Some(&PathEl::ClosePath);
        for points in flattened_to(&stroke.path, FINE) {
            let frees =
                operation.kind == LineKind::Cut && is_closed && stroke.stroke.to_string() == "edge";
            match tooling.nicks.filter(|_| frees) {
                Some(nicks) => {
                    for points in nicked(&points, nicks) {
                        let is_closed = points.first() == points.last();
                        strands.push(Strand { points, is_closed });
                        of.push(number);
                    }
                }
                None => {
                    let back = points.first().copied().filter(|_| is_closed);
                    let points: Vec<Point> = points.into_iter().chain(back).collect();
                    if points.len() > 1 {
                        strands.push(Strand { points, is_closed });
                        of.push(number);
                    }
                }
            }
        }
    }
    (strands, of)
}

/// An open line is worked there and back in turn; a closed one always the same way round.
fn passed(asked: &[Point], is_closed: bool, pass: u32) -> Vec<Point> {
    let mut line = asked.to_vec();
    if !is_closed && pass.is_multiple_of(2) {
        line.reverse();
    }
    line
}

/// What is sent for a line.
fn sent(
    line: &[Point],
    is_closed: bool,
    operation: &Operation,
    cutter: Option<&Cutter>,
    heading: &mut Vec2,
) -> Vec<Point> {
    let knife = cutter.map(|cutter| cutter.knife).unwrap_or_default();
    if operation.tool != Tool::DragKnife || knife.allowed_by == AllowedBy::Machine {
        return line.to_vec();
    }
    let past = if is_closed { overcut(line, knife.overcut) } else { line.to_vec() };
    let (way, lies) = axis_way(&past, knife.offset, *heading);
    *heading = lies;
    way
}

/// How long a straight way takes from rest to rest, s.
fn moving(far: f64, speed: f64, pace: &Pace) -> f64 {
    if far <= 0.0 {
        return 0.0;
    }
    // What it takes to get to the speed and back.
    let needed = speed * speed / pace.acceleration;
    if far >= needed {
        far / speed + speed / pace.acceleration
    } else {
        2.0 * (far / pace.acceleration).sqrt()
    }
}

/// The same along a line that stops at its corners.
fn working(way: &[Point], speed: f64, pace: &Pace) -> f64 {
    let mut seconds = 0.0;
    let mut run = 0.0;
    for (at, pair) in way.windows(2).enumerate() {
        run += pair[0].distance(pair[1]);
        let stops = way.get(at + 2).is_none_or(|next| {
            let (into, out) = (pair[1] - pair[0], *next - pair[1]);
            into.cross(out).atan2(into.dot(out)).abs() > STOP
        });
        if stops {
            seconds += moving(run, speed, pace);
            run = 0.0;
        }
    }
    seconds
}
