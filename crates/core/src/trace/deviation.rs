//! How far a drawn line strays from the points it was drawn through.

use kurbo::{BezPath, Point};

use crate::geometry::flattened_to;

/// The distance of the point of `ring` that lies farthest from the path, and where that is.
pub(super) fn deviation(path: &BezPath, ring: &[Point]) -> (f64, Point) {
    let lines = flattened_to(path, 0.02);
    let Some(line) = lines.first().filter(|line| line.len() > 1) else { return (0.0, ring[0]) };
    let count = line.len();
    let off = |index: usize, point: Point| {
        let (a, b) = (line[index % count], line[(index + 1) % count]);
        let along = b - a;
        let share = ((point - a).dot(along) / along.hypot2().max(1e-18)).clamp(0.0, 1.0);
        (a + along * share).distance(point)
    };
    let nearest = |range: std::ops::Range<usize>, point: Point| {
        range
            .map(|index| (off(index, point), index % count))
            .min_by(|one, other| one.0.total_cmp(&other.0))
            .unwrap_or((0.0, 0))
    };
    let mut worst = (0.0_f64, ring[0]);
    let (_, mut at) = nearest(0..count, ring[0]);
    for point in ring.iter().step_by(2) {
        // Both run the same way round, so the next is not far on.
        let (mut gap, mut index) = nearest(at + count - count.min(6)..at + count + 12, *point);
        // What is near is no nearer than what is nearest, so only what would be the worst is looked for everywhere.
        if gap > worst.0.max(2.0) {
            (gap, index) = nearest(0..count, *point);
        }
        at = index;
        if gap > worst.0 {
            worst = (gap, *point);
        }
    }
    worst
}
