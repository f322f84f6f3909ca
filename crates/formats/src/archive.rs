//! A job as a file: a zip with `job.json` and the job's assets, or that JSON alone.
//!
//! `job.json` is `{"format": "aptum-job", "version": 2, "job": …, "workshop": …}`. The workshop
//! holds only the records that the job names, so that it opens anywhere. Lengths are mm.

use std::collections::{BTreeMap, BTreeSet};
use std::io::{Cursor, Read, Write};

use aptum_core::blob::{BlobId, Blobs};
use aptum_core::job::older;
use aptum_core::workshop::{RecordId, RecordKind};
use aptum_core::{Job, Workshop};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sha2::{Digest, Sha256};
use thiserror::Error;
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, ZipArchive, ZipWriter};

use crate::content::{Content, ContentError};

/// The version that is written, and the newest that is read.
pub const VERSION: u32 = older::SHAPE;

/// Largest file that is read, in bytes.
pub const LARGEST_FILE: usize = 160 << 20;

/// Largest sum of an archive's pictures, in bytes, unpacked.
const LARGEST_ASSETS: u64 = 192 << 20;

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
    /// The pictures and typefaces that came with it, by their content; not part of the document.
    #[serde(skip)]
    pub assets: BTreeMap<BlobId, Asset>,
}

/// A picture or a typeface that came with a job.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Asset {
    /// What it is.
    pub content: Content,
    /// Its bytes.
    pub bytes: Vec<u8>,
}

/// The id of some bytes: their SHA-256 (FIPS 180-4).
#[must_use]
pub fn blob_id(bytes: &[u8]) -> BlobId {
    let digest = Sha256::digest(bytes);
    BlobId(hex::encode(digest))
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
    /// Pictures that unpack to too much.
    #[error("the archive’s pictures unpack to more than {} MiB: nothing of it was read", LARGEST_ASSETS >> 20)]
    TooMuch,
    /// A picture that is not what its name says.
    #[error(
        "the archive holds “{0}”, whose content is not what its name says: nothing of it was read; export the job again"
    )]
    Changed(String),
    /// A picture or a typeface that cannot be used.
    #[error("the archive holds “{0}”: {1}")]
    Content(String, ContentError),
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
        let mut used = Workshop::default();
        for (kind, id) in job.records() {
            if let Some(record) = workshop.record(kind, id) {
                used.insert(id.clone(), record);
            }
        }
        Self {
            format: "aptum-job".to_owned(),
            version: VERSION,
            job: job.clone(),
            workshop: used,
            assets: BTreeMap::new(),
        }
    }

    /// The document as JSON.
    #[must_use]
    pub fn to_json(&self) -> String {
        // Types without maps keyed by anything but strings always have a JSON form.
        let mut json = serde_json::to_string_pretty(self).unwrap_or_default();
        json.push('\n');
        json
    }

    /// The archive, with those of its pictures that `blobs` has.
    ///
    /// # Errors
    /// [`ArchiveError::Damaged`] when the zip cannot be put together.
    pub fn to_archive(&self, blobs: &dyn Blobs) -> Result<Vec<u8>, ArchiveError> {
        let damaged = |error: &dyn std::fmt::Display| ArchiveError::Damaged(error.to_string());
        let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
        let packed = SimpleFileOptions::default().compression_method(CompressionMethod::Deflated);
        // Pictures are packed already.
        let stored = SimpleFileOptions::default().compression_method(CompressionMethod::Stored);
        zip.start_file(ENTRY, packed).map_err(|error| damaged(&error))?;
        zip.write_all(self.to_json().as_bytes()).map_err(|error| damaged(&error))?;
        let named: BTreeSet<&BlobId> = self.job.blobs().collect();
        for id in named {
            let Some(bytes) = blobs.bytes(id) else { continue };
            let Ok(content) = Content::head(&bytes) else { continue };
            let name = format!("{ASSETS}{id}.{}", content.extension());
            zip.start_file(name, stored).map_err(|error| damaged(&error))?;
            zip.write_all(&bytes).map_err(|error| damaged(&error))?;
        }
        Ok(zip.finish().map_err(|error| damaged(&error))?.into_inner())
    }

    /// The job as it fits into `workshop`, and the records that must be added for it. A record
    /// whose id is taken by a different one gets a free id.
    #[must_use]
    pub fn adopt(self, workshop: &Workshop) -> (Job, Workshop) {
        let Self { mut job, workshop: brought, .. } = self;
        let mut new = Workshop::default();
        let mut renamed = Vec::new();
        for (kind, id) in job.records_mut() {
            let Some(record) = brought.record(kind, id) else { continue };
            let free = std::iter::once(id.clone())
                .chain((2..).map(|number| RecordId(format!("{id}-{number}"))))
                .find(|id| workshop.record(kind, id).is_none_or(|taken| taken == record));
            let Some(free) = free else { continue };
            if kind == RecordKind::Stocks && *id != free {
                renamed.push((id.clone(), free.clone()));
            }
            *id = free.clone();
            if !workshop.has(kind, &free) {
                new.insert(free, record);
            }
        }
        renamed.dedup();
        renamed.iter().for_each(|(from, to)| job.tooling.rename_card(from, to));
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
            let (json, assets) = unpack(bytes)?;
            Ok(Self { assets, ..Self::from_json(&json)? })
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
        let mut file: Value = serde_json::from_slice(bytes).map_err(damaged)?;
        if head.version < VERSION
            && let Some(job) = file.get_mut("job")
        {
            *job = older::brought_up(job.take());
        }
        let mut file: Self = serde_json::from_value(file).map_err(damaged)?;
        file.version = VERSION;
        Ok(file)
    }
}

