//! Outlines from pictures over the API: a job from a picture, a rough look, motifs apart; and what is no picture, no
//! figure, no place, or no longer there.

#![allow(clippy::cast_possible_truncation, reason = "small pictures")]

use std::io::Cursor;

use image::{DynamicImage, GrayImage, ImageFormat, Luma, Rgba, RgbaImage};
use rocket::http::Header;
use serde_json::{Value, json};

use crate::http::{Api, HOST, changed};

fn png(picture: impl Into<DynamicImage>) -> Vec<u8> {
    let mut bytes = Cursor::new(Vec::new());
    picture.into().write_to(&mut bytes, ImageFormat::Png).unwrap();
    bytes.into_inner()
}

/// Clear but for squares of 60 pixels, so many in a row.
fn squares(count: u32) -> Vec<u8> {
    png(RgbaImage::from_fn(count * 100, 100, |x, y| {
        let is_in = (20..80).contains(&(x % 100)) && (20..80).contains(&y);
        if is_in { Rgba([60, 120, 40, 255]) } else { Rgba([0; 4]) }
    }))
}

/// A dark disc on a light ground, neither of them even.
fn disc() -> Vec<u8> {
    png(GrayImage::from_fn(240, 200, |x, y| {
        let (across, along) = (f64::from(x) - 120.0, f64::from(y) - 100.0);
        let own = if across.hypot(along) < 70.0 { 60 } else { 215 };
        Luma([own + ((x * 7 + y * 13) % 9) as u8])
    }))
}

fn started(api: &Api, bytes: &[u8], width: f64) -> Value {
    let (status, blob) = api.upload(bytes);
    assert_eq!(status, 200, "{blob}");
    let ask = json!({ "blob": blob["id"], "name": "motif.png", "width": width });
    let (status, job) = api.post("/api/traces/start", &ask);
    assert_eq!(status, 200, "{job}");
    job
}

fn traced(job: &mut Value) -> &mut Value {
    &mut job["pieces"][0]["form"]["traced"]
}

fn preview(api: &Api, job: &Value) -> (u16, Value) {
    api.post("/api/preview", &json!({ "job": job }))
}

fn view(preview: &Value) -> &Value {
    &preview["pieces"][0]["flat"]["view"]["traced"]
}

fn check<'a>(preview: &'a Value, id: &str) -> &'a Value {
    let checks = preview["checks"].as_array().unwrap();
    checks.iter().find(|check| check["id"] == id).unwrap_or_else(|| panic!("{id}"))
}

#[test]
fn a_picture_starts_a_job_that_can_be_printed_and_cut() {
    let api = Api::new();
    for (bytes, by, motifs) in [
        (squares(1), "transparency", 1),
        (squares(3), "transparency", 3),
        (disc(), "background", 1),
    ] {
        let job = started(&api, &bytes, 90.0);
        let own = &job["pieces"][0]["form"]["traced"];
        assert_eq!(own["trace"]["by"], by);
        let (status, preview) = preview(&api, &job);
        assert_eq!(status, 200, "{preview}");
        assert_eq!(view(&preview)["found"]["motifs"], motifs);
        assert_eq!(preview["pieces"][0]["flat"]["view"]["edge"], "kiss-cut", "on a liner");
        let broken = preview["checks"].as_array().unwrap().iter();
        let broken = broken.filter(|check| check["state"] == "broken" && check["id"] != "ppi-l1");
        let broken: Vec<&Value> = broken.collect();
        assert!(broken.is_empty(), "{broken:?}");
        // So few pixels are told; the way out keeps the picture where it was traced.
        let soft = check(&preview, "ppi-l1");
        let smaller = changed(&job, &soft["remedies"][0]);
        let (_, preview) = self::preview(&api, &smaller);
        assert_ne!(check(&preview, "ppi-l1")["state"], "broken");
        assert_eq!(smaller["pieces"][0]["face"], job["pieces"][0]["face"]);
        let (status, opened) = api.post("/api/jobs", &job);
        assert_eq!(status, 200, "{opened}");
        // It is listed, and its files are there.
        let path = format!("/api/jobs/{}", opened["id"]);
        let files = api.get(&format!("{path}/files"));
        assert!(files.as_array().is_some_and(|all| all.len() > 3), "{files}");
    }
}

