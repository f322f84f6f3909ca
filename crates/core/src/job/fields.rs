//! Setting fields of a job by their dotted paths, as checks and remedies name them: a segment is a field's name,
//! or the id of one of a list's members, as in `pieces.p1.form.length`; of members without ids, the place.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use thiserror::Error;
#[cfg(feature = "api")]
use ts_rs::TS;

use super::Job;
use crate::error::{Change, Setting};

/// Why a field cannot be set.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum FieldError {
    /// No such field, or no member of that id.
    #[error("the job has no field “{0}”: open the job again, it may have changed meanwhile")]
    Unknown(String),
    /// More changes than are made at a time.
    #[error("{0} changes at once: make up to 1000 at a time")]
    TooMany(usize),
    /// A value that the field cannot hold.
    #[error(
        "“{field}” cannot be set so: {why}. Give it a value of its kind, as the job that is open has it"
    )]
    Unfit {
        /// The field.
        field: String,
        /// What is wrong with the value.
        why: String,
    },
}

/// What is done to a field.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Doing {
    /// It becomes the value; `null` goes back to the trade's default.
    #[default]
    Set,
    /// The value comes to the end of the list, with a free id where its members have ids and it has none.
    Add,
    /// It is taken out of its list, or from among what is kept by names.
    Remove,
    /// It moves so many places on in its list, or back.
    Move,
}

/// A change of one field of a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct FieldChange {
    /// Its dotted path.
    pub field: String,
    /// What is done to it.
    #[serde(default)]
    #[cfg_attr(feature = "api", ts(optional = nullable))]
    pub doing: Option<Doing>,
    /// With what.
    #[serde(default)]
    #[cfg_attr(feature = "api", ts(type = "unknown", optional = nullable))]
    pub value: Value,
}

impl FieldChange {
    /// Sets a field.
    #[must_use]
    pub fn set(field: &str, value: impl Into<Value>) -> Self {
        Self { field: field.to_owned(), doing: None, value: value.into() }
    }
}

impl From<&Change> for FieldChange {
    fn from(change: &Change) -> Self {
        Self::set(&change.field, value(&change.value))
    }
}

/// Most changes at a time.
pub const MOST_CHANGES: usize = 1000;

/// The job with these changes made, one after the other; the whole is read when all are, since one may need the
/// other.
///
/// # Errors
/// [`FieldError`] for a path that leads nowhere and a value of the wrong kind.
pub fn with_edits(job: &Job, changes: &[FieldChange]) -> Result<Job, FieldError> {
    if changes.len() > MOST_CHANGES {
        return Err(FieldError::TooMany(changes.len()));
    }
    let short = |field: &str| -> String { field.chars().take(80).collect() };
    let unfit = |field: &str, error: serde_json::Error| FieldError::Unfit {
        field: field.to_owned(),
        why: error.to_string(),
    };
    let mut whole = serde_json::to_value(job).map_err(|error| unfit("", error))?;
    let mut last = String::new();
    // What was not written before, since it was at its default or is no field at all.
    let mut new: Vec<Vec<&str>> = Vec::new();
    for change in changes {
        last = short(&change.field);
        let nowhere = || FieldError::Unknown(short(&change.field));
        let mut path: Vec<&str> = change.field.split('.').collect();
        match change.doing.unwrap_or_default() {
            Doing::Set => {
                let value = match &change.value {
                    // What a client writes as 30.0 may be a count.
                    Value::Number(own) if own.is_f64() => own.as_f64().map_or(Value::Null, number),
                    other => other.clone(),
                };
                if !value.is_null() && there(&whole, &path).is_none() {
                    new.push(path.clone());
                }
                *walk(&mut whole, &path).ok_or_else(nowhere)? = value;
            }
            Doing::Add => {
                let list = walk(&mut whole, &path).ok_or_else(nowhere)?;
                if list.is_null() {
                    *list = Value::Array(Vec::new());
                }
                let members = list.as_array_mut().ok_or_else(nowhere)?;
                let member = with_id(change.value.clone(), members, path.last());
                members.push(member);
            }
            Doing::Remove | Doing::Move => {
                let name = path.pop().unwrap_or_default();
                let mut list = walk(&mut whole, &path);
                if let (Some(Value::Object(named)), Some(Doing::Remove)) = (&mut list, change.doing)
                {
                    named.remove(name).ok_or_else(nowhere)?;
                    continue;
                }
                let members = list.and_then(Value::as_array_mut).ok_or_else(nowhere)?;
                let at = place(members, name).filter(|at| *at < members.len());
                let at = at.ok_or_else(nowhere)?;
                let member = members.remove(at);
                if change.doing == Some(Doing::Move) {
                    let by = change.value.as_i64().unwrap_or(0).clamp(-1000, 1000);
                    let to = i64::try_from(at).unwrap_or(0) + by;
                    members.insert(usize::try_from(to).unwrap_or(0).min(members.len()), member);
                }
            }
        }
    }
    let mut job: Job = Job::deserialize(&whole).map_err(|error| unfit(&last, error))?;
    if !new.is_empty() {
        let read = serde_json::to_value(&job).map_err(|error| unfit("", error))?;
        if let Some(none) = new.iter().find(|path| is_read_by_none(path, &whole, &read)) {
            return Err(FieldError::Unknown(short(&none.join("."))));
        }
    }
    // No card holds what is there no more.
    for change in changes.iter().filter(|change| change.doing == Some(Doing::Remove)) {
        let Some(gone) = change.field.strip_prefix("pieces.") else { continue };
        for card in job.pieces.iter_mut().filter_map(|piece| piece.form.gathered_mut()) {
            card.let_go(gone);
        }
    }
    Ok(job)
}

