//! Drawings from elsewhere and cards of several pieces over the API: brought in, folded, carried to another machine, and
//! what is refused.

use rocket::http::Header;
use serde_json::{Value, json};

use crate::http::{Api, HOST};

const TRAY: &[u8] = include_bytes!("../../../../demo/drawings/seedling-tray.svg");

/// The jar stickers of the demo.
const JAR: &str = "/api/jobs/23";

fn bring(api: &Api, query: &str, bytes: &[u8]) -> (u16, Value) {
    let request = api.client.post(format!("/api/drawings{query}"));
    let response = request.header(Header::new("Host", HOST)).body(bytes).dispatch();
    (response.status().code, response.into_json().unwrap_or(Value::Null))
}

fn tray(api: &Api) -> Value {
    let (status, brought) = bring(api, "?name=tray.svg", TRAY);
    assert_eq!(status, 200, "{brought}");
    let mut job = brought["job"].clone();
    drawing(&mut job)["scale"] = json!({ "by": "per-inch", "count": 72.0 });
    job
}

fn drawing(job: &mut Value) -> &mut Value {
    &mut job["pieces"][0]["form"]["drawing"]
}

fn preview(api: &Api, job: &Value) -> (u16, Value) {
    api.post("/api/preview", &json!({ "job": job }))
}

fn view(preview: &Value) -> &Value {
    &preview["pieces"][0]["flat"]["view"]
}

#[test]
fn a_drawing_is_brought_in_folded_and_carried_to_another_machine() {
    let api = Api::new();
    let job = tray(&api);
    assert_eq!(job["name"], "tray");
    let (status, seen) = preview(&api, &job);
    assert_eq!(status, 200, "{seen}");
    assert_eq!(view(&seen)["drawing"]["creases"].as_array().unwrap().len(), 8);
    let sizes = view(&seen)["drawing"]["scales"].as_array().unwrap();
    assert_eq!(sizes.len(), 6, "{sizes:?}");
    let ask = json!({ "form": job["pieces"][0]["form"], "stock": job["pieces"][0]["stock"] });
    let (status, fold) = api.post("/api/fold", &ask);
    assert_eq!((status, fold["plates"].as_array().unwrap().len()), (200, 9));

    let (status, made) = api.post("/api/jobs", &job);
    assert_eq!(status, 200, "{made}");
    let path = format!("/api/jobs/{}/job.aptum", made["id"]);
    let request = api.client.get(path).header(Header::new("Host", HOST));
    let archive = request.dispatch().into_bytes().unwrap();
    let other = Api::new();
    let request = other.client.post("/api/jobs/import").header(Header::new("Host", HOST));
    let response = request.body(&archive).dispatch();
    let (status, opened) = (response.status().code, response.into_json::<Value>().unwrap());
    assert_eq!(status, 200, "{opened}");
    assert_eq!(view(&opened["preview"])["size"], view(&seen)["size"]);
    // It is there after the program ends and starts again.
    let again = other.restarted();
    let kept = again.get(&format!("/api/jobs/{}", opened["id"]));
    assert_eq!(view(&kept["preview"])["size"], view(&seen)["size"]);
}

