//! The JSON API, without a network.

use aptum::serve::{Listen, server};
use aptum::store::Store;
use aptum::{api, demo};
use rocket::http::{Header, Status};
use rocket::local::blocking::{Client, LocalResponse};
use serde_json::{Value, json};
use tempfile::TempDir;

struct Api {
    client: Client,
    _folder: TempDir,
}

const HOST: &str = "127.0.0.1:4870";

impl Api {
    fn new() -> Self {
        let folder = TempDir::new().unwrap();
        let store = Store::open(folder.path()).unwrap();
        demo::start_jobs(&store).unwrap();
        Self {
            client: Client::tracked(server(store, Listen::at_home(4870))).unwrap(),
            _folder: folder,
        }
    }

    fn get<'c>(&'c self, path: &'c str) -> LocalResponse<'c> {
        self.client.get(path).header(Header::new("Host", HOST)).dispatch()
    }

    fn send<'c>(&'c self, path: &'c str, body: &Value) -> LocalResponse<'c> {
        self.client.post(path).header(Header::new("Host", HOST)).body(body.to_string()).dispatch()
    }

    fn put(&self, path: &str, body: &Value) -> (Status, Value) {
        let request = self.client.put(path.to_owned()).header(Header::new("Host", HOST));
        read(request.body(body.to_string()).dispatch())
    }
}

fn read(response: LocalResponse<'_>) -> (Status, Value) {
    let status = response.status();
    (status, response.into_json().unwrap_or(Value::Null))
}

#[test]
fn errors_are_problem_details_with_field_number_and_remedy() {
    let api = Api::new();
    let mut job = read(api.get("/api/jobs/3")).1["job"].clone();
    job["pieces"][0]["form"]["length"] = json!(1e7);
    job["sheet"]["cutter"] = json!("nobody");
    let response = api.send("/api/preview", &json!({ "job": job }));
    assert_eq!(response.content_type().unwrap().to_string(), "application/problem+json");
    let (status, problem) = read(response);
    assert_eq!(status, Status::UnprocessableEntity);
    let cutter = &problem["errors"][0];
    assert_eq!(cutter["field"], "sheet.cutter");
    job["sheet"]["cutter"] = Value::Null;
    let problem = read(api.send("/api/preview", &json!({ "job": job }))).1;
    let length = &problem["errors"][0];
    assert_eq!(length["field"], "pieces.p1.form.length");
    assert_eq!(length["number"], 1e7);
    assert_eq!(length["remedy"]["changes"][0]["value"], 2000.0);

    for (path, body, status) in [
        ("/api/preview", json!({ "name": "half" }), 422),
        ("/api/preview", json!("words"), 422),
        ("/api/lengths", json!({ "text": "5 apples", "unit": "mm" }), 422),
        ("/api/jobs/99/undo", json!({ "version": 1 }), 404),
        ("/api/nothing", json!({}), 404),
    ] {
        let (got, problem) = read(api.send(path, &body));
        assert_eq!((got.code, problem["status"].as_u64()), (status, Some(status.into())), "{path}");
        assert!(problem["detail"].as_str().is_some_and(|words| words.len() > 10), "{problem}");
    }
    let large = json!({ "name": "x".repeat(9 << 20) });
    assert_eq!(api.send("/api/preview", &large).status(), Status::PayloadTooLarge);
}

#[test]
fn a_job_that_cannot_be_prepared_is_not_saved() {
    let api = Api::new();
    let opened = read(api.get("/api/jobs/3")).1;
    let mut job = opened["job"].clone();
    job["pieces"][0]["form"]["width"] = json!(-1.0);
    let (status, _) = api.put("/api/jobs/3", &json!({ "version": 1, "job": job }));
    assert_eq!(status, Status::UnprocessableEntity);
    assert_eq!(read(api.get("/api/jobs/3")).1, opened);
    job["pieces"][0]["form"]["width"] = json!(20.0);
    let (status, saved) = api.put("/api/jobs/3", &json!({ "version": 1, "job": job }));
    assert_eq!(
        (status, &saved["version"], &saved["can_undo"]),
        (Status::Ok, &json!(2), &json!(true))
    );
    let (status, problem) = api.put("/api/jobs/3", &json!({ "version": 1, "job": job }));
    assert_eq!((status, &problem["type"]), (Status::Conflict, &json!("/problems/conflict")));
}

