//! Rehearsals, frozen prints and runs over HTTP, with the machines that ship with Aptum.

use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};

use rocket::http::{Header, Method};
use serde_json::{Value, json};

use crate::http::{Api, HOST};

const TOMATO: i32 = 3;

fn rehearsed(api: &Api, job: &Value, day: &str, loading: &Value) -> Value {
    let ask = json!({ "job": job, "sheet": 1, "day": day, "seed": 3, "loading": loading });
    let (status, view) = api.post("/api/rehearsal", &ask);
    assert_eq!(status, 200, "{view}");
    view
}

pub fn bytes(api: &Api, path: &str) -> (u16, Vec<u8>) {
    let request = api.client.get(path.to_owned()).header(Header::new("Host", HOST));
    let response = request.dispatch();
    (response.status().code, response.into_bytes().unwrap_or_default())
}

#[test]
fn a_sheet_is_printed_found_and_cut_true() {
    let api = Api::new();
    let job = api.job("/api/jobs/3");
    let askew =
        json!({ "shift": [2.0, -1.0], "turn": 1.2, "is_turned_round": false, "start": [1.0, 1.0] });
    let view = rehearsed(&api, &job, "bad", &askew);
    assert_eq!(view["title"], "Cuts true", "{}", view["words"]);
    assert_eq!(view["seen"].as_array().unwrap().len(), 3);
    // Every hair is far shorter than the bleed of a millimetre.
    let hairs = view["hairs"].as_array().unwrap();
    assert!(hairs.len() > 500);
    for hair in hairs {
        let off = [0, 1].map(|at| hair["off"][at].as_f64().unwrap());
        assert!(off[0].hypot(off[1]) < 0.3, "{hair}");
    }
    let (status, png) = bytes(&api, &format!("/api/rehearsal/{}/sheet.png", view["picture"]));
    assert_eq!(status, 200);
    assert!(png.starts_with(b"\x89PNG"));
    assert_eq!(bytes(&api, "/api/rehearsal/999/sheet.png").0, 404);
}

#[test]
fn a_sheet_is_printed_as_finely_as_is_asked() {
    let api = Api::new();
    let job = api.job("/api/jobs/1");
    let asked = |ppi: u32| {
        let ask = json!({ "job": job, "sheet": 1, "day": "usual", "seed": 3, "ppi": ppi });
        api.post("/api/rehearsal", &ask)
    };
    let [plain, fine] = [300, 600].map(|ppi| asked(ppi).1);
    assert_eq!(fine["title"], plain["title"], "{}", fine["words"]);
    // The same errors, seen more closely.
    let sizes = [&plain, &fine]
        .map(|view| bytes(&api, &format!("/api/rehearsal/{}/sheet.png", view["picture"])).1.len());
    assert_ne!(sizes[0], sizes[1]);
    let (status, problem) = asked(450);
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().contains("300 or 600"), "{problem}");
}

#[test]
fn classic_mistakes_are_refused_in_words() {
    let api = Api::new();
    let job = api.job("/api/jobs/3");
    let straight = json!({});
    for (day, words) in [("fit-to-page", "%"), ("wrong-way", "mark")] {
        let view = rehearsed(&api, &job, day, &straight);
        assert_eq!(view["title"], "Refused", "{day}: {}", view["words"]);
        assert!(view["words"].as_str().unwrap().contains(words), "{day}: {}", view["words"]);
        assert!(view["advice"].is_string());
        assert_eq!(view["hairs"].as_array().unwrap().len(), 0);
    }
    let round =
        json!({ "shift": [0.0, 0.0], "turn": 0.0, "is_turned_round": true, "start": [0.0, 0.0] });
    assert_eq!(rehearsed(&api, &job, "true", &round)["title"], "Refused");
    // Without marks its cutter finds nothing; without a cutter there is nothing to rehearse.
    let mut bare = job.clone();
    bare["sheet"]["marks"] = Value::Null;
    let ask = |job: &Value, sheet: u32| {
        let ask = json!({ "job": job, "sheet": sheet, "day": "usual", "seed": 1 });
        api.post("/api/rehearsal", &ask)
    };
    let (status, problem) = ask(&bare, 1);
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().contains("choose a mark set"), "{problem}");
    assert_eq!(ask(&job, 0).0, 422);
    assert_eq!(ask(&job, 9999).0, 422);
    let far = json!({ "job": job, "sheet": 1, "day": "usual", "seed": 1, "loading": { "shift": [500.0, 0.0] } });
    assert_eq!(api.post("/api/rehearsal", &far).0, 422);
}

