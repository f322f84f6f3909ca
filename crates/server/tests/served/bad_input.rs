//! Whatever reaches the API is answered in words: no entry makes the server fail.

#![allow(clippy::cast_precision_loss, clippy::cast_possible_truncation, reason = "small figures")]

use std::cell::Cell;
use std::io::{BufRead, BufReader};
use std::process::{Command, Stdio};

use aptum::demo;
use aptum::serve::{Listen, server};
use aptum::store::Store;
use proptest::prelude::*;
use rocket::http::Header;
use rocket::local::blocking::Client;
use serde_json::{Value, json};
use tempfile::TempDir;

const HOST: &str = "127.0.0.1:4870";

fn client(folder: &TempDir) -> Client {
    let store = Store::open(folder.path()).unwrap();
    demo::start_jobs(&store).unwrap();
    Client::tracked(server(store, Listen::at_home(4870))).unwrap()
}

/// Status and body of a request with a JSON body.
fn send(client: &Client, path: &str, body: &[u8]) -> (u16, Value) {
    let request = client.post(path.to_owned()).header(Header::new("Host", HOST)).body(body);
    let response = request.dispatch();
    (response.status().code, response.into_json().unwrap_or(Value::Null))
}

/// The pointer of every value in a document, its parts included.
fn pointers(value: &Value, at: &str, found: &mut Vec<String>) {
    found.push(at.to_owned());
    match value {
        Value::Object(fields) => {
            for (name, inner) in fields {
                pointers(inner, &format!("{at}/{name}"), found);
            }
        }
        // What is alike is looked at once.
        Value::Array(items) => {
            if let Some(first) = items.first() {
                pointers(first, &format!("{at}/0"), found);
            }
        }
        _ => {}
    }
}

fn job(client: &Client, id: u32) -> Value {
    let path = format!("/api/jobs/{id}");
    let response = client.get(path).header(Header::new("Host", HOST)).dispatch();
    response.into_json::<Value>().unwrap()["job"].clone()
}

#[test]
fn every_field_with_every_kind_of_nonsense_is_answered_in_words() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let nonsense = nonsense();
    let (mut refused, mut prepared) = (0, 0);
    let mut jobs: Vec<Value> = [1, 2, 3, 4, 18].map(|id| job(&client, id)).to_vec();
    // One whose layout is kept.
    let lock = json!({ "run": 0, "chosen": [0], "what": { "act": "lock" } });
    let lock = json!({ "job": jobs[2], "arrange": lock }).to_string();
    let mut kept = jobs[2].clone();
    kept["sheet"]["kept"] = send(&client, "/api/arrange", lock.as_bytes()).1["kept"].clone();
    assert!(kept["sheet"]["kept"].is_object());
    // One in two parts.
    let mut split = jobs[3].clone();
    split["pieces"][0]["form"]["split"] =
        json!({ "panel": "Back", "by": "across", "at": 20.0, "flap": 13.0 });
    jobs.extend([kept, split]);
    for whole in jobs {
        let mut fields = Vec::new();
        pointers(&whole, "", &mut fields);
        assert!(fields.len() > 20);
        for field in &fields {
            for value in &nonsense {
                let mut changed = whole.clone();
                *changed.pointer_mut(field).unwrap() = value.clone();
                let (status, body) =
                    send(&client, "/api/preview", json!({ "job": changed }).to_string().as_bytes());
                match status {
                    200 => prepared += 1,
                    422 => {
                        refused += 1;
                        in_words(&body, &format!("{field} = {value}"));
                    }
                    _ => panic!("{field} = {value}: {status} {body}"),
                }
            }
        }
    }
    assert!(refused > 500 && prepared > 20, "{refused} refused, {prepared} prepared");
}

/// A refusal says what is wrong, where, and what to do.
fn in_words(body: &Value, what: &str) {
    assert!(!body["detail"].as_str().unwrap().is_empty(), "{what}");
    for error in body["errors"].as_array().unwrap() {
        assert!(!error["field"].as_str().unwrap().is_empty(), "{what}");
        assert!(!error["remedy"]["text"].as_str().unwrap().is_empty(), "{what}");
    }
}