/// JSON without the byte-order mark that some programs put before it.
#[must_use]
pub fn without_mark(bytes: &[u8]) -> &[u8] {
    bytes.strip_prefix(b"\xef\xbb\xbf").unwrap_or(bytes)
}

/// Takes `job.json` and the pictures out of an archive, once every entry is known to be harmless.
fn unpack(bytes: &[u8]) -> Result<(Vec<u8>, BTreeMap<BlobId, Asset>), ArchiveError> {
    let damaged = |error: zip::result::ZipError| ArchiveError::Damaged(error.to_string());
    let mut zip = ZipArchive::new(Cursor::new(bytes)).map_err(damaged)?;
    if zip.len() > MOST_ENTRIES {
        return Err(ArchiveError::TooMany(zip.len()));
    }
    let mut names = Vec::new();
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
        names.push(name);
    }
    // The stated size may lie: reading stops at the limit whatever it says.
    let mut read = |name: &str, most: u64| -> Result<Vec<u8>, ArchiveError> {
        let mut bytes = Vec::new();
        let entry = zip.by_name(name).map_err(damaged)?;
        let wrong = |error: std::io::Error| ArchiveError::Damaged(error.to_string());
        entry.take(most + 1).read_to_end(&mut bytes).map_err(wrong)?;
        Ok(bytes)
    };
    let json = read(ENTRY, LARGEST_JOB)?;
    if json.len() as u64 > LARGEST_JOB {
        return Err(ArchiveError::Bomb);
    }
    let mut assets = BTreeMap::new();
    let mut room = LARGEST_ASSETS;
    for name in names.iter().filter_map(|name| name.strip_prefix(ASSETS)) {
        let bytes = read(&format!("{ASSETS}{name}"), room)?;
        room = room.checked_sub(bytes.len() as u64).ok_or(ArchiveError::TooMuch)?;
        let id = blob_id(&bytes);
        if name.split('.').next() != Some(id.0.as_str()) {
            return Err(ArchiveError::Changed(name.to_owned()));
        }
        let content = Content::of(&bytes);
        let content = content.map_err(|error| ArchiveError::Content(name.to_owned(), error))?;
        assets.insert(id, Asset { content, bytes });
    }
    Ok((json, assets))
}
