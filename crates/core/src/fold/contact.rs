//! Whether two plates pass through each other, and by how much.

use nalgebra::{Isometry3, Point3, Vector3};

use super::model::FoldPanel;
use crate::geometry::{Point, Region, polygon};

/// A hinge this far from a plane, mm, is off it.
const OFF: f64 = 0.02;

/// Plates whose planes are turned by less, as the sine of the angle, lie in parallel.
const PARALLEL: f64 = 1e-3;

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

    /// Where it is, seen from another plate.
    pub fn seen_from(&self, other: &Self) -> Isometry3<f64> {
        other.place.inverse() * self.place
    }

    /// True when they cannot touch.
    pub fn is_far_from(&self, other: &Self) -> bool {
        let reach = self.radius + other.radius;
        (self.centre - other.centre).norm_squared() > reach * reach
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
/// Measured square to the line in which their planes meet: how far either stands out of the other on its
/// shorter side, and of the two the greater. Plates that only touch, or meet within `tolerance` of an edge,
/// pass through by nothing.
pub(super) fn passes_through(one: &Plate<'_>, other: &Plate<'_>, tolerance: f64) -> f64 {
    if one.is_far_from(other) {
        return 0.0;
    }
    let (theirs, ours) = (one.reach_of(other), other.reach_of(one));
    let least = theirs.into_iter().chain(ours).fold(f64::MAX, f64::min);
    if least <= tolerance {
        return 0.0;
    }
    let way = one.normal.cross(&other.normal);
    let slant = way.norm();
    if slant < PARALLEL {
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

/// How far two plates that lie in one plane lie in each other, mm: about the width of what they share, twice
/// its area over its outline. 0 for plates a good half of a caliper apart or more, as layers on each other
/// are, for the strips of a curve, which lie off it by more than that, and for a width within the caliper.
pub(super) fn lies_in(one: &Plate<'_>, other: &Plate<'_>, caliper: f64) -> f64 {
    if one.panel.strip_of.is_some() || other.panel.strip_of.is_some() {
        return 0.0;
    }
    if one.is_far_from(other) || one.normal.cross(&other.normal).norm() > PARALLEL {
        return 0.0;
    }
    let is_off =
        |plate: &Plate<'_>, point: &Point3<f64>| plate.height(point).abs() > 0.55 * caliper;
    if is_off(one, &other.centre) || is_off(other, &one.centre) {
        return 0.0;
    }
    let ring = |plate: &Plate<'_>, ring: &[Point]| -> Vec<Point> {
        let seen = ring.iter().map(|p| plate.place * Point3::new(p.x, p.y, 0.0));
        let local = seen.map(|point| one.place.inverse() * point);
        local.map(|point| Point::new(point.x, point.y)).collect()
    };
    let card = |plate: &Plate<'_>| {
        let whole = Region::inside(&polygon(&ring(plate, &plate.panel.ring)));
        plate
            .panel
            .openings
            .iter()
            .fold(whole, |card, hole| card.minus(&Region::inside(&polygon(&ring(plate, hole)))))
    };
    let shared = card(one).intersection(&card(other));
    let width = |ring: &Vec<Point>| {
        let round = ring.iter().zip(ring.iter().cycle().skip(1));
        let (area, long) = round.fold((0.0, 0.0), |(area, long), (a, b)| {
            (area + a.to_vec2().cross(b.to_vec2()) / 2.0, long + a.distance(*b))
        });
        2.0 * f64::abs(area) / f64::max(long, 1e-9)
    };
    let widest = shared.outer_rings().iter().map(width).fold(0.0, f64::max);
    if widest > caliper { widest } else { 0.0 }
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
    let ring = &other[0].panel.ring;
    let to_other = [other[0].place.inverse(), other[1].place.inverse()];
    let stride = one[0].points.len() / 24 + 1;
    let mut deepest = 0.0f64;
    for corner in (0..one[0].points.len()).step_by(stride) {
        let seen = |at: usize| to_other[at] * one[at].points[corner];
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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Role;
    use nalgebra::{Translation3, UnitQuaternion};

    fn square(side: f64, openings: Vec<Vec<Point>>) -> FoldPanel {
        FoldPanel {
            name: "Square".to_owned(),
            strip_of: None,
            soft: Vec::new(),
            role: Role::Face,
            part: 0,
            hang: None,
            fold: 0.0,
            lift: 0.0,
            frame: kurbo::Affine::IDENTITY,
            ring: ring(side, Point::ZERO),
            openings,
        }
    }

    fn ring(side: f64, from: Point) -> Vec<Point> {
        [(0.0, 0.0), (0.0, side), (side, side), (side, 0.0)]
            .map(|(x, y)| from + kurbo::Vec2::new(x, y))
            .to_vec()
    }

    fn moved(x: f64, y: f64, z: f64) -> Isometry3<f64> {
        Isometry3::from_parts(Translation3::new(x, y, z), UnitQuaternion::identity())
    }

    /// Standing on edge at `x`, from `z` up.
    fn standing(x: f64, z: f64) -> Isometry3<f64> {
        let up = UnitQuaternion::from_axis_angle(&Vector3::y_axis(), -std::f64::consts::FRAC_PI_2);
        Isometry3::from_parts(Translation3::new(x, 2.0, z), up)
    }

    #[test]
    fn a_plate_through_another_is_as_deep_as_its_shorter_side() {
        let (lying, upright) = (square(20.0, Vec::new()), square(10.0, Vec::new()));
        let depth = |z: f64| {
            let (a, b) =
                (Plate::new(&lying, moved(0.0, 0.0, 0.0)), Plate::new(&upright, standing(16.0, z)));
            passes_through(&a, &b, 0.4).max(passes_through(&b, &a, 0.4))
        };
        // 5 of the upright one's 10 on either side; 4 of the lying one's 20 beyond.
        assert!((depth(-5.0) - 5.0).abs() < 1e-9, "{}", depth(-5.0));
        assert!((depth(-2.0) - 4.0).abs() < 1e-9, "{}", depth(-2.0));
        assert_eq!(depth(0.0), 0.0, "standing on it");
        assert_eq!(depth(-0.3), 0.0, "within the tolerance");
        assert_eq!(depth(5.0), 0.0, "above it");
    }

    #[test]
    fn plates_that_meet_at_an_edge_or_in_an_opening_do_not_pass_through() {
        let upright = square(10.0, Vec::new());
        let whole = square(20.0, Vec::new());
        let at = |plate: &FoldPanel, x: f64| {
            let (a, b) =
                (Plate::new(plate, moved(0.0, 0.0, 0.0)), Plate::new(&upright, standing(x, -5.0)));
            passes_through(&a, &b, 0.4)
        };
        assert_eq!(at(&whole, 20.0), 0.0, "at its edge");
        assert_eq!(at(&whole, 19.8), 0.0, "within the tolerance of its edge");
        assert!(at(&whole, 15.0) > 4.9);
        let open = square(20.0, vec![ring(14.0, Point::new(3.0, 1.0))]);
        assert_eq!(at(&open, 10.0), 0.0, "through the opening");
    }

    #[test]
    fn what_goes_through_between_two_moments_is_found_and_what_goes_round_is_not() {
        let (card, flap) = (square(20.0, Vec::new()), square(4.0, Vec::new()));
        let through = |from: Isometry3<f64>, to: Isometry3<f64>| {
            let wall = Plate::new(&card, moved(0.0, 0.0, 0.0));
            let (before, after) = (Plate::new(&flap, from), Plate::new(&flap, to));
            went_through([&before, &after], [&wall, &wall], [1.0, 0.1])
        };
        assert!(
            through(moved(8.0, 8.0, 6.0), moved(8.0, 8.0, -0.4)) > 5.0,
            "down through the card"
        );
        assert_eq!(through(moved(30.0, 8.0, 6.0), moved(30.0, 8.0, -6.0)), 0.0, "past its side");
        assert_eq!(through(moved(8.0, 8.0, 6.0), moved(8.0, 8.0, 0.05)), 0.0, "down onto it");
        assert_eq!(through(moved(8.0, 8.0, 6.0), moved(8.0, 8.0, 3.0)), 0.0, "towards it");
    }
}
