//! What core prepares, as drawings and figures that a page can show.

mod drawing;
mod face;
mod flat;
mod gathered;
mod sheet;
mod traced;

use std::marker::PhantomData;

use aptum_core::blob::Blobs;
use aptum_core::check::{Stage, State as Standing};
use aptum_core::geometry::path_text;
use aptum_core::id::PieceId;
use aptum_core::job::{FieldChange, JobPiece, with_edits};
use aptum_core::memory::Key;
use aptum_core::piece_checks::missing_blobs;
use aptum_core::units::format_length;
use aptum_core::{Check, Job, LineKind, Prepared, PreparedPiece};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

pub(in crate::api) use self::face::{FaceView, face};
use self::flat::{FlatView, flat};
use self::sheet::{SheetView, sheet};
pub(in crate::api) use self::sheet::{money, page_text};
pub use self::traced::FoundView;
use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::shelf::{Written, planned, prepared, written};

/// One of the job's pieces.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PieceView {
    id: PieceId,
    name: String,
    /// Copies wanted.
    copies: u32,
    /// Whole copies that the layout holds.
    laid: u32,
    /// The card that holds it, where one does: it lies on sheets with that alone.
    held_by: Option<PieceId>,
    /// True where a card could hold it.
    is_free: bool,
    /// The number of its first blank among all of the job's.
    first: usize,
    /// It laid flat.
    flat: Seen<FlatView>,
    /// What is printed on it.
    face: Seen<FaceView>,
}

/// A view of a stage, known by a key: it is the same for as long as the key is.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct Seen<T: TS> {
    /// What it is known by.
    key: String,
    /// The view; `None` where the page has it already.
    #[ts(as = "Option<T>")]
    #[schemars(with = "Option<T>")]
    view: Option<Written>,
    #[serde(skip)]
    #[ts(skip)]
    of: PhantomData<T>,
}

/// Views that a page has already, by their keys.
#[derive(Debug, Default, Deserialize, JsonSchema, TS)]
#[serde(transparent)]
pub struct Known(Vec<String>);

impl Known {
    fn seen<T: TS + Serialize>(
        &self,
        name: &'static str,
        key: String,
        view: impl Fn() -> T,
    ) -> Seen<T> {
        let view = (!self.0.contains(&key)).then(|| written(name, &key, view)).flatten();
        Seen { key, view, of: PhantomData }
    }
}

/// How a stage of the route stands.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct StageView {
    stage: Stage,
    /// `None` when it has nothing to check.
    state: Option<Standing>,
}

/// A job that need not be saved.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct Draft {
    /// What it starts from.
    job: Job,
    /// What is changed in it, one after the other; up to 1000.
    #[serde(default)]
    changes: Vec<FieldChange>,
    /// Views that the page has already.
    #[serde(default)]
    known: Known,
}

/// A job as core prepares it.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct Preview {
    /// The job with its changes, where there were any.
    #[serde(skip_serializing_if = "Option::is_none")]
    job: Option<Job>,
    /// The pieces.
    pieces: Vec<PieceView>,
    /// True when something is printed.
    is_printed: bool,
    sheet: Seen<SheetView>,
    checks: Vec<Check>,
    stages: Vec<StageView>,
    /// The piece that goes with the others, where one is added.
    another: JobPiece,
    /// A card that holds what a card can hold; none where there is nothing of it.
    card: Option<JobPiece>,
    /// The code that names this content on its printed sheets.
    code: String,
    spacing_text: String,
    to_marks_text: String,
}

/// Prepares a job that need not be saved.
#[post("/preview", data = "<draft>")]
pub async fn preview(desk: &State<Desk>, draft: Body<Draft>) -> Result<Json<Preview>, Problem> {
    desk.quick(move |store| {
        let Draft { job, changes, known } = draft.0;
        let changed = (!changes.is_empty()).then(|| with_edits(&job, &changes)).transpose()?;
        let own = changed.as_ref().unwrap_or(&job);
        let prepared = match prepared(own, &*store.workshop()?, store) {
            Ok(prepared) => prepared,
            Err(errors) => return Err(Problem::of_job(errors, changed)),
        };
        let preview = Preview::new(own, &prepared, store, &known);
        Ok(Json(Preview { job: changed, ..preview }))
    })
    .await
}

