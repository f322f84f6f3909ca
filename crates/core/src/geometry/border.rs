//! Borders: what lies within a distance of an area, with its edge in curves again.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use kurbo::{BezPath, PathEl, Point, Rect, Shape, Vec2};

use super::cubics::{Node, append};
use super::{Region, Ring};

/// How corners come out that a border goes around.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Join {
    /// Rounded, the corner their centre.
    #[default]
    Round,
    /// Sharp, as far as five distances; beyond that cut off.
    Mitred,
    /// Cut off.
    Bevelled,
}

/// How finely curves are flattened before the algebra, mm.
pub(super) const FINE: f64 = 0.002;

/// How far curves may stray from the algebra's result, mm.
const FIT: f64 = 0.008;

/// From which turn on a vertex is a corner, radians. Arcs of the algebra turn by a twentieth a step, curves of
/// [`FINE`] flattening by less where their radius is above 0.15 mm.
const CORNER: f64 = 0.24;

/// The area inside closed curves that do not cross, finely flattened: each group an outer line and its holes.
#[must_use]
pub fn fine_region<'a, G: IntoIterator<Item = &'a BezPath>>(
    groups: impl IntoIterator<Item = G>,
) -> Region {
    let ring =
        |path: &BezPath| super::flattened_to(path, FINE).into_iter().next().unwrap_or_default();
    Region::of_rings(groups.into_iter().map(move |group| {
        let rings: Vec<Vec<Point>> =
            group.into_iter().map(ring).filter(|ring| ring.len() > 2).collect();
        rings.into_iter()
    }))
}

/// The rings of a region in lines and curves, each outer one before its holes. Where curves would cross, all lines are
/// straight.
#[must_use]
pub fn redrawn(region: &Region) -> Vec<(BezPath, bool)> {
    let rings: Vec<Ring> = region.rings().collect();
    let drawn: Vec<BezPath> = rings.iter().map(|ring| smoothed(&ring.points)).collect();
    let flat =
        |path: &BezPath| super::flattened_to(path, FINE).into_iter().next().unwrap_or_default();
    let flat: Vec<Vec<Point>> = drawn.iter().map(flat).collect();
    let mut bad: Vec<usize> = super::crossings(&flat).into_iter().map(|(ring, _)| ring).collect();
    bad.sort_unstable();
    let all = drawn.into_iter().zip(rings).enumerate();
    all.map(|(at, (path, ring))| {
        let is_bad = bad.binary_search(&at).is_ok();
        (if is_bad { super::polygon(&ring.points) } else { path }, ring.is_hole)
    })
    .collect()
}

/// Outlines whose corners and areas differ by less, mm, are one.
const ALIKE: f64 = 0.02;

/// [`redrawn`], where rings that are contours of `drawn` keep the curves that they were drawn in.
#[must_use]
pub fn redrawn_as(region: &Region, drawn: &BezPath) -> Vec<(BezPath, bool)> {
    let measured = |path: &BezPath| (path.bounding_box(), path.area().abs());
    let known: Vec<((Rect, f64), BezPath)> =
        super::contours(drawn).into_iter().map(|own| (measured(&own), own)).collect();
    let like = |path: &BezPath| {
        let (bounds, area) = measured(path);
        let is_like = |((theirs, size), _): &&((Rect, f64), BezPath)| {
            let apart = [
                bounds.x0 - theirs.x0,
                bounds.y0 - theirs.y0,
                bounds.x1 - theirs.x1,
                bounds.y1 - theirs.y1,
            ];
            apart.iter().all(|own| own.abs() < ALIKE)
                && (area - size).abs() < ALIKE * (bounds.width() + bounds.height())
        };
        let mut own = known.iter().find(is_like)?.1.clone();
        if own.elements().last() != Some(&PathEl::ClosePath) {
            own.close_path();
        }
        Some(own)
    };
    redrawn(region)
        .into_iter()
        .map(|(path, is_hole)| (like(&path).unwrap_or(path), is_hole))
        .collect()
}

/// Vertices nearer to each other than this, mm, are one: corners that were grown over and shrunk again come back as
/// several.
const SAME: f64 = 0.012;

/// A ring with vertices that are all but the same made one.
fn merged(ring: &[Point]) -> Vec<Point> {
    let mut groups: Vec<Vec<Point>> = Vec::new();
    for point in ring {
        match groups.last_mut() {
            Some(group) if group[0].distance(*point) < SAME => group.push(*point),
            _ => groups.push(vec![*point]),
        }
    }
    if groups.len() > 1 && groups[0][0].distance(groups[groups.len() - 1][0]) < SAME {
        let last = groups.pop().unwrap_or_default();
        groups[0].splice(0..0, last);
    }
    groups.iter().map(|group| group[group.len() / 2]).collect()
}

