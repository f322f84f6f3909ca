//! Edges that touching copies share, cut once.

use std::collections::HashMap;

use kurbo::{BezPath, ParamCurve, PathSeg, Point, Rect, Shape};

/// Edges nearer than this, mm, are one.
const SAME: f64 = 0.005;

/// Shared stretches shorter than this, mm, are left to both.
const SHORTEST: f64 = 0.01;

/// Lines are sorted into drawers by direction, in radians, and distance from the origin, in mm.
const DRAWERS: (f64, f64) = (0.002, 1.0);

/// Takes from each stroke what runs along one before it: straight stretches, in part too, and whole curves. A
/// stroke that shares nothing stays as it is; what is left of another may be in several parts. With each part comes the
/// number of the stroke that it is of.
#[must_use]
pub fn cut_once(strokes: &[&BezPath]) -> Vec<(usize, BezPath)> {
    let touching = touching(strokes);
    let mut lines: HashMap<(i64, i64), Vec<kurbo::Line>> = HashMap::new();
    let mut curves: HashMap<(i64, i64), Vec<PathSeg>> = HashMap::new();
    let mut all = Vec::with_capacity(strokes.len());
    for (number, (stroke, touches)) in strokes.iter().zip(touching).enumerate() {
        if !touches {
            all.push((number, (*stroke).clone()));
            continue;
        }
        let mut kept: Vec<PathSeg> = Vec::new();
        let mut is_whole = true;
        for segment in stroke.segments() {
            if let PathSeg::Line(line) = segment {
                let left = uncovered(&line, &lines);
                is_whole &= left.len() == 1 && left[0] == (0.0, 1.0);
                kept.extend(left.into_iter().map(|(from, to)| segment.subsegment(from..to)));
            } else if is_known(&segment, &curves) {
                is_whole = false;
            } else {
                kept.push(segment);
            }
        }
        for segment in &kept {
            match segment {
                PathSeg::Line(line) => {
                    if let Some(drawer) = drawer(line) {
                        lines.entry(drawer).or_default().push(*line);
                    }
                }
                curve => curves.entry(cell(curve.eval(0.5))).or_default().push(*curve),
            }
        }
        if is_whole {
            all.push((number, (*stroke).clone()));
        } else {
            all.extend(chains(&kept).into_iter().map(|part| (number, part)));
        }
    }
    all
}

/// Which strokes have bounds that meet another's: only these can share anything.
fn touching(strokes: &[&BezPath]) -> Vec<bool> {
    let bounds: Vec<Rect> =
        strokes.iter().map(|stroke| stroke.bounding_box().inflate(SAME, SAME)).collect();
    let mut order: Vec<usize> = (0..bounds.len()).collect();
    order.sort_by(|a, b| bounds[*a].x0.total_cmp(&bounds[*b].x0));
    let mut found = vec![false; bounds.len()];
    let mut open: Vec<usize> = Vec::new();
    for at in order {
        let own = bounds[at];
        open.retain(|other| bounds[*other].x1 >= own.x0);
        for other in &open {
            if bounds[*other].y0 <= own.y1 && own.y0 <= bounds[*other].y1 {
                (found[at], found[*other]) = (true, true);
            }
        }
        open.push(at);
    }
    found
}

/// Curves are sorted into cells of this side by their middles, mm.
const CELL: f64 = 0.1;

#[expect(clippy::cast_possible_truncation, reason = "a sheet is a few metres at most")]
fn cell(at: Point) -> (i64, i64) {
    ((at.x / CELL).floor() as i64, (at.y / CELL).floor() as i64)
}

/// True where a curve runs along one that is there, either way round.
fn is_known(curve: &PathSeg, curves: &HashMap<(i64, i64), Vec<PathSeg>>) -> bool {
    let (x, y) = cell(curve.eval(0.5));
    let near = (-1..=1).flat_map(|dx| (-1..=1).map(move |dy| (x + dx, y + dy)));
    let own = curve.to_cubic();
    near.filter_map(|cell| curves.get(&cell)).flatten().any(|other| {
        let (one, two) = (other.to_cubic(), other.reverse().to_cubic());
        [one, two].iter().any(|other| {
            let pairs =
                [(own.p0, other.p0), (own.p1, other.p1), (own.p2, other.p2), (own.p3, other.p3)];
            pairs.iter().all(|(a, b)| a.distance(*b) <= SAME)
        })
    })
}

