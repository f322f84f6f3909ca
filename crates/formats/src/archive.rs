//! A job as a file: a zip with `job.json` and the job's assets, or that JSON alone.
//!
//! `job.json` is `{"format": "aptum-job", "version": 1, "job": …, "workshop": …}`. The workshop
//! holds only the records that the job names, so that it opens anywhere. Lengths are mm.

use std::collections::BTreeMap;
use std::io::{Cursor, Read, Write};

use aptum_core::workshop::RecordId;
use aptum_core::{Job, Workshop};
use serde::{Deserialize, Serialize};
use thiserror::Error;
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, ZipArchive, ZipWriter};

/// The version that is written, and the newest that is read.
pub const VERSION: u32 = 1;

/// Largest file that is read, in bytes.
pub const LARGEST_FILE: usize = 16 << 20;

/// Largest `job.json` that is read, in bytes, unpacked.
///
/// A job with 20,000 places kept by hand takes some 4 MiB.
pub const LARGEST_JOB: u64 = 8 << 20;

/// Most entries in an archive.
const MOST_ENTRIES: usize = 200;

/// The entry that every archive has.
const ENTRY: &str = "job.json";

/// Where assets lie.
const ASSETS: &str = "assets/";

/// The document in `job.json`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct JobFile {
    format: String,
    version: u32,
    /// The job.
    pub job: Job,
    /// The records it names.
    #[serde(default)]
    pub workshop: Workshop,
}

/// Why a job file cannot be read.
#[derive(Debug, Error)]
pub enum ArchiveError {
    /// Too many bytes.
    #[error("the file has {0} bytes: a job file has at most {LARGEST_FILE}")]
    TooLarge(usize),
    /// Neither a zip nor JSON, or cut short.
    #[error("the file is damaged or not an Aptum job ({0}): export the job again")]
    Damaged(String),
    /// More entries than a job needs.
    #[error("the archive has {0} entries: a job has at most {MOST_ENTRIES}")]
    TooMany(usize),
    /// An entry that could be written outside the job's own folder, or that no job has.
    #[error("the archive holds “{0}”, which is no part of a job: nothing of it was read")]
    Stray(String),
    /// A `job.json` that unpacks to too much.
    #[error(
        "{ENTRY} unpacks to more than {LARGEST_JOB} bytes: nothing of it was read; keep fewer copies by hand"
    )]
    Bomb,
    /// Another format.
    #[error("this is a “{0}”, not an aptum-job")]
    OtherFormat(String),
    /// Written by a newer Aptum.
    #[error("the file has version {0}, and this Aptum reads up to {VERSION}: use a newer Aptum")]
    Newer(u32),
}

impl JobFile {
    /// A job with the records of `workshop` that it names.
    #[must_use]
    pub fn new(job: &Job, workshop: &Workshop) -> Self {
        fn pick<T: Clone>(
            records: &BTreeMap<RecordId, T>,
            id: Option<&RecordId>,
        ) -> BTreeMap<RecordId, T> {
            id.and_then(|id| records.get_key_value(id))
                .map(|(id, record)| (id.clone(), record.clone()))
                .into_iter()
                .collect()
        }
        let mut stocks = BTreeMap::new();
        for piece in job.pieces() {
            let backing = piece.form.backing.as_ref().map(|backing| &backing.stock);
            stocks.extend(pick(&workshop.stocks, Some(piece.stock)));
            stocks.extend(pick(&workshop.stocks, backing));
        }
        let used = Workshop {
            stocks,
            printers: pick(&workshop.printers, job.sheet.printer.as_ref()),
            cutters: pick(&workshop.cutters, job.sheet.cutter.as_ref()),
            carriers: pick(&workshop.carriers, job.sheet.carrier.as_ref()),
            mark_sets: pick(&workshop.mark_sets, job.sheet.marks.as_ref()),
        };
        Self { format: "aptum-job".to_owned(), version: VERSION, job: job.clone(), workshop: used }
    }

    /// The document as JSON.
    #[must_use]
    pub fn to_json(&self) -> String {
        // Types without maps keyed by anything but strings always have a JSON form.
        let mut json = serde_json::to_string_pretty(self).unwrap_or_default();
        json.push('\n');
        json
    }

    /// The archive.
    ///
    /// # Errors
    /// [`ArchiveError::Damaged`] when the zip cannot be put together.
    pub fn to_archive(&self) -> Result<Vec<u8>, ArchiveError> {
        let damaged = |error: &dyn std::fmt::Display| ArchiveError::Damaged(error.to_string());
        let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
        let options = SimpleFileOptions::default().compression_method(CompressionMethod::Deflated);
        zip.start_file(ENTRY, options).map_err(|error| damaged(&error))?;
        zip.write_all(self.to_json().as_bytes()).map_err(|error| damaged(&error))?;
        Ok(zip.finish().map_err(|error| damaged(&error))?.into_inner())
    }

