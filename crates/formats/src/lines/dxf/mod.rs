//! Lines of DXF, as text: lines, arcs, circles, ellipses, polylines old and new, splines, and blocks where they are
//! inserted.

mod colours;
mod curves;

use std::collections::HashMap;

use aptum_core::geometry::{Affine, BezPath, Point, Vec2};
use aptum_core::lines::{Group, Lines, LinesError, Look, MOST_LINES};
use dxf::entities::{Entity, EntityType, Insert};
use dxf::enums::Units;
use dxf::{Color, Drawing};

use self::colours::of_index;
use self::curves::{arc, bulged, spline, swept};
use super::ReadError;

/// Blocks within blocks, at most.
const DEEPEST: usize = 16;

/// Entities that are looked at in all, those of blocks as often as they are inserted.
const MOST_VISITED: usize = 1_000_000;

/// Reads the lines of a DXF.
pub(super) fn lines(bytes: &[u8]) -> Result<Lines, ReadError> {
    let drawing = Drawing::load(&mut &*bytes)
        .map_err(|error| ReadError::Damaged(error.to_string().chars().take(200).collect()))?;
    let mut read = Reader {
        layers: drawing
            .layers()
            .map(|layer| (layer.name.as_str(), (&layer.color, layer.line_weight.raw_value())))
            .collect(),
        blocks: drawing.blocks().map(|block| (block.name.as_str(), block)).collect(),
        lines: Vec::new(),
        millimetre: unit(drawing.header.default_drawing_units).map_or(0.0, f64::recip),
        words: 0,
        pictures: 0,
        visited: 0,
    };
    // Its y runs upwards.
    let up = Affine::FLIP_Y;
    for entity in drawing.entities().filter(|entity| !entity.common.is_in_paper_space) {
        read.entity(entity, up, None, 0)?;
    }
    let Reader { lines, words, pictures, .. } = read;
    Ok(Lines::gathered_wide(unit(drawing.header.default_drawing_units), lines, words, pictures)?)
}

/// A unit of the drawing in mm (DXF reference, $INSUNITS).
const fn unit(units: Units) -> Option<f64> {
    Some(match units {
        Units::Inches => 25.4,
        Units::Feet => 304.8,
        Units::Millimeters => 1.0,
        Units::Centimeters => 10.0,
        Units::Meters => 1000.0,
        Units::Yards => 914.4,
        Units::Mils => 0.0254,
        Units::Microns => 0.001,
        Units::Decimeters => 100.0,
        _ => return None,
    })
}

struct Reader<'a> {
    /// The colour of each layer, and the weight of its lines, hundredths of a millimetre.
    layers: HashMap<&'a str, (&'a Color, i16)>,
    blocks: HashMap<&'a str, &'a dxf::Block>,
    /// With their widths, in units of the drawing.
    lines: Vec<(Group, BezPath, f64)>,
    /// A millimetre in units of the drawing; nothing where it does not say what these are.
    millimetre: f64,
    words: usize,
    pictures: usize,
    visited: usize,
}

impl<'a> Reader<'a> {
    /// The lines of an entity, moved by `to`; in a block, on the layer and in the colour that it is inserted with where
    /// it has none of its own.
    fn entity(
        &mut self,
        entity: &'a Entity,
        to: Affine,
        inserted: Option<&Group>,
        depth: usize,
    ) -> Result<(), ReadError> {
        let group = self.group(entity, inserted);
        let width = self.width(entity, &group, to);
        let flat =
            |normal: &dxf::Vector| if normal.z < 0.0 { Affine::FLIP_X } else { Affine::IDENTITY };
        let mut add = |path: BezPath, by: Affine| -> Result<(), ReadError> {
            if self.lines.len() >= MOST_LINES {
                return Err(LinesError::TooMany.into());
            }
            self.lines.push((group.clone(), to * by * path, width));
            Ok(())
        };
        match &entity.specific {
            EntityType::Line(line) => {
                let mut path = BezPath::new();
                path.move_to(place(&line.p1));
                path.line_to(place(&line.p2));
                add(path, Affine::IDENTITY)
            }
            EntityType::Circle(circle) => {
                let turn = std::f64::consts::TAU;
                let round = arc(place(&circle.center), circle.radius, 0.0, turn, true);
                add(round, flat(&circle.normal))
            }
            EntityType::Arc(own) => {
                let start = own.start_angle.to_radians();
                let sweep = swept(own.start_angle.to_radians(), own.end_angle.to_radians());
                let path = arc(place(&own.center), own.radius, start, sweep, false);
                add(path, flat(&own.normal))
            }
            EntityType::Ellipse(own) => {
                let major = Vec2::new(own.major_axis.x, own.major_axis.y);
                let minor = Vec2::new(-major.y, major.x)
                    * own.minor_axis_ratio
                    * if own.normal.z < 0.0 { -1.0 } else { 1.0 };
                let sweep = swept(own.start_parameter, own.end_parameter);
                let is_whole = sweep > std::f64::consts::TAU - 1e-6;
                let unit = arc(Point::ZERO, 1.0, own.start_parameter, sweep, is_whole);
                let Point { x, y } = place(&own.center);
                add(unit, Affine::new([major.x, major.y, minor.x, minor.y, x, y]))
            }
            EntityType::LwPolyline(own) => {
                let points = own.vertices.iter().map(|at| (Point::new(at.x, at.y), at.bulge));
                add(bulged(points.collect(), own.is_closed()), flat(&own.extrusion_direction))
            }
            EntityType::Polyline(own) => {
                // Control points of its smoothing are no points of it.
                let drawn = own.vertices().filter(|at| at.flags & 16 == 0);
                let points = drawn.map(|at| (place(&at.location), at.bulge));
                add(bulged(points.collect(), own.is_closed()), flat(&own.normal))
            }
            EntityType::Spline(own) => add(spline(own), Affine::IDENTITY),
            EntityType::Solid(own) => {
                let corners =
                    [&own.first_corner, &own.second_corner, &own.fourth_corner, &own.third_corner];
                let points = corners.map(|corner| (place(corner), 0.0)).to_vec();
                add(bulged(points, true), flat(&own.extrusion_direction))
            }
            EntityType::Insert(own) => self.insert(own, to, &group, depth),
            EntityType::Text(_) | EntityType::MText(_) => {
                self.words += 1;
                Ok(())
            }
            EntityType::Image(_) => {
                self.pictures += 1;
                Ok(())
            }
            _ => Ok(()),
        }
    }

