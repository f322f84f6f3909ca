//! The right pyramid on a regular base as a net: the walls on the base, a tab between each two.
//!
//! Measured where the faces' middles meet.

use super::prism::{SIDE, SIDES, ring};
use super::{Net, Solid, TAB};
use crate::form::design::{Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "pyramid-net",
    name: "Pyramid",
    family: Family::Solids,
    about: "A right pyramid on a regular base of three to twelve sides.",
    uses: &["net", "solid", "lesson", "geometry", "n sides", "glue tabs"],
    params: &[SIDES, SIDE, HEIGHT, TAB],
    presets: &[
        Preset { name: "Square", figures: &[("sides", 4.0), ("side", 60.0), ("height", 60.0)] },
        Preset { name: "Hexagonal", figures: &[("sides", 6.0), ("side", 35.0), ("height", 70.0)] },
    ],
    design,
};

const HEIGHT: Param = Param::size(
    "height",
    ["Height", "From the base to the tip, at the middle of the card."],
    [0.0, 0.0],
    |_| 60.0,
)
.within(|f| Bounds::new(least_height(f).max(15.0), 500.0).against("side"));

/// Walls that are turned from each other by less than this, degrees, leave a tab no room.
const FLATTEST: f64 = 15.0;

/// The height at which neighbouring walls are turned from each other by [`FLATTEST`]: of slope α on n
/// sides, cos ψ = cos² α + sin² α cos 2π/n.
fn least_height(f: &Figures) -> f64 {
    let turn = std::f64::consts::TAU / f["sides"];
    let sine = ((1.0 - FLATTEST.to_radians().cos()) / (1.0 - turn.cos())).sqrt().min(0.99);
    let apothem = f["side"] / 2.0 / (turn / 2.0).tan();
    apothem * sine / (1.0 - sine * sine).sqrt()
}

fn design(f: &Figures) -> Design {
    let count = f.count("sides");
    let mut corners = ring(count, f["side"], 0.0);
    corners.push([0.0, f["height"], 0.0]);
    let mut faces = vec![("Base".to_owned(), (0..count).collect::<Vec<_>>())];
    faces.extend(
        (0..count).map(|at| (format!("Wall {}", at + 1), vec![at, count, (at + 1) % count])),
    );
    let mut hangs_on = vec![None];
    hangs_on.extend((0..count).map(|_| Some(0)));
    let solid = Solid { corners, faces, hangs_on };
    let area = f["sides"] * f["side"].powi(2) / (4.0 * (std::f64::consts::PI / f["sides"]).tan());
    let spans = vec![("side", 0, [0, 1])];
    let net = Net { solid: &solid, t: f.t, tab: f["tab"], spans };
    let [inside, outside] = [-f.t / 2.0, f.t / 2.0].map(|out| moved_out(f, out));
    net.design(Stand::OnFirst).holds(area * f["height"] / 3.0).measures(inside, outside)
}

/// Side and height when every face is moved out by so much: with walls of slope β a wall moves its foot by
/// out/sin β, and the base lies deeper, which moves it by out/tan β more.
fn moved_out(f: &Figures, out: f64) -> Vec<f64> {
    let double_tangent = 2.0 * (std::f64::consts::PI / f["sides"]).tan();
    let apothem = f["side"] / double_tangent;
    let slope = f["height"].atan2(apothem);
    let foot = apothem + out / slope.sin() + out / slope.tan();
    vec![foot * double_tangent, foot * slope.tan()]
}
