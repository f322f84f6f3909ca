//! How a run stands, as a page sees it.

use std::fmt::Write;
use std::sync::Arc;

use aptum_core::geometry::Rect;
use aptum_core::id::PieceId;
use aptum_core::run::{
    Bad, Ground, PieceStands, Progress, RunStep, ScaleSays, StepKind, pieces_stand, scale_says,
    steps,
};
use aptum_core::sheet::Notes;
use aptum_core::units::{INCH, Unit, measure};
use aptum_core::workshop::Margins;
use aptum_core::{Job, Prepared, Workshop};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::sheets::{MachineFile, SheetLies, files, lies};
use crate::api::Problem;
use crate::output::cutter_of;
use crate::printed::Printed;
use crate::shelf::{furnished, prepared};
use crate::store::{Frozen, Store};

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
    /// All pieces that came out.
    good: u32,
    bad: u32,
    /// Each piece of the job that lies on its sheets.
    pieces: Vec<CountedPiece>,
    is_held: bool,
    is_stopped: bool,
    /// The files for the machine, one for each loading of sheets that are cut alike.
    files: Vec<MachineFile>,
    /// Where the cutter is reached over TCP; none where files are carried to it.
    address: Option<String>,
    cutter: Option<String>,
    /// Where the printer is reached over TCP; none where print files go through a print dialog.
    printer_address: Option<String>,
    printer: Option<String>,
    /// The sheets as they are laid in.
    lies: Vec<SheetLies>,
    /// Two places far apart at which a cut is measured against the print, mm.
    places: [[f64; 2]; 2],
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
    /// Which sheet it is at, from 1.
    sheet: u32,
    /// Why it cannot be ticked yet; none where it can.
    held_by: Option<String>,
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

/// A piece, and what came out of it.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct CountedPiece {
    id: PieceId,
    name: String,
    good: u32,
    bad: Vec<BadView>,
    /// How it stands: how many are wanted and missing, how many sheets to print again, packs.
    words: String,
    is_enough: bool,
}

/// Bad pieces of one cause.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct BadView {
    cause: Bad,
    name: &'static str,
    count: u32,
}

pub(super) fn view(store: &Store, job: i32) -> Result<RunView, Problem> {
    let prints = store.prints(job)?;
    let now = now(store, job)?;
    let code = now.as_ref().map(|(_, _, prepared)| prepared.code.as_str());
    let views = prints.iter().map(|own| PrintView {
        id: own.id,
        code: own.code.clone(),
        made_at: own.made_at.clone(),
        good: own.run.counted().good,
        bad: own.run.counted().bad(),
        differs: code != Some(own.code.as_str()),
    });
    let views: Vec<PrintView> = views.collect();
    let ahead = match (&now, prints.is_empty()) {
        (Some((job, workshop, prepared)), true) => {
            let progress = Progress::default();
            let steps = steps(&Ground { job, prepared, workshop });
            steps.iter().map(|step| RunStepView::new(step, &progress, None)).collect()
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
    let steps = steps(&printed.ground());
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
        steps: steps
            .iter()
            .map(|step| RunStepView::new(step, run, held_by(printed, step)))
            .collect(),
        next: next.and_then(|at| u32::try_from(at).ok()),
        scale: printed_scale(printed),
        good: run.counted().good,
        bad: run.counted().bad(),
        pieces: pieces(printed),
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
        lies: lies(printed),
        places: places(prepared.windows.page),
    }
}

impl RunStepView {
    fn new(step: &RunStep, run: &Progress, held_by: Option<String>) -> Self {
        let done = run.done.get(&step.id);
        let done_of = run.times(&step.id).saturating_mul(step.each);
        let sheet = done_of.saturating_add(1).min(step.sheets);
        Self {
            id: step.id.clone(),
            kind: step.kind,
            title: step.title.clone(),
            says: step.says.clone(),
            times: step.times,
            done: run.times(&step.id),
            at: done.filter(|own| own.times > 0).map_or_else(String::new, |own| own.at.clone()),
            loading: u32::try_from(step.loading).unwrap_or(0),
            sheet,
            held_by,
        }
    }
}

/// What came out of each piece, and what is still missing.
fn pieces(printed: &Printed) -> Vec<CountedPiece> {
    let Printed { head, job, prepared, .. } = printed;
    let stands = pieces_stand(job, prepared, &head.run);
    let own = stands.into_iter().filter_map(|(at, stands)| {
        let piece = job.pieces.get(at)?;
        let bad = Bad::ALL.map(|cause| BadView {
            cause,
            name: cause.name(),
            count: stands.counted.bad.get(&cause).copied().unwrap_or(0),
        });
        Some(CountedPiece {
            id: piece.id.clone(),
            name: job.title(piece).to_owned(),
            good: stands.counted.good,
            bad: bad.into(),
            words: words(&stands),
            is_enough: stands.missing == 0,
        })
    });
    own.collect()
}

/// How a piece stands.
fn words(own: &PieceStands) -> String {
    let mut words = match own.missing {
        0 => format!("{} wanted, all there", own.wanted),
        missing if own.sheets > 0 => {
            let sheets = if own.sheets == 1 { "sheet" } else { "sheets" };
            format!(
                "{} wanted, {missing} missing: {} more {sheets} to print",
                own.wanted, own.sheets
            )
        }
        missing => format!("{} wanted, {missing} missing", own.wanted),
    };
    if let Some((packs, over)) = own.packs {
        let what = if packs == 1 { "pack" } else { "packs" };
        let over = if over > 0 { format!(" and {over} over") } else { String::new() };
        // Writing to a string cannot fail.
        let _ = write!(words, "; {packs} {what}{over}");
    }
    words
}

/// Why a step cannot be ticked yet: nobody has measured the scale, or it says that these sheets cannot be cut.
pub(in crate::api) fn held_by(printed: &Printed, step: &RunStep) -> Option<String> {
    let scale = printed_scale(printed)?;
    match step.kind {
        StepKind::Print => None,
        StepKind::Measure => {
            scale.measured.is_none().then(|| "Type in what the ruler says first".to_owned())
        }
        _ => (!scale.can_be_cut).then_some(scale.words),
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

/// A tenth of the page in from two corners: as far apart as pieces usually lie.
fn places(page: Rect) -> [[f64; 2]; 2] {
    let at = |share: f64| [page.x0 + page.width() * share, page.y0 + page.height() * share];
    [at(0.1), at(0.9)]
}
