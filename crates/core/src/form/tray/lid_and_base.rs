//! Lid and base: two glued trays, the lid over the base.
//!
//! The lid's inside is the base's outside and a clearance each side: with the base L × W inside,
//! L + 4t + 2c by W + 2t + 2c, its length again between its own corner flaps. Closed it is therefore
//! L + 8t + 2c by W + 4t + 2c over everything.

use super::four_corner::{LENGTH, WIDTH};
use super::walls::{CORNER, Tray};
use crate::form::design::{Blank, Design, Must, Rest, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::CLEARANCE_PARAM;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "lid-and-base",
    name: "Lid and base",
    family: Family::TraysAndLids,
    about: "A tray and a lid that telescopes over it.",
    uses: &["box", "gift", "telescope", "two-piece", "keepsake", "glue"],
    params: &[LENGTH.under(8.0, 2.0), WIDTH.under(4.0, 2.0), HEIGHT, LID, CORNER, CLEARANCE_PARAM],
    presets: &[
        Preset { name: "Gift", figures: &[("length", 90.0), ("width", 90.0), ("height", 40.0)] },
        Preset {
            name: "Card box",
            figures: &[("length", 120.0), ("width", 90.0), ("height", 35.0)],
        },
    ],
    design,
};

const HEIGHT: Param =
    Param::size("height", ["Height", "Inside, from the base to the lid."], [0.5, 2.0], |_| 40.0);

const LID: Param = Param::length(
    "lid",
    ["Lid", "How far the lid reaches down, inside."],
    |f| (f["height"] * 0.5).clamp(5.0, 60.0),
    |f| Bounds::new(5.0, f["height"].max(5.0)).against("height"),
);

fn design(f: &Figures) -> Design {
    let (t, c) = (f.t, f["clearance"]);
    let base = Tray::of(f);
    let [long, wide, _] = base.outside();
    let lid = Tray {
        name: "Lid",
        length: long + 2.0 * c,
        width: wide + 2.0 * c,
        height: f["lid"],
        glue: f["glue"].min(crate::form::flaps::glue_limit(f["lid"])),
        ..Tray::of(f)
    };
    let ([a, b], [lid_a, lid_b]) = (base.base(), lid.base());
    // Turned over about its length: its printed side up, its walls down round the base's.
    let over = |gap: f64| Rest {
        axes: [[1.0, 0.0, 0.0], [0.0, -1.0, 0.0], [0.0, 0.0, -1.0]],
        at: [(a - lid_a) / 2.0, f64::midpoint(b, lid_b), -(base.height + t) - gap],
    };
    // Turning, the lid sweeps its own depth and height round the edge it turns about.
    let high = base.height + lid.height + 2.0 * (lid_b + lid.height);
    let clear = |one: &str, other: &str| Must::Clear([one.to_owned(), other.to_owned()], c);
    Design::new(
        vec![Blank::upwards("Base", base.panel()), Blank::upwards("Lid", lid.panel())],
        Stand::OnFirst,
    )
    .steps(base.steps("base"))
    .steps(lid.steps("lid"))
    .steps([
        Step::lift("Lift the lid", 1, high),
        Step::carry("Turn it over, above the base", 1, over(high / 2.0)),
        Step::carry("Slide the lid down", 1, over(0.0)),
    ])
    .must(base.musts())
    .must(lid.musts().into_iter().filter(|must| !matches!(must, Must::Room(..))))
    .must([
        clear("Lid front wall", "Back wall"),
        clear("Lid back wall", "Front wall"),
        clear("Lid back first flap", "Left end"),
        clear("Lid back second flap", "Right end"),
        Must::Room("height", ["Base".to_owned(), "Lid base".to_owned()], base.height),
    ])
    .limits([base.limit()])
    .holds(base.volume())
    .span("length", "Base", (0.0, 0.0), (a, 0.0))
    .span("width", "Base", (0.0, 0.0), (0.0, b))
    .span("height", "Front wall", (0.0, 0.0), (0.0, base.wall()))
    .span("lid", "Lid front wall", (0.0, 0.0), (0.0, lid.wall()))
    .span("glue", "Front first flap", (0.0, 0.0), (0.0, f["glue"]))
}
