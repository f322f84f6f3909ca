//! How near two paths come to each other.

use kurbo::{BezPath, Line, ParamCurveNearest, Point, Rect};
use rstar::primitives::{GeomWithData, Line as Indexed};
use rstar::{AABB, RTree};

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
            least = least.min(squared(&a.line, &b.line));
            if least == 0.0 {
                return 0.0;
            }
        }
    }
    least.sqrt()
}

/// The least distance between one of `ones` and any other path of `ones` or `others`, mm, curves flattened; 0 where two
/// cross. With it which of `ones` it is; `None` where there are no two. Paths that are the same are no two.
#[must_use]
pub fn least_gap(ones: &[&BezPath], others: &[&BezPath]) -> Option<(f64, usize)> {
    let all: Vec<&BezPath> = ones.iter().chain(others).copied().collect();
    let flat: Vec<Vec<Segment>> = all.iter().map(|path| segments(path)).collect();
    let indexed = flat.iter().enumerate().flat_map(|(at, own)| {
        own.iter().map(move |Segment { line, .. }| {
            let ends = [line.p0, line.p1].map(|point| [point.x, point.y]);
            GeomWithData::new(Indexed::new(ends[0], ends[1]), at)
        })
    });
    let indexed = RTree::bulk_load(indexed.collect());
    let mut least = (f64::INFINITY, None);
    for (at, own) in flat[..ones.len()].iter().enumerate() {
        let is_other = |other: usize| other != at && all[other] != all[at];
        if least.1.is_none() {
            // Any other will do to begin with, those that were given last are asked first.
            let first = (0..all.len()).rev().find(|other| is_other(*other));
            least = first.map_or(least, |other| (gap(all[at], all[other]), Some(at)));
        }
        for Segment { line, .. } in own {
            let near = Rect::from_points(line.p0, line.p1).inflate(least.0, least.0);
            let near = AABB::from_corners([near.x0, near.y0], [near.x1, near.y1]);
            for other in indexed.locate_in_envelope_intersecting(&near) {
                let [from, to] =
                    [other.geom().from, other.geom().to].map(|[x, y]| Point::new(x, y));
                let gap = squared(line, &Line::new(from, to)).sqrt();
                if gap < least.0 && is_other(other.data) {
                    least = (gap, Some(at));
                }
            }
        }
    }
    least.1.map(|at| (least.0, at))
}

/// How far two boxes are apart; 0 where they meet.
pub(crate) fn between(one: Rect, other: Rect) -> f64 {
    let across = (other.x0 - one.x1).max(one.x0 - other.x1).max(0.0);
    let along = (other.y0 - one.y1).max(one.y0 - other.y1).max(0.0);
    across.hypot(along)
}

/// The square of the least distance between two lines; 0 where they cross.
fn squared(a: &Line, b: &Line) -> f64 {
    if crosses(a, b) {
        return 0.0;
    }
    let ends = [(a.p0, b), (a.p1, b), (b.p0, a), (b.p1, a)];
    let gaps = ends.map(|(point, line)| line.nearest(point, 1e-9).distance_sq);
    gaps.into_iter().fold(f64::INFINITY, f64::min)
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
    use kurbo::{Affine, Shape};
    use proptest::prelude::*;

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

    proptest! {
        /// Held against every pair by itself.
        #[test]
        fn the_nearest_two_are_found_among_many(
            places in prop::collection::vec((0.0..200.0f64, 0.0..200.0f64, 0.1..6.0f64), 1..20),
            slit in (0.0..200.0f64, 0.0..200.0f64),
            twice in any::<bool>(),
        ) {
            let mut discs: Vec<BezPath> =
                places.iter().map(|(x, y, radius)| circle(Point::new(*x, *y), *radius)).collect();
            if twice {
                discs.push(discs[0].clone());
            }
            let around = Rect::new(-10.0, -10.0, 210.0, 210.0).to_path(0.1);
            let slit = Affine::translate(slit) * BezPath::from_svg("M0 0L7 1").unwrap();
            let (ones, others): (Vec<&BezPath>, _) = (discs.iter().collect(), [&slit, &around]);
            let pairs = ones.iter().enumerate().flat_map(|(at, one)| {
                let second = ones[at + 1..].iter().chain(&others);
                second.filter(move |other| *other != one).map(move |other| gap(one, other))
            });
            let (found, at) = least_gap(&ones, &others).unwrap();
            prop_assert!((found - pairs.fold(f64::INFINITY, f64::min)).abs() < 1e-9);
            let own = ones.iter().chain(&others).filter(|other| **other != ones[at]);
            let own = own.map(|other| gap(ones[at], other)).fold(f64::INFINITY, f64::min);
            prop_assert!((found - own).abs() < 1e-9);
        }
    }
}
