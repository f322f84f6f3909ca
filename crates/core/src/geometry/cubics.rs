//! Smooth lines in as few cubics as stay within a tolerance.

use std::ops::Range;

use kurbo::{BezPath, CubicBez, ParamCurve, ParamCurveDeriv, Point, Vec2};

/// A place on a smooth line and its way there, per unit of the length along it.
pub(crate) struct Node {
    /// The place.
    pub at: Point,
    /// The way there.
    pub way: Vec2,
    /// How far along it lies.
    pub along: f64,
}

/// Draws the smooth line through nodes in as few cubics as stay within the tolerance, and as near as so many come; those
/// whose handles are nearer than `line` to their chord as lines.
pub(crate) fn append(path: &mut BezPath, nodes: &[Node], tolerance: f64, line: f64) {
    if path.elements().is_empty() {
        path.move_to(nodes[0].at);
    }
    let mut best = greedy(nodes, tolerance);
    for share in [0.8, 0.6, 0.4] {
        let closer = greedy(nodes, share * tolerance);
        if closer.len() > best.len() {
            break;
        }
        best = closer;
    }
    put(path, best.into_iter().map(|(own, _)| own), line);
}

/// Adds cubics to a path, those that are as good as straight as lines.
pub(super) fn put(path: &mut BezPath, cubics: impl Iterator<Item = CubicBez>, line: f64) {
    for CubicBez { p0, p1, p2, p3 } in cubics {
        let chord = (p3 - p0).normalize();
        if [p1, p2].iter().all(|handle| (*handle - p0).cross(chord).abs() < line) {
            path.line_to(p3);
        } else {
            path.curve_to(p1, p2, p3);
        }
    }
}

/// Cubics along nodes, each as long as it stays within the tolerance, with the nodes at its ends.
pub(super) fn greedy(nodes: &[Node], tolerance: f64) -> Vec<(CubicBez, Range<usize>)> {
    let last = nodes.len() - 1;
    let mut all = Vec::new();
    let mut from = 0;
    while from < last {
        let reach = |to: usize| {
            let (own, off) = cubic(&nodes[from..=to]);
            (off <= tolerance).then_some((to, own))
        };
        // Twice as far each time, then halving what is between.
        let mut best = (from + 1, cubic(&nodes[from..=from + 1]).0);
        let (mut step, mut bad) = (2, last + 1);
        while from + step <= last {
            let Some(further) = reach(from + step) else {
                bad = from + step;
                break;
            };
            best = further;
            step *= 2;
        }
        while bad - best.0 > 1 {
            let middle = usize::midpoint(best.0, bad);
            match reach(middle) {
                Some(further) => best = further,
                None => bad = middle,
            }
        }
        all.push((best.1, from..best.0));
        from = best.0;
    }
    all
}

/// The cubic along nodes that leaves the first and enters the last their way, by least squares (Schneider 1990), and how
/// far it strays from one of them.
fn cubic(nodes: &[Node]) -> (CubicBez, f64) {
    let (first, last) = (&nodes[0], &nodes[nodes.len() - 1]);
    let (start, end) = (first.at, last.at);
    let (out, into) = (first.way.normalize(), -last.way.normalize());
    let length = (last.along - first.along).max(1e-9);
    let chord = start.distance(end);
    let built = |one: f64, two: f64| CubicBez::new(start, start + out * one, end + into * two, end);
    let plain = built(chord / 3.0, chord / 3.0);
    let mut shares: Vec<f64> =
        nodes.iter().map(|node| (node.along - first.along) / length).collect();
    let off = |cubic: &CubicBez, shares: &[f64]| {
        let gaps = nodes.iter().zip(shares).map(|(node, t)| cubic.eval(*t).distance(node.at));
        gaps.fold(0.0, f64::max)
    };
    let mut best = (plain, off(&plain, &shares));
    for _ in 0..4 {
        let (mut c00, mut c01, mut c11, mut x0, mut x1) = (0.0, 0.0, 0.0, 0.0, 0.0);
        for (node, t) in nodes.iter().zip(&shares) {
            let (t, u) = (*t, 1.0 - *t);
            let (b1, b2) = (3.0 * u * u * t, 3.0 * u * t * t);
            let (one, two) = (out * b1, into * b2);
            let ends = start.to_vec2() * (u * u * u + b1) + end.to_vec2() * (b2 + t * t * t);
            let left = node.at.to_vec2() - ends;
            c00 += one.hypot2();
            c01 += one.dot(two);
            c11 += two.hypot2();
            x0 += one.dot(left);
            x1 += two.dot(left);
        }
        let det = c00 * c11 - c01 * c01;
        if det.abs() < 1e-12 {
            break;
        }
        let (one, two) = ((x0 * c11 - x1 * c01) / det, (c00 * x1 - c01 * x0) / det);
        // Handles that run back or far past the other end make loops.
        let range = 0.02 * chord..=1.4 * length;
        if !range.contains(&one) || !range.contains(&two) {
            break;
        }
        let own = built(one, two);
        // Each node to the nearest place near its own, by one step of Newton's.
        for (node, t) in nodes.iter().zip(&mut shares) {
            let (first, second) = (own.deriv(), own.deriv().deriv());
            let gap = own.eval(*t) - node.at;
            let slope = first.eval(*t).to_vec2();
            let bend = slope.hypot2() + gap.dot(second.eval(*t).to_vec2());
            if bend.abs() > 1e-12 {
                *t = (*t - gap.dot(slope) / bend).clamp(0.0, 1.0);
            }
        }
        let gap = off(&own, &shares);
        if gap < best.1 {
            best = (own, gap);
        }
    }
    best
}
