//! Checks: each limit with its value, its bound and the room left.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::Remedy;
use crate::id::PieceId;
use crate::units::{Unit, measure};

/// How a limit stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum State {
    /// Inside the limit.
    Fits,
    /// Inside, but a person should look.
    Attention,
    /// Past the limit.
    Broken,
}

/// The stage in which a limit is met, and whose station in the route it colours.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Stage {
    /// The dieline.
    Form,
    /// What is printed on it.
    Face,
    /// Copies on stock.
    Sheet,
    /// What each line is worked with, and in which order.
    Tooling,
    /// The way between print and cut, tried before it is gone.
    Rehearsal,
    /// The files.
    Run,
}

impl Stage {
    /// Every stage, in the order of the route.
    pub const ALL: [Self; 6] =
        [Self::Form, Self::Face, Self::Sheet, Self::Tooling, Self::Rehearsal, Self::Run];

    /// What it is called.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Form => "Form",
            Self::Face => "Face",
            Self::Sheet => "Sheet",
            Self::Tooling => "Tooling",
            Self::Rehearsal => "Rehearsal",
            Self::Run => "Run",
        }
    }
}

/// Which side of the bound is right.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Sense {
    /// The value may not pass the bound.
    AtMost,
    /// The value may not fall short of the bound.
    AtLeast,
}

/// The drawing on which a check's place lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Drawing {
    /// One piece, in the flat's own coordinates.
    Flat,
    /// The sheet.
    Sheet,
}

/// Where a limit is met.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Place {
    /// On which drawing.
    pub drawing: Drawing,
    /// Of which piece, on a flat.
    pub piece: Option<PieceId>,
    /// SVG path data in mm around or along the place.
    pub path: String,
}

/// A value against its bound, both in mm, degrees or as counts.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Gauge {
    /// The value.
    pub value: f64,
    /// The bound.
    pub bound: f64,
    /// Which side of the bound is right.
    pub sense: Sense,
}

/// A limit: what, where, value, bound, remedy.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Check {
    /// A stable name, such as `blank-across`.
    pub id: String,
    /// Where it belongs in the route.
    pub stage: Stage,
    /// What is measured, in words.
    pub label: String,
    /// How it stands.
    pub state: State,
    /// The numbers; `None` where the limit is a matter of yes or no.
    pub gauge: Option<Gauge>,
    /// The value as a figure.
    pub value_text: String,
    /// The bound as words, such as “of 190.5 mm” or “at least 8 mm”.
    pub bound_text: String,
    /// The room left or what is wrong, in a few words.
    pub verdict: String,
    /// Where to look.
    pub place: Option<Place>,
    /// What would help, best first.
    pub remedies: Vec<Remedy>,
}

impl Check {
    /// A limit on a length in mm, shown in `unit`. It is broken when the bound is passed, with a
    /// tolerance of a nanometre for binary noise.
    #[must_use]
    pub fn length(
        id: &str,
        stage: Stage,
        label: &str,
        (value, sense, bound): (f64, Sense, f64),
        unit: Unit,
    ) -> Self {
        let (room, words) = match sense {
            Sense::AtMost => (bound - value, "of"),
            Sense::AtLeast => (value - bound, "at least"),
        };
        let fits = room >= -1e-6;
        let verdict = match (fits, sense) {
            (true, _) if room < 0.005 => "exactly at the limit".to_owned(),
            (true, Sense::AtMost) => format!("{} left", measure(room.max(0.0), unit)),
            (true, Sense::AtLeast) => format!("{} to spare", measure(room.max(0.0), unit)),
            (false, Sense::AtMost) => format!("{} too much", measure(-room, unit)),
            (false, Sense::AtLeast) => format!("{} short", measure(-room, unit)),
        };
        Self {
            id: id.to_owned(),
            stage,
            label: label.to_owned(),
            state: if fits { State::Fits } else { State::Broken },
            gauge: Some(Gauge { value, bound, sense }),
            value_text: crate::units::format_length(value, unit),
            bound_text: format!("{words} {}", measure(bound, unit)),
            verdict,
            place: None,
            remedies: Vec::new(),
        }
    }

    /// A limit on a count of something.
    #[must_use]
    pub fn count(
        id: &str,
        stage: Stage,
        label: &str,
        (value, sense, bound): (u32, Sense, u32),
        verdict: impl Into<String>,
    ) -> Self {
        let (fits, words) = match sense {
            Sense::AtMost => (value <= bound, "of"),
            Sense::AtLeast => (value >= bound, "of"),
        };
        Self {
            id: id.to_owned(),
            stage,
            label: label.to_owned(),
            state: if fits { State::Fits } else { State::Broken },
            gauge: Some(Gauge { value: f64::from(value), bound: f64::from(bound), sense }),
            value_text: value.to_string(),
            bound_text: format!("{words} {bound}"),
            verdict: verdict.into(),
            place: None,
            remedies: Vec::new(),
        }
    }

    /// A limit that is a matter of yes or no: what there is, and what would be right.
    #[must_use]
    pub fn yes_or_no(
        id: &str,
        stage: Stage,
        label: &str,
        state: State,
        [value, bound, verdict]: [String; 3],
    ) -> Self {
        Self {
            id: id.to_owned(),
            stage,
            label: label.to_owned(),
            state,
            gauge: None,
            value_text: value,
            bound_text: bound,
            verdict,
            place: None,
            remedies: Vec::new(),
        }
    }

    /// The same with a place to look.
    #[must_use]
    pub fn at(mut self, drawing: Drawing, path: String) -> Self {
        self.place = Some(Place { drawing, piece: None, path });
        self
    }

    /// The same with another verdict.
    #[must_use]
    pub fn saying(mut self, verdict: impl Into<String>) -> Self {
        self.verdict = verdict.into();
        self
    }

    /// The same, asking for a look where it fits.
    #[must_use]
    pub fn attention(mut self, verdict: impl Into<String>) -> Self {
        if self.state == State::Fits {
            self.state = State::Attention;
            self.verdict = verdict.into();
        }
        self
    }

    /// The same, something to look at where it is broken: people do it on purpose.
    #[must_use]
    pub fn softened(mut self, verdict: impl Into<String>) -> Self {
        if self.state == State::Broken {
            self.state = State::Attention;
            self.verdict = verdict.into();
        }
        self
    }

    /// The same with a remedy, unless it fits.
    #[must_use]
    pub fn remedy(mut self, remedy: Remedy) -> Self {
        if self.state != State::Fits {
            self.remedies.push(remedy);
        }
        self
    }

    /// The same with several remedies, worked out only when it does not fit.
    #[must_use]
    pub fn remedies(mut self, remedies: impl FnOnce() -> Vec<Remedy>) -> Self {
        if self.state != State::Fits {
            self.remedies.extend(remedies());
        }
        self
    }
}
