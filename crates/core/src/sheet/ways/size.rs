//! Making the piece smaller: the whole of it, or one size alone.

use super::{Way, WayKind, misfit_piece, piece_fits, way, with_form};
use crate::error::{Change, Remedy};
use crate::form::Form;
use crate::job::Job;
use crate::memory::Memory;
use crate::units::{measure, product};
use crate::workshop::Workshop;

/// The largest piece that fits is sought downwards in steps of a twentieth, then by halving.
const STEPS: u32 = 20;
const HALVINGS: u32 = 8;

/// The changes that give a form its inside.
fn size_changes(changed: &Form, path: &str, inside: &[(String, f64)]) -> Vec<Change> {
    let figures = changed.chosen().map(|chosen| &chosen.figures);
    let set = |key: &String| figures?.get(key).copied().flatten();
    inside
        .iter()
        .filter_map(|(key, _)| Some(Change::new(&format!("{path}form.{key}"), set(key)?)))
        .collect()
}

/// The largest share of some sizes at which a piece fits, as `fits` says; `None` where even a twentieth does not.
fn largest(fits: impl Fn(f64) -> bool) -> Option<f64> {
    let (mut low, mut high) = (1..STEPS)
        .rev()
        .map(|step| (f64::from(step) / f64::from(STEPS), f64::from(step + 1) / f64::from(STEPS)))
        .find(|(low, _)| fits(*low))?;
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if fits(middle) {
            low = middle;
        } else {
            high = middle;
        }
    }
    Some(low)
}

/// Sizes times a share, in tenths of a millimetre downwards.
fn shrunk(inside: &[(String, f64)], share: f64, only: Option<usize>) -> Vec<(String, f64)> {
    let scale = |(at, (key, side)): (usize, &(String, f64))| {
        let applies = only.is_none_or(|only| only == at);
        let side = if applies { (side * share * 10.0).floor() / 10.0 } else { *side };
        (key.clone(), side)
    };
    inside.iter().enumerate().map(scale).collect()
}

/// The largest piece of the same proportions that fits, in tenths of a millimetre.
pub(super) fn smaller(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> Option<Way> {
    let (number, form, caliper) = misfit_piece(job, workshop, memory)?;
    let inside = form.inside(caliper);
    if inside.is_empty() {
        return None;
    }
    let scaled = |share: f64| {
        with_form(job, number, form.with_inside(&shrunk(&inside, share, None), caliper)).0
    };
    let share = largest(|share| piece_fits(&scaled(share), workshop, memory, number))?;
    let sizes = shrunk(&inside, share, None);
    let changed = form.with_inside(&sizes, caliper);
    let (job, path) = with_form(job, number, changed.clone());
    let shown = sizes.iter().map(|(_, side)| *side).collect::<Vec<_>>();
    let text = format!(
        "Make it {} inside, the largest of this shape that fits",
        product(&shown, job.unit)
    );
    let changes = size_changes(&changed, &path, &sizes);
    Some(way(WayKind::Smaller, job, Remedy { text, changes }))
}

/// One size alone made smaller, for each size with which that helps.
pub(super) fn shorter(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> Vec<Way> {
    let Some((number, form, caliper)) = misfit_piece(job, workshop, memory) else {
        return Vec::new();
    };
    let inside = form.inside(caliper);
    if inside.len() < 2 {
        return Vec::new();
    }
    (0..inside.len())
        .filter_map(|only| {
            let scaled = |share: f64| {
                let sizes = shrunk(&inside, share, Some(only));
                with_form(job, number, form.with_inside(&sizes, caliper)).0
            };
            let share = largest(|share| piece_fits(&scaled(share), workshop, memory, number))
                .filter(|share| *share > 0.3)?;
            let sizes = shrunk(&inside, share, Some(only));
            let changed = form.with_inside(&sizes, caliper);
            let (job, path) = with_form(job, number, changed.clone());
            let param = form.structure().and_then(|structure| structure.param(&sizes[only].0));
            let name = param.map_or(sizes[only].0.as_str(), |param| param.label).to_lowercase();
            let text = format!(
                "Make only its {name} smaller: {} instead of {} inside",
                measure(sizes[only].1, job.unit),
                measure(inside[only].1, job.unit)
            );
            let changes = size_changes(&changed, &path, &sizes[only..=only]);
            Some(way(WayKind::Smaller, job, Remedy { text, changes }))
        })
        .collect()
}
