//! Perforations as the separate cuts that they are: dash styles get lost on the way to a machine.

use kurbo::{BezPath, Point};

/// Lengths that are cut and that tie, in turn, mm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Perforation {
    /// Length of each cut.
    pub cut: f64,
    /// Length of each tie.
    pub tie: f64,
}

impl Perforation {
    /// 3 mm cut, 1 mm tie: tears cleanly and holds in use (common practice).
    pub const STANDARD: Self = Self { cut: 3.0, tie: 1.0 };
}

/// Most cuts in one perforation.
const MOST: f64 = 2000.0;

/// The cuts of a perforation from `from` to `to`, one subpath each. It begins and ends with a whole
/// cut, so that a tear starts by itself; the lengths are stretched or shrunk evenly to come out.
#[must_use]
pub fn perforated(from: Point, to: Point, pattern: Perforation) -> BezPath {
    let mut path = BezPath::new();
    let length = (to - from).hypot();
    if !(length > 0.0 && pattern.cut > 0.0 && pattern.tie >= 0.0) {
        return path;
    }
    let pitch = pattern.cut + pattern.tie;
    let cuts = ((length + pattern.tie) / pitch).round().clamp(1.0, MOST);
    let stretch = length / (cuts * pitch - pattern.tie);
    let mut start = 0.0;
    while start < length - 1e-9 {
        let end = (start + pattern.cut * stretch).min(length);
        path.move_to(from.lerp(to, start / length));
        path.line_to(from.lerp(to, end / length));
        start += pitch * stretch;
    }
    path
}

#[cfg(test)]
mod tests {
    use super::*;
    use kurbo::{ParamCurve, ParamCurveArclen};

    #[test]
    fn a_perforation_begins_and_ends_with_a_cut() {
        let (from, to) = (Point::new(2.0, 0.0), Point::new(52.0, 0.0));
        let path = perforated(from, to, Perforation::STANDARD);
        let cuts: Vec<_> = path.segments().collect();
        // 13 cuts and 12 ties are 51 mm: shrunk by 50/51.
        assert_eq!(cuts.len(), 13);
        assert!((cuts[0].start() - from).hypot() < 1e-9);
        assert!((cuts[12].end() - to).hypot() < 1e-9);
        let share: f64 = cuts.iter().map(|cut| cut.arclen(1e-9)).sum::<f64>() / 50.0;
        assert!((share - 39.0 / 51.0).abs() < 1e-9);
        assert_eq!(perforated(from, from, Perforation::STANDARD).elements().len(), 0);
    }
}
