//! A face as it is printed on one blank: areas, outlines of words and pictures, each where it lies.

use kurbo::{Affine, BezPath, Point, Shape};

use super::lying::Area;
use super::names::names;
use super::upright::Uprights;
use super::{Coverage, Face, Layer, LayerKind, PictureSize, PlacedPicture};
use crate::blob::BlobId;
use crate::form::{Part, PlacedPanel, Role};
use crate::geometry::{Region, polygon};
use crate::id::LayerId;
use crate::units::INCH;

/// What one layer puts on a blank.
#[derive(Debug, Clone, PartialEq)]
pub struct Inked {
    /// The layer.
    pub layer: LayerId,
    /// How much of it covers what is below, 0 to 1.
    pub opacity: f64,
    /// False where it is only shown.
    pub is_printed: bool,
    /// What it is.
    pub ink: Ink,
}

/// What is put on a blank, in the blank's coordinates.
#[derive(Debug, Clone, PartialEq)]
pub enum Ink {
    /// A flat colour.
    Area {
        /// What is coloured, bleed included.
        path: BezPath,
        /// As `#rrggbb`.
        colour: String,
        /// What of it is printed, where that is not all.
        clip: Option<BezPath>,
    },
    /// The words that name panels.
    Words {
        /// Their outlines.
        path: BezPath,
    },
    /// A picture.
    Picture {
        /// Its bytes.
        blob: BlobId,
        /// From the picture's unit square, `y` down from its top left, to where it lies.
        place: Affine,
        /// What of it is printed: its area with its bleed.
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

impl Art {
    /// What is printed, the first undermost.
    pub fn inks(&self) -> impl Iterator<Item = &Inked> {
        self.layers.iter().filter(|inked| inked.is_printed)
    }

    /// The flat colour and the area it covers, where there is one.
    #[must_use]
    pub fn area(&self) -> Option<(&BezPath, &str)> {
        self.inks().find_map(|inked| match &inked.ink {
            Ink::Area { path, colour, .. } => Some((path, colour.as_str())),
            _ => None,
        })
    }

    /// How many elements its paths have.
    pub(crate) fn elements(&self) -> usize {
        let layers = self.layers.iter().map(|inked| match &inked.ink {
            Ink::Area { path, .. } | Ink::Words { path } => path.elements().len(),
            Ink::Picture { clip, .. } => clip.elements().len() + 4,
        });
        layers.sum::<usize>() + self.to_edge.elements().len()
    }

    /// The outlines of all words.
    #[must_use]
    pub fn words(&self) -> BezPath {
        self.inks().fold(BezPath::new(), |mut all, inked| {
            if let Ink::Words { path } = &inked.ink {
                all.extend(path.iter());
            }
            all
        })
    }
}

/// What a layer puts on a blank, and how far it reaches.
#[derive(Default)]
struct Put {
    inks: Vec<Ink>,
    /// What it covers, about.
    seen: Option<Region>,
    /// True where it meets a cut.
    is_to_edge: bool,
}

impl Face {
    /// What is printed on a copy of a blank, its bleed held to `most` mm.
    #[must_use]
    pub fn print(&self, part: &Part, uprights: &Uprights, most: f64) -> Art {
        let bleed = self.bleed.min(most).max(0.0);
        let mut art =
            Art { layers: Vec::new(), printed: Region::empty(), to_edge: BezPath::new(), bleed };
        let mut to_edge = Region::empty();
        for layer in self.layers.iter().filter(|layer| !layer.hidden) {
            let put = put(layer, part, uprights, bleed);
            if let Some(seen) = put.seen.filter(|_| !layer.only_shown) {
                let reach = if put.is_to_edge { &mut to_edge } else { &mut art.printed };
                *reach = reach.union(&seen);
            }
            art.layers.extend(put.inks.into_iter().map(|ink| Inked {
                layer: layer.id.clone(),
                opacity: layer.opacity,
                is_printed: !layer.only_shown,
                ink,
            }));
        }
        art.printed = art.printed.union(&to_edge);
        art.to_edge = to_edge.to_path();
        art
    }
}

fn put(layer: &Layer, part: &Part, uprights: &Uprights, bleed: f64) -> Put {
    match &layer.kind {
        LayerKind::Colour { colour, coverage } => {
            let area = covered(part, *coverage).grown(bleed);
            if area.is_empty() {
                return Put::default();
            }
            let ink = Ink::Area { path: area.to_path(), colour: colour.clone(), clip: None };
            return Put { inks: vec![ink], seen: Some(area), is_to_edge: true };
        }
        LayerKind::PanelNames => return put_names(part),
        _ => {}
    }
    let Some((lying, area)) =
        layer.lying().and_then(|lying| Some((lying, lying.area(part, uprights)?)))
    else {
        return Put::default();
    };
    let place = lying.place(&area);
    let ground = Ground::new(part, area, bleed);
    match &layer.kind {
        LayerKind::Picture(picture) => {
            let [width, height] = picture.sides(ground.area.room());
            let square = place
                * Affine::translate((-width / 2.0, -height / 2.0))
                * Affine::scale_non_uniform(width, height);
            let corners = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)];
            let seen = polygon(&corners.map(|corner| square * Point::from(corner)));
            ground.put(&seen, |clip| {
                vec![Ink::Picture { blob: picture.blob.clone(), place: square, clip: clip.clone() }]
            })
        }
        LayerKind::Text(text) => {
            let path = place * text.set(ground.area.room()).path;
            let bounds = (place.inverse() * path.clone()).bounding_box();
            let seen = place * bounds.to_path(1e-3);
            ground.put_filled(&seen, vec![(path, text.colour.clone())])
        }
        LayerKind::Shape(shape) => {
            let own = ground.area.region.transformed(place.inverse());
            let filled: Vec<_> = shape
                .print(&own, ground.area.room())
                .into_iter()
                .map(|(path, colour)| (place * path, colour))
                .collect();
            let mut seen = BezPath::new();
            filled.iter().for_each(|(path, _)| seen.extend(path.iter()));
            ground.put_filled(&seen, filled)
        }
        LayerKind::Pattern(pattern) => {
            let own = ground.clip.transformed(place.inverse());
            let path = place * pattern.print(&own, ground.area.room());
            let bounds = path.bounding_box().to_path(1e-3);
            let mut put = ground.put_filled(&bounds, vec![(path, pattern.colour.clone())]);
            // It ends where its area ends.
            for ink in &mut put.inks {
                if let Ink::Area { clip, .. } = ink {
                    *clip = None;
                }
            }
            put
        }
        LayerKind::Colour { .. } | LayerKind::PanelNames => Put::default(),
    }
}

