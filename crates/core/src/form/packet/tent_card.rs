//! The tent card: front and back lean together over a foot that is glued inside the front.
//!
//! Seen from the side it is a triangle: both faces H long, the foot D. The foot's flap lies one caliper
//! inside the front: its crease is t/sin ψ short of the front's edge, ψ being the turn there.

use crate::form::design::{Blank, Design, Edge, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Axis, Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "tent-card",
    name: "Tent card",
    family: Family::PacketsAndStands,
    about: "A card that stands on a table and reads from both sides.",
    uses: &["stand", "place card", "table", "name", "price", "sign", "glue"],
    params: &[WIDTH, HEIGHT, DEPTH, FLAP],
    presets: &[
        Preset { name: "Place card", figures: &[("width", 85.0), ("height", 55.0)] },
        Preset { name: "Table sign", figures: &[("width", 148.0), ("height", 100.0)] },
    ],
    design,
};

const WIDTH: Param = Param::size("width", ["Width", "Along the ridge."], [0.0, 0.0], |_| 85.0)
    .within(|_| Bounds::new(20.0, 600.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "Of a face, from foot to ridge."], [0.0, 0.0], |_| 55.0)
        .within(|_| Bounds::new(20.0, 400.0));
const DEPTH: Param = Param::length(
    "depth",
    ["Foot", "From the front’s edge to the back’s."],
    |f| f["height"] * 0.6,
    |f| Bounds::new((f["height"] * 0.2).max(8.0), f["height"] * 1.5).against("height"),
);
const FLAP: Param = Param::length(
    flaps::GLUE,
    ["Glue flap", "The foot’s flap, glued inside the front."],
    |_| flaps::GLUE_STANDARD,
    |f| flaps::flap_up_to((f["height"] * 0.6).min(flaps::glue_limit(f["width"]))).against("height"),
);

fn design(f: &Figures) -> Design {
    let (w, h, d) = (f["width"], f["height"], f["depth"]);
    let ridge = 180.0 - 2.0 * (d / 2.0 / h).asin().to_degrees();
    let foot_turn = 180.0 - (d / 2.0 / h).acos().to_degrees();
    let short = f.t / foot_turn.to_radians().sin();
    let foot = Panel::new("Foot", Role::Flap)
        .cut(0.0, d - short)
        .hinge(w, d - short, foot_turn, flaps::glue_flap("Glue flap", w, f[flaps::GLUE]))
        .cut(w, 0.0);
    let back = Panel::new("Back", Role::Face).cut(0.0, h).hinge(w, h, foot_turn, foot).cut(w, 0.0);
    let front = Panel::new("Front", Role::Face)
        .cut(0.0, h)
        .hinge(w, h, ridge, back)
        .cut(w, 0.0)
        .cut(0.0, 0.0);
    Design::new(vec![Blank::upwards("Tent", front)], Stand::Upright)
        .steps([
            Step::close("Fold the glue flap", ["Glue flap"]),
            Step::close("Fold foot and back, and glue the flap inside the front", ["Foot", "Back"]),
        ])
        .must([
            Must::Glue("Glue flap".to_owned(), "Front".to_owned(), 0.0),
            Must::Reach(Edge::new("Front", (0.0, 0.0), (w, 0.0)), "Foot".to_owned(), 0.0),
        ])
        .folds(Axis::Across)
        .span("width", "Front", (0.0, 0.0), (w, 0.0))
        .span("height", "Front", (0.0, 0.0), (0.0, h))
        .span("depth", "Foot", (0.0, 0.0), (0.0, d))
        .span("glue", "Glue flap", (0.0, 0.0), (0.0, f[flaps::GLUE]))
}
