//! Whole jobs of any kind: structures, cards, machines, pieces and ways of laying drawn at random. What is laid is
//! judged by geo, and what is said to help is done.

use std::collections::BTreeSet;

use aptum_core::error::Change;
use aptum_core::form::Form;
use aptum_core::geometry::{BezPath, Rect, Region};
use aptum_core::job::{JobPiece, with_changes};
use aptum_core::memory::Forgetful;
use aptum_core::sheet::{Amount, Orientation, Placement, Turning, misfits};
use aptum_core::workshop::RecordId;
use aptum_core::{Job, Prepared, State, Workshop, prepare};
use geo::{Area, BooleanOps, BoundingRect, Distance, Euclidean};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

const STRUCTURES: [&str; 8] = [
    "straight-tuck",
    "four-corner-tray",
    "tag",
    "bookmark-rounded",
    "reverse-tuck",
    "header-card",
    "lid-and-base",
    "tent-card",
];

/// A job's figures as they are drawn: structures with their scale, the card, the machines, the plan.
#[derive(Debug, Clone)]
struct Drawn {
    pieces: Vec<(usize, f64, u32, usize)>,
    printed: bool,
    machines: (usize, usize, usize),
    size: (f64, f64),
    spacing: f64,
    turning: Turning,
    fills: bool,
    landscape: bool,
}

fn jobs() -> impl Strategy<Value = Drawn> {
    let piece = (0..STRUCTURES.len(), 0.4..1.6f64, 1..30u32, 0..5usize);
    let turnings = vec![Turning::Upright, Turning::Quarter, Turning::Grain, Turning::Free];
    (
        prop::collection::vec(piece, 1..4),
        any::<bool>(),
        (0..4usize, 0..5usize, 0..4usize),
        (120.0..430.0f64, 150.0..620.0f64),
        prop_oneof![Just(0.0), 0.5..8.0f64],
        prop::sample::select(turnings),
        any::<bool>(),
        any::<bool>(),
    )
        .prop_map(|(pieces, printed, machines, size, spacing, turning, fills, landscape)| {
            Drawn { pieces, printed, machines, size, spacing, turning, fills, landscape }
        })
}

/// The structure at its own sizes, its finished dimensions scaled.
fn form(which: usize, scale: f64) -> Form {
    let plain = Form::new(STRUCTURES[which], &[]);
    let sizes: Vec<(String, f64)> = plain.inside(0.3);
    let scaled: Vec<(&str, f64)> =
        sizes.iter().map(|(key, side)| (key.as_str(), (side * scale).round())).collect();
    Form::new(STRUCTURES[which], &scaled)
}

fn nth<T>(records: &std::collections::BTreeMap<RecordId, T>, at: usize) -> Option<RecordId> {
    records.keys().nth(at).cloned()
}

fn job(drawn: &Drawn, workshop: &Workshop) -> Job {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/spring-table-set.json")).unwrap();
    let face = job.pieces[0].face.clone().filter(|_| drawn.printed);
    job.pieces = drawn
        .pieces
        .iter()
        .enumerate()
        .map(|(at, (which, scale, copies, card))| {
            let stock = nth(&workshop.stocks, *card).unwrap();
            let piece = JobPiece::new(&format!("p{at}"), form(*which, *scale), &stock.0);
            JobPiece { face: face.clone(), copies: *copies, ..piece }
        })
        .collect();
    // One more than there are means none.
    let (printer, cutter, marks) = drawn.machines;
    job.sheet.printer = nth(&workshop.printers, printer);
    job.sheet.cutter = nth(&workshop.cutters, cutter);
    job.sheet.marks = nth(&workshop.mark_sets, marks);
    job.sheet.size = aptum_core::sheet::SheetSize {
        name: "Any".into(),
        width: drawn.size.0.round(),
        height: drawn.size.1.round(),
    };
    job.sheet.orientation =
        if drawn.landscape { Orientation::Landscape } else { Orientation::Portrait };
    job.sheet.spacing = drawn.spacing;
    job.sheet.turning = drawn.turning;
    job.sheet.amount = if drawn.fills { Amount::FillSheets } else { Amount::Wanted };
    job.sheet.kept = None;
    job
}

/// A path's outer ring where a placement has it, for geo.
fn ring(path: &BezPath, at: &Placement) -> geo::Polygon<f64> {
    let (sin, cos) = at.turn.to_radians().sin_cos();
    let corners = Region::inside(path);
    let outer = &corners.polygons().0[0];
    let place = |c: &geo::Coord<f64>| (at.x + c.x * cos - c.y * sin, at.y + c.x * sin + c.y * cos);
    geo::Polygon::new(outer.exterior().coords().map(place).collect(), Vec::new())
}

fn block(rect: Rect) -> geo::Polygon<f64> {
    geo::Rect::new((rect.x0, rect.y0), (rect.x1, rect.y1)).to_polygon()
}

