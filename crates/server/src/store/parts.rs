//! Large revisions in parts: what two revisions have in common is kept once.
//!
//! A job with thousands of copies laid by hand is half a megabyte of JSON, of which a move changes a line. Its text
//! is cut where its content says, so that a change moves the cuts near it and no others, and each part is kept as a
//! blob.

use std::io::{Read, Write};

use aptum_core::blob::BlobId;
use aptum_formats::archive::{LARGEST_JOB, blob_id};
use diesel::prelude::*;
use flate2::Compression;
use flate2::read::ZlibDecoder;
use flate2::write::ZlibEncoder;

use super::StoreError;
use super::schema::blobs;

/// Text up to this length stays whole, bytes.
const WHOLE: usize = 24 << 10;

/// The shortest part, bytes.
const SHORTEST: usize = 2 << 10;

/// The longest part, bytes.
pub const LONGEST: usize = 32 << 10;

/// A cut comes after one in so many closing braces, where the bytes before it say so.
const ONE_IN: u32 = 96;

/// So many bytes before a place decide whether it is a cut.
const SEEN: usize = 40;

/// What the text of a revision in parts begins with; no JSON does.
const MARK: &str = "parts\n";

/// The media type of parts.
pub(super) const MEDIA: &str = "application/x-part";

/// The text to store for a revision, and the parts that it names.
pub(super) fn keep(
    connection: &mut SqliteConnection,
    text: String,
) -> Result<(String, Vec<BlobId>), StoreError> {
    if text.len() <= WHOLE {
        return Ok((text, Vec::new()));
    }
    let mut ids = Vec::new();
    for part in split(&text) {
        let id = blob_id(part.as_bytes());
        let mut packer = ZlibEncoder::new(Vec::new(), Compression::default());
        let packed = packer.write_all(part.as_bytes()).and_then(|()| packer.finish());
        let packed = packed.map_err(|error| StoreError::Database(error.to_string()))?;
        diesel::insert_or_ignore_into(blobs::table)
            .values((
                blobs::id.eq(&id.0),
                blobs::media.eq(MEDIA),
                blobs::width.eq(0),
                blobs::height.eq(0),
                blobs::body.eq(packed),
            ))
            .execute(connection)?;
        ids.push(id);
    }
    let named: Vec<&str> = ids.iter().map(|id| id.0.as_str()).collect();
    Ok((format!("{MARK}{}", named.join("\n")), ids))
}

/// The whole text of what is stored for a revision.
pub(super) fn whole(
    connection: &mut SqliteConnection,
    stored: String,
) -> Result<String, StoreError> {
    let Some(named) = stored.strip_prefix(MARK) else { return Ok(stored) };
    let mut text = String::new();
    for id in named.split('\n') {
        let packed: Option<Vec<u8>> = blobs::table
            .filter(blobs::id.eq(id).and(blobs::media.eq(MEDIA)))
            .select(blobs::body)
            .first(connection)
            .optional()?;
        let unreadable =
            |why: String| StoreError::Unreadable { what: "a part of a job".into(), why };
        let packed = packed.ok_or_else(|| unreadable(format!("part {id} is missing")))?;
        let mut unpacked = ZlibDecoder::new(packed.as_slice()).take(LARGEST_JOB);
        unpacked.read_to_string(&mut text).map_err(|error| unreadable(error.to_string()))?;
    }
    Ok(text)
}

/// The parts of a text, in order.
#[must_use]
pub fn split(text: &str) -> Vec<&str> {
    let bytes = text.as_bytes();
    let (mut parts, mut from) = (Vec::new(), 0);
    for at in 1..bytes.len() {
        let long = at - from;
        let is_cut = long >= SHORTEST && bytes[at - 1] == b'}' && says_so(&bytes[..at]);
        if (is_cut || long >= LONGEST) && text.is_char_boundary(at) {
            parts.push(&text[from..at]);
            from = at;
        }
    }
    parts.push(&text[from..]);
    parts
}

fn says_so(before: &[u8]) -> bool {
    let seen = &before[before.len().saturating_sub(SEEN)..];
    // FNV-1a, 32 bits.
    let hash = seen
        .iter()
        .fold(0x811c_9dc5_u32, |hash, byte| (hash ^ u32::from(*byte)).wrapping_mul(0x0100_0193));
    hash % ONE_IN == 0
}
