//! The seal-end carton: four flaps at each end, the outer glued over the inner for its whole depth.
//!
//! The side flaps lie at the sides' creases, the front's one caliper further out, the back's two. The
//! front's and the back's reach from wall to wall less the clearance.

use super::ends::{LENGTH, WIDTH, box_of, glue_limit};
use crate::form::design::{Blank, Design, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::{self, GLUE_PARAM};
use crate::form::param::Param;
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tube::{Box4, End, wrap_steps};
use crate::form::{Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "seal-end",
    name: "Seal-end carton",
    family: Family::Cartons,
    about: "Both ends are glued shut over their whole depth: tight, and seen to be unopened.",
    uses: &["box", "glued", "tight", "cereal", "powder", "tear strip"],
    params: &[LENGTH, WIDTH, HEIGHT, CLEARANCE, DUST, GLUE_PARAM],
    presets: &[
        Preset {
            name: "Green manure",
            figures: &[("length", 90.0), ("width", 40.0), ("height", 130.0)],
        },
        Preset {
            name: "Bone meal",
            figures: &[("length", 70.0), ("width", 50.0), ("height", 100.0)],
        },
    ],
    design,
};

const HEIGHT: Param =
    Param::size("height", ["Height", "Between the side flaps of both ends."], [1.0, 6.0], |_| {
        110.0
    });

const CLEARANCE: Param = super::ends::CLEARANCE;

const DUST: Param = Param::length(
    "dust",
    ["Side flaps", "How far they reach in, under the glued flaps."],
    |f| flaps::dust_standard(f["length"], f["width"], f["clearance"]),
    |f| {
        let hinge = f["width"] - 2.0 * f["clearance"];
        flaps::flap_up_to(flaps::dust_limit(hinge).min(f["length"] / 2.0)).against("width")
    },
);

fn design(f: &Figures) -> Design {
    let carton = box_of(f);
    let root = carton.tube(end("Top", &carton, f), end("Base", &carton, f), f["glue"]);
    let steps = |name: &str| {
        let low = name.to_lowercase();
        [
            Step::close(
                format!("Fold in the side flaps of the {low}"),
                ["right", "left"].map(|side| format!("{name} {side} flap")),
            ),
            Step::close(format!("Fold the {low}’s inner flap in"), [format!("{name} inner flap")]),
            Step::close(format!("Glue the {low}’s outer flap over it"), [name.to_owned()]),
        ]
    };
    let glued = |name: &str| Must::Glue(format!("{name} inner flap"), name.to_owned(), 0.0);
    Design::new(vec![Blank::downwards("Carton", root)], Stand::Upright)
        .steps(wrap_steps())
        .steps(steps("Base"))
        .steps(steps("Top"))
        .must(carton.musts())
        .must([
            super::ends::height_between(f, "Top right flap", "Base right flap"),
            glued("Top"),
            glued("Base"),
        ])
        .limits([glue_limit(f)])
        .holds(carton.volume())
        .spans(carton.spans(carton.height))
        .span("dust", "Top right flap", (0.0, 0.0), (0.0, f["dust"]))
        .span("glue", "Glue flap", (0.0, 0.0), (0.0, f["glue"]))
}

fn end(name: &str, carton: &Box4, f: &Figures) -> [End; 4] {
    let (t, c) = (f.t, f["clearance"]);
    let across = carton.across();
    let deep = carton.width + 0.5 * t - c;
    let plain = |name: String, hinge: f64, role| {
        Panel::new(name, role).cut(0.0, deep).cut(hinge, deep).cut(hinge, 0.0)
    };
    let (front, back) = (0.5 * t + c, 0.5 * t + c);
    let hinge = carton.side_hinge(front, back);
    let [right, left] = carton.side_insets(front, back);
    let side = |side: &str| flaps::dust_flap(format!("{name} {side} flap"), hinge, f["dust"]);
    let inset = (across[0] - carton.length) / 2.0 + c;
    let inner = plain(format!("{name} inner flap"), across[0] - 2.0 * inset, Role::Glue);
    [
        End::inset(t, [inset; 2], inner),
        End::inset(0.0, right, side("right")),
        End::whole(2.0 * t, plain(name.to_owned(), across[2], Role::Face)),
        End::inset(0.0, left, side("left")),
    ]
}
