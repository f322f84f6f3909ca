//! Errors as problem details (RFC 9457).

use aptum_core::error::Remedy;
use aptum_core::job::FieldError;
use aptum_core::{InputError, Job};
use aptum_formats::archive::ArchiveError;
use rocket::http::{ContentType, Method, Status};
use rocket::request::Request;
use rocket::response::{self, Responder, Response};
use rocket::{Catcher, catch, catchers as collect};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::body::Unreadable;
use crate::gate::Numbered;
use crate::store::StoreError;

/// A problem, as `application/problem+json`.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct Problem {
    /// What kind of problem: a path that does not change, such as `/problems/input`.
    #[serde(rename = "type")]
    pub kind: &'static str,
    /// The kind in words.
    pub title: &'static str,
    /// The HTTP status.
    pub status: u16,
    /// What is wrong this time, with the number and the remedy.
    pub detail: String,
    /// The fields that are wrong, each with its number and remedy.
    pub errors: Vec<InputError>,
    /// The job with the changes that cannot be used, where changes were sent.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[ts(optional = nullable)]
    pub job: Option<Box<Job>>,
    /// This time: the request's number in the log.
    pub instance: Option<String>,
}

impl Problem {
    fn new(
        status: u16,
        kind: &'static str,
        title: &'static str,
        detail: impl Into<String>,
    ) -> Self {
        Self {
            kind,
            title,
            status,
            detail: detail.into(),
            errors: Vec::new(),
            job: None,
            instance: None,
        }
    }

    /// The passphrase has not been given in this browser.
    pub fn locked() -> Self {
        Self::new(
            401,
            "/problems/locked",
            "Passphrase wanted",
            "Give the passphrase that was printed when Aptum was started",
        )
    }

    /// A wrong passphrase; the next one waits for so many seconds.
    pub fn not_the_passphrase(seconds: f64) -> Self {
        Self::new(
            403,
            "/problems/not-the-passphrase",
            "Not the passphrase",
            format!("This is not the passphrase; the next try takes {seconds} s longer"),
        )
    }

    /// Something that does not exist.
    pub fn missing(detail: impl Into<String>) -> Self {
        Self::new(404, "/problems/missing", "Not here", detail)
    }

    /// A request from where none should come.
    pub fn refused(detail: impl Into<String>) -> Self {
        Self::new(403, "/problems/refused", "Refused", detail)
    }

    /// Something that waits until a limit is kept.
    pub fn held(detail: impl Into<String>) -> Self {
        Self::new(422, "/problems/limit", "A limit is broken", detail)
    }

    /// A run that cannot go on like that, and why.
    pub fn run(detail: impl Into<String>) -> Self {
        Self::new(422, "/problems/run", "The run does not go on like that", sentence(detail.into()))
    }

    /// The same, said of one of several things.
    pub fn about(mut self, name: &str) -> Self {
        self.detail = format!("{name}: {}", self.detail);
        self
    }

    /// Another screen was quicker.
    pub fn overtaken(detail: impl Into<String>) -> Self {
        Self::new(409, "/problems/overtaken", "Another screen was quicker", detail)
    }

    /// A sheet that cannot be rehearsed, and why.
    pub fn rehearsal(detail: impl Into<String>) -> Self {
        Self::new(422, "/problems/rehearsal", "This cannot be rehearsed", sentence(detail.into()))
    }

    /// Something that is going on already.
    pub fn busy(detail: impl Into<String>) -> Self {
        Self::new(409, "/problems/busy", "Going on already", detail)
    }

    /// More work of a kind than is taken at once.
    pub fn too_many(waiting: usize) -> Self {
        Self::new(
            429,
            "/problems/too-many",
            "Too much at once",
            format!(
                "{waiting} others wait for such work already: try again in some seconds, or stop a search"
            ),
        )
    }

    /// A file that is no picture that can be used.
    pub fn picture(status: u16, detail: String) -> Self {
        Self::new(status, "/problems/picture", "No picture that can be used", sentence(detail))
    }

    /// A file that brings no lines.
    pub fn drawing(status: u16, detail: String) -> Self {
        Self::new(status, "/problems/drawing", "No drawing that can be used", sentence(detail))
    }

    /// A file that is no typeface that can be used.
    pub fn font(status: u16, detail: String) -> Self {
        Self::new(status, "/problems/typeface", "No typeface that can be used", sentence(detail))
    }

    /// A file that is no list that can be used.
    pub fn list(status: u16, detail: String) -> Self {
        Self::new(status, "/problems/list", "No list that can be used", sentence(detail))
    }

    /// Work that ended by a fault of the program.
    pub fn broken() -> Self {
        Self::new(
            500,
            "/problems/broken",
            "This did not work",
            "The work ended early by a fault of the program; nothing was changed. Try again, or set back the last change",
        )
    }

