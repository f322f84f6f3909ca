//! The sleeve with a sliding tray: a glued tray, and a glued tube open at both ends.
//!
//! The tray's allowances are stated in `tray/walls.rs`. The sleeve's inside is the tray's outside and
//! a clearance each side: W + 2t + 2c across and H + t + c high; it is as long as the tray outside.
//! Its last wall lies on its glue flap: closed it is W + 5t + 2c by H + 3t + c over everything.

use crate::form::design::{Blank, Design, Must, Rest, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::{self, CLEARANCE_PARAM};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tray::four_corner::{HEIGHT, LENGTH, WIDTH};
use crate::form::tray::walls::{CORNER, Tray};
use crate::form::tube::{End, Wall, tube};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "sleeve-and-tray",
    name: "Sleeve and tray",
    family: Family::SleevesAndWraps,
    about: "A tray that slides in a sleeve like a drawer.",
    uses: &["box", "drawer", "matchbox", "slide", "tray", "glue", "gift"],
    params: &[LENGTH, WIDTH.under(5.0, 2.0), HEIGHT.under(3.0, 1.0), CORNER, CLEARANCE_PARAM],
    presets: &[
        Preset {
            name: "Matchbox",
            figures: &[("length", 53.0), ("width", 36.0), ("height", 14.0)],
        },
        Preset {
            name: "Label drawer",
            figures: &[("length", 110.0), ("width", 70.0), ("height", 28.0)],
        },
    ],
    design,
};

fn design(f: &Figures) -> Design {
    let (t, c) = (f.t, f["clearance"]);
    let tray = Tray::of(f);
    let [long, wide, high] = tray.outside();
    let (inside, up) = (wide + 2.0 * c, high + c);
    let free = || End::Free { out: 0.0 };
    let wall = |name: &str, across: f64| Wall {
        name: name.to_owned(),
        across,
        turn: 90.0,
        top: free(),
        base: free(),
    };
    // As for a carton's tube: the last wall lies on the glue flap.
    let walls = vec![
        wall("Sleeve top", inside + t),
        wall("Sleeve right side", up + t),
        wall("Sleeve bottom", inside + 2.0 * t),
        wall("Sleeve left side", up + 0.5 * t),
    ];
    let width = flaps::GLUE_STANDARD.min(up - 1.0).min(flaps::glue_limit(long)).max(flaps::FLAP[0]);
    let glue = flaps::glue_flap("Sleeve glue flap", long - t, width);
    let sleeve = tube(walls, long, glue, 0.5 * t);

    let [a, b] = tray.base();
    // The sleeve's top lies over the tray's rim, printed side up; pushed along it is on.
    let over = |along: f64, above: f64| Rest {
        axes: [[1.0, 0.0, 0.0], [0.0, -1.0, 0.0], [0.0, 0.0, -1.0]],
        at: [(a - long) / 2.0 + along, f64::midpoint(b, inside + t), -up - above],
    };
    let high = 2.0 * (long + wide);
    let clear = |one: &str, other: &str| Must::Clear([one.to_owned(), other.to_owned()], c);
    Design::new(
        vec![Blank::upwards("Tray", tray.panel()), Blank::downwards("Sleeve", sleeve)],
        Stand::OnFirst,
    )
    .steps(tray.steps("tray"))
    .steps([
        Step::close("Fold the sleeve’s glue flap in", ["Sleeve glue flap"]),
        Step::close(
            "Wrap the sleeve round and glue its left side to the flap",
            ["Sleeve right side", "Sleeve bottom", "Sleeve left side"],
        ),
        Step::lift("Lift the sleeve", 1, high),
        Step::carry("Turn it over, beside the tray", 1, over(long + 20.0, high)),
        Step::carry("Set it down in front of the tray", 1, over(long + 20.0, 0.0)),
        Step::carry("Slide the tray in", 1, over(0.0, 0.0)),
    ])
    .must(tray.musts())
    .must([
        Must::Glue("Sleeve glue flap".to_owned(), "Sleeve left side".to_owned(), 0.0),
        clear("Sleeve right side", "Front wall"),
        clear("Sleeve glue flap", "Back wall"),
        Must::Clear(["Sleeve bottom".to_owned(), "Base".to_owned()], 0.0),
    ])
    .limits([tray.limit()])
    .holds(tray.volume())
    .span("length", "Base", (0.0, 0.0), (a, 0.0))
    .span("width", "Base", (0.0, 0.0), (0.0, b))
    .span("height", "Front wall", (0.0, 0.0), (0.0, tray.wall()))
    .span("glue", "Front first flap", (0.0, 0.0), (0.0, f["glue"]))
}
