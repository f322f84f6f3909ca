//! Changes of the workshop's records: each one kept, so that it can be undone.

use diesel::prelude::*;

use super::jobs::parse;
use super::schema::{jobs, records, revisions, workshop_changes, workshop_head};
use super::{Store, StoreError};

/// Where the workshop stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct WorkshopHead {
    /// Counts every change, undo and redo.
    pub version: i32,
    /// True when there is a change to undo.
    pub can_undo: bool,
    /// True when there is one to redo.
    pub can_redo: bool,
}

/// A record as it will be; without a body it goes.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RecordChange {
    /// `stocks`, `printers`, `cutters`, `carriers`, `mark_sets`, `recipes` or `print_recipes`.
    pub kind: String,
    /// The record's id.
    pub id: String,
    /// Its JSON.
    pub body: Option<String>,
}

impl Store {
    /// Where the workshop stands.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn workshop_head(&self) -> Result<WorkshopHead, StoreError> {
        state(&mut *self.reader()?)
    }

    /// Makes a change, when the workshop is still at `version`. What had been undone is gone then.
    ///
    /// # Errors
    /// [`StoreError::WorkshopConflict`] when it is not, [`StoreError::InUse`] when a job names a record that would
    /// go, [`StoreError::NoRecord`] when one that would be changed is gone, and what the database says.
    pub fn change_record(
        &self,
        version: i32,
        change: &RecordChange,
    ) -> Result<WorkshopHead, StoreError> {
        self.change(|connection| {
            let head = expect(connection, version)?;
            let before = body(connection, change)?;
            if before == change.body {
                return state(connection);
            }
            if change.body.is_none() {
                refuse_in_use(connection, change)?;
            }
            diesel::delete(workshop_changes::table)
                .filter(workshop_changes::number.gt(head))
                .execute(connection)?;
            diesel::insert_into(workshop_changes::table)
                .values((
                    workshop_changes::number.eq(head + 1),
                    workshop_changes::kind.eq(&change.kind),
                    workshop_changes::id.eq(&change.id),
                    workshop_changes::before_body.eq(&before),
                    workshop_changes::after_body.eq(&change.body),
                ))
                .execute(connection)?;
            apply(connection, change)?;
            move_to(connection, head + 1)
        })
    }

    /// The change that undo or redo would make.
    ///
    /// # Errors
    /// [`StoreError::NoFurther`] where there is none.
    pub fn workshop_step(&self, back: bool) -> Result<RecordChange, StoreError> {
        step(&mut *self.reader()?, back).map(|step| step.change)
    }

    /// Undoes the last change, or redoes the one after it.
    ///
    /// # Errors
    /// As [`change_record`](Self::change_record), and [`StoreError::NoFurther`] at the end.
    pub fn step_workshop(&self, version: i32, back: bool) -> Result<WorkshopHead, StoreError> {
        self.change(|connection| {
            expect(connection, version)?;
            let Step { change, from, head } = step(connection, back)?;
            if body(connection, &change)? != from {
                return Err(StoreError::Overtaken(format!("“{}”", change.id)));
            }
            if change.body.is_none() {
                refuse_in_use(connection, &change)?;
            }
            apply(connection, &change)?;
            move_to(connection, head)
        })
    }
}

/// The workshop's version, which counts every change of a record.
pub(super) fn counted(connection: &mut SqliteConnection) -> Result<i32, StoreError> {
    Ok(heads(connection)?.1)
}

fn heads(connection: &mut SqliteConnection) -> Result<(i32, i32), StoreError> {
    let row = workshop_head::table.select((workshop_head::head, workshop_head::version));
    Ok(row.first(connection)?)
}

fn state(connection: &mut SqliteConnection) -> Result<WorkshopHead, StoreError> {
    let (head, version) = heads(connection)?;
    let newest: Option<i32> = workshop_changes::table
        .select(diesel::dsl::max(workshop_changes::number))
        .first(connection)?;
    Ok(WorkshopHead {
        version,
        can_undo: head > 0,
        can_redo: newest.is_some_and(|newest| newest > head),
    })
}

