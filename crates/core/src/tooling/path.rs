//! The path of a sheet: what each tool does in which order, where it runs, and how long that takes.

use kurbo::{Point, Rect, Shape, Vec2};

use super::operations::{Before, Operation, works};
use super::order::{Group, Strand, order};
use super::plan::{CutPlan, is_closed};
use super::trailing::{axis_way, overcut};
use crate::geometry::flattened_to;
use crate::job::{Pin, Tooling};
use crate::memory::Weighty;
use crate::sheet::{Placement, Window};
use crate::workshop::{AllowedBy, Corner, Cutter, Pace, Tool};

/// How far what is sent may stray from curves, mm.
const FINE: f64 = 0.01;

/// A turn from which on a machine comes to a stop, radians.
const STOP: f64 = 0.5;

/// How long a blade is drawn through the waste so that it lies as it should, mm.
const LEAD_IN: f64 = 3.0;

/// Where the tools go.
#[derive(Debug, Clone, Copy)]
pub struct Bed<'a> {
    /// What is worked.
    pub plan: &'a CutPlan,
    /// Where the copies lie.
    pub placements: &'a [Placement],
    /// The page.
    pub page: Rect,
    /// Where cuts may lie.
    pub window: &'a Window,
}

/// A tool's way along one line, once.
#[derive(Debug, Clone, PartialEq)]
pub struct Stretch {
    /// Which of the operations.
    pub operation: usize,
    /// Which of the plan's strokes; `None` where a blade is turned in the waste before its first cut.
    pub stroke: Option<usize>,
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
    /// The path of operations on a sheet.
    #[must_use]
    pub fn of(
        bed: Bed<'_>,
        operations: &[Operation],
        tooling: &Tooling,
        cutter: Option<&Cutter>,
    ) -> Self {
        let start = corner(bed.page, cutter.map_or(Corner::TopLeft, |cutter| cutter.start));
        let pace = cutter.and_then(|cutter| cutter.pace);
        let (worked, left_out) = (Vec::new(), bed.plan.left_out);
        let seconds = pace.map(|_| 0.0);
        let mut own = Self { worked, stretches: Vec::new(), start, seconds, left_out };
        let mut tool = Moving { here: start, now: 0.0, heading: Vec2::new(0.0, 1.0), pace };
        let mut of_operation: Vec<Vec<usize>> = vec![Vec::new(); operations.len()];
        for (number, stroke) in bed.plan.strokes.iter().enumerate() {
            if let Some(at) = works(operations, stroke, bed.plan) {
                of_operation[at].push(number);
            }
        }
        for (number, operation) in operations.iter().enumerate() {
            own.add(number, operation, &of_operation[number], bed, tooling, cutter, &mut tool);
        }
        own.seconds = pace.map(|_| tool.now);
        // What is sent allows for what the machine was measured to be off.
        if let Some(sent) = cutter.and_then(|own| own.correction.as_ref()?.affine()) {
            let ways = own.stretches.iter_mut().flat_map(|stretch| &mut stretch.way);
            ways.for_each(|at| *at = sent * *at);
        }
        own
    }

    #[expect(
        clippy::too_many_arguments,
        reason = "what the tool knows goes on from operation to operation"
    )]
    fn add(
        &mut self,
        number: usize,
        operation: &Operation,
        strokes: &[usize],
        bed: Bed<'_>,
        tooling: &Tooling,
        cutter: Option<&Cutter>,
        tool: &mut Moving,
    ) {
        let timed = tool.pace.map(|_| 0.0);
        let (lines, length, travel) = (0, 0.0, 0.0);
        let mut worked =
            Worked { operation: operation.clone(), lines, length, travel, seconds: timed };
        if operation.is_off {
            self.worked.push(worked);
            return;
        }
        if operation.before.contains(&Before::Load) {
            tool.here = self.start;
        }
        let began = tool.now;
        let (strands, of) = strands(bed.plan, strokes);
        let group = |at: usize| group(bed, tooling, of[at]);
        let turns = order(&strands, tool.here, &group);
        if let Some(first) = turns.first()
            && is_trailing(operation, cutter)
            && let Some(lead) = lead_in(bed, &first.points(&strands[first.strand]), tool.here)
        {
            tool.heading = (lead[1] - lead[0]).normalize();
            let stretch = tool.along(number, None, 1, lead.to_vec(), lead.to_vec(), operation);
            worked.count(&stretch, tool);
            self.stretches.push(stretch);
        }
        for turn in turns {
            let strand = &strands[turn.strand];
            let asked = turn.points(strand);
            let stroke = of[turn.strand];
            worked.lines += 1;
            let passes = operation.passes.max(1) * bed.plan.strokes[stroke].times.max(1);
            for pass in 1..=passes {
                let line = passed(&asked, strand.is_closed, pass);
                let way = sent(&line, strand.is_closed, operation, cutter, &mut tool.heading);
                if way.len() > 1 {
                    let stretch = tool.along(number, Some(stroke), pass, line, way, operation);
                    worked.count(&stretch, tool);
                    self.stretches.push(stretch);
                }
            }
        }
        worked.seconds = tool.pace.map(|_| tool.now - began);
        self.worked.push(worked);
    }

    /// The stretches of one loading of the sheet.
    pub fn of_loading(&self, loading: usize) -> impl Iterator<Item = &Stretch> {
        let own = move |at: usize| self.worked.get(at).map(|own| own.operation.loading);
        self.stretches.iter().filter(move |stretch| own(stretch.operation) == Some(loading))
    }

    /// How far tools go down, and up, mm.
    #[must_use]
    pub fn lengths(&self) -> (f64, f64) {
        let sum = |of: &dyn Fn(&Worked) -> f64| self.worked.iter().map(of).sum();
        (sum(&|own| own.length), sum(&|own| own.travel))
    }
}