#[test]
fn files_that_bring_no_lines_are_refused_with_the_way_out() {
    let api = Api::new();
    let large = vec![b'<'; (32 << 20) + 5];
    let cases: [(&[u8], u16, &str); 6] = [
        (b"", 422, "no drawing of lines"),
        (b"%!PS-Adobe-3.0\n", 422, "save it as PDF or SVG"),
        (include_bytes!("../../../../demo/pictures/bee.png"), 422, "to trace it"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", 422, "size"),
        (b"0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n", 422, "no lines"),
        (&large, 413, "bytes"),
    ];
    for (bytes, wanted, words) in cases {
        let (status, problem) = bring(&api, "", bytes);
        let detail = problem["detail"].as_str().unwrap_or_default().to_lowercase();
        assert_eq!(status, wanted, "{problem}");
        assert!(detail.contains(&words.to_lowercase()) || words == "size", "{words}: {detail}");
    }
    assert_eq!(bring(&api, "?page=7", b"%PDF-1.4\n%nothing\n").0, 422);
}

#[test]
fn nonsense_in_a_drawing_is_refused_by_field_and_harms_nothing() {
    let api = Api::new();
    let job = tray(&api);
    let fields = [
        ("lines", json!("no hash")),
        ("lines", json!("0".repeat(64))),
        ("scale", json!({ "by": "per-inch", "count": 0.0 })),
        ("scale", json!({ "by": "each", "mm": 1e9 })),
        ("scale", json!({ "by": "known", "units": 0.0, "mm": 10.0 })),
        ("scale", json!({ "by": "stated" })),
        ("join", json!(-1.0)),
        ("join", json!(100.0)),
        ("crumb", json!(1e6)),
        ("folds", json!([{ "at": [0.0, 0.0], "degrees": 900.0 }])),
        ("folds", json!(vec![json!({ "at": [0.0, 0.0], "degrees": 9.0 }); 401])),
    ];
    for (field, value) in fields {
        let mut bad = job.clone();
        drawing(&mut bad)[field] = value.clone();
        let (status, problem) = preview(&api, &bad);
        assert_eq!(status, 422, "{field} {value}: {problem}");
        let error = &problem["errors"][0];
        let at = error["field"].as_str().unwrap();
        assert!(at.starts_with(&format!("pieces.p1.form.drawing.{field}")), "{field}: {at}");
        assert!(!error["remedy"]["text"].as_str().unwrap().is_empty());
    }
    assert_eq!(preview(&api, &job).0, 200, "the job is as it was");
}

#[test]
fn a_card_is_laid_close_together_and_nonsense_on_it_is_refused() {
    let api = Api::new();
    let job = api.job(JAR);
    let ask = |piece: &str| json!({ "job": job, "piece": piece, "turning": "quarter" });
    let events = api.events("/api/cards/close", &ask("p5"));
    let (last, earlier) = events.split_last().unwrap();
    assert!(!earlier.is_empty(), "the first layout is told before the last");
    assert!(earlier.iter().all(|(name, _)| name == "found"));
    assert_eq!(last.0, "done");
    let places = &last.1;
    assert_eq!(places.as_array().unwrap().len(), 13);
    assert!(
        places
            .as_array()
            .unwrap()
            .iter()
            .all(|own| { (own["turn"].as_f64().unwrap() / 90.0).fract().abs() < 1e-9 })
    );
    assert_eq!(api.post("/api/cards/close", &ask("p1")).0, 404);
    assert_eq!(api.post("/api/cards/close", &ask("p99")).0, 404);
    for (field, value) in [
        ("members", json!([])),
        ("members", json!([{ "piece": "p9", "count": 1 }])),
        ("members", json!([{ "piece": "p1", "count": 501 }])),
        ("members", json!([{ "piece": "p5", "count": 1 }])),
        ("gap", json!(-1.0)),
        ("width", json!(1.0)),
        ("height", json!(1e7)),
        ("places", json!([{ "piece": "p1", "x": 1e9, "y": 0.0, "turn": 0.0 }])),
        ("card", json!({ "margin": 0.0 })),
    ] {
        let mut bad = job.clone();
        bad["pieces"][4]["form"]["gathered"][field] = value.clone();
        let (status, problem) = preview(&api, &bad);
        assert_eq!(status, 422, "{field} {value}: {problem}");
        let at = problem["errors"][0]["field"].as_str().unwrap();
        assert!(at.starts_with(&format!("pieces.p5.form.gathered.{field}")), "{field}: {at}");
    }
}

#[test]
fn a_line_key_of_one_job_serves_another_whose_colours_have_shifted() {
    let api = Api::new();
    let keys = api.get("/api/keys");
    let kept = keys.as_array().unwrap().iter().find(|own| own["name"] == "Seedling tray").unwrap();
    // Another program saved it: no names, and colours a little off.
    let saved = String::from_utf8(TRAY.to_vec()).unwrap();
    let saved = ["outline", "folds", "leaf", "ruler"]
        .iter()
        .fold(saved, |text, name| text.replace(&format!("id=\"{name}\""), ""))
        .replace("#3f7d3a", "#41803b");
    let (status, brought) = bring(&api, "?name=again.svg", saved.as_bytes());
    assert_eq!(status, 200, "{brought}");
    let drawing = &brought["drawing"];
    let named = |key: &Value, colour: &str| -> Value {
        let rows = key.as_object().unwrap();
        let row = rows.iter().find(|(id, _)| id.contains(colour) && !id.contains("clipped"));
        row.map_or(Value::Null, |(_, meaning)| meaning.clone())
    };
    assert_eq!(named(&drawing["key"], "#2b5fd2"), Value::Null, "nothing tells of it by itself");
    let ask = json!({ "drawing": drawing, "key": kept["key"] });
    let (status, key) = api.post("/api/keys", &ask);
    assert_eq!(status, 200, "{key}");
    assert_eq!(named(&key, "#d22b2b"), "cut");
    assert_eq!(named(&key, "#2b5fd2"), "crease");
    assert_eq!(named(&key, "#41803b"), "printed");
    let mut gone = drawing.clone();
    gone["lines"] = json!("0".repeat(64));
    assert_eq!(api.post("/api/keys", &json!({ "drawing": gone, "key": {} })).0, 404);
}

/// The marks of a job alone, laid under somebody's art in a program that reads 96 to the inch as 72.
#[test]
fn art_that_comes_back_is_measured_put_right_and_cut() {
    let api = Api::new();
    let get = |path: &str| {
        let request = api.client.get(path.to_owned()).header(Header::new("Host", HOST));
        let response = request.dispatch();
        (response.status().code, response.into_string().unwrap_or_default())
    };
    let (status, svg) = get("/api/jobs/3/marks.svg");
    assert_eq!(status, 200, "{svg}");
    let page = |side: &str| {
        let at = svg.find(&format!("{side}=\"")).unwrap() + side.len() + 2;
        svg[at..].split("mm").next().unwrap().parse::<f64>().unwrap()
    };
    let (width, height) = (page("width"), page("height"));
    // A rectangle of 40 × 30 at 60, 70 is drawn on the page, and all is written 4/3 too large.
    let drawn = svg
        .replace("</svg>", "<path d=\"M60 70H100V100H60Z\" fill=\"none\" stroke=\"#d00\"/></svg>")
        .replace(&format!("width=\"{width}mm\""), &format!("width=\"{}mm\"", width * 4.0 / 3.0))
        .replace(
            &format!("height=\"{height}mm\""),
            &format!("height=\"{}mm\"", height * 4.0 / 3.0),
        );
    let back = |query: &str, bytes: &str| {
        let request = api.client.post(format!("/api/jobs/3/returned{query}"));
        let response = request.header(Header::new("Host", HOST)).body(bytes).dispatch();
        (response.status().code, response.into_json::<Value>().unwrap_or(Value::Null))
    };
    let (status, found) = back("?name=mine.svg", &drawn);
    assert_eq!(status, 200, "{found}");
    assert_eq!(found["scale_text"], "1.3333 times too large");
    assert_eq!(found["mistake"], "drawn at 96 to the inch, read at 72 to the inch");
    assert_eq!((found["is_accepted"].clone(), found["lines"].clone()), (json!(true), json!(1)));
    assert_eq!(found["job"], Value::Null);

    let (status, taken) = back("?name=mine.svg&how=both", &drawn);
    assert_eq!(status, 200, "{taken}");
    let job = &taken["job"];
    let layer = &job["pieces"][0]["face"]["layers"][0];
    assert!((layer["size"]["mm"][0].as_f64().unwrap() - width).abs() < 0.01, "{layer}");
    let at = &job["sheet"]["kept"]["runs"][0]["placements"][0];
    assert!((at["x"].as_f64().unwrap() - 60.0).abs() < 0.01, "{at}");
    assert!((at["y"].as_f64().unwrap() - 70.0).abs() < 0.01, "{at}");
    let (status, seen) = preview(&api, job);
    assert_eq!(status, 200, "{seen}");
    assert_eq!(view(&seen)["drawing"]["is_scaled"], true);
    let size = &view(&seen)["size"];
    assert!((size[0].as_f64().unwrap() - 40.0).abs() < 0.01, "{size}");

    let (status, printed) = back("?name=mine.svg&how=print", &drawn);
    assert_eq!(status, 200, "{printed}");
    let layers = printed["job"]["pieces"][0]["face"]["layers"].as_array().unwrap().clone();
    assert_eq!(layers.last().unwrap()["kind"], "picture");

    // The same from the marks' picture, which has no lines to cut.
    let marks = api.client.get("/api/jobs/3/marks.png").header(Header::new("Host", HOST));
    let picture = marks.dispatch().into_bytes().unwrap();
    let seen = |query: &str| {
        let request = api.client.post(format!("/api/jobs/3/returned{query}"));
        let response = request.header(Header::new("Host", HOST)).body(&picture).dispatch();
        (response.status().code, response.into_json::<Value>().unwrap_or(Value::Null))
    };
    let (status, printed) = seen("?name=mine.png&how=print");
    assert_eq!(status, 200, "{printed}");
    let ppi: f64 =
        printed["scale_text"].as_str().unwrap().split(' ').next().unwrap().parse().unwrap();
    assert!((ppi - 300.0).abs() < 0.1, "{printed}");
    let layers = printed["job"]["pieces"][0]["face"]["layers"].as_array().unwrap().clone();
    let across = layers.last().unwrap()["size"]["mm"][0].as_f64().unwrap();
    assert!((across - width).abs() < 0.1, "{across} for {width} mm");
    let (status, refused) = seen("?name=mine.png&how=lines");
    assert_eq!(status, 422);
    assert!(refused["detail"].as_str().unwrap().contains("no lines to cut"), "{refused}");

    // No marks in it, no file, no job.
    let (status, refused) =
        back("", "<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M0 0H9V9Z\"/></svg>");
    assert_eq!(status, 422, "{refused}");
    assert_eq!(back("", "nonsense").0, 422);
    let request = api.client.post("/api/jobs/9999/returned").header(Header::new("Host", HOST));
    assert_eq!(request.body(drawn).dispatch().status().code, 404);
}

#[test]
fn a_structure_is_set_free_and_its_lines_are_mended() {
    let api = Api::new();
    let job = api.job("/api/jobs/3");
    let piece = &job["pieces"][0];
    let set_free = |piece: &Value| {
        let (form, stock, face) = (&piece["form"], &piece["stock"], &piece["face"]);
        let ask = json!({ "form": form, "stock": stock, "face": face, "name": "Carton" });
        let (status, free) = api.post("/api/drawings/free", &ask);
        assert_eq!(status, 200, "{free}");
        free
    };
    let free = set_free(piece)["drawing"].clone();
    let mut own = job.clone();
    own["pieces"][0]["form"] = json!({ "drawing": free });
    let (status, seen) = preview(&api, &own);
    assert_eq!(status, 200, "{seen}");
    let names: Vec<&str> = view(&seen)["panels"]
        .as_array()
        .unwrap()
        .iter()
        .map(|panel| panel["name"].as_str().unwrap())
        .collect();
    assert!(names.contains(&"Front") && names.contains(&"Glue flap"), "{names:?}");

    let ask =
        |free: &Value| json!({ "drawing": free, "line": 0, "at": null, "mm": 1.0, "unit": "mm" });
    let (status, picked) = api.post("/api/lines/pick", &ask(&free));
    assert_eq!(status, 200, "{picked}");
    let nodes = picked["nodes"].as_array().unwrap().len();
    let mut mended = free.clone();
    mended["mends"] = json!([
        { "step": "add-node", "line": 0, "segment": 0, "share": 0.5 },
        { "step": "round", "line": 0, "node": 1, "radius": 1e9 },
    ]);
    let (_, after) = api.post("/api/lines/pick", &ask(&mended));
    assert_eq!(after["nodes"].as_array().unwrap().len(), nodes + 1);
    own["pieces"][0]["form"] = json!({ "drawing": mended });
    let (_, seen) = preview(&api, &own);
    let said = view(&seen)["drawing"]["mended"].as_array().unwrap().clone();
    assert_eq!([&said[0]["is_done"], &said[1]["is_done"]], [true, false]);
    let near = json!({ "drawing": free, "line": null, "at": [-500.0, 0.0], "reach": 1.0, "mm": 1.0, "unit": "mm" });
    assert_eq!(api.post("/api/lines/pick", &near), (200, Value::Null));

    // An outline of a picture keeps the picture where it is printed: as wide, in the same place of the blank.
    let job = api.job("/api/jobs/21");
    let (_, before) = preview(&api, &job);
    let free = set_free(&job["pieces"][0]);
    let mut own = job.clone();
    own["pieces"][0]["form"] = json!({ "drawing": free["drawing"] });
    own["pieces"][0]["face"] = free["face"].clone();
    let (status, after) = preview(&api, &own);
    assert_eq!(status, 200, "{after}");
    let size = |preview: &Value| view(preview)["size"].clone();
    for side in [0, 1] {
        let (one, other) = (size(&before)[side].as_f64(), size(&after)[side].as_f64());
        assert!((one.unwrap() - other.unwrap()).abs() < 0.02, "{one:?} {other:?}");
    }
    let picture = |preview: &Value| {
        let drawn = preview["pieces"][0]["face"]["view"]["arts"][0].to_string();
        let at = drawn.find("\"place\"").unwrap_or_else(|| panic!("{drawn}"));
        let numbers = drawn[at..].split(|c: char| !c.is_ascii_digit() && !".-".contains(c));
        numbers.filter_map(|own| own.parse::<f64>().ok()).take(6).collect::<Vec<_>>()
    };
    for (one, other) in picture(&before).iter().zip(&picture(&after)) {
        assert!((one - other).abs() < 0.05, "{one} {other}");
    }
}
