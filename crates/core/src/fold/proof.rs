//! The proof that a piece closes: what meets, what is glued, what is in the way.

use nalgebra::{Isometry3, Point3};

use super::contact::{Plate, lies_in, passes_through, went_through};
use super::model::FoldModel;
use super::pose::Pose;
use crate::form::design::{Edge, Must};
use crate::geometry::{Point, Region, polygon};

/// On the way, card gives by this much, mm (common practice): flaps bend as they are tucked.
pub(super) const GIVES: f64 = 1.0;

/// Panels of which every pair is looked at; of more only what must meet is.
const MOST_LOOKED_AT: usize = 200;

/// Places looked at within each step.
const SAMPLES: u32 = 6;

/// One thing that was measured: how far off, and the panels concerned.
#[derive(Debug, Clone, PartialEq)]
pub struct Measured {
    /// Millimetres, or a share for glue areas.
    pub value: f64,
    /// The panels.
    pub panels: Vec<String>,
}

/// Everything the fold checks measure, the worst of each kind.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Proof {
    /// Edges that meet: how many, and the greatest error in mm.
    pub edges: (usize, Option<Measured>),
    /// Glue areas: the greatest error of their planes' distance, beyond what convention lets skew.
    pub planes: (usize, Option<Measured>),
    /// Glue areas: the smallest share that lies on its mate.
    pub glued: Option<Measured>,
    /// Sizes: the greatest difference from what was asked for, mm.
    pub sizes: Option<Measured>,
    /// Clearances: the greatest shortfall, mm.
    pub clearances: (usize, Option<Measured>),
    /// Panels that pass through each other when closed: by how much, mm.
    pub closed: Option<Measured>,
    /// Panels in each other's way in some step: by how much, mm, and the step's text.
    pub on_the_way: Option<(Measured, String)>,
}

/// Measures a model.
#[must_use]
pub fn prove(model: &FoldModel) -> Proof {
    let mut proof = Proof::default();
    if model.is_flat() {
        return proof;
    }
    let pose = Pose::at(model, model.closed());
    for must in &model.musts {
        measure_must(model, &pose, must, &mut proof);
    }
    let shut = plates(model, &pose);
    if model.panels.len() > MOST_LOOKED_AT {
        return proof;
    }
    proof.closed = worst_contact(model, &shut, model.caliper, |_, _| true).or_else(|| {
        let in_plane = |one: usize, other: usize| lies_in(&shut[one], &shut[other], model.caliper);
        if model.is_thin { None } else { worst_pair(model, in_plane) }
    });
    let give = model.caliper.max(GIVES);
    let start = Pose::at(model, 0.0);
    let mut before = plates(model, &start);
    for (index, step) in model.steps.iter().enumerate() {
        for sample in 1..=SAMPLES {
            let progress = index as f64 + f64::from(sample) / f64::from(SAMPLES);
            let now = Pose::at(model, progress);
            let now = plates(model, &now);
            // Pairs that keep their places to each other have been looked at before.
            let has_moved = |one: usize, other: usize| {
                !is_same(&before[one].seen_from(&before[other]), &now[one].seen_from(&now[other]))
            };
            let found = [
                worst_contact(model, &now, give, has_moved),
                worst_crossing(model, &before, &now, give, has_moved),
            ];
            for found in found.into_iter().flatten() {
                if proof.on_the_way.as_ref().is_none_or(|(worst, _)| found.value > worst.value) {
                    proof.on_the_way = Some((found, step.text.clone()));
                }
            }
            before = now;
        }
    }
    proof
}

fn plates<'a>(model: &'a FoldModel, pose: &Pose) -> Vec<Plate<'a>> {
    model.panels.iter().zip(&pose.0).map(|(panel, place)| Plate::new(panel, *place)).collect()
}

fn worse(worst: &mut Option<Measured>, value: f64, panels: &[&str]) {
    if worst.as_ref().is_none_or(|known| value > known.value) {
        let panels = panels.iter().map(|name| (*name).to_owned()).collect();
        *worst = Some(Measured { value, panels });
    }
}

fn measure_must(model: &FoldModel, pose: &Pose, must: &Must, proof: &mut Proof) {
    let t = model.caliper;
    match must {
        Must::Meet(one, other) => {
            let (Some(a), Some(b)) = (ends(model, pose, one), ends(model, pose, other)) else {
                return;
            };
            let apart = |b: [Point3<f64>; 2]| (a[0] - b[0]).norm().max((a[1] - b[1]).norm());
            let error = apart(b).min(apart([b[1], b[0]]));
            proof.edges.0 += 1;
            worse(&mut proof.edges.1, error, &[&one.panel, &other.panel]);
        }
        Must::Reach(edge, panel, want) => {
            let Some(points) = ends(model, pose, edge) else { return };
            let Some(index) = model.index(panel) else { return };
            let error = points
                .iter()
                .map(|point| (height(pose, index, point).abs() - want).abs())
                .fold(0.0, f64::max);
            proof.edges.0 += 1;
            worse(&mut proof.edges.1, error, &[&edge.panel, panel]);
        }
        Must::Glue(flap, mate, skew) => {
            let (Some(f), Some(m)) = (model.index(flap), model.index(mate)) else { return };
            let off = model.panels[f]
                .ring
                .iter()
                .map(|point| (height(pose, m, &pose.point(f, *point)).abs() - t).abs())
                .fold(0.0, f64::max);
            proof.planes.0 += 1;
            worse(&mut proof.planes.1, (off - skew * t).max(0.0), &[flap, mate]);
            let share = overlap(model, pose, f, m);
            if proof.glued.as_ref().is_none_or(|known| share < known.value) {
                proof.glued =
                    Some(Measured { value: share, panels: vec![flap.clone(), mate.clone()] });
            }
        }
        Must::Room(_, [one, other], want) => {
            let Some(room) = apart(model, pose, one, other) else { return };
            worse(&mut proof.sizes, (room - t - want).abs(), &[one, other]);
        }
        Must::Clear([one, other], want) => {
            let Some(room) = apart(model, pose, one, other) else { return };
            proof.clearances.0 += 1;
            worse(&mut proof.clearances.1, (want - (room - t)).max(0.0), &[one, other]);
        }
        Must::Beside([one, other], want) => {
            let Some(room) = apart(model, pose, one, other) else { return };
            proof.clearances.0 += 1;
            worse(&mut proof.clearances.1, (want - (room - t / 2.0)).max(0.0), &[one, other]);
        }
    }
}

