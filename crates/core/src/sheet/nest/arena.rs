//! One sheet while copies are moved about on it: what meets what, and by how much.
//!
//! Collisions are jagua-rs's: one engine for the copies, grown by half the spacing, and one for each
//! window.

use std::sync::Arc;

use jagua_rs::collision_detection::CDEngine;
use jagua_rs::collision_detection::hazards::Hazard;
use jagua_rs::geometry::geo_traits::Transformable;
use jagua_rs::geometry::primitives::SPolygon;

use super::fence::{Fence, jrect};
use super::overlap::overlap;
use super::shape::{Pose, Shape, moved};
use super::thing::{AllBut, ENGINE, Met, Thing};

/// A copy on the sheet.
#[derive(Clone)]
pub(super) struct Copy {
    /// Which shape.
    pub shape: usize,
    pub pose: Pose,
    /// It stays where it is.
    pub fixed: bool,
    /// Its room where it lies.
    room: Arc<SPolygon>,
}

/// A sheet with copies that may still meet each other.
#[derive(Clone)]
pub(super) struct Arena<'a> {
    shapes: &'a [Shape],
    cut: Fence,
    print: Fence,
    copies: Vec<Copy>,
    engine: CDEngine<Thing>,
    /// For each shape, what it is moved into when a place is tried: room, cut, prints.
    hands: Vec<Hand>,
}

#[derive(Clone)]
struct Hand {
    room: SPolygon,
    cut: SPolygon,
    printed: Vec<SPolygon>,
}

impl<'a> Arena<'a> {
    pub(super) fn new(shapes: &'a [Shape], cut: &Fence, print: &Fence) -> Self {
        let largest =
            shapes.iter().map(|shape| f64::from(shape.room.diameter())).fold(0.0, f64::max);
        let near = cut.base().union(print.base()).inflate(largest + 10.0, largest + 10.0);
        let whole = jrect(near).unwrap_or(cut.limits());
        let beyond = Hazard::new(Thing::Beyond, Arc::new(SPolygon::from(whole)));
        let engine = CDEngine::new(whole, vec![beyond], ENGINE);
        let hands = shapes
            .iter()
            .map(|shape| Hand {
                room: shape.room.clone(),
                cut: shape.cut.shape.clone(),
                printed: shape.printed.iter().map(|held| held.shape.clone()).collect(),
            })
            .collect();
        Self { shapes, cut: cut.clone(), print: print.clone(), copies: Vec::new(), engine, hands }
    }

    /// True when a copy there would lie where others are looked for.
    pub(super) fn reaches(&self, shape: usize, pose: Pose) -> bool {
        let room = self.shapes[shape].room.transform_clone(&pose.transformation()).bbox();
        let near = self.engine.bbox();
        room.x_min > near.x_min
            && room.y_min > near.y_min
            && room.x_max < near.x_max
            && room.y_max < near.y_max
    }

    pub(super) const fn shapes(&self) -> &'a [Shape] {
        self.shapes
    }

    pub(super) fn copies(&self) -> &[Copy] {
        &self.copies
    }

    pub(super) const fn cut(&self) -> &Fence {
        &self.cut
    }

    /// Cuts end at `foot` for now.
    pub(super) fn set_foot(&mut self, foot: f64) {
        self.cut.set_foot(foot);
    }

    pub(super) fn add(&mut self, shape: usize, pose: Pose, fixed: bool) -> usize {
        let number = self.copies.len();
        let room = self.room_at(shape, pose);
        self.engine.register_hazard(Hazard::new(Thing::Copy(number), room.clone()));
        self.copies.push(Copy { shape, pose, fixed, room });
        number
    }

    pub(super) fn move_to(&mut self, number: usize, pose: Pose) {
        let room = self.room_at(self.copies[number].shape, pose);
        self.engine.deregister_hazard_by_entity(Thing::Copy(number));
        self.engine.register_hazard(Hazard::new(Thing::Copy(number), room.clone()));
        let copy = &mut self.copies[number];
        copy.pose = pose;
        copy.room = room;
    }

    fn room_at(&self, shape: usize, pose: Pose) -> Arc<SPolygon> {
        Arc::new(self.shapes[shape].room.transform_clone(&pose.transformation()))
    }

    /// True when a copy of a shape, other than copy `but`, would be free there.
    pub(super) fn is_free(&mut self, shape: usize, pose: Pose, but: usize) -> bool {
        let (base, hand) = (&self.shapes[shape], &mut self.hands[shape]);
        if !self.cut.holds(&base.cut, &mut hand.cut, pose) {
            return false;
        }
        for (into, print) in hand.printed.iter_mut().zip(&base.printed) {
            if !self.print.holds(print, into, pose) {
                return false;
            }
        }
        moved(&mut hand.room, &base.room, pose);
        let mut met = Met::default();
        let (room, filter) = (&hand.room, AllBut(but));
        !self.engine.collect_surrogate_collisions_until(room, &filter, &mut met, |_| true)
            && !self.engine.collect_poly_collisions_until(room, &filter, &mut met, |_| true)
    }

    /// How badly a copy of a shape would meet the window and the others there, each weighed by `weight` (the
    /// window is `None`). Stops as soon as it is more than `bound`.
    pub(super) fn cost(
        &mut self,
        (shape, pose, but): (usize, Pose, usize),
        weight: impl Fn(Option<usize>) -> f32,
        bound: f32,
    ) -> f32 {
        let mut cost = weight(None) * self.excess_of(shape, pose);
        if cost > bound {
            return cost;
        }
        let (base, hand) = (&self.shapes[shape], &mut self.hands[shape]);
        moved(&mut hand.room, &base.room, pose);
        let (room, copies) = (&hand.room, &self.copies);
        let (mut met, filter) = (Met::default(), AllBut(but));
        let mut add = |thing| {
            if let Thing::Copy(other) = thing {
                cost += weight(Some(other)) * overlap(room, &copies[other].room);
            }
            cost > bound
        };
        // A few circles tell most of what meets, and whether it is worth looking closer.
        if !self.engine.collect_surrogate_collisions_until(room, &filter, &mut met, &mut add) {
            let _ = self.engine.collect_poly_collisions_until(room, &filter, &mut met, &mut add);
        }
        cost
    }

    /// How badly a copy of a shape would leave the windows there; 0 inside.
    fn excess_of(&mut self, shape: usize, pose: Pose) -> f32 {
        let (base, hand) = (&self.shapes[shape], &mut self.hands[shape]);
        let mut sum = self.cut.excess(&base.cut, &mut hand.cut, pose);
        for (into, print) in hand.printed.iter_mut().zip(&base.printed) {
            sum += self.print.excess(print, into, pose);
        }
        sum
    }

    /// How badly a copy leaves the windows where it lies.
    pub(super) fn excess(&mut self, number: usize) -> f32 {
        let Copy { shape, pose, .. } = self.copies[number];
        self.excess_of(shape, pose)
    }

    /// The copies that a copy meets, and how badly.
    pub(super) fn meets(&self, number: usize, found: &mut Vec<(usize, f32)>) {
        found.clear();
        let room = &self.copies[number].room;
        let mut met = Met::default();
        self.engine.collect_poly_collisions(room, &AllBut(number), &mut met);
        for (_, thing) in met.0 {
            if let Thing::Copy(other) = thing {
                found.push((other, overlap(room, &self.copies[other].room)));
            }
        }
    }
}