/// The drawer of a line: its direction within half a turn, and its distance from the origin.
#[expect(clippy::cast_possible_truncation, reason = "a sheet is a few metres at most")]
fn drawer(line: &kurbo::Line) -> Option<(i64, i64)> {
    let way = line.p1 - line.p0;
    if way.hypot() < SHORTEST {
        return None;
    }
    let angle = way.atan2().rem_euclid(std::f64::consts::PI);
    let (sin, cos) = angle.sin_cos();
    let distance = line.p0.x * sin - line.p0.y * cos;
    let turn = (angle / DRAWERS.0).round() as i64;
    // Half a turn on is the same direction, its distance turned round.
    if turn >= turns() {
        return Some((turn - turns(), (-distance / DRAWERS.1).round() as i64));
    }
    Some((turn, (distance / DRAWERS.1).round() as i64))
}

/// Drawers of direction in half a turn.
#[expect(clippy::cast_possible_truncation, reason = "a few thousand drawers")]
fn turns() -> i64 {
    (std::f64::consts::PI / DRAWERS.0).round() as i64
}

/// The shares of a line that none before it runs along.
fn uncovered(
    line: &kurbo::Line,
    drawers: &HashMap<(i64, i64), Vec<kurbo::Line>>,
) -> Vec<(f64, f64)> {
    let Some((angle, distance)) = drawer(line) else { return vec![(0.0, 1.0)] };
    let long = (line.p1 - line.p0).hypot();
    let mut covered: Vec<(f64, f64)> = Vec::new();
    for by_angle in -1..=1 {
        // A direction just short of half a turn lies beside one just past none.
        let at = angle + by_angle;
        let (at, sign) = if at < 0 {
            (at + turns(), -1)
        } else if at >= turns() {
            (at - turns(), -1)
        } else {
            (at, 1)
        };
        for by_distance in -1..=1 {
            let Some(others) = drawers.get(&(at, sign * distance + by_distance)) else { continue };
            covered.extend(others.iter().filter_map(|other| shared(line, other)));
        }
    }
    covered.sort_by(|a, b| a.0.total_cmp(&b.0));
    let mut left = Vec::new();
    let mut from = 0.0;
    for (start, end) in covered {
        if (start - from) * long > SHORTEST {
            left.push((from, start));
        }
        from = end.max(from);
    }
    if (1.0 - from) * long > SHORTEST {
        left.push((from, 1.0));
    }
    left
}

/// The shares of a line between which another runs along it.
fn shared(line: &kurbo::Line, other: &kurbo::Line) -> Option<(f64, f64)> {
    let way = line.p1 - line.p0;
    let long = way.hypot();
    let off = |point: Point| (way.cross(point - line.p0) / long).abs();
    if off(other.p0) > SAME || off(other.p1) > SAME {
        return None;
    }
    let share = |point: Point| way.dot(point - line.p0) / (long * long);
    let (a, b) = (share(other.p0), share(other.p1));
    let (from, to) = (a.min(b).max(0.0), a.max(b).min(1.0));
    // Where they all but end together they do.
    let snap = |share: f64| {
        if share * long < SHORTEST {
            0.0
        } else if (1.0 - share) * long < SHORTEST {
            1.0
        } else {
            share
        }
    };
    ((to - from) * long > SHORTEST).then(|| (snap(from), snap(to)))
}

