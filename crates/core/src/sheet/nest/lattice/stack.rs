//! How closely rows of copies stack.

use kurbo::{Point, Vec2};

use super::count;
use crate::sheet::nest::profile::Profile;
use crate::sheet::nest::shape::Shape;
use crate::sheet::rotation;

/// Offsets that are tried for a row beside a row.
const OFFSETS: usize = 32;

/// Rows, and copies in a row, that may reach into each other; lattices with more are not tried.
const MOST_ROWS: usize = 30;
const MOST_REPEATS: f64 = 60.0;

/// A copy in a row: 0 for one turned like the first, 1 for one turned by half; and where it stands.
pub(super) type Member = (usize, Vec2);

/// The profiles of a copy and of one turned by half, lying or upright.
pub(super) struct Sides {
    pub across: [Profile; 2],
    down: [Profile; 2],
    width: f64,
    pub height: f64,
}

impl Sides {
    pub(super) fn new(shape: &Shape, turn: f64, upright: bool) -> Self {
        let swap = |point: &Point| Point::new(point.y, point.x);
        let points = |turn: f64| -> Vec<Point> {
            let turned = shape.grown.transformed(rotation(turn));
            if upright {
                turned.points().iter().map(swap).collect()
            } else {
                turned.points().to_vec()
            }
        };
        let (one, half) = (points(turn), points(turn + 180.0));
        let swapped = |points: &[Point]| Profile::new(&points.iter().map(swap).collect::<Vec<_>>());
        let span = |of: fn(&Point) -> f64| {
            one.iter().map(of).fold(f64::MIN, f64::max)
                - one.iter().map(of).fold(f64::MAX, f64::min)
        };
        let (width, height) = (span(|point| point.x), span(|point| point.y));
        Self {
            across: [Profile::new(&one), Profile::new(&half)],
            down: [swapped(&one), swapped(&half)],
            width,
            height,
        }
    }

    /// How far the copies of a row stand above or below each other.
    fn rise(&self, steps: &[(&[Member], Vec2)]) -> f64 {
        let falls = steps.iter().flat_map(|(copies, _)| copies.iter().map(|(_, by)| by.y.abs()));
        2.0 * falls.fold(0.0, f64::max)
    }
}

/// How far below a row another must stand that is moved right by `offset`.
#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few dozen at most")]
pub(super) fn fall_of(
    sides: &Sides,
    above: &[Member],
    below: &[Member],
    offset: f64,
    period: f64,
) -> f64 {
    let mut most = f64::NEG_INFINITY;
    for (upper, at) in above {
        for (lower, by) in below {
            // All that may stand above or below it, however far the rows reach into each other.
            let across = offset + by.x - at.x;
            let first = ((-sides.width - across) / period).floor();
            let last = ((sides.width - across) / period).ceil();
            if last - first > MOST_REPEATS {
                return f64::INFINITY;
            }
            for repeat in 0..=(last - first) as u32 {
                let right = across + (first + f64::from(repeat)) * period;
                let clears = sides.down[*upper].clears(&sides.down[*lower], right);
                most = most.max(clears + at.y - by.y);
            }
        }
    }
    most
}

/// By how much the falls between rows must grow for rows that are not next to each other to clear as well.
pub(super) fn stretch(sides: &Sides, steps: &[(&[Member], Vec2)], period: f64) -> f64 {
    let mut most = 1.0_f64;
    for first in 0..steps.len() {
        let mut at = Vec2::ZERO;
        let mut row = first;
        // Further rows are out of reach.
        while at.y <= sides.height + sides.rise(steps) {
            row += 1;
            if row > first + MOST_ROWS {
                return f64::INFINITY;
            }
            let (below, step) = steps[row % steps.len()];
            at += step;
            let needed = fall_of(sides, steps[first].0, below, at.x, period);
            if needed.is_finite() && at.y > 0.0 {
                most = most.max(needed / at.y);
            }
        }
    }
    most
}

/// Offsets at which a row lies well below another, with how far below: the least first, then straight below
/// and half a period on, which may suit the window better.
pub(super) fn stacked(
    sides: &Sides,
    above: &[Member],
    below: &[Member],
    period: f64,
) -> Vec<(f64, f64)> {
    let fall = |offset: f64| fall_of(sides, above, below, offset, period);
    let step = period / count(OFFSETS);
    let tried: Vec<(f64, f64)> = (0..OFFSETS)
        .map(|at| count(at) * step)
        .map(|offset| (offset, fall(offset)))
        .filter(|(_, fall)| fall.is_finite() && *fall > 0.0)
        .collect();
    let Some(mut best) = tried.iter().copied().min_by(|a, b| a.1.total_cmp(&b.1)) else {
        return Vec::new();
    };
    let mut width = step;
    while width > 1e-4 {
        width /= 2.0;
        for offset in [best.0 - width, best.0 + width] {
            let found = fall(offset);
            if found.is_finite() && found > 0.0 && found < best.1 {
                best = (offset, found);
            }
        }
    }
    let mut all = vec![best];
    for offset in [0.0, period / 2.0] {
        let found = fall(offset);
        if found.is_finite() && found > 0.0 && (offset - best.0).abs() > 1e-3 {
            all.push((offset, found));
        }
    }
    all
}
