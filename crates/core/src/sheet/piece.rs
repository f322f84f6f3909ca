//! A blank as it is turned and placed.

use kurbo::{Affine, Point, Rect, Vec2};

use super::{Placement, Windows, rotation};
pub use crate::blank::Piece;
use crate::geometry::Outline;

impl Piece {
    /// Width and height when turned by so many degrees.
    #[must_use]
    pub fn size(&self, turn: f64) -> Vec2 {
        self.outline().transformed(rotation(turn)).bounds().size().to_vec2()
    }

    /// The bounds of what is printed when turned, if anything is.
    #[must_use]
    pub fn printed_size(&self, turn: f64) -> Option<Vec2> {
        let rotation = rotation(turn);
        let areas = self.printed().iter().map(|area| area.transformed(rotation).bounds());
        areas.reduce(|all, next| all.union(next)).map(|bounds| bounds.size().to_vec2())
    }

    /// The place at which the piece, turned, has its middle at `centre`.
    #[must_use]
    pub fn centred(&self, turn: f64, centre: Point) -> Placement {
        let bounds = self.outline().transformed(rotation(turn)).bounds();
        let shift = centre - bounds.center();
        Placement { x: shift.x, y: shift.y, turn, ..Placement::default() }
    }

    /// The piece in one orientation.
    #[must_use]
    pub fn turned(&self, turn: f64) -> Turned {
        let rotation = rotation(turn);
        let bounds = self.outline().transformed(rotation).bounds();
        let origin = Vec2::new(-bounds.x0, -bounds.y0);
        let affine = Affine::translate(origin) * rotation;
        Turned {
            turn,
            origin,
            outline: self.outline().transformed(affine),
            printed: self.printed().iter().map(|area| area.transformed(affine)).collect(),
        }
    }
}

/// A piece in one orientation, its bounds starting at the origin.
#[derive(Debug, Clone)]
pub struct Turned {
    pub(super) turn: f64,
    /// Movement that brings the turned flat's bounds to the origin.
    origin: Vec2,
    outline: Outline,
    printed: Vec<Outline>,
}

impl Turned {
    /// Width and height.
    #[must_use]
    pub fn size(&self) -> Vec2 {
        self.outline.bounds().size().to_vec2()
    }

    /// The outline.
    #[must_use]
    pub const fn outline(&self) -> &Outline {
        &self.outline
    }

    /// Where the top left corner may go so that bounds stay inside both windows, starting in `area`.
    pub(super) fn range(&self, windows: &Windows, area: Rect) -> Option<Rect> {
        let size = self.size();
        let mut range = Rect::new(area.x0, area.y0, area.x1 - size.x, area.y1 - size.y);
        if let Some(art) =
            self.printed.iter().map(Outline::bounds).reduce(|all, next| all.union(next))
        {
            let print = windows.print.base;
            range = Rect::new(
                range.x0.max(print.x0 - art.x0),
                range.y0.max(print.y0 - art.y0),
                range.x1.min(print.x1 - art.x1),
                range.y1.min(print.y1 - art.y1),
            );
        }
        let fits = range.x1 - range.x0 >= -NOISE && range.y1 - range.y0 >= -NOISE;
        fits.then_some(range)
    }

    /// The placement that brings the bounds' top left corner to `(x, y)`.
    #[must_use]
    pub fn placement(&self, x: f64, y: f64) -> Placement {
        Placement {
            x: x + self.origin.x,
            y: y + self.origin.y,
            turn: self.turn,
            ..Placement::default()
        }
    }

    /// True when the piece lies inside its windows with its bounds' top left corner there.
    #[must_use]
    pub fn fits(&self, windows: &Windows, dx: f64, dy: f64) -> bool {
        windows.cut.holds(&self.outline, dx, dy)
            && self.printed.iter().all(|area| windows.print.holds(area, dx, dy))
    }
}

/// A millionth of a millimetre: below it, a difference is binary noise.
pub(super) const NOISE: f64 = 1e-6;
