//! The flat, or what is cut on a sheet, as DXF in millimetres, a layer for each kind of line or for each
//! operation.
//!
//! Straight runs are LWPOLYLINEs, closed where they close; cubics are SPLINEs of degree three, so that
//! curves stay curves. `y` points up.

mod document;

use aptum_core::form::Flat;
use aptum_core::geometry::{Affine, BezPath, PathEl, Point, Rect};
use aptum_core::tooling::{CutPlan, works};
use aptum_core::{Job, LineKind, Prepared, PreparedPiece};

use document::Document;

/// The format's colour indices: distinct on a dark and on a light ground.
const fn colour(kind: LineKind) -> u8 {
    match kind {
        LineKind::Cut => 7,
        LineKind::Crease => 4,
        LineKind::ReverseCrease => 5,
        LineKind::Score => 2,
        LineKind::KissCut => 6,
        LineKind::Perforation => 1,
        LineKind::Guide => 8,
    }
}

/// The flat of a piece.
#[must_use]
pub fn flat_dxf(piece: &PreparedPiece) -> Vec<u8> {
    let lines = lines(&piece.flat).into_iter();
    written(lines.map(|(kind, path)| (kind, kind.id().to_owned(), path)), piece.flat.bounds)
}

/// What is worked on sheet `number` (from 1), a layer for each operation in their order, the page's lower left corner at the
/// origin; `None` when there are fewer.
#[must_use]
pub fn sheet_dxf(job: &Job, prepared: &Prepared, number: u32) -> Option<Vec<u8>> {
    let placements = prepared.layout.each_sheet().nth(number.checked_sub(1)? as usize)?;
    let page = prepared.windows.page;
    let flip = Affine::new([1.0, 0.0, 0.0, -1.0, 0.0, page.y1]);
    let plan = prepared.plan(&job.tooling, placements);
    let mut lines: Vec<(usize, LineKind, BezPath)> = Vec::new();
    for stroke in &plan.strokes {
        let at = works(&prepared.operations, stroke, &plan);
        if let Some(at) = at.filter(|at| !prepared.operations[*at].is_off) {
            lines.push((at, stroke.kind, flip * stroke.path.clone()));
        }
    }
    lines.sort_by_key(|own| own.0);
    let lines = lines
        .into_iter()
        .map(|(at, kind, path)| (kind, prepared.operations[at].id.in_files(), path));
    Some(written(lines, page))
}

/// Lines, `y` up, as a file whose drawing has these bounds.
fn written(lines: impl IntoIterator<Item = (LineKind, String, BezPath)>, bounds: Rect) -> Vec<u8> {
    let mut document = Document::new();
    let mut count = 0;
    for (kind, layer, path) in lines {
        let layer = layer.as_str();
        document.layer(layer, colour(kind));
        for entity in entities(&path) {
            match entity {
                Entity::Run { points, is_closed } => {
                    let pairs = document.entity(count, "LWPOLYLINE", layer, "AcDbPolyline");
                    pairs.put(90, points.len()).put(70, u8::from(is_closed));
                    for point in points {
                        pairs.number(10, point.x).number(20, point.y);
                    }
                }
                Entity::Cubic(points) => {
                    let pairs = document.entity(count, "SPLINE", layer, "AcDbSpline");
                    // Planar, of degree three: eight knots, four control points, no fit points.
                    pairs.put(70, 8).put(71, 3).put(72, 8).put(73, 4).put(74, 0);
                    for knot in [0.0, 0.0, 0.0, 0.0, 1.0, 1.0, 1.0, 1.0] {
                        pairs.number(40, knot);
                    }
                    for point in points {
                        pairs.number(10, point.x).number(20, point.y).number(30, 0.0);
                    }
                }
            }
            count += 1;
        }
    }
    document.write(count, [bounds.x0, bounds.y0, bounds.x1, bounds.y1])
}

/// What a path becomes.
enum Entity {
    /// A straight run.
    Run { points: Vec<Point>, is_closed: bool },
    /// A cubic.
    Cubic([Point; 4]),
}

/// Every line of the whole drawing, `y` up.
fn lines(flat: &Flat) -> Vec<(LineKind, BezPath)> {
    let flip = Affine::new([1.0, 0.0, 0.0, -1.0, 0.0, flat.bounds.y1]);
    flat.parts
        .iter()
        .flat_map(|part| {
            let place = flip * Affine::translate(part.at);
            let own = CutPlan::alone(part).strokes.into_iter();
            own.map(move |stroke| (stroke.kind, place * stroke.path))
        })
        .collect()
}

/// Each subpath as entities: a polyline for every straight run, a spline for every cubic.
fn entities(path: &BezPath) -> Vec<Entity> {
    let mut found = Vec::new();
    for subpath in path.subpaths() {
        let is_straight =
            subpath.iter().all(|el| !matches!(el, PathEl::CurveTo(..) | PathEl::QuadTo(..)));
        let mut run: Vec<Point> = Vec::new();
        let mut start = Point::ZERO;
        for element in subpath {
            match *element {
                PathEl::MoveTo(p) => {
                    start = p;
                    run = vec![p];
                }
                PathEl::LineTo(p) => run.push(p),
                PathEl::CurveTo(a, b, p) => {
                    let from = run.last().copied().unwrap_or(start);
                    push_run(&mut found, std::mem::replace(&mut run, vec![p]), false);
                    found.push(Entity::Cubic([from, a, b, p]));
                }
                PathEl::QuadTo(c, p) => {
                    let from = run.last().copied().unwrap_or(start);
                    push_run(&mut found, std::mem::replace(&mut run, vec![p]), false);
                    found.push(Entity::Cubic([
                        from,
                        from + (c - from) * (2.0 / 3.0),
                        p + (c - p) * (2.0 / 3.0),
                        p,
                    ]));
                }
                PathEl::ClosePath if is_straight => {
                    if run.len() > 2 && run.last().is_some_and(|last| last.distance(start) < 1e-9) {
                        run.pop();
                    }
                    push_run(&mut found, std::mem::take(&mut run), true);
                }
                PathEl::ClosePath => {
                    if run.last().is_some_and(|last| last.distance(start) > 1e-9) {
                        run.push(start);
                    }
                }
            }
        }
        push_run(&mut found, run, false);
    }
    found
}

fn push_run(found: &mut Vec<Entity>, points: Vec<Point>, is_closed: bool) {
    if points.len() > 1 {
        found.push(Entity::Run { points, is_closed });
    }
}
