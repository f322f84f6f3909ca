//! The store: revisions, two windows at once, and data files that cannot be used.

use std::collections::BTreeMap;
use std::sync::Arc;

use aptum::demo;
use aptum::store::{RecordChange, Store, StoreError};
use aptum_core::units::Unit;
use aptum_core::workshop::{Keeping, PrintableSide, RecordId};
use aptum_core::{Job, Workshop};
use diesel::connection::SimpleConnection;
use diesel::{Connection, SqliteConnection};
use proptest::prelude::*;
use serde_json::Value;
use tempfile::TempDir;

fn job(name: &str) -> Job {
    let text = include_str!("../../../../demo/jobs/tomato-carton.json");
    Job { name: name.into(), ..serde_json::from_str(text).unwrap() }
}

fn open() -> (TempDir, Store) {
    let folder = TempDir::new().unwrap();
    let store = Store::open(folder.path()).unwrap();
    // Jobs name records: they must be there.
    demo::start_workshop(&store).unwrap();
    (folder, store)
}

#[test]
fn undo_and_redo_walk_along_the_revisions_also_after_a_restart() {
    let (folder, store) = open();
    let first = store.add_job(&job("one")).unwrap();
    assert!(!first.can_undo && !first.can_redo);
    let second = store.save_job(first.id, first.version, &job("two")).unwrap();
    let third = store.save_job(first.id, second.version, &job("three")).unwrap();
    drop(store);

    let store = Store::open(folder.path()).unwrap();
    let back = store.undo(first.id, third.version).unwrap();
    assert_eq!((back.job.name.as_str(), back.can_undo, back.can_redo), ("two", true, true));
    let back = store.undo(first.id, back.version).unwrap();
    assert_eq!((back.job.name.as_str(), back.can_undo), ("one", false));
    assert!(matches!(store.undo(first.id, back.version), Err(StoreError::NoFurther("undo"))));
    let forth = store.redo(first.id, back.version).unwrap();
    assert_eq!(forth.job.name, "two");

    // A change after an undo drops what had been undone.
    let changed = store.save_job(first.id, forth.version, &job("four")).unwrap();
    assert!(!changed.can_redo);
    assert!(matches!(store.redo(first.id, changed.version), Err(StoreError::NoFurther("redo"))));
    // The same job again is no change.
    assert_eq!(store.save_job(first.id, changed.version, &job("four")).unwrap(), changed);
}

#[test]
fn a_change_to_an_old_version_is_refused_and_changes_nothing() {
    let (_folder, store) = open();
    let first = store.add_job(&job("one")).unwrap();
    store.save_job(first.id, first.version, &job("mine")).unwrap();
    let refused = store.save_job(first.id, first.version, &job("yours"));
    assert!(matches!(refused, Err(StoreError::Conflict { yours: 1, current: 2 })));
    assert!(store.undo(first.id, first.version).is_err());
    assert_eq!(store.job(first.id).unwrap().job.name, "mine");
}

#[test]
fn a_binned_job_is_out_of_sight_and_comes_back_whole() {
    let (_folder, store) = open();
    let id = store.add_job(&job("one")).unwrap().id;
    store.bin_job(id).unwrap();
    assert!(store.jobs().unwrap().is_empty());
    assert!(matches!(store.job(id), Err(StoreError::NoJob(_))));
    assert!(store.bin_job(id).is_err(), "twice");
    store.unbin_job(id).unwrap();
    assert_eq!(store.jobs().unwrap().len(), 1);
    assert!(matches!(store.bin_job(99), Err(StoreError::NoJob(99))));
}

#[test]
fn a_locked_data_file_is_said_and_nothing_is_lost() {
    let (folder, store) = open();
    let first = store.add_job(&job("one")).unwrap();
    let file = folder.path().join("aptum.sqlite");
    let mut other = SqliteConnection::establish(&file.to_string_lossy()).unwrap();
    other.batch_execute("BEGIN IMMEDIATE").unwrap();
    let refused = store.save_job(first.id, first.version, &job("two"));
    assert!(matches!(refused, Err(StoreError::Locked)), "{refused:?}");
    assert_eq!(store.job(first.id).unwrap().job.name, "one", "reading goes on");
    other.batch_execute("COMMIT").unwrap();
    assert!(store.save_job(first.id, first.version, &job("two")).is_ok());
}

