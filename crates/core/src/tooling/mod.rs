//! Tooling: what is cut on a sheet, decided once. Files and views read the plan and decide nothing themselves.

mod checks;
mod holding;
mod operations;
mod order;
mod path;
mod perforated;
mod shared;
mod trailing;

use std::borrow::Cow;

use kurbo::{BezPath, ParamCurveArclen};

pub(crate) use checks::tooling_checks;
pub use holding::nicked;
pub use operations::{Operation, operations, tool_for};
pub use order::{Strand, Turn, order, travel};
pub use path::{Stretch, ToolPath, Worked};
pub use perforated::perforated;
use shared::cut_once;
pub use trailing::{axis_way, overcut};

use crate::LineKind;
use crate::form::Part;
use crate::id::StrokeId;
use crate::memory::{ELEMENT, Weighty};
use crate::sheet::Placement;
use crate::stroke::Stroke;

/// One stroke on a sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct PlannedStroke {
    /// The copy that it is cut for, by its place among the sheet's.
    pub copy: usize,
    /// Which of the blank's strokes it is, or a part of.
    pub stroke: StrokeId,
    /// What happens along it.
    pub kind: LineKind,
    /// How often the tool goes along it.
    pub times: u32,
    /// Where it runs on the sheet, mm: one subpath.
    pub path: BezPath,
}

/// Everything that is worked on one sheet, in the order of work: what presses first, what frees a piece last.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct CutPlan {
    /// The strokes.
    pub strokes: Vec<PlannedStroke>,
    /// How much was asked for twice and is cut once, mm.
    pub left_out: f64,
}

impl CutPlan {
    /// The plan of a sheet with these copies of these blanks.
    ///
    /// Edges that copies share, straight or curved, are in it once, in both kinds of cut. A pattern is the cuts
    /// that it is made of.
    #[must_use]
    pub fn of(blanks: &[&Part], placements: &[Placement]) -> Self {
        let blanks: Vec<Vec<(Stroke, Vec<BezPath>)>> = blanks
            .iter()
            .map(|part| {
                part.all_strokes().map(|stroke| (stroke.clone(), worked(&stroke))).collect()
            })
            .collect();
        let mut strokes: Vec<PlannedStroke> = Vec::new();
        let mut left_out = 0.0;
        for kind in LineKind::IN_ORDER {
            let placed = placements.iter().enumerate();
            let placed = placed.filter_map(|(copy, at)| Some((copy, at, blanks.get(at.part)?)));
            let own: Vec<PlannedStroke> = placed
                .flat_map(|(copy, at, blank)| {
                    let of_kind = blank.iter().filter(|(stroke, _)| stroke.kind == kind);
                    of_kind.flat_map(move |(stroke, paths)| {
                        paths.iter().map(move |path| PlannedStroke {
                            copy,
                            stroke: stroke.id.clone(),
                            kind,
                            times: stroke.times,
                            path: at.place(path),
                        })
                    })
                })
                .collect();
            if matches!(kind, LineKind::Cut | LineKind::KissCut) {
                let paths: Vec<&BezPath> = own.iter().map(|stroke| &stroke.path).collect();
                let asked: f64 = own.iter().map(|stroke| length(&stroke.path)).sum();
                let first = strokes.len();
                strokes.extend(cut_once(&paths).into_iter().map(|(of, path)| PlannedStroke {
                    path,
                    stroke: own[of].stroke.clone(),
                    ..own[of]
                }));
                let cut: f64 = strokes[first..].iter().map(|stroke| length(&stroke.path)).sum();
                left_out += (asked - cut).max(0.0);
            } else {
                strokes.extend(own);
            }
        }
        Self { strokes, left_out }
    }

    /// The plan of one blank by itself, where it was drawn.
    #[must_use]
    pub fn alone(part: &Part) -> Self {
        Self::of(&[part], &[Placement::default()])
    }

    /// The strokes of a kind, in their order.
    pub fn of_kind(&self, kind: LineKind) -> impl Iterator<Item = &BezPath> {
        self.strokes.iter().filter(move |stroke| stroke.kind == kind).map(|stroke| &stroke.path)
    }
}

impl Weighty for CutPlan {
    fn weight(&self) -> usize {
        let elements = self.strokes.iter().map(|stroke| stroke.path.elements().len());
        size_of::<PlannedStroke>() * self.strokes.len() + ELEMENT * elements.sum::<usize>()
    }
}

fn length(path: &BezPath) -> f64 {
    path.segments().map(|segment| segment.arclen(0.01)).sum()
}

/// What of a stroke is worked, a subpath each.
fn worked(stroke: &Stroke) -> Vec<BezPath> {
    let path = match stroke.pattern {
        Some(pattern) => Cow::Owned(perforated(&stroke.path, pattern)),
        None => Cow::Borrowed(&stroke.path),
    };
    path.subpaths().map(|part| BezPath::from_vec(part.to_vec())).collect()
}
