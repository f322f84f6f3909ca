//! What the eye finds, against where the marks really lie.

use aptum_core::geometry::Rect;
use aptum_core::rehearsal::{Day, Loading};
use aptum_devices::cutter::{Asked, AskedCode, AskedMark, Eye, Refusal, find};

use aptum_core::workshop::Margins;
use aptum_devices::printer::{PPI, Printer};

use crate::page::{angles, asked, coded_page, crosses, dots, loaded, page, printed, printer};

/// The largest distances between marks as they are found and as they lie, mm, the smallest first.
fn misses(marks: &[AskedMark], day: Day, tries: u64) -> Vec<f64> {
    let pdf = page(marks);
    let mut all = Vec::new();
    let mut random = fastrand::Rng::with_seed(7);
    for seed in 0..tries {
        let sheet = printed(&pdf, day, seed);
        // Each printed sheet is laid in several ways.
        for _ in 0..4 {
            let mut within = |most: f64| (random.f64() * 2.0 - 1.0) * most;
            let loading = Loading {
                shift: [within(3.0), within(3.0)],
                turn: within(2.0),
                start: [within(1.0), within(1.0)],
                is_turned_round: false,
            };
            let (bed, truth) = loaded(&sheet, &loading);
            let asked = Asked { reach: 14.0, ..asked(marks.to_vec()) };
            let found = find(&mut Eye::new(&bed), &asked)
                .unwrap_or_else(|why| panic!("{day:?} {seed} {loading:?}: {why}"));
            let off =
                marks.iter().zip(&found.seen).map(|(mark, seen)| truth(mark.at).distance(*seen));
            all.push(off.fold(0.0, f64::max));
        }
    }
    all.sort_by(f64::total_cmp);
    all
}

#[test]
fn marks_are_found_to_a_small_part_of_a_pixel() {
    for marks in [angles(), dots(), crosses()] {
        for (day, bound) in [(Day::True, 0.02), (Day::Usual, 0.035), (Day::Bad, 0.05)] {
            let all = misses(&marks, day, 1);
            let worst = all.last().copied().unwrap_or(f64::MAX);
            assert!(worst < bound, "{:?} {day:?}: {all:?}", marks[0].kind);
        }
    }
}

/// A mark that the printer's margin cut short is no mark: half of its stroke would be read a quarter of a millimetre off.
#[test]
fn a_mark_that_was_cut_short_is_not_taken_for_a_whole_one() {
    let pdf = page(&angles());
    for margin in [6.6, 6.8, 7.0, 7.2] {
        let margins = Margins { left: margin, ..Margins::all(1.0) };
        let sheet = Printer { margins, ..printer(Day::True, 1) }.print(&pdf, 0).unwrap();
        let (bed, _) = loaded(&sheet, &Loading::default());
        let refusal = find(&mut Eye::new(&bed), &asked(angles())).unwrap_err();
        assert!(matches!(refusal, Refusal::NoMark { number: 1, .. }), "{margin}: {refusal}");
    }
}

/// Letter, at both: 8.5 × 11 in.
#[test]
fn marks_are_found_on_what_is_printed_more_finely() {
    for (ppi, sides) in PPI.into_iter().zip([[2550, 3300], [5100, 6600]]) {
        let own = Printer { ppi: ppi.into(), ..printer(Day::Bad, 5) };
        let sheet = own.print(&page(&dots()), 0).unwrap();
        let paper = sheet.printing.paper;
        assert!((paper.width() - 215.9).abs() < 0.1 && (paper.height() - 279.4).abs() < 0.1);
        assert_eq!([sheet.picture.width, sheet.picture.height], sides);
        let (bed, truth) = loaded(&sheet, &Loading { turn: 1.1, ..Loading::default() });
        let found = find(&mut Eye::new(&bed), &asked(dots())).unwrap();
        for (mark, seen) in dots().iter().zip(&found.seen) {
            assert!(truth(mark.at).distance(*seen) < 0.05, "{ppi}");
        }
    }
}

