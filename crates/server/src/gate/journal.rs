//! What happened, for whoever looks for a fault: each request has an id, which problem answers carry too.

use std::sync::atomic::{AtomicU64, Ordering};
use std::time::Instant;

use rocket::fairing::{Fairing, Info, Kind};
use rocket::{Data, Request, Response};

/// Numbers requests and writes them to the log.
#[derive(Default)]
pub struct Journal;

/// A request's number, and when it came.
pub struct Numbered(pub u64, Instant);

static NEXT: AtomicU64 = AtomicU64::new(1);

impl Numbered {
    /// The number of a request.
    #[must_use]
    pub fn of<'r>(request: &'r Request<'_>) -> &'r Self {
        request.local_cache(|| Self(NEXT.fetch_add(1, Ordering::Relaxed), Instant::now()))
    }
}

#[rocket::async_trait]
impl Fairing for Journal {
    fn info(&self) -> Info {
        Info { name: "Journal", kind: Kind::Request | Kind::Response }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        let Numbered(number, _) = Numbered::of(request);
        tracing::debug!("request {number}: {} {}", request.method(), request.uri());
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        let Numbered(number, start) = Numbered::of(request);
        let (status, took) = (response.status().code, start.elapsed().as_millis());
        let (method, uri) = (request.method(), request.uri());
        if status >= 500 {
            tracing::error!("request {number}: {method} {uri} answered {status} after {took} ms");
        } else {
            tracing::info!("request {number}: {method} {uri} answered {status} after {took} ms");
        }
    }
}
