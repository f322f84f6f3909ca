//! The flat, or what is cut on a sheet, as DXF in millimetres, a layer for each kind of line or for each
//! operation.
//!
//! Straight sides and arcs are LWPOLYLINEs, closed where they close; other curves are SPLINEs of degree three, so that
//! curves stay curves. `y` points up.

mod document;
mod entities;

use std::io::{self, Write};

use aptum_core::geometry::{Affine, BezPath, Rect};
use aptum_core::tooling::{CutPlan, works};
use aptum_core::{Job, LineKind, Prepared, PreparedPiece};

use document::{Document, Layer, Pairs};
use entities::{Entity, entities};

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

/// A line as it is drawn.
struct Line<'a> {
    /// Its layer's place among all.
    layer: usize,
    path: &'a BezPath,
    /// From its own coordinates to the drawing's.
    place: Affine,
}

/// Writes the flat of a piece.
///
/// # Errors
/// What writing to `out` says.
pub fn flat_dxf(piece: &PreparedPiece, out: &mut dyn Write) -> io::Result<()> {
    let flat = &piece.flat;
    let plans: Vec<(CutPlan, Affine)> = flat
        .parts
        .iter()
        .map(|part| (CutPlan::alone(part), flip(flat.bounds) * Affine::translate(part.at)))
        .collect();
    let strokes =
        plans.iter().flat_map(|(plan, place)| plan.strokes.iter().map(|own| (own, *place)));
    let mut layers = Vec::new();
    let lines = strokes.map(|(stroke, place)| {
        let layer = layer(&mut layers, stroke.kind.id(), stroke.kind);
        Line { layer, path: &stroke.path, place }
    });
    let lines: Vec<Line<'_>> = lines.collect();
    write(&layers, &lines, flat.bounds, out)
}

/// Writes what is worked on sheet `number` (from 1), a layer for each operation in their order, the page's lower left corner
/// at the origin; `None` when there are fewer.
pub fn sheet_dxf(
    job: &Job,
    prepared: &Prepared,
    number: u32,
    out: &mut dyn Write,
) -> Option<io::Result<()>> {
    let placements = prepared.layout.each_sheet().nth(number.checked_sub(1)? as usize)?;
    let page = prepared.windows.page;
    let plan = prepared.plan(&job.tooling, placements);
    let worked = plan.strokes.iter().filter_map(|stroke| {
        let at = works(&prepared.operations, stroke, &plan)?;
        (!prepared.operations[at].is_off).then_some((at, stroke))
    });
    let mut worked: Vec<_> = worked.collect();
    worked.sort_by_key(|(at, _)| *at);
    let mut layers = Vec::new();
    let lines = worked.into_iter().map(|(at, stroke)| {
        let layer = layer(&mut layers, &prepared.operations[at].id.in_files(), stroke.kind);
        Line { layer, path: &stroke.path, place: flip(page) }
    });
    let lines: Vec<Line<'_>> = lines.collect();
    Some(write(&layers, &lines, page, out))
}

/// Turns `y` up within bounds.
const fn flip(bounds: Rect) -> Affine {
    Affine::new([1.0, 0.0, 0.0, -1.0, 0.0, bounds.y1])
}

/// The place of a layer among all, put there where it is new. Lines come layer by layer, or there are few.
fn layer(layers: &mut Vec<Layer>, name: &str, kind: LineKind) -> usize {
    layers.iter().rposition(|known| known.name == name).unwrap_or_else(|| {
        layers.push(Layer { name: name.to_owned(), colour: colour(kind) });
        layers.len() - 1
    })
}

/// Writes lines as a file whose drawing has these bounds.
fn write(
    layers: &[Layer],
    lines: &[Line<'_>],
    bounds: Rect,
    out: &mut dyn Write,
) -> io::Result<()> {
    let document = Document { layers, bounds };
    // No line has more entities than elements.
    let most = lines.iter().map(|line| line.path.elements().len()).sum();
    out.write_all(&document.before_entities(most))?;
    let mut number = 0;
    for line in lines {
        let layer = &layers[line.layer].name;
        let mut pairs = Pairs::default();
        for entity in entities(&(line.place * line.path.clone())) {
            put(&mut pairs, number, layer, entity);
            number += 1;
        }
        out.write_all(pairs.as_bytes())?;
    }
    out.write_all(&document.after_entities())
}

fn put(pairs: &mut Pairs, number: usize, layer: &str, entity: Entity) {
    match entity {
        Entity::Run { corners, is_closed } => {
            pairs.entity(number, "LWPOLYLINE", layer, "AcDbPolyline");
            pairs.put(90, corners.len()).put(70, u8::from(is_closed));
            for (at, bulge) in corners {
                pairs.number(10, at.x).number(20, at.y);
                if bulge.abs() > 5e-7 {
                    pairs.number(42, bulge);
                }
            }
        }
        Entity::Cubics(points) => {
            pairs.entity(number, "SPLINE", layer, "AcDbSpline");
            // Planar, of degree three: knots, control points, no fit points.
            pairs.put(70, 8).put(71, 3).put(72, points.len() + 4);
            pairs.put(73, points.len()).put(74, 0);
            // Each end of a cubic three times, the first and the last once more.
            let last = points.len() / 3;
            for end in 0..=last {
                for _ in 0..if end == 0 || end == last { 4 } else { 3 } {
                    pairs.put(40, format_args!("{end}.0"));
                }
            }
            for point in points {
                pairs.number(10, point.x).number(20, point.y).number(30, 0.0);
            }
        }
    }
}
