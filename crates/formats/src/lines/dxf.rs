//! Lines of DXF, as text: lines, arcs, circles, ellipses, polylines old and new, splines, and blocks where they are
//! inserted.

use std::collections::HashMap;

use aptum_core::geometry::{Affine, BezPath, Point, Vec2};
use aptum_core::lines::{Group, Lines, LinesError, Look, MOST_LINES};
use dxf::entities::{Entity, EntityType, Insert, Spline};
use dxf::enums::Units;
use dxf::{Color, Drawing};
use kurbo::Arc;

use super::ReadError;

/// Blocks within blocks, at most.
const DEEPEST: usize = 16;

/// Entities that are looked at in all, those of blocks as often as they are inserted.
const MOST_VISITED: usize = 1_000_000;

/// How far arcs as cubics may stray, as a share of their radius.
const STRAYS: f64 = 1e-6;

/// Points on each span of a spline that has weights or a high degree.
const POINTS: u32 = 200;

/// Reads the lines of a DXF.
pub(super) fn lines(bytes: &[u8]) -> Result<Lines, ReadError> {
    let drawing = Drawing::load(&mut &*bytes)
        .map_err(|error| ReadError::Damaged(error.to_string().chars().take(200).collect()))?;
    let mut read = Reader {
        layers: drawing
            .layers()
            .map(|layer| (layer.name.as_str(), (&layer.color, layer.is_layer_plotted)))
            .collect(),
        blocks: drawing.blocks().map(|block| (block.name.as_str(), block)).collect(),
        lines: Vec::new(),
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
    Ok(Lines::gathered(unit(drawing.header.default_drawing_units), lines, words, pictures)?)
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
    layers: HashMap<&'a str, (&'a Color, bool)>,
    blocks: HashMap<&'a str, &'a dxf::Block>,
    lines: Vec<(Group, BezPath)>,
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
        let flat =
            |normal: &dxf::Vector| if normal.z < 0.0 { Affine::FLIP_X } else { Affine::IDENTITY };
        let mut add = |path: BezPath, by: Affine| -> Result<(), ReadError> {
            if self.lines.len() >= MOST_LINES {
                return Err(LinesError::TooMany.into());
            }
            self.lines.push((group.clone(), to * by * path));
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

fn place(own: &dxf::Point) -> Point {
    Point::new(own.x, own.y)
}

/// How far it is around from one angle to another, anticlockwise.
fn swept(from: f64, to: f64) -> f64 {
    let turn = std::f64::consts::TAU;
    let sweep = (to - from).rem_euclid(turn);
    if sweep < 1e-9 { turn } else { sweep }
}

fn arc(centre: Point, radius: f64, start: f64, sweep: f64, is_closed: bool) -> BezPath {
    let own = Arc::new(centre, Vec2::new(radius, radius), start, sweep, 0.0);
    let mut path = BezPath::new();
    path.move_to(centre + Vec2::from_angle(start) * radius);
    path.extend(own.append_iter((radius * STRAYS).max(1e-12)));
    if is_closed {
        path.close_path();
    }
    path
}

/// A polyline whose sides may be arcs: a bulge is the tangent of a quarter of an arc's angle (DXF reference).
fn bulged(points: Vec<(Point, f64)>, is_closed: bool) -> BezPath {
    let mut path = BezPath::new();
    let Some((first, _)) = points.first().copied() else { return path };
    path.move_to(first);
    let next = points.iter().skip(1).chain(points.first().filter(|_| is_closed));
    for ((from, bulge), (to, _)) in points.iter().zip(next) {
        let chord = *to - *from;
        if bulge.abs() < 1e-9 || chord.hypot() < 1e-12 {
            path.line_to(*to);
            continue;
        }
        let sweep = 4.0 * bulge.atan();
        let radius = chord.hypot() / 2.0 / (sweep / 2.0).sin();
        let height = radius * (sweep / 2.0).cos();
        let across = Vec2::new(-chord.y, chord.x).normalize();
        let centre = from.midpoint(*to) + across * height;
        let start = (*from - centre).atan2();
        let round = Vec2::new(radius.abs(), radius.abs());
        let own = Arc::new(centre, round, start, sweep, 0.0);
        let mut drawn: Vec<kurbo::PathEl> = own.append_iter(radius.abs() * STRAYS).collect();
        // It ends where the next begins, whatever was rounded.
        if let Some(kurbo::PathEl::CurveTo(_, _, end)) = drawn.last_mut() {
            *end = *to;
        }
        path.extend(drawn);
    }
    if is_closed {
        path.close_path();
    }
    path
}

/// A spline: exact where it is plain and of a degree up to three, in many short lines otherwise.
fn spline(own: &Spline) -> BezPath {
    let mut path = BezPath::new();
    let control: Vec<Point> = own.control_points.iter().map(place).collect();
    let Ok(degree) = usize::try_from(own.degree_of_curve) else { return path };
    let knots = &own.knot_values;
    let is_sound = (1..=25).contains(&degree)
        && control.len() > degree
        && knots.len() == control.len() + degree + 1
        && knots.windows(2).all(|pair| pair[0] <= pair[1]);
    if !is_sound {
        // Only points that it goes through are told.
        let points = own.fit_points.iter().map(|at| (place(at), 0.0));
        return bulged(points.collect(), own.is_closed());
    }
    let weights: Vec<f64> = if own.weight_values.len() == control.len() {
        own.weight_values.clone()
    } else {
        vec![1.0; control.len()]
    };
    let is_plain = weights.iter().all(|weight| (weight - weights[0]).abs() < 1e-12);
    let ends = (knots[degree], knots[control.len()]);
    let mut spans: Vec<f64> =
        knots[degree..=control.len()].iter().copied().filter(|own| own.is_finite()).collect();
    spans.dedup();
    let at = |t: f64| de_boor(degree, knots, &control, &weights, t);
    path.move_to(at(ends.0));
    for pair in spans.windows(2) {
        let [from, to] = [pair[0], pair[1]];
        if is_plain && degree <= 3 {
            // A cubic through four points of one: exact, since each span is one.
            let third = (to - from) / 3.0;
            let [p0, q1, q2, p3] =
                [at(from), at(from + third), at(from + 2.0 * third), at(to)].map(Point::to_vec2);
            let p1 = (-5.0 * p0 + 18.0 * q1 - 9.0 * q2 + 2.0 * p3) / 6.0;
            let p2 = (2.0 * p0 - 9.0 * q1 + 18.0 * q2 - 5.0 * p3) / 6.0;
            if degree == 1 {
                path.line_to(p3.to_point());
            } else {
                path.curve_to(p1.to_point(), p2.to_point(), p3.to_point());
            }
        } else {
            for step in 1..=POINTS {
                path.line_to(at(from + (to - from) * f64::from(step) / f64::from(POINTS)));
            }
        }
    }
    let first = path.elements()[0].end_point().unwrap_or_default();
    let last = path.elements().last().and_then(kurbo::PathEl::end_point).unwrap_or_default();
    if own.is_closed() && first.distance(last) < 1e-6 * (1.0 + first.to_vec2().hypot()) {
        path.close_path();
    }
    path
}

/// A point of a spline with weights (de Boor's algorithm, in homogeneous coordinates).
fn de_boor(degree: usize, knots: &[f64], control: &[Point], weights: &[f64], t: f64) -> Point {
    let last = control.len() - 1;
    let span = (degree..=last).rev().find(|at| knots[*at] <= t).unwrap_or(degree);
    let mut own: Vec<[f64; 3]> = (0..=degree)
        .map(|at| {
            let at = span - degree + at;
            let weight = weights[at];
            [control[at].x * weight, control[at].y * weight, weight]
        })
        .collect();
    for round in 1..=degree {
        for at in (round..=degree).rev() {
            let low = knots[span - degree + at];
            let high = knots[span + 1 + at - round];
            let share = if high > low { (t - low) / (high - low) } else { 0.0 };
            let before = own[at - 1];
            for (own, before) in own[at].iter_mut().zip(before) {
                *own = (1.0 - share) * before + share * *own;
            }
        }
    }
    let [x, y, weight] = own[degree];
    let weight = if weight.abs() > 1e-300 { weight } else { 1.0 };
    Point::new(x / weight, y / weight)
}

/// A colour by its number (DXF reference): six pure ones, black for what is drawn in ink on paper, hues in steps of 15°
/// in five darknesses, paler where it is odd, and greys.
fn of_index(index: u8) -> String {
    let rgb = match index {
        1 => [255, 0, 0],
        2 => [255, 255, 0],
        3 => [0, 255, 0],
        4 => [0, 255, 255],
        5 => [0, 0, 255],
        6 => [255, 0, 255],
        8 => [65, 65, 65],
        9 => [128, 128, 128],
        250..=255 => [[51u8, 91, 132, 173, 214, 255][usize::from(index) - 250]; 3],
        10..=249 => {
            let hue = f64::from(index / 10 - 1) * 15.0;
            let value = [1.0, 0.65, 0.5, 0.3, 0.15][usize::from(index % 10 / 2)];
            let pale = if index % 2 == 1 { 0.5 } else { 0.0 };
            let channel = |shift: f64| {
                let away = ((hue - shift + 540.0).rem_euclid(360.0) - 180.0).abs();
                let share = ((120.0 - away) / 60.0).clamp(0.0, 1.0);
                let share = pale + (1.0 - pale) * share;
                #[expect(
                    clippy::cast_possible_truncation,
                    clippy::cast_sign_loss,
                    reason = "0 to 255"
                )]
                let byte = (255.0 * value * share) as u8;
                byte
            };
            [channel(0.0), channel(120.0), channel(240.0)]
        }
        _ => [0, 0, 0],
    };
    format!("#{}", hex::encode(rgb))
}

