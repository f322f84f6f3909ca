//! Data files that were copied, put back, damaged, or left half written.

use std::path::Path;
use std::process::Command;

use aptum::demo;
use aptum::store::{Store, StoreError, backup, rescue, restore};
use aptum_core::Job;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::sql_types::BigInt;
use tempfile::TempDir;

fn job(name: &str) -> Job {
    let text = include_str!("../../../../demo/jobs/tomato-carton.json");
    Job { name: name.into(), ..serde_json::from_str(text).unwrap() }
}

fn open() -> (TempDir, Store) {
    let folder = TempDir::new().unwrap();
    let store = Store::open(folder.path()).unwrap();
    demo::start_workshop(&store).unwrap();
    (folder, store)
}

fn names(store: &Store) -> Vec<String> {
    let mut names: Vec<String> =
        store.jobs().unwrap().into_iter().map(|entry| entry.job.unwrap().name).collect();
    names.sort();
    names
}

fn raw(folder: &Path) -> SqliteConnection {
    SqliteConnection::establish(&folder.join("aptum.sqlite").to_string_lossy()).unwrap()
}

/// As a kill leaves it: the files without whatever a clean end does.
fn killed(folder: &Path) -> TempDir {
    let copy = TempDir::new().unwrap();
    for file in std::fs::read_dir(folder).unwrap() {
        let file = file.unwrap();
        std::fs::copy(file.path(), copy.path().join(file.file_name())).unwrap();
    }
    copy
}

#[test]
fn an_older_file_beside_a_newer_log_is_noticed_before_anything_is_written() {
    let (folder, store) = open();
    store.add_job(&job("old")).unwrap();
    drop(store);
    let file = |folder: &Path| folder.join("aptum.sqlite");
    let older = std::fs::read(file(folder.path())).unwrap();
    // Served again: the log is written back, and more comes into it.
    let store = Store::open(folder.path()).unwrap();
    for number in 0..17 {
        store.add_job(&job(&format!("new {number}"))).unwrap();
    }
    let after = killed(folder.path());
    assert!(std::fs::metadata(after.path().join("aptum.sqlite-wal")).unwrap().len() > 0);
    assert_eq!(names(&Store::open(after.path()).unwrap()).len(), 18, "a kill loses nothing");

    let mixed = killed(folder.path());
    std::fs::write(file(mixed.path()), &older).unwrap();
    let before: Vec<u8> = std::fs::read(mixed.path().join("aptum.sqlite-wal")).unwrap();
    for opened in [Store::open(mixed.path()), Store::read(mixed.path())] {
        let error = opened.err().unwrap();
        assert!(matches!(error, StoreError::Older(_)), "{error}");
        assert!(error.to_string().contains("aptum restore"), "{error}");
    }
    assert!(std::fs::read(file(mixed.path())).unwrap() == older);
    assert!(std::fs::read(mixed.path().join("aptum.sqlite-wal")).unwrap() == before);
    // Put back as it should be, it opens.
    let copy = mixed.path().join("copy.sqlite");
    std::fs::write(&copy, &older).unwrap();
    let kept = restore(&copy, mixed.path()).unwrap().unwrap();
    assert!(kept.exists());
    assert_eq!(names(&Store::open(mixed.path()).unwrap()), ["old"]);
}

#[test]
fn a_copy_is_made_while_serving_and_put_back_only_when_nobody_serves() {
    let (folder, store) = open();
    store.add_job(&job("one")).unwrap();
    let copy = folder.path().join("copies.sqlite");
    backup(folder.path(), &copy).unwrap();
    assert!(backup(folder.path(), &copy).unwrap_err().to_string().contains("already"));
    store.add_job(&job("two")).unwrap();
    let error = restore(&copy, folder.path()).unwrap_err();
    assert!(matches!(error, StoreError::Served(_)), "{error}");
    assert_eq!(names(&store), ["one", "two"]);
    drop(store);
    let kept = restore(&copy, folder.path()).unwrap().unwrap();
    assert_eq!(names(&Store::open(folder.path()).unwrap()), ["one"]);
    // And back again.
    restore(&kept, folder.path()).unwrap();
    assert_eq!(names(&Store::open(folder.path()).unwrap()), ["one", "two"]);
    // What is no data file is not put there.
    let words = folder.path().join("words.sqlite");
    std::fs::write(&words, "no database").unwrap();
    assert!(matches!(restore(&words, folder.path()), Err(StoreError::Damaged { .. })));
    assert_eq!(names(&Store::open(folder.path()).unwrap()), ["one", "two"]);
}

