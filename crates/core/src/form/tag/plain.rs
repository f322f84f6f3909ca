//! Tags of one layer, by their outline, with a hole or slot, a ring to strengthen it, and a stub to
//! tear off.

use super::{EDGE, HOLE, Hole, Outline, RING, SLOT};
use crate::form::design::{Blank, Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Joint, Panel, Role};
use crate::stroke::Perforation;

const WIDTH: Param = Param::size("width", ["Width", "Across the tag."], [0.0, 0.0], |_| 45.0)
    .within(|_| Bounds::new(12.0, 500.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "From foot to head, without a stub."], [0.0, 0.0], |_| 75.0)
        .within(|_| Bounds::new(12.0, 500.0));
const STUB: Param = Param::length(
    "stub",
    ["Stub", "Height of a part to tear off at the foot; 0 leaves it out."],
    |_| 0.0,
    |f| Bounds::new(0.0, f["height"]).against("height"),
);

const fn corner(label: &'static str, note: &'static str) -> Param {
    Param::length(
        "corner",
        [label, note],
        |f| (f["width"].min(f["height"]) / 6.0).min(10.0),
        |f| Bounds::new(0.0, f["width"].min(f["height"]) * 0.4).against("width"),
    )
}

const ROUNDING: Param =
    corner("Rounding", "Radius of the upper corners; changing the size keeps it.");
const CLIP: Param = corner("Clipped corners", "How much is cut off along both sides.");
const HOLLOW: Param = corner("Hollow corners", "Radius of the hollows.");
const POINT: Param = corner("Point", "How high the point is.");
const SCALLOP: Param = Param::length(
    "corner",
    ["Scallops", "About how wide each is; they come out even."],
    |f| (f["width"].min(f["height"]) / 6.0).clamp(4.0, 9.0),
    |f| Bounds::new(2.0, f["width"].min(f["height"]) / 2.0).against("width"),
);

/// Under a round head the edge is nearest beside the hole.
const OVAL_EDGE: Param = Param {
    standard: |f| {
        let beside = Outline::Oval.drop_at(f["width"], f["height"], 0.0, f["hole"] / 2.0);
        (EDGE.standard)(f) + 2.0 * beside
    },
    ..EDGE
};

const fn tag(
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
        family: Family::Tags,
        about,
        uses: &["hang", "label", "price", "gift", "plant", "eyelet", "string", "no glue"],
        params,
        presets,
        design,
    }
}

const SIZES: &[Preset] = &[
    Preset { name: "Plant tag", figures: &[("width", 45.0), ("height", 75.0)] },
    Preset { name: "Price tag", figures: &[("width", 30.0), ("height", 50.0)] },
    Preset { name: "Luggage", figures: &[("width", 65.0), ("height", 120.0)] },
];

/// Square corners.
pub const SQUARE: Structure = tag(
    "tag",
    "Tag",
    "A plain tag with a hole.",
    &[WIDTH, HEIGHT, HOLE, SLOT, EDGE, RING, STUB],
    SIZES,
    |f| draw(f, Outline::Square),
);
/// Rounded corners.
pub const ROUNDED: Structure = tag(
    "tag-rounded",
    "Rounded tag",
    "A tag with rounded upper corners.",
    &[WIDTH, HEIGHT, ROUNDING, HOLE, SLOT, EDGE, RING, STUB],
    SIZES,
    |f| draw(f, Outline::Rounded),
);
/// Clipped corners.
pub const CLIPPED: Structure = tag(
    "tag-clipped",
    "Clipped-corner tag",
    "The shipping tag: upper corners cut off.",
    &[WIDTH, HEIGHT, CLIP, HOLE, SLOT, EDGE, RING, STUB],
    SIZES,
    |f| draw(f, Outline::Clipped),
);
/// A point at the head.
pub const POINTED: Structure = tag(
    "tag-pointed",
    "Pointed tag",
    "A tag with a pointed head.",
    &[WIDTH, HEIGHT, POINT, HOLE, SLOT, EDGE, RING, STUB],
    SIZES,
    |f| draw(f, Outline::Pointed),
);
/// Scallops.
pub const SCALLOPED: Structure = tag(
    "tag-scalloped",
    "Scalloped tag",
    "A tag with a wavy edge.",
    &[WIDTH, HEIGHT, SCALLOP, HOLE, SLOT, EDGE, RING],
    SIZES,
    |f| draw(f, Outline::Scalloped),
);
/// A circle.
pub const ROUND: Structure = tag(
    "tag-round",
    "Round tag",
    "A round tag with a hole.",
    &[DIAMETER, ROUND_HEIGHT, HOLE, OVAL_EDGE, RING],
    &[
        Preset { name: "Jar tag", figures: &[("width", 50.0)] },
        Preset { name: "Small", figures: &[("width", 32.0)] },
    ],
    |f| draw(f, Outline::Oval),
);
/// An ellipse.
pub const OVAL: Structure = tag(
    "tag-oval",
    "Oval tag",
    "An oval tag with a hole.",
    &[WIDTH, HEIGHT, HOLE, OVAL_EDGE, RING],
    SIZES,
    |f| draw(f, Outline::Oval),
);
/// Hollow corners.
pub const TICKET: Structure = tag(
    "tag-ticket",
    "Ticket",
    "A ticket with hollow corners.",
    &[WIDTH, HEIGHT, HOLLOW, HOLE, SLOT, EDGE, RING],
    &[
        Preset { name: "Raffle", figures: &[("width", 50.0), ("height", 90.0)] },
        Preset { name: "Entry", figures: &[("width", 60.0), ("height", 130.0), ("hole", 0.0)] },
    ],
    |f| draw(f, Outline::Ticket),
);
/// A round head.
pub const ARCH: Structure = tag(
    "tag-arch",
    "Arched tag",
    "A tag with a round head.",
    &[WIDTH, HEIGHT, HOLE, SLOT, EDGE, RING, STUB],
    SIZES,
    |f| draw(f, Outline::Arch),
);

