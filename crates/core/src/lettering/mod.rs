//! Words as outlines: the typefaces of the shelf and the maker's own, one line of them, and whole blocks set.

mod line;
mod typeface;
mod typeset;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use line::{Anchor, letter, letter_into};
pub use typeface::{Font, FontBytes, OwnTypeface, SHELF, Typeface};
pub(crate) use typeset::{Block, Copy, set};

/// How lines stand to each other.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Align {
    /// Their left ends below each other.
    Left,
    /// Their middles.
    #[default]
    Centre,
    /// Their right ends.
    Right,
}