fn ends(model: &FoldModel, pose: &Pose, edge: &Edge) -> Option<[Point3<f64>; 2]> {
    let index = model.index(&edge.panel)?;
    Some(edge.ends.map(|end| pose.point(index, end)))
}

fn height(pose: &Pose, panel: usize, point: &Point3<f64>) -> f64 {
    (pose.0[panel].inverse() * point).z
}

/// The least distance of one panel's corners from the other's plane.
fn apart(model: &FoldModel, pose: &Pose, one: &str, other: &str) -> Option<f64> {
    let (one, other) = (model.index(one)?, model.index(other)?);
    let corners = model.panels[one].ring.iter();
    let heights = corners.map(|corner| height(pose, other, &pose.point(one, *corner)).abs());
    Some(heights.fold(f64::MAX, f64::min))
}

/// So many calipers beside a flap's crease are taken up by the bend, which no glue reaches; common practice.
const BEND: f64 = 2.0;

/// The share of a flap beyond its bend that lies over its mate, seen square to the mate.
fn overlap(model: &FoldModel, pose: &Pose, flap: usize, mate: usize) -> f64 {
    let to_mate = pose.0[mate].inverse();
    let seen: Vec<Point> = model.panels[flap]
        .ring
        .iter()
        .map(|corner| to_mate * pose.point(flap, *corner))
        .map(|point| Point::new(point.x, point.y))
        .collect();
    let area = Region::inside(&polygon(&seen));
    let card = Region::inside(&polygon(&model.panels[mate].ring));
    let crease = model.panels[flap].hang.map_or(0.0, |(_, [a, b])| a.distance(b));
    let bend = BEND * model.caliper * crease;
    // Of a flap that is hardly more than its bend, half counts.
    let counts = (area.area() - bend).max(area.area() / 2.0);
    if counts > 0.0 { (area.intersection(&card).area() / counts).min(1.0) } else { 0.0 }
}

/// The two panels that pass through each other most, by more than `tolerance`.
fn worst_contact(
    model: &FoldModel,
    plates: &[Plate<'_>],
    tolerance: f64,
    counts: impl Fn(usize, usize) -> bool,
) -> Option<Measured> {
    worst_pair(model, |one, other| {
        if plates[one].is_far_from(&plates[other]) || !counts(one, other) {
            return 0.0;
        }
        passes_through(&plates[one], &plates[other], tolerance)
    })
}

/// True for places that differ by no more than binary noise.
fn is_same(one: &Isometry3<f64>, other: &Isometry3<f64>) -> bool {
    (one.translation.vector - other.translation.vector).norm_squared() < 1e-12
        && one.rotation.dot(&other.rotation).abs() > 1.0 - 1e-12
}

/// The two panels of which one went through the other by most between two moments.
fn worst_crossing(
    model: &FoldModel,
    before: &[Plate<'_>],
    after: &[Plate<'_>],
    tolerance: f64,
    counts: impl Fn(usize, usize) -> bool,
) -> Option<Measured> {
    worst_pair(model, |one, other| {
        let is_far = |plates: &[Plate<'_>]| plates[one].is_far_from(&plates[other]);
        if (is_far(before) && is_far(after)) || !counts(one, other) {
            return 0.0;
        }
        let (a, b) = ([&before[one], &after[one]], [&before[other], &after[other]]);
        let limits = [tolerance, model.caliper / 4.0];
        went_through(a, b, limits).max(went_through(b, a, limits))
    })
}

/// The worst of all pairs of panels that do not hang on each other.
fn worst_pair(model: &FoldModel, depth: impl Fn(usize, usize) -> f64) -> Option<Measured> {
    let parent = |of: usize| model.panels[of].hang.map(|(parent, _)| parent);
    let mut worst = None;
    for one in 0..model.panels.len() {
        for other in one + 1..model.panels.len() {
            if parent(one) == Some(other) || parent(other) == Some(one) {
                continue;
            }
            let depth = depth(one, other);
            if depth > 0.0 {
                let names = [model.panels[one].name.as_str(), model.panels[other].name.as_str()];
                worse(&mut worst, depth, &names);
            }
        }
    }
    worst
}
