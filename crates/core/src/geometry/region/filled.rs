//! Areas that paths fill.

use geo::algorithm::bool_ops::{FillRule, OpType};
use geo::{BooleanOps, Coord, LineString, MultiPolygon, Polygon};
use kurbo::{BezPath, Point, Rect};

use super::Region;
use crate::geometry::{border::FINE, flattened, flattened_to};

/// From so many on subpaths are put together part by part.
const MANY: usize = 200;

/// How many subpaths back the one around a hole is looked for.
const FAR_BACK: usize = 40;

fn ring_polygon(ring: Vec<Point>) -> Polygon<f64> {
    let ring = ring.into_iter().map(|point| Coord { x: point.x, y: point.y }).collect();
    Polygon::new(LineString::new(ring), Vec::new())
}

/// Subpaths in groups: each that goes round as the largest does, with those after it that lie in it and go the other way.
/// `None` where one of these lies in none.
fn with_holes(rings: &[Vec<Point>]) -> Option<Vec<Vec<Vec<Point>>>> {
    let signed = |ring: &[Point]| -> f64 {
        let next = ring.iter().skip(1).chain(ring.first());
        ring.iter().zip(next).map(|(a, b)| a.to_vec2().cross(b.to_vec2())).sum()
    };
    let bounds = |ring: &[Point]| {
        let all = ring.iter().skip(1);
        all.fold(Rect::from_points(ring[0], ring[0]), |all, point| all.union_pt(*point))
    };
    let signs: Vec<f64> = rings.iter().map(|ring| signed(ring)).collect();
    let largest = signs.iter().copied().max_by(|a, b| a.abs().total_cmp(&b.abs()))?;
    let mut groups: Vec<(Rect, Vec<Vec<Point>>)> = Vec::new();
    for (ring, sign) in rings.iter().zip(signs) {
        let own = bounds(ring);
        if sign * largest >= 0.0 {
            groups.push((own, vec![ring.clone()]));
        } else {
            let near = groups.iter_mut().rev().take(FAR_BACK);
            let around = near.into_iter().find(|(outer, _)| outer.contains_rect(own))?;
            around.1.push(ring.clone());
        }
    }
    Some(groups.into_iter().map(|(_, rings)| rings).collect())
}

impl Region {
    /// The area inside the closed subpaths of `path`, each counted once (nothing subtracts).
    #[must_use]
    pub fn inside(path: &BezPath) -> Self {
        let rings = flattened(path).into_iter().filter(|ring| ring.len() > 2);
        Self::together(rings.map(|ring| Self(ring_polygon(ring).into())).collect())
    }

    /// The area that closed subpaths paint: where they wind around a point at all.
    #[must_use]
    pub fn painted(path: &BezPath) -> Self {
        let rings: Vec<Vec<Point>> =
            flattened(path).into_iter().filter(|ring| ring.len() > 2).collect();
        if rings.len() < MANY {
            return Self::of_winding(rings, FillRule::NonZero);
        }
        // Many are put together part by part: those that overlap grow fewer on the way.
        match with_holes(&rings) {
            Some(groups) => Self::together(
                groups.into_iter().map(|own| Self::of_winding(own, FillRule::NonZero)).collect(),
            ),
            None => Self::of_winding(rings, FillRule::NonZero),
        }
    }

    /// What lies in any of several, neighbours put together first.
    #[must_use]
    pub fn together(mut parts: Vec<Self>) -> Self {
        while parts.len() > 1 {
            parts = parts
                .chunks(2)
                .map(|pair| match pair {
                    [one, other] => one.union(other),
                    alone => alone[0].clone(),
                })
                .collect();
        }
        parts.pop().unwrap_or_else(Self::empty)
    }

    /// As [`painted`](Self::painted), flattened more finely, for what is cut.
    #[must_use]
    pub fn wound(path: &BezPath) -> Self {
        Self::filled(path, FillRule::NonZero)
    }

    /// The area that closed subpaths enclose where each takes away what lies inside the one around it.
    #[must_use]
    pub fn alternating(path: &BezPath) -> Self {
        Self::filled(path, FillRule::EvenOdd)
    }

    fn filled(path: &BezPath, rule: FillRule) -> Self {
        Self::of_winding(flattened_to(path, FINE), rule)
    }

    pub(super) fn of_winding(rings: Vec<Vec<Point>>, rule: FillRule) -> Self {
        let rings = rings.into_iter().filter(|ring| ring.len() > 2);
        let all = MultiPolygon::new(rings.map(ring_polygon).collect());
        let none = MultiPolygon::new(Vec::new());
        Self(all.boolean_op_with_fill_rule(&none, OpType::Union, rule))
    }
}
