//! The tapered tray and the cup: frusta without their upper face, a glued tab between each two walls.
//!
//! Measured where the faces' middles meet. A wall leans out by the flare; its slant is H / cos α.

use crate::form::design::{Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::solid::prism::{SIDE, SIDES, ring};
use crate::form::solid::{Net, Solid, TAB};
use crate::form::structure::{Family, Preset, Structure};

/// The tray on a rectangular base.
pub const TRAY: Structure = Structure {
    id: "tapered-tray",
    name: "Tapered tray",
    family: Family::TraysAndLids,
    about: "A tray whose walls lean out, with glued corners.",
    uses: &["box", "tray", "chips", "snack", "planting", "frustum", "flare", "glue"],
    params: &[LENGTH, WIDTH, HEIGHT, FLARE, TAB],
    presets: &[
        Preset {
            name: "Potting tray",
            figures: &[("length", 90.0), ("width", 60.0), ("height", 40.0)],
        },
        Preset { name: "Snack", figures: &[("length", 80.0), ("width", 45.0), ("height", 70.0)] },
    ],
    design: |f| {
        let (x, y, out) = (f["length"], f["width"], f["height"] * f["flare"].to_radians().tan());
        let rectangle = |more: f64, z: f64| {
            let (x, y) = (x / 2.0 + more, y / 2.0 + more);
            [[-x, z, y], [x, z, y], [x, z, -y], [-x, z, -y]]
        };
        let corners: Vec<_> =
            rectangle(0.0, 0.0).into_iter().chain(rectangle(out, f["height"])).collect();
        let names = ["Front wall", "Right wall", "Back wall", "Left wall"];
        let top = (x + 2.0 * out) * (y + 2.0 * out);
        let volume = frustum(x * y, top, f["height"]);
        let spans = vec![("length", 0, [0, 1]), ("width", 0, [1, 2])];
        let [base, rim] = across_card(f);
        let tray = open_frustum(f, corners, names.map(str::to_owned).to_vec(), spans);
        let [deep, high] = depths(f);
        let inside = vec![x + 2.0 * base, y + 2.0 * base, deep];
        tray.holds(volume).measures(inside, vec![x + 2.0 * rim, y + 2.0 * rim, high])
    },
};

/// The cup on a regular base.
pub const CUP: Structure = Structure {
    id: "cup",
    name: "Cup",
    family: Family::TraysAndLids,
    about: "A cup of three to twelve walls that lean out, with glued corners.",
    uses: &["box", "cup", "pot", "sweets", "frustum", "n sides", "flare", "glue"],
    params: &[SIDES, SIDE, HEIGHT, FLARE, TAB],
    presets: &[
        Preset {
            name: "Seedling pot",
            figures: &[("sides", 6.0), ("side", 28.0), ("height", 60.0)],
        },
        Preset { name: "Square pot", figures: &[("sides", 4.0), ("side", 45.0), ("height", 60.0)] },
    ],
    design: |f| {
        let count = f.count("sides");
        let half = std::f64::consts::PI / f["sides"];
        let out = f["height"] * f["flare"].to_radians().tan();
        let wide = f["side"] + 2.0 * out * half.tan();
        let mut corners = ring(count, f["side"], 0.0);
        corners.extend(ring(count, wide, f["height"]));
        let names = (1..=count).map(|wall| format!("Wall {wall}")).collect();
        let area = |side: f64| f["sides"] * side * side / (4.0 * half.tan());
        let volume = frustum(area(f["side"]), area(wide), f["height"]);
        let [deep, high] = depths(f);
        let [inside, outside] = across_card(f).map(|more| f["side"] + 2.0 * more * half.tan());
        let cup = open_frustum(f, corners, names, vec![("side", 0, [0, 1])]);
        cup.holds(volume).measures(vec![inside, deep], vec![outside, high])
    },
};

const LENGTH: Param = Param::size(
    "length",
    ["Length", "Of the base, at the middle of the card."],
    [0.0, 0.0],
    |_| 90.0,
)
.within(|_| Bounds::new(15.0, 1000.0));
const WIDTH: Param =
    Param::size("width", ["Width", "Of the base, at the middle of the card."], [0.0, 0.0], |_| {
        60.0
    })
    .within(|_| Bounds::new(15.0, 1000.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "From the base to the rim, upright."], [0.0, 0.0], |_| 40.0)
        .within(|_| Bounds::new(10.0, 500.0));

const FLARE: Param = Param::angle(
    "flare",
    ["Flare", "How far the walls lean out from upright."],
    |_| 12.0,
    |_| Bounds::new(2.0, 45.0),
);

/// h/3 · (A + B + √(AB)), from any geometry handbook.
fn frustum(low: f64, high: f64, height: f64) -> f64 {
    height / 3.0 * (low + high + (low * high).sqrt())
}

/// How far from the middle of a wall's foot its inner face meets the base's, and how far its outer edge at
/// the rim reaches, mm.
fn across_card(f: &Figures) -> [f64; 2] {
    let (half, flare) = (f.t / 2.0, f["flare"].to_radians());
    let rim = f["height"] * flare.tan() + half * flare.cos();
    [half * (flare.tan() - 1.0 / flare.cos()), rim]
}

/// From the base's inside and from its outside to the rim, whose inner edge is the higher, mm.
fn depths(f: &Figures) -> [f64; 2] {
    let half = f.t / 2.0;
    let rim = f["height"] + half * f["flare"].to_radians().sin();
    [rim - half, rim + half]
}

/// A base and its walls; low corners first, then the high ones in the same order.
fn open_frustum(
    f: &Figures,
    corners: Vec<[f64; 3]>,
    names: Vec<String>,
    spans: Vec<(&'static str, usize, [usize; 2])>,
) -> Design {
    let count = names.len();
    let mut faces = vec![("Base".to_owned(), (0..count).collect::<Vec<_>>())];
    faces.extend(names.into_iter().enumerate().map(|(at, name)| {
        let next = (at + 1) % count;
        (name, vec![at, at + count, next + count, next])
    }));
    let hangs_on = std::iter::once(None).chain((0..count).map(|_| Some(0))).collect();
    let solid = Solid { corners, faces, hangs_on };
    Net { solid: &solid, t: f.t, tab: f["tab"], spans }.design(Stand::OnFirst)
}
