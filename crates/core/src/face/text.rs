//! Words of the user's own, as a layer prints them.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::layer::colour_fault;
use super::lying::Lying;
use crate::error::{Faults, InputError, Remedy, Setting};
use crate::geometry::BezPath;
use crate::lettering::{Align, Block, Copy, Font, OwnTypeface, Typeface, set};
use crate::units::{INCH, Unit, measure};

/// A typographic point: 1/72 inch, mm (ISO 32000-1, 8.3.2.3).
pub const POINT: f64 = INCH / 72.0;

/// How large words are.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "by", content = "value")]
pub enum TextSize {
    /// As large as their area holds them.
    Area,
    /// So many points to the em.
    Points(f64),
    /// So many mm to the em.
    Em(f64),
    /// Capitals so high, mm.
    Capitals(f64),
}

/// Words and how they are set.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Text {
    /// Where they lie.
    #[serde(flatten)]
    #[cfg_attr(feature = "api", ts(flatten))]
    pub lying: Lying,
    /// The words, a line for each line; up to 2,000 characters.
    pub words: String,
    /// A typeface of the shelf, by its id.
    pub typeface: String,
    /// A typeface of the maker’s own, instead of that.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub own_typeface: Option<OwnTypeface>,
    /// As `#rrggbb`.
    pub colour: String,
    /// How large they are.
    pub size: TextSize,
    /// How lines stand to each other.
    #[serde(default)]
    pub align: Align,
    /// From line to line, in ems; 0.5 to 4.
    #[serde(default = "usual_lines")]
    pub line_spacing: f64,
    /// What is added between letters, in ems; −0.2 to 2.
    #[serde(default)]
    pub letter_spacing: f64,
    /// True where lines that are too long for the area are broken.
    #[serde(default)]
    pub wrapped: bool,
    /// The radius of the circle on which they stand, mm, its middle in the layer's place; below zero they stand inside
    /// of it, at its bottom. `None` runs straight.
    #[serde(default)]
    pub round: Option<f64>,
}

const fn usual_lines() -> f64 {
    1.2
}

/// Words as they are printed.
#[derive(Debug, Clone, PartialEq)]
pub struct SetText {
    /// Their outlines, about the layer's middle, mm.
    pub path: BezPath,
    /// Width and height of the block, mm.
    pub size: [f64; 2],
    /// The em, mm.
    pub em: f64,
    /// Lines.
    pub lines: usize,
    /// True where some of them are left out: the circle has no room for them.
    pub is_cramped: bool,
}

/// Most characters, and most lines.
const MOST_CHARACTERS: usize = 2000;
const MOST_LINES: usize = 60;

/// An em's range, mm: half a point to half a metre.
const EM: std::ops::RangeInclusive<f64> = 0.17..=500.0;

/// What is left free around words that fill their area, mm, and as a share of its side at most.
const AROUND: f64 = 3.0;
const AROUND_SHARE: f64 = 0.1;

impl Text {
    /// Words in the plainest typeface, as large as their area holds them.
    #[must_use]
    pub fn new(words: &str) -> Self {
        Self {
            lying: Lying::default(),
            words: words.to_owned(),
            typeface: "plain".to_owned(),
            own_typeface: None,
            colour: super::ink_colour().to_owned(),
            size: TextSize::Area,
            align: Align::Centre,
            line_spacing: usual_lines(),
            letter_spacing: 0.0,
            wrapped: false,
            round: None,
        }
    }

