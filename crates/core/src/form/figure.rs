//! A figure of the spec card: what it is, what it stands at and what it may be.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

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
