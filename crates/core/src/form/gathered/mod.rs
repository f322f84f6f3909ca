//! A card that holds other pieces of the job, stickers most often: they are cut to its liner, it is cut through.

mod checks;
mod draft;
mod rows;

use std::ops::RangeInclusive;
use std::sync::Arc;

use kurbo::{Affine, BezPath, Point, Rect};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Flat, StickerCard};
use crate::error::{Faults, InputError, Remedy, Setting};
use crate::geometry::{Outline, contours};
use crate::id::PieceId;
use crate::stroke::Stroke;
use crate::units::{Unit, measure};

/// A card around pieces of the job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Gathered {
    /// What it holds: 1 to 11 pieces, up to 500 copies in all.
    pub members: Vec<Member>,
    /// Card between them, mm, 0 to 50.
    #[serde(default = "gap", deserialize_with = "gap_or_standard")]
    pub gap: f64,
    /// How wide the card is, mm, 10 to 2000; `None` takes what its members need.
    #[serde(default)]
    pub width: Option<f64>,
    /// How high the card is, mm, 10 to 2000; `None` takes what its members need.
    #[serde(default)]
    pub height: Option<f64>,
    /// The card around them.
    #[serde(default)]
    pub card: StickerCard,
    /// Where copies lie that are laid by hand or close together; all others lie in rows below these.
    #[serde(default, deserialize_with = "places_or_none", skip_serializing_if = "Vec::is_empty")]
    pub places: Vec<MemberPlace>,
    /// The members, drawn; `None` until somebody draws them.
    #[serde(skip)]
    #[cfg_attr(feature = "api", ts(skip), schemars(skip))]
    pub held: Held,
}

/// A piece that a card holds.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Member {
    /// Which piece of the job.
    pub piece: PieceId,
    /// How many of it lie on each card, 0 to 500.
    pub count: u32,
}

/// Where a copy of a piece lies on its card.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct MemberPlace {
    /// Which piece of the job.
    pub piece: PieceId,
    /// How far the middle of its bounds lies right of the card's top left corner, mm.
    pub x: f64,
    /// How far it lies below that corner, mm.
    pub y: f64,
    /// How it is turned, degrees, with the clock.
    #[serde(default)]
    pub turn: f64,
}

/// Drawn members: no part of what the user decides, so all are alike.
#[derive(Debug, Clone, Default)]
pub struct Held(pub Option<Arc<Vec<HeldPiece>>>);

impl PartialEq for Held {
    fn eq(&self, _: &Self) -> bool {
        true
    }
}

/// A member, drawn.
#[derive(Debug, Clone)]
pub struct HeldPiece {
    /// Which piece of the job.
    pub piece: PieceId,
    /// What it goes by.
    pub name: String,
    /// Its outline, closed lines, in its own coordinates.
    pub outline: BezPath,
    /// What is cut and creased inside it.
    pub strokes: Vec<Stroke>,
    /// True where it is cut through card and liner.
    pub through: bool,
    /// The bounds of its outline.
    pub bounds: Rect,
}

impl HeldPiece {
    /// From its own coordinates to where it lies with its middle there, turned.
    #[must_use]
    pub fn lying(&self, middle: Point, turn: f64) -> Affine {
        let own = self.bounds.center().to_vec2();
        Affine::translate(middle.to_vec2())
            * Affine::rotate(turn.to_radians())
            * Affine::translate(-own)
    }

    /// Its outlines where they lie.
    fn outlines(&self, at: Affine) -> Vec<Outline> {
        let parts = contours(&self.outline).into_iter();
        parts.filter_map(|contour| Outline::of_path(&(at * contour))).collect()
    }
}

/// A copy of a member on the card.
#[derive(Debug, Clone)]
pub struct HeldAt {
    /// Which of the members.
    pub member: usize,
    /// Which of its copies.
    pub copy: usize,
    /// From its coordinates to the card's.
    pub at: Affine,
    /// The bounds of it there.
    pub bounds: Rect,
    /// How it is turned, degrees.
    pub turn: f64,
    /// Where among the card's places it is told, where it is laid by hand.
    pub place: Option<usize>,
}

