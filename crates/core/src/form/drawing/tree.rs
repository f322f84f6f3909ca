//! The tree in which a drawing's panels hang on each other: by the longest creases, from the one that stays.

use kurbo::{Affine, Point, Shape, Vec2};

use super::panels::{Divides, SNAP, within};
use super::{Crease, DrawingFacts, LineDrawing, PanelName};
use crate::LineKind;
use crate::form::design::{Stand, Step};
use crate::form::flat::Folding;
use crate::form::panel::Hang;
use crate::form::{Axis, Part, PlacedPanel};
use crate::geometry::{Side, polygon};

/// A crease between two panels.
#[derive(Debug, Clone)]
struct Joint {
    /// The two panels.
    panels: [usize; 2],
    kind: LineKind,
    /// Its ends.
    ends: [Point; 2],
}

pub(super) struct Tree {
    joints: Vec<Joint>,
    /// For each panel the joint at which it hangs and the panel on which.
    hangs: Vec<Option<(usize, usize)>>,
    /// The panels, a parent before its children; those that hang on nothing that the first does are left out.
    order: Vec<usize>,
}

impl Tree {
    /// The tree of panels; those of which it is known hang on the panel that is wanted, where a crease leads to it.
    pub(super) fn of(
        rings: &[(Vec<Point>, Vec<usize>)],
        edges: &[Side<Divides>],
        wanted: &[Option<usize>],
    ) -> Self {
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
        let mut as_wanted = wanted.iter().any(Option::is_some);
        while next < order.len() || as_wanted {
            if next == order.len() {
                // Panels to which no crease leads from where they were wanted hang on any.
                (next, as_wanted) = (0, false);
            }
            let panel = order[next];
            next += 1;
            let mut own: Vec<usize> =
                (0..joints.len()).filter(|at| joints[*at].panels.contains(&panel)).collect();
            let long = |at: usize| joints[at].ends[0].distance(joints[at].ends[1]);
            own.sort_by(|one, other| long(*other).total_cmp(&long(*one)));
            for at in own {
                let [one, other] = joints[at].panels;
                let child = if one == panel { other } else { one };
                let is_wanted = wanted[child].is_none_or(|on| on == panel) || !as_wanted;
                if child != 0 && hangs[child].is_none() && is_wanted {
                    hangs[child] = Some((at, panel));
                    order.push(child);
                }
            }
        }
        Self { joints, hangs, order }
    }

    /// Its panels by their numbers, in the order in which they hang on each other.
    pub(super) fn panels(&self) -> impl Iterator<Item = usize> + '_ {
        self.order.iter().copied()
    }

    /// What its panels are called, in order: as they are told, else by their numbers. No two are called alike.
    pub(super) fn names(&self, told: &[Option<&PanelName>]) -> Vec<String> {
        let mut names: Vec<String> = Vec::with_capacity(self.order.len());
        for (number, panel) in self.order.iter().enumerate() {
            let own = told[*panel].map(|own| own.name.clone());
            let name = own.unwrap_or_else(|| format!("Panel {}", number + 1));
            let is_taken = names.contains(&name);
            names.push(if is_taken { format!("{name} ({})", number + 1) } else { name });
        }
        names
    }

    /// Puts the panels on the blank.
    pub(super) fn place(
        &self,
        drawing: &LineDrawing,
        part: &mut Part,
        facts: &mut DrawingFacts,
        rings: &[(Vec<Point>, Vec<usize>)],
        names: &[String],
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
            let mut own = PlacedPanel::plain(&names[number], outline);
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
                let (fold, told_by) = drawing.angle(facts, &by_file, kind, ends);
                own.hang = Some(Hang { parent: place[parent], ends: local, fold, lift: 0.0 });
                let at = facts.to_blank.inverse() * ends[0].midpoint(ends[1]);
                facts.creases.push(Crease {
                    name: own.name.clone(),
                    on: names[place[parent]].clone(),
                    ends,
                    at: [at.x, at.y],
                    degrees: fold,
                    told_by,
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