pub fn saved(api: &Api, id: i32, change: impl Fn(&mut Value)) {
    let path = format!("/api/jobs/{id}");
    let open = api.get(&path);
    let mut job = open["job"].clone();
    change(&mut job);
    let (status, answer) =
        api.ask(Method::Put, &path, &json!({ "version": open["version"], "job": job }));
    assert_eq!(status, 200, "{answer}");
}

pub fn frozen(api: &Api, id: i32) -> Value {
    let version = api.get(&format!("/api/jobs/{id}"))["version"].clone();
    let (status, view) =
        api.post(&format!("/api/jobs/{id}/prints"), &json!({ "version": version }));
    assert_eq!(status, 200, "{view}");
    view
}

pub fn changed(api: &Api, run: &Value, change: &Value) -> (u16, Value) {
    let path = format!("/api/prints/{}/run", run["id"]);
    api.ask(Method::Put, &path, &json!({ "version": run["version"], "change": change }))
}

#[test]
fn a_printed_sheet_is_cut_as_it_was_printed_whatever_the_job_is_now() {
    let api = Api::new();
    let before = api.get("/api/jobs/3/run");
    assert!(before["run"].is_null());
    assert!(before["ahead"].as_array().unwrap().len() > 5);
    let view = frozen(&api, TOMATO);
    let run = &view["run"];
    assert_eq!(run["differs"], false);
    let (print, code) = (run["id"].clone(), run["code"].clone());
    let (status, pdf) = bytes(&api, &format!("/api/prints/{print}/print.pdf"));
    assert_eq!(status, 200);
    let machine = format!("/api/prints/{print}/machine/1");
    let (status, file) = bytes(&api, &machine);
    assert_eq!(status, 200);
    assert_eq!(file, bytes(&api, "/api/jobs/3/cut-hpgl/1").1);

    // Force, passes and nicks stay free.
    saved(&api, TOMATO, |job| job["tooling"] = json!({ "operations": { "cut": { "passes": 3 } } }));
    assert_eq!(api.get("/api/jobs/3/run")["run"]["differs"], false);
    let thrice = bytes(&api, &machine).1;
    assert!(thrice != file);
    // A place, a mark or ink does not.
    saved(&api, TOMATO, |job| job["sheet"]["spacing"] = json!(40.0));
    let now = api.get("/api/jobs/3/run");
    assert_eq!(now["run"]["differs"], true);
    assert_eq!(now["run"]["code"], code);
    assert!(bytes(&api, &machine).1 == thrice);
    assert!(bytes(&api, "/api/jobs/3/cut-hpgl/1").1 != thrice);
    assert_eq!(bytes(&api, &format!("/api/prints/{print}/print.pdf")).1, pdf);
    // Nor does a change of a machine, a mark set or the job's end in the bin.
    assert_eq!(api.ask(Method::Delete, "/api/jobs/3", &json!(null)).0 / 100, 2);
    assert_eq!(bytes(&api, &machine).0, 200);
    // Printed again, it is a run of its own.
    assert_eq!(api.post("/api/jobs/3/unbin", &json!(null)).0 / 100, 2);
    let again = frozen(&api, TOMATO);
    assert_eq!(again["prints"].as_array().unwrap().len(), 2);
    assert_eq!(again["run"]["differs"], false);
    assert_ne!(again["run"]["code"], code);
}

