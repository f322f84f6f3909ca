//! The folded piece as flat-shaded faces, back to front: for small pictures, and where no
//! three-dimensional view can be had.

use kurbo::{Affine, BezPath, Point as Dot};
use nalgebra::{Point3, Rotation3, Vector3};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use super::mesh::triangles;
use super::model::FoldModel;
use super::pose::{Pose, upright};
use crate::form::design::Stand;
use crate::geometry::path_text;

/// A face of the drawing.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct FoldedFace {
    /// SVG path data of the face, in mm.
    pub face: String,
    /// SVG path data of those of its sides that are drawn.
    pub sides: String,
    /// How much light falls on it, 0 to 1.
    pub light: f64,
    /// True where the unprinted side is seen.
    pub is_inside: bool,
    /// The panel's name.
    pub panel: String,
    /// The blank that it is of, by its number from 0.
    #[serde(skip)]
    pub part: usize,
    /// Maps that blank, as it is seen from the printed side, to where this face of it is drawn.
    #[serde(skip)]
    pub lies: Affine,
}

/// The folded piece, seen from the front, the right and above.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct FoldedDrawing {
    /// Left, top, width and height, mm.
    pub bounds: [f64; 4],
    /// The faces, the farthest first.
    pub faces: Vec<FoldedFace>,
}

/// A convex face in view space: x right, y up, z towards the eye.
#[derive(Clone)]
struct Facet {
    panel: usize,
    corners: Vec<Point3<f64>>,
    /// Whether the side that starts at each corner is drawn.
    drawn: Vec<bool>,
    normal: Vector3<f64>,
}

/// Nearer than this, mm, a corner lies in a plane.
const IN_PLANE: f64 = 1e-4;

/// Most faces sorted: beyond, cuts multiply for nothing that a small drawing shows.
const MOST: usize = 4000;

/// Draws the model at `progress`.
#[must_use]
pub fn draw_folded(model: &FoldModel, progress: f64) -> FoldedDrawing {
    let pose = Pose::at(model, progress);
    let view = eye(model.stand);
    let mut facets = Vec::new();
    for (index, panel) in model.panels.iter().enumerate() {
        let (points, faces) = triangles(panel);
        let normal = view * pose.normal(index);
        let seen = |at: Dot| view * pose.point(index, at);
        if panel.openings.is_empty() && is_convex(&panel.ring) {
            facets.push(Facet {
                panel: index,
                corners: panel.ring.iter().map(|at| seen(*at)).collect(),
                drawn: (0..panel.ring.len())
                    .map(|at| {
                        panel.is_seen(panel.ring[at], panel.ring[(at + 1) % panel.ring.len()])
                    })
                    .collect(),
                normal,
            });
            continue;
        }
        let rims = rims(std::iter::once(&panel.ring).chain(&panel.openings).map(Vec::len));
        for face in faces {
            let side = |a: usize, b: usize| {
                rims.contains(&(a.min(b), a.max(b))) && panel.is_seen(points[a], points[b])
            };
            let [a, b, c] = face;
            facets.push(Facet {
                panel: index,
                corners: face.iter().map(|corner| seen(points[*corner])).collect(),
                drawn: vec![side(a, b), side(b, c), side(c, a)],
                normal,
            });
        }
    }
    let mut sorted = Vec::new();
    let mut budget = MOST;
    back_to_front(facets, &mut sorted, &mut budget);
    // Flat plates seen from afar: three points tell where all others lie.
    let lies = |index: usize| {
        let inverse = model.panels[index].frame.inverse();
        let seen = |at: Dot| {
            let seen = view * pose.point(index, inverse * at);
            Dot::new(seen.x, -seen.y)
        };
        let origin = seen(Dot::ZERO);
        let (along, up) = (seen(Dot::new(1.0, 0.0)) - origin, seen(Dot::new(0.0, 1.0)) - origin);
        Affine::new([along.x, along.y, up.x, up.y, origin.x, origin.y])
    };
    to_drawing(model, &sorted, &lies)
}

/// The view: turned to show the front, the right and the top of the piece as it stands.
fn eye(stand: Stand) -> Rotation3<f64> {
    let turn = Rotation3::from_axis_angle(&Vector3::y_axis(), -32f64.to_radians());
    let tilt = Rotation3::from_axis_angle(&Vector3::x_axis(), 24f64.to_radians());
    tilt * turn * upright(stand)
}

fn is_convex(ring: &[Dot]) -> bool {
    let count = ring.len();
    (0..count).all(|index| {
        let (a, b, c) = (ring[index], ring[(index + 1) % count], ring[(index + 2) % count]);
        (b - a).cross(c - b) <= 1e-9
    })
}

