//! Copies on sheets.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Placement;
use crate::workshop::RecordId;

/// A number of sheets that are all alike.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
pub struct SheetRun {
    /// How many sheets.
    pub sheets: u32,
    /// Their card, where that is not the job's.
    pub stock: Option<RecordId>,
    /// The copies on each.
    pub placements: Vec<Placement>,
}

/// All copies on all sheets.
#[derive(Debug, Clone, Default, PartialEq, Serialize, JsonSchema, TS)]
pub struct Layout {
    /// Full sheets first, then the one with the remainder.
    pub runs: Vec<SheetRun>,
    /// Copies that a full sheet holds.
    pub per_sheet: u32,
    /// Copies laid, over all sheets.
    pub laid: u32,
}

impl Layout {
    /// Sheets in all.
    #[must_use]
    pub fn sheets(&self) -> u32 {
        self.runs.iter().map(|run| run.sheets).sum()
    }

    /// The copies on each sheet in turn, from the first.
    pub fn each_sheet(&self) -> impl Iterator<Item = &[Placement]> {
        self.runs
            .iter()
            .flat_map(|run| std::iter::repeat_n(run.placements.as_slice(), run.sheets as usize))
    }

    /// How many there are of a blank, over all sheets.
    #[must_use]
    pub fn count(&self, part: usize) -> u32 {
        self.runs.iter().map(|run| run.sheets * run.count(part)).sum()
    }
}

impl SheetRun {
    /// How many of a blank each sheet carries.
    #[must_use]
    pub fn count(&self, part: usize) -> u32 {
        let count = self.placements.iter().filter(|placement| placement.part == part).count();
        u32::try_from(count).unwrap_or(u32::MAX)
    }
}
