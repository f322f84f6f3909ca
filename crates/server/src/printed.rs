//! Sheets as they were printed: the job and all that it names, out of the archive that was kept with the print.

use std::collections::BTreeMap;
use std::sync::Arc;

use aptum_core::blob::{BlobId, Blobs};
use aptum_core::logbook::{JobNamed, LogEntry, Named};
use aptum_core::run::{Bad, Ground, steps};
use aptum_core::tooling::Outcome;
use aptum_core::workshop::Tool;
use aptum_core::{Job, Prepared, Workshop};
use aptum_formats::archive::{Asset, JobFile};
use aptum_formats::pdf::print_pdf;

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
            name: job.name.clone(),
            cutter: cutter_of(&job, &workshop).map_or_else(String::new, |own| own.name.clone()),
            sheets: prepared.layout.sheets(),
            ticks: steps.iter().fold(0, |sum, step| step.times.saturating_add(sum)),
        })
    }

    /// What is kept of it.
    #[must_use]
    pub fn new_print(&self) -> NewPrint<'_> {
        let Self { code, archive, pdf, name, cutter, sheets, ticks } = self;
        let (sheets, ticks) = (*sheets, *ticks);
        NewPrint { code, archive, pdf, name, cutter, sheets, ticks }
    }
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
    /// What the Logbook keeps of the run: for each operation that was done, what was really sent, and what came of it.
    #[must_use]
    pub fn logged(&self) -> Vec<LogEntry> {
        let Self { head, job, workshop, prepared, .. } = self;
        let Some((id, cutter)) =
            job.sheet.cutter.as_ref().and_then(|id| Some((id, workshop.cutters.get(id)?)))
        else {
            return Vec::new();
        };
        let bad: Vec<String> =
            head.run.bad.iter().map(|(cause, count)| format!("{count} {}", cause.name())).collect();
        let bad = if bad.is_empty() { "none bad".to_owned() } else { bad.join(", ") };
        let note = format!("Run of sheet {}: {} good, {bad}", head.code, head.run.good);
        let count = |cause: Bad| head.run.bad.get(&cause).copied().unwrap_or(0);
        let done = prepared.operations.iter().filter(|own| !own.is_off && own.station.is_some());
        done.filter_map(|own| {
            let stock = own.stocks.iter().next()?;
            // Bad pieces tell of what cuts; a crease is judged by its own ladders.
            let outcome = match own.tool {
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
                force: own.force,
                speed: own.speed,
                passes: own.passes,
                depth: own.depth,
                varied: None,
                outcome,
                note: note.clone(),
            })
        })
        .collect()
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