#[test]
fn sizes_follow_the_width_and_the_picture_lies_where_it_was() {
    let api = Api::new();
    for (width, border) in [(50.0, 2.0), (200.0, 5.0), (10.0, 0.5)] {
        let mut job = started(&api, &squares(1), width);
        traced(&mut job)["border"]["distance"] = json!(border);
        traced(&mut job)["border"]["inner"] = json!(0.0);
        let (_, preview) = preview(&api, &job);
        // Sixty of a hundred pixels, and the border on both sides.
        let size = preview["pieces"][0]["flat"]["view"]["size"][0].as_f64().unwrap();
        assert!((size - 0.6 * width - 2.0 * border).abs() < 0.004 * width, "{size} at {width}");
        let at: Vec<f64> = view(&preview)["at"]
            .as_array()
            .unwrap()
            .iter()
            .map(|own| own.as_f64().unwrap())
            .collect();
        assert!(
            (at[2] - width).abs() < 1e-6 && (at[0] + 0.2 * width - border).abs() < 0.004 * width,
            "{at:?}"
        );
    }
}

#[test]
fn a_rough_look_says_what_a_threshold_would_do() {
    let api = Api::new();
    let mut job = started(&api, &disc(), 60.0);
    let look = |own: &Value| api.post("/api/traces", &json!({ "traced": own, "unit": "mm" }));
    let (status, fine) = look(traced(&mut job));
    assert_eq!(status, 200);
    assert_eq!((fine["found"]["motifs"].as_u64(), &fine["trouble"]), (Some(1), &Value::Null));
    assert_eq!(fine["found"]["histogram"].as_array().unwrap().len(), 64);
    // All of it, and none of it.
    traced(&mut job)["trace"]["threshold"] = json!(0.998);
    let (status, none) = look(traced(&mut job));
    assert_eq!((status, &none["line"]), (200, &json!("")));
    assert!(none["trouble"].as_str().unwrap().contains("inside"));
    // The job says the same, with the value that is right.
    let (status, problem) = preview(&api, &job);
    assert_eq!(status, 422);
    let error = &problem["errors"][0];
    assert_eq!(error["field"], "pieces.p1.form.traced.trace.threshold");
    let mended = changed(&job, &error["remedy"]);
    assert_eq!(preview(&api, &mended).0, 200);
    traced(&mut job)["trace"]["threshold"] = json!(0.002);
    let (_, all) = preview(&api, &job);
    let swallowed = check(&all, "trace-inside");
    assert_eq!(swallowed["state"], "broken");
    let mended = changed(&job, &swallowed["remedies"][0]);
    assert_eq!(check(&preview(&api, &mended).1, "trace-inside")["state"], "fits");
}

#[test]
fn motifs_become_pieces_and_lie_where_they_did() {
    let api = Api::new();
    let job = started(&api, &squares(4), 120.0);
    let (status, pieces) = api.post("/api/traces/apart", &json!({ "job": job, "piece": "p1" }));
    assert_eq!(status, 200, "{pieces}");
    assert_eq!(pieces.as_array().unwrap().len(), 4);
    let mut apart = job.clone();
    apart["pieces"] = pieces;
    let (status, preview) = preview(&api, &apart);
    assert_eq!(status, 200, "{preview}");
    let mut lefts: Vec<f64> = (0..4)
        .map(|at| preview["pieces"][at]["flat"]["view"]["traced"]["at"][0].as_f64().unwrap())
        .collect();
    lefts.sort_by(f64::total_cmp);
    // A motif every 30 mm; each blank begins at its own.
    for pair in lefts.windows(2) {
        assert!((pair[1] - pair[0] - 30.0).abs() < 0.3, "{lefts:?}");
    }
    for (job, piece) in [
        (&job, "p7"),
        (&started(&api, &squares(1), 40.0), "p1"),
        (&started(&api, &squares(14), 200.0), "p1"),
    ] {
        let (status, problem) =
            api.post("/api/traces/apart", &json!({ "job": job, "piece": piece }));
        assert_eq!(status, 422, "{problem}");
        assert!(!problem["errors"][0]["remedy"]["text"].as_str().unwrap().is_empty());
    }
}

