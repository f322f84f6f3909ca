//! Copies in rows and columns.
//!
//! A block is a grid of copies turned alike, pitched by the blank's bounds plus the spacing. A
//! sheet is one block, or two beside each other or above each other with the second turned by a
//! quarter. Copies that would meet an obstacle are left out; where a block has slack, it is tried
//! in several places and the middle wins a tie.

use kurbo::{Rect, Vec2};

use super::piece::{NOISE, Turned};
use super::{Layout, Piece, Placement, SheetRun, Windows};

/// Lays `copies` of a piece in rows and columns, turned by any of `turns` (degrees), with at
/// least `spacing` mm between the bounds of neighbours. What does not fit on one sheet goes to
/// further ones, to the same places. Nothing is laid where nothing fits.
#[must_use]
pub fn rows_and_columns(
    piece: &Piece,
    windows: &Windows,
    turns: &[f64],
    spacing: f64,
    copies: u32,
) -> Layout {
    let turned: Vec<Turned> = turns.iter().map(|turn| piece.turned(*turn)).collect();
    let whole = windows.cut.base;
    let mut best: Vec<Placement> = Vec::new();
    for piece in &turned {
        let block = piece.block(windows, whole, spacing, &OFFSETS, best.len());
        keep_better(&mut best, block);
    }
    for first in &turned {
        for second in turned
            .iter()
            .filter(|second| ((second.turn - first.turn).rem_euclid(180.0) - 90.0).abs() < 1e-9)
        {
            for split in first.splits(whole, spacing) {
                let [one, two] = split;
                let most = first.most(windows, one, spacing) + second.most(windows, two, spacing);
                if most <= best.len() {
                    continue;
                }
                let mut both = first.block(windows, one, spacing, &MIDDLE, 0);
                both.extend(second.block(windows, two, spacing, &MIDDLE, 0));
                keep_better(&mut best, both);
            }
        }
    }
    best.sort_by(|a, b| (a.y, a.x).partial_cmp(&(b.y, b.x)).unwrap_or(std::cmp::Ordering::Equal));
    into_sheets(best, copies)
}

/// True when one copy fits somewhere: what the first of [`rows_and_columns`]'s blocks would find.
#[must_use]
pub fn fits_somewhere(piece: &Piece, windows: &Windows, turns: &[f64]) -> bool {
    turns.iter().any(|turn| {
        !piece.turned(*turn).block(windows, windows.cut.base, 0.0, &OFFSETS, 0).is_empty()
    })
}

/// The angle in degrees, 0 to 180, at which a piece that is too large straight fits across the window; the
/// middle of the angles around the first that does. `None` where no angle helps.
#[must_use]
pub fn angle_that_fits(piece: &Piece, windows: &Windows) -> Option<f64> {
    let fits = |degrees: f64| fits_somewhere(piece, windows, &[degrees]);
    let first = (1..180).map(f64::from).find(|degrees| fits(*degrees))?;
    let widest =
        (1..40).map(|step| first + f64::from(step) / 4.0).take_while(|to| fits(*to)).last();
    let least = (1..=4).map(|step| first - f64::from(step) / 4.0).take_while(|to| fits(*to)).last();
    let middle = f64::midpoint(least.unwrap_or(first), widest.unwrap_or(first));
    Some(if fits(middle) { middle } else { first })
}

fn keep_better(best: &mut Vec<Placement>, next: Vec<Placement>) {
    if next.len() > best.len() {
        *best = next;
    }
}

fn into_sheets(placements: Vec<Placement>, copies: u32) -> Layout {
    let per_sheet = u32::try_from(placements.len()).unwrap_or(u32::MAX);
    if per_sheet == 0 {
        return Layout::default();
    }
    let (full, rest) = (copies / per_sheet, copies % per_sheet);
    let mut runs = Vec::new();
    if full > 0 {
        runs.push(SheetRun { sheets: full, placements: placements.clone() });
    }
    if rest > 0 {
        let mut placements = placements;
        placements.truncate(rest as usize);
        runs.push(SheetRun { sheets: 1, placements });
    }
    Layout { runs, per_sheet, laid: copies, ..Layout::default() }
}

/// Shares of a block's slack at which it is tried; the middle first, so that it wins a tie.
const OFFSETS: [f64; 5] = [0.5, 0.0, 1.0, 0.25, 0.75];
const MIDDLE: [f64; 1] = [0.5];

