//! What core prepares, as drawings and figures that a page can show.

mod flat;
mod sheet;

use aptum_core::blob::Blobs;
use aptum_core::check::{Stage, State as Standing};
use aptum_core::face::{Layer, LayerKind, missing_pictures};
use aptum_core::id::{LayerId, PieceId};
use aptum_core::units::Unit;
use aptum_core::units::format_length;
use aptum_core::{Check, Job, Prepared, PreparedPiece};
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
    id: PieceId,
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
    /// The layers of its face, the first printed first.
    layers: Vec<LayerView>,
    bleed_text: String,
}

/// A layer of a face, in words and figures.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LayerView {
    id: LayerId,
    /// What it goes by.
    title: String,
    /// Of a picture whose panel is there, how it lies.
    picture: Option<PictureView>,
}

/// How a picture lies on its panel.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PictureView {
    /// Width and height, mm.
    size: [f64; 2],
    size_text: [String; 2],
    /// From the panel's middle to its own, to the right and downwards.
    at_text: [String; 2],
    pixels_text: String,
}

fn layers(drawn: &PreparedPiece, unit: Unit) -> Vec<LayerView> {
    let panel = |name: &str| {
        drawn.flat.panels().find(|(panel, _)| panel.name == name).map(|(panel, _)| panel)
    };
    let view = |layer: &Layer| LayerView {
        id: layer.id.clone(),
        title: layer.title().to_owned(),
        picture: match &layer.kind {
            LayerKind::Picture(picture) => {
                let [across, along] = picture.pixels;
                panel(&picture.panel).map(|panel| {
                    let (size, ppi) = (picture.sides(panel), picture.ppi(panel));
                    PictureView {
                        size,
                        size_text: size.map(|mm| format_length(mm, unit)),
                        at_text: [picture.x, picture.y].map(|mm| format_length(mm, unit)),
                        pixels_text: format!("{across} × {along} pixels, {ppi:.0} ppi"),
                    }
                })
            }
            _ => None,
        },
    };
    let face = drawn.job_piece.face.as_ref();
    face.map_or_else(Vec::new, |face| face.layers.iter().map(view).collect())
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
    /// The pieces.
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
        Ok(Json(Preview::new(&job.0, &prepared, store)))
    })
    .await
}

impl Preview {
    /// The view of a prepared job, whose pictures are where `blobs` says.
    #[must_use]
    pub fn new(job: &Job, prepared: &Prepared, blobs: &dyn Blobs) -> Self {
        let missing = missing_pictures(job, blobs);
        let state = |stage: Stage| {
            let missing = missing.iter().filter(|check| check.stage == stage);
            prepared.state(stage).max(missing.map(|check| check.state).max())
        };
        let stages = [Stage::Form, Stage::Face, Stage::Sheet, Stage::Run];
        let stages = stages.map(|stage| StageView { stage, state: state(stage) }).into();
        Self {
            pieces: pieces(job, prepared),
            is_printed: prepared.is_printed(),
            sheet: sheet(job, prepared),
            checks: prepared.checks.iter().cloned().chain(missing).collect(),
            stages,
            code: prepared.code.clone(),
            spacing_text: format_length(job.sheet.spacing, job.unit),
            to_marks_text: format_length(job.sheet.to_marks, job.unit),
        }
    }
}

fn pieces(job: &Job, prepared: &Prepared) -> Vec<PieceView> {
    let mut first = 0;
    let pieces = prepared.pieces.iter();
    pieces
        .map(|drawn| {
            let piece = &drawn.job_piece;
            let own = first..first + drawn.flat.parts.len();
            first = own.end;
            PieceView {
                id: piece.id.clone(),
                name: drawn.name.clone(),
                copies: piece.copies,
                laid: own.clone().map(|part| prepared.layout.count(part)).min().unwrap_or(0),
                first: own.start,
                flat: flat(job.unit, drawn),
                is_printed: !drawn.arts.is_empty(),
                layers: layers(drawn, job.unit),
                bleed_text: format_length(
                    piece.face.as_ref().map_or(0.0, |face| face.bleed),
                    job.unit,
                ),
            }
        })
        .collect()
}
