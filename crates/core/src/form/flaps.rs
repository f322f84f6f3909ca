//! The flaps that structures share. Lengths in mm; each is drawn in its hinge's frame.

use super::param::{Bounds, Param};
use super::{Panel, Role};

/// The key of the glue flap's width wherever there is one.
pub const GLUE: &str = "glue";

/// Least width of a glue flap that holds, and of any flap that a hand can work: 8 mm (common
/// practice).
pub const SMALLEST_FLAP: f64 = 8.0;

/// A flap that is shorter than so many calipers springs back from its crease (common practice).
const CALIPERS: f64 = 10.0;

/// The least reach of a flap in card of caliper `t`, mm.
#[must_use]
pub const fn workable(t: f64) -> f64 {
    SMALLEST_FLAP.max(CALIPERS * t)
}

/// A flap's usual reach, or the least that a hand can work where there is room for that up to `most`.
#[must_use]
pub const fn usual(usual: f64, most: f64, t: f64) -> f64 {
    usual.min(most).max(workable(t).min(most))
}

/// A flap shorter than this, mm, cannot be folded by hand at all (common practice).
pub const SHORTEST_FLAP: f64 = 5.0;

/// Any flap, mm.
pub const FLAP: [f64; 2] = [3.0, 500.0];

/// Clearance of what tucks in or slides, each side, mm (common practice).
pub const CLEARANCE: f64 = 0.5;

/// A glue flap's ends are tapered by this many degrees so that they stay inside the wrap (common
/// practice).
pub const GLUE_TAPER: f64 = 15.0;

/// A dust flap leans in by this many degrees on either side, clear of the closing panel and of the
/// tuck (common practice: a few degrees).
pub const DUST_RELIEF: f64 = 5.0;

/// No flap narrows to less than this at its tip.
const NARROWEST_TIP: f64 = 1.0;

/// The glue flap's usual width: 13 mm (common practice: 12 to 15).
pub const GLUE_STANDARD: f64 = 13.0;

/// The tuck flap's usual depth: a quarter of the width it closes, 12 to 20 mm (common practice).
#[must_use]
pub const fn tuck_standard(width: f64) -> f64 {
    (width / 4.0).clamp(12.0, 20.0)
}

/// The dust flaps' usual reach: as far as the closing panel is wide, and never past the middle.
#[must_use]
pub const fn dust_standard(length: f64, width: f64, clearance: f64) -> f64 {
    width.max(12.0).min(length / 2.0 - clearance.max(0.5)).max(3.0)
}

/// The slit lock's usual length: 7 mm, or an eighth of a short crease.
#[must_use]
pub const fn slit_standard(hinge: f64) -> f64 {
    (hinge / 8.0).min(7.0)
}

/// A glue flap on a hinge of `hinge`, `reach` wide, its ends tapered.
#[must_use]
pub fn glue_flap(name: impl Into<String>, hinge: f64, reach: f64) -> Panel {
    let taper = reach * GLUE_TAPER.to_radians().tan();
    Panel::new(name, Role::Glue)
        .set_by(GLUE)
        .cut(taper, reach)
        .cut(hinge - taper, reach)
        .cut(hinge, 0.0)
}

/// The widest glue flap whose tapered ends still leave a tip.
#[must_use]
pub fn glue_limit(hinge: f64) -> f64 {
    (hinge - NARROWEST_TIP) / 2.0 / GLUE_TAPER.to_radians().tan()
}

/// A dust flap: both sides lean in, both corners are rounded.
#[must_use]
pub fn dust_flap(name: impl Into<String>, hinge: f64, reach: f64) -> Panel {
    let lean = reach * DUST_RELIEF.to_radians().tan();
    let radius = (reach / 4.0).min(hinge / 5.0);
    Panel::new(name, Role::Flap)
        .set_by("dust")
        .cut_rounded(lean, reach, radius)
        .cut_rounded(hinge - lean, reach, radius)
        .cut(hinge, 0.0)
}

/// The longest dust flap whose leaning sides still leave a tip.
#[must_use]
pub fn dust_limit(hinge: f64) -> f64 {
    (hinge - NARROWEST_TIP) / 2.0 / DUST_RELIEF.to_radians().tan()
}

/// A tuck flap with well rounded corners, so that it finds its way in.
#[must_use]
pub fn tuck_flap(name: impl Into<String>, hinge: f64, reach: f64) -> Panel {
    let radius = (reach * 0.7).min(hinge / 4.0);
    Panel::new(name, Role::Flap)
        .set_by("tuck")
        .cut_rounded(0.0, reach, radius)
        .cut_rounded(hinge, reach, radius)
        .cut(hinge, 0.0)
}

/// A closing panel with its tuck: `depth` to the tuck's crease, which steps in by `shoulder` and
/// is slit by `slit` at each end.
#[must_use]
pub fn tuck_closure(
    [panel, tuck]: [String; 2],
    hinge: f64,
    depth: f64,
    shoulder: f64,
    slit: f64,
    reach: f64,
) -> Panel {
    Panel::new(panel, Role::Face)
        .cut(0.0, depth)
        .cut(shoulder, depth)
        .hinge_with_slits(
            hinge - shoulder,
            depth,
            90.0,
            slit,
            tuck_flap(tuck, hinge - 2.0 * shoulder, reach),
        )
        .cut(hinge, depth)
        .cut(hinge, 0.0)
}

/// The figure of a glue flap on a hinge as long as the figure `height`.
pub const GLUE_PARAM: Param = Param::length(
    GLUE,
    ["Glue flap", "Width of the flap that joins the first wall to the last."],
    // It stays clear of the wall beyond the one it is glued to: a box's sides, a prism's walls.
    |f| {
        let wall = f["width"].min(f["side"]);
        usual(GLUE_STANDARD.min(wall - 1.0), wall, f.t)
    },
    |f| flap_up_to(glue_limit(f["height"])).against("height"),
);

/// The figure of what tucks in or slides.
pub const CLEARANCE_PARAM: Param = Param::length(
    "clearance",
    ["Clearance", "Play of what tucks in or slides, on each side."],
    |_| CLEARANCE,
    |_| Bounds::new(0.0, 5.0),
);

/// Any flap that leaves itself a tip.
#[must_use]
pub const fn flap_up_to(most: f64) -> Bounds {
    Bounds::new(FLAP[0], most.clamp(FLAP[0], FLAP[1]))
}

/// Maps points of a panel's frame to that of a panel hung between two of its points.
pub fn in_frame(from: (f64, f64), to: (f64, f64)) -> impl Fn((f64, f64)) -> (f64, f64) {
    let (x, y) = (to.0 - from.0, to.1 - from.1);
    let long = x.hypot(y).max(1e-9);
    let (x, y) = (x / long, y / long);
    move |point| {
        let (dx, dy) = (point.0 - from.0, point.1 - from.1);
        (dx * x + dy * y, dy * x - dx * y)
    }
}
