//! Rehearsals by figures alone, and the steps of a run.

use aptum_core::geometry::{Affine, BezPath, Point, Rect, Shape};
use aptum_core::rehearsal::{CutLine, Day, OddsAsk, Worn, odds};
use aptum_core::workshop::Margins;

const LETTER: Rect = Rect::new(0.0, 0.0, 215.9, 279.4);

/// A card in the middle of the sheet, inked so far past its edge.
fn card(bleed: f64) -> (BezPath, BezPath, CutLine) {
    let own = Rect::new(60.0, 90.0, 160.0, 190.0);
    let meant: Vec<Point> =
        [(60.0, 90.0), (160.0, 90.0), (160.0, 190.0), (60.0, 190.0), (60.0, 90.0)]
            .map(Point::from)
            .to_vec();
    let line = CutLine { copy: Some(0), is_edge: true, meant, cut: Vec::new() };
    (own.to_path(0.1), own.inflate(bleed, bleed).to_path(0.1), line)
}

fn asked(day: Day, bleed: f64, with_marks: bool, sheets: u32) -> aptum_core::rehearsal::Odds {
    let (outline, ink, line) = card(bleed);
    let copies = [Worn { transform: Affine::IDENTITY, outline: &outline, ink: Some(&ink) }];
    let corners = LETTER.inset(-6.35);
    let marks = if with_marks {
        [
            (corners.x0, corners.y0),
            (corners.x1, corners.y0),
            (corners.x1, corners.y1),
            (corners.x0, corners.y1),
        ]
        .map(Point::from)
        .to_vec()
    } else {
        Vec::new()
    };
    let lines = [line];
    let (page, margins) = (LETTER, Margins::all(5.0));
    let ask =
        OddsAsk { page, margins, day, marks, eye: 0.006, lines: &lines, copies: &copies, seed: 7 };
    odds(&ask, sheets, &mut |_| true)
}

/// With marks nothing is left but the paper's bow and the eye's error; without them, all of what the printer does.
#[test]
fn marks_turn_the_odds() {
    let with = asked(Day::Bad, 1.0, true, 2000);
    assert_eq!((with.white.tried, with.white.wrong), (2000, 0));
    assert!(with.p99 < 0.25, "{}", with.p99);
    let without = asked(Day::Bad, 1.0, false, 2000);
    assert!(without.white.wrong > 1000, "{:?}", without.white);
    assert_eq!(with.bars.iter().sum::<u32>(), 2000);
}

/// More bleed never shows more white.
#[test]
fn bleed_covers_more_and_more() {
    let white = |bleed: f64| asked(Day::Usual, bleed, false, 1000).white.wrong;
    let all: Vec<u32> = [0.2, 0.5, 1.0, 2.0, 4.0].map(white).to_vec();
    assert!(all.is_sorted_by(|more, less| more >= less), "{all:?}");
    assert!(all[0] > all[4]);
}

#[test]
fn odds_that_are_stopped_tell_of_what_was_done() {
    let (outline, ink, line) = card(1.0);
    let copies = [Worn { transform: Affine::IDENTITY, outline: &outline, ink: Some(&ink) }];
    let lines = [line];
    let margins = Margins::all(5.0);
    let ask = OddsAsk {
        page: LETTER,
        margins,
        day: Day::Usual,
        marks: Vec::new(),
        eye: 0.0,
        lines: &lines,
        copies: &copies,
        seed: 1,
    };
    let own = odds(&ask, 10_000, &mut |done| done < 1000);
    assert_eq!(own.white.tried, 1000);
}
