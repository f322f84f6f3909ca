//! A face as it is printed on one blank: areas, outlines of words and pictures, each where it lies.

use kurbo::{Affine, BezPath, Point, Rect, Shape};

use super::lettering::{Anchor, letter};
use super::{Coverage, Face, LayerKind, PictureSize, PlacedPicture};
use crate::blob::BlobId;
use crate::form::{Label, Part, PlacedPanel, Role};
use crate::geometry::Region;
use crate::id::LayerId;
use crate::units::INCH;

/// What one layer prints on a blank, in the blank's coordinates.
#[derive(Debug, Clone, PartialEq)]
pub enum Inked {
    /// A flat colour.
    Area {
        /// What is coloured, bleed included.
        path: BezPath,
        /// As `#rrggbb`.
        colour: String,
    },
    /// Words.
    Words {
        /// Their outlines.
        path: BezPath,
    },
    /// A picture.
    Picture {
        /// Its layer.
        layer: LayerId,
        /// Its bytes.
        blob: BlobId,
        /// Where it lies.
        place: Rect,
        /// What of it is printed: its panel with its bleed.
        clip: BezPath,
    },
}

/// The ink of words.
#[must_use]
pub const fn ink_colour() -> &'static str {
    "#22302f"
}

/// What is printed on one blank, in its coordinates.
#[derive(Debug, Clone, PartialEq)]
pub struct Art {
    /// The layers, the first printed first; those that print nothing here are left out.
    pub layers: Vec<Inked>,
    /// Everything that is printed, bleed included: what must lie in the print window.
    pub printed: Region,
    /// What of it is printed up to a cut and past it, bleed included.
    pub to_edge: BezPath,
    /// The bleed in force, mm.
    pub bleed: f64,
}

/// What comes nearer to its panel's edge than this, mm, is printed up to the edge.
const AT_EDGE: f64 = 0.05;

/// Capital height of a panel's name, mm: legible, and never the main thing.
const NAME: std::ops::RangeInclusive<f64> = 1.2..=4.0;

impl Art {
    /// The flat colour and the area it covers, where there is one.
    #[must_use]
    pub fn area(&self) -> Option<(&BezPath, &str)> {
        self.layers.iter().find_map(|inked| match inked {
            Inked::Area { path, colour } => Some((path, colour.as_str())),
            _ => None,
        })
    }

    /// How many elements its paths have.
    pub(crate) fn elements(&self) -> usize {
        let layers = self.layers.iter().map(|inked| match inked {
            Inked::Area { path, .. } | Inked::Words { path } => path.elements().len(),
            Inked::Picture { clip, .. } => clip.elements().len() + 4,
        });
        layers.sum::<usize>() + self.to_edge.elements().len()
    }

    /// The outlines of all words.
    #[must_use]
    pub fn words(&self) -> BezPath {
        self.layers.iter().fold(BezPath::new(), |mut all, inked| {
            if let Inked::Words { path } = inked {
                all.extend(path.iter());
            }
            all
        })
    }
}

impl Face {
    /// What is printed on a copy of a blank, its bleed held to `most` mm.
    #[must_use]
    pub fn print(&self, part: &Part, most: f64) -> Art {
        let bleed = self.bleed.min(most).max(0.0);
        let mut art =
            Art { layers: Vec::new(), printed: Region::empty(), to_edge: BezPath::new(), bleed };
        let mut to_edge = Region::empty();
        for layer in &self.layers {
            match &layer.kind {
                LayerKind::Colour { colour, coverage } => {
                    let area = covered(part, *coverage).grown(bleed);
                    if area.is_empty() {
                        continue;
                    }
                    let path = area.to_path();
                    to_edge = to_edge.union(&area);
                    art.layers.push(Inked::Area { path, colour: colour.clone() });
                }
                LayerKind::PanelNames => {
                    let mut path = BezPath::new();
                    for words in names(part) {
                        art.printed = art.printed.union(&Region::rect(words.bounding_box()));
                        path.extend(words);
                    }
                    if !path.elements().is_empty() {
                        art.layers.push(Inked::Words { path });
                    }
                }
                LayerKind::Picture(placed) => {
                    let Some(panel) = part.panels.iter().find(|panel| panel.name == placed.panel)
                    else {
                        continue;
                    };
                    let place = placed.place(panel);
                    let clip = panel_with_bleed(part, panel, bleed);
                    let seen = clip.intersection(&Region::rect(place));
                    if seen.is_empty() {
                        continue;
                    }
                    // Well inside its panel it meets no cut.
                    let inner = Region::inside(&panel.outline).shrunk(AT_EDGE);
                    if seen.minus(&inner).is_empty() {
                        art.printed = art.printed.union(&seen);
                    } else {
                        to_edge = to_edge.union(&seen);
                    }
                    art.layers.push(Inked::Picture {
                        layer: layer.id.clone(),
                        blob: placed.blob.clone(),
                        place,
                        clip: clip.to_path(),
                    });
                }
            }
        }
        art.printed = art.printed.union(&to_edge);
        art.to_edge = to_edge.to_path();
        art
    }
}

