//! The workshop's records, over HTTP.

use crate::http::Api;
use rocket::http::Method;
use serde_json::{Value, json};

/// A record of the workshop as changes carry it.
fn record(state: &Value, kind: &str, id: &str) -> Value {
    let mut record = state["workshop"][kind][id].clone();
    assert!(record.is_object(), "{kind}/{id}");
    record["kind"] = json!(kind);
    record
}

#[test]
fn records_are_copied_changed_removed_undone_and_survive_a_restart() {
    let api = Api::new();
    let before = api.state();
    let mut cutter = record(&before, "cutters", "desk-cutter");
    cutter["name"] = json!("Desk cutter, 12 in (copy)");
    cutter["lead"] = json!(25.0);
    let entry = json!({ "version": before["version"], "record": cutter });
    let (status, added) = api.post("/api/workshop/records", &entry);
    assert_eq!(status, 200, "{added}");
    let id = added["touched"]["id"].as_str().unwrap().to_owned();
    assert_eq!(id, "desk-cutter-12-in-copy");
    assert_eq!(added["workshop"]["cutters"][&id]["lead"], 25.0);
    assert_eq!(added["can_undo"], true);

    // The same once more gets a number.
    let entry = json!({ "version": added["version"], "record": cutter });
    let twice = api.post("/api/workshop/records", &entry).1;
    assert_eq!(twice["touched"]["id"], format!("{id}-2"));

    let api = api.restarted();
    assert_eq!(api.state()["workshop"], twice["workshop"]);
    let path = format!("/api/workshop/records/cutters/{id}-2?version={}", api.version());
    let (status, gone) = api.ask(Method::Delete, &path, &Value::Null);
    assert_eq!(status, 200, "{gone}");
    assert!(gone["workshop"]["cutters"][format!("{id}-2")].is_null());
    let mut touched = json!({ "kind": "cutters", "id": format!("{id}-2"), "is_there": false });
    assert_eq!(gone["touched"], touched);
    let back = api.post("/api/workshop/undo", &json!({ "version": gone["version"] })).1;
    touched["is_there"] = json!(true);
    assert_eq!(back["touched"], touched);
    assert_eq!(back["workshop"], twice["workshop"]);
    let mut state = back;
    while state["can_undo"] == true {
        state = api.post("/api/workshop/undo", &json!({ "version": state["version"] })).1;
    }
    assert_eq!(state["workshop"], before["workshop"]);
    let redone = api.post("/api/workshop/redo", &json!({ "version": state["version"] })).1;
    assert_eq!(redone["workshop"], added["workshop"]);
}

#[test]
fn a_record_in_use_is_not_removed_and_says_by_what() {
    let api = Api::new();
    let state = api.state();
    let users = state["uses"]["cutters/reading-room-cutter"].as_array().unwrap();
    assert!(users.len() > 3 && users.iter().all(|user| user["name"].is_string()));
    let path =
        format!("/api/workshop/records/cutters/reading-room-cutter?version={}", state["version"]);
    let (status, problem) = api.ask(Method::Delete, &path, &Value::Null);
    assert_eq!(status, 409, "{problem}");
    let words = problem["detail"].as_str().unwrap();
    assert!(words.contains(&users.len().to_string()), "{words}");
    assert!(words.contains("retire"), "names the way out: {words}");
    assert_eq!(api.state(), state);
}

#[test]
fn a_second_window_never_overwrites_a_record_silently() {
    let api = Api::new();
    let state = api.state();
    let mut stock = record(&state, "stocks", "kraft-300");
    stock["caliper"] = json!(0.45);
    let entry = json!({ "version": state["version"], "record": stock });
    let path = "/api/workshop/records/kraft-300";
    assert_eq!(api.ask(Method::Put, path, &entry).0, 200);
    stock["caliper"] = json!(0.5);
    let entry = json!({ "version": state["version"], "record": stock });
    let (status, problem) = api.ask(Method::Put, path, &entry);
    assert_eq!((status, &problem["type"]), (409, &json!("/problems/workshop-conflict")));
    assert_eq!(api.state()["workshop"]["stocks"]["kraft-300"]["caliper"], 0.45);
}

