//! Moving copies by hand, and kept layouts.

use aptum_core::arrange::{Act, AlignTo, Arrange, Arranged, Direction, arrange};
use aptum_core::form::Form;
use aptum_core::geometry::Rect;
use aptum_core::memory::Forgetful;
use aptum_core::sheet::nest::ToTheEnd;
use aptum_core::sheet::{Kept, LaidBlank, Made, Placement, SheetRun};
use aptum_core::units::Unit;
use aptum_core::{Check, Job, State, Workshop, nest_job, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn tags() -> Job {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/plant-tag.json")).unwrap();
    job.pieces[0].form = Form::new("tag-rounded", &[("width", SIZE.0), ("height", SIZE.1)]);
    job
}

fn set() -> Job {
    serde_json::from_str(include_str!("../../../../demo/jobs/spring-table-set.json")).unwrap()
}

/// The tags with these places on one sheet.
fn placed(places: &[(f64, f64)]) -> Job {
    let placements = places
        .iter()
        .zip(1..)
        .map(|((x, y), copy)| Placement { copy, x: *x, y: *y, ..Placement::default() })
        .collect();
    let mut job = tags();
    job.pieces[0].copies = u32::try_from(places.len()).unwrap();
    let runs = vec![SheetRun { sheets: 1, placements }];
    job.sheet.kept =
        Some(Kept { made: Made::ByHand, blanks: vec![LaidBlank::any("p1", "tag")], runs });
    job
}

fn act(job: &Job, chosen: &[usize], what: Act) -> Arranged {
    arrange(job, &workshop(), &Forgetful, &Arrange { run: 0, chosen: chosen.to_vec(), what })
        .unwrap()
}

fn places(arranged: &Arranged) -> Vec<(f64, f64)> {
    arranged.kept.runs[0].placements.iter().map(|at| (at.x, at.y)).collect()
}

fn near(a: (f64, f64), b: (f64, f64)) {
    assert!((a.0 - b.0).abs() < 1e-6 && (a.1 - b.1).abs() < 1e-6, "{a:?} {b:?}");
}

fn check<'a>(checks: &'a [Check], id: &str) -> &'a Check {
    checks.iter().find(|check| check.id == id).unwrap_or_else(|| panic!("no check {id}"))
}

/// The tag is 38 × 92 mm.
const SIZE: (f64, f64) = (38.0, 92.0);

#[test]
fn a_move_goes_where_it_is_told_and_snaps_where_a_line_is_near() {
    let job = placed(&[(60.0, 60.0), (150.0, 200.0)]);
    let moved = act(&job, &[1], Act::Move { x: 3.25, y: -10.0, snap: 0.0 });
    near(places(&moved)[1], (153.25, 190.0));
    assert!(moved.guides.is_empty());
    // Two millimetres, the spacing, beside the first, and level with it.
    let beside = (60.0 + SIZE.0 + 2.0, 60.0);
    let by = Act::Move { x: beside.0 - 150.0 + 1.3, y: beside.1 - 200.0 - 0.9, snap: 1.5 };
    let snapped = act(&job, &[1], by);
    near(places(&snapped)[1], beside);
    assert_eq!(snapped.guides.len(), 2);
    let clear = snapped.clearance.unwrap();
    assert!((clear.value - 2.0).abs() < 1e-6 && clear.is_enough, "{clear:?}");
    assert_eq!(clear.text, "2 mm to the next copy");
    // A millimetre nearer is too near, and is said.
    let job = Job {
        sheet: aptum_core::sheet::SheetPlan { kept: Some(snapped.kept), ..job.sheet },
        ..job
    };
    let clear = act(&job, &[1], Act::Move { x: -1.0, y: 0.0, snap: 0.0 }).clearance.unwrap();
    assert!(!clear.is_enough && (clear.value - 1.0).abs() < 1e-6);
    let clear = act(&job, &[1], Act::Move { x: -20.0, y: 0.0, snap: 0.0 }).clearance.unwrap();
    assert_eq!(clear.text, "overlaps the next copy");
    let clear = act(&job, &[0], Act::Move { x: -55.0, y: 0.0, snap: 0.0 }).clearance.unwrap();
    assert_eq!(clear.text, "3 mm outside, to the window’s edge");
}

