//! The straight-tuck carton: both closures hang on the back and tuck in behind the front.
//!
//! With caliper t and inside L × W × H, at the middle of the card:
//!
//! | part | crease to crease | why |
//! |---|---|---|
//! | front, across | L + t | half a caliper at each end |
//! | right side, across | W + t | the same |
//! | back, across | L + 2t | the left side lies on the glue flap, one caliper further out |
//! | left side, across | W + t/2 | ends one caliper short of the front's outer face, so that its edge does not stand proud |
//! | sides, along | H + t | between the dust flaps |
//! | back, along | H + 3t | the closing panels lie on the dust flaps, one caliper further out |
//! | front, along | H + 4t | its free edges end flush with the closed panels' outer faces |
//! | closing panel | W − c | the tuck slides in behind the front with clearance c |
//! | tuck, across | L − 2c | narrower than its panel by t + c each side |
//!
//! The convention for the joint is the longer back, so the tube closes square.

use super::ends::{
    CLEARANCE, DUST, HEIGHT, LENGTH, SLIT, TUCK, TuckEnd, WIDTH, box_of, glue_limit, height_between,
};
use crate::form::design::{Blank, Design, Stand};
use crate::form::figures::Figures;
use crate::form::flaps::GLUE_PARAM;
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tube::wrap_steps;

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "straight-tuck",
    name: "Straight-tuck carton",
    family: Family::Cartons,
    about: "Both closures hang on the back: the front is a clean face.",
    uses: &["box", "tuck", "product", "soap", "seed", "window", "glue"],
    params: &[LENGTH, WIDTH, HEIGHT, CLEARANCE, TUCK, DUST, GLUE_PARAM, SLIT],
    presets: &[
        Preset {
            name: "Seed carton",
            figures: &[("length", 60.0), ("width", 30.0), ("height", 90.0)],
        },
        Preset {
            name: "Small soap",
            figures: &[("length", 65.0), ("width", 25.0), ("height", 65.0)],
        },
        Preset {
            name: "Bulb carton",
            figures: &[("length", 90.0), ("width", 60.0), ("height", 140.0)],
        },
    ],
    design,
};

const TOP: TuckEnd = TuckEnd { name: "Top", on: 2 };
const BASE: TuckEnd = TuckEnd { name: "Base", on: 2 };

fn design(f: &Figures) -> Design {
    tucked(f, &TOP, &BASE)
}

/// A carton with a tuck at either end.
pub(super) fn tucked(f: &Figures, top: &TuckEnd, base: &TuckEnd) -> Design {
    let carton = box_of(f);
    let root = carton.tube(top.ends(&carton, f), base.ends(&carton, f), f["glue"]);
    Design::new(vec![Blank::downwards("Carton", root)], Stand::Upright)
        .steps(wrap_steps())
        .steps(base.steps(f))
        .steps(top.steps(f))
        .must(carton.musts())
        .must([height_between(f, "Top right dust flap", "Base right dust flap")])
        .must(top.musts(f))
        .must(base.musts(f))
        .limits(top.limits(f))
        .limits(base.limits(f))
        .limits([glue_limit(f)])
        .holds(carton.volume())
        .spans(carton.spans(carton.height + f.t))
        .spans(top.spans(f))
        .quiet_span("clearance", "Top", (0.0, f["width"] - f["clearance"]), (0.0, f["width"]))
}
