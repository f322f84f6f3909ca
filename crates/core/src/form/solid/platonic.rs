//! The five Platonic solids and the cuboid as nets.
//!
//! The edge is measured where the faces' middles meet: half a caliper of the card lies inside it.

use nalgebra::{Point3, Vector3};

use super::{Net, Solid, TAB};
use crate::form::design::{Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};

const EDGE: Param =
    Param::size("edge", ["Edge", "Of every face, at the middle of the card."], [0.0, 0.0], |_| {
        50.0
    })
    .within(|_| Bounds::new(15.0, 500.0));

const fn solid(
    id: &'static str,
    name: &'static str,
    about: &'static str,
    presets: &'static [Preset],
    design: fn(&Figures) -> Design,
) -> Structure {
    Structure {
        id,
        name,
        family: Family::Solids,
        about,
        uses: &["net", "solid", "lesson", "geometry", "die", "glue tabs", "Platonic"],
        params: &[EDGE, TAB],
        presets,
        design,
    }
}

/// Four triangles.
pub const TETRAHEDRON: Structure = solid(
    "tetrahedron",
    "Tetrahedron",
    "Four equal triangles; three tabs.",
    &[Preset { name: "Lesson", figures: &[("edge", 80.0)] }],
    |f| {
        let corners =
            vec![[1.0, 1.0, 1.0], [1.0, -1.0, -1.0], [-1.0, 1.0, -1.0], [-1.0, -1.0, 1.0]];
        regular(f, corners, 2.0 * 2f64.sqrt(), f["edge"].powi(3) / (6.0 * 2f64.sqrt()))
    },
);

/// Six squares.
pub const CUBE: Structure = solid(
    "cube",
    "Cube",
    "Six equal squares; seven tabs.",
    &[Preset { name: "Die", figures: &[("edge", 40.0)] }],
    |f| {
        let a = f["edge"];
        cuboid(f, [a, a, a])
    },
);

/// Eight triangles.
pub const OCTAHEDRON: Structure = solid(
    "octahedron",
    "Octahedron",
    "Eight equal triangles; five tabs.",
    &[Preset { name: "Lesson", figures: &[("edge", 60.0)] }],
    |f| {
        let corners = vec![
            [1.0, 0.0, 0.0],
            [-1.0, 0.0, 0.0],
            [0.0, 1.0, 0.0],
            [0.0, -1.0, 0.0],
            [0.0, 0.0, 1.0],
            [0.0, 0.0, -1.0],
        ];
        regular(f, corners, 2f64.sqrt(), f["edge"].powi(3) * 2f64.sqrt() / 3.0)
    },
);

/// Twelve pentagons.
pub const DODECAHEDRON: Structure = solid(
    "dodecahedron",
    "Dodecahedron",
    "Twelve equal pentagons, one for each month; nineteen tabs.",
    &[Preset { name: "Calendar", figures: &[("edge", 46.0)] }],
    |f| {
        let (g, h) = (golden(), 1.0 / golden());
        let mut corners = Vec::new();
        for x in [-1.0, 1.0] {
            for y in [-1.0, 1.0] {
                corners.extend([[0.0, x * h, y * g], [x * h, y * g, 0.0], [x * g, 0.0, y * h]]);
                corners.extend([-1.0, 1.0].map(|z| [x, y, z]));
            }
        }
        let volume = f["edge"].powi(3) * (15.0 + 7.0 * 5f64.sqrt()) / 4.0;
        regular(f, corners, 2.0 * h, volume)
    },
);

/// Twenty triangles.
pub const ICOSAHEDRON: Structure = solid(
    "icosahedron",
    "Icosahedron",
    "Twenty equal triangles; eleven tabs.",
    &[Preset { name: "Lesson", figures: &[("edge", 50.0)] }],
    |f| {
        let g = golden();
        let mut corners = Vec::new();
        for x in [-1.0, 1.0] {
            for y in [-1.0, 1.0] {
                corners.extend([[0.0, x, y * g], [x, y * g, 0.0], [x * g, 0.0, y]]);
            }
        }
        let volume = f["edge"].powi(3) * 5.0 * (3.0 + 5f64.sqrt()) / 12.0;
        regular(f, corners, 2.0, volume)
    },
);

/// Six rectangles.
pub const CUBOID: Structure = Structure {
    params: &[LENGTH, WIDTH, HEIGHT, TAB],
    presets: &[Preset {
        name: "Block",
        figures: &[("length", 60.0), ("width", 40.0), ("height", 30.0)],
    }],
    ..solid("cuboid", "Cuboid", "Six rectangles; seven tabs.", &[], |f| {
        cuboid(f, [f["length"], f["width"], f["height"]])
    })
};

const LENGTH: Param =
    Param::size("length", ["Length", "At the middle of the card."], [0.0, 0.0], |_| 60.0)
        .within(|_| Bounds::new(15.0, 500.0));
const WIDTH: Param =
    Param::size("width", ["Width", "At the middle of the card."], [0.0, 0.0], |_| 40.0)
        .within(|_| Bounds::new(15.0, 500.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "At the middle of the card."], [0.0, 0.0], |_| 30.0)
        .within(|_| Bounds::new(15.0, 500.0));

fn golden() -> f64 {
    f64::midpoint(1.0, 5f64.sqrt())
}

