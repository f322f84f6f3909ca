//! How near two paths come to each other.

use kurbo::{BezPath, Line, ParamCurveNearest, Point};

use super::path::polylines;

/// The least distance between two paths in mm, curves flattened; 0 where they cross.
#[must_use]
pub fn gap(one: &BezPath, other: &BezPath) -> f64 {
    let (one, other) = (segments(one), segments(other));
    let mut least = f64::MAX;
    for a in &one {
        for b in &other {
            // Too far apart to matter, whichever way they lie.
            let reach = (a.length + b.length) / 2.0 + least.sqrt();
            if a.line.midpoint().distance_squared(b.line.midpoint()) > reach * reach {
                continue;
            }
            let (a, b) = (&a.line, &b.line);
            if crosses(a, b) {
                return 0.0;
            }
            for (point, line) in [(a.p0, b), (a.p1, b), (b.p0, a), (b.p1, a)] {
                least = least.min(line.nearest(point, 1e-9).distance_sq);
            }
        }
    }
    least.sqrt()
}

struct Segment {
    line: Line,
    length: f64,
}

fn segments(path: &BezPath) -> Vec<Segment> {
    let runs = polylines(path);
    let pairs = runs.iter().flat_map(|run| run.windows(2));
    pairs
        .map(|pair| Segment {
            line: Line::new(pair[0], pair[1]),
            length: pair[0].distance(pair[1]),
        })
        .collect()
}

fn crosses(a: &Line, b: &Line) -> bool {
    let side = |line: &Line, point: Point| (line.p1 - line.p0).cross(point - line.p0);
    side(a, b.p0) * side(a, b.p1) < 0.0 && side(b, a.p0) * side(b, a.p1) < 0.0
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{circle, polygon};

    #[test]
    fn gaps_are_what_a_ruler_says() {
        let disc = circle(Point::new(0.0, 0.0), 5.0);
        let block = polygon(&[
            Point::new(8.0, -9.0),
            Point::new(20.0, -9.0),
            Point::new(20.0, 9.0),
            Point::new(8.0, 9.0),
        ]);
        assert!((gap(&disc, &block) - 3.0).abs() < 0.02);
        let near = circle(Point::new(9.0, 0.0), 5.0);
        assert_eq!(gap(&disc, &near), 0.0);
    }
}
