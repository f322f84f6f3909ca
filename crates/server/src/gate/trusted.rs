//! Requests must name this server as their host, and changes must come from its own pages: other
//! sites' pages can reach loopback too, and a made-up host name can be pointed at it.

use std::net::IpAddr;
use std::sync::Arc;

use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Method;
use rocket::http::uri::Origin;
use rocket::{Data, Request, get};

use super::Guard;
use crate::api::Problem;

/// Turns requests away before any route sees them.
pub struct Trusted {
    /// Where the server listens.
    pub address: IpAddr,
    /// Further host names by which it may be asked for, through a proxy also at another port.
    pub names: Vec<String>,
    /// Who keeps the door, where it is open to others.
    pub guard: Option<Arc<Guard>>,
}

/// Why a request is refused.
#[derive(Debug, Clone, PartialEq, Eq)]
enum Objection {
    /// It comes from where none should come.
    Refused(String),
    /// The passphrase has not been given in this browser.
    Locked,
}

impl Trusted {
    fn objection(&self, request: &Request<'_>) -> Option<Objection> {
        let port = request.rocket().config().port;
        let header = |name: &str| request.headers().get_one(name);
        let host = header("Host").unwrap_or_default();
        let refused = |words: String| Some(Objection::Refused(words));
        if !self.is_own(host, port) {
            return refused(format!(
                "“{}” is not this server: use http://127.0.0.1:{port}, or start it with --name for a further name",
                shorten(host)
            ));
        }
        let path = request.uri().path();
        let is_api = path.starts_with("/api/");
        let reads = matches!(request.method(), Method::Get | Method::Head);
        // What computes or changes is for this server's own pages; a link may lead to a page.
        let site = header("Sec-Fetch-Site").unwrap_or("none");
        if (is_api || !reads) && !matches!(site, "same-origin" | "none") {
            return refused("Another site’s page may not ask for anything here".to_owned());
        }
        if !reads {
            // A form needs no leave of the browser to be sent anywhere, and may pass for another method.
            let form = ["application/x-www-form-urlencoded", "multipart/form-data"];
            let kind = header("Content-Type").unwrap_or_default().to_ascii_lowercase();
            if form.iter().any(|form| kind.trim_start().starts_with(form)) {
                return refused("Forms are not taken: send JSON or a file".to_owned());
            }
            // A program that is not a browser sends no Origin, and no page can leave it out.
            let origin = header("Origin").filter(|origin| {
                let plain = origin.strip_prefix("http://").or(origin.strip_prefix("https://"));
                !plain.is_some_and(|host| self.is_own(host, port))
            });
            if let Some(origin) = origin {
                let shown = shorten(origin);
                return refused(format!("A page of “{shown}” may not change anything here"));
            }
        }
        let guard = self.guard.as_ref().filter(|_| is_api && path != "/api/enter")?;
        let cookie = request.cookies().get(Guard::COOKIE);
        (!cookie.is_some_and(|cookie| guard.knows(cookie.value()))).then_some(Objection::Locked)
    }

    /// True for a host, with or without a port, by which this server may be asked for.
    fn is_own(&self, host: &str, port: u16) -> bool {
        let (name, at) = match host.rsplit_once(':') {
            Some((name, at)) if !at.contains(']') => (name, at.parse::<u16>().ok()),
            // The port of the scheme is left out.
            _ => (host, Some(80)),
        };
        if self.names.iter().any(|known| known.eq_ignore_ascii_case(name)) {
            return at.is_some();
        }
        if at != Some(port) {
            return false;
        }
        let literal = name.trim_start_matches('[').trim_end_matches(']').parse::<IpAddr>().ok();
        match literal {
            // An address cannot be pointed elsewhere, as a name can.
            Some(address) => {
                address.is_loopback() || address == self.address || self.address.is_unspecified()
            }
            None => name.eq_ignore_ascii_case("localhost"),
        }
    }
}

fn shorten(text: &str) -> String {
    text.chars().take(60).collect()
}

struct Objected(Option<Objection>);

#[rocket::async_trait]
impl Fairing for Trusted {
    fn info(&self) -> Info {
        Info { name: "Host and origin", kind: Kind::Request }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        if let Some(objection) = self.objection(request) {
            request.local_cache(|| Objected(Some(objection)));
            request.set_method(Method::Get);
            request.set_uri(Origin::const_new("/api/refused", None));
        }
    }
}

/// Where refused requests end.
#[get("/api/refused")]
pub fn refusal(why: Why) -> Problem {
    match why.0 {
        Some(Objection::Locked) => Problem::locked(),
        Some(Objection::Refused(words)) => Problem::refused(words),
        None => Problem::refused("Nothing is served here"),
    }
}

/// Why the request ended there.
pub struct Why(Option<Objection>);

#[rocket::async_trait]
impl<'r> rocket::request::FromRequest<'r> for Why {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, Self::Error> {
        let objection = request.local_cache(|| Objected(None)).0.clone();
        rocket::request::Outcome::Success(Self(objection))
    }
}
