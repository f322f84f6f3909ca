//! Copies on sheets.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{LaidBlank, Placement, SheetRun};

/// All copies on all sheets.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Layout {
    /// The blanks that its placements number: all of the job's, once the job is laid.
    pub blanks: Vec<LaidBlank>,
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

    /// The first and the last sheet of each run, from 1; of one without sheets the last comes before the first.
    pub fn ranges(&self) -> impl Iterator<Item = [u32; 2]> {
        self.runs.iter().scan(1, |next, run| {
            let first = *next;
            *next += run.sheets;
            Some([first, *next - 1])
        })
    }

    /// The run that a sheet, from 1, is of, with the first and the last sheet of that.
    #[must_use]
    pub fn run_of(&self, sheet: u32) -> Option<(usize, [u32; 2])> {
        self.ranges().enumerate().find(|(_, [first, last])| (*first..=*last).contains(&sheet))
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
