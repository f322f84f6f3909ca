//! A figure of the spec card: what it is, what it stands at and what it may be.

use std::ops::RangeInclusive;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::units::{Unit, format_length, measure};

/// How a figure is entered and shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum FigureKind {
    /// A finished dimension, a length.
    Size,
    /// Any other length.
    Length,
    /// Degrees.
    Angle,
    /// A whole number.
    Count,
}

/// A number the user can set.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Figure {
    /// Dotted path into the job, such as `form.length`.
    pub field: String,
    /// Its name on the spec card.
    pub label: String,
    /// What it measures, in a sentence.
    pub note: String,
    /// How it is entered.
    pub kind: FigureKind,
    /// The value in force: mm, degrees or a count.
    pub value: f64,
    /// The value as text, a length in the job's unit.
    pub text: String,
    /// What it stands at by itself.
    pub standard: f64,
    /// True when the user has set it, false while it follows the default.
    pub own: bool,
    /// Least and greatest value.
    pub range: [f64; 2],
    /// The range, and what it stands at by itself, as text.
    pub range_text: String,
}

impl Figure {
    /// A length with the values that it may have, and its name and note.
    pub(super) fn length(
        field: &str,
        value: f64,
        standard: f64,
        range: RangeInclusive<f64>,
        [label, note]: [&str; 2],
        unit: Unit,
    ) -> Self {
        let (least, most) = range.into_inner();
        let show = |mm: f64| measure(mm, unit);
        Self {
            field: field.to_owned(),
            label: label.to_owned(),
            note: note.to_owned(),
            kind: FigureKind::Length,
            value,
            text: format_length(value, unit),
            standard,
            own: (value - standard).abs() > 1e-12,
            range: [least, most],
            range_text: format!("{} to {}, by itself {}", show(least), show(most), show(standard)),
        }
    }
}
