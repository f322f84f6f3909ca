//! The corner pocket: a square whose two flaps fold over each other into a pocket for a page's corner.
//!
//! Both flaps are half squares with their right angle at the same corner: the first folds over by half a
//! turn, one caliper behind the square, the second two, and is glued to the first.

use crate::form::design::{Blank, Design, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "bookmark-corner",
    name: "Corner pocket",
    family: Family::Bookmarks,
    about: "A pocket that sits on the corner of a page.",
    uses: &["book", "page", "corner", "reading", "glue"],
    params: &[SIDE, EASE],
    presets: &[
        Preset { name: "Ordinary", figures: &[("side", 60.0)] },
        Preset { name: "Large", figures: &[("side", 80.0)] },
    ],
    design,
};

const SIDE: Param = Param::size("side", ["Side", "Of the square."], [0.0, 0.0], |_| 60.0)
    .within(|_| Bounds::new(25.0, 200.0));
const EASE: Param = Param::length(
    "ease",
    ["Ease", "How much smaller the flaps are than half the square."],
    |_| 1.5,
    |f| Bounds::new(0.5, f["side"] / 5.0).against("side"),
);

fn design(f: &Figures) -> Design {
    let (s, t) = (f["side"], f.t);
    let a = s - f["ease"];
    // Right angle at the hinge's end for the first, at its start for the second: the square's top right.
    let first = Panel::new("First flap", Role::Glue).cut(s, a).cut(s, 0.0);
    let second = Panel::new("Second flap", Role::Face).cut(0.0, a).cut(s, 0.0);
    let square = Panel::new("Square", Role::Face)
        .cut(0.0, s)
        .hinge_over(s, s, 180.0, t, first)
        .hinge_over(s, 0.0, 180.0, 2.0 * t, second)
        .cut(0.0, 0.0);
    Design::new(vec![Blank::upwards("Pocket", square)], Stand::Upright)
        .steps([
            Step::close("Fold the first flap behind", ["First flap"]),
            Step::close("Fold the second over it and glue", ["Second flap"]),
        ])
        .must([Must::Glue("First flap".to_owned(), "Second flap".to_owned(), 0.0)])
        .span("side", "Square", (0.0, 0.0), (s, 0.0))
        .quiet_span("ease", "Square", (s, a), (s, s))
}
