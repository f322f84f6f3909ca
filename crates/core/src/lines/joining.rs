//! Loose ends, joined.

use std::collections::HashMap;

use kurbo::{BezPath, ParamCurve, ParamCurveArclen, ParamCurveDeriv, PathEl, PathSeg, Point, Vec2};

/// Ends in one place that are looked at; what lies thicker is no drawing.
const MOST_MEETING: usize = 64;

/// The cosine of a turn of two degrees: less is no corner.
const STRAIGHT: f64 = 0.999_39;

/// Lines after their ends were joined.
#[derive(Debug, Clone, PartialEq)]
pub struct Joined {
    /// The lines, closed where they come back to where they began.
    pub lines: Vec<BezPath>,
    /// How many ends were joined to another line.
    pub joined: usize,
    /// How many lines were closed.
    pub closed: usize,
    /// How many were shorter than what counts as a line.
    pub crumbs: usize,
    /// Ends that are joined to nothing.
    pub loose: Vec<Point>,
}

/// Joins lines whose ends are no farther apart than `tolerance`, and leaves out those that are shorter than `crumb`, mm.
/// Where several ends meet, the line that goes on straightest is taken, and with `straight_on` none that turns a corner.
/// Ends that were apart meet in the first one's.
#[must_use]
pub fn joined(lines: Vec<BezPath>, tolerance: f64, crumb: f64, straight_on: bool) -> Joined {
    let mut done: Vec<BezPath> = Vec::new();
    let mut open: Vec<Option<BezPath>> = Vec::new();
    let mut crumbs = 0;
    for path in lines {
        if !is_as_long(&path, crumb.max(1e-9)) {
            crumbs += 1;
        } else if path.elements().last() == Some(&PathEl::ClosePath) {
            done.push(path);
        } else {
            open.push(Some(path));
        }
    }
    let least = if straight_on { STRAIGHT } else { -3.0 };
    let mut ends = Ends::of(&open, tolerance.max(1e-6));
    let (mut count, mut closed, mut loose) = (0, 0, Vec::new());
    for at in 0..open.len() {
        let Some(mut path) = open[at].take() else { continue };
        // Forwards from its end, then, turned round, from its beginning.
        for _ in 0..2 {
            while !meets_itself(&path, tolerance)
                && let Some((next, is_end)) = ends.next(&path, &open, least)
            {
                let Some(other) = open[next].take() else { break };
                let other = if is_end { other.reverse_subpaths() } else { other };
                append(&mut path, &other);
                count += 1;
            }
            if meets_itself(&path, tolerance) {
                break;
            }
            path = path.reverse_subpaths();
        }
        if meets_itself(&path, tolerance) {
            close(&mut path);
            closed += 1;
        } else {
            loose.extend(both_ends(&path));
        }
        done.push(path);
    }
    Joined { lines: done, joined: count, closed, crumbs, loose }
}

/// True for a line that is no shorter than `least`, mm: measured only as far as that needs.
#[must_use]
pub fn is_as_long(path: &BezPath, least: f64) -> bool {
    let mut left = least;
    path.segments().any(|segment| {
        let chord = segment.start().distance(segment.end());
        left -= if chord >= left { chord } else { segment.arclen(1e-3) };
        left <= 0.0
    })
}

/// The first and the last point.
fn both_ends(path: &BezPath) -> [Point; 2] {
    let first = path.elements().first().and_then(PathEl::end_point).unwrap_or_default();
    let last = path.elements().iter().rev().find_map(PathEl::end_point).unwrap_or_default();
    [first, last]
}

fn meets_itself(path: &BezPath, tolerance: f64) -> bool {
    let [first, last] = both_ends(path);
    // A stroke there and back is none that encloses anything.
    first.distance(last) <= tolerance.max(1e-6) && is_as_long(path, 4.0 * tolerance.max(1e-6))
}

/// Lets a line end where it began.
fn close(path: &mut BezPath) {
    let [first, _] = both_ends(path);
    let mut elements = path.elements().to_vec();
    if let Some(last) = elements.last_mut() {
        set_end(last, first);
    }
    elements.push(PathEl::ClosePath);
    *path = BezPath::from_vec(elements);
}

fn set_end(element: &mut PathEl, to: Point) {
    match element {
        PathEl::MoveTo(end)
        | PathEl::LineTo(end)
        | PathEl::QuadTo(_, end)
        | PathEl::CurveTo(_, _, end) => *end = to,
        PathEl::ClosePath => {}
    }
}

/// Puts a line at the end of another, which it begins at from now on.
fn append(path: &mut BezPath, other: &BezPath) {
    for element in other.elements().iter().skip(1) {
        path.push(*element);
    }
}

