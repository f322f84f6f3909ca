//! The tree in which a drawing's panels hang on each other: by the longest creases, from the one that stays.

use std::collections::BTreeMap;

use kurbo::{Affine, BezPath, Point, Shape, Vec2};

use super::panels::{Divides, Ring};
use super::runs::{Run, creases};
use super::{Crease, DrawingFacts, LineDrawing};
use crate::LineKind;
use crate::form::design::{Move, Stand, Step};
use crate::form::flat::Folding;
use crate::form::panel::Hang;
use crate::form::{Axis, Part, PlacedPanel};
use crate::geometry::{Outline, Side, polygon};
use crate::lines::{PanelName, StepSay, Turn};

/// A crease that stands off its chord by no more, mm, folds there as good as straight.
const FLAT: f64 = 0.5;

/// A crease between two panels, or a place where the card bends between two strips of one.
#[derive(Debug, Clone)]
struct Joint {
    /// The two panels.
    panels: [usize; 2],
    /// What is done along it; nothing where the card bends of itself.
    kind: Option<LineKind>,
    /// Where it folds.
    run: Run,
}

pub(super) struct Tree {
    joints: Vec<Joint>,
    /// For each panel the joint at which it hangs and the panel on which.
    hangs: Vec<Option<(usize, usize)>>,
    /// The panels, a parent before its children; those that hang on nothing that the first does are left out.
    order: Vec<usize>,
    /// For each panel the first of those with which it is one curved panel: itself where it is none.
    wholes: Vec<usize>,
}

