//! Openings of one's own: words, or the closed lines of a drawing, with bridges to what would fall out.

use kurbo::{Affine, BezPath, Rect, Shape};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::bridges::bridged;
use super::{AddOn, AddOnKind};
use crate::blob::{BlobId, Origin};
use crate::error::{Faults, InputError, Remedy};
use crate::form::ReadLines;
use crate::form::checks::NARROWEST_BRIDGE;
use crate::geometry::{Region, redrawn_as};
use crate::lettering::{Align, Copy, Typeface, set};
use crate::lines::{Look, joined};
use crate::units::{Unit, measure};

/// What is cut out, and how it is held together.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct OwnShape {
    /// What is cut out.
    pub cutting: Cutting,
    /// How far it is turned, degrees with the clock; -360 to 360.
    #[serde(default)]
    pub turn: f64,
    /// Width of the bridges that hold what would fall out, mm, 0.5 to 20; `None` puts in none.
    #[serde(default)]
    pub bridge: Option<f64>,
}

/// What is cut out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "of")]
pub enum Cutting {
    /// Words.
    Words {
        /// A line for each line; up to 200 characters.
        words: String,
        /// A typeface of the shelf, by its id.
        typeface: String,
        /// What is added between letters, in ems; -0.2 to 2.
        #[serde(default)]
        letter_spacing: f64,
    },
    /// The closed lines of a drawing: each takes away what lies inside the one around it.
    Drawing {
        /// Its lines, as they were read.
        lines: BlobId,
        /// What is known of where it comes from.
        #[serde(default)]
        origin: Origin,
        /// What was read; `None` until somebody reads it.
        #[serde(skip)]
        #[cfg_attr(feature = "api", ts(skip), schemars(skip))]
        read: ReadLines,
    },
}

/// What an opening of one's own came to.
#[derive(Debug, Clone, PartialEq)]
pub struct CutOut {
    /// Which of the add-ons it is.
    pub add_on: usize,
    /// Which blank it lies on.
    pub part: usize,
    /// Its cuts; in the blank's coordinates.
    pub cuts: Vec<BezPath>,
    /// How large it is with its bridges.
    pub bounds: Rect,
    /// The edges of what falls out beside what is cut out: the middle of an o.
    pub islands: Vec<BezPath>,
    /// How many bridges hold what would.
    pub bridges: usize,
    /// Lines of the drawing that are not closed, which are left out.
    pub open: usize,
}

/// What an opening takes out of the card, around a middle at the origin.
pub(super) struct Taken {
    /// Its outlines as they are drawn.
    pub path: BezPath,
    /// What lies inside them.
    pub area: Region,
    /// Lines that are not closed.
    pub open: usize,
}

/// Most characters that are cut out.
const MOST_CHARACTERS: usize = 200;

/// Most separate cuts of one opening.
const MOST_CUTS: usize = 600;

/// Most elements of a drawing that is cut out.
const MOST_ELEMENTS: usize = 30_000;

/// From line to line, in ems.
const LINES: f64 = 1.2;

/// Ends of a drawing's lines that were meant to meet, mm (common practice).
const JOIN: f64 = 0.1;

pub(super) fn field(index: usize, name: &str) -> String {
    AddOn::field(index, &format!("own.{name}"))
}

/// An add-on that needs to be told what is cut out, and is not.
pub(super) fn nothing(kind: AddOnKind, index: usize) -> InputError {
    InputError::plain(
        &AddOn::field(index, "own"),
        format!("{} says nothing of what is cut out", kind.name()),
        Remedy::advice("Type its words or bring its drawing in, or take it away"),
    )
}

impl OwnShape {
    /// Bridges are this wide at first, mm: as wide as card between two cuts should be.
    pub const BRIDGE: f64 = NARROWEST_BRIDGE;

    /// Words to begin with.
    #[must_use]
    pub fn words() -> Self {
        let (words, typeface) = ("Words".to_owned(), "poster".to_owned());
        let cutting = Cutting::Words { words, typeface, letter_spacing: 0.05 };
        Self { cutting, turn: 0.0, bridge: None }
    }

    pub(super) fn validate(&self, kind: AddOnKind, index: usize, faults: &mut Faults, unit: Unit) {
        let name = kind.name();
        match (kind, &self.cutting) {
            (AddOnKind::Words, Cutting::Words { words, typeface, letter_spacing }) => {
                let characters = words.chars().count();
                let is_bad = |c: char| c.is_control() && c != '\n';
                if words.trim().is_empty() || characters > MOST_CHARACTERS || words.contains(is_bad)
                {
                    faults.add(InputError::new(
                        &field(index, "cutting.words"),
                        format!("{name} has {characters} characters: 1 to {MOST_CHARACTERS}, and nothing but letters and new lines"),
                        f64::from(u32::try_from(characters).unwrap_or(u32::MAX)),
                        Remedy::advice("Type the words that are cut out"),
                    ));
                }
                if Typeface::find(typeface).is_none() {
                    let typeface: String = typeface.chars().take(40).collect();
                    let field = field(index, "cutting.typeface");
                    faults.add(InputError::plain(
                        &field,
                        format!("There is no typeface “{typeface}”"),
                        Remedy::set("Set it in the plain one", &field, "plain"),
                    ));
                }
                faults.range(
                    &field(index, "cutting.letter_spacing"),
                    "The letter spacing",
                    *letter_spacing,
                    -0.2..=2.0,
                    |ems| format!("{ems}"),
                );
            }
            (AddOnKind::Drawing, Cutting::Drawing { lines, origin, read }) => {
                origin.validate(&field(index, "cutting.origin"), faults);
                if !lines.is_sound() || read.0.is_none() {
                    faults.add(InputError::plain(
                        &field(index, "cutting.lines"),
                        format!("The drawing “{}” is not here", origin.name),
                        Remedy::advice("Bring it in again, or take it away"),
                    ));
                }
            }
            _ => faults.add(nothing(kind, index)),
        }
        let turned = |degrees: f64| format!("{degrees}°");
        faults.range(&field(index, "turn"), "The turn", self.turn, -360.0..=360.0, turned);
        if let Some(bridge) = self.bridge {
            let range = 0.5..=20.0;
            faults
                .range(&field(index, "bridge"), "A bridge", bridge, range, |mm| measure(mm, unit));
        }
    }

