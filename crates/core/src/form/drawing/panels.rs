//! Panels of a drawing: the areas between its outline, its cuts and its creases.

use kurbo::{BezPath, PathEl, Point, Vec2};

use super::tree::Tree;
use super::{DrawingFacts, DrawnPanel, LineDrawing};
use crate::LineKind;
use crate::form::Part;
use crate::form::flat::Folding;
use crate::geometry::{Outline, Side, faces, flattened_to};
use crate::lines::PanelName;

/// Corners that are no farther apart are one, mm.
pub(super) const SNAP: f64 = 0.06;

/// How far curves may stray where they are looked at as sides, mm.
const CURVES: f64 = 0.02;

/// Most sides that are looked at.
const MOST_SIDES: usize = 12_000;

/// Most panels that fold.
const MOST_PANELS: usize = 2500;

/// A panel that has less is a slip of the pen, mm².
const LEAST: f64 = 1.0;

/// A panel's corners, and for each the side to the next, by its number.
pub(super) type Ring = (Vec<Point>, Vec<usize>);

/// What divides panels, from the weakest.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Divides {
    Bend,
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
        if facts.bends.is_empty() && !part.strokes.iter().any(|stroke| is_fold(stroke.kind)) {
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
        facts.bends.iter().for_each(|path| add(path, Divides::Bend));
        if sides.len() > MOST_SIDES {
            return None;
        }
        let divided = faces(&sides, SNAP);
        // A perforation may end wherever it likes.
        let folds = |what: &&Divides| match what {
            Divides::Fold(kind) => *kind != LineKind::Perforation,
            Divides::Bend => true,
            Divides::Cut => false,
        };
        facts.dead_ends = divided.dangling.iter().filter(folds).count();
        let openings: Vec<Outline> = part.openings().filter_map(Outline::of_path).collect();
        let whole: Vec<Outline> =
            crate::geometry::contours(&part.outline).iter().filter_map(Outline::of_path).collect();
        let mut rings: Vec<Ring> = divided
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
        let told = self.told(facts, &rings);
        let by_name =
            |name: &str| told.iter().position(|own| own.is_some_and(|own| own.name == name));
        let wanted: Vec<Option<usize>> =
            told.iter().map(|own| own.and_then(|own| by_name(own.on.as_ref()?))).collect();
        let tree = Tree::of(&rings, &divided.edges, &wanted);
        let names = tree.names(&told);
        let back = facts.to_blank.inverse();
        // What is curved is one panel, whatever it is ruled into.
        let panels = tree.panels().zip(&names).filter(|(panel, _)| tree.is_whole(*panel));
        let panels = panels.map(|(panel, name)| {
            let at = back * within(&rings[panel].0);
            let own = told[panel].and_then(|own| self.names.iter().position(|name| name == own));
            DrawnPanel { name: name.clone(), at: [at.x, at.y], told_by: own }
        });
        facts.panels = panels.collect();
        tree.place(self, part, facts, (&rings, &divided.edges), &names)
    }

    /// What is told of each panel: its name, and on which it hangs.
    fn told<'a>(&'a self, facts: &DrawingFacts, rings: &[Ring]) -> Vec<Option<&'a PanelName>> {
        if self.names.is_empty() {
            return vec![None; rings.len()];
        }
        let place = |at: [f64; 2]| facts.to_blank * Point::new(at[0], at[1]);
        let told = rings.iter().map(|(ring, _)| {
            let own = Outline::new(ring.clone())?;
            self.names.iter().find(|name| own.holds(place(name.at)))
        });
        told.collect()
    }

    /// How far a crease folds, degrees, and which of those that are told says so.
    pub(super) fn angle(
        &self,
        facts: &DrawingFacts,
        by_file: &[(Point, f64)],
        kind: Option<LineKind>,
        ends: [Point; 2],
    ) -> (f64, Option<usize>) {
        let middle = ends[0].midpoint(ends[1]);
        let away = |at: Point| {
            let along = ends[1] - ends[0];
            let share = (at - ends[0]).dot(along) / along.hypot2().max(1e-18);
            (ends[0] + along * share.clamp(0.0, 1.0)).distance(at)
        };
        let place = |at: [f64; 2]| facts.to_blank * Point::new(at[0], at[1]);
        let told = self.folds.iter().enumerate().map(|(at, say)| (at, away(place(say.at))));
        let say = told
            .filter(|(_, away)| *away <= 0.5)
            .min_by(|(_, one), (_, other)| one.total_cmp(other));
        if let Some((say, _)) = say {
            return (self.folds[say].degrees, Some(say));
        }
        let by_file = by_file.iter().filter(|(at, _)| away(*at) <= 0.1);
        let nearest = by_file
            .min_by(|one, other| one.0.distance(middle).total_cmp(&other.0.distance(middle)));
        if let Some((_, degrees)) = nearest {
            return (*degrees, None);
        }
        let by_itself = match kind {
            Some(LineKind::ReverseCrease) => -SQUARE,
            // The one tears; how far the other bends nobody knows.
            Some(LineKind::Perforation) | None => 0.0,
            _ => SQUARE,
        };
        (by_itself, None)
    }
}

/// What creases fold by until told otherwise, degrees.
const SQUARE: f64 = 90.0;

fn area(ring: &[Point]) -> f64 {
    let next = ring.iter().cycle().skip(1);
    ring.iter().zip(next).map(|(a, b)| a.to_vec2().cross(b.to_vec2()) / 2.0).sum::<f64>().abs()
}

/// A place inside a ring: beside the middle of one of its sides.
pub(super) fn within(ring: &[Point]) -> Point {
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
