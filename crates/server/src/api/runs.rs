//! Runs: sheets are printed and frozen, and what follows at the machines is led step by step.

use std::io::Write;
use std::sync::Arc;

use aptum_core::check::Stage;
use aptum_core::geometry::{BezPath, path_text};
use aptum_core::run::{
    Bad, Cause, Ground, MeasuredPlace, Progress, RunChange, RunStep, ScaleSays, StepKind,
    scale_says, steps, told,
};
use aptum_core::sheet::Notes;
use aptum_core::units::{INCH, Unit, measure};
use aptum_core::workshop::{Corner, Correction, Margins};
use aptum_core::{Job, Prepared, Workshop};
use aptum_formats::svg::{MarksInCut, SvgUnits};
use rocket::serde::json::Json;
use rocket::{State, get, post, put};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::files::Download;
use crate::desk::Desk;
use crate::output::{Desired, Language, OutputKind, cutter_of, loadings, machine_name};
use crate::printed::{Printed, ToFreeze};
use crate::rehearsing::print_at;
use crate::shelf::{furnished, prepared};
use crate::store::{Frozen, RunChanged, Store};

/// The newest print of a job, and how its run stands.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RunView {
    /// All that is still known, the newest first; none where nothing was printed yet.
    prints: Vec<PrintView>,
    /// The newest; none where nothing was printed yet.
    run: Option<RunStands>,
    /// What is done with the sheets, where nothing was printed yet.
    ahead: Vec<RunStepView>,
}

/// A print.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PrintView {
    id: i32,
    code: String,
    made_at: String,
    /// Pieces that were good and bad.
    good: u32,
    bad: u32,
    /// True where the job has been changed since in what is printed or where it is cut.
    differs: bool,
}

/// How a run stands.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RunStands {
    /// The print.
    id: i32,
    /// What a change must name, so that a second screen is noticed.
    version: i32,
    code: String,
    made_at: String,
    differs: bool,
    steps: Vec<RunStepView>,
    /// Which step is next, from 0; none once all are done.
    next: Option<u32>,
    /// What the printed scale says; none where it has none.
    scale: Option<PrintedScale>,
    good: u32,
    bad: Vec<BadView>,
    is_held: bool,
    is_stopped: bool,
    /// The files for the machine, a loading each.
    files: Vec<MachineFile>,
    /// Where the cutter is reached over TCP; none where files are carried to it.
    address: Option<String>,
    cutter: Option<String>,
    /// Where the printer is reached over TCP; none where print files go through a print dialog.
    printer_address: Option<String>,
    printer: Option<String>,
    sheet: SheetLies,
}

/// A step.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RunStepView {
    id: String,
    kind: StepKind,
    title: String,
    says: Vec<String>,
    /// How often it is done, and was.
    times: u32,
    done: u32,
    /// When last; empty where it was not.
    at: String,
    loading: u32,
}

/// The scale on the sheets.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PrintedScale {
    /// What it should be, mm.
    asked: f64,
    asked_text: String,
    /// What was typed in, mm.
    measured: Option<f64>,
    /// What that says; none where nothing was typed in.
    says: Option<ScaleSays>,
    words: String,
    can_be_cut: bool,
}

/// Bad pieces of one cause.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct BadView {
    cause: Bad,
    name: &'static str,
    count: u32,
}

/// A file for the machine.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MachineFile {
    loading: u32,
    name: String,
    /// Below `/api/prints/…/`.
    path: String,
}

