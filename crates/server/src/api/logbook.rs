//! The Logbook: what was tried on which card with what, and what came of it, found again.

use aptum_core::LineKind;
use aptum_core::logbook::{LogEntry, PrintedBy};
use aptum_core::run::Counted;
use aptum_core::tooling::{Outcome, Varied, tool_name};
use aptum_core::units::{Unit, measure};
use aptum_core::workshop::PrintSettings;
use rocket::serde::json::Json;
use rocket::{State, delete, get, post, put};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::store::{Logged, Store};

/// Most entries that one answer holds.
const MOST: usize = 500;

/// An entry, in words.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LogView {
    id: i32,
    /// When, such as `2026-10-12 14:03`.
    made_at: String,
    entry: LogEntry,
    /// Such as “kiss cut with a knife”.
    what: String,
    /// The settings that were sent.
    settings: String,
    /// What came of it, in words that suit the line.
    outcome: String,
    /// What was set when its sheets were printed; empty where nothing is known of that.
    printed: String,
    /// What came out; empty where nothing was counted.
    counted: String,
    /// The frozen print that it tells of, as long as it is kept.
    print: Option<i32>,
}

/// The entries that were looked for.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LogbookView {
    entries: Vec<LogView>,
    /// How many there are in all.
    all: usize,
    /// How many were found; the first of them are shown.
    found: usize,
}

/// What is found out later of an entry.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct LogChange {
    outcome: Outcome,
    note: String,
}

/// What came of it, in words that suit the line.
pub(super) const fn outcome_words(outcome: Outcome, line: LineKind) -> &'static str {
    match (outcome, line) {
        (Outcome::JustRight, _) => "just right",
        (Outcome::NotThrough, LineKind::Crease | LineKind::ReverseCrease) => "too faint",
        (Outcome::TooDeep, LineKind::Crease | LineKind::ReverseCrease) => "cracks",
        (Outcome::NotThrough, _) => "not through",
        (Outcome::TooDeep, LineKind::KissCut) => "into the liner",
        (Outcome::TooDeep, LineKind::Score) => "right through",
        (Outcome::TooDeep, _) => "into the bed",
    }
}

/// The settings of an entry.
pub(super) fn settings_words(entry: &LogEntry, unit: Unit) -> String {
    words_of(entry, None, unit).join(", ")
}

/// The settings that the rungs of a ladder share.
pub(super) fn settings_beside(entry: &LogEntry, varied: Varied, unit: Unit) -> String {
    let words = words_of(entry, Some(varied), unit);
    if words.is_empty() { "left to the machine".to_owned() } else { words.join(", ") }
}

fn printed_words(own: &PrintedBy) -> String {
    let settings = own.settings.iter().flat_map(PrintSettings::words);
    settings.collect::<Vec<_>>().join(", ")
}

fn counted_words(own: &Counted) -> String {
    let bad = own.bad.iter().map(|(cause, count)| format!("{count} {}", cause.name()));
    let bad: Vec<String> = bad.collect();
    let bad = if bad.is_empty() { "none bad".to_owned() } else { bad.join(", ") };
    format!("{} good, {bad}", own.good)
}

fn words_of(entry: &LogEntry, without: Option<Varied>, unit: Unit) -> Vec<String> {
    let force = entry.force.map_or_else(|| "the machine’s force".to_owned(), |own| own.text());
    let passes = (entry.passes > 1).then(|| format!("{} passes", entry.passes));
    let all = [
        (Varied::Force, Some(force)),
        (Varied::Speed, entry.speed.map(|speed| format!("{}/s", measure(speed, unit)))),
        (Varied::Depth, entry.depth.map(|depth| format!("depth {depth}"))),
        (Varied::Passes, passes),
    ];
    all.into_iter().filter(|own| Some(own.0) != without).filter_map(|own| own.1).collect()
}

