//! Recipes: with which settings a kind of line is worked on a stock, by a cutter with a tool.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Force, ForceUnit, Keeping, RecordId, Tool, check_name};
use crate::LineKind;
use crate::error::{Faults, InputError, Remedy};
use crate::units::{Unit, measure};

/// A recipe. What it leaves out is left to the machine.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Recipe {
    /// Its name in lists.
    pub name: String,
    /// The card.
    pub stock: RecordId,
    /// The cutter.
    pub cutter: RecordId,
    /// The tool.
    pub tool: Tool,
    /// The kind of line.
    pub line: LineKind,
    /// The force, in the cutter's unit.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub force: Option<Force>,
    /// The speed, mm/s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub speed: Option<f64>,
    /// How often along each line, 1 to 20.
    pub passes: u32,
    /// The blade's depth, in the station's steps.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<f64>,
    /// The day on which it worked last, such as `2026-10-12`; none where nobody has tried it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub worked: Option<String>,
    /// What else is to be known.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// Where it stands in lists.
    #[serde(default)]
    pub keeping: Keeping,
}

/// Longest note, characters.
const LONGEST_NOTE: usize = 400;

impl Recipe {
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        for (field, id, what) in
            [("stock", &self.stock, "stock"), ("cutter", &self.cutter, "cutter")]
        {
            if !id.is_sound() {
                faults.add(InputError::plain(
                    field,
                    format!("The recipe names no {what}"),
                    Remedy::advice(format!("Choose a {what} from the workshop")),
                ));
            }
        }
        if self.line == LineKind::Guide {
            faults.add(InputError::plain(
                "line",
                "A guide is not worked",
                Remedy::advice("Choose a kind of line that is cut or pressed"),
            ));
        }
        let Self { force, speed, passes, depth, .. } = self;
        let (force, speed, depth) = (*force, *speed, *depth);
        let told = Told { force, speed, passes: Some(*passes), depth };
        told.validate(&str::to_owned, &|what| format!("The {what}"), unit, &mut faults);
        if self.worked.as_deref().is_some_and(|day| !is_day(day)) {
            faults.add(InputError::plain(
                "worked",
                "The day on which it worked last is no day",
                Remedy::advice("Write it as 2026-10-12"),
            ));
        }
        check_note("note", &self.note, &mut faults);
        faults.or(())
    }
}

/// True for a day such as `2026-10-12`.
#[must_use]
pub(super) fn is_day(text: &str) -> bool {
    let parts: Vec<&str> = text.split('-').collect();
    let number = |text: &str, long: usize, range: std::ops::RangeInclusive<u32>| {
        text.len() == long
            && text.bytes().all(|byte| byte.is_ascii_digit())
            && text.parse().is_ok_and(|own| range.contains(&own))
    };
    matches!(parts.as_slice(), [year, month, day]
        if number(year, 4, 1900..=2999) && number(month, 2, 1..=12) && number(day, 2, 1..=31))
}

/// A note of so many characters at most, that can be shown.
pub(crate) fn check_note(field: &str, note: &str, faults: &mut Faults) {
    let long = note.chars().count();
    let is_plain = |c: char| c == '\n' || !c.is_control();
    if long > LONGEST_NOTE || !note.chars().all(is_plain) {
        faults.add(InputError::new(
            field,
            format!("The note has {long} characters, or some that cannot be shown"),
            f64::from(u32::try_from(long).unwrap_or(u32::MAX)),
            Remedy::advice(format!("Use up to {LONGEST_NOTE} characters")),
        ));
    }
}

/// What a tool is told.
pub(crate) struct Told {
    pub force: Option<Force>,
    /// mm/s.
    pub speed: Option<f64>,
    pub passes: Option<u32>,
    /// The station's step.
    pub depth: Option<f64>,
}

impl Told {
    /// Notes every figure out of range: a force as [`force_range`], 1 to 3000 mm/s, 1 to 20 passes, steps of 0 to 100.
    /// `field` gives the path of a field, `name` what a figure is called.
    pub(crate) fn validate(
        &self,
        field: &dyn Fn(&str) -> String,
        name: &dyn Fn(&str) -> String,
        unit: Unit,
        faults: &mut Faults,
    ) {
        if let Some(force) = self.force {
            force_range(&field("force.amount"), &name("force"), force, faults);
        }
        if let Some(speed) = self.speed {
            let show = |mm: f64| format!("{}/s", measure(mm, unit));
            faults.range(&field("speed"), &name("speed"), speed, 1.0..=3000.0, show);
        }
        if let Some(passes) = self.passes {
            let (name, passes) = (name("number of passes"), f64::from(passes));
            faults.range(&field("passes"), &name, passes, 1.0..=20.0, |own| format!("{own}"));
        }
        if let Some(depth) = self.depth {
            let show = |own: f64| format!("step {own}");
            faults.range(&field("depth"), &name("depth"), depth, 0.0..=100.0, show);
        }
    }
}

/// Notes a fault unless a force can be one: 0.01 to 500 N, 1 to 50,000 g, 1 to 1000 steps.
pub(crate) fn force_range(field: &str, name: &str, force: Force, faults: &mut Faults) {
    let range = match force.unit {
        ForceUnit::Newtons => 0.01..=500.0,
        ForceUnit::Grams => 1.0..=50_000.0,
        ForceUnit::Steps => 1.0..=1000.0,
    };
    let show = |amount: f64| Force { amount, ..force }.text();
    faults.range(field, name, force.amount, range, show);
}
