//! Printers: what they cannot print on.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Keeping, Margins, check_address, check_name};
use crate::error::{Faults, InputError};
use crate::geometry::{Affine, Rect};
use crate::units::{Unit, measure};

/// About which of its edges a printer turns a sheet to print its back.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum TurnsAbout {
    /// The longer edge, as a book’s page is turned.
    #[default]
    LongEdge,
    /// The shorter edge, as a pad’s page is turned.
    ShortEdge,
}

/// What a printer puts on a sheet. Coatings for the one spoil the other: heat melts films, toner does not hold on what drinks ink.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum PrintProcess {
    /// Ink that dries.
    Inkjet,
    /// Toner that is melted on.
    Laser,
}

impl PrintProcess {
    /// In words.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Inkjet => "inkjet",
            Self::Laser => "laser",
        }
    }
}

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
    /// About which edge it turns a sheet to print its back.
    #[serde(default)]
    pub turns_about: TurnsAbout,
    /// How far the back may lie off the front, mm, 0 to 5.
    #[serde(default = "usual_turning")]
    pub turning_error: f64,
    /// How it prints, where that is known.
    #[serde(default)]
    pub process: Option<PrintProcess>,
    /// Where it takes print files over TCP, such as `192.168.1.21:9100`; empty where they go through a print dialog.
    #[serde(default)]
    pub address: String,
    /// Where it stands in lists.
    #[serde(default)]
    pub keeping: Keeping,
}

/// Printers that turn sheets are off by 0.5 to 1.5 mm (common practice).
const fn usual_turning() -> f64 {
    1.0
}

impl TurnsAbout {
    /// Where a point of the front of a page of that size lies on its back, seen from behind.
    #[must_use]
    pub fn turned(self, page: Rect) -> Affine {
        let is_upright = page.height() >= page.width();
        if (self == Self::LongEdge) == is_upright {
            Affine::new([-1.0, 0.0, 0.0, 1.0, page.x0 + page.x1, 0.0])
        } else {
            Affine::new([1.0, 0.0, 0.0, -1.0, 0.0, page.y0 + page.y1])
        }
    }
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
        let words = "The error of turning a sheet";
        faults.range("turning_error", words, self.turning_error, 0.0..=5.0, show);
        check_address(&self.address, &mut faults);
        self.margins.validate("margins", "The printer’s margin", unit, &mut faults);
        self.margins.leave("margins", (self.width, self.length), "to print on", unit, &mut faults);
        faults.or(())
    }
}
