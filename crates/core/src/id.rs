//! What things are known by for as long as they are there, whatever their place in a list.

use std::fmt;
use std::sync::Arc;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

/// 1 to 24 small letters, digits and hyphens: it can stand in the path of a field and in the name of a file.
fn is_sound(id: &str) -> bool {
    let plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-';
    (1..=24).contains(&id.len()) && id.chars().all(plain)
}

macro_rules! ids {
    ($($(#[$doc:meta])* $name:ident;)*) => {$(
        $(#[$doc])*
        #[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
        #[cfg_attr(feature = "api", derive(JsonSchema, TS))]
        #[serde(transparent)]
        pub struct $name(pub String);

        impl $name {
            /// True for 1 to 24 small letters, digits and hyphens.
            #[must_use]
            pub fn is_sound(&self) -> bool {
                is_sound(&self.0)
            }

            /// So much of it as a message can hold.
            #[must_use]
            pub fn shown(&self) -> String {
                self.0.chars().take(40).collect()
            }
        }

        impl From<String> for $name {
            fn from(id: String) -> Self {
                Self(id)
            }
        }

        impl From<&str> for $name {
            fn from(id: &str) -> Self {
                Self(id.to_owned())
            }
        }

        impl fmt::Display for $name {
            fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
                out.write_str(&self.0)
            }
        }
    )*};
}

impl PartId {
    /// The id of a blank of that name.
    #[must_use]
    pub fn of_name(name: &str) -> Self {
        Self(plain(name))
    }
}

/// Small letters, digits and single hyphens.
#[must_use]
pub fn plain(name: &str) -> String {
    slug::slugify(name)
}

/// A stroke of a blank, such as `hinge-dust-flap`. A plan names it for every copy, so it is shared.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct StrokeId(Arc<str>);

impl StrokeId {
    /// What a blank's own outline is known by.
    pub const EDGE: &'static str = "edge";

    /// True for a blank's own outline.
    #[must_use]
    pub fn is_edge(&self) -> bool {
        &*self.0 == Self::EDGE
    }
}

impl<T: Into<Arc<str>>> From<T> for StrokeId {
    fn from(id: T) -> Self {
        Self(id.into())
    }
}

impl fmt::Display for StrokeId {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.write_str(&self.0)
    }
}

ids! {
    /// A piece of a job, such as `p1`.
    PieceId;
    /// A blank of a piece, such as `lid`.
    PartId;
    /// A layer of a piece's face, such as `l1`.
    LayerId;
}
