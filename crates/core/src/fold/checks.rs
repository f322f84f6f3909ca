//! The proof as limits for the fit strip.

use super::model::FoldModel;
use super::proof::{GIVES, Measured, Proof, prove};
use crate::check::{Check, Drawing, Gauge, Sense, Stage, State};
use crate::error::Remedy;
use crate::form::Flat;
use crate::geometry::path_text;
use crate::units::{Unit, measure};

/// Mating edges may miss each other by this much, mm, and sizes what was asked for.
const CLOSE: f64 = 0.05;

/// Glue areas lie on their mates over at least this share.
const GLUED: f64 = 0.9;

/// Strips that stand for a curve may lie this far from it, mm: bowed card gives by as much.
const RULING: f64 = 0.5;

/// The fold checks of a flat as limits for the fit strip.
#[must_use]
pub fn fold_checks(flat: &Flat, model: &FoldModel, unit: Unit) -> Vec<Check> {
    let proof = prove(model);
    if model.is_flat() {
        return Vec::new();
    }
    let place = |panels: &[String]| {
        panels.iter().filter_map(|name| flat.panel(name)).map(|path| path_text(&path)).collect()
    };
    let fine = |check: Check, found: &Measured, words: &str, remedy: &str| {
        let check = check.at(Drawing::Flat, place(&found.panels));
        if check.state == State::Fits {
            check.saying(words)
        } else {
            let pair = found.panels.join(" and ").to_lowercase();
            let check = check.saying(format!("{pair} miss"));
            check.remedy(Remedy::advice(remedy))
        }
    };
    let length = |id, label, limit| Check::length(id, Stage::Form, label, limit, unit);
    let mut checks = Vec::new();
    if let (count, Some(found)) = &proof.edges {
        let words = if *count == 1 {
            "the joint meets".to_owned()
        } else {
            format!("all {count} joints meet")
        };
        let check = length("fold-edges", "Folds shut", (found.value, Sense::AtMost, CLOSE));
        checks.push(fine(check, found, &words, "Set the flaps back to the trade’s defaults"));
    }
    if let (count, Some(found)) = &proof.planes {
        let words = if *count == 1 {
            "the glue area lies flat".to_owned()
        } else {
            format!("{count} glue areas lie flat")
        };
        let check =
            length("fold-glue-planes", "Glue lies flat", (found.value, Sense::AtMost, CLOSE));
        checks.push(fine(check, found, &words, "Use thinner card, or a structure without glue"));
    }
    if let Some(found) = &proof.glued {
        let check = share_check(found.value);
        checks.push(fine(check, found, "covered by their mates", "Narrow the glue flap"));
    }
    if let Some(found) = &proof.sizes {
        let check = length("fold-inside", "Inside as asked", (found.value, Sense::AtMost, CLOSE));
        checks.push(fine(
            check,
            found,
            "measured when folded",
            "Set the flaps back to their defaults",
        ));
    }
    if let (count, Some(found)) = &proof.clearances {
        let check = length("fold-clear", "Clearance short by", (found.value, Sense::AtMost, CLOSE));
        let words = if *count == 1 {
            "the tuck has its play".to_owned()
        } else {
            format!("{count} tucks and slides have theirs")
        };
        checks.push(fine(check, found, &words, "Give it more clearance"));
    }
    checks.push(in_the_way(model, &proof, &place, unit));
    let ruling = flat.folding.as_ref().map(|folding| folding.ruling);
    if let Some(value) = ruling.filter(|ruling| *ruling > 0.0) {
        let strips = Measured { value, panels: vec![model.panels[0].name.clone()] };
        let check = length("fold-ruling", "Curve folded as strips", (value, Sense::AtMost, RULING));
        let words = format!("strips lie {} from the curve", measure(value, unit));
        checks.push(fine(check, &strips, &words, "Make it less deep: its curve is shown coarsely"));
    }
    checks
}

fn share_check(share: f64) -> Check {
    let fits = share >= GLUED - 1e-6;
    let percent = |share: f64| format!("{:.0} %", share * 100.0);
    Check {
        state: if fits { State::Fits } else { State::Broken },
        gauge: Some(Gauge { value: share * 100.0, bound: GLUED * 100.0, sense: Sense::AtLeast }),
        value_text: percent(share),
        bound_text: format!("at least {}", percent(GLUED)),
        ..Check::yes_or_no(
            "fold-glue",
            Stage::Form,
            "Glue on its mate",
            State::Fits,
            [String::new(), String::new(), String::new()],
        )
    }
}

fn in_the_way(
    model: &FoldModel,
    proof: &Proof,
    place: &impl Fn(&[String]) -> String,
    unit: Unit,
) -> Check {
    let (found, when) = match (&proof.closed, &proof.on_the_way) {
        (Some(found), _) => (Some(found), "when it is closed".to_owned()),
        (None, Some((found, step))) => (Some(found), format!("in “{step}”")),
        (None, None) => (None, String::new()),
    };
    let bound = if proof.closed.is_some() { model.caliper } else { model.caliper.max(GIVES) };
    let value = found.map_or(0.0, |found| found.value);
    let check = Check::length(
        "fold-through",
        Stage::Form,
        "Nothing in the way",
        (value, Sense::AtMost, bound),
        unit,
    );
    match found {
        None => check.saying(format!("in {} steps", model.steps.len())),
        Some(found) => check
            .at(Drawing::Flat, place(&found.panels))
            .saying(format!("{} meet {when}", found.panels.join(" and ").to_lowercase()))
            .remedy(Remedy::advice("Shorten the flaps named, or set them back to their defaults")),
    }
}