#[test]
fn only_this_server_and_its_own_pages_are_answered() {
    let api = Api::new();
    let job = json!({ "job": read(api.get("/api/jobs/3")).1["job"] });
    let ask = |host: &'static str, origin: Option<&'static str>| {
        let mut request = api.client.post("/api/preview").header(Header::new("Host", host));
        if let Some(origin) = origin {
            request = request.header(Header::new("Origin", origin));
        }
        request.body(job.to_string()).dispatch().status().code
    };
    assert_eq!(ask(HOST, None), 200);
    assert_eq!(ask("localhost:4870", Some("http://localhost:4870")), 200);
    assert_eq!(ask(HOST, Some("http://elsewhere.example")), 403);
    assert_eq!(ask(HOST, Some("null")), 403);
    assert_eq!(ask(HOST, Some("http://127.0.0.1:9999")), 403);
    assert_eq!(ask("elsewhere.example", None), 403);
    assert_eq!(ask("127.0.0.1:9999", None), 403);
    let get = api.client.get("/api/jobs").header(Header::new("Host", "elsewhere.example"));
    assert_eq!(get.dispatch().status(), Status::Forbidden);
}

#[test]
fn every_answer_carries_a_strict_policy_and_nothing_else_is_served() {
    let api = Api::new();
    for path in ["/", "/api/jobs", "/api/nothing", "/jobs/3/form"] {
        let response = api.get(path);
        let policy = response.headers().get_one("Content-Security-Policy").unwrap().to_owned();
        assert!(policy.starts_with("default-src 'none'; script-src 'self';"), "{policy}");
        assert!(!policy.contains("unsafe"));
    }
    for path in [
        "/../Cargo.toml",
        "/%2e%2e/Cargo.toml",
        "/assets/../../Cargo.toml",
        "/aptum.sqlite",
        "/.env",
    ] {
        assert!(api.get(path).status().class().is_client_error(), "{path}");
    }
}

#[test]
fn the_page_is_packed_for_browsers_that_take_it_so() {
    let api = Api::new();
    let plain = api.get("/").into_bytes().unwrap();
    let request = api.client.get("/").header(Header::new("Host", HOST));
    let packed = request.header(Header::new("Accept-Encoding", "br, gzip")).dispatch();
    assert_eq!(packed.headers().get_one("Content-Encoding"), Some("gzip"));
    let mut unpacked = Vec::new();
    let bytes = packed.into_bytes().unwrap();
    std::io::Read::read_to_end(&mut flate2::read::GzDecoder::new(&bytes[..]), &mut unpacked)
        .unwrap();
    assert_eq!(unpacked, plain);
}

#[test]
fn an_archive_comes_back_as_the_same_job_and_a_bad_one_leaves_nothing() {
    let api = Api::new();
    let bytes = api.get("/api/jobs/2/job.aptum").into_bytes().unwrap();
    let bring = |bytes: &[u8]| {
        let request = api.client.post("/api/jobs/import").header(Header::new("Host", HOST));
        read(request.body(bytes).dispatch())
    };
    let (status, opened) = bring(&bytes);
    assert_eq!((status, &opened["id"]), (Status::Ok, &json!(35)));
    assert_eq!(opened["job"], read(api.get("/api/jobs/2")).1["job"]);
    for bad in [&bytes[..100], b"{}", &vec![0; (16 << 20) + 1]] {
        let (status, problem) = bring(bad);
        assert_eq!(status, Status::UnprocessableEntity);
        assert_eq!(problem["type"], "/problems/archive");
    }
    assert_eq!(read(api.get("/api/jobs")).1.as_array().unwrap().len(), 35);
}

