//! What the eye finds, against where the marks really lie.

use aptum_core::rehearsal::{Day, Loading};
use aptum_devices::cutter::{Asked, AskedMark, Eye, Refusal, find};

use aptum_core::workshop::Margins;
use aptum_devices::printer::Printer;

use crate::page::{angles, asked, crosses, dots, loaded, page, printed, printer};

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
