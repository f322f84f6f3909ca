//! What layers are printed in: colour, white, varnish and raised varnish, each a separation of its own; and the white
//! beneath what is printed in colour.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::Face;
use super::art::{Art, ByRow, Ink, Inked};
use super::layer::is_off;
use crate::error::{Faults, InputError, Remedy};
use crate::geometry::{BezPath, Point, Region, polygon};
use crate::id::LayerId;
use crate::units::{Unit, measure};

/// What a layer is printed in.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "in")]
pub enum Finish {
    /// White, beneath everything.
    White,
    /// Colour.
    #[default]
    Colour,
    /// Varnish on some spots.
    Varnish,
    /// Varnish that is felt, so many passes high.
    Raised {
        /// 1 to 20.
        passes: u8,
    },
}

/// The inks of a sheet, in the order in which they are printed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Separation {
    /// White.
    White,
    /// Colour.
    Colour,
    /// Varnish.
    Varnish,
    /// Raised varnish.
    Raised,
}

impl Separation {
    /// All of them, in their order.
    pub const ALL: [Self; 4] = [Self::White, Self::Colour, Self::Varnish, Self::Raised];

    /// The name of its ink.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::White => "White",
            Self::Colour => "Colour",
            Self::Varnish => "Varnish",
            Self::Raised => "Raised varnish",
        }
    }
}

impl Finish {
    /// The separation that it belongs to.
    #[must_use]
    pub const fn separation(self) -> Separation {
        match self {
            Self::White => Separation::White,
            Self::Colour => Separation::Colour,
            Self::Varnish => Separation::Varnish,
            Self::Raised { .. } => Separation::Raised,
        }
    }

    /// True for colour, as most layers are.
    #[expect(clippy::trivially_copy_pass_by_ref, reason = "as serde asks")]
    pub(super) fn is_colour(&self) -> bool {
        *self == Self::Colour
    }

    pub(super) fn validate(self, field: &dyn Fn(&str) -> String, faults: &mut Faults) {
        if let Self::Raised { passes } = self {
            let words = "The number of passes";
            let passes = f64::from(passes);
            faults.range(&field("finish.passes"), words, passes, 1.0..=20.0, |n| format!("{n}"));
        }
    }
}

/// White beneath what is printed in colour, for card that is not white.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct UnderWhite {
    /// True where there is one.
    pub on: bool,
    /// How far it stays within the colour, mm, so that none shows where the two do not meet; below zero it goes beyond.
    /// −2 to 2.
    #[serde(default = "usual_choke")]
    pub choke: f64,
    /// True where the marks lie on white too.
    #[serde(default, skip_serializing_if = "is_off")]
    pub under_marks: bool,
    /// Layers with none beneath: the card shines through them.
    #[serde(default)]
    pub knocked_out: Vec<LayerId>,
}

impl Default for UnderWhite {
    fn default() -> Self {
        Self { on: false, choke: usual_choke(), under_marks: false, knocked_out: Vec::new() }
    }
}

/// A little more than inks are usually off each other (common practice).
const fn usual_choke() -> f64 {
    0.1
}

/// The layer that a white beneath is known by: no id of a face's own has a capital.
const WHITE: &str = "White";

/// The corners of what a picture is placed from.
const SQUARE: [(f64, f64); 4] = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)];

/// A line of white thinner than this, mm, is none.
const THINNEST: f64 = 0.05;

impl UnderWhite {
    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        faults.range("face.white.choke", "The choke", self.choke, -2.0..=2.0, show);
        if self.knocked_out.len() > 40 || self.knocked_out.iter().any(|id| !id.is_sound()) {
            faults.add(InputError::plain(
                "face.white.knocked_out",
                "What is knocked out of the white names no layers of the face",
                Remedy::advice("Name up to 40 of its layers by their ids"),
            ));
        }
    }

    fn choked(&self, region: &Region) -> Region {
        if self.choke >= 0.0 { region.shrunk(self.choke) } else { region.grown(-self.choke) }
    }

    /// What it puts beneath these layers: their areas as one, choked; pictures as far as they cover, choked
    /// within what is seen of them.
    fn beneath<'a>(&self, inks: impl Iterator<Item = &'a Inked>) -> Vec<Inked> {
        let mut covered = Region::empty();
        let mut pictures = Vec::new();
        let put = |ink: Ink| Inked {
            layer: LayerId::from(WHITE),
            opacity: 1.0,
            is_printed: true,
            finish: Finish::White,
            ink,
        };
        let is_coloured = |own: &&Inked| {
            own.is_printed && own.finish == Finish::Colour && !self.knocked_out.contains(&own.layer)
        };
        for inked in inks.filter(is_coloured) {
            match &inked.ink {
                Ink::Area { path, clip, .. } => {
                    let own = Region::painted(path);
                    let own = match clip {
                        Some(clip) => own.intersection(&Region::painted(clip)),
                        None => own,
                    };
                    covered = covered.union(&own);
                }
                Ink::Words { path } => covered = covered.union(&Region::painted(path)),
                Ink::Picture { blob, place, clip, .. } => {
                    let square = polygon(&SQUARE.map(|corner| *place * Point::from(corner)));
                    let seen = Region::inside(&square).intersection(&Region::painted(clip));
                    pictures.push((blob, *place, seen));
                }
            }
        }
        let choked = self.choked(&covered);
        // What is too thin to be seen is too thin to be printed.
        let choked = choked.shrunk(THINNEST / 2.0).grown(THINNEST / 2.0);
        let mut white = Vec::new();
        if !choked.is_empty() {
            let (path, colour) = (choked.to_path(), "#ffffff".to_owned());
            white.push(put(Ink::Area { path, colour, running: None, clip: None }));
        }
        // Pictures that meet, as one and its mirrored edge do, are drawn in where both end.
        let mut all = BezPath::new();
        pictures.iter().for_each(|(.., seen)| all.extend(seen.to_path()));
        let within = self.choked(&covered.union(&Region::wound(&all)));
        white.extend(pictures.into_iter().map(|(blob, place, seen)| {
            let clip = seen.intersection(&within).to_path();
            put(Ink::Picture { blob: blob.clone(), place, clip, choke: self.choke })
        }));
        white
    }
}

impl Face {
    /// Puts white beneath the art, where that is asked for.
    pub(super) fn whiten(&self, art: &mut Art) {
        let white = &self.white;
        if !white.on {
            return;
        }
        let below = white.beneath(art.layers.iter());
        let by_row = art.by_row.iter().map(|layer| ByRow {
            above: below.len(),
            rows: layer.rows.iter().map(|row| white.beneath(row.iter())).collect(),
        });
        let by_row: Vec<ByRow> = by_row.collect();
        let moved = std::mem::take(&mut art.by_row)
            .into_iter()
            .map(|layer| ByRow { above: layer.above + below.len(), ..layer });
        art.by_row = by_row
            .into_iter()
            .filter(|layer| layer.rows.iter().any(|row| !row.is_empty()))
            .chain(moved)
            .collect();
        art.layers.splice(0..0, below);
    }
}

impl Art {
    /// The separations that it has, in their order.
    pub fn separations(&self) -> impl Iterator<Item = Separation> {
        let has = |separation: &Separation| {
            self.all().any(|inked| inked.finish.separation() == *separation)
        };
        Separation::ALL.into_iter().filter(has)
    }
}
