//! The files of a job, made from its current revision.

use aptum_core::{Prepared, prepare};
use aptum_formats::archive::JobFile;
use aptum_formats::svg::MarksInCut;
use rocket::http::{ContentType, Header};
use rocket::serde::json::Json;
use rocket::{Responder, State, get};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::Problem;
use crate::output::{self, OutputFile};
use crate::store::Store;

/// A file that can be downloaded.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct FileInfo {
    /// Its name, which is also the last part of its address.
    name: String,
    /// Its size in bytes.
    bytes: usize,
    /// Its pages, 1 for a cut file.
    pages: u32,
    /// For a cut file, the first and the last of the sheets that are all cut alike.
    sheets: Option<[u32; 2]>,
}

/// A file as a download.
#[derive(Responder)]
pub struct Download {
    bytes: Vec<u8>,
    kind: ContentType,
    disposition: Header<'static>,
}

impl Download {
    fn new(job: &str, file: OutputFile) -> Self {
        let safe: String = job
            .chars()
            .map(|c| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' })
            .collect();
        let kind = match file.name.rsplit('.').next() {
            Some("pdf") => ContentType::PDF,
            Some("svg") => ContentType::SVG,
            Some("fold" | "gltf") => ContentType::JSON,
            Some("dxf" | "obj") => ContentType::Plain,
            _ => ContentType::ZIP,
        };
        let disposition = format!("attachment; filename=\"{safe}-{}\"", file.name);
        Self {
            bytes: file.bytes,
            kind,
            disposition: Header::new("Content-Disposition", disposition),
        }
    }
}

fn prepared(store: &Store, id: i32) -> Result<(aptum_core::Job, Prepared), Problem> {
    let job = store.job(id)?.job;
    let prepared = prepare(&job, &store.workshop()?)?;
    Ok((job, prepared))
}

/// Which files the job has, with their sizes. Sheets that are cut alike are named once.
#[get("/jobs/<id>/files")]
pub fn list(store: &State<Store>, id: i32) -> Result<Json<Vec<FileInfo>>, Problem> {
    let (job, prepared) = prepared(store, id)?;
    let info = |file: OutputFile, sheets| FileInfo {
        bytes: file.bytes.len(),
        name: file.name,
        pages: file.pages,
        sheets,
    };
    let mut files: Vec<FileInfo> = output::print(&job, &prepared)
        .into_iter()
        .chain([output::hand_cut(&job, &prepared)])
        .map(|file| info(file, None))
        .collect();
    let mut first = 1;
    for run in &prepared.layout.runs {
        let file = output::cut(&job, &prepared, first, MarksInCut::LeftOut);
        files.extend(file.map(|file| info(file, Some([first, first + run.sheets - 1]))));
        first += run.sheets;
    }
    let workshop = store.workshop()?;
    files.extend(output::pieces(&job, &prepared, &workshop).map(|file| info(file, None)));
    Ok(Json(files))
}

/// The print PDF.
#[get("/jobs/<id>/print.pdf")]
pub fn print(store: &State<Store>, id: i32) -> Result<Download, Problem> {
    let (job, prepared) = prepared(store, id)?;
    let file = output::print(&job, &prepared).ok_or_else(|| {
        Problem::missing("This job is only cut: switch its printed face on to print it")
    })?;
    Ok(Download::new(&job.name, file))
}

/// The hand-cut PDF.
#[get("/jobs/<id>/hand-cut.pdf")]
pub fn hand_cut(store: &State<Store>, id: i32) -> Result<Download, Problem> {
    let (job, prepared) = prepared(store, id)?;
    Ok(Download::new(&job.name, output::hand_cut(&job, &prepared)))
}

/// The cut SVG of one sheet; with `marks=included` the registration marks go in too.
#[get("/jobs/<id>/cut/<number>?<marks>")]
pub fn cut(
    store: &State<Store>,
    id: i32,
    number: u32,
    marks: Option<&str>,
) -> Result<Download, Problem> {
    let (job, prepared) = prepared(store, id)?;
    let marks = output::marks_wanted(marks);
    let file = output::cut(&job, &prepared, number, marks).ok_or_else(|| {
        Problem::missing(format!(
            "There is no sheet {number}: the job has {}",
            prepared.layout.sheets()
        ))
    })?;
    Ok(Download::new(&job.name, file))
}

/// The piece itself, flat or folded.
#[get("/jobs/<id>/piece/<name>")]
pub fn piece(store: &State<Store>, id: i32, name: &str) -> Result<Download, Problem> {
    let (job, prepared) = prepared(store, id)?;
    let workshop = store.workshop()?;
    let found = output::pieces(&job, &prepared, &workshop).find(|file| file.name == name);
    let file = found.ok_or_else(|| {
        Problem::missing(
            "A piece is given as flat.dxf, flat.fold, folded.gltf and folded.obj; what does not fold \
             has no folded files",
        )
    })?;
    Ok(Download::new(&job.name, file))
}

/// The job as an archive.
#[get("/jobs/<id>/job.aptum")]
pub fn archive(store: &State<Store>, id: i32) -> Result<Download, Problem> {
    let job = store.job(id)?.job;
    let bytes = JobFile::new(&job, &store.workshop()?).to_archive()?;
    Ok(Download::new(&job.name, OutputFile { name: "job.aptum".to_owned(), bytes, pages: 1 }))
}