/// The ends of lines, by where they are.
struct Ends {
    grid: HashMap<(i64, i64), Vec<(usize, bool)>>,
    tolerance: f64,
}

impl Ends {
    fn of(open: &[Option<BezPath>], tolerance: f64) -> Self {
        let mut own = Self { grid: HashMap::new(), tolerance };
        for (at, path) in open.iter().enumerate() {
            let Some(path) = path else { continue };
            let [first, last] = both_ends(path);
            for (end, is_end) in [(first, false), (last, true)] {
                let here = own.grid.entry(own.cell(end)).or_default();
                if here.len() < MOST_MEETING {
                    here.push((at, is_end));
                }
            }
        }
        own
    }

    #[expect(
        clippy::cast_possible_truncation,
        reason = "places on sheets in steps of the tolerance"
    )]
    fn cell(&self, point: Point) -> (i64, i64) {
        ((point.x / self.tolerance).floor() as i64, (point.y / self.tolerance).floor() as i64)
    }

    /// The line that goes on where a path ends, its way there turned by no more than `least` says (the cosine), and whether
    /// it is its end that is met.
    fn next(
        &mut self,
        path: &BezPath,
        open: &[Option<BezPath>],
        least: f64,
    ) -> Option<(usize, bool)> {
        let [_, end] = both_ends(path);
        let way = way_out(path)?;
        let (x, y) = self.cell(end);
        let mut best: Option<(f64, usize, bool)> = None;
        for cell in (-1..=1).flat_map(|a| (-1..=1).map(move |b| (x + a, y + b))) {
            let Some(here) = self.grid.get_mut(&cell) else { continue };
            here.retain(|(at, _)| open[*at].is_some());
            for (at, is_end) in here.iter() {
                let Some(other) = &open[*at] else { continue };
                let [first, last] = both_ends(other);
                let own = if *is_end { last } else { first };
                if own.distance(end) > self.tolerance {
                    continue;
                }
                let onward = if *is_end { way_out(other).map(|way| -way) } else { way_in(other) };
                let straight = onward.map_or(-2.0, |onward| onward.dot(way));
                if straight >= least && best.is_none_or(|(known, ..)| straight > known) {
                    best = Some((straight, *at, *is_end));
                }
            }
        }
        best.map(|(_, at, is_end)| (at, is_end))
    }
}

/// Which way a line comes into its beginning.
fn way_in(path: &BezPath) -> Option<Vec2> {
    way_at(&path.get_seg(1)?, 0.0)
}

/// Which way a segment runs at a share of it.
fn way_at(segment: &PathSeg, share: f64) -> Option<Vec2> {
    let cubic = segment.to_cubic();
    let slope = cubic.deriv().eval(share).to_vec2();
    let way = if slope.hypot() > 1e-9 { slope } else { cubic.p3 - cubic.p0 };
    (way.hypot() > 1e-12).then(|| way.normalize())
}

/// Which way a line leaves its end.
fn way_out(path: &BezPath) -> Option<Vec2> {
    let last = path.elements().len().checked_sub(1)?;
    way_at(&path.get_seg(last)?, 1.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn path(text: &str) -> BezPath {
        BezPath::from_svg(text).unwrap()
    }

    #[test]
    fn four_sides_in_any_order_and_direction_become_a_square() {
        let sides = ["M0 0L10 0", "M10 10.05L10 0.04", "M0 10L10 10", "M0 10L0 0.05"];
        let found = joined(sides.map(path).to_vec(), 0.1, 0.01, false);
        assert_eq!((found.lines.len(), found.joined, found.closed), (1, 3, 1));
        assert!(found.loose.is_empty());
        let area = kurbo::Shape::area(&found.lines[0]).abs();
        assert!((area - 100.0).abs() < 1.0, "{area}");
        // Closer than they are nothing is joined.
        let apart = joined(sides.map(path).to_vec(), 0.02, 0.01, false);
        assert_eq!(apart.closed, 0);
        assert!(!apart.loose.is_empty());
    }

    #[test]
    fn where_several_meet_the_straightest_goes_on_and_crumbs_go() {
        let lines = ["M0 0L10 0", "M10 0L10 10", "M10 0L20 0", "M50 50L50.001 50"];
        let found = joined(lines.map(path).to_vec(), 0.1, 0.01, false);
        assert_eq!((found.joined, found.crumbs), (1, 1));
        let long = found.lines.iter().map(|line| line.segments().count()).max();
        assert_eq!(long, Some(2));
        assert!(
            found
                .lines
                .iter()
                .any(|line| both_ends(line) == [Point::new(20.0, 0.0), Point::new(0.0, 0.0)]
                    || both_ends(line) == [Point::new(0.0, 0.0), Point::new(20.0, 0.0)])
        );
    }
}
