//! Printers: what they cannot print on.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Keeping, Margins, check_name};
use crate::error::{Faults, InputError};
use crate::units::{Unit, measure};

/// A printer. Sheets enter it upright, the short edge first.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Printer {
    /// Its name in lists.
    pub name: String,
    /// Widest sheet in mm, across the feed.
    pub width: f64,
    /// Longest sheet in mm, along the feed.
    pub length: f64,
    /// What it cannot print on at each side.
    pub margins: Margins,
    /// Where it stands in lists.
    #[serde(default)]
    pub keeping: Keeping,
}

impl Printer {
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let show = |length: f64| measure(length, unit);
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        faults.range("width", "The widest sheet", self.width, 50.0..=2000.0, show);
        faults.range("length", "The longest sheet", self.length, 50.0..=5000.0, show);
        self.margins.validate("margins", "The printer’s margin", unit, &mut faults);
        self.margins.leave("margins", (self.width, self.length), "to print on", unit, &mut faults);
        faults.or(())
    }
}
