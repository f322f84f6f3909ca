//! The belly band: a tube that goes round a stack or a box, glued at one side.
//!
//! Allowances as for a carton's tube: front L + t, sides W + t, back L + 2t, last side W + t/2.

use crate::form::design::{Blank, Design, Stand};
use crate::form::figures::Figures;
use crate::form::flaps;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tube::{Box4, End, wrap_steps};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "belly-band",
    name: "Belly band",
    family: Family::SleevesAndWraps,
    about: "A band round a stack of cards, a book or a box.",
    uses: &["band", "wrap", "sleeve", "stack", "bundle", "glue"],
    params: &[LENGTH, WIDTH, HEIGHT, GLUE],
    presets: &[
        Preset {
            name: "Packet bundle",
            figures: &[("length", 85.0), ("width", 25.0), ("height", 40.0)],
        },
        Preset {
            name: "Notebook",
            figures: &[("length", 150.0), ("width", 12.0), ("height", 60.0)],
        },
    ],
    design,
};

const LENGTH: Param = Param::size(
    "length",
    ["Length", "Across the front of what it goes round."],
    [1.0, 3.0],
    |_| 85.0,
);
const WIDTH: Param =
    Param::size("width", ["Thickness", "Of what it goes round."], [1.0, 2.0], |_| 25.0);
const HEIGHT: Param =
    Param::size("height", ["Band", "How wide the band is."], [0.0, 0.0], |_| 40.0)
        .within(|_| Bounds::new(8.0, 500.0));

const GLUE: Param = Param::length(
    flaps::GLUE,
    ["Glue flap", "Width of the flap that joins the band’s ends."],
    |f| flaps::usual(flaps::GLUE_STANDARD.min(f["width"] - 1.0), f["width"], f.t),
    |f| flaps::flap_up_to(f["width"].min(flaps::glue_limit(f["height"] - f.t))).against("width"),
);

fn design(f: &Figures) -> Design {
    let t = f.t;
    let band = Box4 { length: f["length"], width: f["width"], height: f["height"] - t, t };
    let free = || [0, 1, 2, 3].map(|_| End::Free { out: 0.0 });
    let across = band.across();
    let high = f["height"];
    Design::new(
        vec![Blank::downwards("Band", band.tube(free(), free(), f[flaps::GLUE]))],
        Stand::Upright,
    )
    .steps(wrap_steps())
    .must(band.musts())
    .span("length", "Front", (high, 0.0), (high, across[0]))
    .span("width", "Right side", (high, 0.0), (high, across[1]))
    .span("height", "Front", (0.0, 0.0), (high, 0.0))
    .span("glue", "Glue flap", (0.0, 0.0), (0.0, f["glue"]))
}
