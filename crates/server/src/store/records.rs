//! The workshop's records, one row each.

use std::collections::BTreeMap;
use std::sync::{Arc, PoisonError};

use aptum_core::Workshop;
use aptum_core::workshop::{RecordId, RecordKind};
use diesel::prelude::*;
use serde::Serialize;
use serde::de::DeserializeOwned;

use super::schema::records;
use super::workshop::{count_up, counted};
use super::{Reader, Store, StoreError};

impl Store {
    /// Every record, as they are now; nothing is read again until somebody has changed one.
    ///
    /// # Errors
    /// [`StoreError`] from the database or an unreadable row.
    pub fn workshop(&self) -> Result<Arc<Workshop>, StoreError> {
        let mut known = self.records.lock().unwrap_or_else(PoisonError::into_inner);
        let mut watch = match known.take() {
            Some(before) => before,
            None => KnownRecords {
                watch: self.reader()?,
                file: -1,
                version: -1,
                records: Arc::default(),
            },
        };
        // What is read after this may be newer than it says, never older.
        let file = data_version(&mut watch.watch)?;
        if watch.file != file {
            // A job has changed, mostly.
            let version = counted(&mut watch.watch)?;
            if watch.version != version {
                watch.records = Arc::new(workshop(&mut watch.watch)?);
                watch.version = version;
            }
            watch.file = file;
        }
        let records = Arc::clone(&watch.records);
        *known = Some(watch);
        Ok(records)
    }
}

/// The records as they were read last, and the connection that tells whether the file has changed since.
pub(super) struct KnownRecords {
    watch: Reader,
    /// The file's version.
    file: i64,
    /// The workshop's own, which counts every change of a record.
    version: i32,
    records: Arc<Workshop>,
}

/// A number that changes whenever another connection, of this program or of one beside it, has changed the file.
fn data_version(watch: &mut SqliteConnection) -> Result<i64, StoreError> {
    #[derive(QueryableByName)]
    struct Version {
        #[diesel(sql_type = diesel::sql_types::BigInt)]
        data_version: i64,
    }
    let found: Version = diesel::sql_query("PRAGMA data_version").get_result(watch)?;
    Ok(found.data_version)
}

/// Every record.
pub(super) fn workshop(connection: &mut SqliteConnection) -> Result<Workshop, StoreError> {
    Ok(Workshop {
        stocks: load(connection, "stocks")?,
        printers: load(connection, "printers")?,
        cutters: load(connection, "cutters")?,
        carriers: load(connection, "carriers")?,
        mark_sets: load(connection, "mark_sets")?,
        recipes: load(connection, "recipes")?,
        print_recipes: load(connection, "print_recipes")?,
    })
}

/// The records that can be read, in a file of which not all can.
pub(super) fn load_readable(connection: &mut SqliteConnection) -> Workshop {
    fn readable<T: DeserializeOwned>(
        connection: &mut SqliteConnection,
        kind: &str,
    ) -> BTreeMap<RecordId, T> {
        let rows: Vec<(String, String)> = records::table
            .filter(records::kind.eq(kind))
            .select((records::id, records::body))
            .load(connection)
            .unwrap_or_default();
        let read =
            |(id, body): (String, String)| Some((RecordId(id), serde_json::from_str(&body).ok()?));
        rows.into_iter().filter_map(read).collect()
    }
    Workshop {
        stocks: readable(connection, "stocks"),
        printers: readable(connection, "printers"),
        cutters: readable(connection, "cutters"),
        carriers: readable(connection, "carriers"),
        mark_sets: readable(connection, "mark_sets"),
        recipes: readable(connection, "recipes"),
        print_recipes: readable(connection, "print_recipes"),
    }
}

/// True when there is such a record.
pub(super) fn has(
    connection: &mut SqliteConnection,
    kind: RecordKind,
    id: &RecordId,
) -> Result<bool, StoreError> {
    let found = records::table
        .filter(records::kind.eq(kind.key()).and(records::id.eq(&id.0)))
        .count()
        .get_result::<i64>(connection)?;
    Ok(found > 0)
}

/// Adds every record whose id is not taken yet, inside the caller's transaction. Whoever looks at the workshop looks
/// again before the next change.
pub(super) fn add_all(
    connection: &mut SqliteConnection,
    workshop: &Workshop,
) -> Result<(), StoreError> {
    count_up(connection)?;
    add(connection, "stocks", &workshop.stocks)?;
    add(connection, "printers", &workshop.printers)?;
    add(connection, "cutters", &workshop.cutters)?;
    add(connection, "carriers", &workshop.carriers)?;
    add(connection, "mark_sets", &workshop.mark_sets)?;
    add(connection, "recipes", &workshop.recipes)?;
    add(connection, "print_recipes", &workshop.print_recipes)
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