const DIAMETER: Param = Param::size("width", ["Diameter", "Across the tag."], [0.0, 0.0], |_| 50.0)
    .within(|_| Bounds::new(12.0, 500.0));
const ROUND_HEIGHT: Param = Param::length(
    "height",
    ["Height", "Follows the diameter; another one makes an oval."],
    |f| f["width"],
    |f| Bounds::new(f["width"] * 0.5, f["width"] * 2.0).against("width"),
);

fn draw(f: &Figures, outline: Outline) -> Design {
    let by = if f["corner"].is_nan() { 0.0 } else { f["corner"] };
    let out = outline.overhang(by);
    let (w, h) = (f["width"] - 2.0 * out, f["height"] - 2.0 * out);
    let top = match outline {
        Outline::Oval => h / 2.0,
        Outline::Ticket => h - by,
        _ => h,
    };
    let hole = Hole::below(f, w / 2.0, top);
    let panel = outline.draw(Panel::new("Tag", Role::Face), w, h, by);
    let stub = if f["stub"].is_nan() { 0.0 } else { f["stub"] };
    let panel = if !outline.has_foot() || outline == Outline::Ticket {
        panel
    } else if stub >= 5.0 {
        let part = Panel::new("Stub", Role::Face).cut(0.0, stub).cut(w, stub).cut(w, 0.0);
        panel.hinge_as(0.0, 0.0, 0.0, Joint::Perforation(Perforation::STANDARD), part)
    } else {
        panel.cut(0.0, 0.0)
    };
    let mut blanks = vec![Blank::upwards("Tag", hole.cut(panel))];
    blanks.extend(hole.ring(f["ring"]));
    // The nearest edge above: under a slanted head it is nearer at the hole's side.
    let beside = outline.drop_at(w, h, by, hole.width.max(hole.slot) / 2.0);
    let spans = [
        ("width", (-out, 0.0), (w + out, 0.0)),
        ("height", (0.0, top - h - out), (0.0, top + out)),
    ];
    let mut design =
        Design::new(blanks, Stand::Upright).limits(hole.limit("Tag", f["edge"], beside));
    for (key, from, to) in spans {
        design = design.span(key, "Tag", from, to);
    }
    if !hole.is_none() {
        let (x, y) = (hole.at.x, hole.at.y);
        let half = hole.width / 2.0;
        design = design.quiet_span("edge", "Tag", (x, top), (x, y + half)).quiet_span(
            "hole",
            "Tag",
            (x - half, y),
            (x + half, y),
        );
    }
    if by > 0.0 {
        design = design.quiet_span("corner", "Tag", (0.0, top), (0.0, top - by));
    }
    if stub >= 5.0 {
        design = design.span("stub", "Stub", (0.0, 0.0), (0.0, stub));
    }
    design
}
