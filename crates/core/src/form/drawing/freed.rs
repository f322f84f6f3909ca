//! A structure of the catalogue set free from its figures: its lines as those of a drawing, which folds as it did.

use std::collections::BTreeMap;

use kurbo::{Affine, BezPath, Point};

use super::panels::within;
use super::{FoldSay, LineDrawing, ReadLines};
use crate::LineKind;
use crate::blob::{BlobId, Origin};
use crate::form::design::{Move, Step};
use crate::form::{Flat, Part, PlacedPanel, Role};
use crate::geometry::{contours, flattened};
use crate::lines::{
    Group, LineKey, Lines, LinesError, Look, Meaning, PanelName, Scale, StepSay, ToldFolding, Turn,
};

/// How far a crease folds by itself, degrees, is left untold within this; ends so near, mm, are one.
const SAME: f64 = 1e-6;

impl LineDrawing {
    /// The lines of a flat, in mm, and the drawing that they are until they are kept somewhere.
    ///
    /// # Errors
    /// More lines than a drawing may have.
    pub fn freed(flat: &Flat, name: &str) -> Result<(Lines, Self), LinesError> {
        let mut drawn: Vec<(Group, BezPath)> = Vec::new();
        let mut key: BTreeMap<String, Meaning> = BTreeMap::new();
        let mut add = |kind: LineKind, path: BezPath| {
            let (meaning, colour) = Meaning::of(kind);
            let look = Look::Hairline;
            let group = Group { layer: kind.name().to_owned(), colour: colour.to_owned(), look };
            key.insert(group.id(), meaning);
            drawn.push((group, path));
        };
        for part in &flat.parts {
            let place = Affine::translate(part.at);
            for outline in contours(&part.outline) {
                add(part.edge, place * outline);
            }
            for stroke in &part.strokes {
                add(part.kind(stroke.kind), place * stroke.path.clone());
            }
        }
        for bend in flat.parts.iter().flat_map(bends) {
            let layer = "bend".to_owned();
            let group = Group { layer, colour: BENDS.to_owned(), look: Look::Hairline };
            key.insert(group.id(), Meaning::Bend);
            drawn.push((group, bend));
        }
        let lines = Lines::gathered(Some(1.0), drawn, 0, 0)?;
        let origin = Origin { name: name.to_owned(), ..Origin::default() };
        let mut drawing = Self::new(BlobId(String::new()), origin, LineKey(key));
        drawing.scale = Some(Scale::Stated);
        drawing.folds = flat.parts.iter().flat_map(told).collect();
        drawing.read = ReadLines(None);
        Ok((lines, drawing.folding_as(Self::told_by(flat))))
    }

    /// What there is to tell of a flat's folding beside its lines and angles.
    #[must_use]
    pub fn told_by(flat: &Flat) -> ToldFolding {
        let first = flat.parts.first().and_then(|part| names(part).next());
        ToldFolding {
            root: first.map(|own| own.at),
            names: flat.parts.iter().flat_map(names).collect(),
            steps: flat.folding.iter().flat_map(|own| steps(flat, &own.steps)).collect(),
        }
    }
}

/// The colour of bends in a drawing of their own.
const BENDS: &str = "#6d7d3f";

/// The straight lines along which a blank's curved panels bend, each once.
fn bends(part: &Part) -> Vec<BezPath> {
    let place = Affine::translate(part.at);
    let mut found: Vec<[Point; 2]> = Vec::new();
    for panel in &part.panels {
        for ends in panel.soft.iter().map(|side| side.map(|end| place * panel.frame * end)) {
            let same = |own: &[Point; 2]| {
                let near = |a: usize, b: usize| {
                    own[0].distance(ends[a]) < SAME && own[1].distance(ends[b]) < SAME
                };
                near(0, 1) || near(1, 0)
            };
            if !found.iter().any(same) {
                found.push(ends);
            }
        }
    }
    let line = |[from, to]: [Point; 2]| {
        let mut path = BezPath::new();
        path.move_to(from);
        path.line_to(to);
        path
    };
    found.into_iter().map(line).collect()
}

/// Where the creases of a blank fold otherwise than by themselves.
fn told(part: &Part) -> impl Iterator<Item = FoldSay> + '_ {
    part.panels.iter().filter_map(|panel| {
        let hang = panel.hang?;
        let parent = part.panels.get(hang.parent)?;
        let ends = hang.ends.map(|end| Affine::translate(part.at) * parent.frame * end);
        let middle = ends[0].midpoint(ends[1]);
        // What bends has no angle of its own.
        let is_told = panel.strip_of.is_some() || (hang.fold - 90.0).abs() > SAME;
        is_told.then_some(FoldSay {
            at: [middle.x, middle.y],
            degrees: hang.fold.clamp(-180.0, 180.0),
        })
    })
}

/// What folds when. Blanks that are carried are no part of a drawing: they are not told.
fn steps(flat: &Flat, steps: &[Step]) -> Vec<StepSay> {
    let place = |name: &str| {
        let (part, panel) = flat
            .parts
            .iter()
            .find_map(|part| Some((part, part.panels.iter().find(|panel| panel.name == name)?)))?;
        let ring: Vec<Point> = flattened(&panel.outline).into_iter().next()?;
        let at = within(&ring) + part.at;
        Some([at.x, at.y])
    };
    let turn = |own: &Move| match own {
        Move::Close(name) => Some(Turn { at: place(name)?, degrees: None }),
        Move::Turn(name, degrees) => Some(Turn { at: place(name)?, degrees: Some(*degrees) }),
        Move::Lift(..) | Move::Carry(..) => None,
    };
    let told = steps.iter().map(|step| StepSay {
        text: step.text.clone(),
        turns: step.moves.iter().filter_map(turn).collect(),
    });
    told.filter(|step| !step.turns.is_empty()).collect()
}

/// What its panels are called, the one that stays first.
fn names(part: &Part) -> impl Iterator<Item = PanelName> + '_ {
    let mut panels: Vec<_> = part.panels.iter().collect();
    panels.sort_by_key(|panel| panel.hang.is_some());
    panels.into_iter().filter_map(|panel| {
        let parent = panel.hang.and_then(|hang| part.panels.get(hang.parent));
        // What lies in strips is one panel, told by the strip that hangs on another.
        if parent.is_some_and(|parent| called(parent) == called(panel)) {
            return None;
        }
        let ring: Vec<Point> = flattened(&panel.outline).into_iter().next()?;
        let at = within(&ring) + part.at;
        let on = parent.map(|parent| called(parent).to_owned());
        Some(PanelName { at: [at.x, at.y], name: called(panel).to_owned(), on })
    })
}

/// The strips of a curved face go by its name; those of flaps, of which one name may stand for two, by their own.
fn called(panel: &PlacedPanel) -> &str {
    if panel.role == Role::Face { panel.shown_name() } else { &panel.name }
}
