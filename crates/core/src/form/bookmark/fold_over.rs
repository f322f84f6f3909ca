//! The fold-over bookmark: two leaves that hold a page between them, with magnets glued inside.
//!
//! The back folds half a turn round the page: one caliper and the page behind the front.

use super::WIDTH;
use crate::form::design::{Blank, Design, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Axis, Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "bookmark-fold-over",
    name: "Fold-over bookmark",
    family: Family::Bookmarks,
    about: "Two leaves over the edge of a page, held by magnets.",
    uses: &["book", "page", "magnet", "reading"],
    params: &[WIDTH, HEIGHT, ROUNDING],
    presets: &[Preset { name: "Ordinary", figures: &[("width", 30.0), ("height", 60.0)] }],
    design,
};

const HEIGHT: Param =
    Param::size("height", ["Height", "Of one leaf, from the fold."], [0.0, 0.0], |_| 60.0)
        .within(|_| Bounds::new(15.0, 300.0));
const ROUNDING: Param = Param::length(
    "corner",
    ["Rounding", "Radius of the free corners; changing the size keeps it."],
    |_| 5.0,
    |f| Bounds::new(0.0, (f["width"] / 2.0).min(f["height"] / 2.0)).against("width"),
);

/// A page's thickness, mm.
const PAGE: f64 = 0.1;

fn design(f: &Figures) -> Design {
    let (w, h, r) = (f["width"], f["height"], f["corner"]);
    let leaf = |name: &str| {
        Panel::new(name, Role::Face).cut_rounded(0.0, h, r).cut_rounded(w, h, r).cut(w, 0.0)
    };
    let hollow = r * (1.0 - std::f64::consts::FRAC_1_SQRT_2);
    let front = Panel::new("Front", Role::Face).cut(0.0, h - r).hinge_over(
        w,
        h - r,
        180.0,
        f.t + PAGE,
        leaf("Back"),
    );
    let front = if r > 0.0 {
        front.cut(w, 0.0).arc(w - r, -r, hollow).cut(r, -r).arc(0.0, 0.0, hollow)
    } else {
        front.cut(w, 0.0).cut(0.0, 0.0)
    };
    Design::new(vec![Blank::upwards("Bookmark", front)], Stand::Upright)
        .steps([Step::close("Fold the back behind the front", ["Back"])])
        .must([Must::Clear(["Back".to_owned(), "Front".to_owned()], PAGE)])
        .folds(Axis::Across)
        .span("width", "Back", (0.0, 0.0), (w, 0.0))
        .span("height", "Back", (0.0, 0.0), (0.0, h))
        .quiet_span("corner", "Back", (0.0, h), (0.0, h - r))
}
