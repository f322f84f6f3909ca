//! Whether two plates pass through each other, and by how much.

use nalgebra::{Isometry3, Point3, Vector3};

use super::model::FoldPanel;
use crate::geometry::Point;

/// A hinge this far from a plane, mm, is off it.
const OFF: f64 = 0.02;

/// A plate in space.
pub(super) struct Plate<'a> {
    panel: &'a FoldPanel,
    place: Isometry3<f64>,
    points: Vec<Point3<f64>>,
    normal: Vector3<f64>,
    centre: Point3<f64>,
    radius: f64,
}

impl<'a> Plate<'a> {
    pub fn new(panel: &'a FoldPanel, place: Isometry3<f64>) -> Self {
        let points: Vec<Point3<f64>> =
            panel.ring.iter().map(|p| place * Point3::new(p.x, p.y, 0.0)).collect();
        let count = points.len().max(1) as f64;
        let sum = points.iter().fold(Vector3::zeros(), |sum, point| sum + point.coords);
        let centre = Point3::from(sum / count);
        let radius = points.iter().map(|p| (p - centre).norm()).fold(0.0, f64::max);
        Self { panel, place, points, normal: place.rotation * Vector3::z(), centre, radius }
    }

    fn height(&self, point: &Point3<f64>) -> f64 {
        (point - self.place.translation.vector).coords.dot(&self.normal)
    }

    /// How far another plate reaches to either side of this one's plane. Beyond its hinge its card goes
    /// on, so a hinge that is off the plane reaches any distance.
    fn reach_of(&self, other: &Self) -> [f64; 2] {
        let is_hung = other.panel.hang.is_some();
        let corners = other.points.iter().zip(&other.panel.ring);
        corners.fold([0.0, 0.0], |[below, above], (point, corner)| {
            let height = self.height(point);
            let is_hinge = is_hung && corner.y.abs() < 1e-9 && height.abs() > OFF;
            let reach = if is_hinge { f64::MAX.copysign(height) } else { height };
            [f64::max(below, -reach), f64::max(above, reach)]
        })
    }

    /// Where this plate's outline crosses another's plane, as positions along `way`, sorted.
    fn crossings(&self, other: &Self, way: &Vector3<f64>) -> Vec<f64> {
        let next = self.points.iter().cycle().skip(1);
        let mut found: Vec<f64> = self
            .points
            .iter()
            .zip(next)
            .filter_map(|(a, b)| {
                let (from, to) = (other.height(a), other.height(b));
                ((from >= 0.0) != (to >= 0.0))
                    .then(|| (a + (b - a) * (from / (from - to))).coords.dot(way))
            })
            .collect();
        found.sort_by(f64::total_cmp);
        found
    }

    /// How far this plate's card extends from a point of its plane, along its plane and square to
    /// `way`, in both directions; nothing where the point is not on the card.
    fn extent(&self, point: &Point3<f64>, way: &Vector3<f64>) -> [f64; 2] {
        let local = self.place.inverse() * point;
        let side = self.place.rotation.inverse() * self.normal.cross(way);
        let (at, ahead) = (Point::new(local.x, local.y), kurbo::Vec2::new(side.x, side.y));
        let mut hits: [Vec<f64>; 2] = [Vec::new(), Vec::new()];
        let is_hung = self.panel.hang.is_some();
        for ring in std::iter::once(&self.panel.ring).chain(&self.panel.openings) {
            let next = ring.iter().cycle().skip(1);
            for (a, b) in ring.iter().zip(next) {
                let (one, two) = (ahead.cross(*a - at), ahead.cross(*b - at));
                if (one >= 0.0) != (two >= 0.0) {
                    let hit = a.lerp(*b, one / (one - two));
                    let along = (hit - at).dot(ahead);
                    // Beyond its hinge the card goes on.
                    let is_hinge = is_hung && a.y.abs() < 1e-9 && b.y.abs() < 1e-9;
                    let reach = if is_hinge { f64::MAX } else { along.abs() };
                    hits[usize::from(along >= 0.0)].push(reach);
                }
            }
        }
        if hits[0].len().is_multiple_of(2) || hits[1].len().is_multiple_of(2) {
            return [0.0, 0.0];
        }
        hits.map(|side| side.into_iter().fold(f64::MAX, f64::min))
    }
}

