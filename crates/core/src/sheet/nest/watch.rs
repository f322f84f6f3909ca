//! Who watches a search: what has been found so far, and whether it may go on.

use std::sync::atomic::{AtomicU64, Ordering};

use crate::sheet::SheetRun;

/// Follows a search, which goes on in several threads.
pub trait Watch: Sync {
    /// Asked before every move; false ends the search, which keeps what it has.
    fn go_on(&self) -> bool;

    /// Told of every layout that is better than the one before.
    fn found(&self, found: &Found<'_>);
}

/// A layout on the way.
#[derive(Debug, Clone, Copy)]
pub struct Found<'a> {
    /// The sheets so far.
    pub runs: &'a [SheetRun],
    /// Share of the work that is done, 0 to 1.
    pub done: f64,
}

/// Lets a search go on to its end.
#[derive(Debug, Clone, Copy, Default)]
pub struct ToTheEnd;

impl Watch for ToTheEnd {
    fn go_on(&self) -> bool {
        true
    }

    fn found(&self, _: &Found<'_>) {}
}

/// The moves that are left. Counting moves rather than time makes the same seed give the same layout.
pub(super) struct Effort<'a> {
    watch: &'a dyn Watch,
    most: u64,
    spent: u64,
}

impl<'a> Effort<'a> {
    pub(super) fn new(watch: &'a dyn Watch, most: u64) -> Self {
        Self { watch, most, spent: 0 }
    }

    /// True while there are moves left and nobody has stopped the search.
    pub(super) fn is_left(&self) -> bool {
        self.spent < self.most && self.watch.go_on()
    }

    pub(super) const fn left(&self) -> u64 {
        self.most.saturating_sub(self.spent)
    }

    /// So many moves, of those that are left, for a part of the work; what they come to is to be spent here.
    pub(super) fn part(&self, moves: u64) -> Self {
        Self { watch: self.watch, most: moves.min(self.left()), spent: 0 }
    }

    pub(super) const fn spent(&self) -> u64 {
        self.spent
    }

    /// A purse of so many moves, of those that are left.
    pub(super) fn purse(&self, moves: u64) -> Purse<'a> {
        Purse { watch: self.watch, left: AtomicU64::new(moves.min(self.left())) }
    }

    /// Counts moves as spent.
    pub(super) fn spend(&mut self, moves: u64) {
        self.spent = self.spent.saturating_add(moves);
    }

    pub(super) fn tell(&self, runs: &[SheetRun]) {
        #[expect(clippy::cast_precision_loss, reason = "a share for people to see")]
        let done = self.spent as f64 / self.most.max(1) as f64;
        self.watch.found(&Found { runs, done });
    }
}

/// Moves for one thread.
pub(super) struct Purse<'a> {
    watch: &'a dyn Watch,
    left: AtomicU64,
}

impl Purse<'_> {
    /// True when there was a move left, which is one less then.
    pub(super) fn pay(&self) -> bool {
        let before = self.left.load(Ordering::Relaxed);
        if before == 0 || !self.watch.go_on() {
            return false;
        }
        self.left.store(before - 1, Ordering::Relaxed);
        true
    }

    pub(super) fn left(&self) -> u64 {
        self.left.load(Ordering::Relaxed)
    }
}