#[test]
fn nonsense_is_refused_by_field_and_harms_nothing() {
    let api = Api::new();
    let job = started(&api, &squares(2), 60.0);
    let fields = [
        ("width", json!(1e12)),
        ("width", json!(0.0)),
        ("pixels", json!([0, 100])),
        ("picture", json!("no hash")),
        ("trace", json!({ "by": "transparency", "threshold": 7.0 })),
        ("trace", json!({ "by": "transparency", "detail": -1.0 })),
        ("trace", json!({ "by": "transparency", "gap": 1e9 })),
        ("trace", json!({ "by": "transparency", "least": -3.0 })),
        ("trace", json!({ "by": "transparency", "part": [0.5, 0.5, 0.5, 0.9] })),
        ("trace", json!({ "by": "transparency", "around": [4.0, 0.5] })),
        ("trace", json!({ "by": "colour", "colour": "mauve" })),
        ("border", json!({ "distance": 900.0 })),
        ("border", json!({ "distance": -19.0 })),
        ("border", json!({ "distance": 1.0, "inner": 99.0 })),
        ("eye", json!({ "diameter": 4000.0 })),
        ("card", json!({ "margin": 0.0 })),
        ("card", json!({ "heading": 1e6 })),
        ("mends", json!([{ "mend": "drop", "at": [9.0, 9.0] }])),
        ("mends", json!(vec![json!({ "mend": "drop", "at": [0.5, 0.5] }); 201])),
        ("mends", json!([{ "mend": "cut", "points": [], "width": 0.1 }])),
    ];
    for (field, value) in fields {
        let mut bad = job.clone();
        traced(&mut bad)[field] = value.clone();
        let (status, problem) = preview(&api, &bad);
        assert_eq!(status, 422, "{field} {value}: {problem}");
        let error = &problem["errors"][0];
        let at = error["field"].as_str().unwrap();
        assert!(at.starts_with(&format!("pieces.p1.form.traced.{field}")), "{field}: {at}");
        assert!(!error["remedy"]["text"].as_str().unwrap().is_empty());
    }
    // Of another shape altogether, they are no job.
    for (field, value) in
        [("by", json!("magic")), ("threshold", json!("half")), ("holes", json!(3))]
    {
        let mut bad = job.clone();
        traced(&mut bad)["trace"][field] = value;
        let (status, _) = preview(&api, &bad);
        assert!((400..500).contains(&status), "{status}");
    }
    assert_eq!(preview(&api, &job).0, 200, "the job is as it was");
}

#[test]
fn a_picture_that_is_gone_or_another_is_told_and_one_that_is_replaced_is_traced_anew() {
    let api = Api::new();
    let mut job = started(&api, &squares(2), 60.0);
    let (_, before) = preview(&api, &job);
    let mut gone = job.clone();
    traced(&mut gone)["picture"] = json!("0".repeat(64));
    let (status, problem) = preview(&api, &gone);
    assert_eq!(status, 422);
    assert!(problem["errors"][0]["message"].as_str().unwrap().contains("motif.png"));
    // Sides that are not the picture's own.
    let mut odd = job.clone();
    traced(&mut odd)["pixels"] = json!([201, 100]);
    assert_eq!(preview(&api, &odd).0, 422);
    // Another picture under the same trace, its corrections kept where they still fit.
    let (_, other) = api.upload(&squares(3));
    traced(&mut job)["picture"] = other["id"].clone();
    traced(&mut job)["pixels"] = other["pixels"].clone();
    traced(&mut job)["mends"] = json!([
        { "mend": "fill", "points": [[0.3, 0.5], [0.4, 0.5]], "width": 0.02 },
        { "mend": "drop", "at": [0.33, 0.02] },
    ]);
    let (status, after) = preview(&api, &job);
    assert_eq!(status, 200, "{after}");
    assert_eq!(view(&before)["found"]["motifs"], 2);
    assert_eq!(view(&after)["found"]["motifs"], 3);
    assert_eq!(view(&after)["dropped"], json!([1]));
    assert_eq!(check(&after, "trace-mends")["state"], "attention");
}

