//! Generations of the data file, by which an older copy beside a newer log is noticed.
//!
//! SQLite keeps changes in a log beside the file and writes them back from time to time. Put an older copy of
//! the file beside that log and it takes the one for the start of the other: jobs vanish without a word. So each
//! writing back counts up a number in the file, and the number is also kept in a file of its own. A data file
//! with a smaller one, beside a log that is not empty, is older than the log.

use std::io::Write;
use std::path::{Path, PathBuf};
use std::time::Duration;

use diesel::connection::SimpleConnection;
use diesel::prelude::*;

use super::StoreError;
use super::blobs::drop_unnamed;
use super::open::{PATIENCE, data_file, log_file, set_fact, uri};
use super::schema::facts;

/// How often a file that cannot be read without its log is looked at, and how long is waited before the next look.
const TRIES: u32 = 5;
const BETWEEN: Duration = Duration::from_millis(50);

fn seal_file(directory: &Path) -> PathBuf {
    directory.join("aptum.generation")
}

/// Writes the log back into the data file and counts its generation up.
pub(super) fn seal(connection: &mut SqliteConnection, directory: &Path) -> Result<(), StoreError> {
    let generation = number(connection)? + 1;
    connection.immediate_transaction(|connection| {
        drop_unnamed(connection)?;
        set_fact(connection, "generation", &generation.to_string())
    })?;
    // Room that dropped revisions left goes back to the disk, a little at a time.
    connection.batch_execute("PRAGMA incremental_vacuum(2000);")?;
    // Nobody who wants to save waits for those who read: among many of them there may always be one.
    wait_at_most(connection, 0)?;
    let written = connection.batch_execute("PRAGMA wal_checkpoint(TRUNCATE);");
    wait_at_most(connection, PATIENCE)?;
    written?;
    let log = log_file(directory);
    if std::fs::metadata(log).is_ok_and(|log| log.len() > 0) {
        // Somebody reads an older state: the log is written back next time.
        return Ok(());
    }
    let (whole, part) = (seal_file(directory), directory.join("aptum.generation.part"));
    let write = || {
        let mut file = std::fs::File::create(&part)?;
        file.write_all(generation.to_string().as_bytes())?;
        file.sync_all()?;
        std::fs::rename(&part, &whole)
    };
    write().map_err(|error| StoreError::ReadOnly(format!("{}: {error}", whole.display())))
}

/// So many milliseconds are waited for others from now on.
fn wait_at_most(connection: &mut SqliteConnection, long: u32) -> QueryResult<()> {
    connection.batch_execute(&format!("PRAGMA busy_timeout = {long};"))
}

/// Refuses a data file that is older than the log beside it, before SQLite has seen either.
pub(super) fn refuse_older(directory: &Path) -> Result<(), StoreError> {
    let file = data_file(directory);
    let log = log_file(directory);
    let has_log = std::fs::metadata(&log).is_ok_and(|log| log.len() > 0);
    let sealed = std::fs::read_to_string(seal_file(directory));
    let Some(sealed) = sealed.ok().and_then(|text| text.trim().parse::<i64>().ok()) else {
        return Ok(());
    };
    if !has_log || !file.is_file() {
        return Ok(());
    }
    for _ in 0..TRIES {
        // As the file is without its log.
        let alone = SqliteConnection::establish(&uri(&file, "mode=ro&immutable=1"));
        match alone.map(|mut connection| number(&mut connection)) {
            Ok(Ok(own)) if own < sealed => {
                return Err(StoreError::Older(log.display().to_string()));
            }
            Ok(Ok(_)) => return Ok(()),
            // Half written back, by a program that is at it or was killed.
            Ok(Err(_)) | Err(_) => std::thread::sleep(BETWEEN),
        }
    }
    // Its log may have all that it lacks; if not, that is told when both are looked at together.
    Ok(())
}

/// The generation of a data file; 0 where nothing has counted it yet.
fn number(connection: &mut SqliteConnection) -> QueryResult<i64> {
    let value = facts::table.filter(facts::name.eq("generation")).select(facts::value);
    match value.first::<String>(connection).optional() {
        Ok(value) => Ok(value.and_then(|value| value.parse().ok()).unwrap_or(0)),
        Err(diesel::result::Error::DatabaseError(_, told))
            if told.message().contains("no such table") =>
        {
            Ok(0)
        }
        Err(error) => Err(error),
    }
}

/// Forgets the generation, since another file takes the place of the one it was of.
pub(super) fn forget(directory: &Path) {
    let _ = std::fs::remove_file(seal_file(directory));
}
