//! Opening the data file and bringing it up to date.

use std::fs::{File, TryLockError};
use std::path::{Path, PathBuf};
use std::sync::Mutex;
use std::sync::atomic::AtomicU32;
use std::time::Duration;

use diesel::connection::SimpleConnection;
use diesel::migration::{Migration, MigrationSource};
use diesel::prelude::*;
use diesel::r2d2::{ConnectionManager, CustomizeConnection, Pool};
use diesel::sql_types::Text;
use diesel::sqlite::Sqlite;
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};

use super::schema::facts;
use super::{Store, StoreError, copies, seal};

pub(super) const MIGRATIONS: EmbeddedMigrations = embed_migrations!();

/// Milliseconds to wait for another program before saying that the file is locked.
pub(super) const PATIENCE: u32 = 2000;

/// Connections that read; one of them watches the workshop.
const READERS: u32 = 5;

/// The data file of a directory.
pub(super) fn data_file(directory: &Path) -> PathBuf {
    directory.join("aptum.sqlite")
}

/// The log beside it, of changes that are not written back yet.
pub(super) fn log_file(directory: &Path) -> PathBuf {
    directory.join("aptum.sqlite-wal")
}

/// A file as a URI that SQLite opens, with parameters.
pub(super) fn uri(file: &Path, parameters: &str) -> String {
    let path = file.to_string_lossy();
    let plain = |byte: u8| byte.is_ascii_alphanumeric() || b"/-_.~".contains(&byte);
    let escaped: String = path
        .bytes()
        .map(|byte| if plain(byte) { char::from(byte).to_string() } else { format!("%{byte:02X}") })
        .collect();
    format!("file:{escaped}?{parameters}")
}

#[derive(QueryableByName)]
struct Word {
    #[diesel(sql_type = Text)]
    word: String,
}

/// Readers wait like writers do, and change nothing.
#[derive(Debug)]
struct Reading;

impl CustomizeConnection<SqliteConnection, diesel::r2d2::Error> for Reading {
    fn on_acquire(&self, connection: &mut SqliteConnection) -> Result<(), diesel::r2d2::Error> {
        connection
            .batch_execute(&format!("PRAGMA busy_timeout = {PATIENCE}; PRAGMA query_only = ON;"))
            .map_err(diesel::r2d2::Error::QueryError)
    }
}

impl Store {
    /// Opens, or makes, the data file in `directory`.
    ///
    /// # Errors
    /// A file that is locked, damaged, older than its log, cannot be written, was made by a newer version, or is
    /// served already.
    pub fn open(directory: &Path) -> Result<Self, StoreError> {
        let cannot = |error: std::io::Error| {
            StoreError::ReadOnly(format!("{}: {error}", directory.display()))
        };
        std::fs::create_dir_all(directory).map_err(cannot)?;
        let lock = lock(directory, Hold::Shared)?;
        seal::refuse_older(directory)?;
        let file = data_file(directory);
        let is_new = std::fs::metadata(&file).map_or(true, |file| file.len() == 0);
        let mut connection = establish(&file)?;
        if is_new {
            // Before the first table: room of dropped revisions can then be given back.
            connection.batch_execute("PRAGMA auto_vacuum = INCREMENTAL;")?;
        } else {
            check(&mut connection, &file)?;
        }
        connection.batch_execute(
            "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA wal_autocheckpoint = 0;",
        )?;
        refuse_newer(&mut connection)?;
        let words = |error: Box<dyn std::error::Error + Send + Sync>| {
            StoreError::from_words(error.to_string())
        };
        let pending = connection.has_pending_migration(MIGRATIONS).map_err(words)?;
        if pending && !is_new {
            copies::before_migration(&mut connection, directory)?;
        }
        connection.run_pending_migrations(MIGRATIONS).map_err(words)?;
        if pending && !is_new {
            connection.batch_execute("PRAGMA auto_vacuum = INCREMENTAL; VACUUM;")?;
        }
        // A read-only file opens and migrates when it is up to date; a write tells.
        connection.batch_execute(
            "BEGIN IMMEDIATE; UPDATE jobs SET version = version WHERE id = 0; COMMIT;",
        )?;
        seal::seal(&mut connection, directory)?;
        Self::over(connection, directory, Some(lock))
    }

    /// Opens the data file in `directory` to read it, also while it is served; nothing is written.
    ///
    /// # Errors
    /// As [`open`](Self::open); a file of an older version must be opened by a server first.
    pub fn read(directory: &Path) -> Result<Self, StoreError> {
        seal::refuse_older(directory)?;
        let file = data_file(directory);
        let mut connection = establish(&file)?;
        check(&mut connection, &file)?;
        connection.batch_execute("PRAGMA query_only = ON;")?;
        refuse_newer(&mut connection)?;
        Self::over(connection, directory, None)
    }