#[test]
fn the_document_describes_every_route_and_every_reference_in_it_leads_somewhere() {
    let api = Api::new();
    let document = read(api.get("/api/openapi.json")).1;
    assert_eq!(document["openapi"], "3.1.0");
    let mut described: Vec<String> = Vec::new();
    for (path, methods) in document["paths"].as_object().unwrap() {
        for method in methods.as_object().unwrap().keys() {
            described.push(format!("{} {path}", method.to_uppercase()));
        }
    }
    let mut served: Vec<String> = api::routes()
        .iter()
        .map(|route| {
            let path = route.uri.path().replace('<', "{").replace('>', "}");
            format!("{} /api{path}", route.method)
        })
        .collect();
    described.sort();
    served.sort();
    assert_eq!(described, served);

    let text = document.to_string();
    for reference in text.split("#/components/schemas/").skip(1) {
        let name = reference.split('"').next().unwrap();
        assert!(document["components"]["schemas"][name].is_object(), "{name} is missing");
    }
}

#[test]
fn the_front_ends_types_are_current() {
    let kept = include_str!("../../../../web/src/api/generated/types.ts");
    assert!(kept == api::typescript(), "run make types and commit web/src/api/generated/types.ts");
}

#[test]
fn the_catalogue_is_drawn_at_the_size_at_hand() {
    let api = Api::new();
    let hand = json!({
        "form": { "structure": "straight-tuck", "basis": "inside", "length": 61, "width": 31, "height": 77 },
        "stock": "kraft-300",
        "unit": "mm",
    });
    let (status, entries) = read(api.send("/api/catalogue", &hand));
    assert_eq!(status, Status::Ok);
    let entries = entries.as_array().unwrap();
    assert!(entries.len() > 40);
    for entry in entries {
        let name = &entry["name"];
        assert!(entry["flat"]["outline"].as_str().unwrap().starts_with('M'), "{name}");
        assert!(!entry["folded"]["faces"].as_array().unwrap().is_empty(), "{name}");
        // What choosing it gives can be saved as it is.
        assert_eq!(entry["form"]["structure"], entry["id"]);
    }
    let find = |id: &str| entries.iter().find(|entry| entry["id"] == id).unwrap();
    assert_eq!(find("snap-lock")["size_text"], "61 × 31 × 77 mm");
    assert_eq!(find("snap-lock")["is_at_hand"], true);
    assert_eq!(find("icosahedron")["is_at_hand"], false);
}

#[test]
fn a_form_folds_over_http_and_can_be_drawn_at_any_moment() {
    let api = Api::new();
    let form = json!({ "structure": "lid-and-base" });
    let (status, fold) =
        read(api.send("/api/fold", &json!({ "form": form, "stock": "kraft-300" })));
    assert_eq!(status, Status::Ok);
    let plates = fold["plates"].as_array().unwrap();
    assert_eq!(fold["laid"].as_array().unwrap().len(), 2);
    for step in fold["steps"].as_array().unwrap() {
        assert_eq!(step["angles"].as_array().unwrap().len(), plates.len());
        assert_eq!(step["roots"].as_array().unwrap().len(), 2);
    }
    for plate in plates {
        let corners = plate["points"].as_array().unwrap().len() / 3;
        for part in ["printed", "back", "edges", "rims"] {
            let indices = plate[part].as_array().unwrap();
            assert!(indices.iter().all(|index| index.as_u64().unwrap() < corners as u64));
        }
    }
    let moment = |progress: f64| {
        let body = json!({ "form": form, "stock": "kraft-300", "progress": progress });
        read(api.send("/api/folded", &body)).1
    };
    assert_ne!(moment(0.0)["bounds"], moment(4.0)["bounds"]);
    assert_eq!(moment(1e9), moment(99.0), "beyond closed it stays closed");
    let bad = json!({ "form": { "structure": "cube", "edge": 1 }, "stock": "kraft-300" });
    let (status, problem) = read(api.send("/api/fold", &bad));
    assert_eq!(status, Status::UnprocessableEntity);
    assert_eq!(problem["errors"][0]["field"], "form.edge");
}

