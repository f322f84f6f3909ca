//! A blank as layouts see it: its outline, and what is printed on it.

use crate::geometry::{BezPath, Outline, Region};

/// What is laid out: an outline that must lie in the cut window, and printed areas that must lie
/// in the print window.
#[derive(Debug, Clone)]
pub struct Piece {
    outline: Outline,
    printed: Vec<Outline>,
}

impl Piece {
    /// A piece from its closed contours and its printed area, if any; `None` without an outline.
    #[must_use]
    pub fn new(outline: &BezPath, printed: &Region) -> Option<Self> {
        Some(Self { outline: Outline::around(outline)?, printed: Outline::of_region(printed) })
    }

    /// The outline as it was drawn.
    #[must_use]
    pub const fn outline(&self) -> &Outline {
        &self.outline
    }

    /// What is printed, as it was drawn.
    #[must_use]
    pub fn printed(&self) -> &[Outline] {
        &self.printed
    }
}
