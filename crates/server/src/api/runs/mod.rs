//! Runs: sheets are printed and frozen, and what follows at the machines is led step by step.

mod sheets;
mod view;

use std::io::Write;

use aptum_core::check::Stage;
use aptum_core::run::{NoChange, RunChange, StepKind, steps};
use aptum_formats::archive::JobFile;
use aptum_formats::svg::{MarksInCut, SvgUnits};
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, get, post, put};
use schemars::JsonSchema;
use serde::Deserialize;
use ts_rs::TS;

pub use view::RunView;

pub(super) use view::held_by;
use view::view;

use super::Problem;
use super::body::Body;
use super::files::Download;
use super::jobs::{Opened, bring};
use crate::desk::Desk;
use crate::language::{Language, machine_name};
use crate::output::{Desired, OutputKind, cutter_of, loadings};
use crate::printed::{Printed, ToFreeze};
use crate::rehearsing::print_at;
use crate::store::RunChanged;

/// What is printed, and the version that is on the screen.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct FreezeAsk {
    version: i32,
}

/// A change of a run, and the version it is made to.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct RunAsk {
    version: i32,
    change: RunChange,
}

/// The newest print of a job and its run.
#[get("/jobs/<id>/run")]
pub async fn run(desk: &State<Desk>, id: i32) -> Result<Json<RunView>, Problem> {
    desk.slow(move |store| view(store, id).map(Json)).await
}

/// Freezes what is printed: the job as it is, all that it names, and the print file's bytes.
#[post("/jobs/<id>/prints", data = "<ask>")]
pub async fn freeze(
    desk: &State<Desk>,
    id: i32,
    ask: Body<FreezeAsk>,
) -> Result<Json<RunView>, Problem> {
    let frozen = desk
        .slow(move |store| {
            let stored = store.job(id)?;
            if stored.version != ask.0.version {
                return Err(Problem::overtaken(
                    "The job was changed in another window: look at it again before it is printed",
                ));
            }
            ToFreeze::of(store, &stored.job)
        })
        .await?;
    desk.write(move |store| Ok(store.freeze(&[(id, frozen.new_print())])?)).await?;
    desk.slow(move |store| view(store, id).map(Json)).await
}

/// Changes a run by one thing.
#[put("/prints/<id>/run", data = "<ask>")]
pub async fn change(
    desk: &State<Desk>,
    id: i32,
    ask: Body<RunAsk>,
) -> Result<Json<RunView>, Problem> {
    let RunAsk { version, change } = ask.0;
    let (printed, change) = desk
        .slow(move |store| {
            let printed = Printed::read(store, id)?;
            let steps = steps(&printed.ground());
            let held = match &change {
                RunChange::Tick { step } => steps.iter().find(|own| own.id == *step),
                _ => None,
            };
            match held.and_then(|step| held_by(&printed, step)) {
                Some(why) => Err(Problem::run(why)),
                None => Ok((printed, change)),
            }
        })
        .await?;
    let job = printed.head.job;
    let changed = desk
        .write(move |store| {
            Ok(store.change_run(id, version, |run, at| {
                let ground = printed.ground();
                run.change(&change, &ground, at)?;
                // Once the pieces are counted, the Logbook is told what was sent and what came of it; and told anew where they
                // are counted again.
                let is_over = steps(&ground)
                    .iter()
                    .any(|own| own.kind == StepKind::Count && run.times(&own.id) > 0);
                let tells = matches!(change, RunChange::Tick { .. } | RunChange::Count { .. });
                Ok(if is_over && tells { printed.logged(run) } else { Vec::new() })
            })?)
        })
        .await?;
    match changed {
        RunChanged::Kept => desk.slow(move |store| view(store, job).map(Json)).await,
        RunChanged::Overtaken => Err(Problem::overtaken(
            "The run went on on another screen: what is shown now is how it stands",
        )),
        RunChanged::Refused(why) => Err(refused(&why)),
        RunChanged::Missing => Err(gone(id)),
    }
}

fn refused(why: &NoChange) -> Problem {
    Problem::run(why.to_string())
}

fn gone(id: i32) -> Problem {
    Problem::missing(format!("There is no print {id}: its job was removed for good"))
}

/// The file that went to the printer.
#[get("/prints/<id>/print.pdf")]
pub async fn print_file(desk: &State<Desk>, id: i32) -> Result<Download, Problem> {
    Download::made(desk, move |store| {
        let head = store.print(id)?.ok_or_else(|| gone(id))?;
        let bytes = store.printed_pdf(id)?.ok_or_else(|| gone(id))?;
        if bytes.is_empty() {
            return Err(only_cut());
        }
        let (of, name) = (format!("sheet {}", head.code), "print.pdf".to_owned());
        Ok((of, name, move |out: &mut dyn Write| out.write_all(&bytes)))
    })
    .await
}

