//! Lines of a drawing from elsewhere, as its file holds them, before anybody says what they are.

mod arcs;
mod doubles;
mod folding;
mod guess;
mod joining;
mod key;
mod mend;
mod scale;

use std::collections::BTreeMap;

use kurbo::{BezPath, Cap, Join, PathEl, Rect, Shape, Stroke, StrokeOpts};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use thiserror::Error;
#[cfg(feature = "api")]
use ts_rs::TS;

pub use arcs::with_arcs;
pub use doubles::{Copies, copies};
pub use folding::{MOST_STEPS, MOST_TOLD, MOST_TURNS, PanelName, StepSay, ToldFolding, Turn};
pub use guess::guessed;
pub use joining::{Joined, is_as_long, joined};
pub use key::{LineKey, Meaning};
pub use mend::{AddedLine, Chain, LineMend, MOST_MENDS, MendSaid, Picked};
pub use scale::{PER_INCH, Scale};

use crate::geometry::{Region, redrawn_as};
use crate::memory::{ELEMENT, Weighty};

/// Most lines of a drawing.
pub const MOST_LINES: usize = 100_000;

/// Most elements of all its lines together.
pub const MOST_ELEMENTS: usize = 1_000_000;

/// Most rows: layers and colours and looks of lines.
pub const MOST_GROUPS: usize = 400;

/// How far from its origin a drawing may lie, in its own units.
const FARTHEST: f64 = 1e8;

/// A drawing, as it was read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Lines {
    /// How long a unit of it is, mm, where the file says so.
    pub unit: Option<f64>,
    /// What kinds of lines it holds.
    pub groups: Vec<Group>,
    /// The lines, `y` down.
    pub lines: Vec<Line>,
    /// How far lines fold, by their numbers, degrees as FOLD counts them: valleys above 0, mountains below.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub angles: Vec<(usize, f64)>,
    /// Words that are letters, not outlines.
    pub words: usize,
    /// Pictures in it.
    pub pictures: usize,
    /// What the file tells of how they fold, beside angles; not kept with them, but with what is decided of the drawing.
    #[serde(skip)]
    pub folding: ToldFolding,
    /// What the steps came to by which they were mended, where they were.
    #[serde(skip)]
    pub mended: Vec<MendSaid>,
}

/// Lines of a layer that look alike.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Group {
    /// The layer that they are on; empty where there is none.
    pub layer: String,
    /// Their colour, as `#rrggbb`; empty where nobody sees it.
    pub colour: String,
    /// How they look.
    pub look: Look,
}

/// How lines look in the program that drew them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Look {
    /// A stroke with a width.
    Stroke,
    /// A stroke without a width.
    Hairline,
    /// The edge of an area that has no stroke.
    Fill,
    /// Letters, as outlines.
    Words,
    /// Neither stroke nor area, or hidden.
    Unseen,
    /// What a clip hides.
    Clipped,
}

impl Look {
    /// Its name in running text.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Stroke => "strokes",
            Self::Hairline => "strokes of no width",
            Self::Fill => "areas without a stroke",
            Self::Words => "letters",
            Self::Unseen => "not to be seen",
            Self::Clipped => "hidden by a clip or off the page",
        }
    }

    /// So many that look like that.
    #[must_use]
    pub fn counted(self, count: usize) -> String {
        let one = match self {
            Self::Stroke => "stroke",
            Self::Hairline => "stroke of no width",
            Self::Fill => "area without a stroke",
            Self::Words => "letter",
            Self::Unseen | Self::Clipped => self.name(),
        };
        counted(count, one, self.name())
    }
}

impl Group {
    /// What a line key knows it by: it stays when the file is brought in again.
    #[must_use]
    pub fn id(&self) -> String {
        let look = serde_json::to_value(self.look).ok();
        let look = look.as_ref().and_then(|look| look.as_str()).unwrap_or_default();
        format!("{}|{}|{look}", self.layer, self.colour)
    }

