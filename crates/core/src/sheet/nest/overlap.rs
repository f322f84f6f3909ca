//! How badly two copies meet, weighed by circles inside them (poles): fast, and it falls smoothly to nothing as
//! they part.

use jagua_rs::geometry::geo_traits::DistanceTo;
use jagua_rs::geometry::primitives::{Circle, SPolygon};

/// How badly two shapes overlap that do: the depth by which their poles enter each other, in mm², scaled by
/// their sizes, so that a large shape is not swallowed by a small one.
pub(super) fn overlap(one: &SPolygon, other: &SPolygon) -> f32 {
    let (a, b) = (one.surrogate(), other.surrogate());
    let epsilon = one.diameter().max(other.diameter()) * 0.01;
    let sum = depth(&a.poles, &b.poles, epsilon) + epsilon * epsilon;
    let scale = (a.convex_hull_area.sqrt() * b.convex_hull_area.sqrt()).sqrt();
    sum.sqrt() * scale
}

fn depth(ours: &[Circle], theirs: &[Circle], epsilon: f32) -> f32 {
    let mut sum = 0.0;
    for a in ours {
        for b in theirs {
            let into = a.radius + b.radius - a.center.distance_to(&b.center);
            // Below epsilon it falls off hyperbolically: even poles that do not meet pull apart a little.
            let into =
                if into >= epsilon { into } else { epsilon * epsilon / (2.0 * epsilon - into) };
            sum += into * a.radius.min(b.radius);
        }
    }
    sum
}