#[test]
fn an_add_on_that_meets_something_is_refused_with_a_way_out() {
    let api = Api::new();
    let mut job = read(api.get("/api/jobs/3")).1["job"].clone();
    let window = |across: f64, width: f64| {
        json!({ "kind": "window-rectangle", "panel": "Front", "across": across, "along": 0.0,
                "width": width, "height": 12.0 })
    };
    let refusal = |job: &Value| {
        let (status, problem) = read(api.send("/api/preview", &json!({ "job": job })));
        assert_eq!(status, Status::UnprocessableEntity);
        problem["errors"][0].clone()
    };
    // The front is 36.36 mm wide: 12 to the right, a window of 12 is 0.18 mm from its crease.
    job["pieces"][0]["form"]["add_ons"] = json!([window(12.0, 12.0)]);
    let error = refusal(&job);
    assert_eq!(error["field"], "pieces.p1.form.add_ons.0.across");
    assert!(error["message"].as_str().unwrap().contains("0.18 mm"), "{error}");
    for change in error["remedy"]["changes"].as_array().unwrap() {
        let field = change["field"].as_str().unwrap().rsplit('.').next().unwrap();
        job["pieces"][0]["form"]["add_ons"][0][field] = change["value"].clone();
    }
    assert_eq!(read(api.send("/api/preview", &json!({ "job": job }))).0, Status::Ok);
    // Larger than its panel; two that overlap; a panel that is not there.
    job["pieces"][0]["form"]["add_ons"] = json!([window(0.0, 90.0)]);
    assert!(refusal(&job)["remedy"]["text"].as_str().unwrap().starts_with("Make it"));
    job["pieces"][0]["form"]["add_ons"] = json!([window(0.0, 12.0), window(5.0, 12.0)]);
    assert_eq!(refusal(&job)["field"], "pieces.p1.form.add_ons.1.across");
    job["pieces"][0]["form"]["add_ons"] = json!([{ "kind": "hang-hole", "panel": "Keel", "across": 0, "along": 0,
                                      "width": 6, "height": 6 }]);
    assert_eq!(refusal(&job)["field"], "pieces.p1.form.add_ons.0.panel");
}

#[test]
fn angles_and_counts_are_read_as_numbers() {
    let api = Api::new();
    let ask = |text: &str, measured: &str| {
        read(api.send("/api/lengths", &json!({ "text": text, "unit": "mm", "measured": measured })))
    };
    assert_eq!(ask("12°", "angle").1["mm"], 12.0);
    assert_eq!(ask(" 12,5 ", "angle").1["mm"], 12.5);
    assert_eq!(ask("7", "count").1["mm"], 7.0);
    for (text, measured) in [("7.5", "count"), ("many", "count"), ("", "angle"), ("1e999", "angle")]
    {
        assert_eq!(ask(text, measured).0, Status::UnprocessableEntity, "{text}");
    }
}

#[test]
fn the_pieces_own_files_are_given_and_only_those() {
    let api = Api::new();
    for (name, start) in [
        ("flat.dxf", "  0"),
        ("flat.fold", "{"),
        ("folded.svg", "<svg"),
        ("folded.gltf", "{"),
        ("folded.obj", "#"),
    ] {
        let path = format!("/api/jobs/3/piece/{name}");
        let text = api.client.get(path).header(Header::new("Host", HOST)).dispatch();
        assert_eq!(text.status(), Status::Ok, "{name}");
        assert!(text.into_string().unwrap().starts_with(start), "{name}");
    }
    assert_eq!(api.get("/api/jobs/3/piece/flat.exe").status(), Status::NotFound);
    // Index tabs lie flat: nothing to fold.
    assert_eq!(api.get("/api/jobs/16/piece/folded.gltf").status(), Status::NotFound);
}

