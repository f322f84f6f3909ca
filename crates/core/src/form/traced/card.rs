//! A sticker card: cut through around outlines that are cut to its liner.

use std::ops::RangeInclusive;

use kurbo::{BezPath, Rect, RoundedRect, Shape};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{OUTLINE, panel};
use crate::LineKind;
use crate::error::Faults;
use crate::form::Part;
use crate::geometry::{Point, circle};
use crate::stroke::{Stroke, StrokeSource};
use crate::units::{Unit, measure};

/// The panel of a sticker card.
const CARD: &str = "Card";

/// A card around outlines.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct StickerCard {
    /// Card beside the outermost outlines, mm, 0.5 to 100.
    #[serde(default = "margin", deserialize_with = "margin_or_standard")]
    pub margin: f64,
    /// Radius of its corners, mm, 0 to 50.
    #[serde(default = "corner", deserialize_with = "corner_or_standard")]
    pub corner: f64,
    /// Room for words above the outlines, mm, 0 to 200.
    #[serde(default, deserialize_with = "super::standard")]
    pub heading: f64,
    /// Diameter of a hole to hang it by, mm, 0 to 20; 0 leaves it out.
    #[serde(default, deserialize_with = "super::standard")]
    pub hole: f64,
}

/// Beside stickers, mm.
pub(super) const MARGIN: RangeInclusive<f64> = 0.5..=100.0;

/// Radius of corners, mm.
pub(super) const CORNER: RangeInclusive<f64> = 0.0..=50.0;

/// Room for words, mm.
pub(super) const HEADING: RangeInclusive<f64> = 0.0..=200.0;

/// Diameter of the hole, mm.
pub(super) const HOLE: RangeInclusive<f64> = 0.0..=20.0;

/// Card around stickers, mm (common practice).
pub(super) const fn margin() -> f64 {
    5.0
}

/// A radius that neither tears nor lifts, mm (common practice).
pub(super) const fn corner() -> f64 {
    3.0
}

fn margin_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(margin))
}

fn corner_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(corner))
}

impl StickerCard {
    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        let field = |name: &str| format!("form.traced.card.{name}");
        faults.range(&field("margin"), "The card’s margin", self.margin, MARGIN, show);
        faults.range(&field("corner"), "The card’s rounding", self.corner, CORNER, show);
        faults.range(&field("heading"), "The room for words", self.heading, HEADING, show);
        faults.range(&field("hole"), "The card’s hole", self.hole, HOLE, show);
    }

    /// The card around outlines with such bounds.
    pub(super) fn around(&self, outlines: Rect) -> Rect {
        let head = if self.hole > 0.0 { self.hole + self.margin } else { 0.0 } + self.heading;
        let card = outlines.inflate(self.margin, self.margin);
        Rect { y0: card.y0 - head, ..card }
    }

    /// The blank: the card, with what is cut on it to the liner.
    pub(super) fn part(&self, cut: &[(BezPath, bool)], card: Rect) -> Part {
        let radius = self.corner.min(card.width() / 2.0).min(card.height() / 2.0);
        let outline = if radius > 0.0 {
            RoundedRect::from_rect(card, radius).to_path(1e-4)
        } else {
            card.to_path(1e-4)
        };
        let mut part = Part::plain("Sticker card", outline);
        part.edge_through = true;
        let mut stickers = BezPath::new();
        for (number, (path, is_hole)) in cut.iter().enumerate() {
            let id = if *is_hole {
                format!("hole-{}", number + 1)
            } else {
                format!("sticker-{}", number + 1)
            };
            part.strokes.push(Stroke::new(id, LineKind::KissCut, path.clone(), StrokeSource::Edge));
            if !is_hole {
                stickers.extend(path.iter());
            }
        }
        if self.hole > 0.0 {
            let middle = Point::new(card.center().x, card.y0 + self.margin + self.hole / 2.0);
            let hole = circle(middle, self.hole / 2.0);
            part.strokes.push(Stroke::new("hang-hole", LineKind::Cut, hole, StrokeSource::Edge));
        }
        part.panels = vec![panel(CARD, part.outline.clone()), panel(OUTLINE, stickers)];
        part
    }
}
