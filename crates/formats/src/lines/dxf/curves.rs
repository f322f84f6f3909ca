//! Curves of DXF as cubics: arcs, bulges of polylines, splines.

use aptum_core::geometry::{BezPath, Point, Vec2};
use dxf::entities::Spline;
use kurbo::Arc;

use super::place;

/// How far arcs as cubics may stray, as a share of their radius.
const STRAYS: f64 = 1e-6;

/// Points on each span of a spline that has weights or a high degree.
const POINTS: u32 = 200;

/// How far it is around from one angle to another, anticlockwise.
pub(super) fn swept(from: f64, to: f64) -> f64 {
    let turn = std::f64::consts::TAU;
    let sweep = (to - from).rem_euclid(turn);
    if sweep < 1e-9 { turn } else { sweep }
}

pub(super) fn arc(centre: Point, radius: f64, start: f64, sweep: f64, is_closed: bool) -> BezPath {
    let own = Arc::new(centre, Vec2::new(radius, radius), start, sweep, 0.0);
    let mut path = BezPath::new();
    path.move_to(centre + Vec2::from_angle(start) * radius);
    path.extend(own.append_iter((radius * STRAYS).max(1e-12)));
    if is_closed {
        path.close_path();
    }
    path
}

/// A polyline whose sides may be arcs: a bulge is the tangent of a quarter of an arc's angle (DXF reference).
pub(super) fn bulged(points: Vec<(Point, f64)>, is_closed: bool) -> BezPath {
    let mut path = BezPath::new();
    let Some((first, _)) = points.first().copied() else { return path };
    path.move_to(first);
    let next = points.iter().skip(1).chain(points.first().filter(|_| is_closed));
    for ((from, bulge), (to, _)) in points.iter().zip(next) {
        let chord = *to - *from;
        if bulge.abs() < 1e-9 || chord.hypot() < 1e-12 {
            path.line_to(*to);
            continue;
        }
        let sweep = 4.0 * bulge.atan();
        let radius = chord.hypot() / 2.0 / (sweep / 2.0).sin();
        let height = radius * (sweep / 2.0).cos();
        let across = Vec2::new(-chord.y, chord.x).normalize();
        let centre = from.midpoint(*to) + across * height;
        let start = (*from - centre).atan2();
        let round = Vec2::new(radius.abs(), radius.abs());
        let own = Arc::new(centre, round, start, sweep, 0.0);
        let mut drawn: Vec<kurbo::PathEl> = own.append_iter(radius.abs() * STRAYS).collect();
        // It ends where the next begins, whatever was rounded.
        if let Some(kurbo::PathEl::CurveTo(_, _, end)) = drawn.last_mut() {
            *end = *to;
        }
        path.extend(drawn);
    }
    if is_closed {
        path.close_path();
    }
    path
}

/// A spline: exact where it is plain and of a degree up to three, in many short lines otherwise.
pub(super) fn spline(own: &Spline) -> BezPath {
    let mut path = BezPath::new();
    let control: Vec<Point> = own.control_points.iter().map(place).collect();
    let Ok(degree) = usize::try_from(own.degree_of_curve) else { return path };
    let knots = &own.knot_values;
    let is_sound = (1..=25).contains(&degree)
        && control.len() > degree
        && knots.len() == control.len() + degree + 1
        && knots.windows(2).all(|pair| pair[0] <= pair[1]);
    if !is_sound {
        // Only points that it goes through are told.
        let tangents = [&own.start_tangent, &own.end_tangent].map(|own| Vec2::new(own.x, own.y));
        return through(own.fit_points.iter().map(place).collect(), own.is_closed(), tangents);
    }
    let weights: Vec<f64> = if own.weight_values.len() == control.len() {
        own.weight_values.clone()
    } else {
        vec![1.0; control.len()]
    };
    let is_plain = weights.iter().all(|weight| (weight - weights[0]).abs() < 1e-12);
    let ends = (knots[degree], knots[control.len()]);
    let mut spans: Vec<f64> =
        knots[degree..=control.len()].iter().copied().filter(|own| own.is_finite()).collect();
    spans.dedup();
    let at = |t: f64| de_boor(degree, knots, &control, &weights, t);
    path.move_to(at(ends.0));
    for pair in spans.windows(2) {
        let [from, to] = [pair[0], pair[1]];
        if is_plain && degree <= 3 {
            // A cubic through four points of one: exact, since each span is one.
            let third = (to - from) / 3.0;
            let [p0, q1, q2, p3] =
                [at(from), at(from + third), at(from + 2.0 * third), at(to)].map(Point::to_vec2);
            let p1 = (-5.0 * p0 + 18.0 * q1 - 9.0 * q2 + 2.0 * p3) / 6.0;
            let p2 = (2.0 * p0 - 9.0 * q1 + 18.0 * q2 - 5.0 * p3) / 6.0;
            if degree == 1 {
                path.line_to(p3.to_point());
            } else {
                path.curve_to(p1.to_point(), p2.to_point(), p3.to_point());
            }
        } else {
            for step in 1..=POINTS {
                path.line_to(at(from + (to - from) * f64::from(step) / f64::from(POINTS)));
            }
        }
    }
    let first = path.elements()[0].end_point().unwrap_or_default();
    let last = path.elements().last().and_then(kurbo::PathEl::end_point).unwrap_or_default();
    if own.is_closed() && first.distance(last) < 1e-6 * (1.0 + first.to_vec2().hypot()) {
        path.close_path();
    }
    path
}

