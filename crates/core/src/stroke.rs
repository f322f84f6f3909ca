//! Strokes: the lines of a blank, each known by an id for as long as the piece has it.

use std::sync::Arc;

use kurbo::{Affine, BezPath, PathEl};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::id::StrokeId;
use crate::line::LineKind;

/// Lengths that are cut and that tie, in turn, mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Perforation {
    /// Length of each cut.
    pub cut: f64,
    /// Length of each tie.
    pub tie: f64,
}

impl Perforation {
    /// 3 mm cut, 1 mm tie: tears cleanly and holds in use (common practice).
    pub const STANDARD: Self = Self { cut: 3.0, tie: 1.0 };
}

/// What a stroke came from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum StrokeSource {
    /// The blank's edge.
    Edge,
    /// Between two panels: the one that hangs there, by name.
    Hinge(String),
    /// A panel's own, by the panel's name.
    Panel(String),
    /// The sides of two panels that lie against each other.
    Sides,
    /// What was added to a panel, by its place among the additions.
    AddOn(usize),
    /// Lines of a drawing from elsewhere: those of a layer and a colour, by what operations know them by.
    Drawn(Arc<str>),
}

impl StrokeSource {
    /// The lines of a drawing that it is of; `None` of anything else.
    #[must_use]
    pub const fn drawn(&self) -> Option<&Arc<str>> {
        match self {
            Self::Drawn(group) => Some(group),
            _ => None,
        }
    }
}

/// A line of a blank.
#[derive(Debug, Clone, PartialEq)]
pub struct Stroke {
    /// What it is known by among the blank's strokes. It stays when figures change.
    pub id: StrokeId,
    /// What happens along it.
    pub kind: LineKind,
    /// Where it runs, mm: exact, whatever the pattern.
    pub path: BezPath,
    /// How it is cut and tied in turn; `None` goes through from end to end. It becomes segments in the plan only.
    pub pattern: Option<Perforation>,
    /// How often the tool goes along it, 1 or more.
    pub times: u32,
    /// What it came from.
    pub source: StrokeSource,
}

impl Stroke {
    /// A stroke that is gone along once.
    #[must_use]
    pub fn new(
        id: impl Into<StrokeId>,
        kind: LineKind,
        path: BezPath,
        source: StrokeSource,
    ) -> Self {
        Self { id: id.into(), kind, path, pattern: None, times: 1, source }
    }

    /// The same, cut and tied in turn.
    #[must_use]
    pub const fn with_pattern(mut self, pattern: Perforation) -> Self {
        self.pattern = Some(pattern);
        self
    }

    /// The same, moved.
    #[must_use]
    pub fn moved(mut self, by: Affine) -> Self {
        self.path.apply_affine(by);
        self
    }

    /// True where it comes back to where it began.
    #[must_use]
    pub fn is_closed(&self) -> bool {
        self.path.elements().last() == Some(&PathEl::ClosePath)
    }
}
