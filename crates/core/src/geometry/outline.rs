//! A flattened closed outline with its bounds, quick to test for overlap.

use geo::{ConvexHull, MultiPoint};
use kurbo::{Affine, BezPath, Point, Rect};

use super::Region;

/// One simple polygon. Touching is not overlapping: a common edge or point does not count.
#[derive(Debug, Clone, PartialEq)]
pub struct Outline {
    points: Vec<Point>,
    bounds: Rect,
}

/// Overlaps of less than this, in mm, are binary noise.
const NOISE: f64 = 1e-6;

impl Outline {
    /// From the corners, in order; `None` with fewer than three.
    #[must_use]
    pub fn new(points: Vec<Point>) -> Option<Self> {
        if points.len() < 3 {
            return None;
        }
        let bounds = points
            .iter()
            .skip(1)
            .fold(Rect::from_points(points[0], points[0]), |bounds, point| bounds.union_pt(*point));
        Some(Self { points, bounds })
    }

    /// The outer rings of a region.
    #[must_use]
    pub fn of_region(region: &Region) -> Vec<Self> {
        region.outer_rings().into_iter().filter_map(Self::new).collect()
    }

    /// The ring that lies around all of a path's closed subpaths: the subpath itself where there is one, the convex
    /// hull where there are several, so that nothing comes to lie between them.
    #[must_use]
    pub fn around(path: &BezPath) -> Option<Self> {
        let mut rings = super::flattened(path);
        if rings.len() < 2 {
            return Self::new(rings.pop()?);
        }
        let points: MultiPoint =
            rings.iter().flatten().map(|point| (point.x, point.y)).collect::<Vec<_>>().into();
        let hull = points.convex_hull();
        // The hull's last corner repeats its first.
        let corners = hull.exterior().points().skip(1);
        Self::new(corners.map(|corner| Point::new(corner.x(), corner.y())).collect())
    }

    /// A path's first closed subpath.
    #[must_use]
    pub fn of_path(path: &BezPath) -> Option<Self> {
        Self::new(super::flattened(path).into_iter().next()?)
    }

    /// The corners.
    #[must_use]
    pub fn points(&self) -> &[Point] {
        &self.points
    }

    /// The smallest upright rectangle around it.
    #[must_use]
    pub const fn bounds(&self) -> Rect {
        self.bounds
    }

    /// Moved, turned or mirrored.
    #[must_use]
    pub fn transformed(&self, affine: Affine) -> Self {
        let points: Vec<Point> = self.points.iter().map(|point| affine * *point).collect();
        let bounds = points
            .iter()
            .skip(1)
            .fold(Rect::from_points(points[0], points[0]), |bounds, point| bounds.union_pt(*point));
        Self { points, bounds }
    }

    /// True when the two, this one moved by `(dx, dy)`, have area in common.
    #[must_use]
    pub fn overlaps_at(&self, dx: f64, dy: f64, other: &Self) -> bool {
        let moved = self.bounds + kurbo::Vec2::new(dx, dy);
        let shared = moved.intersect(other.bounds);
        if shared.width() <= NOISE || shared.height() <= NOISE {
            return false;
        }
        let step = kurbo::Vec2::new(dx, dy);
        let window = shared.inflate(NOISE, NOISE);
        let near = |a: Point, b: Point| {
            a.x.max(b.x) >= window.x0
                && a.x.min(b.x) <= window.x1
                && a.y.max(b.y) >= window.y0
                && a.y.min(b.y) <= window.y1
        };
        let ours: Vec<Edge> =
            self.edges().map(|(a, b)| (a + step, b + step)).filter(|(a, b)| near(*a, *b)).collect();
        let theirs: Vec<Edge> = other.edges().filter(|(a, b)| near(*a, *b)).collect();
        ours.iter().any(|(a, b)| theirs.iter().any(|(c, d)| cross(*a, *b, *c, *d)))
            || ours.iter().any(|edge| enters(*edge, &theirs, |point| other.holds(point)))
            || theirs.iter().any(|edge| enters(*edge, &ours, |point| self.holds(point - step)))
            // Neither edge enters the other where the two outlines are the same.
            || self.interior_points().into_iter().any(|point| other.holds(point + step))
    }

    /// The distance to another outline in mm, -1 where they overlap, or `None` where it is `most` or more.
    #[must_use]
    pub fn clearance(&self, other: &Self, most: f64) -> Option<f64> {
        self.nearest(other, most).map(|(gap, ..)| gap)
    }

