//! What is still to be printed once pieces are counted, and what is packed.

use super::{Counted, Progress};
use crate::job::Job;
use crate::prepare::Prepared;

/// How a piece of a job stands.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PieceStands {
    /// Copies that are wanted.
    pub wanted: u32,
    /// Copies that the sheets hold, spares among them.
    pub made: u32,
    /// What came out.
    pub counted: Counted,
    /// Good ones that are still missing.
    pub missing: u32,
    /// Sheets that hold so many more; 0 where none are missing, or none fits.
    pub sheets: u32,
    /// Whole packs, and what is left over; none where they are not packed.
    pub packs: Option<(u32, u32)>,
}

/// How each piece of a job stands that lies on sheets, in the job's order, with its place in it.
#[must_use]
pub fn pieces_stand(job: &Job, prepared: &Prepared, run: &Progress) -> Vec<(usize, PieceStands)> {
    let mut first = 0;
    let own = prepared.pieces.iter().enumerate().filter_map(|(at, piece)| {
        let blanks = first..first + piece.laid_parts().len();
        first = blanks.end;
        if blanks.is_empty() {
            return None;
        }
        // A copy is there when each of its blanks is; all of them are laid alike often.
        let count = |run: &crate::sheet::SheetRun| {
            let own = run.placements.iter().filter(|place| place.part == blanks.start).count();
            u32::try_from(own).unwrap_or(u32::MAX)
        };
        let runs = || prepared.layout.runs.iter();
        let made = runs()
            .fold(0_u32, |sum, run| sum.saturating_add(count(run).saturating_mul(run.sheets)));
        let most = runs().map(count).max().unwrap_or(0);
        let piece = job.pieces.get(at)?;
        let counted = run.counts.get(&piece.id).cloned().unwrap_or_default();
        let missing = piece.copies.saturating_sub(counted.good);
        let sheets = if most > 0 { missing.div_ceil(most) } else { 0 };
        let packs =
            (piece.pack > 0).then(|| (counted.good / piece.pack, counted.good % piece.pack));
        let stands = PieceStands { wanted: piece.copies, made, missing, sheets, packs, counted };
        Some((at, stands))
    });
    own.collect()
}
