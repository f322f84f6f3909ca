//! Jobs as the list shows them: worked out once for each version, since preparing takes longer
//! than reading.

use std::collections::HashMap;
use std::sync::{Mutex, PoisonError};

use aptum_core::check::State as Standing;
use aptum_core::{Workshop, prepare};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::catalogue::{SmallFlat, size_text};
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
}

/// The summaries so far, each with the version and the workshop it was made for.
#[derive(Default)]
pub struct Summaries(Mutex<HashMap<i32, (i32, JobSummary)>>, Mutex<Workshop>);

impl Summaries {
    /// The summary of a job, from memory when it has not changed.
    pub fn of(&self, entry: &Entry, workshop: &Workshop) -> JobSummary {
        let mut known = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let mut for_workshop = self.1.lock().unwrap_or_else(PoisonError::into_inner);
        if *for_workshop != *workshop {
            known.clear();
            workshop.clone_into(&mut for_workshop);
        }
        match known.get(&entry.id) {
            Some((version, summary)) if *version == entry.version => summary.clone(),
            _ => {
                let summary = summarise(entry, workshop);
                known.insert(entry.id, (entry.version, summary.clone()));
                summary
            }
        }
    }
}

fn summarise(entry: &Entry, workshop: &Workshop) -> JobSummary {
    let job = &entry.job;
    let stock = workshop.stocks.get(&job.stock);
    let base = JobSummary {
        id: entry.id,
        name: job.name.clone(),
        state: None,
        verdict: String::new(),
        stock: stock.map_or_else(|| job.stock.to_string(), |stock| stock.name.clone()),
        structure: String::new(),
        size: String::new(),
        copies: job.sheet.copies,
        sheets: 0,
        drawing: None,
    };
    match prepare(job, workshop) {
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
            let structure = job.form.structure().map_or("", |structure| structure.name);
            let colour = stock.map_or("#ffffff", |stock| stock.colour.as_str());
            JobSummary {
                state: Some(state),
                verdict,
                structure: structure.to_owned(),
                size: size_text(&prepared.first().flat, job.unit),
                sheets: prepared.layout.sheets(),
                drawing: Some(SmallFlat::new(&prepared.first().flat, colour)),
                ..base
            }
        }
    }
}
