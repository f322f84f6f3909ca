//! A server with the demo’s data, asked over HTTP.

#![allow(dead_code, reason = "each file of tests asks some of it")]

mod told;

use aptum::demo;
use aptum::serve::{Listen, server};
use aptum::store::Store;
use aptum_core::Job;
use aptum_core::error::Change;
use aptum_core::job::with_changes;
use rocket::http::{Header, Method};
use rocket::local::blocking::Client;
use serde_json::Value;
use tempfile::TempDir;

/// What requests name as their host.
pub const HOST: &str = "127.0.0.1:4870";

/// A server with the demo’s jobs, asked as its own page asks.
pub struct Api {
    pub client: Client,
    folder: TempDir,
}

fn client(folder: &TempDir) -> Client {
    let store = Store::open(folder.path()).unwrap();
    Client::tracked(server(store, Listen::at_home(4870))).unwrap()
}

impl Api {
    pub fn new() -> Self {
        let folder = TempDir::new().unwrap();
        demo::start_jobs(&Store::open(folder.path()).unwrap()).unwrap();
        Self { client: client(&folder), folder }
    }

    pub fn restarted(self) -> Self {
        let Self { client: old, folder } = self;
        drop(old);
        Self { client: client(&folder), folder }
    }

    pub fn ask(&self, method: Method, path: &str, body: &Value) -> (u16, Value) {
        let request = self.client.req(method, path).header(Header::new("Host", HOST));
        let response = request.body(body.to_string()).dispatch();
        let (status, answer) =
            (response.status().code, response.into_json().unwrap_or(Value::Null));
        told::as_described(method, path, body, status, &answer);
        (status, answer)
    }

    pub fn get(&self, path: &str) -> Value {
        self.ask(Method::Get, path, &Value::Null).1
    }

    pub fn post(&self, path: &str, body: &Value) -> (u16, Value) {
        self.ask(Method::Post, path, body)
    }

    /// Keeps a picture, a drawing or a typeface.
    pub fn upload(&self, bytes: &[u8]) -> (u16, Value) {
        let request = self.client.post("/api/blobs").header(Header::new("Host", HOST));
        let response = request.body(bytes).dispatch();
        let (status, answer) =
            (response.status().code, response.into_json().unwrap_or(Value::Null));
        told::as_described(Method::Post, "/api/blobs", &Value::Null, status, &answer);
        (status, answer)
    }

    /// A job as it is opened.
    pub fn job(&self, path: &str) -> Value {
        self.get(path)["job"].clone()
    }

    /// The events of a long task: their names and bodies.
    pub fn events(&self, path: &str, body: &Value) -> Vec<(String, Value)> {
        let request = self.client.post(path.to_owned()).header(Header::new("Host", HOST));
        let response = request.body(body.to_string()).dispatch();
        assert_eq!(response.status().code, 200);
        let text = response.into_string().unwrap();
        text.split("\n\n")
            .filter_map(|event| {
                let line = |start: &str| {
                    event.lines().find_map(|line| line.strip_prefix(start)).map(str::trim)
                };
                Some((line("event:")?.to_owned(), serde_json::from_str(line("data:")?).unwrap()))
            })
            .collect()
    }

    pub fn state(&self) -> Value {
        self.get("/api/workshop/state")
    }

    pub fn version(&self) -> i64 {
        self.state()["version"].as_i64().unwrap()
    }
}

/// A job with a remedy’s changes made to it.
pub fn changed(job: &Value, remedy: &Value) -> Value {
    let known: Job = serde_json::from_value(job.clone()).unwrap();
    let changes: Vec<Change> = serde_json::from_value(remedy["changes"].clone()).unwrap();
    serde_json::to_value(with_changes(&known, &changes).unwrap()).unwrap()
}
