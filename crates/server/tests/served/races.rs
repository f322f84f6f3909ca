//! What happens at once: imports, removals and saves that reach the same records, and limits at their edge.

use std::collections::BTreeMap;
use std::collections::BTreeSet;

use aptum::demo;
use aptum::store::{RecordChange, Store, StoreError};
use aptum_core::workshop::RecordId;
use aptum_core::{Job, Workshop};
use aptum_formats::archive::JobFile;
use rocket::http::{Header, Method};
use serde_json::{Value, json};
use tempfile::TempDir;

use crate::http::{Api, HOST};

fn open() -> (TempDir, Store) {
    let folder = TempDir::new().unwrap();
    let store = Store::open(folder.path()).unwrap();
    demo::start_workshop(&store).unwrap();
    (folder, store)
}

fn in_card(stock: &str) -> Job {
    let mut job = tomato();
    job.pieces[0].stock = stock.into();
    job
}

fn tomato() -> Job {
    serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap()
}

/// A job in a card of its own whose caliper is `caliper`, as a file.
fn file(store: &Store, id: &str, caliper: f64) -> JobFile {
    let mut workshop = aptum_core::Workshop::clone(&*store.workshop().unwrap());
    let mut card = workshop.stocks[&tomato().pieces[0].stock].clone();
    card.caliper = caliper;
    workshop.stocks.insert(id.into(), card);
    let job = Job { name: format!("{caliper}"), ..in_card(id) };
    JobFile::new(&job, &workshop)
}

fn bring(store: &Store, file: JobFile) -> Job {
    store.bring_job(&BTreeMap::new(), |workshop: &Workshop| Ok(file.adopt(workshop))).unwrap().job
}

/// Two imports at once with one new id and different content: each job ends in its own card.
#[test]
fn two_imports_at_once_keep_their_own_cards() {
    let (_folder, store) = open();
    for round in 0..40 {
        let id = format!("fresh-{round}");
        let files = [0.21, 0.43].map(|caliper| file(&store, &id, caliper));
        let jobs: Vec<Job> = std::thread::scope(|scope| {
            let all = files.map(|file| scope.spawn(|| bring(&store, file)));
            all.map(|one| one.join().unwrap()).into()
        });
        let workshop = store.workshop().unwrap();
        for job in jobs {
            let caliper = workshop.stocks[&job.pieces[0].stock].caliper;
            assert_eq!(format!("{caliper}"), job.name, "round {round}");
        }
    }
}

/// A record that a job names goes away for nobody: not in the list, not in the bin, not by undoing its addition,
/// and not while the job is being saved or brought in.
#[test]
fn a_record_in_use_cannot_be_removed_by_any_way() {
    let (_folder, store) = open();
    let body = serde_json::to_string(&store.workshop().unwrap().stocks[&tomato().pieces[0].stock])
        .unwrap();
    let change = |body: Option<&String>| RecordChange {
        kind: "stocks".into(),
        id: "seed-card".into(),
        body: body.cloned(),
    };
    let version = || store.workshop_head().unwrap().version;
    store.change_record(version(), &change(Some(&body))).unwrap();
    let stored = store.add_job(&in_card("seed-card")).unwrap();
    let refused = |result: Result<_, StoreError>| {
        assert!(matches!(result, Err(StoreError::InUse { count: 1, .. })), "{result:?}");
    };
    refused(store.change_record(version(), &change(None)));
    refused(store.step_workshop(version(), true));
    store.bin_job(stored.id).unwrap();
    refused(store.change_record(version(), &change(None)));
    refused(store.step_workshop(version(), true));
    store.unbin_job(stored.id).unwrap();
    let job = store.job(stored.id).unwrap().job;
    assert!(aptum_core::prepare(&job, &store.workshop().unwrap()).is_ok());

    // Saves and removals at once: whichever comes first, no job names a record that is gone.
    let plain = store.add_job(&tomato()).unwrap();
    store.bin_job(stored.id).unwrap();
    store.empty_bin(Some(stored.id)).unwrap();
    let mut at = plain.version;
    for _ in 0..40 {
        if !store.workshop().unwrap().stocks.contains_key(&RecordId::from("seed-card")) {
            store.change_record(version(), &change(Some(&body))).unwrap();
        }
        let now = version();
        let (saved, removed) = std::thread::scope(|scope| {
            let job = in_card("seed-card");
            let saving = scope.spawn({
                let store = &store;
                move || store.save_job(plain.id, at, &job)
            });
            let removing = scope.spawn(|| store.change_record(now, &change(None)));
            (saving.join().unwrap(), removing.join().unwrap())
        });
        assert!(saved.is_ok() != removed.is_ok(), "{saved:?} {removed:?}");
        let job = store.job(plain.id).unwrap();
        assert!(aptum_core::prepare(&job.job, &store.workshop().unwrap()).is_ok());
        at = store.save_job(plain.id, job.version, &tomato()).unwrap().version;
    }
}

