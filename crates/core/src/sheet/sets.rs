//! Pieces of several blanks: each copy is a set, and a sheet holds whole sets where it can.
//!
//! Blanks of one copy are laid in shelves, the highest first. Where not one set fits on a sheet, or where
//! it takes fewer sheets, each blank has sheets of its own. Blanks of another card always have.

use kurbo::Rect;

use super::Windows;
use super::piece::Turned;
use super::{Layout, Piece, Placement, SheetRun, rows_and_columns};
use crate::workshop::RecordId;

/// A blank to be laid.
pub struct SetPiece<'a> {
    /// Its place among the flat's parts.
    pub part: usize,
    /// Its card.
    pub stock: &'a RecordId,
    /// What is laid.
    pub piece: &'a Piece,
}

/// How far a blank that meets a mark is moved on, mm.
const STEP: f64 = 2.0;

/// Most sets tried on one sheet.
const MOST: u32 = 400;

/// Lays `copies` of every blank. Nothing is laid where one of them fits nowhere.
#[must_use]
pub fn lay_sets(
    pieces: &[SetPiece<'_>],
    windows: &Windows,
    turns: &[f64],
    spacing: f64,
    copies: u32,
) -> Layout {
    if let [alone] = pieces {
        return tagged(alone, rows_and_columns(alone.piece, windows, turns, spacing, copies));
    }
    let mut stocks: Vec<&RecordId> = pieces.iter().map(|piece| piece.stock).collect();
    stocks.dedup();
    let mut whole = Layout::default();
    for stock in stocks {
        let group: Vec<&SetPiece<'_>> = pieces.iter().filter(|p| p.stock == stock).collect();
        let apart = apart(&group, windows, turns, spacing, copies);
        if apart.laid == 0 {
            return Layout::default();
        }
        // Whole sets first: they stay together where that costs no sheet.
        let ways = [
            together(&group, windows, turns, spacing, copies),
            spread(&group, windows, turns, spacing, copies),
            Some(apart),
        ];
        let fewest = ways.into_iter().flatten().min_by_key(Layout::sheets);
        let Some(best) = fewest else { return Layout::default() };
        whole.per_sheet = if whole.runs.is_empty() { best.per_sheet } else { whole.per_sheet };
        whole.runs.extend(best.runs);
    }
    whole.laid = copies;
    whole
}

fn tagged(piece: &SetPiece<'_>, mut layout: Layout) -> Layout {
    for run in &mut layout.runs {
        for placement in &mut run.placements {
            placement.part = piece.part;
        }
    }
    layout
}

/// Each blank on sheets of its own.
fn apart(
    group: &[&SetPiece<'_>],
    windows: &Windows,
    turns: &[f64],
    spacing: f64,
    copies: u32,
) -> Layout {
    let mut all = Layout { laid: copies, per_sheet: u32::MAX, ..Layout::default() };
    for piece in group {
        let own = tagged(piece, rows_and_columns(piece.piece, windows, turns, spacing, copies));
        if own.laid == 0 {
            return Layout::default();
        }
        all.per_sheet = all.per_sheet.min(own.per_sheet);
        all.runs.extend(own.runs);
    }
    all
}

/// Whole sets on every sheet; `None` where not one fits.
fn together(
    group: &[&SetPiece<'_>],
    windows: &Windows,
    turns: &[f64],
    spacing: f64,
    copies: u32,
) -> Option<Layout> {
    if group.len() < 2 {
        return None;
    }
    let pack = |sets: u32| {
        turns.iter().take(2).find_map(|turn| shelves(group, windows, *turn, spacing, sets))
    };
    let mut best = pack(1)?;
    let mut held = 1;
    while held < copies.min(MOST) {
        let Some(more) = pack(held + 1) else { break };
        best = more;
        held += 1;
    }
    let (full, rest) = (copies / held, copies % held);
    let mut runs = Vec::new();
    if full > 0 {
        runs.push(SheetRun { sheets: full, placements: best });
    }
    if rest > 0 {
        runs.push(SheetRun { sheets: 1, placements: pack(rest)? });
    }
    Some(Layout { runs, per_sheet: held, laid: copies, ..Layout::default() })
}

/// One set over as many sheets as it takes, and so for every copy; `None` where a blank fits nowhere.
fn spread(
    group: &[&SetPiece<'_>],
    windows: &Windows,
    turns: &[f64],
    spacing: f64,
    copies: u32,
) -> Option<Layout> {
    if group.len() < 3 {
        return None;
    }
    let best = turns
        .iter()
        .take(2)
        .filter_map(|turn| {
            let mut left: Vec<&SetPiece<'_>> = group.to_vec();
            let mut sheets = Vec::new();
            while !left.is_empty() {
                // As many of those left as go onto one sheet, in order.
                let held = (1..=left.len())
                    .rev()
                    .find_map(|count| shelves(&left[..count], windows, *turn, spacing, 1))?;
                left.drain(..held.len());
                sheets.push(held);
            }
            Some(sheets)
        })
        .min_by_key(Vec::len)?;
    let runs = best.into_iter().map(|placements| SheetRun { sheets: copies, placements }).collect();
    Some(Layout { runs, per_sheet: 1, laid: copies, ..Layout::default() })
}

/// Blanks of so many sets in shelves, or `None` where they do not all fit.
fn shelves(
    group: &[&SetPiece<'_>],
    windows: &Windows,
    turn: f64,
    spacing: f64,
    sets: u32,
) -> Option<Vec<Placement>> {
    let mut turned: Vec<(usize, Turned, u32)> =
        group.iter().map(|piece| (piece.part, piece.piece.turned(turn), sets)).collect();
    turned.sort_by(|(_, a, _), (_, b, _)| b.size().y.total_cmp(&a.size().y));
    let laid = shelve(&turned, windows, spacing);
    (laid.len() == group.len() * sets as usize).then_some(laid)
}

/// As many blanks as fit from left to right in shelves from the top, in order: each with its number and
/// how many are left of it.
pub(super) fn shelve(
    blanks: &[(usize, Turned, u32)],
    windows: &Windows,
    spacing: f64,
) -> Vec<Placement> {
    let area = windows.cut.base;
    let mut placements = Vec::new();
    let mut shelf = Rect::new(area.x0, area.y0, area.x0, area.y0);
    for (part, piece, count) in blanks {
        let size = piece.size();
        let mut left = *count;
        while left > 0 {
            if shelf.x1 + size.x > area.x1 + 1e-6 {
                // An empty shelf that is too narrow stays so.
                if shelf.height() == 0.0 && shelf.x1 == area.x0 {
                    break;
                }
                let y = if shelf.height() == 0.0 { shelf.y0 + STEP } else { shelf.y1 + spacing };
                shelf = Rect::new(area.x0, y, area.x0, y);
            }
            if shelf.y0 + size.y > area.y1 + 1e-6 {
                break;
            }
            let (x, y) = (shelf.x1, shelf.y0);
            if piece.fits(windows, x, y) {
                shelf.y1 = shelf.y1.max(y + size.y);
                placements.push(Placement { part: *part, ..piece.placement(x, y) });
                shelf.x1 = x + size.x + spacing;
                left -= 1;
            } else {
                shelf.x1 += STEP;
            }
        }
    }
    placements
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{BezPath, Point, Region, polygon};
    use crate::sheet::{Machines, Marks, Orientation};

    fn rectangle(width: f64, height: f64) -> BezPath {
        polygon(&[
            Point::ZERO,
            Point::new(width, 0.0),
            Point::new(width, height),
            Point::new(0.0, height),
        ])
    }

    fn page(width: f64, height: f64) -> Windows {
        let machines = Machines::default();
        let page = Rect::new(0.0, 0.0, width, height);
        machines.windows(page, Orientation::Portrait, &Marks::default())
    }

    fn lay(sizes: &[(f64, f64)], copies: u32, windows: &Windows) -> Layout {
        let pieces: Vec<Piece> = sizes
            .iter()
            .filter_map(|(w, h)| Piece::new(&rectangle(*w, *h), &Region::empty()))
            .collect();
        let card = RecordId("card".to_owned());
        let set: Vec<SetPiece<'_>> = pieces
            .iter()
            .enumerate()
            .map(|(part, piece)| SetPiece { part, stock: &card, piece })
            .collect();
        lay_sets(&set, windows, &[0.0, 90.0], 2.0, copies)
    }

    #[test]
    fn whole_sets_share_sheets_where_they_fit() {
        // Two of 90 × 90 and two of 40 × 40 on 200 × 150: 90 + 2 + 90 in the first shelf, 40s below.
        let layout = lay(&[(90.0, 90.0), (40.0, 40.0)], 5, &page(200.0, 150.0));
        assert_eq!((layout.per_sheet, layout.sheets(), layout.laid), (2, 3, 5));
        let parts: Vec<usize> = layout.runs[0].placements.iter().map(|at| at.part).collect();
        assert_eq!(parts, [0, 0, 1, 1]);
    }

    #[test]
    fn blanks_too_large_for_one_sheet_have_sheets_of_their_own() {
        let layout = lay(&[(180.0, 140.0), (150.0, 140.0)], 3, &page(200.0, 150.0));
        assert_eq!((layout.sheets(), layout.laid), (6, 3));
        assert_eq!(lay(&[(180.0, 140.0), (300.0, 300.0)], 3, &page(200.0, 150.0)).laid, 0);
    }

    #[test]
    fn a_set_larger_than_a_sheet_is_spread_over_several() {
        // Twelve leaves of 120 × 90 on 260 × 380: two to a shelf, four shelves, eight to a sheet.
        let layout = lay(&[(120.0, 90.0); 12], 3, &page(260.0, 380.0));
        assert_eq!((layout.sheets(), layout.laid), (6, 3));
        let parts: Vec<usize> =
            layout.runs.iter().flat_map(|run| run.placements.iter().map(|at| at.part)).collect();
        assert_eq!(parts, (0..12).collect::<Vec<_>>());
    }

    #[test]
    fn another_card_has_its_own_sheets() {
        let (front, back) = (rectangle(50.0, 50.0), rectangle(56.0, 56.0));
        let pieces = [&front, &back].map(|path| Piece::new(path, &Region::empty()).unwrap());
        let (card, red) = (RecordId("card".to_owned()), RecordId("red".to_owned()));
        let set = [
            SetPiece { part: 0, stock: &card, piece: &pieces[0] },
            SetPiece { part: 1, stock: &red, piece: &pieces[1] },
        ];
        let layout = lay_sets(&set, &page(200.0, 150.0), &[0.0], 2.0, 4);
        assert_eq!(layout.sheets(), 2);
        assert!(layout.runs[1].placements.iter().all(|at| at.part == 1));
    }
}
