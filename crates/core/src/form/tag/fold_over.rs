//! The fold-over tag: front and back folded at the head, with a hole through both.
//!
//! The back folds half a turn: its middle lies one caliper behind the front's.

use super::{EDGE, HOLE, Hole};
use crate::form::design::{Blank, Design, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Axis, Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "tag-fold-over",
    name: "Fold-over tag",
    family: Family::Tags,
    about: "A tag that opens like a little card, with a hole through both leaves.",
    uses: &["hang", "label", "gift", "string", "card", "no glue"],
    params: &[WIDTH, HEIGHT, ROUNDING, HOLE, EDGE],
    presets: &[
        Preset { name: "Gift", figures: &[("width", 50.0), ("height", 60.0)] },
        Preset { name: "Care notes", figures: &[("width", 60.0), ("height", 90.0)] },
    ],
    design,
};

const WIDTH: Param = Param::size("width", ["Width", "Along the fold."], [0.0, 0.0], |_| 50.0)
    .within(|_| Bounds::new(15.0, 400.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "Of one leaf, from the fold."], [0.0, 0.0], |_| 60.0)
        .within(|_| Bounds::new(15.0, 400.0));
const ROUNDING: Param = Param::length(
    "corner",
    ["Rounding", "Radius of the lower corners; changing the size keeps it."],
    |_| 3.0,
    |f| Bounds::new(0.0, f["width"].min(f["height"]) * 0.4).against("width"),
);

fn design(f: &Figures) -> Design {
    let (w, h, r) = (f["width"], f["height"], f["corner"]);
    let down = f["edge"] + f["hole"] / 2.0;
    let front_hole = Hole::below(f, w / 2.0, h);
    let back_hole = Hole { at: (w / 2.0, down).into(), ..Hole::below(f, w / 2.0, h) };
    let back =
        Panel::new("Back", Role::Face).cut_rounded(0.0, h, r).cut_rounded(w, h, r).cut(w, 0.0);
    let hollow = r * (1.0 - std::f64::consts::FRAC_1_SQRT_2);
    let front = Panel::new("Front", Role::Face).cut(0.0, h - r).hinge_over(
        w,
        h - r,
        180.0,
        f.t,
        back_hole.cut(back),
    );
    // The front starts where its lower left corner's arc ends.
    let front = if r > 0.0 {
        front.cut(w, 0.0).arc(w - r, -r, hollow).cut(r, -r).arc(0.0, 0.0, hollow)
    } else {
        front.cut(w, 0.0).cut(0.0, 0.0)
    };
    let front_hole = Hole { at: (w / 2.0, h - r - down).into(), ..front_hole };
    Design::new(vec![Blank::upwards("Tag", front_hole.cut(front))], Stand::Upright)
        .steps([Step::close("Fold the back behind the front", ["Back"])])
        .must([Must::Clear(["Back".to_owned(), "Front".to_owned()], 0.0)])
        .limits(front_hole.limit("Front", f["edge"], 0.0))
        .folds(Axis::Across)
        .span("width", "Back", (0.0, 0.0), (w, 0.0))
        .span("height", "Back", (0.0, 0.0), (0.0, h))
        .quiet_span("edge", "Front", (w / 2.0, h - r), (w / 2.0, h - r - f["edge"]))
        .quiet_span("corner", "Back", (0.0, h), (0.0, h - r))
}
