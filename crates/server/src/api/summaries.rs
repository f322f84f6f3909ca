//! Jobs as the list shows them: worked out once for each version, since preparing takes longer
//! than reading.

use std::collections::HashMap;
use std::sync::{Mutex, PoisonError};

use aptum_core::check::State as Standing;
use aptum_core::geometry::path_text;
use aptum_core::{LineKind, Workshop, prepare};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

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
    /// The finished inside or blank, in words.
    pub size: String,
    /// Copies wanted.
    pub copies: u32,
    /// Sheets needed; 0 when nothing fits.
    pub sheets: u32,
    /// A small drawing of its flat.
    pub drawing: Option<SmallFlat>,
}

/// A flat, small: outline and creases as SVG path data.
#[derive(Debug, Clone, Serialize, JsonSchema, TS)]
pub struct SmallFlat {
    /// Width and height, mm.
    pub size: [f64; 2],
    /// The blank.
    pub outline: String,
    /// Its creases.
    pub creases: String,
    /// The stock's colour.
    pub colour: String,
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
            let mut creases = aptum_core::geometry::BezPath::new();
            for line in prepared.flat.lines.iter().filter(|line| line.kind != LineKind::Cut) {
                creases.extend(line.path.iter());
            }
            let verdict = match worst {
                Some(check) if state != Standing::Fits => {
                    format!("{}: {}", check.label, check.verdict)
                }
                _ => "all fits".to_owned(),
            };
            let text = |mm| aptum_core::units::format_length(mm, job.unit);
            let [length, width, height] = prepared.flat.sizes.inside;
            JobSummary {
                state: Some(state),
                verdict,
                size: format!(
                    "{} × {} × {} inside",
                    text(length),
                    text(width),
                    aptum_core::units::measure(height, job.unit)
                ),
                sheets: prepared.layout.sheets(),
                drawing: Some(SmallFlat {
                    size: [prepared.flat.bounds.width(), prepared.flat.bounds.height()],
                    outline: path_text(&prepared.flat.outline),
                    creases: path_text(&creases),
                    colour: stock
                        .map_or_else(|| "#ffffff".to_owned(), |stock| stock.colour.clone()),
                }),
                ..base
            }
        }
    }
}