#[test]
fn a_run_goes_on_step_by_step_and_two_screens_do_not_overtake_each_other() {
    let api = Api::new();
    let view = frozen(&api, TOMATO);
    let run = view["run"].clone();
    // What was not measured is not ticked as measured.
    assert_eq!(changed(&api, &run, &json!({ "do": "tick", "step": "measure" })).0, 422);
    // The last sheet holds fewer pieces, and has a drawing and a file of its own.
    let sheets = |what: &str| -> Vec<Value> {
        run[what].as_array().unwrap().iter().map(|own| own["sheets"].clone()).collect()
    };
    assert_eq!(sheets("lies"), [json!([1, 6]), json!([7, 7])]);
    assert_eq!(sheets("files"), sheets("lies"));
    let file = |at: usize| {
        let path = run["files"][at]["path"].as_str().unwrap();
        bytes(&api, &format!("/api/prints/{}/{path}", run["id"])).1
    };
    assert!(file(0).len() > file(1).len());
    let tick = json!({ "do": "tick", "step": "print" });
    let (status, view) = changed(&api, &run, &tick);
    assert_eq!(status, 200, "{view}");
    let ticked = view["run"].clone();
    assert_eq!(ticked["steps"][0]["done"], 1);
    assert_eq!(ticked["next"], 1);
    // The other screen still shows the version before.
    let (status, problem) = changed(&api, &run, &tick);
    assert_eq!(status, 409, "{problem}");
    assert_eq!(changed(&api, &ticked, &tick).0, 422);
    // A scale that the page was fitted to is told from a bad one.
    let (_, fitted) = changed(&api, &ticked, &json!({ "do": "measure", "mm": 97.5 }));
    let scale = fitted["run"]["scale"].clone();
    assert_eq!(scale["can_be_cut"], false, "{scale}");
    // Sheets that cannot be cut are neither loaded nor sent.
    let load = json!({ "do": "tick", "step": "load-0" });
    let (status, problem) = changed(&api, &fitted["run"], &load);
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().contains("actual size"), "{problem}");
    let send = format!("/api/prints/{}/send", fitted["run"]["id"]);
    let (status, problem) = api.post(&send, &json!({ "sheet": 1, "loading": 0 }));
    assert_eq!(status, 422, "{problem}");
    for mm in [0.0, -1.0] {
        let wrong = changed(&api, &fitted["run"], &json!({ "do": "measure", "mm": mm }));
        assert_eq!(wrong.0, 422);
    }
    let (_, right) = changed(&api, &fitted["run"], &json!({ "do": "measure", "mm": 99.8 }));
    assert_eq!(right["run"]["scale"]["can_be_cut"], true);
    let counted = json!({ "good": 5, "bad": { "torn": 1 } });
    let count = json!({ "do": "count", "piece": "p1", "counted": counted });
    let (_, counted) = changed(&api, &right["run"], &count);
    assert_eq!(counted["prints"][0]["good"], 5);
    assert_eq!(counted["prints"][0]["bad"], 1);
    // The Logbook is told what was really sent, once the pieces are counted.
    let entries = |api: &Api| api.get("/api/logbook")["entries"].as_array().unwrap().clone();
    let known = entries(&api).len();
    let (status, counted) =
        changed(&api, &counted["run"], &json!({ "do": "tick", "step": "count" }));
    assert_eq!(status, 200, "{counted}");
    let all = entries(&api);
    assert_eq!(all.len(), known + 2);
    let told = all.iter().find(|own| own.to_string().contains("5 good, 1 torn or moved")).unwrap();
    assert!(told.to_string().contains("White board 14 pt"), "{told}");
    let (_, stopped) = changed(&api, &counted["run"], &json!({ "do": "stop" }));
    let (status, problem) = changed(&api, &stopped["run"], &json!({ "do": "resume" }));
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().contains("stopped"), "{problem}");
    for (path, body) in [
        ("/api/prints/77/run", json!({ "version": 1, "change": { "do": "hold" } })),
        ("/api/prints/77/send", json!({ "wish": "stop" })),
    ] {
        assert_eq!(api.ask(Method::Put, path, &body).0, 404, "{path}");
    }
    let stale = json!({ "version": 999 });
    assert_eq!(api.post("/api/jobs/3/prints", &stale).0, 409);
}

/// `aptum devices`, on free ports.
struct Machines {
    child: Child,
    cutter: String,
    printer: String,
}

impl Machines {
    fn start(told: &[&str]) -> Self {
        let mut child = Command::new(env!("CARGO_BIN_EXE_aptum"))
            .args(["devices", "--cutter", "0", "--printer", "0", "--swapped"])
            .args(told)
            .stdout(Stdio::piped())
            .spawn()
            .unwrap();
        let mut lines = BufReader::new(child.stdout.take().unwrap()).lines();
        let mut address = || {
            let line = lines.next().unwrap().unwrap();
            line.rsplit(' ').next().unwrap().to_owned()
        };
        let (cutter, printer) = (address(), address());
        Self { child, cutter, printer }
    }

    /// Writes the addresses into the records.
    fn known_to(&self, api: &Api) {
        for (kind, id, address) in [
            ("cutters", "reading-room-cutter", &self.cutter),
            ("printers", "back-room-inkjet", &self.printer),
        ] {
            let state = api.get("/api/workshop/state");
            let mut record = state["workshop"][kind][id].clone();
            record["kind"] = json!(kind);
            record["address"] = json!(address);
            let body = json!({ "version": state["version"], "record": record, "unit": "mm" });
            let (status, answer) =
                api.ask(Method::Put, &format!("/api/workshop/records/{id}"), &body);
            assert_eq!(status, 200, "{answer}");
        }
    }
}

