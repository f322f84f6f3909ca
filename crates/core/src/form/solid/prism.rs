//! The right prism on a regular base as a net: walls side by side, both ends on the first.
//!
//! Measured where the faces' middles meet.

use super::{Net, Solid, TAB};
use crate::form::design::{Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "prism-net",
    name: "Prism",
    family: Family::Solids,
    about: "A right prism on a regular base of three to twelve sides.",
    uses: &["net", "solid", "lesson", "geometry", "hexagon", "n sides", "polygon", "glue tabs"],
    params: &[SIDES, SIDE, HEIGHT, TAB],
    presets: &[
        Preset { name: "Hexagonal", figures: &[("sides", 6.0), ("side", 35.0), ("height", 60.0)] },
        Preset { name: "Triangular", figures: &[("sides", 3.0), ("side", 60.0), ("height", 90.0)] },
    ],
    design,
};

/// How many sides the base has.
pub const SIDES: Param = Param::count(
    "sides",
    ["Sides", "How many sides the base has."],
    |_| 6.0,
    |_| Bounds::new(3.0, 12.0),
);

/// A side of the base.
pub const SIDE: Param =
    Param::size("side", ["Side", "Of the base, at the middle of the card."], [0.0, 0.0], |_| 35.0)
        .within(|_| Bounds::new(15.0, 500.0));

const HEIGHT: Param = Param::size(
    "height",
    ["Height", "From end to end, at the middle of the card."],
    [0.0, 0.0],
    |_| 60.0,
)
.within(|_| Bounds::new(15.0, 500.0));

/// The corners of a regular polygon of `count` sides of `side` mm at height `z`, its first side
/// towards the viewer, anticlockwise seen from above.
pub fn ring(count: usize, side: f64, z: f64) -> Vec<[f64; 3]> {
    let turn = std::f64::consts::TAU / count as f64;
    let radius = side / 2.0 / (turn / 2.0).sin();
    (0..count)
        .map(|corner| {
            let angle = -std::f64::consts::FRAC_PI_2 - turn / 2.0 + turn * corner as f64;
            [radius * angle.cos(), z, -radius * angle.sin()]
        })
        .collect()
}

fn design(f: &Figures) -> Design {
    let count = f.count("sides");
    let mut corners = ring(count, f["side"], 0.0);
    corners.extend(ring(count, f["side"], f["height"]));
    // Low corners 0 to n − 1, high ones n above; corner 0 is to the left of the first wall.
    let wall = |at: usize| {
        let next = (at + 1) % count;
        (format!("Wall {}", at + 1), vec![at, at + count, next + count, next])
    };
    let mut faces: Vec<(String, Vec<usize>)> = (0..count).map(wall).collect();
    faces.push(("Top".to_owned(), (count..2 * count).rev().collect()));
    faces.push(("Bottom".to_owned(), (0..count).collect()));
    let mut hangs_on: Vec<Option<usize>> = (0..count).map(|at| at.checked_sub(1)).collect();
    hangs_on.extend([Some(0), Some(0)]);
    let solid = Solid { corners, faces, hangs_on };
    let area = f["sides"] * f["side"].powi(2) / (4.0 * (std::f64::consts::PI / f["sides"]).tan());
    let spans = vec![("side", 0, [0, 1]), ("height", 0, [0, count])];
    let net = Net { solid: &solid, t: f.t, tab: f["tab"], spans };
    let [inside, outside] = [-f.t / 2.0, f.t / 2.0].map(|out| {
        let apothem = f["side"] / (2.0 * (std::f64::consts::PI / f["sides"]).tan());
        vec![f["side"] * (apothem + out) / apothem, f["height"] + 2.0 * out]
    });
    net.design(Stand::Upright).holds(area * f["height"]).measures(inside, outside)
}
