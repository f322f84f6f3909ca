//! The way of the axis that a trailing blade hangs on, so that its tip runs along a line.

use kurbo::{Point, Vec2};

/// Arcs of the axis about the tip are chords of so much, radians: at an offset of 0.25 mm they stray by 10⁻⁴ mm.
const CHORD: f64 = 0.06;

/// Where the axis goes for the tip to follow points, and which way the blade lies at the end. Before the first point it
/// lies as `heading` says. The tip stands still while the axis goes round it at a corner: the blade swivels.
#[must_use]
pub fn axis_way(points: &[Point], offset: f64, heading: Vec2) -> (Vec<Point>, Vec2) {
    let mut heading = heading;
    if offset <= 0.0 {
        let last = points.windows(2).last().map(|pair| pair[1] - pair[0]);
        return (points.to_vec(), last.map_or(heading, Vec2::normalize));
    }
    let mut way = Vec::with_capacity(points.len() * 2);
    for pair in points.windows(2) {
        let along = pair[1] - pair[0];
        if along.hypot() < 1e-9 {
            continue;
        }
        let next = along.normalize();
        let turn = heading.cross(next).atan2(heading.dot(next));
        if way.is_empty() {
            way.push(pair[0] + heading * offset);
        }
        let steps = (turn.abs() / CHORD).ceil().max(1.0);
        let mut step = 1.0;
        while step <= steps {
            let (sin, cos) = (turn * step / steps).sin_cos();
            let lies =
                Vec2::new(heading.x * cos - heading.y * sin, heading.x * sin + heading.y * cos);
            way.push(pair[0] + lies * offset);
            step += 1.0;
        }
        way.push(pair[1] + next * offset);
        heading = next;
    }
    (way, heading)
}

/// A closed line that goes on past where it began, so that nothing is left uncut there.
#[must_use]
pub fn overcut(points: &[Point], by: f64) -> Vec<Point> {
    let mut all = points.to_vec();
    let mut left = by;
    for pair in points.windows(2) {
        if left <= 1e-9 {
            break;
        }
        let long = pair[0].distance(pair[1]);
        if long <= left {
            all.push(pair[1]);
            left -= long;
        } else {
            all.push(pair[0].lerp(pair[1], left / long));
            left = 0.0;
        }
    }
    all
}

/// Where a tip runs that hangs so far behind an axis which goes along points: each small step pulls it towards the axis (a
/// tractrix), in steps of a quarter of the offset at most.
#[must_use]
pub fn trailed(way: &[Point], offset: f64) -> Vec<Point> {
    let first = way.windows(2).map(|two| two[1] - two[0]).find(|own| own.hypot() > 1e-9);
    let (Some(start), Some(along)) = (way.first(), first) else { return way.to_vec() };
    // It lies behind its axis when it comes down.
    let mut tip = *start - along.normalize() * offset;
    let mut tips = vec![tip];
    for two in way.windows(2) {
        let long = two[0].distance(two[1]);
        // Along straight stretches the tip soon follows exactly: only what lies after a turn is looked at closely.
        let close = long.min(offset * 8.0);
        let steps = (close / (offset / 4.0)).ceil().max(1.0);
        let mut step = 1.0;
        while step <= steps {
            let axis = two[0].lerp(two[1], close * step / steps / long.max(1e-12));
            tip = axis + (tip - axis).normalize() * offset;
            tips.push(tip);
            step += 1.0;
        }
        if close < long {
            tip = two[1] + (tip - two[1]).normalize() * offset;
            tips.push(tip);
        }
    }
    tips
}