/// The sides of rings that stand one after the other, as pairs of indices.
fn rims(lengths: impl Iterator<Item = usize>) -> std::collections::HashSet<(usize, usize)> {
    let mut found = std::collections::HashSet::new();
    let mut start = 0;
    for length in lengths {
        for here in 0..length {
            let there = if here + 1 < length { here + 1 } else { 0 };
            found.insert(((start + here).min(start + there), (start + here).max(start + there)));
        }
        start += length;
    }
    found
}

/// Sorts faces by splitting space at their planes (a binary space partition).
fn back_to_front(mut facets: Vec<Facet>, sorted: &mut Vec<Facet>, budget: &mut usize) {
    let Some(first) = facets.first() else { return };
    let (normal, origin) = (first.normal, first.corners[0]);
    let (mut behind, mut within, mut before) = (Vec::new(), Vec::new(), Vec::new());
    for facet in facets.drain(..) {
        let heights: Vec<f64> =
            facet.corners.iter().map(|corner| (corner - origin).dot(&normal)).collect();
        let above = heights.iter().any(|h| *h > IN_PLANE);
        let below = heights.iter().any(|h| *h < -IN_PLANE);
        match (above, below) {
            (false, false) => within.push(facet),
            (true, false) => before.push(facet),
            (false, true) => behind.push(facet),
            (true, true) if *budget == 0 => before.push(facet),
            (true, true) => {
                *budget -= 1;
                before.extend(part(&facet, &heights, 1.0));
                behind.extend(part(&facet, &heights, -1.0));
            }
        }
    }
    // The eye is far along z: it sees the side the normal points to when that points at it.
    let (far, near) = if normal.z >= 0.0 { (behind, before) } else { (before, behind) };
    back_to_front(far, sorted, budget);
    sorted.append(&mut within);
    back_to_front(near, sorted, budget);
}

/// The part of a facet on one side of a plane from which its corners have these heights.
fn part(facet: &Facet, heights: &[f64], side: f64) -> Option<Facet> {
    let count = facet.corners.len();
    let (mut corners, mut drawn) = (Vec::new(), Vec::new());
    for here in 0..count {
        let there = (here + 1) % count;
        let (from, to) = (heights[here] * side, heights[there] * side);
        if from >= 0.0 {
            corners.push(facet.corners[here]);
            drawn.push(facet.drawn[here]);
        }
        if (from >= 0.0) != (to >= 0.0) {
            let share = from / (from - to);
            let (a, b) = (facet.corners[here], facet.corners[there]);
            corners.push(a + (b - a) * share);
            // Leaving, the new side is the cut; entering, it is the rest of the old one.
            drawn.push(if from >= 0.0 { false } else { facet.drawn[here] });
        }
    }
    (corners.len() > 2).then(|| Facet { corners, drawn, ..facet.clone() })
}

fn to_drawing(
    model: &FoldModel,
    facets: &[Facet],
    lies: &dyn Fn(usize) -> Affine,
) -> FoldedDrawing {
    let light = Vector3::new(-0.35, 0.75, 0.56).normalize();
    let mut bounds: Option<kurbo::Rect> = None;
    let faces = facets
        .iter()
        .map(|facet| {
            let dots: Vec<Dot> =
                facet.corners.iter().map(|corner| Dot::new(corner.x, -corner.y)).collect();
            for dot in &dots {
                bounds = Some(
                    bounds.map_or(kurbo::Rect::from_points(*dot, *dot), |all| all.union_pt(*dot)),
                );
            }
            let mut sides = BezPath::new();
            for (here, is_drawn) in facet.drawn.iter().enumerate() {
                if *is_drawn {
                    sides.move_to(dots[here]);
                    sides.line_to(dots[(here + 1) % dots.len()]);
                }
            }
            let is_inside = facet.normal.z < 0.0;
            let outwards = if is_inside { -facet.normal } else { facet.normal };
            FoldedFace {
                face: path_text(&crate::geometry::polygon(&dots)),
                sides: path_text(&sides),
                light: 0.55 + 0.45 * outwards.dot(&light).clamp(-1.0, 1.0),
                is_inside,
                panel: model.panels[facet.panel].shown_name().to_owned(),
                part: model.panels[facet.panel].part,
                lies: lies(facet.panel),
            }
        })
        .collect();
    let bounds = bounds.unwrap_or(kurbo::Rect::ZERO);
    FoldedDrawing { bounds: [bounds.x0, bounds.y0, bounds.width(), bounds.height()], faces }
}
