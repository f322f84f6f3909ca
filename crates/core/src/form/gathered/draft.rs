//! From pieces and where they lie to the card's blank.

use std::sync::Arc;

use kurbo::{BezPath, Point, Rect, Size, Vec2};

use super::rows::{balanced, rows};
use super::{Gathered, GatheredFacts, HeldAt, HeldPiece, SIDE, gap};
use crate::LineKind;
use crate::error::{Faults, InputError, Remedy};
use crate::form::{Figure, Part, PlacedPanel};
use crate::stroke::{Stroke, StrokeSource};
use crate::units::Unit;

/// The panel of everything that it holds.
const STICKERS: &str = "Stickers";

impl Gathered {
    /// Its blank, and where what lies on it.
    ///
    /// # Errors
    /// Figures out of range, and members that are not drawn.
    pub(in crate::form) fn draft(
        &self,
        unit: Unit,
    ) -> Result<(Part, GatheredFacts), Vec<InputError>> {
        let mut faults = Faults::default();
        self.validate(unit, &mut faults);
        faults.or(())?;
        let held = self.held.0.clone().filter(|held| held.len() == self.members.len());
        let held = held.ok_or_else(|| {
            vec![InputError::plain(
                "form.gathered.members",
                "The pieces on this card are not here",
                Remedy::advice("Choose pieces of this job"),
            )]
        })?;
        let facts = self.laid(held);
        let [width, height] =
            [self.width.unwrap_or(facts.needed[0]), self.height.unwrap_or(facts.needed[1])];
        let mut part = self.card.part(Rect::new(0.0, 0.0, width, height));
        let mut stickers = BezPath::new();
        for copy in &facts.copies {
            let own = &facts.held[copy.member];
            let name = format!("{}-{}", own.piece, copy.copy + 1);
            let outline = copy.at * own.outline.clone();
            stickers.extend(outline.iter());
            let kind = |kind: LineKind| match kind {
                LineKind::Cut if !own.through => LineKind::KissCut,
                kind => kind,
            };
            let edge = kind(LineKind::Cut);
            part.strokes.push(Stroke::new(name.clone(), edge, outline, StrokeSource::Edge));
            part.strokes.extend(own.strokes.iter().map(|stroke| Stroke {
                id: format!("{name}-{}", stroke.id).into(),
                kind: kind(stroke.kind),
                ..stroke.clone().moved(copy.at)
            }));
        }
        part.panels.push(PlacedPanel::plain(STICKERS, stickers));
        Ok((part, facts))
    }

    /// What it comes to with all copies in rows; `None` until its members are drawn.
    #[must_use]
    pub fn in_rows(&self) -> Option<GatheredFacts> {
        let held = self.held.0.clone().filter(|held| held.len() == self.members.len())?;
        Some(Self { places: Vec::new(), ..self.clone() }.laid(held))
    }

    /// Where all copies lie: those with a place there, the others in rows below them.
    fn laid(&self, held: Arc<Vec<HeldPiece>>) -> GatheredFacts {
        let margin = self.card.margin;
        let top = margin + self.card.head();
        let mut copies: Vec<HeldAt> = Vec::new();
        let mut count: Vec<usize> = vec![0; self.members.len()];
        for (number, place) in self.places.iter().enumerate() {
            let found = self.members.iter().position(|member| member.piece == place.piece);
            let Some(member) = found.filter(|at| count[*at] < self.members[*at].count as usize)
            else {
                continue;
            };
            let own = &held[member];
            let at = own.lying(Point::new(place.x, place.y), place.turn);
            let bounds = at * own.outline.clone();
            let bounds = kurbo::Shape::bounding_box(&bounds);
            let copy = count[member];
            count[member] += 1;
            let (turn, place) = (place.turn, Some(number));
            copies.push(HeldAt { member, copy, at, bounds, turn, place });
        }
        let rest: Vec<(usize, usize)> = self
            .members
            .iter()
            .enumerate()
            .flat_map(|(at, member)| (count[at]..member.count as usize).map(move |own| (at, own)))
            .collect();
        let placed = copies.iter().map(|copy| copy.bounds).reduce(|all, next| all.union(next));
        let sizes: Vec<Size> = rest.iter().map(|(at, _)| held[*at].bounds.size()).collect();
        let inner = match (self.width, placed) {
            (Some(width), _) => (width - 2.0 * margin).max(0.0),
            (None, Some(placed)) => {
                let widest = sizes.iter().map(|size| size.width).fold(0.0, f64::max);
                (placed.x1 - margin).max(widest)
            }
            (None, None) => balanced(&sizes, self.gap),
        };
        let below = placed.map_or(top, |placed| (placed.y1 + self.gap).max(top));
        let high = self.height.map_or(f64::INFINITY, |height| height - margin - below);
        let laid = rows(&sizes, inner, high, self.gap);
        let mut left = vec![0; self.members.len()];
        for ((member, copy), (middle, fits)) in rest.iter().zip(&laid.middles) {
            if !fits {
                left[*member] += 1;
                continue;
            }
            let middle = *middle + Vec2::new(margin, below);
            let own = &held[*member];
            let bounds = Rect::from_center_size(middle, own.bounds.size());
            let at = own.lying(middle, 0.0);
            let (member, copy) = (*member, *copy);
            copies.push(HeldAt { member, copy, at, bounds, turn: 0.0, place: None });
        }
        let right = placed.map_or(0.0, |placed| placed.x1).max(margin + laid.size.width);
        let bottom = if rest.is_empty() {
            placed.map_or(top, |placed| placed.y1)
        } else {
            below + laid.size.height
        };
        let needed = [right, bottom].map(|end| (end + margin).clamp(*SIDE.start(), *SIDE.end()));
        let [width, height] = [self.width.unwrap_or(needed[0]), self.height.unwrap_or(needed[1])];
        let room = Rect::new(margin, top, (width - margin).max(margin), (height - margin).max(top));
        GatheredFacts { copies, left, room, needed, held }
    }

    /// What the spec card shows of it.
    pub(super) fn figures(&self, needed: [f64; 2], unit: Unit) -> Vec<Figure> {
        let side = |field: &str, own: Option<f64>, standard: f64, label: &str| Figure {
            own: own.is_some(),
            ..Figure::length(
                &format!("form.gathered.{field}"),
                own.unwrap_or(standard),
                standard,
                SIDE,
                [label, "Of the card; by itself as large as what it holds needs."],
                unit,
            )
        };
        let words = ["Between stickers", "Card between what it holds."];
        let between = Figure::length("form.gathered.gap", self.gap, gap(), super::GAP, words, unit);
        let mut all = vec![
            side("width", self.width, needed[0], "Card’s width"),
            side("height", self.height, needed[1], "Card’s height"),
            between,
        ];
        all.extend(self.card.figures("form.gathered.card", unit));
        all
    }
}
