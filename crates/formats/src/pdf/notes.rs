//! What is printed beside the pieces: a scale to check the print with, and the sheet's code. Drawn once,
//! for the files and for the page's views of them.

use aptum_core::Prepared;
use aptum_core::face::Separation;
use aptum_core::geometry::{BezPath, Point};
use aptum_core::sheet::{LINE, Notes, NotesForm};
use aptum_core::units::{Unit, measure};

use super::Canvas;
use crate::line_style::LineStyle;
use crate::square_code::square_code;
use aptum_core::lettering::{Anchor, letter};

const RULE: LineStyle = LineStyle { colour: "#000000", width: 0.15, dash: &[] };

/// Capital height of the figures, mm.
const FIGURES: f64 = 1.8;

/// Distance from the notes' edges, mm.
const EDGE: f64 = 0.5;

/// A ruled line of exactly the scale's length with a tick at every tenth, where it lies on the sheet.
#[must_use]
pub fn scale_rule(notes: &Notes) -> BezPath {
    let mut rule = BezPath::new();
    let Some(scale) = notes.scale() else { return rule };
    let base = notes.height() - 1.0;
    rule.move_to((EDGE, base));
    rule.line_to((EDGE + scale, base));
    for tenth in 0..=10 {
        let x = EDGE + scale * f64::from(tenth) / 10.0;
        let height = if tenth % 5 == 0 { 2.4 } else { 1.4 };
        rule.move_to((x, base));
        rule.line_to((x, base - height));
    }
    notes.frame() * rule
}

/// What the scale measures, as outlines.
#[must_use]
pub fn scale_words(notes: &Notes, unit: Unit) -> BezPath {
    let Some(scale) = notes.scale() else { return BezPath::new() };
    let words = format!("{} at 100 %", measure(scale, unit));
    let middle = Point::new(EDGE + scale / 2.0, notes.height() - 5.2);
    notes.frame() * letter(&words, middle, FIGURES, Anchor::Middle)
}

/// The code and which sheet of how many, as outlines.
#[must_use]
pub fn code_words(notes: &Notes, code: &str, sheet: u32, sheets: u32) -> BezPath {
    line(notes, &format!("{code} · {sheet} of {sheets}"))
}

/// What tells one printed sheet of a run from the others: its code and number, in letters and as a square code, as outlines.
#[must_use]
pub fn code_ink(prepared: &Prepared, run: usize, sheet: u32) -> BezPath {
    let sheets = prepared.layout.sheets();
    let mut ink = match prepared.notes.get(run) {
        Some(Some(notes)) => code_words(notes, &prepared.code, sheet, sheets),
        _ => BezPath::new(),
    };
    if let Some(Some(place)) = prepared.square_codes.get(run) {
        ink.extend(square_code(*place, &prepared.code, sheet));
    }
    ink
}

fn line(notes: &Notes, words: &str) -> BezPath {
    let base = notes.height() - 1.0;
    let at = match notes.form {
        NotesForm::Beside(scale) => Point::new(EDGE + scale + 3.0, base),
        NotesForm::Above(_) => Point::new(EDGE, LINE - 1.0),
        NotesForm::Code => Point::new(EDGE, base),
    };
    notes.frame() * letter(words, at, FIGURES, Anchor::Start)
}

pub(super) fn draw_scale(canvas: &mut Canvas, notes: &Notes, unit: Unit) {
    if notes.scale().is_some() {
        canvas.stroke(&scale_rule(notes), RULE);
        canvas.fill_black(&scale_words(notes, unit));
    }
}

pub(super) fn draw_code(canvas: &mut Canvas, notes: &Notes, code: &str, sheet: u32, sheets: u32) {
    canvas.fill_black(&code_words(notes, code, sheet, sheets));
}

/// The code and the ink of a plate.
pub(super) fn draw_ink(canvas: &mut Canvas, notes: &Notes, code: &str, ink: Separation) {
    let name = ink.name().split(' ').next().unwrap_or_default();
    canvas.fill_black(&line(notes, &format!("{code} · {name}")));
}
