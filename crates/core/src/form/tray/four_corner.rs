//! The glued four-corner tray. Allowances as stated in `walls.rs`.

use super::walls::{CORNER, Tray};
use crate::form::design::{Blank, Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::Param;
use crate::form::structure::{Family, Preset, Structure};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "four-corner-tray",
    name: "Four-corner tray",
    family: Family::TraysAndLids,
    about: "An open tray whose corners are glued.",
    uses: &["box", "tray", "open", "display", "sorting", "glue"],
    params: &[LENGTH, WIDTH, HEIGHT, CORNER],
    presets: &[
        Preset {
            name: "Seed packets",
            figures: &[("length", 120.0), ("width", 85.0), ("height", 50.0)],
        },
        Preset {
            name: "Pen tray",
            figures: &[("length", 200.0), ("width", 70.0), ("height", 25.0)],
        },
    ],
    design,
};

/// Inside dimensions of a glued tray.
pub const LENGTH: Param =
    Param::size("length", ["Length", "Between the corner flaps."], [3.0, 4.0], |_| 120.0);
/// See [`LENGTH`].
pub const WIDTH: Param =
    Param::size("width", ["Width", "Between the long walls."], [1.0, 2.0], |_| 85.0);
/// See [`LENGTH`].
pub const HEIGHT: Param =
    Param::size("height", ["Height", "From the base’s inside to the rim."], [0.5, 1.0], |_| 40.0);

fn design(f: &Figures) -> Design {
    let tray = Tray::of(f);
    let [a, b] = tray.base();
    Design::new(vec![Blank::upwards("Tray", tray.panel())], Stand::OnFirst)
        .steps(tray.steps("tray"))
        .must(tray.musts())
        .limits([tray.limit()])
        .holds(tray.volume())
        .span("length", "Base", (0.0, 0.0), (a, 0.0))
        .span("width", "Base", (0.0, 0.0), (0.0, b))
        .span("height", "Front wall", (0.0, 0.0), (0.0, tray.wall()))
        .span("glue", "Front first flap", (0.0, 0.0), (0.0, f["glue"]))
}
