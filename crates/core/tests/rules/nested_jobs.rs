//! Jobs of the demo, nested: nothing is lost, and no sheet more is taken than in rows and columns.

use std::path::Path;
use std::sync::atomic::{AtomicU32, Ordering};

use aptum_core::check::State;
use aptum_core::memory::Forgetful;
use aptum_core::sheet::nest::{Found, Watch};
use aptum_core::sheet::{Amount, Placement, SheetRun, Turning};
use aptum_core::{Job, Prepared, Workshop, nest_job, prepare};

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn jobs() -> Vec<Job> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/jobs");
    let mut files: Vec<_> =
        std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.sort();
    let read = |file| serde_json::from_str(&std::fs::read_to_string(file).unwrap()).unwrap();
    let jobs = files.iter().map(read);
    // What is in pictures is not known here.
    jobs.filter(|job: &Job| job.pieces.iter().all(|piece| piece.form.chosen().is_some())).collect()
}

/// Ends a search after so many questions, and counts the layouts on the way.
struct Briefly {
    left: AtomicU32,
    told: AtomicU32,
}

impl Briefly {
    fn new(moves: u32) -> Self {
        Self { left: AtomicU32::new(moves), told: AtomicU32::new(0) }
    }
}

impl Watch for Briefly {
    fn go_on(&self) -> bool {
        let less = |left: u32| left.checked_sub(1);
        self.left.fetch_update(Ordering::Relaxed, Ordering::Relaxed, less).is_ok()
    }

    fn found(&self, _: &Found<'_>) {
        self.told.fetch_add(1, Ordering::Relaxed);
    }
}

fn nested(job: &Job, workshop: &Workshop, moves: u32) -> Prepared {
    let found = nest_job(job, workshop, &Forgetful, &Briefly::new(moves)).unwrap();
    let mut kept = job.clone();
    kept.sheet.kept = Some(found.kept);
    prepare(&kept, workshop).unwrap()
}

#[test]
fn no_job_takes_more_sheets_nested_than_in_rows_and_none_loses_a_copy() {
    let workshop = workshop();
    for job in jobs().into_iter().step_by(2) {
        let rows = prepare(&job, &workshop).unwrap();
        let nested = nested(&job, &workshop, 60);
        let name = &job.name;
        assert!(nested.layout.sheets() <= rows.layout.sheets().max(1), "{name}");
        for piece in 0..rows.blanks().count() {
            assert!(
                nested.layout.count(piece) >= rows.layout.count(piece),
                "{name}: blank {piece}"
            );
        }
        let broken: Vec<&str> = nested
            .checks
            .iter()
            .filter(|check| check.state == State::Broken)
            .map(|check| check.id.as_str())
            .filter(|id| !rows.checks.iter().any(|known| known.id == *id))
            .collect();
        assert!(broken.is_empty(), "{name}: {broken:?}");
    }
}

#[test]
fn copies_are_turned_only_as_the_job_allows() {
    let workshop = workshop();
    let allowed = |turning: Turning, turn: f64| match turning {
        Turning::Free => true,
        Turning::Quarter => turn.rem_euclid(90.0) < 1e-9,
        Turning::Grain => turn.rem_euclid(180.0) < 1e-9 || (turn - 90.0).rem_euclid(180.0) < 1e-9,
        Turning::Upright => turn.abs() < 1e-9,
    };
    for mut job in jobs().into_iter().step_by(6) {
        for turning in [Turning::Free, Turning::Quarter, Turning::Grain, Turning::Upright] {
            job.sheet.turning = turning;
            let found = nest_job(&job, &workshop, &Forgetful, &Briefly::new(5)).unwrap();
            let placements: Vec<_> =
                found.kept.runs.iter().flat_map(|run: &SheetRun| &run.placements).collect();
            assert!(
                placements.iter().all(|at| allowed(turning, at.turn)),
                "{}: {turning:?}",
                job.name
            );
            // Along the grain a blank lies one way or the other way round, never crosswise.
            if turning == Turning::Grain {
                let half = |turn: f64| turn.rem_euclid(180.0).round();
                let crosswise = |a: &&Placement, b: &&Placement| {
                    a.part == b.part && half(a.turn) != half(b.turn)
                };
                let pairs = placements.iter().flat_map(|a| placements.iter().map(move |b| (a, b)));
                assert!(!pairs.into_iter().any(|(a, b)| crosswise(a, b)), "{}", job.name);
            }
        }
    }
}

#[test]
fn filled_sheets_hold_no_less_than_was_wanted() {
    let workshop = workshop();
    for mut job in jobs().into_iter().skip(1).step_by(3) {
        let wanted = prepare(&job, &workshop).unwrap();
        job.sheet.amount = Amount::FillSheets;
        let filled = nested(&job, &workshop, 20);
        for blank in 0..wanted.blanks().count() {
            assert!(filled.layout.count(blank) >= wanted.layout.count(blank), "{}", job.name);
        }
    }
}

#[test]
fn a_search_that_may_not_begin_still_gives_its_first_layout() {
    let workshop = workshop();
    for job in jobs().into_iter().take(6) {
        let watch = Briefly::new(0);
        let found = nest_job(&job, &workshop, &Forgetful, &watch).unwrap();
        assert!(!found.is_complete, "{}", job.name);
        let rows = prepare(&job, &workshop).unwrap();
        if rows.layout.laid > 0 {
            assert!(!found.kept.runs.is_empty(), "{}", job.name);
            assert!(watch.told.load(Ordering::Relaxed) > 0, "{}", job.name);
        }
    }
}
