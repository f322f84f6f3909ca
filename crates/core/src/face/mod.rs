//! Face: what is printed on a piece. For now a flat colour and the panels' names.

use kurbo::{BezPath, Point, Shape};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use crate::error::{Faults, InputError, Remedy};
use crate::form::{Label, Part, PlacedPanel, Role};
use crate::geometry::Region;
use crate::units::{Unit, measure};
use crate::workshop::is_colour;

/// Which panels carry print.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Coverage {
    /// What is seen of the closed piece; flaps stay bare and may leave the printable area.
    Faces,
    /// Everything but the glue flap.
    Flaps,
}

/// Whether panels carry their names.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Captions {
    /// Each printed panel says what it is.
    Names,
    /// No text.
    None,
}

/// What is printed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
pub struct Face {
    /// A flat colour as `#rrggbb`; `None` leaves the card bare.
    pub colour: Option<String>,
    /// Whether panels carry their names.
    pub captions: Captions,
    /// Which panels carry print.
    pub coverage: Coverage,
    /// How far the colour goes past the cut, mm, 0 to 10.
    pub bleed: f64,
}

/// A panel's name where it is printed.
#[derive(Debug, Clone, PartialEq)]
pub struct Caption {
    /// The words.
    pub text: String,
    /// Their middle, in the flat's coordinates.
    pub centre: Point,
    /// Height of a capital letter, mm.
    pub height: f64,
}

/// What is printed on one blank, in its coordinates.
#[derive(Debug, Clone, PartialEq)]
pub struct Art {
    /// The coloured area, bleed included.
    pub fill: BezPath,
    /// Its colour, if it has one.
    pub colour: Option<String>,
    /// The panels' names.
    pub captions: Vec<Caption>,
    /// Everything that is printed, bleed included: what must lie in the print window.
    pub printed: Region,
    /// The bleed in force, mm.
    pub bleed: f64,
}

/// Capital height of a caption, mm: legible, and never the main thing.
const CAPTION: std::ops::RangeInclusive<f64> = 1.2..=4.0;

/// Width of a character against the capital height, on average.
const CHARACTER: f64 = 0.85;

impl Face {
    pub(crate) fn validate(&self, unit: Unit, faults: &mut Faults) {
        faults.range("face.bleed", "The bleed", self.bleed, 0.0..=10.0, |mm| measure(mm, unit));
        if let Some(colour) = &self.colour
            && !is_colour(colour)
        {
            faults.add(InputError::plain(
                "face.colour",
                format!("“{}” is not a colour", colour.chars().take(20).collect::<String>()),
                Remedy::set("Use white, #ffffff", "face.colour", "#ffffff"),
            ));
        }
    }

    /// What is printed on a copy of a blank, its bleed held to `most` mm.
    #[must_use]
    pub fn print(&self, part: &Part, most: f64) -> Art {
        let panels: Vec<&PlacedPanel> = part
            .panels
            .iter()
            .filter(|panel| match self.coverage {
                Coverage::Faces => panel.role == Role::Face,
                Coverage::Flaps => panel.role != Role::Glue,
            })
            .collect();
        let captions: Vec<Caption> = match self.captions {
            Captions::None => Vec::new(),
            Captions::Names => panels
                .iter()
                .filter(|panel| panel.role == Role::Face && panel.strip_of.is_none())
                .filter(|panel| part.labels.iter().all(|label| label.panel != panel.name))
                .filter_map(|panel| caption(panel))
                .chain(part.labels.iter().filter_map(words))
                .collect(),
        };
        let bleed = self.bleed.min(most).max(0.0);
        let printed = if self.colour.is_some() {
            panels
                .iter()
                .map(|panel| Region::inside(&panel.outline))
                .fold(Region::empty(), |all, panel| all.union(&panel))
                .grown(bleed)
        } else {
            captions
                .iter()
                .map(|caption| Region::rect(caption.bounds()))
                .fold(Region::empty(), |all, words| all.union(&words))
        };
        let fill = if self.colour.is_some() { printed.to_path() } else { BezPath::new() };
        Art { fill, colour: self.colour.clone(), captions, printed, bleed }
    }
}

/// A label's words, unless there is no room for them.
fn words(label: &Label) -> Option<Caption> {
    let [across, along] = label.size;
    lettered(&label.text, label.centre, (across, along / 1.8))
}

/// A panel's name in its middle, unless it is too narrow to carry one.
fn caption(panel: &PlacedPanel) -> Option<Caption> {
    let bounds = panel.outline.bounding_box();
    lettered(&panel.name, bounds.center(), (bounds.width(), bounds.height() / 3.0))
}

/// Words around a point in so much room, as large as they may be.
fn lettered(text: &str, centre: Point, (across, high): (f64, f64)) -> Option<Caption> {
    let characters = f64::from(u32::try_from(text.chars().count()).unwrap_or(u32::MAX));
    let fitting = (across * 0.8 / (characters * CHARACTER)).min(high);
    (fitting >= *CAPTION.start()).then(|| Caption {
        text: text.to_owned(),
        centre,
        height: fitting.min(*CAPTION.end()),
    })
}

impl Caption {
    /// A rectangle that holds the words with a little to spare.
    #[must_use]
    pub fn bounds(&self) -> kurbo::Rect {
        let characters = f64::from(u32::try_from(self.text.chars().count()).unwrap_or(u32::MAX));
        kurbo::Rect::from_center_size(
            self.centre,
            (characters * CHARACTER * self.height, 1.6 * self.height),
        )
    }
}
