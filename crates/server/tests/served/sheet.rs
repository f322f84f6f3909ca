//! Nesting, moving by hand, marks, ways to fit and the order, over HTTP.

use crate::http::{Api, HOST, changed};
use rocket::http::{Header, Method};
use serde_json::{Value, json};

const TOMATO: &str = "/api/jobs/3";
const RUNNER_BEAN: &str = "/api/jobs/4";
const SPRING_SET: &str = "/api/jobs/18";

#[test]
fn nesting_reports_its_best_so_far_and_ends_with_a_layout_that_can_be_kept() {
    let api = Api::new();
    let mut job = api.job(SPRING_SET);
    job["sheet"]["search"]["budget"] = json!(5.0);
    let events = api.events(&format!("{SPRING_SET}/nest"), &job);
    let (last, progress) = events.split_last().unwrap();
    assert_eq!(last.0, "done");
    assert!(!progress.is_empty() && progress.iter().all(|(name, _)| name == "progress"));
    let done: Vec<f64> =
        progress.iter().map(|(_, event)| event["done"].as_f64().unwrap()).collect();
    assert!(done.is_sorted(), "{done:?}");
    let sheets = |kept: &Value| -> u64 {
        kept["runs"].as_array().unwrap().iter().map(|run| run["sheets"].as_u64().unwrap()).sum()
    };
    // Whatever the machine’s speed, what comes later takes no more sheets, and all twenty copies are there.
    let on_the_way: Vec<u64> = events.iter().map(|(_, event)| sheets(&event["kept"])).collect();
    assert!(on_the_way.is_sorted_by(|a, b| a >= b), "{on_the_way:?}");
    assert!(last.1["text"].as_str().unwrap().ends_with(", 20 blanks"), "{}", last.1["text"]);

    // It is a layout of the job: kept, it is prepared as it is, and nothing overlaps.
    let mut kept = job.clone();
    kept["sheet"]["kept"] = last.1["kept"].clone();
    let (status, preview) = api.post("/api/preview", &json!({ "job": kept }));
    assert_eq!(status, 200);
    assert_eq!(preview["sheet"]["view"]["sheets"], *on_the_way.last().unwrap());
    let broken: Vec<&Value> = preview["checks"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|check| check["state"] == "broken")
        .collect();
    assert!(broken.is_empty(), "{broken:?}");
}

#[test]
fn a_search_with_nothing_left_to_find_ends_before_its_time_and_the_seed_gives_it_again() {
    let api = Api::new();
    let mut job = api.job(SPRING_SET);
    job["pieces"].as_array_mut().unwrap().truncate(1);
    job["pieces"][0]["copies"] = json!(1);
    job["sheet"]["search"]["budget"] = json!(600.0);
    let found = || api.events(&format!("{SPRING_SET}/nest"), &job).pop().unwrap().1;
    let first = found();
    assert_eq!(first["is_complete"], true, "{first}");
    assert_eq!(first["text"], "1 sheet, 1 blank");
    assert_eq!(found()["kept"], first["kept"]);
}

#[test]
fn a_nest_that_is_stopped_frees_its_job() {
    let api = Api::new();
    // Nothing goes on: nothing happens.
    assert_eq!(api.ask(Method::Delete, &format!("{SPRING_SET}/nest"), &Value::Null).0, 200);
    let mut job = api.job(SPRING_SET);
    job["sheet"]["search"]["budget"] = json!(1.0);
    job["sheet"]["amount"] = json!("fill-sheets");
    for _ in 0..2 {
        let events = api.events(&format!("{SPRING_SET}/nest"), &job);
        let last = &events.last().unwrap().1;
        assert_eq!((&last["is_last"], &last["is_complete"]), (&json!(true), &json!(false)));
    }
    job["sheet"]["search"]["budget"] = json!(1e9);
    let (status, problem) = api.post(&format!("{SPRING_SET}/nest"), &job);
    assert_eq!((status, &problem["errors"][0]["field"]), (422, &json!("sheet.search.budget")));
}