fn expect(connection: &mut SqliteConnection, version: i32) -> Result<i32, StoreError> {
    let (head, current) = heads(connection)?;
    if current == version {
        Ok(head)
    } else {
        Err(StoreError::WorkshopConflict { yours: version, current })
    }
}

fn move_to(connection: &mut SqliteConnection, head: i32) -> Result<WorkshopHead, StoreError> {
    diesel::update(workshop_head::table)
        .set((workshop_head::head.eq(head), workshop_head::version.eq(workshop_head::version + 1)))
        .execute(connection)?;
    state(connection)
}

/// Refuses to take away a record that a job names, in the bin too: taken out, it must open.
fn refuse_in_use(
    connection: &mut SqliteConnection,
    change: &RecordChange,
) -> Result<(), StoreError> {
    let rows: Vec<(i32, String)> = jobs::table
        .inner_join(revisions::table)
        .filter(revisions::number.eq(jobs::head))
        .order(jobs::binned.asc())
        .select((jobs::id, revisions::body))
        .load(connection)?;
    let users: Vec<String> = rows
        .into_iter()
        .filter_map(|(id, body)| parse(connection, id, body).ok())
        .filter(|job| {
            let mut names = job.records().into_iter();
            names.any(|(kind, id)| kind.key() == change.kind && id.0 == change.id)
        })
        .map(|job| job.name)
        .collect();
    let Some(first) = users.first().cloned() else { return Ok(()) };
    let record = body(connection, change)?
        .and_then(|body| serde_json::from_str::<serde_json::Value>(&body).ok())
        .and_then(|record| Some(record.get("name")?.as_str()?.to_owned()))
        .unwrap_or_else(|| change.id.clone());
    Err(StoreError::InUse { record, count: users.len(), first })
}

/// A step along the changes: what it makes of a record, what it expects there, and where it leads.
struct Step {
    change: RecordChange,
    from: Option<String>,
    head: i32,
}

/// The workshop has changed by another way than its own changes.
pub(super) fn count_up(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    diesel::update(workshop_head::table)
        .set(workshop_head::version.eq(workshop_head::version + 1))
        .execute(connection)?;
    Ok(())
}

type ChangeRow = (String, String, Option<String>, Option<String>);

fn step(connection: &mut SqliteConnection, back: bool) -> Result<Step, StoreError> {
    let (head, _) = heads(connection)?;
    let number = if back { head } else { head + 1 };
    let row: Option<ChangeRow> = workshop_changes::table
        .filter(workshop_changes::number.eq(number))
        .select((
            workshop_changes::kind,
            workshop_changes::id,
            workshop_changes::before_body,
            workshop_changes::after_body,
        ))
        .first(connection)
        .optional()?;
    let (kind, id, before, after) =
        row.ok_or(StoreError::NoFurther(if back { "undo" } else { "redo" }))?;
    let (body, from) = if back { (before, after) } else { (after, before) };
    let head = if back { head - 1 } else { head + 1 };
    Ok(Step { change: RecordChange { kind, id, body }, from, head })
}

fn body(
    connection: &mut SqliteConnection,
    change: &RecordChange,
) -> Result<Option<String>, StoreError> {
    Ok(records::table
        .filter(records::kind.eq(&change.kind).and(records::id.eq(&change.id)))
        .select(records::body)
        .first(connection)
        .optional()?)
}

fn apply(connection: &mut SqliteConnection, change: &RecordChange) -> Result<(), StoreError> {
    diesel::delete(records::table)
        .filter(records::kind.eq(&change.kind).and(records::id.eq(&change.id)))
        .execute(connection)?;
    if let Some(body) = &change.body {
        diesel::insert_into(records::table)
            .values((
                records::kind.eq(&change.kind),
                records::id.eq(&change.id),
                records::body.eq(body),
            ))
            .execute(connection)?;
    }
    Ok(())
}
