//! Tooling over HTTP: the path, files for machines, test cuts and the Logbook.

use crate::http::{Api, HOST};
use rocket::http::{Header, Method};
use serde_json::{Value, json};

#[test]
fn the_path_of_the_tools_is_told_with_its_times_and_sent_as_the_cutter_takes_it() {
    let api = Api::new();
    let mut job = api.job("/api/jobs/3");
    let (status, view) = api.post("/api/tooling", &json!({ "job": job, "run": 0 }));
    assert_eq!(status, 200, "{view}");
    let names: Vec<&str> = view["operations"]
        .as_array()
        .unwrap()
        .iter()
        .map(|own| own["name"].as_str().unwrap())
        .collect();
    assert_eq!(names, ["crease", "cut"]);
    assert_eq!(view["operations"][0]["station"], "Right");
    let seconds = view["seconds"].as_f64().unwrap();
    let last = view["stretches"].as_array().unwrap().last().unwrap().clone();
    let end = last["begins"].as_f64().unwrap() + last["takes"].as_f64().unwrap();
    assert!((end - seconds).abs() < 1e-6, "{end} {seconds}");

    let get = |path: &str| {
        let request = api.client.get(path.to_owned()).header(Header::new("Host", HOST));
        let response = request.dispatch();
        (response.status().code, response.into_string().unwrap_or_default())
    };
    let (status, text) = get("/api/jobs/3/cut-hpgl/1");
    assert_eq!(status, 200, "{text}");
    assert!(text.starts_with("IN;PU;") && text.trim_end().ends_with("SP0;"), "{text}");
    assert_eq!(get("/api/jobs/3/cut-hpgl/99").0, 404);
    // The flatbed is not spoken to in HP-GL.
    let (status, text) = get("/api/jobs/2/cut-hpgl/1");
    assert_eq!(status, 404);
    assert!(text.contains("does not take this"), "{text}");

    assert_eq!(api.post("/api/tooling", &json!({ "job": job, "run": 9 })).0, 404);
    job["tooling"] = json!({ "operations": { "cut": { "passes": 1000 } } });
    let (status, refused) = api.post("/api/tooling", &json!({ "job": job, "run": 0 }));
    assert_eq!(status, 422, "{refused}");
    job["tooling"] = json!({ "operations": { "sawing": {} } });
    assert_eq!(api.post("/api/tooling", &json!({ "job": job, "run": 0 })).0, 422);
}

fn get(api: &Api, path: &str) -> (u16, String) {
    let request = api.client.get(path.to_owned()).header(Header::new("Host", HOST));
    let response = request.dispatch();
    (response.status().code, response.into_string().unwrap_or_default())
}

fn save(api: &Api, id: i32, change: impl Fn(&mut Value)) {
    let path = format!("/api/jobs/{id}");
    let open = api.get(&path);
    let mut job = open["job"].clone();
    change(&mut job);
    let body = json!({ "version": open["version"], "job": job });
    let (status, answer) = api.ask(Method::Put, &path, &body);
    assert_eq!(status, 200, "{answer}");
}

/// Nothing is written for a machine while a limit of its work is broken; the words are those of the limit.
#[test]
fn a_machine_gets_nothing_that_breaks_a_limit() {
    let api = Api::new();
    assert_eq!(get(&api, "/api/jobs/3/cut-hpgl/1").0, 200);
    let hard = json!({ "force": { "amount": 9999, "unit": "grams" } });
    save(&api, 3, |job| job["tooling"] = json!({ "operations": { "cut": hard } }));
    let (status, text) = get(&api, "/api/jobs/3/cut-hpgl/1");
    assert_eq!(status, 422, "{text}");
    assert!(text.contains("Greatest force") && text.contains("Set cut to 500 g"), "{text}");
    let (_, files) = get(&api, "/api/jobs/3/files");
    assert!(!files.contains("hpgl") && files.contains("steps.pdf"), "{files}");
    // Other files say what is drawn.
    assert_eq!(get(&api, "/api/jobs/3/cut/1").0, 200);

    let first = json!({ "when": "before-print" });
    save(&api, 3, |job| job["tooling"] = json!({ "operations": { "crease": first } }));
    let (_, files) = get(&api, "/api/jobs/3/files");
    assert!(files.contains("cut-1-loading-2.hpgl"), "{files}");
    let [one, two] =
        [1, 2].map(|own| get(&api, &format!("/api/jobs/3/cut-hpgl/1?loading={own}")).1);
    assert!(one.contains("SP2;") && !one.contains("SP1;"), "creased before the print: {one}");
    assert!(two.contains("SP1;") && !two.contains("SP2;"), "cut after it");
    assert_eq!(get(&api, "/api/jobs/3/cut-hpgl/1?loading=3").0, 404);
    // The second pass is told as one, with what brings it into register.
    let view = api.post("/api/tooling", &json!({ "job": api.job("/api/jobs/3"), "run": 0 })).1;
    let said = view["operations"].to_string();
    assert!(
        said.contains("pass 2: printed, the sheet is loaded again and registered by its marks"),
        "{said}"
    );
}