/// So many points of a closed curve go on past its ends: what is farther away moves no point by a billionth.
const PAST: usize = 20;

/// The smooth cubics through some points, of length for length along their chords: without bends at the ends, or in the
/// directions that are told there; closed, without a corner. A straight line where there are two.
fn through(mut points: Vec<Point>, is_closed: bool, tangents: [Vec2; 2]) -> BezPath {
    points.dedup_by(|one, other| one.distance(*other) < 1e-12);
    if is_closed && points.len() > 2 && points[0].distance(points[points.len() - 1]) < 1e-12 {
        points.pop();
    }
    if points.len() < 3 {
        return bulged(points.into_iter().map(|at| (at, 0.0)).collect(), false);
    }
    let count = points.len();
    let past = if is_closed { PAST } else { 0 };
    let all: Vec<Point> = if is_closed {
        let turns = PAST.div_ceil(count);
        (0..count + 2 * PAST + 1).map(|at| points[(at + turns * count - PAST) % count]).collect()
    } else {
        points
    };
    let slopes = slopes(&all, if is_closed { [Vec2::ZERO; 2] } else { tangents });
    let last = if is_closed { past + count } else { all.len() - 1 };
    let mut path = BezPath::new();
    path.move_to(all[past]);
    for at in past..last {
        let third = all[at].distance(all[at + 1]) / 3.0;
        path.curve_to(
            all[at] + slopes[at] * third,
            all[at + 1] - slopes[at + 1] * third,
            all[at + 1],
        );
    }
    if is_closed {
        path.close_path();
    }
    path
}

/// How a curve that bends evenly through some points runs at each, for each unit of chord (C. de Boor, “A Practical Guide
/// to Splines”, chapter IV; the system is solved by elimination).
fn slopes(points: &[Point], tangents: [Vec2; 2]) -> Vec<Vec2> {
    let chords: Vec<f64> = points.windows(2).map(|pair| pair[0].distance(pair[1])).collect();
    let rise = |at: usize| (points[at + 1] - points[at]) / chords[at];
    let last = points.len() - 1;
    // What is left of each row: the share of the next slope, and the right side.
    let mut rows: Vec<(f64, Vec2)> = Vec::with_capacity(points.len());
    for at in 0..=last {
        let (before, own, after, right) = if at == 0 {
            match tangents[0] {
                told if told.hypot() > 1e-12 => (0.0, 1.0, 0.0, told.normalize()),
                _ => (0.0, 2.0, 1.0, 3.0 * rise(0)),
            }
        } else if at == last {
            match tangents[1] {
                told if told.hypot() > 1e-12 => (0.0, 1.0, 0.0, told.normalize()),
                _ => (1.0, 2.0, 0.0, 3.0 * rise(last - 1)),
            }
        } else {
            let (left, right) = (chords[at - 1], chords[at]);
            let even = 3.0 * (right * rise(at - 1) + left * rise(at));
            (right, 2.0 * (left + right), left, even)
        };
        let (share, known) = rows.last().copied().unwrap_or((0.0, Vec2::ZERO));
        let pivot = own - before * share;
        rows.push((after / pivot, (right - before * known) / pivot));
    }
    let mut slopes = vec![Vec2::ZERO; points.len()];
    let mut next = Vec2::ZERO;
    for (slope, (share, known)) in slopes.iter_mut().zip(rows).rev() {
        next = known - share * next;
        *slope = next;
    }
    slopes
}

/// A point of a spline with weights (de Boor's algorithm, in homogeneous coordinates).
fn de_boor(degree: usize, knots: &[f64], control: &[Point], weights: &[f64], t: f64) -> Point {
    let last = control.len() - 1;
    let span = (degree..=last).rev().find(|at| knots[*at] <= t).unwrap_or(degree);
    let mut own: Vec<[f64; 3]> = (0..=degree)
        .map(|at| {
            let at = span - degree + at;
            let weight = weights[at];
            [control[at].x * weight, control[at].y * weight, weight]
        })
        .collect();
    for round in 1..=degree {
        for at in (round..=degree).rev() {
            let low = knots[span - degree + at];
            let high = knots[span + 1 + at - round];
            let share = if high > low { (t - low) / (high - low) } else { 0.0 };
            let before = own[at - 1];
            for (own, before) in own[at].iter_mut().zip(before) {
                *own = (1.0 - share) * before + share * *own;
            }
        }
    }
    let [x, y, weight] = own[degree];
    let weight = if weight.abs() > 1e-300 { weight } else { 1.0 };
    Point::new(x / weight, y / weight)
}

