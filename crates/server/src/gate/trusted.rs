//! Requests must name this server as their host, and changes must come from its own pages: other
//! sites' pages can reach loopback too, and a made-up host name can be pointed at it.

use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Method;
use rocket::http::uri::Origin;
use rocket::{Data, Request, get};

use crate::api::Problem;

/// Turns requests away before any route sees them.
pub struct Trusted {
    /// The host name the user gave with `--host`, which may be asked for besides loopback.
    pub host: String,
}

impl Trusted {
    /// Why a request is refused, if it is.
    fn objection(&self, request: &Request<'_>) -> Option<String> {
        let port = request.rocket().config().port;
        let known: Vec<String> = ["127.0.0.1", "localhost", "[::1]", &self.host]
            .iter()
            .map(|name| format!("{name}:{port}"))
            .collect();
        let host = request.headers().get_one("Host").unwrap_or_default();
        if !known.iter().any(|one| one.eq_ignore_ascii_case(host)) {
            return Some(format!(
                "“{}” is not this server: use http://127.0.0.1:{port}",
                shorten(host)
            ));
        }
        if matches!(request.method(), Method::Get | Method::Head) {
            return None;
        }
        // A program that is not a browser sends no Origin, and no page can leave it out.
        let origin = request.headers().get_one("Origin")?;
        let own = known.iter().any(|one| origin.eq_ignore_ascii_case(&format!("http://{one}")));
        (!own).then(|| format!("A page of “{}” may not change anything here", shorten(origin)))
    }
}

fn shorten(text: &str) -> String {
    text.chars().take(60).collect()
}

struct Objection(Option<String>);

#[rocket::async_trait]
impl Fairing for Trusted {
    fn info(&self) -> Info {
        Info { name: "Host and origin", kind: Kind::Request }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        if let Some(objection) = self.objection(request) {
            request.local_cache(|| Objection(Some(objection)));
            request.set_method(Method::Get);
            request.set_uri(Origin::const_new("/api/refused", None));
        }
    }
}

/// Where refused requests end.
#[get("/api/refused")]
pub fn refusal(why: Why) -> Problem {
    Problem::refused(why.0)
}

/// Why the request ended there.
pub struct Why(String);

#[rocket::async_trait]
impl<'r> rocket::request::FromRequest<'r> for Why {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, Self::Error> {
        let objection = request.local_cache(|| Objection(None)).0.clone();
        rocket::request::Outcome::Success(Self(
            objection.unwrap_or_else(|| "Nothing is served here".to_owned()),
        ))
    }
}
