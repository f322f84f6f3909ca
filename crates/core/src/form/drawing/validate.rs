//! What a drawing's figures may be.

use super::{CRUMBS, FoldSay, JOINS, LineDrawing};
use crate::error::{Faults, InputError, Remedy, Setting};
use crate::lines::{MOST_MENDS, MOST_STEPS, MOST_TOLD, MOST_TURNS, PanelName, StepSay};
use crate::units::{Unit, measure};

impl LineDrawing {
    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        faults.range("form.drawing.join", "What is joined", self.join, JOINS, show);
        faults.range("form.drawing.crumb", "The shortest line", self.crumb, CRUMBS, show);
        self.origin.validate("form.drawing.origin", faults);
        if self.key.0.len() > crate::lines::MOST_GROUPS {
            faults.add(InputError::plain(
                "form.drawing.key",
                format!(
                    "The line key has {} rows: up to {}",
                    self.key.0.len(),
                    crate::lines::MOST_GROUPS
                ),
                Remedy::advice("Bring the drawing in again"),
            ));
        }
        let is_far = |say: &FoldSay| {
            !(say.degrees.abs() <= 180.0 && say.at.iter().all(|own| own.is_finite()))
        };
        if self.folds.len() > MOST_TOLD || self.folds.iter().any(is_far) {
            faults.add(InputError::plain(
                "form.drawing.folds",
                format!("{} creases are told apart, or one by more than 180°: up to {MOST_TOLD}, -180 to 180°", self.folds.len()),
                Remedy::set("Fold all by 90°", "form.drawing.folds", Setting::Standard),
            ));
        }
        if let Some(name) = &self.key_name
            && (name.trim().is_empty()
                || name.chars().count() > 60
                || name.contains(char::is_control))
        {
            faults.add(InputError::plain(
                "form.drawing.key_name",
                "The line key has no name, or one of more than 60 characters",
                Remedy::set("Call it by the job", "form.drawing.key_name", Setting::Standard),
            ));
        }
        if self.names.len() > MOST_TOLD || !self.names.iter().all(PanelName::is_sound) {
            faults.add(InputError::plain(
                "form.drawing.names",
                format!("{} panels have names, or one has none or a long one: up to {MOST_TOLD}, of 1 to 60 characters", self.names.len()),
                Remedy::set("Call them by numbers", "form.drawing.names", Setting::Standard),
            ));
        }
        let turns: usize = self.steps.iter().map(|step| step.turns.len()).sum();
        if self.steps.len() > MOST_STEPS
            || turns > MOST_TURNS
            || !self.steps.iter().all(StepSay::is_sound)
        {
            faults.add(InputError::plain(
                "form.drawing.steps",
                format!("{} steps turn {turns} panels, or one has no words, or more than 200 characters, or turns by more than 180°: up to {MOST_STEPS} steps and {MOST_TURNS} turns", self.steps.len()),
                Remedy::set("Find the steps anew", "form.drawing.steps", Setting::Standard),
            ));
        }
        if self.mends.len() > MOST_MENDS {
            faults.add(InputError::plain(
                "form.drawing.mends",
                format!("The drawing is mended in {} steps: up to {MOST_MENDS}", self.mends.len()),
                Remedy::advice("Save its lines as SVG or DXF, and bring them in anew"),
            ));
        }
        if !self.lines.is_sound() {
            faults.add(InputError::plain(
                "form.drawing.lines",
                "The drawing is named by no SHA-256",
                Remedy::advice("Bring the drawing in again"),
            ));
        }
    }
}
