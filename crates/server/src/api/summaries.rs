//! Jobs as the list shows them: worked out once for each version of a job and of the records that it names,
//! since preparing takes longer than reading. The list does not wait for those that are not known yet.

use std::collections::hash_map::DefaultHasher;
use std::collections::{BTreeMap, HashMap};
use std::hash::{Hash, Hasher};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

use aptum_core::blob::Blobs;
use aptum_core::check::State as Standing;
use aptum_core::face::Side;
use aptum_core::job::JobPiece;
use aptum_core::workshop::{RecordId, RecordKind};
use aptum_core::{Job, Workshop, prepare};
use aptum_formats::art::art_bounds;
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::catalogue::{SmallFlat, size_text};
use crate::shelf::furnished;
use crate::store::Entry;

/// A job in the list.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct JobSummary {
    /// Its number.
    pub id: i32,
    /// Its name.
    pub name: String,
    /// How its worst limit stands; `None` when its figures cannot be used.
    pub state: Option<Standing>,
    /// What is wrong, or that all fits.
    pub verdict: String,
    /// The stock's name.
    pub stock: String,
    /// The structure's name.
    pub structure: String,
    /// The finished sizes, in words.
    pub size: String,
    /// Copies wanted.
    pub copies: u32,
    /// Sheets needed; 0 when nothing fits.
    pub sheets: u32,
    /// A small drawing of its flat.
    pub drawing: Option<SmallFlat>,
    /// What it wears.
    pub art: Option<TicketArt>,
    /// The address of a picture of it closed, where it folds.
    pub folded: Option<String>,
    /// False while it is worked out anew: it shows what was known before.
    pub is_current: bool,
}

/// What the first piece of a job wears, as a picture of its own.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct TicketArt {
    /// Its address.
    path: String,
    /// Its left and upper edge, width and height in the drawing, mm.
    at: [f64; 4],
}

/// What a summary was made of: the job's version, and the records that it names.
type Key = (i32, u64);

/// The summaries so far, each with what it was made of.
#[derive(Default)]
pub struct Summaries {
    known: Mutex<HashMap<i32, (Key, JobSummary)>>,
    is_working: AtomicBool,
}

/// Jobs whose summaries are still to be worked out.
pub struct Rest {
    jobs: Vec<(Entry, Key)>,
    workshop: Workshop,
}

/// The list waits so long for summaries that are not known, and so long for those that it can show as they were.
const PATIENCE: Duration = Duration::from_millis(120);
const PATIENCE_WITH_OLD: Duration = Duration::from_millis(20);

impl Summaries {
    fn known(&self) -> MutexGuard<'_, HashMap<i32, (Key, JobSummary)>> {
        self.known.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// The summaries of all jobs, in order, and what is still to be worked out of them.
    ///
    /// Pictures that are traced take longer than a list may: such jobs are worked out afterwards.
    pub fn all(
        &self,
        entries: Vec<Entry>,
        workshop: Workshop,
        blobs: &dyn Blobs,
    ) -> (Vec<JobSummary>, Option<Rest>) {
        let start = Instant::now();
        let records = hashes(&workshop);
        let mut left = Vec::new();
        let list = entries
            .into_iter()
            .map(|entry| {
                let key = key(&entry, &records);
                let before = self.known().get(&entry.id).cloned();
                match before {
                    Some((made_of, summary)) if made_of == key => summary,
                    before => {
                        let patience = if before.is_some() { PATIENCE_WITH_OLD } else { PATIENCE };
                        let is_traced = |job: &Job| {
                            job.pieces.iter().any(|piece| piece.form.traced().is_some())
                        };
                        let takes_long = entry.job.as_ref().is_ok_and(is_traced);
                        if !takes_long && start.elapsed() < patience {
                            return self.make(&entry, key, &workshop, blobs);
                        }
                        let shown = before.map_or_else(|| blank(&entry), |(_, summary)| summary);
                        left.push((entry, key));
                        JobSummary { is_current: false, ..shown }
                    }
                }
            })
            .collect();
        let rest = (!left.is_empty()).then_some(Rest { jobs: left, workshop });
        (list, rest)
    }

    /// Works out what is left, unless that is going on already: whoever asks again gets what there is.
    pub fn work_out(&self, rest: Rest, blobs: &dyn Blobs) {
        if self.is_working.swap(true, Ordering::AcqRel) {
            return;
        }
        struct Over<'a>(&'a AtomicBool);
        impl Drop for Over<'_> {
            fn drop(&mut self) {
                self.0.store(false, Ordering::Release);
            }
        }
        let _over = Over(&self.is_working);
        for (entry, key) in &rest.jobs {
            self.make(entry, *key, &rest.workshop, blobs);
        }
    }

    fn make(&self, entry: &Entry, key: Key, workshop: &Workshop, blobs: &dyn Blobs) -> JobSummary {
        let summary = summarise(entry, workshop, blobs);
        self.known().insert(entry.id, (key, summary.clone()));
        summary
    }
}

