//! The program as its user meets it: start, memory, preview over HTTP, first load of the page.
#![allow(clippy::unwrap_used, clippy::cast_possible_truncation, reason = "a bench")]

use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

fn main() {
    let machine = std::fs::read_to_string("/proc/cpuinfo").unwrap_or_default();
    let model =
        machine.lines().find_map(|line| line.strip_prefix("model name")).unwrap_or(": unknown");
    let cores = std::thread::available_parallelism().map_or(0, usize::from);
    println!("machine{model}, {cores} cores\n");

    let data = tempfile::TempDir::new().unwrap();
    let start = Instant::now();
    let mut server = Command::new(env!("CARGO_BIN_EXE_aptum"))
        .args(["demo", "--port", "0", "--data"])
        .arg(data.path())
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let line = BufReader::new(server.stdout.take().unwrap()).lines().next().unwrap().unwrap();
    let host = line.split("http://").nth(1).unwrap().to_owned();
    let jobs = ask(&host, "GET", "/api/jobs", "");
    assert!(jobs.starts_with(b"["));
    show("start to first answer", start.elapsed(), "0.3 s");

    previews(&host);
    picture(&host);

    let status =
        std::fs::read_to_string(format!("/proc/{}/status", server.id())).unwrap_or_default();
    let resident =
        status.lines().find(|line| line.starts_with("VmRSS")).unwrap_or("VmRSS: unknown");
    println!("{:<32} {:>14}   to reach: 60 MB", "resident memory", resident[6..].trim());

    card(&host);
    many_jobs(&host);
    under_load(&host);

    // Sheets filled with many small pieces, as long as the search goes on.
    let set: serde_json::Value =
        serde_json::from_slice(&ask(&host, "GET", "/api/jobs/18", "")).unwrap();
    let mut set = set["job"].clone();
    set["pieces"][0]["copies"] = 300.into();
    set["sheet"]["search"]["budget"] = 10.into();
    let start = Instant::now();
    ask(&host, "POST", "/api/jobs/18/nest", &set.to_string());
    show("nesting with a budget of 10 s", start.elapsed(), "10 s");
    let status =
        std::fs::read_to_string(format!("/proc/{}/status", server.id())).unwrap_or_default();
    let most = status.lines().find(|line| line.starts_with("VmHWM")).unwrap_or("VmHWM: unknown");
    println!("{:<32} {:>14}   to reach: 300 MB", "most memory", most[6..].trim());

    let page = String::from_utf8(ask(&host, "GET", "/", "")).unwrap();
    let mut bytes = page.len();
    // What the page names, and the faces it shows at once.
    for name in page.split('"').filter(|part| part.starts_with("/assets/")) {
        bytes += packed(&host, name);
        if name.ends_with(".css") {
            let css = String::from_utf8(ask(&host, "GET", name, "")).unwrap();
            let faces = css.split("url(").skip(1).filter_map(|rest| rest.split(')').next());
            let latin = faces.filter(|face| {
                face.contains("-latin-") && face.ends_with(".woff2") && !face.contains("-ext-")
            });
            bytes += latin.map(|face| packed(&host, face)).sum::<usize>();
        }
    }
    println!("{:<32} {:>11} kB   to reach: 300 kB", "first load, packed", bytes / 1024);
    server.kill().unwrap();
    server.wait().unwrap();
}

/// Previews of one thing changed after the other, each new, so that none has been prepared before.
fn previews(host: &str) {
    let opened: serde_json::Value =
        serde_json::from_slice(&ask(host, "GET", "/api/jobs/3", "")).unwrap();
    let mut job = opened["job"].clone();
    let mut known = Vec::new();
    let mut median = |what: &str, bound: &str, change: &dyn Fn(&mut serde_json::Value, f64)| {
        let mut times: Vec<Duration> = (0..200)
            .map(|turn| {
                change(&mut job, f64::from(turn) / 100.0);
                previewed(host, &job, &mut known)
            })
            .collect();
        times.sort();
        show(&format!("preview, {what}, median"), times[100], bound);
        show("  99 of 100", times[198], "");
    };
    median("a carton", "4 ms", &|job, by| {
        job["pieces"][0]["form"]["length"] = (36.0 + by).into();
    });
    median("the sheet alone", "2 ms", &|job, by| job["sheet"]["spacing"] = (2.0 + by).into());
    median("the face alone", "3 ms", &|job, by| {
        job["pieces"][0]["face"]["bleed"] = (1.0 + by / 4.0).into();
    });
    let placements: Vec<serde_json::Value> = (0..500)
        .map(|at| {
            let (x, y) = (f64::from(at % 25) * 14.0, f64::from(at / 25) * 20.0);
            serde_json::json!({ "part": 0, "x": x, "y": y, "turn": 0 })
        })
        .collect();
    let runs = serde_json::json!([{ "sheets": 1, "placements": placements }]);
    job["pieces"][0]["form"] = serde_json::json!({ "structure": "tag-rounded", "basis": "inside", "width": 12, "height": 18, "hole": 3 });
    job["sheet"]["kept"] = serde_json::json!({ "made": "by-hand", "blanks": [{ "piece": "p1", "part": "tag" }], "runs": runs });
    let mut times: Vec<Duration> = (0..100)
        .map(|turn| {
            job["sheet"]["kept"]["runs"][0]["placements"][7]["x"] =
                (77.0 + f64::from(turn) / 100.0).into();
            previewed(host, &job, &mut known)
        })
        .collect();
    times.sort();
    show("preview, 500 copies by hand, median", times[50], "8 ms");
}

