//! Labels by their outline.

use crate::form::design::{Blank, Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tag::Outline;
use crate::form::{Panel, Role};

const WIDTH: Param = Param::size("width", ["Width", "Across the label."], [0.0, 0.0], |_| 60.0)
    .within(|_| Bounds::new(6.0, 500.0));
const HEIGHT: Param = Param::size("height", ["Height", "From foot to head."], [0.0, 0.0], |_| 40.0)
    .within(|_| Bounds::new(4.0, 500.0));
const DIAMETER: Param =
    Param::size("width", ["Diameter", "Across the label."], [0.0, 0.0], |_| 50.0)
        .within(|_| Bounds::new(6.0, 500.0));
const ROUNDING: Param = Param::length(
    "corner",
    ["Rounding", "Radius of the corners; changing the size keeps it."],
    |f| (f["width"].min(f["height"]) / 8.0).min(4.0),
    |f| Bounds::new(0.0, f["width"].min(f["height"]) / 2.0).against("width"),
);
const TAIL: Param = Param::length(
    "corner",
    ["Tails", "How deep both ends are notched."],
    |f| f["height"] / 2.5,
    |f| Bounds::new(0.0, f["width"] * 0.45).against("width"),
);
const POINTS: Param = Param::count(
    "points",
    ["Points", "How many the star has."],
    |_| 12.0,
    |_| Bounds::new(3.0, 60.0),
);
const DEPTH: Param = Param::length(
    "corner",
    ["Depth", "From the points to the notches between them."],
    |f| f["width"] / 10.0,
    |f| Bounds::new(0.2, f["width"] * 0.4).against("width"),
);

const fn label(
    id: &'static str,
    name: &'static str,
    about: &'static str,
    params: &'static [Param],
    presets: &'static [Preset],
    design: fn(&Figures) -> Design,
) -> Structure {
    Structure {
        id,
        name,
        family: Family::Labels,
        about,
        uses: &["sticker", "jar", "packet", "address", "price", "seal", "kiss cut", "liner"],
        params,
        presets,
        design,
    }
}

const SIZES: &[Preset] = &[
    Preset { name: "Jar label", figures: &[("width", 60.0), ("height", 40.0)] },
    Preset { name: "Packet seal", figures: &[("width", 44.5), ("height", 9.4)] },
    Preset { name: "Large", figures: &[("width", 88.9), ("height", 50.8)] },
];

const ROUNDS: &[Preset] = &[
    Preset { name: "Lid", figures: &[("width", 50.0)] },
    Preset { name: "Seal", figures: &[("width", 25.0)] },
];

/// Square corners.
pub const RECTANGLE: Structure = label(
    "label",
    "Rectangular label",
    "A label with square corners: neighbours share their cuts.",
    &[WIDTH, HEIGHT],
    SIZES,
    |f| draw(f, Shape::Tag(Outline::Square)),
);
/// Rounded corners.
pub const ROUNDED: Structure = label(
    "label-rounded",
    "Rounded label",
    "A label with rounded corners, which do not lift as soon.",
    &[WIDTH, HEIGHT, ROUNDING],
    SIZES,
    |f| draw(f, Shape::Rounded),
);
/// A circle.
pub const ROUND: Structure = label(
    "label-round",
    "Round label",
    "A round label for lids and seals.",
    &[DIAMETER],
    ROUNDS,
    |f| draw(f, Shape::Round),
);
/// An ellipse.
pub const OVAL: Structure =
    label("label-oval", "Oval label", "An oval label.", &[WIDTH, HEIGHT], SIZES, |f| {
        draw(f, Shape::Tag(Outline::Oval))
    });
/// A round head.
pub const ARCHED: Structure = label(
    "label-arched",
    "Arched label",
    "A label with a round head.",
    &[WIDTH, HEIGHT],
    &[Preset { name: "Bottle", figures: &[("width", 50.0), ("height", 70.0)] }],
    |f| draw(f, Shape::Tag(Outline::Arch)),
);
/// Notched ends.
pub const RIBBON: Structure = label(
    "label-ribbon",
    "Ribbon label",
    "A band with notched ends.",
    &[WIDTH, HEIGHT, TAIL],
    &[Preset { name: "Band", figures: &[("width", 90.0), ("height", 20.0)] }],
    |f| draw(f, Shape::Ribbon),
);
/// A star.
pub const STAR: Structure = label(
    "label-star",
    "Star label",
    "A star with as many points as wanted.",
    &[DIAMETER, POINTS, DEPTH],
    ROUNDS,
    |f| draw(f, Shape::Star),
);

#[derive(Clone, Copy)]
enum Shape {
    Tag(Outline),
    Rounded,
    Round,
    Ribbon,
    Star,
}

/// Walked clockwise from the left, `u` right and `v` up; the panel begins at the origin.
fn draw(f: &Figures, shape: Shape) -> Design {
    let (w, by) = (f["width"], if f["corner"].is_nan() { 0.0 } else { f["corner"] });
    let h = if f["height"].is_nan() { w } else { f["height"] };
    let panel = Panel::new("Label", Role::Face);
    // From the panel's start to the lower end of its bounds.
    let (panel, left, foot) = match shape {
        Shape::Tag(outline) => {
            let drawn = outline.draw(panel, w, h, by);
            if outline == Outline::Oval {
                (drawn, 0.0, -h / 2.0)
            } else {
                (drawn.cut(0.0, 0.0), 0.0, 0.0)
            }
        }
        Shape::Round => (Outline::Oval.draw(panel, w, w, 0.0), 0.0, -w / 2.0),
        Shape::Rounded => (rounded(panel, w, h, by), 0.0, -by.min(w / 2.0).min(h / 2.0)),
        Shape::Ribbon => {
            let drawn = panel
                .cut(by, h / 2.0)
                .cut(0.0, h)
                .cut(w, h)
                .cut(w - by, h / 2.0)
                .cut(w, 0.0)
                .cut(0.0, 0.0);
            (drawn, 0.0, 0.0)
        }
        Shape::Star => star(panel, w / 2.0, f["points"], by),
    };
    let (top, right) = (foot + h, left + w);
    let mut design = Design::new(vec![Blank::upwards("Label", panel)], Stand::Upright);
    // The points of a star need not lie on both sides.
    if !matches!(shape, Shape::Star) {
        design = design.span("width", "Label", (left, foot), (right, foot));
        if !f["height"].is_nan() {
            design = design.span("height", "Label", (left, foot), (left, top));
        }
    }
    if by > 0.0 && matches!(shape, Shape::Rounded) {
        design = design.quiet_span("corner", "Label", (left, top), (left, top - by));
    }
    design
}

/// A rectangle with its corners rounded, from where the lower left one ends.
fn rounded(panel: Panel, w: f64, h: f64, radius: f64) -> Panel {
    let r = radius.min(w / 2.0).min(h / 2.0);
    if r <= 0.0 {
        return panel.cut(0.0, h).cut(w, h).cut(w, 0.0).cut(0.0, 0.0);
    }
    // The rise of a quarter circle over its chord.
    let rise = r * (1.0 - std::f64::consts::FRAC_1_SQRT_2);
    let (top, right, foot) = (h - r, w, -r);
    panel
        .cut(0.0, top - r)
        .arc(r, top, rise)
        .cut(right - r, top)
        .arc(right, top - r, rise)
        .cut(right, 0.0)
        .arc(right - r, foot, rise)
        .cut(r, foot)
        .arc(0.0, 0.0, rise)
}

/// A star whose first point is at its left, at the origin.
fn star(panel: Panel, radius: f64, points: f64, depth: f64) -> (Panel, f64, f64) {
    let step = std::f64::consts::PI / points;
    let mut panel = panel;
    let mut at = 1.0;
    while at <= 2.0 * points {
        let is_point = at % 2.0 == 0.0;
        let reach = if is_point { radius } else { radius - depth };
        // From the left over the top.
        let angle = std::f64::consts::PI - at * step;
        let (x, y) = if at == 2.0 * points {
            (0.0, 0.0)
        } else {
            (radius + reach * angle.cos(), reach * angle.sin())
        };
        panel = panel.cut(x, y);
        at += 1.0;
    }
    (panel, 0.0, -radius)
}
