//! What faces wear: lists as they come, what each row of one wears, and layers that are lined up.

use aptum_core::Job;
use aptum_core::error::Change;
use aptum_core::job::with_changes;
use serde_json::{Value, json};

use crate::http::Api;

/// The number of a demo's job.
fn named(api: &Api, name: &str) -> Value {
    let listed = api.get("/api/jobs");
    let mut all = listed.as_array().unwrap().iter();
    all.find(|job| job["name"] == name).unwrap()["id"].clone()
}

/// A spreadsheet's rows as they come: coded and separated one way or another, with a head or without.
#[test]
fn lists_are_read_however_they_are_written() {
    let api = Api::new();
    let read = |query: &str, bytes: &[u8]| -> (u16, Value) {
        let request = api.client.post(format!("/api/lists?name=names.csv{query}"));
        let host = rocket::http::Header::new("Host", crate::http::HOST);
        let answer = request.header(host).body(bytes).dispatch();
        (answer.status().code, answer.into_json().unwrap_or(Value::Null))
    };
    let plain = "Plant,Sown\n\"Borage, blue\",May\n\"Say \"\"basil\"\"\",June\n";
    let (status, list) = read("", plain.as_bytes());
    assert_eq!((status, &list["coding"], &list["separator"]), (200, &json!("UTF-8"), &json!(",")));
    assert_eq!(list["has_head"], true);
    let columns = &list["list"]["columns"];
    assert_eq!(columns, &json!(["Plant", "Sown"]));
    let rows = list["list"]["rows"].as_array().unwrap();
    assert_eq!(rows.len(), 2);
    assert_eq!(rows[0], json!(["Borage, blue", "May"]));
    assert_eq!(rows[1], json!(["Say \"basil\"", "June"]));

    // The same from other programs.
    let semicolons = "Plant;Sown\nM\u{e4}rz;7\n";
    let sixteen: Vec<u8> = std::iter::once(0xFEFF)
        .chain(semicolons.encode_utf16())
        .flat_map(u16::to_le_bytes)
        .collect();
    let (_, list) = read("", &sixteen);
    assert_eq!((&list["coding"], &list["separator"]), (&json!("UTF-16"), &json!(";")));
    assert_eq!(list["list"]["rows"], json!([["M\u{e4}rz", "7"]]));
    let old: Vec<u8> = semicolons.chars().map(|c| u8::try_from(u32::from(c)).unwrap()).collect();
    let (_, list) = read("", &old);
    assert_eq!(list["coding"], "Windows-1252");
    assert_eq!(list["list"]["rows"][0][0], "M\u{e4}rz");
    // What is told of it counts.
    let (_, list) = read("&head=false&separator=;", semicolons.as_bytes());
    assert_eq!(list["has_head"], false);
    assert_eq!(list["list"]["rows"].as_array().unwrap().len(), 2);

    let many: String = (0..100_001).map(|row| format!("{row}\n")).collect();
    for (what, bytes) in [("nothing", &b""[..]), ("too many rows", many.as_bytes())] {
        let (status, problem) = read("", bytes);
        assert_eq!(status, 422, "{what}: {problem}");
        assert!(!problem["detail"].as_str().unwrap().is_empty(), "{what}");
    }
}

/// The demo's plant tags: each row wears its own words, and what is asked for beside them is told.
#[test]
fn each_row_of_a_list_is_looked_at_by_itself() {
    let api = Api::new();
    let job = api.job(&format!("/api/jobs/{}", named(&api, "Thirty plant tags")));
    let row = |at: usize| {
        api.post("/api/row", &json!({ "job": job, "piece": job["pieces"][0]["id"], "row": at }))
    };
    let (first, second) = (row(0), row(1));
    assert_eq!((first.0, second.0), (200, 200));
    assert_ne!(first.1["arts"], second.1["arts"], "each has its own words");
    assert_eq!(first.1["layers"].as_array().unwrap().len(), 7);
    let (status, _) = api.post("/api/row", &json!({ "job": job, "piece": "p99", "row": 0 }));
    assert_eq!(status, 404);
    assert_eq!(row(1_000_000).0, 200, "beyond the last the sample is shown");
}

