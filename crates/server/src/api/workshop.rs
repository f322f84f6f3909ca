//! The workshop's records: read, changed, undone; and which jobs use them.

use std::collections::BTreeMap;

use aptum_core::Workshop;
use aptum_core::id::plain;
use aptum_core::sheet::{RecordDrawing, draw_record};
use aptum_core::units::Unit;
use aptum_core::workshop::{Record, RecordId, RecordKind};
use rocket::serde::json::Json;
use rocket::{State, delete, get, post, put};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::store::{RecordChange, Store, StoreError, WorkshopHead};

/// A job that uses a record.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct RecordUse {
    id: i32,
    name: String,
}

/// The workshop with where it stands.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct WorkshopState {
    workshop: Workshop,
    /// What a change must name, so that a second window is noticed.
    version: i32,
    can_undo: bool,
    can_redo: bool,
    /// The jobs that use a record, by its kind and id, such as `stocks/kraft-300`.
    uses: BTreeMap<String, Vec<RecordUse>>,
    /// The record that was just made, changed, or removed.
    touched: Option<Touched>,
}

/// A record that has just been made, changed or removed.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct Touched {
    kind: RecordKind,
    id: RecordId,
    /// False when it is gone now.
    is_there: bool,
}

/// A record, changed or new.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct RecordEntry {
    /// The version the change was made to.
    version: i32,
    record: Record,
    /// The unit in which messages are written.
    #[serde(default)]
    unit: Unit,
}

/// A record to draw, saved or not.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct RecordSketch {
    record: Record,
    /// The unit in which names and messages are written.
    #[serde(default)]
    unit: Unit,
}

/// The version to which an undo or redo applies.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct WorkshopStep {
    version: i32,
}

type Answer = Result<Json<WorkshopState>, Problem>;

/// The workshop's records.
#[get("/workshop")]
pub async fn workshop(desk: &State<Desk>) -> Result<Json<Workshop>, Problem> {
    desk.quick(|store| Ok(Json(Workshop::clone(&*store.workshop()?)))).await
}

/// The records with where the workshop stands and what uses them.
#[get("/workshop/state")]
pub async fn state(desk: &State<Desk>) -> Answer {
    desk.quick(|store| answer(store, store.workshop_head()?, None)).await
}

/// Adds a record; its id follows from its name.
#[post("/workshop/records", data = "<entry>")]
pub async fn add(desk: &State<Desk>, entry: Body<RecordEntry>) -> Answer {
    let RecordEntry { version, record, unit } = entry.0;
    record.validate(unit)?;
    desk.write(move |store| {
        let id = free_id(&*store.workshop()?, &record);
        let head = store.change_record(version, &change(&record, &id))?;
        answer(store, head, Some(Touched { kind: record.kind(), id, is_there: true }))
    })
    .await
}

/// Changes a record.
#[put("/workshop/records/<id>", data = "<entry>")]
pub async fn change_record(desk: &State<Desk>, id: &str, entry: Body<RecordEntry>) -> Answer {
    let RecordEntry { version, record, unit } = entry.0;
    record.validate(unit)?;
    let id = RecordId(id.to_owned());
    desk.write(move |store| {
        if !store.workshop()?.has(record.kind(), &id) {
            return Err(missing(record.kind(), &id));
        }
        let head = store.change_record(version, &change(&record, &id))?;
        answer(store, head, Some(Touched { kind: record.kind(), id, is_there: true }))
    })
    .await
}

/// Removes a record that no job uses.
#[delete("/workshop/records/<kind>/<id>?<version>")]
pub async fn remove(desk: &State<Desk>, kind: &str, id: &str, version: i32) -> Answer {
    let id = RecordId(id.to_owned());
    let kind = RecordKind::named(kind)
        .ok_or_else(|| Problem::missing(format!("There is no kind of record “{kind}”")))?;
    desk.write(move |store| {
        if !store.workshop()?.has(kind, &id) {
            return Err(missing(kind, &id));
        }
        let change = RecordChange { kind: kind.key().to_owned(), id: id.0.clone(), body: None };
        let head = store.change_record(version, &change)?;
        answer(store, head, Some(Touched { kind, id, is_there: false }))
    })
    .await
}

/// Undoes the last change of a record.
#[post("/workshop/undo", data = "<step>")]
pub async fn undo(desk: &State<Desk>, step: Body<WorkshopStep>) -> Answer {
    desk.write(move |store| step_workshop(store, step.0.version, true)).await
}

/// Redoes the change that was undone.
#[post("/workshop/redo", data = "<step>")]
pub async fn redo(desk: &State<Desk>, step: Body<WorkshopStep>) -> Answer {
    desk.write(move |store| step_workshop(store, step.0.version, false)).await
}

fn step_workshop(store: &Store, version: i32, back: bool) -> Answer {
    let change = store.workshop_step(back)?;
    let id = RecordId(change.id);
    let touched = RecordKind::named(&change.kind).map(|kind| Touched {
        kind,
        id: id.clone(),
        is_there: change.body.is_some(),
    });
    answer(store, store.step_workshop(version, back)?, touched)
}

/// A drawing of a record, saved or not.
#[post("/workshop/drawing", data = "<sketch>")]
pub fn drawing(sketch: Body<RecordSketch>) -> Result<Json<RecordDrawing>, Problem> {
    let RecordSketch { record, unit } = sketch.0;
    record.validate(unit)?;
    Ok(Json(draw_record(&record, unit)))
}

fn answer(store: &Store, head: WorkshopHead, touched: Option<Touched>) -> Answer {
    Ok(Json(WorkshopState {
        workshop: Workshop::clone(&*store.workshop()?),
        version: head.version,
        can_undo: head.can_undo,
        can_redo: head.can_redo,
        uses: uses(store)?,
        touched,
    }))
}

fn uses(store: &Store) -> Result<BTreeMap<String, Vec<RecordUse>>, StoreError> {
    let mut uses: BTreeMap<String, Vec<RecordUse>> = BTreeMap::new();
    for entry in store.jobs()? {
        let Ok(job) = &entry.job else { continue };
        for (kind, id) in job.records() {
            let users = uses.entry(format!("{}/{id}", kind.key())).or_default();
            if users.last().is_none_or(|last| last.id != entry.id) {
                users.push(RecordUse { id: entry.id, name: job.name.clone() });
            }
        }
    }
    Ok(uses)
}

fn missing(kind: RecordKind, id: &RecordId) -> Problem {
    Problem::missing(format!(
        "The workshop has no {} “{id}” any more: another window may have removed it",
        kind.name()
    ))
}

fn change(record: &Record, id: &RecordId) -> RecordChange {
    RecordChange {
        kind: record.kind().key().to_owned(),
        id: id.0.clone(),
        body: Some(record.to_json()),
    }
}

/// The name in lower case with hyphens, and a number where that is taken.
fn free_id(workshop: &Workshop, record: &Record) -> RecordId {
    let slug = match plain(record.name()) {
        none if none.is_empty() => "record".to_owned(),
        slug => slug,
    };
    let numbered = (2..).map(|number| RecordId(format!("{slug}-{number}")));
    std::iter::once(RecordId(slug.clone()))
        .chain(numbered)
        .find(|id| !workshop.has(record.kind(), id))
        .unwrap_or(RecordId(slug))
}
