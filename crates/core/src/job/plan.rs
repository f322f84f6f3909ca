//! What the user decides about a job's sheets.

use kurbo::Rect;
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{LaidBlank, SheetRun};
use crate::error::{Change, Faults, InputError, Remedy, Setting};
use crate::units::{Unit, measure};
use crate::workshop::{RecordId, SheetSize};

/// Which way round the sheet is drawn.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Orientation {
    /// Upright. Its top edge leads into the printer.
    #[default]
    Portrait,
    /// On its side. Its left edge is the one that leads into the printer.
    Landscape,
}

/// How copies may be turned on the sheet.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Turning {
    /// By any angle.
    Free,
    /// By quarter turns, wherever that fits more.
    #[default]
    Quarter,
    /// So that the main folds run along the stock's grain.
    Grain,
    /// Not at all.
    Upright,
}

/// How many copies are laid.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Amount {
    /// As many as wanted, on as few sheets as possible.
    #[default]
    Wanted,
    /// As many as wanted, and as many more as the last sheet holds.
    FillSheets,
}

/// How a kept layout came about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Made {
    /// The search put it together.
    Nested,
    /// Somebody moved copies.
    ByHand,
}

/// A layout that is kept as it is, until the user asks for another.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Kept {
    /// How it came about.
    pub made: Made,
    /// The blanks that its placements number, and the outlines that it was made for.
    pub blanks: Vec<LaidBlank>,
    /// The sheets.
    pub runs: Vec<SheetRun>,
}

/// How the search for a nested layout goes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Search {
    /// Longest time it may take, s, 1 to 600.
    pub budget: f64,
    /// The same seed gives the same layout.
    pub seed: u32,
}

impl Default for Search {
    fn default() -> Self {
        Self { budget: 10.0, seed: 1 }
    }
}

/// How copies go onto sheets.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
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
    /// The carrier on which the sheet goes through the cutter, if any.
    #[serde(default)]
    pub carrier: Option<RecordId>,
    /// The marks by which the cutter finds a printed sheet.
    pub marks: Option<RecordId>,
    /// Least distance between the cuts of neighbours, mm, 0 to 100.
    pub spacing: f64,
    /// Least distance from a cut to the marks’ keep-clear, mm, 0 to 100.
    #[serde(default)]
    pub to_marks: f64,
    /// How copies may be turned.
    #[serde(default)]
    pub turning: Turning,
    /// How many sheets of a roll are printed and cut in a row before it is cut off, 1 to 50.
    #[serde(default = "one", skip_serializing_if = "is_one")]
    pub in_a_row: u32,
    /// Whether sheets are filled up.
    #[serde(default)]
    pub amount: Amount,
    /// The layout that is kept; `None` lays rows and columns.
    #[serde(default)]
    pub kept: Option<Kept>,
    /// How a nested layout is sought.
    #[serde(default)]
    pub search: Search,
}

const fn one() -> u32 {
    1
}

/// serde asks by reference.
#[expect(clippy::trivially_copy_pass_by_ref, reason = "as serde asks")]
const fn is_one(count: &u32) -> bool {
    *count == 1
}

impl Default for SheetPlan {
    /// A4, nothing but a knife and a ruler, 2 mm between cuts.
    fn default() -> Self {
        Self {
            size: SheetSize { name: "A4".to_owned(), width: 210.0, height: 297.0 },
            orientation: Orientation::default(),
            printer: None,
            cutter: None,
            carrier: None,
            marks: None,
            spacing: 2.0,
            to_marks: 0.0,
            turning: Turning::default(),
            in_a_row: 1,
            amount: Amount::default(),
            kept: None,
            search: Search::default(),
        }
    }
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
        self.size.validate("sheet.size", unit, faults);
        faults.range("sheet.spacing", "The spacing", self.spacing, 0.0..=100.0, |mm| {
            measure(mm, unit)
        });
        faults.range(
            "sheet.to_marks",
            "The distance to the marks",
            self.to_marks,
            0.0..=100.0,
            |mm| measure(mm, unit),
        );
        faults.range(
            "sheet.search.budget",
            "The time to nest",
            self.search.budget,
            1.0..=600.0,
            |s| format!("{s} s"),
        );
        faults.range(
            "sheet.in_a_row",
            "The number of sheets in a row",
            f64::from(self.in_a_row),
            1.0..=50.0,
            |count| format!("{count}"),
        );
        if let Some(kept) = &self.kept {
            kept.validate(faults);
        }
    }
}

/// More places than this are not kept one by one: 10,000 copies of a piece of two blanks.
pub const MOST_PLACED: usize = 20_000;

/// Most blanks of a kept layout.
const MOST_BLANKS: usize = 1000;

impl Kept {
    fn validate(&self, faults: &mut Faults) {
        let placements = || self.runs.iter().flat_map(|run| &run.placements);
        let again = || Remedy {
            text: "Lay them in rows and columns".to_owned(),
            changes: vec![Change { field: "sheet.kept".to_owned(), value: Setting::Standard }],
        };
        if self.blanks.len() > MOST_BLANKS {
            let count = self.blanks.len();
            faults.add(InputError::new(
                "sheet.kept",
                format!("The kept layout names {count} blanks: it names up to {MOST_BLANKS}"),
                f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                again(),
            ));
        }
        let (count, sheets) =
            (placements().count(), self.runs.iter().map(|run| u64::from(run.sheets)).sum::<u64>());
        if count > MOST_PLACED || sheets > 20_000 {
            faults.add(InputError::new(
                "sheet.kept",
                format!("The kept layout has {count} places on {sheets} sheets: it holds up to {MOST_PLACED} on 20000"),
                f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                again(),
            ));
        }
        let strays = placements()
            .filter(|at| ![at.x, at.y, at.turn].iter().all(|value| value.abs() <= 10_000.0))
            .count();
        if strays > 0 {
            faults.add(InputError::new(
                "sheet.kept",
                format!("{strays} copies of the kept layout lie more than 10 m away"),
                f64::from(u32::try_from(strays).unwrap_or(u32::MAX)),
                again(),
            ));
        }
    }
}
