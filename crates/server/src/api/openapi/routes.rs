//! The routes, with what they take and give.

use std::collections::BTreeMap;

use aptum_core::arrange::Arranged;
use aptum_core::error::Change;
use aptum_core::fold::FoldedDrawing;
use aptum_core::form::MemberPlace;
use aptum_core::job::JobPiece;
use aptum_core::lines::LineKey;
use aptum_core::sheet::RecordDrawing;
use aptum_core::{Job, Workshop};
use schemars::generate::SchemaGenerator;
use schemars::{JsonSchema, Schema};
use serde_json::Value;

use crate::api::blobs::BlobView;
use crate::api::catalogue::{AtHand, CatalogueEntry};
use crate::api::drawings::{BroughtDrawing, KeptKey, KeyAsk};
use crate::api::files::FileInfo;
use crate::api::fitting::{MarkChoiceView, OrderChoice};
use crate::api::fold::{FoldAsk, FoldMoment, FoldView};
use crate::api::fonts::FontView;
use crate::api::gathered::CloseAsk;
use crate::api::jobs::{BinnedJob, JobChange, JobStep, OpenJob};
use crate::api::layers::LineUpAsk;
use crate::api::lengths::{LengthEntry, ReadLength};
use crate::api::lists::{ListView, RowAsk};
use crate::api::meta::Meta;
use crate::api::nesting::ArrangeAsk;
use crate::api::preview::{Draft, FaceView, PlanAsk, PlannedLines, Preview};
use crate::api::rework::{DrawingParts, ReworkAsk};
use crate::api::summaries::JobSummary;
use crate::api::traces::{ApartAsk, PictureStart, TraceAsk, TraceLook};
use crate::api::workshop::{RecordEntry, RecordSketch, WorkshopState, WorkshopStep};
use crate::gate::guard::PassphraseEntry;

/// What a request or an answer carries.
pub(super) enum Body {
    Nothing,
    /// JSON of a type.
    Json(fn(&mut SchemaGenerator) -> Schema),
    /// Bytes of a media type.
    Bytes(&'static str),
    /// Bytes of one of several media types.
    OneOf(&'static [&'static str]),
}

/// A route: its path and method, what it does, takes and gives.
pub(super) struct Route {
    pub path: &'static str,
    pub method: &'static str,
    pub summary: &'static str,
    pub takes: Body,
    pub gives: Body,
}

const fn json<T: JsonSchema>() -> Body {
    Body::Json(SchemaGenerator::subschema_for::<T>)
}

/// A route with its method and path as they are written in a request.
const fn route(
    (method, path): (&'static str, &'static str),
    summary: &'static str,
    takes: Body,
    gives: Body,
) -> Route {
    Route { path, method, summary, takes, gives }
}

