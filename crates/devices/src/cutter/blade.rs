//! The blade: its tip hangs behind its axis, and each movement of the axis pulls it along.

use aptum_core::geometry::{Point, Vec2};

/// A blade.
#[derive(Debug, Clone, Copy)]
pub(super) struct Blade {
    /// How far its tip hangs behind, mm.
    pub offset: f64,
    /// Which way it lies: from its tip to its axis.
    pub heading: Vec2,
}

impl Blade {
    /// Where its tip is.
    pub fn tip(&self, axis: Point) -> Point {
        axis - self.heading * self.offset
    }

    /// Pulls it from one place to another; the way of its tip goes to `cut`, without where it began.
    pub fn pull(&mut self, from: Point, to: Point, cut: &mut Vec<Point>) {
        let long = from.distance(to);
        if self.offset <= 0.0 || long <= 0.0 {
            cut.push(to);
            return;
        }
        // After eight offsets it follows to within a thousandth of one.
        let close = long.min(self.offset * 8.0);
        let steps = (close / (self.offset / 6.0)).ceil().max(1.0);
        let mut tip = self.tip(from);
        let mut step = 1.0;
        while step <= steps {
            let axis = from.lerp(to, close * step / steps / long);
            self.turn(axis, tip);
            tip = self.tip(axis);
            cut.push(tip);
            step += 1.0;
        }
        if close < long {
            self.turn(to, tip);
            cut.push(self.tip(to));
        }
    }

    fn turn(&mut self, axis: Point, tip: Point) {
        let way = axis - tip;
        if way.hypot() > 1e-9 {
            self.heading = way / way.hypot();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A tip that trails without a swivel misses a square corner by about 0.66 of its offset (derived: a tractrix).
    #[test]
    fn a_trailing_tip_rounds_a_corner() {
        let mut blade = Blade { offset: 0.25, heading: Vec2::new(1.0, 0.0) };
        let mut cut = Vec::new();
        blade.pull(Point::new(-10.0, 0.0), Point::ORIGIN, &mut cut);
        blade.pull(Point::ORIGIN, Point::new(0.0, 10.0), &mut cut);
        let least = cut.iter().map(|at| at.to_vec2().hypot()).fold(f64::MAX, f64::min);
        assert!((least / 0.25 - 0.66).abs() < 0.12, "{}", least / 0.25);
        assert!(cut.last().unwrap().distance(Point::new(0.0, 9.75)) < 0.01);
    }
}