#[test]
fn a_damaged_file_is_told_and_what_can_be_read_is_rescued() {
    let (folder, store) = open();
    for number in 0..40 {
        store.add_job(&job(&format!("job {number}"))).unwrap();
    }
    drop(store);
    let file = folder.path().join("aptum.sqlite");
    let mut bytes = std::fs::read(&file).unwrap();
    // A page in the middle of the revisions is overwritten.
    let page = 4096 * (bytes.len() / 4096 * 3 / 4);
    bytes[page..page + 4096].fill(0x5a);
    std::fs::write(&file, bytes).unwrap();
    let error = Store::open(folder.path()).err().unwrap();
    assert!(matches!(error, StoreError::Damaged { .. }), "{error}");
    assert!(error.to_string().contains("export --all"), "{error}");

    let found = rescue(folder.path()).unwrap();
    let read = found.jobs.iter().filter(|(_, job)| job.is_ok()).count();
    assert!(read >= 25, "{read} of 40");
    let out = TempDir::new().unwrap();
    let done = Command::new(env!("CARGO_BIN_EXE_aptum"))
        .args(["export", "--all", "--out"])
        .arg(out.path())
        .arg("--data")
        .arg(folder.path())
        .output()
        .unwrap();
    assert_eq!(std::fs::read_dir(out.path()).unwrap().count(), read);
    assert_eq!(done.status.success(), read == found.jobs.len());
}

#[test]
fn one_unreadable_job_leaves_the_others_alone() {
    let (folder, store) = open();
    let bad = store.add_job(&job("bad")).unwrap().id;
    let good = store.add_job(&job("good")).unwrap();
    raw(folder.path())
        .batch_execute(&format!("UPDATE revisions SET body = '{{}}' WHERE job = {bad}"))
        .unwrap();
    let all = store.jobs().unwrap();
    let of = |id: i32| all.iter().find(|entry| entry.id == id).unwrap();
    assert!(of(bad).job.as_ref().unwrap_err().contains(&format!("job {bad}")));
    assert_eq!(of(good.id).job.as_ref().unwrap().name, "good");
    assert!(store.save_job(good.id, good.version, &job("better")).is_ok());
}

#[derive(QueryableByName)]
struct Count {
    #[diesel(sql_type = BigInt)]
    number: i64,
}

#[test]
fn room_of_dropped_revisions_is_given_back() {
    let (folder, store) = open();
    let count = |what: &str| {
        let row = diesel::sql_query(format!("SELECT {what} AS number FROM pragma_{what}"));
        row.get_result::<Count>(&mut raw(folder.path())).unwrap().number
    };
    let mut large = job("large");
    large.pieces[0].form.chosen_mut().unwrap().labels = vec!["x".repeat(40); 60];
    let mut ids = Vec::new();
    for _ in 0..300 {
        ids.push(store.add_job(&large).unwrap().id);
    }
    drop(store);
    let store = Store::open(folder.path()).unwrap();
    let full = count("page_count");
    ids.iter().for_each(|id| store.bin_job(*id).unwrap());
    assert_eq!(store.empty_bin(None).unwrap(), 300);
    drop(store);
    drop(Store::open(folder.path()).unwrap());
    let after = count("page_count");
    assert!(after * 2 < full, "{after} of {full} pages");
}

#[test]
fn the_demo_starts_whole_or_not_at_all() {
    let folder = TempDir::new().unwrap();
    for _ in 0..6 {
        let mut child = Command::new(env!("CARGO_BIN_EXE_aptum"))
            .args(["demo", "--port", "0", "--data"])
            .arg(folder.path())
            .stdout(std::process::Stdio::null())
            .spawn()
            .unwrap();
        std::thread::sleep(std::time::Duration::from_millis(30));
        child.kill().unwrap();
        child.wait().unwrap();
        let file = folder.path().join("aptum.sqlite");
        if file.exists() && std::fs::metadata(&file).unwrap().len() > 0 {
            let store = Store::open(folder.path()).unwrap();
            let (jobs, stocks) =
                (store.jobs().unwrap().len(), store.workshop().unwrap().stocks.len());
            assert!([(0, 0), (34, 5)].contains(&(jobs, stocks)), "{jobs} jobs, {stocks} stocks");
        }
    }
}
