//! The flat as FOLD 1.1, the open JSON format for creased sheets.
//!
//! Vertices are in millimetres, `y` up. Mountains fold away from the printed side, which faces the reader;
//! angles are those of the closed piece. Openings are boundary edges without a face.

use std::collections::BTreeMap;

use aptum_core::fold::Pose;
use aptum_core::form::Flat;
use aptum_core::geometry::{Affine, BezPath, Point, flattened_to};
use aptum_core::{LineKind, PreparedPiece};
use serde_json::{Value, json};

/// Vertices nearer than this, mm, are one; a vertex this near to an edge lies on it.
const SAME: f64 = 1e-4;

/// How far a flattened curve may lie from the true one, mm.
const CURVES: f64 = 0.02;

/// The flat of a prepared job.
#[must_use]
pub fn flat_fold(name: &str, piece: &PreparedPiece) -> String {
    let flat = &piece.flat;
    let mut net = Network::default();
    let up = Affine::new([1.0, 0.0, 0.0, -1.0, 0.0, flat.bounds.y1]);
    let ring = |path: &BezPath| flattened_to(&(up * path.clone()), CURVES).into_iter().next();

    let rings: Vec<Vec<usize>> = flat
        .panels()
        .filter_map(|(_, outline)| ring(&outline))
        .map(|points| points.into_iter().map(|point| net.vertex(point)).collect())
        .collect();
    let lines = kinds(flat, up);
    for (_, from, to) in &lines {
        net.vertex(*from);
        net.vertex(*to);
    }
    let pose = Pose::at(&piece.fold, piece.fold.closed());
    let faces: Vec<Vec<usize>> = rings.iter().map(|ring| net.with_vertices_on(ring)).collect();
    let mut edges: BTreeMap<(usize, usize), Vec<usize>> = BTreeMap::new();
    for (face, ring) in faces.iter().enumerate() {
        for (a, b) in ring.iter().zip(ring.iter().cycle().skip(1)) {
            edges.entry((*a.min(b), *a.max(b))).or_default().push(face);
        }
    }
    let (mut vertices, mut assignment, mut angles) = (Vec::new(), Vec::new(), Vec::new());
    for ((a, b), sides) in &edges {
        let middle = net.points[*a].midpoint(net.points[*b]);
        let kind =
            lines.iter().find(|(_, from, to)| lies_on(middle, *from, *to)).map(|line| line.0);
        let angle = match sides.as_slice() {
            [one, other] => {
                let cosine = pose.normal(*one).dot(&pose.normal(*other)).clamp(-1.0, 1.0);
                cosine.acos().to_degrees()
            }
            _ => 0.0,
        };
        let (letter, angle) = match (sides.len(), kind) {
            (1, _) => ("B", None),
            (_, Some(LineKind::Cut)) => ("C", None),
            (_, Some(LineKind::ReverseCrease)) => ("V", Some(angle)),
            (_, Some(LineKind::Perforation)) => ("F", Some(0.0)),
            _ if angle < 1e-6 => ("F", Some(0.0)),
            _ => ("M", Some(-angle)),
        };
        vertices.push([*a, *b]);
        assignment.push(letter);
        angles.push(angle);
    }
    for part in &flat.parts {
        for opening in part.openings() {
            let path = Affine::translate(part.at) * opening.clone();
            let Some(points) = ring(&path) else { continue };
            let hole: Vec<usize> = points.into_iter().map(|point| net.vertex(point)).collect();
            for (a, b) in hole.iter().zip(hole.iter().cycle().skip(1)) {
                vertices.push([*a, *b]);
                assignment.push("B");
                angles.push(None);
            }
        }
    }
    // FOLD lists a face's vertices anticlockwise; panels are walked clockwise.
    let faces: Vec<Value> =
        faces.iter().map(|ring| json!(ring.iter().rev().collect::<Vec<_>>())).collect();
    let tidy = |value: f64| (value * 1e4).round() / 1e4;
    let text = serde_json::to_string_pretty(&json!({
        "file_spec": 1.1,
        "file_creator": "Aptum",
        "file_title": name,
        "file_classes": ["singleModel"],
        "frame_classes": ["creasePattern"],
        "frame_attributes": ["2D"],
        "frame_unit": "mm",
        "vertices_coords": net.points.iter().map(|p| [tidy(p.x), tidy(p.y)]).collect::<Vec<_>>(),
        "edges_vertices": vertices,
        "edges_assignment": assignment,
        "edges_foldAngle": angles.iter().map(|angle| angle.map(tidy)).collect::<Vec<_>>(),
        "faces_vertices": faces,
    }));
    text.unwrap_or_default()
}

/// The straight pieces of lines that part panels.
fn kinds(flat: &Flat, up: Affine) -> Vec<(LineKind, Point, Point)> {
    flat.lines()
        .into_iter()
        .filter(|line| {
            line.path.elements().last() != Some(&aptum_core::geometry::PathEl::ClosePath)
        })
        .flat_map(|line| {
            let subpaths: Vec<BezPath> =
                line.path.subpaths().map(|part| BezPath::from_vec(part.to_vec())).collect();
            let kind = line.kind;
            // A perforation stands for its whole line; a curved crease for its chord, on which it folds.
            let ends = if kind == LineKind::Perforation {
                let first = subpaths.first().and_then(ends_of).map(|ends| ends.0);
                let last = subpaths.last().and_then(ends_of).map(|ends| ends.1);
                first.zip(last).into_iter().collect::<Vec<_>>()
            } else {
                subpaths.iter().filter_map(ends_of).collect()
            };
            ends.into_iter().map(move |(from, to)| (kind, up * from, up * to))
        })
        .collect()
}

fn ends_of(path: &BezPath) -> Option<(Point, Point)> {
    let elements = path.elements();
    Some((elements.first()?.end_point()?, elements.last()?.end_point()?))
}

fn lies_on(point: Point, from: Point, to: Point) -> bool {
    let along = to - from;
    let length = along.hypot();
    if length < SAME {
        return false;
    }
    let share = (point - from).dot(along) / (length * length);
    (0.0..=1.0).contains(&share) && (from + along * share).distance(point) < SAME
}

#[derive(Default)]
struct Network {
    points: Vec<Point>,
}

impl Network {
    /// The vertex at a point, a new one where there is none.
    fn vertex(&mut self, at: Point) -> usize {
        let known = self.points.iter().position(|point| point.distance(at) < SAME);
        known.unwrap_or_else(|| {
            self.points.push(at);
            self.points.len() - 1
        })
    }

    /// A ring with every vertex that lies on one of its sides.
    fn with_vertices_on(&self, ring: &[usize]) -> Vec<usize> {
        let mut whole = Vec::new();
        for (a, b) in ring.iter().zip(ring.iter().cycle().skip(1)) {
            whole.push(*a);
            let (from, to) = (self.points[*a], self.points[*b]);
            let mut between: Vec<(f64, usize)> = (0..self.points.len())
                .filter(|vertex| vertex != a && vertex != b)
                .filter(|vertex| lies_on(self.points[*vertex], from, to))
                .map(|vertex| (from.distance(self.points[vertex]), vertex))
                .collect();
            between.sort_by(|one, other| one.0.total_cmp(&other.0));
            whole.extend(between.into_iter().map(|(_, vertex)| vertex));
        }
        whole.dedup();
        whole
    }
}