#[test]
fn locked_copies_that_overlap_are_said_and_nothing_is_laid() {
    let api = Api::new();
    let mut job = api.job(SPRING_SET);
    let seen = api.post("/api/preview", &json!({ "job": job })).1;
    let layout = &seen["sheet"]["view"]["layout"];
    let (runs, blanks) = (&layout["runs"], &layout["blanks"]);
    let mut run = runs[0].clone();
    let mut first = run["placements"][0].clone();
    first["locked"] = json!(true);
    run["placements"] = json!([first, first]);
    job["sheet"]["kept"] = json!({ "made": "by-hand", "blanks": blanks, "runs": [run] });
    let events = api.events(&format!("{SPRING_SET}/nest"), &job);
    assert_eq!(events.len(), 1, "{events:?}");
    let error = &events[0].1["errors"][0];
    assert_eq!((events[0].0.as_str(), &error["number"]), ("trouble", &json!(1.0)));
    assert!(error["message"].as_str().unwrap().contains("overlap"), "{error}");
}

#[test]
fn copies_are_moved_by_what_was_asked_and_nonsense_is_refused() {
    let api = Api::new();
    let job = api.job(SPRING_SET);
    let ask = |chosen: Value, what: Value| {
        let arrange = json!({ "run": 0, "chosen": chosen, "what": what });
        api.post("/api/arrange", &json!({ "job": job, "arrange": arrange }))
    };
    let before =
        api.post("/api/preview", &json!({ "job": job })).1["sheet"]["view"]["layout"]["runs"][0]["placements"].clone();
    let (status, moved) =
        ask(json!([0]), json!({ "act": "move", "x": 3.5, "y": -1.0, "snap": 0.0 }));
    assert_eq!(status, 200, "{moved}");
    let after = &moved["kept"]["runs"][0]["placements"];
    let by = |axis: &str| after[0][axis].as_f64().unwrap() - before[0][axis].as_f64().unwrap();
    assert!((by("x") - 3.5).abs() < 1e-6 && (by("y") + 1.0).abs() < 1e-6);
    assert_eq!(after[1], before[1], "the others stay");
    for (chosen, what) in [
        (json!([999]), json!({ "act": "lock" })),
        (json!([0]), json!({ "act": "move", "x": 1e12, "y": 0.0, "snap": 0.0 })),
        (
            json!([0]),
            json!({ "act": "grid", "columns": 5000, "rows": 5000, "across": 1.0, "down": 1.0 }),
        ),
        (json!([0]), json!({ "act": "fly" })),
        (json!([]), json!({ "act": "add", "piece": "p1", "part": "lid" })),
    ] {
        let (status, problem) = ask(chosen.clone(), what.clone());
        assert_eq!(status, 422, "{what}: {problem}");
    }
}

#[test]
fn ways_come_one_by_one_and_the_parts_of_a_split_piece_fit_and_fold() {
    let api = Api::new();
    let job = api.job(RUNNER_BEAN);
    let events = api.events("/api/ways", &job);
    let (last, ways) = events.split_last().unwrap();
    assert_eq!(last.0, "done");
    assert_eq!(last.1["found"].as_u64().unwrap(), ways.len() as u64);
    assert!(last.1["ruled_out"].is_null());
    let split = ways.iter().find(|(_, way)| way["kind"] == "split").expect("a split");
    let job = changed(&job, &split.1["remedy"]);
    let (status, preview) = api.post("/api/preview", &json!({ "job": job }));
    assert_eq!(status, 200, "{preview}");
    let checks = preview["checks"].as_array().unwrap();
    let broken: Vec<&Value> = checks.iter().filter(|check| check["state"] == "broken").collect();
    assert!(broken.is_empty(), "{broken:?}");

    // Too large for everything: the limit is named, with both numbers.
    let mut huge = api.job(RUNNER_BEAN);
    huge["pieces"][0]["form"]["length"] = json!(900.0);
    huge["pieces"][0]["form"]["height"] = json!(1500.0);
    let events = api.events("/api/ways", &huge);
    let said = events.last().unwrap().1["ruled_out"].as_str().map(str::to_owned);
    assert!(
        said.clone().is_none_or(|words| words.contains("mm") && words.contains("reaches")),
        "{said:?}"
    );
}

