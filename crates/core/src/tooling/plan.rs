//! The cut plan: every stroke that is worked on a sheet, with patterns, nicks and the cuts in the waste made real.

use std::sync::Arc;

use std::borrow::Cow;

use kurbo::{BezPath, ParamCurveArclen, PathEl};

use super::holding::{nick_places, without_nicks};
use super::perforated::perforated;
use super::shared::cut_once;
use super::weeding::weeding;
use crate::LineKind;
use crate::form::Part;
use crate::id::{PieceId, StrokeId};
use crate::job::{OperationId, Reverse, Tooling};
use crate::memory::{ELEMENT, Weighty};
use crate::sheet::Placement;
use crate::stroke::{Perforation, Stroke};

/// One stroke on a sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct PlannedStroke {
    /// The copy that it is cut for, by its place among the sheet's; `None` for cuts in the waste.
    pub copy: Option<usize>,
    /// The blank that it is a line of, by its number.
    pub blank: usize,
    /// Which of the blank's strokes it is, or a part of.
    pub stroke: StrokeId,
    /// What happens along it.
    pub kind: LineKind,
    /// True where it is a part of the blank's own outline.
    pub is_edge: bool,
    /// The layer and colour of a drawing that it is of.
    pub drawn: Option<Arc<str>>,
    /// How often the tool goes along it.
    pub times: u32,
    /// Where it runs on the sheet, mm: one subpath.
    pub path: BezPath,
}

/// Everything that is worked on one sheet, kind by kind: what presses first, what frees a piece last.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct CutPlan {
    /// The strokes.
    pub strokes: Vec<PlannedStroke>,
    /// The piece of each blank.
    pub pieces: Vec<PieceId>,
    /// How much was asked for twice and is cut once, mm.
    pub left_out: f64,
}

/// What a plan reads of a blank.
#[derive(Debug, Clone, Copy)]
pub struct PlanBlank<'a> {
    /// The blank.
    pub part: &'a Part,
    /// The piece that it belongs to.
    pub piece: &'a PieceId,
}