#[cfg(test)]
mod tests {
    use kurbo::ParamCurve;

    use super::*;

    #[test]
    fn colours_are_those_of_the_reference() {
        // 10, 12, 21, 30, 91, 150 as the reference's table lists them (from memory).
        for (index, wanted) in
            [(1, "#ff0000"), (10, "#ff0000"), (30, "#ff7f00"), (150, "#007fff"), (255, "#ffffff")]
        {
            assert_eq!(of_index(index), wanted, "{index}");
        }
    }

    #[test]
    fn a_bulge_of_one_is_half_a_circle() {
        let path = bulged(vec![(Point::new(0.0, 0.0), 1.0), (Point::new(10.0, 0.0), 1.0)], true);
        let area = kurbo::Shape::area(&path).abs();
        assert!((area / (std::f64::consts::PI * 25.0) - 1.0).abs() < 1e-5, "{area}");
        let bounds = kurbo::Shape::bounding_box(&path);
        assert!((bounds.y0 + 5.0).abs() < 1e-4 && (bounds.y1 - 5.0).abs() < 1e-4);
    }

    #[test]
    fn a_plain_spline_is_the_cubic_that_it_is() {
        let control = [(0.0, 0.0), (0.0, 10.0), (10.0, 10.0), (10.0, 0.0)];
        let own = Spline {
            degree_of_curve: 3,
            knot_values: vec![0.0, 0.0, 0.0, 0.0, 1.0, 1.0, 1.0, 1.0],
            control_points: control.map(|(x, y)| dxf::Point::new(x, y, 0.0)).to_vec(),
            ..Spline::default()
        };
        let path = spline(&own);
        let segment = path.segments().next().unwrap();
        assert!(segment.eval(0.5).distance(Point::new(5.0, 7.5)) < 1e-9);
        assert_eq!(path.elements().len(), 2);
    }
}
