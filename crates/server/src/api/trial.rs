//! Test cuts: the next ladder for an operation, what was tried so far, and the file that cuts it.

use std::io::Write;

use aptum_core::geometry::Rect;
use aptum_core::logbook::{Combination, JobNamed, LogEntry, Named as Record};
use aptum_core::tooling::{
    Advice, Operation, Outcome, Trial, Tried, Varied, advise, free_place, scrap_place, tool_name,
    trial,
};
use aptum_core::units::{Unit, measure};
use aptum_core::workshop::{Cutter, Force, Keeping, Recipe};
use aptum_core::{Job, Prepared, Workshop};
use aptum_formats::svg::trial_svg;
use rocket::form::FromFormField;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::files::Download;
use super::logbook::{outcome_words, settings_beside};
use super::tooling::line_of;
use crate::desk::Desk;
use crate::output::{Language, cutter_of};
use crate::shelf::prepared;
use crate::store::{Logged, Store};

/// Most rungs of one ladder.
const MOST: usize = 12;

/// Where a ladder is cut.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS, FromFormField,
)]
#[serde(rename_all = "kebab-case")]
pub enum TrialOn {
    /// In a free place of the sheet.
    Sheet,
    /// On a scrap in the corner in which the blade starts.
    Scrap,
}

/// Which ladder is meant.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct TrialAsk {
    job: Job,
    /// The job's number, for the Logbook.
    #[serde(default)]
    id: Option<i32>,
    /// Which run of its sheets.
    run: usize,
    /// Which operation.
    operation: String,
    #[serde(default)]
    varied: Varied,
    on: TrialOn,
}

/// A ladder, what was tried before, and what follows from it.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TrialView {
    /// Such as “kiss cut on jar label paper, with a knife in Left”.
    title: String,
    varied: Varied,
    on: TrialOn,
    /// What to do next.
    advice: String,
    /// True where what is looked for is bracketed.
    is_settled: bool,
    /// Entries that contradict each other.
    contradiction: Vec<i32>,
    /// The rungs of the next ladder; none where there is nothing to try.
    rungs: Vec<RungView>,
    /// How long the ladder takes, s.
    seconds: Option<f64>,
    /// What was tried of this so far, by value.
    tried: Vec<TriedView>,
    /// The outcomes, in words that suit the line.
    outcomes: Vec<OutcomeView>,
    /// What would be kept, where it is settled.
    recipe: Option<Recipe>,
    /// Why there is no ladder, in words; empty where there is one.
    trouble: String,
    /// The settings that all rungs share.
    settings: String,
}

/// A rung.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RungView {
    value: f64,
    text: String,
    /// Where it lies, mm: left, top, width, height.
    place: [f64; 4],
    /// Its lines, SVG path data, mm.
    line: String,
    /// What the Logbook is told when its outcome is known.
    entry: LogEntry,
}

/// What was tried.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TriedView {
    id: i32,
    value: f64,
    text: String,
    outcome: Outcome,
    made_at: String,
}

/// What may come of a rung.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OutcomeView {
    outcome: Outcome,
    text: String,
}

/// The next ladder of an operation.
#[post("/trial", data = "<ask>")]
pub async fn next(desk: &State<Desk>, ask: Body<TrialAsk>) -> Result<Json<TrialView>, Problem> {
    desk.slow(move |store| {
        let ask = ask.0;
        let workshop = store.workshop()?;
        let prepared = prepared(&ask.job, &workshop, store)?;
        let desk = Ladder::of(&ask, &prepared, &workshop, store)?;
        Ok(Json(desk.view(&ask, &prepared, store)?))
    })
    .await
}

/// What a ladder is made from.
struct Ladder<'a> {
    operation: &'a Operation,
    cutter: &'a Cutter,
    /// A rung with the settings that the operation has; what came of it is still open.
    like: LogEntry,
    /// What the Logbook knows of the same with all else alike, the newest first.
    known: Vec<Logged>,
    advice: Advice,
}

