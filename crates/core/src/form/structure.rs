//! What a structure is: a name, its figures, and a definition that turns them into panels.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::design::Design;
use super::figures::Figures;
use super::param::{Kind, Param};

/// Where a structure stands in the catalogue.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Family {
    /// Tubes with closures.
    Cartons,
    /// Open boxes and what goes over them.
    TraysAndLids,
    /// What slides or goes round.
    SleevesAndWraps,
    /// Nets of solids.
    Solids,
    /// Flat packets, and what stands or hangs.
    PacketsAndStands,
    /// Hang tags.
    Tags,
    /// Labels and stickers.
    Labels,
    /// For books.
    Bookmarks,
    /// Index tabs, flags and folders.
    Tabs,
}

impl Family {
    /// The trade's name for the family.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Cartons => "Cartons",
            Self::TraysAndLids => "Trays and lids",
            Self::SleevesAndWraps => "Sleeves and wraps",
            Self::Solids => "Solids",
            Self::PacketsAndStands => "Packets and stands",
            Self::Tags => "Tags",
            Self::Labels => "Labels and stickers",
            Self::Bookmarks => "Bookmarks",
            Self::Tabs => "Tabs",
        }
    }
}

/// An ordinary size.
pub struct Preset {
    /// What it is for.
    pub name: &'static str,
    /// Inside dimensions in mm and other figures; what is not named goes back to its default.
    pub figures: &'static [(&'static str, f64)],
}

/// One structure of the catalogue.
pub struct Structure {
    /// Its name in files, such as `straight-tuck`.
    pub id: &'static str,
    /// The trade's name.
    pub name: &'static str,
    /// Where it stands in the catalogue.
    pub family: Family,
    /// What it is for, in a sentence.
    pub about: &'static str,
    /// Words by which it is found besides its name.
    pub uses: &'static [&'static str],
    /// Its figures; each may depend on those before it.
    pub params: &'static [Param],
    /// Ordinary sizes.
    pub presets: &'static [Preset],
    /// The definition. Figures are within their bounds when it is called.
    pub design: fn(&Figures) -> Design,
}

impl Structure {
    /// The figure of that key.
    #[must_use]
    pub fn param(&self, key: &str) -> Option<&'static Param> {
        self.params.iter().find(|param| param.key == key)
    }

    /// True when inside, outside and crease-to-crease dimensions differ.
    #[must_use]
    pub fn has_basis(&self) -> bool {
        self.params.iter().any(|param| match param.kind {
            Kind::Size { crease, outside, .. } => crease != 0.0 || outside != 0.0,
            _ => false,
        })
    }
}