    /// What it takes out of the card; its figures are in range.
    ///
    /// # Errors
    /// A drawing with more in it than can be cut out, or with nothing closed.
    pub(super) fn taken(&self, add_on: &AddOn, index: usize) -> Result<Taken, InputError> {
        let (path, area, open) = match &self.cutting {
            Cutting::Words { words, typeface, letter_spacing } => {
                let font = Typeface::find(typeface).unwrap_or_else(Typeface::plain).font();
                let block = set(&Copy {
                    words,
                    font,
                    align: Align::Centre,
                    line_spacing: LINES,
                    letter_spacing: *letter_spacing,
                    width: None,
                });
                let path = block.straight(add_on.height / block.capital);
                let area = Region::wound(&path);
                (path, area, 0)
            }
            Cutting::Drawing { read, origin, .. } => {
                let lines = read.0.as_ref().ok_or_else(|| nothing(add_on.kind, index))?;
                let bounds = lines.bounds();
                let scale = add_on.width / bounds.width().max(1e-9);
                let to_blank = Affine::scale(scale) * Affine::translate(-bounds.center().to_vec2());
                let is_seen = |group: usize| {
                    lines
                        .groups
                        .get(group)
                        .is_some_and(|group| !matches!(group.look, Look::Unseen | Look::Clipped))
                };
                let seen = lines.lines.iter().filter(|line| is_seen(line.group));
                let seen: Vec<BezPath> = seen.map(|line| to_blank * line.path.clone()).collect();
                let elements: usize = seen.iter().map(|path| path.elements().len()).sum();
                if elements > MOST_ELEMENTS {
                    return Err(InputError::new(
                        &field(index, "cutting.lines"),
                        format!(
                            "The drawing “{}” has {elements} nodes: up to {MOST_ELEMENTS} can be cut out of a panel",
                            origin.name
                        ),
                        f64::from(u32::try_from(elements).unwrap_or(u32::MAX)),
                        Remedy::advice("Simplify it, or bring in the part that is cut out"),
                    ));
                }
                let found = joined(seen, JOIN, JOIN, false);
                let is_closed =
                    |path: &&BezPath| path.elements().last() == Some(&kurbo::PathEl::ClosePath);
                let mut path = BezPath::new();
                let mut open = 0;
                for line in &found.lines {
                    if is_closed(&line) {
                        path.extend(line.iter());
                    } else {
                        open += 1;
                    }
                }
                let area = Region::alternating(&path);
                (path, area, open)
            }
        };
        let (middle, name) = (path.bounding_box().center(), add_on.kind.name());
        if area.is_empty() {
            return Err(InputError::plain(
                &field(index, "cutting"),
                format!("{name} holds nothing closed that could be cut out"),
                Remedy::advice(
                    "Type other words, bring in a drawing with closed outlines, or take it away",
                ),
            ));
        }
        if area.rings().count() > MOST_CUTS {
            return Err(InputError::new(
                &field(index, "cutting"),
                format!("{name} is {} separate cuts: up to {MOST_CUTS}", area.rings().count()),
                f64::from(u32::try_from(area.rings().count()).unwrap_or(u32::MAX)),
                Remedy::advice("Simplify it, or share it out over several"),
            ));
        }
        let put = Affine::rotate(self.turn.to_radians()) * Affine::translate(-middle.to_vec2());
        Ok(Taken { path: put * path, area: area.transformed(put), open })
    }

    /// Its cuts where it lies, with the bridges that hold what would fall out; on the first blank, for the first add-on.
    pub(super) fn cut(&self, taken: &Taken, put: Affine) -> CutOut {
        let Taken { path, area, open } = taken;
        let (area, bridges) = match self.bridge {
            Some(width) => bridged(area, width),
            None => (area.clone(), 0),
        };
        let (mut cuts, mut islands) = (Vec::new(), Vec::new());
        for (own, is_hole) in redrawn_as(&area, path) {
            let own = put * own;
            if is_hole {
                islands.push(own.clone());
            }
            cuts.push(own);
        }
        let bounds = put.transform_rect_bbox(path.bounding_box());
        CutOut { add_on: 0, part: 0, cuts, bounds, islands, bridges, open: *open }
    }
}
