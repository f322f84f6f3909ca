//! Small disturbances of an order, from which it finds shorter ones still.

use super::improve::{NOTHING, Step, Tour};
use super::waiting::Waiting;

/// An order of more lines only ever grows shorter: it would not cool in the time there is.
const MOST_COOLED: usize = 2_000;

/// How much longer an order may be at first, of the mean way between two lines.
const WARM: f64 = 0.8;

impl Tour<'_> {
    /// Changes two short stretches that follow each other, makes what that touches shorter, and keeps what is shorter; where
    /// rules leave few ways that only ever grow shorter, at first what is a little longer too, less and less (Kirkpatrick et
    /// al. 1983). The shortest is kept.
    pub(super) fn disturb(&mut self, waiting: &mut Waiting) {
        let count = self.order.len();
        if count < 3 {
            return;
        }
        let mut dice = fastrand::Rng::with_seed(self.effort.seed);
        let all = self.effort.tries * count;
        let cools = self.has_rules && count <= MOST_COOLED;
        let warm = if cools { WARM * self.length() / real(count) } else { 0.0 };
        // By how much the order is longer than the shortest.
        let mut over = 0.0;
        let mut shortest: Option<Vec<Step>> = None;
        for tried in 0..all {
            if self.work > self.effort.work {
                break;
            }
            // Mostly short stretches; now and then one as long as a whole row of copies.
            let most = if dice.usize(..4) == 0 { count.min(400) } else { count.min(30) };
            let long = 2 + dice.usize(..most - 1);
            let first = dice.usize(..=count - long);
            let middle = first + 1 + dice.usize(..long - 1);
            let end = first + long;
            if !self.may_move(first, middle, end, false) {
                continue;
            }
            self.log.clear();
            let joints = |own: &Self, middle: usize| {
                own.to(own.before(first), first)
                    + own.to(own.before(middle), middle)
                    + own.to(own.before(end), end)
            };
            let was = joints(self, middle);
            self.shift(first, middle, end);
            let middle = first + (end - middle);
            let lost = joints(self, middle) - was;
            let ends = [first.wrapping_sub(1), first, middle - 1, middle, end - 1, end];
            self.touch(ends, waiting);
            let longer = lost - self.settle(waiting);
            // What is as long as before is kept too: in rows and columns the way on leads over such.
            let done = (real(tried) / real(all)).max(real(self.work) / real(self.effort.work));
            let heat = warm * (1.0 - done).max(0.0).powi(2);
            let is_kept =
                longer <= NOTHING || (heat > 0.0 && longer <= -heat * dice.f64().max(1e-12).ln());
            if !is_kept {
                self.take_back();
                continue;
            }
            if longer > NOTHING && over <= NOTHING {
                let after = self.order.clone();
                self.take_back();
                shortest = Some(std::mem::replace(&mut self.order, after));
                self.order.iter().enumerate().for_each(|(at, (own, _))| self.place[*own] = at);
                self.work += 2 * count;
            }
            over += longer;
            if over < -NOTHING {
                over = 0.0;
                shortest = None;
            }
        }
        if let Some(shortest) = shortest.filter(|_| over > NOTHING) {
            self.order = shortest;
            self.order.iter().enumerate().for_each(|(at, (own, _))| self.place[*own] = at);
        }
    }

    /// How far the tool travels.
    fn length(&self) -> f64 {
        (0..self.order.len()).map(|at| self.to(self.before(at), at)).sum()
    }
}

#[expect(clippy::cast_precision_loss, reason = "counts of lines")]
const fn real(count: usize) -> f64 {
    count as f64
}