fn put_names(part: &Part) -> Put {
    let mut put = Put::default();
    let mut path = BezPath::new();
    for words in names(part) {
        let room = Region::rect(words.bounding_box());
        put.seen = Some(put.seen.unwrap_or_else(Region::empty).union(&room));
        path.extend(words);
    }
    if !path.elements().is_empty() {
        put.inks.push(Ink::Words { path });
    }
    put
}

/// What a layer with a place of its own is printed on.
struct Ground {
    area: Area,
    /// The area, and beyond the blank's cut the bleed.
    clip: Region,
    /// The area without its rim.
    inner: Region,
}

impl Ground {
    fn new(part: &Part, area: Area, bleed: f64) -> Self {
        let own = &area.region;
        let clip = if bleed > 0.0 {
            own.union(&own.grown(bleed).minus(&part.region()))
        } else {
            own.clone()
        };
        Self { clip, inner: own.shrunk(AT_EDGE), area }
    }

    /// Puts what covers `whole`; the inks are told the clip.
    fn put(&self, whole: &BezPath, inks: impl FnOnce(&BezPath) -> Vec<Ink>) -> Put {
        let seen = self.clip.intersection(&Region::inside(whole));
        if seen.is_empty() {
            return Put::default();
        }
        let is_to_edge = !seen.minus(&self.inner).is_empty();
        Put { inks: inks(&self.clip.to_path()), seen: Some(seen), is_to_edge }
    }

    /// Puts filled areas that cover `whole` together, clipped where they go past the area.
    fn put_filled(&self, whole: &BezPath, filled: Vec<(BezPath, String)>) -> Put {
        let is_inside = Region::inside(whole).minus(&self.area.region).is_empty();
        self.put(whole, |clip| {
            let ink = |(path, colour)| {
                let clip = (!is_inside).then(|| clip.clone());
                Ink::Area { path, colour, clip }
            };
            filled.into_iter().map(ink).collect()
        })
    }
}

impl PlacedPicture {
    /// Pixels in an inch as it is printed in an area of so much room.
    #[must_use]
    pub fn ppi(&self, room: [f64; 2]) -> f64 {
        f64::from(self.pixels[0]) / (self.sides(room)[0] / INCH)
    }

    /// Width and height in an area of so much room, mm.
    #[must_use]
    pub fn sides(&self, room: [f64; 2]) -> [f64; 2] {
        let [across, along] = self.pixels.map(|count| f64::from(count.max(1)));
        match self.size {
            PictureSize::Panel => {
                let scale = (room[0] / across).min(room[1] / along);
                [across * scale, along * scale]
            }
            PictureSize::Width(mm) => [mm, mm * along / across],
            PictureSize::Height(mm) => [mm * across / along, mm],
        }
    }
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
