//! The front end, embedded.

use std::borrow::Cow;
use std::path::PathBuf;

use rocket::get;
use rocket::http::{ContentType, Header, Status};
use rocket::{Responder, Route, routes};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct FrontEnd;

/// A file of the front end.
#[derive(Responder)]
pub struct Asset {
    bytes: Cow<'static, [u8]>,
    kind: ContentType,
    cache: Header<'static>,
}

/// The page and its files.
#[must_use]
pub fn routes() -> Vec<Route> {
    routes![asset]
}

/// A file, or the page itself for an address that the page routes.
#[get("/<path..>", rank = 20)]
fn asset(path: PathBuf) -> Result<Asset, Status> {
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
    let extension = name.rsplit('.').next().unwrap_or_default();
    let kind = ContentType::from_extension(extension).unwrap_or(ContentType::Binary);
    // Vite puts a hash of the contents into the names below assets/.
    let cache = if name.starts_with("assets/") {
        "public, max-age=31536000, immutable"
    } else {
        "no-cache"
    };
    Ok(Asset { bytes: found.data, kind, cache: Header::new("Cache-Control", cache) })
}
