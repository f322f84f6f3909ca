//! The JSON API, described by the OpenAPI document at `/api/openapi.json`.

mod body;
mod catalogue;
mod files;
mod fold;
mod jobs;
mod lengths;
mod meta;
pub mod openapi;
mod preview;
mod problem;
mod summaries;
mod types;

use rocket::{Route, routes};

pub use problem::{Problem, catchers};
pub use summaries::Summaries;
pub use types::typescript;

/// Every route below `/api`.
#[must_use]
pub fn routes() -> Vec<Route> {
    routes![
        meta::meta,
        meta::workshop,
        meta::document,
        jobs::list,
        jobs::create,
        jobs::import,
        jobs::open,
        jobs::save,
        jobs::undo,
        jobs::redo,
        jobs::bin,
        jobs::unbin,
        preview::preview,
        catalogue::catalogue,
        fold::fold,
        fold::folded,
        lengths::read,
        files::list,
        files::print,
        files::hand_cut,
        files::cut,
        files::piece,
        files::archive,
    ]
}
