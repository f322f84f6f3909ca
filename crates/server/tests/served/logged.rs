//! What the Logbook keeps of a run, and the way from there back to the job; jobs that are made of a list's rows.

use aptum_core::run::{Bad, Progress};
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use rocket::http::Method;
use serde_json::{Value, json};

use crate::http::Api;
use crate::rehearsals::{bytes, changed, frozen, saved};

const TOMATO: i32 = 3;

fn entries(api: &Api, text: &str) -> Vec<Value> {
    api.get(&format!("/api/logbook?text={text}"))["entries"].as_array().unwrap().clone()
}

/// Cuts are made with so many grams from now on.
fn force(api: &Api, grams: i32) {
    saved(api, TOMATO, |job| {
        let force = json!({ "amount": grams, "unit": "grams" });
        job["tooling"] = json!({ "operations": { "cut": { "force": force } } });
    });
}

/// Ticks every step up to the count, the scale measured as it should be.
fn to_the_count(api: &Api) -> Value {
    let mut run = frozen(api, TOMATO)["run"].clone();
    run = changed(api, &run, &json!({ "do": "measure", "mm": 100.0 })).1["run"].clone();
    loop {
        let next = usize::try_from(run["next"].as_u64().unwrap()).unwrap();
        let step = run["steps"][next].clone();
        if step["kind"] == "count" {
            return run;
        }
        let (status, view) = changed(api, &run, &json!({ "do": "tick", "step": step["id"] }));
        assert_eq!(status, 200, "{view}");
        run = view["run"].clone();
    }
}

#[test]
fn the_logbook_keeps_what_was_sent_and_what_came_out_once() {
    let api = Api::new();
    force(&api, 333);
    let run = to_the_count(&api);
    // What is said after the sheet was cut is not what it was cut with.
    force(&api, 111);
    let known = entries(&api, "").len();
    let (status, view) = changed(&api, &run, &json!({ "do": "tick", "step": "count" }));
    assert_eq!(status, 200, "{view}");
    let run = view["run"].clone();
    let code = run["code"].as_str().unwrap();
    let told = entries(&api, code);
    assert_eq!((told.len(), entries(&api, "").len()), (2, known + 2));
    let cut = told.iter().find(|own| own["entry"]["line"] == "cut").unwrap();
    assert_eq!(cut["settings"].as_str().unwrap().split(',').next(), Some("333 g"));
    assert!(cut["printed"].as_str().unwrap().starts_with("paper type heavy matt"), "{cut}");
    assert_eq!(cut["counted"], "0 good, none bad");
    // Counted afterwards, it is told anew, not once more; a note stays.
    let note = json!({ "outcome": "just-right", "note": "Slow feed helped." });
    let path = format!("/api/logbook/{}", cut["id"]);
    assert_eq!(api.ask(Method::Put, &path, &note).0 / 100, 2);
    let counted = json!({ "good": 38, "bad": { "not-through": 2 } });
    let count = json!({ "do": "count", "piece": "p1", "counted": counted });
    let (status, view) = changed(&api, &run, &count);
    assert_eq!(status, 200, "{view}");
    let told = entries(&api, "38%20good");
    assert_eq!((told.len(), entries(&api, "").len()), (2, known + 2));
    let cut = told.iter().find(|own| own["entry"]["line"] == "cut").unwrap();
    assert_eq!(
        (&cut["outcome"], &cut["entry"]["note"]),
        (&json!("not through"), &json!("Slow feed helped."))
    );
    // Its outcome stands first where the same comes together again.
    let job = api.job("/api/jobs/3");
    let (status, tooling) = api.post("/api/tooling", &json!({ "job": job, "run": 0 }));
    assert_eq!(status, 200, "{tooling}");
    let own =
        tooling["operations"].as_array().unwrap().iter().find(|own| own["kind"] == "cut").unwrap();
    assert_eq!(
        (&own["last"]["words"], &own["last"]["is_same"]),
        (&json!("not through"), &json!(false))
    );
    assert_eq!(own["last"]["settings"].as_str().unwrap().split(',').next(), Some("333 g"));
    assert!(!tooling["print_text"].as_str().unwrap().is_empty());
}