#[test]
fn a_data_file_of_a_newer_version_is_left_alone() {
    let (folder, store) = open();
    drop(store);
    let file = folder.path().join("aptum.sqlite");
    let mut other = SqliteConnection::establish(&file.to_string_lossy()).unwrap();
    other
        .batch_execute("INSERT INTO __diesel_schema_migrations (version) VALUES ('29990101000000')")
        .unwrap();
    let error = Store::open(folder.path()).err().unwrap();
    assert!(matches!(&error, StoreError::Newer(version) if version == "29990101000000"));
    assert!(error.to_string().contains("another data directory"));
}

/// The tables, records and jobs as the first version kept them.
#[test]
fn a_data_file_of_an_older_version_is_brought_up_and_nothing_in_it_is_lost() {
    let folder = TempDir::new().unwrap();
    let file = folder.path().join("aptum.sqlite");
    let mut other = SqliteConnection::establish(&file.to_string_lossy()).unwrap();
    other
        .batch_execute(include_str!("../../migrations/2026-11-24-000001_jobs_and_records/up.sql"))
        .unwrap();
    other
        .batch_execute(
            "CREATE TABLE __diesel_schema_migrations (version VARCHAR(50) PRIMARY KEY NOT NULL, \
             run_on TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP);\
             INSERT INTO __diesel_schema_migrations (version) VALUES ('20261124000001')",
        )
        .unwrap();
    let quoted = |value: &Value| value.to_string().replace('\'', "''");
    let workshop: Value = serde_json::from_str(include_str!("../older/workshop.json")).unwrap();
    for (kind, records) in workshop.as_object().unwrap() {
        for (id, body) in records.as_object().unwrap() {
            let row = format!("INSERT INTO records VALUES ('{kind}', '{id}', '{}')", quoted(body));
            other.batch_execute(&row).unwrap();
        }
    }
    let jobs: Vec<Value> = serde_json::from_str(include_str!("../older/jobs.json")).unwrap();
    for (at, body) in jobs.iter().enumerate() {
        let id = at + 1;
        let rows = format!(
            "INSERT INTO jobs (id, head, version) VALUES ({id}, 1, 1);\
             INSERT INTO revisions (job, number, body) VALUES ({id}, 1, '{}')",
            quoted(body)
        );
        other.batch_execute(&rows).unwrap();
    }
    drop(other);

    let store = Store::open(folder.path()).unwrap();
    let records = store.workshop().unwrap();
    let count = |kind: &str| workshop[kind].as_object().unwrap().len();
    assert_eq!(records.stocks.len(), count("stocks"));
    assert_eq!(records.cutters.len(), count("cutters"));
    assert_eq!(records.mark_sets.len(), count("mark_sets"));
    // What records did not say then is what they meant.
    let cutter = &records.cutters[&"reading-room-cutter".into()];
    assert_eq!((cutter.lead, cutter.tail, cutter.keeping), (0.0, 0.0, Keeping::Kept));
    let stock = &records.stocks[&"kraft-300".into()];
    assert_eq!((&stock.price, &stock.roll, stock.printable), (&None, &None, PrintableSide::Both));
    let all = store.jobs().unwrap();
    assert_eq!(all.len(), 2);
    for job in all.into_iter().map(|entry| entry.job.unwrap()) {
        let prepared = aptum_core::prepare(&job, &records).unwrap();
        assert_eq!(prepared.layout.laid, job.pieces[0].copies, "{}", job.name);
        assert!(job.pieces.len() == 1 && job.sheet.kept.is_none());
    }
    // And it takes changes, which can be undone.
    let head = store.workshop_head().unwrap();
    assert!(!head.can_undo);
    let change =
        RecordChange { kind: "printers".into(), id: "front-desk-laser".into(), body: None };
    let head = store.change_record(head.version, &change).unwrap();
    assert_eq!(store.workshop().unwrap().printers.len(), count("printers") - 1);
    store.step_workshop(head.version, true).unwrap();
    assert_eq!(store.workshop().unwrap(), records);
}

