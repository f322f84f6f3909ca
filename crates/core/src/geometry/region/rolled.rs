//! Round borders of outlines with very many corners: the way of a disc that rolls along them.
//!
//! Where a disc of the border's radius touches points of the outline and holds none, its centre lies on the border.
//! Such discs are found in the points' Delaunay triangulation: the circles through two neighbours that hold no other
//! point have their centres between those of the circles around the two triangles beside them (alpha shapes:
//! Edelsbrunner, Kirkpatrick and Seidel 1983).

use std::f64::consts::TAU;

use geo::algorithm::bool_ops::FillRule;
use geo::{CoordsIter, Simplify};
use kurbo::{Point, Vec2};
use spade::handles::{DirectedEdgeHandle, FaceHandle, InnerTag};
use spade::{DelaunayTriangulation, Point2, Triangulation};

use super::{Region, STRAY, chord};

/// How far the border of a straight edge may dip between the points that stand for it, mm.
const DIP: f64 = 5e-4;

/// Most points that stand for an outline, for each of its corners.
const MOST: usize = 10;

/// Turns smaller than this, radians, are none: the disc touches several points at once.
const NO_TURN: f64 = 1e-7;

type Points = DelaunayTriangulation<Point2<f64>>;

type Edge<'a> = DirectedEdgeHandle<'a, Point2<f64>, (), (), ()>;

/// The region grown by `distance` mm with rounded corners, or held smaller where it is below 0. `None` where it would take
/// too many points.
pub(super) fn bordered(region: &Region, distance: f64) -> Option<Region> {
    let radius = distance.abs();
    let points = Points::bulk_load(sampled(region, (8.0 * radius * DIP).sqrt())?).ok()?;
    let wanted =
        rings(&points, radius).into_iter().filter(|ring| region.holds(ring[0]) == (distance < 0.0));
    let bordered = Region::of_winding(wanted.collect(), FillRule::EvenOdd);
    Some(Region(bordered.0.simplify(STRAY)))
}

fn point(at: Point2<f64>) -> Point {
    Point::new(at.x, at.y)
}

/// Points along the edge of a region, none further from the next than `apart`.
fn sampled(region: &Region, apart: f64) -> Option<Vec<Point2<f64>>> {
    let corners = region.0.coords_count();
    let mut points = Vec::with_capacity(corners);
    for ring in region.rings() {
        let count = ring.points.len();
        for (at, from) in ring.points.iter().enumerate() {
            let to = ring.points[(at + 1) % count];
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "checked")]
            let parts = (from.distance(to) / apart).ceil().clamp(1.0, 1e6) as usize;
            if points.len() + parts > MOST * corners {
                return None;
            }
            for part in 0..parts {
                #[expect(clippy::cast_precision_loss, reason = "small counts")]
                let between = from.lerp(to, part as f64 / parts as f64);
                points.push(Point2::new(between.x, between.y));
            }
        }
    }
    Some(points)
}

/// Whether a disc of `radius` fits into the circle around a triangle, and whether that circle's centre lies on the
/// triangle's side of `edge`. Beyond the outermost edges both hold.
fn beside(edge: Edge<'_>, radius: f64) -> (bool, bool) {
    let Some(face) = edge.face().as_inner() else { return (true, true) };
    let [from, to] = edge.positions();
    let Some(tip) = edge.opposite_position() else { return (true, true) };
    let (one, other) = (point(from) - point(tip), point(to) - point(tip));
    (is_open(face, radius), one.dot(other) > 0.0)
}

fn is_open(face: FaceHandle<'_, InnerTag, Point2<f64>, (), (), ()>, radius: f64) -> bool {
    face.circumcircle().1 >= radius * radius
}

/// The centre of the disc of `radius` to the left of an edge that touches both its ends and holds no other point.
fn disc(edge: Edge<'_>, radius: f64) -> Option<Point> {
    let ((left, left_near), (right, right_near)) =
        (beside(edge, radius), beside(edge.rev(), radius));
    let [from, to] = edge.positions().map(point);
    let side = to - from;
    let height = radius * radius - side.hypot2() / 4.0;
    // Between a circle that the disc fits into and one that it does not it passes once, between two of the first kind
    // twice or never.
    let passes = left && (!right || (left_near && right_near && height >= 0.0));
    let across = Vec2::new(-side.y, side.x).normalize();
    passes.then(|| from.midpoint(to) + across * height.max(0.0).sqrt())
}

/// The ways of the disc's centre, each closed, arcs in chords that stray from them by a thousandth of a millimetre.
///
/// The disc rolls with what it touches to its right. Around a point it turns with the clock, from the edge on which it
/// came to the first on which it can leave.
fn rings(points: &Points, radius: f64) -> Vec<Vec<Point>> {
    let discs: Vec<Option<Point>> =
        points.directed_edges().map(|edge| disc(edge, radius)).collect();
    let chord = chord(radius);
    let mut is_done = vec![false; discs.len()];
    let mut rings = Vec::new();
    for start in points.directed_edges() {
        let (mut ring, mut edge) = (Vec::new(), start);
        while let Some(centre) = discs[edge.index()].filter(|_| !is_done[edge.index()]) {
            is_done[edge.index()] = true;
            ring.push(centre);
            let mut next = edge.rev().cw();
            while discs[next.index()].is_none() && next != edge.rev() {
                next = next.cw();
            }
            let around = point(next.from().position());
            let (from, to) = (centre - around, discs[next.index()].unwrap_or(centre) - around);
            let turn = (from.atan2() - to.atan2()).rem_euclid(TAU);
            let turn = if turn > TAU - NO_TURN { 0.0 } else { turn };
            let mut part = chord;
            while part < turn - chord / 4.0 {
                ring.push(around + Vec2::from_angle(from.atan2() - part) * radius);
                part += chord;
            }
            edge = next;
        }
        if ring.len() > 2 {
            rings.push(ring);
        }
    }
    rings
}
