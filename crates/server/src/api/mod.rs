//! The JSON API, described by the OpenAPI document at `/api/openapi.json`.

mod blobs;
mod body;
mod catalogue;
mod corrections;
mod drawings;
mod files;
mod fitting;
mod fold;
mod fonts;
mod gathered;
mod jobs;
mod layers;
mod lengths;
mod lines;
mod lists;
mod logbook;
mod meta;
mod nesting;
mod odds;
pub mod openapi;
mod preview;
mod problem;
mod queue;
mod rehearsal;
mod returned;
mod rework;
mod runs;
mod sending;
mod starts;
mod summaries;
mod tasks;
mod tooling;
mod traces;
mod trial;
mod types;
mod workshop;

use rocket::{Route, routes};

pub use body::Body;
pub use problem::{Problem, catchers};
pub use sending::Sendings;
pub use summaries::Summaries;
pub use tasks::Tasks;
pub use types::typescript;

/// Every route below `/api`.
#[must_use]
pub fn routes() -> Vec<Route> {
    routes![
        meta::meta,
        workshop::workshop,
        workshop::state,
        workshop::add,
        workshop::change_record,
        workshop::remove,
        workshop::undo,
        workshop::redo,
        workshop::drawing,
        openapi::served,
        jobs::list,
        jobs::create,
        jobs::import,
        jobs::open,
        jobs::save,
        jobs::undo,
        jobs::redo,
        jobs::bin,
        jobs::unbin,
        jobs::copy,
        jobs::binned,
        jobs::empty,
        jobs::remove,
        preview::preview,
        preview::plan,
        nesting::nest,
        nesting::stop_nesting,
        nesting::arrange_copies,
        fitting::compare,
        fitting::best,
        fitting::ways,
        fitting::order,
        catalogue::catalogue,
        fold::fold,
        fold::folded,
        lengths::read,
        blobs::add,
        blobs::bytes,
        fonts::add_font,
        rework::rework,
        rework::drawing_parts,
        traces::look,
        traces::start,
        traces::apart,
        gathered::close,
        drawings::bring,
        drawings::keys,
        drawings::apply_key,
        lines::pick,
        tooling::tooling,
        rehearsal::rehearse,
        rehearsal::rehearsed_sheet,
        odds::odds,
        queue::queue,
        queue::put_in_order,
        queue::put_in,
        queue::put_in_rows,
        runs::run,
        runs::freeze,
        runs::change,
        runs::print_file,
        runs::picture,
        runs::as_printed,
        runs::machine_file,
        runs::print_there,
        corrections::correct,
        sending::send,
        sending::wish,
        trial::next,
        trial::file,
        logbook::logbook,
        logbook::add,
        logbook::change,
        logbook::remove,
        lines::set_free,
        files::of_sheets,
        files::cut_hpgl,
        files::cut_gcode,
        returned::returned,
        layers::line_up,
        lists::read_list,
        lists::row,
        files::list,
        files::print,
        files::plates,
        files::hand_cut,
        files::cut,
        files::sheet_png,
        files::cut_dxf,
        files::piece,
        files::all,
        files::archive,
        crate::gate::guard::enter,
    ]
}
