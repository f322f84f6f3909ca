//! The server killed in the middle of what two clients do: whatever was acknowledged is there afterwards.
//!
//! A few kills in every run; `make soak` asks for 200 by APTUM_KILLS.

use std::collections::BTreeMap;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::sync::Mutex;
use std::time::Duration;

use aptum_core::Job;
use aptum_core::blob::NoBlobs;
use aptum_formats::archive::JobFile;
use serde_json::{Value, json};
use tempfile::TempDir;

fn start(data: &Path) -> (Child, String) {
    let mut server = Command::new(env!("CARGO_BIN_EXE_aptum"))
        .args(["demo", "--port", "0", "--data"])
        .arg(data)
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let line = BufReader::new(server.stdout.take().unwrap()).lines().next().unwrap().unwrap();
    (server, line.split("http://").nth(1).unwrap().to_owned())
}

/// An answer that came whole: its status and body. Nothing where the server was killed meanwhile.
fn ask(host: &str, method: &str, path: &str, body: &[u8]) -> Option<(u16, Value)> {
    let mut stream = TcpStream::connect(host).ok()?;
    stream.set_read_timeout(Some(Duration::from_secs(20))).ok()?;
    let length = body.len();
    write!(stream, "{method} {path} HTTP/1.1\r\nHost: {host}\r\nConnection: close\r\nContent-Length: {length}\r\n\r\n").ok()?;
    stream.write_all(body).ok()?;
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer).ok()?;
    let text = String::from_utf8_lossy(&answer).into_owned();
    let (head, body) = text.split_once("\r\n\r\n")?;
    let status = head.split(' ').nth(1)?.parse().ok()?;
    // An answer that was broken off by the kill acknowledges nothing.
    let value = if body.is_empty() { Value::Null } else { serde_json::from_str(body).ok()? };
    Some((status, value))
}

/// What was acknowledged: each job's name, and each record that was added or removed.
#[derive(Default)]
struct Acknowledged {
    jobs: BTreeMap<i64, String>,
    records: BTreeMap<String, bool>,
}

fn client(host: &str, who: u64, kill: u64, seen: &Mutex<Acknowledged>) {
    let mut random = fastrand::Rng::with_seed(kill * 2 + who);
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let workshop: aptum_core::Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    let mut own: Vec<(i64, i64)> = Vec::new();
    for number in 0.. {
        let name = format!("{kill}-{who}-{number}");
        let named = Job { name: name.clone(), ..job.clone() };
        let done = match random.u8(0..5) {
            0 => {
                let body = serde_json::to_vec(&named).unwrap();
                let Some((status, answer)) = ask(host, "POST", "/api/jobs", &body) else { return };
                (status == 200).then_some(answer)
            }
            1 => {
                let mut brought = workshop.clone();
                let mut card = brought.stocks[&job.pieces[0].stock].clone();
                card.caliper = 0.2 + random.f64() / 10.0;
                brought.stocks.insert("soak-card".into(), card);
                let mut carded = named;
                carded.pieces[0].stock = "soak-card".into();
                let file = JobFile::new(&carded, &brought);
                let bytes = file.to_archive(&NoBlobs).unwrap();
                let Some((status, answer)) = ask(host, "POST", "/api/jobs/import", &bytes) else {
                    return;
                };
                (status == 200).then_some(answer)
            }
            2 | 3 if !own.is_empty() => {
                let at = random.usize(0..own.len());
                let (id, version) = own[at];
                let body = json!({ "version": version, "job": named }).to_string();
                let path = format!("/api/jobs/{id}");
                let Some((status, answer)) = ask(host, "PUT", &path, body.as_bytes()) else {
                    // It may have been kept without being acknowledged: what it is called is not known.
                    seen.lock().unwrap().jobs.remove(&id);
                    return;
                };
                if status == 200 {
                    own[at].1 = answer["version"].as_i64().unwrap();
                }
                (status == 200).then_some(answer)
            }
            _ => {
                let Some((_, state)) = ask(host, "GET", "/api/workshop/state", b"") else { return };
                let mut record = state["workshop"]["printers"]["front-desk-laser"].clone();
                record["kind"] = json!("printers");
                record["name"] = json!(format!("soak {name}"));
                let body = json!({ "version": state["version"], "record": record }).to_string();
                let Some((status, added)) =
                    ask(host, "POST", "/api/workshop/records", body.as_bytes())
                else {
                    return;
                };
                if status == 200 {
                    let id = added["touched"]["id"].as_str().unwrap().to_owned();
                    seen.lock().unwrap().records.insert(id.clone(), true);
                    let version = &added["version"];
                    let path = format!("/api/workshop/records/printers/{id}?version={version}");
                    if random.bool() {
                        match ask(host, "DELETE", &path, b"") {
                            Some((200, _)) => {
                                seen.lock().unwrap().records.insert(id, false);
                            }
                            Some(_) => {}
                            None => {
                                seen.lock().unwrap().records.remove(&id);
                                return;
                            }
                        }
                    }
                }
                None
            }
        };
        if let Some(answer) = done {
            let (id, version) =
                (answer["id"].as_i64().unwrap(), answer["version"].as_i64().unwrap());
            if !own.iter().any(|(known, _)| *known == id) {
                own.push((id, version));
            }
            seen.lock().unwrap().jobs.insert(id, name);
        }
    }
}

#[test]
fn no_acknowledged_change_is_lost_by_a_kill() {
    let kills: u64 =
        std::env::var("APTUM_KILLS").ok().and_then(|text| text.parse().ok()).unwrap_or(4);
    let data = TempDir::new().unwrap();
    let seen = Mutex::new(Acknowledged::default());
    for kill in 0..kills {
        let (mut server, host) = start(data.path());
        std::thread::scope(|scope| {
            for who in 0..2 {
                let (host, seen) = (&host, &seen);
                scope.spawn(move || client(host, who, kill, seen));
            }
            let mut random = fastrand::Rng::with_seed(kill + 1000);
            std::thread::sleep(Duration::from_millis(random.u64(150..900)));
            server.kill().unwrap();
            server.wait().unwrap();
        });
        let (mut server, host) = start(data.path());
        let (_, jobs) = ask(&host, "GET", "/api/jobs", b"").unwrap();
        let names: BTreeMap<i64, String> = jobs
            .as_array()
            .unwrap()
            .iter()
            .map(|job| (job["id"].as_i64().unwrap(), job["name"].as_str().unwrap().to_owned()))
            .collect();
        let (_, state) = ask(&host, "GET", "/api/workshop/state", b"").unwrap();
        server.kill().unwrap();
        server.wait().unwrap();
        let seen = seen.lock().unwrap();
        for (id, name) in &seen.jobs {
            assert_eq!(names.get(id), Some(name), "job {id} after kill {kill}");
        }
        for (id, is_there) in &seen.records {
            let found = !state["workshop"]["printers"][id].is_null();
            assert_eq!(found, *is_there, "record {id} after kill {kill}");
        }
    }
    let seen = seen.lock().unwrap();
    assert!(seen.jobs.len() > 4 && !seen.records.is_empty(), "something was done");
}
