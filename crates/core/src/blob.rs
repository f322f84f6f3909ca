//! Heavy bytes that jobs name by their content: pictures so far. Core knows what is in them and asks for it; where
//! they are kept is somebody else's affair.

use std::fmt;
use std::sync::Arc;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::{Faults, InputError, Remedy};

/// The SHA-256 of some bytes, as 64 hexadecimal digits.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(transparent)]
pub struct BlobId(pub String);

impl BlobId {
    /// True for 64 small hexadecimal digits.
    #[must_use]
    pub fn is_sound(&self) -> bool {
        self.0.len() == 64 && self.0.bytes().all(|b| matches!(b, b'0'..=b'9' | b'a'..=b'f'))
    }
}

impl fmt::Display for BlobId {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.write_str(&self.0)
    }
}

/// Where heavy bytes are found.
pub trait Blobs: Sync {
    /// True where they are there.
    fn holds(&self, id: &BlobId) -> bool;
    /// The bytes; `None` where they are missing.
    fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>>;
}

/// Nothing is kept.
#[derive(Debug, Clone, Copy)]
pub struct NoBlobs;

impl Blobs for NoBlobs {
    fn holds(&self, _: &BlobId) -> bool {
        false
    }

    fn bytes(&self, _: &BlobId) -> Option<Arc<[u8]>> {
        None
    }
}

/// What a maker notes about bytes that were brought in.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Origin {
    /// The name of the file.
    pub name: String,
    /// Where it is from.
    #[serde(default)]
    pub source: String,
    /// Under which licence it may be used.
    #[serde(default)]
    pub licence: String,
    /// A note of one's own.
    #[serde(default)]
    pub note: String,
}

/// Most characters of one entry of an origin.
const LONGEST: usize = 300;

impl Origin {
    pub(crate) fn validate(&self, field: &str, faults: &mut Faults) {
        let entries = [
            ("name", &self.name),
            ("source", &self.source),
            ("licence", &self.licence),
            ("note", &self.note),
        ];
        for (name, text) in entries {
            let length = text.chars().count();
            if length > LONGEST || text.chars().any(|c| c.is_control() && c != '\n') {
                faults.add(InputError::new(
                    &format!("{field}.{name}"),
                    format!(
                        "The picture’s {name} has {length} characters, or some that cannot be shown"
                    ),
                    f64::from(u32::try_from(length).unwrap_or(u32::MAX)),
                    Remedy::advice(format!("Use up to {LONGEST} characters")),
                ));
            }
        }
    }
}
