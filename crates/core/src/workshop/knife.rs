//! What a cutter's tools need and how it moves: the knife that trails, its pace, and the language it takes.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::Corner;
use crate::error::{Faults, InputError, Remedy};
use crate::units::{Unit, measure};

/// Who allows for the blade's offset and overcut.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum AllowedBy {
    /// The machine: it is sent the lines as they are.
    #[default]
    Machine,
    /// Aptum: it is sent the way of the blade's axis.
    Aptum,
}

/// A knife that trails behind its axis.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Knife {
    /// How far the tip lies behind the axis, mm; 0 to 2.
    pub offset: f64,
    /// How far a closed cut goes past where it began, mm; 0 to 10.
    pub overcut: f64,
    /// Who allows for both.
    #[serde(default)]
    pub allowed_by: AllowedBy,
}

impl Default for Knife {
    /// 0.25 mm behind and 1 mm past (common practice).
    fn default() -> Self {
        Self { offset: 0.25, overcut: 1.0, allowed_by: AllowedBy::Machine }
    }
}

/// How fast it moves.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Pace {
    /// While a tool is down and nobody says otherwise, mm/s; 1 to 3000.
    pub working: f64,
    /// While it is up, mm/s; 1 to 3000.
    pub travel: f64,
    /// How quickly it gets there, mm/s²; 10 to 50,000.
    pub acceleration: f64,
    /// Lifting and lowering together, s; 0 to 2.
    pub lift: f64,
}

/// The language that it takes: HP-GL, with what differs from machine to machine.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Dialect {
    /// Units in a millimetre; HP-GL has 40.
    pub units: f64,
    /// The corner of the sheet from which it counts.
    pub origin: Corner,
    /// True where x runs along the sheet's feed.
    #[serde(default)]
    pub swapped: bool,
    /// What chooses a station, `{}` its number from 1; HP-GL has `SP{};`.
    pub station: String,
    /// What sets the force, `{}` the number in the cutter's unit; empty where it is set on the machine.
    #[serde(default)]
    pub force: String,
    /// What sets the speed, `{}` cm/s; HP-GL has `VS{};`. Empty where it is set on the machine.
    #[serde(default)]
    pub speed: String,
    /// What sets the blade's depth, `{}` its step; empty where that is set by hand.
    #[serde(default)]
    pub depth: String,
    /// What tells how often it goes along each line, `{}` the passes; empty where lines are sent again for each pass.
    #[serde(default)]
    pub passes: String,
    /// True where it takes the commands by which the cutters that ship with Aptum are told of marks and of the code.
    #[serde(default)]
    pub marks: bool,
}

/// How it takes G-code (ISO 6983): millimetres, from the sheet's lower left corner.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Gcode {
    /// How high the tool travels above the card, mm; 0.5 to 50.
    pub travel: f64,
    /// How deep it goes where no depth is told, mm below the card's face; 0 to 20.
    pub depth: f64,
}

impl Default for Gcode {
    /// 3 mm above, and 0.5 mm below (common practice for card).
    fn default() -> Self {
        Self { travel: 3.0, depth: 0.5 }
    }
}

impl Gcode {
    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        faults.range("gcode.travel", "The height of travel", self.travel, 0.5..=50.0, show);
        faults.range("gcode.depth", "The depth of work", self.depth, 0.0..=20.0, show);
    }
}

impl Default for Pace {
    /// That of a slow desktop machine (common practice).
    fn default() -> Self {
        Self { working: 50.0, travel: 150.0, acceleration: 1000.0, lift: 0.15 }
    }
}

impl Default for Dialect {
    /// Plain HP-GL: 40 units to a millimetre, counted from the lower left corner.
    fn default() -> Self {
        Self {
            units: 40.0,
            origin: Corner::BottomLeft,
            swapped: false,
            station: "SP{};".to_owned(),
            force: String::new(),
            speed: "VS{};".to_owned(),
            depth: String::new(),
            passes: String::new(),
            marks: false,
        }
    }
}

/// Longest command of a dialect.
const LONGEST: usize = 40;

impl Knife {
    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        faults.range("knife.offset", "The blade’s offset", self.offset, 0.0..=2.0, show);
        faults.range("knife.overcut", "The overcut", self.overcut, 0.0..=10.0, show);
    }
}

impl Pace {
    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let speed = |mm: f64| format!("{}/s", measure(mm, unit));
        faults.range("pace.working", "The working speed", self.working, 1.0..=3000.0, speed);
        faults.range("pace.travel", "The travelling speed", self.travel, 1.0..=3000.0, speed);
        let pull = |mm: f64| format!("{}/s²", measure(mm, unit));
        let range = 10.0..=50_000.0;
        faults.range("pace.acceleration", "The acceleration", self.acceleration, range, pull);
        faults.range("pace.lift", "The lift", self.lift, 0.0..=2.0, |own| format!("{own} s"));
    }
}

impl Dialect {
    pub(super) fn validate(&self, faults: &mut Faults) {
        let units = |own: f64| format!("{own} units in a millimetre");
        faults.range("dialect.units", "The dialect", self.units, 1.0..=1000.0, units);
        let commands = [
            ("dialect.station", &self.station, false),
            ("dialect.force", &self.force, true),
            ("dialect.speed", &self.speed, true),
            ("dialect.depth", &self.depth, true),
            ("dialect.passes", &self.passes, true),
        ];
        for (field, command, may_lack) in commands {
            let is_plain = |c: char| c.is_ascii_graphic();
            let is_sound = command.len() <= LONGEST
                && command.chars().all(is_plain)
                && command.matches("{}").count() == 1;
            if !(is_sound || (may_lack && command.is_empty())) {
                let shown: String = command.chars().take(60).collect();
                faults.add(InputError::plain(
                    field,
                    format!("“{shown}” is no command: up to {LONGEST} letters, digits and signs, with one {{}} for the number"),
                    Remedy::advice("Write it as the machine’s manual has it, such as SP{};"),
                ));
            }
        }
    }
}
