//! Looking for a place: samples over the sheet and around a place, the best of them improved step by step.

use kurbo::{Point, Rect, Vec2};

use super::arena::Arena;
use super::shape::{Pose, Turns};

/// Places sampled over the whole sheet, and around where a copy lies.
#[derive(Debug, Clone, Copy)]
pub(super) struct Samples {
    pub over: usize,
    pub around: usize,
    /// How many of the best are improved.
    pub improved: usize,
}

/// Where a shape's middle may be for its bounds to lie in `base`; `None` where it is too large.
pub(super) fn range(arena: &Arena<'_>, shape: usize, turn: f64, base: Rect) -> Option<Rect> {
    let reach = arena.shapes()[shape].reach(turn);
    let range =
        Rect::new(base.x0 - reach.x0, base.y0 - reach.y0, base.x1 - reach.x1, base.y1 - reach.y1);
    (range.width() >= -1e-6 && range.height() >= -1e-6).then(|| range.abs())
}

pub(super) fn within(rng: &mut fastrand::Rng, range: Rect) -> Point {
    Point::new(range.x0 + rng.f64() * range.width(), range.y0 + rng.f64() * range.height())
}

/// The pose of the least cost that is found for a shape. `near` is where a copy lies now; `cost` gets a pose and
/// the bound above which it need not know exactly, and may be infinite.
pub(super) fn seek(
    arena: &mut Arena<'_>,
    shape: usize,
    near: Option<Pose>,
    samples: Samples,
    rng: &mut fastrand::Rng,
    mut cost: impl FnMut(&mut Arena<'_>, Pose, f32) -> f32,
) -> Option<(Pose, f32)> {
    let base = arena.cut().base();
    let turns = arena.shapes()[shape].turns.clone();
    let reach = arena.shapes()[shape].reach(0.0);
    let size = reach.width().min(reach.height()).max(0.5);
    let mut best: Vec<(Pose, f32)> = Vec::with_capacity(samples.improved + 1);
    let apart = 0.1 * size;
    let mut offer = |best: &mut Vec<(Pose, f32)>, arena: &mut Arena<'_>, pose: Pose| {
        let worst = if best.len() < samples.improved {
            f32::INFINITY
        } else {
            best.last().map_or(f32::INFINITY, |(_, cost)| *cost)
        };
        let found = cost(arena, pose, worst);
        if !found.is_finite() || found >= worst {
            return;
        }
        // One of each neighbourhood.
        let alike = |other: &Pose| {
            other.at.distance(pose.at) < apart && (other.turn - pose.turn).abs() < 1.0
        };
        if let Some(at) = best.iter().position(|(other, _)| alike(other)) {
            if best[at].1 <= found {
                return;
            }
            best.remove(at);
        }
        let place = best.partition_point(|(_, cost)| *cost <= found);
        best.insert(place, (pose, found));
        best.truncate(samples.improved);
    };
    if let Some(near) = near {
        offer(&mut best, arena, near);
        let half = Vec2::new(reach.width(), reach.height()) / 2.0;
        for _ in 0..samples.around {
            let turn = match &turns {
                Turns::These(turns) if rng.f64() < 0.5 => turns[rng.usize(0..turns.len())],
                Turns::These(_) => near.turn,
                Turns::Any => near.turn + 20.0 * (rng.f64() - 0.5),
            };
            let around = Rect::from_center_size(near.at, (2.0 * half.x, 2.0 * half.y));
            let Some(range) = range(arena, shape, turn, base) else { continue };
            let range = range.intersect(around);
            if range.width() < 0.0 || range.height() < 0.0 {
                continue;
            }
            offer(&mut best, arena, Pose { at: within(rng, range), turn });
        }
    }
    for _ in 0..samples.over {
        let turn = arena.shapes()[shape].any_turn(rng);
        let Some(range) = range(arena, shape, turn, base) else { continue };
        offer(&mut best, arena, Pose { at: within(rng, range), turn });
    }
    let free = turns == Turns::Any;
    let mut improved: Option<(Pose, f32)> = None;
    for (pose, found) in best {
        let steps = Steps { first: 0.25 * size, last: 0.02 * size, free };
        let next = descend(arena, (pose, found), steps, rng, &mut cost);
        if improved.is_none_or(|(_, least)| next.1 < least) {
            improved = Some(next);
        }
    }
    let steps = Steps { first: 0.01 * size, last: 0.0005 * size, free };
    improved.map(|from| descend(arena, from, steps, rng, &mut cost))
}