/// A ring of flattened curves as curves.
fn smoothed(ring: &[Point]) -> BezPath {
    let ring = merged(ring);
    let ring = ring.as_slice();
    let count = ring.len();
    if count < 3 {
        return super::polygon(ring);
    }
    let next = |at: usize| (at + 1) % count;
    let before = |at: usize| (at + count - 1) % count;
    let sides: Vec<Vec2> = (0..count).map(|at| ring[next(at)] - ring[at]).collect();
    let long: Vec<f64> = sides.iter().map(|side| side.hypot().max(1e-12)).collect();
    let turns: Vec<f64> = (0..count)
        .map(|at| {
            let (into, out) = (sides[before(at)], sides[at]);
            into.cross(out).atan2(into.dot(out))
        })
        .collect();
    let is_corner = |at: usize| turns[at].abs() > CORNER;
    // A side that would stray from a curve bent as it is beside it, were it part of that, is a straight line.
    let is_line: Vec<bool> = (0..count)
        .map(|at| {
            let bend = |end: usize, other: usize| {
                let mean = f64::midpoint(long[other], long[at]);
                if is_corner(end) { 0.0 } else { turns[end].abs() / mean }
            };
            let bend = bend(at, before(at)).max(bend(next(at), next(at)));
            let free = is_corner(at) && is_corner(next(at));
            free || (long[at] > 0.3 && bend * long[at] * long[at] / 8.0 > 6.0 * FINE)
        })
        .collect();
    // Stretches begin at corners and at the ends of lines.
    let is_end = |at: usize| is_corner(at) || is_line[at] || is_line[before(at)];
    let Some(start) = (0..count).find(|at| is_end(*at)) else {
        let nodes = nodes(ring, &(0..=count).collect::<Vec<_>>(), true, None, None);
        let mut path = BezPath::new();
        append(&mut path, &nodes, FIT, LIKE_A_LINE);
        path.close_path();
        return path;
    };
    let mut path = BezPath::new();
    path.move_to(ring[start]);
    let mut at = start;
    loop {
        let mut stretch = vec![at];
        loop {
            at = next(at);
            stretch.push(at);
            if is_end(at) || at == start {
                break;
            }
        }
        let (first, last) = (stretch[0], at);
        if stretch.len() == 2 {
            path.line_to(ring[last]);
        } else {
            // A curve goes on from a line its way.
            let into = (is_line[before(first)] && !is_corner(first)).then(|| sides[before(first)]);
            let out = (is_line[last] && !is_corner(last)).then(|| sides[last]);
            append(&mut path, &nodes(ring, &stretch, false, into, out), FIT, LIKE_A_LINE);
        }
        if at == start {
            break;
        }
    }
    path.close_path();
    path
}

/// A curve whose handles are nearer to its chord than this, mm, is a line.
const LIKE_A_LINE: f64 = 5e-4;

/// The vertices of a stretch with the ways there, which the circle through each and its neighbours has.
fn nodes(
    ring: &[Point],
    stretch: &[usize],
    is_round: bool,
    into: Option<Vec2>,
    out: Option<Vec2>,
) -> Vec<Node> {
    let count = ring.len();
    let point = |at: usize| ring[stretch[at] % count];
    let last = stretch.len() - 1;
    let angle = |one: Vec2, other: Vec2| one.cross(other).atan2(one.dot(other));
    let turned = |way: Vec2, by: f64| {
        let (sin, cos) = by.sin_cos();
        Vec2::new(way.x * cos - way.y * sin, way.x * sin + way.y * cos).normalize()
    };
    let mut along = 0.0;
    (0..=last)
        .map(|at| {
            if at > 0 {
                along += point(at).distance(point(at - 1));
            }
            let neighbours = match at {
                0 if is_round => Some((point(last - 1), point(1))),
                own if own == last && is_round => Some((point(last - 1), point(1))),
                0 => None,
                own if own == last => None,
                _ => Some((point(at - 1), point(at + 1))),
            };
            let way = if let Some((before, after)) = neighbours {
                let (one, two) = (point(at) - before, after - point(at));
                let (long, other) = (one.hypot(), two.hypot());
                turned(one, angle(one, two) * long / (long + other))
            } else if at == 0 {
                let (one, two) = (point(1) - point(0), point(2) - point(1));
                let bend = angle(one, two) / (one.hypot() + two.hypot()) * 2.0;
                into.map_or_else(|| turned(one, -bend * one.hypot() / 2.0), Vec2::normalize)
            } else {
                let (one, two) = (point(last - 1) - point(last - 2), point(last) - point(last - 1));
                let bend = angle(one, two) / (one.hypot() + two.hypot()) * 2.0;
                out.map_or_else(|| turned(two, bend * two.hypot() / 2.0), Vec2::normalize)
            };
            Node { at: point(at), way, along }
        })
        .collect()
}