    /// What operations know lines of its layer and colour by: small letters, digits and hyphens, up to 24.
    #[must_use]
    pub fn slug(&self) -> String {
        let layer: String = crate::id::plain(&self.layer).chars().take(16).collect();
        let colour = self.colour.trim_start_matches('#').to_lowercase();
        let own = format!("{}-{colour}", layer.trim_matches('-'));
        let own = own.trim_matches('-');
        if own.is_empty() { "plain".to_owned() } else { own.to_owned() }
    }

    /// Its layer and colour, in words.
    #[must_use]
    pub fn name(&self) -> String {
        match (self.layer.is_empty(), self.colour.is_empty()) {
            (true, true) => "lines of no colour".to_owned(),
            (true, false) => self.colour.clone(),
            (false, true) => self.layer.clone(),
            (false, false) => format!("{}, {}", self.layer, self.colour),
        }
    }
}

/// A line, in one go.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Line {
    /// Which of the groups.
    pub group: usize,
    /// Where it runs, in units of the file: one subpath.
    #[serde(serialize_with = "path_out", deserialize_with = "path_in")]
    pub path: BezPath,
    /// How wide it is drawn, in units of the file; 0 where that is not known.
    #[serde(default, skip_serializing_if = "is_nothing")]
    pub width: f64,
    /// What it is, where that is told of it alone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub told: Option<Meaning>,
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde asks for it")]
fn is_nothing(width: &f64) -> bool {
    *width <= 0.0
}

/// Why a drawing cannot be worked with.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum LinesError {
    /// Nothing but words and pictures, or nothing at all.
    #[error("it holds no lines, {words} and {pictures}{}", if *.pictures > 0 { ": start a job from the picture to trace it" } else { "" }, words = counted(*.words, "word", "words"), pictures = counted(*.pictures, "picture", "pictures"))]
    NoLines {
        /// Words that are letters.
        words: usize,
        /// Pictures.
        pictures: usize,
    },
    /// More lines than are taken.
    #[error(
        "it has more than {MOST_LINES} lines, or {MOST_ELEMENTS} nodes: take out what is not to be cut"
    )]
    TooMany,
    /// More layers and colours than are taken.
    #[error("it has more than {MOST_GROUPS} layers and colours: join some of them")]
    TooManyGroups,
    /// A coordinate that is no number, or farther out than any sheet.
    #[error("a line of it lies {FARTHEST:e} units away or nowhere: move the drawing to its origin")]
    FarOut,
}

fn counted(count: usize, one: &str, many: &str) -> String {
    if count == 1 { format!("1 {one}") } else { format!("{count} {many}") }
}

fn path_out<S: Serializer>(path: &BezPath, to: S) -> Result<S::Ok, S::Error> {
    to.serialize_str(&crate::geometry::exact_text(path))
}

fn path_in<'de, D: Deserializer<'de>>(from: D) -> Result<BezPath, D::Error> {
    let text = String::deserialize(from)?;
    BezPath::from_svg(&text).map_err(serde::de::Error::custom)
}

impl Lines {
    /// Gathers lines with what they look like; each subpath is a line of its own.
    ///
    /// # Errors
    /// [`LinesError`].
    pub fn gathered(
        unit: Option<f64>,
        drawn: impl IntoIterator<Item = (Group, BezPath)>,
        words: usize,
        pictures: usize,
    ) -> Result<Self, LinesError> {
        let drawn = drawn.into_iter().map(|(group, path)| (group, path, 0.0));
        Self::gathered_wide(unit, drawn, words, pictures)
    }