impl Turned {
    /// Copies that rows and columns could hold if nothing were in the way.
    fn most(&self, windows: &Windows, area: Rect, spacing: f64) -> usize {
        self.range(windows, area).map_or(0, |range| {
            let pitch = self.size() + Vec2::new(spacing, spacing);
            steps(range.width(), pitch.x) * steps(range.height(), pitch.y)
        })
    }

    /// The best grid in `area` of more than `least` copies, tried at the given shares of its slack.
    fn block(
        &self,
        windows: &Windows,
        area: Rect,
        spacing: f64,
        shares: &[f64],
        least: usize,
    ) -> Vec<Placement> {
        let Some(range) = self.range(windows, area) else { return Vec::new() };
        let pitch = self.size() + Vec2::new(spacing, spacing);
        let (columns, rows) = (steps(range.width(), pitch.x), steps(range.height(), pitch.y));
        // Fewer rows or columns have more slack, and may pass between obstacles.
        let grids = [(columns, rows), (columns, rows - 1), (columns - 1, rows)];
        let mut best = Vec::new();
        for (columns, rows) in grids.into_iter().filter(|(c, r)| *c > 0 && *r > 0) {
            if columns * rows <= best.len().max(least) {
                continue;
            }
            let slack = Vec2::new(
                range.width() - pitch.x * count(columns - 1),
                range.height() - pitch.y * count(rows - 1),
            );
            for (down, right) in shares.iter().flat_map(|d| shares.iter().map(move |r| (d, r))) {
                if best.len() == columns * rows {
                    break;
                }
                let start = range.origin() + Vec2::new(slack.x * right, slack.y * down);
                let grid: Vec<Placement> = (0..rows)
                    .flat_map(|row| (0..columns).map(move |column| (column, row)))
                    .map(|(column, row)| {
                        start + Vec2::new(pitch.x * count(column), pitch.y * count(row))
                    })
                    .filter(|at| self.fits(windows, at.x, at.y))
                    .map(|at| self.placement(at.x, at.y))
                    .collect();
                keep_better(&mut best, grid);
            }
        }
        best
    }

    /// The ways to cut `area` in two after some rows, or after some columns, of this block.
    fn splits(&self, area: Rect, spacing: f64) -> impl Iterator<Item = [Rect; 2]> + use<> {
        let size = self.size();
        let rows = along(area.height(), size.y, spacing);
        let columns = along(area.width(), size.x, spacing);
        let after = move |copies: usize, size: f64| count(copies) * (size + spacing);
        let by_rows = (1..=rows).map(move |row| {
            let edge = area.y0 + after(row, size.y);
            [
                Rect::new(area.x0, area.y0, area.x1, edge - spacing),
                Rect::new(area.x0, edge, area.x1, area.y1),
            ]
        });
        let by_columns = (1..=columns).map(move |column| {
            let edge = area.x0 + after(column, size.x);
            [
                Rect::new(area.x0, area.y0, edge - spacing, area.y1),
                Rect::new(edge, area.y0, area.x1, area.y1),
            ]
        });
        by_rows.chain(by_columns)
    }
}

/// More rows or columns than this are never laid.
const MOST: f64 = 10_000.0;

/// Copies of `size` with `spacing` between them along `room`.
fn along(room: f64, size: f64, spacing: f64) -> usize {
    if room + NOISE < size { 0 } else { steps(room - size, size + spacing) }
}

/// Places at `pitch` along `range`, its start included.
#[expect(
    clippy::cast_possible_truncation,
    clippy::cast_sign_loss,
    reason = "clamped to a small positive number"
)]
fn steps(range: f64, pitch: f64) -> usize {
    ((range.max(0.0) + NOISE) / pitch.max(NOISE)).floor().clamp(0.0, MOST) as usize + 1
}

