//! Pictures on panels: how large, what of them is seen, and what is printed beyond their edge.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::art::Ink;
use super::cover::KnownCover;
use super::layer::{colour_fault, is_off};
use super::lying::Lying;
use super::printer::Ground;
use super::rework::Reworked;
use crate::blob::{BlobId, Origin};
use crate::error::{Faults, InputError, Remedy, Setting};
use crate::geometry::{Affine, BezPath, Point, Region, polygon};
use crate::units::{INCH, Unit, measure};

/// The least and the greatest side of a picture, mm.
const SIDE: std::ops::RangeInclusive<f64> = 1.0..=5000.0;

/// How large a picture is: one side, the other follows from its pixels.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "by", content = "mm")]
pub enum PictureSize {
    /// As large as its panel holds it whole.
    Panel,
    /// As small as covers its panel with the bleed.
    Covering,
    /// So wide, mm.
    Width(f64),
    /// So high, mm.
    Height(f64),
    /// So wide and so high, mm: its ratio is let go.
    Sides([f64; 2]),
}

/// What is printed beyond a picture's edge, as far as its area with its bleed goes.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "by", content = "colour")]
pub enum Beyond {
    /// Nothing.
    #[default]
    Nothing,
    /// The picture, mirrored at its edge.
    Mirrored,
    /// Its outermost pixels, drawn out.
    Repeated,
    /// A colour, as `#rrggbb`.
    Colour(String),
}

/// A picture on a panel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct PlacedPicture {
    /// Its bytes, as they are printed.
    pub blob: BlobId,
    /// How they were made, where they are not what was brought in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reworked: Option<Reworked>,
    /// Its width and height in pixels, the right way up.
    pub pixels: [u32; 2],
    /// True for a drawing of lines and areas, sharp at any size: of its pixels only the ratio counts.
    #[serde(default, skip_serializing_if = "is_off")]
    pub drawn: bool,
    /// What is known of where it comes from.
    #[serde(default)]
    pub origin: Origin,
    /// Where it lies.
    #[serde(flatten)]
    #[cfg_attr(feature = "api", ts(flatten))]
    pub lying: Lying,
    /// How large it is, what is cut away left out.
    pub size: PictureSize,
    /// What is cut away of its left, top, right and bottom, as shares of its sides.
    #[serde(default)]
    pub crop: [f64; 4],
    /// True where it is mirrored, left to right.
    #[serde(default, skip_serializing_if = "is_off")]
    pub mirrored: bool,
    /// What is printed beyond its edge.
    #[serde(default, skip_serializing_if = "is_nothing")]
    pub beyond: Beyond,
    /// The column of the list whose cells name the picture of each copy.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub column: Option<String>,
    /// Where it covers what lies below.
    #[serde(skip)]
    #[cfg_attr(feature = "api", schemars(skip), ts(skip))]
    pub cover: KnownCover,
}

impl PlacedPicture {
    /// A picture, whole on its panel.
    #[must_use]
    pub fn new(blob: BlobId, pixels: [u32; 2], lying: Lying) -> Self {
        Self {
            blob,
            reworked: None,
            pixels,
            drawn: false,
            origin: Origin::default(),
            lying,
            size: PictureSize::Panel,
            crop: [0.0; 4],
            mirrored: false,
            beyond: Beyond::Nothing,
            column: None,
            cover: KnownCover::default(),
        }
    }
}

fn is_nothing(beyond: &Beyond) -> bool {
    *beyond == Beyond::Nothing
}

impl PlacedPicture {
    /// Pixels in an inch as it is printed in an area of so much room, the fewer of the two ways.
    #[must_use]
    pub fn ppi(&self, room: [f64; 2], bleed: f64) -> f64 {
        let ([across, along], [width, height]) = (self.seen_pixels(), self.sides(room, bleed));
        (across / width).min(along / height) * INCH
    }

