//! Test cuts: a small pattern for each rung of a ladder, side by side, in a free place of a sheet or on a scrap.

use std::collections::BTreeSet;

use kurbo::{Affine, BezPath, Circle, Point, Rect, Shape, Vec2};

use super::ladder::Varied;
use super::operations::Operation;
use super::path::{Bed, ToolPath};
use super::plan::{CutPlan, PlannedStroke};
use crate::LineKind;
use crate::id::{PieceId, StrokeId};
use crate::job::{OperationId, Share, Tooling};
use crate::laid::Laid;
use crate::sheet::{FreeRoom, Placement, Window, Windows};
use crate::workshop::{Corner, Cutter, Force};

/// The side of a rung's pattern, mm.
const SIDE: f64 = 8.0;

/// From pattern to pattern, mm.
const GAP: f64 = 4.0;

/// How far from the corner in which the blade starts a scrap's ladder lies, mm.
const INSET: f64 = 15.0;

/// A ladder on its bed.
#[derive(Debug, Clone)]
pub struct Trial {
    /// What the rungs are worked with, one operation each.
    pub path: ToolPath,
    /// Where each rung lies.
    pub rungs: Vec<Rect>,
}

/// What a ladder of so many rungs takes.
#[must_use]
pub fn trial_size(rungs: usize) -> Vec2 {
    let count = f64::from(u32::try_from(rungs.max(1)).unwrap_or(u32::MAX));
    Vec2::new(count * SIDE + (count - 1.0) * GAP, SIDE)
}

/// A free place for a ladder on a run of sheets; `None` where there is none.
#[must_use]
pub fn free_place(laid: &Laid, blanks: &[Vec<&BezPath>], run: usize, rungs: usize) -> Option<Rect> {
    let placements = &laid.layout.runs.get(run)?.placements;
    let windows = Windows { print: laid.windows.cut.clone(), ..laid.windows.clone() };
    let mut room = FreeRoom::new(&windows, blanks, placements);
    if let Some(Some(notes)) = laid.notes.get(run) {
        room.without(notes.place);
    }
    room.take(trial_size(rungs))
}

/// The place for a ladder on a scrap that lies in the corner in which the blade starts.
#[must_use]
pub fn scrap_place(page: Rect, cutter: &Cutter, rungs: usize) -> Rect {
    let size = trial_size(rungs);
    let (left, top) = match cutter.start {
        Corner::TopLeft => (true, true),
        Corner::TopRight => (false, true),
        Corner::BottomRight => (false, false),
        Corner::BottomLeft => (true, false),
    };
    let x = if left { page.x0 + INSET } else { page.x1 - INSET - size.x };
    let y = if top { page.y0 + INSET } else { page.y1 - INSET - size.y };
    Rect::from_origin_size((x, y), (size.x, size.y))
}

impl Operation {
    /// The same with another value of what a ladder varies.
    #[must_use]
    pub fn with(&self, varied: Varied, value: f64, cutter: &Cutter) -> Self {
        let mut own = self.clone();
        match varied {
            Varied::Force => own.force = Some(Force { amount: value, unit: cutter.force_unit }),
            Varied::Depth => own.depth = Some(value),
            Varied::Speed => own.speed = Some(value),
            #[expect(
                clippy::cast_possible_truncation,
                clippy::cast_sign_loss,
                reason = "1 to 20 passes"
            )]
            Varied::Passes => own.passes = value.round().clamp(1.0, 20.0) as u32,
        }
        own
    }
}

/// The ladder of an operation, each rung with another value, in a place.
#[must_use]
pub fn trial(
    operation: &Operation,
    varied: Varied,
    values: &[f64],
    place: Rect,
    cutter: &Cutter,
    page: Rect,
    window: &Window,
) -> Trial {
    let mut plan = CutPlan::default();
    let mut operations = Vec::new();
    let mut rungs = Vec::new();
    for (number, value) in values.iter().enumerate() {
        let step = f64::from(u32::try_from(number).unwrap_or(u32::MAX)) * (SIDE + GAP);
        let at = Point::new(place.x0 + step, place.y0);
        let piece = PieceId(format!("rung-{}", number + 1));
        for (name, path) in trial_pattern(operation.kind) {
            plan.strokes.push(PlannedStroke {
                copy: Some(0),
                blank: number,
                stroke: StrokeId::from(name),
                kind: operation.kind,
                is_edge: false,
                drawn: None,
                times: 1,
                path: Affine::translate(at.to_vec2()) * path,
            });
        }
        let share = Share::Piece(piece.clone());
        operations.push(Operation {
            id: OperationId::new(operation.kind, &share),
            share,
            is_off: false,
            loading: 0,
            before: Vec::new(),
            stocks: BTreeSet::new(),
            pieces: BTreeSet::new(),
            card: None,
            ..operation.with(varied, *value, cutter)
        });
        plan.pieces.push(piece);
        rungs.push(Rect::from_origin_size(at, (SIDE, SIDE)));
    }
    let placements = [Placement::default()];
    let bed = Bed { plan: &plan, placements: &placements, page, window };
    Trial { path: ToolPath::of(bed, &operations, &Tooling::default(), Some(cutter)), rungs }
}

/// What shows whether a setting is right: a square with a round in it, whose corners and whose curve come off or do not;
/// of creases two lines that cross.
#[must_use]
pub fn trial_pattern(kind: LineKind) -> Vec<(&'static str, BezPath)> {
    let middle = Point::new(SIDE / 2.0, SIDE / 2.0);
    if matches!(kind, LineKind::Crease | LineKind::ReverseCrease) {
        let line = |from: (f64, f64), to: (f64, f64)| {
            let mut path = BezPath::new();
            path.move_to(from);
            path.line_to(to);
            path
        };
        return vec![
            ("along", line((0.0, middle.y), (SIDE, middle.y))),
            ("across", line((middle.x, 0.0), (middle.x, SIDE))),
        ];
    }
    vec![
        ("round", Circle::new(middle, SIDE / 4.0).to_path(0.01)),
        ("square", Rect::new(0.0, 0.0, SIDE, SIDE).to_path(0.1)),
    ]
}
