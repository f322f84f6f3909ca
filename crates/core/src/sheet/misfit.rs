//! A piece that fits nowhere, shown where it fails by least.

use kurbo::BezPath;

use super::{Piece, Placement, Windows};
use crate::geometry::Region;

/// Where a copy would lie, and what of it is outside.
#[derive(Debug, Clone)]
pub struct Misfit {
    /// In the middle of the cut window.
    pub placement: Placement,
    /// The part of the copy that no cut may reach.
    pub outside: Region,
}

/// The piece in the middle of the cut window, in the turn that passes its bounds by least.
#[must_use]
pub fn misfit(piece: &Piece, outline: &BezPath, windows: &Windows, turns: &[f64]) -> Misfit {
    let room = windows.cut.base;
    let excess = |turn: f64| {
        let size = piece.size(turn);
        (size.x - room.width()).max(0.0) + (size.y - room.height()).max(0.0)
    };
    let best = turns.iter().copied().min_by(|a, b| excess(*a).total_cmp(&excess(*b)));
    let centre = if room.area() > 0.0 { room.center() } else { windows.page.center() };
    let placement = piece.centred(best.unwrap_or(0.0), centre);
    let copy = Region::inside(&placement.place(outline));
    Misfit { placement, outside: copy.minus(&windows.cut.region) }
}
