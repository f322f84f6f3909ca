//! The border between what was traced and the cut.

use std::ops::RangeInclusive;

use rstar::primitives::Line;
use rstar::{PointDistance, RTree};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::Faults;
use crate::geometry::{Join, Point, Rect, Region, Ring, between};
use crate::units::{Unit, measure};

/// What becomes of a hole.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum HoleRule {
    /// It gets a border as the outline does, and so becomes smaller, or larger where the border runs inwards.
    #[default]
    Followed,
    /// It stays as it was traced.
    Kept,
    /// There is none.
    Closed,
}

/// What becomes of one hole, whatever the others do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct HoleSay {
    /// A place in it, as shares of the picture's sides from its top left.
    pub at: [f64; 2],
    /// What becomes of it.
    pub rule: HoleRule,
}

/// How far from what was traced the cut runs.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Border {
    /// Outwards, mm; below 0 inwards. -20 to 50.
    #[serde(default, deserialize_with = "super::standard")]
    pub distance: f64,
    /// How it goes around corners.
    #[serde(default)]
    pub join: Join,
    /// What becomes of holes.
    #[serde(default)]
    pub holes: HoleRule,
    /// What becomes of some of them all the same; up to 100.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub each: Vec<HoleSay>,
    /// The least radius of inner corners, mm, 0 to 20; 0 leaves them.
    #[serde(default, deserialize_with = "super::standard")]
    pub inner: f64,
}

/// Outwards, and below 0 inwards, mm.
pub(super) const DISTANCE: RangeInclusive<f64> = -20.0..=50.0;

/// The radius of inner corners, mm.
pub(super) const INNER: RangeInclusive<f64> = 0.0..=20.0;

/// Outlines between which the least border that joins them is looked for.
const MOST_JOINED: usize = 60;

/// Points of each that are looked at then, about.
const POINTS: usize = 600;

impl Border {
    /// True where the cut runs where the outline was traced.
    pub(super) fn is_none(&self) -> bool {
        self.distance == 0.0
            && self.inner == 0.0
            && self.each.iter().all(|say| say.rule != HoleRule::Closed)
            && self.holes != HoleRule::Closed
    }

    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        let field = "form.traced.border.distance";
        faults.range(field, "The border", self.distance, DISTANCE, show);
        let field = "form.traced.border.inner";
        faults.range(field, "The inner radius", self.inner, INNER, show);
        let count = f64::from(u32::try_from(self.each.len()).unwrap_or(u32::MAX));
        let field = "form.traced.border.each";
        faults.range(field, "The number of holes told apart", count, 0.0..=100.0, |count| {
            format!("{count}")
        });
    }

    fn rule(&self, hole: &[Point], sides: [f64; 2]) -> HoleRule {
        let area = Region::of_rings(std::iter::once(std::iter::once(hole.to_vec())));
        let place = |say: &HoleSay| Point::new(say.at[0] * sides[0], say.at[1] * sides[1]);
        let own = self.each.iter().find(|say| area.holds(place(say)));
        own.map_or(self.holes, |say| say.rule)
    }

    /// What lies within the border of an area that was found in a picture with such sides, mm.
    pub(super) fn around(&self, area: &Region, sides: [f64; 2]) -> Region {
        let mut groups: Vec<Vec<Vec<Point>>> = Vec::new();
        let mut kept: Vec<Vec<Point>> = Vec::new();
        for Ring { points, is_hole } in area.rings() {
            match groups.last_mut() {
                Some(group) if is_hole => match self.rule(&points, sides) {
                    HoleRule::Followed => group.push(points),
                    HoleRule::Kept => kept.push(points),
                    HoleRule::Closed => {}
                },
                _ => groups.push(vec![points]),
            }
        }
        let whole = Region::of_rings(groups.into_iter().map(Vec::into_iter));
        // What lies in a hole that is closed is part of what is around it.
        let whole = whole.united();
        let mut cut = whole.bordered(self.distance, self.join);
        if !kept.is_empty() {
            let kept = kept.into_iter().map(std::iter::once);
            cut = cut.minus(&Region::of_rings(kept));
        }
        cut
    }

    /// An area with its inner corners rounded as far as is asked for.
    pub(super) fn rounded(&self, area: Region) -> Region {
        if self.inner <= 0.0 {
            return area;
        }
        area.rounded_out(self.inner).rounded_in(self.inner)
    }
}

