//! Frozen prints: sheets as they were printed, and how far their run has come.

use std::collections::BTreeSet;

use aptum_core::logbook::LogEntry;
use aptum_core::run::{Progress, Sent};
use diesel::prelude::*;

use super::logbook::{log_anew, now};
use super::schema::{jobs, prints};
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
    /// What the job was called.
    pub name: String,
    /// What its cutter was called; empty where a hand cuts.
    pub cutter: String,
    /// How many sheets it has.
    pub sheets: i32,
    /// How often something is to be ticked until it is done.
    pub ticks: i32,
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

/// What is kept of a print beside its bytes.
#[derive(Debug, Clone)]
pub struct NewPrint<'a> {
    /// The code on its sheets.
    pub code: &'a str,
    /// The archive of the job.
    pub archive: &'a [u8],
    /// The file that goes to the printer.
    pub pdf: &'a [u8],
    /// A small picture of its first sheet, PNG.
    pub picture: &'a [u8],
    /// What the job is called.
    pub name: &'a str,
    /// What its cutter is called; empty where a hand cuts.
    pub cutter: &'a str,
    /// How many sheets it has.
    pub sheets: u32,
    /// How often something is to be ticked until it is done.
    pub ticks: u32,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = prints)]
struct Row {
    id: i32,
    job: i32,
    code: String,
    made_at: String,
    run: String,
    name: String,
    cutter: String,
    sheets: i32,
    ticks: i32,
    version: i32,
}

impl From<Row> for Frozen {
    fn from(row: Row) -> Self {
        let Row { id, job, code, made_at, run, name, cutter, sheets, ticks, version } = row;
        // What a newer version wrote there is no reason to lose the print.
        let run = serde_json::from_str(&run).unwrap_or_default();
        Self { id, job, code, made_at, name, cutter, sheets, ticks, run, version }
    }
}

impl Store {
    /// Keeps what was printed of jobs, all of it or nothing, last in the queue at their cutters.
    ///
    /// # Errors
    /// [`StoreError`] from the database, a full disk among them.
    pub fn freeze(&self, prints: &[(i32, NewPrint<'_>)]) -> Result<Vec<Frozen>, StoreError> {
        self.change(|connection| {
            prints.iter().map(|(job, new)| add(connection, *job, new)).collect()
        })
    }

    /// The newest print of each job that is not in the bin, in the order of the queue.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn queue(&self) -> Result<Vec<Frozen>, StoreError> {
        let mut reader = self.reader()?;
        let newest: Vec<Option<i32>> = prints::table
            .group_by(prints::job)
            .select(diesel::dsl::max(prints::id))
            .load(&mut *reader)?;
        let newest: Vec<i32> = newest.into_iter().flatten().collect();
        let there: Vec<i32> =
            jobs::table.filter(jobs::binned.eq(false)).select(jobs::id).load(&mut *reader)?;
        let rows: Vec<Row> = prints::table
            .filter(prints::id.eq_any(newest).and(prints::job.eq_any(there)))
            .order((prints::place.asc(), prints::id.asc()))
            .select(Row::as_select())
            .load(&mut *reader)?;
        Ok(rows.into_iter().map(Frozen::from).collect())
    }

    /// Puts prints into an order; those that are not named stay behind them in theirs.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn put_in_order(&self, order: &[i32]) -> Result<(), StoreError> {
        self.change(|connection| {
            let rest: Vec<i32> = prints::table
                .filter(prints::id.ne_all(order))
                .order((prints::place.asc(), prints::id.asc()))
                .select(prints::id)
                .load(connection)?;
            for (place, id) in (1..).zip(order.iter().chain(&rest)) {
                diesel::update(prints::table.find(id))
                    .set(prints::place.eq(place))
                    .execute(connection)?;
            }
            Ok(())
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
            .select(Row::as_select())
            .load(&mut *self.reader()?)?;
        Ok(rows.into_iter().map(Frozen::from).collect())
    }

    /// The numbers of all prints that are kept.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn prints_kept(&self) -> Result<BTreeSet<i32>, StoreError> {
        let ids: Vec<i32> = prints::table.select(prints::id).load(&mut *self.reader()?)?;
        Ok(ids.into_iter().collect())
    }

    /// A print.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn print(&self, id: i32) -> Result<Option<Frozen>, StoreError> {
        let row: Option<Row> = prints::table
            .find(id)
            .select(Row::as_select())
            .first(&mut *self.reader()?)
            .optional()?;
        Ok(row.map(Frozen::from))
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

    /// A small picture of the first sheet, PNG; empty where none was kept.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn printed_picture(&self, id: i32) -> Result<Option<Vec<u8>>, StoreError> {
        let found = prints::table.find(id).select(prints::picture);
        Ok(found.first(&mut *self.reader()?).optional()?)
    }