#[cfg(test)]
mod tests {
    use kurbo::ParamCurve;

    use super::*;

    #[test]
    fn a_bulge_of_one_is_half_a_circle() {
        let path = bulged(vec![(Point::new(0.0, 0.0), 1.0), (Point::new(10.0, 0.0), 1.0)], true);
        let area = kurbo::Shape::area(&path).abs();
        assert!((area / (std::f64::consts::PI * 25.0) - 1.0).abs() < 1e-5, "{area}");
        let bounds = kurbo::Shape::bounding_box(&path);
        assert!((bounds.y0 + 5.0).abs() < 1e-4 && (bounds.y1 - 5.0).abs() < 1e-4);
    }

    #[test]
    fn a_plain_spline_is_the_cubic_that_it_is() {
        let control = [(0.0, 0.0), (0.0, 10.0), (10.0, 10.0), (10.0, 0.0)];
        let own = Spline {
            degree_of_curve: 3,
            knot_values: vec![0.0, 0.0, 0.0, 0.0, 1.0, 1.0, 1.0, 1.0],
            control_points: control.map(|(x, y)| dxf::Point::new(x, y, 0.0)).to_vec(),
            ..Spline::default()
        };
        let path = spline(&own);
        let segment = path.segments().next().unwrap();
        assert!(segment.eval(0.5).distance(Point::new(5.0, 7.5)) < 1e-9);
        assert_eq!(path.elements().len(), 2);
    }

    /// Through twelve points of a circle it is the circle but for 0.2 % of its area; the polygon through them is 4.5 % less.
    #[test]
    fn a_spline_goes_smoothly_through_the_points_that_are_told() {
        let at = |k: u32, count: u32| {
            let angle = std::f64::consts::TAU * f64::from(k) / f64::from(count);
            dxf::Point::new(10.0 * angle.cos(), 10.0 * angle.sin(), 0.0)
        };
        let mut own =
            Spline { fit_points: (0..12).map(|k| at(k, 12)).collect(), ..Spline::default() };
        own.set_is_closed(true);
        let round = spline(&own);
        let area = kurbo::Shape::area(&round).abs();
        assert!((area / (std::f64::consts::PI * 100.0) - 1.0).abs() < 2e-3, "{area}");
        let segments: Vec<_> = round.segments().collect();
        for (one, next) in segments.iter().zip(segments.iter().cycle().skip(1)) {
            let (kurbo::PathSeg::Cubic(one), kurbo::PathSeg::Cubic(next)) = (one, next) else {
                panic!("cubics alone: {one:?}")
            };
            let turn = (one.p3 - one.p2).normalize().cross((next.p1 - next.p0).normalize());
            assert!(turn.abs() < 1e-9, "a corner of {turn}");
        }

        // Open, it has no bend at its ends, or runs as it is told to.
        own.set_is_closed(false);
        let open = spline(&own);
        let kurbo::PathSeg::Cubic(first) = open.segments().next().unwrap() else {
            panic!("a cubic")
        };
        let bend = first.p2.to_vec2() - 2.0 * first.p1.to_vec2() + first.p0.to_vec2();
        assert!(bend.hypot() < 1e-9, "{bend:?}");
        own.start_tangent = dxf::Point::new(0.0, 3.0, 0.0);
        let kurbo::PathSeg::Cubic(first) = spline(&own).segments().next().unwrap() else {
            panic!("a cubic")
        };
        assert!(((first.p1 - first.p0).normalize() - Vec2::new(0.0, 1.0)).hypot() < 1e-9);
        // The area that `scipy.interpolate.CubicSpline` (`natural`, by chords) has through the same points.
        let lobed = |k: u32| {
            let angle = std::f64::consts::TAU * f64::from(k % 9) / 9.0;
            let y = 9.0 * angle.sin() * (1.0 + 0.3 * (2.0 * angle).sin());
            dxf::Point::new(8.0 * angle.cos(), y, 0.0)
        };
        let natural = Spline { fit_points: (0..10).map(lobed).collect(), ..Spline::default() };
        let area = kurbo::Shape::area(&spline(&natural)).abs();
        assert!((area - 226.2644).abs() < 2e-3, "{area}");
        // Two points are a line; one, or none, is nothing.
        own.fit_points.truncate(2);
        assert_eq!(spline(&own).elements().len(), 2);
    }
}
