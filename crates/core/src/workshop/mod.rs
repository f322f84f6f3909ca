//! The workshop: what the makers own. Records are kept once and named by jobs.

mod address;
mod carrier;
mod cutter;
mod force;
mod keeping;
mod knife;
mod mark_set;
mod print_recipe;
mod printer;
mod recipe;
mod record;
mod sheet_size;
mod stock;

use std::collections::BTreeMap;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub(crate) use address::check_address;
pub use carrier::Carrier;
pub use cutter::{Correction, Cutter, DepthSetting, EyeRange, Field, Finds, Station, Tool};
pub use force::{Force, ForceUnit};
pub use keeping::Keeping;
pub use knife::{AllowedBy, Dialect, Gcode, Knife, Pace};
pub use mark_set::{Corner, DistanceFrom, MarkSet, MarkShape, MarkShapeName, Tell};
pub use print_recipe::{LiesInTray, PrintRecipe, PrintSettings};
pub use printer::{PrintProcess, Printer, TurnsAbout};
pub use recipe::Recipe;
pub(crate) use recipe::{Told, check_note, force_range};
pub use record::{Record, RecordKind};
pub use sheet_size::{SheetSize, standard_sizes};
pub(crate) use stock::is_colour;
pub use stock::{Grain, Laminate, Price, PrintableSide, Roll, Shine, Stock};

use crate::error::{Faults, InputError, Remedy};
use crate::geometry::Rect;
use crate::units::{Unit, measure};

/// What names a record: letters, digits and hyphens, unique within its kind.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(transparent)]
pub struct RecordId(pub String);

impl RecordId {
    /// True for 1 to 100 small letters, digits and hyphens.
    #[must_use]
    pub fn is_sound(&self) -> bool {
        let plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-';
        (1..=100).contains(&self.0.len()) && self.0.chars().all(plain)
    }
}

impl From<&str> for RecordId {
    fn from(id: &str) -> Self {
        Self(id.to_owned())
    }
}

impl std::fmt::Display for RecordId {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str(&self.0)
    }
}

/// The records a job may name.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Workshop {
    /// Card and paper.
    #[serde(default)]
    pub stocks: BTreeMap<RecordId, Stock>,
    /// Printers.
    #[serde(default)]
    pub printers: BTreeMap<RecordId, Printer>,
    /// Cutters.
    #[serde(default)]
    pub cutters: BTreeMap<RecordId, Cutter>,
    /// Carriers.
    #[serde(default)]
    pub carriers: BTreeMap<RecordId, Carrier>,
    /// Mark sets.
    #[serde(default)]
    pub mark_sets: BTreeMap<RecordId, MarkSet>,
    /// Recipes.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub recipes: BTreeMap<RecordId, Recipe>,
    /// Printing recipes.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub print_recipes: BTreeMap<RecordId, PrintRecipe>,
}

impl Workshop {
    /// Checks every record; fields are dotted paths such as `cutters.desk.width`.
    ///
    /// # Errors
    /// Everything that is wrong in any record.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        all("stocks", &self.stocks, |record| record.validate(unit), &mut faults);
        all("printers", &self.printers, |record| record.validate(unit), &mut faults);
        all("cutters", &self.cutters, |record| record.validate(unit), &mut faults);
        all("carriers", &self.carriers, |record| record.validate(unit), &mut faults);
        all("mark_sets", &self.mark_sets, |record| record.validate(unit), &mut faults);
        all("recipes", &self.recipes, |record| record.validate(unit), &mut faults);
        all("print_recipes", &self.print_recipes, PrintRecipe::validate, &mut faults);
        faults.or(())
    }
}

fn all<T>(
    kind: &str,
    records: &BTreeMap<RecordId, T>,
    validate: impl Fn(&T) -> Result<(), Vec<InputError>>,
    faults: &mut Faults,
) {
    for (id, record) in records {
        if !id.is_sound() {
            let shown: String = id.0.chars().take(40).collect();
            faults.add(InputError::new(
                kind,
                format!("“{shown}” of {} characters is no record’s id", id.0.chars().count()),
                f64::from(u32::try_from(id.0.chars().count()).unwrap_or(u32::MAX)),
                Remedy::advice("Use 1 to 100 small letters, digits and hyphens"),
            ));
        }
        if let Err(errors) = validate(record) {
            for error in errors {
                faults.add(InputError { field: format!("{kind}.{id}.{}", error.field), ..error });
            }
        }
    }
}

/// Characters that turn the direction of what stands around them.
fn turns_direction(c: char) -> bool {
    matches!(c, '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}')
}

/// A name that a list can show: not empty, at most 80 characters, none that control or turn the text.
pub(crate) fn check_name(field: &str, name: &str, faults: &mut Faults) {
    let length = name.chars().count();
    if name.trim().is_empty() {
        faults.add(InputError::plain(
            field,
            "The name is empty",
            Remedy::advice("Give it a name of 1 to 80 characters"),
        ));
    } else if length > 80 || name.chars().any(|c| c.is_control() || turns_direction(c)) {
        faults.add(InputError::new(
            field,
            format!("The name has {length} characters, or some that cannot be shown"),
            f64::from(u32::try_from(length).unwrap_or(u32::MAX)),
            Remedy::advice("Use 1 to 80 characters on one line"),
        ));
    }
}

/// Widths taken from a sheet's four sides, mm.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Margins {
    /// At the edge that enters the machine first.
    pub lead: f64,
    /// At the edge that enters last.
    pub trail: f64,
    /// At the left edge, seen with the leading edge on top.
    pub left: f64,
    /// At the right edge.
    pub right: f64,
}

impl Margins {
    /// The same width on every side.
    #[must_use]
    pub const fn all(width: f64) -> Self {
        Self { lead: width, trail: width, left: width, right: width }
    }

    /// What they leave of an upright sheet; empty where they leave nothing.
    #[must_use]
    pub fn inside(&self, sheet: Rect) -> Rect {
        let (x0, y0) = (sheet.x0 + self.left, sheet.y0 + self.lead);
        Rect::new(x0, y0, (sheet.x1 - self.right).max(x0), (sheet.y1 - self.trail).max(y0))
    }

    pub(crate) fn validate(&self, field: &str, name: &str, unit: Unit, faults: &mut Faults) {
        for (side, value) in
            [("lead", self.lead), ("trail", self.trail), ("left", self.left), ("right", self.right)]
        {
            faults.range(
                &format!("{field}.{side}"),
                &format!("{name} at the {} edge", side_name(side)),
                value,
                0.0..=500.0,
                |length| measure(length, unit),
            );
        }
    }

    /// Notes a fault where the sides leave nothing of a width and a length that are fine themselves.
    pub(crate) fn leave(
        &self,
        field: &str,
        (width, length): (f64, f64),
        what: &str,
        unit: Unit,
        faults: &mut Faults,
    ) {
        if !faults.is_empty() {
            return;
        }
        let show = |length: f64| measure(length, unit);
        for (taken, whole, sides, side) in [
            (self.left + self.right, width, "left and right", "left"),
            (self.lead + self.trail, length, "lead and trail", "lead"),
        ] {
            if taken >= whole {
                faults.add(InputError::new(
                    &format!("{field}.{side}"),
                    format!(
                        "{sides} take {} of {}: they leave nothing {what}",
                        show(taken),
                        show(whole)
                    ),
                    taken,
                    Remedy::advice(format!("Let them take less than {} together", show(whole))),
                ));
            }
        }
    }
}

/// A side in words.
fn side_name(side: &str) -> &str {
    match side {
        "lead" => "leading",
        "trail" => "trailing",
        other => other,
    }
}
