//! Pictures made from those that were brought in: cleaned up, or with parts of a drawing changed.

use aptum_core::blob::BlobId;
use aptum_core::face::{ReworkStep, Reworked};
use aptum_formats::content::Content;
use aptum_formats::parts::{self, MOST_TOLD};
use aptum_formats::rework::{ReworkError, reworked};
use rocket::serde::json::Json;
use rocket::{State, get, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::blobs::BlobView;
use super::body::Body;
use crate::desk::Desk;
use crate::store::Store;

/// What is done to a picture.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct ReworkAsk {
    /// The picture that was brought in.
    from: BlobId,
    /// One after the other; up to 200.
    steps: Vec<ReworkStep>,
}

/// Makes a picture and keeps it. It is on disk when the answer comes.
#[post("/pictures", data = "<ask>")]
pub async fn rework(desk: &State<Desk>, ask: Body<ReworkAsk>) -> Result<Json<BlobView>, Problem> {
    let ReworkAsk { from, steps } = ask.0;
    let how = Reworked { from, pixels: [1, 1], steps };
    how.checked()?;
    let (picture, bytes) =
        desk.picture(move |store| Ok(reworked(&stored(store, &how.from)?, &how)?)).await?;
    let id =
        desk.write(move |store| Ok(store.add_blob(Content::Picture(picture), &bytes)?)).await?;
    Ok(Json(BlobView::new(id, picture)))
}

/// The parts of a drawing.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct DrawingParts {
    /// Its width and height in its own units.
    sides: [f64; 2],
    /// How many parts it has.
    count: usize,
    /// Its parts, the first drawn first; up to 2000 of them.
    parts: Vec<DrawingPart>,
}

/// A part of a drawing.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct DrawingPart {
    /// Its outline as SVG path data, in the drawing's own units.
    path: String,
    /// Its colour as `#rrggbb`; none where it runs from one to another, or is a picture.
    colour: Option<String>,
    /// True for a picture within the drawing.
    is_picture: bool,
}

/// The parts of a drawing that is kept.
#[get("/blobs/<id>/parts")]
pub async fn drawing_parts(desk: &State<Desk>, id: String) -> Result<Json<DrawingParts>, Problem> {
    desk.picture(move |store| {
        let bytes = stored(store, &BlobId(id))?;
        let svg = std::str::from_utf8(&bytes).map_err(|_| ReworkError::NoParts)?;
        let found = parts::of(svg)?;
        let count = found.parts.len();
        let view = |part: parts::Part| DrawingPart {
            path: part.path,
            colour: part.colour,
            is_picture: part.is_picture,
        };
        let parts = found.parts.into_iter().take(MOST_TOLD).map(view).collect();
        Ok(Json(DrawingParts { sides: found.sides, count, parts }))
    })
    .await
}

fn stored(store: &Store, id: &BlobId) -> Result<Vec<u8>, Problem> {
    let found = if id.is_sound() { store.blob(id)? } else { None };
    let (_, bytes) = found.ok_or_else(|| {
        Problem::missing("The picture that was brought in is not here: bring it in again")
    })?;
    Ok(bytes)
}

impl From<ReworkError> for Problem {
    fn from(error: ReworkError) -> Self {
        Self::picture(422, error.to_string())
    }
}
