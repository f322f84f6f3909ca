//! Jobs: list, open, change, undo, redo, bin, import.

use aptum_core::{InputError, Job, prepare};
use aptum_formats::archive::{JobFile, LARGEST_FILE};
use rocket::data::{Data, ToByteUnit};
use rocket::serde::json::Json;
use rocket::{State, delete, get, post, put};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::preview::Preview;
use super::summaries::{JobSummary, Summaries};
use crate::store::{Store, StoredJob};

/// A job, open.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OpenJob {
    /// Its number.
    id: i32,
    /// What a change must name, so that a second window is noticed.
    version: i32,
    job: Job,
    can_undo: bool,
    can_redo: bool,
    /// As core prepares it, unless a figure or record cannot be used.
    preview: Option<Preview>,
    /// Why it cannot be prepared.
    errors: Vec<InputError>,
}

/// A changed job and the version that was changed.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct JobChange {
    /// The version the change was made to.
    version: i32,
    /// The job as it should be.
    job: Job,
}

/// The version to which an undo or redo applies.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct JobStep {
    /// The version that is on the screen.
    version: i32,
}

type Opened = Result<Json<OpenJob>, Problem>;

fn opened(store: &Store, stored: StoredJob) -> Opened {
    let prepared = prepare(&stored.job, &store.workshop()?);
    let (preview, errors) = match prepared {
        Ok(prepared) => (Some(Preview::new(&stored.job, &prepared)), Vec::new()),
        Err(errors) => (None, errors),
    };
    let StoredJob { id, version, job, can_undo, can_redo } = stored;
    Ok(Json(OpenJob { id, version, job, can_undo, can_redo, preview, errors }))
}

/// All jobs, the one changed last first.
#[get("/jobs")]
pub fn list(
    store: &State<Store>,
    summaries: &State<Summaries>,
) -> Result<Json<Vec<JobSummary>>, Problem> {
    let workshop = store.workshop()?;
    let jobs = store.jobs()?;
    Ok(Json(jobs.iter().map(|entry| summaries.of(entry, &workshop)).collect()))
}

/// Adds a job.
#[post("/jobs", data = "<job>")]
pub fn create(store: &State<Store>, job: Body<Job>) -> Opened {
    prepare(&job.0, &store.workshop()?)?;
    opened(store, store.add_job(&job.0)?)
}

/// Adds a job from an archive or its JSON; records that it brings are added to the workshop.
#[post("/jobs/import", data = "<file>")]
pub async fn import(store: &State<Store>, file: Data<'_>) -> Opened {
    // One byte more than allowed, so that a file that is too large is told from one that fits.
    let bytes = file
        .open((LARGEST_FILE + 1).bytes())
        .into_bytes()
        .await
        .map_err(|error| Problem::missing(format!("The file did not arrive: {error}")))?;
    let file = JobFile::read(&bytes)?;
    file.workshop.validate(file.job.unit)?;
    let (job, new) = file.adopt(&store.workshop()?);
    let mut together = store.workshop()?;
    together.stocks.extend(new.stocks.clone());
    together.printers.extend(new.printers.clone());
    together.cutters.extend(new.cutters.clone());
    together.carriers.extend(new.carriers.clone());
    together.mark_sets.extend(new.mark_sets.clone());
    prepare(&job, &together)?;
    opened(store, store.bring_job(&job, &new)?)
}

/// Opens a job.
#[get("/jobs/<id>")]
pub fn open(store: &State<Store>, id: i32) -> Opened {
    opened(store, store.job(id)?)
}

/// Saves a change, unless the job was changed elsewhere meanwhile.
#[put("/jobs/<id>", data = "<change>")]
pub fn save(store: &State<Store>, id: i32, change: Body<JobChange>) -> Opened {
    let JobChange { version, job } = change.0;
    prepare(&job, &store.workshop()?)?;
    opened(store, store.save_job(id, version, &job)?)
}

/// Goes back one change.
#[post("/jobs/<id>/undo", data = "<step>")]
pub fn undo(store: &State<Store>, id: i32, step: Body<JobStep>) -> Opened {
    opened(store, store.undo(id, step.0.version)?)
}

/// Goes forward one change.
#[post("/jobs/<id>/redo", data = "<step>")]
pub fn redo(store: &State<Store>, id: i32, step: Body<JobStep>) -> Opened {
    opened(store, store.redo(id, step.0.version)?)
}

/// Puts a job into the bin.
#[delete("/jobs/<id>")]
pub fn bin(store: &State<Store>, id: i32) -> Result<(), Problem> {
    Ok(store.bin_job(id)?)
}

/// Takes a job out of the bin.
#[post("/jobs/<id>/unbin")]
pub fn unbin(store: &State<Store>, id: i32) -> Opened {
    store.unbin_job(id)?;
    opened(store, store.job(id)?)
}
