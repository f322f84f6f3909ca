//! What a path becomes in a drawing: straight sides and arcs in one polyline, other curves in one spline.

use aptum_core::geometry::{BezPath, CubicBez, PathEl, PathSeg, Point, turn_of};

/// How far apart two places are one, mm.
const SAME: f64 = 1e-9;

/// Where a curve turns by more than this, radians, it is two: not every reader takes a spline with a corner.
const KINK: f64 = 0.01;

/// One thing of the drawing.
pub(super) enum Entity {
    /// Corners, and with each the bulge of what leads to the next: a quarter of the arc's angle as its tangent, 0 where it
    /// is straight, above 0 against the clock.
    Run { corners: Vec<(Point, f64)>, is_closed: bool },
    /// Cubics end to end: where they begin, and for each its two handles and its end.
    Cubics(Vec<Point>),
}

/// Each subpath, `y` up.
pub(super) fn entities(path: &BezPath) -> Vec<Entity> {
    let mut found = Vec::new();
    for subpath in path.subpaths() {
        let subpath = BezPath::from_vec(subpath.to_vec());
        let is_closed = subpath.elements().last() == Some(&PathEl::ClosePath);
        let from = found.len();
        let cubics: Vec<(CubicBez, Option<f64>)> =
            subpath.segments().map(|own| (own.to_cubic(), bulge(&own))).collect();
        // What only in part is of arcs is not cut up for them.
        let is_round = cubics.iter().all(|(_, bulge)| bulge.is_some());
        for (cubic, bulge) in cubics {
            add(&mut found, from, &cubic, bulge.filter(|bulge| is_round || *bulge == 0.0));
        }
        close(&mut found, from, is_closed);
    }
    found
}

/// A quarter of an arc's angle as its tangent, 0 for a straight side, none for another curve.
fn bulge(segment: &PathSeg) -> Option<f64> {
    match segment {
        PathSeg::Line(_) => Some(0.0),
        curve => turn_of(&curve.to_cubic()).map(|turn| (turn / 4.0).tan()),
    }
}

/// Adds a segment to the last entity from `from` on, or as one of its own.
fn add(found: &mut Vec<Entity>, from: usize, cubic: &CubicBez, bulge: Option<f64>) {
    let last = found.get_mut(from..).and_then(<[Entity]>::last_mut);
    match (bulge, last) {
        (Some(bulge), Some(Entity::Run { corners, .. })) => {
            if let Some(last) = corners.last_mut() {
                last.1 = bulge;
            }
            corners.push((cubic.p3, 0.0));
        }
        (Some(bulge), _) => {
            let corners = vec![(cubic.p0, bulge), (cubic.p3, 0.0)];
            found.push(Entity::Run { corners, is_closed: false });
        }
        (None, Some(Entity::Cubics(points))) if goes_on(points, cubic) => {
            points.extend([cubic.p1, cubic.p2, cubic.p3]);
        }
        (None, _) => found.push(Entity::Cubics(vec![cubic.p0, cubic.p1, cubic.p2, cubic.p3])),
    }
}

/// True where a cubic goes on the way that the ones before it ended.
fn goes_on(points: &[Point], next: &CubicBez) -> bool {
    let [.., handle, end] = points else { return false };
    let (into, out) = (*end - *handle, next.p1 - next.p0);
    into.hypot() > SAME && out.hypot() > SAME && into.cross(out).atan2(into.dot(out)).abs() < KINK
}

/// A closed subpath of one run is a closed one.
fn close(found: &mut [Entity], from: usize, is_closing: bool) {
    let [Entity::Run { corners, is_closed }] = &mut found[from..] else { return };
    let [first, .., last] = corners.as_slice() else { return };
    // A closed subpath's last side leads back to where it began.
    if is_closing && corners.len() > 2 && first.0.distance(last.0) < SAME {
        corners.pop();
        *is_closed = true;
    }
}