#[test]
fn edges_and_middles_align_and_gaps_become_equal() {
    let job = placed(&[(40.0, 40.0), (93.0, 61.0), (170.0, 55.0), (230.0, 140.0)]);
    let all = [0, 1, 2, 3];
    let top = act(&job, &all, Act::Align { to: AlignTo::Top });
    assert!(places(&top).iter().all(|(_, y)| (y - 40.0).abs() < 1e-9));
    let right = act(&job, &all, Act::Align { to: AlignTo::Right });
    assert!(places(&right).iter().all(|(x, _)| (x - 230.0).abs() < 1e-9));
    let middle = act(&job, &all, Act::Align { to: AlignTo::Centre });
    assert!(places(&middle).iter().all(|(_, y)| (y - 90.0).abs() < 1e-9));
    // One alone goes to the window: 281 mm from 8.
    let alone = act(&job, &[0], Act::Align { to: AlignTo::Left });
    near(places(&alone)[0], (8.0, 40.0));
    let even = act(&job, &all, Act::Distribute { along: Direction::Across });
    let gaps: Vec<f64> =
        places(&even).windows(2).map(|pair| pair[1].0 - pair[0].0 - SIZE.0).collect();
    assert!(gaps.iter().all(|gap| (gap - gaps[0]).abs() < 1e-9), "{gaps:?}");
    near(places(&even)[0], (40.0, 40.0));
    near(places(&even)[3], (230.0, 140.0));
}

#[test]
fn copies_repeat_in_a_grid_lock_and_are_taken_off() {
    let job = placed(&[(20.0, 20.0)]);
    let what = Act::Grid { columns: 3, rows: 2, across: 4.0, down: 6.0 };
    let grid = act(&job, &[0], what);
    assert_eq!(grid.chosen.len(), 6);
    near(places(&grid)[5], (20.0 + 2.0 * (SIZE.0 + 4.0), 20.0 + SIZE.1 + 6.0));
    let mut job = job;
    job.sheet.kept = Some(grid.kept);
    let locked = act(&job, &[2, 4], Act::Lock);
    assert_eq!(locked.kept.runs[0].placements.iter().filter(|at| at.locked).count(), 2);
    job.sheet.kept = Some(locked.kept);
    let before = places(&act(&job, &[], Act::Lock));
    let moved = act(&job, &[2, 3], Act::Move { x: 5.0, y: 5.0, snap: 0.0 });
    near(places(&moved)[2], before[2]);
    near(places(&moved)[3], (before[3].0 + 5.0, before[3].1 + 5.0));
    let off = act(&job, &[0, 5], Act::Remove);
    assert_eq!(places(&off), before[1..5]);
    let more = act(&job, &[], Act::Add { piece: "p1".into(), part: "tag".into() });
    assert_eq!((more.chosen, places(&off).len()), (vec![6], 4));
}

#[test]
fn a_turn_is_about_the_common_middle_and_four_quarters_are_none() {
    let job = placed(&[(60.0, 60.0), (120.0, 90.0)]);
    let mut turned = job.clone();
    for _ in 0..4 {
        let next = act(&turned, &[0, 1], Act::Turn { degrees: 90.0 });
        turned.sheet.kept = Some(next.kept);
    }
    let back = &turned.sheet.kept.unwrap().runs[0].placements;
    let first = &job.sheet.kept.as_ref().unwrap().runs[0].placements;
    for (back, first) in back.iter().zip(first) {
        near((back.x, back.y), (first.x, first.y));
        assert!((back.turn - first.turn).abs() < 1e-9);
    }
    let quarter = act(&job, &[0, 1], Act::Turn { degrees: 90.0 });
    let bounds = |places: &[Placement]| {
        places
            .iter()
            .map(|at| at.transform().transform_rect_bbox(Rect::new(0.0, 0.0, SIZE.0, SIZE.1)))
            .reduce(|all, next| all.union(next))
            .unwrap()
    };
    let (before, after) = (bounds(first), bounds(&quarter.kept.runs[0].placements));
    assert!((before.center() - after.center()).hypot() < 1e-6);
    assert!((before.width() - after.height()).abs() < 1e-6);
}

