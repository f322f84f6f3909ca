//! The search for one mark: outwards from where it should lie, roughly at first, then to a small part of a pixel.

use aptum_core::geometry::{Point, Vec2};

use super::eye::{Eye, SIDE, View};
use super::mark::{AskedMark, Shape};

/// Where a mark lies.
#[derive(Debug, Clone, Copy)]
pub(super) struct Pose {
    pub at: Point,
    /// Clockwise as seen, radians.
    pub turn: f64,
}

/// Grey levels of a mark.
#[derive(Debug, Clone, Copy)]
pub(super) struct Levels {
    pub dark: f64,
    pub light: f64,
}

/// Turns that are tried while it looks roughly, radians: 0, 2.5 and 5 degrees each way.
const TURNS: [f64; 5] = [0.0, -0.0436, 0.0436, -0.0873, 0.0873];

/// How far apart places are that are tried, mm.
const STEP: f64 = 0.25;

/// Least difference between ink and card, of 255.
const CONTRAST: f64 = 35.0;

/// Share of a mark's places that must look as they should.
const ALIKE: f64 = 0.93;

/// How far four fifths of its edges may lie off at most, mm: ink that runs makes strokes a little wider, but a mark that was cut short by the
/// printer's margin is none.
const APART: f64 = 0.08;

/// Looks for a mark within `reach` of a place.
pub(super) fn search(eye: &mut Eye<'_>, mark: &AskedMark, from: Point, reach: f64) -> Option<Pose> {
    let shape = mark.shape();
    // From one place it sees marks whose middles lie so far off.
    let room = (SIDE / 2.0 - shape.reach - 0.3).max(0.5);
    let step = room * 2.0 - STEP;
    for (across, along) in outwards((reach / step).ceil()) {
        let off = Vec2::new(across, along) * step;
        let near = off.x.abs().max(off.y.abs()) - room;
        if near > reach {
            continue;
        }
        let view = eye.look(from + shape.middle + off);
        let middle = from + off;
        if let Some(pose) = seen(&view, &shape, middle, room, from, reach) {
            return Some(pose);
        }
    }
    None
}

/// Squares around the middle one, the nearest first.
fn outwards(rings: f64) -> Vec<(f64, f64)> {
    #[expect(clippy::cast_possible_truncation, reason = "a few rings")]
    let rings = rings.clamp(0.0, 20.0) as i32;
    let mut all: Vec<(f64, f64)> = (-rings..=rings)
        .flat_map(|y| (-rings..=rings).map(move |x| (f64::from(x), f64::from(y))))
        .collect();
    all.sort_by(|one, two| one.0.hypot(one.1).total_cmp(&two.0.hypot(two.1)));
    all
}

/// The mark in what is seen, if it is there.
fn seen(
    view: &View,
    shape: &Shape,
    middle: Point,
    room: f64,
    from: Point,
    reach: f64,
) -> Option<Pose> {
    let mut rough: Vec<(f64, Pose)> = Vec::new();
    #[expect(clippy::cast_possible_truncation, reason = "a few hundred")]
    let steps = (room / STEP).floor() as i32;
    let turns = if shape.turns { &TURNS[..] } else { &TURNS[..1] };
    for turn in turns {
        let turned = |all: &[Vec2]| -> Vec<Vec2> {
            let own = all.iter().step_by((all.len() / 40).max(1));
            own.map(|at| rotated(*at, *turn)).collect()
        };
        let (dark, light) = (turned(&shape.dark), turned(&shape.light));
        for y in -steps..=steps {
            for x in -steps..=steps {
                let at = middle + Vec2::new(f64::from(x), f64::from(y)) * STEP;
                if at.distance(from) > reach {
                    continue;
                }
                let Some(score) = score(view, at, &dark, &light) else { continue };
                if score > CONTRAST * 0.6 {
                    rough.push((score, Pose { at, turn: *turn }));
                }
            }
        }
    }
    rough.sort_by(|one, two| two.0.total_cmp(&one.0));
    let mut tried: Vec<Point> = Vec::new();
    for (_, pose) in rough {
        if tried.iter().any(|other| other.distance(pose.at) < 1.5) {
            continue;
        }
        tried.push(pose.at);
        if let Some(found) = refined(view, shape, pose) {
            return Some(found);
        }
        if tried.len() > 12 {
            break;
        }
    }
    None
}

