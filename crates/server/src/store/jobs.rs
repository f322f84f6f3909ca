//! Jobs as revisions: a change adds one, undo and redo move along them.

use std::collections::BTreeMap;

use aptum_core::blob::BlobId;
use aptum_core::job::older;
use aptum_core::{InputError, Job, Workshop};
use aptum_formats::archive::Asset;
use diesel::dsl::sql;
use diesel::prelude::*;

use super::records::{add_all, has, workshop};
use super::schema::{jobs, revisions};
use super::{Store, StoreError};
use super::{blobs, parts};

/// Revisions that a job keeps; older ones go.
const KEPT: i32 = 1000;

/// A job with where it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredJob {
    /// Its number.
    pub id: i32,
    /// Counts every change, undo and redo.
    pub version: i32,
    /// The current revision.
    pub job: Job,
    /// True when there is an older revision.
    pub can_undo: bool,
    /// True when there is a newer revision.
    pub can_redo: bool,
}

/// A job in the list.
#[derive(Debug, Clone, PartialEq)]
pub struct Entry {
    /// Its number.
    pub id: i32,
    /// Its version, which changes with every change.
    pub version: i32,
    /// The current revision, or why it cannot be read.
    pub job: Result<Job, String>,
}

type Row = (i32, i32, i32, String);

impl Store {
    /// All jobs out of the bin, the one changed last first.
    ///
    /// # Errors
    /// [`StoreError`] from the database or an unreadable row.
    pub fn jobs(&self) -> Result<Vec<Entry>, StoreError> {
        entries(&mut *self.reader()?, false)
    }

    /// One job.
    ///
    /// # Errors
    /// [`StoreError::NoJob`] when it is unknown or in the bin.
    pub fn job(&self, id: i32) -> Result<StoredJob, StoreError> {
        load(&mut *self.reader()?, id)
    }

    /// The job of that version.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when it is another version by now.
    pub fn job_at(&self, id: i32, version: i32) -> Result<Job, StoreError> {
        let stored = self.job(id)?;
        if stored.version == version {
            Ok(stored.job)
        } else {
            Err(StoreError::Conflict { yours: version, current: stored.version })
        }
    }

    /// Adds a job.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn add_job(&self, job: &Job) -> Result<StoredJob, StoreError> {
        self.change(|connection| add(connection, job))
    }

    /// Adds several jobs, each as if it had been made so many days ago, records and pictures, all of them or none; gives the jobs'
    /// numbers.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn add_jobs(
        &self,
        all: &[(Job, u32)],
        records: &Workshop,
        assets: &BTreeMap<BlobId, Asset>,
    ) -> Result<Vec<i32>, StoreError> {
        self.change(|connection| {
            blobs::add_all(connection, assets)?;
            add_all(connection, records)?;
            let mut ids = Vec::new();
            for (job, days) in all {
                let id = add(connection, job)?.id;
                if *days > 0 {
                    diesel::update(revisions::table.filter(revisions::job.eq(id)))
                        .set(
                            revisions::made_at.eq(sql(&format!("datetime('now', '-{days} days')"))),
                        )
                        .execute(connection)?;
                }
                ids.push(id);
            }
            Ok(ids)
        })
    }

    /// Adds a job that brings records and pictures of its own. `adopt` gets the workshop as it is in the same transaction and
    /// gives the job as it fits in, and the records that are missing: nobody changes either meanwhile.
    ///
    /// # Errors
    /// [`StoreError::Unusable`] from `adopt`, and what the database says.
    pub fn bring_job(
        &self,
        assets: &BTreeMap<BlobId, Asset>,
        adopt: impl FnOnce(&Workshop) -> Result<(Job, Workshop), Vec<InputError>>,
    ) -> Result<StoredJob, StoreError> {
        self.change(|connection| {
            blobs::add_all(connection, assets)?;
            let (job, records) = adopt(&workshop(connection)?).map_err(StoreError::Unusable)?;
            if records != Workshop::default() {
                add_all(connection, &records)?;
            }
            add(connection, &job)
        })
    }

    /// Makes `job` the current revision of job `id`, when it is still at `version`. What had been
    /// undone is gone then. A job that has not changed adds nothing.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when it is not, and what the database says.
    pub fn save_job(&self, id: i32, version: i32, job: &Job) -> Result<StoredJob, StoreError> {
        self.change(|connection| {
            let (head, now, stored) = expect(connection, id, version)?;
            if stored == *job {
                return load(connection, id);
            }
            refuse_missing(connection, job)?;
            let dropped = diesel::delete(revisions::table)
                .filter(revisions::job.eq(id))
                .filter(revisions::number.gt(head).or(revisions::number.le(head - KEPT)))
                .execute(connection)?;
            if dropped > 0 {
                blobs::drop_unnamed(connection)?;
            }
            add_revision(connection, id, head + 1, job)?;
            move_to(connection, id, head + 1, now)
        })
    }

    /// Goes back one revision.
    ///
    /// # Errors
    /// As [`save_job`](Self::save_job), and [`StoreError::NoFurther`] at the first.
    pub fn undo(&self, id: i32, version: i32) -> Result<StoredJob, StoreError> {
        self.change(|connection| {
            let (head, now) = at(connection, id, version)?;
            let older: Option<i32> = revisions::table
                .filter(revisions::job.eq(id).and(revisions::number.lt(head)))
                .select(diesel::dsl::max(revisions::number))
                .first(connection)?;
            move_to(connection, id, older.ok_or(StoreError::NoFurther("undo"))?, now)
        })
    }

    /// Goes forward one revision.
    ///
    /// # Errors
    /// As [`undo`](Self::undo).
    pub fn redo(&self, id: i32, version: i32) -> Result<StoredJob, StoreError> {
        self.change(|connection| {
            let (head, now) = at(connection, id, version)?;
            let newer: Option<i32> = revisions::table
                .filter(revisions::job.eq(id).and(revisions::number.gt(head)))
                .select(diesel::dsl::min(revisions::number))
                .first(connection)?;
            move_to(connection, id, newer.ok_or(StoreError::NoFurther("redo"))?, now)
        })
    }
}

