//! The flat as DXF in millimetres, a layer for each kind of line.
//!
//! Straight runs are LWPOLYLINEs, closed where they close; cubics are SPLINEs of degree three, so that
//! curves stay curves. `y` points up.

use aptum_core::form::Flat;
use aptum_core::geometry::{Affine, BezPath, PathEl, Point};
use aptum_core::{LineKind, PreparedPiece};
use chrono::{DateTime, Local, Utc};
use dxf::entities::{Entity, EntityType, LwPolyline, Spline};
use dxf::enums::{AcadVersion, Units};
use dxf::tables::Layer;
use dxf::{Color, Drawing, LwPolylineVertex};
use uuid::Uuid;

use crate::pdf::lines_by_kind;

/// AutoCAD colour indices: distinct on a dark and on a light ground.
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

/// The flat of a prepared job.
#[must_use]
pub fn flat_dxf(piece: &PreparedPiece) -> Vec<u8> {
    let mut drawing = Drawing::new();
    drawing.header.version = AcadVersion::R2000;
    // $INSUNITS 4.
    drawing.header.default_drawing_units = Units::Millimeters;
    // The same job gives the same file: no clock and no chance in it.
    let header = &mut drawing.header;
    let (local, universal) = (DateTime::<Local>::default(), DateTime::<Utc>::default());
    (header.creation_date, header.update_date) = (local, local);
    (header.creation_date_universal, header.update_date_universal) = (universal, universal);
    (header.fingerprint_guid, header.version_guid) = (Uuid::nil(), Uuid::nil());
    let mut known: Vec<LineKind> = Vec::new();
    for (kind, path) in lines(&piece.flat) {
        if !known.contains(&kind) {
            known.push(kind);
            drawing.add_layer(Layer {
                name: kind.id().to_owned(),
                color: Color::from_index(colour(kind)),
                ..Layer::default()
            });
        }
        for entity in entities(&path) {
            let mut entity = Entity::new(entity);
            entity.common.layer = kind.id().to_owned();
            drawing.add_entity(entity);
        }
    }
    let mut bytes = Vec::new();
    // Writing to memory cannot fail.
    let _ = drawing.save(&mut bytes);
    bytes
}

/// Every line of the whole drawing, `y` up.
fn lines(flat: &Flat) -> Vec<(LineKind, BezPath)> {
    let flip = Affine::new([1.0, 0.0, 0.0, -1.0, 0.0, flat.bounds.y1]);
    flat.parts
        .iter()
        .flat_map(|part| {
            let place = flip * Affine::translate(part.at);
            lines_by_kind(part).into_iter().map(move |(kind, path)| (kind, place * path))
        })
        .collect()
}

/// Each subpath as entities: a polyline for every straight run, a spline for every cubic.
fn entities(path: &BezPath) -> Vec<EntityType> {
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
                    found.push(spline([from, a, b, p]));
                }
                PathEl::QuadTo(c, p) => {
                    let from = run.last().copied().unwrap_or(start);
                    push_run(&mut found, std::mem::replace(&mut run, vec![p]), false);
                    found.push(spline([
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

fn push_run(found: &mut Vec<EntityType>, run: Vec<Point>, is_closed: bool) {
    if run.len() < 2 {
        return;
    }
    let mut line = LwPolyline::default();
    line.set_is_closed(is_closed);
    line.vertices =
        run.iter().map(|p| LwPolylineVertex { x: p.x, y: p.y, ..Default::default() }).collect();
    found.push(EntityType::LwPolyline(line));
}

fn spline(points: [Point; 4]) -> EntityType {
    let mut spline = Spline {
        degree_of_curve: 3,
        knot_values: vec![0.0, 0.0, 0.0, 0.0, 1.0, 1.0, 1.0, 1.0],
        ..Spline::default()
    };
    spline.set_is_planar(true);
    spline.control_points = points.iter().map(|p| dxf::Point::new(p.x, p.y, 0.0)).collect();
    EntityType::Spline(spline)
}
