//! Card and paper.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::{check_name, mm};
use crate::error::{Faults, InputError, Remedy};
use crate::sheet::SheetSize;

/// How the fibres run on a sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Grain {
    /// Along the longer side.
    Long,
    /// Along the shorter side.
    Short,
    /// Not known, or none.
    Unknown,
}

/// A stock.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
pub struct Stock {
    /// Its name in lists.
    pub name: String,
    /// Thickness in mm, 0.02 to 5.
    pub caliper: f64,
    /// Mass in g/m², 20 to 2000, where it is known.
    pub grammage: Option<f64>,
    /// How the fibres run.
    pub grain: Grain,
    /// The face's colour as `#rrggbb`, for drawings.
    pub colour: String,
    /// The sheets it is kept in, first choice first.
    pub sheets: Vec<SheetSize>,
}

impl Stock {
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        faults.range("caliper", "The caliper", self.caliper, 0.02..=5.0, mm);
        if let Some(grammage) = self.grammage {
            faults.range("grammage", "The grammage", grammage, 20.0..=2000.0, |g| {
                format!("{g} g/m²")
            });
        }
        if !is_colour(&self.colour) {
            faults.add(InputError::plain(
                "colour",
                format!("“{}” is not a colour", self.colour.chars().take(20).collect::<String>()),
                Remedy::set("Use white, #ffffff", "colour", "#ffffff"),
            ));
        }
        if self.sheets.is_empty() || self.sheets.len() > 20 {
            faults.add(InputError::new(
                "sheets",
                format!("{} sheet sizes are listed: name 1 to 20", self.sheets.len()),
                f64::from(u32::try_from(self.sheets.len()).unwrap_or(u32::MAX)),
                Remedy::advice("List the sizes in which this stock is kept"),
            ));
        }
        for size in &self.sheets {
            size.validate("sheets", &mut faults);
        }
        faults.or(())
    }
}

/// True for `#rrggbb`.
pub fn is_colour(text: &str) -> bool {
    text.len() == 7
        && text.starts_with('#')
        && text[1..].bytes().all(|byte| byte.is_ascii_hexdigit())
}
