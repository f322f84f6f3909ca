//! Why something could not be kept or found.

use aptum_core::InputError;
use diesel::result::{DatabaseErrorKind, Error};
use thiserror::Error;

/// What can go wrong with the database.
#[derive(Debug, Error)]
pub enum StoreError {
    /// Another program holds the file.
    #[error(
        "the data file is locked by another program; nothing was changed: close it, then try again"
    )]
    Locked,
    /// The file or its folder cannot be written.
    #[error(
        "the data file cannot be written; nothing was changed: give Aptum the right to write it, or free space on the disk ({0})"
    )]
    ReadOnly(String),
    /// SQLite finds it damaged.
    #[error(
        "the data file {file} is damaged ({why}); nothing was written: save what can still be read with “aptum export --all --out FOLDER”, then put a copy back with “aptum restore FILE”"
    )]
    Damaged {
        /// The file.
        file: String,
        /// What SQLite says.
        why: String,
    },
    /// An older file beside a newer log.
    #[error(
        "the data file is older than the log beside it ({0}): a copy was put back without its log, and nothing was written. Put copies back with “aptum restore FILE”; to go on with the older file, move the log away first"
    )]
    Older(String),
    /// Another server has it.
    #[error(
        "{0} is being served, or another file is being put there: stop that Aptum first, or choose another directory with --data"
    )]
    Served(String),
    /// A copy that could not be made or put back.
    #[error("the copy was not made, and nothing was changed ({0})")]
    Copy(String),
    /// A record that a change builds on has become another.
    #[error(
        "{0} has been changed by an import meanwhile, so this step cannot be taken: change the record as it is now"
    )]
    Overtaken(String),
    /// A job names a record that is gone.
    #[error(
        "the workshop has no {kind} “{id}” any more, it was removed in another window: choose another"
    )]
    NoRecord {
        /// What kind, in words.
        kind: &'static str,
        /// Its id.
        id: String,
    },
    /// A job that cannot be prepared.
    #[error("{}", .0.first().map_or("the job cannot be used", |error| error.message.as_str()))]
    Unusable(Vec<InputError>),
    /// Migrated by a newer Aptum.
    #[error(
        "the data file was made by a newer Aptum (it knows {0}): use that one, or another data directory"
    )]
    Newer(String),
    /// No such job.
    #[error("there is no job {0}: it may have been removed in another window")]
    NoJob(i32),
    /// The job changed meanwhile.
    #[error(
        "the job was changed in another window: it is at version {current}, this change was made to version {yours}"
    )]
    Conflict {
        /// The version the change was made to.
        yours: i32,
        /// The version in the database.
        current: i32,
    },
    /// The workshop changed meanwhile.
    #[error(
        "the workshop was changed in another window: it is at version {current}, this change was made to version {yours}; look at it again"
    )]
    WorkshopConflict {
        /// The version the change was made to.
        yours: i32,
        /// The version in the database.
        current: i32,
    },
    /// A record that jobs use would go.
    #[error(
        "{record} is used by {}, first “{first}”: choose another there, or retire it here, which leaves them as they are", if *count == 1 { "one job".to_owned() } else { format!("{count} jobs, those in the bin too") }
    )]
    InUse {
        /// The record's name.
        record: String,
        /// How many jobs use it.
        count: usize,
        /// The name of one of them.
        first: String,
    },
    /// There is nothing to undo or redo.
    #[error("there is nothing to {0}: this is the {end} state", end = if *.0 == "undo" { "first" } else { "last" })]
    NoFurther(&'static str),
    /// A row that cannot be read.
    #[error(
        "{what} in the data file cannot be read ({why}); the others are untouched: undo its last change, or put a copy of the file back with “aptum restore FILE”"
    )]
    Unreadable {
        /// Which row.
        what: String,
        /// The parser's words.
        why: String,
    },
    /// Anything else SQLite says.
    #[error(
        "the data file answers “{0}”; nothing was changed: try again, and if it stays so, start Aptum anew, which checks the file"
    )]
    Database(String),
}

impl From<Error> for StoreError {
    fn from(error: Error) -> Self {
        let words = error.to_string();
        match &error {
            Error::DatabaseError(DatabaseErrorKind::ReadOnlyTransaction, _) => {
                Self::ReadOnly(words)
            }
            _ => Self::from_words(words),
        }
    }
}

impl StoreError {
    /// SQLite's own codes do not pass through Diesel; its messages are fixed.
    pub(super) fn from_words(words: String) -> Self {
        if words.contains("locked") || words.contains("busy") {
            Self::Locked
        } else if words.contains("readonly")
            || words.contains("read-only")
            || words.contains("disk is full")
            || words.contains("disk I/O error")
        {
            Self::ReadOnly(words)
        } else {
            Self::Database(words)
        }
    }
}
