//! Pictures over the API: kept once, told when they are missing, carried to another store, dropped when nobody
//! names them, and never lost once they are acknowledged.

#![allow(clippy::cast_possible_truncation, reason = "small pictures")]

use std::io::{BufRead, BufReader, Cursor, Read, Write};
use std::net::TcpStream;
use std::process::{Child, Command, Stdio};
use std::sync::Barrier;

use aptum::demo;
use aptum::serve::{Listen, server};
use aptum::store::Store;
use aptum_core::blob::{BlobId, Blobs};
use aptum_formats::archive::blob_id;
use aptum_formats::content::Content;
use aptum_formats::picture::Picture;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use image::{DynamicImage, ImageFormat, RgbImage};
use rocket::http::Header;
use rocket::local::blocking::Client;
use serde_json::{Value, json};
use tempfile::TempDir;

const HOST: &str = "127.0.0.1:4870";

pub fn picture(width: u32) -> Vec<u8> {
    let pixels = RgbImage::from_fn(width, 30, |x, y| image::Rgb([x as u8, y as u8, 77]));
    let mut bytes = Cursor::new(Vec::new());
    DynamicImage::from(pixels).write_to(&mut bytes, ImageFormat::Png).unwrap();
    bytes.into_inner()
}

fn client(folder: &TempDir) -> Client {
    let store = Store::open(folder.path()).unwrap();
    demo::start_jobs(&store).unwrap();
    Client::tracked(server(store, Listen::at_home(4870))).unwrap()
}

fn send(client: &Client, method: &str, path: &str, body: &[u8]) -> (u16, Value) {
    let host = Header::new("Host", HOST);
    let request = match method {
        "POST" => client.post(path.to_owned()),
        "PUT" => client.put(path.to_owned()),
        _ => client.get(path.to_owned()),
    };
    let response = request.header(host).body(body).dispatch();
    (response.status().code, response.into_json().unwrap_or(Value::Null))
}

/// The tomato carton with a picture on its front.
fn wearing(job: &Value, blob: &Value) -> Value {
    let mut job = job.clone();
    job["pieces"][0]["face"]["layers"].as_array_mut().unwrap().push(json!({
        "id": "l9", "kind": "picture", "blob": blob["id"], "pixels": blob["pixels"],
        "origin": { "name": "tomato.png", "licence": "mine" },
        "panel": "Front", "x": 0, "y": 0, "size": { "by": "panel" },
    }));
    job
}

#[test]
fn a_picture_is_kept_once_given_back_and_named_when_it_is_missing() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let bytes = picture(40);
    let (status, blob) = send(&client, "POST", "/api/blobs", &bytes);
    assert_eq!(
        (status, &blob["media"], &blob["pixels"]),
        (200, &json!("image/png"), &json!([40, 30]))
    );
    assert_eq!(send(&client, "POST", "/api/blobs", &bytes).1, blob);
    let address = format!("/api/blobs/{}", blob["id"].as_str().unwrap());
    let given = client.get(address).header(Header::new("Host", HOST)).dispatch();
    assert_eq!(given.content_type().unwrap().to_string(), "image/png");
    assert!(given.headers().get_one("Cache-Control").unwrap().contains("immutable"));
    assert_eq!(given.into_bytes().unwrap(), bytes);

    let job = send(&client, "GET", "/api/jobs/3", b"").1["job"].clone();
    let worn = wearing(&job, &blob);
    let (status, seen) =
        send(&client, "POST", "/api/preview", json!({ "job": worn }).to_string().as_bytes());
    assert_eq!(status, 200, "{seen}");
    let has = |seen: &Value, id: &str| {
        seen["checks"].as_array().unwrap().iter().any(|check| check["id"] == id)
    };
    assert!(has(&seen, "ppi-l9") && !has(&seen, "picture-l9"));
    let lost = wearing(&job, &json!({ "id": "0".repeat(64), "pixels": [40, 30] }));
    let seen =
        send(&client, "POST", "/api/preview", json!({ "job": lost }).to_string().as_bytes()).1;
    let checks = seen["checks"].as_array().unwrap();
    let missing = checks.iter().find(|check| check["id"] == "picture-l9").unwrap();
    assert_eq!(missing["state"], "broken");
    assert!(missing["bound_text"].as_str().unwrap().contains("tomato.png"), "{missing}");
    let face = seen["stages"].as_array().unwrap().iter().find(|stage| stage["stage"] == "face");
    assert_eq!(face.unwrap()["state"], "broken");
    assert_eq!(send(&client, "GET", &format!("/api/blobs/{}", "0".repeat(64)), b"").0, 404);
    assert_eq!(send(&client, "GET", "/api/blobs/..%2f..%2fetc%2fpasswd", b"").0, 404);
}

