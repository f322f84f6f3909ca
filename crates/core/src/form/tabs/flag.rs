//! The page flag: folded over the edge of a page and glued, with a tab that stands out.
//!
//! The back folds half a turn round the page, one caliper and the page behind the front; both are glued
//! to the page, and to each other beyond it.

use crate::form::design::{Blank, Design, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Axis, Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "page-flag",
    name: "Page flag",
    family: Family::Tabs,
    about: "A small tab folded over the edge of a page.",
    uses: &["flag", "marker", "page", "index", "glue"],
    params: &[WIDTH, HEIGHT, ROUNDING],
    presets: &[
        Preset { name: "Ordinary", figures: &[("width", 25.0), ("height", 20.0)] },
        Preset { name: "Wide", figures: &[("width", 40.0), ("height", 18.0)] },
    ],
    design,
};

const WIDTH: Param = Param::size("width", ["Width", "Along the fold."], [0.0, 0.0], |_| 25.0)
    .within(|_| Bounds::new(10.0, 200.0));
const HEIGHT: Param = Param::size(
    "height",
    ["Height", "Of one leaf: the tab, and what is glued to the page."],
    [0.0, 0.0],
    |_| 20.0,
)
.within(|_| Bounds::new(10.0, 150.0));
const ROUNDING: Param = Param::length(
    "corner",
    ["Shoulder", "How far the corners beside the fold are cut off."],
    |_| 2.0,
    |f| Bounds::new(0.0, (f["width"] / 3.0).min(f["height"] / 2.0)).against("width"),
);

/// A page's thickness, mm.
const PAGE: f64 = 0.1;

fn design(f: &Figures) -> Design {
    let (w, h, c) = (f["width"], f["height"], f["corner"]);
    let back = Panel::new("Back", Role::Face)
        .cut(-c, c)
        .cut(-c, h)
        .cut(w - c, h)
        .cut(w - c, c)
        .cut(w - 2.0 * c, 0.0);
    let front = Panel::new("Front", Role::Face)
        .cut(0.0, h - c)
        .cut(c, h)
        .hinge_over(w - c, h, 180.0, f.t + PAGE, back)
        .cut(w, h - c)
        .cut(w, 0.0)
        .cut(0.0, 0.0);
    Design::new(vec![Blank::upwards("Flag", front)], Stand::Upright)
        .steps([Step::close("Fold the back over the page and glue", ["Back"])])
        .must([Must::Clear(["Back".to_owned(), "Front".to_owned()], PAGE)])
        .label("Front", (w / 2.0, h * 0.3), [w, h * 0.5])
        .folds(Axis::Across)
        .span("width", "Front", (0.0, 0.0), (w, 0.0))
        .span("height", "Front", (0.0, 0.0), (0.0, h))
        .quiet_span("corner", "Front", (0.0, h - c), (0.0, h))
}
