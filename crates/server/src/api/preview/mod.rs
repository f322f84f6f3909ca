//! What core prepares, as drawings and figures that a page can show.

mod flat;
mod sheet;

use aptum_core::check::{Stage, State as Standing};
use aptum_core::units::format_length;
use aptum_core::{Check, Job, Prepared};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use self::flat::{FlatView, flat};
pub(in crate::api) use self::sheet::money;
use self::sheet::{SheetView, sheet};
use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::shelf::prepared;

/// One of the job's pieces.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PieceView {
    name: String,
    /// Copies wanted.
    copies: u32,
    /// Whole copies that the layout holds.
    laid: u32,
    /// The number of its first blank among all of the job's.
    first: usize,
    flat: FlatView,
    /// True when something is printed on it.
    is_printed: bool,
    bleed_text: String,
}

/// How a stage of the route stands.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct StageView {
    stage: Stage,
    /// `None` when it has nothing to check.
    state: Option<Standing>,
}

/// A job as core prepares it.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct Preview {
    /// The pieces, the job’s own first.
    pieces: Vec<PieceView>,
    /// True when something is printed.
    is_printed: bool,
    sheet: SheetView,
    checks: Vec<Check>,
    stages: Vec<StageView>,
    /// The code that names this content on its printed sheets.
    code: String,
    spacing_text: String,
    to_marks_text: String,
}

/// Prepares a job that need not be saved.
#[post("/preview", data = "<job>")]
pub async fn preview(desk: &State<Desk>, job: Body<Job>) -> Result<Json<Preview>, Problem> {
    desk.quick(move |store| {
        let prepared = prepared(&job.0, &store.workshop()?)?;
        Ok(Json(Preview::new(&job.0, &prepared)))
    })
    .await
}

impl Preview {
    /// The view of a prepared job.
    #[must_use]
    pub fn new(job: &Job, prepared: &Prepared) -> Self {
        let stages = [Stage::Form, Stage::Face, Stage::Sheet, Stage::Run];
        Self {
            pieces: pieces(job, prepared),
            is_printed: prepared.is_printed(),
            sheet: sheet(job, prepared),
            checks: prepared.checks.clone(),
            stages: stages.map(|stage| StageView { stage, state: prepared.state(stage) }).into(),
            code: prepared.code.clone(),
            spacing_text: format_length(job.sheet.spacing, job.unit),
            to_marks_text: format_length(job.sheet.to_marks, job.unit),
        }
    }
}

fn pieces(job: &Job, prepared: &Prepared) -> Vec<PieceView> {
    let mut first = 0;
    job.pieces()
        .zip(&prepared.pieces)
        .map(|(piece, drawn)| {
            let own = first..first + drawn.flat.parts.len();
            first = own.end;
            PieceView {
                name: drawn.name.clone(),
                copies: drawn.copies,
                laid: own.clone().map(|part| prepared.layout.count(part)).min().unwrap_or(0),
                first: own.start,
                flat: flat(&piece, job.unit, drawn),
                is_printed: !drawn.arts.is_empty(),
                bleed_text: format_length(piece.face.map_or(0.0, |face| face.bleed), job.unit),
            }
        })
        .collect()
}
