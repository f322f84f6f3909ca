//! Copies of the data file: on request, before a migration, and put back.

use std::path::{Path, PathBuf};

use diesel::connection::SimpleConnection;
use diesel::prelude::*;

use super::open::{Hold, check, data_file, lock, refuse_newer, uri};
use super::{StoreError, seal};

fn cannot(path: &Path, error: &dyn std::fmt::Display) -> StoreError {
    StoreError::Copy(format!("{}: {error}", path.display()))
}

/// Copies the data file of `directory` to `target`, whole and as of one moment, also while it is served.
///
/// # Errors
/// No data file, a target that is there already or cannot be written, and what the database says.
pub fn backup(directory: &Path, target: &Path) -> Result<(), StoreError> {
    let file = data_file(directory);
    if !file.is_file() {
        return Err(cannot(&file, &"there is no such data file"));
    }
    seal::refuse_older(directory)?;
    let mut connection = SqliteConnection::establish(&file.to_string_lossy())
        .map_err(|error| cannot(&file, &error))?;
    connection.batch_execute("PRAGMA busy_timeout = 5000;")?;
    check(&mut connection, &file)?;
    copy(&mut connection, target)
}

/// SQLite writes a copy of one consistent state, which takes its name when it is on disk.
fn copy(connection: &mut SqliteConnection, target: &Path) -> Result<(), StoreError> {
    if target.exists() {
        return Err(cannot(target, &"there is a file already; choose another name"));
    }
    let mut part = target.as_os_str().to_owned();
    part.push(".part");
    let part = PathBuf::from(part);
    let _ = std::fs::remove_file(&part);
    let quoted = part.to_string_lossy().replace('\'', "''");
    connection.batch_execute(&format!("VACUUM INTO '{quoted}'"))?;
    std::fs::File::open(&part)
        .and_then(|file| file.sync_all())
        .and_then(|()| std::fs::rename(&part, target))
        .map_err(|error| cannot(target, &error))
}

/// The copy that is made by itself before a migration.
pub(super) fn before_migration(
    connection: &mut SqliteConnection,
    directory: &Path,
) -> Result<(), StoreError> {
    let name = |number: u32| directory.join(format!("aptum-before-update-{number}.sqlite"));
    let free = (1..).map(name).find(|path| !path.exists());
    let free = free.unwrap_or_else(|| name(0));
    tracing::info!("copying the data file to {} before it is brought up to date", free.display());
    copy(connection, &free)
}

/// Puts `source` in the place of the data file of `directory`, which is kept beside it; gives its name.
///
/// # Errors
/// A directory that is served, a source that is damaged or of a newer version, and files that cannot be written.
pub fn restore(source: &Path, directory: &Path) -> Result<Option<PathBuf>, StoreError> {
    std::fs::create_dir_all(directory).map_err(|error| cannot(directory, &error))?;
    let _lock = lock(directory, Hold::Alone)?;
    if !source.is_file() {
        return Err(cannot(source, &"there is no such file"));
    }
    let mut connection = SqliteConnection::establish(&uri(source, "mode=ro"))
        .map_err(|error| cannot(source, &error))?;
    check(&mut connection, source)?;
    refuse_newer(&mut connection)?;
    let file = data_file(directory);
    let part = directory.join("aptum.sqlite.part");
    let _ = std::fs::remove_file(&part);
    copy(&mut connection, &part)?;
    drop(connection);
    let mut kept = None;
    if file.exists() {
        let name = |number: u32| directory.join(format!("aptum-before-restore-{number}.sqlite"));
        let aside = (1..).map(name).find(|path| !path.exists()).unwrap_or_else(|| name(0));
        // With its log, so that nothing of what was acknowledged is left out.
        for end in ["-wal", "-shm", ""] {
            let (from, to) = (with_end(&file, end), with_end(&aside, end));
            if from.exists() {
                std::fs::rename(&from, &to).map_err(|error| cannot(&from, &error))?;
            }
        }
        kept = Some(aside);
    }
    seal::forget(directory);
    std::fs::rename(&part, &file).map_err(|error| cannot(&file, &error))?;
    Ok(kept)
}

fn with_end(file: &Path, end: &str) -> PathBuf {
    let mut name = file.as_os_str().to_owned();
    name.push(end);
    PathBuf::from(name)
}