/// How much lighter it is where it should be light than where it should be dark.
fn score(view: &View, at: Point, dark: &[Vec2], light: &[Vec2]) -> Option<f64> {
    let mean = |all: &[Vec2]| -> Option<f64> {
        let mut sum = 0.0_f64;
        for off in all {
            sum += f64::from(view.rough(at + *off)?);
        }
        Some(sum / all.len().max(1) as f64)
    };
    // Most places are light where it should be dark: a few tell as much as all.
    let first = f64::from(view.rough(at + *dark.first()?)?);
    let lit = f64::from(view.rough(at + *light.first()?)?);
    if first > lit + 60.0 {
        return None;
    }
    Some(mean(light)? - mean(dark)?)
}

pub(super) fn rotated(at: Vec2, turn: f64) -> Vec2 {
    let (sin, cos) = turn.sin_cos();
    Vec2::new(at.x * cos - at.y * sin, at.x * sin + at.y * cos)
}

/// Moves and turns the mark until its edges lie where it grows light, and looks whether it is one.
fn refined(view: &View, shape: &Shape, mut pose: Pose) -> Option<Pose> {
    // Edges that are 0.6 mm off are still found at first, then what is near them decides.
    for (reach, round) in [(0.9, 0), (0.6, 1), (0.6, 2)] {
        let levels = levels(view, shape, pose)?;
        let mid = f64::midpoint(levels.dark, levels.light);
        pose = moved(shape, pose, |at, out| crossing(view, at, out, reach, mid), round)?;
    }
    for round in 3..6 {
        let levels = levels(view, shape, pose)?;
        pose = moved(shape, pose, |at, out| balance(view, at, out, shape.slope, levels), round)?;
    }
    let levels = levels(view, shape, pose)?;
    let mut apart: Vec<f64> = shape
        .edges
        .iter()
        .filter_map(|edge| {
            let (at, out) =
                (pose.at + rotated(edge.at, pose.turn), rotated(edge.outwards, pose.turn));
            balance(view, at, out, shape.slope, levels).map(f64::abs)
        })
        .collect();
    apart.sort_unstable_by(f64::total_cmp);
    let apart = apart.get(apart.len() * 4 / 5).copied().unwrap_or(f64::MAX);
    (apart <= APART && alike(view, shape, pose)? >= ALIKE).then_some(pose)
}

/// What its ink and the card around it look like.
fn levels(view: &View, shape: &Shape, pose: Pose) -> Option<Levels> {
    let mean = |all: &[Vec2]| -> Option<f64> {
        let seen: Option<Vec<f64>> =
            all.iter().map(|off| view.light(pose.at + rotated(*off, pose.turn))).collect();
        let mut seen = seen?;
        seen.sort_unstable_by(f64::total_cmp);
        seen.get(seen.len() / 2).copied()
    };
    let levels = Levels { dark: mean(&shape.dark)?, light: mean(&shape.light)? };
    (levels.light - levels.dark >= CONTRAST).then_some(levels)
}

/// The share of its places that look as they should: the worse of the dark and the light ones.
fn alike(view: &View, shape: &Shape, pose: Pose) -> Option<f64> {
    let levels = levels(view, shape, pose)?;
    let mid = f64::midpoint(levels.dark, levels.light);
    let share = |all: &[Vec2], is_dark: bool| {
        let right = all.iter().filter(|off| {
            let light = view.light(pose.at + rotated(**off, pose.turn));
            light.is_some_and(|light| (light < mid) == is_dark)
        });
        right.count() as f64 / all.len().max(1) as f64
    };
    Some(share(&shape.dark, true).min(share(&shape.light, false)))
}