#[test]
fn what_is_no_picture_is_refused_and_nothing_is_kept() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let whole = picture(200);
    for (bytes, status, words) in [
        (Vec::new(), 422, "empty"),
        (b"<html>".to_vec(), 422, "no picture (PNG, JPEG"),
        (whole[..whole.len() / 2].to_vec(), 422, "damaged or cut off"),
        (vec![0; (64 << 20) + 1], 413, "up to 64 MiB"),
    ] {
        let (got, problem) = send(&client, "POST", "/api/blobs", &bytes);
        assert_eq!(got, status);
        assert_eq!(problem["type"], "/problems/picture");
        assert!(problem["detail"].as_str().unwrap().contains(words), "{problem}");
    }
    drop(client);
    let store = Store::read(folder.path()).unwrap();
    assert!(!store.holds(&blob_id(&whole)));
}

#[test]
fn two_uploads_of_the_same_bytes_at_once_are_one_picture() {
    let folder = TempDir::new().unwrap();
    let store = Store::open(folder.path()).unwrap();
    let bytes = picture(90);
    let start = Barrier::new(4);
    let ids: Vec<BlobId> = std::thread::scope(|scope| {
        let all: Vec<_> = (0..4)
            .map(|_| {
                scope.spawn(|| {
                    let picture = Picture::of(&bytes).unwrap();
                    start.wait();
                    store.add_blob(Content::Picture(picture), &bytes).unwrap()
                })
            })
            .collect();
        all.into_iter().map(|one| one.join().unwrap()).collect()
    });
    assert!(ids.iter().all(|id| *id == blob_id(&bytes)), "{ids:?}");
    drop(store);
    assert_eq!(count(&folder, "blobs WHERE width = 90"), 1);
}

#[derive(QueryableByName)]
struct Count {
    #[diesel(sql_type = diesel::sql_types::BigInt)]
    count: i64,
}

fn raw(folder: &TempDir) -> SqliteConnection {
    SqliteConnection::establish(&folder.path().join("aptum.sqlite").to_string_lossy()).unwrap()
}

pub fn count(folder: &TempDir, what: &str) -> i64 {
    let query = diesel::sql_query(format!("SELECT count(*) AS count FROM {what}"));
    query.get_result::<Count>(&mut raw(folder)).unwrap().count
}

#[test]
fn a_picture_stays_while_a_revision_names_it_and_goes_with_the_last() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let blob = send(&client, "POST", "/api/blobs", &picture(51)).1;
    let open = send(&client, "GET", "/api/jobs/3", b"").1;
    let change = json!({ "version": open["version"], "job": wearing(&open["job"], &blob) });
    let worn = send(&client, "PUT", "/api/jobs/3", change.to_string().as_bytes()).1;
    // Undone, and redone: it is there for both.
    let version = json!({ "version": worn["version"] }).to_string();
    let undone = send(&client, "POST", "/api/jobs/3/undo", version.as_bytes()).1;
    raw(&folder).batch_execute("UPDATE blobs SET added_at = datetime('now', '-3 days')").unwrap();
    let other = send(&client, "GET", "/api/jobs/4", b"").1;
    let mut renamed = other["job"].clone();
    renamed["name"] = json!("Another");
    let change = json!({ "version": other["version"], "job": renamed });
    send(&client, "PUT", "/api/jobs/4", change.to_string().as_bytes());
    assert_eq!(count(&folder, "blobs WHERE width = 51"), 1, "it can still be redone");
    // Another change takes what could be redone away, and the picture with it.
    let mut plain = undone["job"].clone();
    plain["name"] = json!("Plain");
    let change = json!({ "version": undone["version"], "job": plain });
    send(&client, "PUT", "/api/jobs/3", change.to_string().as_bytes());
    assert_eq!(count(&folder, "blobs WHERE width = 51"), 0);
    assert_eq!(count(&folder, "blobs"), 11, "the demo's own are named by its jobs");
}