#[test]
fn figures_that_contradict_each_other_are_refused_with_the_number_and_a_remedy() {
    let api = Api::new();
    let state = api.state();
    let cutter = record(&state, "cutters", "reading-room-cutter");
    let with = |path: &[&str], value: Value| {
        let mut changed = cutter.clone();
        let mut at = &mut changed;
        for name in path {
            at = &mut at[*name];
        }
        *at = value;
        let entry = json!({ "version": state["version"], "record": changed });
        api.post("/api/workshop/records", &entry)
    };
    for (path, value) in [
        (vec!["name"], json!("")),
        (vec!["width"], json!(-5.0)),
        (vec!["width"], json!(1e9)),
        (vec!["margins", "left"], json!(400.0)),
        (vec!["lead"], json!(1e6)),
        (vec!["finds", "by"], json!("magic")),
        (vec!["margins"], json!("words")),
    ] {
        let (status, problem) = with(&path, value.clone());
        assert_eq!(status, 422, "{path:?} {value}: {problem}");
        let said = problem["errors"][0]["message"].as_str().or(problem["detail"].as_str());
        assert!(said.is_some_and(|words| words.len() > 10), "{path:?}: {problem}");
    }
    let (status, problem) =
        api.post("/api/workshop/drawing", &json!({ "record": { "kind": "stocks" } }));
    assert_eq!(status, 422, "{problem}");
    assert_eq!(api.state(), state, "nothing was added");
    assert_eq!(
        api.ask(Method::Delete, "/api/workshop/records/boats/x?version=1", &json!(0)).0,
        404
    );
}

#[test]
fn a_drawing_and_its_faults_speak_the_unit_that_was_asked_for() {
    let api = Api::new();
    let mut printer = record(&api.state(), "printers", "back-room-inkjet");
    printer["width"] = json!(330.2);
    let names = |unit: &str, printer: &Value| {
        let sketch = json!({ "record": printer, "unit": unit });
        api.post("/api/workshop/drawing", &sketch)
    };
    let (status, drawing) = names("in", &printer);
    assert_eq!(status, 200, "{drawing}");
    let all = drawing["parts"].to_string();
    assert!(all.contains("largest sheet, 13 in × "), "{all}");
    assert!(!all.contains(" mm"), "{all}");
    assert!(names("mm", &printer).1["parts"].to_string().contains("330.2 mm"));
    printer["width"] = json!(25.4);
    for (unit, text) in [("in", "is 1 in"), ("cm", "is 2.54 cm"), ("mm", "is 25.4 mm")] {
        let (status, problem) = names(unit, &printer);
        assert_eq!(status, 422, "{problem}");
        let said = problem["errors"][0]["message"].as_str().unwrap();
        assert!(said.contains(text), "{said}");
    }
    assert_eq!(names("ell", &printer).0, 422, "no unit of ours");
}

#[test]
fn a_new_job_starts_from_what_is_at_hand_and_from_nothing_retired() {
    let api = Api::new();
    let starting = || api.get("/api/meta")["starts"]["job"].clone();
    let keep = |kind: &str, id: &str, keeping: &str| {
        let state = api.state();
        let mut changed = record(&state, kind, id);
        changed["keeping"] = json!(keeping);
        let entry = json!({ "version": state["version"], "record": changed });
        let path = format!("/api/workshop/records/{id}");
        assert_eq!(api.ask(Method::Put, &path, &entry).0, 200, "{kind}/{id}");
    };
    let ids = |kind: &str| -> Vec<String> {
        api.state()["workshop"][kind].as_object().unwrap().keys().cloned().collect()
    };
    for (kind, field) in [
        ("stocks", "/pieces/0/stock"),
        ("printers", "/sheet/printer"),
        ("cutters", "/sheet/cutter"),
    ] {
        let all = ids(kind);
        for at_hand in &all {
            // One at hand, the others in lists.
            for id in &all {
                keep(kind, id, if id == at_hand { "at-hand" } else { "kept" });
            }
            let job = starting();
            let chosen = job.pointer(field).unwrap();
            // A stock that is too thick for the cutter is passed over.
            let caliper = api.state()["workshop"]["stocks"][at_hand]["caliper"].as_f64();
            if kind != "stocks" || caliper < Some(0.5) {
                assert_eq!(chosen, at_hand, "{kind}");
            }
            keep(kind, at_hand, "retired");
            assert_ne!(starting().pointer(field).unwrap(), at_hand, "{kind}");
        }
        for id in &all {
            keep(kind, id, "kept");
        }
    }
    // What it starts from can be worked with.
    let (status, preview) = api.post("/api/preview", &json!({ "job": starting() }));
    assert_eq!(status, 200, "{preview}");
    assert!(preview["sheet"]["view"]["layout"]["laid"].as_u64() > Some(0), "{preview}");
}
