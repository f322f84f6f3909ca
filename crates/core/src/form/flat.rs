//! A piece laid flat.

use kurbo::{Affine, BezPath, Rect, Shape};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::{Axis, Dimension, Figure, Line, PlacedPanel, Unfolded};
use crate::check::Check;

/// Length, width and height in the three ways of measuring a box, mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, JsonSchema, TS)]
pub struct Sizes {
    /// The room inside.
    pub inside: [f64; 3],
    /// Between creases.
    pub crease: [f64; 3],
    /// Over everything.
    pub outside: [f64; 3],
}

/// A piece laid flat, seen from its printed side, its blank's top left corner at the origin.
#[derive(Debug, Clone)]
pub struct Flat {
    /// The blank: one closed cut.
    pub outline: BezPath,
    /// Creases, slits and everything else inside the blank.
    pub lines: Vec<Line>,
    /// The panels.
    pub panels: Vec<PlacedPanel>,
    /// The blank's bounds.
    pub bounds: Rect,
    /// Drafted dimensions.
    pub dimensions: Vec<Dimension>,
    /// The figures that made it.
    pub figures: Vec<Figure>,
    /// Its three sizes.
    pub sizes: Sizes,
    /// The way its main folds run, which should be the grain's.
    pub folds: Axis,
    /// Limits met in the form itself.
    pub checks: Vec<Check>,
}

impl Flat {
    /// From an unfolded tree, moved so that the blank starts at the origin. Dimensions, figures
    /// and checks are the structure's to add.
    #[must_use]
    pub fn from_tree(tree: Unfolded, sizes: Sizes) -> Self {
        let bounds = tree.outline.bounding_box();
        let shift = Affine::translate((-bounds.x0, -bounds.y0));
        Self {
            outline: shift * tree.outline,
            lines: tree
                .lines
                .into_iter()
                .map(|line| Line { kind: line.kind, path: shift * line.path })
                .collect(),
            panels: tree
                .panels
                .into_iter()
                .map(|panel| PlacedPanel { outline: shift * panel.outline, ..panel })
                .collect(),
            bounds: Rect::new(0.0, 0.0, bounds.width(), bounds.height()),
            dimensions: Vec::new(),
            figures: Vec::new(),
            sizes,
            folds: Axis::Along,
            checks: Vec::new(),
        }
    }

    /// The blank's area in mm².
    #[must_use]
    pub fn area(&self) -> f64 {
        self.outline.area().abs()
    }

    /// The panel of that name.
    #[must_use]
    pub fn panel(&self, name: &str) -> Option<&PlacedPanel> {
        self.panels.iter().find(|panel| panel.name == name)
    }
}
