//! Where copies lie, as a job keeps it.

use std::collections::BTreeMap;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::Placement;
use crate::geometry::OutlineId;
use crate::id::{PartId, PieceId};

/// A blank as a layout names it, with the outline that it was laid for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct LaidBlank {
    /// The piece.
    pub piece: PieceId,
    /// Which of its blanks.
    pub part: PartId,
    /// What was laid; `None` in a layout of an earlier version, which did not say.
    #[serde(default)]
    pub outline: Option<OutlineId>,
}

impl LaidBlank {
    /// A blank that any outline serves.
    #[must_use]
    pub fn any(piece: &str, part: &str) -> Self {
        Self { piece: piece.into(), part: part.into(), outline: None }
    }
}

/// A number of sheets that are all alike, of one card: that of the blanks on them.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct SheetRun {
    /// How many sheets.
    pub sheets: u32,
    /// The copies on each.
    pub placements: Vec<Placement>,
}

/// Gives copies without a number the next of their blank.
pub(crate) fn number_copies(runs: &mut [SheetRun]) {
    let mut last: BTreeMap<usize, u32> = BTreeMap::new();
    for run in &*runs {
        let mut each: BTreeMap<usize, u32> = BTreeMap::new();
        for at in &run.placements {
            *each.entry(at.part).or_default() += 1;
        }
        for at in run.placements.iter().filter(|at| at.copy > 0) {
            let own = last.entry(at.part).or_default();
            let further = (run.sheets.max(1) - 1).saturating_mul(each[&at.part]);
            *own = (*own).max(at.copy.saturating_add(further));
        }
    }
    for run in runs {
        let mut new: BTreeMap<usize, u32> = BTreeMap::new();
        for at in run.placements.iter_mut().filter(|at| at.copy == 0) {
            let count = new.entry(at.part).or_default();
            *count += 1;
            at.copy = last.get(&at.part).copied().unwrap_or(0).saturating_add(*count);
        }
        for (part, count) in new {
            let own = last.entry(part).or_default();
            *own = own.saturating_add(count.saturating_mul(run.sheets));
        }
    }
}

impl SheetRun {
    /// Which copy of its blank lies at a place on sheet `sheet` (from 0) of those that are alike, from 1.
    #[must_use]
    pub fn copy(&self, at: &Placement, sheet: u32) -> u32 {
        at.copy.saturating_add(sheet.saturating_mul(self.count(at.part)))
    }

    /// How many of a blank each sheet carries.
    #[must_use]
    pub fn count(&self, part: usize) -> u32 {
        let count = self.placements.iter().filter(|placement| placement.part == part).count();
        u32::try_from(count).unwrap_or(u32::MAX)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn copies_keep_their_numbers_and_new_ones_get_the_next() {
        let at = |part: usize, copy: u32| Placement { part, copy, ..Placement::default() };
        let mut runs = vec![
            SheetRun { sheets: 3, placements: vec![at(0, 0), at(1, 0), at(0, 0)] },
            SheetRun { sheets: 1, placements: vec![at(0, 0)] },
        ];
        number_copies(&mut runs);
        let numbers = |runs: &[SheetRun]| -> Vec<u32> {
            runs.iter().flat_map(|run| &run.placements).map(|at| at.copy).collect()
        };
        // Three sheets of two: the seventh lies on the fourth sheet.
        assert_eq!(numbers(&runs), [1, 1, 2, 7]);
        runs[0].placements.remove(0);
        runs[1].placements.insert(0, at(0, 0));
        number_copies(&mut runs);
        assert_eq!(numbers(&runs), [1, 2, 8, 7]);
    }
}
