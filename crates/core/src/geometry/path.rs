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

/// Each subpath by itself.
#[must_use]
pub fn contours(path: &BezPath) -> Vec<BezPath> {
    let mut all: Vec<BezPath> = Vec::new();
    for element in path.elements() {
        if matches!(element, PathEl::MoveTo(_)) {
            all.push(BezPath::new());
        }
        if let Some(contour) = all.last_mut() {
            contour.push(*element);
        }
    }
    all
}

/// Each subpath as a ring of corners, curves flattened to within [`FLATTENING`](super::FLATTENING),
/// the last corner not repeating the first. Corners nearer than a nanometre to the one before,
/// which flattening leaves at the ends of curves, are dropped.
#[must_use]
pub fn flattened(path: &BezPath) -> Vec<Vec<Point>> {
    flattened_to(path, super::FLATTENING)
}

/// As [`flattened`], to within `tolerance` mm.
#[must_use]
pub fn flattened_to(path: &BezPath, tolerance: f64) -> Vec<Vec<Point>> {
    const SAME: f64 = 1e-6;
    let mut rings: Vec<Vec<Point>> = Vec::new();
    kurbo::flatten(path, tolerance, |element| match (element, rings.last_mut()) {
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

/// Each subpath as a run of points, curves flattened; a closed one ends where it begins.
pub(super) fn polylines(path: &BezPath) -> Vec<Vec<Point>> {
    let mut runs: Vec<Vec<Point>> = Vec::new();
    kurbo::flatten(path, super::FLATTENING, |element| match (element, runs.last_mut()) {
        (PathEl::MoveTo(point), _) => runs.push(vec![point]),
        (PathEl::LineTo(point), Some(run)) => run.push(point),
        (PathEl::ClosePath, Some(run)) => run.push(run[0]),
        _ => {}
    });
    runs
}

/// A heart of the given width and height around the origin, its point down.
#[must_use]
pub fn heart(width: f64, height: f64) -> BezPath {
    let (x, y) = (width / 2.0, height / 2.0);
    let mut path = BezPath::new();
    path.move_to((0.0, y));
    path.curve_to((-0.2 * x, 0.6 * y), (-x, 0.3 * y), (-x, -0.4 * y));
    path.curve_to((-x, -0.9 * y), (-0.7 * x, -y), (-0.5 * x, -y));
    path.curve_to((-0.3 * x, -y), (-0.08 * x, -0.85 * y), (0.0, -0.55 * y));
    path.curve_to((0.08 * x, -0.85 * y), (0.3 * x, -y), (0.5 * x, -y));
    path.curve_to((0.7 * x, -y), (x, -0.9 * y), (x, -0.4 * y));
    path.curve_to((x, 0.3 * y), (0.2 * x, 0.6 * y), (0.0, y));
    path.close_path();
    path
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
        number(text, point.x);
        text.push(' ');
        number(text, point.y);
    }
}

/// SVG path data with all digits, from which the same path is read: as [`BezPath::to_svg`] writes it, in a third of the
/// time.
#[must_use]
pub fn exact_text(path: &BezPath) -> String {
    let mut text = String::with_capacity(path.elements().len() * 40);
    let mut put = |command: char, points: &[Point]| {
        if !text.is_empty() {
            text.push(' ');
        }
        text.push(command);
        for (index, Point { x, y }) in points.iter().enumerate() {
            if index > 0 {
                text.push(' ');
            }
            exact(&mut text, *x);
            text.push(',');
            exact(&mut text, *y);
        }
    };
    for element in path.elements() {
        match *element {
            PathEl::MoveTo(p) => put('M', &[p]),
            PathEl::LineTo(p) => put('L', &[p]),
            PathEl::QuadTo(a, p) => put('Q', &[a, p]),
            PathEl::CurveTo(a, b, p) => put('C', &[a, b, p]),
            PathEl::ClosePath => put('Z', &[]),
        }
    }
    text
}

/// A number as the standard library writes it: by no exponent.
fn exact(text: &mut String, value: f64) {
    let mut buffer = ryu::Buffer::new();
    let written = buffer.format(value);
    // Of two decimals that are as near, such as those of very large numbers, each takes another.
    if written.contains('e') || value.abs() > 1e9 {
        // Writing to a string cannot fail.
        let _ = write!(text, "{value}");
    } else {
        text.push_str(written.strip_suffix(".0").unwrap_or(written));
    }
}

/// Ten-thousandths are counted whole: drawings have tens of thousands of numbers, and floats are slow to write.
#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "checked")]
fn number(text: &mut String, value: f64) {
    let parts = (value * 1e4).round();
    // Writing to a string cannot fail.
    if parts.is_nan() || parts.abs() > 9e15 {
        let _ = write!(text, "{value}");
        return;
    }
    let parts = parts as i64;
    let (whole, mut rest) = (parts.abs() / 10_000, parts.abs() % 10_000);
    if parts < 0 {
        text.push('-');
    }
    text.push_str(itoa::Buffer::new().format(whole));
    if rest > 0 {
        text.push('.');
        let mut place = 1000;
        while rest > 0 {
            text.push(char::from(b'0' + (rest / place) as u8));
            rest %= place;
            place /= 10;
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    /// As the standard library writes what is rounded to ten-thousandths.
    #[test]
    fn numbers_are_written_to_a_ten_thousandth() {
        let written = |value: f64| {
            let mut text = String::new();
            number(&mut text, value);
            text
        };
        let mut random = fastrand::Rng::with_seed(7);
        let some = [0.0, -0.0, -0.000_04, 0.5, -12.3, 100.0, 0.000_1, -9.000_05, 123_456.789_01];
        let more = (0..2000).map(|_| (random.f64() - 0.5) * 5000.0);
        for value in some.into_iter().chain(more) {
            let rounded = (value * 1e4).round() / 1e4 + 0.0;
            assert_eq!(written(value), rounded.to_string(), "{value}");
        }
        assert_eq!(written(f64::INFINITY), "inf");
    }

    proptest! {
        /// As kurbo writes it, so that what was kept before is known again.
        #[test]
        fn paths_are_written_with_all_digits(
            points in prop::collection::vec((any::<f64>(), -2000.0..2000.0f64), 6),
            large in prop::collection::vec(-1e9..1e9f64, 2),
            few in -9000..9000i32,
        ) {
            let point = |at: usize| Point::new(points[at].0, points[at].1);
            let mut path = BezPath::new();
            path.move_to(point(0));
            path.line_to((f64::from(few) / 100.0, f64::from(few)));
            path.line_to((large[0], large[1]));
            path.quad_to(point(1), point(2));
            path.curve_to(point(3), point(4), point(5));
            path.close_path();
            prop_assert_eq!(exact_text(&path), path.to_svg());
        }
    }

    #[test]
    fn path_text_reads_back() {
        let path = circle(Point::new(3.0, -0.00001), 2.0);
        let text = path_text(&path);
        let back = BezPath::from_svg(&text).unwrap();
        assert!((back.area().abs() - std::f64::consts::PI * 4.0).abs() < 1e-3);
    }
}
