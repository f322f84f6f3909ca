//! Rehearsals by figures alone, and the steps of a run.

use aptum_core::geometry::{Affine, BezPath, Point, Rect, Shape};
use aptum_core::prepare;
use aptum_core::rehearsal::{CutLine, Day, OddsAsk, Worn, odds};
use aptum_core::run::{Bad, Ground, NoChange, Progress, RunChange, RunStep, StepKind, steps};
use aptum_core::workshop::{Margins, RecordId, Workshop};
use proptest::prelude::*;

use crate::tooling::job;

const LETTER: Rect = Rect::new(0.0, 0.0, 215.9, 279.4);

fn demo() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

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

fn demo_steps(name: &str) -> Vec<RunStep> {
    let (job, workshop) = (job(name), demo());
    let prepared = prepare(&job, &workshop).unwrap();
    steps(&Ground { job: &job, prepared: &prepared, workshop: &workshop })
}

#[test]
fn the_steps_of_a_printed_carton() {
    let own = demo_steps("tomato-carton");
    let told: Vec<String> =
        own.iter().map(|step| format!("{} × {}: {}", step.times, step.id, step.title)).collect();
    insta::assert_snapshot!(told.join("\n"));
    // The tool goes in before the sheet, the look comes before it is taken out.
    let at = |kind: StepKind| own.iter().position(|step| step.kind == kind).unwrap();
    assert!(at(StepKind::Print) < at(StepKind::Load) && at(StepKind::Tool) < at(StepKind::Load));
    assert!(at(StepKind::Cut) < at(StepKind::Look) && at(StepKind::Look) < at(StepKind::Count));
}

/// What differs from cutter to cutter is said in its own words.
#[test]
fn each_way_to_find_the_sheet_has_its_own_words() {
    let (mut job, mut workshop) = (job("tomato-carton"), demo());
    let id = RecordId::from("reading-room-cutter");
    for (by, words) in [
        (r#"{"by":"crosshairs"}"#, "Set the crosshairs on each mark"),
        (r#"{"by":"scan"}"#, "outlines must be closed"),
        (r#"{"by":"printed-itself"}"#, "leave it in"),
        (r#"{"by":"sheet-edge"}"#, "Against the stop"),
    ] {
        workshop.cutters.get_mut(&id).unwrap().finds = serde_json::from_str(by).unwrap();
        let prepared = prepare(&job, &workshop).unwrap();
        let all = steps(&Ground { job: &job, prepared: &prepared, workshop: &workshop });
        let load = all.iter().find(|step| step.kind == StepKind::Load).unwrap();
        assert!(load.says.iter().any(|own| own.contains(words)), "{words}: {:?}", load.says);
    }
    job.sheet.cutter = None;
    let prepared = prepare(&job, &workshop).unwrap();
    let by_hand = steps(&Ground { job: &job, prepared: &prepared, workshop: &workshop });
    assert!(by_hand.iter().any(|step| step.title == "Cut by hand"));
}

#[test]
fn every_demo_job_that_is_cut_has_steps_with_names_of_their_own() {
    for name in ["garlic-hexagon", "seedling-carrier", "month-tabs", "table-sign"] {
        let all = demo_steps(name);
        let names: std::collections::BTreeSet<&String> = all.iter().map(|step| &step.id).collect();
        assert_eq!(names.len(), all.len(), "{name}");
        assert!(all.iter().all(|step| step.times > 0 && !step.title.is_empty()));
        assert_eq!(all.last().unwrap().kind, StepKind::Count, "{name}");
    }
}

/// Each sheet is loaded, cut and looked at before the next one.
#[test]
fn sheets_go_round_one_after_the_other() {
    let all = demo_steps("tomato-carton");
    let mut run = Progress::default();
    let mut order = Vec::new();
    while let Some(step) = run.next(&all).map(|step| step.id.clone()) {
        run.change(&RunChange::Tick { step: step.clone() }, &all, "").unwrap();
        order.push(step);
    }
    let told = order.join(" ");
    let round = "load-0 cut-0 look-0";
    assert!(told.contains(&[round; 7].join(" ")), "{told}");
    assert!(told.starts_with("print measure tool-0") && told.ends_with("look-0 count"), "{told}");
}

#[test]
fn what_cannot_be_done_changes_nothing() {
    let all = demo_steps("tomato-carton");
    let mut run = Progress::default();
    let tick = |id: &str| RunChange::Tick { step: id.to_owned() };
    run.change(&tick("print"), &all, "10:00").unwrap();
    let before = run.clone();
    assert!(matches!(run.change(&tick("print"), &all, "10:01"), Err(NoChange::Already(_))));
    assert!(matches!(run.change(&tick("saw"), &all, "10:01"), Err(NoChange::NoStep(_))));
    let back = RunChange::Back { step: "count".to_owned() };
    assert!(matches!(run.change(&back, &all, ""), Err(NoChange::NotYet(_))));
    for mm in [0.0, -3.0, f64::NAN, 1e9] {
        assert!(run.change(&RunChange::Measure { mm }, &all, "").is_err());
    }
    let many = RunChange::Count { good: u32::MAX, bad: [(Bad::Torn, 5)].into() };
    assert!(matches!(run.change(&many, &all, ""), Err(NoChange::Count(_))));
    assert_eq!(run, before);
    run.change(&RunChange::Hold, &all, "").unwrap();
    assert_eq!(run.change(&tick("measure"), &all, ""), Err(NoChange::Held));
    run.change(&RunChange::Stop, &all, "").unwrap();
    assert_eq!(run.change(&RunChange::Resume, &all, ""), Err(NoChange::Stopped));
    // What was made until then is still counted.
    run.change(
        &RunChange::Count { good: 4, bad: [(Bad::Torn, 1), (Bad::Fold, 0)].into() },
        &all,
        "",
    )
    .unwrap();
    assert_eq!((run.good, run.bad()), (4, 1));
}

proptest! {
    /// Whatever is ticked and taken back: a step is never done more often than it is asked for, and while one is left there is a next
    /// one that is not done yet.
    #[test]
    fn a_run_never_overtakes_itself(doings in prop::collection::vec((0usize..12, any::<bool>()), 1..80)) {
        let all = demo_steps("tomato-carton");
        let mut run = Progress::default();
        for (at, is_tick) in doings {
            let step = all[at % all.len()].id.clone();
            let change = if is_tick { RunChange::Tick { step } } else { RunChange::Back { step } };
            let _ = run.change(&change, &all, "10:00");
            prop_assert!(all.iter().all(|step| run.times(&step.id) <= step.times));
        }
        let is_left = all.iter().any(|step| run.times(&step.id) < step.times);
        let next = run.next(&all);
        prop_assert_eq!(next.is_some(), is_left);
        prop_assert!(next.is_none_or(|step| run.times(&step.id) < step.times));
    }
}