#[test]
fn an_archive_carries_a_picture_to_another_store() {
    let (here, there) = (TempDir::new().unwrap(), TempDir::new().unwrap());
    let (one, two) = (client(&here), client(&there));
    let bytes = picture(64);
    let blob = send(&one, "POST", "/api/blobs", &bytes).1;
    let job = send(&one, "GET", "/api/jobs/3", b"").1["job"].clone();
    let made = send(&one, "POST", "/api/jobs", wearing(&job, &blob).to_string().as_bytes()).1;
    let path = format!("/api/jobs/{}/job.aptum", made["id"]);
    let archive = one.get(path).header(Header::new("Host", HOST)).dispatch().into_bytes().unwrap();
    let (status, brought) = send(&two, "POST", "/api/jobs/import", &archive);
    assert_eq!(status, 200, "{brought}");
    let layers = brought["job"]["pieces"][0]["face"]["layers"].as_array().unwrap();
    assert_eq!(layers.last().unwrap()["origin"]["licence"], "mine");
    drop(two);
    let store = Store::read(there.path()).unwrap();
    assert_eq!(*store.bytes(&BlobId(blob["id"].as_str().unwrap().to_owned())).unwrap(), *bytes);
}

/// The program with the demo data, and where it listens.
pub fn serve(mut program: Command, folder: &TempDir) -> (Child, String) {
    let demo = program.args(["demo", "--port", "0", "--data"]).arg(folder.path());
    let mut served = demo.stdout(Stdio::piped()).spawn().unwrap();
    let line = BufReader::new(served.stdout.take().unwrap()).lines().next().unwrap().unwrap();
    (served, line.split("http://").nth(1).unwrap().to_owned())
}

fn upload(host: &str, bytes: &[u8]) -> String {
    let mut stream = TcpStream::connect(host).unwrap();
    let length = bytes.len();
    write!(stream, "POST /api/blobs HTTP/1.1\r\nHost: {host}\r\nConnection: close\r\nContent-Length: {length}\r\n\r\n").unwrap();
    stream.write_all(bytes).unwrap();
    let mut answer = String::new();
    stream.read_to_string(&mut answer).unwrap();
    answer
}

#[test]
fn a_picture_that_was_acknowledged_survives_a_kill() {
    let folder = TempDir::new().unwrap();
    let (mut served, host) = serve(Command::new(env!("CARGO_BIN_EXE_aptum")), &folder);
    let bytes = picture(333);
    let answer = upload(&host, &bytes);
    assert!(answer.starts_with("HTTP/1.1 200"), "{answer}");
    served.kill().unwrap();
    served.wait().unwrap();
    let store = Store::open(folder.path()).unwrap();
    assert_eq!(*store.bytes(&blob_id(&bytes)).unwrap(), *bytes);
}

/// A picture that is cleaned up is another one; what it was made from is held with it and carried along.
#[test]
fn a_cleaned_picture_and_its_original_are_held_and_carried() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let (_, blob) = send(&client, "POST", "/api/blobs", &picture(40));
    let make = |from: &Value, steps: Value| {
        let ask = json!({ "from": from, "steps": steps }).to_string();
        send(&client, "POST", "/api/pictures", ask.as_bytes())
    };
    let right_half =
        json!([{ "kind": "rectangle", "corners": [[0.5, 0.0], [1.0, 1.0]] }, { "kind": "crop" }]);
    let (status, made) = make(&blob["id"], right_half.clone());
    assert_eq!((status, &made["pixels"]), (200, &json!([20, 30])));
    assert_ne!(made["id"], blob["id"]);
    assert_eq!(make(&blob["id"], right_half.clone()).1, made, "the same each time");

    let job = send(&client, "GET", "/api/jobs/3", b"").1["job"].clone();
    let mut worn = wearing(&job, &made);
    worn["pieces"][0]["face"]["layers"][2]["reworked"] =
        json!({ "from": blob["id"], "pixels": blob["pixels"], "steps": right_half });
    let change = json!({ "version": 1, "job": worn }).to_string();
    assert_eq!(send(&client, "PUT", "/api/jobs/3", change.as_bytes()).0, 200);
    let archive = client.get("/api/jobs/3/job.aptum").header(Header::new("Host", HOST)).dispatch();
    let archive = archive.into_bytes().unwrap();
    let elsewhere = TempDir::new().unwrap();
    let other = self::client(&elsewhere);
    assert_eq!(send(&other, "POST", "/api/jobs/import", &archive).0, 200);
    for id in [&made["id"], &blob["id"]] {
        let path = format!("/api/blobs/{}", id.as_str().unwrap());
        assert_eq!(other.get(path).header(Header::new("Host", HOST)).dispatch().status().code, 200);
    }

    let refused = |steps: Value| {
        let (status, problem) = make(&blob["id"], steps);
        assert_eq!(status, 422, "{problem}");
        format!("{} {}", problem["detail"], problem["errors"])
    };
    let background = |from: Value, tolerance: f64| json!([{ "kind": "background", "from": from, "tolerance": tolerance, "soft": 0.0 }]);
    let all = refused(background(json!({ "by": "everywhere" }), 100.0));
    assert!(all.contains("leaves nothing of the picture"), "{all}");
    let beside = refused(background(json!({ "by": "point", "at": [1.5, 0.5] }), 5.0));
    assert!(beside.contains("begins beside the picture"), "{beside}");
    let far = refused(background(json!({ "by": "point", "at": [1e9, 0.5] }), 5.0));
    assert!(far.contains("far beside the picture"), "{far}");
    let loose = refused(background(json!({ "by": "edges" }), 101.0));
    assert!(loose.contains("must lie between 0 and 100"), "{loose}");
    let part = refused(json!([{ "kind": "part", "part": 0 }]));
    assert!(part.contains("is for drawings"), "{part}");
    let many = refused(json!(vec![json!({ "kind": "crop" }); 201]));
    assert!(many.contains("201 steps: it has up to 200"), "{many}");
    let slow = refused(json!(vec![json!({ "kind": "specks", "under": 5 }); 21]));
    assert!(slow.contains("up to 20"), "{slow}");
    let (status, problem) = make(&json!("f".repeat(64)), json!([]));
    assert_eq!(status, 404, "{problem}");
    assert_eq!(send(&client, "GET", &format!("/api/blobs/{}/parts", "f".repeat(64)), b"").0, 404);
    let parts = format!("/api/blobs/{}/parts", blob["id"].as_str().unwrap());
    assert_eq!(send(&client, "GET", &parts, b"").0, 422, "a picture has no parts");
}