    /// The same of lines with the widths of their strokes, in units of the file.
    ///
    /// # Errors
    /// [`LinesError`].
    pub fn gathered_wide(
        unit: Option<f64>,
        drawn: impl IntoIterator<Item = (Group, BezPath, f64)>,
        words: usize,
        pictures: usize,
    ) -> Result<Self, LinesError> {
        let mut known: BTreeMap<Group, usize> = BTreeMap::new();
        let mut lines: Vec<Line> = Vec::new();
        let mut elements = 0;
        for (group, path, width) in drawn {
            let next = known.len();
            let group = *known.entry(group).or_insert(next);
            if known.len() > MOST_GROUPS {
                return Err(LinesError::TooManyGroups);
            }
            for path in crate::geometry::contours(&path) {
                elements += path.elements().len();
                if lines.len() >= MOST_LINES || elements > MOST_ELEMENTS {
                    return Err(LinesError::TooMany);
                }
                // A place without a way from it is no line.
                if path.segments().next().is_some() {
                    lines.push(Line { group, path, width, told: None });
                }
            }
        }
        let mut groups: Vec<(Group, usize)> = known.into_iter().collect();
        groups.sort_by_key(|(_, number)| *number);
        let groups = groups.into_iter().map(|(group, _)| group).collect();
        let all = Self {
            unit,
            groups,
            lines,
            angles: Vec::new(),
            words,
            pictures,
            folding: ToldFolding::default(),
            mended: Vec::new(),
        };
        all.checked()?;
        Ok(all)
    }

    /// Looks whether it can be worked with, such as one out of an archive.
    ///
    /// # Errors
    /// [`LinesError`].
    pub fn checked(&self) -> Result<(), LinesError> {
        if self.lines.is_empty() {
            return Err(LinesError::NoLines { words: self.words, pictures: self.pictures });
        }
        let elements: usize = self.lines.iter().map(|line| line.path.elements().len()).sum();
        if self.lines.len() > MOST_LINES || elements > MOST_ELEMENTS {
            return Err(LinesError::TooMany);
        }
        if self.groups.len() > MOST_GROUPS {
            return Err(LinesError::TooManyGroups);
        }
        let is_near = |point: &kurbo::Point| point.x.abs() <= FARTHEST && point.y.abs() <= FARTHEST;
        let points = |element: &PathEl| match *element {
            PathEl::MoveTo(a) | PathEl::LineTo(a) => [a; 3],
            PathEl::QuadTo(a, b) => [a, b, b],
            PathEl::CurveTo(a, b, c) => [a, b, c],
            PathEl::ClosePath => [kurbo::Point::ZERO; 3],
        };
        let is_sound = |line: &Line| {
            line.group < self.groups.len()
                && (0.0..=FARTHEST).contains(&line.width)
                && line.path.elements().iter().all(|own| points(own).iter().all(is_near))
        };
        let has_angles =
            self.angles.iter().all(|(at, own)| *at < self.lines.len() && own.abs() <= 180.0);
        let has_unit = self.unit.is_none_or(|mm| (1e-6..=1e6).contains(&mm));
        if self.lines.iter().all(is_sound) && has_unit && has_angles {
            Ok(())
        } else {
            Err(LinesError::FarOut)
        }
    }

    /// How large what is seen of it is, in its own units.
    #[must_use]
    pub fn bounds(&self) -> Rect {
        let is_seen = |line: &&Line| {
            self.groups
                .get(line.group)
                .is_some_and(|group| !matches!(group.look, Look::Unseen | Look::Clipped))
        };
        let seen: Vec<&Line> = self.lines.iter().filter(is_seen).collect();
        let all = if seen.is_empty() { self.lines.iter().collect() } else { seen };
        let all = all.into_iter().filter(|line| !line.path.elements().is_empty());
        let all = all.map(|line| line.path.bounding_box());
        all.reduce(|all, next| all.union(next)).unwrap_or_default()
    }
}

/// The outer edges of a stroke of a width, mm; the path itself where it has none.
#[must_use]
pub fn around_stroke(path: &BezPath, width: f64) -> Vec<BezPath> {
    if width <= 0.0 {
        return vec![path.clone()];
    }
    let style = Stroke::new(width).with_join(Join::Round).with_caps(Cap::Round);
    let drawn = kurbo::stroke(path.iter(), &style, &StrokeOpts::default(), 0.002);
    let area = Region::wound(&drawn);
    let rings = redrawn_as(&area, &drawn).into_iter();
    rings.filter(|(_, is_hole)| !is_hole).map(|(path, _)| path).collect()
}

impl Weighty for Lines {
    fn weight(&self) -> usize {
        let elements: usize = self.lines.iter().map(|line| line.path.elements().len()).sum();
        ELEMENT * elements + 64 * self.lines.len() + 200 * self.groups.len()
    }
}