/// A data file of the program before pieces were a list: its jobs are as they were, with what can be undone
/// and redone, and a copy of the file is kept.
#[test]
fn a_data_file_with_one_piece_at_the_top_is_read() {
    let folder = TempDir::new().unwrap();
    let file = include_bytes!("../older/one-piece.sqlite");
    std::fs::write(folder.path().join("aptum.sqlite"), file).unwrap();
    let store = Store::open(folder.path()).unwrap();
    let tomato = store.job(3).unwrap();
    assert_eq!((tomato.job.name.as_str(), tomato.job.pieces[0].copies), ("Tomato seed carton", 12));
    assert!(tomato.can_undo && tomato.can_redo);
    let later = store.redo(3, tomato.version).unwrap();
    assert_eq!(later.job.name, "Tomato carton, later");
    let set = store.job(18).unwrap().job;
    let copies: Vec<u32> = set.pieces.iter().map(|piece| piece.copies).collect();
    assert_eq!(copies, [4, 12, 4]);
    let prepared = aptum_core::prepare(&set, &store.workshop().unwrap()).unwrap();
    let places = |runs: &[aptum_core::sheet::SheetRun]| -> Vec<(usize, f64, f64)> {
        runs.iter().flat_map(|run| &run.placements).map(|at| (at.part, at.x, at.y)).collect()
    };
    let kept = set.sheet.kept.unwrap();
    assert_eq!(
        places(&prepared.layout.runs),
        places(&kept.runs),
        "laid by hand, and left where it lies"
    );
    // What is saved now is read again, and the file as it was lies beside it.
    let saved = Job { name: "Changed".into(), ..store.job(3).unwrap().job };
    store.save_job(3, later.version, &saved).unwrap();
    drop(store);
    assert_eq!(Store::open(folder.path()).unwrap().job(3).unwrap().job.name, "Changed");
    let copies = std::fs::read_dir(folder.path()).unwrap().filter_map(Result::ok);
    let names: Vec<String> =
        copies.map(|entry| entry.file_name().to_string_lossy().into_owned()).collect();
    assert!(names.iter().any(|name| name.contains("before")), "{names:?}");
}

/// 10,000 copies laid by hand, of which one is moved again and again: kilobytes for each move.
#[test]
fn a_move_among_ten_thousand_copies_adds_little_and_is_read_again() {
    use aptum_core::sheet::{Kept, LaidBlank, Made, Placement, SheetRun};
    let folder = TempDir::new().unwrap();
    let store = Store::open(folder.path()).unwrap();
    demo::start_workshop(&store).unwrap();
    let mut job = job("Many");
    let place = |at: u32| {
        let (x, y) = (f64::from(at % 100) * 7.3, f64::from(at / 100) * 9.1);
        Placement { x, y, turn: 0.0, ..Placement::default() }
    };
    let run = SheetRun { sheets: 1, placements: (0..10_000).map(place).collect() };
    job.sheet.kept = Some(Kept {
        made: Made::ByHand,
        blanks: vec![LaidBlank::any("p1", "tag")],
        runs: vec![run],
    });
    let mut stored = store.add_job(&job).unwrap();
    let size = || {
        std::fs::metadata(folder.path().join("aptum.sqlite")).unwrap().len()
            + std::fs::metadata(folder.path().join("aptum.sqlite-wal")).map_or(0, |log| log.len())
    };
    let settle = || {
        let mut other =
            SqliteConnection::establish(&folder.path().join("aptum.sqlite").to_string_lossy())
                .unwrap();
        other.batch_execute("PRAGMA wal_checkpoint(TRUNCATE)").unwrap();
        size()
    };
    let before = settle();
    let mut longest = 0;
    for turn in 1..=50_u32 {
        let kept = job.sheet.kept.as_mut().unwrap();
        kept.runs[0].placements[turn as usize * 190].x += 0.1 * f64::from(turn);
        stored = store.save_job(stored.id, stored.version, &job).unwrap();
        longest = longest.max(size());
    }
    assert!(longest - before < 24 << 20, "{longest} bytes with the log");
    let grown = settle() - before;
    assert!(grown < 50 * 50_000, "{grown} bytes for fifty moves");
    assert_eq!(store.job(stored.id).unwrap().job, job);
    let undone = store.undo(stored.id, stored.version).unwrap();
    assert_ne!(undone.job, job);
    assert_eq!(store.redo(undone.id, undone.version).unwrap().job, job);
}

