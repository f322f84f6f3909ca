//! The folder: a front and a back folded at the foot, the back with a tab at one of n positions.
//!
//! The front folds half a turn over what lies in the folder: its middle is one caliper and that
//! thickness in front of the back's.

use crate::form::design::{Blank, Design, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Axis, Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "folder",
    name: "Tabbed folder",
    family: Family::Tabs,
    about: "A folder whose back stands out in a tab: full, half, third or fifth cut.",
    uses: &["folder", "file", "index", "papers", "no glue"],
    params: &[WIDTH, HEIGHT, COUNT, POSITION, TAB, FRONT, CONTENTS],
    presets: &[
        Preset {
            name: "A5, third cut",
            figures: &[("width", 225.0), ("height", 155.0), ("count", 3.0)],
        },
        Preset {
            name: "Card size",
            figures: &[("width", 135.0), ("height", 85.0), ("count", 3.0)],
        },
    ],
    design,
};

const WIDTH: Param = Param::size("width", ["Width", "Along the fold."], [0.0, 0.0], |_| 135.0)
    .within(|_| Bounds::new(40.0, 1000.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "Of the back, without its tab."], [0.0, 0.0], |_| 85.0)
        .within(|_| Bounds::new(40.0, 1000.0));
const COUNT: Param = Param::count(
    "count",
    ["Cut", "Of how many positions the tab takes one; 1 is a full-width tab."],
    |_| 3.0,
    |_| Bounds::new(1.0, 10.0),
);
const POSITION: Param = Param::count(
    "position",
    ["Position", "Which of them, from the left."],
    |_| 1.0,
    |f| Bounds::new(1.0, f["count"]).against("count"),
);
const TAB: Param = Param::length(
    "tab",
    ["Tab height", "How far the tab stands out."],
    |_| 11.0,
    |_| Bounds::new(4.0, 40.0),
);
const FRONT: Param = Param::length(
    "front",
    ["Front", "Height of the front."],
    |f| f["height"] - 5.0,
    |f| Bounds::new(f["height"] * 0.5, f["height"]).against("height"),
);
const CONTENTS: Param = Param::length(
    "contents",
    ["Contents", "Thickness of what the folder holds."],
    |_| 1.0,
    |_| Bounds::new(0.0, 30.0),
);

fn design(f: &Figures) -> Design {
    let (w, h, tab, front) = (f["width"], f["height"], f["tab"], f["front"]);
    let share = w / f["count"];
    let (from, to) = (share * (f["position"] - 1.0), share * f["position"]);
    let lean = (share / 10.0).min(4.0);
    let radius = (tab / 3.0).min(3.0);
    let leaf = Panel::new("Front", Role::Face)
        .cut_rounded(0.0, front, 4.0)
        .cut_rounded(w, front, 4.0)
        .cut(w, 0.0);
    let back = Panel::new("Back", Role::Face)
        .cut(0.0, h)
        .cut(from, h)
        .cut_rounded(from + lean, h + tab, radius)
        .cut_rounded(to - lean, h + tab, radius)
        .cut(to, h)
        .cut(w, h)
        .cut(w, 0.0)
        .hinge_over(0.0, 0.0, 180.0, f.t + f["contents"], leaf);
    Design::new(vec![Blank::upwards("Folder", back)], Stand::Upright)
        .steps([Step::close("Fold the front up", ["Front"])])
        .must([Must::Clear(["Front".to_owned(), "Back".to_owned()], f["contents"])])
        .label("Back", (f64::midpoint(from, to), h + tab / 2.0), [share - 2.0 * lean, tab])
        .folds(Axis::Across)
        .span("width", "Back", (0.0, 0.0), (w, 0.0))
        .span("height", "Back", (w, 0.0), (w, h))
        .span("tab", "Back", (to, h), (to, h + tab))
        .quiet_span("count", "Back", (from, h), (to, h))
        .span("front", "Front", (0.0, 0.0), (0.0, front))
}
