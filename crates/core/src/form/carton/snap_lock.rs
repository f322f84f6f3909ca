//! The carton with a snap-lock base: four flaps that lock without glue, and a tuck at the top.
//!
//! The base flaps lie on each other in the order of folding: back at the sides' creases, the side
//! flaps one caliper further out, the front two. The back flap reaches past the middle by the lock and
//! has a notch there; the front flap reaches to the middle, and its tongue past it by the lock, to be
//! pushed in through the notch. The side flaps leave the notch free. Three layers at the base and two at
//! the top: the outside height is H + 5t.

use super::ends::{DUST, HEIGHT, SLIT, TUCK, TuckEnd, box_of, glue_limit, height_between};
use crate::form::design::{Blank, Design, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::GLUE_PARAM;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tube::{Box4, End, wrap_steps};
use crate::form::{Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "snap-lock",
    name: "Snap-lock carton",
    family: Family::Cartons,
    about: "The base snaps together from four flaps and carries weight; the top tucks in.",
    uses: &["box", "heavy", "no glue base", "bottle", "jar", "lock"],
    params: &[LENGTH, WIDTH, HEIGHT.under(5.0, 0.0), CLEARANCE, TUCK, DUST, GLUE_PARAM, SLIT, LOCK],
    presets: &[
        Preset {
            name: "Honey jar",
            figures: &[("length", 72.0), ("width", 72.0), ("height", 95.0)],
        },
        Preset {
            name: "Bulb box",
            figures: &[("length", 90.0), ("width", 60.0), ("height", 110.0)],
        },
    ],
    design,
};

/// Base flaps need room for their lock.
pub(super) const LENGTH: Param = super::ends::LENGTH.within(|_| Bounds::new(20.0, 2000.0));
/// See [`LENGTH`].
const WIDTH: Param = super::ends::WIDTH.within(|_| Bounds::new(15.0, 2000.0));
/// A third of the base is notch.
pub(super) const CLEARANCE: Param = super::ends::CLEARANCE.within(|_| Bounds::new(0.0, 1.5));

pub(super) const LOCK: Param = Param::length(
    "lock",
    ["Lock", "How far back flap and tongue reach past the middle of the base."],
    |f| (f["width"] / 6.0).clamp(2.0, 12.0),
    |f| Bounds::new(1.0, (f["width"] / 4.0).min(40.0)).against("width"),
);

/// The share of the base that the notch takes, across.
const NOTCH: f64 = 1.0 / 3.0;

fn design(f: &Figures) -> Design {
    let carton = box_of(f);
    let top = TuckEnd { name: "Top", on: 2 };
    let root = carton.tube(top.ends(&carton, f), base(&carton, f), f["glue"]);
    Design::new(vec![Blank::downwards("Carton", root)], Stand::Upright)
        .steps(wrap_steps())
        .steps(base_steps())
        .steps(top.steps(f))
        .must(carton.musts())
        .must([height_between(f, "Top right dust flap", "Base back flap")])
        .must(top.musts(f))
        .limits(top.limits(f))
        .limits([glue_limit(f)])
        .holds(carton.volume())
        .spans(carton.spans(carton.height))
        .spans(top.spans(f))
        .quiet_span(
            "lock",
            "Base back flap",
            (0.0, carton.width / 2.0),
            (0.0, carton.width / 2.0 + f["lock"]),
        )
}

/// The folding of the base.
pub(super) fn base_steps() -> [Step; 3] {
    [
        Step::close("Fold the base’s back flap in", ["Base back flap"]),
        Step::close("Fold the base’s side flaps in", ["Base right flap", "Base left flap"]),
        Step::close(
            "Fold the base’s front flap in and push its tongue through the notch",
            ["Base front flap"],
        ),
    ]
}

/// The four walls' base flaps.
pub(super) fn base(carton: &Box4, f: &Figures) -> [End; 4] {
    let (t, c, lock) = (f.t, f["clearance"], f["lock"]);
    let middle = (carton.width + t) / 2.0;
    let notch = carton.length * NOTCH;
    let across = carton.across();
    let inset = |wall: usize| (across[wall] - carton.length) / 2.0 + c;
    let hinge = carton.length - 2.0 * c;

    let (from, to) = ((hinge - notch) / 2.0, (hinge + notch) / 2.0);
    let back = Panel::new("Base back flap", Role::Flap)
        .cut(0.0, middle + lock)
        .cut(from, middle + lock)
        .cut(from, middle - lock)
        .cut(to, middle - lock)
        .cut(to, middle + lock)
        .cut(hinge, middle + lock)
        .cut(hinge, 0.0);
    let (from, to) = (from + c, to - c);
    let round = (lock * 0.6).min((to - from) / 3.0).max(0.0);
    let front = Panel::new("Base front flap", Role::Face)
        .cut(0.0, middle - c)
        .cut(from, middle - c)
        .cut_rounded(from, middle + lock, round)
        .cut_rounded(to, middle + lock, round)
        .cut(to, middle - c)
        .cut(hinge, middle - c)
        .cut(hinge, 0.0);

    let reach = (carton.length - notch) / 2.0 - c;
    let (near_front, near_back) = (0.5 * t + c, 0.5 * t + c);
    let width = carton.side_hinge(near_front, near_back);
    // The corners towards the back are cut away, where the back flap went in first.
    let slope = (width / 3.0).min(reach / 2.0);
    let side = |name: &str| {
        Panel::new(name, Role::Flap)
            .cut(0.0, reach)
            .cut(width - slope, reach)
            .cut(width, reach - slope)
            .cut(width, 0.0)
    };
    let [right, left] = carton.side_insets(near_front, near_back);
    [
        End::inset(2.0 * t, [inset(0); 2], front),
        End::inset(t, right, side("Base right flap")),
        End::inset(0.0, [inset(2); 2], back),
        End::inset(t, left, side("Base left flap").mirrored(width)),
    ]
}