    /// As [`clearance`](Self::clearance), with the two points between which it is.
    #[must_use]
    pub fn nearest(&self, other: &Self, most: f64) -> Option<(f64, Point, Point)> {
        let reach = self.bounds.inflate(most, most);
        let shared = reach.intersect(other.bounds);
        if shared.width() < 0.0 || shared.height() < 0.0 || self.bounds.x0 - most > other.bounds.x1
        {
            return None;
        }
        if self.overlaps_at(0.0, 0.0, other) {
            let middle = self.bounds.intersect(other.bounds).center();
            return Some((-1.0, middle, middle));
        }
        let near = |(a, b): &Edge, room: Rect| {
            a.x.max(b.x) >= room.x0
                && a.x.min(b.x) <= room.x1
                && a.y.max(b.y) >= room.y0
                && a.y.min(b.y) <= room.y1
        };
        let back = other.bounds.inflate(most, most);
        let ours: Vec<Edge> = self.edges().filter(|edge| near(edge, back)).collect();
        let theirs: Vec<Edge> = other.edges().filter(|edge| near(edge, reach)).collect();
        let mut least: Option<(f64, Point, Point)> = None;
        let mut offer = |point: Point, edge: Edge, is_ours: bool| {
            let foot = foot(point, edge);
            let gap = point.distance(foot);
            if gap < least.map_or(most, |(least, ..)| least) {
                least = Some(if is_ours { (gap, point, foot) } else { (gap, foot, point) });
            }
        };
        for ours in &ours {
            for theirs in &theirs {
                offer(ours.0, *theirs, true);
                offer(ours.1, *theirs, true);
                offer(theirs.0, *ours, false);
                offer(theirs.1, *ours, false);
            }
        }
        least
    }

    /// Its sides, one after the other.
    pub fn edges(&self) -> impl Iterator<Item = (Point, Point)> + '_ {
        let next = self.points.iter().skip(1).chain(self.points.first());
        self.points.iter().zip(next).map(|(a, b)| (*a, *b))
    }

    /// True when the point lies inside, by the even-odd rule.
    #[must_use]
    pub fn holds(&self, point: Point) -> bool {
        self.edges().fold(false, |inside, (a, b)| {
            let crosses = (a.y > point.y) != (b.y > point.y)
                && point.x < (b.x - a.x) * (point.y - a.y) / (b.y - a.y) + a.x;
            inside != crosses
        })
    }

    /// Points well inside, spread over level lines at odd fractions, so that few lie on an edge of
    /// anything else.
    fn interior_points(&self) -> Vec<Point> {
        let mut points = Vec::new();
        for part in 1..8 {
            let y = self.bounds.y0 + self.bounds.height() * (f64::from(part) / 8.0 + 0.001_37);
            let mut hits: Vec<f64> = self
                .edges()
                .filter(|(a, b)| (a.y > y) != (b.y > y))
                .map(|(a, b)| a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y))
                .collect();
            hits.sort_by(f64::total_cmp);
            for pair in hits.chunks_exact(2) {
                for share in [0.051, 0.31, 0.503, 0.71, 0.949] {
                    points.push(Point::new(pair[0] + (pair[1] - pair[0]) * share, y));
                }
            }
        }
        points
    }
}

type Edge = (Point, Point);

/// True when some stretch of `edge` between the boundary's edges lies inside by more than noise.
fn enters(edge: Edge, boundary: &[Edge], holds: impl Fn(Point) -> bool) -> bool {
    let (a, b) = edge;
    let along = b - a;
    let length = along.hypot();
    if length <= NOISE {
        return false;
    }
    let mut stops = vec![0.0, 1.0];
    for (c, d) in boundary {
        let other = *d - *c;
        let turn = along.cross(other);
        if turn.abs() > 1e-12 * length * other.hypot() {
            stops.push((*c - a).cross(other) / turn);
        } else {
            stops.extend([c, d].map(|point| (*point - a).dot(along) / (length * length)));
        }
    }
    stops.retain(|stop| (0.0..=1.0).contains(stop));
    stops.sort_by(f64::total_cmp);
    stops.windows(2).filter(|pair| (pair[1] - pair[0]) * length > NOISE).any(|pair| {
        let middle = a + along * f64::midpoint(pair[0], pair[1]);
        holds(middle) && boundary.iter().all(|side| distance(middle, *side) > NOISE)
    })
}

fn distance(point: Point, edge: Edge) -> f64 {
    point.distance(foot(point, edge))
}

/// The point of an edge that is nearest to another.
fn foot(point: Point, (a, b): Edge) -> Point {
    let along = b - a;
    let share = ((point - a).dot(along) / along.hypot2().max(f64::MIN_POSITIVE)).clamp(0.0, 1.0);
    a + along * share
}