/// What is cut on a run of sheets.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct PlanAsk {
    job: Job,
    /// Which run of sheets that are alike.
    run: usize,
}

/// What of a kind is cut on a sheet.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PlannedLines {
    kind: LineKind,
    /// SVG path data, mm.
    path: String,
}

/// The cut plan of a run of sheets, in the order of work.
#[post("/plan", data = "<ask>")]
pub async fn plan(
    desk: &State<Desk>,
    ask: Body<PlanAsk>,
) -> Result<Json<Vec<PlannedLines>>, Problem> {
    desk.slow(move |store| {
        let PlanAsk { job, run } = ask.0;
        let prepared = prepared(&job, &*store.workshop()?, store)?;
        let Some(plan) = planned(&prepared, &job, run) else {
            let runs = prepared.layout.runs.len();
            return Err(Problem::missing(format!("The job has {runs} kinds of sheets, no more")));
        };
        let lines = |kind: LineKind| {
            let path: String = plan.of_kind(kind).map(path_text).collect();
            (!path.is_empty()).then_some(PlannedLines { kind, path })
        };
        Ok(Json(LineKind::IN_ORDER.into_iter().filter_map(lines).collect()))
    })
    .await
}

impl Preview {
    /// The view of a prepared job, whose pictures are where `blobs` says.
    #[must_use]
    pub fn new(job: &Job, prepared: &Prepared, blobs: &dyn Blobs, known: &Known) -> Self {
        let missing = missing_blobs(job, blobs);
        let state = |stage: Stage| {
            let missing = missing.iter().filter(|check| check.stage == stage);
            prepared.state(stage).max(missing.map(|check| check.state).max())
        };
        let stages = Stage::ALL.map(|stage| StageView { stage, state: state(stage) }).into();
        Self {
            job: None,
            pieces: pieces(job, prepared, known),
            is_printed: prepared.is_printed(),
            sheet: known.seen("sheet view", prepared.laid_key.to_string(), || sheet(job, prepared)),
            checks: prepared.checks.iter().cloned().chain(missing).collect(),
            stages,
            another: job.another_piece(),
            card: job.card_of_pieces(),
            code: prepared.code.clone(),
            spacing_text: format_length(job.sheet.spacing, job.unit),
            to_marks_text: format_length(job.sheet.to_marks, job.unit),
        }
    }
}

/// What a page knows the flat of a piece by: its form and card, where it is in the job, and how its
/// edges are cut.
fn flat_key(drawn: &PreparedPiece, page: [f64; 2]) -> String {
    let edges: Vec<_> = drawn.flat.parts.iter().map(|part| (part.edge, part.on_liner)).collect();
    let piece = (&drawn.job_piece.id, &drawn.job_piece.stock);
    // Only a drawing is compared with the sheet.
    let page = drawn.flat.drawing.as_ref().map(|_| page.map(f64::to_bits));
    let mirrored = drawn.mirrored.is_some();
    Key::of("flat view", &(drawn.form_key, piece, mirrored, &edges, page)).to_string()
}

fn pieces(job: &Job, prepared: &Prepared, known: &Known) -> Vec<PieceView> {
    let mut first = 0;
    let page = prepared.windows.page;
    let page = [page.width(), page.height()];
    let pieces = prepared.pieces.iter();
    pieces
        .map(|drawn| {
            let piece = &drawn.job_piece;
            let own = first..first + drawn.laid_parts().len();
            first = own.end;
            PieceView {
                id: piece.id.clone(),
                name: drawn.name.clone(),
                copies: piece.copies,
                held_by: job.holder(&piece.id).map(|(at, _)| job.pieces[at].id.clone()),
                is_free: job.is_free(piece),
                laid: own.clone().map(|part| prepared.layout.count(part)).min().unwrap_or(0),
                first: own.start,
                flat: known.seen("flat view", flat_key(drawn, page), || {
                    flat(job.unit, page, drawn, &drawn.flat)
                }),
                face: known
                    .seen("face view", drawn.face_key.to_string(), || face(drawn, job.unit, 0)),
            }
        })
        .collect()
}