    fn over(
        connection: SqliteConnection,
        directory: &Path,
        lock: Option<File>,
    ) -> Result<Self, StoreError> {
        let manager = ConnectionManager::new(data_file(directory).to_string_lossy());
        let readers = Pool::builder()
            .max_size(READERS)
            .min_idle(Some(0))
            .connection_timeout(Duration::from_secs(5))
            .connection_customizer(Box::new(Reading))
            .build(manager)
            .map_err(|error| StoreError::from_words(error.to_string()))?;
        Ok(Self {
            writer: Mutex::new(connection),
            readers,
            directory: directory.to_owned(),
            changes: AtomicU32::new(0),
            records: Mutex::new(None),
            _lock: lock,
        })
    }
}

/// Servers share a directory's lock; whoever puts another file there wants it alone.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(super) enum Hold {
    Shared,
    Alone,
}

pub(super) fn lock(directory: &Path, hold: Hold) -> Result<File, StoreError> {
    let path = directory.join("aptum.lock");
    let cannot =
        |error: std::io::Error| StoreError::ReadOnly(format!("{}: {error}", path.display()));
    let file = File::options().create(true).truncate(false).write(true).open(&path);
    let file = file.map_err(cannot)?;
    // Whoever ends just now lets go in a moment, and so does a process that is about to become another program.
    for tries in (0..HOLD_TRIES).rev() {
        let locked = match hold {
            Hold::Shared => file.try_lock_shared(),
            Hold::Alone => file.try_lock(),
        };
        match locked {
            Ok(()) => return Ok(file),
            Err(TryLockError::WouldBlock) if tries > 0 => std::thread::sleep(HOLD_PAUSE),
            Err(TryLockError::WouldBlock) => break,
            Err(TryLockError::Error(error)) => return Err(cannot(error)),
        }
    }
    Err(StoreError::Served(directory.display().to_string()))
}

/// How often the lock of a directory is asked for.
const HOLD_TRIES: u32 = 10;

/// How long is waited in between.
const HOLD_PAUSE: Duration = Duration::from_millis(50);

fn establish(file: &Path) -> Result<SqliteConnection, StoreError> {
    let mut connection = SqliteConnection::establish(&file.to_string_lossy())
        .map_err(|error| StoreError::ReadOnly(format!("{}: {error}", file.display())))?;
    connection
        .batch_execute(&format!("PRAGMA busy_timeout = {PATIENCE}; PRAGMA foreign_keys = ON;"))?;
    Ok(connection)
}

/// Refuses a damaged file.
pub(super) fn check(connection: &mut SqliteConnection, file: &Path) -> Result<(), StoreError> {
    let damaged = |why: String| StoreError::Damaged { file: file.display().to_string(), why };
    let found = diesel::sql_query("SELECT quick_check AS word FROM pragma_quick_check LIMIT 1")
        .load::<Word>(connection);
    match found {
        Ok(words) if words.iter().all(|found| found.word == "ok") => Ok(()),
        Ok(words) => Err(damaged(words.into_iter().map(|found| found.word).collect())),
        Err(error) => match StoreError::from(error) {
            StoreError::Database(why) => Err(damaged(why)),
            other => Err(other),
        },
    }
}

/// A migration that this program does not know must have come from a newer one.
pub(super) fn refuse_newer(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    let words =
        |error: Box<dyn std::error::Error + Send + Sync>| StoreError::from_words(error.to_string());
    let known: Vec<Box<dyn Migration<Sqlite>>> = MIGRATIONS.migrations().map_err(words)?;
    let applied = connection.applied_migrations().map_err(words)?;
    let unknown =
        applied.iter().find(|version| !known.iter().any(|one| one.name().version() == **version));
    unknown.map_or(Ok(()), |version| Err(StoreError::Newer(version.to_string())))
}

pub(super) fn fact(
    connection: &mut SqliteConnection,
    name: &str,
    make: impl FnOnce() -> String,
) -> Result<String, StoreError> {
    let known: Option<String> = facts::table
        .filter(facts::name.eq(name))
        .select(facts::value)
        .first(connection)
        .optional()?;
    if let Some(value) = known {
        return Ok(value);
    }
    let value = make();
    set_fact(connection, name, &value)?;
    Ok(value)
}

pub(super) fn set_fact(
    connection: &mut SqliteConnection,
    name: &str,
    value: &str,
) -> Result<(), StoreError> {
    diesel::replace_into(facts::table)
        .values((facts::name.eq(name), facts::value.eq(value)))
        .execute(connection)?;
    Ok(())
}