#[test]
fn marks_are_compared_and_the_best_are_never_worse() {
    let api = Api::new();
    let job = api.job("/api/jobs/3");
    let (status, compared) = api.post("/api/marks/compare", &job);
    assert_eq!(status, 200);
    let compared = compared.as_array().unwrap().clone();
    assert_eq!(compared.len(), 3);
    let events = api.events("/api/marks/best", &job);
    let best = &events.last().unwrap().1;
    let usable = |choice: &Value| choice["usable"].as_f64().unwrap();
    let sound = compared.iter().filter(|choice| choice["state"] != "broken");
    for choice in sound {
        let (theirs, ours) = (choice["per_sheet"].as_u64(), best["per_sheet"].as_u64());
        assert!(ours > theirs || (ours == theirs && usable(best) >= usable(choice) - 1e-6));
    }
    assert_eq!(best["state"], "fits");
}

/// Asks for a nest and goes away without reading it; the status.
fn asked_and_left(api: &Api, path: &str, job: &Value) -> u16 {
    let request = api.client.post(format!("{path}/nest")).header(Header::new("Host", HOST));
    request.body(job.to_string()).dispatch().status().code
}

#[test]
fn whoever_goes_away_leaves_the_job_free_and_as_it_was() {
    let api = Api::new();
    let before = api.get(SPRING_SET);
    let mut job = before["job"].clone();
    job["sheet"]["search"]["budget"] = json!(600.0);
    job["sheet"]["amount"] = json!("fill-sheets");
    for round in 0..3 {
        // The search notices with its next move, at the latest with the next sign of life.
        let free = (0..600).any(|_| {
            std::thread::sleep(std::time::Duration::from_millis(50));
            asked_and_left(&api, SPRING_SET, &job) == 200
        });
        assert!(free, "round {round}");
    }
    assert_eq!(api.get(SPRING_SET), before);
}

#[test]
fn searches_of_different_jobs_go_on_side_by_side() {
    let api = Api::new();
    let mut jobs = [api.job(SPRING_SET), api.job(TOMATO)];
    for job in &mut jobs {
        job["sheet"]["search"]["budget"] = json!(1.0);
    }
    let request = api.client.post(format!("{SPRING_SET}/nest")).header(Header::new("Host", HOST));
    let mine = request.body(jobs[0].to_string()).dispatch();
    assert_eq!(mine.status().code, 200);
    // Mine goes on while the other job’s runs to its end.
    assert_eq!(api.events(&format!("{TOMATO}/nest"), &jobs[1]).last().unwrap().0, "done");
    assert!(mine.into_string().unwrap().contains("event:done"));
}

#[test]
fn a_job_that_is_gone_or_cannot_be_worked_with_is_not_nested() {
    let api = Api::new();
    let job = api.job(TOMATO);
    assert_eq!(api.post("/api/jobs/999/nest", &job).0, 404);
    let mut absurd = job.clone();
    absurd["pieces"][0]["copies"] = json!(20_000);
    let (status, problem) = api.post(&format!("{TOMATO}/nest"), &absurd);
    assert_eq!((status, &problem["errors"][0]["field"]), (422, &json!("pieces.p1.copies")));
    assert_eq!(problem["errors"][0]["number"], json!(20_000.0));
    // Neither holds the job.
    let mut quick = job;
    quick["sheet"]["search"]["budget"] = json!(1.0);
    assert_eq!(api.events(&format!("{TOMATO}/nest"), &quick).last().unwrap().0, "done");
}

