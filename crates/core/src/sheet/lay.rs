//! The layout of a job: the one that is kept, or else rows and columns.
//!
//! Each piece is laid by itself first. Where several pieces are of one card, sheets that they share are
//! tried too, and the way that takes fewer sheets is used.

use super::piece::Turned;
use super::sets::shelve;
use super::{Amount, Kept, Layout, Placement, SetPiece, SheetPlan, SheetRun, lay_sets};
use crate::ground::{Drawn, Ground};
use crate::workshop::RecordId;

/// Lays a job's copies.
pub(crate) fn lay(plan: &SheetPlan, ground: &Ground) -> Layout {
    match plan.kept.as_ref().filter(|kept| kept.blanks == ground.cards.len()) {
        Some(kept) => as_kept(kept, ground),
        None => in_rows(plan, ground),
    }
}

/// Whole copies of a piece that a layout holds.
pub(crate) fn laid_of(piece: &Drawn, layout: &Layout) -> u32 {
    let counts = (0..piece.blanks.len()).map(|at| layout.count(piece.first + at));
    counts.min().unwrap_or(0)
}

fn as_kept(kept: &Kept, ground: &Ground) -> Layout {
    let known = |at: &Placement| at.part < ground.cards.len();
    let runs: Vec<SheetRun> = kept
        .runs
        .iter()
        .map(|run| SheetRun {
            placements: run.placements.iter().copied().filter(known).collect(),
            ..run.clone()
        })
        .collect();
    gathered(runs, ground)
}

/// A layout of these sheets.
pub(crate) fn gathered(runs: Vec<SheetRun>, ground: &Ground) -> Layout {
    let most = runs.iter().map(|run| run.placements.len()).max().unwrap_or(0);
    let mut layout = Layout { runs, per_sheet: u32::try_from(most).unwrap_or(u32::MAX), laid: 0 };
    layout.laid = ground.pieces.iter().map(|piece| laid_of(piece, &layout)).sum();
    layout
}

/// Rows and columns.
pub(crate) fn in_rows(plan: &SheetPlan, ground: &Ground) -> Layout {
    let alone: Vec<Layout> =
        ground.pieces.iter().map(|piece| by_itself(plan, ground, piece)).collect();
    if let [only] = alone.as_slice() {
        return only.clone();
    }
    let mut cards: Vec<&Option<RecordId>> = Vec::new();
    for card in &ground.cards {
        if !cards.contains(&card) {
            cards.push(card);
        }
    }
    let mut runs = Vec::new();
    for card in cards {
        let apart: Vec<SheetRun> = alone
            .iter()
            .flat_map(|layout| &layout.runs)
            .filter(|run| run.stock == *card)
            .cloned()
            .collect();
        let sheets = |runs: &[SheetRun]| runs.iter().map(|run| run.sheets).sum::<u32>();
        let shared = shared(plan, ground, card, &alone);
        runs.extend(if !shared.is_empty() && sheets(&shared) < sheets(&apart) {
            shared
        } else {
            apart
        });
    }
    gathered(runs, ground)
}

/// One piece on sheets of its own.
fn by_itself(plan: &SheetPlan, ground: &Ground, piece: &Drawn) -> Layout {
    let set: Vec<SetPiece<'_>> = piece
        .blanks
        .iter()
        .enumerate()
        .map(|(at, blank)| {
            let part = piece.first + at;
            SetPiece { part, stock: ground.cards[part].as_ref(), piece: blank }
        })
        .collect();
    let lay = |copies| lay_sets(&set, &ground.windows, &piece.turns, plan.spacing, copies);
    let layout = lay(piece.job_piece.copies);
    let full = layout.per_sheet.max(1);
    let filled = piece.job_piece.copies.div_ceil(full) * full;
    if plan.amount == Amount::FillSheets && layout.laid > 0 && filled > piece.job_piece.copies {
        lay(filled)
    } else {
        layout
    }
}

/// Blanks of one card together on sheets, the highest first, in shelves. Sheets that hold the same are
/// one run; what fits nowhere is left out.
fn shared(
    plan: &SheetPlan,
    ground: &Ground,
    card: &Option<RecordId>,
    alone: &[Layout],
) -> Vec<SheetRun> {
    let mut wanted: Vec<(usize, Turned, u32)> = ground
        .blanks()
        .filter(|(piece, at)| ground.cards[piece.first + at] == *card)
        .filter_map(|(piece, at)| {
            let number = piece.first + at;
            // The turn in which it lies when it is by itself.
            let lies = alone.iter().flat_map(|layout| &layout.runs).flat_map(|run| &run.placements);
            let turn = lies.clone().find(|place| place.part == number)?.turn;
            Some((number, piece.blanks[at].turned(turn), piece.job_piece.copies))
        })
        .collect();
    wanted.sort_by(|(_, a, _), (_, b, _)| b.size().y.total_cmp(&a.size().y));
    let mut runs: Vec<SheetRun> = Vec::new();
    while wanted.iter().any(|(_, _, left)| *left > 0) {
        let placements = shelve(&wanted, &ground.windows, plan.spacing);
        let count = |part: usize| {
            let count = placements.iter().filter(|at| at.part == part).count();
            u32::try_from(count).unwrap_or(u32::MAX)
        };
        let sheets = wanted
            .iter()
            .filter(|(part, ..)| count(*part) > 0)
            .map(|(part, _, left)| left / count(*part))
            .min();
        let Some(sheets) = sheets.filter(|sheets| *sheets > 0) else { return Vec::new() };
        for (part, _, left) in &mut wanted {
            *left -= sheets * count(*part);
        }
        runs.push(SheetRun { sheets, stock: card.clone(), placements });
    }
    runs
}
