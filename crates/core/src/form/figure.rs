//! A figure of the spec card: what it is, what it stands at and what it may be.

use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use crate::units::{Unit, format_length};

/// A length the user can set.
#[derive(Debug, Clone, PartialEq, Serialize, JsonSchema, TS)]
pub struct Figure {
    /// Dotted path into the job, such as `form.length`.
    pub field: String,
    /// Its name on the spec card.
    pub label: String,
    /// What it measures, in a sentence.
    pub note: String,
    /// The value in force, in mm.
    pub value: f64,
    /// The value as text in the job's unit.
    pub text: String,
    /// The trade's default in mm, where there is one.
    pub standard: Option<f64>,
    /// True when the user has set it, false while it follows the default.
    pub own: bool,
    /// Least and greatest value in mm.
    pub range: [f64; 2],
}

impl Figure {
    /// A figure the user always gives.
    #[must_use]
    pub fn given(
        (field, label, note): (&str, &str, &str),
        value: f64,
        range: [f64; 2],
        unit: Unit,
    ) -> Self {
        Self {
            field: field.to_owned(),
            label: label.to_owned(),
            note: note.to_owned(),
            value,
            text: format_length(value, unit),
            standard: None,
            own: true,
            range,
        }
    }

    /// A figure with a default that follows the others until the user sets it.
    #[must_use]
    pub fn with_standard(
        words: (&str, &str, &str),
        set: Option<f64>,
        standard: f64,
        range: [f64; 2],
        unit: Unit,
    ) -> Self {
        Self {
            standard: Some(standard),
            own: set.is_some(),
            ..Self::given(words, set.unwrap_or(standard), range, unit)
        }
    }
}