#[test]
fn pictures_that_show_nothing_are_told_before_a_job_is_made_of_them() {
    let api = Api::new();
    let clear = png(RgbaImage::new(50, 50));
    let even = png(GrayImage::from_pixel(50, 50, Luma([128])));
    for bytes in [clear, even, png(GrayImage::from_pixel(1, 1, Luma([0])))] {
        let job = started(&api, &bytes, 40.0);
        let (status, preview) = preview(&api, &job);
        let is_told = status == 422
            || check(&preview, "trace-inside")["state"] == "broken"
            || check(&preview, "trace-crumbs")["state"] != "fits"
            || preview["checks"].as_array().unwrap().iter().any(|own| own["state"] != "fits");
        assert!(is_told, "{status}");
    }
    for (ask, status) in [
        (json!({ "blob": "0".repeat(64), "name": "x", "width": 50.0 }), 404),
        (json!({ "blob": "../../etc/passwd", "name": "x", "width": 50.0 }), 404),
    ] {
        assert_eq!(api.post("/api/traces/start", &ask).0, status);
    }
    let (_, blob) = api.upload(&squares(1));
    for (name, width) in [("x".repeat(5000), 50.0), ("x".to_owned(), -3.0), ("x".to_owned(), 1e300)]
    {
        let ask = json!({ "blob": blob["id"], "name": name, "width": width });
        assert_eq!(api.post("/api/traces/start", &ask).0, 422, "{width}");
    }
}

#[test]
fn a_drawing_is_traced_as_it_is_painted() {
    let api = Api::new();
    // A stroke 20 wide around a square of 60: 80 across with it.
    let svg = br##"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">
        <rect x="20" y="20" width="60" height="60" fill="#ddeecc" stroke="#225533" stroke-width="20" stroke-linejoin="miter"/></svg>"##;
    let mut job = started(&api, svg, 100.0);
    traced(&mut job)["border"] = json!({ "distance": 0.0 });
    let (status, preview) = preview(&api, &job);
    assert_eq!(status, 200, "{preview}");
    let size = preview["pieces"][0]["flat"]["view"]["size"][0].as_f64().unwrap();
    assert!((size - 80.0).abs() < 0.1, "{size}");
    assert_eq!(view(&preview)["found"]["corners"], 4);
}

#[test]
fn a_needle_that_moves_takes_in_less_and_less() {
    let api = Api::new();
    let mut job = started(&api, &disc(), 60.0);
    let mut before = f64::INFINITY;
    for step in 1..10 {
        traced(&mut job)["trace"]["threshold"] = json!(0.06 * f64::from(step));
        let ask = json!({ "traced": traced(&mut job), "unit": "mm" });
        let (status, seen) = api.post("/api/traces", &ask);
        assert_eq!(status, 200);
        let length = seen["found"]["length_text"].as_str().unwrap();
        let length: f64 = length.split(' ').next().unwrap().parse().unwrap();
        assert!(length <= before + 0.5, "{length} after {before}");
        before = length;
    }
    // Around a disc of 70 pixels, a quarter of a millimetre each.
    assert!((before - 35.0 * std::f64::consts::PI).abs() < 1.0, "{before}");
}

/// What is traced goes with the job in its archive, and copies of it are moved by hand.
#[test]
fn a_traced_job_is_carried_and_laid_by_hand() {
    let api = Api::new();
    let job = started(&api, &squares(2), 60.0);
    let (_, made) = api.post("/api/jobs", &job);
    let request = api.client.get(format!("/api/jobs/{}/job.aptum", made["id"]));
    let archive = request.header(Header::new("Host", HOST)).dispatch().into_bytes().unwrap();
    let other = Api::new();
    let request = other.client.post("/api/jobs/import").header(Header::new("Host", HOST));
    let response = request.body(&archive).dispatch();
    assert_eq!(response.status().code, 200);
    let opened: Value = response.into_json().unwrap();
    assert_eq!(view(&opened["preview"])["found"]["motifs"], 2);
    let act = json!({ "act": "move", "x": 1.0, "y": 1.0, "snap": 0.0 });
    let arrange = json!({ "run": 0, "chosen": [0], "what": act });
    let (status, moved) =
        other.post("/api/arrange", &json!({ "job": opened["job"], "arrange": arrange }));
    assert_eq!(status, 200, "{moved}");
}
