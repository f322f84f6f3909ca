//! Who is let in: hosts, origins, forms, and the passphrase.

use std::sync::Arc;

use aptum::demo;
use aptum::gate::Guard;
use aptum::serve::{Listen, server};
use aptum::store::Store;
use rocket::http::{Header, Method, Status};
use rocket::local::blocking::Client;
use serde_json::{Value, json};
use tempfile::TempDir;

fn client(listen: Listen) -> (TempDir, Client) {
    let folder = TempDir::new().unwrap();
    let store = Store::open(folder.path()).unwrap();
    demo::start_jobs(&store).unwrap();
    (folder, Client::tracked(server(store, listen)).unwrap())
}

fn ask(client: &Client, method: Method, path: &str, headers: &[(&str, &str)], body: &str) -> u16 {
    let mut request = client.req(method, path.to_owned()).body(body);
    for (name, value) in headers {
        request = request.header(Header::new((*name).to_owned(), (*value).to_owned()));
    }
    request.dispatch().status().code
}

#[test]
fn hosts_are_known_by_address_by_name_and_without_the_schemes_port() {
    let cases = |listen: Listen, hosts: &[(&str, u16)]| {
        let (_folder, client) = client(listen);
        for (host, want) in hosts {
            assert_eq!(
                ask(&client, Method::Get, "/api/meta", &[("Host", host)], ""),
                *want,
                "{host}"
            );
        }
    };
    cases(
        Listen::at_home(4870),
        &[
            ("127.0.0.1:4870", 200),
            ("LOCALHOST:4870", 200),
            ("[::1]:4870", 200),
            ("127.0.0.1", 403),
            ("192.168.7.7:4870", 403),
            ("seeds.example:4870", 403),
            ("", 403),
        ],
    );
    cases(Listen::at_home(80), &[("127.0.0.1", 200), ("localhost", 200), ("[::1]", 200)]);
    let sixth = Listen { address: "::1".parse().unwrap(), ..Listen::at_home(4870) };
    cases(sixth, &[("[::1]:4870", 200), ("localhost:4870", 200)]);
    // For everyone: by any address, and by the names that were given, through a proxy at any port.
    let names = vec!["seeds.example".to_owned()];
    let open = Listen { address: "0.0.0.0".parse().unwrap(), names, ..Listen::at_home(4870) };
    cases(
        open,
        &[
            ("192.168.7.7:4870", 200),
            ("seeds.example", 200),
            ("seeds.example:8443", 200),
            ("other.example:4870", 403),
        ],
    );
}

#[test]
fn other_sites_and_forms_neither_change_nor_compute_anything() {
    let (_folder, client) = client(Listen::at_home(4870));
    let host = ("Host", "127.0.0.1:4870");
    let job = client.get("/api/jobs/3").header(Header::new("Host", "127.0.0.1:4870")).dispatch();
    let job = json!({ "job": job.into_json::<Value>().unwrap()["job"] }).to_string();
    let preview = |more: &[(&str, &str)]| {
        let headers: Vec<_> = std::iter::once(host).chain(more.iter().copied()).collect();
        ask(&client, Method::Post, "/api/preview", &headers, &job)
    };
    assert_eq!(preview(&[]), 200);
    assert_eq!(preview(&[("Sec-Fetch-Site", "same-origin")]), 200);
    for site in ["cross-site", "same-site"] {
        assert_eq!(preview(&[("Sec-Fetch-Site", site)]), 403, "without an Origin");
        let headers = [host, ("Sec-Fetch-Site", site)];
        assert_eq!(ask(&client, Method::Get, "/api/jobs/3/print.pdf", &headers, ""), 403);
        assert_ne!(
            ask(&client, Method::Get, "/jobs/3/form", &headers, ""),
            403,
            "a link leads here"
        );
    }
    // A form that passes for another method.
    let form = [host, ("Content-Type", "application/x-www-form-urlencoded")];
    assert_eq!(ask(&client, Method::Post, "/api/jobs/3", &form, "_method=DELETE"), 403);
    let form = [host, ("Content-Type", "multipart/form-data; boundary=x")];
    assert_eq!(ask(&client, Method::Post, "/api/jobs/import", &form, "--x--"), 403);
    assert_eq!(ask(&client, Method::Get, "/api/jobs/3", &[host], ""), 200, "it is still there");
}

#[test]
fn a_wrong_method_says_which_are_right_and_a_mark_before_json_is_read_over() {
    let (_folder, client) = client(Listen::at_home(4870));
    let host = || Header::new("Host", "127.0.0.1:4870");
    for (method, path) in [
        (Method::Delete, "/api/jobs"),
        (Method::Get, "/api/preview"),
        (Method::Post, "/api/jobs/3"),
    ] {
        let answer = client.req(method, path).header(host()).dispatch();
        assert_eq!(answer.status(), Status::MethodNotAllowed, "{path}");
        let problem: Value = answer.into_json().unwrap();
        assert!(problem["detail"].as_str().unwrap().contains("takes"), "{problem}");
        assert!(problem["instance"].as_str().unwrap().starts_with("/requests/"));
    }
    let entry = "\u{feff}{\"text\": \"62\", \"unit\": \"mm\"}";
    let answer = client.post("/api/lengths").header(host()).body(entry).dispatch();
    assert_eq!(answer.into_json::<Value>().unwrap()["mm"], 62.0);
}

#[test]
fn a_passphrase_is_asked_once_per_browser_and_wrong_ones_are_slowed() {
    let guard = || Some(Arc::new(Guard::new("seven bean rows", "0123456789abcdef").unwrap()));
    assert!(Guard::new("short", "0123456789abcdef").is_err());
    let listen =
        || Listen { address: "0.0.0.0".parse().unwrap(), guard: guard(), ..Listen::at_home(4870) };
    let (_folder, client) = client(listen());
    let host = || Header::new("Host", "192.168.7.7:4870");
    let jobs = || client.get("/api/jobs").header(host()).dispatch().status().code;
    assert_eq!(jobs(), 401);
    assert_ne!(
        client.get("/").header(host()).dispatch().status().code,
        401,
        "the page asks for it"
    );
    let enter = |passphrase: &str| {
        let body = json!({ "passphrase": passphrase }).to_string();
        let answer = client.post("/api/enter").header(host()).body(body).dispatch();
        let cookie = answer.headers().get_one("Set-Cookie").map(str::to_owned);
        (answer.status().code, cookie)
    };
    assert_eq!(enter("seven bean cows"), (403, None));
    let start = std::time::Instant::now();
    assert_eq!(enter("eight bean rows").0, 403);
    assert!(start.elapsed() >= std::time::Duration::from_millis(500), "the second waits");
    assert_eq!(jobs(), 401);
    let (status, cookie) = enter("seven bean rows");
    let cookie = cookie.unwrap();
    assert_eq!(status, 200);
    assert!(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict"), "{cookie}");
    assert!(!cookie.contains("seven"));
    assert_eq!(jobs(), 200, "the browser is known from now on");

    // Known again after a restart with the same passphrase, and not with another.
    let token = cookie.split(['=', ';']).nth(1).unwrap().to_owned();
    assert!(guard().unwrap().knows(&token));
    assert!(!Guard::new("other bean rows", "0123456789abcdef").unwrap().knows(&token));
    assert!(Guard::make_passphrase().unwrap() != Guard::make_passphrase().unwrap());
}
