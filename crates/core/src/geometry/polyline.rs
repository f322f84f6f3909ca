//! Runs of points: places along them, and what of them is nearest.

use kurbo::{Line, ParamCurve, ParamCurveNearest, Point, Vec2};

/// Places along a run, about `step` apart and in the middle of what each stands for: where, which way the run goes
/// there, and how much of it that is.
pub(crate) fn along(run: &[Point], step: f64) -> Vec<(Point, Vec2, f64)> {
    let mut places = Vec::new();
    for two in run.windows(2) {
        let (line, way) = (Line::new(two[0], two[1]), two[1] - two[0]);
        let long = way.hypot();
        let parts = (long / step.max(1e-6)).ceil().clamp(0.0, 1e5);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
        for part in 0..parts as usize {
            places.push((line.eval((part as f64 + 0.5) / parts), way / long, long / parts));
        }
    }
    thinned(places, step)
}

/// Neighbours that lie closer together than half a step become one, which stands for all of them.
fn thinned(places: Vec<(Point, Vec2, f64)>, step: f64) -> Vec<(Point, Vec2, f64)> {
    let mut kept: Vec<(Point, Vec2, f64)> = Vec::new();
    for place in places {
        match kept.last_mut() {
            Some(last) if last.2 < step / 2.0 => last.2 += place.2,
            _ => kept.push(place),
        }
    }
    kept
}

/// The point of a run that is nearest to a place; the place itself where the run is empty.
pub(crate) fn nearest(run: &[Point], at: Point) -> Point {
    let lines = run.windows(2).map(|two| {
        let line = Line::new(two[0], two[1]);
        let near = line.nearest(at, 1e-9);
        (near.distance_sq, line.eval(near.t))
    });
    let found = lines.min_by(|one, two| one.0.total_cmp(&two.0)).map(|(_, own)| own);
    found.or_else(|| run.first().copied()).unwrap_or(at)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn places_stand_for_all_of_a_run() {
        let corner = [(0.0, 0.0), (10.0, 0.0), (10.0, 0.3), (10.0, 5.0)].map(Point::from);
        let places = along(&corner, 2.0);
        let long: f64 = places.iter().map(|own| own.2).sum();
        assert!((long - 15.0).abs() < 1e-9);
        assert!((places.len() as i64 - 8).abs() <= 1, "{}", places.len());
    }

    #[test]
    fn the_nearest_place_of_a_run() {
        let corner = [(0.0, 0.0), (10.0, 0.0), (10.0, 5.0)].map(Point::from);
        assert_eq!(nearest(&corner, Point::new(4.0, -3.0)), Point::new(4.0, 0.0));
        assert_eq!(nearest(&corner, Point::new(12.0, 9.0)), Point::new(10.0, 5.0));
        assert_eq!(nearest(&[], Point::new(1.0, 1.0)), Point::new(1.0, 1.0));
    }
}
