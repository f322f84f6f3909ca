//! The pyramid with a tie: walls fold up from a regular base and are tied together at their tips.
//!
//! Walls meet edge to edge at the middle of the card. Each has a hole under its tip, with at least a
//! hole's width of card round it.

use crate::LineKind;
use crate::check::Sense;
use crate::form::design::{Blank, Design, Edge, Limit, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Axis, Panel, Role};
use crate::geometry::{Point, circle};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "pyramid-tie",
    name: "Pyramid with a tie",
    family: Family::Cartons,
    about: "A pointed favour box, closed with a ribbon through the tips.",
    uses: &["box", "favour", "gift", "ribbon", "no glue", "wedding", "n sides"],
    params: &[SIDES, SIDE, HEIGHT, HOLE],
    presets: &[
        Preset { name: "Favour", figures: &[("sides", 4.0), ("side", 60.0), ("height", 75.0)] },
        Preset {
            name: "Three-sided",
            figures: &[("sides", 3.0), ("side", 80.0), ("height", 70.0)],
        },
    ],
    design,
};

const SIDES: Param =
    Param::count("sides", ["Sides", "How many walls it has."], |_| 4.0, |_| Bounds::new(3.0, 8.0));
const SIDE: Param = Param::size("side", ["Side", "Of the base."], [0.0, 0.0], |_| 60.0)
    .within(|_| Bounds::new(20.0, 400.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "From the base to the tip."], [0.0, 0.0], |_| 75.0)
        .within(|_| Bounds::new(20.0, 400.0));
const HOLE: Param = Param::length(
    "hole",
    ["Tie hole", "Its width; 0 leaves it out."],
    |_| 4.0,
    |f| Bounds::new(0.0, f["side"] / 8.0).against("side"),
);

fn design(f: &Figures) -> Design {
    let (side, hole, count) = (f["side"], f["hole"], f.count("sides"));
    let turn = std::f64::consts::TAU / f["sides"];
    let apothem = side / 2.0 / (turn / 2.0).tan();
    let slant = apothem.hypot(f["height"]);
    // Where a hole's width of card is left at either side: from the tip, the half width is s/2 per slant.
    let spread = side / 2.0 / slant;
    let steep = spread.atan().cos();
    let down = (1.5 * hole / (spread * steep)).min(slant * 0.6);
    let wall = |at: usize| {
        let panel = Panel::new(format!("Wall {}", at + 1), Role::Face).cut(side / 2.0, slant);
        let panel = panel.cut(side, 0.0);
        if hole < 1.0 {
            return panel;
        }
        panel.with(LineKind::Cut, circle(Point::new(side / 2.0, slant - down), hole / 2.0))
    };
    let fold = 180.0 - f["height"].atan2(apothem).to_degrees();
    // The base is walked clockwise; every side of it carries a wall.
    let mut base = Panel::new("Base", Role::Face);
    let (mut at, mut heading) = ((0.0f64, 0.0f64), std::f64::consts::PI - turn);
    for index in 0..count {
        at = (at.0 + side * heading.cos(), at.1 + side * heading.sin());
        heading -= turn;
        let end = if index + 1 == count { (0.0, 0.0) } else { at };
        base = base.hinge(end.0, end.1, fold, wall(index));
    }
    let meets = (0..count).map(|at| {
        let next = (at + 1) % count;
        Must::Meet(
            Edge::new(format!("Wall {}", at + 1), (side / 2.0, slant), (side, 0.0)),
            Edge::new(format!("Wall {}", next + 1), (side / 2.0, slant), (0.0, 0.0)),
        )
    });
    let left = down * spread * steep - hole / 2.0;
    let area = f["sides"] * side * apothem / 2.0;
    let mut design = Design::new(vec![Blank::upwards("Pyramid", base)], Stand::OnFirst)
        .steps([Step::close(
            "Fold the walls up and tie a ribbon through the tips",
            (0..count).map(|at| format!("Wall {}", at + 1)),
        )])
        .must(meets)
        .folds(Axis::Both)
        .holds(area * f["height"] / 3.0)
        .span("side", "Wall 1", (0.0, 0.0), (side, 0.0));
    if hole >= 1.0 {
        design.limits.push(Limit {
            id: "hole-edge",
            label: "Card round the tie hole".to_owned(),
            limit: (left, Sense::AtLeast, hole),
            panel: "Wall 1".to_owned(),
            remedy: Some(("hole", hole / 2.0)),
        });
    }
    design
}
