//! How near a record is kept.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

/// Where a record stands in lists.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Keeping {
    /// Before the others.
    AtHand,
    /// Among the others.
    #[default]
    Kept,
    /// Not offered any more; jobs that use it go on using it.
    Retired,
}
