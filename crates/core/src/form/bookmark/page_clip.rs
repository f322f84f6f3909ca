//! The page clip: a bookmark with a tongue cut into it, which goes over the page.

use super::{HEIGHT, WIDTH};
use crate::LineKind;
use crate::check::Sense;
use crate::form::design::{Blank, Design, Limit, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tag::Outline;
use crate::form::{Panel, Role};
use crate::geometry::BezPath;

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "bookmark-clip",
    name: "Page clip",
    family: Family::Bookmarks,
    about: "A bookmark whose cut tongue clips over the page.",
    uses: &["book", "page", "clip", "tongue", "reading", "no glue"],
    params: &[WIDTH, HEIGHT, ROUNDING, TONGUE, LONG],
    presets: &[Preset { name: "Ordinary", figures: &[("width", 32.0), ("height", 90.0)] }],
    design,
};

const ROUNDING: Param = Param::length(
    "corner",
    ["Rounding", "Radius of the upper corners; changing the size keeps it."],
    |f| f["width"] / 3.0,
    |f| Bounds::new(0.0, f["width"] / 2.0).against("width"),
);
const TONGUE: Param = Param::length(
    "tongue",
    ["Tongue", "Its width."],
    |f| f["width"] * 0.5,
    |f| Bounds::new(4.0, (f["width"] - 6.0).max(4.0)).against("width"),
);
const LONG: Param = Param::length(
    "long",
    ["Tongue’s length", "From its root to its tip."],
    // Card above its root: see the limits.
    |f| (f["height"] * 0.5).min(f["height"] - (f["width"] - f["tongue"]) / 2.0 - ROOT),
    |f| Bounds::new(8.0, f["height"] * 0.8).against("height"),
);

/// Least card above the tongue's root, mm: it carries the clip (common practice).
const ROOT: f64 = 8.0;

fn design(f: &Figures) -> Design {
    let (w, h, tongue, long) = (f["width"], f["height"], f["tongue"], f["long"]);
    let (left, right) = ((w - tongue) / 2.0, f64::midpoint(w, tongue));
    // The tongue points down: its tip is as far from the foot as its sides are from the edge.
    let tip = (w - tongue) / 2.0;
    let radius = tongue / 2.0;
    let mut cut = BezPath::new();
    cut.move_to((left, tip + long));
    cut.line_to((left, tip + radius));
    let k = radius * 4.0 / 3.0 * (std::f64::consts::FRAC_PI_8).tan();
    cut.curve_to((left, tip + radius - k), (w / 2.0 - k, tip), (w / 2.0, tip));
    cut.curve_to((w / 2.0 + k, tip), (right, tip + radius - k), (right, tip + radius));
    cut.line_to((right, tip + long));
    let panel = Outline::Rounded
        .draw(Panel::new("Clip", Role::Face), w, h, f["corner"])
        .cut(0.0, 0.0)
        .with(LineKind::Cut, cut);
    Design::new(vec![Blank::upwards("Clip", panel)], Stand::Upright)
        .limits([
            Limit {
                id: "clip-sides",
                label: "Card beside the tongue".to_owned(),
                limit: (left, Sense::AtLeast, 3.0),
                panel: "Clip".to_owned(),
                remedy: Some(("tongue", (w - 6.0).max(4.0))),
            },
            Limit {
                id: "clip-root",
                label: "Card above the tongue".to_owned(),
                limit: (h - tip - long, Sense::AtLeast, ROOT),
                panel: "Clip".to_owned(),
                remedy: Some(("long", (h - tip - ROOT).max(8.0))),
            },
        ])
        .span("width", "Clip", (0.0, 0.0), (w, 0.0))
        .span("height", "Clip", (0.0, 0.0), (0.0, h))
        .quiet_span("tongue", "Clip", (left, tip + long), (right, tip + long))
        .span("long", "Clip", (left, tip), (left, tip + long))
}
