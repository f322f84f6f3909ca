//! One ladder: what was tried with all else alike, which values come next, and where they are cut.

use aptum_core::logbook::{Combination, JobNamed, LogEntry, Named as Record};
use aptum_core::tooling::{Advice, Operation, Outcome, Tried, Varied, advise, tool_name};
use aptum_core::units::{Unit, measure};
use aptum_core::workshop::{Cutter, Force, Keeping, Recipe};
use aptum_core::{Prepared, Workshop};

use super::{OutcomeView, RungView, TrialAsk, TrialView, TriedView, ladder, place};
use crate::api::Problem;
use crate::api::logbook::{outcome_words, settings_beside};
use crate::api::tooling::line_of;
use crate::output::cutter_of;
use crate::store::{Logged, Store};
/// What a ladder is made from.
pub(super) struct Ladder<'a> {
    operation: &'a Operation,
    cutter: &'a Cutter,
    /// A rung with the settings that the operation has; what came of it is still open.
    like: LogEntry,
    /// What the Logbook knows of the same with all else alike, the newest first.
    known: Vec<Logged>,
    advice: Advice,
}

impl<'a> Ladder<'a> {
    pub(super) fn of(
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
        let card = prepared.layout.runs.get(ask.run).and_then(|run| prepared.card_of(run));
        let stock = card.or(operation.stocks.first()).cloned().unwrap_or_else(|| "none".into());
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
            sheet: None,
            printed: None,
            counted: None,
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

    pub(super) fn view(
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