/// The job with one field set.
///
/// # Errors
/// As [`with_edits`].
pub fn with_field(job: &Job, field: &str, value: Value) -> Result<Job, FieldError> {
    with_edits(job, &[FieldChange::set(field, value)])
}

/// The job with the changes that a remedy names.
///
/// # Errors
/// As [`with_edits`].
pub fn with_changes(job: &Job, changes: &[Change]) -> Result<Job, FieldError> {
    let changes: Vec<FieldChange> = changes.iter().map(Into::into).collect();
    with_edits(job, &changes)
}

/// What is written at that path.
fn there<'a>(whole: &'a Value, path: &[&str]) -> Option<&'a Value> {
    path.iter().try_fold(whole, |inside, name| match inside {
        Value::Array(members) => members.get(place(members, name)?),
        other => other.get(name),
    })
}

/// Whether no field reads what is set at a path: it is not there in the job as it was read, and would be taken whatever
/// it is. What is at its default is not there either, but takes only what is of its kind.
fn is_read_by_none(path: &[&str], whole: &Value, read: &Value) -> bool {
    if there(read, path).is_some() {
        return false;
    }
    let mut probed = whole.clone();
    let Some(field) = walk(&mut probed, path) else { return false };
    *field = json!({ "of no kind": [null] });
    Job::deserialize(probed).is_ok()
}

fn walk<'a>(whole: &'a mut Value, path: &[&str]) -> Option<&'a mut Value> {
    path.iter().try_fold(whole, |inside, name| step(inside, name))
}

/// Where in a list the member of that id is, or the id itself in a list of ids; of members without ids, the place.
fn place(members: &[Value], name: &str) -> Option<usize> {
    let known = |member: &Value| member.get("id").is_some_and(|id| id == name);
    let named = members.iter().position(known);
    // Words that are numbers, as cells of a row may be, are never taken for ids.
    named.or_else(|| name.parse().ok()).or_else(|| members.iter().position(|own| own == name))
}

/// A new member with an id such as `l3` that none has yet, in a list whose members have ids.
fn with_id(mut member: Value, members: &[Value], list: Option<&&str>) -> Value {
    // Members of these two lists are known by ids; what is added elsewhere by its place.
    let letter = match list {
        Some(&"pieces") => 'p',
        Some(&"layers") => 'l',
        _ => return member,
    };
    if let Some(fields) = member.as_object_mut()
        && fields.get("id").is_none_or(Value::is_null)
    {
        let taken = |id: &String| members.iter().any(|member| member.get("id") == Some(&json!(id)));
        let free = (members.len() + 1..).map(|number| format!("{letter}{number}"));
        let id = free.take(members.len() + 1).find(|id| !taken(id));
        fields.insert("id".to_owned(), json!(id));
    }
    member
}