#[test]
fn layers_are_lined_up_by_their_sides_middles_and_gaps() {
    let api = Api::new();
    let mut job = api.job(&format!("/api/jobs/{}", named(&api, "Onion set header card")));
    for (at, x, y) in [(2, -9.0, -3.0), (3, 4.0, 2.0), (4, 1.0, 13.0)] {
        let layer = &mut job["pieces"][0]["face"]["layers"][at];
        (layer["x"], layer["y"]) = (json!(x), json!(y));
    }
    let piece = job["pieces"][0]["id"].clone();
    // Left, right, upper and lower side of each of the three, in that order.
    let sides = |job: &Value| -> Vec<[f64; 4]> {
        let (status, seen) = api.post("/api/preview", &json!({ "job": job }));
        assert_eq!(status, 200, "{seen}");
        let layers = seen["pieces"][0]["face"]["view"]["layers"].as_array().unwrap().clone();
        let side = |layer: &Value| {
            let place = &layer["place"];
            let figure = |name: &str, axis: usize| place[name][axis].as_f64().unwrap();
            let reach = |axis| figure("bounds", axis) / 2.0;
            let (x, y) = (figure("centre", 0), figure("centre", 1));
            [x - reach(0), x + reach(0), y - reach(1), y + reach(1)]
        };
        layers[2..5].iter().map(side).collect()
    };
    let lined = |how: &str| -> Value {
        let asked = json!({ "job": job, "piece": piece, "layers": ["l3", "l4", "l5"], "how": how });
        let (status, changes) = api.post("/api/layers/line-up", &asked);
        assert_eq!(status, 200, "{how}: {changes}");
        let changes: Vec<Change> = serde_json::from_value(changes).unwrap();
        let known: Job = serde_json::from_value(job.clone()).unwrap();
        serde_json::to_value(with_changes(&known, &changes).unwrap()).unwrap()
    };
    let same = |values: Vec<f64>, what: &str| {
        let off = values.iter().map(|own| (own - values[0]).abs()).fold(0.0, f64::max);
        assert!(off < 2e-3, "{what}: {values:?}");
    };
    for (how, side) in [("left", 0), ("right", 1), ("top", 2), ("bottom", 3)] {
        same(sides(&lined(how)).iter().map(|own| own[side]).collect(), how);
    }
    for (how, axis) in [("centre", 0), ("middle", 2)] {
        let middles = sides(&lined(how)).iter().map(|own| own[axis] + own[axis + 1]).collect();
        same(middles, how);
    }
    // Gaps between neighbours are alike, and the outermost stay where they are.
    let before = sides(&job);
    for (how, axis) in [("gaps-across", 0), ("gaps-down", 2)] {
        let after = sides(&lined(how));
        let ends = |all: &[[f64; 4]]| {
            let low = all.iter().map(|own| own[axis]).fold(f64::MAX, f64::min);
            [low, all.iter().map(|own| own[axis + 1]).fold(f64::MIN, f64::max)]
        };
        let (was, is) = (ends(&before), ends(&after));
        assert!(
            (was[0] - is[0]).abs() < 2e-3 && (was[1] - is[1]).abs() < 2e-3,
            "{how}: {was:?} {is:?}"
        );
        // They keep the order in which their middles were.
        let mut order: Vec<usize> = (0..after.len()).collect();
        let middle = |at: &usize| before[*at][axis] + before[*at][axis + 1];
        order.sort_by(|one, other| middle(one).total_cmp(&middle(other)));
        let gap = |pair: &[usize]| after[pair[1]][axis] - after[pair[0]][axis + 1];
        same(order.windows(2).map(gap).collect(), how);
    }
    let asked = json!({ "job": job, "piece": "p9", "layers": ["l3"], "how": "left" });
    assert_eq!(api.post("/api/layers/line-up", &asked).0, 404);
}