fn hash(value: &impl Hash) -> u64 {
    let mut hasher = DefaultHasher::new();
    value.hash(&mut hasher);
    hasher.finish()
}

/// Every record's content, in short.
fn hashes(workshop: &Workshop) -> BTreeMap<(&'static str, RecordId), u64> {
    fn kind<T: Serialize>(
        kind: RecordKind,
        records: &BTreeMap<RecordId, T>,
    ) -> impl Iterator<Item = ((&'static str, RecordId), u64)> {
        records.iter().map(move |(id, record)| {
            ((kind.key(), id.clone()), hash(&serde_json::to_string(record).unwrap_or_default()))
        })
    }
    kind(RecordKind::Stocks, &workshop.stocks)
        .chain(kind(RecordKind::Printers, &workshop.printers))
        .chain(kind(RecordKind::Cutters, &workshop.cutters))
        .chain(kind(RecordKind::Carriers, &workshop.carriers))
        .chain(kind(RecordKind::MarkSets, &workshop.mark_sets))
        .collect()
}

fn key(entry: &Entry, records: &BTreeMap<(&'static str, RecordId), u64>) -> Key {
    let named = entry.job.as_ref().map_or_else(|_| Vec::new(), Job::records);
    let named: Vec<Option<u64>> = named
        .into_iter()
        .map(|(kind, id)| records.get(&(kind.key(), id.clone())).copied())
        .collect();
    (entry.version, hash(&named))
}

/// The piece that stands for a job: the first that lies on sheets by itself.
fn shown(job: &Job) -> Option<&JobPiece> {
    job.pieces.iter().find(|piece| job.holder(&piece.id).is_none())
}

/// A job of which nothing is known but its name.
fn blank(entry: &Entry) -> JobSummary {
    let (name, copies, verdict) = match &entry.job {
        Ok(job) => {
            let first = shown(job);
            (job.name.clone(), first.map_or(0, |piece| piece.copies), String::new())
        }
        Err(why) => (format!("Job {}", entry.id), 0, why.clone()),
    };
    JobSummary {
        id: entry.id,
        name,
        state: None,
        verdict,
        stock: String::new(),
        structure: String::new(),
        size: String::new(),
        copies,
        sheets: 0,
        drawing: None,
        art: None,
        folded: None,
        is_current: true,
    }
}

fn summarise(entry: &Entry, workshop: &Workshop, blobs: &dyn Blobs) -> JobSummary {
    let Ok(job) = &entry.job else { return blank(entry) };
    let Some(first) = shown(job) else { return blank(entry) };
    let stock = workshop.stocks.get(&first.stock);
    let name = stock.map_or_else(|| first.stock.to_string(), |stock| stock.name.clone());
    let base = JobSummary { stock: name, ..blank(entry) };
    match prepare(&furnished(job, blobs), workshop) {
        Err(errors) => JobSummary {
            verdict: errors.first().map_or_else(String::new, |error| error.message.clone()),
            ..base
        },
        Ok(prepared) => {
            let worst = prepared.checks.iter().max_by_key(|check| check.state);
            let state = prepared.worst();
            let verdict = match worst {
                Some(check) if state != Standing::Fits => {
                    format!("{}: {}", check.label, check.verdict)
                }
                _ => "all fits".to_owned(),
            };
            let form = &first.form;
            let structure = match form.structure() {
                Some(structure) => structure.name,
                None if form.traced().is_some() => "Outline of a picture",
                None if form.gathered().is_some() => "Sticker card",
                None => "Drawing",
            };
            let at = prepared.pieces.iter().position(|own| own.job_piece.id == first.id);
            let at = at.unwrap_or(0);
            let drawn = &prepared.pieces[at];
            let number = if at == 0 { String::new() } else { format!("{}-", at + 1) };
            let colour = stock.map_or("#ffffff", |stock| stock.colour.as_str());
            // Another version has another address, so that no picture of before is shown.
            let (id, of) = (entry.id, entry.version);
            let address = |name: &str| format!("/api/jobs/{id}/piece/{number}{name}.svg?of={of}");
            let folds = drawn.formed.fold.as_ref().is_some_and(|fold| !fold.is_flat());
            JobSummary {
                state: Some(state),
                verdict,
                structure: structure.to_owned(),
                size: size_text(&drawn.flat, job.unit),
                sheets: prepared.layout.sheets(),
                drawing: Some(SmallFlat::new(&drawn.flat, colour)),
                art: art_bounds(drawn, Side::Front).map(|at| TicketArt {
                    path: address("art"),
                    at: [at.x0, at.y0, at.width(), at.height()],
                }),
                folded: folds.then(|| address("folded")),
                ..base
            }
        }
    }
}
