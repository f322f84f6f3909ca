//! What is kept: jobs as revisions, and the workshop's records, in one SQLite file.
//!
//! Every change is one transaction, acknowledged once it is on disk (write-ahead log, full sync). Readers have
//! connections of their own, so that a change that waits for another program holds up nobody who reads.

mod bin;
mod blobs;
mod copies;
mod error;
mod jobs;
mod logbook;
mod open;
pub mod parts;
mod prints;
mod records;
mod rescue;
mod schema;
mod seal;
mod workshop;

use std::fs::File;
use std::path::PathBuf;
use std::sync::atomic::{AtomicU32, Ordering};
use std::sync::{Mutex, MutexGuard, PoisonError};

use diesel::SqliteConnection;
use diesel::r2d2::{ConnectionManager, Pool, PooledConnection};

pub use copies::{backup, restore};
pub use error::StoreError;
pub use jobs::{Entry, StoredJob};
pub use logbook::Logged;
pub use prints::{Frozen, NewPrint, RunChanged};
pub use rescue::{Rescued, rescue};
pub use workshop::{RecordChange, WorkshopHead};

use records::KnownRecords;

/// The log is written back into the data file after so many changes, or after fewer when it is longer than so many
/// bytes.
const SEALED_AFTER: u32 = 400;
const SEALED_EARLY: u32 = 20;
const LONGEST_LOG: u64 = 16 << 20;

/// The database, shared by all requests.
pub struct Store {
    writer: Mutex<SqliteConnection>,
    readers: Pool<ConnectionManager<SqliteConnection>>,
    directory: PathBuf,
    changes: AtomicU32,
    /// The workshop's records as they were read last.
    records: Mutex<Option<KnownRecords>>,
    /// Held for as long as the store is open, so that nobody puts another file in its place; `None` where it is
    /// only read.
    _lock: Option<File>,
}

type Reader = PooledConnection<ConnectionManager<SqliteConnection>>;

impl Store {
    /// A panic in another request leaves no transaction half done, so its lock is taken over.
    fn writer(&self) -> MutexGuard<'_, SqliteConnection> {
        self.writer.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn reader(&self) -> Result<Reader, StoreError> {
        self.readers.get().map_err(|error| StoreError::from_words(error.to_string()))
    }

    /// One transaction that takes the write lock at once, so that it waits rather than fails.
    fn change<T>(
        &self,
        change: impl FnOnce(&mut SqliteConnection) -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        let mut writer = self.writer();
        // A full disk ends the transaction by itself. That it can then not be rolled back says nothing: what went
        // wrong first does.
        let mut first = None;
        let done = writer.immediate_transaction(|connection| {
            change(connection).map_err(|error| {
                first = Some(error);
                StoreError::Database(String::new())
            })
        });
        let done = done.map_err(|error| first.unwrap_or(error))?;
        let log = std::fs::metadata(open::log_file(&self.directory)).map_or(0, |log| log.len());
        let changes = self.changes.fetch_add(1, Ordering::Relaxed) + 1;
        if changes >= SEALED_AFTER || changes >= SEALED_EARLY && log > LONGEST_LOG {
            self.changes.store(0, Ordering::Relaxed);
            // The change is on disk; what cannot be sealed now is at the next one.
            if let Err(error) = seal::seal(&mut writer, &self.directory) {
                tracing::warn!("the log was not written back: {error}");
            }
        }
        Ok(done)
    }

    /// Something the data file says of itself, made when it is first asked for.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn fact(&self, name: &str, make: impl FnOnce() -> String) -> Result<String, StoreError> {
        self.change(|connection| open::fact(connection, name, make))
    }
}