    /// Changes how far a run has come, unless it is at another version than `version`. `change` is told the moment, and gives what
    /// the Logbook is to say of the run from now on, if anything: entries that told of it before are written anew. All of it is
    /// kept, or nothing.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn change_run<E>(
        &self,
        id: i32,
        version: i32,
        change: impl FnOnce(&mut Progress, &str) -> Result<Vec<LogEntry>, E>,
    ) -> Result<RunChanged<E>, StoreError> {
        self.change(|connection| {
            let row: Option<Row> =
                prints::table.find(id).select(Row::as_select()).first(connection).optional()?;
            let Some(mut own) = row.map(Frozen::from) else { return Ok(RunChanged::Missing) };
            if own.version != version {
                return Ok(RunChanged::Overtaken);
            }
            let at = now(connection, "%Y-%m-%d %H:%M")?;
            match change(&mut own.run, &at) {
                Ok(entries) if entries.is_empty() => {}
                Ok(entries) => own.run.logged = log_anew(connection, &own.run.logged, &entries)?,
                Err(error) => return Ok(RunChanged::Refused(error)),
            }
            own.version += 1;
            diesel::update(prints::table.find(id))
                .set((prints::run.eq(body(&own.run)?), prints::version.eq(own.version)))
                .execute(connection)?;
            Ok(RunChanged::Kept)
        })
    }
}

impl Store {
    /// Notes with what a step cut a sheet, which is no change that another screen has to know of first.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn note_sent(
        &self,
        id: i32,
        step: &str,
        sheet: u32,
        operations: Vec<Sent>,
    ) -> Result<(), StoreError> {
        self.change(|connection| {
            let row: Option<Row> =
                prints::table.find(id).select(Row::as_select()).first(connection).optional()?;
            let Some(mut own) = row.map(Frozen::from) else { return Ok(()) };
            own.run.note_sent(step, sheet, operations);
            diesel::update(prints::table.find(id))
                .set(prints::run.eq(body(&own.run)?))
                .execute(connection)?;
            Ok(())
        })
    }
}

fn add(
    connection: &mut SqliteConnection,
    job: i32,
    new: &NewPrint<'_>,
) -> Result<Frozen, StoreError> {
    let whole = |own: u32| i32::try_from(own).unwrap_or(i32::MAX);
    let last: Option<i32> =
        prints::table.select(diesel::dsl::max(prints::place)).first(connection)?;
    let made_at = now(connection, "%Y-%m-%d %H:%M")?;
    let row: Row = diesel::insert_into(prints::table)
        .values((
            prints::job.eq(job),
            prints::code.eq(new.code),
            prints::made_at.eq(made_at),
            prints::archive.eq(new.archive),
            prints::pdf.eq(new.pdf),
            prints::picture.eq(new.picture),
            prints::run.eq(body(&Progress::default())?),
            prints::name.eq(new.name),
            prints::cutter.eq(new.cutter),
            prints::sheets.eq(whole(new.sheets)),
            prints::ticks.eq(whole(new.ticks)),
            prints::place.eq(last.unwrap_or(0).saturating_add(1)),
            prints::version.eq(1),
        ))
        .returning(Row::as_returning())
        .get_result(connection)?;
    let oldest: Vec<i32> = prints::table
        .filter(prints::job.eq(job))
        .order(prints::id.desc())
        .select(prints::id)
        .limit(i64::from(i32::MAX))
        .offset(KEPT)
        .load(connection)?;
    diesel::delete(prints::table.filter(prints::id.eq_any(oldest))).execute(connection)?;
    Ok(row.into())
}

fn body(run: &Progress) -> Result<String, StoreError> {
    serde_json::to_string(run).map_err(|error| StoreError::Database(error.to_string()))
}