impl PlacedPicture {
    /// Where it lies on the blank of its panel.
    #[must_use]
    pub fn place(&self, panel: &PlacedPanel) -> Rect {
        let middle = panel.outline.bounding_box().center();
        let [width, height] = self.sides(panel);
        Rect::from_center_size(middle + kurbo::Vec2::new(self.x, self.y), (width, height))
    }

    /// Pixels in an inch as it is printed.
    #[must_use]
    pub fn ppi(&self, panel: &PlacedPanel) -> f64 {
        f64::from(self.pixels[0]) / (self.sides(panel)[0] / INCH)
    }

    /// Width and height, mm.
    #[must_use]
    pub fn sides(&self, panel: &PlacedPanel) -> [f64; 2] {
        let [across, along] = self.pixels.map(|count| f64::from(count.max(1)));
        let room = panel.outline.bounding_box();
        match self.size {
            PictureSize::Panel => {
                let scale = (room.width() / across).min(room.height() / along);
                [across * scale, along * scale]
            }
            PictureSize::Width(mm) => [mm, mm * along / across],
            PictureSize::Height(mm) => [mm * across / along, mm],
        }
    }
}

/// A panel, and beyond the blank's cut the bleed.
fn panel_with_bleed(part: &Part, panel: &PlacedPanel, bleed: f64) -> Region {
    let own = Region::inside(&panel.outline);
    if bleed <= 0.0 {
        return own;
    }
    own.union(&own.grown(bleed).minus(&part.region()))
}

fn carries(panel: &PlacedPanel, coverage: Coverage) -> bool {
    match coverage {
        Coverage::Faces => panel.role == Role::Face,
        Coverage::Flaps => panel.role != Role::Glue,
    }
}

fn covered(part: &Part, coverage: Coverage) -> Region {
    let panels = part.panels.iter().filter(|panel| carries(panel, coverage));
    panels
        .map(|panel| Region::inside(&panel.outline))
        .fold(Region::empty(), |all, panel| all.union(&panel))
}

/// The names of the outer panels, and the words of labels in their place.
fn names(part: &Part) -> Vec<BezPath> {
    let named = part
        .panels
        .iter()
        .filter(|panel| panel.role == Role::Face && panel.strip_of.is_none())
        .filter(|panel| part.labels.iter().all(|label| label.panel != panel.name))
        .filter_map(name);
    named.chain(part.labels.iter().filter_map(words)).collect()
}

/// A label's words, unless there is no room for them.
fn words(label: &Label) -> Option<BezPath> {
    let [across, along] = label.size;
    lettered(&label.text, label.centre, (across, along / 1.8))
}

/// A panel's name in its middle, unless it is too narrow to carry one.
fn name(panel: &PlacedPanel) -> Option<BezPath> {
    let bounds = panel.outline.bounding_box();
    lettered(&panel.name, bounds.center(), (bounds.width(), bounds.height() / 3.0))
}

/// Words around a point in so much room, as large as they may be.
fn lettered(text: &str, centre: Point, (across, high): (f64, f64)) -> Option<BezPath> {
    let at_one = letter(text, Point::ZERO, 1.0, Anchor::Middle);
    let long = at_one.bounding_box().width();
    let fitting = (across * 0.8 / long.max(1e-6)).min(high).min(*NAME.end());
    let is_legible = long > 0.0 && fitting >= *NAME.start();
    is_legible.then(|| Affine::translate(centre.to_vec2()) * Affine::scale(fitting) * at_one)
}