/// A sheet as it is laid into the machine.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SheetLies {
    /// mm.
    page: [f64; 2],
    /// The marks, SVG path data.
    marks: String,
    /// The pieces' outlines.
    outlines: String,
    /// Where the first mark is; none without marks.
    first: Option<[f64; 2]>,
    /// The corner in which the blade starts.
    start: Option<Corner>,
}

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
    let (steps, job) = desk
        .slow(move |store| {
            let printed = Printed::read(store, id)?;
            Ok((ground_steps(&printed.job, &printed.prepared, &printed.workshop), printed.head.job))
        })
        .await?;
    // Once the pieces are counted, the Logbook is told what was sent and what came of it.
    let is_over = matches!(&change, RunChange::Tick { step } if steps.iter().any(|own| own.id == *step && own.kind == StepKind::Count));
    let changed = desk
        .write(move |store| {
            Ok(store.change_run(id, version, |run, at| run.change(&change, &steps, at))?)
        })
        .await?;
    match changed {
        RunChanged::Kept => {
            if is_over {
                desk.write(move |store| {
                    let entries = Printed::read(store, id)?.logged();
                    let entries: Vec<_> = entries.iter().map(|own| (None, own)).collect();
                    Ok(store.log(&entries)?)
                })
                .await?;
            }
            desk.slow(move |store| view(store, job).map(Json)).await
        }
        RunChanged::Overtaken => Err(Problem::overtaken(
            "The run went on on another screen: what is shown now is how it stands",
        )),
        RunChanged::Refused(why) => Err(Problem::run(why.to_string())),
        RunChanged::Missing => Err(gone(id)),
    }
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
            return Err(Problem::missing("Nothing is printed on these sheets: they are only cut"));
        }
        let (of, name) = (format!("sheet {}", head.code), "print.pdf".to_owned());
        Ok((of, name, move |out: &mut dyn Write| out.write_all(&bytes)))
    })
    .await
}

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
        let words = print_at(&address, &bytes).map_err(|error| Problem::run(error.to_string()))?;
        Ok(Json(words))
    })
    .await
}

/// Two places where a cut was measured.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct CorrectionAsk {
    unit: Unit,
    near: MeasuredPlace,
    far: MeasuredPlace,
}

/// What they tell.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct CorrectionView {
    cause: Cause,
    words: String,
    correction: Correction,
}

