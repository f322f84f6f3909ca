//! Whether closed lines cross or touch, each itself or another.

use kurbo::{Point, Rect};

/// Where a side meets another than its neighbours, and of which ring it is.
///
/// Sides are sorted by their left ends, and each is held against those that begin before it ends.
pub(crate) fn crossings(rings: &[Vec<Point>]) -> Vec<(usize, Point)> {
    struct Side {
        from: Point,
        to: Point,
        bounds: Rect,
        ring: usize,
        at: usize,
    }
    let mut sides = Vec::new();
    for (ring, points) in rings.iter().enumerate() {
        let next = points.iter().skip(1).chain(points.first());
        sides.extend(points.iter().zip(next).enumerate().map(|(at, (from, to))| Side {
            from: *from,
            to: *to,
            bounds: Rect::from_points(*from, *to),
            ring,
            at,
        }));
    }
    sides.sort_by(|one, other| one.bounds.x0.total_cmp(&other.bounds.x0));
    let are_neighbours = |one: &Side, other: &Side| {
        let count = rings[one.ring].len();
        let apart = one.at.abs_diff(other.at);
        one.ring == other.ring && (apart == 1 || apart == count - 1)
    };
    let mut found = Vec::new();
    let mut open: Vec<usize> = Vec::new();
    for at in 0..sides.len() {
        let own = &sides[at];
        open.retain(|other| sides[*other].bounds.x1 >= own.bounds.x0);
        let meets = |other: &&usize| {
            let other = &sides[**other];
            other.bounds.y0 <= own.bounds.y1
                && own.bounds.y0 <= other.bounds.y1
                && !are_neighbours(own, other)
                && meet(own.from, own.to, other.from, other.to)
        };
        for other in open.iter().filter(|other| meets(other)) {
            found.extend([(own.ring, own.from), (sides[*other].ring, sides[*other].from)]);
        }
        open.push(at);
    }
    found
}

fn meet(a: Point, b: Point, c: Point, d: Point) -> bool {
    let side = |p: Point, q: Point, r: Point| (q - p).cross(r - p);
    let (one, two) = (side(a, b, c), side(a, b, d));
    let (three, four) = (side(c, d, a), side(c, d, b));
    one * two <= 0.0 && three * four <= 0.0
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeSet;

    use super::*;

    fn ring(points: &[(f64, f64)]) -> Vec<Point> {
        points.iter().map(|point| Point::from(*point)).collect()
    }

    #[test]
    fn lines_that_cross_or_touch_are_found() {
        let square = ring(&[(0.0, 0.0), (9.0, 0.0), (9.0, 9.0), (0.0, 9.0)]);
        let hole = ring(&[(2.0, 2.0), (2.0, 5.0), (5.0, 5.0)]);
        let rings = |rings: &[Vec<Point>]| -> BTreeSet<usize> {
            crossings(rings).into_iter().map(|(ring, _)| ring).collect()
        };
        assert!(rings(&[square.clone(), hole.clone()]).is_empty());
        let bow = ring(&[(0.0, 0.0), (9.0, 9.0), (9.0, 0.0), (0.0, 9.0)]);
        assert_eq!(rings(&[bow]), [0].into());
        let over = ring(&[(2.0, 2.0), (2.0, 5.0), (12.0, 5.0)]);
        assert_eq!(rings(&[square.clone(), over]), [0, 1].into());
        let touching = ring(&[(0.0, 7.0), (1.0, 8.0), (1.0, 6.0)]);
        assert_eq!(rings(&[square, hole, touching]), [0, 2].into());
    }
}
