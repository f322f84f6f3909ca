//! Sheets as they were printed: the job and all that it names, out of the archive that was kept with the print.

use std::collections::BTreeMap;
use std::sync::Arc;

use aptum_core::blob::{BlobId, Blobs};
use aptum_core::face::Side;
use aptum_core::logbook::{JobNamed, LogEntry, Named, PrintedBy, SheetNamed};
use aptum_core::run::{Bad, Ground, Progress, Sent, print_recipe, sent, steps};
use aptum_core::tooling::{Operation, Outcome};
use aptum_core::units::INCH;
use aptum_core::workshop::{RecordId, Tool};
use aptum_core::{Job, Prepared, Workshop};
use aptum_formats::archive::{Asset, JobFile};
use aptum_formats::art::{png, sheet_svg};
use aptum_formats::pdf::print_pdf;
use aptum_formats::svg::{MarksInCut, SvgUnits, cut_svg};

use crate::api::Problem;
use crate::output::cutter_of;
use crate::shelf::{furnished, prepared};
use crate::store::{Frozen, NewPrint, Store};

/// A job as it was printed.
pub struct Printed {
    /// The print.
    pub head: Frozen,
    /// The job, with what is free since: force, order, passes and nicks.
    pub job: Job,
    /// The records that it names; recipes as they are now.
    pub workshop: Workshop,
    /// The same, prepared.
    pub prepared: Prepared,
    /// Its pictures.
    pub assets: Assets,
}

/// What is frozen when a job's sheets are printed.
pub struct ToFreeze {
    /// The code on its sheets.
    pub code: String,
    /// The job with all that it names.
    pub archive: Vec<u8>,
    /// What goes to the printer; empty where nothing is printed.
    pub pdf: Vec<u8>,
    /// A small picture of the first sheet, PNG.
    pub picture: Vec<u8>,
    /// What the job is called.
    pub name: String,
    /// What its cutter is called; empty where a hand cuts.
    pub cutter: String,
    /// How many sheets it has.
    pub sheets: u32,
    /// How often something is to be ticked until it is done.
    pub ticks: u32,
}

impl ToFreeze {
    /// A job as it is now.
    ///
    /// # Errors
    /// That it cannot be prepared, or that no copy fits.
    pub fn of(store: &Store, job: &Job) -> Result<Self, Problem> {
        let workshop = store.workshop()?;
        let archive = JobFile::new(job, &workshop).to_archive(store)?;
        let job = furnished(job, store).into_owned();
        let prepared = prepared(&job, &workshop, store)?;
        if prepared.layout.sheets() == 0 {
            return Err(Problem::run("No copy fits, so there is nothing to print yet"));
        }
        let mut pdf = Vec::new();
        if prepared.is_printed() {
            print_pdf(&job, &prepared, store, &mut pdf).map_err(|error| {
                tracing::error!("a print file could not be made: {error}");
                Problem::broken()
            })?;
        }
        let steps = steps(&Ground { job: &job, prepared: &prepared, workshop: &workshop });
        Ok(Self {
            code: prepared.code.clone(),
            archive,
            pdf,
            picture: picture(&job, &prepared, store),
            name: job.name.clone(),
            cutter: cutter_of(&job, &workshop).map_or_else(String::new, |own| own.name.clone()),
            sheets: prepared.layout.sheets(),
            ticks: steps.iter().fold(0, |sum, step| step.times.saturating_add(sum)),
        })
    }

    /// What is kept of it.
    #[must_use]
    pub fn new_print(&self) -> NewPrint<'_> {
        let Self { code, archive, pdf, picture, name, cutter, sheets, ticks } = self;
        let (sheets, ticks) = (*sheets, *ticks);
        NewPrint { code, archive, pdf, picture, name, cutter, sheets, ticks }
    }
}

/// How wide the small picture of a sheet is at most, pixels.
const PICTURE: f64 = 240.0;

/// A small picture of the first sheet; empty where it cannot be drawn, which is no reason to keep no print.
fn picture(job: &Job, prepared: &Prepared, blobs: &dyn Blobs) -> Vec<u8> {
    let page = prepared.windows.page;
    let ppi = PICTURE * INCH / page.width().max(page.height());
    let svg = if prepared.is_printed() {
        sheet_svg(job, prepared, 1, Side::Front, blobs)
    } else {
        cut_svg(job, prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm)
    };
    svg.and_then(|svg| png(&svg, ppi, true).ok()).unwrap_or_default()
}

/// Pictures and typefaces that came with a job.
pub struct Assets(BTreeMap<BlobId, Asset>);

impl Blobs for Assets {
    fn holds(&self, id: &BlobId) -> bool {
        self.0.contains_key(id)
    }

    fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>> {
        self.0.get(id).map(|own| own.bytes.as_slice().into())
    }
}

