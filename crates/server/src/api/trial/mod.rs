//! Test cuts: the next ladder for an operation, what was tried so far, and the file that cuts it.

mod ladder;

use std::io::Write;

use aptum_core::geometry::Rect;
use aptum_core::logbook::LogEntry;
use aptum_core::tooling::{Operation, Outcome, Trial, Varied, free_place, scrap_place, trial};
use aptum_core::workshop::{Cutter, Recipe};
use aptum_core::{Job, Prepared};
use aptum_formats::svg::trial_svg;
use rocket::form::FromFormField;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use self::ladder::Ladder;
use crate::api::Problem;
use crate::api::body::Body;
use crate::api::files::Download;
use crate::desk::Desk;
use crate::language::Language;
use crate::output::cutter_of;
use crate::shelf::prepared;

/// Most rungs of one ladder.
const MOST: usize = 12;

/// Where a ladder is cut.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS, FromFormField,
)]
#[serde(rename_all = "kebab-case")]
pub enum TrialOn {
    /// In a free place of the sheet.
    Sheet,
    /// On a scrap in the corner in which the blade starts.
    Scrap,
}

/// Which ladder is meant.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct TrialAsk {
    job: Job,
    /// The job's number, for the Logbook.
    #[serde(default)]
    id: Option<i32>,
    /// Which run of its sheets.
    run: usize,
    /// Which operation.
    operation: String,
    #[serde(default)]
    varied: Varied,
    on: TrialOn,
}

/// A ladder, what was tried before, and what follows from it.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TrialView {
    /// Such as “kiss cut on jar label paper, with a knife in Left”.
    title: String,
    varied: Varied,
    on: TrialOn,
    /// What to do next.
    advice: String,
    /// True where what is looked for is bracketed.
    is_settled: bool,
    /// Entries that contradict each other.
    contradiction: Vec<i32>,
    /// The rungs of the next ladder; none where there is nothing to try.
    rungs: Vec<RungView>,
    /// How long the ladder takes, s.
    seconds: Option<f64>,
    /// What was tried of this so far, by value.
    tried: Vec<TriedView>,
    /// The outcomes, in words that suit the line.
    outcomes: Vec<OutcomeView>,
    /// What would be kept, where it is settled.
    recipe: Option<Recipe>,
    /// Why there is no ladder, in words; empty where there is one.
    trouble: String,
    /// The settings that all rungs share.
    settings: String,
}

/// A rung.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RungView {
    value: f64,
    text: String,
    /// Where it lies, mm: left, top, width, height.
    place: [f64; 4],
    /// Its lines, SVG path data, mm.
    line: String,
    /// What the Logbook is told when its outcome is known.
    entry: LogEntry,
}

/// What was tried.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TriedView {
    id: i32,
    value: f64,
    text: String,
    outcome: Outcome,
    made_at: String,
}

/// What may come of a rung.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OutcomeView {
    outcome: Outcome,
    text: String,
}

/// The next ladder of an operation.
#[post("/trial", data = "<ask>")]
pub async fn next(desk: &State<Desk>, ask: Body<TrialAsk>) -> Result<Json<TrialView>, Problem> {
    desk.slow(move |store| {
        let ask = ask.0;
        let workshop = store.workshop()?;
        let prepared = prepared(&ask.job, &workshop, store)?;
        let desk = Ladder::of(&ask, &prepared, &workshop, store)?;
        Ok(Json(desk.view(&ask, &prepared, store)?))
    })
    .await
}

/// Where a ladder lies; `None` where the sheet has no room for it.
fn place(
    prepared: &Prepared,
    cutter: &Cutter,
    run: usize,
    on: TrialOn,
    rungs: usize,
) -> Option<Rect> {
    match on {
        TrialOn::Sheet => free_place(&prepared.laid, &prepared.blank_paths(), run, rungs),
        TrialOn::Scrap => Some(scrap_place(prepared.windows.page, cutter, rungs)),
    }
}

fn ladder(
    prepared: &Prepared,
    operation: &Operation,
    varied: Varied,
    values: &[f64],
    place: Rect,
    cutter: &Cutter,
) -> Trial {
    let windows = &prepared.windows;
    trial(operation, varied, values, place, cutter, windows.page, &windows.cut)
}

/// The file that cuts a ladder: its rungs' values with commas between them.
#[get("/jobs/<id>/trial/<language>?<operation>&<varied>&<values>&<run>&<on>")]
#[expect(clippy::too_many_arguments, reason = "what a link says")]
pub async fn file(
    desk: &State<Desk>,
    id: i32,
    language: &str,
    operation: String,
    varied: &str,
    values: String,
    run: usize,
    on: TrialOn,
) -> Result<Download, Problem> {
    let known = [Varied::Force, Varied::Depth, Varied::Speed, Varied::Passes];
    let varied = known
        .into_iter()
        .find(|own| own.name() == varied)
        .ok_or_else(|| Problem::missing("A ladder varies force, depth, speed or passes"))?;
    let read: Result<Vec<f64>, _> = values.split(',').take(MOST + 1).map(str::parse).collect();
    let values = read.ok().filter(|own| {
        (1..=MOST).contains(&own.len()) && own.iter().all(|value| (0.0..=50_000.0).contains(value))
    });
    let values = values.ok_or_else(|| {
        Problem::missing(format!("A ladder has 1 to {MOST} rungs, each a number"))
    })?;
    let language = match language {
        "test.hpgl" => Some(Language::Hpgl),
        "test.nc" => Some(Language::Gcode),
        "test.svg" => None,
        _ => return Err(Problem::missing("A test cut is test.hpgl, test.nc or test.svg")),
    };
    Download::of_job(desk, id, move |job, workshop, prepared| {
        let cutter = cutter_of(job, workshop).ok_or_else(|| {
            Problem::missing("The job is cut by hand: choose a cutter on Sheet for a test cut")
        })?;
        let own = prepared.operations.iter().find(|own| own.id.0 == operation);
        let own = own.ok_or_else(|| Problem::missing("The job has no such operation any more"))?;
        let most = varied.reach(cutter).most;
        if let Some(past) = values.iter().find(|value| **value > most) {
            return Err(Problem::held(format!(
                "A rung of {past} is more than the {most} that the cutter has for {}: leave it out",
                varied.name()
            )));
        }
        let place = place(prepared, cutter, run, on, values.len()).ok_or_else(|| {
            Problem::missing("The sheet has no free place for a ladder: cut it on a scrap")
        })?;
        let trial = ladder(prepared, own, varied, &values, place, cutter);
        let (page, cutter) = (prepared.windows.page, cutter.clone());
        let name = match language {
            Some(language) => format!("test.{}", language.ending()),
            None => "test.svg".to_owned(),
        };
        if language.is_some_and(|own| !own.is_taken_by(&cutter)) {
            return Err(Problem::missing("The job’s cutter does not take this language"));
        }
        Ok((name, move |out: &mut dyn Write| match language {
            Some(language) => language.write(&trial.path, 0, &cutter, page, out),
            None => out.write_all(trial_svg(&trial, page).as_bytes()),
        }))
    })
    .await
}
