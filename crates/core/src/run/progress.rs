//! How far a run has come: steps ticked, pieces counted, held and stopped. Everything that changes it is a small change by
//! itself, so that two screens and a restart in the middle lose nothing.

use std::collections::BTreeMap;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::sent::{AllSent, Sent, sent};
use super::{Ground, RunStep, StepKind, steps};
use crate::id::PieceId;

/// How often a step was done, and when last.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Done {
    /// How often.
    pub times: u32,
    /// When last, such as `2026-10-12 14:03`.
    pub at: String,
}

/// Why a piece was bad.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Bad {
    /// The print: colour, streaks, a smear.
    Print,
    /// White shows, or art was cut off.
    Place,
    /// The blade did not go through.
    NotThrough,
    /// It went too deep.
    TooDeep,
    /// It tore or moved.
    Torn,
    /// It was folded or glued wrong.
    Fold,
}

impl Bad {
    /// Every cause.
    pub const ALL: [Self; 6] =
        [Self::Print, Self::Place, Self::NotThrough, Self::TooDeep, Self::Torn, Self::Fold];

    /// In words.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Print => "bad print",
            Self::Place => "cut beside the print",
            Self::NotThrough => "not cut through",
            Self::TooDeep => "cut too deep",
            Self::Torn => "torn or moved",
            Self::Fold => "folded wrong",
        }
    }
}

/// Pieces that came out, good ones and bad.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(default)]
pub struct Counted {
    /// Good ones.
    pub good: u32,
    /// Bad ones, by cause.
    pub bad: BTreeMap<Bad, u32>,
}

impl Counted {
    /// How many are bad.
    #[must_use]
    pub fn bad(&self) -> u32 {
        self.bad.values().fold(0, |sum, own| sum.saturating_add(*own))
    }

    /// Both.
    #[must_use]
    pub fn all(&self) -> u32 {
        self.good.saturating_add(self.bad())
    }
}

/// How far a run has come.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[serde(default)]
pub struct Progress {
    /// Steps by their names.
    pub done: BTreeMap<String, Done>,
    /// Pieces that came out.
    pub counts: BTreeMap<PieceId, Counted>,
    /// With what sheets were cut, by the step that cut them.
    pub sent: BTreeMap<String, AllSent>,
    /// The entries of the Logbook that tell of it.
    pub logged: Vec<i32>,
    /// What the printed scale measured, mm.
    pub measured: Option<f64>,
    /// True while it is held.
    pub is_held: bool,
    /// True once it was stopped for good.
    pub is_stopped: bool,
}

/// Something that happens in a run.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(tag = "do", rename_all = "kebab-case")]
pub enum RunChange {
    /// A step is done, once more.
    Tick {
        /// Its name.
        step: String,
    },
    /// It goes back to before a step was done the last time.
    Back {
        /// Its name.
        step: String,
    },
    /// Copies of a piece are counted.
    Count {
        /// The piece.
        piece: PieceId,
        /// What came out.
        counted: Counted,
    },
    /// The printed scale was measured, mm.
    Measure {
        /// Its length.
        mm: f64,
    },
    /// It is held.
    Hold,
    /// It goes on.
    Resume,
    /// It is stopped for good.
    Stop,
}

/// Why nothing was changed.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NoChange {
    /// No such step.
    #[error("the run has no step “{0}”")]
    NoStep(String),
    /// It was done as often as it is asked for.
    #[error("“{0}” is done already: see on which screen")]
    Already(String),
    /// It was not done yet.
    #[error("“{0}” is not done yet: there is nothing to go back to")]
    NotYet(String),
    /// Nothing is done while it is held.
    #[error("the run is held: let it go on first")]
    Held,
    /// Nothing is done once it was stopped.
    #[error("the run was stopped: print the sheets again to begin a new one")]
    Stopped,
    /// No such piece.
    #[error("the sheets hold no piece “{0}”")]
    NoPiece(String),
    /// More pieces than anybody makes.
    #[error("{0} pieces are counted: a run has at most {MOST}")]
    Count(u32),
    /// No such scale.
    #[error("a scale of {0} mm was typed in: type what the ruler says, 1 to 1000 mm")]
    Scale(f64),
}

/// Most pieces of a run.
const MOST: u32 = 100_000;

