//! The carton with a crash-lock (automatic) base: it is glued flat and locks by itself when the
//! tube is squared.
//!
//! The side flaps lie at the sides' creases; front and back flaps one caliper further out. Each of
//! those has, towards one end, a corner beyond a diagonal crease: that corner is glued to the side flap
//! beside it. Squared, base flaps and corners lie in one plane, and the long half of either
//! flap reaches past the middle by the lock, into the step of the other.

use super::ends::{DUST, HEIGHT, SLIT, TUCK, TuckEnd, box_of, glue_limit, height_between};
use crate::form::design::{Blank, Design, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::{GLUE_PARAM, in_frame};
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tube::{Box4, End, wrap_steps};
use crate::form::{Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "crash-lock",
    name: "Crash-lock carton",
    family: Family::Cartons,
    about: "The base is glued once and locks by itself each time the carton is squared.",
    uses: &["box", "auto base", "automatic", "heavy", "quick", "packing", "glue"],
    params: &[LENGTH, WIDTH, HEIGHT, CLEARANCE, TUCK, DUST, GLUE_PARAM, SLIT, LOCK],
    presets: &[
        Preset { name: "Mug", figures: &[("length", 100.0), ("width", 90.0), ("height", 105.0)] },
        Preset {
            name: "Bulb box",
            figures: &[("length", 90.0), ("width", 60.0), ("height", 110.0)],
        },
    ],
    design,
};

/// Base flaps need room for their diagonals.
const LENGTH: Param = super::ends::LENGTH.within(|_| Bounds::new(20.0, 2000.0));
/// See [`LENGTH`].
const WIDTH: Param = super::ends::WIDTH.within(|_| Bounds::new(15.0, 2000.0));
const CLEARANCE: Param = super::ends::CLEARANCE.within(|_| Bounds::new(0.0, 1.5));

const LOCK: Param = Param::length(
    "lock",
    ["Lock", "How far the long half of either base flap reaches past the middle."],
    |f| (f["width"] / 8.0).clamp(1.0, 10.0),
    |f| Bounds::new(0.5, (f["width"] / 4.0).min(40.0)).against("width"),
);

fn design(f: &Figures) -> Design {
    let carton = box_of(f);
    let top = TuckEnd { name: "Top", on: 2 };
    let root = carton.tube(top.ends(&carton, f), base(&carton, f), f["glue"]);
    let glued = |corner: &str, flap: &str| Must::Glue(corner.to_owned(), flap.to_owned(), 0.0);
    Design::new(vec![Blank::downwards("Carton", root)], Stand::Upright)
        .steps(wrap_steps())
        .steps([
            Step::close("Fold the base’s side flaps in", ["Base right flap", "Base left flap"]),
            Step::close(
                "Fold front and back flaps over them, their corners glued to the side flaps",
                ["Base front flap", "Base back flap"],
            ),
        ])
        .steps(top.steps(f))
        .must(carton.musts())
        .must([
            height_between(f, "Top right dust flap", "Base right flap"),
            glued("Base front corner", "Base right flap"),
            glued("Base back corner", "Base left flap"),
        ])
        .must(top.musts(f))
        .limits(top.limits(f))
        .limits([glue_limit(f)])
        .holds(carton.volume())
        .spans(carton.spans(carton.height))
        .spans(top.spans(f))
}

/// The four walls' base flaps.
fn base(carton: &Box4, f: &Figures) -> [End; 4] {
    let (t, c) = (f.t, f["clearance"]);
    let across = carton.across();
    let inset = |wall: usize| (across[wall] - carton.length) / 2.0 + c;
    let (near_front, near_back) = (0.5 * t, 0.5 * t);
    let width = carton.side_hinge(near_front, near_back);
    let reach = (carton.width / 2.0).min(carton.length / 2.0 - c);
    let side =
        |name: &str| Panel::new(name, Role::Flap).cut(0.0, reach).cut(width, reach).cut(width, 0.0);
    let [right, left] = carton.side_insets(near_front, near_back);
    [
        End::inset(t, [inset(0); 2], major("front", carton, f)),
        End::inset(0.0, right, side("Base right flap")),
        End::inset(t, [inset(2); 2], major("back", carton, f)),
        End::inset(0.0, left, side("Base left flap")),
    ]
}

/// A base flap with its long half on the left and the glued corner on the right.
fn major(wall: &str, carton: &Box4, f: &Figures) -> Panel {
    let (c, lock) = (f["clearance"], f["lock"]);
    let hinge = carton.length - 2.0 * c;
    let middle = (carton.width + f.t) / 2.0;
    let short = middle - lock - c;
    // The diagonal starts at the step and ends near the crease's corner.
    let deep = short.min(hinge / 2.0 - 2.0 * c - 0.5);
    let tip = deep / 8.0;
    let (start, end) = ((hinge - deep, deep), (hinge - tip, tip));
    let local = in_frame(start, end);
    let corner = [(hinge - tip / 2.0, deep), (hinge - tip / 2.0, tip)].map(local);
    let long = ((end.0 - start.0).powi(2) + (end.1 - start.1).powi(2)).sqrt();
    let glued = Panel::new(format!("Base {wall} corner"), Role::Glue)
        .cut(corner[0].0, corner[0].1)
        .cut(corner[1].0, corner[1].1)
        .cut(long, 0.0);
    Panel::new(format!("Base {wall} flap"), Role::Face)
        .cut(0.0, middle + lock)
        .cut(hinge / 2.0 - c, middle + lock)
        .cut(hinge / 2.0 - c, short)
        .cut(hinge - deep, short)
        .cut(start.0, start.1)
        .hinge(end.0, end.1, 0.0, glued)
        .cut(hinge, 0.0)
}