impl<'a> Ladder<'a> {
    fn of(
        ask: &TrialAsk,
        prepared: &'a Prepared,
        workshop: &'a Workshop,
        store: &Store,
    ) -> Result<Self, Problem> {
        let own = prepared.operations.iter().find(|own| own.id.0 == ask.operation);
        let operation = own.ok_or_else(|| {
            let shown: String = ask.operation.chars().take(40).collect();
            Problem::missing(format!("The job has no operation “{shown}”: look at Tooling again"))
        })?;
        let cutter = cutter_of(&ask.job, workshop).ok_or_else(|| {
            Problem::missing("The job is cut by hand: choose a cutter on Sheet for a test cut")
        })?;
        let cutter_id = ask.job.sheet.cutter.clone().unwrap_or_else(|| "none".into());
        // Sheets of one run are of one card.
        let first = prepared.layout.runs.get(ask.run).and_then(|run| run.placements.first());
        let blank = first.and_then(|at| prepared.blanks().nth(at.part));
        let stock = blank.map_or_else(
            || operation.stocks.iter().next().cloned().unwrap_or_else(|| "none".into()),
            |blank| {
                let piece = &prepared.pieces[blank.piece].job_piece;
                blank.part.stock.as_ref().unwrap_or(&piece.stock).clone()
            },
        );
        if !operation.stocks.contains(&stock) {
            return Err(Problem::missing(format!(
                "{} works nothing on these sheets: choose others below the path",
                operation.name()
            )));
        }
        let stock_name = workshop.stocks.get(&stock).map_or("card", |own| own.name.as_str());
        let like = LogEntry {
            job: ask.id.map(|id| JobNamed { id, name: ask.job.name.clone() }),
            stock: Record { id: stock, name: stock_name.to_owned() },
            cutter: Record { id: cutter_id, name: cutter.name.clone() },
            tool: operation.tool,
            line: operation.kind,
            force: operation.force.filter(|own| own.unit == cutter.force_unit),
            speed: operation.speed,
            passes: operation.passes,
            depth: operation.depth,
            varied: Some(ask.varied),
            outcome: Outcome::JustRight,
            note: String::new(),
        };
        let combination = Combination {
            stock: &like.stock.id,
            cutter: &like.cutter.id,
            tool: like.tool,
            line: like.line,
        };
        let all = store.logbook()?.into_iter();
        let known: Vec<Logged> = all
            .filter(|own| own.entry.is_of(&combination))
            .filter(|own| own.entry.is_beside(ask.varied, &like))
            .filter(|own| own.entry.value(ask.varied).is_some())
            .collect();
        let tried: Vec<Tried> =
            known.iter().filter_map(|own| own.entry.tried(ask.varied)).collect();
        let advice = advise(&tried, operation.kind, ask.varied, ask.varied.reach(cutter));
        Ok(Self { operation, cutter, like, known, advice })
    }

    fn text(&self, varied: Varied, value: f64) -> String {
        match varied {
            Varied::Force => Force { amount: value, unit: self.cutter.force_unit }.text(),
            Varied::Depth => format!("depth {value}"),
            Varied::Speed => format!("{}/s", measure(value, Unit::Mm)),
            Varied::Passes => format!("{value} passes"),
        }
    }

    /// What a rung tells the Logbook.
    fn rung(&self, varied: Varied, value: f64) -> LogEntry {
        let own = self.operation.with(varied, value, self.cutter);
        LogEntry {
            force: own.force.filter(|force| force.unit == self.cutter.force_unit),
            speed: own.speed,
            passes: own.passes,
            depth: own.depth,
            ..self.like.clone()
        }
    }