/// The least border at which all outlines are one: half of the widest gap that must be bridged (the longest edge of the
/// least spanning tree over the gaps). `None` where they are one already.
pub(super) fn one_from(area: &Region, cut: &Region, border: &Border) -> Option<f64> {
    let outer = area.outer_rings();
    if cut.parts() < 2 || outer.len() > MOST_JOINED || border.join != Join::Round {
        return None;
    }
    let mut left: Vec<(f64, Edge)> =
        outer.into_iter().map(|ring| (f64::INFINITY, Edge::new(sampled(ring)))).collect();
    let (_, mut last) = left.pop()?;
    let mut widest = 0.0f64;
    while !left.is_empty() {
        for (gap, edge) in &mut left {
            *gap = edge.apart(&last, last.apart(edge, *gap));
        }
        let (at, _) =
            left.iter().enumerate().min_by(|(_, one), (_, other)| one.0.total_cmp(&other.0))?;
        let (gap, edge) = left.swap_remove(at);
        widest = widest.max(gap);
        last = edge;
    }
    // The gap of flattened lines may be theirs by so much.
    Some(widest / 2.0 + 2e-4)
}

/// A ring with fewer points where it has very many.
fn sampled(ring: Vec<Point>) -> Vec<Point> {
    let step = (ring.len() / POINTS).max(1);
    ring.into_iter().step_by(step).collect()
}

/// A ring with its sides, by where they lie.
struct Edge {
    points: Vec<Point>,
    sides: RTree<Line<[f64; 2]>>,
    bounds: Rect,
}

impl Edge {
    fn new(points: Vec<Point>) -> Self {
        let next = points.iter().skip(1).chain(points.first());
        let place = |point: &Point| [point.x, point.y];
        let sides = points.iter().zip(next).map(|(a, b)| Line::new(place(a), place(b))).collect();
        let first = Rect::from_points(points[0], points[0]);
        let bounds = points.iter().fold(first, |all, point| all.union_pt(*point));
        Self { sides: RTree::bulk_load(sides), bounds, points }
    }

    /// The least distance of its points from another's sides, where that is less than `least`, or else that.
    fn apart(&self, other: &Self, mut least: f64) -> f64 {
        // Nothing is nearer than the boxes around both.
        if between(self.bounds, other.bounds) >= least {
            return least;
        }
        // The nearest to that box first: few are left once one of them is known.
        let off = |point: &Point| between(Rect::from_points(*point, *point), other.bounds);
        let mut near: Vec<(f64, &Point)> = self.points.iter().map(|own| (off(own), own)).collect();
        near.retain(|own| own.0 < least);
        near.sort_by(|one, other| one.0.total_cmp(&other.0));
        for (off, point) in near {
            if off >= least {
                break;
            }
            let at = [point.x, point.y];
            let near = other.sides.nearest_neighbor(&at).map(|side| side.distance_2(&at));
            least = near.map_or(least, |squared| least.min(squared.sqrt()));
        }
        least
    }
}

/// How far inwards a border goes until nothing is left, mm.
pub(super) fn eaten_at(area: &Region, join: Join) -> f64 {
    let bounds = area.bounds().unwrap_or_default();
    let (mut low, mut high) = (0.0, bounds.width().max(bounds.height()));
    for _ in 0..20 {
        let middle = f64::midpoint(low, high);
        if area.bordered(-middle, join).is_empty() {
            high = middle;
        } else {
            low = middle;
        }
    }
    low
}
