//! Lines and curves through a ring of points: straight where it is straight, corners where it has them, and between
//! them as few cubics as stay within a tolerance.

use kurbo::{BezPath, Point, Shape, Vec2};

use super::corners::{Corner, Even, corners, direction, meeting, roughness};
use crate::geometry::{Ends, Node, append, append_few};

/// A ring drawn in lines and curves.
#[derive(Debug, Clone)]
pub(super) struct Fitted {
    /// Closed.
    pub path: BezPath,
    /// Where it has corners.
    pub corners: Vec<Point>,
}

/// How far the points of a clean picture's line stray from smooth ones, px.
const CLEAN: f64 = 0.009;

/// From where on noise hides corners unless a longer way is looked at, px: without shades of grey at the edge it is a
/// tenth.
const ROUGH: f64 = 0.045;

/// A curve whose handles are nearer to its chord than this, px, is a line.
const LIKE_A_LINE: f64 = 0.02;

/// A stretch of a ring from one place to the next.
struct Stretch {
    from: Corner,
    /// True where it follows the ring from point to point.
    exact: bool,
}

/// Draws a ring to within `tolerance` px of what its points show once their noise is taken off them. Near places where
/// lines would cross it goes from point to point. `is_close` spends more curves, each nearer to its own points.
pub(super) fn fit(ring: &[Point], tolerance: f64, crossings: &[Point], is_close: bool) -> Fitted {
    let drawn = Even::new(ring).map(|even| drawn(&even, tolerance, crossings, is_close));
    // Of what is hardly larger than a pixel little may be left.
    let drawn = drawn.filter(|own| own.path.area().abs() > 0.3 * super::rings::area(ring).abs());
    drawn.unwrap_or_else(|| Fitted { path: crate::geometry::polygon(ring), corners: Vec::new() })
}

fn drawn(even: &Even, tolerance: f64, crossings: &[Point], is_close: bool) -> Fitted {
    // What may stray further may also be looked at over a longer way, which takes more noise off it.
    let rough = roughness(even);
    let blur = (tolerance / 0.35).clamp(1.0, 16.0).sqrt().max((rough / ROUGH).min(1.6));
    // What strays to one side all the way changes what the line encloses, so clean lines are kept to closely; where there
    // is noise, following it takes nodes and gains nothing.
    let stray = tolerance * (0.2 + 0.2 * ((rough / CLEAN).clamp(1.0, 8.0) - 1.0));
    let put = |path: &mut BezPath, nodes: &[Node], ends: Ends| {
        if is_close {
            append(path, nodes, stray, LIKE_A_LINE);
        } else {
            append_few(path, nodes, ends, stray, LIKE_A_LINE);
        }
    };
    let stretches = stretches(even, corners(even, blur), crossings);
    let mut path = BezPath::new();
    if stretches.is_empty() {
        let nodes = smooth_nodes(&even.points, true, even.spacing, blur);
        put(&mut path, &nodes, Ends::Joined);
        path.close_path();
        return Fitted { path, corners: Vec::new() };
    }
    let count = stretches.len();
    let mut corners: Vec<Point> = stretches.iter().map(|own| own.from.point).collect();
    let next = |at: usize| (at + 1) % count;
    let sections: Vec<Vec<Point>> = (0..count)
        .map(|at| between(even, &stretches[at].from, &stretches[next(at)].from))
        .collect();
    let lines: Vec<Option<(Point, Vec2)>> = (0..count)
        .map(|at| {
            let (from, to) = (&stretches[at].from, &stretches[next(at)].from);
            let own = apart(&sections[at], even.steps(from.narrow), even.steps(to.narrow));
            let line = straight(own, corners[at], corners[next(at)], 0.22 * blur);
            line.filter(|_| !stretches[at].exact)
        })
        .collect();
    // Corners between two straight sides lie where these meet.
    for at in 0..count {
        let before = lines[(at + count - 1) % count];
        let corner = &stretches[at].from;
        if let (Some(before), Some(after)) = (before, lines[at])
            && corner.rounding > 0.0
            && let Some(point) = meeting(before, after)
            && (point.distance(corners[at]) < 0.8
                || even.off(corner.at.cast_signed(), even.steps(blur), point) <= corner.cut)
        {
            corners[at] = point;
        }
    }
    path.move_to(corners[0]);
    for at in 0..count {
        let (from, to) = (corners[at], corners[next(at)]);
        if stretches[at].exact {
            sections[at].iter().step_by(2).skip(1).for_each(|point| path.line_to(*point));
            path.line_to(to);
        } else if lines[at].is_some() || sections[at].len() < 4 {
            path.line_to(to);
        } else {
            let points: Vec<Point> =
                std::iter::once(from).chain(sections[at].iter().copied()).chain([to]).collect();
            let nodes = smooth_nodes(&points, false, even.spacing, blur);
            put(&mut path, &nodes, Ends::Placed);
        }
    }
    path.close_path();
    let corners = corners.into_iter().zip(&stretches).filter(|(_, own)| own.from.rounding > 0.0);
    Fitted { path, corners: corners.map(|(corner, _)| corner).collect() }
}

