//! Finding the job that a command names.

use std::error::Error;
use std::path::Path;

use aptum_core::blob::Blobs;
use aptum_core::memory::Forgetful;
use aptum_core::{Job, Prepared, Workshop, prepare};
use aptum_formats::archive::{JobFile, LARGEST_FILE};
use aptum_formats::trace::furnished;

use super::DataDirectory;
use crate::brought::Brought;
use crate::store::Store;

/// A job with what core makes of it.
pub(super) struct Found {
    pub job: Job,
    pub prepared: Prepared,
    /// The records it uses, among others.
    pub workshop: Workshop,
    /// Its pictures.
    pub blobs: Box<dyn Blobs>,
}

/// Reads a file where there is one of that name, and else looks in the data directory.
pub(super) fn find(name: &str, data: &DataDirectory) -> Result<Found, Box<dyn Error>> {
    let (job, workshop, blobs) =
        if Path::new(name).is_file() { from_file(name)? } else { from_data(name, data)? };
    let prepared = prepare(&furnished(&job, &*blobs, &Forgetful), &workshop).map_err(|errors| {
        errors
            .iter()
            .map(|error| format!("{}: {} ({})", error.field, error.message, error.remedy.text))
            .collect::<Vec<_>>()
            .join("\n       ")
    })?;
    Ok(Found { job, prepared, workshop, blobs })
}

type Parts = (Job, Workshop, Box<dyn Blobs>);

fn from_file(name: &str) -> Result<Parts, Box<dyn Error>> {
    let length = std::fs::metadata(name)?.len();
    if length > LARGEST_FILE as u64 {
        return Err(
            format!("{name} has {length} bytes: a job file has at most {LARGEST_FILE}").into()
        );
    }
    let file = JobFile::read(&std::fs::read(name)?).map_err(|error| format!("{name}: {error}"))?;
    if let Err(errors) = file.workshop.validate(file.job.unit) {
        return Err(format!("{name}: {}", errors[0].message).into());
    }
    Ok((file.job, file.workshop, Box::new(Brought(file.assets))))
}

fn from_data(name: &str, data: &DataDirectory) -> Result<Parts, Box<dyn Error>> {
    let directory = data.path();
    let missing = || {
        format!("there is no file and no job named “{name}” (looked in {})", directory.display())
    };
    if !directory.join("aptum.sqlite").is_file() {
        return Err(missing().into());
    }
    let store = Store::read(&directory)?;
    let mut named =
        store.jobs()?.into_iter().filter_map(|entry| entry.job.ok()).filter(|job| job.name == name);
    let first = named.next().ok_or_else(missing)?;
    if named.next().is_some() {
        tracing::warn!("several jobs are named “{name}”; this is the one changed last");
    }
    let workshop = store.workshop()?;
    Ok((first, workshop.as_ref().clone(), Box::new(store)))
}