#[test]
fn what_cannot_be_done_is_said_with_the_number() {
    let job = placed(&[(20.0, 20.0)]);
    let says = |run: usize, chosen: Vec<usize>, what: Act, words: &str| {
        let errors =
            arrange(&job, &workshop(), &Forgetful, &Arrange { run, chosen, what }).unwrap_err();
        assert!(errors.iter().any(|error| error.message.contains(words)), "{errors:?}");
        assert!(errors.iter().all(|error| !error.remedy.text.is_empty()));
    };
    says(7, vec![], Act::Lock, "no sheet 8");
    says(0, vec![4], Act::Lock, "no copy 5");
    let grid = |columns, rows| Act::Grid { columns, rows, across: 1.0, down: 1.0 };
    says(0, vec![0], grid(10_000, 10_000), "100000000 copies");
    says(0, vec![0], grid(0, 3), "0 × 3");
    says(0, vec![0], Act::Move { x: f64::NAN, y: 0.0, snap: 0.0 }, "not a number");
    says(0, vec![0], Act::Turn { degrees: 1e9 }, "1000000000");
    says(0, vec![0], Act::Add { piece: "p1".into(), part: "lid".into() }, "no blank “lid” of “p1”");
}

#[test]
fn a_kept_layout_is_shown_as_it_is_and_its_faults_are_counted() {
    let workshop = workshop();
    let mut job = placed(&[(20.0, 20.0), (40.0, 20.0), (270.0, 20.0)]);
    job.pieces[0].copies = 4;
    let prepared = prepare(&job, &workshop).unwrap();
    assert_eq!(prepared.layout.runs, job.sheet.kept.as_ref().unwrap().runs);
    let apart = check(&prepared.checks, "apart");
    assert_eq!((apart.state, apart.verdict.as_str()), (State::Broken, "one pair overlaps"));
    let outside = check(&prepared.checks, "outside");
    assert_eq!((outside.state, outside.value_text.as_str()), (State::Broken, "1"));
    assert!(outside.place.as_ref().unwrap().path.starts_with('M'));
    let copies = check(&prepared.checks, "copies");
    assert_eq!(
        (copies.state, copies.verdict.as_str()),
        (State::Broken, "1 missing in the kept layout")
    );
    assert_eq!(copies.remedies[0].changes[0].field, "sheet.kept");
    // A layout of other pieces means nothing, and says so.
    let named = std::mem::take(&mut job.sheet.kept.as_mut().unwrap().blanks);
    let prepared = prepare(&job, &workshop).unwrap();
    assert_eq!(check(&prepared.checks, "kept").state, State::Attention);
    assert_eq!(prepared.layout.laid, 4, "rows and columns instead");
    job.sheet.kept.as_mut().unwrap().blanks = named;
    // Places without end are refused.
    job.sheet.kept.as_mut().unwrap().runs[0].placements[0].x = 1e12;
    let errors = prepare(&job, &workshop).unwrap_err();
    assert_eq!(errors[0].field, "sheet.kept");
}

/// Places are known by what lies there, not by a number: pieces come, go and change their order.
#[test]
fn a_kept_layout_stays_with_its_pieces() {
    let workshop = workshop();
    let mut job = placed(&[(30.0, 30.0), (90.0, 30.0)]);
    let moved = act(&job, &[0], Act::Move { x: 1.0, y: 0.0, snap: 0.0 });
    job.sheet.kept = Some(moved.kept);
    let says = |job: &Job| {
        let prepared = prepare(job, &workshop).unwrap();
        let kept = check(&prepared.checks, "kept");
        (prepared.layout.runs[0].placements.len(), kept.state, kept.verdict.clone())
    };
    assert_eq!(says(&job), (2, State::Fits, "made for these pieces".into()));

    let mut longer = job.clone();
    longer.pieces[0].form.chosen_mut().unwrap().figures.insert("height".into(), Some(66.0));
    assert!(says(&longer).2.contains("another outline"), "{}", says(&longer).2);

    let mut more = job.clone();
    more.pieces.insert(0, job.another_piece());
    more.pieces[0].name = Some("Stake".into());
    let (places, state, verdict) = says(&more);
    assert_eq!((places, state), (2, State::Attention));
    assert!(verdict.contains("Stake came later"), "{verdict}");
    let prepared = prepare(&more, &workshop).unwrap();
    assert!(prepared.layout.runs[0].placements.iter().all(|at| at.part == 1), "the tags’ places");
    let names: Vec<&str> =
        prepared.layout.blanks.iter().map(|blank| blank.piece.0.as_str()).collect();
    assert_eq!(names, ["p2", "p1"]);

    let mut gone = job.clone();
    gone.pieces[0].id = "p9".into();
    assert_eq!(prepare(&gone, &workshop).unwrap().layout.laid, 2, "rows and columns instead");
}