#[test]
fn every_field_of_a_record_with_nonsense_is_answered_in_words_and_nothing_is_kept() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let state = || {
        let request = client.get("/api/workshop/state").header(Header::new("Host", HOST));
        request.dispatch().into_json::<Value>().unwrap()
    };
    let before = state();
    let (mut refused, mut drawn) = (0, 0);
    for (kind, records) in before["workshop"].as_object().unwrap() {
        for record in records.as_object().unwrap().values() {
            let mut whole = record.clone();
            whole["kind"] = json!(kind);
            let mut fields = Vec::new();
            pointers(&whole, "", &mut fields);
            for field in &fields {
                for value in nonsense() {
                    let mut changed = whole.clone();
                    *changed.pointer_mut(field).unwrap() = value.clone();
                    let what = format!("{kind} {field} = {value}");
                    let bytes = json!({ "record": changed }).to_string();
                    let (status, body) = send(&client, "/api/workshop/drawing", bytes.as_bytes());
                    match status {
                        200 => drawn += 1,
                        422 => {
                            refused += 1;
                            in_words(&body, &what);
                            let entry = json!({ "version": before["version"], "record": changed });
                            let entry = entry.to_string();
                            let path = "/api/workshop/records";
                            assert_eq!(send(&client, path, entry.as_bytes()).0, 422, "{what}");
                        }
                        _ => panic!("{what}: {status} {body}"),
                    }
                }
            }
        }
    }
    assert!(refused > 500 && drawn > 100, "{refused} refused, {drawn} drawn");
    assert_eq!(state(), before);
}

#[test]
fn every_field_of_an_act_by_hand_with_nonsense_is_answered_in_words() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let job = job(&client, 3);
    for what in [
        json!({ "act": "move", "x": 1.0, "y": 1.0, "snap": 2.0 }),
        json!({ "act": "turn", "degrees": 30.0 }),
        json!({ "act": "align", "to": "left" }),
        json!({ "act": "distribute", "along": "down" }),
        json!({ "act": "grid", "columns": 2, "rows": 1, "across": 1.0, "down": 1.0 }),
        json!({ "act": "lock" }),
        json!({ "act": "add", "piece": "p1", "part": "carton" }),
    ] {
        let whole = json!({ "run": 0, "chosen": [0, 1], "what": what });
        let mut fields = Vec::new();
        pointers(&whole, "", &mut fields);
        let ask = |arrange: &Value| {
            let body = json!({ "job": job, "arrange": arrange }).to_string();
            send(&client, "/api/arrange", body.as_bytes())
        };
        assert_eq!(ask(&whole).0, 200, "{whole}");
        for field in fields {
            for value in nonsense() {
                let mut changed = whole.clone();
                *changed.pointer_mut(&field).unwrap() = value.clone();
                let (status, body) = ask(&changed);
                match status {
                    // What is laid then can be prepared.
                    200 => {
                        let mut kept = job.clone();
                        kept["sheet"]["kept"] = body["kept"].clone();
                        let kept = json!({ "job": kept }).to_string();
                        let (status, _) = send(&client, "/api/preview", kept.as_bytes());
                        assert_eq!(status, 200, "{field} = {value}");
                    }
                    422 => in_words(&body, &format!("{field} = {value}")),
                    _ => panic!("{field} = {value}: {status} {body}"),
                }
            }
        }
    }
}

/// Figures of any job (faces with lists, outlines of pictures, drawings, cards) may be anything, several at once:
/// whoever looks at the job, its plan or its path is answered.
#[test]
fn any_figures_of_any_job_are_answered_in_words() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let jobs: Vec<(Value, Vec<String>)> = (1..=26)
        .map(|id| {
            let whole = job(&client, id);
            let mut fields = Vec::new();
            pointers(&whole, "", &mut fields);
            fields.retain(|field| whole.pointer(field).is_some_and(Value::is_number));
            (whole, fields)
        })
        .collect();
    let figure = prop_oneof![
        prop::sample::select(vec![1e308, -1e308, 1e-300, 4_294_967_295.0, 65_536.0, -1.0, 0.0]),
        -10.0..10_000.0f64,
        // As lengths mostly are.
        0.0..60.0f64,
        (-10i64..10_000).prop_map(|whole| whole as f64),
    ];
    let changed = prop::collection::vec((any::<prop::sample::Index>(), figure), 1..4);
    let routes = ["/api/preview", "/api/preview", "/api/plan", "/api/tooling"];
    let (refused, done) = (Cell::new(0), Cell::new(0));
    proptest!(ProptestConfig::with_cases(120), |(
        at in 0..jobs.len(), changed in changed, route in prop::sample::select(routes.to_vec()),
    )| {
        let (mut whole, fields) = jobs[at].clone();
        for (field, value) in changed {
            let value = if value.fract() == 0.0 && value.abs() < 1e10 {
                json!(value as i64)
            } else {
                json!(value)
            };
            *whole.pointer_mut(&fields[field.index(fields.len())]).unwrap() = value;
        }
        let ask = json!({ "job": whole, "run": 0, "sheet": 1 }).to_string();
        let (status, body) = send(&client, route, ask.as_bytes());
        match status {
            200 => done.set(done.get() + 1),
            422 => {
                refused.set(refused.get() + 1);
                in_words(&body, &whole.to_string());
            }
            // A job whose copies do not fit has no such sheet.
            404 => in_words(&body, &whole.to_string()),
            _ => prop_assert!(false, "{status} {body}"),
        }
    });
    let (refused, done) = (refused.get(), done.get());
    assert!(refused > 20 && done > 1, "{refused} refused, {done} done");
}

