//! What can still be read of a damaged data file.

use std::fmt;
use std::path::Path;
use std::sync::{Arc, Mutex, PoisonError};

use aptum_core::blob::{BlobId, Blobs};
use aptum_core::{Job, Workshop};
use diesel::prelude::*;

use super::open::{data_file, uri};
use super::records::load_readable;
use super::schema::{blobs, jobs, revisions};
use super::{StoreError, jobs as stored};

/// Everything that was found.
#[derive(Debug)]
pub struct Rescued {
    /// The jobs by number, or why one cannot be read.
    pub jobs: Vec<(i32, Result<Job, String>)>,
    /// The records that can be read.
    pub workshop: Workshop,
    /// The pictures that can be read.
    pub blobs: RescuedBlobs,
}

/// The pictures of a damaged data file, read when they are asked for.
pub struct RescuedBlobs(Mutex<SqliteConnection>);

impl fmt::Debug for RescuedBlobs {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.write_str("RescuedBlobs")
    }
}

impl Blobs for RescuedBlobs {
    fn holds(&self, id: &BlobId) -> bool {
        self.bytes(id).is_some()
    }

    fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>> {
        let mut connection = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let found = blobs::table.filter(blobs::id.eq(&id.0)).select(blobs::body);
        found.first::<Vec<u8>>(&mut *connection).ok().map(Into::into)
    }
}

/// Reads what can be read of the data file in `directory`, row by row; nothing is written. Of a job whose
/// current revision is damaged the newest that can be read is taken.
///
/// # Errors
/// A file that cannot be opened at all.
pub fn rescue(directory: &Path) -> Result<Rescued, StoreError> {
    let file = data_file(directory);
    let missing = |error: ConnectionError| StoreError::Damaged {
        file: file.display().to_string(),
        why: error.to_string(),
    };
    let open = |how: &str| SqliteConnection::establish(&uri(&file, how));
    let mut connection =
        open("mode=ro").or_else(|_| open("mode=ro&immutable=1")).map_err(missing)?;
    let ids = job_ids(&mut connection);
    let ids = match ids {
        Ok(ids) => ids,
        // A log that does not fit its file: the file alone.
        Err(_) => {
            connection = open("mode=ro&immutable=1").map_err(missing)?;
            job_ids(&mut connection)?
        }
    };
    let jobs = ids
        .into_iter()
        .map(|(id, head)| {
            let bodies: Result<Vec<String>, _> = revisions::table
                .filter(revisions::job.eq(id).and(revisions::number.le(head)))
                .order(revisions::number.desc())
                .select(revisions::body)
                .limit(50)
                .load(&mut connection);
            let job = match bodies {
                Err(error) => Err(error.to_string()),
                Ok(bodies) => {
                    let mut read =
                        bodies.into_iter().map(|body| stored::parse(&mut connection, id, body));
                    let first = read.next().unwrap_or(Err(StoreError::NoJob(id)));
                    first
                        .or_else(|why| read.find_map(Result::ok).ok_or(why))
                        .map_err(|why| why.to_string())
                }
            };
            (id, job)
        })
        .collect();
    let workshop = load_readable(&mut connection);
    Ok(Rescued { jobs, workshop, blobs: RescuedBlobs(Mutex::new(connection)) })
}

fn job_ids(connection: &mut SqliteConnection) -> Result<Vec<(i32, i32)>, StoreError> {
    Ok(jobs::table
        .filter(jobs::binned.eq(false))
        .order(jobs::id)
        .select((jobs::id, jobs::head))
        .load(connection)?)
}