/// True when the two segments cross properly: each one's ends lie on either side of the other.
fn cross(a: Point, b: Point, c: Point, d: Point) -> bool {
    let side = |p: Point, q: Point, r: Point| {
        let length = (q - p).hypot();
        if length == 0.0 { 0.0 } else { (q - p).cross(r - p) / length }
    };
    let (s1, s2) = (side(c, d, a), side(c, d, b));
    let (s3, s4) = (side(a, b, c), side(a, b, d));
    let apart = |p: f64, q: f64| (p > NOISE && q < -NOISE) || (p < -NOISE && q > NOISE);
    apart(s1, s2) && apart(s3, s4)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{circle, polygon};
    use proptest::prelude::*;

    fn square(x: f64, y: f64, side: f64) -> Outline {
        Outline::of_path(&polygon(&[
            Point::new(x, y),
            Point::new(x + side, y),
            Point::new(x + side, y + side),
            Point::new(x, y + side),
        ]))
        .unwrap()
    }

    #[test]
    fn touching_is_not_overlapping() {
        let (a, b) = (square(0.0, 0.0, 10.0), square(10.0, 0.0, 10.0));
        assert!(!a.overlaps_at(0.0, 0.0, &b));
        assert!(a.overlaps_at(0.01, 0.0, &b));
        assert!(a.overlaps_at(0.0, 0.0, &square(3.0, 3.0, 2.0)), "one inside the other");
        assert!(a.overlaps_at(0.0, 0.0, &a), "one on the other");
        assert!(a.overlaps_at(5.0, 0.0, &a), "along a common edge");
        assert!(Outline::new(vec![Point::ZERO, Point::new(1.0, 1.0)]).is_none());
    }

    /// A ring around the origin whose corners are so far from it.
    fn star(radii: &[f64]) -> Vec<Point> {
        let step = std::f64::consts::TAU / f64::from(u32::try_from(radii.len()).unwrap());
        radii
            .iter()
            .zip(0..)
            .map(|(radius, at)| {
                let (sin, cos) = (f64::from(at) * step).sin_cos();
                Point::new(radius * cos, radius * sin)
            })
            .collect()
    }

    proptest! {
        /// Against geo's distance between polygons, wherever the two lie.
        #[test]
        fn the_nearest_points_are_as_far_apart_as_geo_measures(
            one in prop::collection::vec(3.0..20.0f64, 3..12), other in prop::collection::vec(3.0..20.0f64, 3..12),
            dx in -60.0..60.0f64, dy in -60.0..60.0f64, turn in 0.0..7.0f64,
        ) {
            let [one, other] = [one, other].map(|radii| Outline::new(star(&radii)).unwrap());
            let other = other.transformed(Affine::translate((dx, dy)) * Affine::rotate(turn));
            let [a, b] = [&one, &other].map(|outline| {
                let ring = outline.points().iter().map(|p| (p.x, p.y)).collect();
                geo::Polygon::new(ring, Vec::new())
            });
            let exact = geo::Distance::distance(&geo::Euclidean, &a, &b);
            match one.nearest(&other, 30.0) {
                Some((gap, ..)) if gap < 0.0 => prop_assert!(exact < 1e-5, "{exact} apart"),
                Some((gap, from, to)) => {
                    prop_assert!((gap - exact).abs() < 1e-5, "{gap} instead of {exact}");
                    prop_assert!((from.distance(to) - gap).abs() < 1e-9);
                    prop_assert_eq!(one.clearance(&other, 30.0), Some(gap));
                    prop_assert_eq!(one.clearance(&other, gap * 0.99), None);
                }
                None => prop_assert!(exact > 30.0 - 1e-5, "{exact} apart"),
            }
        }

        /// Against the geo library's boolean operations, which share no code with this test.
        #[test]
        fn overlap_agrees_with_the_area_in_common(
            dx in -30.0..30.0f64, dy in -30.0..30.0f64, radius in 1.0..12.0f64, side in 1.0..25.0f64,
        ) {
            let disc = circle(Point::ZERO, radius);
            let block = square(-3.0, -2.0, side);
            let common = Region::inside(&(Affine::translate((dx, dy)) * disc.clone()))
                .intersection(&Region::rect(block.bounds()))
                .area();
            let found = Outline::of_path(&disc).unwrap().overlaps_at(dx, dy, &block);
            if common > 1e-3 { prop_assert!(found); }
            if common == 0.0 { prop_assert!(!found); }
        }
    }
}