impl Printed {
    /// What the steps of its run are made from.
    #[must_use]
    pub const fn ground(&self) -> Ground<'_> {
        let Self { job, prepared, workshop, .. } = self;
        Ground { job, prepared, workshop }
    }

    /// What the Logbook keeps of a run: for each operation that was done, with what it really was, and what came of it.
    #[must_use]
    pub fn logged(&self, run: &Progress) -> Vec<LogEntry> {
        let Self { head, job, workshop, prepared, .. } = self;
        let Some((id, cutter)) =
            job.sheet.cutter.as_ref().and_then(|id| Some((id, workshop.cutters.get(id)?)))
        else {
            return Vec::new();
        };
        let counted = run.counted();
        let count = |cause: Bad| counted.bad.get(&cause).copied().unwrap_or(0);
        let done = self.worked_with(run);
        let entry = |at: usize, own: &Operation, stock: &RecordId| {
            let sent = &done[at];
            // What was changed on the way was changed for what came out badly, and it went on with the last.
            let is_of_it = |other: &Sent| other.operation == sent.operation;
            let is_mended = done[..at].iter().any(is_of_it) && !done[at + 1..].iter().any(is_of_it);
            // Bad pieces tell of what cuts; a crease is judged by its own ladders.
            let outcome = match own.tool {
                Tool::DragKnife if is_mended => Outcome::JustRight,
                Tool::DragKnife if count(Bad::NotThrough) > 0 => Outcome::NotThrough,
                Tool::DragKnife if count(Bad::TooDeep) > 0 => Outcome::TooDeep,
                _ => Outcome::JustRight,
            };
            Some(LogEntry {
                job: Some(JobNamed { id: head.job, name: job.name.clone() }),
                stock: Named { id: stock.clone(), name: workshop.stocks.get(stock)?.name.clone() },
                cutter: Named { id: id.clone(), name: cutter.name.clone() },
                tool: own.tool,
                line: own.kind,
                force: sent.force,
                speed: sent.speed,
                passes: sent.passes,
                depth: sent.depth,
                varied: None,
                sheet: Some(SheetNamed { print: head.id, code: head.code.clone() }),
                printed: self.printed_by(),
                counted: Some(counted.clone()),
                outcome,
                note: String::new(),
            })
        };
        let entries = done.iter().enumerate().flat_map(|(at, sent)| {
            let own = prepared.operations.iter().find(|own| own.id == sent.operation);
            own.into_iter()
                .flat_map(move |own| own.stocks.iter().map(move |stock| (at, own, stock)))
        });
        entries.filter_map(|(at, own, stock)| entry(at, own, stock)).collect()
    }

    /// With what each operation was done, once for each setting, the last one last. Where nobody ticked that it was cut, it was
    /// with what the job says.
    fn worked_with(&self, run: &Progress) -> Vec<Sent> {
        let prepared = &self.prepared;
        let all: Vec<Sent> = if run.sent.values().all(|own| own.0.is_empty()) {
            let last = prepared.operations.iter().map(|own| own.loading).max().unwrap_or(0);
            let of = |loading| move |[first, _]: [u32; 2]| sent(prepared, first, loading);
            (0..=last).flat_map(|loading| prepared.layout.ranges().flat_map(of(loading))).collect()
        } else {
            let each = run.sent.values().flat_map(|own| &own.0);
            each.flat_map(|own| own.operations.iter().cloned()).collect()
        };
        let mut done: Vec<Sent> = Vec::new();
        for own in all {
            done.retain(|other| *other != own);
            done.push(own);
        }
        done
    }

    /// By which printer the sheets were printed, and how; none where nothing is.
    fn printed_by(&self) -> Option<PrintedBy> {
        let id = self.job.sheet.printer.as_ref().filter(|_| self.prepared.is_printed())?;
        let name = self.workshop.printers.get(id)?.name.clone();
        let settings = print_recipe(&self.ground()).map(|own| own.settings.clone());
        Some(PrintedBy { printer: Named { id: id.clone(), name }, settings })
    }

    /// The job of a print; its tooling is that of the job as it is now, where that is still there.
    ///
    /// # Errors
    /// That there is no such print, or that it cannot be read.
    pub fn read(store: &Store, print: i32) -> Result<Self, Problem> {
        let none =
            || Problem::missing(format!("There is no print {print}: its job was removed for good"));
        let head = store.print(print)?.ok_or_else(none)?;
        let bytes = store.printed_job(print)?.ok_or_else(none)?;
        let JobFile { mut job, workshop: mut records, assets, .. } = JobFile::read(&bytes)?;
        let assets = Assets(assets);
        if let Ok(now) = store.job(head.job) {
            job.tooling = now.job.tooling;
        }
        let now = store.workshop()?;
        records.recipes = now.recipes.clone();
        records.print_recipes = now.print_recipes.clone();
        // Where a machine is reached, and what it was measured to be off, is no part of what was printed; what it can reach
        // decided where copies lie.
        for (id, cutter) in &mut records.cutters {
            if let Some(own) = now.cutters.get(id) {
                cutter.address.clone_from(&own.address);
                cutter.correction.clone_from(&own.correction);
            }
        }
        for (id, printer) in &mut records.printers {
            if let Some(own) = now.printers.get(id) {
                printer.address.clone_from(&own.address);
            }
        }
        let job = furnished(&job, &assets).into_owned();
        let prepared = prepared(&job, &records, &assets)?;
        if prepared.code != head.code {
            return Err(Problem::run(format!(
                "Sheet {} cannot be cut with this Aptum, which would lay it otherwise ({}): print it again",
                head.code, prepared.code
            )));
        }
        Ok(Self { head, job, workshop: records, prepared, assets })
    }
}
