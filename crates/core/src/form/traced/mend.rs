//! Corrections by hand of a traced outline. Each is tied to a place, so that it stays where the outline does and is
//! dropped where it has gone.

use kurbo::{BezPath, PathEl, Point, Shape, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::geometry::{Region, fine_region};
use crate::trace::{Outlined, Tracing};

/// A correction. Places and ways are shares of the picture's sides, from its top left; widths are shares of its width.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "mend")]
pub enum Mend {
    /// The node there is moved.
    Push {
        /// Where it was.
        at: [f64; 2],
        /// How far.
        by: [f64; 2],
    },
    /// The node there is taken away.
    Drop {
        /// Where it was.
        at: [f64; 2],
    },
    /// What lies within so far of a place is smoothed.
    Smooth {
        /// The place.
        at: [f64; 2],
        /// How far.
        within: f64,
    },
    /// What lies along a stroke is taken away: a crumb is cut off.
    Cut {
        /// What it runs through; 1 to 200.
        points: Vec<[f64; 2]>,
        /// Its width.
        width: f64,
    },
    /// What lies along a stroke is added: a bay is closed.
    Fill {
        /// What it runs through; 1 to 200.
        points: Vec<[f64; 2]>,
        /// Its width.
        width: f64,
    },
}

/// How far a node may have gone for a correction of it to make sense still, as a share of the picture's width.
const NEAR: f64 = 0.03;

impl Mend {
    pub(super) fn is_sound(&self) -> bool {
        let is_place = |at: &[f64; 2]| at.iter().all(|share| (-0.5..=1.5).contains(share));
        match self {
            Self::Push { at, by } => is_place(at) && by.iter().all(|by| by.abs() <= 1.0),
            Self::Drop { at } => is_place(at),
            Self::Smooth { at, within } => is_place(at) && (0.001..=0.5).contains(within),
            Self::Cut { points, width } | Self::Fill { points, width } => {
                (1..=200).contains(&points.len())
                    && points.iter().all(is_place)
                    && (0.0005..=0.5).contains(width)
            }
        }
    }
}

/// Outlines with nodes moved and taken away.
pub(super) struct Moved {
    pub outlines: Vec<Outlined>,
    /// The corrections that found no node, by their places.
    pub dropped: Vec<usize>,
}

/// Moves nodes and takes them away.
pub(super) fn moved_nodes(tracing: &Tracing, mends: &[Mend], [width, height]: [f64; 2]) -> Moved {
    let mut outlines = tracing.outlines.clone();
    let mut dropped = Vec::new();
    let place = |at: [f64; 2]| Point::new(at[0] * width, at[1] * height);
    for (number, mend) in mends.iter().enumerate() {
        let (at, by) = match mend {
            Mend::Push { at, by } => (*at, Some(Vec2::new(by[0] * width, by[1] * height))),
            Mend::Drop { at } => (*at, None),
            Mend::Smooth { .. } | Mend::Cut { .. } | Mend::Fill { .. } => continue,
        };
        let at = place(at);
        let paths = outlines
            .iter_mut()
            .flat_map(|own| std::iter::once(&mut own.outer).chain(own.holes.iter_mut()));
        let near = paths
            .filter_map(|path| {
                let (node, off) = nearest(path, at)?;
                (off <= NEAR * width).then_some((off, node, path))
            })
            .min_by(|one, other| one.0.total_cmp(&other.0));
        let Some((_, node, path)) = near else {
            dropped.push(number);
            continue;
        };
        let changed = match by {
            Some(by) => pushed(path, node, by),
            None => without(path, node),
        };
        match changed.filter(is_whole) {
            Some(changed) => *path = changed,
            None => dropped.push(number),
        }
    }
    Moved { outlines, dropped }
}

/// True for a line that encloses something and does not cross itself.
fn is_whole(path: &BezPath) -> bool {
    let ring = crate::geometry::flattened_to(path, 0.01).into_iter().next().unwrap_or_default();
    ring.len() > 2 && path.area().abs() > 1e-3 && crate::geometry::crossings(&[ring]).is_empty()
}

/// The node of a closed path that is nearest to a place, by its element, and how far off it is.
fn nearest(path: &BezPath, at: Point) -> Option<(usize, f64)> {
    let ends = path.elements().iter().enumerate().filter_map(|(index, element)| {
        let end = element.end_point()?;
        (!matches!(element, PathEl::ClosePath)).then_some((index, end.distance(at)))
    });
    ends.min_by(|one, other| one.1.total_cmp(&other.1))
}

/// Both elements at which a closed path has its first node, as its start and as the end of its last curve.
fn same(path: &BezPath, node: usize) -> Vec<usize> {
    let elements = path.elements();
    let end = elements[node].end_point();
    let all = elements.iter().enumerate().filter(|(_, own)| !matches!(own, PathEl::ClosePath));
    all.filter(|(_, own)| own.end_point() == end).map(|(index, _)| index).collect()
}

/// The path with a node moved, its handles with it.
fn pushed(path: &BezPath, node: usize, by: Vec2) -> Option<BezPath> {
    let nodes = same(path, node);
    let mut elements = path.elements().to_vec();
    let count = elements.len();
    for index in nodes {
        match &mut elements[index] {
            PathEl::MoveTo(end) | PathEl::LineTo(end) => *end += by,
            PathEl::CurveTo(_, into, end) => {
                *into += by;
                *end += by;
            }
            PathEl::QuadTo(..) | PathEl::ClosePath => return None,
        }
        let next = if index + 1 < count { index + 1 } else { index };
        if let PathEl::CurveTo(out, ..) = &mut elements[next]
            && next > index
        {
            *out += by;
        }
    }
    Some(BezPath::from_vec(elements))
}

/// The path without a node: its two curves are one, which leaves the first and enters the second their ways.
fn without(path: &BezPath, node: usize) -> Option<BezPath> {
    let nodes = same(path, node);
    let segments: Vec<kurbo::PathSeg> = path.segments().collect();
    if segments.len() < 4 {
        return None;
    }
    // The segment that ends in the node; the first node is where the last one ends.
    let at = match nodes.iter().find(|index| **index > 0) {
        Some(index) => index - 1,
        None => segments.len() - 1,
    };
    let next = (at + 1) % segments.len();
    let (one, two) = (segments[at].to_cubic(), segments[next].to_cubic());
    let is_line = |own: &kurbo::PathSeg| matches!(own, kurbo::PathSeg::Line(_));
    let joined = if is_line(&segments[at]) && is_line(&segments[next]) {
        kurbo::PathSeg::Line(kurbo::Line::new(one.p0, two.p3))
    } else {
        // Longer handles, as for a curve that goes as far as both.
        let (long, other) = (one.p0.distance(one.p3), two.p0.distance(two.p3));
        let out = one.p0 + (one.p1 - one.p0) * ((long + other) / long.max(1e-9));
        let into = two.p3 + (two.p2 - two.p3) * ((long + other) / other.max(1e-9));
        kurbo::PathSeg::Cubic(kurbo::CubicBez::new(one.p0, out, into, two.p3))
    };
    let kept = (0..segments.len()).filter(|index| *index != next);
    let all = kept.map(|index| if index == at { joined } else { segments[index] });
    let mut changed = if next == 0 {
        // The path begins where the joined curve does not end any more.
        let mut all: Vec<_> = all.collect();
        let last = all.pop()?;
        all.insert(0, last);
        BezPath::from_path_segments(all.into_iter())
    } else {
        BezPath::from_path_segments(all)
    };
    changed.close_path();
    Some(changed)
}

/// An area after strokes and smoothing.
pub(super) struct Mended {
    pub region: Region,
    pub is_changed: bool,
    /// The corrections that changed nothing, by their places.
    pub dropped: Vec<usize>,
}

/// Adds and takes away what lies along strokes, and smooths.
pub(super) fn mended(area: Region, mends: &[Mend], [width, height]: [f64; 2]) -> Mended {
    let mut region = area;
    let mut dropped = Vec::new();
    let mut is_changed = false;
    for (number, mend) in mends.iter().enumerate() {
        let changed = match mend {
            Mend::Push { .. } => {
                // The line between nodes is as it was drawn.
                continue;
            }
            Mend::Drop { .. } => continue,
            Mend::Smooth { at, within } => {
                let around = kurbo::Circle::new((at[0] * width, at[1] * height), within * width);
                let near = fine_region([[&around.to_path(1e-3)]]);
                let by = within * width / 3.0;
                let smooth = region.rounded_out(by).rounded_in(2.0 * by).rounded_out(by);
                region.minus(&near).union(&smooth.intersection(&near))
            }
            Mend::Cut { points, width: wide } => {
                let stroke = stroke(points, [width, height], wide * width);
                let left = region.minus(&stroke);
                // The smaller of what is cut apart is the crumb.
                if left.parts() > region.parts() { left.without_smallest() } else { left }
            }
            Mend::Fill { points, width: wide } => {
                region.union(&stroke(points, [width, height], wide * width))
            }
        };
        let off = region.minus(&changed).area() + changed.minus(&region).area();
        if off < 1e-4 || changed.is_empty() {
            dropped.push(number);
        } else {
            (region, is_changed) = (changed, true);
        }
    }
    Mended { region, is_changed, dropped }
}

/// What lies along a stroke with round ends.
fn stroke(points: &[[f64; 2]], [width, height]: [f64; 2], wide: f64) -> Region {
    let place = |at: &[f64; 2]| Point::new(at[0] * width, at[1] * height);
    let dot = |at: Point| fine_region([[&kurbo::Circle::new(at, wide / 2.0).to_path(1e-3)]]);
    let mut all = dot(place(&points[0]));
    for pair in points.windows(2) {
        let (from, to) = (place(&pair[0]), place(&pair[1]));
        if from.distance(to) < 1e-9 {
            continue;
        }
        let side = (to - from).normalize() * (wide / 2.0);
        let side = Vec2::new(-side.y, side.x);
        let bar = crate::geometry::polygon(&[from + side, to + side, to - side, from - side]);
        all = all.union(&fine_region([[&bar]])).union(&dot(to));
    }
    all
}
