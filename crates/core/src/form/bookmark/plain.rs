//! Bookmarks of one layer, by their outline, with a hole for a tassel.

use super::{HEIGHT, WIDTH};
use crate::form::design::{Blank, Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tag::{EDGE, HOLE, Hole, Outline};
use crate::form::{Panel, Role};

const fn corner(label: &'static str, note: &'static str) -> Param {
    Param::length(
        "corner",
        [label, note],
        |f| (f["width"] / 5.0).min(f["height"] * 0.3),
        |f| Bounds::new(0.0, (f["width"] * 0.5).min(f["height"] * 0.4)).against("width"),
    )
}

const ROUNDING: Param =
    corner("Rounding", "Radius of the upper corners; changing the size keeps it.");
const POINT: Param = corner("Point", "How far the point stands out at the foot.");
const NOTCH: Param = corner("Tail", "How deep the tail is cut at the foot.");

const SIZES: &[Preset] = &[
    Preset { name: "Ordinary", figures: &[("width", 50.0), ("height", 150.0)] },
    Preset { name: "Slim", figures: &[("width", 35.0), ("height", 180.0)] },
];

const fn bookmark(
    id: &'static str,
    name: &'static str,
    about: &'static str,
    params: &'static [Param],
    design: fn(&Figures) -> Design,
) -> Structure {
    Structure {
        id,
        name,
        family: Family::Bookmarks,
        about,
        uses: &["book", "page", "tassel", "reading", "calendar", "no glue"],
        params,
        presets: SIZES,
        design,
    }
}

/// Square corners.
pub const PLAIN: Structure = bookmark(
    "bookmark",
    "Bookmark",
    "A plain bookmark with a hole for a tassel.",
    &[WIDTH, HEIGHT, HOLE, EDGE],
    |f| draw(f, Outline::Square),
);
/// Rounded corners.
pub const ROUNDED: Structure = bookmark(
    "bookmark-rounded",
    "Rounded bookmark",
    "A bookmark with rounded upper corners.",
    &[WIDTH, HEIGHT, ROUNDING, HOLE, EDGE],
    |f| draw(f, Outline::Rounded),
);
/// A point at the foot.
pub const POINTED: Structure = bookmark(
    "bookmark-pointed",
    "Pointed bookmark",
    "A bookmark that ends in a point.",
    &[WIDTH, HEIGHT, POINT, HOLE, EDGE],
    |f| draw(f, Outline::PointedFoot),
);
/// A notch at the foot.
pub const SWALLOW: Structure = bookmark(
    "bookmark-swallow-tail",
    "Swallow-tailed bookmark",
    "A bookmark with a forked foot, like a ribbon.",
    &[WIDTH, HEIGHT, NOTCH, HOLE, EDGE],
    |f| draw(f, Outline::Swallow),
);

fn draw(f: &Figures, outline: Outline) -> Design {
    let (w, h) = (f["width"], f["height"]);
    let by = if f["corner"].is_nan() { 0.0 } else { f["corner"] };
    let top = if outline == Outline::PointedFoot { h - by } else { h };
    let hole = Hole::below(f, w / 2.0, top);
    let panel = outline.draw(Panel::new("Bookmark", Role::Face), w, h, by);
    let panel = if outline.has_foot() { panel.cut(0.0, 0.0) } else { panel };
    let mut design = Design::new(vec![Blank::upwards("Bookmark", hole.cut(panel))], Stand::Upright)
        .limits(hole.limit("Bookmark", f["edge"], 0.0))
        .span("width", "Bookmark", (0.0, top), (w, top))
        .span("height", "Bookmark", (w / 2.0, top - h), (w / 2.0, top));
    if !hole.is_none() {
        let (x, y, half) = (hole.at.x, hole.at.y, hole.width / 2.0);
        design = design.quiet_span("edge", "Bookmark", (x, top), (x, y + half)).quiet_span(
            "hole",
            "Bookmark",
            (x - half, y),
            (x + half, y),
        );
    }
    design
}
