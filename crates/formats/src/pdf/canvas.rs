//! Drawing in mm with y down, as core measures.

use aptum_core::geometry::{Affine, BezPath, PathEl};
use pdf_writer::types::ColorSpaceOperand;
use pdf_writer::{Content, Name};

use super::document::OVERPRINT;
use crate::line_style::{LineStyle, rgb};

/// A drawing in the making.
pub(super) struct Canvas(Content);

/// PDF coordinates are 32-bit; half a micrometre at 4 m.
#[expect(clippy::cast_possible_truncation, reason = "pages are a few metres at most")]
pub(super) const fn real(value: f64) -> f32 {
    value as f32
}

impl Canvas {
    pub fn new() -> Self {
        Self(Content::new())
    }

    pub fn fill(&mut self, path: &BezPath, colour: &str) {
        let [red, green, blue] = rgb(colour);
        self.0.set_fill_rgb(red, green, blue);
        self.trace(path);
        self.0.fill_nonzero();
    }

    /// Fills a path with so much of the spot ink whose colour space has that name, over what lies there.
    pub fn fill_spot(&mut self, path: &BezPath, space: &str, tint: f64) {
        self.0.save_state().set_parameters(Name(OVERPRINT.as_bytes()));
        self.0.set_fill_color_space(ColorSpaceOperand::Named(Name(space.as_bytes())));
        self.0.set_fill_color([real(tint)]);
        self.trace(path);
        self.0.fill_nonzero().restore_state();
    }

    /// A line in the spot ink whose colour space has that name, over what lies there.
    pub fn stroke_spot(&mut self, path: &BezPath, space: &str, width: f64) {
        self.0.save_state().set_parameters(Name(OVERPRINT.as_bytes()));
        self.0.set_stroke_color_space(ColorSpaceOperand::Named(Name(space.as_bytes())));
        self.0.set_stroke_color([1.0]).set_line_width(real(width));
        self.trace(path);
        self.0.stroke().restore_state();
    }

    /// A shared drawing that belongs to the group of optional content of that name.
    pub fn step(&mut self, group: &str, drawing: &str) {
        self.0
            .begin_marked_content_with_properties(Name(b"OC"))
            .properties_named(Name(group.as_bytes()));
        self.0.x_object(Name(drawing.as_bytes()));
        self.0.end_marked_content();
    }

    /// So much black, one for all.
    pub fn fill_grey(&mut self, path: &BezPath, black: f64) {
        self.0.set_fill_gray(real(1.0 - black));
        self.trace(path);
        self.0.fill_nonzero();
    }

    /// Fills a path with the shading of that name.
    pub fn shade(&mut self, path: &BezPath, name: &str) {
        self.0.save_state();
        self.trace(path);
        self.0.clip_nonzero().end_path();
        self.0.shading(Name(name.as_bytes())).restore_state();
    }

    /// Black in one ink: what eyes read best.
    pub fn fill_black(&mut self, path: &BezPath) {
        self.0.set_fill_gray(0.0);
        self.trace(path);
        self.0.fill_nonzero();
    }

    pub fn stroke(&mut self, path: &BezPath, style: LineStyle) {
        let [red, green, blue] = rgb(style.colour);
        self.0.set_stroke_rgb(red, green, blue).set_line_width(real(style.width));
        self.0.set_dash_pattern(style.dash.iter().map(|length| real(*length)), 0.0);
        self.trace(path);
        self.0.stroke();
    }

    /// Puts a shared drawing where `transform` says.
    pub fn place(&mut self, name: &str, transform: Affine) {
        self.0.save_state().transform(transform.as_coeffs().map(real));
        self.0.x_object(Name(name.as_bytes())).restore_state();
    }

    /// What `draw` draws, of which only what lies in `clip` is seen, and that as opaque as the state of that name.
    pub fn within(
        &mut self,
        clip: Option<&BezPath>,
        opacity: Option<&str>,
        draw: impl FnOnce(&mut Self),
    ) {
        if clip.is_none() && opacity.is_none() {
            return draw(self);
        }
        self.0.save_state();
        if let Some(clip) = clip {
            self.trace(clip);
            self.0.clip_nonzero().end_path();
        }
        if let Some(name) = opacity {
            self.0.set_parameters(Name(name.as_bytes()));
        }
        draw(self);
        self.0.restore_state();
    }

    /// Puts a picture, whose unit square `upright` turns the right way up, where `place` takes a unit square with `y`
    /// down.
    pub fn picture(&mut self, name: &str, place: Affine, upright: [f64; 6]) {
        self.0.save_state();
        // A picture's unit square has y up.
        let flip = Affine::new([1.0, 0.0, 0.0, -1.0, 0.0, 1.0]);
        self.0.transform((place * flip * Affine::new(upright)).as_coeffs().map(real));
        self.0.x_object(Name(name.as_bytes())).restore_state();
    }

    fn trace(&mut self, path: &BezPath) {
        let mut last = aptum_core::geometry::Point::ZERO;
        for element in path.elements() {
            match *element {
                PathEl::MoveTo(p) => {
                    self.0.move_to(real(p.x), real(p.y));
                }
                PathEl::LineTo(p) => {
                    self.0.line_to(real(p.x), real(p.y));
                }
                PathEl::QuadTo(c, p) => {
                    // PDF has cubics only; raising the degree is exact.
                    let (a, b) = (last + (c - last) * (2.0 / 3.0), p + (c - p) * (2.0 / 3.0));
                    self.0.cubic_to(
                        real(a.x),
                        real(a.y),
                        real(b.x),
                        real(b.y),
                        real(p.x),
                        real(p.y),
                    );
                }
                PathEl::CurveTo(a, b, p) => {
                    self.0.cubic_to(
                        real(a.x),
                        real(a.y),
                        real(b.x),
                        real(b.y),
                        real(p.x),
                        real(p.y),
                    );
                }
                PathEl::ClosePath => {
                    self.0.close_path();
                }
            }
            if let Some(end) = element.end_point() {
                last = end;
            }
        }
    }

    pub fn finish(self) -> Vec<u8> {
        self.0.finish().to_vec()
    }
}