#[test]
fn what_a_path_does_not_take_is_told_from_what_is_not_there() {
    let api = Api::new();
    let wrong = api.client.patch("/api/jobs/3").header(Header::new("Host", HOST)).dispatch();
    let (status, problem) = read(wrong);
    assert_eq!(status, Status::MethodNotAllowed);
    assert_eq!(problem["detail"], "/api/jobs/3 does not take PATCH: it takes DELETE, GET, PUT");
    // No number of a job or sheet is so large.
    for path in ["/api/jobs/99999999999999", "/api/jobs/3/cut/4294967296", "/api/nothing"] {
        let (status, problem) = read(api.get(path));
        assert_eq!((status, &problem["type"]), (Status::NotFound, &json!("/problems/missing")));
    }
}

/// A page sends what is changed and which views it has; the server makes the change and sends the other views.
#[test]
fn changes_are_made_by_the_server_and_only_new_views_are_sent() {
    let api = Api::new();
    let open = read(api.get("/api/jobs/3")).1;
    let job = &open["job"];
    let first = read(api.send("/api/preview", &json!({ "job": job }))).1;
    assert!(first.get("job").is_none(), "nothing was changed");
    let keys = |seen: &Value| {
        [
            &seen["sheet"]["key"],
            &seen["pieces"][0]["flat"]["key"],
            &seen["pieces"][0]["face"]["key"],
        ]
        .map(Value::clone)
    };
    let ask = |changes: Value| {
        let draft = json!({ "job": job, "changes": changes, "known": keys(&first) });
        read(api.send("/api/preview", &draft))
    };
    let sent = |seen: &Value| {
        [&seen["sheet"], &seen["pieces"][0]["flat"], &seen["pieces"][0]["face"]]
            .map(|part| part["view"].is_object())
    };
    let (_, wider) = ask(json!([{ "field": "sheet.spacing", "value": 5.5 }]));
    assert_eq!(wider["job"]["sheet"]["spacing"], 5.5);
    assert_eq!(sent(&wider), [true, false, false]);
    let blue = json!([{ "field": "pieces.p1.face.layers.l1.colour", "value": "#0000ff" }]);
    assert_eq!(sent(&ask(blue).1), [true, false, true]);
    let longer = json!([{ "field": "pieces.p1.form.length", "value": 61.0 }]);
    assert_eq!(sent(&ask(longer).1), [true, true, true]);
    assert_eq!(sent(&ask(json!([])).1), [false; 3]);

    // What cannot be used comes back, so that the page can show it where it is wrong.
    let (status, refused) = ask(json!([{ "field": "pieces.p1.form.length", "value": 1e7 }]));
    assert_eq!(status, Status::UnprocessableEntity);
    assert_eq!(refused["job"]["pieces"][0]["form"]["length"], 1e7);
    let (status, nowhere) = ask(json!([{ "field": "pieces.p7.copies", "value": 3 }]));
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(nowhere["detail"].as_str().unwrap().contains("pieces.p7.copies"), "{nowhere}");
    let many = vec![json!({ "field": "name", "value": "x" }); 1001];
    assert_eq!(ask(json!(many)).0, Status::UnprocessableEntity);

    let save = |version: u64, changes: Value| {
        let change = json!({ "version": version, "changes": changes });
        api.put("/api/jobs/3", &change)
    };
    let version = open["version"].as_u64().unwrap();
    let more = json!([
        { "field": "pieces", "doing": "add", "value": { "form": { "structure": "tag", "basis": "inside" },
          "stock": job["pieces"][0]["stock"], "face": null, "copies": 4 } },
        { "field": "pieces.p2.copies", "value": 6 }
    ]);
    let (status, saved) = save(version, more.clone());
    assert_eq!((status, &saved["job"]["pieces"][1]["copies"]), (Status::Ok, &json!(6)), "{saved}");
    assert_eq!(save(version, more).0, Status::Conflict);
    let gone = json!([{ "field": "pieces.p2", "doing": "remove" }]);
    assert_eq!(save(version + 1, gone).1["job"]["pieces"].as_array().unwrap().len(), 1);
}

