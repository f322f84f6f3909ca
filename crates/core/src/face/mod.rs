//! Face: what is printed on a piece, layer upon layer.

mod art;
mod bleed;
mod checks;
mod cover;
mod figures;
mod finish;
mod layer;
mod list;
mod lying;
mod motif;
mod names;
mod pattern;
mod picture;
mod placed;
mod printer;
mod rework;
mod row_checks;
mod safe;
mod set_free;
mod shape;
mod text;
mod upright;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use art::{Art, ByRow, Ink, Inked, Running, ink_colour};
pub(crate) use checks::face_checks;
pub use cover::{Cover, KnownCover};
pub use figures::Outlined;
pub use finish::{Finish, Separation, UnderWhite};
pub use layer::{Coverage, Layer, LayerKind, Side};
pub use list::{List, MOST_COLUMNS, MOST_ROWS, NamedPicture};
pub use lying::{Area, Lying, Up};
pub use motif::{Motif, MotifPicture};
pub use pattern::{Grid, Pattern};
pub use picture::{Beyond, PictureSize, PlacedPicture};
pub use placed::{LineUp, PlacedLayer};
pub use rework::{MOST_STEPS, Reach, Rework, ReworkStep, Reworked};
pub use shape::{Runs, Shape, ShapeSize, Stripes};
pub use text::{POINT, SetText, Text, TextSize};
pub use upright::Uprights;

use crate::blob::Blobs;
use crate::error::{Faults, InputError, Remedy};
use crate::lettering::{FontBytes, OwnTypeface};
use crate::units::{Unit, measure};

/// What is printed on a piece.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Face {
    /// How far what reaches a cut goes past it, mm, 0 to 10.
    pub bleed: f64,
    /// True where its pieces are printed behind as well, on the sheets’ backs.
    #[serde(default, skip_serializing_if = "layer::is_off")]
    pub both_sides: bool,
    /// The white beneath what is printed in colour.
    #[serde(default)]
    pub white: UnderWhite,
    /// Its layers, the first printed first; up to 40.
    pub layers: Vec<Layer>,
}

/// Most layers of a face.
const MOST_LAYERS: usize = 40;

impl Face {
    /// Layers on the front, which go past cuts by so many mm.
    #[must_use]
    pub fn new(bleed: f64, layers: Vec<Layer>) -> Self {
        Self { bleed, layers, ..Self::default() }
    }

    /// The flat colour that is printed undermost, if one is.
    #[must_use]
    pub fn colour(&self) -> Option<&str> {
        let printed = self.layers.iter().filter(|layer| {
            let is_seen = !layer.hidden && !layer.only_shown;
            is_seen && layer.side == Side::Front && layer.finish == Finish::Colour
        });
        printed.map(|layer| &layer.kind).find_map(|kind| match kind {
            LayerKind::Colour { colour, .. } => Some(colour.as_str()),
            _ => None,
        })
    }

    /// What of it is printed on one side.
    #[must_use]
    pub fn side(&self, side: Side) -> Self {
        let is_on = |layer: &&Layer| layer.side == side;
        self.of(self.layers.iter().filter(is_on).cloned().collect())
    }

    /// The same with other layers.
    fn of(&self, layers: Vec<Layer>) -> Self {
        Self { layers, white: self.white.clone(), ..*self }
    }

    /// True where a colour is printed beneath a layer.
    fn is_on_colour(&self, layer: &Layer) -> bool {
        let mut below = self.layers.iter().take_while(|own| own.id != layer.id);
        below.any(|own| {
            !own.hidden && !own.only_shown && matches!(own.kind, LayerKind::Colour { .. })
        })
    }

    /// The typefaces of the maker's own that its words name.
    pub fn own_typefaces(&self) -> impl Iterator<Item = &OwnTypeface> {
        self.layers.iter().filter_map(|layer| layer.own_typeface().map(|(own, _)| own))
    }

    /// True where the bytes of all these are here.
    #[must_use]
    pub fn has_fonts(&self) -> bool {
        self.own_typefaces().all(|own| own.bytes.0.is_some())
    }

    /// Asks for the bytes of all these.
    pub fn find_fonts(&mut self, blobs: &dyn Blobs) {
        for layer in &mut self.layers {
            let own = match &mut layer.kind {
                LayerKind::Text(text) => text.own_typeface.as_mut(),
                LayerKind::Pattern(Pattern {
                    motif_of: Motif::Word { own_typeface, .. }, ..
                }) => own_typeface.as_mut(),
                _ => None,
            };
            if let Some(own) = own {
                own.bytes = FontBytes(blobs.bytes(&own.blob));
            }
        }
    }

    /// Its pictures.
    pub fn pictures(&self) -> impl Iterator<Item = &PlacedPicture> {
        self.layers.iter().filter_map(|layer| match &layer.kind {
            LayerKind::Picture(picture) => Some(picture),
            _ => None,
        })
    }

    /// Its pictures, to be changed.
    pub fn pictures_mut(&mut self) -> impl Iterator<Item = &mut PlacedPicture> {
        self.layers.iter_mut().filter_map(|layer| match &mut layer.kind {
            LayerKind::Picture(picture) => Some(picture),
            _ => None,
        })
    }

    /// True where all that its layers need of blobs is here.
    #[must_use]
    pub fn is_furnished(&self) -> bool {
        self.has_fonts() && self.pictures().all(|picture| picture.cover.0.is_some())
    }

    /// A face of its colours alone.
    #[must_use]
    pub fn colours(&self) -> Self {
        let is_colour = |layer: &&Layer| matches!(layer.kind, LayerKind::Colour { .. });
        self.of(self.layers.iter().filter(is_colour).cloned().collect())
    }

    pub(crate) fn validate(&self, unit: Unit, faults: &mut Faults) {
        faults.range("face.bleed", "The bleed", self.bleed, 0.0..=10.0, |mm| measure(mm, unit));
        self.white.validate(unit, faults);
        let count = self.layers.len();
        if count > MOST_LAYERS {
            faults.add(InputError::new(
                "face.layers",
                format!("The face has {count} layers: it has up to {MOST_LAYERS}"),
                f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                Remedy::advice("Take some away"),
            ));
            return;
        }
        for (at, layer) in self.layers.iter().enumerate() {
            let twice = self.layers[..at].iter().any(|other| other.id == layer.id);
            if twice || !layer.id.is_sound() {
                faults.add(InputError::plain(
                    "face.layers",
                    format!("“{}” names no layer of its own", layer.id.shown()),
                    Remedy::advice(
                        "Give each layer an id of 1 to 24 small letters, digits and hyphens",
                    ),
                ));
                continue;
            }
            layer.validate(unit, faults);
        }
    }
}
