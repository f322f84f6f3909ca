//! What came with an archive, as blobs.

use std::borrow::Borrow;
use std::collections::BTreeMap;
use std::sync::Arc;

use aptum_core::blob::{BlobId, Blobs};
use aptum_formats::archive::Asset;

/// The pictures, typefaces and drawings of an archive.
pub struct Brought<M>(pub M);

impl<M: Borrow<BTreeMap<BlobId, Asset>> + Sync> Blobs for Brought<M> {
    fn holds(&self, id: &BlobId) -> bool {
        self.0.borrow().contains_key(id)
    }

    fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>> {
        self.0.borrow().get(id).map(|asset| asset.bytes.as_slice().into())
    }
}