#[test]
fn a_job_of_several_pieces_is_nested_on_fewer_sheets_and_its_locked_copies_stay() {
    let (mut job, workshop) = (set(), workshop());
    job.sheet.search.budget = 1.0;
    let rows = prepare(&job, &workshop).unwrap();
    assert_eq!(rows.layout.sheets(), 2);
    let nested = nest_job(&job, &workshop, &Forgetful, &ToTheEnd).unwrap();
    job.sheet.kept = Some(nested.kept.clone());
    let prepared = prepare(&job, &workshop).unwrap();
    assert_eq!(prepared.layout.sheets(), 1);
    for id in ["outside", "apart", "copies-p1", "copies-p2", "copies-p3"] {
        assert_eq!(check(&prepared.checks, id).state, State::Fits, "{id}");
    }
    // What is locked where it lies is there again in the next layout.
    let kept = job.sheet.kept.as_mut().unwrap();
    kept.runs[0].placements[3].locked = true;
    let fixed = kept.runs[0].placements[3];
    job.sheet.search.seed = 9;
    let again = nest_job(&job, &workshop, &Forgetful, &ToTheEnd).unwrap();
    let found = again.kept.runs[0].placements.iter().find(|at| at.locked).unwrap();
    near((found.x, found.y), (fixed.x, fixed.y));
    assert_ne!(again.kept.runs, nested.kept.runs);
    // Locked copies that overlap are refused with their number.
    let kept = job.sheet.kept.as_mut().unwrap();
    kept.runs[0].placements[4] = Placement { part: fixed.part, ..fixed };
    let errors = nest_job(&job, &workshop, &Forgetful, &ToTheEnd).unwrap_err();
    assert!(errors[0].message.contains("1 pairs of locked copies overlap"), "{errors:?}");
}

#[test]
fn another_card_has_sheets_of_its_own_when_it_is_nested() {
    let (mut job, workshop) = (set(), workshop());
    job.pieces[1].stock = "ivory-cover-80".into();
    job.sheet.search.budget = 1.0;
    let nested = nest_job(&job, &workshop, &Forgetful, &ToTheEnd).unwrap();
    for run in &nested.kept.runs {
        let first = run.placements[0].part == 1;
        assert!(run.placements.iter().all(|at| (at.part == 1) == first));
    }
    assert_eq!(nested.kept.runs.len(), 2);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]
    /// Whatever is done, no copy is lost or made but by taking off, adding and repeating, and locked ones stay.
    #[test]
    fn acts_keep_the_copies(
        places_at in prop::collection::vec((0.0..250.0f64, 0.0..380.0f64), 2..8),
        x in -50.0..50.0f64, y in -50.0..50.0f64, degrees in -360.0..360.0f64, locked in 0..2usize,
    ) {
        let mut job = placed(&places_at);
        job.sheet.kept.as_mut().unwrap().runs[0].placements[locked].locked = true;
        let chosen: Vec<usize> = (0..places_at.len()).collect();
        for what in [
            Act::Move { x, y, snap: 3.0 },
            Act::Turn { degrees },
            Act::Align { to: AlignTo::Bottom },
            Act::Distribute { along: Direction::Down },
        ] {
            let done = act(&job, &chosen, what);
            prop_assert_eq!(done.kept.runs[0].placements.len(), places_at.len());
            near(places(&done)[locked], places_at[locked]);
            prop_assert_eq!(done.chosen, chosen.clone());
        }
    }
}

#[test]
fn distances_are_said_in_the_jobs_unit() {
    let mut job = placed(&[(60.0, 60.0), (150.0, 200.0)]);
    let beside = Act::Move { x: 60.0 + SIZE.0 + 12.7 - 150.0, y: -140.0, snap: 0.0 };
    let outside = Act::Move { x: -150.0 - 17.4, y: 0.0, snap: 0.0 };
    for (unit, gap, over) in [
        (Unit::Mm, "12.7 mm to the next copy", "25.4 mm outside, to the window’s edge"),
        (Unit::Cm, "1.27 cm to the next copy", "2.54 cm outside, to the window’s edge"),
        (Unit::In, "1/2 in to the next copy", "1 in outside, to the window’s edge"),
    ] {
        job.unit = unit;
        assert_eq!(act(&job, &[1], beside.clone()).clearance.unwrap().text, gap);
        assert_eq!(act(&job, &[1], outside.clone()).clearance.unwrap().text, over);
    }
}