#[test]
fn what_is_said_to_change_the_order_changes_it_so() {
    let api = Api::new();
    for path in [TOMATO, SPRING_SET] {
        let job = api.job(path);
        let (status, choices) = api.post("/api/order", &job);
        assert_eq!(status, 200, "{choices}");
        let choices = choices.as_array().unwrap();
        assert!(choices.len() >= 2, "{choices:?}");
        for choice in choices {
            let (status, preview) =
                api.post("/api/preview", &json!({ "job": changed(&job, &choice["remedy"]) }));
            assert_eq!(status, 200, "{preview}");
            let sheet = &preview["sheet"]["view"];
            let words = &choice["remedy"]["text"];
            assert_eq!(sheet["sheets"], choice["sheets"], "{words}");
            assert_eq!(sheet["layout"]["per_sheet"], choice["per_sheet"], "{words}");
            for text in ["yield_text", "waste_text", "cost_text"] {
                assert_eq!(sheet["order"][text], choice[text], "{words}");
            }
        }
    }
}

#[test]
fn figures_are_said_in_the_jobs_unit() {
    let api = Api::new();
    let mut job = api.job(TOMATO);
    let unit_of = |job: &Value| {
        let (_, compared) = api.post("/api/marks/compare", job);
        let (_, preview) = api.post("/api/preview", &json!({ "job": job }));
        let marks = compared[0]["summary"].as_str().unwrap().to_owned();
        let waste = preview["sheet"]["view"]["order"]["waste_text"].as_str().unwrap().to_owned();
        let usable = compared[0]["usable_text"].as_str().unwrap().to_owned();
        (marks, waste, usable)
    };
    for (unit, length, area) in
        [("mm", " mm across", " cm²"), ("cm", " cm across", " cm²"), ("in", " in across", " in²")]
    {
        job["unit"] = json!(unit);
        let (marks, waste, usable) = unit_of(&job);
        assert!(marks.contains(length), "{marks}");
        assert!(waste.ends_with(area) && usable.ends_with(area), "{waste} {usable}");
    }
}

#[test]
fn ways_tell_of_the_piece_that_does_not_fit() {
    let api = Api::new();
    let mut job = api.job(SPRING_SET);
    let figures = json!({ "structure": "straight-tuck", "basis": "inside", "length": 90, "width": 60, "height": 150 });
    job["pieces"][1]["form"] = figures;
    let events = api.events("/api/ways", &job);
    let smaller = events.iter().find(|(_, way)| way["kind"] == "smaller").unwrap();
    let sizes = smaller.1["figures"].as_array().unwrap();
    let inside = &sizes.iter().find(|figure| figure[0] == "inside").unwrap()[1];
    assert!(smaller.1["remedy"]["text"].as_str().unwrap().contains(inside.as_str().unwrap()));
}

#[test]
fn every_way_is_told_with_what_it_comes_to() {
    let api = Api::new();
    let job = api.job(RUNNER_BEAN);
    let events = api.events("/api/ways", &job);
    let ways = events.iter().filter(|(name, _)| name == "way");
    for (_, way) in ways {
        let words = way["remedy"]["text"].as_str().unwrap();
        let figure = |name: &str| {
            let figures = way["figures"].as_array().unwrap();
            let found = figures.iter().find(|figure| figure[0] == name);
            found.map(|figure| figure[1].as_str().unwrap().to_owned())
        };
        let (_, preview) =
            api.post("/api/preview", &json!({ "job": changed(&job, &way["remedy"]) }));
        assert_eq!(
            figure("sheets").unwrap(),
            preview["sheet"]["view"]["sheets"].to_string(),
            "{words}"
        );
        let per_sheet = preview["sheet"]["view"]["layout"]["per_sheet"].to_string();
        assert_eq!(figure("on a sheet").unwrap(), per_sheet, "{words}");
        assert_eq!(
            figure("sheet").unwrap(),
            preview["sheet"]["view"]["page_text"].as_str().unwrap()
        );
        assert!(!way["sheet"]["copies"].as_str().unwrap().is_empty(), "{words}: drawn with a copy");
    }
}
