//! Tooling: what is cut on a sheet, decided once. Files and views read the plan and decide nothing themselves.

mod shared;

use kurbo::BezPath;

pub use shared::cut_once;

use crate::form::Part;
use crate::sheet::Placement;
use crate::{LineKind, Prepared};

/// One stroke on a sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct PlannedStroke {
    /// What happens along it.
    pub kind: LineKind,
    /// Where it runs on the sheet, mm: one subpath.
    pub path: BezPath,
}

/// Everything that is worked on one sheet, in the order of work: what presses first, what frees a piece last.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct CutPlan {
    /// The strokes.
    pub strokes: Vec<PlannedStroke>,
}

impl CutPlan {
    /// The plan of a sheet with these copies.
    ///
    /// Edges that copies share, straight or curved, are in it once, in both kinds of cut.
    #[must_use]
    pub fn of(prepared: &Prepared, placements: &[Placement]) -> Self {
        let blanks: Vec<Vec<(LineKind, BezPath)>> =
            prepared.blanks().map(|blank| strokes_of(blank.part)).collect();
        let mut strokes = Vec::new();
        for kind in LineKind::IN_ORDER {
            let placed = placements.iter().filter_map(|at| Some((blanks.get(at.part)?, at)));
            let own: Vec<BezPath> = placed
                .flat_map(|(blank, at)| {
                    let of_kind = blank.iter().filter(|(own, _)| *own == kind);
                    of_kind.map(|(_, path)| at.place(path))
                })
                .collect();
            let own = match kind {
                LineKind::Cut | LineKind::KissCut => cut_once(own),
                _ => own,
            };
            strokes.extend(own.into_iter().map(|path| PlannedStroke { kind, path }));
        }
        Self { strokes }
    }

    /// The strokes of a kind, in their order.
    pub fn of_kind(&self, kind: LineKind) -> impl Iterator<Item = &BezPath> {
        self.strokes.iter().filter(move |stroke| stroke.kind == kind).map(|stroke| &stroke.path)
    }
}

/// Every stroke of one blank, a subpath each: what lies inside it, then its edge.
#[must_use]
pub fn strokes_of(part: &Part) -> Vec<(LineKind, BezPath)> {
    let inside = part.lines.iter().map(|line| (part.kind(line.kind), &line.path));
    let all = inside.chain([(part.edge, &part.outline)]);
    all.flat_map(|(kind, path)| {
        path.subpaths().map(move |stroke| (kind, BezPath::from_vec(stroke.to_vec())))
    })
    .collect()
}
