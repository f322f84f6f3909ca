//! The kinds of line a dieline is made of.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

/// What happens along a line. Each line has exactly one kind.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum LineKind {
    /// Never printed, never cut: the page's frame and the like.
    Guide,
    /// Pressed, not cut; the panel folds away from the printed side.
    Crease,
    /// Pressed, not cut; the panel folds towards the printed side.
    ReverseCrease,
    /// Cut to part of the depth with a knife.
    Score,
    /// Cut through the face, not the liner.
    KissCut,
    /// Cut and tie in turn.
    Perforation,
    /// Cut through.
    Cut,
}

impl LineKind {
    /// Every kind in the order in which a machine works them: what presses first, what frees the
    /// piece last, since a freed piece moves.
    pub const IN_ORDER: [Self; 7] = [
        Self::Guide,
        Self::Crease,
        Self::ReverseCrease,
        Self::Score,
        Self::KissCut,
        Self::Perforation,
        Self::Cut,
    ];

    /// The kind's name in files and in the interface's classes.
    #[must_use]
    pub const fn id(self) -> &'static str {
        match self {
            Self::Guide => "guide",
            Self::Crease => "crease",
            Self::ReverseCrease => "reverse-crease",
            Self::Score => "score",
            Self::KissCut => "kiss-cut",
            Self::Perforation => "perforation",
            Self::Cut => "cut",
        }
    }

    /// The kind's name in running text.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::ReverseCrease => "reverse crease",
            Self::KissCut => "kiss cut",
            other => other.id(),
        }
    }

    /// The processing step's type of ISO 19593-1 (from memory). Several kinds share one; a guide
    /// has none.
    #[must_use]
    pub const fn processing_step(self) -> Option<&'static str> {
        match self {
            Self::Guide => None,
            Self::Crease => Some("Creasing"),
            Self::ReverseCrease => Some("ReverseCreasing"),
            Self::Score | Self::KissCut => Some("PartialCutting"),
            Self::Perforation => Some("Perforating"),
            Self::Cut => Some("Cutting"),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::LineKind;

    #[test]
    fn ids_are_what_json_carries_and_cuts_come_last() {
        for kind in LineKind::IN_ORDER {
            assert_eq!(serde_json::to_value(kind).unwrap(), kind.id());
        }
        assert_eq!(LineKind::IN_ORDER.last(), Some(&LineKind::Cut));
        assert!(LineKind::IN_ORDER.is_sorted());
    }
}