/// The classic card of packets, brown and grainy.
#[test]
fn marks_on_kraft_are_found() {
    for (seed, marks) in [angles(), dots(), crosses()].into_iter().enumerate() {
        let own = Printer { card: [178, 140, 98], ..printer(Day::Bad, seed as u64) };
        let sheet = own.print(&page(&marks), 0).unwrap();
        let (bed, truth) = loaded(&sheet, &Loading { turn: -1.3, ..Loading::default() });
        let found = find(&mut Eye::new(&bed), &asked(marks.clone())).unwrap();
        for (mark, seen) in marks.iter().zip(&found.seen) {
            assert!(truth(mark.at).distance(*seen) < 0.05);
        }
    }
}

#[test]
fn a_sheet_that_was_fitted_to_the_page_is_refused() {
    let margins = Margins::all(6.35);
    let own = Printer { margins, ..printer(Day::FitToPage, 1) };
    let sheet = own.print(&page(&angles()), 0).unwrap();
    let (bed, _) = loaded(&sheet, &Loading::default());
    let far = Asked { reach: 40.0, ..asked(angles()) };
    let refusal = find(&mut Eye::new(&bed), &far).unwrap_err();
    assert!(matches!(refusal, Refusal::Size { across, .. } if across < 97.5), "{refusal}");
}

/// Where the code stands, at the foot of the sheet.
const CODE: Rect = Rect::new(90.0, 262.0, 101.6, 273.6);

fn coded(code: &str, first: u32, last: u32) -> Asked {
    let code = AskedCode { place: CODE, code: code.to_owned(), first, last };
    Asked { code: Some(code), ..asked(angles()) }
}

/// The code is read after the printer's worst, and another one is not taken for it.
#[test]
fn the_square_code_tells_one_sheet_from_another() {
    for seed in 0..6 {
        let sheet = printed(&coded_page(&angles(), Some(("K7Q4M/2", CODE))), Day::Bad, seed);
        let turn = seed as f64 * 0.7 - 1.9;
        let (bed, _) = loaded(&sheet, &Loading { turn, shift: [2.0, -1.0], ..Loading::default() });
        let look = |asked: &Asked| find(&mut Eye::new(&bed), asked);
        let found = look(&coded("K7Q4M", 1, 3));
        assert_eq!(found.map(|own| own.code), Ok(Some("K7Q4M/2".to_owned())), "{seed}");
        for (code, first, last) in [("K7Q4N", 1, 3), ("K7Q4M", 3, 9)] {
            let refusal = look(&coded(code, first, last)).unwrap_err();
            assert!(matches!(refusal, Refusal::OtherCode { .. }), "{refusal}");
        }
    }
    let bare = printed(&page(&angles()), Day::Usual, 1);
    let (bed, _) = loaded(&bare, &Loading::default());
    let refusal = find(&mut Eye::new(&bed), &coded("K7Q4M", 1, 3)).unwrap_err();
    assert_eq!(refusal, Refusal::NoCode("K7Q4M".to_owned()));
}

/// Four marks that are alike look the same turned by half: the code's place tells.
#[test]
fn a_sheet_that_lies_the_wrong_way_round_is_refused() {
    let pdf = coded_page(&angles(), Some(("K7Q4M/2", CODE)));
    let sheet = printed(&pdf, Day::Usual, 4);
    let round = Loading { is_turned_round: true, ..Loading::default() };
    let (bed, _) = loaded(&sheet, &round);
    let refusal = find(&mut Eye::new(&bed), &coded("K7Q4M", 1, 3)).unwrap_err();
    assert_eq!(refusal, Refusal::NoCode("K7Q4M".to_owned()));
    // Where a mark is missing, its place must be empty.
    let three = angles()[..3].to_vec();
    let sheet = printed(&page(&three), Day::Usual, 4);
    let asked = Asked { absent: angles()[3..].to_vec(), ..asked(three) };
    let (bed, _) = loaded(&sheet, &Loading::default());
    assert!(find(&mut Eye::new(&bed), &asked).is_ok());
    let (bed, _) = loaded(&sheet, &round);
    assert!(find(&mut Eye::new(&bed), &asked).is_err());
}