fn cuboid(f: &Figures, [x, y, z]: [f64; 3]) -> Design {
    let corners = (0..8)
        .map(|index| {
            let pick = |bit: usize, size: f64| if index >> bit & 1 == 1 { size } else { 0.0 };
            [pick(0, x), pick(1, z), pick(2, y)]
        })
        .collect();
    // Names as one looks at the printed front, which lies nearest (z = y).
    let face = |name: &str, loop_: [usize; 4]| (name.to_owned(), loop_.to_vec());
    let solid = Solid {
        corners,
        faces: vec![
            face("Front", [4, 6, 7, 5]),
            face("Right", [5, 7, 3, 1]),
            face("Back", [1, 3, 2, 0]),
            face("Left", [0, 2, 6, 4]),
            face("Top", [6, 2, 3, 7]),
            face("Bottom", [0, 4, 5, 1]),
        ],
        hangs_on: vec![None, Some(0), Some(1), Some(0), Some(0), Some(0)],
    };
    let spans = if f["length"].is_nan() {
        vec![("edge", 0, [4, 5])]
    } else {
        vec![("length", 0, [4, 5]), ("height", 0, [4, 6]), ("width", 1, [5, 1])]
    };
    let net = Net { solid: &solid, t: f.t, tab: f["tab"], spans };
    let over = |more: f64| {
        let all = if f["length"].is_nan() { vec![x] } else { vec![x, y, z] };
        all.into_iter().map(|size| size + more).collect()
    };
    net.design(Stand::Upright).holds(x * y * z).measures(over(-f.t), over(f.t))
}

/// A solid whose faces are those planes of corners that leave all others on one side, scaled from
/// `unit` edges to the figure's.
fn regular(f: &Figures, mut corners: Vec<[f64; 3]>, unit: f64, volume: f64) -> Design {
    let scale = f["edge"] / unit;
    for corner in &mut corners {
        *corner = corner.map(|along| along * scale);
    }
    let faces = hull(&corners, f["edge"]);
    let hangs_on = spanning(&faces);
    let faces = faces
        .into_iter()
        .enumerate()
        .map(|(at, loop_)| (format!("Face {}", at + 1), loop_))
        .collect();
    let solid = Solid { corners, faces, hangs_on };
    let edge = [solid.faces[0].1[0], solid.faces[0].1[1]];
    let net = Net { solid: &solid, t: f.t, tab: f["tab"], spans: vec![("edge", 0, edge)] };
    // All faces touch one sphere, which grows and shrinks with the solid.
    let middle = solid.faces[0].1.iter().map(|corner| Point3::from(solid.corners[*corner]).coords);
    let radius = middle.sum::<Vector3<f64>>().norm() / solid.faces[0].1.len() as f64;
    let over = |out: f64| vec![f["edge"] * (radius + out) / radius];
    net.design(Stand::Lying).holds(volume).measures(over(-f.t / 2.0), over(f.t / 2.0))
}

/// The faces of a regular solid: for each corner and two of its neighbours that bound a face, the
/// corners in that plane, clockwise seen from outside.
fn hull(corners: &[[f64; 3]], edge: f64) -> Vec<Vec<usize>> {
    let at = |index: usize| Vector3::from(corners[index]);
    let near = |a: usize, b: usize| ((at(a) - at(b)).norm() - edge).abs() < edge * 1e-6;
    let mut faces: Vec<Vec<usize>> = Vec::new();
    for a in 0..corners.len() {
        for b in (0..corners.len()).filter(|b| near(a, *b)) {
            for c in (0..corners.len()).filter(|c| *c != a && near(b, *c)) {
                let normal = (at(c) - at(b)).cross(&(at(a) - at(b)));
                if normal.norm() < 1e-9 {
                    continue;
                }
                let normal = normal.normalize();
                let height = |index: usize| (at(index) - at(b)).dot(&normal);
                if (0..corners.len()).any(|other| height(other) > edge * 1e-6) {
                    continue;
                }
                let mut plane: Vec<usize> =
                    (0..corners.len()).filter(|other| height(*other).abs() < edge * 1e-6).collect();
                let middle =
                    plane.iter().map(|index| at(*index)).sum::<Vector3<f64>>() / plane.len() as f64;
                let right = (at(plane[0]) - middle).normalize();
                let up = normal.cross(&right);
                // Falling angles run clockwise.
                plane.sort_by(|one, other| {
                    let angle = |index: usize| {
                        let v = at(index) - middle;
                        v.dot(&up).atan2(v.dot(&right))
                    };
                    angle(*other).total_cmp(&angle(*one))
                });
                let mut key = plane.clone();
                key.sort_unstable();
                let is_known = faces.iter().any(|face| {
                    let mut known = face.clone();
                    known.sort_unstable();
                    known == key
                });
                if !is_known {
                    faces.push(plane);
                }
            }
        }
    }
    faces
}

/// Each face hangs on the one from which it is first reached, going out in rings.
fn spanning(faces: &[Vec<usize>]) -> Vec<Option<usize>> {
    let touches = |one: usize, other: usize| {
        faces[one].iter().filter(|corner| faces[other].contains(corner)).count() > 1
    };
    let mut hangs_on = vec![None; faces.len()];
    let mut reached = vec![0];
    let mut next = 0;
    while let Some(&face) = reached.get(next) {
        for (other, hangs) in hangs_on.iter_mut().enumerate() {
            if !reached.contains(&other) && touches(face, other) {
                *hangs = Some(face);
                reached.push(other);
            }
        }
        next += 1;
    }
    hangs_on
}
