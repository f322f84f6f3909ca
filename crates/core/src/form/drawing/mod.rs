//! A form whose lines were drawn in another program: how large they are, what each is, what was put in order.

mod checks;
mod draft;
mod freed;
mod panels;
mod runs;
mod tree;
mod validate;

use std::ops::RangeInclusive;
use std::sync::Arc;

use kurbo::{Affine, BezPath, Point, Rect};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Figure, Flat, Part, drafting};
use crate::blob::{BlobId, Origin};
use crate::error::{InputError, Remedy};
use crate::lines::{LineKey, LineMend, Lines, PanelName, Scale, StepSay, ToldFolding};
use crate::units::{Unit, measure};

/// A drawing from elsewhere.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct LineDrawing {
    /// Its lines, as they were read.
    pub lines: BlobId,
    /// What is known of where it comes from.
    #[serde(default)]
    pub origin: Origin,
    /// How long a unit of it is; `None` until somebody says so where the file does not.
    #[serde(default)]
    pub scale: Option<Scale>,
    /// What its lines are.
    #[serde(default)]
    pub key: LineKey,
    /// Ends that are no farther apart are joined, mm; 0 to 5.
    #[serde(default = "join", deserialize_with = "join_or_standard")]
    pub join: f64,
    /// What is shorter is left out, mm; 0 to 20.
    #[serde(default = "crumb", deserialize_with = "crumb_or_standard")]
    pub crumb: f64,
    /// True where runs of short sides on one circle are arcs.
    #[serde(default = "on", deserialize_with = "on_or_standard")]
    pub arcs: bool,
    /// What its line key goes by among others; `None` goes by the job.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub key_name: Option<String>,
    /// What lines that lie on each other are; `None` until somebody says so.
    #[serde(default)]
    pub doubles: Option<Doubles>,
    /// A place on the panel that stays where it is while the others fold, in units of the file; `None` takes the largest.
    #[serde(default)]
    pub root: Option<[f64; 2]>,
    /// How far creases fold that do not fold by 90°; up to 400.
    #[serde(default, deserialize_with = "list_or_none", skip_serializing_if = "Vec::is_empty")]
    pub folds: Vec<FoldSay>,
    /// What panels are called that are not called by their numbers; up to 400.
    #[serde(default, deserialize_with = "names_or_none", skip_serializing_if = "Vec::is_empty")]
    pub names: Vec<PanelName>,
    /// What folds when, where that is not found by itself; up to 60 steps.
    #[serde(default, deserialize_with = "moves_or_none", skip_serializing_if = "Vec::is_empty")]
    pub steps: Vec<StepSay>,
    /// What was mended by hand, in order; up to 1,000 steps.
    #[serde(default, deserialize_with = "steps_or_none", skip_serializing_if = "Vec::is_empty")]
    pub mends: Vec<LineMend>,
    /// What was read, mended; `None` until somebody reads it.
    #[serde(skip)]
    #[cfg_attr(feature = "api", ts(skip), schemars(skip))]
    pub read: ReadLines,
}

/// What lines that lie on each other are.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Doubles {
    /// An accident: each is worked once.
    Once,
    /// Somebody's way to ask for more passes: each is worked as often as it is drawn.
    Passes,
}

/// How far a crease folds.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct FoldSay {
    /// A place on it, in units of the file.
    pub at: [f64; 2],
    /// From flat to closed, degrees, above 0 away from the printed side; -180 to 180.
    pub degrees: f64,
}

/// A panel of a drawing.
#[derive(Debug, Clone)]
pub struct DrawnPanel {
    /// Its name.
    pub name: String,
    /// A place on it, in units of the file.
    pub at: [f64; 2],
    /// Which of the names that are told is its; none where it goes by its number.
    pub told_by: Option<usize>,
}

/// A crease at which a panel hangs.
#[derive(Debug, Clone)]
pub struct Crease {
    /// The panel.
    pub name: String,
    /// The panel on which it hangs.
    pub on: String,
    /// Its ends, in the blank's coordinates.
    pub ends: [Point; 2],
    /// Its middle, in units of the file.
    pub at: [f64; 2],
    /// How far it folds, degrees.
    pub degrees: f64,
    /// Which of the folds that are told says so; none where it folds by itself, or as the file says.
    pub told_by: Option<usize>,
}

/// The lines that were read: no part of what the user decides, so all are alike.
#[derive(Debug, Clone, Default)]
pub struct ReadLines(pub Option<Arc<Lines>>);

impl PartialEq for ReadLines {
    fn eq(&self, _: &Self) -> bool {
        true
    }
}

/// A line that is printed.
#[derive(Debug, Clone, PartialEq)]
pub struct PrintedLine {
    /// Where it runs.
    pub path: BezPath,
    /// Its colour as `#rrggbb`; empty where it has none.
    pub colour: String,
    /// How wide it is, mm; 0 where that is not known.
    pub width: f64,
}