/// A small picture of the first sheet of a print.
#[get("/prints/<id>/picture.png")]
pub async fn picture(desk: &State<Desk>, id: i32) -> Result<(ContentType, Vec<u8>), Problem> {
    desk.quick(move |store| {
        let bytes = store.printed_picture(id)?.ok_or_else(|| gone(id))?;
        if bytes.is_empty() {
            return Err(Problem::missing("No picture was kept of this print"));
        }
        Ok((ContentType::PNG, bytes))
    })
    .await
}

/// The job as it was printed, as a job of its own.
#[post("/prints/<id>/job")]
pub async fn as_printed(desk: &State<Desk>, id: i32) -> Opened {
    let file = desk
        .quick(move |store| {
            let head = store.print(id)?.ok_or_else(|| gone(id))?;
            let bytes = store.printed_job(id)?.ok_or_else(|| gone(id))?;
            let mut file = JobFile::read(&bytes)?;
            let name: String = file.job.name.chars().take(NAME_LEFT).collect();
            file.job.name = format!("{name}, as printed {}", head.code);
            Ok(file)
        })
        .await?;
    bring(desk, file).await
}

/// So much of a job's name is left beside “, as printed …”.
const NAME_LEFT: usize = 50;

/// What the machine is sent for one loading of a printed sheet, both from 1.
#[get("/prints/<id>/machine/<sheet>?<loading>&<gcode>")]
pub async fn machine_file(
    desk: &State<Desk>,
    id: i32,
    sheet: u32,
    loading: Option<usize>,
    gcode: Option<bool>,
) -> Result<Download, Problem> {
    let language = if gcode == Some(true) { Language::Gcode } else { Language::Hpgl };
    Download::made(desk, move |store| {
        let printed = Printed::read(store, id)?;
        let loading = loading.unwrap_or(1).max(1) - 1;
        let bytes = machine_bytes(&printed, sheet, loading, language)?;
        let name = machine_name(sheet, loading, language);
        let of = format!("{} {}", printed.job.name, printed.head.code);
        Ok((of, name, move |out: &mut dyn Write| out.write_all(&bytes)))
    })
    .await
}

/// Sends what was printed to its printer over TCP, which says how many sheets came out.
#[post("/prints/<id>/print")]
pub async fn print_there(desk: &State<Desk>, id: i32) -> Result<Json<String>, Problem> {
    desk.slow(move |store| {
        let printed = Printed::read(store, id)?;
        let records = &printed.workshop.printers;
        let printer = printed.job.sheet.printer.as_ref().and_then(|id| records.get(id));
        let address = printer.map(|own| own.address.clone()).unwrap_or_default();
        if address.is_empty() {
            return Err(Problem::run(
                "The printer has no address: write it into its record, or print the file through a print dialog",
            ));
        }
        let bytes = store.printed_pdf(id)?.ok_or_else(|| gone(id))?;
        if bytes.is_empty() {
            return Err(only_cut());
        }
        let words = print_at(&address, &bytes).map_err(|error| Problem::run(error.to_string()))?;
        Ok(Json(words))
    })
    .await
}

fn only_cut() -> Problem {
    Problem::missing("Nothing is printed on these sheets: they are only cut")
}

/// What a machine is sent; nothing while a limit of its work is broken.
pub(super) fn machine_bytes(
    printed: &Printed,
    sheet: u32,
    loading: usize,
    language: Language,
) -> Result<Vec<u8>, Problem> {
    let Printed { job, workshop, prepared, assets, .. } = printed;
    let sheets = prepared.layout.sheets();
    if !(1..=sheets).contains(&sheet) || loading >= loadings(prepared) {
        return Err(Problem::missing(format!(
            "There is no such sheet or loading: {sheets} sheets, each loaded {} times",
            loadings(prepared)
        )));
    }
    let cutter = cutter_of(job, workshop).filter(|cutter| language.is_taken_by(cutter));
    if cutter.is_none() {
        return Err(Problem::missing(
            "The cutter does not take this: say in the Workshop how it is spoken to",
        ));
    }
    let (marks, units) = (MarksInCut::LeftOut, SvgUnits::Mm);
    let desired = Desired { job, prepared, workshop, marks, units, blobs: assets };
    let kind = OutputKind::Machine([sheet, sheet], loading, language);
    if let Some(broken) = prepared.broken(Stage::Tooling).cloned().or_else(|| desired.held_by(kind))
    {
        return Err(super::files::held(&broken));
    }
    let mut bytes = Vec::new();
    desired.write(kind, &mut bytes).map_err(|error| {
        tracing::error!("a file for a machine could not be made: {error}");
        Problem::broken()
    })?;
    Ok(bytes)
}