    fn words(&self, varied: Varied) -> String {
        let text = |value: f64| self.text(varied, value);
        let line = self.operation.kind;
        let name = varied.name();
        match &self.advice {
            Advice::Try(rungs) if self.known.is_empty() => format!(
                "Nothing is known yet: cut {} rungs from {} to {} and tap what came of each",
                rungs.len(),
                text(rungs.first().copied().unwrap_or_default()),
                text(rungs.last().copied().unwrap_or_default()),
            ),
            Advice::Try(rungs) if rungs.len() == 1 => {
                format!("One more: {}", text(rungs[0]))
            }
            Advice::Try(rungs) => format!(
                "Narrower: {} to {}",
                text(rungs.first().copied().unwrap_or_default()),
                text(rungs.last().copied().unwrap_or_default()),
            ),
            Advice::Settled { value, from, to } if from == to => {
                format!(
                    "{} it is: less is {}",
                    text(*value),
                    outcome_words(Outcome::NotThrough, line)
                )
            }
            Advice::Settled { value, from, to } => {
                format!("{} it is: {} to {} are just right", text(*value), text(*from), text(*to))
            }
            Advice::NeverThrough => {
                let other = if varied == Varied::Force { "the depth" } else { "the force" };
                format!("No {name} goes through with these settings: change {other} and try again")
            }
            Advice::AlwaysTooDeep => {
                let other = if varied == Varied::Force { "the depth" } else { "the force" };
                format!(
                    "Every {name} goes too deep with these settings: change {other} and try again"
                )
            }
            Advice::NothingBetween(low, high) => format!(
                "{} is too little and {} too much: change something else than the {name}",
                text(*low),
                text(*high)
            ),
            Advice::Contradiction(one, other) => format!(
                "{} was {} and {} was {}: one of them cannot be. Take one back, or cut both again",
                text(one.value),
                outcome_words(one.outcome, line),
                text(other.value),
                outcome_words(other.outcome, line)
            ),
        }
    }

    fn view(
        &self,
        ask: &TrialAsk,
        prepared: &Prepared,
        store: &Store,
    ) -> Result<TrialView, Problem> {
        let varied = ask.varied;
        let (operation, cutter) = (self.operation, self.cutter);
        let values = match &self.advice {
            Advice::Try(rungs) => rungs.clone(),
            _ => Vec::new(),
        };
        let place = place(prepared, cutter, ask.run, ask.on, values.len());
        let mut trouble = String::new();
        let mut seconds = None;
        let mut rungs = Vec::new();
        if let (Some(place), false) = (place, values.is_empty()) {
            let own = ladder(prepared, operation, varied, &values, place, cutter);
            seconds = own.path.seconds;
            for (number, value) in values.iter().enumerate() {
                let lines = own.path.stretches.iter().filter(|own| own.operation == number);
                let at = own.rungs[number];
                rungs.push(RungView {
                    value: *value,
                    text: self.text(varied, *value),
                    place: [at.x0, at.y0, at.width(), at.height()],
                    line: lines.map(|own| line_of(&own.line)).collect(),
                    entry: self.rung(varied, *value),
                });
            }
        } else if !values.is_empty() {
            "The sheet has no free place for a ladder: cut it on a scrap".clone_into(&mut trouble);
        }
        if operation.station.is_none() {
            trouble =
                format!("No station of {} holds a {}", cutter.name, tool_name(operation.tool));
        }
        let recipe = match &self.advice {
            Advice::Settled { value, .. } => Some(self.recipe(varied, *value, &store.today()?)),
            _ => None,
        };
        let contradiction = match &self.advice {
            Advice::Contradiction(one, other) => [one, other]
                .into_iter()
                .filter_map(|own| {
                    self.known.iter().find(|logged| logged.entry.tried(varied) == Some(*own))
                })
                .map(|own| own.id)
                .collect(),
            _ => Vec::new(),
        };
        let mut tried: Vec<TriedView> = self
            .known
            .iter()
            .filter_map(|own| {
                let value = own.entry.value(varied)?;
                let text = self.text(varied, value);
                let (outcome, made_at) = (own.entry.outcome, own.made_at.clone());
                Some(TriedView { id: own.id, value, text, outcome, made_at })
            })
            .collect();
        tried.sort_by(|one, other| one.value.total_cmp(&other.value));
        let outcome = |outcome: Outcome| OutcomeView {
            outcome,
            text: outcome_words(outcome, operation.kind).to_owned(),
        };
        let station = operation.station.and_then(|at| cutter.stations.get(at));
        let (name, stock) = (operation.kind.name(), &self.like.stock.name);
        Ok(TrialView {
            title: format!(
                "{name} on {stock}, with a {}{}",
                tool_name(operation.tool),
                station.map_or_else(String::new, |station| format!(" in {}", station.name))
            ),
            varied,
            on: ask.on,
            advice: self.words(varied),
            is_settled: recipe.is_some(),
            contradiction,
            rungs,
            seconds,
            tried,
            outcomes: [Outcome::NotThrough, Outcome::JustRight, Outcome::TooDeep]
                .map(outcome)
                .into(),
            recipe,
            trouble,
            settings: settings_beside(&self.like, varied, ask.job.unit),
        })
    }