/// Tells a shift from a turn and a scale, and what to send instead.
#[post("/corrections", data = "<ask>")]
pub async fn correct(
    desk: &State<Desk>,
    ask: Body<CorrectionAsk>,
) -> Result<Json<CorrectionView>, Problem> {
    desk.quick(move |store| {
        let CorrectionAsk { unit, near, far } = ask.0;
        let told = told(near, far, &store.today()?, unit)?;
        let words = format!("It is {}.", told.cause.words());
        Ok(Json(CorrectionView { cause: told.cause, words, correction: told.correction }))
    })
    .await
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

fn ground_steps(job: &Job, prepared: &Prepared, workshop: &Workshop) -> Vec<RunStep> {
    steps(&Ground { job, prepared, workshop })
}

fn view(store: &Store, job: i32) -> Result<RunView, Problem> {
    let prints = store.prints(job)?;
    let now = now(store, job)?;
    let code = now.as_ref().map(|(_, _, prepared)| prepared.code.as_str());
    let views = prints.iter().map(|own| PrintView {
        id: own.id,
        code: own.code.clone(),
        made_at: own.made_at.clone(),
        good: own.run.good,
        bad: own.run.bad(),
        differs: code != Some(own.code.as_str()),
    });
    let views: Vec<PrintView> = views.collect();
    let ahead = match (&now, prints.is_empty()) {
        (Some((job, workshop, prepared)), true) => {
            let progress = Progress::default();
            let steps = ground_steps(job, prepared, workshop);
            steps.iter().map(|step| RunStepView::new(step, &progress)).collect()
        }
        _ => Vec::new(),
    };
    let run = match prints.first() {
        Some(head) => {
            let printed = Printed::read(store, head.id)?;
            Some(stands(&printed, code != Some(head.code.as_str())))
        }
        None => None,
    };
    Ok(RunView { prints: views, run, ahead })
}

/// The job as it is now; `None` where it is binned, or cannot be prepared.
fn now(store: &Store, job: i32) -> Result<Option<(Job, Arc<Workshop>, Prepared)>, Problem> {
    let Ok(stored) = store.job(job) else { return Ok(None) };
    let workshop = store.workshop()?;
    let job = furnished(&stored.job, store).into_owned();
    Ok(prepared(&job, &workshop, store).ok().map(|prepared| (job, workshop, prepared)))
}

fn stands(printed: &Printed, differs: bool) -> RunStands {
    let Printed { head, job, workshop, prepared, .. } = printed;
    let Frozen { id, version, code, made_at, run, .. } = head;
    let steps = ground_steps(job, prepared, workshop);
    let next = run.next(&steps).and_then(|next| steps.iter().position(|own| own.id == next.id));
    let cutter = cutter_of(job, workshop);
    let printer = job.sheet.printer.as_ref().and_then(|id| workshop.printers.get(id));
    let address = cutter.map(|own| own.address.clone()).filter(|own| !own.is_empty());
    RunStands {
        id: *id,
        version: *version,
        code: code.clone(),
        made_at: made_at.clone(),
        differs,
        steps: steps.iter().map(|step| RunStepView::new(step, run)).collect(),
        next: next.and_then(|at| u32::try_from(at).ok()),
        scale: printed_scale(printed),
        good: run.good,
        bad: Bad::ALL
            .map(|cause| BadView {
                cause,
                name: cause.name(),
                count: run.bad.get(&cause).copied().unwrap_or(0),
            })
            .into(),
        is_held: run.is_held,
        is_stopped: run.is_stopped,
        files: files(printed),
        // Only a machine that is told of marks is sent its work.
        address: address.filter(|_| {
            cutter.is_some_and(|own| own.dialect.as_ref().is_some_and(|own| own.marks))
        }),
        cutter: cutter.map(|own| own.name.clone()),
        printer_address: printer.map(|own| own.address.clone()).filter(|own| !own.is_empty()),
        printer: printer.map(|own| own.name.clone()),
        sheet: sheet_lies(printed),
    }
}

impl RunStepView {
    fn new(step: &RunStep, run: &Progress) -> Self {
        let done = run.done.get(&step.id);
        Self {
            id: step.id.clone(),
            kind: step.kind,
            title: step.title.clone(),
            says: step.says.clone(),
            times: step.times,
            done: run.times(&step.id),
            at: done.filter(|own| own.times > 0).map_or_else(String::new, |own| own.at.clone()),
            loading: u32::try_from(step.loading).unwrap_or(0),
        }
    }
}

fn printed_scale(printed: &Printed) -> Option<PrintedScale> {
    let prepared = &printed.prepared;
    let asked = prepared.notes.iter().flatten().find_map(Notes::scale)?;
    let (page, inside) = (prepared.windows.page, prepared.windows.printable);
    let margins = Margins {
        lead: inside.y0 - page.y0,
        trail: page.y1 - inside.y1,
        left: inside.x0 - page.x0,
        right: page.x1 - inside.x1,
    };
    let measured = printed.head.run.measured;
    let says = measured.map(|own| scale_says(own, asked, page, &margins));
    let unit = printed.job.unit;
    let words = match (measured, says) {
        (Some(own), Some(says)) => {
            format!("{} of {}: {}", fine(own, unit), measure(asked, unit), says.words())
        }
        _ => String::new(),
    };
    Some(PrintedScale {
        asked,
        asked_text: measure(asked, unit),
        measured,
        says,
        words,
        can_be_cut: says.is_none_or(ScaleSays::can_be_cut),
    })
}

/// What a ruler tells, and no more.
fn fine(mm: f64, unit: Unit) -> String {
    match unit {
        Unit::In => format!("{:.3} in", mm / INCH),
        Unit::Mm | Unit::Cm => format!("{mm:.1} mm"),
    }
}

/// A file for each loading, in each language that the cutter takes; sheet 1 stands for all that are alike.
fn files(printed: &Printed) -> Vec<MachineFile> {
    let cutter = cutter_of(&printed.job, &printed.workshop);
    let mut files = Vec::new();
    for language in Language::ALL {
        if !cutter.is_some_and(|cutter| language.is_taken_by(cutter)) {
            continue;
        }
        for loading in 0..loadings(&printed.prepared) {
            let gcode = if language == Language::Gcode { "&gcode=true" } else { "" };
            files.push(MachineFile {
                loading: u32::try_from(loading).unwrap_or(0),
                name: machine_name(1, loading, language),
                path: format!("machine/{{sheet}}?loading={}{gcode}", loading + 1),
            });
        }
    }
    files
}

fn sheet_lies(printed: &Printed) -> SheetLies {
    let Printed { job, workshop, prepared, .. } = printed;
    let page = prepared.windows.page;
    let mut marks = BezPath::new();
    prepared.marks.marks.iter().for_each(|own| marks.extend(own.ink.iter()));
    let blanks: Vec<_> = prepared.blanks().collect();
    let mut outlines = BezPath::new();
    for at in prepared.layout.runs.first().map_or(&[][..], |run| &run.placements) {
        if let Some(blank) = blanks.get(at.part) {
            outlines.extend(at.transform() * blank.part.outline.clone());
        }
    }
    SheetLies {
        page: [page.width(), page.height()],
        marks: path_text(&marks),
        outlines: path_text(&outlines),
        first: prepared.marks.marks.first().map(|own| [own.reference.x, own.reference.y]),
        start: cutter_of(job, workshop).map(|own| own.start),
    }
}