impl Drop for Machines {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

/// The events of a sending: their names, and what the last one says.
fn sent(api: &Api, print: &Value) -> Value {
    let request = api.client.post(format!("/api/prints/{print}/send"));
    let request = request
        .header(Header::new("Host", HOST))
        .header(Header::new("Origin", format!("http://{HOST}")));
    let response = request.body(json!({ "sheet": 1, "loading": 0 }).to_string()).dispatch();
    let status = response.status().code;
    let text = response.into_string().unwrap_or_default();
    assert_eq!(status, 200, "{text}");
    let data = text.lines().filter_map(|line| line.strip_prefix("data:")).next_back().unwrap();
    serde_json::from_str(data).unwrap()
}

#[test]
fn a_sheet_is_printed_and_cut_over_tcp() {
    let api = Api::new();
    let machines = Machines::start(&["--pace", "0"]);
    machines.known_to(&api);
    let run = frozen(&api, TOMATO)["run"].clone();
    let print = &run["id"];
    // Nothing lies in the cutter yet.
    let end = sent(&api, print);
    assert_eq!(end["is_done"], false);
    assert!(end["words"].as_str().unwrap().contains("no sheet"), "{end}");
    let (status, words) = api.post(&format!("/api/prints/{print}/print"), &json!(null));
    assert_eq!(status, 200, "{words}");
    assert!(words.as_str().unwrap().contains("came out of the printer"), "{words}");
    let end = sent(&api, print);
    assert_eq!(end["is_done"], true, "{end}");
    // Another job's sheet is refused by its code: the one that lies there says which it is.
    let other = frozen(&api, 5)["run"]["id"].clone();
    let end = sent(&api, &other);
    assert_eq!(end["is_done"], false, "{end}");
    // What is only cut is not sent to the printer.
    saved(&api, TOMATO, |job| job["pieces"][0]["face"] = Value::Null);
    let bare = frozen(&api, TOMATO)["run"]["id"].clone();
    let (status, problem) = api.post(&format!("/api/prints/{bare}/print"), &json!(null));
    assert_eq!(status, 404);
    assert!(problem["detail"].as_str().unwrap().contains("only cut"), "{problem}");
}

#[test]
fn nobody_at_the_address_is_said_in_words() {
    let api = Api::new();
    let machines = Machines::start(&[]);
    machines.known_to(&api);
    let run = frozen(&api, TOMATO)["run"].clone();
    drop(machines);
    let end = sent(&api, &run["id"]);
    assert_eq!(end["is_done"], false);
    assert!(end["words"].as_str().unwrap().contains("No cutter answers at"), "{end}");
    let (status, problem) = api.post(&format!("/api/prints/{}/print", run["id"]), &json!(null));
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().contains("No printer answers at"), "{problem}");
}

#[test]
fn what_two_places_tell_becomes_a_correction_of_what_is_sent() {
    let api = Api::new();
    let place = |x: f64, y: f64, off: [f64; 2]| json!({ "at": [x, y], "off": off });
    let ask = json!({ "unit": "mm", "near": place(20.0, 30.0, [0.5, -0.2]), "far": place(250.0, 380.0, [0.5, -0.2]) });
    let (status, view) = api.post("/api/corrections", &ask);
    assert_eq!(status, 200, "{view}");
    assert_eq!(view["cause"], "shift");
    let plain = bytes(&api, "/api/jobs/3/cut-hpgl/1").1;
    let state = api.get("/api/workshop/state");
    let mut record = state["workshop"]["cutters"]["reading-room-cutter"].clone();
    record["kind"] = json!("cutters");
    record["correction"] = view["correction"].clone();
    let body = json!({ "version": state["version"], "record": record, "unit": "mm" });
    let (status, answer) = api.ask(Method::Put, "/api/workshop/records/reading-room-cutter", &body);
    assert_eq!(status, 200, "{answer}");
    // Half a millimetre to the left and a fifth down: 20 and 8 of its units, whose x runs along the feed.
    let corrected = bytes(&api, "/api/jobs/3/cut-hpgl/1").1;
    let first = |file: &[u8]| {
        let text = String::from_utf8_lossy(file).into_owned();
        let from = text
            .split("PU")
            .find(|own| own.starts_with(|c: char| c.is_ascii_digit()))
            .unwrap()
            .to_owned();
        let (x, rest) = from.split_once(',').unwrap();
        let y = rest.split(';').next().unwrap().to_owned();
        (x.parse::<i64>().unwrap(), y.parse::<i64>().unwrap())
    };
    let ((x0, y0), (x1, y1)) = (first(&plain), first(&corrected));
    assert!((x1 - x0 + 8).abs() <= 1 && (y1 - y0 + 20).abs() <= 1, "{x0},{y0} {x1},{y1}");
    // A rehearsal's machine needs none.
    let job = api.job("/api/jobs/3");
    assert_eq!(rehearsed(&api, &job, "usual", &json!({}))["title"], "Cuts true");
    let wild = json!({ "unit": "mm", "near": place(20.0, 30.0, [9.0, 0.0]), "far": place(250.0, 380.0, [0.0, 0.0]) });
    assert_eq!(api.post("/api/corrections", &wild).0, 422);
}

