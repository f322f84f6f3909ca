//! The demo's data, which is also the workshop that an empty data directory starts with.

use std::collections::BTreeMap;
use std::sync::Arc;
use std::sync::atomic::AtomicBool;

use aptum_core::blob::BlobId;
use aptum_core::logbook::LogEntry;
use aptum_core::rehearsal::Day;
use aptum_core::run::Done;
use aptum_core::workshop::RecordId;
use aptum_core::{Job, Workshop};
use aptum_devices::cutter::Settings;
use aptum_devices::printer::PPI;
use aptum_formats::archive::{Asset, blob_id};
use aptum_formats::content::Content;
use aptum_formats::lines::{brought, kept};

use serde::Deserialize;

use crate::printed::ToFreeze;
use crate::standins::{Setup, Standing};
use crate::store::{Store, StoreError};

const WORKSHOP: &str = include_str!("../../../demo/workshop.json");

/// What was tried on which card, and what came of it.
const LOGBOOK: &str = include_str!("../../../demo/logbook.json");

/// An entry of the demo's Logbook.
#[derive(Deserialize)]
struct Tried {
    made_at: String,
    entry: LogEntry,
}

/// The jobs, the one that is listed first last.
const JOBS: &[&str] = &[
    include_str!("../../../demo/jobs/dibber-carton.json"),
    include_str!("../../../demo/jobs/allotment-map-carton.json"),
    include_str!("../../../demo/jobs/tomato-carton.json"),
    include_str!("../../../demo/jobs/runner-bean-carton.json"),
    include_str!("../../../demo/jobs/garlic-hexagon.json"),
    include_str!("../../../demo/jobs/onion-set-header.json"),
    include_str!("../../../demo/jobs/table-sign.json"),
    include_str!("../../../demo/jobs/month-dodecahedron.json"),
    include_str!("../../../demo/jobs/seedling-carrier.json"),
    include_str!("../../../demo/jobs/pea-pillow.json"),
    include_str!("../../../demo/jobs/gift-box.json"),
    include_str!("../../../demo/jobs/label-drawer.json"),
    include_str!("../../../demo/jobs/lettuce-packet.json"),
    include_str!("../../../demo/jobs/sowing-bookmark.json"),
    include_str!("../../../demo/jobs/plant-tag.json"),
    include_str!("../../../demo/jobs/month-tabs.json"),
    include_str!("../../../demo/jobs/bulb-box.json"),
    include_str!("../../../demo/jobs/spring-table-set.json"),
    include_str!("../../../demo/jobs/thirty-plant-tags.json"),
    include_str!("../../../demo/jobs/vegetable-stickers.json"),
    include_str!("../../../demo/jobs/bee-topper.json"),
    include_str!("../../../demo/jobs/leaf-tag.json"),
    include_str!("../../../demo/jobs/jar-stickers.json"),
    include_str!("../../../demo/jobs/seedling-tray.json"),
    include_str!("../../../demo/jobs/fold-out-star.json"),
    include_str!("../../../demo/jobs/crate-stencil.json"),
];

/// The job of which each pupil makes a tag, by its place among the jobs.
const OF_EACH_ROW: usize = 18;
const PUPILS: usize = 8;

/// The pictures that the jobs wear.
const PICTURES: &[&[u8]] = &[
    include_bytes!("../../../demo/pictures/lettuce.png"),
    include_bytes!("../../../demo/pictures/seedling.png"),
    include_bytes!("../../../demo/pictures/seedling-clean.png"),
    include_bytes!("../../../demo/pictures/vegetables.png"),
    include_bytes!("../../../demo/pictures/bee.png"),
    include_bytes!("../../../demo/pictures/leaf-with-holes.jpg"),
    include_bytes!("../../../demo/pictures/sweet-pea.svg"),
    include_bytes!("../../../demo/pictures/pea-pod.svg"),
    include_bytes!("../../../demo/pictures/sunflower.svg"),
];

/// The drawings that jobs are made of, as they came.
const DRAWINGS: &[&[u8]] = &[
    include_bytes!("../../../demo/drawings/seedling-tray.svg"),
    include_bytes!("../../../demo/drawings/fold-out-star.fold"),
];

fn pictures() -> Result<BTreeMap<BlobId, Asset>, StoreError> {
    let asset = |bytes: &&[u8]| {
        let content = Content::of(bytes).map_err(|error| StoreError::Unreadable {
            what: "a demo picture".to_owned(),
            why: error.to_string(),
        })?;
        Ok((blob_id(bytes), Asset { content, bytes: bytes.to_vec() }))
    };
    let lines = |bytes: &&[u8]| {
        let lines = brought(bytes, 1).map_err(|error| StoreError::Unreadable {
            what: "a demo drawing".to_owned(),
            why: error.to_string(),
        })?;
        let bytes = kept(&lines);
        Ok((blob_id(&bytes), Asset { content: Content::Lines, bytes }))
    };
    PICTURES.iter().map(asset).chain(DRAWINGS.iter().map(lines)).collect()
}

