//! The tool path of a sheet: operations in order, what each is done with, and where the tool runs when.

mod shares;
mod told;

use aptum_core::Job;
use aptum_core::run::{Ground, minutes_text, print_minutes};
use aptum_core::tooling::path_checks;
use aptum_core::units::measure;
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Deserialize;
use ts_rs::TS;

use crate::api::Problem;
use crate::api::body::Body;
use crate::desk::Desk;
use crate::shelf::{planned, prepared, tool_path};

pub use told::ToolingView;
pub(super) use told::line_of;
use told::{Told, clock, together};

/// A job and which of its runs of sheets is meant.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct ToolingAsk {
    job: Job,
    run: usize,
}

/// What the tools do on a run of sheets.
#[post("/tooling", data = "<ask>")]
pub async fn tooling(
    desk: &State<Desk>,
    ask: Body<ToolingAsk>,
) -> Result<Json<ToolingView>, Problem> {
    desk.slow(move |store| {
        let ToolingAsk { job, run } = ask.0;
        let workshop = store.workshop()?;
        let prepared = prepared(&job, &workshop, store)?;
        let found = tool_path(&prepared, &job, &workshop, run);
        let found = found.zip(planned(&prepared, &job, run));
        let Some((path, plan)) = found else {
            let runs = prepared.layout.runs.len();
            return Err(Problem::missing(format!("The job has {runs} kinds of sheets, no more")));
        };
        let own = Told { job: &job, workshop: &workshop, prepared: &prepared, store };
        let ground = Ground { job: &job, prepared: &prepared, workshop: &workshop };
        let (length, travel) = path.lengths();
        let show = |mm: f64| measure(mm, job.unit);
        // One after the other, each with the way to its first line.
        let mut begins = 0.0;
        let operations = path.worked.iter().map(|worked| {
            let view = own.operation(worked, begins);
            begins += worked.seconds.unwrap_or(0.0);
            view
        });
        let sheets = prepared.layout.runs.get(run).map_or(1, |run| run.sheets);
        let order = path.seconds.filter(|_| sheets > 1).map(|own| own * f64::from(sheets));
        Ok(Json(ToolingView {
            operations: operations.collect(),
            stretches: together(
                path.stretches.iter().map(|stretch| own.stretch(stretch, &plan, &path)).collect(),
            ),
            seconds: path.seconds,
            time_text: path.seconds.map_or_else(|| "not known".to_owned(), clock),
            order_text: order
                .map_or_else(String::new, |own| format!("{} for all {sheets}", clock(own))),
            print_text: print_minutes(&ground).map_or_else(String::new, minutes_text),
            left_out_text: if path.left_out > 0.5 { show(path.left_out) } else { String::new() },
            length_text: show(length),
            travel_text: show(travel),
            checks: path_checks(&path, own.cutter(), &prepared.windows.cut, job.unit),
            nicks: own.nicks(run),
            copies: own.copies(run),
        }))
    })
    .await
}