/// What must hold of any layout.
fn judge(prepared: &Prepared, spacing: f64) {
    let blanks: Vec<_> = prepared.blanks().collect();
    let cut = prepared.windows.cut.region.polygons();
    for (run, notes) in prepared.layout.runs.iter().zip(&prepared.notes) {
        let copies: Vec<_> =
            run.placements.iter().map(|at| ring(&blanks[at.part].part.outline, at)).collect();
        for (number, copy) in copies.iter().enumerate() {
            let outside = geo::MultiPolygon::from(copy.clone()).difference(cut).unsigned_area();
            assert!(outside < 1e-2, "copy {number} leaves the window by {outside} mm²");
            for other in &copies[number + 1..] {
                let (a, b) = (copy.bounding_rect().unwrap(), other.bounding_rect().unwrap());
                let near = |a0: f64, a1: f64, b0: f64, b1: f64| a0 < b1 + 9.0 && b0 < a1 + 9.0;
                if !near(a.min().x, a.max().x, b.min().x, b.max().x)
                    || !near(a.min().y, a.max().y, b.min().y, b.max().y)
                {
                    continue;
                }
                let common = copy.intersection(other).unsigned_area();
                assert!(common < 1e-2, "two have {common} mm² in common");
                let gap = Euclidean.distance(copy, other);
                assert!(gap > spacing - 0.01, "{gap} mm apart instead of {spacing}");
            }
        }
        if let Some(notes) = notes {
            let place = block(notes.place);
            assert!(copies.iter().all(|copy| Euclidean.distance(copy, &place) > 0.9));
            let print = prepared.windows.print.base.inflate(0.01, 0.01);
            assert!(print.contains_rect(notes.place), "{:?} of {print:?}", notes.place);
            for mark in &prepared.marks.marks {
                let over = mark.keep_clear.intersection(&Region::rect(notes.place)).area();
                assert!(over < 1e-3, "over what a mark keeps clear by {over} mm²");
            }
        }
    }
}

fn applied(job: &Job, changes: &[Change]) -> Job {
    with_changes(job, changes).unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, max_global_rejects: 4000, ..ProptestConfig::default() })]

    #[test]
    fn whatever_is_asked_for_lies_as_it_must(drawn in jobs()) {
        let workshop = workshop();
        let job = job(&drawn, &workshop);
        let Ok(prepared) = prepare(&job, &workshop) else { return Err(TestCaseError::reject("figures")) };
        judge(&prepared, drawn.spacing);
        let layout = &prepared.layout;
        let wanted: u32 = job.pieces.iter().map(|piece| piece.copies).sum();
        if !drawn.fills {
            prop_assert!(layout.laid <= wanted, "{} of {wanted}", layout.laid);
        }
        // What fits is laid, all of it.
        if misfits(&job, &workshop, &Forgetful).is_empty() && job.sheet.kept.is_none() {
            prop_assert!(layout.laid >= wanted, "{} of {wanted} though each fits", layout.laid);
        }
        let order = &prepared.order;
        prop_assert!((0.0..=1.0).contains(&order.used) && order.waste >= -1e-6, "{order:?}");
        let sheets: u32 = order.cards.iter().map(|card| card.sheets).sum();
        prop_assert_eq!(sheets, layout.sheets());
        // A sheet is of one card.
        let blanks: Vec<_> = prepared.blanks().collect();
        for run in &layout.runs {
            let cards: BTreeSet<_> =
                run.placements.iter().map(|at| &job.pieces[blanks[at.part].piece].stock).collect();
            prop_assert!(cards.len() <= 1, "{cards:?} on one sheet");
        }
    }

    /// What a check says would help can be done, and then that check is broken no longer, or less is missing.
    #[test]
    fn whatever_is_said_to_help_does(drawn in jobs()) {
        let workshop = workshop();
        let job = job(&drawn, &workshop);
        let Ok(prepared) = prepare(&job, &workshop) else { return Err(TestCaseError::reject("figures")) };
        for check in prepared.checks.iter().filter(|check| check.state == State::Broken) {
            let missing = |check: &aptum_core::Check| {
                check.gauge.map_or(f64::INFINITY, |gauge| (gauge.value - gauge.bound).abs())
            };
            for remedy in check.remedies.iter().filter(|remedy| !remedy.changes.is_empty()) {
                let changed = applied(&job, &remedy.changes);
                let after = match prepare(&changed, &workshop) {
                    Ok(after) => after,
                    Err(errors) => panic!("{} → {}: {errors:?}", check.label, remedy.text),
                };
                let still = after.checks.iter().find(|other| {
                    other.id == check.id && other.label == check.label && other.state == State::Broken
                });
                // Of several pieces that fit nowhere one is mended, and the check then speaks of the next.
                let fewer = || misfits(&changed, &workshop, &Forgetful).len() < misfits(&job, &workshop, &Forgetful).len();
                let less = still.is_none_or(|still| missing(still) < missing(check)) || fewer();
                prop_assert!(less, "{} ({}) → {} does not help", check.label, check.id, remedy.text);
            }
        }
    }
}
