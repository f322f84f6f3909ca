//! The layout of a job: the one that is kept, or else rows and columns.
//!
//! Each piece is laid by itself first. Where several pieces are of one card, sheets that they share are
//! tried too, and the way that takes fewer sheets is used.

use super::piece::Turned;
use super::sets::shelve;
use super::{
    Amount, Kept, LaidBlank, Layout, Placement, SetPiece, SheetPlan, SheetRun, lay_sets,
    number_copies,
};
use crate::sheet::{Ground, OnGround};
use crate::workshop::RecordId;

/// Lays a job's copies.
pub(crate) fn lay(plan: &SheetPlan, ground: &Ground) -> Layout {
    match plan.kept.as_ref().and_then(|kept| Named::of(kept, ground)) {
        Some(named) => gathered(named.runs, ground),
        None => in_rows(plan, ground),
    }
}

/// Whole copies of a piece that a layout holds.
pub(crate) fn laid_of(piece: &OnGround, layout: &Layout) -> u32 {
    let counts = (0..piece.blanks.len()).map(|at| layout.count(piece.first + at));
    counts.min().unwrap_or(0)
}

/// A kept layout with its blanks numbered as the job has them now.
pub(crate) struct Named {
    /// The sheets, without copies of blanks that are gone.
    pub runs: Vec<SheetRun>,
    /// The numbers of the job's blanks that were laid for another outline.
    pub changed: Vec<usize>,
    /// The numbers of the job's blanks that the layout knows nothing of.
    pub new: Vec<usize>,
    /// Whole copies that are left out, as their blanks are gone.
    pub gone: usize,
}

impl Named {
    /// `None` where the job has none of the layout's blanks: it means nothing then.
    pub fn of(kept: &Kept, ground: &Ground) -> Option<Self> {
        let own = ground.laid_blanks();
        let now = |blank: &LaidBlank| {
            own.iter().position(|own| own.piece == blank.piece && own.part == blank.part)
        };
        let numbers: Vec<Option<usize>> = kept.blanks.iter().map(now).collect();
        let known = || numbers.iter().flatten();
        known().next()?;
        let changed = kept.blanks.iter().zip(&numbers).filter_map(|(blank, number)| {
            let number = (*number)?;
            let is_other = blank.outline.is_some() && blank.outline != own[number].outline;
            is_other.then_some(number)
        });
        let here = |at: &Placement| {
            let part = numbers.get(at.part).copied().flatten()?;
            Some(Placement { part, ..*at })
        };
        let places = |runs: &[SheetRun]| runs.iter().map(|run| run.placements.len()).sum::<usize>();
        let runs: Vec<SheetRun> = kept
            .runs
            .iter()
            .map(|run| SheetRun {
                sheets: run.sheets,
                placements: run.placements.iter().filter_map(here).collect(),
            })
            .collect();
        Some(Self {
            changed: changed.collect(),
            new: (0..own.len()).filter(|number| !known().any(|known| known == number)).collect(),
            gone: places(&kept.runs) - places(&runs),
            runs,
        })
    }
}

/// A layout of these sheets.
pub(crate) fn gathered(mut runs: Vec<SheetRun>, ground: &Ground) -> Layout {
    number_copies(&mut runs);
    let most = runs.iter().map(|run| run.placements.len()).max().unwrap_or(0);
    let blanks = ground.laid_blanks();
    let mut layout =
        Layout { blanks, runs, per_sheet: u32::try_from(most).unwrap_or(u32::MAX), laid: 0 };
    layout.laid = ground.pieces.iter().map(|piece| laid_of(piece, &layout)).sum();
    layout
}

/// Rows and columns.
pub(crate) fn in_rows(plan: &SheetPlan, ground: &Ground) -> Layout {
    let alone: Vec<Layout> =
        ground.on_sheets().map(|piece| by_itself(plan, ground, piece)).collect();
    if let [only] = alone.as_slice() {
        return Layout { per_sheet: only.per_sheet, ..gathered(only.runs.clone(), ground) };
    }
    let mut runs = Vec::new();
    for card in ground.each_card() {
        let apart: Vec<SheetRun> = alone
            .iter()
            .flat_map(|layout| &layout.runs)
            .filter(|run| ground.card_of(run) == card)
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
fn by_itself(plan: &SheetPlan, ground: &Ground, piece: &OnGround) -> Layout {
    let set: Vec<SetPiece<'_>> = piece
        .blanks
        .iter()
        .enumerate()
        .map(|(at, blank)| {
            let part = piece.first + at;
            SetPiece { part, stock: &ground.cards[part], piece: blank }
        })
        .collect();
    let lay = |copies| lay_sets(&set, &ground.windows, &piece.turns, plan.spacing, copies);
    let layout = lay(piece.drawn.job_piece.made());
    let full = layout.per_sheet.max(1);
    let filled = piece.drawn.job_piece.made().div_ceil(full) * full;
    if plan.amount == Amount::FillSheets && layout.laid > 0 && filled > piece.drawn.job_piece.made()
    {
        lay(filled)
    } else {
        layout
    }
}

/// Blanks of one card together on sheets, the highest first, in shelves. Sheets that hold the same are
/// one run; what fits nowhere is left out.
fn shared(plan: &SheetPlan, ground: &Ground, card: &RecordId, alone: &[Layout]) -> Vec<SheetRun> {
    let mut wanted: Vec<(usize, Turned, u32)> = ground
        .blanks()
        .filter(|(piece, at)| ground.cards[piece.first + at] == *card)
        .filter_map(|(piece, at)| {
            let number = piece.first + at;
            // The turn in which it lies when it is by itself.
            let lies = alone.iter().flat_map(|layout| &layout.runs).flat_map(|run| &run.placements);
            let turn = lies.clone().find(|place| place.part == number)?.turn;
            Some((number, piece.blanks[at].turned(turn), piece.drawn.job_piece.made()))
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
        runs.push(SheetRun { sheets, placements });
    }
    runs
}
