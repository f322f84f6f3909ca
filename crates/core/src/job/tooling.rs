//! What a job says of how its lines are worked.

use std::collections::BTreeMap;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::LineKind;
use crate::error::Faults;
use crate::units::{Unit, measure};

/// What is said of each kind of line, and how pieces are held.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Tooling {
    /// What is said of the kinds of line that are not worked as they come.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub operations: BTreeMap<LineKind, OperationSay>,
    /// Uncut places that hold pieces in the sheet; `None` leaves them to the carrier.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub nicks: Option<Nicks>,
}

/// What is said of the lines of a kind.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct OperationSay {
    /// True where they are not worked.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub off: bool,
    /// The station, by its name; `None` takes the first that holds the tool.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub station: Option<String>,
    /// The force, N; `None` leaves it to the machine.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub force: Option<f64>,
    /// The speed, mm/s; `None` leaves it to the machine.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub speed: Option<f64>,
    /// How often the tool goes along each line, 1 to 20.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub passes: Option<u32>,
}

/// Uncut places in the outlines of pieces.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Nicks {
    /// How wide each is, mm; 0.1 to 5.
    pub width: f64,
    /// How many each outline has, 1 to 40.
    pub count: u32,
}

impl Default for Nicks {
    /// Four of 0.4 mm (common practice).
    fn default() -> Self {
        Self { width: 0.4, count: 4 }
    }
}

impl Tooling {
    /// True where nothing is said.
    #[must_use]
    pub fn is_standard(&self) -> bool {
        *self == Self::default()
    }

    /// What is said of a kind.
    #[must_use]
    pub fn of(&self, kind: LineKind) -> OperationSay {
        self.operations.get(&kind).cloned().unwrap_or_default()
    }

    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        for (kind, say) in &self.operations {
            let field = |name: &str| format!("tooling.operations.{}.{name}", kind.id());
            let label = |what: &str| format!("The {what} of {}", kind.name());
            if let Some(force) = say.force {
                let newtons = |own: f64| format!("{own} N");
                faults.range(&field("force"), &label("force"), force, 0.01..=500.0, newtons);
            }
            if let Some(speed) = say.speed {
                let show = |mm: f64| format!("{}/s", measure(mm, unit));
                faults.range(&field("speed"), &label("speed"), speed, 1.0..=3000.0, show);
            }
            if let Some(passes) = say.passes {
                let show = |own: f64| format!("{own}");
                faults.range(
                    &field("passes"),
                    &label("passes"),
                    f64::from(passes),
                    1.0..=20.0,
                    show,
                );
            }
        }
        if let Some(nicks) = &self.nicks {
            let show = |mm: f64| measure(mm, unit);
            faults.range("tooling.nicks.width", "A nick", nicks.width, 0.1..=5.0, show);
            let count = f64::from(nicks.count);
            faults.range("tooling.nicks.count", "Nicks", count, 1.0..=40.0, |own| format!("{own}"));
        }
    }
}
