//! A shape that a layer prints: filled, outlined, or both.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::figures::Outlined;
use super::layer::colour_fault;
use super::lying::Lying;
use crate::error::Faults;
use crate::geometry::{Affine, BezPath, Rect, Region, Shape as _};
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

/// What a shape prints: an area and its colour.
pub(super) type Filled = (BezPath, String);

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
        let fill = fill.map(|colour| (outline.clone(), colour.clone()));
        let line = self.line.as_ref().or(self.fill.as_ref().filter(|_| is_line));
        let line = line.into_iter().map(|colour| {
            let style = kurbo::Stroke::new(self.thickness)
                .with_join(kurbo::Join::Miter)
                .with_caps(kurbo::Cap::Butt);
            let around =
                kurbo::stroke(outline.clone(), &style, &kurbo::StrokeOpts::default(), 1e-3);
            (around, colour.clone())
        });
        fill.chain(line).filter(|(path, _)| !path.elements().is_empty()).collect()
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
        for (name, colour) in [("fill", &self.fill), ("line", &self.line)] {
            if let Some(colour) = colour {
                colour_fault(&field(name), colour, faults);
            }
        }
    }
}

/// Corners and points come in whole numbers.
pub(super) fn points_fault(field: &str, points: u32, faults: &mut Faults) {
    let show = |count: f64| format!("{count}");
    faults.range(field, "The number of points", f64::from(points), 3.0..=60.0, show);
}
