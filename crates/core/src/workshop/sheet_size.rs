//! The sizes of sheets.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::{Faults, InputError, Remedy};
use crate::units::{INCH, Unit, measure};

/// A sheet's size, upright.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct SheetSize {
    /// Its name, such as “A4”.
    pub name: String,
    /// Width in mm.
    pub width: f64,
    /// Height in mm.
    pub height: f64,
}

/// The sizes everyone has a name for: ISO 216, ANSI/ASME Y14.1, and the scrapbook square.
#[must_use]
pub fn standard_sizes() -> Vec<SheetSize> {
    [
        ("A5", 148.0, 210.0),
        ("A4", 210.0, 297.0),
        ("A3", 297.0, 420.0),
        ("Letter", 8.5 * INCH, 11.0 * INCH),
        ("Tabloid", 11.0 * INCH, 17.0 * INCH),
        ("12 × 12 in", 12.0 * INCH, 12.0 * INCH),
    ]
    .into_iter()
    .map(|(name, width, height)| SheetSize { name: name.to_owned(), width, height })
    .collect()
}

impl SheetSize {
    pub(crate) fn validate(&self, field: &str, unit: Unit, faults: &mut Faults) {
        for (side, value) in [("width", self.width), ("height", self.height)] {
            faults.range(
                &format!("{field}.{side}"),
                &format!("The sheet’s {side}"),
                value,
                50.0..=2000.0,
                |mm| measure(mm, unit),
            );
        }
        if self.name.chars().count() > 80 {
            faults.add(InputError::plain(
                &format!("{field}.name"),
                "The sheet’s name has more than 80 characters",
                Remedy::advice("Use 1 to 80 characters"),
            ));
        }
    }

    /// True when both sides agree within 0.01 mm.
    #[must_use]
    pub fn same_as(&self, other: &Self) -> bool {
        (self.width - other.width).abs() < 0.01 && (self.height - other.height).abs() < 0.01
    }
}
