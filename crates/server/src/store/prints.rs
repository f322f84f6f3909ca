//! Frozen prints: sheets as they were printed, and how far their run has come.

use aptum_core::run::Progress;
use diesel::prelude::*;

use super::logbook::now;
use super::schema::prints;
use super::{Store, StoreError};

/// Prints of a job that are kept; older ones go.
const KEPT: i64 = 40;

/// A frozen print without its bytes.
#[derive(Debug, Clone, PartialEq)]
pub struct Frozen {
    /// Its number.
    pub id: i32,
    /// The job that it was made of.
    pub job: i32,
    /// The code on its sheets.
    pub code: String,
    /// When it was printed, such as `2026-10-12 14:03`.
    pub made_at: String,
    /// How far its run has come.
    pub run: Progress,
    /// Counted up by each change of the run.
    pub version: i32,
}

/// What became of a change of a run.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum RunChanged<E> {
    /// It is on disk.
    Kept,
    /// The run was changed since; nothing was.
    Overtaken,
    /// It cannot be made; nothing was changed.
    Refused(E),
    /// There is no such print.
    Missing,
}

type Row = (i32, i32, String, String, String, i32);

const HEAD: (prints::id, prints::job, prints::code, prints::made_at, prints::run, prints::version) =
    (prints::id, prints::job, prints::code, prints::made_at, prints::run, prints::version);

fn frozen((id, job, code, made_at, run, version): Row) -> Frozen {
    // What a newer version wrote there is no reason to lose the print.
    let run = serde_json::from_str(&run).unwrap_or_default();
    Frozen { id, job, code, made_at, run, version }
}

impl Store {
    /// Keeps what was printed: the archive of the job and the bytes of the print file.
    ///
    /// # Errors
    /// [`StoreError`] from the database, a full disk among them: nothing is kept then.
    pub fn freeze(
        &self,
        job: i32,
        code: &str,
        archive: &[u8],
        pdf: &[u8],
    ) -> Result<Frozen, StoreError> {
        self.change(|connection| {
            let run = body(&Progress::default())?;
            let made_at = now(connection, "%Y-%m-%d %H:%M")?;
            let id: i32 = diesel::insert_into(prints::table)
                .values((
                    prints::job.eq(job),
                    prints::code.eq(code),
                    prints::made_at.eq(&made_at),
                    prints::archive.eq(archive),
                    prints::pdf.eq(pdf),
                    prints::run.eq(run),
                    prints::version.eq(1),
                ))
                .returning(prints::id)
                .get_result(connection)?;
            let oldest: Vec<i32> = prints::table
                .filter(prints::job.eq(job))
                .order(prints::id.desc())
                .select(prints::id)
                .limit(i64::from(i32::MAX))
                .offset(KEPT)
                .load(connection)?;
            diesel::delete(prints::table.filter(prints::id.eq_any(oldest))).execute(connection)?;
            let (code, run, version) = (code.to_owned(), Progress::default(), 1);
            Ok(Frozen { id, job, code, made_at, run, version })
        })
    }

    /// The prints of a job, the newest first.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn prints(&self, job: i32) -> Result<Vec<Frozen>, StoreError> {
        let rows: Vec<Row> = prints::table
            .filter(prints::job.eq(job))
            .order(prints::id.desc())
            .select(HEAD)
            .load(&mut *self.reader()?)?;
        Ok(rows.into_iter().map(frozen).collect())
    }

    /// A print.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn print(&self, id: i32) -> Result<Option<Frozen>, StoreError> {
        let row: Option<Row> =
            prints::table.find(id).select(HEAD).first(&mut *self.reader()?).optional()?;
        Ok(row.map(frozen))
    }

    /// The archive of the job as it was printed.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn printed_job(&self, id: i32) -> Result<Option<Vec<u8>>, StoreError> {
        let found = prints::table.find(id).select(prints::archive);
        Ok(found.first(&mut *self.reader()?).optional()?)
    }

    /// The file that went to the printer.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn printed_pdf(&self, id: i32) -> Result<Option<Vec<u8>>, StoreError> {
        let found = prints::table.find(id).select(prints::pdf);
        Ok(found.first(&mut *self.reader()?).optional()?)
    }

    /// Changes how far a run has come, unless it is at another version than `version`. `change` is told the moment.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn change_run<E>(
        &self,
        id: i32,
        version: i32,
        change: impl FnOnce(&mut Progress, &str) -> Result<(), E>,
    ) -> Result<RunChanged<E>, StoreError> {
        self.change(|connection| {
            let row: Option<Row> =
                prints::table.find(id).select(HEAD).first(connection).optional()?;
            let Some(mut own) = row.map(frozen) else { return Ok(RunChanged::Missing) };
            if own.version != version {
                return Ok(RunChanged::Overtaken);
            }
            let at = now(connection, "%Y-%m-%d %H:%M")?;
            if let Err(error) = change(&mut own.run, &at) {
                return Ok(RunChanged::Refused(error));
            }
            own.version += 1;
            diesel::update(prints::table.find(id))
                .set((prints::run.eq(body(&own.run)?), prints::version.eq(own.version)))
                .execute(connection)?;
            Ok(RunChanged::Kept)
        })
    }
}

fn body(run: &Progress) -> Result<String, StoreError> {
    serde_json::to_string(run).map_err(|error| StoreError::Database(error.to_string()))
}
