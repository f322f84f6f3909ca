//! What a card holds, laid close together: turned, and pushed into each other's bays.

use kurbo::{Affine, Point};

use crate::blank::Piece;
use crate::form::{Gathered, MemberPlace};
use crate::geometry::Region;
use crate::job::{Amount, Turning};
use crate::sheet::Windows;
use crate::sheet::nest::{NestAsk, NestBlank, ToTheEnd, Turns, nest};

/// Moves that are tried: about a second's.
const EFFORT: u64 = 2000;

/// The same card gives the same places.
const SEED: u32 = 1;

/// Places for as many copies as are found room, in the card as it is or, where it has no height of its own, in as much
/// card as rows take.
///
/// Turned by quarters or by any angle as `turning` says; along the grain is upright here.
#[must_use]
pub fn close_together(card: &Gathered, turning: Turning) -> Vec<MemberPlace> {
    let Some(facts) = card.in_rows() else { return Vec::new() };
    let pieces: Vec<Option<Piece>> =
        facts.held.iter().map(|own| Piece::new(&own.outline, &Region::empty())).collect();
    let turns = match turning {
        Turning::Upright | Turning::Grain => Turns::These(vec![0.0]),
        Turning::Quarter => Turns::These(vec![0.0, 90.0, 180.0, 270.0]),
        Turning::Free => Turns::Any,
    };
    let blanks = card.members.iter().zip(&pieces).enumerate();
    let ask = NestAsk {
        blanks: blanks
            .filter_map(|(number, (member, piece))| {
                let piece = piece.as_ref()?;
                Some(NestBlank { number, piece, turns: turns.clone(), wanted: member.count })
            })
            .collect(),
        windows: &Windows::free(facts.room),
        spacing: card.gap,
        locked: Vec::new(),
        amount: Amount::Wanted,
        seed: SEED,
        effort: EFFORT,
    };
    let nested = nest(&ask, &ToTheEnd);
    let Some(first) = nested.runs.first() else { return Vec::new() };
    first
        .placements
        .iter()
        .filter_map(|placement| {
            let own = facts.held.get(placement.part)?;
            let at: Affine = placement.transform();
            let Point { x, y } = at * own.bounds.center();
            Some(MemberPlace { piece: own.piece.clone(), x, y, turn: placement.turn })
        })
        .collect()
}
