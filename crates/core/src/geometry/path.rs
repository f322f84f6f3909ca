//! Building exact paths and writing them down.

use std::fmt::Write;

use kurbo::{BezPath, Circle, PathEl, Point, Shape};

/// A circle as four cubic arcs, within 1e-4 mm of the true one.
#[must_use]
pub fn circle(centre: Point, radius: f64) -> BezPath {
    Circle::new(centre, radius).to_path(1e-4)
}

/// A closed polygon.
#[must_use]
pub fn polygon(points: &[Point]) -> BezPath {
    let mut path = BezPath::new();
    for (index, point) in points.iter().enumerate() {
        if index == 0 {
            path.move_to(*point);
        } else {
            path.line_to(*point);
        }
    }
    path.close_path();
    path
}

/// The arc that rounds the corner at `corner` between `before` and `after`: where it starts, its
/// two control points and where it ends. The radius shrinks to what half of either side allows.
///
/// The cubic of an arc of angle φ has handles of 4/3·tan(φ/4) radii; for a right angle it strays
/// from the circle by 2.7·10⁻⁴ radii.
#[must_use]
pub fn rounded(before: Point, corner: Point, after: Point, radius: f64) -> Option<[Point; 4]> {
    let (into, out) = (corner - before, after - corner);
    let (long_in, long_out) = (into.hypot(), out.hypot());
    if radius <= 0.0 || long_in < 1e-9 || long_out < 1e-9 {
        return None;
    }
    let turn = into.cross(out).atan2(into.dot(out)).abs();
    if !(1e-6..=std::f64::consts::PI - 1e-6).contains(&turn) {
        return None;
    }
    let reach = (turn / 2.0).tan();
    let trim = (radius * reach).min(long_in / 2.0).min(long_out / 2.0);
    let handle = 4.0 / 3.0 * (turn / 4.0).tan() * trim / reach;
    let (into, out) = (into / long_in, out / long_out);
    let (start, end) = (corner - into * trim, corner + out * trim);
    Some([start, start + into * handle, end - out * handle, end])
}

/// Each subpath as a ring of corners, curves flattened to within [`FLATTENING`](super::FLATTENING),
/// the last corner not repeating the first. Corners nearer than a nanometre to the one before,
/// which flattening leaves at the ends of curves, are dropped.
#[must_use]
pub fn flattened(path: &BezPath) -> Vec<Vec<Point>> {
    const SAME: f64 = 1e-6;
    let mut rings: Vec<Vec<Point>> = Vec::new();
    kurbo::flatten(path, super::FLATTENING, |element| match (element, rings.last_mut()) {
        (PathEl::MoveTo(point), _) => rings.push(vec![point]),
        (PathEl::LineTo(point), Some(ring))
            if ring.last().is_none_or(|last| last.distance(point) > SAME) =>
        {
            ring.push(point);
        }
        _ => {}
    });
    for ring in &mut rings {
        while ring.len() > 1 && ring[0].distance(ring[ring.len() - 1]) <= SAME {
            ring.pop();
        }
    }
    rings
}

/// SVG path data with coordinates to a ten-thousandth of a millimetre.
#[must_use]
pub fn path_text(path: &BezPath) -> String {
    let mut text = String::with_capacity(path.elements().len() * 18);
    for element in path.elements() {
        match *element {
            PathEl::MoveTo(p) => points(&mut text, 'M', &[p]),
            PathEl::LineTo(p) => points(&mut text, 'L', &[p]),
            PathEl::QuadTo(a, p) => points(&mut text, 'Q', &[a, p]),
            PathEl::CurveTo(a, b, p) => points(&mut text, 'C', &[a, b, p]),
            PathEl::ClosePath => text.push('Z'),
        }
    }
    text
}

fn points(text: &mut String, command: char, points: &[Point]) {
    text.push(command);
    for (index, point) in points.iter().enumerate() {
        if index > 0 {
            text.push(' ');
        }
        // Writing to a string cannot fail.
        let _ = write!(text, "{} {}", tidy(point.x), tidy(point.y));
    }
}

fn tidy(value: f64) -> f64 {
    let rounded = (value * 1e4).round() / 1e4;
    if rounded == 0.0 { 0.0 } else { rounded }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rounded_corner_is_an_arc_that_touches_both_sides() {
        let [start, _, _, end] =
            rounded(Point::new(0.0, 10.0), Point::ZERO, Point::new(10.0, 0.0), 4.0).unwrap();
        assert!((start - Point::new(0.0, 4.0)).hypot() < 1e-9);
        assert!((end - Point::new(4.0, 0.0)).hypot() < 1e-9);
        let [start, ..] =
            rounded(Point::new(0.0, 10.0), Point::ZERO, Point::new(10.0, 0.0), 99.0).unwrap();
        assert!((start.y - 5.0).abs() < 1e-9, "the radius shrinks to half a side");
        assert!(rounded(Point::ZERO, Point::new(1.0, 0.0), Point::new(2.0, 0.0), 1.0).is_none());
    }

    #[test]
    fn path_text_reads_back() {
        let path = circle(Point::new(3.0, -0.00001), 2.0);
        let text = path_text(&path);
        let back = BezPath::from_svg(&text).unwrap();
        assert!((back.area().abs() - std::f64::consts::PI * 4.0).abs() < 1e-3);
    }
}
