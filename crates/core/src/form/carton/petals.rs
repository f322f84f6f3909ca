//! The regular prism with n walls: a glued base, and petals that close the top.
//!
//! With side a inside, n walls and caliper t, at the middle of the card: a wall is a + t·tan(π/n)
//! wide, since the middle lies half a caliper outside the inside. With φ = 360°/n the turn from wall to
//! wall, the last wall lies on the glue flap one caliper further out: the wall before it is longer by
//! t/sin φ, and the last shorter by 2t/tan φ and by half a caliper, so that it does not stand proud.
//! Each wall but the first has a flap at the base, to which the base is glued one caliper further out.
//! The petals are triangles whose tips meet in the middle, with the clearance between neighbours.

use crate::check::Sense;
use crate::form::design::{Blank, Design, Edge, Limit, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::{self, GLUE_PARAM};
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tube::{End, Wall, tube};
use crate::form::{Panel, Role};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "prism-petals",
    name: "Prism with petals",
    family: Family::Cartons,
    about: "A tube of three to twelve walls whose top closes with petals, held by a label or a ribbon.",
    uses: &["box", "hexagon", "triangle", "octagon", "gift", "polygon", "n sides", "flower"],
    params: &[SIDES, SIDE, HEIGHT, CLEARANCE, GLUE_PARAM, BASE_FLAPS],
    presets: &[
        Preset { name: "Hexagon", figures: &[("sides", 6.0), ("side", 35.0), ("height", 60.0)] },
        Preset { name: "Triangle", figures: &[("sides", 3.0), ("side", 60.0), ("height", 120.0)] },
        Preset { name: "Octagon", figures: &[("sides", 8.0), ("side", 30.0), ("height", 50.0)] },
    ],
    design,
};

const SIDES: Param = Param::count(
    "sides",
    ["Walls", "How many walls go round."],
    |_| 6.0,
    |_| Bounds::new(3.0, 12.0),
);

const SIDE: Param = Param::size("side", ["Side", "Across one wall, inside."], [0.0, 0.0], |_| 35.0)
    .within(|_| Bounds::new(10.0, 500.0));

const HEIGHT: Param =
    Param::size("height", ["Height", "From the base’s flaps to the petals."], [1.0, 3.0], |_| {
        60.0
    });

const CLEARANCE: Param = flaps::CLEARANCE_PARAM.within(|_| Bounds::new(0.0, 2.0));

const BASE_FLAPS: Param = Param::length(
    "base",
    ["Base flaps", "How far the flaps that hold the base reach in."],
    |f| flaps::usual((apothem(f) * 0.5).clamp(3.0, 12.0), longest_base_flap(f), f.t),
    |f| Bounds::new(3.0, longest_base_flap(f)).against("side"),
);

fn longest_base_flap(f: &Figures) -> f64 {
    (apothem(f) * 0.7).min(f["side"] * 0.45)
}

/// From the middle to a wall's inside.
fn apothem(f: &Figures) -> f64 {
    f["side"] / 2.0 / (std::f64::consts::PI / f["sides"]).tan()
}