impl LogView {
    pub(super) fn new(logged: Logged) -> Self {
        let Logged { id, made_at, entry } = logged;
        Self {
            id,
            made_at,
            what: format!("{} with a {}", entry.line.name(), tool_name(entry.tool)),
            settings: settings_words(&entry, Unit::Mm),
            outcome: outcome_words(entry.outcome, entry.line).to_owned(),
            printed: entry.printed.as_ref().map_or_else(String::new, printed_words),
            counted: entry.counted.as_ref().map_or_else(String::new, counted_words),
            print: None,
            entry,
        }
    }

    /// True where every word of a search is in it.
    fn has(&self, words: &[String]) -> bool {
        let job = self.entry.job.as_ref().map_or("", |job| job.name.as_str());
        let (stock, cutter) = (&self.entry.stock.name, &self.entry.cutter.name);
        let all = [&self.made_at, &self.what, &self.settings, &self.outcome, stock, cutter];
        let printer = self.entry.printed.as_ref().map_or("", |own| own.printer.name.as_str());
        let own = [job, &self.entry.note, &self.printed, &self.counted, printer];
        let code = self.entry.sheet.as_ref().map_or("", |sheet| sheet.code.as_str());
        let text = all.into_iter().map(String::as_str).chain(own).chain([code]);
        let text = text.collect::<Vec<_>>().join(" ").to_lowercase();
        words.iter().all(|word| text.contains(word))
    }
}

/// Entries, the newest first, in which every word of `text` is found.
#[get("/logbook?<text>")]
pub async fn logbook(
    desk: &State<Desk>,
    text: Option<String>,
) -> Result<Json<LogbookView>, Problem> {
    desk.quick(move |store| found(store, text.as_deref().unwrap_or_default())).await
}

fn found(store: &Store, text: &str) -> Result<Json<LogbookView>, Problem> {
    let words: Vec<String> = text
        .chars()
        .take(200)
        .collect::<String>()
        .to_lowercase()
        .split_whitespace()
        .map(String::from)
        .collect();
    let all: Vec<LogView> = store.logbook()?.into_iter().map(LogView::new).collect();
    let count = all.len();
    let mut entries: Vec<LogView> = all.into_iter().filter(|own| own.has(&words)).collect();
    let found = entries.len();
    entries.truncate(MOST);
    let kept = store.prints_kept()?;
    for own in &mut entries {
        own.print = own.entry.sheet.as_ref().map(|own| own.print).filter(|id| kept.contains(id));
    }
    Ok(Json(LogbookView { entries, all: count, found }))
}

/// Adds an entry.
#[post("/logbook", data = "<entry>")]
pub async fn add(desk: &State<Desk>, entry: Body<LogEntry>) -> Result<Json<i32>, Problem> {
    let entry = entry.0;
    entry.validate(Unit::Mm)?;
    desk.write(move |store| {
        let ids = store.log(&[(None, &entry)])?;
        Ok(Json(ids.first().copied().unwrap_or_default()))
    })
    .await
}

/// Says what came of an entry after all.
#[put("/logbook/<id>", data = "<change>")]
pub async fn change(desk: &State<Desk>, id: i32, change: Body<LogChange>) -> Result<(), Problem> {
    let LogChange { outcome, note } = change.0;
    desk.write(move |store| {
        let known = store.logbook()?.into_iter().find(|own| own.id == id);
        let known = known.ok_or_else(|| missing(id))?;
        let entry = LogEntry { outcome, note, ..known.entry };
        entry.validate(Unit::Mm)?;
        if store.relog(id, &entry)? { Ok(()) } else { Err(missing(id)) }
    })
    .await
}

/// Takes an entry out.
#[delete("/logbook/<id>")]
pub async fn remove(desk: &State<Desk>, id: i32) -> Result<(), Problem> {
    desk.write(move |store| if store.unlog(id)? { Ok(()) } else { Err(missing(id)) }).await
}

fn missing(id: i32) -> Problem {
    Problem::missing(format!(
        "The Logbook has no entry {id} any more: another window may have taken it out"
    ))
}