#[test]
fn the_windows_edges_and_the_pages_middle_draw_copies() {
    let job = placed(&[(60.0, 60.0)]);
    let prepared = prepare(&job, &workshop()).unwrap();
    let (window, page) = (prepared.windows.cut.base, prepared.windows.page);
    let drawn = |x: f64, y: f64| {
        let by = Act::Move { x: x - 60.0, y: y - 60.0, snap: 1.0 };
        let arranged = act(&job, &[0], by);
        (places(&arranged)[0], arranged.guides)
    };
    let (corner, guides) = drawn(window.x1 - SIZE.0 + 0.8, window.y1 - SIZE.1 - 0.9);
    near(corner, (window.x1 - SIZE.0, window.y1 - SIZE.1));
    assert_eq!(guides.len(), 2);
    assert!(guides[0].iter().all(|point| (point[0] - window.x1).abs() < 1e-9), "{guides:?}");
    let middle = page.center();
    let (centred, _) = drawn(middle.x - SIZE.0 / 2.0 + 0.7, middle.y - SIZE.1 / 2.0 - 0.7);
    near(centred, (middle.x - SIZE.0 / 2.0, middle.y - SIZE.1 / 2.0));
    // A line that is farther away than asked for draws nothing.
    let (free, guides) = drawn(window.x0 + 1.2, 100.0);
    near(free, (window.x0 + 1.2, 100.0));
    assert!(guides.is_empty());
}

#[test]
fn gaps_become_equal_downwards_and_a_locked_copy_keeps_its_place() {
    let mut job = placed(&[(30.0, 10.0), (80.0, 118.0), (130.0, 290.0)]);
    let all = [0, 1, 2];
    let even = act(&job, &all, Act::Distribute { along: Direction::Down });
    // From 10 to 382 are 372 mm, of which three tags of 92 leave 96 for two gaps.
    near(places(&even)[1], (80.0, 10.0 + 92.0 + 48.0));
    job.sheet.kept = Some(act(&job, &[1], Act::Lock).kept);
    let even = act(&job, &all, Act::Distribute { along: Direction::Down });
    near(places(&even)[1], (80.0, 118.0));
    let left = act(&job, &all, Act::Align { to: AlignTo::Left });
    assert_eq!(places(&left), [(30.0, 10.0), (80.0, 118.0), (30.0, 290.0)]);
    let two = act(&job, &[0, 2], Act::Distribute { along: Direction::Down });
    assert_eq!(places(&two), places(&act(&job, &[], Act::Lock)), "two have only one gap");
}

#[test]
fn acts_reach_only_the_sheet_that_is_shown() {
    let mut job = placed(&[(30.0, 30.0), (90.0, 30.0)]);
    let kept = job.sheet.kept.as_mut().unwrap();
    let more = Placement { copy: 3, x: 30.0, y: 30.0, ..Placement::default() };
    kept.runs.push(SheetRun { sheets: 4, placements: vec![more] });
    let ask = Arrange { run: 1, chosen: vec![0], what: Act::Move { x: 5.0, y: 0.0, snap: 0.0 } };
    let moved = arrange(&job, &workshop(), &Forgetful, &ask).unwrap();
    assert_eq!(moved.kept.runs[0], job.sheet.kept.as_ref().unwrap().runs[0]);
    assert_eq!(moved.kept.runs[1].sheets, 4);
    assert!((moved.kept.runs[1].placements[0].x - 35.0).abs() < 1e-9);
    assert_eq!(moved.kept.made, Made::ByHand);
}

#[test]
fn a_layout_of_no_sheets_takes_a_first_copy() {
    let mut job = placed(&[]);
    job.pieces[0].copies = 1;
    job.sheet.kept = Some(Kept {
        made: Made::ByHand,
        blanks: vec![LaidBlank::any("p1", "tag")],
        runs: Vec::new(),
    });
    let more = act(&job, &[], Act::Add { piece: "p1".into(), part: "tag".into() });
    assert_eq!((more.chosen.as_slice(), more.kept.runs.len()), ([0].as_slice(), 1));
    let clear = more.clearance.unwrap();
    assert!(clear.is_enough && clear.text.ends_with("to the window’s edge"), "{clear:?}");
}
