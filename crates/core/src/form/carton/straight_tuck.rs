//! The straight-tuck carton: glue flap, front, side, back, side; both closures hang on the back
//! and tuck in behind the front.
//!
//! With caliper t and inside L × W × H, at the middle of the card:
//!
//! | part | crease to crease | why |
//! |---|---|---|
//! | front, across | L + t | half a caliper at each end |
//! | right side, across | W + t | the same |
//! | back, across | L + 2t | the left side lies on the glue flap, one caliper further out |
//! | left side, across | W + t/2 | ends half a caliper short of the front's outer face, so that its edge does not stand proud |
//! | sides, along | H + t | between the dust flaps |
//! | back, along | H + 3t | the closing panels lie on the dust flaps, one caliper further out |
//! | front, along | H + 4t | its free edges end flush with the closed panels' outer faces |
//! | closing panel | W − c | the tuck slides in behind the front with clearance c |
//! | tuck, across | L − 2c | narrower than its panel by t + c each side |
//!
//! The convention for the joint is the longer back, so the tube closes square.

mod drafting;
mod figures;

use kurbo::Affine;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::flaps;
use crate::error::InputError;
use crate::form::{Basis, Figure, Flat, Panel, Role, Sizes, Unfolded};
use crate::units::Unit;

/// Parameters in mm. A flap that is `None` follows the trade's default.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
pub struct StraightTuck {
    /// Which dimensions `length`, `width` and `height` are.
    pub basis: Basis,
    /// Across the front.
    pub length: f64,
    /// From front to back.
    pub width: f64,
    /// Between the closures.
    pub height: f64,
    /// Depth of the tuck flaps.
    #[serde(default)]
    pub tuck: Option<f64>,
    /// Reach of the dust flaps.
    #[serde(default)]
    pub dust: Option<f64>,
    /// Width of the glue flap.
    #[serde(default)]
    pub glue: Option<f64>,
    /// Length of the slit locks at each end of the tuck's crease.
    #[serde(default)]
    pub slit: Option<f64>,
    /// Clearance of what tucks in, on each side.
    #[serde(default)]
    pub clearance: Option<f64>,
}

/// The smallest and largest inside dimension in mm.
const INSIDE: [f64; 2] = [5.0, 2000.0];

/// Any flap, mm.
const FLAP: [f64; 2] = [3.0, 500.0];

/// Clearance of what tucks in (common practice).
const CLEARANCE: f64 = 0.5;

/// Calipers that the outside and the crease dimensions add to the inside ones: length, width,
/// height. The outside length holds both sides and the glue flap between.
const OUTSIDE: [f64; 3] = [3.0, 2.0, 4.0];
const CREASE: [f64; 3] = [1.0, 1.0, 1.0];

/// A wall may take up at most this share of the smallest inside dimension.
const THICKEST_WALL: f64 = 0.25;

impl StraightTuck {
    /// A carton of these inside dimensions with every flap at the trade's default.
    #[must_use]
    pub const fn inside_of(length: f64, width: f64, height: f64) -> Self {
        Self {
            basis: Basis::Inside,
            length,
            width,
            height,
            tuck: None,
            dust: None,
            glue: None,
            slit: None,
            clearance: None,
        }
    }

    const fn given(&self) -> [f64; 3] {
        [self.length, self.width, self.height]
    }

    /// The inside dimensions in mm, in card of caliper `t`.
    #[must_use]
    pub fn inside(&self, t: f64) -> [f64; 3] {
        let calipers = allowance(self.basis);
        std::array::from_fn(|axis| self.given()[axis] - calipers[axis] * t)
    }

    /// The same carton with other inside dimensions, its basis kept.
    #[must_use]
    pub fn with_inside(&self, inside: [f64; 3], t: f64) -> Self {
        let calipers = allowance(self.basis);
        let [length, width, height] = std::array::from_fn(|axis| inside[axis] + calipers[axis] * t);
        Self { length, width, height, ..self.clone() }
    }