    /// How many pixels are left of it, across and along.
    #[must_use]
    pub fn seen_pixels(&self) -> [f64; 2] {
        let [left, top, right, bottom] = self.crop;
        let [across, along] = self.pixels.map(|count| f64::from(count.max(1)));
        [across * (1.0 - left - right).max(0.01), along * (1.0 - top - bottom).max(0.01)]
    }

    /// Width and height in an area of so much room with so much bleed around, mm.
    #[must_use]
    pub fn sides(&self, room: [f64; 2], bleed: f64) -> [f64; 2] {
        let [across, along] = self.seen_pixels();
        match self.size {
            PictureSize::Panel => {
                let scale = (room[0] / across).min(room[1] / along);
                [across * scale, along * scale]
            }
            PictureSize::Covering => {
                let room = room.map(|side| side + 2.0 * bleed);
                let scale = (room[0] / across).max(room[1] / along);
                [across * scale, along * scale]
            }
            PictureSize::Width(mm) => [mm, mm * along / across],
            PictureSize::Height(mm) => [mm * across / along, mm],
            PictureSize::Sides(sides) => sides,
        }
    }

    /// From the unit square of what is left of it, `y` down, to where that lies.
    fn square(&self, ground: &Ground, place: Affine, bleed: f64) -> Affine {
        let [width, height] = self.sides(ground.area.room(), bleed);
        let square = place
            * Affine::translate((-width / 2.0, -height / 2.0))
            * Affine::scale_non_uniform(width, height);
        if self.mirrored { square * ACROSS } else { square }
    }

    /// What of the blank it covers together with what is beyond it.
    pub(super) fn covers(&self, ground: &Ground, place: Affine, bleed: f64) -> BezPath {
        let square = self.square(ground, place, bleed);
        match self.beyond {
            Beyond::Nothing => square * unit(),
            Beyond::Colour(_) => ground.clip.to_path(),
            // As far again on each side.
            Beyond::Mirrored | Beyond::Repeated => square * GROWN * unit(),
        }
    }

    /// What it puts on the blank.
    pub(super) fn print(&self, ground: &Ground, place: Affine, bleed: f64) -> Vec<Ink> {
        let square = self.square(ground, place, bleed);
        let [left, top, right, bottom] = self.crop;
        let whole =
            Affine::scale_non_uniform(1.0 / (1.0 - left - right), 1.0 / (1.0 - top - bottom))
                * Affine::translate((-left, -top));
        let is_cropped = self.crop.iter().any(|share| *share > 0.0);
        // Where `way` takes the square that is seen.
        let put = |way: Affine, seen: BezPath| -> Option<Ink> {
            let bounds = Region::inside(&(square * seen));
            let clip = if is_cropped || way != Affine::IDENTITY {
                ground.clip.intersection(&bounds)
            } else {
                ground.clip.clone()
            };
            let is_seen = !ground.clip.intersection(&bounds).is_empty();
            let place = square * way * whole;
            is_seen.then(|| Ink::Picture {
                blob: self.blob.clone(),
                place,
                clip: clip.to_path(),
                choke: 0.0,
            })
        };
        let mut inks = Vec::new();
        match &self.beyond {
            Beyond::Nothing => {}
            Beyond::Colour(colour) => {
                let (path, colour) = (ground.clip.to_path(), colour.clone());
                inks.push(Ink::Area { path, colour, running: None, clip: None });
            }
            Beyond::Mirrored => inks.extend(AROUND.iter().filter_map(|[x, y]| {
                let axis = |way: f64| if way == 0.0 { (1.0, 0.0) } else { (-1.0, 1.0 + way) };
                let ((a, b), (c, d)) = (axis(*x), axis(*y));
                let way = Affine::new([a, 0.0, 0.0, c, b, d]);
                put(way, Affine::translate((*x, *y)) * unit())
            })),
            Beyond::Repeated => {
                let [across, along] = self.seen_pixels();
                inks.extend(AROUND.iter().filter_map(|[x, y]| {
                    // The last pixel, as wide as the picture, lies where the neighbour would.
                    let axis = |way: f64, pixels: f64| match way {
                        way if way < 0.0 => (pixels, -1.0),
                        way if way > 0.0 => (pixels, 2.0 - pixels),
                        _ => (1.0, 0.0),
                    };
                    let ((a, b), (c, d)) = (axis(*x, across), axis(*y, along));
                    let way = Affine::new([a, 0.0, 0.0, c, b, d]);
                    put(way, Affine::translate((*x, *y)) * unit())
                }));
            }
        }
        inks.extend(put(Affine::IDENTITY, unit()));
        inks
    }

