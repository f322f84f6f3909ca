//! Dimensions as a drafter draws them.

use kurbo::Point;
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::units::{Unit, format_length};

/// Along which axis a dimension measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Axis {
    /// Left to right; the dimension line lies below the flat.
    Across,
    /// Top to bottom; the dimension line lies left of the flat.
    Along,
    /// Of folds: in every direction alike.
    Both,
}

/// A length with extension lines, arrows and a figure, in the flat's coordinates.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Dimension {
    /// The direction it measures in.
    pub axis: Axis,
    /// The two points measured, mm; extension lines start there.
    pub from: [f64; 2],
    /// See `from`.
    pub to: [f64; 2],
    /// 0 is nearest to the flat.
    pub tier: u8,
    /// The length in the job's unit.
    pub text: String,
    /// The job's field that moves it, if one does.
    pub field: Option<String>,
    /// True where it is drawn only while its field is in hand.
    pub is_quiet: bool,
}

impl Dimension {
    /// Between two points of the flat.
    #[must_use]
    pub fn new(axis: Axis, from: Point, to: Point, tier: u8, unit: Unit) -> Self {
        let length = match axis {
            Axis::Across => to.x - from.x,
            Axis::Along => to.y - from.y,
            Axis::Both => from.distance(to),
        };
        Self {
            axis,
            from: [from.x, from.y],
            to: [to.x, to.y],
            tier,
            text: format_length(length.abs(), unit),
            field: None,
            is_quiet: false,
        }
    }

    /// The same, tied to the field that moves it.
    #[must_use]
    pub fn of(mut self, field: &str) -> Self {
        self.field = Some(field.to_owned());
        self
    }
}