/// Outlines of several cards that are worked together are split off card by card.
#[test]
fn outlines_of_each_card_are_offered_to_be_worked_by_themselves() {
    let api = Api::new();
    let mut job = api.job("/api/jobs/3");
    let first = job["pieces"][0]["stock"].as_str().unwrap().to_owned();
    let other = api.get("/api/workshop")["stocks"]
        .as_object()
        .unwrap()
        .keys()
        .find(|id| **id != first)
        .unwrap()
        .clone();
    job["sheet"]["kept"] = Value::Null;
    let tag = json!({ "id": "p9", "name": "Tag", "form": { "structure": "tag-clipped" }, "stock": other, "copies": 1 });
    job["pieces"].as_array_mut().unwrap().push(tag);
    let shares = |job: &Value, id: &str| -> Vec<String> {
        let (status, view) = api.post("/api/tooling", &json!({ "job": job, "run": 0 }));
        assert_eq!(status, 200, "{view}");
        let all = view["operations"].as_array().unwrap();
        let own =
            all.iter().find(|own| own["id"] == id).unwrap_or_else(|| panic!("{id} in {view}"));
        own["shares"]
            .as_array()
            .unwrap()
            .iter()
            .map(|own| own["id"].as_str().unwrap().to_owned())
            .collect()
    };
    let [on_first, on_other] = [first, other.clone()].map(|card| format!("cut@edge={card}"));
    assert!(shares(&job, &format!("cut@={other}")).contains(&on_other));
    job["tooling"] = json!({ "operations": { "cut@edge": {} } });
    let mut both = [on_first.clone(), on_other];
    both.sort();
    assert_eq!(shares(&job, "cut@edge"), both);
    job["tooling"]["operations"][&on_first] = json!({ "passes": 3 });
    assert!(shares(&job, "cut@edge").is_empty(), "what is left is of one card");
}

#[test]
fn g_code_and_processing_steps_come_as_files() {
    let api = Api::new();
    let (status, text) = get(&api, "/api/jobs/2/cut-gcode/1");
    assert_eq!(status, 200, "{text}");
    assert!(text.starts_with("%\nG21\nG90\n") && text.trim_end().ends_with("M2\n%"), "{text}");
    assert_eq!(get(&api, "/api/jobs/3/cut-gcode/1").0, 404, "its cutter takes HP-GL alone");
    for name in ["steps.pdf", "print-steps.pdf"] {
        let request = api.client.get(format!("/api/jobs/3/{name}"));
        let answer = request.header(Header::new("Host", HOST)).dispatch();
        assert_eq!(answer.status().code, 200);
        assert!(answer.into_bytes().unwrap().starts_with(b"%PDF-1.7"), "{name}");
    }
}

/// From the first ladder to a recipe that the job goes by: on a card that goes through from 335 grams on.
#[test]
fn ladders_come_to_a_recipe_that_the_job_goes_by() {
    let api = Api::new();
    // The demo's ladder is half way: 300 grams do not go through, 400 do.
    let mut job = api.job("/api/jobs/5");
    job["tooling"] = json!({});
    let ask = |job: &Value| {
        let ask = json!({ "job": job, "id": 5, "run": 0, "operation": "cut", "on": "scrap" });
        api.post("/api/trial", &ask)
    };
    let before = api.get("/api/logbook");
    let mut ladders = 0;
    let settled = loop {
        let (status, view) = ask(&job);
        assert_eq!(status, 200, "{view}");
        if view["is_settled"] == true {
            break view;
        }
        ladders += 1;
        assert!(ladders < 6, "{view}");
        for rung in view["rungs"].as_array().unwrap() {
            let through = rung["value"].as_f64().unwrap() >= 335.0;
            let mut entry = rung["entry"].clone();
            entry["outcome"] = json!(if through { "just-right" } else { "not-through" });
            let (status, answer) = api.post("/api/logbook", &entry);
            assert_eq!(status, 200, "{answer}");
        }
    };
    assert_eq!(settled["recipe"]["force"], json!({ "amount": 335.0, "unit": "grams" }));
    let after = api.get("/api/logbook");
    assert!(after["all"].as_u64() > before["all"].as_u64());

    let state = api.state();
    let mut record = settled["recipe"].clone();
    record["kind"] = json!("recipes");
    let body = json!({ "version": state["version"], "record": record });
    let (status, answer) = api.post("/api/workshop/records", &body);
    assert_eq!(status, 200, "{answer}");
    let (_, view) = api.post("/api/tooling", &json!({ "job": job, "run": 0 }));
    let cut = view["operations"].as_array().unwrap().last().unwrap();
    assert_eq!(cut["force"]["amount"], 335.0);
    assert!(cut["recipe"]["name"].as_str().unwrap().starts_with("cut on"), "{cut}");

    // An outcome that contradicts an earlier one is asked about, and can be taken back.
    let mut wrong = after["entries"][0]["entry"].clone();
    wrong["force"]["amount"] = json!(490.0);
    wrong["outcome"] = json!("not-through");
    let (_, id) = api.post("/api/logbook", &wrong);
    job["tooling"] = json!({ "operations": { "cut": { "passes": wrong["passes"] } } });
    let (_, view) = ask(&job);
    assert_eq!(view["contradiction"].as_array().unwrap().len(), 2, "{view}");
    let (status, _) = api.ask(Method::Delete, &format!("/api/logbook/{id}"), &json!({}));
    assert_eq!(status, 200);
    assert_eq!(ask(&job).1["contradiction"], json!([]));
}