#[expect(clippy::cast_precision_loss, reason = "at most MOST")]
const fn count(copies: usize) -> f64 {
    copies as f64
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{BezPath, Outline, Region, circle};
    use crate::sheet::{Machines, Marks, Orientation};
    use crate::units::INCH;
    use kurbo::Point;
    use kurbo::Shape;
    use proptest::prelude::*;

    const QUARTERS: [f64; 4] = [0.0, 90.0, 180.0, 270.0];

    /// The window of a desktop machine on Letter, 6.75 × 9.25 in (common practice).
    fn practice() -> Windows {
        bare(6.75 * INCH, 9.25 * INCH)
    }

    fn bare(width: f64, height: f64) -> Windows {
        Machines::default().windows(
            Rect::new(0.0, 0.0, width, height),
            Orientation::Portrait,
            &Marks::default(),
        )
    }

    fn rectangle(width: f64, height: f64) -> Piece {
        Piece::new(&Rect::new(0.0, 0.0, width, height).to_path(0.01), &Region::empty()).unwrap()
    }

    fn counts(layout: &Layout) -> Vec<usize> {
        layout.each_sheet().map(<[Placement]>::len).collect()
    }

    /// Common practice: what fits the window of practice on Letter.
    #[test]
    fn the_counts_of_practice() {
        for (width, height, fits) in [(6.0, 5.86, 1), (4.5, 4.4, 2), (4.0, 6.0, 2)] {
            let piece = rectangle(width * INCH, height * INCH);
            let layout = rows_and_columns(&piece, &practice(), &QUARTERS, 2.0, 10);
            assert_eq!(layout.per_sheet, fits, "{width} × {height} in");
        }
    }

    /// Common practice and arithmetic: rounds of 1.5 in, 24 wanted.
    #[test]
    fn rounds_of_practice_lie_on_two_sheets_or_one() {
        let round = Piece::new(&circle(Point::ZERO, 0.75 * INCH), &Region::empty()).unwrap();
        for (spacing, sheets) in
            [(2.0, vec![20, 4]), (1.2, vec![24]), (1.27, vec![24]), (6.35, vec![20, 4])]
        {
            let layout = rows_and_columns(&round, &practice(), &[0.0, 90.0], spacing, 24);
            assert_eq!(counts(&layout), sheets, "{spacing} mm apart");
        }
    }

    #[test]
    fn a_second_block_is_turned_where_that_fits_more() {
        // 100 × 70 holds one row of 3 uprights (30 × 50) and one lying (50 × 30)… two lie: 4 or 5.
        let piece = rectangle(60.0, 40.0);
        let window = bare(100.0, 60.0);
        let upright = rows_and_columns(&piece, &window, &[0.0], 0.0, 10);
        let mixed = rows_and_columns(&piece, &window, &[0.0, 90.0], 0.0, 10);
        assert_eq!((upright.per_sheet, mixed.per_sheet), (1, 2));
    }

    #[test]
    fn a_bare_flap_may_leave_the_printable_area_and_art_may_not() {
        let windows = Windows {
            printable: Rect::new(10.0, 10.0, 90.0, 90.0),
            print: Window::of(Rect::new(10.0, 10.0, 90.0, 90.0)),
            ..bare(100.0, 100.0)
        };
        let outline = Rect::new(0.0, 0.0, 100.0, 60.0).to_path(0.01);
        let bare_ends = Region::rect(Rect::new(12.0, 0.0, 88.0, 60.0));
        let full = Region::rect(Rect::new(0.0, 0.0, 100.0, 60.0));
        for (printed, fits) in [(bare_ends, 1), (full, 0)] {
            let piece = Piece::new(&outline, &printed).unwrap();
            assert_eq!(rows_and_columns(&piece, &windows, &[0.0], 0.0, 1).laid, fits);
        }
    }

    use crate::sheet::Window;

    impl Window {
        fn of(base: Rect) -> Self {
            Self { base, obstacles: Vec::new(), region: Region::rect(base) }
        }
    }

    #[test]
    fn copies_that_meet_a_mark_are_left_out_and_the_others_stay() {
        let mut windows = bare(100.0, 100.0);
        let corner = Region::rect(Rect::new(-1.0, -1.0, 8.0, 8.0));
        windows.cut.obstacles = Outline::of_region(&corner);
        let layout = rows_and_columns(&rectangle(24.0, 24.0), &windows, &[0.0], 1.0, 16);
        // Four by four fit with 1 mm of slack: none of the offsets clears the corner.
        assert_eq!(layout.per_sheet, 15);
        let one = rows_and_columns(&rectangle(90.0, 90.0), &windows, &[0.0], 1.0, 1);
        assert_eq!(one.per_sheet, 1, "ten millimetres of slack do");
    }

    #[test]
    fn the_remainder_takes_the_first_places() {
        let layout = rows_and_columns(&rectangle(40.0, 40.0), &bare(100.0, 100.0), &[0.0], 2.0, 10);
        assert_eq!(counts(&layout), [4, 4, 2]);
        assert_eq!((layout.sheets(), layout.laid), (3, 10));
        assert_eq!(layout.runs[1].placements[..], layout.runs[0].placements[..2]);
        let none = rows_and_columns(&rectangle(101.0, 5.0), &bare(100.0, 100.0), &[0.0], 2.0, 10);
        assert_eq!(none, Layout::default());
    }

    #[test]
    fn placements_turn_about_the_flats_origin() {
        let piece = rectangle(30.0, 10.0);
        for turn in QUARTERS {
            let placement = piece.centred(turn, Point::new(50.0, 60.0));
            let placed = placement.transform().transform_rect_bbox(Rect::new(0.0, 0.0, 30.0, 10.0));
            assert!((placed.center() - Point::new(50.0, 60.0)).hypot() < 1e-9);
            let size = piece.size(turn);
            assert!(
                (placed.width() - size.x).abs() < 1e-9 && (placed.height() - size.y).abs() < 1e-9
            );
        }
    }

    proptest! {
        /// In a bare window more room, less spacing and freer turning never fit fewer copies, and
        /// the count is never below what plain rows and columns come to by arithmetic.
        #[test]
        fn more_room_never_fits_fewer(
            width in 5.0..80.0f64, height in 5.0..80.0f64, page in 60.0..200.0f64,
            spacing in 0.0..8.0f64, more in 0.0..40.0f64,
        ) {
            let piece = rectangle(width, height);
            let fits = |page: f64, spacing: f64, turns: &[f64]| {
                rows_and_columns(&piece, &bare(page, page), turns, spacing, 1).per_sheet
            };
            let count = fits(page, spacing, &[0.0, 90.0]);
            prop_assert!(fits(page, spacing, &[0.0]) <= count);
            prop_assert!(fits(page, spacing + 1.0, &[0.0]) <= fits(page, spacing, &[0.0]));
            prop_assert!(fits(page + more, spacing, &[0.0]) >= fits(page, spacing, &[0.0]));
            let rows = |size: f64| ((page + spacing) / (size + spacing) + 1e-9).floor();
            prop_assert!(f64::from(count) >= rows(width) * rows(height));
        }
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(64))]
        /// Judged by polygon algebra, which the layout does not use.
        #[test]
        fn copies_lie_inside_and_apart(
            width in 8.0..120.0f64, height in 8.0..120.0f64, notch in 0.1..0.9f64,
            spacing in 0.0..6.0f64, page in 100.0..220.0f64, bite in 5.0..40.0f64, copies in 1..60u32,
        ) {
            let mut windows = bare(page, page * 1.3);
            let bite = Region::rect(Rect::new(-1.0, -1.0, bite, bite * 0.7));
            windows.cut = Window {
                obstacles: Outline::of_region(&bite),
                region: windows.cut.region.minus(&bite),
                ..windows.cut
            };
            let mut ell = BezPath::new();
            ell.move_to((0.0, 0.0));
            for point in [(width, 0.0), (width, height * notch), (width * notch, height * notch),
                          (width * notch, height), (0.0, height)] {
                ell.line_to(point);
            }
            ell.close_path();
            let piece = Piece::new(&ell, &Region::empty()).unwrap();
            let layout = rows_and_columns(&piece, &windows, &QUARTERS, spacing, copies);
            if layout.per_sheet == 0 {
                return Ok(());
            }
            let total: usize = layout.each_sheet().map(<[Placement]>::len).sum();
            prop_assert_eq!(total, copies as usize);
            for sheet in layout.each_sheet() {
                let mut laid = Region::empty();
                for placement in sheet {
                    let copy = Region::inside(&placement.place(&ell));
                    prop_assert!(copy.minus(&windows.cut.region).area() < 1e-4);
                    let grown = copy.grown((spacing - 1e-3).max(0.0));
                    prop_assert!(grown.intersection(&laid).area() < 1e-4, "neighbours too near");
                    laid = laid.union(&copy);
                }
            }
        }
    }
}
