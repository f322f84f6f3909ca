//! The front end, embedded, and packed for browsers that take it so.

use std::borrow::Cow;
use std::convert::Infallible;
use std::path::PathBuf;

use rocket::http::{ContentType, Header, Status};
use rocket::request::{FromRequest, Outcome, Request};
use rocket::response::{self, Responder, Response};
use rocket::{Route, get, routes};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct FrontEnd;

/// A file of the front end.
pub struct Asset {
    name: String,
    bytes: Cow<'static, [u8]>,
    packs: Packs,
}

/// Whether the browser takes gzip.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Packs {
    Gzip,
    Nothing,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Packs {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Infallible> {
        let gzip = request.headers().get("Accept-Encoding").any(takes_gzip);
        Outcome::Success(if gzip { Self::Gzip } else { Self::Nothing })
    }
}

/// True where an Accept-Encoding header allows gzip: named, or any, and not with a quality of 0 (RFC 9110).
#[must_use]
pub fn takes_gzip(header: &str) -> bool {
    let mut any = false;
    for coding in header.split(',') {
        let mut parts = coding.split(';').map(str::trim);
        let name = parts.next().unwrap_or_default();
        let quality = parts
            .find_map(|part| part.strip_prefix("q=").or(part.strip_prefix("Q=")))
            .map_or(1.0, |quality| quality.parse::<f64>().unwrap_or(0.0));
        if name.eq_ignore_ascii_case("gzip") {
            return quality > 0.0;
        }
        any |= name == "*" && quality > 0.0;
    }
    any
}

/// The page and its files.
#[must_use]
pub fn routes() -> Vec<Route> {
    routes![asset]
}

/// A file, or the page itself for an address that the page routes.
#[get("/<path..>", rank = 20)]
fn asset(path: PathBuf, packs: Packs) -> Result<Asset, Status> {
    let name = path.to_string_lossy().replace('\\', "/");
    if name.starts_with("api/") {
        return Err(Status::NotFound);
    }
    let (name, found) = match FrontEnd::get(&name) {
        Some(file) => (name, file),
        // A file that is missing is an error; a view of the page is the page.
        None if name.contains('.') => return Err(Status::NotFound),
        None => ("index.html".to_owned(), FrontEnd::get("index.html").ok_or(Status::NotFound)?),
    };
    Ok(Asset { name, bytes: found.data, packs })
}

impl<'r> Responder<'r, 'static> for Asset {
    fn respond_to(self, _: &'r Request<'_>) -> response::Result<'static> {
        let extension = self.name.rsplit('.').next().unwrap_or_default();
        // Vite puts a hash of the contents into the names below assets/.
        let cache = if self.name.starts_with("assets/") {
            "public, max-age=31536000, immutable"
        } else {
            "no-cache"
        };
        let mut response = Response::build();
        response
            .header(ContentType::from_extension(extension).unwrap_or(ContentType::Binary))
            .header(Header::new("Cache-Control", cache))
            .header(Header::new("Vary", "Accept-Encoding"));
        // The build packs what gains by it.
        let packed = match self.packs {
            Packs::Gzip => FrontEnd::get(&format!("{}.gz", self.name)),
            Packs::Nothing => None,
        };
        if packed.is_some() {
            response.header(Header::new("Content-Encoding", "gzip"));
        }
        let bytes = packed.map_or(self.bytes, |file| file.data).into_owned();
        response.sized_body(bytes.len(), std::io::Cursor::new(bytes)).ok()
    }
}
