//! The routes, with what they take and give.

use std::collections::BTreeMap;

use aptum_core::arrange::Arranged;
use aptum_core::fold::FoldedDrawing;
use aptum_core::sheet::RecordDrawing;
use aptum_core::{Job, Workshop};
use schemars::generate::SchemaGenerator;
use schemars::{JsonSchema, Schema};
use serde_json::Value;

use crate::api::catalogue::{AtHand, CatalogueEntry};
use crate::api::files::FileInfo;
use crate::api::fitting::{MarkChoiceView, OrderChoice};
use crate::api::fold::{FoldAsk, FoldMoment, FoldView};
use crate::api::jobs::{BinnedJob, JobChange, JobStep, OpenJob};
use crate::api::meta::Meta;
use crate::api::nesting::ArrangeAsk;
use crate::api::preview::{Draft, PlanAsk, PlannedLines, Preview};
use crate::api::returned::ReturnedView;
use crate::api::summaries::JobSummary;
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

pub(super) const fn json<T: JsonSchema>() -> Body {
    Body::Json(SchemaGenerator::subschema_for::<T>)
}

/// A route with its method and path as they are written in a request.
pub(super) const fn route(
    (method, path): (&'static str, &'static str),
    summary: &'static str,
    takes: Body,
    gives: Body,
) -> Route {
    Route { path, method, summary, takes, gives }
}

/// Those of the workshop, of jobs and of their files.
pub(super) const OF_JOBS: &[Route] = &[
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
        "The cut file of a sheet; marks=included adds the marks, `units` of 72, 90, 96 or 300 writes so many to the inch",
        Body::Nothing,
        Body::Bytes("image/svg+xml"),
    ),
    route(
        ("get", "/api/jobs/{id}/{name}"),
        "The registration marks alone: marks.svg, marks.pdf, marks.png; the lines of all sheets as processing steps: steps.pdf, and over the art: print-steps.pdf; the job ticket: ticket.pdf",
        Body::Nothing,
        Body::OneOf(&["image/svg+xml", "application/pdf", "image/png"]),
    ),
    route(
        ("post", "/api/jobs/{id}/returned"),
        "Measures a file against the marks of the job's sheets; `how` of lines, print or both makes a job of it",
        Body::Bytes("application/octet-stream"),
        json::<ReturnedView>(),
    ),
    route(
        ("get", "/api/jobs/{id}/sheet-png/{number}"),
        "The printed side of a sheet as PNG, or with `back` the other as it is seen, with 300 pixels in an inch or `ppi`",
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
        "A piece as flat.dxf, flat.fold, folded.svg, folded.png, folded.gltf or folded.obj, or its art alone, with its number before the name of all but the first",
        Body::Nothing,
        Body::OneOf(&[
            "image/vnd.dxf",
            "application/json",
            "image/svg+xml",
            "image/png",
            "application/pdf",
            "model/gltf+json",
            "model/obj",
        ]),
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
];