/// From which step to which, and whether the turn may change.
#[derive(Debug, Clone, Copy)]
pub(super) struct Steps {
    pub first: f64,
    pub last: f64,
    pub free: bool,
}

/// Goes downhill along one axis at a time; a step that helps grows, one that does not shrinks.
pub(super) fn descend(
    arena: &mut Arena<'_>,
    (mut pose, mut least): (Pose, f32),
    steps: Steps,
    rng: &mut fastrand::Rng,
    cost: &mut impl FnMut(&mut Arena<'_>, Pose, f32) -> f32,
) -> (Pose, f32) {
    let mut step = Vec2::new(steps.first, steps.first);
    // Degrees for each mm of step.
    let mut turn = if steps.free { steps.first.clamp(0.1, 5.0) } else { 0.0 };
    while least > 0.0 && (step.x > steps.last || step.y > steps.last) {
        let axis = rng.u32(0..if steps.free { 5 } else { 4 });
        let moves: [Pose; 2] = match axis {
            0 => [Vec2::new(step.x, 0.0), Vec2::new(-step.x, 0.0)].map(|by| shifted(pose, by)),
            1 => [Vec2::new(0.0, step.y), Vec2::new(0.0, -step.y)].map(|by| shifted(pose, by)),
            2 => [step, -step].map(|by| shifted(pose, by)),
            3 => {
                [Vec2::new(step.x, -step.y), Vec2::new(-step.x, step.y)].map(|by| shifted(pose, by))
            }
            _ => [turn, -turn].map(|by| Pose { turn: pose.turn + by, ..pose }),
        };
        let mut helped = false;
        for next in moves {
            let found = cost(arena, next, least);
            if found < least {
                (pose, least, helped) = (next, found, true);
                break;
            }
        }
        let factor = if helped { 1.1 } else { 0.5 };
        match axis {
            0 => step.x *= factor,
            1 => step.y *= factor,
            2 | 3 => step *= if helped { 1.1 } else { std::f64::consts::FRAC_1_SQRT_2 },
            _ => {
                turn *= factor;
                if turn < 0.001 {
                    step *= 0.9;
                }
            }
        }
    }
    (pose, least)
}

fn shifted(pose: Pose, by: Vec2) -> Pose {
    Pose { at: pose.at + by, ..pose }
}

/// A free place for a shape, as near to the top and then to the left as can be found.
pub(super) fn free_place(
    arena: &mut Arena<'_>,
    shape: usize,
    samples: usize,
    rng: &mut fastrand::Rng,
) -> Option<Pose> {
    let samples = Samples { over: samples, around: 0, improved: 3 };
    let base = arena.cut().base();
    let reach = arena.shapes()[shape].outline.bounds();
    let half = reach.width().max(reach.height()) / 2.0;
    let mut found = seek(arena, shape, None, samples, rng, |arena, pose, bound| {
        // How far down its foot comes, and a little of how far right it lies.
        let reach = arena.shapes()[shape].reach(pose.turn);
        let foot = pose.at.y + reach.y1 - base.y0 + 0.1 * (pose.at.x + reach.x1 - base.x0);
        #[expect(clippy::cast_possible_truncation, reason = "a sheet is a few hundred mm")]
        let cost = (foot + 10.0 * half) as f32;
        if cost < bound && arena.is_free(shape, pose, usize::MAX) { cost } else { f32::INFINITY }
    })?;
    // Up and left until it touches.
    for _ in 0..2 {
        for along in [Vec2::new(0.0, -1.0), Vec2::new(-1.0, 0.0)] {
            let mut step = half;
            while step > 0.01 {
                let next = shifted(found.0, along * step);
                if arena.is_free(shape, next, usize::MAX) {
                    found.0 = next;
                } else {
                    step *= 0.5;
                }
            }
        }
    }
    Some(found.0)
}
