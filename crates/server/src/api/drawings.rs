//! Drawings from elsewhere: read by their bytes, their lines kept, and a job made of them.

use aptum_core::Job;
use aptum_core::blob::Origin;
use aptum_core::form::LineDrawing;
use aptum_core::lines::guessed;
use aptum_formats::content::Content;
use aptum_formats::lines::{LARGEST, ReadError, brought, kept};
use rocket::data::{Data, ToByteUnit};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::Problem;
use super::starts::job_of_drawing;
use crate::desk::Desk;

/// A drawing that was brought in.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct BroughtDrawing {
    /// The form that it is, its lines as they may be meant.
    drawing: LineDrawing,
    /// A job of it alone.
    job: Job,
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
            Ok((lines.clone(), kept(lines)))
        })
        .await?;
    let key = guessed(&lines);
    let name: String = name.unwrap_or_default().chars().filter(|own| !own.is_control()).collect();
    let origin = Origin { name: name.chars().take(200).collect(), ..Origin::default() };
    desk.write(move |store| {
        let id = store.add_blob(Content::Lines, &bytes)?;
        let drawing = LineDrawing::new(id, origin, key);
        let job = job_of_drawing(&*store.workshop()?, drawing.clone());
        Ok(Json(BroughtDrawing { drawing, job }))
    })
    .await
}

impl From<ReadError> for Problem {
    fn from(error: ReadError) -> Self {
        let status = if matches!(error, ReadError::Large(_)) { 413 } else { 422 };
        Self::drawing(status, error.to_string())
    }
}
