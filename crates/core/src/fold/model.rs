//! The plates that fold, and the steps in which they do.

use kurbo::{Affine, BezPath, Point, Shape};
use nalgebra::{Isometry3, Matrix3, Rotation3, Translation3, UnitQuaternion, Vector3};

use crate::form::design::{Move, Must, Rest, Stand, Step};
use crate::form::{Flat, Role};
use crate::geometry::{Outline, flattened_to};

/// How far a plate's flattened curves may lie from the true ones, mm: drawings and contact need no
/// finer.
const COARSE: f64 = 0.05;

/// A flat plate of the folded piece.
#[derive(Debug, Clone)]
pub struct FoldPanel {
    /// The panel's name.
    pub name: String,
    /// The curved panel that it is a strip of, by name.
    pub strip_of: Option<String>,
    /// Sides beyond which the card goes on without a crease.
    pub soft: Vec<[Point; 2]>,
    /// What it does.
    pub role: Role,
    /// The blank it belongs to.
    pub part: usize,
    /// The plate it hangs on, and how: the hinge's ends in that plate's frame.
    pub hang: Option<(usize, [Point; 2])>,
    /// Degrees from flat to closed.
    pub fold: f64,
    /// Distance beside the fold's plane when closed, mm; see [`crate::form::panel::Hinge::lift`].
    pub lift: f64,
    /// Maps its frame to its blank.
    pub frame: Affine,
    /// Its outline in its frame.
    pub ring: Vec<Point>,
    /// What is cut out of it, in its frame.
    pub openings: Vec<Vec<Point>>,
}

/// One step: what to do, and where everything stands when it is done.
#[derive(Debug, Clone)]
pub struct FoldStep {
    /// What to do, in the imperative.
    pub text: String,
    /// Each panel's angle in degrees at the end of the step.
    pub angles: Vec<f64>,
    /// Where each blank's root stands at the end of the step.
    pub roots: Vec<Isometry3<f64>>,
}

/// A flat, ready to be folded.
#[derive(Debug, Clone)]
pub struct FoldModel {
    /// The plates, a parent before its children.
    pub panels: Vec<FoldPanel>,
    /// Where each blank's root lies in the flat.
    pub laid: Vec<Isometry3<f64>>,
    /// The steps, in order.
    pub steps: Vec<FoldStep>,
    /// The card's caliper, mm.
    pub caliper: f64,
    /// How the finished piece stands.
    pub stand: Stand,
    /// What must hold when it is closed.
    pub musts: Vec<Must>,
    /// True where nobody has drawn room for the card's thickness: layers lie in one plane then.
    pub is_thin: bool,
}

impl FoldPanel {
    /// The name that is shown: a strip has that of the panel it belongs to.
    #[must_use]
    pub fn shown_name(&self) -> &str {
        self.strip_of.as_deref().unwrap_or(&self.name)
    }

    /// True for a side of its outline that is a crease or a cut, and so is seen.
    #[must_use]
    pub fn is_seen(&self, from: Point, to: Point) -> bool {
        const SAME: f64 = 1e-6;
        let on = |point: Point, [a, b]: [Point; 2]| {
            let along = b - a;
            let share = (point - a).dot(along) / along.hypot2().max(1e-12);
            (-1e-9..=1.0 + 1e-9).contains(&share) && (a + along * share).distance(point) < SAME
        };
        !self.soft.iter().any(|side| on(from, *side) && on(to, *side))
    }
}

