//! A disk that is full: whatever it happens in is told with its remedy, and what was kept before stays as it was.

#![cfg(target_os = "linux")]

use std::io::{Cursor, Read, Write};
use std::net::TcpStream;
use std::process::{Child, Command};

use aptum::store::Store;
use aptum_core::blob::Blobs;
use aptum_formats::archive::blob_id;
use image::{DynamicImage, ImageFormat, RgbImage};
use serde_json::{Value, json};
use tempfile::TempDir;

use super::pictures::{count, picture, serve};

/// A server none of whose files may grow past 4 MiB.
fn bounded(folder: &TempDir) -> (Child, String) {
    let mut program = Command::new("bash");
    let limits = "trap '' XFSZ; ulimit -f 4096; exec \"$0\" \"$@\"";
    program.args(["-c", limits, env!("CARGO_BIN_EXE_aptum")]);
    serve(program, folder)
}

/// The status and the body of an answer.
fn ask(host: &str, what: &str, body: &[u8]) -> (u16, Vec<u8>) {
    let mut stream = TcpStream::connect(host).unwrap();
    let length = body.len();
    let head = format!(
        "{what} HTTP/1.0\r\nHost: {host}\r\nOrigin: http://{host}\r\nContent-Length: {length}\r\n\r\n"
    );
    stream.write_all(head.as_bytes()).unwrap();
    stream.write_all(body).unwrap();
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer).unwrap();
    let end = answer.windows(4).position(|four| four == b"\r\n\r\n").unwrap();
    let status = std::str::from_utf8(&answer[9..12]).unwrap().parse().unwrap();
    (status, answer.split_off(end + 4))
}

fn ended(mut served: Child) {
    served.kill().unwrap();
    served.wait().unwrap();
}

#[test]
fn a_picture_that_has_no_room_is_told_and_harms_nothing() {
    let folder = TempDir::new().unwrap();
    let (served, host) = bounded(&folder);
    let mut random = fastrand::Rng::with_seed(4);
    // Noise does not pack: about 6.7 MB.
    let noise = RgbImage::from_fn(1500, 1500, |_, _| image::Rgb([0; 3].map(|_: u8| random.u8(..))));
    let mut large = Cursor::new(Vec::new());
    DynamicImage::from(noise).write_to(&mut large, ImageFormat::Png).unwrap();
    let (status, answer) = ask(&host, "POST /api/blobs", &large.into_inner());
    let answer = String::from_utf8(answer).unwrap();
    assert_eq!(status, 507, "{answer}");
    assert!(answer.contains("free space on the disk"), "{answer}");
    let small = picture(44);
    assert_eq!(ask(&host, "POST /api/blobs", &small).0, 200, "what has room is kept");
    ended(served);
    assert_eq!(count(&folder, "blobs"), 12, "the demo's and the small one");
    let store = Store::open(folder.path()).unwrap();
    assert_eq!(*store.bytes(&blob_id(&small)).unwrap(), *small);
    assert_eq!(store.jobs().unwrap().len(), 34);
}

/// Sheets are frozen until there is no room for another print: that one is told and is not there, and all those before it
/// are, whole.
#[test]
fn a_print_that_cannot_be_frozen_is_told_and_those_before_it_stay_whole() {
    let folder = TempDir::new().unwrap();
    let (served, host) = bounded(&folder);
    let job: Value = serde_json::from_slice(&ask(&host, "GET /api/jobs/13", b"").1).unwrap();
    let freeze = json!({ "version": job["version"] }).to_string();
    let prints = || -> usize {
        let (status, view) = ask(&host, "GET /api/jobs/13/run", b"");
        assert_eq!(status, 200);
        let view: Value = serde_json::from_slice(&view).unwrap();
        view["prints"].as_array().unwrap().len()
    };
    let of_job = prints();
    let mut frozen: Vec<Value> = Vec::new();
    let answer = loop {
        assert!(frozen.len() < 400, "the disk is never full");
        let (status, answer) = ask(&host, "POST /api/jobs/13/prints", freeze.as_bytes());
        if status != 200 {
            assert_eq!(status, 507);
            break String::from_utf8(answer).unwrap();
        }
        let view: Value = serde_json::from_slice(&answer).unwrap();
        frozen.push(view["prints"][0]["id"].clone());
    };
    assert!(answer.contains("free space on the disk"), "{answer}");
    assert!(frozen.len() > 1, "{}", frozen.len());
    assert_eq!(prints(), of_job + frozen.len());
    for id in [&frozen[0], &frozen[frozen.len() - 1]] {
        let (status, pdf) = ask(&host, &format!("GET /api/prints/{id}/print.pdf"), b"");
        assert_eq!(status, 200);
        assert!(pdf.starts_with(b"%PDF") && pdf.trim_ascii_end().ends_with(b"%%EOF"));
    }
    ended(served);
    let kept = count(&folder, "prints WHERE job = 13");
    assert_eq!(usize::try_from(kept).unwrap(), of_job + frozen.len());
}