/// An addition that was undone is not done again over a record that came by another way meanwhile.
#[test]
fn redoing_an_addition_never_changes_what_an_import_brought() {
    let (_folder, store) = open();
    let body = serde_json::to_string(&store.workshop().unwrap().stocks[&tomato().pieces[0].stock])
        .unwrap();
    let change = RecordChange { kind: "stocks".into(), id: "seed-card".into(), body: Some(body) };
    let head = store.change_record(store.workshop_head().unwrap().version, &change).unwrap();
    let head = store.step_workshop(head.version, true).unwrap();
    let job = bring(&store, file(&store, "seed-card", 0.77));
    assert_eq!(job.pieces[0].stock, "seed-card".into());
    assert!(store.step_workshop(head.version, false).is_err(), "the version has changed");
    let error = store.step_workshop(store.workshop_head().unwrap().version, false).unwrap_err();
    assert!(matches!(error, StoreError::Overtaken(_)), "{error}");
    assert_eq!(store.workshop().unwrap().stocks[&job.pieces[0].stock].caliper, 0.77);
}

#[test]
fn a_history_keeps_its_thousand_last_revisions() {
    let (_folder, store) = open();
    let mut stored = store.add_job(&tomato()).unwrap();
    for number in 0..1010 {
        let job = Job { name: format!("{number}"), ..tomato() };
        stored = store.save_job(stored.id, stored.version, &job).unwrap();
    }
    let mut back = 0;
    while stored.can_undo {
        stored = store.undo(stored.id, stored.version).unwrap();
        back += 1;
    }
    assert_eq!(back, 1000);
    assert_eq!(stored.job.name, "9");
}

/// As many places as may be kept by hand are saved, given as an archive, and brought in again; one more is refused
/// with the number.
#[test]
fn what_may_be_made_may_be_saved_exported_and_brought_in() {
    let api = Api::new();
    let mut job = api.job("/api/jobs/3");
    let places = |count: usize| -> Vec<Value> {
        (0..count)
            .map(|at| {
                // As long as figures get.
                let x = 1.234_567_890_123_45 + at as f64 * 0.071_234_567_890_1;
                json!({ "part": 0, "x": x, "y": -0.123_456_789_012_345, "turn": 12.345_678_901_234_5, "locked": false })
            })
            .collect()
    };
    let kept = |count: usize| {
        let run = json!({ "sheets": 1, "placements": places(count) });
        json!({ "made": "by-hand", "blanks": [{ "piece": "p1", "part": "carton" }], "runs": [run] })
    };
    let most = aptum_core::sheet::MOST_PLACED;
    job["sheet"]["kept"] = kept(most);
    let (status, saved) = api.ask(Method::Put, "/api/jobs/3", &json!({ "version": 1, "job": job }));
    assert_eq!(status, 200, "{saved}");
    let archive = api.client.get("/api/jobs/3/job.aptum").header(Header::new("Host", HOST));
    let bytes = archive.dispatch().into_bytes().unwrap();
    let back = api.client.post("/api/jobs/import").header(Header::new("Host", HOST)).body(bytes);
    let back: Value = back.dispatch().into_json().unwrap();
    assert_eq!(back["job"]["sheet"]["kept"], saved["job"]["sheet"]["kept"], "{}", back["detail"]);
    job["sheet"]["kept"] = kept(most + 1);
    let (status, refused) =
        api.ask(Method::Put, "/api/jobs/3", &json!({ "version": 2, "job": job }));
    assert_eq!(status, 422);
    assert!(refused["detail"].as_str().unwrap().contains(&(most + 1).to_string()));
}

