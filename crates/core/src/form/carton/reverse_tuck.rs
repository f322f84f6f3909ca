//! The reverse-tuck carton: the top hangs on the back, the base on the front, so that the blanks nest
//! with less waste.
//!
//! Allowances as for the straight-tuck carton; at the base front and back change places: the base
//! closes one caliper out on the front, and the back's free edge ends flush with it.

use super::ends::{CLEARANCE, DUST, HEIGHT, LENGTH, SLIT, TUCK, TuckEnd, WIDTH};
use super::straight_tuck::tucked;
use crate::form::design::Design;
use crate::form::figures::Figures;
use crate::form::flaps::GLUE_PARAM;
use crate::form::structure::{Family, Preset, Structure};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "reverse-tuck",
    name: "Reverse-tuck carton",
    family: Family::Cartons,
    about: "The closures hang on opposite walls: blanks lie closer on the sheet.",
    uses: &["box", "tuck", "product", "cosmetics", "economical", "glue"],
    params: &[LENGTH, WIDTH, HEIGHT, CLEARANCE, TUCK, DUST, GLUE_PARAM, SLIT],
    presets: &[
        Preset {
            name: "Jar carton",
            figures: &[("length", 55.0), ("width", 55.0), ("height", 70.0)],
        },
        Preset {
            name: "Bottle carton",
            figures: &[("length", 40.0), ("width", 40.0), ("height", 120.0)],
        },
    ],
    design,
};

fn design(f: &Figures) -> Design {
    tucked(f, &TuckEnd { name: "Top", on: 2 }, &TuckEnd { name: "Base", on: 0 })
}