#[test]
fn a_data_directory_that_cannot_be_written_is_named() {
    let folder = TempDir::new().unwrap();
    let file = folder.path().join("plain");
    std::fs::write(&file, "not a folder").unwrap();
    let error = Store::open(&file.join("data")).err().unwrap();
    assert!(matches!(error, StoreError::ReadOnly(_)), "{error}");

    // A data file that may only be read: a write says so, and reading goes on.
    let (folder, store) = open();
    store.add_job(&job("one")).unwrap();
    drop(store);
    let store = Store::read(folder.path()).unwrap();
    let error = store.add_job(&job("two")).unwrap_err();
    assert!(matches!(error, StoreError::ReadOnly(_)), "{error}");
    assert_eq!(store.jobs().unwrap().len(), 1);
    drop(store);

    // Words are no data file.
    std::fs::write(folder.path().join("aptum.sqlite"), "this is no database at all, only words")
        .unwrap();
    let error = Store::open(folder.path()).err().unwrap();
    assert!(matches!(error, StoreError::Damaged { .. }), "{error}");
}

#[test]
fn a_row_that_cannot_be_read_is_named() {
    let (folder, store) = open();
    let id = store.add_job(&job("one")).unwrap().id;
    let file = folder.path().join("aptum.sqlite");
    let mut other = SqliteConnection::establish(&file.to_string_lossy()).unwrap();
    other.batch_execute("UPDATE revisions SET body = '{}'").unwrap();
    let error = store.job(id).unwrap_err().to_string();
    assert!(error.starts_with("job 1 in the data file cannot be read"), "{error}");
}

/// Two programs on one file, such as two servers: each sees at once what the other has changed.
#[test]
fn records_are_as_another_program_left_them() {
    let (folder, one) = open();
    demo::start_workshop(&one).unwrap();
    let other = Store::open(folder.path()).unwrap();
    let printers = |store: &Store| store.workshop().unwrap().printers.len();
    let before = printers(&one);
    assert_eq!(printers(&other), before);
    let change =
        RecordChange { kind: "printers".into(), id: "front-desk-laser".into(), body: None };
    let head = one.change_record(one.workshop_head().unwrap().version, &change).unwrap();
    assert_eq!((printers(&one), printers(&other)), (before - 1, before - 1));
    other.step_workshop(head.version, true).unwrap();
    assert_eq!((printers(&one), printers(&other)), (before, before));
    let (first, again) = (one.workshop().unwrap(), one.workshop().unwrap());
    assert!(Arc::ptr_eq(&first, &again), "nothing is read again for nothing");
}

#[test]
fn the_demo_is_put_in_once() {
    let (_folder, store) = open();
    demo::start_jobs(&store).unwrap();
    demo::start_jobs(&store).unwrap();
    assert_eq!(store.jobs().unwrap().len(), 34);
    let workshop = store.workshop().unwrap();
    let counts = [
        workshop.stocks.len(),
        workshop.printers.len(),
        workshop.cutters.len(),
        workshop.mark_sets.len(),
    ];
    assert_eq!(counts, [5, 2, 4, 3]);
    workshop.validate(Unit::Mm).unwrap();
}

/// What a user may do to a job's history.
#[derive(Debug, Clone)]
enum Step {
    Save(u8),
    Undo,
    Redo,
    Restart,
}

fn steps() -> impl Strategy<Value = Vec<Step>> {
    let step = prop_oneof![
        4 => (0..6u8).prop_map(Step::Save),
        3 => Just(Step::Undo),
        2 => Just(Step::Redo),
        1 => Just(Step::Restart),
    ];
    proptest::collection::vec(step, 1..40)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Against the plainest model of a history: a list of names and a place in it.
    #[test]
    fn any_history_is_walked_as_a_list_would_be(steps in steps()) {
        let (folder, mut store) = open();
        let mut stored = store.add_job(&job("0")).unwrap();
        let (mut names, mut at) = (vec!["0".to_owned()], 0);
        for step in steps {
            match step {
                Step::Save(name) => {
                    let name = name.to_string();
                    stored = store.save_job(stored.id, stored.version, &job(&name)).unwrap();
                    if names[at] != name {
                        names.truncate(at + 1);
                        names.push(name);
                        at += 1;
                    }
                }
                Step::Undo => match store.undo(stored.id, stored.version) {
                    Ok(back) => {
                        stored = back;
                        at -= 1;
                    }
                    Err(error) => prop_assert!(at == 0, "{error}"),
                },
                Step::Redo => match store.redo(stored.id, stored.version) {
                    Ok(forth) => {
                        stored = forth;
                        at += 1;
                    }
                    Err(error) => prop_assert!(at + 1 == names.len(), "{error}"),
                },
                Step::Restart => {
                    drop(store);
                    store = Store::open(folder.path()).unwrap();
                }
            }
            prop_assert_eq!(&store.job(stored.id).unwrap(), &stored);
            prop_assert_eq!(&stored.job.name, &names[at]);
            prop_assert_eq!((stored.can_undo, stored.can_redo), (at > 0, at + 1 < names.len()));
        }
    }
}

