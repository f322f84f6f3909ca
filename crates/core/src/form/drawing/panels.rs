//! Panels of a drawing: the areas between its outline, its cuts and its creases, and the tree in which they hang on each
//! other.

use kurbo::{Affine, BezPath, PathEl, Point, Shape, Vec2};

use super::{Crease, DrawingFacts, LineDrawing};
use crate::LineKind;
use crate::form::design::{Stand, Step};
use crate::form::flat::Folding;
use crate::form::panel::Hang;
use crate::form::{Axis, Part, PlacedPanel};
use crate::geometry::{Outline, Side, faces, flattened_to, polygon};

/// Corners that are no farther apart are one, mm.
const SNAP: f64 = 0.06;

/// How far curves may stray where they are looked at as sides, mm.
const CURVES: f64 = 0.02;

/// Most sides that are looked at.
const MOST_SIDES: usize = 12_000;

/// Most panels that fold.
const MOST_PANELS: usize = 2500;

/// A panel that has less is a slip of the pen, mm².
const LEAST: f64 = 1.0;

/// What divides panels, from the weakest.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
enum Divides {
    Fold(LineKind),
    Cut,
}

impl LineDrawing {
    /// Divides a blank into panels, where it has creases; how it folds then.
    pub(super) fn divide(&self, part: &mut Part, facts: &mut DrawingFacts) -> Option<Folding> {
        let is_fold = |kind: LineKind| {
            matches!(
                kind,
                LineKind::Crease
                    | LineKind::ReverseCrease
                    | LineKind::Score
                    | LineKind::Perforation
            )
        };
        if !part.strokes.iter().any(|stroke| is_fold(stroke.kind)) {
            return None;
        }
        let mut sides: Vec<Side<Divides>> = Vec::new();
        let mut add = |path: &BezPath, what: Divides| {
            let is_closed = path.elements().last() == Some(&PathEl::ClosePath);
            for ring in flattened_to(path, CURVES) {
                let back = ring.first().copied().filter(|_| is_closed);
                let ends: Vec<Point> = ring.into_iter().chain(back).collect();
                let pairs = ends.windows(2);
                sides.extend(pairs.map(|pair| Side { from: pair[0], to: pair[1], what }));
            }
        };
        add(&part.outline, Divides::Cut);
        for stroke in &part.strokes {
            match stroke.kind {
                LineKind::Cut => add(&stroke.path, Divides::Cut),
                kind if is_fold(kind) => add(&stroke.path, Divides::Fold(kind)),
                _ => {}
            }
        }
        if sides.len() > MOST_SIDES {
            return None;
        }
        let divided = faces(&sides, SNAP);
        facts.dead_ends = divided.dangling;
        let openings: Vec<Outline> = part.openings().filter_map(Outline::of_path).collect();
        let whole: Vec<Outline> =
            crate::geometry::contours(&part.outline).iter().filter_map(Outline::of_path).collect();
        let mut rings: Vec<(Vec<Point>, Vec<usize>)> = divided
            .faces
            .into_iter()
            .filter(|face| {
                let inside = within(&face.ring);
                area(&face.ring) >= LEAST
                    && whole.iter().any(|own| own.holds(inside))
                    && !openings.iter().any(|own| own.holds(inside))
            })
            .map(|face| (face.ring, face.sides))
            .collect();
        // The largest first, or the one that is chosen.
        rings.sort_by(|one, other| area(&other.0).total_cmp(&area(&one.0)));
        if let Some(at) = self.root {
            let at = facts.to_blank * Point::new(at[0], at[1]);
            let chosen = rings
                .iter()
                .position(|(ring, _)| Outline::new(ring.clone()).is_some_and(|own| own.holds(at)));
            if let Some(chosen) = chosen {
                let own = rings.remove(chosen);
                rings.insert(0, own);
            }
        }
        if rings.len() < 2 || rings.len() > MOST_PANELS {
            return None;
        }
        let tree = Tree::of(&rings, &divided.edges);
        tree.place(self, part, facts, &rings)
    }

    /// How far a crease folds, degrees, and whether somebody has said so.
    fn angle(
        &self,
        facts: &DrawingFacts,
        by_file: &[(Point, f64)],
        kind: LineKind,
        ends: [Point; 2],
    ) -> (f64, bool) {
        let middle = ends[0].midpoint(ends[1]);
        let told = |at: Point, reach: f64| {
            let along = ends[1] - ends[0];
            let share = (at - ends[0]).dot(along) / along.hypot2().max(1e-18);
            let near = ends[0] + along * share.clamp(0.0, 1.0);
            near.distance(at) <= reach
        };
        let say = self
            .folds
            .iter()
            .find(|say| told(facts.to_blank * Point::new(say.at[0], say.at[1]), 0.5));
        if let Some(say) = say {
            return (say.degrees, true);
        }
        let by_file = by_file.iter().filter(|(at, _)| told(*at, 0.1));
        let nearest = by_file
            .min_by(|one, other| one.0.distance(middle).total_cmp(&other.0.distance(middle)));
        if let Some((_, degrees)) = nearest {
            return (*degrees, false);
        }
        (if kind == LineKind::ReverseCrease { -SQUARE } else { SQUARE }, false)
    }
}

