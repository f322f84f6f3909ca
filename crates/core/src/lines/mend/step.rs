//! The steps by which lines are mended.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::added::AddedLine;
use crate::lines::Meaning;

/// A step of mending.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "step")]
pub enum LineMend {
    /// Lines become what they are not by their layer and colour.
    Meaning {
        /// Which.
        lines: Vec<usize>,
        /// What they are.
        meaning: Meaning,
    },
    /// Lines are taken out.
    Delete {
        /// Which.
        lines: Vec<usize>,
    },
    /// A node goes elsewhere.
    Move {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
        /// Where it goes.
        to: [f64; 2],
    },
    /// The handle with which a curve leaves a node, or comes to it, goes elsewhere.
    Bend {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
        /// True for the one with which the curve leaves it.
        leaves: bool,
        /// Where it goes.
        to: [f64; 2],
    },
    /// A node is put in at a share of a segment.
    AddNode {
        /// Which.
        line: usize,
        /// Its segment.
        segment: usize,
        /// How far along it, 0 to 1.
        share: f64,
    },
    /// A node is taken out.
    DropNode {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
    },
    /// A node becomes a corner.
    Corner {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
    },
    /// A node becomes smooth.
    Smooth {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
    },
    /// A line is parted at a node.
    Split {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
    },
    /// The ends of a line, or of two lines, are joined.
    Join {
        /// Which.
        line: usize,
        /// The other line; none closes it.
        with: Option<usize>,
    },
    /// A segment runs straight.
    Straighten {
        /// Which.
        line: usize,
        /// Its segment.
        segment: usize,
    },
    /// A corner is rounded.
    Round {
        /// Which.
        line: usize,
        /// Its node.
        node: usize,
        /// How large the arc is.
        radius: f64,
    },
    /// The part of a line at a place goes, as far as another line.
    Trim {
        /// Which.
        line: usize,
        /// A place on the part that goes.
        at: [f64; 2],
        /// The line at which it ends.
        to: usize,
    },
    /// Lines have fewer nodes, and stray no farther than so much.
    Simplify {
        /// Which.
        lines: Vec<usize>,
        /// How far they may stray.
        within: f64,
    },
    /// A stroke becomes its outline.
    Outline {
        /// Which.
        lines: Vec<usize>,
        /// How wide the stroke is.
        width: f64,
    },
    /// Closed lines become the outline of all that they enclose.
    Unite {
        /// Which.
        lines: Vec<usize>,
        /// The others.
        with: Vec<usize>,
    },
    /// What the second lines enclose is taken away from what the first do.
    Subtract {
        /// What is kept.
        lines: Vec<usize>,
        /// What is taken away from it.
        with: Vec<usize>,
    },
    /// What both enclose.
    Intersect {
        /// Which.
        lines: Vec<usize>,
        /// The others.
        with: Vec<usize>,
    },
    /// Closed lines of a row become the outline of all that they enclose, without what lies inside.
    Silhouette {
        /// The row, as a line key knows it.
        row: String,
    },
    /// A line more.
    Add {
        /// What is added.
        figure: AddedLine,
        /// What it is.
        meaning: Meaning,
    },
}