    fn recipe(&self, varied: Varied, value: f64, day: &str) -> Recipe {
        let own = self.rung(varied, value);
        let name = format!("{} on {}", own.line.name(), own.stock.name);
        Recipe {
            name: name.chars().take(80).collect(),
            stock: own.stock.id,
            cutter: own.cutter.id,
            tool: own.tool,
            line: own.line,
            force: own.force,
            speed: own.speed,
            passes: own.passes,
            depth: own.depth,
            worked: Some(day.to_owned()),
            note: String::new(),
            keeping: Keeping::Kept,
        }
    }
}

/// Where a ladder lies; `None` where the sheet has no room for it.
fn place(
    prepared: &Prepared,
    cutter: &Cutter,
    run: usize,
    on: TrialOn,
    rungs: usize,
) -> Option<Rect> {
    match on {
        TrialOn::Sheet => free_place(&prepared.laid, &prepared.blank_paths(), run, rungs),
        TrialOn::Scrap => Some(scrap_place(prepared.windows.page, cutter, rungs)),
    }
}

fn ladder(
    prepared: &Prepared,
    operation: &Operation,
    varied: Varied,
    values: &[f64],
    place: Rect,
    cutter: &Cutter,
) -> Trial {
    let windows = &prepared.windows;
    trial(operation, varied, values, place, cutter, windows.page, &windows.cut)
}

/// The file that cuts a ladder: its rungs' values with commas between them.
#[get("/jobs/<id>/trial/<language>?<operation>&<varied>&<values>&<run>&<on>")]
#[expect(clippy::too_many_arguments, reason = "what a link says")]
pub async fn file(
    desk: &State<Desk>,
    id: i32,
    language: &str,
    operation: String,
    varied: &str,
    values: String,
    run: usize,
    on: TrialOn,
) -> Result<Download, Problem> {
    let known = [Varied::Force, Varied::Depth, Varied::Speed, Varied::Passes];
    let varied = known
        .into_iter()
        .find(|own| own.name() == varied)
        .ok_or_else(|| Problem::missing("A ladder varies force, depth, speed or passes"))?;
    let read: Result<Vec<f64>, _> = values.split(',').take(MOST + 1).map(str::parse).collect();
    let values = read.ok().filter(|own| {
        (1..=MOST).contains(&own.len()) && own.iter().all(|value| (0.0..=50_000.0).contains(value))
    });
    let values = values.ok_or_else(|| {
        Problem::missing(format!("A ladder has 1 to {MOST} rungs, each a number"))
    })?;
    let language = match language {
        "test.hpgl" => Some(Language::Hpgl),
        "test.nc" => Some(Language::Gcode),
        "test.svg" => None,
        _ => return Err(Problem::missing("A test cut is test.hpgl, test.nc or test.svg")),
    };
    Download::of_job(desk, id, move |job, workshop, prepared| {
        let cutter = cutter_of(job, workshop).ok_or_else(|| {
            Problem::missing("The job is cut by hand: choose a cutter on Sheet for a test cut")
        })?;
        let own = prepared.operations.iter().find(|own| own.id.0 == operation);
        let own = own.ok_or_else(|| Problem::missing("The job has no such operation any more"))?;
        let most = varied.reach(cutter).most;
        if let Some(past) = values.iter().find(|value| **value > most) {
            return Err(Problem::held(format!(
                "A rung of {past} is more than the {most} that the cutter has for {}: leave it out",
                varied.name()
            )));
        }
        let place = place(prepared, cutter, run, on, values.len()).ok_or_else(|| {
            Problem::missing("The sheet has no free place for a ladder: cut it on a scrap")
        })?;
        let trial = ladder(prepared, own, varied, &values, place, cutter);
        let (page, cutter) = (prepared.windows.page, cutter.clone());
        let name = match language {
            Some(language) => format!("test.{}", language.ending()),
            None => "test.svg".to_owned(),
        };
        if language.is_some_and(|own| !own.is_taken_by(&cutter)) {
            return Err(Problem::missing("The job’s cutter does not take this language"));
        }
        Ok((name, move |out: &mut dyn Write| match language {
            Some(language) => language.write(&trial.path, 0, &cutter, page, out),
            None => out.write_all(trial_svg(&trial, page).as_bytes()),
        }))
    })
    .await
}
