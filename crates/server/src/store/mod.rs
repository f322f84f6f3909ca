//! What is kept: jobs as revisions, and the workshop's records, in one SQLite file.
//!
//! Every change is one transaction, acknowledged once it is on disk (write-ahead log, full sync).

mod error;
mod jobs;
mod open;
mod records;
mod schema;
mod workshop;

use std::sync::{Mutex, MutexGuard, PoisonError};

use diesel::SqliteConnection;

pub use error::StoreError;
pub use jobs::{Entry, StoredJob};
pub use workshop::{RecordChange, WorkshopHead};

/// The database, shared by all requests.
pub struct Store {
    connection: Mutex<SqliteConnection>,
}

impl Store {
    /// A panic in another request leaves no transaction half done, so its lock is taken over.
    fn connection(&self) -> MutexGuard<'_, SqliteConnection> {
        self.connection.lock().unwrap_or_else(PoisonError::into_inner)
    }
}