    /// The flat in card of caliper `t` mm.
    ///
    /// # Errors
    /// Figures out of range, flaps that could not be drawn, and card too thick for the piece.
    pub fn draw(&self, t: f64, unit: Unit) -> Result<Flat, Vec<InputError>> {
        let parts = self.parts(t, unit)?;
        let inside = parts.inside;
        let sizes = Sizes {
            inside,
            crease: std::array::from_fn(|axis| inside[axis] + CREASE[axis] * t),
            outside: std::array::from_fn(|axis| inside[axis] + OUTSIDE[axis] * t),
        };
        let mut flat = Flat::from_tree(parts.tree(), sizes);
        flat.dimensions = parts.dimensions(&flat, unit);
        flat.checks = parts.checks(&flat, unit);
        flat.figures = parts.figures;
        Ok(flat)
    }
}

const fn allowance(basis: Basis) -> [f64; 3] {
    match basis {
        Basis::Inside => [0.0; 3],
        Basis::Crease => CREASE,
        Basis::Outside => OUTSIDE,
    }
}

/// Every size the tree needs, mm.
#[derive(Default)]
struct Parts {
    t: f64,
    inside: [f64; 3],
    clearance: f64,
    tuck: f64,
    dust: f64,
    glue: f64,
    slit: f64,
    figures: Vec<Figure>,
}

impl Parts {
    /// Front first: everything hangs on it. Its `u` points down and its `v` to the right.
    fn tree(&self) -> Unfolded {
        let [length, _, height] = self.inside;
        let t = self.t;
        let (across, along) = (length + t, height + t);
        Panel::new("Front", Role::Face)
            .cut(-1.5 * t, 0.0)
            .cut(-1.5 * t, across)
            .cut(0.0, across)
            .hinge(along, across, 90.0, self.right_side())
            .cut(height + 2.5 * t, across)
            .cut(height + 2.5 * t, 0.0)
            .cut(height + 0.5 * t, 0.0)
            .hinge(0.5 * t, 0.0, 90.0, flaps::glue_flap(height, self.glue))
            .cut(0.0, 0.0)
            .unfold(Affine::new([0.0, 1.0, 1.0, 0.0, 0.0, 0.0]))
    }

    /// Room that the dust flaps leave for the tuck, and for the back's closing panel.
    fn dust_insets(&self) -> (f64, f64) {
        (1.5 * self.t + self.clearance, 0.5 * self.t + self.clearance)
    }

    fn right_side(&self) -> Panel {
        let [_, width, height] = self.inside;
        let (across, along) = (width + self.t, height + self.t);
        let (front, back) = self.dust_insets();
        let hinge = across - front - back;
        Panel::new("Right side", Role::Face)
            .cut(0.0, front)
            .hinge(
                0.0,
                across - back,
                90.0,
                flaps::dust_flap("Top right dust flap", hinge, self.dust),
            )
            .cut(0.0, across)
            .hinge(along, across, 90.0, self.back())
            .cut(along, across - back)
            .hinge(along, front, 90.0, flaps::dust_flap("Base right dust flap", hinge, self.dust))
            .cut(along, 0.0)
    }

    fn back(&self) -> Panel {
        let [length, width, height] = self.inside;
        let t = self.t;
        let (across, along) = (length + 2.0 * t, height + t);
        let closure = |names| {
            flaps::tuck_closure(
                names,
                across,
                width - self.clearance,
                t + self.clearance,
                self.slit,
                self.tuck,
            )
        };
        Panel::new("Back", Role::Face)
            .cut(-t, 0.0)
            .hinge(-t, across, 90.0, closure(["Top", "Top tuck"]))
            .cut(0.0, across)
            .hinge(along, across, 90.0, self.left_side())
            .cut(along + t, across)
            .hinge(along + t, 0.0, 90.0, closure(["Base", "Base tuck"]))
            .cut(along, 0.0)
    }

    fn left_side(&self) -> Panel {
        let [_, width, height] = self.inside;
        let t = self.t;
        let (across, along) = (width + 0.5 * t, height + t);
        let (front, back) = self.dust_insets();
        // The front's mid-plane lies at width + t, as for the right side.
        let far = width + t - front;
        let hinge = far - back;
        Panel::new("Left side", Role::Face)
            .cut(0.0, back)
            .hinge(0.0, far, 90.0, flaps::dust_flap("Top left dust flap", hinge, self.dust))
            .cut(0.0, across)
            .cut(along, across)
            .cut(along, far)
            .hinge(along, back, 90.0, flaps::dust_flap("Base left dust flap", hinge, self.dust))
            .cut(along, 0.0)
    }
}
