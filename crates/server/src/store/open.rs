//! Opening the data file and bringing it up to date.

use std::path::Path;
use std::sync::Mutex;

use diesel::connection::SimpleConnection;
use diesel::migration::{Migration, MigrationSource};
use diesel::prelude::*;
use diesel::sqlite::Sqlite;
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};

use super::{Store, StoreError};

const MIGRATIONS: EmbeddedMigrations = embed_migrations!();

/// Milliseconds to wait for another program before saying that the file is locked.
const PATIENCE: u32 = 2000;

impl Store {
    /// Opens, or makes, the data file in `directory`.
    ///
    /// # Errors
    /// A file that is locked, cannot be written, or was made by a newer version.
    pub fn open(directory: &Path) -> Result<Self, StoreError> {
        std::fs::create_dir_all(directory)
            .map_err(|error| StoreError::ReadOnly(format!("{}: {error}", directory.display())))?;
        let file = directory.join("aptum.sqlite");
        let mut connection = SqliteConnection::establish(&file.to_string_lossy())
            .map_err(|error| StoreError::ReadOnly(format!("{}: {error}", file.display())))?;
        connection.batch_execute(&format!(
            "PRAGMA busy_timeout = {PATIENCE}; PRAGMA foreign_keys = ON;"
        ))?;
        connection.batch_execute("PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL;")?;
        refuse_newer(&mut connection)?;
        connection
            .run_pending_migrations(MIGRATIONS)
            .map_err(|error| StoreError::from_words(error.to_string()))?;
        // A read-only file opens and migrates when it is up to date; a write tells.
        connection.batch_execute(
            "BEGIN IMMEDIATE; UPDATE jobs SET version = version WHERE id = 0; COMMIT;",
        )?;
        Ok(Self { connection: Mutex::new(connection) })
    }
}

/// A migration that this program does not know must have come from a newer one.
fn refuse_newer(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    let words =
        |error: Box<dyn std::error::Error + Send + Sync>| StoreError::from_words(error.to_string());
    let known: Vec<Box<dyn Migration<Sqlite>>> = MIGRATIONS.migrations().map_err(words)?;
    let applied = connection.applied_migrations().map_err(words)?;
    let unknown =
        applied.iter().find(|version| !known.iter().any(|one| one.name().version() == **version));
    unknown.map_or(Ok(()), |version| Err(StoreError::Newer(version.to_string())))
}
