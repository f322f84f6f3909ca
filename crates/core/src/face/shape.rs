//! A shape that a layer prints: filled, outlined, or both.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::art::Running;
use super::figures::Outlined;
use super::layer::colour_fault;
use super::lying::Lying;
use crate::error::Faults;
use crate::geometry::{Affine, BezPath, Rect, Region, Shape as _, Vec2};
use crate::units::{Unit, measure};

/// How large a shape is.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "by", content = "mm")]
pub enum ShapeSize {
    /// As large as its area.
    #[default]
    Area,
    /// So wide and so high, mm.
    Sides([f64; 2]),
    /// It is the area itself, held in from its edges by so much, or past them, mm.
    Inset(f64),
}

/// A colour into which a fill runs, evenly, from one end to the other.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Runs {
    /// As `#rrggbb`.
    pub colour: String,
    /// Which way it runs, degrees clockwise from rightwards as the shape is read.
    pub turn: f64,
}

/// Stripes over a fill.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Stripes {
    /// As `#rrggbb`.
    pub colour: String,
    /// How wide each is, mm; 0.1 to 500.
    pub width: f64,
    /// From one to the next, mm; 0.2 to 1000.
    pub pitch: f64,
    /// Which way they run, degrees clockwise from rightwards as the shape is read.
    pub turn: f64,
}

/// A shape.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Shape {
    /// Where it lies.
    #[serde(flatten)]
    #[cfg_attr(feature = "api", ts(flatten))]
    pub lying: Lying,
    /// What it is.
    #[serde(default)]
    pub figure: Outlined,
    /// How large it is.
    #[serde(default)]
    pub size: ShapeSize,
    /// Corners of a polygon, points of a star; 3 to 60.
    #[serde(default = "usual_points")]
    pub points: u32,
    /// The radius of a rectangle’s corners, mm; 0 to 500.
    #[serde(default)]
    pub rounding: f64,
    /// What fills it, as `#rrggbb`.
    #[serde(default)]
    pub fill: Option<String>,
    /// The colour into which the fill runs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub runs: Option<Runs>,
    /// Stripes over the fill.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stripes: Option<Stripes>,
    /// What it is outlined with, as `#rrggbb`.
    #[serde(default)]
    pub line: Option<String>,
    /// How thick the outline is, mm; half of it lies on either side.
    #[serde(default = "usual_line")]
    pub thickness: f64,
}

pub(super) const fn usual_points() -> u32 {
    5
}

const fn usual_line() -> f64 {
    0.5
}

/// A shape's sides, and its outline's thickness, mm.
const SIDE: std::ops::RangeInclusive<f64> = 0.2..=5000.0;
const THICKNESS: std::ops::RangeInclusive<f64> = 0.02..=100.0;
const INSET: std::ops::RangeInclusive<f64> = -100.0..=500.0;

/// What is printed in one colour, or in one that runs into another.
pub(super) struct Filled {
    pub path: BezPath,
    pub colour: String,
    pub running: Option<Running>,
}

impl Filled {
    /// In one colour.
    pub fn flat(path: BezPath, colour: &str) -> Self {
        Self { path, colour: colour.to_owned(), running: None }
    }

    /// The same elsewhere.
    pub fn placed(self, place: Affine) -> Self {
        let running = self
            .running
            .map(|Running { to, ends }| Running { to, ends: ends.map(|end| place * end) });
        Self { path: place * self.path, running, ..self }
    }
}

/// Most stripes that are drawn.
const MOST_STRIPES: f64 = 4000.0;

impl Shape {
    /// A filled rectangle as large as its area.
    #[must_use]
    pub fn filled(colour: &str) -> Self {
        Self {
            lying: Lying::default(),
            figure: Outlined::Rectangle,
            size: ShapeSize::Area,
            points: usual_points(),
            rounding: 0.0,
            fill: Some(colour.to_owned()),
            runs: None,
            stripes: None,
            line: None,
            thickness: usual_line(),
        }
    }

    /// Width and height in an area of so much room, mm.
    #[must_use]
    pub fn sides(&self, room: [f64; 2]) -> [f64; 2] {
        match self.size {
            ShapeSize::Area => room,
            ShapeSize::Sides(sides) => sides,
            ShapeSize::Inset(inset) => room.map(|side| (side - 2.0 * inset).max(0.0)),
        }
    }

