//! Setting words: shaped, broken into lines, aligned, and laid along a line or a circle, as outlines.

use std::cell::RefCell;

use parley::LayoutContext;
use parley::layout::PositionedLayoutItem;
use parley::style::{FontFamily, LineHeight, StyleProperty};
use ttf_parser::{Face, GlyphId};

use super::Align;
use super::line::Glyph as Outlines;
use super::typeface::{Font, Fonts};
use crate::geometry::{Affine, BezPath, Point};

/// What is set.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Copy<'a> {
    pub words: &'a str,
    pub font: Font<'a>,
    pub align: Align,
    /// From line to line, in ems.
    pub line_spacing: f64,
    /// What is added between letters, in ems.
    pub letter_spacing: f64,
    /// Lines are broken at this width, in ems.
    pub width: Option<f64>,
}

/// Words as they are set, in ems: the origin is the middle, across, of the lines, and the top of the capitals of the
/// first.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Block {
    letters: Vec<Letter>,
    /// Of the longest line, without the space after its last letter.
    pub width: f64,
    /// From the top of the first line's capitals to the last baseline.
    pub height: f64,
    /// Height of a capital.
    pub capital: f64,
    /// Lines.
    pub lines: usize,
}

#[derive(Debug, Clone, PartialEq)]
struct Letter {
    outline: BezPath,
    /// From the middle of the lines to the pen.
    x: f64,
    advance: f64,
    baseline: f64,
}

/// Type is shaped at so many units to the em, to which the shaper's 32-bit figures are exact.
const EM: f32 = 1000.0;

/// The least radius on which letters stand, in ems.
const LEAST_CIRCLE: f64 = 0.5;

thread_local! {
    static CONTEXT: RefCell<(Fonts, LayoutContext<()>)> =
        RefCell::new((Fonts::new(), LayoutContext::new()));
}

/// Sets words.
pub(crate) fn set(copy: &Copy<'_>) -> Block {
    let em = f64::from(EM);
    let face = Face::parse(copy.font.bytes, 0).ok();
    let units = face.as_ref().map_or(1000.0, |face| f64::from(face.units_per_em()));
    let capital = face
        .as_ref()
        .and_then(Face::capital_height)
        .map_or(0.7, |height| f64::from(height) / units);
    let mut block = Block { letters: Vec::new(), width: 0.0, height: 0.0, capital, lines: 0 };
    let Some(face) = face else { return block };
    let layout = CONTEXT.with_borrow_mut(|(fonts, scratch)| {
        fonts.meet(&copy.font);
        let mut builder = scratch.ranged_builder(&mut fonts.context, copy.words, 1.0, false);
        builder.push_default(FontFamily::named(copy.font.name));
        builder.push_default(StyleProperty::FontSize(EM));
        builder.push_default(StyleProperty::LetterSpacing(single(copy.letter_spacing) * EM));
        builder.push_default(LineHeight::FontSizeRelative(single(copy.line_spacing)));
        let mut layout = builder.build(copy.words);
        layout.break_all_lines(copy.width.map(|width| single(width) * EM));
        layout
    });
    let mut lines: Vec<Vec<Letter>> = Vec::new();
    for (number, line) in layout.lines().enumerate() {
        let mut letters = Vec::new();
        for item in line.items() {
            let PositionedLayoutItem::GlyphRun(run) = item else { continue };
            let mut pen = f64::from(run.offset());
            for glyph in run.glyphs() {
                let id = u16::try_from(glyph.id).unwrap_or(0);
                let mut outline = Outlines(BezPath::new());
                // The sign for what a typeface lacks is not printed: a check names the characters.
                if id != 0 {
                    face.outline_glyph(GlyphId(id), &mut outline);
                }
                let shift = (f64::from(glyph.x) / em, f64::from(glyph.y) / em);
                letters.push(Letter {
                    // Type’s y points up.
                    outline: Affine::translate(shift)
                        * Affine::scale_non_uniform(1.0 / units, -1.0 / units)
                        * outline.0,
                    x: pen / em,
                    advance: f64::from(glyph.advance) / em,
                    baseline: capital + copy.line_spacing * count(number),
                });
                pen += f64::from(glyph.advance);
            }
        }
        lines.push(letters);
    }
    block.lines = lines.len();
    block.height = capital + copy.line_spacing * count(block.lines.saturating_sub(1));
    let spans: Vec<[f64; 2]> = lines.iter().map(|line| span(line, copy.letter_spacing)).collect();
    block.width = spans.iter().map(|[from, to]| to - from).fold(0.0, f64::max);
    for (line, [from, to]) in lines.into_iter().zip(spans) {
        let left = match copy.align {
            Align::Left => -block.width / 2.0,
            Align::Centre => (from - to) / 2.0,
            Align::Right => block.width / 2.0 - (to - from),
        };
        let moved = line.into_iter().map(|letter| Letter { x: letter.x - from + left, ..letter });
        block.letters.extend(moved);
    }
    block
}

/// From the first letter that is seen to the end of the last.
fn span(line: &[Letter], spacing: f64) -> [f64; 2] {
    let seen = || line.iter().filter(|letter| !letter.outline.elements().is_empty());
    let from = seen().map(|letter| letter.x).fold(f64::INFINITY, f64::min);
    let to =
        seen().map(|letter| letter.x + letter.advance - spacing).fold(f64::NEG_INFINITY, f64::max);
    if from < to { [from, to] } else { [0.0, 0.0] }
}

#[expect(clippy::cast_possible_truncation, reason = "ratios near one")]
const fn single(value: f64) -> f32 {
    value as f32
}

fn count(number: usize) -> f64 {
    f64::from(u32::try_from(number).unwrap_or(u32::MAX))
}

impl Block {
    /// The outlines with ems of so many mm, the block's middle at the origin.
    pub(crate) fn straight(&self, em: f64) -> BezPath {
        let middle = self.height / 2.0;
        self.letters.iter().fold(BezPath::new(), |mut all, letter| {
            let to = Affine::translate((letter.x, letter.baseline - middle));
            all.extend(Affine::scale(em) * to * letter.outline.clone());
            all
        })
    }

    /// The same along a circle about the origin, on whose outside (inside, for a radius below zero) the first line
    /// stands, with its middle on top (at the bottom). Further lines stand on circles within (about) it; those for
    /// which no circle is left are left out.
    pub(crate) fn round(&self, em: f64, radius: f64) -> BezPath {
        self.letters.iter().fold(BezPath::new(), |mut all, letter| {
            let own = self.circle(letter, em, radius);
            if own * radius.signum() < LEAST_CIRCLE * em {
                return all;
            }
            let angle = (letter.x + letter.advance / 2.0) * em / own;
            let at = Point::new(own * angle.sin(), -own * angle.cos());
            let to = Affine::translate(at.to_vec2())
                * Affine::rotate(angle)
                * Affine::scale(em)
                * Affine::translate((-letter.advance / 2.0, 0.0));
            all.extend(to * letter.outline.clone());
            all
        })
    }

    /// True where no circle is left for some line.
    pub(crate) fn is_cramped(&self, em: f64, radius: f64) -> bool {
        self.letters
            .iter()
            .any(|letter| self.circle(letter, em, radius) * radius.signum() < LEAST_CIRCLE * em)
    }

    /// The radius of the circle on which a letter stands.
    fn circle(&self, letter: &Letter, em: f64, radius: f64) -> f64 {
        radius - (letter.baseline - self.capital) * em
    }
}