/// Joins segments that follow each other into strokes.
fn chains(segments: &[PathSeg]) -> Vec<BezPath> {
    let mut strokes: Vec<BezPath> = Vec::new();
    let mut end: Option<Point> = None;
    for segment in segments {
        if end.is_none_or(|end| end.distance(segment.start()) > SAME) {
            let mut stroke = BezPath::new();
            stroke.move_to(segment.start());
            strokes.push(stroke);
        }
        if let Some(stroke) = strokes.last_mut() {
            stroke.push(segment.as_path_el());
        }
        end = Some(segment.end());
    }
    // A closed stroke that was opened elsewhere goes on past its first corner.
    if strokes.len() > 1 {
        let (first, last) = (&strokes[0], &strokes[strokes.len() - 1]);
        let begin = first.segments().next().map(|segment| segment.start());
        let finish = last.segments().last().map(|segment| segment.end());
        if let (Some(begin), Some(finish)) = (begin, finish)
            && begin.distance(finish) <= SAME
        {
            let first = strokes.remove(0);
            if let Some(last) = strokes.last_mut() {
                last.extend(first.elements().iter().skip(1).copied());
            }
        }
    }
    strokes
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{circle, polygon};
    use proptest::prelude::*;

    fn cut_once(strokes: Vec<BezPath>) -> Vec<BezPath> {
        let strokes: Vec<&BezPath> = strokes.iter().collect();
        super::cut_once(&strokes).into_iter().map(|(_, path)| path).collect()
    }

    fn length(strokes: &[BezPath]) -> f64 {
        strokes.iter().map(|stroke| stroke.perimeter(1e-9)).sum()
    }

    fn squares(places: &[(f64, f64)], turn: f64) -> Vec<BezPath> {
        let turn = kurbo::Affine::rotate(turn);
        places
            .iter()
            .map(|place| turn * Rect::from_origin_size(*place, (10.0, 10.0)).to_path(0.1))
            .collect()
    }

    #[test]
    fn a_grid_of_touching_squares_is_its_lines() {
        let places: Vec<(f64, f64)> = (0..3)
            .flat_map(|x| (0..4).map(move |y| (10.0 * f64::from(x), 10.0 * f64::from(y))))
            .collect();
        // Four lines of 40 mm and five of 30 mm, whichever way the grid is turned.
        for degrees in [0.0f64, 17.0, 45.0, 90.0, 135.0, 179.95, 180.0] {
            let found = length(&cut_once(squares(&places, degrees.to_radians())));
            assert!((found - (4.0 * 40.0 + 5.0 * 30.0)).abs() < 1e-6, "{degrees}: {found}");
        }
    }

    #[test]
    fn what_is_shared_in_part_is_cut_in_part() {
        let found = cut_once(squares(&[(0.0, 0.0), (10.0, 4.0)], 0.0));
        assert!((length(&found) - 74.0).abs() < 1e-9, "{}", length(&found));
        assert_eq!(found.len(), 2, "what is left of the second is one stroke");
        // A knife's breadth apart they are two.
        let apart = squares(&[(0.0, 0.0), (10.1, 0.0)], 0.0);
        assert_eq!(cut_once(apart.clone()), apart);
    }

    /// Two pieces along one wave, which the second runs the other way.
    #[test]
    fn a_curve_that_two_share_is_cut_once() {
        let wave = |path: &mut BezPath| {
            path.curve_to((10.0, 5.0), (20.0, -5.0), (30.0, 0.0));
        };
        let mut above = BezPath::new();
        above.move_to((0.0, 0.0));
        wave(&mut above);
        above.line_to((30.0, -20.0));
        above.line_to((0.0, -20.0));
        above.close_path();
        let mut below = BezPath::new();
        below.move_to((30.0, 0.0));
        below.curve_to((20.0, -5.0), (10.0, 5.0), (0.0, 0.0));
        below.line_to((0.0, 20.0));
        below.line_to((30.0, 20.0));
        below.close_path();
        let both = length(&[above.clone(), below.clone()]);
        let shared = above.segments().next().unwrap();
        let once = length(&cut_once(vec![above, below]));
        assert!((both - once - kurbo::ParamCurveArclen::arclen(&shared, 1e-9)).abs() < 1e-6);
    }

    #[test]
    fn curves_and_corners_that_touch_stay() {
        let strokes = vec![
            circle(Point::new(0.0, 0.0), 5.0),
            circle(Point::new(10.0, 0.0), 5.0),
            polygon(&[Point::new(5.0, 5.0), Point::new(15.0, 5.0), Point::new(10.0, 12.0)]),
            polygon(&[Point::new(10.0, 12.0), Point::new(15.0, 20.0), Point::new(5.0, 20.0)]),
        ];
        assert_eq!(cut_once(strokes.clone()), strokes);
    }

    proptest! {
        /// Judged by covering: on a grid of half steps, each half edge that any square has is cut just once.
        #[test]
        fn every_edge_is_cut_once(
            places in prop::collection::vec((0..8i32, 0..8i32), 1..12), turn in 0.0..3.2f64,
        ) {
            let corners: Vec<(f64, f64)> =
                places.iter().map(|(x, y)| (5.0 * f64::from(*x), 5.0 * f64::from(*y))).collect();
            let mut edges = std::collections::BTreeSet::new();
            for (x, y) in &places {
                for step in 0..2 {
                    edges.extend([(x + step, *y, 0), (x + step, y + 2, 0), (*x, y + step, 1), (x + 2, y + step, 1)]);
                }
            }
            let found = length(&cut_once(squares(&corners, turn)));
            let wanted = 5.0 * f64::from(u32::try_from(edges.len()).unwrap());
            prop_assert!((found - wanted).abs() < 1e-6, "{} of {}", found, wanted);
        }
    }
}