#[test]
fn the_logbook_is_found_in_by_words_and_refuses_what_cannot_be() {
    let api = Api::new();
    let find = |text: &str| -> Value {
        let path = format!("/api/logbook?text={text}");
        api.get(&path)
    };
    let all = find("");
    assert!(all["all"].as_u64().unwrap() >= 20, "the demo's");
    let found = find("into%20the%20liner");
    assert!(
        found["found"].as_u64().unwrap() > 0 && found["found"].as_u64() < all["found"].as_u64()
    );
    for own in found["entries"].as_array().unwrap() {
        assert_eq!(own["entry"]["line"], "kiss-cut");
    }
    assert_eq!(find("no-such-word-in-it")["found"], 0);

    let good = all["entries"][0]["entry"].clone();
    let wrong = |change: &dyn Fn(&mut Value)| {
        let mut entry = good.clone();
        change(&mut entry);
        api.post("/api/logbook", &entry).0
    };
    assert_eq!(wrong(&|own| own["passes"] = json!(0)), 422);
    assert_eq!(wrong(&|own| own["speed"] = json!(1e9)), 422);
    assert_eq!(wrong(&|own| own["note"] = json!("x".repeat(401))), 422);
    assert_eq!(wrong(&|own| own["force"] = json!({ "amount": -1, "unit": "grams" })), 422);
    assert!(wrong(&|own| own["outcome"] = json!("perfect")) >= 400);
    let id = all["entries"][0]["id"].clone();
    let change = json!({ "outcome": "too-deep", "note": "It tore." });
    assert_eq!(api.ask(Method::Put, &format!("/api/logbook/{id}"), &change).0, 200);
    assert_eq!(find("tore")["entries"][0]["entry"]["outcome"], "too-deep");
    assert_eq!(api.ask(Method::Put, "/api/logbook/99999", &change).0, 404);
    assert_eq!(api.ask(Method::Delete, "/api/logbook/99999", &json!({})).0, 404);
}

#[test]
fn the_file_of_a_ladder_has_each_rung_with_its_own_force() {
    let api = Api::new();
    let path =
        "/api/jobs/3/trial/test.hpgl?operation=cut&varied=force&values=100,200,300&run=0&on=scrap";
    let (status, text) = get(&api, path);
    assert_eq!(status, 200, "{text}");
    let forces: Vec<&str> = text.split(';').filter(|own| own.starts_with("FS")).collect();
    assert_eq!(forces, ["FS100", "FS200", "FS300"]);
    let svg = get(&api, &path.replace("test.hpgl", "test.svg")).1;
    assert!(svg.contains("data-force=\"100 g\"") && svg.contains("rung-3"), "{svg}");
    for wrong in [
        path.replace("100,200,300", ""),
        path.replace("100,200,300", "1,2,3,4,5,6,7,8,9,10,11,12,13"),
        path.replace("100,200,300", "NaN"),
        path.replace("100,200,300", "100,900"),
        path.replace("operation=cut", "operation=saw"),
        path.replace("varied=force", "varied=colour"),
        path.replace("test.hpgl", "test.exe"),
        path.replace("test.hpgl", "test.nc"),
    ] {
        let status = get(&api, &wrong).0;
        assert!((400..500).contains(&status), "{wrong}: {status}");
    }
}
