//! The bin: jobs that were put away, and can be taken out again whole.

use diesel::prelude::*;

use super::jobs::entries;
use super::schema::{jobs, prints, revisions};
use super::{Entry, Store, StoreError, blobs};

impl Store {
    /// All jobs in the bin, the one changed last first.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn binned(&self) -> Result<Vec<Entry>, StoreError> {
        entries(&mut *self.reader()?, true)
    }

    /// Removes one job from the bin for good, or all of them; gives how many went.
    ///
    /// # Errors
    /// [`StoreError::NoJob`] when the one is not there.
    pub fn empty_bin(&self, only: Option<i32>) -> Result<usize, StoreError> {
        self.change(|connection| {
            let mut ids: Vec<i32> =
                jobs::table.filter(jobs::binned.eq(true)).select(jobs::id).load(connection)?;
            if let Some(only) = only {
                ids.retain(|id| *id == only);
                if ids.is_empty() {
                    return Err(StoreError::NoJob(only));
                }
            }
            diesel::delete(revisions::table.filter(revisions::job.eq_any(&ids)))
                .execute(connection)?;
            diesel::delete(prints::table.filter(prints::job.eq_any(&ids))).execute(connection)?;
            blobs::drop_unnamed(connection)?;
            Ok(diesel::delete(jobs::table.filter(jobs::id.eq_any(&ids))).execute(connection)?)
        })
    }

    /// Puts a job into the bin, from which [`unbin_job`](Self::unbin_job) takes it back whole.
    ///
    /// # Errors
    /// [`StoreError::NoJob`] when it is unknown or there already.
    pub fn bin_job(&self, id: i32) -> Result<(), StoreError> {
        self.set_binned(id, true)
    }

    /// Takes a job out of the bin.
    ///
    /// # Errors
    /// [`StoreError::NoJob`] when it is not there.
    pub fn unbin_job(&self, id: i32) -> Result<(), StoreError> {
        self.set_binned(id, false)
    }

    fn set_binned(&self, id: i32, binned: bool) -> Result<(), StoreError> {
        self.change(|connection| {
            let changed = diesel::update(jobs::table)
                .filter(jobs::id.eq(id).and(jobs::binned.ne(binned)))
                .set(jobs::binned.eq(binned))
                .execute(connection)?;
            if changed == 0 { Err(StoreError::NoJob(id)) } else { Ok(()) }
        })
    }
}
