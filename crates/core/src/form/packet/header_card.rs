//! The header card: folded over the top of a bag and stapled, with a hole to hang it by.
//!
//! The back folds half a turn round the bag: its middle lies one caliper and the bag's thickness behind the
//! front's. Both have the hole in the same place.

use crate::LineKind;
use crate::check::Sense;
use crate::form::design::{Blank, Design, Limit, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Axis, Panel, Role};
use crate::geometry::{Point, circle};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "header-card",
    name: "Header card",
    family: Family::PacketsAndStands,
    about: "A folded card that closes a bag and hangs on a peg.",
    uses: &["bag topper", "hang", "peg", "display", "staple", "no glue"],
    params: &[WIDTH, HEIGHT, BACK, BAG, HOLE, EDGE],
    presets: &[
        Preset { name: "Seed bag", figures: &[("width", 100.0), ("height", 45.0)] },
        Preset { name: "Sweet bag", figures: &[("width", 75.0), ("height", 40.0)] },
    ],
    design,
};

const WIDTH: Param = Param::size("width", ["Width", "Across the bag."], [0.0, 0.0], |_| 100.0)
    .within(|_| Bounds::new(20.0, 600.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "Of the front, from the fold."], [0.0, 0.0], |_| 45.0)
        .within(|_| Bounds::new(15.0, 400.0));
const BACK: Param = Param::length(
    "back",
    ["Back", "How far the back reaches down."],
    |f| f["height"],
    |f| Bounds::new(8.0, f["height"] * 1.5).against("height"),
);
const BAG: Param = Param::length(
    "bag",
    ["Bag", "Thickness of what lies between front and back."],
    |_| 0.2,
    |_| Bounds::new(0.0, 10.0),
);
const HOLE: Param = Param::length(
    "hole",
    ["Hang hole", "Its width; 0 leaves it out."],
    |_| 6.0,
    |f| Bounds::new(0.0, (f["height"] / 3.0).min(f["width"] / 3.0)).against("height"),
);
const EDGE: Param = Param::length(
    "edge",
    ["Card above the hole", "From the fold to the hole."],
    |f| (f["hole"] + 1.0).min(f["height"] / 2.0),
    |f| Bounds::new(2.0, (f["height"].min(f["back"]) - f["hole"] - 2.0).max(2.0)).against("height"),
);

fn design(f: &Figures) -> Design {
    let (w, h, back, hole) = (f["width"], f["height"], f["back"], f["hole"]);
    let radius = h.min(back) / 12.0;
    let down = f["edge"] + hole / 2.0;
    let punched = |panel: Panel, v: f64| {
        if hole < 1.0 {
            return panel;
        }
        panel.with(LineKind::Cut, circle(Point::new(w / 2.0, v), hole / 2.0))
    };
    let behind = punched(Panel::new("Back", Role::Face), down)
        .cut_rounded(0.0, back, radius)
        .cut_rounded(w, back, radius)
        .cut(w, 0.0);
    let mut front = punched(Panel::new("Front", Role::Face), h - down);
    front = front
        .cut(0.0, h)
        .hinge_over(w, h, 180.0, f.t + f["bag"], behind)
        .cut_rounded(w, 0.0, radius)
        .cut_rounded(0.0, 0.0, 0.0);
    let needs = if hole < 1.0 { 0.0 } else { hole };
    Design::new(vec![Blank::upwards("Header", front)], Stand::Upright)
        .steps([Step::close("Fold the back over the bag and staple", ["Back"])])
        .must([Must::Clear(["Back".to_owned(), "Front".to_owned()], f["bag"])])
        .limits([Limit {
            id: "hole-edge",
            label: "Card above the hole".to_owned(),
            limit: (f["edge"], Sense::AtLeast, needs),
            panel: "Front".to_owned(),
            remedy: Some(("edge", needs)),
        }])
        .folds(Axis::Across)
        .span("width", "Front", (0.0, 0.0), (w, 0.0))
        .span("height", "Front", (0.0, 0.0), (0.0, h))
        .span("back", "Back", (0.0, 0.0), (0.0, back))
        .quiet_span("edge", "Front", (w / 2.0, h), (w / 2.0, h - f["edge"]))
        .quiet_span("hole", "Front", ((w - hole) / 2.0, h - down), ((w + hole) / 2.0, h - down))
}