/// A field of an object, made where it is not there yet, or the member of a list that has that id.
fn step<'a>(inside: &'a mut Value, name: &str) -> Option<&'a mut Value> {
    match inside {
        Value::Array(members) => {
            let at = place(members, name)?;
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

/// A number as counts are written, without a point, where it is whole.
#[expect(clippy::cast_possible_truncation, reason = "whole, and within 2⁵³")]
fn number(number: f64) -> Value {
    let is_whole = number.fract() == 0.0 && number.abs() < 9e15;
    if is_whole { (number as i64).into() } else { number.into() }
}

fn value(setting: &Setting) -> Value {
    match setting {
        Setting::Number(own) => number(*own),
        Setting::Switch(is_on) => (*is_on).into(),
        Setting::Text(text) => text.as_str().into(),
        Setting::Standard => Value::Null,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Form;
    use crate::id::PieceId;
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
            tooling: crate::job::Tooling::default(),
        }
    }

    /// A list of ids is changed by one of them at a time, so that two who change it at once lose nothing.
    #[test]
    fn an_id_is_taken_out_of_a_list_of_ids() {
        let list = ["l1", "l2", "7"].map(|own| json!(own));
        assert_eq!(
            ["l2", "2", "7", "l9"].map(|name| place(&list, name)),
            [Some(1), Some(2), Some(7), None]
        );
        let layers = [json!({ "id": "l2" }), json!({ "id": "l1" })];
        assert_eq!(place(&layers, "l1"), Some(1));
        // An id of digits alone is an id before it is a place.
        let digits = [json!({ "id": "7" }), json!({ "id": "0" })];
        assert_eq!(place(&digits, "0"), Some(1));
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
        let width = |at: usize| changed.pieces[at].form.chosen().unwrap().figures["width"];
        assert_eq!(width(1), Some(55.5));
        assert_eq!((changed.pieces[0].copies, changed.pieces[1].copies), (1, 12));
        assert_eq!(width(0), None);
        assert_eq!(changed.sheet.turning, crate::sheet::Turning::Free);
    }

    #[test]
    fn members_come_go_and_move() {
        let change = |field: &str, doing: Doing, value: Value| FieldChange {
            doing: Some(doing),
            ..FieldChange::set(field, value)
        };
        let tag = json!({ "form": { "structure": "tag", "basis": "inside" }, "stock": "card", "face": null, "copies": 4 });
        let changes = [
            change("pieces", Doing::Add, tag.clone()),
            change("pieces.p1", Doing::Remove, Value::Null),
            change("pieces", Doing::Add, tag),
            change("pieces.p3", Doing::Move, (-1).into()),
            FieldChange::set("pieces.p4.copies", 9.0),
        ];
        let changed = with_edits(&job(), &changes).unwrap();
        let ids: Vec<&str> = changed.pieces.iter().map(|piece| piece.id.0.as_str()).collect();
        assert_eq!(ids, ["p3", "p2", "p4"], "an id that is taken is not given again");
        assert_eq!((changed.pieces[0].copies, changed.pieces[2].copies), (4, 9));
        for (field, doing) in
            [("pieces.p9", Doing::Remove), ("name", Doing::Add), ("name", Doing::Move)]
        {
            let refused = with_edits(&job(), &[change(field, doing, Value::Null)]);
            assert_eq!(refused, Err(FieldError::Unknown(field.into())));
        }
        let many = vec![FieldChange::set("name", "x"); MOST_CHANGES + 1];
        assert_eq!(with_edits(&job(), &many), Err(FieldError::TooMany(MOST_CHANGES + 1)));
    }

    #[test]
    fn what_is_kept_by_names_is_said_and_taken_back_alone() {
        let take = |field: &str| FieldChange {
            doing: Some(Doing::Remove),
            ..FieldChange::set(field, Value::Null)
        };
        let said = [
            FieldChange::set("tooling.operations.cut.passes", 3),
            FieldChange::set("tooling.operations.cut@edge", json!({})),
            FieldChange::set("tooling.operations.cut.speed", 40.0),
        ];
        let changed = with_edits(&job(), &said).unwrap();
        let split = changed.tooling.operations.keys().map(|id| id.0.as_str());
        assert_eq!(split.collect::<Vec<_>>(), ["cut", "cut@edge"]);
        let joined = with_edits(&changed, &[take("tooling.operations.cut@edge")]).unwrap();
        let (id, say) = joined.tooling.operations.iter().next().unwrap();
        assert_eq!((joined.tooling.operations.len(), id.0.as_str()), (1, "cut"));
        assert_eq!((say.passes, say.speed), (Some(3), Some(40.0)));
        let again = with_edits(&joined, &[take("tooling.operations.cut@edge")]);
        assert_eq!(again, Err(FieldError::Unknown("tooling.operations.cut@edge".into())));
        assert!(matches!(with_edits(&job(), &[take("name")]), Err(FieldError::Unfit { .. })));
    }

    #[test]
    fn a_piece_that_is_removed_lies_on_no_card() {
        let members = json!([{ "piece": "p1", "count": 2 }, { "piece": "p2", "count": 3 }]);
        let places = json!([{ "piece": "p1", "x": 1.0, "y": 2.0, "turn": 0.0 }]);
        let form = json!({ "gathered": { "members": members, "places": places } });
        let card = json!({ "form": form, "stock": "card", "face": null, "copies": 1 });
        let add = FieldChange { doing: Some(Doing::Add), ..FieldChange::set("pieces", card) };
        let remove =
            FieldChange { doing: Some(Doing::Remove), ..FieldChange::set("pieces.p1", ()) };
        let changed = with_edits(&job(), &[add, remove]).unwrap();
        let card = changed.pieces[1].form.gathered().unwrap();
        assert_eq!(card.members.len(), 1);
        assert_eq!(card.holds(&PieceId("p2".into())), Some(3));
        assert!(card.places.is_empty());
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
        for nowhere in ["sheet.nothing", "nothing", "tooling.nothing.more", "pieces.p1.nothing"] {
            assert_eq!(set(nowhere, 1.into()), Err(FieldError::Unknown(nowhere.into())));
        }
    }

    /// What is left at its default is not written, and is a field all the same; so is a figure that waits for a
    /// structure that knows it.
    #[test]
    fn a_default_may_be_set() {
        for (field, own) in [
            ("tooling.operations.cut.passes", json!(null)),
            ("pieces.p1.form.through", json!(false)),
        ] {
            assert_eq!(
                with_field(&job(), field, own).map(|job| job.pieces.len()),
                Ok(2),
                "{field}"
            );
        }
        let waits = with_field(&job(), "pieces.p1.form.lid", 12.into()).unwrap();
        assert_eq!(waits.pieces[0].form.chosen().unwrap().figures["lid"], Some(12.0));
    }
}
