//! Pulling copies apart that meet: guided local search.
//!
//! Copies that meet are moved, one after the other, to where they meet least; pairs that go on meeting
//! weigh more and more, until some other pair gives way. This is how a sheet takes one copy more, or ends
//! earlier, than laying copies one by one would find. (The method is the one published by Umetani et al.
//! 2009 for irregular strip packing and refined since; the weights follow Gardeyn and Wauters 2025, from
//! memory.)

use super::arena::Arena;
use super::seek::{Samples, seek};
use super::shape::Pose;
use super::watch::{Effort, Purse};

/// How long pulling apart goes on without getting better.
#[derive(Debug, Clone, Copy)]
pub(super) struct Patience {
    /// Passes without a new least.
    pub passes: usize,
    /// Starts from the best so far with its weights kept.
    pub strikes: usize,
}

const SAMPLES: Samples = Samples { over: 30, around: 20, improved: 3 };

/// Bounds of what a weight grows by in a pass, and what it shrinks by when nothing is met.
const GROWTH: [f32; 2] = [1.2, 2.0];
const DECAY: f32 = 0.95;

/// How badly each pair meets and each copy leaves the windows, with the weights of both.
#[derive(Clone)]
struct Losses {
    count: usize,
    /// Row by row; a copy against itself is the windows.
    loss: Vec<f32>,
    weight: Vec<f32>,
}

impl Losses {
    fn new(arena: &mut Arena<'_>) -> Self {
        let count = arena.copies().len();
        let mut losses =
            Self { count, loss: vec![0.0; count * count], weight: vec![1.0; count * count] };
        for number in 0..count {
            losses.update(arena, number);
        }
        losses
    }

    fn update(&mut self, arena: &mut Arena<'_>, number: usize) {
        for other in 0..self.count {
            self.loss[number * self.count + other] = 0.0;
            self.loss[other * self.count + number] = 0.0;
        }
        let mut met = Vec::new();
        arena.meets(number, &mut met);
        for (other, loss) in met {
            self.loss[number * self.count + other] = loss;
            self.loss[other * self.count + number] = loss;
        }
        self.loss[number * self.count + number] = arena.excess(number);
    }

    fn of(&self, number: usize) -> f32 {
        self.loss[number * self.count..(number + 1) * self.count].iter().sum()
    }

    fn weighed(&self, number: usize) -> f32 {
        let row = number * self.count..(number + 1) * self.count;
        self.loss[row.clone()].iter().zip(&self.weight[row]).map(|(loss, w)| loss * w).sum()
    }

    fn total(&self) -> f32 {
        (0..self.count)
            .map(|one| {
                self.loss[one * self.count + one..(one + 1) * self.count].iter().sum::<f32>()
            })
            .sum()
    }

    fn reweigh(&mut self) {
        let most = self.loss.iter().copied().fold(0.0, f32::max);
        if most <= 0.0 {
            return;
        }
        for (weight, loss) in self.weight.iter_mut().zip(&self.loss) {
            *weight = if *loss > 0.0 {
                *weight * (GROWTH[0] + (GROWTH[1] - GROWTH[0]) * loss / most)
            } else {
                (*weight * DECAY).max(1.0)
            };
        }
    }
}

/// Moves copies until none meet; true when that was reached, else the arena is as good as it got.
pub(super) fn separate(
    arena: &mut Arena<'_>,
    patience: Patience,
    rng: &mut fastrand::Rng,
    purse: &Purse<'_>,
) -> bool {
    let mut losses = Losses::new(arena);
    let mut least = losses.total();
    let mut best = poses(arena);
    let (mut strikes, mut idle) = (0, 0);
    while least > 0.0 && strikes < patience.strikes {
        let start = least;
        while idle < patience.passes {
            if !pass(arena, &mut losses, rng, purse) {
                restore(arena, &best);
                return false;
            }
            let total = losses.total();
            if total <= 0.0 {
                return true;
            }
            if total < least {
                // Only a clear step counts as progress.
                idle = if total < 0.98 * least { 0 } else { idle + 1 };
                least = total;
                best = poses(arena);
            } else {
                idle += 1;
            }
            losses.reweigh();
        }
        idle = 0;
        strikes = if least < 0.98 * start { 0 } else { strikes + 1 };
        restore(arena, &best);
        let weights = std::mem::take(&mut losses.weight);
        losses = Losses::new(arena);
        losses.weight = weights;
    }
    restore(arena, &best);
    least <= 0.0
}

/// Separates two sheets at once, each on a core of its own: whether each succeeded, and how it then lies, which
/// depends on the seeds alone.
pub(super) fn separate_either<'a>(
    mut one: Arena<'a>,
    mut other: Arena<'a>,
    patience: Patience,
    rng: &mut fastrand::Rng,
    moves: u64,
    effort: &mut Effort<'_>,
) -> [(bool, Arena<'a>); 2] {
    let (mut first, mut second) = (rng.fork(), rng.fork());
    let purses = [effort.purse(moves / 2), effort.purse(moves / 2)];
    let before = purses[0].left() + purses[1].left();
    let (a, b) = std::thread::scope(|scope| {
        let helper = scope.spawn(|| separate(&mut other, patience, &mut second, &purses[1]));
        let a = separate(&mut one, patience, &mut first, &purses[0]);
        // A search that panicked has separated nothing.
        (a, helper.join().unwrap_or(false))
    });
    // A search that finds nothing to move has cost something too.
    effort.spend((before - purses[0].left() - purses[1].left()).max(1));
    [(a, one), (b, other)]
}

/// Moves each copy that meets something once, in any order; false when the effort is spent.
fn pass(
    arena: &mut Arena<'_>,
    losses: &mut Losses,
    rng: &mut fastrand::Rng,
    purse: &Purse<'_>,
) -> bool {
    let mut order: Vec<usize> = (0..losses.count)
        .filter(|number| !arena.copies()[*number].fixed && losses.of(*number) > 0.0)
        .collect();
    rng.shuffle(&mut order);
    for number in order {
        let now = losses.weighed(number);
        if now <= 0.0 {
            continue;
        }
        if !purse.pay() {
            return false;
        }
        let (shape, pose) = (arena.copies()[number].shape, arena.copies()[number].pose);
        let row = &losses.weight[number * losses.count..(number + 1) * losses.count];
        let found = seek(arena, shape, Some(pose), SAMPLES, rng, |arena, pose, bound| {
            arena.cost((shape, pose, number), |other| row[other.unwrap_or(number)], bound)
        });
        if let Some((pose, cost)) = found
            && cost < now
        {
            arena.move_to(number, pose);
            losses.update(arena, number);
        }
    }
    true
}

pub(super) fn poses(arena: &Arena<'_>) -> Vec<Pose> {
    arena.copies().iter().map(|copy| copy.pose).collect()
}

pub(super) fn restore(arena: &mut Arena<'_>, poses: &[Pose]) {
    for (number, pose) in poses.iter().enumerate() {
        if arena.copies()[number].pose != *pose {
            arena.move_to(number, *pose);
        }
    }
}
