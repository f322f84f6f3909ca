//! Puts layers on blanks: each clipped to its area with the bleed, and how far it reaches.

use kurbo::{Affine, BezPath, Shape};

use super::art::Ink;
use super::lying::Area;
use super::names::names;
use super::shape::Filled;
use super::upright::Uprights;
use super::{Coverage, Face, Layer, LayerKind};
use crate::form::{Part, PlacedPanel, Role};
use crate::geometry::{Rect, Region};

/// What comes nearer to its panel's edge than this, mm, is printed up to the edge.
const AT_EDGE: f64 = 0.05;

/// What a layer puts on a blank, and how far it reaches.
#[derive(Default)]
pub(super) struct Put {
    pub inks: Vec<Ink>,
    /// What it covers, about, where that meets its area's edge.
    pub seen: Option<Region>,
    /// What it covers well inside its area.
    pub inside: Option<Rect>,
    /// True where it meets a cut.
    pub is_to_edge: bool,
}

impl Put {
    /// With what another puts in the same layer on another copy.
    pub fn reach(&mut self, other: &Self) {
        self.inside = match (self.inside, other.inside) {
            (Some(one), Some(two)) => Some(one.union(two)),
            (one, two) => one.or(two),
        };
        self.seen = match (self.seen.take(), &other.seen) {
            (Some(one), Some(two)) => Some(one.union(two)),
            (one, two) => one.or_else(|| two.clone()),
        };
        self.is_to_edge |= other.is_to_edge;
    }
}

/// Puts a layer on a blank.
pub(super) enum Printer<'a> {
    /// One without a place of its own.
    All { part: &'a Part, bleed: f64 },
    /// One that lies somewhere.
    Placed { ground: Box<Ground>, place: Affine, bleed: f64 },
}

impl<'a> Printer<'a> {
    /// `None` where the blank has none of the layer's panels.
    pub fn new(
        face: &Face,
        layer: &Layer,
        part: &'a Part,
        uprights: &Uprights,
        bleed: f64,
    ) -> Option<Self> {
        let Some(lying) = layer.lying() else { return Some(Self::All { part, bleed }) };
        let area = lying.area(part, uprights)?;
        let place = lying.place(&area);
        let ground = Box::new(Ground::new(part, area, bleed));
        Some(Self::Placed { ground, place, bleed: face.bleed })
    }

    pub fn put(&self, kind: &LayerKind) -> Put {
        match self {
            Self::Placed { ground, place, bleed } => ground.print(kind, *place, *bleed),
            Self::All { part, bleed } => match kind {
                LayerKind::Colour { colour, coverage } => {
                    let area = covered(part, *coverage).grown(*bleed);
                    if area.is_empty() {
                        return Put::default();
                    }
                    let (path, colour) = (area.to_path(), colour.clone());
                    let inks = vec![Ink::Area { path, colour, running: None, clip: None }];
                    Put { inks, seen: Some(area), is_to_edge: true, ..Put::default() }
                }
                LayerKind::PanelNames => put_names(part),
                _ => Put::default(),
            },
        }
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
pub(super) struct Ground {
    pub area: Area,
    /// The area, and beyond the blank's cut the bleed.
    pub clip: Region,
    /// The area without its rim.
    inner: Region,
    /// The same, where the area is a rectangle.
    free: Option<Rect>,
}

impl Ground {
    fn new(part: &Part, area: Area, bleed: f64) -> Self {
        let own = &area.region;
        let clip = if bleed > 0.0 {
            own.union(&own.grown(bleed).minus(&part.region()))
        } else {
            own.clone()
        };
        let bounds = own.bounds().unwrap_or(Rect::ZERO);
        let is_rectangle = (bounds.area() - own.area()).abs() < 1e-6 * bounds.area().max(1.0);
        let free = is_rectangle.then(|| bounds.inset(-AT_EDGE));
        Self { clip, inner: own.shrunk(AT_EDGE), free, area }
    }

    fn print(&self, kind: &LayerKind, place: Affine, bleed: f64) -> Put {
        let room = self.area.room();
        match kind {
            LayerKind::Picture(picture) => {
                let inks = picture.print(self, place, bleed);
                let seen = picture.covers(self, place, bleed);
                self.put(&seen, || inks)
            }
            LayerKind::Text(text) => {
                let path = place * text.set(room).path;
                if path.elements().is_empty() {
                    return Put::default();
                }
                let bounds = (place.inverse() * path.clone()).bounding_box();
                let seen = place * bounds.to_path(1e-3);
                self.put_filled(&seen, vec![Filled::flat(path, &text.colour)])
            }
            LayerKind::Shape(shape) => {
                let own = self.area.region.transformed(place.inverse());
                let filled: Vec<_> = shape
                    .print(&own, room)
                    .into_iter()
                    .map(|filled| filled.placed(place))
                    .collect();
                let mut seen = BezPath::new();
                filled.iter().for_each(|own| seen.extend(own.path.iter()));
                self.put_filled(&seen, filled)
            }
            LayerKind::Pattern(pattern) if pattern.pictured().is_some() => {
                let own = self.clip.transformed(place.inverse());
                let blob = pattern.pictured().map(|(picture, _)| &picture.blob);
                let mut seen = BezPath::new();
                let mut inks = Vec::new();
                for (at, clip) in pattern.pictures(&own, room) {
                    let (place, clip) = (place * at, place * clip);
                    seen.extend(clip.iter());
                    inks.extend(blob.cloned().map(|blob| Ink::Picture {
                        blob,
                        place,
                        clip,
                        choke: 0.0,
                    }));
                }
                self.put(&seen.bounding_box().to_path(1e-3), || inks)
            }
            LayerKind::Pattern(pattern) => {
                let own = self.clip.transformed(place.inverse());
                let path = place * pattern.print(&own, room);
                let bounds = path.bounding_box().to_path(1e-3);
                let mut put = self.put_filled(&bounds, vec![Filled::flat(path, &pattern.colour)]);
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

    /// Puts what covers `whole`.
    fn put(&self, whole: &BezPath, inks: impl FnOnce() -> Vec<Ink>) -> Put {
        let seen = self.clip.intersection(&Region::inside(whole));
        if seen.is_empty() {
            return Put::default();
        }
        let is_to_edge = !seen.minus(&self.inner).is_empty();
        Put { inks: inks(), seen: Some(seen), is_to_edge, ..Put::default() }
    }

    /// Puts filled areas that cover `whole` together, clipped where they go past the area.
    fn put_filled(&self, whole: &BezPath, filled: Vec<Filled>) -> Put {
        let inks = |clip: Option<BezPath>| -> Vec<Ink> {
            let ink = |Filled { path, colour, running }| {
                let clip = clip.clone();
                Ink::Area { path, colour, running, clip }
            };
            filled.into_iter().map(ink).collect()
        };
        let bounds = whole.bounding_box();
        if whole.elements().is_empty() {
            return Put::default();
        }
        if bounds.is_finite() && self.free.is_some_and(|free| free.union(bounds) == free) {
            return Put { inks: inks(None), inside: Some(bounds), ..Put::default() };
        }
        let is_inside = Region::inside(whole).minus(&self.area.region).is_empty();
        self.put(whole, || inks((!is_inside).then(|| self.clip.to_path())))
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