pub(super) fn entries(
    connection: &mut SqliteConnection,
    binned: bool,
) -> Result<Vec<Entry>, StoreError> {
    let rows: Vec<(i32, i32, String)> = jobs::table
        .inner_join(revisions::table)
        .filter(jobs::binned.eq(binned).and(revisions::number.eq(jobs::head)))
        .order((revisions::made_at.desc(), jobs::id.desc()))
        .select((jobs::id, jobs::version, revisions::body))
        .load(connection)?;
    let entry = |(id, version, body): (i32, i32, String)| Entry {
        id,
        version,
        job: parse(connection, id, body).map_err(|why| why.to_string()),
    };
    Ok(rows.into_iter().map(entry).collect())
}

fn add(connection: &mut SqliteConnection, job: &Job) -> Result<StoredJob, StoreError> {
    refuse_missing(connection, job)?;
    let id: i32 = diesel::insert_into(jobs::table)
        .values((jobs::head.eq(1), jobs::version.eq(1)))
        .returning(jobs::id)
        .get_result(connection)?;
    add_revision(connection, id, 1, job)?;
    load(connection, id)
}

/// A job may name only records that are there, whatever it was checked against before.
fn refuse_missing(connection: &mut SqliteConnection, job: &Job) -> Result<(), StoreError> {
    for (kind, id) in job.records() {
        if !has(connection, kind, id)? {
            return Err(StoreError::NoRecord { kind: kind.name(), id: id.to_string() });
        }
    }
    Ok(())
}

/// A job as it is stored; one that an earlier version stored is brought up when it is read.
pub(super) fn parse(
    connection: &mut SqliteConnection,
    id: i32,
    body: String,
) -> Result<Job, StoreError> {
    let body = parts::whole(connection, body)?;
    let body = body.as_str();
    let read = serde_json::from_str(body).or_else(|error| {
        let older: serde_json::Value = serde_json::from_str(body)?;
        // What is wrong is said of the job as it stands.
        serde_json::from_value(older::brought_up(older)).map_err(|_| error)
    });
    read.map_err(|error| StoreError::Unreadable {
        what: format!("job {id}"),
        why: error.to_string(),
    })
}

fn add_revision(
    connection: &mut SqliteConnection,
    id: i32,
    number: i32,
    job: &Job,
) -> Result<(), StoreError> {
    let body =
        serde_json::to_string(job).map_err(|error| StoreError::Database(error.to_string()))?;
    let (body, named) = parts::keep(connection, body)?;
    diesel::insert_into(revisions::table)
        .values((revisions::job.eq(id), revisions::number.eq(number), revisions::body.eq(body)))
        .execute(connection)?;
    blobs::name(connection, id, number, job.blobs().chain(&named))
}

/// Head and version, when the version is the one expected.
fn at(connection: &mut SqliteConnection, id: i32, version: i32) -> Result<(i32, i32), StoreError> {
    let (_, head, current, _) = row(connection, id)?;
    if current == version {
        Ok((head, current))
    } else {
        Err(StoreError::Conflict { yours: version, current })
    }
}

/// Head, version and job, when the version is the one expected.
fn expect(
    connection: &mut SqliteConnection,
    id: i32,
    version: i32,
) -> Result<(i32, i32, Job), StoreError> {
    let (_, head, current, body) = row(connection, id)?;
    if current != version {
        return Err(StoreError::Conflict { yours: version, current });
    }
    Ok((head, current, parse(connection, id, body)?))
}

fn row(connection: &mut SqliteConnection, id: i32) -> Result<Row, StoreError> {
    jobs::table
        .inner_join(revisions::table)
        .filter(jobs::id.eq(id).and(jobs::binned.eq(false)))
        .filter(revisions::number.eq(jobs::head))
        .select((jobs::id, jobs::head, jobs::version, revisions::body))
        .first(connection)
        .optional()?
        .ok_or(StoreError::NoJob(id))
}

fn move_to(
    connection: &mut SqliteConnection,
    id: i32,
    head: i32,
    version: i32,
) -> Result<StoredJob, StoreError> {
    diesel::update(jobs::table)
        .filter(jobs::id.eq(id))
        .set((jobs::head.eq(head), jobs::version.eq(version + 1)))
        .execute(connection)?;
    load(connection, id)
}

fn load(connection: &mut SqliteConnection, id: i32) -> Result<StoredJob, StoreError> {
    let (_, head, version, body) = row(connection, id)?;
    let (oldest, newest): (Option<i32>, Option<i32>) = revisions::table
        .filter(revisions::job.eq(id))
        .select((diesel::dsl::min(revisions::number), diesel::dsl::max(revisions::number)))
        .first(connection)?;
    Ok(StoredJob {
        id,
        version,
        job: parse(connection, id, body)?,
        can_undo: oldest.is_some_and(|oldest| oldest < head),
        can_redo: newest.is_some_and(|newest| newest > head),
    })
}
