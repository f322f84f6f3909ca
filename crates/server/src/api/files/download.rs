//! A file as a download.

use std::io::{self, Write};

use aptum_core::{Job, Prepared, Workshop};
use rocket::Request;
use rocket::http::{ContentType, Header};
use rocket::response::{self, Responder, Response};

use super::found;
use crate::api::Problem;
use crate::desk::Desk;
use crate::sending::Body;
use crate::store::Store;

/// A file as a download, sent while it is made.
pub struct Download {
    body: Body,
    kind: ContentType,
    disposition: Header<'static>,
}

/// The media type of a file, by its name: as the OpenAPI document says.
fn media_type(name: &str) -> ContentType {
    match name.rsplit('.').next() {
        Some("pdf") => ContentType::PDF,
        Some("svg") => ContentType::SVG,
        Some("png") => ContentType::PNG,
        Some("fold") => ContentType::JSON,
        Some("gltf") => ContentType::new("model", "gltf+json"),
        Some("obj") => ContentType::new("model", "obj"),
        Some("dxf") => ContentType::new("image", "vnd.dxf"),
        Some("nc") => ContentType::new("text", "plain"),
        Some("hpgl") => ContentType::new("application", "vnd.hp-hpgl"),
        _ => ContentType::ZIP,
    }
}

/// What a download is called: its job's name and its own.
pub(super) struct Named {
    pub job: String,
    pub file: String,
}

impl Download {
    pub(super) fn new((named, body): (Named, Body)) -> Self {
        let Named { job, file: name } = named;
        let safe: String = job
            .chars()
            .take(80)
            .map(|c| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' })
            .collect();
        let disposition = format!("attachment; filename=\"{safe}-{name}\"");
        Self {
            body,
            kind: media_type(&name),
            disposition: Header::new("Content-Disposition", disposition),
        }
    }
}

impl Download {
    /// A file that is made from a job as it is kept.
    pub(in crate::api) async fn of_job<
        W: FnOnce(&mut dyn Write) -> io::Result<()> + Send + 'static,
    >(
        desk: &Desk,
        id: i32,
        make: impl FnOnce(&Job, &Workshop, &Prepared) -> Result<(String, W), Problem> + Send + 'static,
    ) -> Result<Self, Problem> {
        let file = desk.file(move |store| {
            let (job, workshop, prepared) = found(store, id)?;
            let (file, write) = make(&job, &workshop, &prepared)?;
            Ok((Named { job: job.name, file }, write))
        });
        file.await.map(Self::new)
    }
}

impl Download {
    /// A file of whatever else is kept: what it belongs to, its name, and how it is made.
    pub(in crate::api) async fn made<
        W: FnOnce(&mut dyn Write) -> io::Result<()> + Send + 'static,
    >(
        desk: &Desk,
        make: impl FnOnce(&Store) -> Result<(String, String, W), Problem> + Send + 'static,
    ) -> Result<Self, Problem> {
        let file = desk.file(move |store| {
            let (job, file, write) = make(store)?;
            Ok((Named { job, file }, write))
        });
        file.await.map(Self::new)
    }
}

impl<'r> Responder<'r, 'static> for Download {
    fn respond_to(self, _: &'r Request<'_>) -> response::Result<'static> {
        Response::build().header(self.kind).header(self.disposition).streamed_body(self.body).ok()
    }
}
