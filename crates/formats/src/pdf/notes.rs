//! What is printed beside the pieces: a scale to check the print with, and the sheet's code.

use aptum_core::geometry::{BezPath, Point};
use aptum_core::sheet::Notes;
use aptum_core::units::{Unit, measure};

use super::Canvas;
use crate::lettering::{Anchor, letter};
use crate::line_style::LineStyle;

const RULE: LineStyle = LineStyle { colour: "#000000", width: 0.15, dash: &[] };

/// Capital height of the figures, mm.
const FIGURES: f64 = 1.8;

/// A ruled line of exactly `notes.scale` mm with a tick at every tenth, and what it measures.
pub(super) fn draw_scale(canvas: &mut Canvas, notes: Notes, unit: Unit) {
    let (left, base) = (notes.place.x0 + 0.5, notes.place.y1 - 1.0);
    let mut rule = BezPath::new();
    rule.move_to((left, base));
    rule.line_to((left + notes.scale, base));
    for tenth in 0..=10 {
        let x = left + notes.scale * f64::from(tenth) / 10.0;
        let height = if tenth % 5 == 0 { 2.4 } else { 1.4 };
        rule.move_to((x, base));
        rule.line_to((x, base - height));
    }
    canvas.stroke(&rule, RULE);
    let words = format!("{} at 100 %", measure(notes.scale, unit));
    let middle = Point::new(left + notes.scale / 2.0, base - 4.2);
    canvas.fill_black(&letter(&words, middle, FIGURES, Anchor::Middle));
}

/// The code and which sheet of how many, to the right of the scale.
pub(super) fn draw_code(canvas: &mut Canvas, notes: Notes, code: &str, sheet: u32, sheets: u32) {
    let words = format!("{code} · {sheet} of {sheets}");
    let at = Point::new(notes.place.x0 + 0.5 + notes.scale + 3.0, notes.place.y1 - 1.0);
    canvas.fill_black(&letter(&words, at, FIGURES, Anchor::Start));
}
