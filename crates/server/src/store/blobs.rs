//! Heavy bytes, each once under the hash of its content, for as long as a revision names it.

use std::collections::BTreeMap;
use std::sync::Arc;

use aptum_core::blob::{BlobId, Blobs};
use aptum_formats::archive::{Asset, blob_id};
use aptum_formats::content::Content;
use diesel::prelude::*;

use super::parts;
use super::schema::{blobs, revision_blobs};
use super::{Store, StoreError};

impl Store {
    /// Keeps a picture or a typeface, unless it is there already.
    ///
    /// # Errors
    /// [`StoreError`] from the database, a full disk among them: nothing is kept then.
    pub fn add_blob(&self, content: Content, bytes: &[u8]) -> Result<BlobId, StoreError> {
        self.change(|connection| add(connection, content, bytes))
    }

    /// A blob's media type and bytes.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn blob(&self, id: &BlobId) -> Result<Option<(String, Vec<u8>)>, StoreError> {
        let found = blobs::table
            .filter(blobs::id.eq(&id.0).and(blobs::media.ne(parts::MEDIA)))
            .select((blobs::media, blobs::body))
            .first(&mut *self.reader()?)
            .optional()?;
        Ok(found)
    }
}

impl Blobs for Store {
    fn holds(&self, id: &BlobId) -> bool {
        let found = self.reader().and_then(|mut reader| {
            let count =
                blobs::table.filter(blobs::id.eq(&id.0).and(blobs::media.ne(parts::MEDIA))).count();
            Ok(count.get_result::<i64>(&mut *reader)?)
        });
        found.is_ok_and(|count| count > 0)
    }

    fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>> {
        self.blob(id).ok().flatten().map(|(_, bytes)| bytes.into())
    }
}

fn add(
    connection: &mut SqliteConnection,
    content: Content,
    bytes: &[u8],
) -> Result<BlobId, StoreError> {
    let id = blob_id(bytes);
    let side = |at: usize| i32::try_from(content.pixels()[at]).unwrap_or(i32::MAX);
    diesel::insert_or_ignore_into(blobs::table)
        .values((
            blobs::id.eq(&id.0),
            blobs::media.eq(content.media()),
            blobs::width.eq(side(0)),
            blobs::height.eq(side(1)),
            blobs::body.eq(bytes),
        ))
        .execute(connection)?;
    Ok(id)
}

/// Keeps all pictures that came with a job.
pub(super) fn add_all(
    connection: &mut SqliteConnection,
    assets: &BTreeMap<BlobId, Asset>,
) -> Result<(), StoreError> {
    for asset in assets.values() {
        add(connection, asset.content, &asset.bytes)?;
    }
    Ok(())
}

/// Notes which blobs a revision names.
pub(super) fn name<'a>(
    connection: &mut SqliteConnection,
    id: i32,
    number: i32,
    named: impl Iterator<Item = &'a BlobId>,
) -> Result<(), StoreError> {
    for blob in named {
        diesel::insert_or_ignore_into(revision_blobs::table)
            .values((
                revision_blobs::job.eq(id),
                revision_blobs::number.eq(number),
                revision_blobs::blob.eq(&blob.0),
            ))
            .execute(connection)?;
    }
    Ok(())
}

/// Drops what no revision names any more. What was brought in within a day stays, so that it can still be placed.
pub(super) fn drop_unnamed(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    diesel::sql_query(
        "DELETE FROM blobs WHERE added_at < datetime('now', '-1 day') \
         AND NOT EXISTS (SELECT 1 FROM revision_blobs WHERE blob = blobs.id)",
    )
    .execute(connection)?;
    Ok(())
}
