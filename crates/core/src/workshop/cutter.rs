//! Cutters: what they reach, what they hold, and how they find the sheet.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{
    Corner, Dialect, Force, ForceUnit, Gcode, Keeping, Knife, Margins, MarkSet, MarkShapeName,
    Pace, check_address, check_name, force_range,
};
use crate::error::{Faults, InputError, Remedy};
use crate::geometry::Affine;
use crate::units::{Unit, measure};

/// What a station can hold.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Tool {
    /// A knife trailing behind its axis.
    DragKnife,
    /// A blunt tip or wheel that presses a crease.
    Creaser,
    /// A pen.
    Pen,
}

/// How a station's blade gets its depth.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum DepthSetting {
    /// It cannot be changed.
    Fixed,
    /// Turned by hand to a numbered step.
    Stepped,
    /// By the cap that is put on.
    Cap,
    /// The machine sets it itself.
    Itself,
}

/// A place for a tool.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Station {
    /// Its name on the machine.
    pub name: String,
    /// What it can hold.
    pub tools: Vec<Tool>,
    /// How its blade gets its depth.
    pub depth: DepthSetting,
}

/// What an eye can read of marks.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct EyeRange {
    /// The shapes it knows.
    pub shapes: Vec<MarkShapeName>,
    /// Smallest arm or diameter in mm.
    pub smallest: f64,
    /// How near to the sheet's edge it reads, mm.
    pub edge: f64,
    /// Keep-clear that it needs around each mark, mm.
    pub keep_clear: f64,
}

/// How a cutter finds the sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(tag = "by", rename_all = "kebab-case")]
pub enum Finds {
    /// Its eye reads printed marks.
    Eye(EyeRange),
    /// A person sets its crosshairs on each mark.
    Crosshairs,
    /// It scans the page and finds the outlines itself.
    Scan,
    /// By the sheet's edge and a stop.
    SheetEdge,
    /// It printed the sheet itself.
    PrintedItself,
}

impl Finds {
    /// True when printed marks are what it goes by.
    #[must_use]
    pub const fn by_marks(&self) -> bool {
        matches!(self, Self::Eye(_) | Self::Crosshairs)
    }
}

/// Where a cutter that goes by marks may cut.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Field {
    /// Everywhere it reaches.
    WholeReach,
    /// Only inside the rectangle that the marks span.
    WithinMarks,
}

/// A correction, measured on a day.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Correction {
    /// From where a line is meant on the page to what is sent: the coefficients of an affine map.
    pub sent: [f64; 6],
    /// The day, such as `2026-10-12`.
    pub day: String,
}

impl Correction {
    /// The map, where it is one that a cutter can need: a turn of under 3 degrees, scales within 3 %, a shift under 60 mm (turns about the
    /// far end of a sheet shift its corner).
    #[must_use]
    pub fn affine(&self) -> Option<Affine> {
        let [a, b, c, d, e, f] = self.sent;
        let is_near = (a - 1.0).abs() < 0.03
            && (d - 1.0).abs() < 0.03
            && b.abs() < 0.05
            && c.abs() < 0.05
            && e.abs() < 60.0
            && f.abs() < 60.0;
        (self.sent.iter().all(|own| own.is_finite()) && is_near).then(|| Affine::new(self.sent))
    }
}

/// A cutter. A sheet lies in it as it is drawn: its top edge leads, its width lies across.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Cutter {
    /// Its name in lists.
    pub name: String,
    /// Widest sheet in mm.
    pub width: f64,
    /// Longest sheet in mm.
    pub length: f64,
    /// What rollers, clamps or the carrier take from each side of the sheet.
    pub margins: Margins,
    /// Card it needs in front of the first marks, so that it can feed the sheet to them, mm.
    #[serde(default)]
    pub lead: f64,
    /// Card it needs behind the last marks, so that it can still hold the sheet, mm.
    #[serde(default)]
    pub tail: f64,
    /// Thickest card in mm.
    pub thickest: f64,
    /// Greatest force in its own unit, where it is known.
    pub force: Option<f64>,
    /// What it counts force in.
    #[serde(default)]
    pub force_unit: ForceUnit,
    /// True where its bed bears a cut that goes through: no carrier is needed for that.
    #[serde(default)]
    pub bears_cuts: bool,
    /// Its stations.
    pub stations: Vec<Station>,
    /// How it finds the sheet.
    pub finds: Finds,
    /// Where it may cut.
    pub field: Field,
    /// The corner in which its blade starts.
    pub start: Corner,
    /// How its knife trails, and who allows for that.
    #[serde(default)]
    pub knife: Knife,
    /// How fast it moves, where that is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pace: Option<Pace>,
    /// The language that it takes, where it takes HP-GL.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dialect: Option<Dialect>,
    /// How it takes G-code, where it does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gcode: Option<Gcode>,
    /// Where it is reached over TCP, such as `192.168.1.20:9100`; empty where files are carried to it.
    #[serde(default)]
    pub address: String,
    /// What is sent instead of what is meant, since it was measured to cut a little off.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub correction: Option<Correction>,
    /// Where it stands in lists.
    #[serde(default)]
    pub keeping: Keeping,
}

