//! The first stage: a form in its card, drawn flat, ready to fold, and checked. It reads nothing else, so it can be
//! remembered while everything after it changes.

use std::sync::Arc;

use serde::Serialize;

use crate::check::Check;
use crate::error::InputError;
use crate::face::Uprights;
use crate::fold::{FoldModel, meeting};
use crate::form::design::Must;
use crate::form::{Flat, Form};
use crate::form_checks::form_checks;
use crate::memory::{ELEMENT, Key, Memory, Weighty, recalled};
use crate::units::Unit;

/// A form in its card.
#[derive(Debug, Clone)]
pub struct Formed {
    /// It laid flat.
    pub flat: Flat,
    /// How it folds, where its source says so.
    pub fold: Option<FoldModel>,
    /// Which way is up on its panels when it stands.
    pub uprights: Uprights,
    /// Every limit of the form and its folding.
    pub checks: Vec<Check>,
}

/// What a form is made from: all that [`Formed::new`] reads.
#[derive(Debug, Clone, Copy, Serialize)]
pub struct FormInput<'a> {
    /// The form; a card that holds others with these drawn.
    pub form: &'a Form,
    /// What the forms of those that it holds are known by.
    pub held: &'a [Key],
    /// The card's caliper, mm.
    pub caliper: f64,
    /// The unit of the texts.
    pub unit: Unit,
}

impl FormInput<'_> {
    /// What it makes, made anew or remembered, and under which key.
    ///
    /// # Errors
    /// As [`Form::draw`].
    pub fn made(&self, memory: &dyn Memory) -> Result<(Key, Arc<Formed>), Vec<InputError>> {
        recalled(memory, "formed", self, || Formed::new(self))
    }
}

impl Formed {
    /// Draws, folds and checks a form.
    ///
    /// # Errors
    /// As [`Form::draw`].
    pub fn new(input: &FormInput<'_>) -> Result<Self, Vec<InputError>> {
        let FormInput { form, caliper, unit, .. } = *input;
        let mut flat = form.draw(caliper, unit)?;
        let mut fold = FoldModel::new(&flat, caliper);
        // Nobody has said of a drawing which of its sides are to meet.
        if let Some(model) = fold.as_mut().filter(|_| flat.drawing.is_some()) {
            let joints = meeting(model);
            flat.number_joints(&joints);
            model.musts.extend(joints.into_iter().map(|[one, other]| Must::Meet(one, other)));
        }
        let checks = form_checks(form, &flat, fold.as_ref(), caliper, unit);
        let uprights = Uprights::of_model(fold.as_ref());
        Ok(Self { flat, fold, uprights, checks })
    }
}

impl Weighty for Formed {
    fn weight(&self) -> usize {
        // The folding model holds about as much again as the flat.
        2 * flat_weight(&self.flat) + 1000 * self.checks.len()
    }
}

/// About how many bytes a flat takes.
pub(crate) fn flat_weight(flat: &Flat) -> usize {
    let parts = flat.parts.iter().map(|part| {
        let strokes = part.strokes.iter().map(|stroke| stroke.path.elements().len());
        let panels = part.panels.iter().map(|panel| panel.outline.elements().len() + 4);
        let elements =
            part.outline.elements().len() + strokes.sum::<usize>() + panels.sum::<usize>();
        ELEMENT * elements + 120 * part.strokes.len()
    });
    parts.sum::<usize>() + 300 * (flat.dimensions.len() + flat.figures.len()) + 1000
}
