//! Carriers: the tacky sheet or tray on which stock goes through a cutter.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Keeping, Margins, check_name};
use crate::error::{Faults, InputError};
use crate::units::{Unit, measure};

/// A carrier. The stock lies in the top left corner of what holds.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Carrier {
    /// Its name in lists.
    pub name: String,
    /// Width over everything, mm.
    pub width: f64,
    /// Length over everything, mm.
    pub length: f64,
    /// What does not hold on each side: the border by which rollers grip it, mm.
    pub border: Margins,
    /// Where it stands in lists.
    #[serde(default)]
    pub keeping: Keeping,
}

impl Carrier {
    /// Width and length of what holds, mm.
    #[must_use]
    pub fn holds(&self) -> (f64, f64) {
        let Margins { lead, trail, left, right } = self.border;
        ((self.width - left - right).max(0.0), (self.length - lead - trail).max(0.0))
    }

    /// # Errors
    /// Every figure out of range, and borders that leave nothing.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let show = |length: f64| measure(length, unit);
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        faults.range("width", "The carrier’s width", self.width, 50.0..=3000.0, show);
        faults.range("length", "The carrier’s length", self.length, 50.0..=5000.0, show);
        self.border.validate("border", "The border", unit, &mut faults);
        self.border.leave("border", (self.width, self.length), "that holds", unit, &mut faults);
        faults.or(())
    }
}
