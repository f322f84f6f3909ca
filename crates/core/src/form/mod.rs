//! Form: from figures to a dieline.
//!
//! A structure turns its parameters and the card's caliper into a [`Panel`] tree; the flat with
//! its outline, creases, areas and drafted dimensions follows from the tree.

pub mod carton;
mod dimension;
mod figure;
mod flat;
mod panel;

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

pub use dimension::{Axis, Dimension};
pub use figure::Figure;
pub use flat::{Flat, Sizes};
pub use panel::{Hinge, Line, Panel, PlacedPanel, Role, Unfolded};

use crate::error::InputError;
use crate::units::Unit;

/// Which dimensions the user gives.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Basis {
    /// The room inside.
    #[default]
    Inside,
    /// Over everything when closed.
    Outside,
    /// Between creases, at the middle of the card.
    Crease,
}

/// What is made: a structure and its figures.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(tag = "structure", rename_all = "kebab-case")]
pub enum Form {
    /// A carton whose two closures tuck in at the same panel.
    StraightTuck(carton::StraightTuck),
}

impl Form {
    /// The flat of this form in card of the given caliper (mm); texts are in `unit`.
    ///
    /// # Errors
    /// Every figure that is out of range or contradicts another.
    pub fn draw(&self, caliper: f64, unit: Unit) -> Result<Flat, Vec<InputError>> {
        match self {
            Self::StraightTuck(carton) => carton.draw(caliper, unit),
        }
    }

    /// The three inside dimensions in mm, in card of the given caliper.
    #[must_use]
    pub fn inside(&self, caliper: f64) -> [f64; 3] {
        match self {
            Self::StraightTuck(carton) => carton.inside(caliper),
        }
    }

    /// The three dimensions as the user gives them, mm, each with its field.
    #[must_use]
    pub const fn given(&self) -> [(&'static str, f64); 3] {
        match self {
            Self::StraightTuck(carton) => [
                ("form.length", carton.length),
                ("form.width", carton.width),
                ("form.height", carton.height),
            ],
        }
    }

    /// The same form with other inside dimensions in mm, its basis kept.
    #[must_use]
    pub fn with_inside(&self, inside: [f64; 3], caliper: f64) -> Self {
        match self {
            Self::StraightTuck(carton) => Self::StraightTuck(carton.with_inside(inside, caliper)),
        }
    }
}
