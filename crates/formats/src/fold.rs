//! The flat as FOLD 1.2, the open JSON format for creased sheets.
//!
//! Vertices are in millimetres, `y` up. Mountains fold away from the printed side, which faces the reader.
//! The angle of an edge between two plates, and which way it turns, are read off the closed plates, so that
//! whoever folds the file back gets the piece that was proven. Openings are boundary edges without a face;
//! slits inside a plate are cuts. `aptum:lines` holds what the format has no place for: the lines as they run, curves
//! too, each with its kind; `aptum:folding` what its panels are called, which of them stays and what folds when, each
//! panel by a place on it. A reader that does not know them has the flattened truth.

use std::collections::BTreeMap;

use aptum_core::LineKind;
use aptum_core::fold::{FoldModel, Pose};
use aptum_core::form::{Flat, LineDrawing};
use aptum_core::geometry::{Affine, BezPath, PathEl, Point, Vec2, contours, flattened_to};
use serde_json::{Value, json};

/// Vertices nearer than this, mm, are one; a vertex this near to an edge lies on it.
const SAME: f64 = 1e-4;

/// How far a flattened curve may lie from the true one, mm.
const CURVES: f64 = 0.02;

/// A flat that folds as `model`.
#[must_use]
pub fn flat_fold(name: &str, flat: &Flat, model: &FoldModel) -> String {
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
    let slits: Vec<Vec<usize>> = slits(flat, up)
        .into_iter()
        .map(|points| points.into_iter().map(|point| net.vertex(point)).collect())
        .collect();
    let faces: Vec<Vec<usize>> = rings.iter().map(|ring| net.with_vertices_on(ring)).collect();
    // On each side of an edge a face, which lies to the right of the walk along it.
    let mut edges: BTreeMap<[usize; 2], Vec<(usize, bool)>> = BTreeMap::new();
    for (face, ring) in faces.iter().enumerate() {
        for (a, b) in ring.iter().zip(ring.iter().cycle().skip(1)) {
            edges.entry([*a.min(b), *a.max(b)]).or_default().push((face, a < b));
        }
    }
    let folded = Folded::new(flat, model, up);
    let (mut vertices, mut assignment, mut angles) = (Vec::new(), Vec::new(), Vec::new());
    for ([a, b], sides) in &edges {
        let (from, to) = (net.points[*a], net.points[*b]);
        let middle = from.midpoint(to);
        let kind =
            lines.iter().find(|(_, from, to)| lies_on(middle, *from, *to)).map(|line| line.0);
        let (letter, angle) = match (sides.as_slice(), kind) {
            ([_], _) => ("B", None),
            (_, Some(LineKind::Cut)) => ("C", None),
            ([(one, is_forward), (other, _)], _) => {
                let along = if *is_forward { from - to } else { to - from };
                match folded.angle(*one, *other, along) {
                    angle if angle.abs() < FLAT => ("F", Some(0.0)),
                    angle if angle < 0.0 => ("M", Some(angle)),
                    angle => ("V", Some(angle)),
                }
            }
            _ => ("U", None),
        };
        vertices.push([*a, *b]);
        assignment.push(letter);
        angles.push(angle);
    }
    for slit in &slits {
        for pair in slit.windows(2) {
            let edge = [pair[0].min(pair[1]), pair[0].max(pair[1])];
            // What runs along a crease is there already.
            if pair[0] != pair[1] && !edges.contains_key(&edge) {
                vertices.push(edge);
                assignment.push("C");
                angles.push(None);
            }
        }
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
    let tidy = |value: f64| (value * 1e6).round() / 1e6;
    let text = serde_json::to_string_pretty(&json!({
        "file_spec": 1.2,
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
        "aptum:lines": exact_lines(flat, up),
        "aptum:folding": LineDrawing::told_by(flat).placed(|[x, y]| {
            let at = up * Point::new(x, y);
            [tidy(at.x), tidy(at.y)]
        }),
    }));
    text.unwrap_or_default()
}

/// What the format has no place for: each line as it runs, curves too, and the kind that it is.
fn exact_lines(flat: &Flat, up: Affine) -> Vec<Value> {
    let mut lines = Vec::new();
    for part in &flat.parts {
        let place = up * Affine::translate(part.at);
        let mut add = |kind: LineKind, path: &BezPath| {
            lines.push(json!({ "kind": kind.id(), "path": (place * path.clone()).to_svg() }));
        };
        contours(&part.outline).iter().for_each(|outline| add(part.edge, outline));
        part.strokes.iter().for_each(|stroke| add(part.kind(stroke.kind), &stroke.path));
    }
    lines
}

/// An edge that turns by less, degrees, is flat.
const FLAT: f64 = 1e-4;

/// Closed plates, asked for the angles between them.
struct Folded<'a> {
    model: &'a FoldModel,
    pose: Pose,
    /// From the file's coordinates to each plate's own.
    to_plates: Vec<Affine>,
}

impl<'a> Folded<'a> {
    fn new(flat: &Flat, model: &'a FoldModel, up: Affine) -> Self {
        let to_plates = flat.parts.iter().flat_map(|part| {
            let place = up * Affine::translate(part.at);
            part.panels.iter().map(move |panel| (place * panel.frame).inverse())
        });
        let pose = Pose::at(model, model.closed());
        Self { model, pose, to_plates: to_plates.collect() }
    }

    /// The angle at an edge with plate `one` to the left of the way `along` it, degrees: negative where the
    /// other is folded away from the printed side.
    fn angle(&self, one: usize, other: usize, along: Vec2) -> f64 {
        let [a, b, c, d, ..] = self.to_plates[one].as_coeffs();
        let local = [a * along.x + c * along.y, b * along.x + d * along.y, 0.0];
        let way = (self.pose.0[one].rotation * nalgebra::Vector3::from(local)).normalize();
        let (here, there) = (self.pose.normal(one), self.pose.normal(other));
        let turn = way.dot(&here.cross(&there)).atan2(here.dot(&there)).to_degrees();
        // Half a turn is the same either way round in space: the hinge tells which it was.
        let panels = &self.model.panels;
        let hung = [(one, other), (other, one)].into_iter().find_map(|(parent, child)| {
            let hang = panels[child].hang?;
            (hang.0 == parent).then_some(panels[child].fold)
        });
        match hung {
            Some(fold) if turn.abs() > 180.0 - FLAT => -fold.signum() * 180.0,
            _ => -turn,
        }
    }
}

/// Open cuts inside plates, each as the points along it.
fn slits(flat: &Flat, up: Affine) -> Vec<Vec<Point>> {
    let mut found = Vec::new();
    for part in &flat.parts {
        let place = up * Affine::translate(part.at);
        let open = part.strokes.iter().filter(|line| line.kind == LineKind::Cut);
        for line in open {
            let closed = line.path.elements().last() == Some(&PathEl::ClosePath);
            if !closed {
                found.extend(flattened_to(&(place * line.path.clone()), CURVES));
            }
        }
    }
    found
}

/// The straight pieces of lines that part panels.
fn kinds(flat: &Flat, up: Affine) -> Vec<(LineKind, Point, Point)> {
    flat.strokes()
        .into_iter()
        .filter(|stroke| !stroke.is_closed())
        .flat_map(|stroke| {
            let subpaths = stroke.path.subpaths().map(|part| BezPath::from_vec(part.to_vec()));
            // A curved crease stands for its chord, on which it folds.
            let ends: Vec<(Point, Point)> = subpaths.filter_map(|path| ends_of(&path)).collect();
            ends.into_iter().map(move |(from, to)| (stroke.kind, up * from, up * to))
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