/// Killed while the log is written back: the file's first page tells of pages that are not in the file yet. The log has
/// them all.
#[test]
fn a_file_that_was_half_written_back_is_whole_with_its_log() {
    let (folder, store) = open();
    let last = (0..40).map(|at| store.add_job(&job(&at.to_string())).unwrap()).last().unwrap();
    let [torn, whole] = [tempfile::tempdir().unwrap(), tempfile::tempdir().unwrap()];
    for name in ["aptum.sqlite", "aptum.sqlite-wal", "aptum.generation"] {
        for copy in [&torn, &whole] {
            std::fs::copy(folder.path().join(name), copy.path().join(name)).unwrap();
        }
    }
    drop(Store::open(whole.path()).unwrap());
    let [mut half, full] =
        [&torn, &whole].map(|own| std::fs::read(own.path().join("aptum.sqlite")).unwrap());
    assert!(half.len() < full.len());
    half[..4096].copy_from_slice(&full[..4096]);
    std::fs::write(torn.path().join("aptum.sqlite"), half).unwrap();
    let again = Store::open(torn.path()).unwrap();
    assert_eq!(again.job(last.id).unwrap(), last);
}

/// Two programs on one file: records that the other one has changed are read anew, whatever happened to jobs meanwhile.
#[test]
fn records_that_another_program_changes_are_seen() {
    let (folder, store) = open();
    let first = store.add_job(&job("one")).unwrap();
    let other = Store::open(folder.path()).unwrap();
    let before = store.workshop().unwrap();
    // Jobs that change leave them as they are.
    let saved = other.save_job(first.id, first.version, &job("two")).unwrap();
    assert!(Arc::ptr_eq(&before, &store.workshop().unwrap()));
    let (id, stock) = before.stocks.iter().next().unwrap();
    let mut stock = stock.clone();
    stock.caliper += 0.01;
    let change = RecordChange {
        kind: "stocks".into(),
        id: id.0.clone(),
        body: Some(serde_json::to_string(&stock).unwrap()),
    };
    let head = other.change_record(other.workshop_head().unwrap().version, &change).unwrap();
    store.save_job(first.id, saved.version, &job("three")).unwrap();
    assert_eq!(store.workshop().unwrap().stocks[id], stock);
    other.step_workshop(head.version, true).unwrap();
    assert_eq!(store.workshop().unwrap(), before);
    // Those that come with a job count as well.
    let mut records = Workshop::default();
    records.stocks.insert(RecordId("brought".into()), stock.clone());
    other.bring_job(&BTreeMap::new(), |_| Ok((job("four"), records))).unwrap();
    assert_eq!(store.workshop().unwrap().stocks[&RecordId("brought".into())], stock);
}

/// While somebody reads, the log is written back as far as it can be; what changes after that still waits for a program
/// that holds the file for a moment.
#[test]
fn a_log_that_is_read_is_written_back_later_and_changes_wait_as_before() {
    let (folder, store) = open();
    let id = store.add_job(&job("one")).unwrap().id;
    let connect = || {
        let file = folder.path().join("aptum.sqlite");
        SqliteConnection::establish(&file.to_string_lossy()).unwrap()
    };
    let turn = |times: u32| {
        for _ in 0..times {
            store.bin_job(id).unwrap();
            store.unbin_job(id).unwrap();
        }
    };
    let log = || folder.path().join("aptum.sqlite-wal").metadata().unwrap().len();
    let mut reader = connect();
    reader.batch_execute("BEGIN; SELECT count(*) FROM jobs;").unwrap();
    turn(205);
    assert!(log() > 0, "somebody reads what is older");
    let mut other = connect();
    other.batch_execute("BEGIN IMMEDIATE;").unwrap();
    let held = std::thread::spawn(move || {
        std::thread::sleep(std::time::Duration::from_millis(600));
        other.batch_execute("COMMIT;").unwrap();
    });
    store.bin_job(id).unwrap();
    held.join().unwrap();
    store.unbin_job(id).unwrap();
    // The reader gone, it is written back in time.
    reader.batch_execute("COMMIT;").unwrap();
    let mut shortest = log();
    for _ in 0..205 {
        turn(1);
        shortest = shortest.min(log());
    }
    assert_eq!(shortest, 0);
}