    /// The job as it fits into `workshop`, and the records that must be added for it. A record
    /// whose id is taken by a different one gets a free id.
    #[must_use]
    pub fn adopt(self, workshop: &Workshop) -> (Job, Workshop) {
        let Self { mut job, workshop: brought, .. } = self;
        let mut new = Workshop::default();
        let mut card = |stock: &mut RecordId| {
            let found =
                settle(Some(stock.clone()), &brought.stocks, &workshop.stocks, &mut new.stocks);
            *stock = found.unwrap_or_else(|| stock.clone());
        };
        card(&mut job.stock);
        let companions =
            job.companions.iter_mut().map(|other| (&mut other.form, Some(&mut other.stock)));
        for (form, stock) in std::iter::once((&mut job.form, None)).chain(companions) {
            stock.into_iter().for_each(&mut card);
            form.backing.iter_mut().for_each(|backing| card(&mut backing.stock));
        }
        for run in job.sheet.kept.iter_mut().flat_map(|kept| &mut kept.runs) {
            run.stock.iter_mut().for_each(&mut card);
        }
        let plan = &mut job.sheet;
        plan.printer =
            settle(plan.printer.take(), &brought.printers, &workshop.printers, &mut new.printers);
        plan.cutter =
            settle(plan.cutter.take(), &brought.cutters, &workshop.cutters, &mut new.cutters);
        plan.carrier =
            settle(plan.carrier.take(), &brought.carriers, &workshop.carriers, &mut new.carriers);
        plan.marks =
            settle(plan.marks.take(), &brought.mark_sets, &workshop.mark_sets, &mut new.mark_sets);
        (job, new)
    }

    /// Reads an archive or its JSON.
    ///
    /// # Errors
    /// Anything that is not a whole job file of a known version. Figures are not judged here:
    /// that is for [`aptum_core::prepare`] and [`Workshop::validate`].
    pub fn read(bytes: &[u8]) -> Result<Self, ArchiveError> {
        if bytes.len() > LARGEST_FILE {
            return Err(ArchiveError::TooLarge(bytes.len()));
        }
        if bytes.starts_with(b"PK") {
            Self::from_json(&unpack(bytes)?)
        } else {
            Self::from_json(bytes)
        }
    }

    fn from_json(bytes: &[u8]) -> Result<Self, ArchiveError> {
        let bytes = without_mark(bytes);
        #[derive(Deserialize)]
        struct Head {
            format: String,
            version: u32,
        }
        if bytes.len() as u64 > LARGEST_JOB {
            return Err(ArchiveError::Bomb);
        }
        let damaged = |error: serde_json::Error| ArchiveError::Damaged(error.to_string());
        // The head first: a newer version may look quite different below it.
        let head: Head = serde_json::from_slice(bytes).map_err(damaged)?;
        if head.format != "aptum-job" {
            return Err(ArchiveError::OtherFormat(head.format.chars().take(40).collect()));
        }
        if head.version > VERSION {
            return Err(ArchiveError::Newer(head.version));
        }
        serde_json::from_slice(bytes).map_err(damaged)
    }
}

/// JSON without the byte-order mark that some programs put before it.
#[must_use]
pub fn without_mark(bytes: &[u8]) -> &[u8] {
    bytes.strip_prefix(b"\xef\xbb\xbf").unwrap_or(bytes)
}

/// Where the record that `id` names in `brought` is, or goes, among `own` and `new`.
fn settle<T: Clone + PartialEq>(
    id: Option<RecordId>,
    brought: &BTreeMap<RecordId, T>,
    own: &BTreeMap<RecordId, T>,
    new: &mut BTreeMap<RecordId, T>,
) -> Option<RecordId> {
    let id = id?;
    let Some(record) = brought.get(&id) else { return Some(id) };
    let free = std::iter::once(id.clone())
        .chain((2..).map(|number| RecordId(format!("{id}-{number}"))))
        .find(|id| own.get(id).is_none_or(|taken| taken == record))?;
    if !own.contains_key(&free) {
        new.insert(free.clone(), record.clone());
    }
    Some(free)
}

/// Takes `job.json` out of an archive, once every entry is known to be harmless.
fn unpack(bytes: &[u8]) -> Result<Vec<u8>, ArchiveError> {
    let damaged = |error: zip::result::ZipError| ArchiveError::Damaged(error.to_string());
    let mut zip = ZipArchive::new(Cursor::new(bytes)).map_err(damaged)?;
    if zip.len() > MOST_ENTRIES {
        return Err(ArchiveError::TooMany(zip.len()));
    }
    for index in 0..zip.len() {
        let entry = zip.by_index(index).map_err(damaged)?;
        let name = entry.name().map_err(damaged)?.into_owned();
        let plain = name == ENTRY
            || name.strip_prefix(ASSETS).is_some_and(|rest| {
                !rest.contains(['/', '\\', ':']) && rest != ".." && rest != "." && rest.len() <= 120
            });
        if !plain || entry.is_symlink() {
            return Err(ArchiveError::Stray(name.chars().take(80).collect()));
        }
    }
    let entry = zip.by_name(ENTRY).map_err(damaged)?;
    let mut json = Vec::new();
    // The stated size may lie: reading stops at the limit whatever it says.
    entry
        .take(LARGEST_JOB + 1)
        .read_to_end(&mut json)
        .map_err(|error| ArchiveError::Damaged(error.to_string()))?;
    if json.len() as u64 > LARGEST_JOB { Err(ArchiveError::Bomb) } else { Ok(json) }
}