fn design(f: &Figures) -> Design {
    let (t, c, height) = (f.t, f["clearance"], f["height"]);
    let count = f.count("sides");
    let turn = std::f64::consts::TAU / f["sides"];
    let side = f["side"] + t * (turn / 2.0).tan();
    let longer = t / turn.sin();
    let last = side - 2.0 * t / turn.tan() - 0.5 * t;
    let across = |wall: usize| match count - 1 - wall {
        0 => last,
        1 => side + longer,
        _ => side,
    };
    let along = height + t;
    // Flaps stand on the regular prism's walls; the last wall's start is shifted along it.
    let inset = t + c;
    let hinge = (side - 2.0 * inset).min(last - 0.4);
    let insets = |wall: usize| {
        let left = if wall + 1 == count { (inset - t / turn.tan()).max(0.2) } else { inset };
        let left = left.min(across(wall) - hinge - 0.1).max(0.1);
        [left, across(wall) - left - hinge]
    };
    let deep = hinge / 2.0 / (turn / 2.0).tan() - c / 2.0;
    let name = |wall: usize| format!("Wall {}", wall + 1);
    let walls = (0..count)
        .map(|wall| {
            let petal = Panel::new(format!("Petal {}", wall + 1), Role::Face)
                .cut(hinge / 2.0, deep)
                .cut(hinge, 0.0);
            let base = if wall == 0 {
                End::Flap {
                    out: t,
                    left: 0.0,
                    right: 0.0,
                    slit: 0.0,
                    fold: 90.0,
                    flap: base(f, side),
                }
            } else if !has_flap(f, wall) {
                End::Free { out: 0.0 }
            } else {
                let flap = base_flap(wall, hinge, f["base"], turn);
                End::inset(0.0, insets(wall), flap)
            };
            Wall {
                name: name(wall),
                across: across(wall),
                turn: turn.to_degrees(),
                top: End::inset(0.0, insets(wall), petal),
                base,
            }
        })
        .collect();
    let glue = flaps::glue_flap("Glue flap", height, f["glue"]);
    let root = tube(walls, along, glue, 0.5 * t);
    let all = |what: &'static str| (1..=count).map(move |wall| format!("{what} {wall}"));
    let base_flaps = || {
        let walls = (1..count).filter(|wall| has_flap(f, *wall));
        walls.map(|wall| format!("Base flap {}", wall + 1))
    };
    let end = Edge::new(name(count - 1), (0.0, last), (along, last));
    let mut musts = vec![
        Must::Reach(end, name(0), 0.5 * t * turn.sin()),
        Must::Glue("Glue flap".to_owned(), name(count - 1), 0.0),
        Must::Room("height", ["Petal 2".to_owned(), "Base flap 3".to_owned()], height),
    ];
    musts.extend(base_flaps().map(|flap| Must::Glue(flap, "Base".to_owned(), 0.0)));
    if count.is_multiple_of(2) {
        let across = 2.0 * apothem(f);
        musts.push(Must::Room("side", [name(0), name(count / 2)], across));
    }
    let area = f["side"] * apothem(f) / 2.0 * f["sides"];
    Design::new(vec![Blank::downwards("Carton", root)], Stand::Upright)
        .steps([
            Step::close("Fold the glue flap in", ["Glue flap"]),
            Step::close("Wrap the walls round and glue the last to the flap", all("Wall").skip(1)),
            Step::close("Fold the base’s flaps in", base_flaps()),
            Step::close("Glue the base over them", ["Base"]),
            Step::close("Close the petals, one after the other", all("Petal")),
        ])
        .must(musts)
        .limits([Limit {
            id: "glue-flap",
            label: "Glue flap".to_owned(),
            limit: (f["glue"], Sense::AtMost, f["side"]),
            panel: "Glue flap".to_owned(),
            remedy: Some(("glue", f["side"])),
        }])
        .holds(area * height)
        .span("side", "Wall 1", (along, 0.0), (along, side))
        .span("height", "Wall 2", (0.0, 0.0), (along, 0.0))
        .span("glue", "Glue flap", (0.0, 0.0), (0.0, f["glue"]))
        .span("base", "Base flap 3", (0.0, 0.0), (0.0, f["base"]))
}

/// The base: a regular polygon on the first wall, drawn as at the top.
fn base(f: &Figures, side: f64) -> Panel {
    let count = f.count("sides");
    let turn = std::f64::consts::TAU / f["sides"];
    let mut panel = Panel::new("Base", Role::Face);
    let (mut at, mut heading) = ((0.0f64, 0.0f64), std::f64::consts::PI - turn);
    for corner in 1..count {
        at = (at.0 + side * heading.cos(), at.1 + side * heading.sin());
        heading -= turn;
        panel = if corner + 1 == count { panel.cut(side, 0.0) } else { panel.cut(at.0, at.1) };
    }
    panel
}

/// The base is wider than its wall: with more than seven walls it takes the place of the flap beside it.
fn has_flap(f: &Figures, wall: usize) -> bool {
    wall != 1 || f.count("sides") < 8
}

/// A flap that holds the base: its ends lean in by half the corner, so that neighbours do not meet, and
/// beside the base by as much as that spreads.
fn base_flap(wall: usize, hinge: f64, reach: f64, turn: f64) -> Panel {
    let lean = (reach * (turn / 2.0).tan()).min(hinge / 2.0 - 0.2);
    let spread = if wall == 1 { reach / turn.tan() } else { 0.0 };
    let near = lean.max(spread).min(hinge - lean - 0.4);
    Panel::new(format!("Base flap {}", wall + 1), Role::Glue)
        .set_by("base")
        .cut(near, reach)
        .cut(hinge - lean, reach)
        .cut(hinge, 0.0)
}
