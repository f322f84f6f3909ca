//! Misfeeds: how a sheet, or what is printed on it, comes to lie otherwise than it was meant.

use kurbo::{Affine, Point, Rect, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

/// What no scale and no turn can tell of: a bow along each side, as rollers that do not run alike make it.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Stretch {
    /// Greatest shift to the right, halfway along the sheet, mm.
    pub across: f64,
    /// Greatest shift down, halfway across the sheet, mm.
    pub along: f64,
}

/// A misfeed about the middle of a page: first the bow, then skew and scales, then the turn, then the shift.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Misfeed {
    /// To the right and down, mm.
    pub shift: [f64; 2],
    /// Clockwise, as seen, degrees.
    pub turn: f64,
    /// What a millimetre across the page becomes.
    pub across: f64,
    /// What a millimetre along the page becomes.
    pub along: f64,
    /// How far the sides lean from a right angle, degrees; the foot goes to the left.
    pub skew: f64,
    /// What is left beside these.
    pub stretch: Stretch,
}

impl Default for Misfeed {
    fn default() -> Self {
        let stretch = Stretch::default();
        Self { shift: [0.0; 2], turn: 0.0, across: 1.0, along: 1.0, skew: 0.0, stretch }
    }
}

impl Misfeed {
    /// All of it but the bow, about the middle of a page.
    #[must_use]
    pub fn affine(&self, page: Rect) -> Affine {
        let middle = page.center().to_vec2();
        let skewed = Affine::new([1.0, 0.0, -self.skew.to_radians().tan(), 1.0, 0.0, 0.0]);
        Affine::translate(middle + Vec2::from((self.shift[0], self.shift[1])))
            * Affine::rotate(self.turn.to_radians())
            * Affine::scale_non_uniform(self.across, self.along)
            * skewed
            * Affine::translate(-middle)
    }

    /// How far the bow moves a point of a page, mm.
    #[must_use]
    pub fn bow(&self, at: Point, page: Rect) -> Vec2 {
        let share = |at: f64, from: f64, long: f64| {
            (std::f64::consts::PI * ((at - from) / long.max(1.0)).clamp(0.0, 1.0)).sin()
        };
        Vec2::new(
            self.stretch.across * share(at.y, page.y0, page.height()),
            self.stretch.along * share(at.x, page.x0, page.width()),
        )
    }

    /// Where a point of a page comes to lie.
    #[must_use]
    pub fn place(&self, at: Point, page: Rect) -> Point {
        self.affine(page) * (at + self.bow(at, page))
    }

    /// Which point of a page comes to lie there, to 10⁻⁶ mm: the bow changes so slowly that a few steps find it.
    ///
    /// # Panics
    /// Never: scales are kept from zero.
    #[must_use]
    pub fn origin(&self, at: Point, page: Rect) -> Point {
        let own = Self { across: self.across.max(1e-3), along: self.along.max(1e-3), ..*self };
        let bowed = own.affine(page).inverse() * at;
        let mut found = bowed;
        for _ in 0..4 {
            found = bowed - own.bow(found, page);
        }
        found
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    const LETTER: Rect = Rect::new(0.0, 0.0, 215.9, 279.4);

    proptest! {
        #[test]
        fn the_way_back_leads_home(
            x in 0.0..215.9f64, y in 0.0..279.4f64, dx in -3.0..3.0f64, dy in -3.0..3.0f64, turn in -2.0..2.0f64,
            across in 0.94..1.01f64, along in 0.94..1.01f64, skew in -0.2..0.2f64, bow in -0.3..0.3f64,
        ) {
            let stretch = Stretch { across: bow, along: -bow };
            let own = Misfeed { shift: [dx, dy], turn, across, along, skew, stretch };
            let at = Point::new(x, y);
            let home = own.origin(own.place(at, LETTER), LETTER);
            prop_assert!(home.distance(at) < 1e-6, "{home} {at}");
        }
    }

    /// A mark 300 mm from where a sheet turns by 2° moves by 10 mm (derived: 2 · 300 · sin 1°).
    #[test]
    fn two_degrees_move_a_far_mark_by_a_centimetre() {
        let page = Rect::new(-300.0, -300.0, 300.0, 300.0);
        let turned = Misfeed { turn: 2.0, ..Misfeed::default() };
        let at = Point::new(300.0, 0.0);
        assert!((turned.place(at, page).distance(at) - 10.47).abs() < 0.01);
        // Clockwise as seen: what lies to the right goes down.
        assert!(turned.place(at, page).y > 10.0);
    }
}