fn read<T: serde::de::DeserializeOwned>(what: &str, text: &str) -> Result<T, StoreError> {
    serde_json::from_str(text)
        .map_err(|error| StoreError::Unreadable { what: what.to_owned(), why: error.to_string() })
}

/// Gives an empty store a workshop to start with.
///
/// # Errors
/// [`StoreError`] from the database.
pub fn start_workshop(store: &Store) -> Result<(), StoreError> {
    if *store.workshop()? == Workshop::default() {
        store.add_jobs(&[], &read("the starting workshop", WORKSHOP)?, &BTreeMap::new())?;
    }
    Ok(())
}

/// Gives a store without jobs the demo's, with the workshop that they name: all of it, or nothing.
///
/// # Errors
/// [`StoreError`] from the database.
pub fn start_jobs(store: &Store) -> Result<(), StoreError> {
    if store.jobs()?.is_empty() && store.binned()?.is_empty() {
        let jobs: Result<Vec<Job>, StoreError> =
            JOBS.iter().map(|job| read("a demo job", job)).collect();
        let mut jobs: Vec<(Job, u32)> = jobs?.into_iter().map(|job| (job, 0)).collect();
        if let Some((all, _)) = jobs.get(OF_EACH_ROW) {
            let tag = Job { name: "Plant tag".to_owned(), ..all.clone() };
            jobs.extend((0..PUPILS).filter_map(|row| Some((tag.of_row(row)?, 1))));
        }
        store.add_jobs(&jobs, &read("the starting workshop", WORKSHOP)?, &pictures()?)?;
        let tried: Vec<Tried> = read("the demo's Logbook", LOGBOOK)?;
        let entries: Vec<(Option<&str>, &LogEntry)> =
            tried.iter().map(|own| (Some(own.made_at.as_str()), &own.entry)).collect();
        store.log(&entries)?;
    }
    Ok(())
}

/// The job whose run is under way, and what is done of it.
const UNDER_WAY: i32 = 11;
const DONE: &[&str] = &["print", "measure", "tool-0-1", "tool-0-0"];

/// Jobs that wait at their machines, in this order.
const QUEUED: &[i32] = &[UNDER_WAY, 12, 10, 6, 27, 28, 29, 30, 31, 32, 33, 34];

/// Prints some jobs' sheets, so that a run is under way and others wait, unless something was printed already. What fails there is no
/// reason to have no demo.
pub fn start_prints(store: &Store) {
    if !store.queue().is_ok_and(|queue| queue.is_empty()) {
        return;
    }
    let frozen = QUEUED.iter().filter_map(|id| {
        let stored = store.job(*id).ok()?;
        Some((*id, ToFreeze::of(store, &stored.job).ok()?))
    });
    let frozen: Vec<(i32, ToFreeze)> = frozen.collect();
    let prints: Vec<_> = frozen.iter().map(|(id, own)| (*id, own.new_print())).collect();
    let Ok(prints) = store.freeze(&prints) else { return };
    for (at, print) in prints.iter().enumerate() {
        let done: &[&str] = match at {
            0 => DONE,
            1..3 => &DONE[..1],
            _ => &[],
        };
        let kept = store.change_run(print.id, print.version, |run, at| {
            run.measured = (print.job == UNDER_WAY).then_some(99.8);
            for step in done {
                run.done.insert((*step).to_owned(), Done { times: 1, at: at.to_owned() });
            }
            Ok::<_, ()>(Vec::new())
        });
        if let Err(error) = kept {
            tracing::warn!("the demo’s run is not under way: {error}");
        }
    }
}

/// The ports of the demo's machines, as its workshop has them.
const CUTTER: u16 = 4890;
const PRINTER: u16 = 4891;

/// Starts the machines of the reading room, set up as their records say, on a thread of their own.
///
/// # Errors
/// That their ports are taken, or the workshop cannot be read.
pub fn start_machines(store: &Store) -> Result<(), Box<dyn std::error::Error>> {
    let workshop = store.workshop()?;
    let own = workshop.cutters.get(&RecordId("reading-room-cutter".to_owned()));
    let dialect = own.and_then(|own| own.dialect.clone()).unwrap_or_default();
    let cutter = Settings {
        units: dialect.units,
        origin: dialect.origin,
        swapped: dialect.swapped,
        speed: own.and_then(|own| own.pace).map(|pace| pace.working),
        is_attended: true,
        ..Settings::default()
    };
    let standing =
        Standing::at(CUTTER, PRINTER, Setup { cutter, day: Day::Usual, seed: 1, ppi: PPI[0] })?;
    std::thread::Builder::new().name("machines".to_owned()).spawn(move || {
        if let Err(error) = standing.serve(&Arc::new(AtomicBool::new(false))) {
            tracing::warn!("the demo’s machines stopped: {error}");
        }
    })?;
    Ok(())
}