/// A typeface of one's own goes with the job; without it the job works and says so.
#[test]
fn a_typeface_of_ones_own_is_kept_and_told_when_it_is_missing() {
    let folder = TempDir::new().unwrap();
    let client = client(&folder);
    let bytes = aptum_core::lettering::Typeface::find("script").unwrap().bytes();
    let (status, font) = send(&client, "POST", "/api/fonts", bytes);
    assert_eq!((status, &font["name"]), (200, &json!("Dancing Script Bold")), "{font}");
    for (bytes, words) in [
        (b"GIF89a".as_slice(), "no typeface (TTF, OTF, WOFF2)"),
        (b"", "empty"),
        (&bytes[..2000], "damaged or cut off"),
    ] {
        let (status, problem) = send(&client, "POST", "/api/fonts", bytes);
        assert_eq!(status, 422);
        assert!(problem["detail"].as_str().unwrap().contains(words), "{problem}");
    }
    assert_eq!(send(&client, "POST", "/api/fonts", &vec![0; (16 << 20) + 1]).0, 413);

    let mut job = send(&client, "GET", "/api/jobs/3", b"").1["job"].clone();
    job["pieces"][0]["face"]["layers"].as_array_mut().unwrap().push(json!({
        "id": "l9", "kind": "text", "panels": ["Front"], "words": "Käthe", "typeface": "plain",
        "own_typeface": { "blob": font["id"], "origin": { "name": "Käthes Hand" } },
        "colour": "#112233", "size": { "by": "points", "value": 20 },
    }));
    let change = json!({ "version": 1, "job": job }).to_string();
    let (status, saved) = send(&client, "PUT", "/api/jobs/3", change.as_bytes());
    assert_eq!(status, 200, "{saved}");
    let shown = |open: &Value| {
        let arts = &open["preview"]["pieces"][0]["face"]["view"]["arts"][0]["layers"];
        let own = arts.as_array().unwrap().iter().find(|layer| layer["layer"] == "l9").unwrap();
        own["path"].clone()
    };
    let missing = |open: &Value| {
        let checks = open["preview"]["checks"].as_array().unwrap();
        checks.iter().any(|check| check["id"] == "typeface-l9" && check["state"] == "broken")
    };
    let open = send(&client, "GET", "/api/jobs/3", b"").1;
    assert!(!missing(&open));
    let archive = client.get("/api/jobs/3/job.aptum").header(Header::new("Host", HOST)).dispatch();
    let archive = archive.into_bytes().unwrap();
    let elsewhere = TempDir::new().unwrap();
    let other = self::client(&elsewhere);
    let carried = send(&other, "POST", "/api/jobs/import", &archive).1;
    assert!(!missing(&carried));
    assert_eq!(shown(&carried), shown(&open), "the same letters elsewhere");

    // The document alone, without what it names.
    let mut alone = job.clone();
    alone["pieces"][0]["face"]["layers"][2]["own_typeface"]["blob"] = json!("e".repeat(64));
    let change = json!({ "version": 2, "job": alone }).to_string();
    let (status, without) = send(&client, "PUT", "/api/jobs/3", change.as_bytes());
    assert_eq!(status, 200, "{without}");
    assert!(missing(&without));
    assert_ne!(shown(&without), shown(&open));
}