    /// What it prints, what is printed first before the rest: `own` is the area in the layer's coordinates, as it is
    /// read.
    pub(super) fn print(&self, own: &Region, room: [f64; 2]) -> Vec<Filled> {
        let outline = match self.size {
            ShapeSize::Inset(inset) if inset < 0.0 => own.grown(-inset).to_path(),
            ShapeSize::Inset(inset) => own.shrunk(inset).to_path(),
            _ => self.outline(self.sides(room)),
        };
        // A line has nothing to fill, and is there all the same.
        let is_line = self.figure == Outlined::Line && !matches!(self.size, ShapeSize::Inset(_));
        let fill = self.fill.iter().filter(|_| !is_line);
        let fill = fill.map(|colour| Filled {
            path: outline.clone(),
            colour: colour.clone(),
            running: self.runs.as_ref().map(|runs| runs.over(outline.bounding_box())),
        });
        let stripes = self.stripes.as_ref().filter(|_| !is_line);
        let stripes = stripes.map(|stripes| Filled {
            path: stripes.within(&outline),
            colour: stripes.colour.clone(),
            running: None,
        });
        let line = self.line.as_ref().or(self.fill.as_ref().filter(|_| is_line));
        let line = line.into_iter().map(|colour| {
            let style = kurbo::Stroke::new(self.thickness)
                .with_join(kurbo::Join::Miter)
                .with_caps(kurbo::Cap::Butt);
            let around =
                kurbo::stroke(outline.clone(), &style, &kurbo::StrokeOpts::default(), 1e-3);
            Filled { path: around, colour: colour.clone(), running: None }
        });
        fill.chain(stripes)
            .chain(line)
            .filter(|filled| !filled.path.elements().is_empty())
            .collect()
    }

    fn outline(&self, [width, height]: [f64; 2]) -> BezPath {
        match self.figure {
            Outlined::Line => {
                let mut line = BezPath::new();
                line.move_to((-width / 2.0, 0.0));
                line.line_to((width / 2.0, 0.0));
                line
            }
            Outlined::Rectangle if self.rounding > 0.0 => {
                let radius = self.rounding.min(width / 2.0).min(height / 2.0);
                let rect = Rect::new(-width / 2.0, -height / 2.0, width / 2.0, height / 2.0);
                rect.to_rounded_rect(radius).to_path(1e-4)
            }
            figure => Affine::scale_non_uniform(width, height) * figure.unit(self.points),
        }
    }

    pub(super) fn validate(&self, field: &dyn Fn(&str) -> String, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        match self.size {
            ShapeSize::Area => {}
            ShapeSize::Sides(sides) => {
                for (at, words) in ["The shape’s width", "The shape’s height"].iter().enumerate()
                {
                    faults.range(&field(&format!("size.mm.{at}")), words, sides[at], SIDE, show);
                }
            }
            ShapeSize::Inset(inset) => {
                faults.range(&field("size.mm"), "The distance from the edge", inset, INSET, show);
            }
        }
        points_fault(&field("points"), self.points, faults);
        faults.range(&field("rounding"), "The corners’ radius", self.rounding, 0.0..=500.0, show);
        faults.range(&field("thickness"), "The outline", self.thickness, THICKNESS, show);
        let degrees = |turn: f64| format!("{turn}°");
        if let Some(runs) = &self.runs {
            colour_fault(&field("runs.colour"), &runs.colour, faults);
            let turn = field("runs.turn");
            faults.range(&turn, "The way the colour runs", runs.turn, -360.0..=360.0, degrees);
        }
        if let Some(stripes) = &self.stripes {
            colour_fault(&field("stripes.colour"), &stripes.colour, faults);
            let Stripes { width, pitch, turn, .. } = *stripes;
            let name = |below: &str| field(&format!("stripes.{below}"));
            faults.range(&name("width"), "The stripes’ width", width, 0.1..=500.0, show);
            faults.range(&name("pitch"), "The stripes’ pitch", pitch, 0.2..=1000.0, show);
            faults.range(&name("turn"), "The stripes’ turn", turn, -360.0..=360.0, degrees);
        }
        for (name, colour) in [("fill", &self.fill), ("line", &self.line)] {
            if let Some(colour) = colour {
                colour_fault(&field(name), colour, faults);
            }
        }
    }
}

impl Runs {
    /// From one end of so much to the other.
    fn over(&self, bounds: Rect) -> Running {
        let way = Vec2::from_angle(self.turn.to_radians());
        let half = (bounds.width() * way.x.abs() + bounds.height() * way.y.abs()) / 2.0;
        let middle = bounds.center();
        Running { to: self.colour.clone(), ends: [middle - way * half, middle + way * half] }
    }
}

impl Stripes {
    /// The stripes within an outline, the middle of one through its middle. None where there would be too many.
    fn within(&self, outline: &BezPath) -> BezPath {
        let area = Region::painted(outline);
        let Some(bounds) = area.bounds() else { return BezPath::new() };
        let long = bounds.width().hypot(bounds.height()) / 2.0;
        let count = (long / self.pitch.max(1e-3)).ceil();
        if count * 2.0 > MOST_STRIPES {
            return BezPath::new();
        }
        let place =
            Affine::translate(bounds.center().to_vec2()) * Affine::rotate(self.turn.to_radians());
        let mut all = BezPath::new();
        let mut at = -count;
        while at <= count {
            let middle = at * self.pitch;
            let half = self.width / 2.0;
            let own = Rect::new(-long, middle - half, long, middle + half);
            all.extend(place * own.to_path(1e-3));
            at += 1.0;
        }
        Region::inside(&all).intersection(&area).to_path()
    }
}

/// Corners and points come in whole numbers.
pub(super) fn points_fault(field: &str, points: u32, faults: &mut Faults) {
    let show = |count: f64| format!("{count}");
    faults.range(field, "The number of points", f64::from(points), 3.0..=60.0, show);
}
