//! The workshop's records, one row each.

use std::collections::BTreeMap;

use aptum_core::Workshop;
use aptum_core::workshop::RecordId;
use diesel::prelude::*;
use serde::Serialize;
use serde::de::DeserializeOwned;

use super::schema::records;
use super::{Store, StoreError};

impl Store {
    /// Every record.
    ///
    /// # Errors
    /// [`StoreError`] from the database or an unreadable row.
    pub fn workshop(&self) -> Result<Workshop, StoreError> {
        let connection = &mut *self.connection();
        Ok(Workshop {
            stocks: load(connection, "stocks")?,
            printers: load(connection, "printers")?,
            cutters: load(connection, "cutters")?,
            carriers: load(connection, "carriers")?,
            mark_sets: load(connection, "mark_sets")?,
        })
    }

    /// Adds every record of `workshop` whose id is not taken yet.
    ///
    /// # Errors
    /// [`StoreError`] from the database.
    pub fn add_records(&self, workshop: &Workshop) -> Result<(), StoreError> {
        self.change(|connection| add_all(connection, workshop))
    }
}

/// Adds every record whose id is not taken yet, inside the caller's transaction.
pub(super) fn add_all(
    connection: &mut SqliteConnection,
    workshop: &Workshop,
) -> Result<(), StoreError> {
    add(connection, "stocks", &workshop.stocks)?;
    add(connection, "printers", &workshop.printers)?;
    add(connection, "cutters", &workshop.cutters)?;
    add(connection, "carriers", &workshop.carriers)?;
    add(connection, "mark_sets", &workshop.mark_sets)
}

fn load<T: DeserializeOwned>(
    connection: &mut SqliteConnection,
    kind: &str,
) -> Result<BTreeMap<RecordId, T>, StoreError> {
    let rows: Vec<(String, String)> = records::table
        .filter(records::kind.eq(kind))
        .select((records::id, records::body))
        .load(connection)?;
    rows.into_iter()
        .map(|(id, body)| {
            let record = serde_json::from_str(&body).map_err(|error| StoreError::Unreadable {
                what: format!("record {id} of {kind}"),
                why: error.to_string(),
            })?;
            Ok((RecordId(id), record))
        })
        .collect()
}

fn add<T: Serialize>(
    connection: &mut SqliteConnection,
    kind: &str,
    new: &BTreeMap<RecordId, T>,
) -> Result<(), StoreError> {
    for (id, record) in new {
        let body = serde_json::to_string(record)
            .map_err(|error| StoreError::Database(error.to_string()))?;
        diesel::insert_or_ignore_into(records::table)
            .values((records::kind.eq(kind), records::id.eq(&id.0), records::body.eq(body)))
            .execute(connection)?;
    }
    Ok(())
}
