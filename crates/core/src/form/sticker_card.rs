//! A sticker card: cut through around outlines that are cut to its liner.

use std::ops::RangeInclusive;

use kurbo::{Insets, Rect, RoundedRect, Shape};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Figure, Part, PlacedPanel};
use crate::LineKind;
use crate::error::Faults;
use crate::geometry::{Point, circle};
use crate::stroke::{Stroke, StrokeSource};
use crate::units::{Unit, measure};

/// The panel of a sticker card.
const CARD: &str = "Card";

/// The panel of its words, where it has room for them.
const HEADED: &str = "Heading";

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
    #[serde(default, deserialize_with = "nothing_or")]
    pub heading: f64,
    /// Diameter of a hole to hang it by, mm, 0 to 20; 0 leaves it out.
    #[serde(default, deserialize_with = "nothing_or")]
    pub hole: f64,
}

/// Beside stickers, mm.
const MARGIN: RangeInclusive<f64> = 0.5..=100.0;

/// Radius of corners, mm.
const CORNER: RangeInclusive<f64> = 0.0..=50.0;

/// Room for words, mm.
const HEADING: RangeInclusive<f64> = 0.0..=200.0;

/// Diameter of the hole, mm.
const HOLE: RangeInclusive<f64> = 0.0..=20.0;

/// Card around stickers, mm (common practice).
const fn margin() -> f64 {
    5.0
}

/// A radius that neither tears nor lifts, mm (common practice).
const fn corner() -> f64 {
    3.0
}

fn margin_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(margin))
}

fn corner_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(corner))
}

fn nothing_or<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_default())
}

impl Default for StickerCard {
    fn default() -> Self {
        Self { margin: margin(), corner: corner(), heading: 0.0, hole: 0.0 }
    }
}

impl StickerCard {
    /// Checks its figures, whose fields begin with `at`.
    pub(super) fn validate(&self, at: &str, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        let field = |name: &str| format!("{at}.{name}");
        faults.range(&field("margin"), "The card’s margin", self.margin, MARGIN, show);
        faults.range(&field("corner"), "The card’s rounding", self.corner, CORNER, show);
        faults.range(&field("heading"), "The room for words", self.heading, HEADING, show);
        faults.range(&field("hole"), "The card’s hole", self.hole, HOLE, show);
    }

    /// What the spec card shows of it.
    pub(super) fn figures(&self, at: &str, unit: Unit) -> [Figure; 4] {
        let figure = |field: &str, value, standard, range, words| {
            Figure::length(&format!("{at}.{field}"), value, standard, range, words, unit)
        };
        let words = ["Margin", "Card beside the outermost stickers."];
        let beside = figure("margin", self.margin, margin(), MARGIN, words);
        let words = ["Corners", "Radius of the card’s corners."];
        let rounding = figure("corner", self.corner, corner(), CORNER, words);
        let words = ["Heading", "Room for words above the stickers."];
        let heading = figure("heading", self.heading, 0.0, HEADING, words);
        let words = ["Hang hole", "Its diameter; 0 leaves it out."];
        [beside, rounding, heading, figure("hole", self.hole, 0.0, HOLE, words)]
    }

    /// What lies between its upper margin and the stickers, mm: the hole and the words.
    pub(super) fn head(&self) -> f64 {
        (if self.hole > 0.0 { self.hole + self.margin } else { 0.0 }) + self.heading
    }

    /// The card around outlines with such bounds.
    pub(super) fn around(&self, outlines: Rect) -> Rect {
        let card = outlines.inflate(self.margin, self.margin);
        Rect { y0: card.y0 - self.head(), ..card }
    }

    /// The blank, with nothing on it but its hole.
    pub(super) fn part(&self, card: Rect) -> Part {
        let radius = self.corner.min(card.width() / 2.0).min(card.height() / 2.0);
        let outline = if radius > 0.0 {
            RoundedRect::from_rect(card, radius).to_path(1e-4)
        } else {
            card.to_path(1e-4)
        };
        let mut part = Part::plain("Sticker card", outline);
        part.edge_through = true;
        if self.hole > 0.0 {
            let middle = Point::new(card.center().x, card.y0 + self.margin + self.hole / 2.0);
            let hole = circle(middle, self.hole / 2.0);
            part.strokes.push(Stroke::new("hang-hole", LineKind::Cut, hole, StrokeSource::Edge));
        }
        part.panels = vec![PlacedPanel::plain(CARD, part.outline.clone())];
        if self.heading > 0.0 {
            let below = card.y0 + self.margin + self.head();
            let words = Rect::new(card.x0, below - self.heading, card.x1, below);
            let words = words.inset(Insets::uniform_xy(-self.margin, 0.0)).abs();
            part.panels.push(PlacedPanel::plain(HEADED, words.to_path(1e-4)));
        }
        part
    }
}