impl Worked {
    fn count(&mut self, stretch: &Stretch, tool: &mut Moving) {
        if let (Some(first), Some(last)) = (stretch.way.first(), stretch.way.last()) {
            self.travel += tool.here.distance(*first);
            tool.here = *last;
        }
        self.length += stretch.way.windows(2).map(|two| two[0].distance(two[1])).sum::<f64>();
    }
}

/// The tool while it moves.
struct Moving {
    /// Where it is.
    here: Point,
    /// When, s.
    now: f64,
    /// Which way the blade lies.
    heading: Vec2,
    /// How fast it is.
    pace: Option<Pace>,
}

impl Moving {
    /// A way, with its times; the tool goes there first.
    fn along(
        &mut self,
        operation: usize,
        stroke: Option<usize>,
        pass: u32,
        line: Vec<Point>,
        way: Vec<Point>,
        own: &Operation,
    ) -> Stretch {
        let far = way.first().map_or(0.0, |first| self.here.distance(*first));
        let pace = self.pace;
        let begins =
            self.now + pace.map_or(0.0, |pace| moving(far, pace.travel, &pace) + pace.lift);
        let takes =
            pace.map_or(0.0, |pace| working(&way, own.speed.unwrap_or(pace.working), &pace));
        self.now = begins + takes;
        Stretch { operation, stroke, pass, line, way, begins, takes }
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
fn strands(plan: &CutPlan, strokes: &[usize]) -> (Vec<Strand>, Vec<usize>) {
    let (mut strands, mut of) = (Vec::new(), Vec::new());
    for number in strokes {
        let path = &plan.strokes[*number].path;
        let is_closed = is_closed(path);
        for points in flattened_to(path, FINE) {
            let back = points.first().copied().filter(|_| is_closed);
            let points: Vec<Point> = points.into_iter().chain(back).collect();
            if points.len() > 1 {
                strands.push(Strand { points, is_closed });
                of.push(*number);
            }
        }
    }
    (strands, of)
}

/// Whether a stroke is on the copy that is pinned to the beginning or the end.
fn group(bed: Bed<'_>, tooling: &Tooling, stroke: usize) -> Group {
    let stroke = &bed.plan.strokes[stroke];
    let at = stroke.copy.and_then(|copy| bed.placements.get(copy));
    let is_pinned = |pin: &Pin| {
        bed.plan.pieces.get(stroke.blank) == Some(&pin.piece)
            && at.is_some_and(|at| at.copy == pin.copy)
    };
    if tooling.first.as_ref().is_some_and(is_pinned) {
        Group::First
    } else if tooling.last.as_ref().is_some_and(is_pinned) {
        Group::Last
    } else {
        Group::Between
    }
}

/// True where Aptum leads a blade that trails.
fn is_trailing(operation: &Operation, cutter: Option<&Cutter>) -> bool {
    let led =
        |cutter: &Cutter| cutter.knife.allowed_by == AllowedBy::Aptum && cutter.knife.offset > 0.0;
    operation.tool == Tool::DragKnife && cutter.is_some_and(led)
}

/// A short cut in the waste in the direction in which the first line begins, in that corner of the window that is nearest;
/// `None` where all four are taken.
fn lead_in(bed: Bed<'_>, first: &[Point], from: Point) -> Option<[Point; 2]> {
    let along = first.windows(2).map(|two| two[1] - two[0]).find(|own| own.hypot() > 1e-6)?;
    let half = along.normalize() * (LEAD_IN / 2.0);
    let room = bed.window.base.inset(-(LEAD_IN / 2.0 + 1.0));
    if room.width() <= 0.0 || room.height() <= 0.0 {
        return None;
    }
    let mut corners = [
        Point::new(room.x0, room.y0),
        Point::new(room.x1, room.y0),
        Point::new(room.x1, room.y1),
        Point::new(room.x0, room.y1),
    ];
    corners.sort_by(|one, other| from.distance(*one).total_cmp(&from.distance(*other)));
    let is_free = |at: &Point| {
        let own = Rect::from_center_size(*at, (LEAD_IN + 1.0, LEAD_IN + 1.0));
        let meets = |path: &kurbo::BezPath| {
            let other = path.bounding_box().inflate(1e-6, 1e-6).intersect(own);
            other.width() > 0.0 && other.height() > 0.0
        };
        let bites = &bed.window.obstacles;
        !bed.plan.strokes.iter().any(|stroke| meets(&stroke.path))
            && !bites.iter().any(|bite| bite.bounds().overlaps(own))
    };
    let at = corners.into_iter().find(is_free)?;
    Some([at - half, at + half])
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
