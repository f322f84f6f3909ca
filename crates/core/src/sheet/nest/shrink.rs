//! Ending earlier: the same copies on a shorter stretch of the sheet.

use super::arena::{Arena, Copy};
use super::separate::{Patience, poses, restore, separate_either};
use super::shape::{Pose, Turns};
use super::watch::Effort;

/// Shares of the length that are taken off at a time, coarse to fine, and how often each may fail.
const STEPS: [(f64, usize); 4] = [(0.02, 2), (0.006, 2), (0.002, 3), (0.0007, 3)];

/// When nothing helps any more, so much length is given back, and so many pairs are exchanged.
const GIVEN_BACK: f64 = 0.012;
const EXCHANGED: usize = 3;

/// What is left to gain below this is not looked for, mm.
const NEAR: f64 = 0.05;

/// Failures that are kept to start from again.
const KEPT: usize = 8;

const PATIENCE: Patience = Patience { passes: 50, strikes: 2 };

/// Where the lowest copy ends.
pub(super) fn foot(arena: &Arena<'_>) -> f64 {
    arena
        .copies()
        .iter()
        .map(|copy| copy.pose.at.y + arena.shapes()[copy.shape].reach(copy.pose.turn).y1)
        .fold(arena.cut().base().y0, f64::max)
}

/// No layout ends higher up than this: fixed copies stay, each copy has its height, and all have their area.
fn highest(arena: &Arena<'_>) -> f64 {
    let base = arena.cut().base();
    let area: f64 = arena.copies().iter().map(|copy| arena.shapes()[copy.shape].area).sum();
    let foot = |copy: &Copy| {
        let shape = &arena.shapes()[copy.shape];
        match &shape.turns {
            _ if copy.fixed => copy.pose.at.y + shape.reach(copy.pose.turn).y1,
            Turns::These(turns) => {
                let heights = turns.iter().map(|turn| shape.reach(*turn).height());
                base.y0 + heights.fold(f64::INFINITY, f64::min)
            }
            Turns::Any => base.y0,
        }
    };
    arena.copies().iter().map(foot).fold(base.y0 + area / base.width(), f64::max)
}

/// Moves copies up until the effort is spent or they cannot end higher up; `tell` is told of every shorter layout.
pub(super) fn shrink(
    arena: &mut Arena<'_>,
    rng: &mut fastrand::Rng,
    effort: &mut Effort<'_>,
    mut tell: impl FnMut(&Arena<'_>, &mut Effort<'_>),
) {
    let (top, bottom) = (arena.cut().base().y0, arena.cut().base().y1);
    let mut best = (foot(arena), poses(arena));
    // The one that is worked on, which may be longer for a while.
    let mut now = best.clone();
    let (mut level, mut tries) = (0, 0);
    // What came nearest at a length that did not succeed.
    let mut nearly: Vec<(f32, Vec<Pose>)> = Vec::new();
    let highest = highest(arena);
    while effort.is_left() && best.0 > highest + NEAR {
        let kick = level == STEPS.len();
        let goal = if kick {
            best.0 + (best.0 - top) * GIVEN_BACK
        } else {
            now.0 - (now.0 - top) * STEPS[level].0
        };
        let mut starts = [arena.clone(), arena.clone()];
        for (at, start) in starts.iter_mut().enumerate() {
            start.set_foot(goal.min(bottom));
            // From the one at hand, or from one that came near, the nearest most often.
            let from = if kick {
                &best.1
            } else if nearly.is_empty() || (tries + at) % 3 == 2 {
                &now.1
            } else {
                &nearly[nearer(rng, nearly.len())].1
            };
            restore(start, from);
            let exchanges = if kick { EXCHANGED } else { usize::from(tries > 0 || at > 0) };
            (0..exchanges).for_each(|_| exchange(start, rng));
        }
        let [one, other] = starts;
        let found = separate_either(one, other, PATIENCE, rng, effort.left(), effort);
        let shortest = found
            .iter()
            .filter(|(is_apart, _)| *is_apart)
            .map(|(_, arena)| (foot(arena), poses(arena)))
            .min_by(|(a, _), (b, _)| a.total_cmp(b));
        if let Some(shortest) = shortest {
            now = shortest;
            nearly.clear();
            tries = 0;
            if kick {
                level = 1;
            }
            if now.0 < best.0 {
                best = now.clone();
                restore(arena, &best.1);
                tell(arena, effort);
            }
            continue;
        }
        if kick {
            continue;
        }
        for (_, mut failed) in found {
            nearly.push((loss(&mut failed), poses(&failed)));
        }
        nearly.sort_by(|(a, _), (b, _)| a.total_cmp(b));
        nearly.truncate(KEPT);
        tries += 1;
        if tries >= STEPS[level].1 {
            level += 1;
            tries = 0;
            nearly.clear();
        }
    }
    restore(arena, &best.1);
}

/// One of the first so many, the first most often.
fn nearer(rng: &mut fastrand::Rng, count: usize) -> usize {
    let most = rng.usize(0..count);
    rng.usize(0..=most)
}

fn loss(arena: &mut Arena<'_>) -> f32 {
    let mut met = Vec::new();
    (0..arena.copies().len())
        .map(|number| {
            arena.meets(number, &mut met);
            arena.excess(number) + met.iter().map(|(_, loss)| loss / 2.0).sum::<f32>()
        })
        .sum()
}

/// Puts two large copies of different shapes into each other's place, or one anywhere.
fn exchange(arena: &mut Arena<'_>, rng: &mut fastrand::Rng) {
    let mut movable: Vec<usize> =
        (0..arena.copies().len()).filter(|number| !arena.copies()[*number].fixed).collect();
    if movable.len() < 2 {
        return;
    }
    let area = |number: &usize| arena.shapes()[arena.copies()[*number].shape].area;
    movable.sort_by(|a, b| area(b).total_cmp(&area(a)));
    // Where most of the area is: small ones find their place by themselves.
    let all: f64 = movable.iter().map(area).sum();
    let mut sum = 0.0;
    let large = movable
        .iter()
        .take_while(|number| {
            let before = sum;
            sum += area(number);
            before < 0.75 * all
        })
        .count()
        .max(2);
    let one = movable[rng.usize(0..large)];
    let differs = |other: &&usize| arena.copies()[**other].shape != arena.copies()[one].shape;
    let others: Vec<usize> = movable[..large].iter().filter(differs).copied().collect();
    let other = if others.is_empty() {
        movable[rng.usize(0..movable.len())]
    } else {
        others[rng.usize(0..others.len())]
    };
    if one == other {
        return;
    }
    let (a, b) = (arena.copies()[one].pose, arena.copies()[other].pose);
    arena.move_to(one, Pose { at: b.at, turn: a.turn });
    arena.move_to(other, Pose { at: a.at, turn: b.turn });
}
