//! A window that copies must stay within.

use std::sync::Arc;

use jagua_rs::collision_detection::CDEngine;
use jagua_rs::collision_detection::hazards::Hazard;
use jagua_rs::geometry::primitives::{Rect as JRect, SPolygon};
use kurbo::Rect;

use super::overlap::overlap;
use super::shape::{HAIR, Held, Pose, moved, simple};
use super::thing::{ENGINE, Met, NoBeyond, Thing};
use crate::geometry::{Outline, Region};
use crate::sheet::Window;

/// A window with its engine.
#[derive(Clone)]
pub(super) struct Fence {
    base: Rect,
    limits: JRect,
    engine: CDEngine<Thing>,
    bites: Vec<SPolygon>,
}

impl Fence {
    /// `None` where the window has no area.
    pub(super) fn new(window: &Window) -> Option<Self> {
        let base = window.base;
        if base.width() <= 0.0 || base.height() <= 0.0 {
            return None;
        }
        let limits = jrect(base)?;
        // What is missing inside the base, in parts without holes. Polygon algebra leaves slivers a few
        // nanometres wide along the edges, which are no part of it.
        let missing = Region::rect(base).minus(&window.region).shrunk(HAIR);
        let mut bites: Vec<SPolygon> = Vec::new();
        for outline in missing.simple_parts().iter().filter_map(|ring| Outline::new(ring.clone())) {
            let Some(mut bite) = simple(&outline) else { continue };
            if bite.generate_surrogate(ENGINE.item_surrogate_config).is_ok() {
                bites.push(bite);
            }
        }
        let mut hazards = vec![Hazard::new(Thing::Beyond, Arc::new(SPolygon::from(limits)))];
        hazards.extend(
            bites
                .iter()
                .enumerate()
                .map(|(at, bite)| Hazard::new(Thing::Bite(at), Arc::new(bite.clone()))),
        );
        let engine = CDEngine::new(jrect(base.inflate(1.0, 1.0))?, hazards, ENGINE);
        Some(Self { base, limits, engine, bites })
    }

    pub(super) const fn base(&self) -> Rect {
        self.base
    }

    pub(super) const fn limits(&self) -> JRect {
        self.limits
    }

    /// It ends at `foot` for now.
    pub(super) const fn set_foot(&mut self, foot: f64) {
        self.base.y1 = foot;
    }

    /// True when something bites into it.
    pub(super) fn has_bites(&self) -> bool {
        !self.bites.is_empty()
    }

    fn is_bitten(&self, bounds: Rect) -> bool {
        self.bites.iter().any(|bite| {
            let bite = bite.bbox();
            f64::from(bite.x_min) < bounds.x1
                && f64::from(bite.x_max) > bounds.x0
                && f64::from(bite.y_min) < bounds.y1
                && f64::from(bite.y_max) > bounds.y0
        })
    }

    /// True when the outline, moved into `hand`, lies inside.
    pub(super) fn holds(&self, held: &Held, hand: &mut SPolygon, pose: Pose) -> bool {
        let (bounds, base) = (held.bounds(pose), self.base.inflate(HAIR, HAIR));
        if base.union(bounds) != base {
            return false;
        }
        if !self.is_bitten(bounds) {
            return true;
        }
        moved(hand, &held.shape, pose);
        !self.engine.detect_poly_collision(hand, &NoBeyond)
    }

    /// How badly the outline, moved into `hand`, leaves the window; 0 inside.
    #[expect(clippy::cast_possible_truncation, reason = "a measure, not a place")]
    pub(super) fn excess(&self, held: &Held, hand: &mut SPolygon, pose: Pose) -> f32 {
        let mut sum = 0.0;
        let (bounds, base) = (held.bounds(pose), self.base.inflate(HAIR, HAIR));
        if base.union(bounds) != base {
            let width = bounds.x1.min(base.x1) - bounds.x0.max(base.x0);
            let height = bounds.y1.min(base.y1) - bounds.y0.max(base.y0);
            let whole = bounds.area();
            let beyond = whole - width.max(0.0) * height.max(0.0);
            // A copy far out is worse than one at the edge.
            let away = (-width).max(0.0) + (-height).max(0.0);
            let scale = f64::from(held.shape.area()).sqrt();
            sum += (2.0 * (beyond + 0.0001 * whole + away * away).sqrt() * scale) as f32;
        }
        if self.is_bitten(bounds) {
            moved(hand, &held.shape, pose);
            let mut met = Met::default();
            self.engine.collect_poly_collisions(hand, &NoBeyond, &mut met);
            for (_, thing) in met.0 {
                if let Thing::Bite(at) = thing {
                    sum += overlap(hand, &self.bites[at]);
                }
            }
        }
        sum
    }
}

#[expect(clippy::cast_possible_truncation, reason = "a sheet is a few hundred mm")]
pub(super) fn jrect(rect: Rect) -> Option<JRect> {
    JRect::try_new(rect.x0 as f32, rect.y0 as f32, rect.x1 as f32, rect.y1 as f32).ok()
}
