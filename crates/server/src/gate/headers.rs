//! Headers that keep a page to its own server.

use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Header;
use rocket::{Request, Response};

/// Nothing from anywhere else; styles and scripts from files only; pictures may be made in the
/// page (`blob:`) or stand in a style sheet (`data:`).
const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; \
                      img-src 'self' data: blob:; connect-src 'self'; form-action 'none'; \
                      base-uri 'none'; frame-ancestors 'none'";

/// Adds the headers to every answer.
pub struct SafeHeaders;

#[rocket::async_trait]
impl Fairing for SafeHeaders {
    fn info(&self) -> Info {
        Info { name: "Headers that keep a page to its own server", kind: Kind::Response }
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        response.set_header(Header::new("Content-Security-Policy", POLICY));
        response.set_header(Header::new("X-Content-Type-Options", "nosniff"));
        response.set_header(Header::new("Referrer-Policy", "no-referrer"));
        response.set_header(Header::new("Cross-Origin-Resource-Policy", "same-origin"));
        // What names its content says itself how long it holds.
        let is_said = response.headers().contains("Cache-Control");
        if request.uri().path().starts_with("/api/") && !is_said {
            response.set_header(Header::new("Cache-Control", "no-store"));
        }
    }
}