impl CutPlan {
    /// The plan of a sheet with these copies of these blanks.
    ///
    /// Edges that copies share, straight or curved, are in it once, in both kinds of cut. A pattern is the cuts
    /// that it is made of; where outlines have nicks, they are open there.
    #[must_use]
    pub fn of(blanks: &[PlanBlank<'_>], placements: &[Placement], tooling: &Tooling) -> Self {
        let pieces = blanks.iter().map(|blank| blank.piece.clone()).collect();
        let own: Vec<Vec<(Stroke, Vec<BezPath>)>> = blanks
            .iter()
            .map(|blank| {
                let strokes = blank.part.all_strokes();
                strokes.map(|stroke| (stroke.clone(), worked(&stroke, tooling))).collect()
            })
            .collect();
        let mut plan = Self { strokes: Vec::new(), pieces, left_out: 0.0 };
        for kind in LineKind::IN_ORDER {
            plan.add(kind, &own, placements);
        }
        plan.hold(blanks, placements, tooling);
        if let Some(say) = &tooling.weeding {
            let outlines: Vec<BezPath> = placements
                .iter()
                .filter_map(|at| Some(at.place(&blanks.get(at.part)?.part.outline)))
                .collect();
            // Where pieces are kissed around on a liner, the waste is divided as deep.
            let kissed = blanks.iter().all(|blank| blank.part.edge == LineKind::KissCut);
            let kind = if kissed { LineKind::KissCut } else { LineKind::Cut };
            let cuts = weeding(&outlines, say).into_iter().map(|cut| PlannedStroke {
                copy: None,
                blank: 0,
                stroke: cut.name.into(),
                kind,
                is_edge: false,
                drawn: None,
                times: 1,
                path: cut.path,
            });
            let at = plan.strokes.iter().position(|own| own.kind == kind && own.is_edge);
            let at = at.unwrap_or(plan.strokes.len());
            plan.strokes.splice(at..at, cuts);
        }
        plan
    }

    /// The plan of one blank by itself, where it was drawn.
    #[must_use]
    pub fn alone(part: &Part) -> Self {
        let blank = PlanBlank { part, piece: &PieceId(String::new()) };
        Self::of(&[blank], &[Placement::default()], &Tooling::default())
    }

    /// Every line of a kind.
    fn add(
        &mut self,
        kind: LineKind,
        blanks: &[Vec<(Stroke, Vec<BezPath>)>],
        placements: &[Placement],
    ) {
        let placed = placements.iter().enumerate();
        let placed = placed.filter_map(|(copy, at)| Some((copy, at, blanks.get(at.part)?)));
        let own: Vec<PlannedStroke> = placed
            .flat_map(|(copy, at, blank)| {
                let of_kind = blank.iter().filter(|(stroke, _)| stroke.kind == kind);
                of_kind.flat_map(move |(stroke, paths)| {
                    paths.iter().map(move |path| PlannedStroke {
                        copy: Some(copy),
                        blank: at.part,
                        stroke: stroke.id.clone(),
                        kind,
                        is_edge: stroke.id.is_edge(),
                        drawn: stroke.source.drawn().cloned(),
                        times: stroke.times,
                        path: at.place(path),
                    })
                })
            })
            .collect();
        if !matches!(kind, LineKind::Cut | LineKind::KissCut) {
            self.strokes.extend(own);
            return;
        }
        let paths: Vec<&BezPath> = own.iter().map(|stroke| &stroke.path).collect();
        let asked: f64 = own.iter().map(|stroke| length(&stroke.path)).sum();
        let first = self.strokes.len();
        self.strokes.extend(cut_once(&paths).into_iter().map(|(of, path)| PlannedStroke {
            path,
            stroke: own[of].stroke.clone(),
            drawn: own[of].drawn.clone(),
            ..own[of]
        }));
        let cut: f64 = self.strokes[first..].iter().map(|stroke| length(&stroke.path)).sum();
        self.left_out += (asked - cut).max(0.0);
    }

    /// Opens outlines that are cut through where they are to hold.
    fn hold(&mut self, blanks: &[PlanBlank<'_>], placements: &[Placement], tooling: &Tooling) {
        let frees = |own: &PlannedStroke| own.is_edge && own.kind == LineKind::Cut;
        if let Some(nicks) = &tooling.nicks {
            let of: Vec<Vec<_>> =
                blanks.iter().map(|blank| nick_places(blank.part, nicks)).collect();
            let places: Vec<_> = placements
                .iter()
                .filter_map(|at| Some((at.transform(), of.get(at.part)?)))
                .flat_map(|(to_sheet, own)| own.iter().map(move |place| to_sheet * *place))
                .collect();
            self.split(frees, |path| without_nicks(path, &places, nicks.width));
        } else if let Some(pattern) = tooling.perforated {
            self.split(frees, |path| subpaths(&perforated(path, pattern)));
        }
    }

    fn split(
        &mut self,
        which: impl Fn(&PlannedStroke) -> bool,
        parts: impl Fn(&BezPath) -> Vec<BezPath>,
    ) {
        let all = std::mem::take(&mut self.strokes);
        self.strokes.reserve(all.len());
        for own in all {
            if which(&own) {
                let parts = parts(&own.path);
                self.strokes.extend(parts.into_iter().map(|path| PlannedStroke {
                    path,
                    stroke: own.stroke.clone(),
                    drawn: own.drawn.clone(),
                    ..own
                }));
            } else {
                self.strokes.push(own);
            }
        }
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

fn subpaths(path: &BezPath) -> Vec<BezPath> {
    path.subpaths().map(|part| BezPath::from_vec(part.to_vec())).collect()
}

/// What of a stroke is worked, a subpath each.
fn worked(stroke: &Stroke, tooling: &Tooling) -> Vec<BezPath> {
    let torn = stroke.kind == LineKind::ReverseCrease
        && tooling.of(&OperationId::from(stroke.kind)).reverse == Some(Reverse::Perforated);
    let pattern = stroke.pattern.or(torn.then_some(Perforation::STANDARD));
    let path = match pattern {
        Some(pattern) => Cow::Owned(perforated(&stroke.path, pattern)),
        None => Cow::Borrowed(&stroke.path),
    };
    subpaths(&path)
}

/// True where a path comes back to where it began.
pub(super) fn is_closed(path: &BezPath) -> bool {
    path.elements().last() == Some(&PathEl::ClosePath)
}
