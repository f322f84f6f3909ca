//! Cuts in the waste: a frame around the pieces, and lines between them that cross none.

use kurbo::{BezPath, Rect, Shape};

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
/// between pieces, and each half again, so that none crosses a piece.
#[must_use]
pub fn weeding(outlines: &[BezPath], say: &Weeding) -> Vec<WasteCut> {
    let Some(frame) = weeding_frame(outlines, say) else { return Vec::new() };
    let around = WasteCut { name: "weeding-frame".to_owned(), path: frame.to_path(0.1) };
    if !say.lines {
        return vec![around];
    }
    let boxes: Vec<Rect> = outlines.iter().map(Shape::bounding_box).collect();
    let mut lines = Vec::new();
    let mut waiting = vec![(frame, boxes)];
    while let Some((cell, boxes)) = waiting.pop() {
        if boxes.len() < 2 || lines.len() >= MOST {
            continue;
        }
        let across = gaps(boxes.iter().map(|own| (own.x0, own.x1)));
        let down = gaps(boxes.iter().map(|own| (own.y0, own.y1)));
        if let Some(x) = widest(&across) {
            lines.push([(x, cell.y0), (x, cell.y1)]);
            let (left, right) = boxes.into_iter().partition(|own| own.x1 < x);
            waiting.push((Rect { x1: x, ..cell }, left));
            waiting.push((Rect { x0: x, ..cell }, right));
        } else if let Some(y) = widest(&down) {
            lines.push([(cell.x0, y), (cell.x1, y)]);
            let (above, below) = boxes.into_iter().partition(|own| own.y1 < y);
            waiting.push((Rect { y1: y, ..cell }, above));
            waiting.push((Rect { y0: y, ..cell }, below));
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