    fn insert(
        &mut self,
        own: &Insert,
        to: Affine,
        group: &Group,
        depth: usize,
    ) -> Result<(), ReadError> {
        let Some(block) = self.blocks.get(own.name.as_str()).copied() else { return Ok(()) };
        if depth >= DEEPEST {
            let message =
                format!("blocks lie in each other more than {DEEPEST} deep, or in themselves");
            return Err(ReadError::Damaged(message));
        }
        let base = place(&block.base_point).to_vec2();
        let turn = Affine::rotate(own.rotation.to_radians());
        let flat = if own.extrusion_direction.z < 0.0 { Affine::FLIP_X } else { Affine::IDENTITY };
        for row in 0..own.row_count.max(1) {
            for column in 0..own.column_count.max(1) {
                let step = Vec2::new(
                    f64::from(column) * own.column_spacing,
                    f64::from(row) * own.row_spacing,
                );
                let own = to
                    * flat
                    * Affine::translate(place(&own.location).to_vec2())
                    * turn
                    * Affine::translate(step)
                    * Affine::scale_non_uniform(own.x_scale_factor, own.y_scale_factor)
                    * Affine::translate(-base);
                self.visited += 1 + block.entities.len();
                if self.visited > MOST_VISITED {
                    return Err(LinesError::TooMany.into());
                }
                for entity in &block.entities {
                    self.entity(entity, own, Some(group), depth + 1)?;
                }
            }
        }
        Ok(())
    }

    fn group(&self, entity: &Entity, inserted: Option<&Group>) -> Group {
        let common = &entity.common;
        // What lies on layer 0 of a block takes the layer that the block is inserted on (DXF reference).
        let layer = match inserted {
            Some(group) if common.layer == "0" => group.layer.clone(),
            _ => common.layer.clone(),
        };
        let known = self.layers.get(layer.as_str());
        let colour = if common.color_24_bit != 0 {
            format!("#{:06x}", common.color_24_bit & 0xff_ffff)
        } else if let Some(index) = common.color.index() {
            of_index(index)
        } else if let Some(group) = inserted.filter(|_| common.color.is_by_block()) {
            group.colour.clone()
        } else {
            known.and_then(|(colour, _)| colour.index()).map_or_else(|| of_index(7), of_index)
        };
        let is_off = known.is_some_and(|(colour, _)| colour.is_turned_off());
        let is_unseen = !common.is_visible || is_off;
        let look = if is_unseen { Look::Unseen } else { Look::Stroke };
        Group { layer: if layer == "0" { String::new() } else { layer }, colour, look }
    }
}

impl Reader<'_> {
    /// How wide the lines of an entity are: a polyline's own width, or the weight of its line (DXF reference, 370), or that of its
    /// layer; 0 where none is told.
    fn width(&self, entity: &Entity, group: &Group, to: Affine) -> f64 {
        if let EntityType::LwPolyline(own) = &entity.specific
            && own.constant_width > 0.0
        {
            return own.constant_width * to.determinant().abs().sqrt();
        }
        let layer = if group.layer.is_empty() { "0" } else { group.layer.as_str() };
        let layer = || self.layers.get(layer).map_or(0, |(_, weight)| *weight);
        let told = Some(entity.common.lineweight_enum_value).filter(|own| *own > 0);
        let weight = told.unwrap_or_else(layer);
        // 2.11 mm is the widest that there is.
        f64::from(weight.clamp(0, 211)) / 100.0 * self.millimetre
    }
}

fn place(own: &dxf::Point) -> Point {
    Point::new(own.x, own.y)
}
