//! A job's life over HTTP: made, copied, changed and changed back, thrown away, taken out again, gone for good.

use rocket::http::Method;
use serde_json::{Value, json};

use crate::http::Api;

const SPACING: &str = "sheet.spacing";

fn set(field: &str, value: impl Into<Value>) -> Value {
    json!({ "field": field, "value": value.into() })
}

/// A job with changes saved over a version of it.
fn save(api: &Api, id: &Value, version: &Value, changes: &[Value]) -> (u16, Value) {
    let body = json!({ "version": version, "changes": changes });
    api.ask(Method::Put, &format!("/api/jobs/{id}"), &body)
}

fn numbers(api: &Api, path: &str) -> Vec<i64> {
    let listed = api.get(path);
    let mut all: Vec<i64> =
        listed.as_array().unwrap().iter().map(|job| job["id"].as_i64().unwrap()).collect();
    all.sort_unstable();
    all
}

#[test]
fn a_job_is_changed_changed_back_and_changed_again() {
    let api = Api::new();
    let made = api.post("/api/jobs", &api.job("/api/jobs/3")).1;
    let (id, first) = (&made["id"], &made["version"]);
    let path = format!("/api/jobs/{id}");
    assert_eq!((&made["can_undo"], &made["can_redo"]), (&json!(false), &json!(false)));

    let was = made["job"]["sheet"]["spacing"].clone();
    let (status, wide) = save(&api, id, first, &[set(SPACING, 7.25)]);
    assert_eq!((status, &wide["job"]["sheet"]["spacing"]), (200, &json!(7.25)));
    // A window that has not seen it is told so, and nothing of what it sent is kept.
    let (status, problem) = save(&api, id, first, &[set("name", "Another")]);
    assert_eq!(status, 409, "{problem}");
    assert_eq!(api.get(&path)["job"]["name"], made["job"]["name"]);

    let step = |way: &str, version: &Value| {
        api.post(&format!("{path}/{way}"), &json!({ "version": version }))
    };
    let (status, back) = step("undo", &wide["version"]);
    assert_eq!((status, &back["job"]["sheet"]["spacing"]), (200, &was));
    assert_eq!((&back["can_undo"], &back["can_redo"]), (&json!(false), &json!(true)));
    assert_eq!(step("undo", &wide["version"]).0, 409, "that version is not on any screen");
    let (status, again) = step("redo", &back["version"]);
    assert_eq!((status, &again["job"]["sheet"]["spacing"]), (200, &json!(7.25)));
    assert_eq!(again["can_redo"], false);

    // Several changes are one step; what cannot be is no step at all.
    let several = [set(SPACING, 3.5), set("name", "Small cartons"), set("pieces.p1.copies", 9)];
    let (status, both) = save(&api, id, &again["version"], &several);
    assert_eq!((status, &both["job"]["pieces"][0]["copies"]), (200, &json!(9)));
    for bad in [set(SPACING, "wide"), set("pieces.p9.copies", 1)] {
        let (status, problem) = save(&api, id, &both["version"], &[set("name", "Half"), bad]);
        assert_eq!(status, 422, "{problem}");
    }
    let now = api.get(&path);
    assert_eq!((&now["version"], &now["job"]["name"]), (&both["version"], &json!("Small cartons")));
    let (_, before) = step("undo", &both["version"]);
    assert_eq!(before["job"]["sheet"]["spacing"], 7.25);
    assert_eq!(before["job"]["name"], made["job"]["name"]);
}

#[test]
fn a_copy_goes_its_own_way() {
    let api = Api::new();
    let (status, copy) = api.post("/api/jobs/3/copy", &Value::Null);
    assert_eq!(status, 200);
    let original = api.get("/api/jobs/3");
    assert_ne!(copy["id"], original["id"]);
    assert_ne!(copy["job"]["name"], original["job"]["name"], "two of one name are hard to tell");
    assert_eq!(copy["job"]["pieces"], original["job"]["pieces"]);
    save(&api, &copy["id"], &copy["version"], &[set(SPACING, 9.0)]);
    assert_eq!(api.get("/api/jobs/3"), original);
    assert_eq!(api.post("/api/jobs/4711/copy", &Value::Null).0, 404);
}

#[test]
fn the_bin_keeps_jobs_until_it_is_emptied() {
    let api = Api::new();
    let before = numbers(&api, "/api/jobs");
    let job = api.job("/api/jobs/3");
    for id in [3, 4, 5] {
        assert_eq!(api.ask(Method::Delete, &format!("/api/jobs/{id}"), &Value::Null).0, 200);
    }
    assert_eq!(numbers(&api, "/api/bin"), [3, 4, 5]);
    assert_eq!(numbers(&api, "/api/jobs").len(), before.len() - 3);
    // What is in the bin is not opened, changed or thrown away twice.
    assert_eq!(api.ask(Method::Get, "/api/jobs/3", &Value::Null).0, 404);
    assert_eq!(save(&api, &json!(3), &json!(1), &[set("name", "Back")]).0, 404);
    assert_eq!(api.ask(Method::Delete, "/api/jobs/3", &Value::Null).0, 404);

    let (status, back) = api.post("/api/jobs/3/unbin", &Value::Null);
    assert_eq!((status, &back["job"]), (200, &job));
    assert_eq!(api.post("/api/jobs/3/unbin", &Value::Null).0, 404, "it is out already");
    let gone = api.ask(Method::Delete, "/api/bin/4", &Value::Null);
    assert_eq!(gone, (200, json!(1)));
    assert_eq!(api.ask(Method::Delete, "/api/bin/3", &Value::Null).0, 404, "it is not in the bin");
    assert_eq!(numbers(&api, "/api/bin"), [5]);
    assert_eq!(api.ask(Method::Delete, "/api/bin", &Value::Null), (200, json!(1)));
    assert_eq!(numbers(&api, "/api/bin"), Vec::<i64>::new());
    for id in [4, 5] {
        assert_eq!(api.post(&format!("/api/jobs/{id}/unbin"), &Value::Null).0, 404, "{id}");
    }
    assert_eq!(numbers(&api, "/api/jobs").len(), before.len() - 2);
}