/// A picture of 24 megapixels: brought in, placed, and given back.
fn picture(host: &str) {
    let pixels = image::RgbImage::from_fn(6000, 4000, |x, y| {
        image::Rgb([(x / 23) as u8, (y / 17) as u8, ((x ^ y) % 256) as u8])
    });
    let mut bytes = std::io::Cursor::new(Vec::new());
    image::DynamicImage::from(pixels).write_to(&mut bytes, image::ImageFormat::Jpeg).unwrap();
    let bytes = bytes.into_inner();
    let start = Instant::now();
    let answer = request_bytes(host, "POST", "/api/blobs", &bytes);
    let blob: serde_json::Value = serde_json::from_slice(&answer).unwrap();
    ask(host, "GET", &format!("/api/blobs/{}", blob["id"].as_str().unwrap()), "");
    show("24 megapixels, in and out", start.elapsed(), "1.5 s until seen");
    println!("{:<32} {:>11} kB", "  its size", bytes.len() / 1024);
}

/// A card of 40 traced stickers laid close together, as it is on the screen already.
fn card(host: &str) {
    let opened: serde_json::Value =
        serde_json::from_slice(&ask(host, "GET", "/api/jobs/23", "")).unwrap();
    let mut job = opened["job"].clone();
    let card = &mut job["pieces"][4]["form"]["gathered"];
    card["width"] = 200.into();
    for (member, count) in [14, 13, 13].into_iter().enumerate() {
        card["members"][member] =
            serde_json::json!({ "piece": format!("p{}", member + 1), "count": count });
    }
    card["members"].as_array_mut().unwrap().truncate(3);
    card["places"] = serde_json::Value::Null;
    ask(host, "POST", "/api/preview", &serde_json::json!({ "job": job }).to_string());
    for turning in ["upright", "quarter", "free"] {
        let asked = serde_json::json!({ "job": job, "piece": "p5", "turning": turning });
        let start = Instant::now();
        let mut events = BufReader::new(opening(
            host,
            "POST /api/cards/close",
            "",
            asked.to_string().as_bytes(),
        ));
        let mut line = String::new();
        while !line.starts_with("event:") {
            line.clear();
            assert!(events.read_line(&mut line).unwrap() > 0, "an event comes");
        }
        show(&format!("card of 40, {turning}: first layout"), start.elapsed(), "300 ms");
        events.read_to_string(&mut line).unwrap();
        show("  last", start.elapsed(), "");
    }
}

/// Changes a card that many of the jobs are made of.
fn touch_record(host: &str) {
    let state: serde_json::Value =
        serde_json::from_slice(&ask(host, "GET", "/api/workshop/state", "")).unwrap();
    let mut record = state["workshop"]["stocks"]["white-14pt"].clone();
    record["kind"] = "stocks".into();
    record["caliper"] = (record["caliper"].as_f64().unwrap() + 0.001).into();
    let entry = serde_json::json!({ "version": state["version"], "record": record }).to_string();
    let answer = ask(host, "PUT", "/api/workshop/records/white-14pt", &entry);
    let answer: serde_json::Value = serde_json::from_slice(&answer).unwrap();
    assert_ne!(answer["version"], state["version"], "{answer}");
}

