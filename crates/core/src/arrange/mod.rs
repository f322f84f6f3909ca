//! Moving copies by hand: each act gives the layout that is then kept, what it snapped to, and how near the
//! copies that were moved come to the nearest thing.

mod act;
mod clearance;
mod snap;
mod table;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use self::act::check;
pub use self::act::{Act, AlignTo, Arrange, Direction};
pub use self::clearance::Clearance;
use self::clearance::clearance;
use self::table::Table;
use crate::error::InputError;
use crate::job::Job;
use crate::memory::Memory;
use crate::records::Records;
use crate::sheet::Ground;
use crate::sheet::{Kept, Layout, Made, Piece, SheetRun, lay, number_copies};
use crate::workshop::Workshop;

/// What came of an act.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Arranged {
    /// The layout, to be kept.
    pub kept: Kept,
    /// The copies that are chosen now.
    pub chosen: Vec<usize>,
    /// Where the chosen copies are drawn to: lines from one point to another, mm.
    pub guides: Vec<[[f64; 2]; 2]>,
    /// How near the chosen copies come to the nearest thing.
    pub clearance: Option<Clearance>,
}

/// Farther things are not measured, mm.
const FAR: f64 = 60.0;

/// Does something to copies of a job's layout.
///
/// # Errors
/// Figures that cannot be worked with, copies that do not exist, and grids that are too large.
pub fn arrange(
    job: &Job,
    workshop: &Workshop,
    memory: &dyn Memory,
    ask: &Arrange,
) -> Result<Arranged, Vec<InputError>> {
    job.validate()?;
    let records = Records::of(job, workshop)?;
    let ground = Ground::new(job, &records, memory)?;
    let Layout { mut runs, .. } = lay(&job.sheet, &ground);
    if runs.is_empty() {
        runs.push(SheetRun { sheets: 1, placements: Vec::new() });
    }
    let places: usize = runs.iter().map(|run| run.placements.len()).sum();
    let blanks: Vec<&Piece> = ground.blanks().map(|(piece, at)| &piece.blanks[at]).collect();
    check(ask, &runs, &ground, places)?;
    let window = ground.windows.cut.base;
    let last = runs.len().saturating_sub(1);
    let run = &mut runs[ask.run.min(last)];
    let mut table =
        Table { ground: &ground, blanks: &blanks, window, placements: &mut run.placements };
    let (chosen, guides) = table.act(ask, job.sheet.spacing, ground.windows.page);
    let clearance = clearance(&blanks, &run.placements, &chosen, &ground, job);
    number_copies(&mut runs);
    let kept = Kept { made: Made::ByHand, blanks: ground.laid_blanks(), runs };
    Ok(Arranged { kept, chosen, guides, clearance })
}