#[test]
fn the_odds_say_what_their_number_can_say() {
    let api = Api::new();
    let job = api.job("/api/jobs/3");
    let ask = |sheets: u32| {
        let request = api.client.post("/api/odds").header(Header::new("Host", HOST));
        let request = request.header(Header::new("Origin", format!("http://{HOST}")));
        let body = json!({ "job": job, "sheet": 1, "day": "usual", "sheets": sheets, "seed": 1 });
        let response = request.body(body.to_string()).dispatch();
        (response.status().code, response.into_string().unwrap_or_default())
    };
    let (status, text) = ask(1000);
    assert_eq!(status, 200, "{text}");
    assert!(
        text.contains("None wrong of 1,000: at 95 %, under 0.30 % of sheets go wrong."),
        "{text}"
    );
    assert_eq!(ask(0).0, 422);
    assert_eq!(ask(10_001).0, 422);
}

#[test]
fn jobs_go_into_the_queue_together_and_are_put_into_an_order() {
    let api = Api::new();
    let known = api.get("/api/queue");
    let name = "Reading-room cutter, A3";
    let at = |view: &Value| -> Vec<(i64, String)> {
        let machines = view["machines"].as_array().unwrap();
        let own = machines.iter().filter(|own| own["name"] == name);
        own.flat_map(|own| own["prints"].as_array().unwrap())
            .map(|own| (own["id"].as_i64().unwrap(), own["name"].as_str().unwrap().to_owned()))
            .collect()
    };
    let before = at(&known).len();
    let (status, view) = api.post("/api/queue", &json!({ "jobs": [3, 5] }));
    assert_eq!(status, 200, "{view}");
    let own = at(&view);
    assert_eq!(own.len(), before + 2);
    assert_eq!(own.last().unwrap().1, "Garlic clove hexagon");
    assert!(view["others"].as_array().unwrap().iter().all(|own| own["id"] != 3));
    // The last comes first; those that are not named stay in their order.
    let last = own.last().unwrap().0;
    let (status, view) = api.ask(Method::Put, "/api/queue", &json!({ "prints": [last, last] }));
    assert_eq!(status, 200, "{view}");
    let ordered: Vec<i64> = at(&view).into_iter().map(|own| own.0).collect();
    let mut expected: Vec<i64> = own.iter().map(|own| own.0).collect();
    expected.rotate_right(1);
    assert_eq!(ordered, expected);
    // One that cannot be printed keeps all of them out.
    let count = api.get("/api/jobs/3/run")["prints"].as_array().unwrap().len();
    let (status, problem) = api.post("/api/queue", &json!({ "jobs": [3, 4] }));
    assert_eq!(status, 422);
    assert!(problem["detail"].as_str().unwrap().starts_with("Runner bean carton"), "{problem}");
    assert_eq!(api.get("/api/jobs/3/run")["prints"].as_array().unwrap().len(), count);
    assert_eq!(api.post("/api/queue", &json!({ "jobs": [] })).0, 422);
    // A job in the bin waits for nothing.
    assert_eq!(api.ask(Method::Delete, "/api/jobs/5", &json!(null)).0 / 100, 2);
    assert!(at(&api.get("/api/queue")).iter().all(|own| own.1 != "Garlic clove hexagon"));
}

/// What is said of a sheet is true of it: no bleed is named where no ink ends at an edge, and none covers what is past it.
#[test]
fn words_name_no_bleed_that_is_not_there() {
    let api = Api::new();
    let mut job = api.job("/api/jobs/3");
    let said = |job: &Value, day: &str| rehearsed(&api, job, day, &json!({}))["words"].to_string();
    assert!(said(&job, "usual").contains("The bleed of 1 mm covers it."));
    job["pieces"][0]["face"]["layers"] = json!([{ "id": "l1", "kind": "panel-names" }]);
    let bare = said(&job, "usual");
    assert!(bare.contains("No ink ends at an edge"), "{bare}");
    assert!(!bare.contains("bleed"), "{bare}");
}