/// The list of 500 jobs.
fn many_jobs(host: &str) {
    let there: Vec<serde_json::Value> =
        serde_json::from_slice(&ask(host, "GET", "/api/jobs", "")).unwrap();
    for copy in there.len()..500 {
        ask(host, "POST", &format!("/api/jobs/{}/copy", 1 + copy % 18), "");
    }
    let list = |what: &str, bound: &str| {
        let start = Instant::now();
        let jobs: serde_json::Value =
            serde_json::from_slice(&ask(host, "GET", "/api/jobs", "")).unwrap();
        show(what, start.elapsed(), bound);
        let jobs = jobs.as_array().unwrap();
        assert_eq!(jobs.len(), 500);
        let waiting = jobs.iter().filter(|job| job["is_current"] == false).count();
        println!("{:<32} {waiting:>11}", "  of which still to come");
        waiting
    };
    list("500 jobs, first list", "300 ms");
    while list("500 jobs, asked again", "") > 0 {
        std::thread::sleep(Duration::from_millis(400));
    }
    touch_record(host);
    list("500 jobs, a record changed", "50 ms");
}

/// 30 users open, preview, save and download for some seconds while one job is nested, one compares marks and one
/// asks for the files of 10,000 copies.
fn under_load(host: &str) {
    const USERS: u32 = 30;
    const FOR: Duration = Duration::from_secs(20);
    let job = |id: u32| -> serde_json::Value {
        let opened = ask(host, "GET", &format!("/api/jobs/{id}"), "");
        serde_json::from_slice::<serde_json::Value>(&opened).unwrap()
    };
    let number = |opened: &serde_json::Value| opened["id"].as_i64().unwrap();
    let made = |job: &serde_json::Value| -> serde_json::Value {
        serde_json::from_slice(&ask(host, "POST", "/api/jobs", &job.to_string())).unwrap()
    };
    let mut full = job(3)["job"].clone();
    full["pieces"][0]["form"] =
        serde_json::json!({ "structure": "tag-rounded", "width": 15, "height": 18, "hole": 3 });
    full["sheet"]["size"] = serde_json::json!({ "name": "Own", "width": 2000, "height": 2000 });
    for machine in ["printer", "cutter", "marks"] {
        full["sheet"][machine] = serde_json::Value::Null;
    }
    full["pieces"][0]["copies"] = 10_000.into();
    let full = number(&made(&full));
    let start = Instant::now();
    ask(host, "GET", &format!("/api/jobs/{full}/files"), "");
    show("files of 10,000 copies, listed", start.elapsed(), "200 ms");
    touch_record(host);
    let start = Instant::now();
    ask(host, "GET", &format!("/api/jobs/{full}/files"), "");
    show("  with a record changed since", start.elapsed(), "");
    let start = Instant::now();
    let bytes = ask(host, "GET", &format!("/api/jobs/{full}/print.pdf"), "").len();
    show("print PDF of 10,000 copies", start.elapsed(), "3 s");
    println!("{:<32} {:>11} kB", "its size", bytes / 1024);

    let (previews, saves) = (std::sync::Mutex::new(Vec::new()), std::sync::Mutex::new(Vec::new()));
    let longest = std::sync::Mutex::new(Duration::ZERO);
    let until = Instant::now() + FOR;
    let timed = |what: &dyn Fn() -> Vec<u8>, into: Option<&std::sync::Mutex<Vec<Duration>>>| {
        let start = Instant::now();
        let answer = what();
        let took = start.elapsed();
        if let Some(into) = into {
            into.lock().unwrap().push(took);
        }
        let mut longest = longest.lock().unwrap();
        *longest = took.max(*longest);
        answer
    };
    std::thread::scope(|scope| {
        scope.spawn(|| {
            let mut nested = job(18)["job"].clone();
            nested["pieces"][0]["copies"] = 300.into();
            nested["sheet"]["search"]["budget"] = FOR.as_secs().into();
            ask(host, "POST", "/api/jobs/18/nest", &nested.to_string());
        });
        scope.spawn(|| {
            let compared = job(3)["job"].to_string();
            while Instant::now() < until {
                ask(host, "POST", "/api/marks/compare", &compared);
            }
        });
        scope.spawn(|| {
            while Instant::now() < until {
                ask(host, "GET", &format!("/api/jobs/{full}/files"), "");
            }
        });
        for user in 0..USERS {
            let (timed, previews, saves) = (&timed, &previews, &saves);
            let (job, made) = (&job, &made);
            scope.spawn(move || {
                let own = made(&job(3)["job"]);
                let (id, mut version) =
                    (own["id"].as_i64().unwrap(), own["version"].as_i64().unwrap());
                let mut job = own["job"].clone();
                let mut spacing = 2.0 + f64::from(user) / 100.0;
                while Instant::now() < until {
                    spacing += 0.01;
                    job["sheet"]["spacing"] = spacing.into();
                    let text = serde_json::json!({ "job": job }).to_string();
                    timed(&|| ask(host, "POST", "/api/preview", &text), Some(previews));
                    let change = serde_json::json!({ "version": version, "job": job }).to_string();
                    let path = format!("/api/jobs/{id}");
                    let saved = timed(&|| ask(host, "PUT", &path, &change), Some(saves));
                    let saved: serde_json::Value = serde_json::from_slice(&saved).unwrap();
                    version = saved["version"].as_i64().unwrap();
                    timed(&|| ask(host, "GET", &format!("{path}/cut/1"), ""), None);
                    // As people work: a change or two a second.
                    std::thread::sleep(Duration::from_millis(600));
                }
            });
        }
    });
    for (what, times) in [("preview", previews), ("save", saves)] {
        let mut times = times.into_inner().unwrap();
        times.sort();
        let share = times.len() * 95 / 100;
        show(&format!("{what} under load, 95 of 100"), times[share], "100 ms");
        println!("{:<32} {:>11}", "  of so many", times.len());
    }
    show("longest wait of anybody", longest.into_inner().unwrap(), "1 s");
}