/// A ring's corners, and beside them both ends of what is near a crossing.
fn stretches(ring: &Even, corners: Vec<Corner>, crossings: &[Point]) -> Vec<Stretch> {
    let count = ring.len();
    let reach = ring.steps(3.0).cast_unsigned();
    let mut near = vec![false; count];
    for crossing in crossings {
        let off = |at: &usize| ring.points[*at].distance_squared(*crossing);
        let all = (0..count).min_by(|one, other| off(one).total_cmp(&off(other)));
        let at = all.unwrap_or(0) + count;
        (at - reach..=at + reach).for_each(|at| near[at % count] = true);
    }
    let mut all: Vec<Stretch> = corners
        .into_iter()
        .filter(|corner| !near[corner.at])
        .map(|from| Stretch { from, exact: false })
        .collect();
    for at in 0..count {
        let (before, here) = (near[(at + count - 1) % count], near[at]);
        if before != here {
            let from = Corner { at, point: ring.points[at], rounding: 0.0, narrow: 0.0, cut: 0.0 };
            all.push(Stretch { from, exact: here });
        }
    }
    all.sort_by_key(|own| own.from.at);
    all
}

/// The points between two corners, without those that pixels rounded off.
fn between(ring: &Even, from: &Corner, to: &Corner) -> Vec<Point> {
    let count = ring.len().cast_signed();
    let (first, mut last) = (from.at.cast_signed(), to.at.cast_signed());
    if last <= first {
        last += count;
    }
    let first = first + ring.steps(from.rounding);
    let last = last - ring.steps(to.rounding);
    (first..=last).map(|at| ring.at(at)).collect()
}

/// What of a section does not lie beside another in a narrow tip at either end; all of it where little would be left.
fn apart(section: &[Point], from: isize, to: isize) -> &[Point] {
    let [from, to] = [from, to].map(isize::cast_unsigned);
    section
        .get(from..section.len().saturating_sub(to))
        .filter(|own| own.len() > 11)
        .unwrap_or(section)
}

/// The straight line of a section that strays from one by less than `most`.
fn straight(section: &[Point], from: Point, to: Point, most: f64) -> Option<(Point, Vec2)> {
    let chord = to - from;
    let way = chord.normalize();
    if section.len() < 3 {
        return Some((from, way));
    }
    let line = direction(section.iter().copied(), from);
    let off = |point: &Point| (*point - line.0).cross(line.1);
    // A shallow bow strays to one side in its middle: what is left after taking off the line must not.
    let third = section.len() / 3;
    let mean = |part: &[Point]| part.iter().map(off).sum::<f64>() / real(part.len().max(1));
    let bow = mean(&section[third..section.len() - third])
        - f64::midpoint(mean(&section[..third]), mean(&section[section.len() - third..]));
    // Next to corners pixels leave more.
    let ends = section.len().min(6);
    let is_near = |index: usize| index < ends || index + ends >= section.len();
    let all = section.iter().enumerate();
    let is_straight = all
        .map(|(at, point)| (is_near(at), off(point).abs()))
        .all(|(is_near, off)| off <= if is_near { 1.6 * most } else { most })
        && (section.len() < 12 || bow.abs() < 0.35 * most);
    is_straight.then_some(line)
}

