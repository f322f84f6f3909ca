//! The packet (envelope): side flaps folded in, the back glued over them, a closing flap on top.
//!
//! Folds of half a turn go round the layers beneath: a side flap's middle lies one caliper behind the
//! front's, the back's two, the closing flap's three.

use crate::check::Sense;
use crate::form::design::{Blank, Design, Limit, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "packet",
    name: "Packet",
    family: Family::PacketsAndStands,
    about: "A flat packet or envelope with glued sides and a closing flap.",
    uses: &["envelope", "seed packet", "flat", "letter", "pouch", "glue"],
    params: &[WIDTH, HEIGHT, SIDE, CLOSING, THROAT],
    presets: &[
        Preset { name: "Seed packet", figures: &[("width", 80.0), ("height", 115.0)] },
        Preset { name: "Coin", figures: &[("width", 60.0), ("height", 90.0)] },
        Preset { name: "C6 card", figures: &[("width", 164.0), ("height", 116.0)] },
    ],
    design,
};

const WIDTH: Param =
    Param::size("width", ["Width", "Between the side creases."], [0.0, 0.0], |_| 80.0)
        .within(|_| Bounds::new(20.0, 1000.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "From the base’s crease to the mouth."], [0.0, 0.0], |_| {
        115.0
    })
    .within(|_| Bounds::new(20.0, 1000.0));

const SIDE: Param = Param::length(
    "side",
    ["Side flaps", "How far they reach in; the back is glued to them."],
    |f| flaps::usual(flaps::GLUE_STANDARD.min(f["width"] / 4.0), f["width"] / 2.0 - 1.0, f.t),
    |f| {
        flaps::flap_up_to((f["width"] / 2.0 - 1.0).min(flaps::glue_limit(f["height"])))
            .against("width")
    },
);

const CLOSING: Param = Param::length(
    "closing",
    ["Closing flap", "How far it reaches down over the back."],
    |f| {
        let usual = (f["width"] / 3.0).min(f["height"] / 3.0).clamp(10.0, 45.0);
        usual.max(throat(f) + flaps::SMALLEST_FLAP)
    },
    |f| Bounds::new(8.0, f["height"] * 0.8).against("height"),
);

const THROAT: Param = Param::length(
    "throat",
    ["Throat", "How far the back’s edge stays below the mouth."],
    throat,
    |f| Bounds::new(0.5, f["height"] / 3.0).against("height"),
);

/// The throat's usual depth.
fn throat(f: &Figures) -> f64 {
    (f["height"] / 20.0).clamp(2.0, 8.0)
}

fn design(f: &Figures) -> Design {
    let (w, h, t) = (f["width"], f["height"], f.t);
    let side = |name: &str| {
        let reach = f["side"];
        let taper = reach * flaps::GLUE_TAPER.to_radians().tan();
        Panel::new(name, Role::Glue)
            .set_by("side")
            .cut(taper, reach)
            .cut(h - taper, reach)
            .cut(h, 0.0)
    };
    // A little narrower than the front, so that the folds' roundings stay clear.
    let ease = t.min(w / 50.0);
    let closing = Panel::new("Closing flap", Role::Face)
        .set_by("closing")
        .cut_rounded(w * 0.12, f["closing"], f["closing"] / 3.0)
        .cut_rounded(w * 0.88, f["closing"], f["closing"] / 3.0)
        .cut(w, 0.0);
    let tall = h - f["throat"];
    let back = Panel::new("Back", Role::Face)
        .cut(ease, ease)
        .cut(ease, tall)
        .cut(w - ease, tall)
        .cut(w - ease, ease)
        .cut(w, 0.0);
    let front = Panel::new("Front", Role::Face)
        .hinge_over(0.0, h, 180.0, t, side("Left flap"))
        .hinge_over(w, h, 180.0, 3.0 * t, closing)
        .hinge_over(w, 0.0, 180.0, t, side("Right flap"))
        .hinge_over(0.0, 0.0, 180.0, 2.0 * t, back);
    let glued = |flap: &str| Must::Glue(flap.to_owned(), "Back".to_owned(), 0.0);
    Design::new(vec![Blank::upwards("Packet", front)], Stand::Upright)
        .steps([
            Step::close("Fold the side flaps in", ["Left flap", "Right flap"]),
            Step::close("Fold the back up and glue it to them", ["Back"]),
            Step::close("Close the flap", ["Closing flap"]),
        ])
        .must([glued("Left flap"), glued("Right flap")])
        .limits([Limit {
            id: "closing",
            label: "Closing flap over the back".to_owned(),
            limit: (f["closing"], Sense::AtLeast, f["throat"] + flaps::SMALLEST_FLAP),
            panel: "Closing flap".to_owned(),
            remedy: Some(("closing", f["throat"] + flaps::SMALLEST_FLAP)),
        }])
        .span("width", "Front", (0.0, 0.0), (w, 0.0))
        .span("height", "Front", (0.0, 0.0), (0.0, h))
        .span("side", "Left flap", (0.0, 0.0), (0.0, f["side"]))
        .span("closing", "Closing flap", (0.0, 0.0), (0.0, f["closing"]))
        .quiet_span("throat", "Back", (0.0, tall), (0.0, h))
}
