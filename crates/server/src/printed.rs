//! Sheets as they were printed: the job and all that it names, out of the archive that was kept with the print.

use std::collections::BTreeMap;
use std::sync::Arc;

use aptum_core::blob::{BlobId, Blobs};
use aptum_core::{Job, Prepared, Workshop};
use aptum_formats::archive::{Asset, JobFile};
use aptum_formats::pdf::print_pdf;

use crate::api::Problem;
use crate::shelf::{furnished, prepared};
use crate::store::{Frozen, Store};

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
        Ok(Self { code: prepared.code.clone(), archive, pdf })
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
