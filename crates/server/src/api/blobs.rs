//! Pictures: brought in as they are, told by their bytes, and given back.

use aptum_core::blob::BlobId;
use aptum_formats::content::Content;
use aptum_formats::lines::as_svg;
use aptum_formats::picture::{Coding, LARGEST, Picture, PictureError};
use rocket::data::{Data, ToByteUnit};
use rocket::http::{ContentType, Header};
use rocket::serde::json::Json;
use rocket::{Responder, State, get, post};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::Problem;
use crate::desk::Desk;

/// A picture that is kept.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct BlobView {
    /// What a job names it by.
    id: BlobId,
    /// Its media type, by its bytes.
    media: &'static str,
    /// Width and height in pixels, the right way up.
    pixels: [u32; 2],
    /// True for a drawing of lines and areas: of its pixels only the ratio counts.
    drawn: bool,
}

/// A blob's bytes; its address names its content, so it never changes.
#[derive(Responder)]
pub struct Bytes {
    bytes: Vec<u8>,
    kind: ContentType,
    cache: Header<'static>,
}

/// Keeps a picture, or a drawing: of a PDF the page that is named, else the first. It is on disk when the answer comes.
#[post("/blobs?<page>", data = "<bytes>")]
pub async fn add(
    desk: &State<Desk>,
    page: Option<usize>,
    bytes: Data<'_>,
) -> Result<Json<BlobView>, Problem> {
    let bytes = bytes
        .open((LARGEST + 1).bytes())
        .into_bytes()
        .await
        .map_err(|error| Problem::missing(format!("The picture did not arrive: {error}")))?;
    let bytes = bytes.into_inner();
    let (picture, bytes) = desk
        .picture(move |_| {
            match Picture::brought(
                &as_svg(&bytes).map_or(bytes, String::into_bytes),
                page.unwrap_or(1),
            ) {
                Ok((picture, kept)) => Ok((picture, kept.into_owned())),
                Err(error) => Err(error.into()),
            }
        })
        .await?;
    let id =
        desk.write(move |store| Ok(store.add_blob(Content::Picture(picture), &bytes)?)).await?;
    Ok(Json(BlobView::new(id, picture)))
}

impl BlobView {
    /// Of a picture that is kept under an id.
    pub fn new(id: BlobId, picture: Picture) -> Self {
        let drawn = picture.coding == Coding::Svg;
        Self { id, media: picture.coding.media(), pixels: picture.pixels, drawn }
    }
}

/// The bytes of a blob.
#[get("/blobs/<id>")]
pub async fn bytes(desk: &State<Desk>, id: String) -> Result<Bytes, Problem> {
    desk.quick(move |store| {
        let id = BlobId(id);
        let found = if id.is_sound() { store.blob(&id)? } else { None };
        let (media, bytes) = found.ok_or_else(|| {
            Problem::missing(
                "There is no such picture: bring it in again, or take it off its panel",
            )
        })?;
        Ok(Bytes {
            bytes,
            kind: ContentType::parse_flexible(&media).unwrap_or(ContentType::Binary),
            cache: Header::new("Cache-Control", "private, max-age=31536000, immutable"),
        })
    })
    .await
}

impl From<PictureError> for Problem {
    fn from(error: PictureError) -> Self {
        let status = if matches!(error, PictureError::TooLarge(_)) { 413 } else { 422 };
        Self::picture(status, error.to_string())
    }
}