/// Nodes of a smooth line through points, noise taken off them: a parabola in the length along through those near each,
/// by least squares (Savitzky and Golay 1964), which leaves bends where they are.
fn smooth_nodes(points: &[Point], is_ring: bool, spacing: f64, blur: f64) -> Vec<Node> {
    let count = points.len();
    let reach = whole((2.4 * blur / spacing).round().clamp(2.0, 200.0));
    let mut along = Vec::with_capacity(count + 1);
    let mut sum = 0.0;
    for at in 0..count {
        along.push(sum);
        sum += points[at].distance(points[(at + 1) % count]);
    }
    let length = if is_ring { sum } else { along[count - 1] };
    let pieces = (length / (1.5 * blur)).round().max(2.0);
    let step = (real(if is_ring { count } else { count - 1 }) / pieces).max(1.0);
    let mut nodes = Vec::new();
    let mut next = 0.0;
    let last = if is_ring { count } else { count - 1 };
    loop {
        let at = whole(next).min(last);
        let is_last = at == last || real(last) - next < 0.5 * step;
        let at = if is_last { last } else { at };
        let place = if at == count { length } else { along[at] };
        let near = (at.cast_signed() - reach.cast_signed())..=(at + reach).cast_signed();
        let samples = near.filter_map(|index| {
            let whole = count.cast_signed();
            if is_ring {
                let round = real_signed(index.div_euclid(whole)) * length;
                let index = index.rem_euclid(whole).cast_unsigned();
                Some((along[index] + round - place, points[index]))
            } else {
                let index = usize::try_from(index).ok().filter(|index| *index < count)?;
                Some((along[index] - place, points[index]))
            }
        });
        let samples: Vec<(f64, Point)> = samples.collect();
        let is_end = !is_ring && (at == 0 || at == last);
        let here = points[at % count];
        let (middle, way) = parabola(&samples, here, is_end);
        nodes.push(Node { at: middle, way, along: place });
        if is_last {
            return nodes;
        }
        next += step;
    }
}

/// The place and the way at 0 of the parabola through samples by least squares; one that is fixed goes through `here`.
fn parabola(samples: &[(f64, Point)], here: Point, is_fixed: bool) -> (Point, Vec2) {
    let mut s = [0.0; 5];
    let mut r = [Vec2::ZERO; 3];
    for (t, point) in samples {
        let off = *point - here;
        let mut power = 1.0;
        for (at, sum) in s.iter_mut().enumerate() {
            *sum += power;
            if at < 3 {
                r[at] += off * power;
            }
            power *= t;
        }
    }
    let fallback = || {
        let (first, last) = (samples[0], samples[samples.len() - 1]);
        let long = (last.0 - first.0).max(1e-9);
        (here, (last.1 - first.1) / long)
    };
    if is_fixed {
        // b t + c t².
        let det = s[2] * s[4] - s[3] * s[3];
        if det.abs() < 1e-12 || samples.len() < 4 {
            return fallback();
        }
        return (here, (r[1] * s[4] - r[2] * s[3]) / det);
    }
    let det = s[0] * (s[2] * s[4] - s[3] * s[3]) - s[1] * (s[1] * s[4] - s[3] * s[2])
        + s[2] * (s[1] * s[3] - s[2] * s[2]);
    if det.abs() < 1e-12 || samples.len() < 4 {
        return fallback();
    }
    let a = r[0] * (s[2] * s[4] - s[3] * s[3]) - r[1] * (s[1] * s[4] - s[2] * s[3])
        + r[2] * (s[1] * s[3] - s[2] * s[2]);
    let b = r[0] * -(s[1] * s[4] - s[3] * s[2]) + r[1] * (s[0] * s[4] - s[2] * s[2])
        - r[2] * (s[0] * s[3] - s[1] * s[2]);
    (here + a / det, b / det)
}

#[expect(clippy::cast_precision_loss, reason = "points of a ring")]
const fn real(count: usize) -> f64 {
    count as f64
}

#[expect(clippy::cast_precision_loss, reason = "points of a ring")]
const fn real_signed(count: isize) -> f64 {
    count as f64
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
fn whole(value: f64) -> usize {
    value.clamp(0.0, 1e9) as usize
}
