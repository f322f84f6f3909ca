//! Errors as problem details (RFC 9457).

use aptum_core::InputError;
use aptum_core::error::Remedy;
use aptum_formats::archive::ArchiveError;
use rocket::http::{ContentType, Status};
use rocket::request::Request;
use rocket::response::{self, Responder, Response};
use rocket::{Catcher, catch, catchers as collect};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::body::Unreadable;
use crate::store::StoreError;

/// A problem, as `application/problem+json`.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct Problem {
    /// What kind of problem: a path that does not change, such as `/problems/input`.
    #[serde(rename = "type")]
    pub kind: String,
    /// The kind in words.
    pub title: String,
    /// The HTTP status.
    pub status: u16,
    /// What is wrong this time, with the number and the remedy.
    pub detail: String,
    /// The fields that are wrong, each with its number and remedy.
    pub errors: Vec<InputError>,
}

impl Problem {
    fn new(status: u16, kind: &str, title: &str, detail: impl Into<String>) -> Self {
        Self {
            kind: format!("/problems/{kind}"),
            title: title.to_owned(),
            status,
            detail: detail.into(),
            errors: Vec::new(),
        }
    }

    /// Something that does not exist.
    pub fn missing(detail: impl Into<String>) -> Self {
        Self::new(404, "missing", "Not here", detail)
    }

    /// A request from where none should come.
    pub fn refused(detail: impl Into<String>) -> Self {
        Self::new(403, "refused", "Refused", detail)
    }

    /// Something that is going on already.
    pub fn busy(detail: impl Into<String>) -> Self {
        Self::new(409, "busy", "Going on already", detail)
    }

    /// An entry that cannot be read, about one field.
    pub fn entry(field: &str, detail: impl Into<String>) -> Self {
        let detail = detail.into();
        let remedy = Remedy::advice("Type a length such as 62, 6.2 cm or 2 7/16 in");
        Self {
            errors: vec![InputError::plain(field, detail.clone(), remedy)],
            ..Self::new(422, "input", "A figure cannot be used", detail)
        }
    }
}

impl From<Vec<InputError>> for Problem {
    fn from(errors: Vec<InputError>) -> Self {
        let detail =
            errors.iter().map(|error| error.message.as_str()).collect::<Vec<_>>().join("; ");
        Self { errors, ..Self::new(422, "input", "A figure cannot be used", detail) }
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        let words = error.to_string();
        match error {
            StoreError::NoJob(_) => Self::missing(words),
            StoreError::Conflict { .. } => {
                Self::new(409, "conflict", "Changed in another window", words)
            }
            StoreError::WorkshopConflict { .. } => {
                Self::new(409, "workshop-conflict", "Changed in another window", words)
            }
            StoreError::InUse { .. } => Self::new(409, "in-use", "Jobs use it", words),
            StoreError::NoFurther(_) => Self::new(409, "no-further", "Nothing there", words),
            StoreError::Locked => Self::new(503, "locked", "The data file is locked", words),
            StoreError::ReadOnly(_) => {
                Self::new(507, "read-only", "The data file cannot be written", words)
            }
            StoreError::Newer(_) | StoreError::Unreadable { .. } | StoreError::Database(_) => {
                Self::new(500, "database", "The data file has a problem", words)
            }
        }
    }
}

impl From<ArchiveError> for Problem {
    fn from(error: ArchiveError) -> Self {
        Self::new(422, "archive", "The file cannot be read", error.to_string())
    }
}

impl<'r> Responder<'r, 'static> for Problem {
    fn respond_to(self, _: &'r Request<'_>) -> response::Result<'static> {
        let body = serde_json::to_string(&self).unwrap_or_default();
        Response::build()
            .status(Status::new(self.status))
            .header(ContentType::new("application", "problem+json"))
            .sized_body(body.len(), std::io::Cursor::new(body))
            .ok()
    }
}

/// What Rocket itself refuses, in the same form.
#[must_use]
pub fn catchers() -> Vec<Catcher> {
    collect![other]
}

#[catch(default)]
fn other(status: Status, request: &Request<'_>) -> Problem {
    let why = &request.local_cache(|| Unreadable(None)).0;
    let (kind, detail) = match (status.code, why) {
        (413, Some(why)) => ("too-large", why.clone()),
        (_, Some(why)) => ("malformed", why.clone()),
        (404, None) => ("missing", format!("There is nothing at {}", request.uri().path())),
        (code, None) => ("other", format!("The server answers {code}: {}", status.reason_lossy())),
    };
    Problem::new(status.code, kind, status.reason_lossy(), detail)
}
