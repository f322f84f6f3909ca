//! Sides of different panels that lie on each other in the closed piece.

use nalgebra::Point3;

use super::model::FoldModel;
use super::pose::Pose;
use crate::form::design::Edge;
use crate::geometry::Point;

/// Sides whose ends come no nearer to each other do not meet, mm: half of what card gives.
const NEAR: f64 = 0.5;

/// A shorter side is none that is joined, mm.
const SHORTEST: f64 = 2.0;

/// Most sides that are looked at.
const MOST_SIDES: usize = 4000;

/// The sides that meet when everything is folded, two by two; none of them is a hinge.
#[must_use]
pub fn meeting(model: &FoldModel) -> Vec<[Edge; 2]> {
    let pose = Pose::at(model, model.closed());
    let mut sides: Vec<(usize, [Point; 2], [Point3<f64>; 2])> = Vec::new();
    for (number, panel) in model.panels.iter().enumerate() {
        let next = panel.ring.iter().cycle().skip(1);
        for (from, to) in panel.ring.iter().zip(next) {
            let is_loose = panel.is_seen(*from, *to) && !is_hinge(model, number, [*from, *to]);
            if from.distance(*to) < SHORTEST || !is_loose {
                continue;
            }
            let ends = [pose.point(number, *from), pose.point(number, *to)];
            sides.push((number, [*from, *to], ends));
        }
    }
    sides.truncate(MOST_SIDES);
    let mut found = Vec::new();
    let mut is_taken = vec![false; sides.len()];
    for one in 0..sides.len() {
        if is_taken[one] {
            continue;
        }
        let gap = |other: usize| {
            let (a, b) = (sides[one].2, sides[other].2);
            let apart = |b: [Point3<f64>; 2]| (a[0] - b[0]).norm().max((a[1] - b[1]).norm());
            apart(b).min(apart([b[1], b[0]]))
        };
        let others = (one + 1..sides.len())
            .filter(|other| !is_taken[*other] && sides[*other].0 != sides[one].0);
        let nearest = others
            .map(|other| (gap(other), other))
            .filter(|(gap, _)| *gap <= NEAR)
            .min_by(|a, b| a.0.total_cmp(&b.0));
        if let Some((_, other)) = nearest {
            (is_taken[one], is_taken[other]) = (true, true);
            let edge = |at: usize| {
                let (panel, ends, _) = &sides[at];
                Edge { panel: model.panels[*panel].name.clone(), ends: *ends }
            };
            found.push([edge(one), edge(other)]);
        }
    }
    found
}

/// True for a side of a panel at which it hangs, or another hangs on it.
fn is_hinge(model: &FoldModel, panel: usize, side: [Point; 2]) -> bool {
    let on = |ends: [Point; 2], point: Point| {
        let along = ends[1] - ends[0];
        let share = (point - ends[0]).dot(along) / along.hypot2().max(1e-18);
        (ends[0] + along * share.clamp(0.0, 1.0)).distance(point) < 0.1
    };
    let lies = |ends: [Point; 2]| side.iter().all(|point| on(ends, *point));
    let own = model.panels[panel]
        .hang
        .is_some_and(|(_, ends)| lies([Point::ZERO, Point::new(ends[0].distance(ends[1]), 0.0)]));
    own || model
        .panels
        .iter()
        .filter_map(|other| other.hang)
        .any(|(parent, ends)| parent == panel && lies(ends))
}