/// How far two plates' middles reach through each other, mm; 0 where they do not.
///
/// Measured square to the line in which their planes meet: how far one stands out of the other on its
/// shorter side. Plates that only touch, or meet within `tolerance` of an edge, pass through by nothing.
pub(super) fn passes_through(one: &Plate<'_>, other: &Plate<'_>, tolerance: f64) -> f64 {
    if (one.centre - other.centre).norm() > one.radius + other.radius {
        return 0.0;
    }
    let (theirs, ours) = (one.reach_of(other), other.reach_of(one));
    let least = theirs.into_iter().chain(ours).fold(f64::MAX, f64::min);
    if least <= tolerance {
        return 0.0;
    }
    let way = one.normal.cross(&other.normal);
    let slant = way.norm();
    if slant < 1e-3 {
        return 0.0;
    }
    let way = way / slant;
    // A point on both planes.
    let (n, m) = (&one.normal, &other.normal);
    let (p, q) = (one.place.translation.vector.dot(n), other.place.translation.vector.dot(m));
    let cosine = n.dot(m);
    let base = (n * (p - q * cosine) + m * (q - p * cosine)) / (1.0 - cosine * cosine);

    let (a, b) = (one.crossings(other, &way), other.crossings(one, &way));
    let mut deepest = 0.0f64;
    for here in a.chunks_exact(2) {
        for there in b.chunks_exact(2) {
            let (from, to) = (here[0].max(there[0]), here[1].min(there[1]));
            if to - from <= tolerance {
                continue;
            }
            for share in [0.15, 0.5, 0.85] {
                let at = from + (to - from) * share;
                let point = Point3::from(base + way * (at - base.dot(&way)));
                let least = |plate: &Plate<'_>| {
                    plate.extent(&point, &way).into_iter().fold(f64::MAX, f64::min)
                };
                let (ours, theirs) = (least(one), least(other));
                // One sticks through the other by what it has on its shorter side, unless they meet
                // at the other's edge.
                for (through, card) in [(ours, theirs), (theirs, ours)] {
                    if card > tolerance {
                        deepest = deepest.max((through * slant).min(to - from));
                    }
                }
            }
        }
    }
    if deepest > tolerance { deepest } else { 0.0 }
}

/// How far a plate's corners have gone through another plate between two moments, mm: the greater of the
/// heights before and after, of the corner that moved furthest through the card. Corners that go round the
/// edge, or through an opening, do not count, nor those that are no more than `skin` off the plane
/// before or after.
pub(super) fn went_through(
    one: [&Plate<'_>; 2],
    other: [&Plate<'_>; 2],
    [tolerance, skin]: [f64; 2],
) -> f64 {
    let near =
        |at: usize| (one[at].centre - other[at].centre).norm() <= one[at].radius + other[at].radius;
    if !near(0) && !near(1) {
        return 0.0;
    }
    let ring = &other[0].panel.ring;
    let stride = one[0].points.len() / 24 + 1;
    let mut deepest = 0.0f64;
    for corner in (0..one[0].points.len()).step_by(stride) {
        let seen = |at: usize| other[at].place.inverse() * one[at].points[corner];
        let (before, after) = (seen(0), seen(1));
        let depth = before.z.abs().max(after.z.abs());
        let is_off = before.z.abs().min(after.z.abs()) > skin;
        if before.z * after.z >= 0.0 || !is_off || depth <= tolerance.max(deepest) {
            continue;
        }
        let share = before.z / (before.z - after.z);
        let at = before + (after - before) * share;
        let at = Point::new(at.x, at.y);
        let in_hole = |hole: &Vec<Point>| holds(hole, at) || from_edge(hole, at) < tolerance;
        let is_card = holds(ring, at) && !other[0].panel.openings.iter().any(in_hole);
        if is_card && from_edge(ring, at) > tolerance {
            deepest = depth;
        }
    }
    deepest
}

fn holds(ring: &[Point], at: Point) -> bool {
    let next = ring.iter().cycle().skip(1);
    ring.iter().zip(next).fold(false, |inside, (a, b)| {
        let crosses =
            (a.y > at.y) != (b.y > at.y) && at.x < (b.x - a.x) * (at.y - a.y) / (b.y - a.y) + a.x;
        inside != crosses
    })
}

fn from_edge(ring: &[Point], at: Point) -> f64 {
    use kurbo::ParamCurveNearest;
    let next = ring.iter().cycle().skip(1);
    let sides = ring.iter().zip(next).map(|(a, b)| kurbo::Line::new(*a, *b));
    sides.map(|side| side.nearest(at, 1e-9).distance_sq).fold(f64::MAX, f64::min).sqrt()
}