    pub(super) fn validate(&self, field: &dyn Fn(&str) -> String, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        if !self.blob.is_sound() {
            faults.add(InputError::plain(
                &field("blob"),
                "The picture is named by no SHA-256",
                Remedy::advice("Bring the picture in again"),
            ));
        }
        if self.pixels.iter().any(|count| !(1..=60_000).contains(count)) {
            let [across, along] = self.pixels;
            faults.add(InputError::new(
                &field("pixels"),
                format!("The picture has {across} × {along} pixels: each side has 1 to 60000"),
                f64::from(across.max(along)),
                Remedy::advice("Bring the picture in again"),
            ));
        }
        if let Some(reworked) = &self.reworked {
            reworked.validate(field, faults);
        }
        let [left, top, right, bottom] = self.crop;
        for (at, name) in ["left", "top", "right", "bottom"].into_iter().enumerate() {
            let words = format!("What is cut away of the picture’s {name}");
            let share = |value: f64| format!("{value}");
            let range = 0.0..=0.99;
            faults.range(&field(&format!("crop.{at}")), &words, self.crop[at], range, share);
        }
        let left_over = (1.0 - left - right).min(1.0 - top - bottom);
        if left_over < 0.01 - 1e-9 {
            faults.add(InputError::new(
                &field("crop"),
                "Less than a hundredth of the picture is left",
                left_over,
                Remedy::advice("Cut away less of it"),
            ));
        }
        if let Beyond::Colour(colour) = &self.beyond {
            colour_fault(&field("beyond.colour"), colour, faults);
        }
        if self.column.as_ref().is_some_and(|name| name.chars().count() > 80) {
            faults.add(InputError::plain(
                &field("column"),
                "The picture names a column with a name of more than 80 characters",
                Remedy::set("Print the same picture on all", &field("column"), Setting::Standard),
            ));
        }
        match self.size {
            PictureSize::Panel | PictureSize::Covering => {}
            PictureSize::Sides(sides) => {
                for (at, words) in
                    ["The picture’s width", "The picture’s height"].iter().enumerate()
                {
                    faults.range(&field(&format!("size.mm.{at}")), words, sides[at], SIDE, show);
                }
            }
            PictureSize::Width(mm) => {
                faults.range(&field("size.mm"), "The picture’s width", mm, SIDE, show);
            }
            PictureSize::Height(mm) => {
                faults.range(&field("size.mm"), "The picture’s height", mm, SIDE, show);
            }
        }
        self.origin.validate(&field("origin"), faults);
    }
}

/// The unit square mirrored, left to right.
const ACROSS: Affine = Affine::new([-1.0, 0.0, 0.0, 1.0, 1.0, 0.0]);

/// The unit square with as much again on each side.
const GROWN: Affine = Affine::new([3.0, 0.0, 0.0, 3.0, -1.0, -1.0]);

/// The neighbours of a square.
const AROUND: [[f64; 2]; 8] = [
    [-1.0, -1.0],
    [0.0, -1.0],
    [1.0, -1.0],
    [-1.0, 0.0],
    [1.0, 0.0],
    [-1.0, 1.0],
    [0.0, 1.0],
    [1.0, 1.0],
];

fn unit() -> BezPath {
    polygon(&[(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)].map(Point::from))
}
