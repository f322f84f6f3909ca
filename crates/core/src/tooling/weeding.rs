//! Cuts in the waste: a frame around the pieces, and lines between them that cross none.

use kurbo::{BezPath, Point, Rect, Shape};

use crate::geometry::Outline;
use crate::job::Weeding;

/// A line between pieces keeps at least so far from both, mm.
const CLEAR: f64 = 0.5;

/// Most parts into which waste is divided.
const MOST: usize = 4000;

/// A cut in the waste.
#[derive(Debug, Clone, PartialEq)]
pub struct WasteCut {
    /// What it is known by.
    pub name: String,
    /// Where it runs.
    pub path: BezPath,
}

/// The frame around pieces: how far cuts in the waste reach; `None` where there are none.
#[must_use]
pub fn weeding_frame(outlines: &[BezPath], say: &Weeding) -> Option<Rect> {
    let all = outlines.iter().map(Shape::bounding_box).reduce(|all, own| all.union(own))?;
    Some(all.inflate(say.frame, say.frame))
}

/// The cuts in the waste around pieces on a sheet. Lines divide the frame from side to side wherever a straight one passes
/// between pieces, and each half again, so that none crosses a piece; where pieces reach past each other, so that none
/// passes, lines run from each to what is nearest beside it.
#[must_use]
pub fn weeding(outlines: &[BezPath], say: &Weeding) -> Vec<WasteCut> {
    let Some(frame) = weeding_frame(outlines, say) else { return Vec::new() };
    let around = WasteCut { name: "weeding-frame".to_owned(), path: frame.to_path(0.1) };
    if !say.lines {
        return vec![around];
    }
    let boxes: Vec<Rect> = outlines.iter().map(Shape::bounding_box).collect();
    let mut lines = Vec::new();
    let mut waiting: Vec<(Rect, Vec<usize>)> = vec![(frame, (0..outlines.len()).collect())];
    while let Some((cell, own)) = waiting.pop() {
        if own.len() < 2 || lines.len() >= MOST {
            continue;
        }
        let across = gaps(own.iter().map(|at| (boxes[*at].x0, boxes[*at].x1)));
        let down = gaps(own.iter().map(|at| (boxes[*at].y0, boxes[*at].y1)));
        if let Some(x) = widest(&across) {
            lines.push([Point::new(x, cell.y0), Point::new(x, cell.y1)]);
            let (left, right) = own.into_iter().partition(|at| boxes[*at].x1 < x);
            waiting.push((Rect { x1: x, ..cell }, left));
            waiting.push((Rect { x0: x, ..cell }, right));
        } else if let Some(y) = widest(&down) {
            lines.push([Point::new(cell.x0, y), Point::new(cell.x1, y)]);
            let (above, below) = own.into_iter().partition(|at| boxes[*at].y1 < y);
            waiting.push((Rect { y1: y, ..cell }, above));
            waiting.push((Rect { y0: y, ..cell }, below));
        } else {
            let own: Vec<Outline> =
                own.iter().filter_map(|at| Outline::around(&outlines[*at])).collect();
            lines.extend(beside(&own, cell));
        }
    }
    let lines = lines.into_iter().enumerate().map(|(number, [from, to])| {
        let mut path = BezPath::new();
        path.move_to(from);
        path.line_to(to);
        WasteCut { name: format!("weeding-{}", number + 1), path }
    });
    lines.chain([around]).collect()
}

/// Lines from the leftmost and the rightmost place of each piece to what lies beside it, another piece or the cell's edge.
/// None from a piece that lies in another's opening: what is around that is no waste.
fn beside(outlines: &[Outline], cell: Rect) -> Vec<[Point; 2]> {
    let mut lines = Vec::new();
    for (at, own) in outlines.iter().enumerate() {
        let others = || outlines.iter().enumerate().filter(|(other, _)| *other != at);
        let by_x = |one: &&Point, other: &&Point| one.x.total_cmp(&other.x);
        let ends = [own.points().iter().min_by(by_x), own.points().iter().max_by(by_x)];
        for (from, way) in ends.into_iter().flatten().zip([-1.0, 1.0]) {
            if others().any(|(_, other)| other.holds(*from)) {
                continue;
            }
            let wall = if way < 0.0 { cell.x0 } else { cell.x1 };
            let room = others()
                .flat_map(|(_, other)| crossed(other, from.y))
                .map(|x| (x - from.x) * way)
                .filter(|room| *room > 0.0)
                .fold(f64::INFINITY, f64::min);
            let to_wall = (wall - from.x) * way;
            // At the edge of the cell there is a cut, which the line may reach.
            let room = if room < to_wall { room - CLEAR } else { to_wall };
            if room > 2.0 * CLEAR {
                let place = |far: f64| Point::new(from.x + way * far, from.y);
                lines.push([place(CLEAR), place(room)]);
            }
        }
    }
    lines
}

/// Where an outline comes to within reach of a row, by x: a line along that row keeps clear of what lies just above and
/// below it too.
fn crossed(outline: &Outline, y: f64) -> Vec<f64> {
    let points = outline.points();
    let sides = points.iter().zip(points.iter().skip(1).chain(points.first()));
    let mut all = Vec::new();
    for (from, to) in sides {
        let (low, high) = if from.y < to.y { (from, to) } else { (to, from) };
        if high.y < y - CLEAR || low.y > y + CLEAR {
            continue;
        }
        let at = |row: f64| {
            let tall = high.y - low.y;
            let share = if tall > 0.0 { ((row - low.y) / tall).clamp(0.0, 1.0) } else { 0.0 };
            low.x + (high.x - low.x) * share
        };
        all.extend([at(y - CLEAR), at(y + CLEAR)]);
        if low.y.total_cmp(&high.y).is_eq() {
            all.push(high.x);
        }
    }
    all
}

/// The gaps between spans that are wide enough for a line.
fn gaps(spans: impl Iterator<Item = (f64, f64)>) -> Vec<(f64, f64)> {
    let mut spans: Vec<(f64, f64)> = spans.collect();
    spans.sort_by(|one, other| one.0.total_cmp(&other.0));
    let mut gaps = Vec::new();
    let mut reached = f64::NEG_INFINITY;
    for (low, high) in spans {
        if reached.is_finite() && low - reached >= 2.0 * CLEAR {
            gaps.push((reached, low));
        }
        reached = reached.max(high);
    }
    gaps
}

/// The middle of the widest gap.
fn widest(gaps: &[(f64, f64)]) -> Option<f64> {
    let wide = |own: &&(f64, f64)| own.1 - own.0;
    let best = gaps.iter().max_by(|one, other| wide(one).total_cmp(&wide(other)))?;
    Some(f64::midpoint(best.0, best.1))
}