/// What is changed on the way is kept beside what came after it, each with what came of it.
#[test]
fn every_setting_of_a_run_has_its_entry() {
    let api = Api::new();
    force(&api, 200);
    let mut run = frozen(&api, TOMATO)["run"].clone();
    let code = run["code"].as_str().unwrap().to_owned();
    let mut make = |change: Value| {
        let (status, view) = changed(&api, &run, &change);
        assert_eq!(status, 200, "{view}");
        run = view["run"].clone();
    };
    make(json!({ "do": "measure", "mm": 100.0 }));
    let cut = json!({ "do": "tick", "step": "cut-0" });
    make(cut.clone());
    force(&api, 300);
    make(cut.clone());
    force(&api, 200);
    make(cut.clone());
    force(&api, 300);
    make(cut);
    make(
        json!({ "do": "count", "piece": "p1", "counted": { "good": 10, "bad": { "not-through": 2 } } }),
    );
    make(json!({ "do": "tick", "step": "count" }));
    let told = entries(&api, &code);
    let cuts = told.iter().filter(|own| own["entry"]["line"] == "cut");
    let mut cuts: Vec<(&str, &str)> = cuts
        .map(|own| (own["settings"].as_str().unwrap(), own["outcome"].as_str().unwrap()))
        .map(|(settings, outcome)| (settings.split(',').next().unwrap(), outcome))
        .collect();
    cuts.sort_unstable();
    assert_eq!(cuts, [("200 g", "not through"), ("300 g", "just right")]);
    assert_eq!(told.len(), 3, "and the crease, which stayed as it was");
    // A note stays beside the setting that it was written beside.
    let soft =
        told.iter().find(|own| own["settings"].as_str().unwrap().starts_with("200 g")).unwrap();
    let note = json!({ "outcome": "not-through", "note": "Too soft." });
    assert_eq!(api.ask(Method::Put, &format!("/api/logbook/{}", soft["id"]), &note).0 / 100, 2);
    make(
        json!({ "do": "count", "piece": "p1", "counted": { "good": 11, "bad": { "not-through": 1 } } }),
    );
    let noted: Vec<Value> = entries(&api, "Too%20soft");
    assert_eq!(noted.len(), 1);
    assert!(noted[0]["settings"].as_str().unwrap().starts_with("200 g"));
}

/// What was ticked and taken back was cut with nothing: the job says with what.
#[test]
fn a_run_whose_cuts_were_taken_back_is_told_as_the_job_says() {
    let api = Api::new();
    force(&api, 222);
    let mut run = frozen(&api, TOMATO)["run"].clone();
    for change in [
        json!({ "do": "measure", "mm": 100.0 }),
        json!({ "do": "tick", "step": "cut-0" }),
        json!({ "do": "back", "step": "cut-0" }),
        json!({ "do": "tick", "step": "count" }),
    ] {
        let (status, view) = changed(&api, &run, &change);
        assert_eq!(status, 200, "{view}");
        run = view["run"].clone();
    }
    let told = entries(&api, run["code"].as_str().unwrap());
    assert!(told.iter().any(|own| own["settings"].as_str().unwrap().starts_with("222 g")));
}