impl Cutter {
    /// Its greatest force, where it is known.
    #[must_use]
    pub fn most_force(&self) -> Option<Force> {
        Some(Force { amount: self.force?, unit: self.force_unit })
    }

    /// True when it can go by these marks: its eye reads their shape and size, or a person sets crosshairs.
    #[must_use]
    pub fn reads(&self, set: &MarkSet) -> bool {
        match &self.finds {
            Finds::Eye(eye) => {
                eye.shapes.contains(&set.mark.name()) && set.mark.extent() >= eye.smallest
            }
            Finds::Crosshairs => true,
            _ => false,
        }
    }

    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let show = |length: f64| measure(length, unit);
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        faults.range("width", "The widest sheet", self.width, 50.0..=3000.0, show);
        faults.range("length", "The longest sheet", self.length, 50.0..=20_000.0, show);
        faults.range("thickest", "The thickest card", self.thickest, 0.05..=20.0, show);
        if let Some(force) = self.force {
            let force = Force { amount: force, unit: self.force_unit };
            force_range("force", "The force", force, &mut faults);
        }
        faults.range("lead", "The lead", self.lead, 0.0..=1000.0, show);
        faults.range("tail", "The tail", self.tail, 0.0..=1000.0, show);
        self.margins.validate("margins", "What the cutter cannot reach", unit, &mut faults);
        self.margins.leave("margins", (self.width, self.length), "to cut", unit, &mut faults);
        if self.stations.is_empty() || self.stations.len() > 8 {
            faults.add(InputError::new(
                "stations",
                format!("{} stations are listed: a cutter has 1 to 8", self.stations.len()),
                f64::from(u32::try_from(self.stations.len()).unwrap_or(u32::MAX)),
                Remedy::advice("Describe each place that holds a tool"),
            ));
        }
        for station in &self.stations {
            check_name("stations", &station.name, &mut faults);
            if station.tools.is_empty() || station.tools.len() > 3 {
                faults.add(InputError::plain(
                    "stations",
                    format!(
                        "“{}” holds {} tools: it holds 1 to 3",
                        station.name,
                        station.tools.len()
                    ),
                    Remedy::advice("Say whether it holds a knife, a creaser or a pen"),
                ));
            }
        }
        self.knife.validate(unit, &mut faults);
        if let Some(pace) = &self.pace {
            pace.validate(unit, &mut faults);
        }
        if let Some(dialect) = &self.dialect {
            dialect.validate(&mut faults);
        }
        if let Some(gcode) = &self.gcode {
            gcode.validate(unit, &mut faults);
        }
        check_address(&self.address, &mut faults);
        if self.correction.as_ref().is_some_and(|own| own.affine().is_none() || own.day.len() > 40)
        {
            faults.add(InputError::plain(
                "correction",
                "The correction is larger than any cutter needs".to_owned(),
                Remedy::advice("Drop it, and measure again on a sheet whose marks were read"),
            ));
        }
        if let Finds::Eye(eye) = &self.finds {
            faults.range("finds.smallest", "The smallest mark", eye.smallest, 0.5..=100.0, show);
            faults.range(
                "finds.edge",
                "The eye’s distance to the edge",
                eye.edge,
                0.0..=500.0,
                show,
            );
            faults.range("finds.keep_clear", "The keep-clear", eye.keep_clear, 0.0..=50.0, show);
            if eye.shapes.is_empty() {
                faults.add(InputError::plain(
                    "finds.shapes",
                    "The eye reads no shape of mark",
                    Remedy::advice("Name at least one of angles, dots and crosses"),
                ));
            }
        }
        faults.or(())
    }
}
