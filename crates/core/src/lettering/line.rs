//! Text as outlines in the shipped typeface, so that it prints and cuts the same everywhere.

use super::typeface::Typeface;
use crate::geometry::{Affine, BezPath, Point, Rect, Shape};
use ttf_parser::{Face, OutlineBuilder};

/// Where a line of text hangs on its point.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Anchor {
    /// The point is the baseline's left end.
    Start,
    /// The point is the middle of the capitals.
    Middle,
}

/// One line of text with capitals `height` mm high. Characters the typeface lacks are left out.
#[must_use]
pub fn letter(text: &str, at: Point, height: f64, anchor: Anchor) -> BezPath {
    let Ok(face) = Face::parse(Typeface::plain().bytes(), 0) else { return BezPath::new() };
    let capital = f64::from(face.capital_height().unwrap_or(700)).max(1.0);
    let mut path = BezPath::new();
    let mut pen = 0.0;
    for character in text.chars() {
        let Some(glyph) = face.glyph_index(character) else { continue };
        let mut outline = Glyph(BezPath::new());
        face.outline_glyph(glyph, &mut outline);
        path.extend(Affine::translate((pen, 0.0)) * outline.0);
        pen += f64::from(face.glyph_hor_advance(glyph).unwrap_or(0));
    }
    let scale = height / capital;
    let shift = match anchor {
        Anchor::Start => (at.x, at.y),
        Anchor::Middle => (at.x - pen * scale / 2.0, at.y + height / 2.0),
    };
    // Type's y points up.
    Affine::translate(shift) * Affine::scale_non_uniform(scale, -scale) * path
}

/// The largest lettering of `text` that fits into `place`, centred in it.
#[must_use]
pub fn letter_into(text: &str, place: Rect) -> BezPath {
    let at_one = letter(text, Point::ZERO, 1.0, Anchor::Middle).bounding_box();
    let height = (place.width() / at_one.width().max(1e-6)).min(place.height());
    letter(text, place.center(), height, Anchor::Middle)
}

/// Collects a glyph's outline, `y` up as type has it.
pub(super) struct Glyph(pub BezPath);

impl OutlineBuilder for Glyph {
    fn move_to(&mut self, x: f32, y: f32) {
        self.0.move_to((f64::from(x), f64::from(y)));
    }
    fn line_to(&mut self, x: f32, y: f32) {
        self.0.line_to((f64::from(x), f64::from(y)));
    }
    fn quad_to(&mut self, x1: f32, y1: f32, x: f32, y: f32) {
        self.0.quad_to((f64::from(x1), f64::from(y1)), (f64::from(x), f64::from(y)));
    }
    fn curve_to(&mut self, x1: f32, y1: f32, x2: f32, y2: f32, x: f32, y: f32) {
        self.0.curve_to(
            (f64::from(x1), f64::from(y1)),
            (f64::from(x2), f64::from(y2)),
            (f64::from(x), f64::from(y)),
        );
    }
    fn close(&mut self) {
        self.0.close_path();
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn capitals_have_the_height_asked_for() {
        let bounds = letter("H", Point::new(5.0, 20.0), 4.0, Anchor::Start).bounding_box();
        assert!((bounds.height() - 4.0).abs() < 0.05, "{bounds:?}");
        assert!((bounds.y1 - 20.0).abs() < 1e-6);
        let middle = letter("HH", Point::new(5.0, 20.0), 4.0, Anchor::Middle).bounding_box();
        assert!((middle.center() - Point::new(5.0, 20.0)).hypot() < 0.2);
    }

    #[test]
    fn lettering_fits_its_place_and_skips_what_it_lacks() {
        let place = Rect::new(0.0, 0.0, 12.0, 3.5);
        let bounds = letter_into("K7Q4M", place).bounding_box();
        assert!(bounds.width() <= 12.1 && bounds.height() <= 3.7, "{bounds:?}");
        assert!(letter("\u{10FFFF}", Point::ZERO, 3.0, Anchor::Start).elements().is_empty());
    }
}
