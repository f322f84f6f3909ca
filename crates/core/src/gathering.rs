//! What a card holds, laid close together: turned, and pushed into each other's bays.

use kurbo::{Point, Shape, Vec2};

use crate::blank::Piece;
use crate::form::{Gathered, GatheredFacts, HeldPiece, MemberPlace};
use crate::geometry::Region;
use crate::job::{Amount, Turning};
use crate::sheet::nest::{NestAsk, NestBlank, Turns, Watch, nest};
use crate::sheet::{Placement, SheetRun, Windows};

/// Moves that are tried: about half a second’s.
const EFFORT: u64 = 1000;

/// The same card gives the same places.
const SEED: u32 = 1;

/// A card whose copies are laid close together: in the card as it is or, where it has no height of its own, in as much
/// card as rows take.
#[derive(Debug)]
pub struct CloseTogether<'a> {
    card: &'a Gathered,
    facts: GatheredFacts,
    turns: Turns,
}

impl<'a> CloseTogether<'a> {
    /// A card to be laid, its copies turned by quarters or by any angle as `turning` says; along the grain is upright
    /// here. None where not even rows can be laid.
    #[must_use]
    pub fn new(card: &'a Gathered, turning: Turning) -> Option<Self> {
        let turns = match turning {
            Turning::Upright | Turning::Grain => Turns::These(vec![0.0]),
            Turning::Quarter => Turns::These(vec![0.0, 90.0, 180.0, 270.0]),
            Turning::Free => Turns::Any,
        };
        Some(Self { card, facts: card.in_rows()?, turns })
    }

    /// Places for as many copies as are found room, once the search has ended or been told to.
    #[must_use]
    pub fn search(&self, watch: &dyn Watch) -> Vec<MemberPlace> {
        let pieces: Vec<Option<Piece>> =
            self.facts.held.iter().map(|own| Piece::new(&own.outline, &Region::empty())).collect();
        let blanks = self.card.members.iter().zip(&pieces).enumerate();
        let ask = NestAsk {
            blanks: blanks
                .filter_map(|(number, (member, piece))| {
                    let (piece, turns) = (piece.as_ref()?, self.turns.clone());
                    Some(NestBlank { number, piece, turns, wanted: member.count })
                })
                .collect(),
            windows: &Windows::free(self.facts.room),
            spacing: self.card.gap,
            locked: Vec::new(),
            amount: Amount::Wanted,
            seed: SEED,
            effort: EFFORT,
        };
        self.places(&nest(&ask, watch).runs)
    }

    /// Places of what lies on the first of these sheets.
    #[must_use]
    pub fn places(&self, runs: &[SheetRun]) -> Vec<MemberPlace> {
        let Self { card, facts, .. } = self;
        let Some(first) = runs.first() else { return Vec::new() };
        let lying: Vec<(&HeldPiece, &Placement)> = first
            .placements
            .iter()
            .filter_map(|placement| Some((facts.held.get(placement.part)?, placement)))
            .collect();
        let bounds = lying
            .iter()
            .map(|(own, placement)| (placement.transform() * own.outline.clone()).bounding_box())
            .reduce(|all, next| all.union(next))
            .unwrap_or(facts.room);
        // What is left of the card is left below, and on both sides where it is as wide as somebody wants it.
        let beside = if card.width.is_some() { facts.room.width() - bounds.width() } else { 0.0 };
        let shift = facts.room.origin() - bounds.origin() + Vec2::new(beside / 2.0, 0.0);
        lying
            .into_iter()
            .map(|(own, placement)| {
                let Point { x, y } = placement.transform() * own.bounds.center() + shift;
                MemberPlace { piece: own.piece.clone(), x, y, turn: placement.turn }
            })
            .collect()
    }
}