/// Every route.
pub(super) const ROUTES: &[Route] = &[
    route(
        ("get", "/api/meta"),
        "Units, sheet sizes and a job to start from",
        Body::Nothing,
        json::<Meta>(),
    ),
    route(("get", "/api/workshop"), "The workshop's records", Body::Nothing, json::<Workshop>()),
    route(
        ("get", "/api/workshop/state"),
        "The records with where the workshop stands and which jobs use them",
        Body::Nothing,
        json::<WorkshopState>(),
    ),
    route(
        ("post", "/api/workshop/records"),
        "Adds a record",
        json::<RecordEntry>(),
        json::<WorkshopState>(),
    ),
    route(
        ("put", "/api/workshop/records/{id}"),
        "Changes a record; 409 when the workshop was changed elsewhere meanwhile",
        json::<RecordEntry>(),
        json::<WorkshopState>(),
    ),
    route(
        ("delete", "/api/workshop/records/{kind}/{id}"),
        "Removes a record; 409 while jobs use it",
        Body::Nothing,
        json::<WorkshopState>(),
    ),
    route(
        ("post", "/api/workshop/undo"),
        "Undoes the last change of a record",
        json::<WorkshopStep>(),
        json::<WorkshopState>(),
    ),
    route(
        ("post", "/api/workshop/redo"),
        "Redoes the change that was undone",
        json::<WorkshopStep>(),
        json::<WorkshopState>(),
    ),
    route(
        ("post", "/api/workshop/drawing"),
        "A drawing of a record, saved or not",
        json::<RecordSketch>(),
        json::<RecordDrawing>(),
    ),
    route(
        ("post", "/api/jobs/{id}/nest"),
        "Nests a job: events progress, then done or trouble; 409 while it is being nested",
        json::<Job>(),
        Body::Bytes("text/event-stream"),
    ),
    route(
        ("delete", "/api/jobs/{id}/nest"),
        "Ends the nesting of a job, which keeps the best so far",
        Body::Nothing,
        Body::Nothing,
    ),
    route(
        ("post", "/api/arrange"),
        "Moves, turns, aligns, repeats or locks copies of a layout",
        json::<ArrangeAsk>(),
        json::<Arranged>(),
    ),
    route(
        ("post", "/api/marks/compare"),
        "What each mark set leaves of a job's sheet",
        json::<Job>(),
        json::<Vec<MarkChoiceView>>(),
    ),
    route(
        ("post", "/api/marks/best"),
        "The best marks for a job: events progress, then done",
        json::<Job>(),
        Body::Bytes("text/event-stream"),
    ),
    route(
        ("post", "/api/ways"),
        "Ways to fit: an event for each, then done",
        json::<Job>(),
        Body::Bytes("text/event-stream"),
    ),
    route(
        ("post", "/api/order"),
        "What other sheets and spacings would make of the order",
        json::<Job>(),
        json::<Vec<OrderChoice>>(),
    ),
    route(
        ("get", "/api/openapi.json"),
        "This document",
        Body::Nothing,
        json::<BTreeMap<String, Value>>(),
    ),
    route(
        ("get", "/api/jobs"),
        "All jobs, the one changed last first",
        Body::Nothing,
        json::<Vec<JobSummary>>(),
    ),
    route(("post", "/api/jobs"), "Adds a job", json::<Job>(), json::<OpenJob>()),
    route(
        ("post", "/api/jobs/import"),
        "Adds a job from an archive or its JSON, 16 MiB at most; a record whose id is taken gets another",
        Body::Bytes("application/octet-stream"),
        json::<OpenJob>(),
    ),
    route(("get", "/api/jobs/{id}"), "Opens a job", Body::Nothing, json::<OpenJob>()),
    route(
        ("put", "/api/jobs/{id}"),
        "Saves a change; 409 when the job was changed elsewhere meanwhile",
        json::<JobChange>(),
        json::<OpenJob>(),
    ),
    route(("delete", "/api/jobs/{id}"), "Puts a job into the bin", Body::Nothing, Body::Nothing),
    route(
        ("post", "/api/jobs/{id}/undo"),
        "Goes back one change",
        json::<JobStep>(),
        json::<OpenJob>(),
    ),
    route(
        ("post", "/api/jobs/{id}/redo"),
        "Goes forward one change",
        json::<JobStep>(),
        json::<OpenJob>(),
    ),
    route(
        ("post", "/api/jobs/{id}/unbin"),
        "Takes a job out of the bin",
        Body::Nothing,
        json::<OpenJob>(),
    ),
    route(
        ("get", "/api/jobs/{id}/files"),
        "The job's files",
        Body::Nothing,
        json::<Vec<FileInfo>>(),
    ),
    route(
        ("get", "/api/jobs/{id}/print.pdf"),
        "The print file, at 100 %",
        Body::Nothing,
        Body::Bytes("application/pdf"),
    ),
    route(
        ("get", "/api/jobs/{id}/print-inks.pdf"),
        "The print, a page for each ink",
        Body::Nothing,
        Body::Bytes("application/pdf"),
    ),
    route(
        ("get", "/api/jobs/{id}/hand-cut.pdf"),
        "Lines by kind, for cutting by hand",
        Body::Nothing,
        Body::Bytes("application/pdf"),
    ),
    route(
        ("get", "/api/jobs/{id}/cut/{number}"),
        "The cut file of a sheet; marks=included adds the marks",
        Body::Nothing,
        Body::Bytes("image/svg+xml"),
    ),
    route(
        ("get", "/api/jobs/{id}/sheet-png/{number}"),
        "The printed side of a sheet as PNG, with 300 pixels in an inch or `ppi`",
        Body::Nothing,
        Body::Bytes("image/png"),
    ),
    route(
        ("get", "/api/jobs/{id}/cut-dxf/{number}"),
        "The cut file of a sheet as DXF",
        Body::Nothing,
        Body::Bytes("image/vnd.dxf"),
    ),
    route(
        ("get", "/api/jobs/{id}/piece/{name}"),
        "A piece as flat.dxf, flat.fold, folded.gltf or folded.obj, with its number before the name of all but the first",
        Body::Nothing,
        Body::OneOf(&["image/vnd.dxf", "application/json", "model/gltf+json", "model/obj"]),
    ),
    route(
        ("get", "/api/jobs/{id}/files.zip"),
        "Every file of the job in one; marks=included adds the marks to the cut files",
        Body::Nothing,
        Body::Bytes("application/zip"),
    ),
    route(
        ("post", "/api/jobs/{id}/copy"),
        "Adds a copy of a job",
        Body::Nothing,
        json::<OpenJob>(),
    ),
    route(("get", "/api/bin"), "The jobs in the bin", Body::Nothing, json::<Vec<BinnedJob>>()),
    route(
        ("delete", "/api/bin"),
        "Removes everything in the bin for good; gives how many jobs went",
        Body::Nothing,
        json::<usize>(),
    ),
    route(
        ("delete", "/api/bin/{id}"),
        "Removes one job in the bin for good",
        Body::Nothing,
        json::<usize>(),
    ),
    route(
        ("post", "/api/enter"),
        "Lets a browser in that gives the passphrase, where one is asked for",
        json::<PassphraseEntry>(),
        json::<bool>(),
    ),
    route(
        ("get", "/api/jobs/{id}/job.aptum"),
        "The job as an archive",
        Body::Nothing,
        Body::Bytes("application/zip"),
    ),
    route(
        ("post", "/api/preview"),
        "Prepares a job that need not be saved",
        json::<Draft>(),
        json::<Preview>(),
    ),
    route(
        ("post", "/api/plan"),
        "What is cut on a run of sheets, in the order of work",
        json::<PlanAsk>(),
        json::<Vec<PlannedLines>>(),
    ),
    route(
        ("post", "/api/catalogue"),
        "Every structure, drawn at the size at hand",
        json::<AtHand>(),
        json::<Vec<CatalogueEntry>>(),
    ),
    route(
        ("post", "/api/fold"),
        "A form's plates and folding steps",
        json::<FoldAsk>(),
        json::<FoldView>(),
    ),
    route(
        ("post", "/api/folded"),
        "A flat-shaded drawing of a form at a moment of its folding",
        json::<FoldMoment>(),
        json::<FoldedDrawing>(),
    ),
    route(
        ("post", "/api/blobs"),
        "Keeps a picture, up to 64 MiB: PNG and JPEG as they come, WebP, TIFF, GIF and BMP as PNG, SVG and a `page` of a PDF as plain SVG",
        Body::Bytes("application/octet-stream"),
        json::<BlobView>(),
    ),
    route(
        ("get", "/api/blobs/{id}"),
        "The bytes of a picture",
        Body::Nothing,
        Body::OneOf(&["image/png", "image/jpeg", "image/svg+xml", "font/sfnt"]),
    ),
    route(
        ("get", "/api/blobs/{id}/parts"),
        "The parts of a drawing that is kept",
        Body::Nothing,
        json::<DrawingParts>(),
    ),
    route(
        ("post", "/api/pictures"),
        "Makes a picture from one that is kept: its background dropped, specks erased, cropped; parts of a drawing changed",
        json::<ReworkAsk>(),
        json::<BlobView>(),
    ),
    route(
        ("post", "/api/traces"),
        "Traces a picture roughly, while a threshold is moved: what counts as inside, and what is found",
        json::<TraceAsk>(),
        json::<TraceLook>(),
    ),
    route(
        ("post", "/api/traces/start"),
        "The job that a picture starts: its outline with a border, and the picture in it",
        json::<PictureStart>(),
        json::<Job>(),
    ),
    route(
        ("post", "/api/traces/apart"),
        "The pieces of a job with one for each motif of a traced picture",
        json::<ApartAsk>(),
        json::<Vec<JobPiece>>(),
    ),
    route(
        ("post", "/api/drawings"),
        "Reads the lines of a drawing, up to 32 MiB: SVG, DXF, FOLD, or a `page` of a PDF; `name` is the file’s",
        Body::Bytes("application/octet-stream"),
        json::<BroughtDrawing>(),
    ),
    route(
        ("get", "/api/keys"),
        "The line keys of all jobs with drawings",
        Body::Nothing,
        json::<Vec<KeptKey>>(),
    ),
    route(
        ("post", "/api/keys"),
        "What a line key says of another drawing’s lines: by their layers, or by colours that differ by up to ΔE 6",
        json::<KeyAsk>(),
        json::<LineKey>(),
    ),
    route(
        ("post", "/api/cards/close"),
        "Places of what a card holds, close together: turned, and pushed into each other’s bays",
        json::<CloseAsk>(),
        json::<Vec<MemberPlace>>(),
    ),
    route(
        ("post", "/api/fonts"),
        "Keeps a typeface of one’s own, up to 16 MiB: TTF and OTF as they come, WOFF2 unpacked",
        Body::Bytes("application/octet-stream"),
        json::<FontView>(),
    ),
    route(
        ("post", "/api/lists"),
        "Reads a list (CSV), up to 8 MiB; `name`, `coding`, `separator` and `head` say how, or it is found",
        Body::Bytes("text/csv"),
        json::<ListView>(),
    ),
    route(
        ("post", "/api/layers/line-up"),
        "The changes that line several layers up, space them or make them as large as the first",
        json::<LineUpAsk>(),
        json::<Vec<Change>>(),
    ),
    route(
        ("post", "/api/row"),
        "What the copy of a row of a piece’s list wears",
        json::<RowAsk>(),
        json::<FaceView>(),
    ),
    route(
        ("post", "/api/lengths"),
        "Reads a length as people type it",
        json::<LengthEntry>(),
        json::<ReadLength>(),
    ),
];
