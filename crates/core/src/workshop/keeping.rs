//! How near a record is kept.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

/// Where a record stands in lists, in their order.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
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

impl Keeping {
    /// True when it is offered for new work.
    #[must_use]
    pub const fn is_offered(self) -> bool {
        !matches!(self, Self::Retired)
    }
}