/// What a card came to.
#[derive(Debug, Clone)]
pub struct GatheredFacts {
    /// Its copies.
    pub copies: Vec<HeldAt>,
    /// How many copies of each member find no room.
    pub left: Vec<u32>,
    /// Where copies may lie, in the card's coordinates.
    pub room: Rect,
    /// How large the card would have to be for all of them.
    pub needed: [f64; 2],
    /// The members, drawn.
    pub held: Arc<Vec<HeldPiece>>,
}

/// Sides of a card, mm.
const SIDE: RangeInclusive<f64> = 10.0..=2000.0;

/// Card between stickers, mm.
const GAP: RangeInclusive<f64> = 0.0..=50.0;

/// How far a place may lie from the card, mm, and how far it may be turned, degrees.
const FAR: f64 = 10_000.0;

/// Most copies on one card.
pub const MOST_ON_CARD: u32 = 500;

/// So that a sticker is peeled without its neighbour, mm (common practice).
pub const fn gap() -> f64 {
    3.0
}

fn gap_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(gap))
}

fn places_or_none<'de, D: Deserializer<'de>>(from: D) -> Result<Vec<MemberPlace>, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_default())
}

impl Gathered {
    /// A card that holds a copy of each of these pieces, as large as they need.
    #[must_use]
    pub fn of(pieces: impl IntoIterator<Item = PieceId>) -> Self {
        Self {
            members: pieces.into_iter().map(|piece| Member { piece, count: 1 }).collect(),
            gap: gap(),
            width: None,
            height: None,
            card: StickerCard::default(),
            places: Vec::new(),
            held: Held::default(),
        }
    }

    /// Takes a piece off.
    pub(crate) fn let_go(&mut self, piece: &str) {
        self.members.retain(|member| member.piece.0 != piece);
        self.places.retain(|place| place.piece.0 != piece);
    }

    /// How many copies it holds of a piece; `None` where it holds none of it.
    #[must_use]
    pub fn holds(&self, piece: &PieceId) -> Option<u32> {
        self.members.iter().find(|member| member.piece == *piece).map(|member| member.count)
    }

    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        faults.range("form.gathered.gap", "The card between stickers", self.gap, GAP, show);
        for (field, words, side) in [
            ("width", "The card’s width", self.width),
            ("height", "The card’s height", self.height),
        ] {
            if let Some(side) = side {
                faults.range(&format!("form.gathered.{field}"), words, side, SIDE, show);
            }
        }
        self.card.validate("form.gathered.card", unit, faults);
        let count: u64 = self.members.iter().map(|member| u64::from(member.count)).sum();
        if count == 0 || count > u64::from(MOST_ON_CARD) {
            let shown = u32::try_from(count).unwrap_or(u32::MAX);
            faults.add(InputError::new(
                "form.gathered.members",
                format!("The card holds {count} copies: it holds 1 to {MOST_ON_CARD}"),
                f64::from(shown),
                Remedy::advice("Change how many lie on it, or make more cards"),
            ));
        }
        let is_far = |place: &MemberPlace| {
            [place.x, place.y, place.turn].iter().any(|figure| !(-FAR..=FAR).contains(figure))
        };
        if self.places.len() > MOST_ON_CARD as usize || self.places.iter().any(is_far) {
            faults.add(InputError::plain(
                "form.gathered.places",
                format!(
                    "{} places on the card, or one more than 10 m away: up to {MOST_ON_CARD} nearby",
                    self.places.len()
                ),
                Remedy::set("Lay them in rows", "form.gathered.places", Setting::Standard),
            ));
        }
    }

    /// The flat of a card that is drafted.
    pub(super) fn flat(&self, parts: Vec<super::Part>, facts: GatheredFacts, unit: Unit) -> Flat {
        let mut flat = Flat::of(parts);
        flat.dimensions = super::drafting::dimensions(&[], &flat, unit);
        flat.figures = self.figures(facts.needed, unit);
        flat.checks = checks::checks(self, &facts, &flat, unit);
        flat.gathered = Some(facts);
        flat
    }
}
