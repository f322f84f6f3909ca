//! What lies on a card that holds other pieces, as the page shows it.

use aptum_core::form::{GatheredFacts, MemberPlace};
use aptum_core::geometry::path_text;
use aptum_core::id::PieceId;
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

/// What lies on a card.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct GatheredView {
    /// The pieces that it holds, in their order.
    members: Vec<MemberView>,
    /// Where copies lie, in the card's coordinates.
    copies: Vec<CopyView>,
}

/// A piece that a card holds.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MemberView {
    piece: PieceId,
    /// What it goes by.
    name: String,
    /// How many copies of it find no room.
    left: u32,
}

/// A copy on a card.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct CopyView {
    /// Where it lies, as a card tells it.
    place: MemberPlace,
    /// Which of the card's places that is; none for a copy in the rows.
    number: Option<usize>,
    /// Its outline there.
    outline: String,
    /// Left, top, width and height of its bounds there, mm.
    bounds: [f64; 4],
}

/// The view of what lies on a card; the drawing of the whole has the card at its origin.
pub fn gathered(facts: &GatheredFacts) -> GatheredView {
    let members = facts.held.iter().zip(&facts.left);
    let copies = facts.copies.iter().filter_map(|copy| {
        let own = facts.held.get(copy.member)?;
        let middle = copy.at * own.bounds.center();
        let bounds = copy.bounds;
        Some(CopyView {
            place: MemberPlace {
                piece: own.piece.clone(),
                x: middle.x,
                y: middle.y,
                turn: copy.turn,
            },
            number: copy.place,
            outline: path_text(&(copy.at * own.outline.clone())),
            bounds: [bounds.x0, bounds.y0, bounds.width(), bounds.height()],
        })
    });
    GatheredView {
        copies: copies.collect(),
        members: members
            .map(|(own, left)| MemberView {
                piece: own.piece.clone(),
                name: own.name.clone(),
                left: *left,
            })
            .collect(),
    }
}
