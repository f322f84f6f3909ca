//! Ways to fit by cutting a piece in two: each is drawn, laid and folded before it is offered.

use super::{Way, WayKind, misfit_piece, piece_fits, with_form};
use crate::check::State;
use crate::error::Change;
use crate::fold::FoldModel;
use crate::form::{Form, GLUE_STANDARD, Part, PlacedPanel, Role, Split, SplitBy};
use crate::form_checks::limits;
use crate::geometry::Shape;
use crate::job::Job;
use crate::memory::Memory;
use crate::units::{Unit, measure};
use crate::workshop::Workshop;

/// Splits that are offered at most.
const SPLITS: usize = 3;

/// Parts narrower than this, mm, are no help to anyone.
const NARROWEST: f64 = 20.0;

/// Folds of fewer or more degrees have no side for a join flap to lie on.
const FOLDS: std::ops::RangeInclusive<f64> = 30.0..=150.0;

/// The splits of the piece that fits nowhere with which it does: those whose larger part is smallest come
/// first.
pub(super) fn splits(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> Vec<Way> {
    let Some((number, form, caliper)) = misfit_piece(job, workshop, memory) else {
        return Vec::new();
    };
    let is_whole = form.chosen().is_some_and(|chosen| chosen.split.is_none());
    let Some(flat) = form.draw(caliper, job.unit).ok().filter(|_| is_whole) else {
        return Vec::new();
    };
    let sound = |form: &Form| broken(form, caliper, job.unit);
    let Some(before) = sound(&form) else { return Vec::new() };
    let mut found: Vec<(f64, Way)> = flat
        .parts
        .iter()
        .flat_map(candidates)
        .filter_map(|split| {
            let mut changed = form.clone();
            changed.chosen_mut()?.split = Some(split.clone());
            let drawn = changed.draw(caliper, job.unit).ok()?;
            let size = |part: &Part| part.bounds.width().max(part.bounds.height());
            let largest = drawn.parts.iter().map(size).fold(0.0, f64::max);
            let (changed, path) = with_form(job, number, changed);
            piece_fits(&changed, workshop, memory, number)
                .then_some((largest, split, changed, path))
        })
        .map(|(largest, split, changed, path)| {
            (
                largest,
                Way { kind: WayKind::Split, remedy: remedy(&split, &path, job.unit), job: changed },
            )
        })
        .collect();
    found.sort_by(|(a, _), (b, _)| a.total_cmp(b));
    found
        .into_iter()
        .map(|(_, way)| way)
        .filter(|way| {
            let piece = way.job.pieces.get(number);
            piece.and_then(|piece| sound(&piece.form)).is_some_and(|now| now <= before)
        })
        .take(SPLITS)
        .collect()
}

/// Limits of the form and its folding that are broken.
fn broken(form: &Form, caliper: f64, unit: Unit) -> Option<usize> {
    let flat = form.draw(caliper, unit).ok()?;
    let all = limits(&flat, FoldModel::new(&flat, caliper).as_ref(), unit);
    Some(all.iter().filter(|check| check.state == State::Broken).count())
}

/// Where a blank may be cut: at the creases of its faces, and across the middle of each.
fn candidates(part: &Part) -> Vec<Split> {
    let split = |panel: &PlacedPanel, by, at, room: f64| Split {
        panel: panel.name.clone(),
        by,
        at,
        // A glue flap's usual width, where there is room.
        flap: GLUE_STANDARD.min(0.6 * room),
    };
    let mut found = Vec::new();
    for panel in part.panels.iter().filter(|panel| panel.role == Role::Face) {
        let own = (panel.frame.inverse() * panel.outline.clone()).bounding_box();
        if panel.hang.is_some_and(|hang| FOLDS.contains(&hang.fold)) && own.height() >= NARROWEST {
            found.push(split(panel, SplitBy::Crease, 0.0, own.height()));
        }
        if own.height() >= 2.0 * NARROWEST {
            let middle = (10.0 * own.center().y).round() / 10.0;
            found.push(split(panel, SplitBy::Across, middle, own.height() / 2.0));
        }
        if panel.hang.is_none() && own.width() >= 2.0 * NARROWEST {
            let middle = (10.0 * own.center().x).round() / 10.0;
            found.push(split(panel, SplitBy::Along, middle, own.width() / 2.0));
        }
    }
    found
}

fn remedy(split: &Split, path: &str, unit: Unit) -> crate::error::Remedy {
    let (by, place) = match split.by {
        SplitBy::Crease => ("crease", "at the crease of the"),
        SplitBy::Across => ("across", "across the"),
        SplitBy::Along => ("along", "along the"),
    };
    let text = format!(
        "Make it in two parts, cut {place} {} and joined by a flap of {}",
        split.panel.to_lowercase(),
        measure(split.flap, unit)
    );
    let field = |name: &str| format!("{path}form.split.{name}");
    let changes = vec![
        Change::new(&field("panel"), split.panel.as_str()),
        Change::new(&field("by"), by),
        Change::new(&field("at"), split.at),
        Change::new(&field("flap"), split.flap),
    ];
    crate::error::Remedy { text, changes }
}