/// What creases fold by until told otherwise, degrees.
const SQUARE: f64 = 90.0;

/// A crease between two panels.
#[derive(Debug, Clone)]
struct Joint {
    /// The two panels.
    panels: [usize; 2],
    kind: LineKind,
    /// Its ends.
    ends: [Point; 2],
}

struct Tree {
    joints: Vec<Joint>,
    /// For each panel the joint at which it hangs and the panel on which.
    hangs: Vec<Option<(usize, usize)>>,
    /// The panels, a parent before its children; those that hang on nothing that the first does are left out.
    order: Vec<usize>,
}

impl Tree {
    fn of(rings: &[(Vec<Point>, Vec<usize>)], edges: &[Side<Divides>]) -> Self {
        let mut beside: Vec<Vec<usize>> = vec![Vec::new(); edges.len()];
        for (panel, (_, sides)) in rings.iter().enumerate() {
            for side in sides {
                beside[*side].push(panel);
            }
        }
        let mut joints: Vec<Joint> = Vec::new();
        for (edge, panels) in edges.iter().zip(&beside) {
            let (Divides::Fold(kind), [one, other]) = (edge.what, panels.as_slice()) else {
                continue;
            };
            if one == other {
                continue;
            }
            let panels = [*one.min(other), *one.max(other)];
            let own = [edge.from, edge.to];
            // A crease that others meet is one all the same.
            let known = joints
                .iter_mut()
                .find(|joint| joint.panels == panels && is_in_line(joint.ends, own));
            match known {
                Some(joint) => joint.ends = widest(joint.ends, own),
                None => joints.push(Joint { panels, kind, ends: own }),
            }
        }
        // Panels hang by the longest crease that leads to them, step by step from the first.
        let mut hangs: Vec<Option<(usize, usize)>> = vec![None; rings.len()];
        let mut order = vec![0];
        let mut next = 0;
        while next < order.len() {
            let panel = order[next];
            next += 1;
            let mut own: Vec<usize> =
                (0..joints.len()).filter(|at| joints[*at].panels.contains(&panel)).collect();
            let long = |at: usize| joints[at].ends[0].distance(joints[at].ends[1]);
            own.sort_by(|one, other| long(*other).total_cmp(&long(*one)));
            for at in own {
                let [one, other] = joints[at].panels;
                let child = if one == panel { other } else { one };
                if child != 0 && hangs[child].is_none() {
                    hangs[child] = Some((at, panel));
                    order.push(child);
                }
            }
        }
        Self { joints, hangs, order }
    }