impl FoldModel {
    /// The plates of a flat in card of the given caliper, mm; none of a flat that says nothing of folding.
    #[must_use]
    pub fn new(flat: &Flat, caliper: f64) -> Option<Self> {
        let folding = flat.folding.as_ref()?;
        let mut panels: Vec<FoldPanel> = Vec::new();
        let mut laid = Vec::new();
        for (number, part) in flat.parts.iter().enumerate() {
            let first = panels.len();
            let openings: Vec<&BezPath> = part.openings().collect();
            for placed in &part.panels {
                if placed.hang.is_none() {
                    laid.push(on_the_table(Affine::translate(part.at) * placed.frame));
                }
                let inverse = placed.frame.inverse();
                let local = |path: &BezPath| {
                    flattened_to(&(inverse * path.clone()), COARSE).into_iter().next()
                };
                let holds = Outline::of_path(&placed.outline);
                let inside = |path: &&&BezPath| {
                    let at = path.bounding_box().center();
                    holds.as_ref().is_some_and(|outline| outline.holds(at))
                };
                // A blank that is joined first folds with what it is joined to.
                let joined = part.joined.as_ref().filter(|_| placed.hang.is_none());
                let hang = match (placed.hang, joined) {
                    (Some(hang), _) => Some((first + hang.parent, hang.ends)),
                    (None, Some(joined)) => panels
                        .iter()
                        .position(|panel| panel.name == joined.panel)
                        .map(|parent| (parent, joined.ends)),
                    (None, None) => None,
                };
                let fold = placed.hang.map(|hang| hang.fold).or(joined.map(|joined| joined.fold));
                panels.push(FoldPanel {
                    name: placed.name.clone(),
                    strip_of: placed.strip_of.clone(),
                    soft: placed.soft.clone(),
                    role: placed.role,
                    part: number,
                    hang,
                    fold: fold.unwrap_or(0.0),
                    lift: placed.hang.map_or(0.0, |hang| hang.lift),
                    frame: placed.frame,
                    ring: local(&placed.outline).unwrap_or_default(),
                    openings: openings
                        .iter()
                        .filter(inside)
                        .filter_map(|path| local(path))
                        .collect(),
                });
            }
        }
        let mut model = Self {
            steps: Vec::new(),
            panels,
            laid,
            caliper,
            stand: folding.stand,
            musts: folding.musts.clone(),
            is_thin: flat.drawing.is_some(),
        };
        model.plan(&folding.steps);
        Some(model)
    }

    /// Works out where everything stands after each step.
    fn plan(&mut self, steps: &[Step]) {
        let mut angles = vec![0.0; self.panels.len()];
        let mut roots = self.laid.clone();
        let mut moved = vec![false; self.panels.len()];
        for step in steps {
            for change in &step.moves {
                match change {
                    Move::Lift(blank, by) => {
                        if let Some(root) = roots.get_mut(*blank) {
                            *root = Translation3::new(0.0, 0.0, -by) * *root;
                        }
                    }
                    Move::Carry(blank, rest) => {
                        if let Some(root) = roots.get_mut(*blank) {
                            *root = self.laid[0] * at_rest(rest);
                        }
                    }
                    Move::Turn(name, to) => {
                        if let Some(index) = self.index(name) {
                            (angles[index], moved[index]) = (*to, true);
                        }
                    }
                    Move::Close(name) => {
                        if let Some(index) = self.index(name) {
                            (angles[index], moved[index]) = (self.panels[index].fold, true);
                        }
                    }
                }
            }
            self.steps.push(FoldStep {
                text: step.text.clone(),
                angles: angles.clone(),
                roots: roots.clone(),
            });
        }
        // What no step names closes with the last one, or in a step of its own.
        let left: Vec<usize> = (0..self.panels.len())
            .filter(|index| !moved[*index] && self.panels[*index].fold != 0.0)
            .collect();
        if left.is_empty() {
            return;
        }
        if self.steps.is_empty() {
            self.steps.push(FoldStep { text: "Fold along the creases".to_owned(), angles, roots });
        }
        if let Some(last) = self.steps.last_mut() {
            for index in left {
                last.angles[index] = self.panels[index].fold;
            }
        }
    }

    /// The plate of that name.
    #[must_use]
    pub fn index(&self, name: &str) -> Option<usize> {
        self.panels.iter().position(|panel| panel.name == name)
    }

    /// True when nothing folds and nothing is put together.
    #[must_use]
    pub fn is_flat(&self) -> bool {
        self.steps.is_empty()
    }

    /// The progress at which it is closed.
    #[must_use]
    pub fn closed(&self) -> f64 {
        f64::from(u32::try_from(self.steps.len()).unwrap_or(u32::MAX))
    }
}

/// Where a frame of the flat lies when the flat lies on the table, printed side up.
fn on_the_table(frame: Affine) -> Isometry3<f64> {
    let [a, b, c, d, e, f] = frame.as_coeffs();
    let basis = Matrix3::new(a, c, 0.0, -b, -d, 0.0, 0.0, 0.0, 1.0);
    placed(basis, [e, -f, 0.0])
}

fn at_rest(rest: &Rest) -> Isometry3<f64> {
    let [u, v, w] = rest.axes.map(Vector3::from);
    placed(Matrix3::from_columns(&[u, v, w]), rest.at)
}

fn placed(basis: Matrix3<f64>, at: [f64; 3]) -> Isometry3<f64> {
    let rotation = UnitQuaternion::from_rotation_matrix(&Rotation3::from_matrix_unchecked(basis));
    Isometry3::from_parts(Translation3::from(Vector3::from(at)), rotation)
}
