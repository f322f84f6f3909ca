//! The Logbook's entries, the newest first.

use aptum_core::logbook::{Combination, LogEntry};
use diesel::dsl::sql;
use diesel::prelude::*;
use diesel::sql_types::{Bool, Text};

use super::schema::logbook;
use super::{Store, StoreError};

/// Most entries; older ones go.
const KEPT: i64 = 20_000;

/// An entry with when it was made.
#[derive(Debug, Clone, PartialEq)]
pub struct Logged {
    /// Its number.
    pub id: i32,
    /// When, such as `2026-10-12 14:03`.
    pub made_at: String,
    /// What was tried.
    pub entry: LogEntry,
}

impl Store {
    /// Every entry that can be read, the newest first.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn logbook(&self) -> Result<Vec<Logged>, StoreError> {
        let rows: Vec<(i32, String, String)> = logbook::table
            .order((logbook::made_at.desc(), logbook::id.desc()))
            .load(&mut *self.reader()?)?;
        let read = |(id, made_at, body): (i32, String, String)| {
            Some(Logged { id, made_at, entry: serde_json::from_str(&body).ok()? })
        };
        Ok(rows.into_iter().filter_map(read).collect())
    }

    /// The newest entry of a combination; `None` where nobody has tried it.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn last_logged(&self, of: &Combination<'_>) -> Result<Option<Logged>, StoreError> {
        // In the words of the index that finds them.
        let stock = sql::<Bool>("json_extract(body, '$.stock.id') = ").bind::<Text, _>(&of.stock.0);
        let cutter =
            sql::<Bool>("json_extract(body, '$.cutter.id') = ").bind::<Text, _>(&of.cutter.0);
        let rows = logbook::table
            .filter(stock)
            .filter(cutter)
            .order((logbook::made_at.desc(), logbook::id.desc()))
            .load::<(i32, String, String)>(&mut *self.reader()?)?;
        let read = |(id, made_at, body): (i32, String, String)| {
            Some(Logged { id, made_at, entry: serde_json::from_str(&body).ok()? })
        };
        Ok(rows.into_iter().filter_map(read).find(|own| own.entry.is_of(of)))
    }

    /// Adds entries, each at its time or now; gives the numbers.
    ///
    /// # Errors
    /// [`StoreError`] from the database: none is kept then.
    pub fn log(&self, entries: &[(Option<&str>, &LogEntry)]) -> Result<Vec<i32>, StoreError> {
        self.change(|connection| log(connection, entries))
    }

    /// Changes an entry; false where there is none of that number.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn relog(&self, id: i32, entry: &LogEntry) -> Result<bool, StoreError> {
        self.change(|connection| {
            let changed = diesel::update(logbook::table.filter(logbook::id.eq(id)))
                .set(logbook::body.eq(body(entry)?))
                .execute(connection)?;
            Ok(changed > 0)
        })
    }

    /// Takes an entry out; false where there is none of that number.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn unlog(&self, id: i32) -> Result<bool, StoreError> {
        self.change(|connection| {
            let gone = diesel::delete(logbook::table.filter(logbook::id.eq(id)));
            Ok(gone.execute(connection)? > 0)
        })
    }

    /// The day, as the machine's clock has it.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn today(&self) -> Result<String, StoreError> {
        now(&mut *self.reader()?, "%Y-%m-%d")
    }
}

fn log(
    connection: &mut SqliteConnection,
    entries: &[(Option<&str>, &LogEntry)],
) -> Result<Vec<i32>, StoreError> {
    let mut ids = Vec::new();
    for (at, entry) in entries {
        let at = match at {
            Some(at) => (*at).to_owned(),
            None => now(connection, "%Y-%m-%d %H:%M")?,
        };
        let id = diesel::insert_into(logbook::table)
            .values((logbook::made_at.eq(at), logbook::body.eq(body(entry)?)))
            .returning(logbook::id)
            .get_result(connection)?;
        ids.push(id);
    }
    let first: Option<i32> = logbook::table
        .order(logbook::id.desc())
        .offset(KEPT)
        .select(logbook::id)
        .first(connection)
        .optional()?;
    if let Some(first) = first {
        diesel::delete(logbook::table.filter(logbook::id.le(first))).execute(connection)?;
    }
    Ok(ids)
}

/// Writes entries in the place of those of these numbers, as far as they are still there, and gives the numbers; inside the
/// caller's transaction.
pub(super) fn log_anew(
    connection: &mut SqliteConnection,
    known: &[i32],
    entries: &[LogEntry],
) -> Result<Vec<i32>, StoreError> {
    let before: Vec<(String, String)> = logbook::table
        .filter(logbook::id.eq_any(known))
        .order(logbook::id.asc())
        .select((logbook::made_at, logbook::body))
        .load(connection)?;
    diesel::delete(logbook::table.filter(logbook::id.eq_any(known))).execute(connection)?;
    // They keep the moment at which the run was over first, and what somebody wrote beside them: beside what was done with
    // the same settings, or else beside what is told no more.
    let told: Vec<LogEntry> =
        before.iter().filter_map(|(_, body)| serde_json::from_str(body).ok()).collect();
    let note = |entry: &LogEntry| {
        let same = told.iter().find(|own| own.is_with_the_same(entry));
        let gone = || {
            let mut gone =
                told.iter().filter(|own| !entries.iter().any(|new| own.is_with_the_same(new)));
            gone.find(|own| own.line == entry.line && own.tool == entry.tool)
        };
        same.or_else(gone).map(|own| own.note.clone())
    };
    let entries: Vec<LogEntry> = entries
        .iter()
        .map(|own| LogEntry { note: note(own).unwrap_or_default(), ..own.clone() })
        .collect();
    let at = before.first().map(|(at, _)| at.as_str());
    let entries: Vec<_> = entries.iter().map(|entry| (at, entry)).collect();
    log(connection, &entries)
}

fn body(entry: &LogEntry) -> Result<String, StoreError> {
    serde_json::to_string(entry).map_err(|error| StoreError::Database(error.to_string()))
}

pub(super) fn now(connection: &mut SqliteConnection, form: &str) -> Result<String, StoreError> {
    #[derive(QueryableByName)]
    struct Now {
        #[diesel(sql_type = Text)]
        at: String,
    }
    let found: Now = diesel::sql_query("SELECT strftime(?, 'now', 'localtime') AS at")
        .bind::<Text, _>(form)
        .get_result(connection)?;
    Ok(found.at)
}