#[test]
fn a_plan_is_what_the_cut_file_cuts() {
    let api = Api::new();
    let job = read(api.get("/api/jobs/3")).1["job"].clone();
    let (status, plan) = read(api.send("/api/plan", &json!({ "job": job, "run": 0 })));
    assert_eq!(status, Status::Ok);
    let svg = api.get("/api/jobs/3/cut/1").into_string().unwrap();
    for lines in plan.as_array().unwrap() {
        let group =
            svg.split("<g ").find(|group| group.contains(&format!(" id={}", lines["kind"])));
        let paths: String = group
            .unwrap()
            .split(" d=\"")
            .skip(1)
            .map(|rest| rest.split('"').next().unwrap())
            .collect();
        assert_eq!(lines["path"], paths);
    }
    assert!(plan.as_array().unwrap().len() >= 2, "{plan}");
    assert_eq!(read(api.send("/api/plan", &json!({ "job": job, "run": 99 }))).0, Status::NotFound);
}

/// Views are kept as they were sent: a job must never be shown another's, however alike the two are.
#[test]
fn jobs_that_are_alike_are_shown_their_own_views() {
    let api = Api::new();
    let open = read(api.get("/api/jobs/3")).1;
    let preview = |job: &Value| read(api.send("/api/preview", &json!({ "job": job }))).1;
    let own = preview(&open["job"]);
    // The same again is the same, to the letter.
    assert_eq!(preview(&open["job"]), own);
    assert_eq!(own["pieces"][0]["flat"]["view"], open["preview"]["pieces"][0]["flat"]["view"]);
    let with = |path: &str, value: Value| {
        let mut job = open["job"].clone();
        *job.pointer_mut(path).unwrap() = value;
        preview(&job)
    };
    let view = |seen: &Value, path: &str| seen.pointer(path).unwrap()["view"].clone();
    let (sheet, flat, face) = ("/sheet", "/pieces/0/flat", "/pieces/0/face");
    let inches = with("/unit", json!("in"));
    assert_ne!(view(&inches, sheet)["page_text"], view(&own, sheet)["page_text"]);
    assert_ne!(view(&inches, flat), view(&own, flat));
    let wider = with("/sheet/spacing", json!(7.25));
    assert_ne!(view(&wider, sheet)["layout"], view(&own, sheet)["layout"]);
    assert_eq!(view(&wider, flat), view(&own, flat));
    let blue = with("/pieces/0/face/layers/0/colour", json!("#0000ff"));
    assert!(view(&blue, face).to_string().contains("#0000ff"));
    assert!(!view(&own, face).to_string().contains("#0000ff"));
    assert_ne!(blue["code"], own["code"], "what is printed otherwise has a code of its own");
    // The code is drawn on the sheet.
    assert_ne!(view(&blue, sheet)["notes"], view(&own, sheet)["notes"]);
    // Another piece of the same form is another's.
    let mut two = open["job"].clone();
    let mut second = two["pieces"][0].clone();
    second["id"] = json!("p2");
    second["name"] = json!("Second");
    second["copies"] = json!(1);
    two["pieces"].as_array_mut().unwrap().push(second);
    let two = preview(&two);
    assert_ne!(two["pieces"][0]["flat"]["key"], two["pieces"][1]["flat"]["key"]);
}

/// What the interface starts from follows the records, also those that have just been changed.
#[test]
fn what_a_page_starts_from_follows_the_workshop() {
    let api = Api::new();
    let starts = || read(api.get("/api/meta")).1["starts"].clone();
    let before = starts();
    assert_eq!(starts(), before);
    let state = read(api.get("/api/workshop/state")).1;
    let used = before.to_string();
    let id = state["workshop"]["stocks"].as_object().unwrap().keys().find(|id| used.contains(*id));
    let id = id.expect("a job starts with a card");
    let mut record = state["workshop"]["stocks"][id].clone();
    record["kind"] = json!("stocks");
    record["keeping"] = json!("retired");
    let entry = json!({ "version": state["version"], "record": record });
    assert_eq!(api.put(&format!("/api/workshop/records/{id}"), &entry).0, Status::Ok);
    assert_ne!(starts(), before, "no job starts with a card that is retired");
}