impl Tree {
    /// The tree of panels; those of which it is known hang on the panel that is wanted, where a crease leads to it.
    pub(super) fn of(rings: &[Ring], edges: &[Side<Divides>], wanted: &[Option<usize>]) -> Self {
        let joints = joints(rings, edges);
        let wholes = wholes(rings.len(), &joints);
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
            let long = |at: usize| joints[at].run.ends[0].distance(joints[at].run.ends[1]);
            own.sort_by(|one, other| long(*other).total_cmp(&long(*one)));
            for at in own {
                let [one, other] = joints[at].panels;
                let child = if one == panel { other } else { one };
                let is_wanted =
                    wanted[child].is_none_or(|on| wholes[on] == wholes[panel]) || !as_wanted;
                if child != 0 && hangs[child].is_none() && is_wanted {
                    hangs[child] = Some((at, panel));
                    order.push(child);
                }
            }
        }
        // The first of them that was come to.
        let first = |panel: &usize| {
            order.iter().copied().find(|own| wholes[*own] == wholes[*panel]).unwrap_or(*panel)
        };
        let wholes = (0..rings.len()).map(|panel| first(&panel)).collect();
        Self { joints, hangs, order, wholes }
    }

    /// True for a panel that is none of the further strips of a curved one.
    pub(super) fn is_whole(&self, panel: usize) -> bool {
        self.wholes[panel] == panel
    }

    /// Its panels by their numbers, in the order in which they hang on each other.
    pub(super) fn panels(&self) -> impl Iterator<Item = usize> + '_ {
        self.order.iter().copied()
    }

    /// What its panels are called, in order: as they are told, else by their numbers, and the strips of a curved one by
    /// its name and theirs. No two are called alike.
    pub(super) fn names(&self, told: &[Option<&PanelName>]) -> Vec<String> {
        let mut names: Vec<String> = Vec::with_capacity(self.order.len());
        let mut called: BTreeMap<usize, (String, usize)> = BTreeMap::new();
        for panel in &self.order {
            let number = called.len() + 1;
            let own = told[*panel].map(|own| own.name.clone());
            let name = match called.get_mut(&self.wholes[*panel]) {
                Some((whole, strips)) => {
                    *strips += 1;
                    own.unwrap_or_else(|| format!("{whole}, strip {strips}"))
                }
                None => own.unwrap_or_else(|| format!("Panel {number}")),
            };
            let is_taken = names.contains(&name);
            let name = if is_taken { format!("{name} ({})", names.len() + 1) } else { name };
            called.entry(self.wholes[*panel]).or_insert_with(|| (name.clone(), 1));
            names.push(name);
        }
        names
    }

    /// Puts the panels on the blank.
    pub(super) fn place(
        &self,
        drawing: &LineDrawing,
        part: &mut Part,
        facts: &mut DrawingFacts,
        (rings, edges): (&[Ring], &[Side<Divides>]),
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
            Some((middle(&own)?, -degrees))
        });
        let by_file: Vec<(Point, f64)> = told.collect();
        facts.creases.clear();
        for (number, panel) in self.order.iter().enumerate() {
            place[*panel] = number;
            let outline = polygon(&rings[*panel].0);
            let mut own = PlacedPanel::plain(&names[number], outline);
            if let Some((joint, parent)) = self.hangs[*panel] {
                let Joint { panels: of, kind, run: Run { ends, bow } } = self.joints[joint];
                facts.curved += usize::from(bow > FLAT);
                let to_parent = frames[parent].inverse();
                // As the panel on which it hangs is walked, so that it lies to the left of its hinge.
                let mut local = ends.map(|end| to_parent * end);
                if of[0] != parent {
                    local.swap(0, 1);
                }
                let along = (local[1] - local[0]).normalize();
                let away = Vec2::new(-along.y, along.x);
                let hinge = Affine::new([along.x, along.y, away.x, away.y, local[0].x, local[0].y]);
                frames[*panel] = frames[parent] * hinge;
                // What bends of itself is no further fold.
                depth[*panel] = depth[parent] + usize::from(kind.is_some());
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
            let (ring, sides) = &rings[*panel];
            let to_own = own.frame.inverse();
            let ends = ring.iter().zip(ring.iter().cycle().skip(1));
            let bends =
                sides.iter().zip(ends).filter(|(side, _)| edges[**side].what == Divides::Bend);
            own.soft = bends.map(|(_, (from, to))| [to_own * *from, to_own * *to]).collect();
            if !own.soft.is_empty() {
                own.strip_of = Some(names[place[self.wholes[*panel]]].clone());
            }
            panels.push(own);
        }
        facts.apart = rings.len() - self.order.len();
        let steps = match drawing.steps.as_slice() {
            [] => self.steps(&depth, names),
            told => as_told(told, facts.to_blank, &panels),
        };
        let folding = Folding {
            main: self.main(),
            steps,
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

    /// What folds when: first what is curved is bowed, then the panels that hang farthest from the one that stays.
    fn steps(&self, depth: &[usize], names: &[String]) -> Vec<Step> {
        let bows = |panel: usize| {
            self.hangs[panel].is_some_and(|(joint, _)| self.joints[joint].kind.is_none())
        };
        let moved = |own: &dyn Fn(usize) -> bool| -> Vec<&str> {
            let named = self.order.iter().zip(names).filter(|(panel, _)| own(**panel));
            named.map(|(_, name)| name.as_str()).collect()
        };
        let bowed = moved(&bows);
        let bow = (!bowed.is_empty()).then(|| Step::close("Bow what is curved", bowed));
        let deepest = depth.iter().copied().max().unwrap_or(0);
        let folds = (1..=deepest).rev().map(|level| {
            let names = moved(&|panel| depth[panel] == level && !bows(panel));
            let text = match names.as_slice() {
                [one] => format!("Fold {}", one.to_lowercase()),
                [first, .., last] => {
                    format!("Fold {} to {}", first.to_lowercase(), last.to_lowercase())
                }
                [] => String::new(),
            };
            Step::close(text, names)
        });
        bow.into_iter().chain(folds).collect()
    }

    /// The way most of its creases run.
    fn main(&self) -> Axis {
        let [mut across, mut along] = [0.0, 0.0];
        for Joint { run, .. } in &self.joints {
            let way = run.ends[1] - run.ends[0];
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

/// The steps that are told, of the panels that are still there.
fn as_told(told: &[StepSay], to_blank: Affine, panels: &[PlacedPanel]) -> Vec<Step> {
    let outlines: Vec<Option<Outline>> =
        panels.iter().map(|panel| Outline::of_path(&panel.outline)).collect();
    let turn = |turn: &Turn| {
        let at = to_blank * Point::new(turn.at[0], turn.at[1]);
        let own = outlines.iter().position(|own| own.as_ref().is_some_and(|own| own.holds(at)))?;
        let name = panels[own].name.clone();
        panels[own].hang?;
        Some(turn.degrees.map_or(Move::Close(name.clone()), |degrees| Move::Turn(name, degrees)))
    };
    let steps = told.iter().map(|step| Step {
        text: step.text.clone(),
        moves: step.turns.iter().filter_map(turn).collect(),
    });
    steps.filter(|step| !step.moves.is_empty()).collect()
}

/// The creases and bends between panels, each in the way in which the first of its panels is walked round.
fn joints(rings: &[Ring], edges: &[Side<Divides>]) -> Vec<Joint> {
    let mut beside: Vec<Vec<(usize, [Point; 2])>> = vec![Vec::new(); edges.len()];
    for (panel, (ring, sides)) in rings.iter().enumerate() {
        let ends = ring.iter().zip(ring.iter().cycle().skip(1));
        for (side, (from, to)) in sides.iter().zip(ends) {
            beside[*side].push((panel, [*from, *to]));
        }
    }
    let mut between: BTreeMap<_, Vec<[Point; 2]>> = BTreeMap::new();
    for (edge, panels) in edges.iter().zip(&beside) {
        let kind = match edge.what {
            Divides::Fold(kind) => Some(kind),
            Divides::Bend => None,
            Divides::Cut => continue,
        };
        let [one, other] = panels.as_slice() else { continue };
        let (first, second) = if one.0 < other.0 { (one, other) } else { (other, one) };
        if first.0 != second.0 {
            between.entry(([first.0, second.0], kind)).or_default().push(first.1);
        }
    }
    let joints = between.into_iter().flat_map(|((panels, kind), sides)| {
        creases(&sides).into_iter().map(move |run| Joint { panels, kind, run })
    });
    joints.collect()
}

/// For each panel the first of those to which bends lead from it.
fn wholes(panels: usize, joints: &[Joint]) -> Vec<usize> {
    let mut wholes: Vec<usize> = (0..panels).collect();
    for joint in joints.iter().filter(|joint| joint.kind.is_none()) {
        let [one, other] = joint.panels.map(|panel| wholes[panel]);
        let (first, second) = (one.min(other), one.max(other));
        wholes.iter_mut().filter(|own| **own == second).for_each(|own| *own = first);
    }
    wholes
}

/// The middle between a line's ends; of a closed one that of its bounds.
fn middle(path: &BezPath) -> Option<Point> {
    let (first, last) = (path.elements().first()?, path.elements().last()?);
    let ends = first.end_point().zip(last.end_point());
    Some(ends.map_or_else(|| path.bounding_box().center(), |(from, to)| from.midpoint(to)))
}
