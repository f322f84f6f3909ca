//! Plates as triangles, for models in space.

use geo::TriangulateEarcut;
use geo::{Coord, LineString, Polygon};

use super::model::FoldPanel;
use crate::geometry::Point;

/// A plate's card: its printed face, the same moved back by the caliper, and the cut edges
/// between. Coordinates are in the panel's frame, the third axis out of the printed side.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Mesh {
    /// Corners, mm.
    pub points: Vec<[f64; 3]>,
    /// Triangles of the printed side, anticlockwise seen from outside.
    pub printed: Vec<[u32; 3]>,
    /// Triangles of the other side, anticlockwise seen from outside.
    pub back: Vec<[u32; 3]>,
    /// Triangles of the edges, anticlockwise seen from outside.
    pub edges: Vec<[u32; 3]>,
}

/// The panel cut into triangles in its frame; indices into its ring and openings, one after the
/// other.
#[must_use]
pub(super) fn triangles(panel: &FoldPanel) -> (Vec<Point>, Vec<[usize; 3]>) {
    let string = |ring: &Vec<Point>| {
        LineString::new(ring.iter().map(|p| Coord { x: p.x, y: p.y }).collect())
    };
    if panel.ring.len() < 3 {
        return (Vec::new(), Vec::new());
    }
    let holes = panel.openings.iter().filter(|hole| hole.len() > 2).map(string).collect();
    let cut = Polygon::new(string(&panel.ring), holes).earcut_triangles_raw();
    let points = cut.vertices.iter().map(|[x, y]| Point::new(*x, *y)).collect();
    let triangles =
        cut.triangle_indices.chunks_exact(3).map(|three| [three[0], three[1], three[2]]).collect();
    (points, triangles)
}

/// Triangles that have every point at a corner: where a corner of one lies on the side of another it is
/// divided there, so that a mesh has no gap between them.
fn whole(points: &[Point], faces: Vec<[usize; 3]>) -> Vec<[usize; 3]> {
    let between = |at: Point, from: Point, to: Point| {
        let along = to - from;
        let long = along.hypot2();
        let share = (at - from).dot(along) / long.max(1e-18);
        share > 1e-9 && share < 1.0 - 1e-9 && (from + along * share).distance_squared(at) < 1e-14
    };
    let mut whole = Vec::with_capacity(faces.len());
    let mut open = faces;
    while let Some(face) = open.pop() {
        let split = (0..3).find_map(|side| {
            let (a, b) = (face[side], face[(side + 1) % 3]);
            let at = (0..points.len()).find(|at| between(points[*at], points[a], points[b]))?;
            Some([[a, at, face[(side + 2) % 3]], [at, b, face[(side + 2) % 3]]])
        });
        match split {
            Some(halves) => open.extend(halves),
            None => whole.push(face),
        }
    }
    whole
}

/// The card of a panel, `caliper` mm thick, its middle in the panel's plane.
#[must_use]
pub fn panel_mesh(panel: &FoldPanel, caliper: f64) -> Mesh {
    let (flat, faces) = triangles(panel);
    let count = index(flat.len());
    let mut mesh = Mesh::default();
    for height in [caliper / 2.0, -caliper / 2.0] {
        mesh.points.extend(flat.iter().map(|p| [p.x, p.y, height]));
    }
    for face in whole(&flat, faces) {
        let [a, b, c] = face;
        let turn = (flat[b] - flat[a]).cross(flat[c] - flat[a]);
        let [a, b, c] = if turn > 0.0 { [a, b, c] } else { [a, c, b] }.map(index);
        mesh.printed.push([a, b, c]);
        mesh.back.push([a + count, c + count, b + count]);
    }
    // Rings run clockwise outside and any way round an opening: the turn of each says which side
    // of an edge is card.
    for (rank, ring) in std::iter::once(&panel.ring).chain(&panel.openings).enumerate() {
        let mut ring: Vec<Point> = ring.clone();
        let next = ring.iter().cycle().skip(1);
        let doubled: f64 = ring.iter().zip(next).map(|(a, b)| a.to_vec2().cross(b.to_vec2())).sum();
        if (doubled > 0.0) != (rank == 0) {
            ring.reverse();
        }
        let start = index(mesh.points.len());
        let long = index(ring.len());
        for height in [caliper / 2.0, -caliper / 2.0] {
            mesh.points.extend(ring.iter().map(|p| [p.x, p.y, height]));
        }
        for here in 0..long {
            let there = (here + 1) % long;
            let (a, b) = (start + here, start + there);
            mesh.edges.push([a, a + long, b + long]);
            mesh.edges.push([a, b + long, b]);
        }
    }
    mesh
}

fn index(value: usize) -> u32 {
    u32::try_from(value).unwrap_or(u32::MAX)
}