    /// The typeface of the shelf; the plainest where there is none of that id.
    #[must_use]
    pub fn shelf_typeface(&self) -> &'static Typeface {
        Typeface::find(&self.typeface).unwrap_or_else(Typeface::plain)
    }

    /// What it is set in: its own typeface where that is here.
    fn font(&self) -> Font<'_> {
        let own = self.own_typeface.as_ref().and_then(OwnTypeface::font);
        own.unwrap_or_else(|| self.shelf_typeface().font())
    }

    /// What its typeface goes by.
    #[must_use]
    pub fn typeface_name(&self) -> String {
        let own = self.own_typeface.as_ref().map(|own| own.origin.name.clone());
        own.unwrap_or_else(|| self.shelf_typeface().character.to_lowercase())
    }

    /// The words set for an area of so much room (width and height, mm).
    #[must_use]
    pub fn set(&self, room: [f64; 2]) -> SetText {
        let free = room.map(|side| (side - 2.0 * (side * AROUND_SHARE).min(AROUND)).max(0.1));
        let (block, em) = match self.size {
            TextSize::Area => self.filling(free),
            size => {
                let em = match size {
                    TextSize::Points(points) => points * POINT,
                    TextSize::Em(mm) => mm,
                    TextSize::Capitals(mm) => mm / self.block(None).capital,
                    TextSize::Area => 1.0,
                };
                (self.block(self.wrapped.then_some(free[0] / em)), em)
            }
        };
        let path = match self.round {
            Some(radius) => block.round(em, radius),
            None => block.straight(em),
        };
        let is_cramped = self.round.is_some_and(|radius| block.is_cramped(em, radius));
        let size = [block.width * em, block.height * em];
        SetText { path, size, em, lines: block.lines, is_cramped }
    }

    /// The block and the largest em at which it fits.
    fn filling(&self, [width, height]: [f64; 2]) -> (Block, f64) {
        let held = |em: f64| em.clamp(*EM.start(), *EM.end());
        let whole = self.block(None);
        let fits =
            |block: &Block| (width / block.width.max(1e-6)).min(height / block.height.max(1e-6));
        if self.round.is_some() {
            // Round a circle the lines may take so much of its height.
            return (whole.clone(), held((height / 6.0).min(width / 6.0)));
        }
        let mut best = (held(fits(&whole)), whole);
        if self.wrapped {
            // The narrower the lines, the larger the type, until they are too high.
            let (mut low, mut high) = (best.0, *EM.end());
            for _ in 0..24 {
                let em = (low * high).sqrt();
                let block = self.block(Some(width / em));
                if fits(&block) >= em {
                    (low, best) = (em, (em, block));
                } else {
                    high = em;
                }
            }
        }
        (best.1, best.0)
    }

    fn block(&self, width: Option<f64>) -> Block {
        set(&Copy {
            words: &self.words,
            font: self.font(),
            align: self.align,
            line_spacing: self.line_spacing,
            letter_spacing: self.letter_spacing,
            width,
        })
    }

    /// The characters that the typeface lacks, each once.
    #[must_use]
    pub fn lacking(&self) -> Vec<char> {
        let mut lacking = self.font().lacking(&self.words);
        lacking.sort_unstable();
        lacking.dedup();
        lacking
    }

    pub(super) fn validate(&self, field: &dyn Fn(&str) -> String, unit: Unit, faults: &mut Faults) {
        let count = |number: usize| f64::from(u32::try_from(number).unwrap_or(u32::MAX));
        let characters = self.words.chars().count();
        let lines = self.words.lines().count();
        if characters > MOST_CHARACTERS || lines > MOST_LINES {
            faults.add(InputError::new(
                &field("words"),
                format!(
                    "The text has {characters} characters in {lines} lines: up to {MOST_CHARACTERS} in {MOST_LINES}"
                ),
                count(characters),
                Remedy::advice("Share it out over several layers"),
            ));
        }
        let hidden = |c: char| c.is_control() && !matches!(c, '\n' | '\t');
        if let Some(bad) = self.words.chars().find(|c| hidden(*c)) {
            faults.add(InputError::plain(
                &field("words"),
                format!("The text holds a control character (U+{:04X})", u32::from(bad)),
                Remedy::advice("Type the words anew"),
            ));
        }
        if Typeface::find(&self.typeface).is_none() {
            let name: String = self.typeface.chars().take(40).collect();
            let field = field("typeface");
            faults.add(InputError::plain(
                &field,
                format!("There is no typeface “{name}”"),
                Remedy::set("Set it in the plain one", &field, "plain"),
            ));
        }
        if let Some(own) = &self.own_typeface {
            own_typeface_faults(own, &field("own_typeface"), faults);
        }
        colour_fault(&field("colour"), &self.colour, faults);
        let show = |mm: f64| measure(mm, unit);
        let points = |points: f64| format!("{points} pt");
        match self.size {
            TextSize::Area => {}
            TextSize::Points(value) => {
                let range = EM.start() / POINT..=EM.end() / POINT;
                faults.range(&field("size.value"), "The size", value, range, points);
            }
            TextSize::Em(value) | TextSize::Capitals(value) => {
                faults.range(&field("size.value"), "The size", value, EM, show);
            }
        }
        let times = |value: f64| format!("{value}");
        faults.range(
            &field("line_spacing"),
            "The line spacing",
            self.line_spacing,
            0.5..=4.0,
            times,
        );
        let spacing = self.letter_spacing;
        faults.range(&field("letter_spacing"), "The letter spacing", spacing, -0.2..=2.0, times);
        if let Some(radius) = self.round {
            let words = "The radius of the circle";
            faults.range(&field("round"), words, radius.abs(), 2.0..=2000.0, show);
        }
    }
}

/// What is wrong with how a typeface of one's own is named.
pub(super) fn own_typeface_faults(own: &OwnTypeface, field: &str, faults: &mut Faults) {
    own.origin.validate(&format!("{field}.origin"), faults);
    if !own.blob.is_sound() {
        faults.add(InputError::plain(
            field,
            "The typeface is named by no SHA-256",
            Remedy::set("Set it in one of the shelf", field, Setting::Standard),
        ));
    }
}