/// How far out from a place it grows light, mm: where the profile passes the middle, nearest to the place.
fn crossing(view: &View, at: Point, outwards: Vec2, reach: f64, mid: f64) -> Option<f64> {
    const FINE: f64 = 0.04;
    #[expect(clippy::cast_possible_truncation, reason = "a few dozen")]
    let steps = (reach / FINE).ceil() as i32;
    let mut nearest: Option<f64> = None;
    let mut before: Option<f64> = None;
    for step in -steps..=steps {
        let off = f64::from(step) * FINE;
        let light = view.light(at + outwards * off)?;
        if let Some(last) = before
            && last < mid
            && light >= mid
        {
            let own = off - FINE * (light - mid) / (light - last).max(1e-6);
            if nearest.is_none_or(|other| own.abs() < other.abs()) {
                nearest = Some(own);
            }
        }
        before = Some(light);
    }
    nearest
}

/// The same from how much of the profile is light: blur and grain fall out of the sum.
fn balance(view: &View, at: Point, outwards: Vec2, slope: f64, levels: Levels) -> Option<f64> {
    const PARTS: u32 = 24;
    let mut sum = 0.0;
    for part in 0..PARTS {
        let off = slope * ((f64::from(part) + 0.5) / f64::from(PARTS) * 2.0 - 1.0);
        let light = view.light(at + outwards * off)?;
        sum += ((light - levels.dark) / (levels.light - levels.dark)).clamp(-0.3, 1.3);
    }
    let lit = 2.0 * slope * sum / f64::from(PARTS);
    Some(slope - lit)
}

/// One step of least squares: the shift and the turn that bring edges nearest to where they were seen. Those that lie far off
/// the rest count less and less (Huber 1964).
fn moved(
    shape: &Shape,
    pose: Pose,
    seen: impl Fn(Point, Vec2) -> Option<f64>,
    round: u32,
) -> Option<Pose> {
    let mut rows: Vec<([f64; 3], f64)> = Vec::new();
    for edge in &shape.edges {
        let off = rotated(edge.at, pose.turn);
        let outwards = rotated(edge.outwards, pose.turn);
        let Some(by) = seen(pose.at + off, outwards) else { continue };
        rows.push(([outwards.x, outwards.y, outwards.y * off.x - outwards.x * off.y], by));
    }
    if rows.len() * 2 < shape.edges.len() || rows.len() < 6 {
        return None;
    }
    let mut step = [0.0; 3];
    let bound = if round < 2 { 0.3 } else { 0.08 };
    for _ in 0..3 {
        let mut matrix = [[0.0; 4]; 3];
        for (row, by) in &rows {
            let miss = (by - (0..3).map(|at| row[at] * step[at]).sum::<f64>()).abs();
            let weight = if miss > bound { bound / miss } else { 1.0 };
            for i in 0..3 {
                for j in 0..3 {
                    matrix[i][j] += weight * row[i] * row[j];
                }
                matrix[i][3] += weight * row[i] * by;
            }
        }
        // What shows no turn is not turned.
        matrix[2][2] += if shape.turns { 1e-6 } else { 1e6 };
        step = solved(matrix)?;
    }
    let [x, y, turn] = step;
    ([x, y, turn].iter().all(|own| own.is_finite()) && x.hypot(y) < 3.0)
        .then(|| Pose { at: pose.at + Vec2::new(x, y), turn: pose.turn + turn })
}

/// Three equations, by elimination with the largest first.
fn solved(mut rows: [[f64; 4]; 3]) -> Option<[f64; 3]> {
    for column in 0..3 {
        let largest = (column..3)
            .max_by(|one, two| rows[*one][column].abs().total_cmp(&rows[*two][column].abs()))?;
        rows.swap(column, largest);
        if rows[column][column].abs() < 1e-12 {
            return None;
        }
        for other in 0..3 {
            if other != column {
                let by = rows[other][column] / rows[column][column];
                let own = rows[column];
                rows[other].iter_mut().zip(own).for_each(|(to, from)| *to -= by * from);
            }
        }
    }
    Some([0, 1, 2].map(|at| rows[at][3] / rows[at][at]))
}
