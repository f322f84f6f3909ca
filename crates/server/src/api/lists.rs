//! Lists: read as they come from spreadsheets, and the rows of a job's list looked at one by one.

use aptum_core::Job;
use aptum_core::face::List;
use aptum_core::id::PieceId;
use aptum_formats::list::{Coding, LARGEST, ListError, SEPARATORS, Told, read};
use rocket::data::{Data, ToByteUnit};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::preview::{FaceView, face};
use crate::desk::Desk;
use crate::shelf::prepared;

/// A list that was read, and how.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ListView {
    list: List,
    /// How its characters are coded: `UTF-8`, `UTF-16` or `Windows-1252`.
    coding: &'static str,
    /// What stands between its cells: a comma, a semicolon or a tab.
    separator: char,
    /// True where its first row names the columns.
    has_head: bool,
}

/// Reads a list; what is not told of it is found.
#[post("/lists?<name>&<coding>&<separator>&<head>", data = "<bytes>")]
pub async fn read_list(
    desk: &State<Desk>,
    name: Option<String>,
    coding: Option<String>,
    separator: Option<String>,
    head: Option<bool>,
    bytes: Data<'_>,
) -> Result<Json<ListView>, Problem> {
    let bytes = bytes
        .open((LARGEST as u64 + 1).bytes())
        .into_bytes()
        .await
        .map_err(|error| Problem::missing(format!("The list did not arrive: {error}")))?
        .into_inner();
    let by_name = |own: &Coding| coding.as_deref() == Some(own.name());
    let told = Told {
        coding: Coding::ALL.into_iter().find(by_name),
        separator: separator.and_then(|own| own.chars().next()).filter(|c| SEPARATORS.contains(c)),
        has_head: head,
    };
    desk.slow(move |_| {
        let read = read(&bytes, name.as_deref().unwrap_or("List"), told)?;
        Ok(Json(ListView {
            list: read.list,
            coding: read.coding.name(),
            separator: read.separator,
            has_head: read.has_head,
        }))
    })
    .await
}

/// Which row of which piece.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct RowAsk {
    job: Job,
    piece: PieceId,
    /// From 0.
    row: usize,
}

/// What the copy of a row wears.
#[post("/row", data = "<ask>")]
pub async fn row(desk: &State<Desk>, ask: Body<RowAsk>) -> Result<Json<FaceView>, Problem> {
    desk.quick(move |store| {
        let RowAsk { job, piece, row } = ask.0;
        let prepared = prepared(&job, &*store.workshop()?, store)?;
        let found = prepared.pieces.iter().find(|own| own.job_piece.id == piece);
        let Some(found) = found else {
            return Err(Problem::missing(format!("The job has no piece “{}”", piece.shown())));
        };
        Ok(Json(face(found, job.unit, row)))
    })
    .await
}

impl From<ListError> for Problem {
    fn from(error: ListError) -> Self {
        let status = if matches!(error, ListError::TooLarge(_)) { 413 } else { 422 };
        Self::list(status, error.to_string())
    }
}
