//! Why something could not be kept or found.

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
        "{record} is used by {count} jobs, first “{first}”: choose another there, or retire it here, which leaves them as they are"
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
    #[error("there is nothing to {0}")]
    NoFurther(&'static str),
    /// A row that cannot be read.
    #[error("{what} in the data file cannot be read ({why}): restore the file from a copy")]
    Unreadable {
        /// Which row.
        what: String,
        /// The parser's words.
        why: String,
    },
    /// Anything else SQLite says.
    #[error("the data file answers: {0}")]
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
        {
            Self::ReadOnly(words)
        } else {
            Self::Database(words)
        }
    }
}
