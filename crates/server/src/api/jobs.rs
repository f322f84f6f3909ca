//! Jobs: list, open, change, undo, redo, bin, import.

use aptum_core::job::{FieldChange, with_edits};
use aptum_core::{InputError, Job, prepare};
use aptum_formats::archive::{JobFile, LARGEST_FILE};
use rocket::data::{Data, ToByteUnit};
use rocket::serde::json::Json;
use rocket::tokio::task::spawn_blocking;
use rocket::{State, delete, get, post, put};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::preview::{Known, Preview};
use super::summaries::JobSummary;
use crate::brought::Brought;
use crate::desk::Desk;
use crate::shelf::{furnished, prepared};
use crate::store::{Entry, Store, StoredJob};

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

/// A job in the bin.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct BinnedJob {
    /// Its number.
    id: i32,
    /// Its name, or why it cannot be read.
    name: String,
}

/// A changed job and the version that was changed.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct JobChange {
    /// The version the change was made to.
    version: i32,
    /// The job as it should be; without it, that version's.
    #[serde(default)]
    #[ts(optional = nullable)]
    job: Option<Job>,
    /// What is changed in it, one after the other; up to 1000.
    #[serde(default)]
    changes: Vec<FieldChange>,
    /// Views that the page has already.
    #[serde(default)]
    known: Known,
}

/// The version to which an undo or redo applies.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct JobStep {
    /// The version that is on the screen.
    version: i32,
    /// Views that the page has already.
    #[serde(default)]
    known: Known,
}

pub(super) type Opened = Result<Json<OpenJob>, Problem>;

/// A job as it is opened.
fn opened(store: &Store, stored: StoredJob, known: &Known) -> Opened {
    let (preview, errors) = match prepared(&stored.job, &*store.workshop()?, store) {
        Ok(prepared) => (Some(Preview::new(&stored.job, &prepared, store, known)), Vec::new()),
        Err(errors) => (None, errors),
    };
    let StoredJob { id, version, job, can_undo, can_redo } = stored;
    Ok(Json(OpenJob { id, version, job, can_undo, can_redo, preview, errors }))
}

/// A job that can be prepared.
async fn usable(desk: &Desk, job: Job) -> Result<Job, Problem> {
    desk.quick(move |store| {
        prepared(&job, &*store.workshop()?, store)?;
        Ok(job)
    })
    .await
}

/// All jobs, the one changed last first.
///
/// Those that must be worked out anew say so and are worked out meanwhile: ask again for them.
#[get("/jobs")]
pub async fn list(desk: &State<Desk>) -> Result<Json<Vec<JobSummary>>, Problem> {
    let summaries = desk.summaries().clone();
    let (known, rest) = desk
        .quick(move |store| {
            Ok(summaries.all(store.jobs()?, store.workshop()?.as_ref().clone(), store))
        })
        .await?;
    if let Some(rest) = rest {
        let summaries = desk.summaries().clone();
        let store = desk.store();
        spawn_blocking(move || summaries.work_out(rest, &*store));
    }
    Ok(Json(known))
}

/// The jobs in the bin.
#[get("/bin")]
pub async fn binned(desk: &State<Desk>) -> Result<Json<Vec<BinnedJob>>, Problem> {
    desk.quick(|store| {
        let name = |entry: Entry| BinnedJob {
            id: entry.id,
            name: entry.job.map_or_else(|why| why, |job| job.name),
        };
        Ok(Json(store.binned()?.into_iter().map(name).collect()))
    })
    .await
}

/// Removes everything in the bin for good.
#[delete("/bin")]
pub async fn empty(desk: &State<Desk>) -> Result<Json<usize>, Problem> {
    desk.write(|store| Ok(Json(store.empty_bin(None)?))).await
}

/// Removes one job in the bin for good.
#[delete("/bin/<id>")]
pub async fn remove(desk: &State<Desk>, id: i32) -> Result<Json<usize>, Problem> {
    desk.write(move |store| Ok(Json(store.empty_bin(Some(id))?))).await
}

/// Adds a job.
#[post("/jobs", data = "<job>")]
pub async fn create(desk: &State<Desk>, job: Body<Job>) -> Opened {
    let job = usable(desk, job.0).await?;
    let stored = desk.write(move |store| Ok(store.add_job(&job)?)).await?;
    desk.quick(move |store| opened(store, stored, &Known::default())).await
}