impl Progress {
    /// How often a step was done.
    #[must_use]
    pub fn times(&self, step: &str) -> u32 {
        self.done.get(step).map_or(0, |done| done.times)
    }

    /// The step that is next; `None` once all are done. Steps that are done for each sheet go round: a sheet is loaded, cut and
    /// looked at before the next one is loaded; of a roll, so many sheets in a row.
    #[must_use]
    pub fn next<'a>(&self, steps: &'a [RunStep]) -> Option<&'a RunStep> {
        let round = |one: &RunStep, two: &RunStep| {
            one.sheets > 1 && (one.sheets, one.loading) == (two.sheets, two.loading)
        };
        let reached = |own: &RunStep| (self.times(&own.id) * own.each).min(own.sheets);
        steps.chunk_by(round).find_map(|own| {
            let least = own.iter().map(reached).min()?;
            own.iter().find(|step| reached(step) == least && least < step.sheets)
        })
    }

    /// Everything that was counted.
    #[must_use]
    pub fn counted(&self) -> Counted {
        let mut all = Counted::default();
        for own in self.counts.values() {
            all.good = all.good.saturating_add(own.good);
            for (cause, count) in &own.bad {
                let sum = all.bad.entry(*cause).or_default();
                *sum = sum.saturating_add(*count);
            }
        }
        all
    }

    /// Notes with what a step cut a sheet, from 1. What went over the wire says so itself; a tick afterwards, for the same
    /// sheet, changes nothing of it.
    pub fn note_sent(&mut self, step: &str, sheet: u32, operations: Vec<Sent>) {
        self.sent.entry(step.to_owned()).or_default().note(sheet, operations);
    }

    /// Makes a change at a moment.
    ///
    /// # Errors
    /// [`NoChange`]: nothing is changed then.
    pub fn change(
        &mut self,
        change: &RunChange,
        ground: &Ground<'_>,
        at: &str,
    ) -> Result<(), NoChange> {
        let steps = &steps(ground);
        if self.is_stopped && !matches!(change, RunChange::Count { .. }) {
            return Err(NoChange::Stopped);
        }
        let found = |id: &String| {
            let step = steps.iter().find(|step| step.id == *id);
            step.ok_or_else(|| NoChange::NoStep(id.chars().take(60).collect()))
        };
        match change {
            RunChange::Tick { step } => {
                let step = found(step)?;
                if self.is_held {
                    return Err(NoChange::Held);
                }
                if self.times(&step.id) >= step.times {
                    return Err(NoChange::Already(step.title.clone()));
                }
                let done = self.done.entry(step.id.clone()).or_default();
                done.times += 1;
                at.clone_into(&mut done.at);
                let sheet = done.times;
                let is_told = self.sent.get(&step.id).is_some_and(|own| own.tells_of(sheet));
                if step.kind == StepKind::Cut && !is_told {
                    self.note_sent(&step.id, sheet, sent(ground.prepared, sheet, step.loading));
                }
            }
            RunChange::Back { step } => {
                let step = found(step)?;
                let done = self.done.get_mut(&step.id).filter(|done| done.times > 0);
                let done = done.ok_or_else(|| NoChange::NotYet(step.title.clone()))?;
                done.times -= 1;
                let left = done.times;
                // What was not cut after all was cut with nothing.
                if let Some(own) = self.sent.get_mut(&step.id) {
                    own.go_back_to(left);
                }
            }
            RunChange::Count { piece, counted } => {
                if !ground.job.pieces.iter().any(|own| own.id == *piece) {
                    return Err(NoChange::NoPiece(piece.shown()));
                }
                if counted.all() > MOST {
                    return Err(NoChange::Count(counted.all()));
                }
                let bad = counted.bad.iter().filter(|own| *own.1 > 0);
                let counted =
                    Counted { good: counted.good, bad: bad.map(|(a, b)| (*a, *b)).collect() };
                self.counts.insert(piece.clone(), counted);
            }
            RunChange::Measure { mm } => {
                if !(1.0..=1000.0).contains(mm) {
                    return Err(NoChange::Scale(*mm));
                }
                self.measured = Some(*mm);
            }
            RunChange::Hold => self.is_held = true,
            RunChange::Resume => self.is_held = false,
            RunChange::Stop => (self.is_stopped, self.is_held) = (true, false),
        }
        Ok(())
    }
}