fn nonsense() -> Vec<Value> {
    vec![
        json!(null),
        json!(-1),
        json!(0),
        json!(1e308),
        json!(-1e308),
        json!(10_000_000),
        json!(5e-324),
        json!(u64::MAX),
        json!(true),
        json!(""),
        json!("💥\u{0}"),
        json!("x".repeat(10_000)),
        json!([]),
        json!([[1]]),
        json!({}),
        json!({ "shape": "angle" }),
    ]
}

#[test]
fn a_refused_change_leaves_the_job_as_it_was() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let before = job(&client, 3);
    for (field, value) in [
        ("/pieces/0/form/length", json!(0)),
        ("/pieces/0/form/structure", json!("tower")),
        ("/pieces/0/copies", json!(1_000_000)),
        ("/pieces/0/copies", json!(1.5)),
        ("/sheet/size/width", json!(1e9)),
        ("/sheet/marks", json!("nobody")),
        ("/pieces/0/stock", json!("../../etc/passwd")),
        ("/pieces/0/face/layers/0/colour", json!("url(http://elsewhere.example)")),
        ("/name", json!("")),
    ] {
        let mut changed = before.clone();
        *changed.pointer_mut(field).unwrap() = value;
        let body = json!({ "version": 1, "job": changed }).to_string();
        let request = client.put("/api/jobs/3").header(Header::new("Host", HOST)).body(body);
        assert_eq!(request.dispatch().status().code, 422, "{field}");
        assert_eq!(send(&client, "/api/jobs", changed.to_string().as_bytes()).0, 422, "{field}");
    }
    assert_eq!(job(&client, 3), before);
    let list = client.get("/api/jobs").header(Header::new("Host", HOST)).dispatch();
    assert_eq!(list.into_json::<Vec<Value>>().unwrap().len(), 34);
}

#[test]
fn a_name_may_hold_what_it_likes_and_breaks_no_file() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let mut changed = job(&client, 3);
    changed["name"] = json!("</title><script>\"&' ../..\\ ü");
    let (status, opened) = send(&client, "/api/jobs", changed.to_string().as_bytes());
    assert_eq!(status, 200);
    let path = format!("/api/jobs/{}/cut/1", opened["id"]);
    let response = client.get(path).header(Header::new("Host", HOST)).dispatch();
    let disposition = response.headers().get_one("Content-Disposition").unwrap().to_owned();
    assert!(disposition.is_ascii() && !disposition.contains(['/', '\\', '<']), "{disposition}");
    let svg = response.into_string().unwrap();
    assert!(svg.contains("&lt;/title&gt;&lt;script&gt;") && !svg.contains("<script>"));
}

#[test]
fn a_port_in_use_is_said_and_a_second_server_on_the_same_data_sees_the_same_jobs() {
    let folder = TempDir::new().unwrap();
    let start = |port: &str| {
        let mut command = Command::new(env!("CARGO_BIN_EXE_aptum"));
        command.args(["demo", "--port", port, "--data"]).arg(folder.path());
        command.stdout(Stdio::piped()).stderr(Stdio::piped());
        command.spawn().unwrap()
    };
    let listening = |child: &mut std::process::Child| {
        let line = BufReader::new(child.stdout.take().unwrap()).lines().next().unwrap().unwrap();
        line.rsplit(':').next().unwrap().to_owned()
    };
    let mut first = start("0");
    let port = listening(&mut first);
    let refused = start(&port).wait_with_output().unwrap();
    assert_eq!(refused.status.code(), Some(2));
    let words = String::from_utf8(refused.stderr).unwrap();
    assert!(words.contains(&format!("cannot listen at 127.0.0.1:{port}")), "{words}");
    assert!(words.contains("--port"), "{words}");

    let mut second = start("0");
    assert_ne!(listening(&mut second), port);
    assert_eq!(
        Store::open(folder.path()).unwrap().jobs().unwrap().len(),
        34,
        "the demo is put in once"
    );
    for child in [&mut first, &mut second] {
        child.kill().unwrap();
        child.wait().unwrap();
    }
}

#[test]
fn no_bytes_make_a_route_fail() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let bytes = proptest::collection::vec(any::<u8>(), 0..300);
    let routes = ["/api/preview", "/api/jobs", "/api/jobs/import", "/api/lengths"];
    proptest!(ProptestConfig::with_cases(60), |(bytes in bytes, route in 0..routes.len())| {
        let (status, body) = send(&client, routes[route], &bytes);
        prop_assert!((400..500).contains(&status), "{status}");
        prop_assert!(body["detail"].is_string());
    });
}