/// Adds a copy of a job.
#[post("/jobs/<id>/copy")]
pub async fn copy(desk: &State<Desk>, id: i32) -> Opened {
    let copied = desk.write(move |store| {
        let mut job = store.job(id)?.job;
        let room = 80 - ", copy".len();
        job.name = format!("{}, copy", job.name.chars().take(room).collect::<String>());
        Ok(store.add_job(&job)?)
    });
    let stored = copied.await?;
    desk.quick(move |store| opened(store, stored, &Known::default())).await
}

/// Adds a job from an archive or its JSON; records that it brings are added to the workshop.
#[post("/jobs/import", data = "<file>")]
pub async fn import(desk: &State<Desk>, file: Data<'_>) -> Opened {
    // One byte more than allowed, so that a file that is too large is told from one that fits.
    let bytes = file
        .open((LARGEST_FILE + 1).bytes())
        .into_bytes()
        .await
        .map_err(|error| Problem::missing(format!("The file did not arrive: {error}")))?;
    let bytes = bytes.into_inner();
    let file = desk
        .quick(move |_| {
            let file = JobFile::read(&bytes)?;
            file.workshop.validate(file.job.unit)?;
            Ok(file)
        })
        .await?;
    bring(desk, file).await
}

/// Adds a job with what it brings: records that the workshop has already stay as they are there.
pub(super) async fn bring(desk: &State<Desk>, file: JobFile) -> Opened {
    let brought = desk.write(move |store| {
        let stored = store.bring_job(&file.assets, |workshop| {
            let (job, new) = file.clone().adopt(workshop);
            let mut together = workshop.clone();
            together.stocks.extend(new.stocks.clone());
            together.printers.extend(new.printers.clone());
            together.cutters.extend(new.cutters.clone());
            together.carriers.extend(new.carriers.clone());
            together.mark_sets.extend(new.mark_sets.clone());
            prepare(&furnished(&job, &Brought(&file.assets)), &together)?;
            Ok((job, new))
        })?;
        Ok(stored)
    });
    let stored = brought.await?;
    desk.quick(move |store| opened(store, stored, &Known::default())).await
}

/// Opens a job.
#[get("/jobs/<id>")]
pub async fn open(desk: &State<Desk>, id: i32) -> Opened {
    desk.quick(move |store| opened(store, store.job(id)?, &Known::default())).await
}

/// Saves a change, unless the job was changed elsewhere meanwhile.
#[put("/jobs/<id>", data = "<change>")]
pub async fn save(desk: &State<Desk>, id: i32, change: Body<JobChange>) -> Opened {
    let JobChange { version, job, changes, known } = change.0;
    let job = desk
        .quick(move |store| {
            let base = match job {
                Some(job) => job,
                None => store.job_at(id, version)?,
            };
            let job = with_edits(&base, &changes)?;
            match prepared(&job, &*store.workshop()?, store) {
                Ok(_) => Ok(job),
                Err(errors) => Err(Problem::of_job(errors, Some(job))),
            }
        })
        .await?;
    let stored = desk.write(move |store| Ok(store.save_job(id, version, &job)?)).await?;
    desk.quick(move |store| opened(store, stored, &known)).await
}

/// Goes back one change.
#[post("/jobs/<id>/undo", data = "<step>")]
pub async fn undo(desk: &State<Desk>, id: i32, step: Body<JobStep>) -> Opened {
    let JobStep { version, known } = step.0;
    let stored = desk.write(move |store| Ok(store.undo(id, version)?)).await?;
    desk.quick(move |store| opened(store, stored, &known)).await
}

/// Goes forward one change.
#[post("/jobs/<id>/redo", data = "<step>")]
pub async fn redo(desk: &State<Desk>, id: i32, step: Body<JobStep>) -> Opened {
    let JobStep { version, known } = step.0;
    let stored = desk.write(move |store| Ok(store.redo(id, version)?)).await?;
    desk.quick(move |store| opened(store, stored, &known)).await
}

/// Puts a job into the bin.
#[delete("/jobs/<id>")]
pub async fn bin(desk: &State<Desk>, id: i32) -> Result<(), Problem> {
    desk.write(move |store| Ok(store.bin_job(id)?)).await
}

/// Takes a job out of the bin.
#[post("/jobs/<id>/unbin")]
pub async fn unbin(desk: &State<Desk>, id: i32) -> Opened {
    let back = desk.write(move |store| {
        store.unbin_job(id)?;
        Ok(store.job(id)?)
    });
    let stored = back.await?;
    desk.quick(move |store| opened(store, stored, &Known::default())).await
}