    /// An entry that cannot be read, about one field.
    pub fn entry(field: &str, detail: impl Into<String>) -> Self {
        let detail = detail.into();
        let remedy = Remedy::advice("Type a length such as 62, 6.2 cm or 2 7/16 in");
        Self {
            errors: vec![InputError::plain(field, detail.clone(), remedy)],
            ..Self::new(422, "/problems/input", "A figure cannot be used", detail)
        }
    }
}

impl Problem {
    /// A job that cannot be used, with what was changed in it.
    #[must_use]
    pub fn of_job(errors: Vec<InputError>, changed: Option<Job>) -> Self {
        Self { job: changed.map(Box::new), ..errors.into() }
    }
}

impl From<FieldError> for Problem {
    fn from(error: FieldError) -> Self {
        let mut words = error.to_string();
        if let Some(first) = words.get_mut(..1) {
            first.make_ascii_uppercase();
        }
        Self::new(422, "/problems/change", "A change cannot be made", words)
    }
}

impl From<Vec<InputError>> for Problem {
    fn from(errors: Vec<InputError>) -> Self {
        let detail =
            errors.iter().map(|error| error.message.as_str()).collect::<Vec<_>>().join("; ");
        Self { errors, ..Self::new(422, "/problems/input", "A figure cannot be used", detail) }
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        let words = error.to_string();
        match error {
            StoreError::NoJob(_) => Self::missing(words),
            StoreError::Conflict { .. } => {
                Self::new(409, "/problems/conflict", "Changed in another window", words)
            }
            StoreError::WorkshopConflict { .. } => {
                Self::new(409, "/problems/workshop-conflict", "Changed in another window", words)
            }
            StoreError::InUse { .. } => Self::new(409, "/problems/in-use", "Jobs use it", words),
            StoreError::NoFurther(_) => {
                Self::new(409, "/problems/no-further", "Nothing there", words)
            }
            StoreError::Locked => {
                Self::new(503, "/problems/data-locked", "The data file is locked", words)
            }
            StoreError::ReadOnly(_) => {
                Self::new(507, "/problems/read-only", "The data file cannot be written", words)
            }
            StoreError::NoRecord { .. } => Self::new(422, "/problems/input", "Not usable", words),
            StoreError::Overtaken(_) => {
                Self::new(409, "/problems/overtaken", "Changed meanwhile", words)
            }
            StoreError::Unusable(errors) => errors.into(),
            StoreError::Newer(_)
            | StoreError::Unreadable { .. }
            | StoreError::Damaged { .. }
            | StoreError::Older(_)
            | StoreError::Served(_)
            | StoreError::Copy(_)
            | StoreError::Database(_) => {
                Self::new(500, "/problems/database", "The data file has a problem", words)
            }
        }
    }
}

impl From<ArchiveError> for Problem {
    fn from(error: ArchiveError) -> Self {
        Self::new(422, "/problems/archive", "The file cannot be read", error.to_string())
    }
}

impl<'r> Responder<'r, 'static> for Problem {
    fn respond_to(mut self, request: &'r Request<'_>) -> response::Result<'static> {
        self.instance = Some(format!("/requests/{}", Numbered::of(request).0));
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
    let methods = methods_at(request);
    let takes = |method: Method| methods.iter().any(|known| known == method.as_str());
    // A part of the path may be what its route does not take, such as a number that is too large.
    if status == Status::NotFound && !methods.is_empty() && !takes(request.method()) {
        let (method, path) = (request.method(), request.uri().path());
        let detail = format!("{path} does not take {method}: it takes {}", methods.join(", "));
        return Problem::new(405, "/problems/method", "Not that way", detail);
    }
    let why = &request.local_cache(|| Unreadable(None)).0;
    let (kind, detail) = match (status.code, why) {
        (413, Some(why)) => ("/problems/too-large", why.clone()),
        (_, Some(why)) => ("/problems/malformed", why.clone()),
        (404, None) => {
            ("/problems/missing", format!("There is nothing at {}", request.uri().path()))
        }
        (code, None) => {
            ("/problems/other", format!("The server answers {code}: {}", status.reason_lossy()))
        }
    };
    Problem::new(status.code, kind, status.reason_lossy(), detail)
}

/// The methods that the API takes at a request's path.
fn methods_at(request: &Request<'_>) -> Vec<String> {
    let parts: Vec<&str> = request.uri().path().as_str().split('/').collect();
    let mut methods: Vec<String> = request
        .rocket()
        .routes()
        .filter(|route| route.uri.path().starts_with("/api/"))
        .filter(|route| {
            let own: Vec<&str> = route.uri.path().split('/').collect();
            let fits = |(own, asked): (&&str, &&str)| own == asked || own.starts_with('<');
            own.len() == parts.len() && own.iter().zip(&parts).all(fits)
        })
        .map(|route| route.method.to_string())
        .collect();
    methods.sort();
    methods.dedup();
    methods
}

/// Words that begin with a capital.
fn sentence(mut words: String) -> String {
    if let Some(first) = words.get_mut(..1) {
        first.make_ascii_uppercase();
    }
    words
}
