//! What the user decides about a job's sheets.

use kurbo::Rect;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use crate::error::{Faults, InputError, Remedy};
use crate::units::{INCH, Unit, measure};
use crate::workshop::RecordId;

/// A sheet's size, upright.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
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
    pub(crate) fn validate(&self, field: &str, faults: &mut Faults) {
        for (side, value) in [("width", self.width), ("height", self.height)] {
            faults.range(
                &format!("{field}.{side}"),
                &format!("The sheet’s {side}"),
                value,
                50.0..=2000.0,
                |mm| measure(mm, Unit::Mm),
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

/// Which way round the sheet is drawn.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Orientation {
    /// Upright. Its top edge leads into the printer.
    #[default]
    Portrait,
    /// On its side. Its left edge is the one that leads into the printer.
    Landscape,
}

/// How copies may be turned on the sheet.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Turning {
    /// By quarter turns, wherever that fits more.
    #[default]
    Quarter,
    /// So that the main folds run along the stock's grain.
    Grain,
    /// Not at all.
    Upright,
}

/// How copies go onto sheets.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
pub struct SheetPlan {
    /// The stock sheet, upright.
    pub size: SheetSize,
    /// Which way round it is drawn.
    #[serde(default)]
    pub orientation: Orientation,
    /// The printer; without one the whole page counts as printable.
    pub printer: Option<RecordId>,
    /// The cutter; `None` is a knife and a ruler.
    pub cutter: Option<RecordId>,
    /// The marks by which the cutter finds a printed sheet.
    pub marks: Option<RecordId>,
    /// Copies wanted, 1 to 10,000.
    pub copies: u32,
    /// Least distance between the cuts of neighbours, mm, 0 to 100.
    pub spacing: f64,
    /// How copies may be turned.
    #[serde(default)]
    pub turning: Turning,
}

impl SheetPlan {
    /// The page, its top left corner at the origin.
    #[must_use]
    pub fn page(&self) -> Rect {
        let (width, height) = (self.size.width, self.size.height);
        match self.orientation {
            Orientation::Portrait => Rect::new(0.0, 0.0, width, height),
            Orientation::Landscape => Rect::new(0.0, 0.0, height, width),
        }
    }

    pub(crate) fn validate(&self, unit: Unit, faults: &mut Faults) {
        self.size.validate("sheet.size", faults);
        faults.range("sheet.spacing", "The spacing", self.spacing, 0.0..=100.0, |mm| {
            measure(mm, unit)
        });
        faults.range(
            "sheet.copies",
            "The number of copies",
            f64::from(self.copies),
            1.0..=10_000.0,
            |count| format!("{count}"),
        );
    }
}

/// An id that names nothing.
pub(crate) fn unknown(field: &str, kind: &str, id: &RecordId) -> InputError {
    InputError::plain(
        field,
        format!("The workshop has no {kind} “{id}”"),
        Remedy::advice(format!("Choose a {kind} from the workshop")),
    )
}
