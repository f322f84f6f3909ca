//! The first stage: a form in its card, drawn flat, ready to fold, and checked. It reads nothing else, so it can be
//! remembered while everything after it changes.

use std::sync::Arc;

use crate::check::Check;
use crate::error::InputError;
use crate::fold::FoldModel;
use crate::form::{Flat, Form};
use crate::form_checks::form_checks;
use crate::units::Unit;

/// A form in its card.
#[derive(Debug, Clone)]
pub struct Formed {
    /// It laid flat.
    pub flat: Flat,
    /// How it folds.
    pub fold: FoldModel,
    /// Every limit of the form and its folding.
    pub checks: Vec<Check>,
}

/// What a form is made from: all that [`Formed::new`] reads.
#[derive(Debug, Clone, PartialEq)]
pub struct FormKey {
    /// The form.
    pub form: Form,
    /// The card's caliper, mm.
    pub caliper: f64,
    /// The unit of the texts.
    pub unit: Unit,
}

impl Formed {
    /// Draws, folds and checks a form.
    ///
    /// # Errors
    /// As [`Form::draw`].
    pub fn new(key: &FormKey) -> Result<Self, Vec<InputError>> {
        let FormKey { form, caliper, unit } = key;
        let flat = form.draw(*caliper, *unit)?;
        let fold = FoldModel::new(&flat, *caliper);
        let checks = form_checks(form, &flat, &fold, *unit);
        Ok(Self { flat, fold, checks })
    }
}

/// Who remembers what was formed.
pub trait Memory: Sync {
    /// What [`Formed::new`] makes of the key, made anew or remembered.
    ///
    /// # Errors
    /// As [`Formed::new`].
    fn formed(&self, key: FormKey) -> Result<Arc<Formed>, Vec<InputError>>;
}

/// Remembers nothing.
#[derive(Debug, Clone, Copy)]
pub struct Forgetful;

impl Memory for Forgetful {
    fn formed(&self, key: FormKey) -> Result<Arc<Formed>, Vec<InputError>> {
        Formed::new(&key).map(Arc::new)
    }
}
