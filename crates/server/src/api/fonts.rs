//! Typefaces of makers' own: brought in, told by their bytes.

use aptum_core::blob::BlobId;
use aptum_formats::content::Content;
use aptum_formats::font::{FontError, LARGEST, brought};
use rocket::data::{Data, ToByteUnit};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::Problem;
use crate::desk::Desk;

/// A typeface that is kept.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct FontView {
    /// What a job names it by.
    id: BlobId,
    /// The name of its family, as it says itself.
    name: String,
}

/// Keeps a typeface. It is on disk when the answer comes.
#[post("/fonts", data = "<bytes>")]
pub async fn add_font(desk: &State<Desk>, bytes: Data<'_>) -> Result<Json<FontView>, Problem> {
    let bytes = bytes
        .open((LARGEST as u64 + 1).bytes())
        .into_bytes()
        .await
        .map_err(|error| Problem::missing(format!("The typeface did not arrive: {error}")))?
        .into_inner();
    let (name, kept) = desk
        .picture(move |_| {
            let (name, kept) = brought(&bytes)?;
            Ok((name, kept.into_owned()))
        })
        .await?;
    let id = desk.write(move |store| Ok(store.add_blob(Content::Font, &kept)?)).await?;
    Ok(Json(FontView { id, name }))
}

impl From<FontError> for Problem {
    fn from(error: FontError) -> Self {
        let status = if matches!(error, FontError::TooLarge(_)) { 413 } else { 422 };
        Self::font(status, error.to_string())
    }
}
