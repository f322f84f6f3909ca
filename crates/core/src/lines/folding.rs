//! What is told of how a drawing folds, beside its lines: what its panels are called, which stays, what folds when.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

/// What a panel is called.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct PanelName {
    /// A place on it, in units of the file.
    pub at: [f64; 2],
    /// Its name; 1 to 60 characters.
    pub name: String,
    /// The panel on which it hangs, where it could hang on several.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub on: Option<String>,
}

/// A step of the folding.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct StepSay {
    /// What to do, in the imperative; 1 to 200 characters.
    pub text: String,
    /// What turns on its crease, all at once.
    pub turns: Vec<Turn>,
}

/// A panel that turns on its crease.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Turn {
    /// A place on it, in units of the file.
    pub at: [f64; 2],
    /// To how many degrees, -180 to 180; `None` is all the way to closed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub degrees: Option<f64>,
}

/// All that is told of a drawing's folding.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
pub struct ToldFolding {
    /// A place on the panel that stays, in units of the file.
    #[serde(default)]
    pub root: Option<[f64; 2]>,
    /// What its panels are called.
    #[serde(default)]
    pub names: Vec<PanelName>,
    /// What folds when; none where that is found by itself.
    #[serde(default)]
    pub steps: Vec<StepSay>,
}

/// Panels that are told apart.
pub const MOST_TOLD: usize = 400;

/// Steps of the folding that are told.
pub const MOST_STEPS: usize = 60;

/// Turns in all of them together.
pub const MOST_TURNS: usize = 2000;

fn is_place(at: &[f64; 2]) -> bool {
    at.iter().all(|own| own.is_finite())
}

fn is_text(text: &str, most: usize) -> bool {
    (1..=most).contains(&text.chars().count()) && !text.contains(char::is_control)
}

impl PanelName {
    /// True for a name in range.
    #[must_use]
    pub fn is_sound(&self) -> bool {
        is_text(&self.name, 60) && is_place(&self.at)
    }
}

impl StepSay {
    /// True for words and angles in range.
    #[must_use]
    pub fn is_sound(&self) -> bool {
        let is_turn = |turn: &Turn| {
            is_place(&turn.at) && turn.degrees.is_none_or(|degrees| degrees.abs() <= 180.0)
        };
        is_text(&self.text, 200) && self.turns.iter().all(is_turn)
    }
}

impl ToldFolding {
    /// What of it is in range: no name and no step of more.
    #[must_use]
    pub fn sound(mut self) -> Self {
        self.root = self.root.filter(is_place);
        self.names.retain(PanelName::is_sound);
        self.names.truncate(MOST_TOLD);
        let turns: usize = self.steps.iter().map(|step| step.turns.len()).sum();
        if self.steps.len() > MOST_STEPS
            || turns > MOST_TURNS
            || !self.steps.iter().all(StepSay::is_sound)
        {
            self.steps.clear();
        }
        self
    }

    /// The same with every place somewhere else.
    #[must_use]
    pub fn placed(mut self, place: impl Fn([f64; 2]) -> [f64; 2]) -> Self {
        let named = self.names.iter_mut().map(|own| &mut own.at);
        let turned = self.steps.iter_mut().flat_map(|step| &mut step.turns).map(|own| &mut own.at);
        for at in self.root.iter_mut().chain(named).chain(turned) {
            *at = place(*at);
        }
        self
    }
}