fn show(what: &str, time: Duration, bound: &str) {
    let bound = if bound.is_empty() { String::new() } else { format!("   to reach: {bound}") };
    println!("{what:<32} {:>11.2} ms{bound}", time.as_secs_f64() * 1e3);
}

/// How long a preview takes that is asked for as a page does, which has the views that it was sent before.
fn previewed(host: &str, job: &serde_json::Value, known: &mut Vec<String>) -> Duration {
    let text = serde_json::json!({ "job": job, "known": known }).to_string();
    let start = Instant::now();
    let answer = ask(host, "POST", "/api/preview", &text);
    let took = start.elapsed();
    let seen: serde_json::Value = serde_json::from_slice(&answer).unwrap();
    let piece = &seen["pieces"][0];
    let keys = [&seen["sheet"]["key"], &piece["flat"]["key"], &piece["face"]["key"]];
    *known = keys.into_iter().filter_map(|key| Some(key.as_str()?.to_owned())).collect();
    took
}

fn packed(host: &str, path: &str) -> usize {
    ask(host, "GET", path, "")
        .len()
        .min(request(host, "GET", path, "", "Accept-Encoding: gzip\r\n").len())
}

fn ask(host: &str, method: &str, path: &str, body: &str) -> Vec<u8> {
    request(host, method, path, body, "")
}

/// One request on a connection of its own; the answer's body.
fn request(host: &str, method: &str, path: &str, body: &str, headers: &str) -> Vec<u8> {
    sent(host, &format!("{method} {path}"), headers, body.as_bytes())
}

fn request_bytes(host: &str, method: &str, path: &str, body: &[u8]) -> Vec<u8> {
    sent(host, &format!("{method} {path}"), "", body)
}

/// A request whose answer comes.
fn opening(host: &str, what: &str, headers: &str, body: &[u8]) -> TcpStream {
    let mut stream = TcpStream::connect(host).unwrap();
    let length = body.len();
    write!(stream, "{what} HTTP/1.1\r\nHost: {host}\r\nConnection: close\r\n{headers}Content-Length: {length}\r\n\r\n").unwrap();
    stream.write_all(body).unwrap();
    stream
}

fn sent(host: &str, what: &str, headers: &str, body: &[u8]) -> Vec<u8> {
    let mut stream = opening(host, what, headers, body);
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer).unwrap();
    let body = answer.windows(4).position(|end| end == b"\r\n\r\n").unwrap() + 4;
    let chunked = answer[..body]
        .to_ascii_lowercase()
        .windows(26)
        .any(|part| part == b"transfer-encoding: chunked");
    let body = answer.split_off(body);
    if chunked { unchunked(&body) } else { body }
}

/// What was sent in chunks (RFC 9112, 7.1).
fn unchunked(mut rest: &[u8]) -> Vec<u8> {
    let mut whole = Vec::new();
    while let Some(end) = rest.windows(2).position(|end| end == b"\r\n") {
        let length = usize::from_str_radix(std::str::from_utf8(&rest[..end]).unwrap(), 16).unwrap();
        whole.extend_from_slice(&rest[end + 2..end + 2 + length]);
        rest = &rest[end + 4 + length..];
    }
    whole
}
