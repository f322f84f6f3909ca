//! Where a copy lies on its sheet.

use kurbo::Affine;
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::geometry::BezPath;

/// Where a copy lies: turned about the flat's origin, then moved.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Placement {
    /// Which of the layout's blanks lies here.
    #[serde(default)]
    pub part: usize,
    /// Which copy of its blank it is, from 1, on the first of the sheets that are alike; 0 is not numbered yet. It
    /// stays when the copy is moved.
    #[serde(default)]
    pub copy: u32,
    /// Movement to the right after turning, mm.
    pub x: f64,
    /// Movement down after turning, mm.
    pub y: f64,
    /// Degrees clockwise.
    pub turn: f64,
    /// It stays where it is when the others are laid again.
    #[serde(default)]
    pub locked: bool,
}

impl Placement {
    /// Maps the flat to the sheet.
    #[must_use]
    pub fn transform(&self) -> Affine {
        Affine::translate((self.x, self.y)) * rotation(self.turn)
    }

    /// The path where this copy has it.
    #[must_use]
    pub fn place(&self, path: &BezPath) -> BezPath {
        self.transform() * path.clone()
    }

    /// Quarter turns, rounded to the nearest.
    #[must_use]
    pub fn quarters(&self) -> u16 {
        match (self.turn / 90.0).round().rem_euclid(4.0) {
            turns if turns < 0.5 => 0,
            turns if turns < 1.5 => 1,
            turns if turns < 2.5 => 2,
            _ => 3,
        }
    }
}

/// A turn of so many degrees clockwise; quarter turns come without binary noise.
#[must_use]
pub fn rotation(degrees: f64) -> Affine {
    let quarters = degrees / 90.0;
    if (quarters - quarters.round()).abs() > 1e-12 {
        return Affine::rotate(degrees.to_radians());
    }
    match quarters.round().rem_euclid(4.0) {
        turns if turns < 0.5 => Affine::IDENTITY,
        turns if turns < 1.5 => Affine::new([0.0, 1.0, -1.0, 0.0, 0.0, 0.0]),
        turns if turns < 2.5 => Affine::new([-1.0, 0.0, 0.0, -1.0, 0.0, 0.0]),
        _ => Affine::new([0.0, -1.0, 1.0, 0.0, 0.0, 0.0]),
    }
}
