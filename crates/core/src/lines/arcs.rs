//! Arcs that were written as many short straight lines, recognised.

use kurbo::{Arc, BezPath, PathEl, Point};

use crate::geometry::middle_of;

/// A run of fewer sides is no arc but a polygon.
const LEAST_SIDES: usize = 6;

/// How far corners may lie off the arc, mm.
const OFF: f64 = 0.01;

/// Sides turn into each other by no more than this, radians: a polygon of two dozen sides stays one.
const TURN: f64 = 0.2;

/// Sides of one arc differ in length by no more than this factor; the first and the last may be shorter.
const EVEN: f64 = 1.6;

/// An arc goes through no less than this, radians.
const LEAST: f64 = 0.15;

/// The lines, in mm, with runs of short sides on one circle as arcs, and how many these are.
#[must_use]
pub fn with_arcs(lines: Vec<BezPath>) -> (Vec<BezPath>, usize) {
    let mut found = 0;
    let lines = lines
        .into_iter()
        .map(|path| {
            let Some(corners) = corners(&path) else { return path };
            let is_closed = path.elements().last() == Some(&PathEl::ClosePath);
            let (changed, arcs) = redrawn(&corners, is_closed);
            found += arcs;
            if arcs > 0 { changed } else { path }
        })
        .collect();
    (lines, found)
}

/// The corners of a line that is all straight sides, enough of them for an arc.
fn corners(path: &BezPath) -> Option<Vec<Point>> {
    let mut corners = Vec::with_capacity(path.elements().len());
    for element in path.elements() {
        match element {
            PathEl::MoveTo(to) | PathEl::LineTo(to) => corners.push(*to),
            PathEl::ClosePath => {}
            PathEl::QuadTo(..) | PathEl::CurveTo(..) => return None,
        }
    }
    (corners.len() > LEAST_SIDES).then_some(corners)
}

fn redrawn(corners: &[Point], is_closed: bool) -> (BezPath, usize) {
    let mut corners = corners.to_vec();
    if is_closed && corners.first() != corners.last() {
        corners.extend(corners.first().copied());
    }
    let mut path = BezPath::new();
    path.move_to(corners[0]);
    let (mut at, mut arcs) = (0, 0);
    while at + 1 < corners.len() {
        match run(&corners[at..]) {
            Some((sides, middle)) => {
                draw(&mut path, &corners[at..=at + sides], middle);
                arcs += 1;
                at += sides;
            }
            None => {
                at += 1;
                path.line_to(corners[at]);
            }
        }
    }
    if is_closed {
        path.close_path();
    }
    (path, arcs)
}

/// The longest run of sides from the first corner on that lie on one circle: how many, and its middle.
fn run(corners: &[Point]) -> Option<(usize, Point)> {
    middle_of(corners.first_chunk::<3>()?)?;
    let side = (corners[1] - corners[0]).cross(corners[2] - corners[1]).signum();
    let mut best = None;
    let mut longest = corners[0].distance(corners[1]);
    let mut shortest = f64::INFINITY;
    let mut through = 0.0;
    for last in 2..corners.len() {
        let (into, out) =
            (corners[last - 1] - corners[last - 2], corners[last] - corners[last - 1]);
        let turn = into.cross(out).atan2(into.dot(out)) * side;
        through += turn;
        if !(1e-6..=TURN).contains(&turn) || through > std::f64::consts::TAU {
            break;
        }
        // Those within are alike; the last may be cut short.
        longest = longest.max(out.hypot());
        if last > 2 {
            shortest = shortest.min(into.hypot());
        }
        if longest > EVEN * shortest {
            break;
        }
        let half = corners[..=last].len() / 2;
        let Some(wide) = middle_of(&[corners[0], corners[half], corners[last]]) else { break };
        let radius = wide.distance(corners[0]);
        let is_on = |own: &Point| (own.distance(wide) - radius).abs() <= OFF;
        if !corners[..=last].iter().all(is_on) {
            break;
        }
        if last >= LEAST_SIDES && through >= LEAST {
            best = Some((last, wide));
        }
    }
    best
}

/// The arc about a middle that a run of corners lies on, as cubics.
fn draw(path: &mut BezPath, run: &[Point], middle: Point) {
    let (Some(first), Some(last)) = (run.first(), run.last()) else { return };
    let (from, to) = (*first - middle, *last - middle);
    let sign = (run[1] - *first).cross(run[2] - run[1]).signum();
    let mut through = from.cross(to).atan2(from.dot(to));
    if through * sign <= 1e-9 {
        through += std::f64::consts::TAU * sign;
    }
    let radius = from.hypot();
    let arc = Arc::new(middle, (radius, radius), from.atan2(), through, 0.0);
    let mut drawn: Vec<PathEl> = arc.append_iter(1e-4).collect();
    // It ends just where the sides did.
    if let Some(PathEl::CurveTo(_, _, end)) = drawn.last_mut() {
        *end = *last;
    }
    path.extend(drawn);
}