/// Every file that is listed opens, also those of further pieces, and all are in the zip.
#[test]
fn every_file_that_is_listed_opens() {
    let api = Api::new();
    let files = api.get("/api/jobs/18/files");
    let files = files.as_array().unwrap();
    let mut names = BTreeSet::new();
    let mut titles = BTreeSet::new();
    for file in files {
        // A sheet need not be drawn finely to be there.
        let path = format!("/api/jobs/18/{}?ppi=40", file["path"].as_str().unwrap());
        let answer = api.client.get(path.clone()).header(Header::new("Host", HOST)).dispatch();
        assert_eq!(answer.status().code, 200, "{path}");
        assert!(answer.into_bytes().unwrap().len() > 100, "{path}");
        // Pictures are drawn one by one, when they are asked for.
        let name = file["name"].as_str().unwrap();
        if !name.ends_with(".png") {
            names.insert(name.to_owned());
        }
        let title =
            (file["title"].to_string(), file["piece"].to_string(), file["sheets"].to_string());
        assert!(titles.insert(title), "{file}: two files of one name");
    }
    // Those for one purpose stand together, what goes to the machines first.
    let mut purposes: Vec<&str> =
        files.iter().map(|file| file["purpose"].as_str().unwrap()).collect();
    purposes.dedup();
    assert_eq!(purposes.iter().collect::<BTreeSet<_>>().len(), purposes.len(), "{purposes:?}");
    assert_eq!(purposes[..2], ["To print", "To cut"]);
    let pieces = ["flat.dxf", "2-flat.dxf", "3-flat.dxf"];
    assert!(pieces.iter().all(|name| names.contains(*name)), "{names:?}");
    let zip = api.client.get("/api/jobs/18/files.zip").header(Header::new("Host", HOST)).dispatch();
    let bytes = zip.into_bytes().unwrap();
    let mut zip = zip::ZipArchive::new(std::io::Cursor::new(bytes)).unwrap();
    let inside: BTreeSet<String> =
        (0..zip.len()).map(|at| zip.by_index(at).unwrap().name().unwrap().into_owned()).collect();
    names.insert("job.aptum".to_owned());
    assert_eq!(inside, names);
}

/// Where nothing lies on a sheet there is nothing to print ink by ink: a PDF of no page would be none.
#[test]
fn what_lies_nowhere_has_no_plates() {
    let api = Api::new();
    let files = |job: &Value| {
        let (status, saved) = api.post("/api/jobs", job);
        assert_eq!(status, 200, "{saved}");
        let list = api.get(&format!("/api/jobs/{}/files", saved["id"]));
        let names = list.as_array().unwrap().iter().map(|file| file["name"].to_string());
        (saved["id"].clone(), names.collect::<Vec<_>>())
    };
    let mut job = api.job("/api/jobs/3");
    job["pieces"][0]["face"]["white"]["on"] = json!(true);
    let is_plates = |name: &String| name.contains("print-inks.pdf");
    assert!(files(&job).1.iter().any(is_plates));
    job["sheet"]["size"] = json!({ "name": "Small", "width": 60, "height": 60 });
    let (id, names) = files(&job);
    assert!(!names.iter().any(is_plates), "{names:?}");
    let problem = api.get(&format!("/api/jobs/{id}/print-inks.pdf"));
    assert!(problem["detail"].as_str().unwrap().contains("make one fit"), "{problem}");
}
