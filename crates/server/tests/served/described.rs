//! Everything that the demo shows is as the OpenAPI document says: what asks over HTTP looks at each answer.

use rocket::http::Method;
use serde_json::{Value, json};

use crate::http::Api;

/// What is read without naming anything.
const READ: [&str; 8] = [
    "/api/jobs",
    "/api/bin",
    "/api/workshop",
    "/api/workshop/state",
    "/api/logbook",
    "/api/queue",
    "/api/keys",
    "/api/meta",
];

fn done(api: &Api, method: Method, path: &str, body: &Value) -> Value {
    let (status, answer) = api.ask(method, path, body);
    assert_eq!(status, 200, "{path}: {answer}");
    answer
}

#[test]
fn what_is_read_of_the_demo_is_as_described() {
    let api = Api::new();
    for path in READ {
        assert!(!done(&api, Method::Get, path, &Value::Null).is_null(), "{path}");
    }
    for job in api.get("/api/jobs").as_array().unwrap() {
        for part in ["", "/files", "/run"] {
            done(&api, Method::Get, &format!("/api/jobs/{}{part}", job["id"]), &Value::Null);
        }
    }
}

#[test]
fn what_is_worked_out_of_the_demo_is_as_described() {
    let api = Api::new();
    for listed in api.get("/api/jobs").as_array().unwrap() {
        let job = api.job(&format!("/api/jobs/{}", listed["id"]));
        let post = |path: &str, body: &Value| done(&api, Method::Post, path, body);
        let preview = post("/api/preview", &json!({ "job": job }));
        post("/api/order", &job);
        // What lies nowhere is not worked.
        if preview["sheet"]["runs"].as_array().is_some_and(|runs| !runs.is_empty()) {
            post("/api/tooling", &json!({ "job": job, "run": 0 }));
        }
        for piece in job["pieces"].as_array().unwrap() {
            let asked = json!({ "form": piece["form"], "stock": piece["stock"] });
            let (status, _) = api.post("/api/fold", &asked);
            assert!(status == 200 || status == 422, "{status}: {}", piece["form"]);
        }
    }
}