    /// Puts the panels on the blank.
    fn place(
        &self,
        drawing: &LineDrawing,
        part: &mut Part,
        facts: &mut DrawingFacts,
        rings: &[(Vec<Point>, Vec<usize>)],
    ) -> Option<Folding> {
        if self.order.len() < 2 {
            return None;
        }
        let corner = polygon(&rings[0].0).bounding_box();
        let mut frames: Vec<Affine> = vec![Affine::IDENTITY; rings.len()];
        frames[0] = Affine::new([1.0, 0.0, 0.0, -1.0, corner.x0, corner.y1]);
        let mut place = vec![0; rings.len()];
        let mut depth = vec![0usize; rings.len()];
        let mut panels: Vec<PlacedPanel> = Vec::new();
        // In a file valleys, which fold towards the reader, are above 0.
        let told = facts.lines.angles.iter().filter_map(|(line, degrees)| {
            let own = facts.to_blank * facts.lines.lines.get(*line)?.path.clone();
            Some((own.bounding_box().center(), -degrees))
        });
        let by_file: Vec<(Point, f64)> = told.collect();
        facts.creases.clear();
        for (number, panel) in self.order.iter().enumerate() {
            place[*panel] = number;
            let outline = polygon(&rings[*panel].0);
            let mut own = PlacedPanel::plain(&format!("Panel {}", number + 1), outline);
            if let Some((joint, parent)) = self.hangs[*panel] {
                let Joint { kind, ends, .. } = self.joints[joint];
                let to_parent = frames[parent].inverse();
                let mut local = ends.map(|end| to_parent * end);
                // The panel lies to the left of its hinge.
                let inside = to_parent * within(&rings[*panel].0);
                if (local[1] - local[0]).cross(inside - local[0]) < 0.0 {
                    local.swap(0, 1);
                }
                let along = (local[1] - local[0]).normalize();
                let away = Vec2::new(-along.y, along.x);
                let hinge = Affine::new([along.x, along.y, away.x, away.y, local[0].x, local[0].y]);
                frames[*panel] = frames[parent] * hinge;
                depth[*panel] = depth[parent] + 1;
                let (fold, is_told) = drawing.angle(facts, &by_file, kind, ends);
                own.hang = Some(Hang { parent: place[parent], ends: local, fold, lift: 0.0 });
                let at = facts.to_blank.inverse() * ends[0].midpoint(ends[1]);
                facts.creases.push(Crease {
                    name: own.name.clone(),
                    on: format!("Panel {}", place[parent] + 1),
                    ends,
                    at: [at.x, at.y],
                    degrees: fold,
                    is_told,
                });
                let ring = rings[*panel].0.iter().map(|at| frames[*panel].inverse() * *at);
                own.reach = Some(ring.map(|at| at.y).fold(0.0, f64::max));
            }
            own.frame = frames[*panel];
            panels.push(own);
        }
        facts.apart = rings.len() - self.order.len();
        let deepest = self.order.iter().map(|panel| depth[*panel]).max().unwrap_or(0);
        let steps = (1..=deepest).rev().map(|level| {
            let names: Vec<&str> = self
                .order
                .iter()
                .zip(&panels)
                .filter(|(panel, _)| depth[**panel] == level)
                .map(|(_, own)| own.name.as_str())
                .collect();
            let text = match names.as_slice() {
                [one] => format!("Fold {}", one.to_lowercase()),
                [first, .., last] => {
                    format!("Fold {} to {}", first.to_lowercase(), last.to_lowercase())
                }
                [] => String::new(),
            };
            Step::close(text, names)
        });
        let folding = Folding {
            main: self.main(),
            steps: steps.collect(),
            musts: Vec::new(),
            // Its open side up.
            stand: if panels.iter().filter_map(|own| own.hang).map(|own| own.fold).sum::<f64>()
                > 0.0
            {
                Stand::OnFirst
            } else {
                Stand::Lying
            },
            ruling: 0.0,
        };
        part.panels = panels;
        Some(folding)
    }

    /// The way most of its creases run.
    fn main(&self) -> Axis {
        let [mut across, mut along] = [0.0, 0.0];
        for Joint { ends, .. } in &self.joints {
            let way = ends[1] - ends[0];
            across += way.x.abs();
            along += way.y.abs();
        }
        if across > 1.5 * along {
            Axis::Across
        } else if along > 1.5 * across {
            Axis::Along
        } else {
            Axis::Both
        }
    }
}

fn area(ring: &[Point]) -> f64 {
    let next = ring.iter().cycle().skip(1);
    ring.iter().zip(next).map(|(a, b)| a.to_vec2().cross(b.to_vec2()) / 2.0).sum::<f64>().abs()
}

/// A place inside a ring: beside the middle of one of its sides.
fn within(ring: &[Point]) -> Point {
    let outline = Outline::new(ring.to_vec());
    let next = ring.iter().cycle().skip(1);
    let mut sides: Vec<(Point, Point)> = ring.iter().copied().zip(next.copied()).collect();
    sides.sort_by(|one, other| other.0.distance(other.1).total_cmp(&one.0.distance(one.1)));
    for (a, b) in sides {
        let across = b - a;
        if across.hypot() < 1e-9 {
            continue;
        }
        let away = Vec2::new(-across.y, across.x).normalize();
        for step in [0.5, 0.05, 0.005] {
            for way in [1.0, -1.0] {
                let at = a.midpoint(b) + away * (step * way);
                if outline.as_ref().is_some_and(|own| own.holds(at)) {
                    return at;
                }
            }
        }
    }
    ring.first().copied().unwrap_or_default()
}

fn is_in_line(one: [Point; 2], other: [Point; 2]) -> bool {
    let along = (one[1] - one[0]).normalize();
    other.iter().all(|end| (*end - one[0]).cross(along).abs() < 2.0 * SNAP)
}

/// The two ends that are farthest apart.
fn widest(one: [Point; 2], other: [Point; 2]) -> [Point; 2] {
    let all = [one[0], one[1], other[0], other[1]];
    let along = (one[1] - one[0]).normalize();
    let far = |end: &&Point| (**end - one[0]).dot(along);
    let least = all.iter().min_by(|a, b| far(a).total_cmp(&far(b)));
    let most = all.iter().max_by(|a, b| far(a).total_cmp(&far(b)));
    [*least.unwrap_or(&one[0]), *most.unwrap_or(&one[1])]
}