#[test]
fn from_an_entry_a_way_leads_back_to_the_job_as_it_was() {
    let api = Api::new();
    let run = to_the_count(&api);
    changed(&api, &run, &json!({ "do": "tick", "step": "count" }));
    let code = run["code"].as_str().unwrap();
    saved(&api, TOMATO, |job| job["pieces"][0]["form"]["length"] = json!(61.0));
    let entry = entries(&api, code)[0].clone();
    let print = &entry["print"];
    let (status, picture) = bytes(&api, &format!("/api/prints/{print}/picture.png"));
    assert_eq!((status, &picture[1..4]), (200, &b"PNG"[..]));
    let (status, open) = api.post(&format!("/api/prints/{print}/job"), &json!(null));
    assert_eq!(status, 200, "{open}");
    assert!(open["job"]["name"].as_str().unwrap().contains(&format!("as printed {code}")));
    // Sheets of it would carry the same code: it is just what was printed.
    let again = frozen(&api, i32::try_from(open["id"].as_i64().unwrap()).unwrap());
    assert_eq!(again["run"]["code"].as_str(), Some(code));
    assert_ne!(frozen(&api, TOMATO)["run"]["code"].as_str(), Some(code));
    for path in ["/api/prints/999/picture.png", "/api/prints/999/job"] {
        let method = if path.ends_with("job") { Method::Post } else { Method::Get };
        assert_eq!(api.ask(method, path, &json!(null)).0, 404, "{path}");
    }
}

#[test]
fn a_job_for_each_row_goes_in_together() {
    let api = Api::new();
    let before = api.get("/api/jobs").as_array().unwrap().len();
    saved(&api, 19, |job| {
        let rows = job["pieces"][0]["list"]["rows"].as_array_mut().unwrap();
        rows.truncate(3);
        job["pieces"][0]["copies"] = json!(3);
    });
    let (status, queue) = api.post("/api/queue/rows", &json!({ "job": 19 }));
    assert_eq!(status, 200, "{queue}");
    let waiting: Vec<String> = queue["machines"][0]["prints"]
        .as_array()
        .unwrap()
        .iter()
        .map(|own| own["name"].as_str().unwrap().to_owned())
        .collect();
    let expected = ["Basil", "Beetroot", "Borage"].map(|own| format!("Thirty plant tags: {own}"));
    assert_eq!(waiting, expected);
    assert_eq!(api.get("/api/jobs").as_array().unwrap().len(), before + 3);
    // Codes differ, for what is printed does.
    let codes: std::collections::BTreeSet<String> = queue["machines"][0]["prints"]
        .as_array()
        .unwrap()
        .iter()
        .map(|own| own["code"].to_string())
        .collect();
    assert_eq!(codes.len(), 3);
    let (status, problem) = api.post("/api/queue/rows", &json!({ "job": TOMATO }));
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().contains("0 rows"), "{problem}");
}

/// Runs that were counted as a whole are counted for the job's first piece when the data is brought up.
#[test]
fn what_was_counted_before_is_kept() {
    let mut base = SqliteConnection::establish(":memory:").unwrap();
    for migration in [
        include_str!("../../migrations/2026-11-29-200000_logbook/up.sql"),
        include_str!("../../migrations/2026-11-30-000000_prints/up.sql"),
    ] {
        base.batch_execute(migration).unwrap();
    }
    let run = json!({
        "done": { "print": { "times": 1, "at": "2026-11-30 10:00" } },
        "good": 5, "bad": { "torn": 2 }, "measured": 99.9, "is_held": false, "is_stopped": false,
    });
    base.batch_execute(&format!(
        "INSERT INTO prints (job, code, made_at, archive, pdf, run, name, cutter, sheets, ticks, place, version) \
         VALUES (3, 'ABCDE', '', x'', x'', '{run}', '', '', 1, 1, 1, 1)"
    ))
    .unwrap();
    base.batch_execute(include_str!("../../migrations/2026-11-30-100000_counted/up.sql")).unwrap();
    #[derive(QueryableByName)]
    struct Row {
        #[diesel(sql_type = diesel::sql_types::Text)]
        run: String,
    }
    let row: Row = diesel::sql_query("SELECT run FROM prints").get_result(&mut base).unwrap();
    let run: Progress = serde_json::from_str(&row.run).unwrap();
    assert_eq!((run.counted().good, run.counts[&"p1".into()].bad[&Bad::Torn]), (5, 2));
    assert_eq!((run.times("print"), run.measured), (1, Some(99.9)));
}