/// What a drawing came to.
#[derive(Debug, Clone)]
pub struct DrawingFacts {
    /// What was read.
    pub lines: Arc<Lines>,
    /// How large the drawing is, in its own units.
    pub bounds: Rect,
    /// How long a unit of it is, mm.
    pub unit: f64,
    /// False where nobody has said how long a unit is.
    pub is_scaled: bool,
    /// From the file's units to the blank's coordinates.
    pub to_blank: Affine,
    /// What there is of each group: how many lines, and how long they are, mm.
    pub groups: Vec<(usize, f64)>,
    /// True where there is a closed outline.
    pub is_closed: bool,
    /// Ends that were joined.
    pub joined: usize,
    /// Lines that were closed.
    pub closed: usize,
    /// What was shorter than a line is.
    pub crumbs: usize,
    /// Lines that lie on others.
    pub doubles: usize,
    /// Lines beside the outline, which are left out.
    pub beside: usize,
    /// Ends of what is cut that are joined to nothing, in the blank's coordinates.
    pub loose: Vec<Point>,
    /// The least distance between two of these of different lines, mm, where the outline is open.
    pub gap: Option<f64>,
    /// What is printed and not cut, in the blank's coordinates, with its colour.
    pub printed: Vec<PrintedLine>,
    /// Where the card bends of itself, in the blank's coordinates.
    pub bends: Vec<BezPath>,
    /// Runs of short sides that were recognised as arcs.
    pub arcs: usize,
    /// Groups whose lines have no meaning yet.
    pub unnamed: usize,
    /// The creases at which its panels hang.
    pub creases: Vec<Crease>,
    /// Its panels, where it folds.
    pub panels: Vec<DrawnPanel>,
    /// Creases that end in nowhere, so that nothing folds there.
    pub dead_ends: usize,
    /// Creases that are curves where no bends lead to them, so that they are folded on their chords.
    pub curved: usize,
    /// Panels that hang on nothing that the others do.
    pub apart: usize,
}

/// Distances over which ends are joined, mm.
const JOINS: RangeInclusive<f64> = 0.0..=5.0;

/// Lengths below which nothing is a line, mm.
const CRUMBS: RangeInclusive<f64> = 0.0..=20.0;

/// Sides of a drawing, mm.
const SIDES: RangeInclusive<f64> = 1.0..=5000.0;

/// Ends that were meant to meet are seldom farther apart, mm (common practice).
const fn join() -> f64 {
    0.1
}

/// So short a line is an accident, mm (common practice).
const fn crumb() -> f64 {
    0.05
}

fn join_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(join))
}

fn list_or_none<'de, D: Deserializer<'de>>(from: D) -> Result<Vec<FoldSay>, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_default())
}

const fn on() -> bool {
    true
}

fn on_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<bool, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(on))
}

fn names_or_none<'de, D: Deserializer<'de>>(from: D) -> Result<Vec<PanelName>, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_default())
}

fn moves_or_none<'de, D: Deserializer<'de>>(from: D) -> Result<Vec<StepSay>, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_default())
}

fn steps_or_none<'de, D: Deserializer<'de>>(from: D) -> Result<Vec<LineMend>, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_default())
}

fn crumb_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(crumb))
}

/// Units to the inch that are shown until somebody says how many there are: those of the web.
const PROVISIONAL: Scale = Scale::PerInch { count: crate::lines::PER_INCH[0] };

impl LineDrawing {
    /// A drawing, its lines as they may be meant.
    #[must_use]
    pub fn new(lines: BlobId, origin: Origin, key: LineKey) -> Self {
        Self {
            lines,
            origin,
            scale: None,
            key,
            join: join(),
            crumb: crumb(),
            arcs: true,
            key_name: None,
            doubles: None,
            root: None,
            folds: Vec::new(),
            names: Vec::new(),
            steps: Vec::new(),
            mends: Vec::new(),
            read: ReadLines::default(),
        }
    }

    /// The same, folded as it is told.
    #[must_use]
    pub fn folding_as(self, told: ToldFolding) -> Self {
        let ToldFolding { root, names, steps } = told;
        Self { root, names, steps, ..self }
    }

    /// How long a unit of it is, mm, and whether anybody has said so.
    fn unit(&self, lines: &Lines, bounds: Rect) -> Result<(f64, bool), Vec<InputError>> {
        let told = self.scale.or_else(|| lines.unit.map(|_| Scale::Stated));
        let scale = told.unwrap_or(PROVISIONAL);
        let unit = scale.unit(lines.unit).ok_or_else(|| {
            vec![InputError::plain(
                "form.drawing.scale",
                "The drawing’s scale is no number, or the file does not state one",
                Remedy::advice("Choose how large the drawing is"),
            )]
        })?;
        let side = bounds.width().max(bounds.height()) * unit;
        if !SIDES.contains(&side) && told.is_some() {
            return Err(vec![InputError::new(
                "form.drawing.scale",
                format!(
                    "The drawing would be {} × {}: its longer side is 1 mm to 5 m",
                    measure(bounds.width() * unit, Unit::Mm),
                    measure(bounds.height() * unit, Unit::Mm)
                ),
                side,
                Remedy::advice("Choose another scale, or tell a dimension that you know"),
            )]);
        }
        // As large as a hand, where even that is out of all range.
        let unit = if SIDES.contains(&side) || side <= 0.0 { unit } else { unit * 100.0 / side };
        Ok((unit, told.is_some()))
    }

    /// The flat of its blanks.
    pub(super) fn flat(&self, mut parts: Vec<Part>, mut facts: DrawingFacts, unit: Unit) -> Flat {
        let first = parts.first_mut().filter(|_| facts.is_closed);
        let folding = first.and_then(|part| self.divide(part, &mut facts));
        let mut flat = Flat::of(parts);
        flat.folding = folding;
        flat.dimensions = drafting::dimensions(&[], &flat, unit);
        flat.figures = self.figures(unit);
        flat.checks = checks::checks(self, &facts, &flat, unit);
        flat.drawing = Some(facts);
        flat
    }

    fn figures(&self, unit: Unit) -> Vec<Figure> {
        let figure = |field: &str, value, standard, range, words| {
            Figure::length(&format!("form.drawing.{field}"), value, standard, range, words, unit)
        };
        let words = ["Join ends up to", "Ends that are no farther apart become one line."];
        let joining = figure("join", self.join, join(), JOINS, words);
        let words = ["Shortest line", "What is shorter is left out."];
        vec![joining, figure("crumb", self.crumb, crumb(), CRUMBS, words)]
    }
}
