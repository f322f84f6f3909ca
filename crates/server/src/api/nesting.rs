//! Nesting a job, and moving its copies by hand.

use std::time::{Duration, Instant};

use aptum_core::arrange::{Arrange, Arranged, arrange};
use aptum_core::blob::NoBlobs;
use aptum_core::sheet::nest::{Found, Watch};
use aptum_core::sheet::{Kept, LaidBlank};
use aptum_core::{InputError, Job, nest_job};
use rocket::serde::json::Json;
use rocket::{State, delete, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::tasks::{Events, Pace, Sender, Tasks};
use crate::desk::Desk;
use crate::shelf::{furnished, prepared, shelf};

/// A layout on the way, or the last one.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct NestProgress {
    kept: Kept,
    /// Share of the work that is done, 0 to 1.
    done: f64,
    /// Seconds so far.
    seconds: f64,
    /// In words: sheets and places.
    text: String,
    /// True for the last one.
    is_last: bool,
    /// False when the time ended the search before its work was done: another run may then end elsewhere.
    is_complete: bool,
}

/// Why a job cannot be nested.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct NestTrouble {
    errors: Vec<InputError>,
}

/// An act by hand on a job that need not be saved.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct ArrangeAsk {
    job: Job,
    arrange: Arrange,
}

struct Following<'a> {
    sender: &'a Sender,
    start: Instant,
    blanks: Vec<LaidBlank>,
    pace: Pace,
}

impl Following<'_> {
    fn progress(&self, kept: Kept, done: f64) -> NestProgress {
        let sheets: u32 = kept.runs.iter().map(|run| run.sheets).sum();
        let places: usize =
            kept.runs.iter().map(|run| run.sheets as usize * run.placements.len()).sum();
        let text = format!(
            "{sheets} {}, {places} {}",
            if sheets == 1 { "sheet" } else { "sheets" },
            if places == 1 { "blank" } else { "blanks" }
        );
        let seconds = self.start.elapsed().as_secs_f64();
        NestProgress { kept, done, seconds, text, is_last: false, is_complete: false }
    }
}

impl Watch for Following<'_> {
    fn go_on(&self) -> bool {
        self.sender.goes_on()
    }

    fn found(&self, found: &Found<'_>) {
        self.pace.send(|| {
            let kept = Kept {
                made: aptum_core::sheet::Made::Nested,
                blanks: self.blanks.clone(),
                runs: found.runs.to_vec(),
            };
            self.sender.send("progress", &self.progress(kept, found.done));
        });
    }
}

/// Nests a job as it is on the screen: `progress` events with the best so far, then one `done`, or `trouble`. It
/// ends when the connection does.
#[post("/jobs/<id>/nest", data = "<job>")]
pub async fn nest(
    desk: &State<Desk>,
    tasks: &State<Tasks>,
    id: i32,
    job: Body<Job>,
) -> Result<Events, Problem> {
    let job = job.0;
    job.validate()?;
    let (job, workshop) = desk
        .quick(move |store| {
            store.job(id)?;
            Ok((furnished(&job, store).into_owned(), store.workshop()?))
        })
        .await?;
    let budget = Duration::from_secs_f64(job.sheet.search.budget);
    tasks.run(Some(id), budget, move |sender| {
        let blanks = prepared(&job, &workshop, &NoBlobs)
            .map_or_else(|_| Vec::new(), |done| done.layout.blanks.clone());
        let following = Following { sender, start: Instant::now(), blanks, pace: Pace::default() };
        match nest_job(&job, &workshop, shelf(), &following) {
            Ok(nested) => sender.send(
                "done",
                &NestProgress {
                    is_last: true,
                    is_complete: nested.is_complete,
                    ..following.progress(nested.kept, 1.0)
                },
            ),
            Err(errors) => sender.send("trouble", &NestTrouble { errors }),
        }
    })
}

/// Ends the nesting of a job, which keeps the best so far; nothing happens when there is none.
#[delete("/jobs/<id>/nest")]
pub fn stop_nesting(tasks: &State<Tasks>, id: i32) {
    tasks.stop(id);
}

/// Moves, turns, aligns, repeats or locks copies of a job's layout.
#[post("/arrange", data = "<ask>")]
pub async fn arrange_copies(
    desk: &State<Desk>,
    ask: Body<ArrangeAsk>,
) -> Result<Json<Arranged>, Problem> {
    let ArrangeAsk { job, arrange: what } = ask.0;
    desk.quick(move |store| {
        let job = furnished(&job, store);
        Ok(Json(arrange(&job, &*store.workshop()?, shelf(), &what)?))
    })
    .await
}
