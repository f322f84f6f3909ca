//! Drawings from elsewhere: read by their bytes, their lines kept, and a job made of them.

use aptum_core::Job;
use aptum_core::blob::Origin;
use aptum_core::form::{Form, LineDrawing};
use aptum_core::lines::{LineKey, guessed};
use aptum_formats::content::Content;
use aptum_formats::lines::{LARGEST, ReadError, brought, kept, remember};
use rocket::data::{Data, ToByteUnit};
use rocket::serde::json::Json;
use rocket::{State, get, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::starts::job_of_drawing;
use crate::desk::Desk;
use crate::shelf::{shelf, with_lines};

/// A drawing that was brought in.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct BroughtDrawing {
    /// The form that it is, its lines as they may be meant.
    drawing: LineDrawing,
    /// A job of it alone.
    job: Job,
    /// Width and height of what is seen of it, mm, where the file says how long its units are.
    size: Option<[f64; 2]>,
}

/// Reads the lines of a drawing and keeps them: of a PDF those of the page that is named, else of the first. They are on
/// disk when the answer comes.
#[post("/drawings?<name>&<page>", data = "<bytes>")]
pub async fn bring(
    desk: &State<Desk>,
    name: Option<String>,
    page: Option<usize>,
    bytes: Data<'_>,
) -> Result<Json<BroughtDrawing>, Problem> {
    let bytes = bytes
        .open((LARGEST + 1).bytes())
        .into_bytes()
        .await
        .map_err(|error| Problem::missing(format!("The drawing did not arrive: {error}")))?;
    let bytes = bytes.into_inner();
    let (lines, bytes) = desk
        .picture(move |_| {
            let lines = brought(&bytes, page.unwrap_or(1))?;
            let bytes = kept(&lines);
            Ok((lines, bytes))
        })
        .await?;
    let key = guessed(&lines);
    let bounds = lines.bounds();
    let size = lines.unit.map(|mm| [bounds.width() * mm, bounds.height() * mm]);
    let name: String = name.unwrap_or_default().chars().filter(|own| !own.is_control()).collect();
    let origin = Origin { name: name.chars().take(200).collect(), ..Origin::default() };
    desk.write(move |store| {
        let id = store.add_blob(Content::Lines, &bytes)?;
        remember(&id, &lines, shelf());
        let drawing = LineDrawing::new(id, origin, key).folding_as(lines.folding);
        let job = job_of_drawing(&*store.workshop()?, drawing.clone());
        Ok(Json(BroughtDrawing { drawing, job, size }))
    })
    .await
}

/// A line key that a job has.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct KeptKey {
    /// Its own name, or the job's.
    name: String,
    key: LineKey,
}

/// The line keys of all jobs with drawings, by the jobs' names.
#[get("/keys")]
pub async fn keys(desk: &State<Desk>) -> Result<Json<Vec<KeptKey>>, Problem> {
    desk.slow(move |store| {
        let jobs = store.jobs()?.into_iter().filter_map(|entry| entry.job.ok());
        let own = |job: Job| {
            let drawing = job.pieces.iter().find_map(|piece| piece.form.drawing())?;
            let name = drawing.key_name.clone().unwrap_or_else(|| job.name.clone());
            Some(KeptKey { name, key: drawing.key.clone() })
        };
        Ok(Json(jobs.filter_map(own).take(MOST_KEYS).collect()))
    })
    .await
}

/// Most keys that are told.
const MOST_KEYS: usize = 200;

/// Colours that differ by no more are the same, ΔE: programs shift them by as much when they save (common practice).
const SHIFT: f64 = 6.0;

/// A drawing and a line key of another.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct KeyAsk {
    drawing: LineDrawing,
    key: LineKey,
}

/// What a line key says of a drawing's lines, by layers and by colours; what it says nothing of stays as it is.
#[post("/keys", data = "<ask>")]
pub async fn apply_key(desk: &State<Desk>, ask: Body<KeyAsk>) -> Result<Json<LineKey>, Problem> {
    let KeyAsk { drawing, key } = ask.0;
    desk.quick(move |store| {
        let form = with_lines(Form::of_drawing(drawing), store);
        let drawing = form.drawing();
        let read = drawing.and_then(|own| Some((own, own.read.0.clone()?)));
        let (drawing, lines) =
            read.ok_or_else(|| Problem::missing("The drawing is not here: bring it in again"))?;
        let mut own = drawing.key.clone();
        own.0.extend(key.applied(&lines.groups, SHIFT).0);
        Ok(Json(own))
    })
    .await
}

impl From<ReadError> for Problem {
    fn from(error: ReadError) -> Self {
        let status = if matches!(error, ReadError::Large(_)) { 413 } else { 422 };
        Self::drawing(status, error.to_string())
    }
}
