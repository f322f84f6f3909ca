//! Outlines from pictures: a first look while a threshold is moved, a job from a picture, a piece for each motif.

use aptum_core::Job;
use aptum_core::blob::BlobId;
use aptum_core::form::Traced;
use aptum_core::geometry::path_text;
use aptum_core::id::PieceId;
use aptum_core::job::JobPiece;
use aptum_core::trace::{Trace, Tracing};
use aptum_core::units::Unit;
use aptum_formats::picture::{Coding, Picture};
use aptum_formats::trace::likely_in;
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::preview::FoundView;
use super::starts::job_of_picture;
use crate::desk::Desk;
use crate::shelf::{furnished, seen};

/// So many pixels are looked at while somebody moves a threshold.
const COARSE: usize = 200_000;

/// Most characters of a line that is only looked at.
const LONGEST_LINE: usize = 400_000;

/// What is looked at.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct TraceAsk {
    /// The outline as it is set up.
    traced: Traced,
    /// The unit of the texts.
    unit: Unit,
}

/// A first look.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TraceLook {
    /// Around what counts as inside: SVG path data in mm from the picture's top left, roughly.
    line: String,
    /// What was found; none where nothing is inside.
    found: Option<FoundView>,
    /// What is wrong, in words.
    trouble: Option<String>,
}

/// Traces a picture roughly: what a threshold would do.
#[post("/traces", data = "<ask>")]
pub async fn look(desk: &State<Desk>, ask: Body<TraceAsk>) -> Result<Json<TraceLook>, Problem> {
    let TraceAsk { traced, unit } = ask.0;
    traced.checked(unit)?;
    desk.picture(move |store| {
        let seen = seen(&traced, store, COARSE).ok_or_else(gone)?;
        Ok(Json(match Tracing::of(&seen, &traced.trace, traced.width) {
            Ok(tracing) => {
                let line = path_text(&tracing.path());
                let is_short = line.len() <= LONGEST_LINE;
                TraceLook {
                    line: if is_short { line } else { String::new() },
                    found: Some(FoundView::new(&tracing, unit)),
                    trouble: None,
                }
            }
            Err(error) => {
                TraceLook { line: String::new(), found: None, trouble: Some(error.to_string()) }
            }
        }))
    })
    .await
}

/// A picture that a job is to be made from.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct PictureStart {
    /// The picture.
    blob: BlobId,
    /// The name of its file.
    name: String,
    /// How wide it is printed, mm.
    width: f64,
}

/// The job that a picture starts: its outline with a border, and the picture in it.
#[post("/traces/start", data = "<start>")]
pub async fn start(desk: &State<Desk>, start: Body<PictureStart>) -> Result<Json<Job>, Problem> {
    let PictureStart { blob, name, width } = start.0;
    desk.picture(move |store| {
        let found = if blob.is_sound() { store.blob(&blob)? } else { None };
        let (_, bytes) = found.ok_or_else(gone)?;
        let picture = Picture::head(&bytes)?;
        let drawn = picture.coding == Coding::Svg;
        let mut traced = Traced::new(blob, picture.pixels, width, Trace::default());
        traced.drawn = drawn;
        traced.origin.name = name;
        traced.checked(Unit::Mm)?;
        if let Some(by) = likely_in(&bytes, traced.looked_at()) {
            traced.trace.by = by;
        }
        let workshop = store.workshop()?;
        Ok(Json(job_of_picture(&workshop, traced)))
    })
    .await
}

/// A job, and the piece of it that is taken apart.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct ApartAsk {
    job: Job,
    piece: PieceId,
}

/// The pieces of a job with one for each motif of a picture instead of one for all.
#[post("/traces/apart", data = "<ask>")]
pub async fn apart(
    desk: &State<Desk>,
    ask: Body<ApartAsk>,
) -> Result<Json<Vec<JobPiece>>, Problem> {
    let ApartAsk { job, piece } = ask.0;
    desk.picture(move |store| {
        let job = furnished(&job, store).into_owned();
        let pieces = job.motifs_apart(&piece)?;
        Ok(Json(pieces))
    })
    .await
}

fn gone() -> Problem {
    Problem::missing("The picture that is traced is not here: bring it in again")
}
