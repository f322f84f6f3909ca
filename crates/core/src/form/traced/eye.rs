//! A hole to hang a traced piece by: in it, or in a tab that is united with it.

use std::ops::RangeInclusive;

use kurbo::{BezPath, Point};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::Faults;
use crate::geometry::{Region, circle, fine_region};
use crate::units::{Unit, measure};

/// A round hole at the top of a piece.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Eye {
    /// Its diameter, mm, 1 to 50.
    #[serde(default = "diameter", deserialize_with = "diameter_or_standard")]
    pub diameter: f64,
    /// Card between it and the edge, mm, 1 to 50.
    #[serde(default = "edge", deserialize_with = "edge_or_standard")]
    pub edge: f64,
    /// From the middle to the right, mm.
    #[serde(default, deserialize_with = "super::standard")]
    pub x: f64,
    /// True for a tab of its own above the outline.
    #[serde(default)]
    pub tab: bool,
}

/// Diameters of holes and the card around them, mm.
pub(super) const ROUND: RangeInclusive<f64> = 1.0..=50.0;

/// From the middle, mm.
pub(super) const ACROSS: RangeInclusive<f64> = -2000.0..=2000.0;

/// A cord's hole, mm (common practice).
pub(super) const fn diameter() -> f64 {
    4.0
}

/// Card that holds it, mm (common practice).
pub(super) const fn edge() -> f64 {
    3.0
}

fn diameter_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(diameter))
}

fn edge_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(edge))
}

/// How much of a tab's height lies in the piece, so that it hangs on more than a point.
const INTO: f64 = 0.45;

impl Eye {
    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        let field = |name: &str| format!("form.traced.eye.{name}");
        faults.range(&field("diameter"), "The hole", self.diameter, ROUND, show);
        faults.range(&field("edge"), "Its distance from the edge", self.edge, ROUND, show);
        let words = "The hole’s distance from the middle";
        faults.range(&field("x"), words, self.x, ACROSS, show);
    }

    const fn radius(&self) -> f64 {
        self.diameter / 2.0
    }

    /// Where its middle is over an outline without it.
    fn middle(&self, cut: &Region) -> Option<Point> {
        let bounds = cut.bounds()?;
        let x = (bounds.center().x + self.x).clamp(bounds.x0, bounds.x1);
        let top = cut.top_at(x)?;
        let around = self.radius() + self.edge;
        let y = if self.tab { top + INTO * 2.0 * around - around } else { top + around };
        Some(Point::new(x, y))
    }

    /// The outline with its tab.
    pub(super) fn unite(&self, cut: Region) -> Region {
        let Some(middle) = self.middle(&cut).filter(|_| self.tab) else { return cut };
        let tab = circle(middle, self.radius() + self.edge);
        cut.union(&fine_region([[&tab]]))
    }

    /// The hole in an outline that has its tab.
    pub(super) fn hole(&self, cut: &Region) -> Option<(&'static str, BezPath)> {
        let middle = if self.tab {
            // The tab's top is the outline's now.
            let bounds = cut.bounds()?;
            let x = (bounds.center().x + self.x).clamp(bounds.x0, bounds.x1);
            Point::new(x, cut.top_at(x)? + self.radius() + self.edge)
        } else {
            self.middle(cut)?
        };
        Some(("eye", circle(middle, self.radius())))
    }
}
