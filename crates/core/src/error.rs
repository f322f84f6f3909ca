//! A figure that cannot be worked with: which field, what is wrong, and what to do about it.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use thiserror::Error;
#[cfg(feature = "api")]
use ts_rs::TS;

/// A value to put into a job's field.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(untagged)]
pub enum Setting {
    /// A length in mm, an angle in degrees or a count.
    Number(f64),
    /// On or off.
    Switch(bool),
    /// A choice, or a record's id.
    Text(String),
    /// Back to the trade's default.
    Standard,
}

impl From<f64> for Setting {
    fn from(value: f64) -> Self {
        Self::Number(value)
    }
}

impl From<bool> for Setting {
    fn from(value: bool) -> Self {
        Self::Switch(value)
    }
}

impl From<&str> for Setting {
    fn from(value: &str) -> Self {
        Self::Text(value.to_owned())
    }
}

/// One field to change: a dotted path into the job's JSON, and the value to put there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Change {
    /// Such as `pieces.p1.form.length` or `sheet.orientation`.
    pub field: String,
    /// What to put there.
    pub value: Setting,
}

impl Change {
    /// A change of one field.
    #[must_use]
    pub fn new(field: &str, value: impl Into<Setting>) -> Self {
        Self { field: field.to_owned(), value: value.into() }
    }

    /// The same of a field of a part of the job.
    #[must_use]
    pub fn below(mut self, path: &str) -> Self {
        // The sheet is the whole job’s, and what names its piece is told apart already.
        if !["sheet.", "pieces."].iter().any(|own| self.field.starts_with(own)) {
            self.field.insert_str(0, path);
        }
        self
    }
}

/// A way out: words, and the changes that carry it out. Without changes it is advice.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Remedy {
    /// What to do, with the number.
    pub text: String,
    /// What to set; empty where only the user can act.
    pub changes: Vec<Change>,
}

impl Remedy {
    /// A remedy that one button can carry out.
    #[must_use]
    pub fn set(text: impl Into<String>, field: &str, value: impl Into<Setting>) -> Self {
        Self { text: text.into(), changes: vec![Change::new(field, value)] }
    }

    /// The same for fields that lie further down, below `path`.
    #[must_use]
    pub fn below(mut self, path: &str) -> Self {
        self.changes = self.changes.into_iter().map(|change| change.below(path)).collect();
        self
    }

    /// A remedy that takes a person.
    #[must_use]
    pub fn advice(text: impl Into<String>) -> Self {
        Self { text: text.into(), changes: Vec::new() }
    }
}

/// A figure, choice or reference that cannot be worked with.
#[derive(Debug, Clone, PartialEq, Error, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[error("{message}")]
pub struct InputError {
    /// The dotted path of the field, such as `pieces.p1.form.length`.
    pub field: String,
    /// What is wrong, with the number.
    pub message: String,
    /// The number that is wrong (mm, degrees or a count), where there is one and it is finite.
    pub number: Option<f64>,
    /// The way out.
    pub remedy: Remedy,
}

impl InputError {
    /// An error at `field`.
    #[must_use]
    pub fn new(field: &str, message: impl Into<String>, number: f64, remedy: Remedy) -> Self {
        Self {
            field: field.to_owned(),
            message: message.into(),
            number: number.is_finite().then_some(number),
            remedy,
        }
    }

    /// The same for a field that lies further down, below `path`.
    #[must_use]
    pub fn below(mut self, path: &str) -> Self {
        self.field.insert_str(0, path);
        self.remedy = self.remedy.below(path);
        self
    }

    /// An error about something that has no number.
    #[must_use]
    pub fn plain(field: &str, message: impl Into<String>, remedy: Remedy) -> Self {
        Self { field: field.to_owned(), message: message.into(), number: None, remedy }
    }
}

/// Gathers what is wrong, so that everything is said at once.
#[derive(Debug, Default)]
pub struct Faults(Vec<InputError>);

impl Faults {
    /// Notes an error.
    pub fn add(&mut self, error: InputError) {
        self.0.push(error);
    }

    /// Notes an error unless `value` lies in `range` (NaN lies in none); `measure` writes the
    /// value for people, and `name` starts the sentence.
    pub fn range(
        &mut self,
        field: &str,
        name: &str,
        value: f64,
        range: std::ops::RangeInclusive<f64>,
        measure: impl Fn(f64) -> String,
    ) {
        if range.contains(&value) {
            return;
        }
        let (lowest, highest) = (*range.start(), *range.end());
        let nearest = if value > highest { highest } else { lowest };
        let shown = if value.is_finite() { measure(value) } else { "not a number".to_owned() };
        self.add(InputError::new(
            field,
            format!(
                "{name} is {shown}: it must lie between {} and {}",
                measure(lowest),
                measure(highest)
            ),
            value,
            Remedy::set(format!("Set it to {}", measure(nearest)), field, nearest),
        ));
    }

    /// The errors so far, or the value.
    ///
    /// # Errors
    /// Everything that was noted, if anything was.
    pub fn or<T>(self, value: T) -> Result<T, Vec<InputError>> {
        if self.0.is_empty() { Ok(value) } else { Err(self.0) }
    }

    /// Notes the errors of a part and hands on its value.
    pub fn take<T>(&mut self, result: Result<T, Vec<InputError>>) -> Option<T> {
        match result {
            Ok(value) => Some(value),
            Err(errors) => {
                self.0.extend(errors);
                None
            }
        }
    }

    /// How many there are so far.
    #[must_use]
    pub const fn count(&self) -> usize {
        self.0.len()
    }

    /// True while nothing is wrong.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }
}
