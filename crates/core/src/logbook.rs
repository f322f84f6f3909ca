//! The Logbook: what was tried on which card with what, and what came of it.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::LineKind;
use crate::error::{Faults, InputError, Remedy};
use crate::run::Counted;
use crate::tooling::{Outcome, Tried, Varied};
use crate::units::Unit;
use crate::workshop::{Force, PrintSettings, RecordId, Told, Tool, check_name, check_note};

/// A record of the workshop, with the name that it had.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Named {
    /// Which it is.
    pub id: RecordId,
    /// What it was called.
    pub name: String,
}

/// The job for which something was tried.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct JobNamed {
    /// Which it is.
    pub id: i32,
    /// What it was called.
    pub name: String,
}

/// The sheets on which something was done.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct SheetNamed {
    /// The frozen print.
    pub print: i32,
    /// The code on its sheets.
    pub code: String,
}

/// By which printer the sheets were printed, and how.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct PrintedBy {
    /// The printer.
    pub printer: Named,
    /// What was set, where a recipe says so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub settings: Option<PrintSettings>,
}

/// An entry: a setting that was tried, with what was really sent.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct LogEntry {
    /// For which job; none where it was tried for its own sake.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub job: Option<JobNamed>,
    /// On which card.
    pub stock: Named,
    /// By which cutter.
    pub cutter: Named,
    /// With which tool.
    pub tool: Tool,
    /// Along which kind of line.
    pub line: LineKind,
    /// The force that was sent; none was left to the machine.
    #[serde(default)]
    pub force: Option<Force>,
    /// The speed, mm/s.
    #[serde(default)]
    pub speed: Option<f64>,
    /// The passes.
    pub passes: u32,
    /// The blade's depth, in the station's steps.
    #[serde(default)]
    pub depth: Option<f64>,
    /// What the ladder varied of which this is a rung; none where it was no ladder.
    #[serde(default)]
    pub varied: Option<Varied>,
    /// On which printed sheets; none where it was a test cut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sheet: Option<SheetNamed>,
    /// How these were printed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub printed: Option<PrintedBy>,
    /// How many pieces came out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub counted: Option<Counted>,
    /// What came of it.
    pub outcome: Outcome,
    /// What else is to be known.
    #[serde(default)]
    pub note: String,
}

/// What trials have to have in common to tell of each other.
#[derive(Debug, Clone, PartialEq)]
pub struct Combination<'a> {
    /// The card.
    pub stock: &'a RecordId,
    /// The cutter.
    pub cutter: &'a RecordId,
    /// The tool.
    pub tool: Tool,
    /// The kind of line.
    pub line: LineKind,
}

impl LogEntry {
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        for (field, own) in [("stock", &self.stock), ("cutter", &self.cutter)] {
            check_name(&format!("{field}.name"), &own.name, &mut faults);
            if !own.id.is_sound() {
                faults.add(InputError::plain(
                    &format!("{field}.id"),
                    format!("The entry names no {field}"),
                    Remedy::advice("Name a record of the workshop"),
                ));
            }
        }
        if let Some(job) = &self.job {
            check_name("job.name", &job.name, &mut faults);
        }
        let Self { force, speed, passes, depth, .. } = self;
        let (force, speed, depth) = (*force, *speed, *depth);
        let told = Told { force, speed, passes: Some(*passes), depth };
        told.validate(&str::to_owned, &|what| format!("The {what}"), unit, &mut faults);
        if let Some(printed) = &self.printed {
            check_name("printed.printer.name", &printed.printer.name, &mut faults);
            if let Some(settings) = &printed.settings {
                settings.validate("printed.settings", &mut faults);
            }
        }
        if self.sheet.as_ref().is_some_and(|sheet| sheet.code.len() > 40) {
            faults.add(InputError::plain(
                "sheet.code",
                "The code of the sheets is longer than any",
                Remedy::advice("Write the code as it stands on them"),
            ));
        }
        check_note("note", &self.note, &mut faults);
        faults.or(())
    }

    /// True where it tells of a combination.
    #[must_use]
    pub fn is_of(&self, own: &Combination<'_>) -> bool {
        self.stock.id == *own.stock
            && self.cutter.id == *own.cutter
            && self.tool == own.tool
            && self.line == own.line
    }

    /// True where both tell of the same, done with the same settings.
    #[must_use]
    pub fn is_with_the_same(&self, other: &Self) -> bool {
        let settings = |own: &Self| (own.force, own.speed, own.passes, own.depth);
        let of = |own: &Self| (own.stock.id.clone(), own.cutter.id.clone(), own.tool, own.line);
        of(self) == of(other) && settings(self) == settings(other)
    }

    /// The value of what a ladder varies; `None` where that was left to the machine.
    #[must_use]
    pub fn value(&self, varied: Varied) -> Option<f64> {
        match varied {
            Varied::Force => self.force.map(|force| force.amount),
            Varied::Depth => self.depth,
            Varied::Speed => self.speed,
            Varied::Passes => Some(f64::from(self.passes)),
        }
    }

    /// True where a rung of a ladder that varies something tells of the same with these other settings.
    #[must_use]
    pub fn is_beside(&self, varied: Varied, other: &Self) -> bool {
        let same = |one: Option<f64>, two: Option<f64>| match (one, two) {
            (Some(one), Some(two)) => (one - two).abs() < 1e-6,
            (None, None) => true,
            _ => false,
        };
        let unit = |own: &Self| own.force.map(|force| force.unit);
        let each = [Varied::Force, Varied::Depth, Varied::Speed, Varied::Passes];
        let is_same_unit = match (unit(self), unit(other)) {
            (Some(one), Some(two)) => one == two,
            _ => true,
        };
        is_same_unit
            && each
                .into_iter()
                .filter(|own| *own != varied)
                .all(|own| same(self.value(own), other.value(own)))
    }

    /// What it says to a ladder that varies something.
    #[must_use]
    pub fn tried(&self, varied: Varied) -> Option<Tried> {
        Some(Tried { value: self.value(varied)?, outcome: self.outcome })
    }
}
