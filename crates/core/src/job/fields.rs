//! Setting fields of a job by their dotted paths, as checks and remedies name them: a segment is a field's name,
//! or the id of one of a list's members, as in `pieces.p1.form.length`; of members without ids, the place.

use serde_json::Value;
use thiserror::Error;

use super::Job;
use crate::error::{Change, Setting};

/// Why a field cannot be set.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum FieldError {
    /// No such field, or no member of that id.
    #[error("the job has no field “{0}”")]
    Unknown(String),
    /// A value that the field cannot hold.
    #[error("“{field}” cannot be set so: {why}")]
    Unfit {
        /// The field.
        field: String,
        /// What is wrong with the value.
        why: String,
    },
}

/// The job with one field set.
///
/// # Errors
/// [`FieldError`] for a path that leads nowhere and a value of the wrong kind.
pub fn with_field(job: &Job, field: &str, value: Value) -> Result<Job, FieldError> {
    with_values(job, std::iter::once((field, value)))
}

/// Sets all before the whole is read, since one may need the other.
fn with_values<'a>(
    job: &Job,
    values: impl Iterator<Item = (&'a str, Value)>,
) -> Result<Job, FieldError> {
    let short = |field: &str| -> String { field.chars().take(80).collect() };
    let mut last = String::new();
    let unfit = |field: &str, error: serde_json::Error| FieldError::Unfit {
        field: field.to_owned(),
        why: error.to_string(),
    };
    let mut whole = serde_json::to_value(job).map_err(|error| unfit("", error))?;
    for (field, value) in values {
        last = short(field);
        let place = field.split('.').try_fold(&mut whole, |inside, name| step(inside, name));
        *place.ok_or_else(|| FieldError::Unknown(short(field)))? = value;
    }
    serde_json::from_value(whole).map_err(|error| unfit(&last, error))
}

/// The job with several fields set.
///
/// # Errors
/// As [`with_field`].
pub fn with_changes(job: &Job, changes: &[Change]) -> Result<Job, FieldError> {
    let values = changes.iter();
    with_values(job, values.map(|change| (change.field.as_str(), value(&change.value))))
}

/// A field of an object, made where it is not there yet, or the member of a list that has that id.
fn step<'a>(inside: &'a mut Value, name: &str) -> Option<&'a mut Value> {
    match inside {
        Value::Array(members) => {
            let known = |member: &Value| member.get("id").is_some_and(|id| id == name);
            let at = members.iter().position(known).or_else(|| name.parse().ok())?;
            members.get_mut(at)
        }
        Value::Object(fields) => Some(fields.entry(name).or_insert(Value::Null)),
        Value::Null => {
            *inside = Value::Object(serde_json::Map::new());
            step(inside, name)
        }
        _ => None,
    }
}

#[expect(clippy::cast_possible_truncation, reason = "whole, and within 2⁵³")]
fn value(setting: &Setting) -> Value {
    match setting {
        // A count is written without a point.
        Setting::Number(number) if number.fract() == 0.0 && number.abs() < 9e15 => {
            (*number as i64).into()
        }
        Setting::Number(number) => (*number).into(),
        Setting::Text(text) => text.as_str().into(),
        Setting::Standard => Value::Null,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Form;
    use crate::job::JobPiece;
    use crate::sheet::SheetPlan;
    use crate::units::Unit;

    fn job() -> Job {
        let piece = |id: &str| JobPiece::new(id, Form::new("tag", &[("width", 40.0)]), "card");
        Job {
            name: "Two tags".into(),
            unit: Unit::Mm,
            pieces: vec![piece("p1"), piece("p2")],
            sheet: SheetPlan::default(),
        }
    }

    #[test]
    fn a_path_leads_by_names_and_by_ids() {
        let changes = [
            Change::new("pieces.p2.form.width", 55.5),
            Change::new("pieces.p2.copies", 12.0),
            Change::new("sheet.turning", "free"),
            Change::new("pieces.p1.form.width", Setting::Standard),
        ];
        let changed = with_changes(&job(), &changes).unwrap();
        assert_eq!(changed.pieces[1].form.figures["width"], Some(55.5));
        assert_eq!((changed.pieces[0].copies, changed.pieces[1].copies), (1, 12));
        assert_eq!(changed.pieces[0].form.figures["width"], None);
        assert_eq!(changed.sheet.turning, crate::sheet::Turning::Free);
    }

    #[test]
    fn what_leads_nowhere_and_what_does_not_fit_is_said() {
        let set = |field: &str, value: Value| with_field(&job(), field, value);
        assert_eq!(
            set("pieces.p9.copies", 3.into()),
            Err(FieldError::Unknown("pieces.p9.copies".into()))
        );
        assert!(matches!(set("pieces.p1.copies", "many".into()), Err(FieldError::Unfit { .. })));
        assert!(matches!(set("name.first", "x".into()), Err(FieldError::Unknown(_))));
    }
}
