//! A shorter order: first the nearest each time, then stretches turned about (2-opt) and lines taken elsewhere (Or-opt)
//! wherever near neighbours gain by it, then small disturbances from which the same finds shorter orders still. It ends
//! after an amount of work, not of time, so that the same lines give the same order on any machine.

use kurbo::Point;

use super::near::Beginnings;
use super::waiting::Waiting;
use super::{Effort, Known};

/// An order of more lines is only built.
const MOST_IMPROVED: usize = 30_000;

/// Neighbours that are looked at.
const NEAR: usize = 8;

/// The longest stretch that is taken elsewhere as a whole.
const LONGEST: usize = 3;

/// What is no gain, mm.
pub(super) const NOTHING: f64 = 1e-7;

/// A line and in which of its ways it is worked.
pub(super) type Step = (usize, usize);

/// A change of an order, as it can be taken back.
#[derive(Clone, Copy)]
pub(super) enum Done {
    /// What lies between two places, both counted, was turned about.
    Turned(usize, usize),
    /// What lies from one place up to another was moved behind what follows up to a third.
    Moved(usize, usize, usize),
    /// The line at a place was worked in this way before.
    Otherwise(usize, usize),
}

/// An order while it is made shorter.
pub(super) struct Tour<'a> {
    known: &'a [Known],
    from: Point,
    pub(super) order: Vec<Step>,
    /// Where in the order each line is.
    pub(super) place: Vec<usize>,
    /// The lines around each line.
    near: Vec<Vec<usize>>,
    pub(super) has_rules: bool,
    /// What was done since the last disturbance.
    pub(super) log: Vec<Done>,
    pub(super) work: usize,
    pub(super) effort: Effort,
}

impl<'a> Tour<'a> {
    /// The nearest first, each time among those whose inner lines are done.
    pub fn new(known: &'a [Known], from: Point, effort: Effort) -> Self {
        let has_rules = known.iter().any(|own| !own.inner.is_empty());
        let mut beginnings = Beginnings::of(known);
        let near = if known.len() <= MOST_IMPROVED {
            (0..known.len()).map(|at| beginnings.around(known, at, NEAR)).collect()
        } else {
            Vec::new()
        };
        let order = nearest_first(known, from, &mut beginnings);
        let mut place = vec![0; known.len()];
        order.iter().enumerate().for_each(|(at, (strand, _))| place[*strand] = at);
        Self { known, from, order, place, near, has_rules, log: Vec::new(), work: 0, effort }
    }

    /// The best order that was found, and how many places were touched for it.
    pub fn improved(mut self) -> (Vec<Step>, usize) {
        if self.order.len() <= MOST_IMPROVED {
            let mut waiting: Waiting = Waiting::of(self.known.len());
            self.order.iter().for_each(|(strand, _)| waiting.add(*strand));
            self.settle(&mut waiting);
            self.begin_well();
            self.disturb(&mut waiting);
            self.begin_well();
        }
        (self.order, self.work)
    }

    fn begin(&self, (strand, way): Step) -> Point {
        self.known[strand].ways[way].begin
    }

    fn end(&self, (strand, way): Step) -> Point {
        self.known[strand].ways[way].end
    }

    fn first(&self, at: usize) -> Point {
        self.begin(self.order[at])
    }

    fn last(&self, at: usize) -> Point {
        self.end(self.order[at])
    }

    /// Where the tool is before a place of the order.
    pub(super) fn before(&self, at: usize) -> Point {
        if at == 0 { self.from } else { self.last(at - 1) }
    }

    /// The way from somewhere to a place of the order; none past its end, where the tool may stay.
    pub(super) fn to(&self, from: Point, at: usize) -> f64 {
        if at < self.order.len() { from.distance(self.first(at)) } else { 0.0 }
    }

    /// A line the other way round; a closed one begins where it did.
    fn other_way(&self, (strand, way): Step) -> Step {
        if self.known[strand].is_open { (strand, 1 - way) } else { (strand, way) }
    }

    fn turn(&mut self, first: usize, last: usize) {
        self.order[first..=last].reverse();
        for at in first..=last {
            let step = self.other_way(self.order[at]);
            self.order[at] = step;
            self.place[step.0] = at;
        }
        self.work += last - first + 1;
        self.log.push(Done::Turned(first, last));
    }

    pub(super) fn shift(&mut self, first: usize, middle: usize, end: usize) {
        self.order[first..end].rotate_left(middle - first);
        for at in first..end {
            self.place[self.order[at].0] = at;
        }
        self.work += end - first;
        self.log.push(Done::Moved(first, middle, end));
    }

    fn work_otherwise(&mut self, at: usize, way: usize) {
        self.log.push(Done::Otherwise(at, self.order[at].1));
        self.order[at].1 = way;
    }

    /// Takes everything back that is in the log.
    pub(super) fn take_back(&mut self) {
        while let Some(done) = self.log.pop() {
            match done {
                Done::Turned(first, last) => self.turn(first, last),
                Done::Moved(first, middle, end) => self.shift(first, first + (end - middle), end),
                Done::Otherwise(at, way) => self.work_otherwise(at, way),
            }
            self.log.pop();
        }
    }

    /// Makes what waits shorter, with what that touches, until nothing gains; gives how much shorter.
    pub(super) fn settle(&mut self, waiting: &mut Waiting) -> f64 {
        let mut gained = 0.0;
        while let Some(strand) = waiting.first() {
            while let Some(gain) = self.improve(strand, waiting) {
                gained += gain;
                if self.work > self.effort.work {
                    waiting.clear();
                    return gained;
                }
            }
        }
        gained
    }

    /// Makes one change around a line that gains, if there is any.
    fn improve(&mut self, strand: usize, waiting: &mut Waiting) -> Option<f64> {
        self.work += NEAR;
        self.otherwise(strand, waiting)
            .or_else(|| self.turned(strand, waiting))
            .or_else(|| (1..=LONGEST).find_map(|long| self.elsewhere(strand, long, waiting)))
    }

    pub(super) fn touch(&self, places: impl IntoIterator<Item = usize>, waiting: &mut Waiting) {
        for at in places {
            if let Some((strand, _)) = self.order.get(at) {
                waiting.add(*strand);
            }
        }
    }

    /// Works a line in another of its ways, where it is.
    fn otherwise(&mut self, strand: usize, waiting: &mut Waiting) -> Option<f64> {
        let at = self.place[strand];
        let cost = |way: usize| {
            let step = (strand, way);
            self.before(at).distance(self.begin(step)) + self.to(self.end(step), at + 1)
        };
        let now = cost(self.order[at].1);
        let ways = 0..self.known[strand].ways.len();
        let (best, way) =
            ways.map(|way| (cost(way), way)).min_by(|one, other| one.0.total_cmp(&other.0))?;
        if best >= now - NOTHING {
            return None;
        }
        self.work_otherwise(at, way);
        self.touch([at.wrapping_sub(1), at, at + 1], waiting);
        Some(now - best)
    }

    /// Turns the stretch between a line and a neighbour about.
    fn turned(&mut self, strand: usize, waiting: &mut Waiting) -> Option<f64> {
        let at = self.place[strand];
        for number in 0..self.near[strand].len() {
            let other = self.place[self.near[strand][number]];
            let (first, last) = if other > at { (at + 1, other) } else { (other, at - 1) };
            if first > last {
                continue;
            }
            let (before, tail) = (self.before(first), self.last(last));
            let now = self.to(before, first) + self.to(tail, last + 1);
            let next = before.distance(tail) + self.to(self.first(first), last + 1);
            if next < now - NOTHING && self.may_turn(first, last) {
                self.turn(first, last);
                self.touch([first.wrapping_sub(1), first, last, last + 1], waiting);
                return Some(now - next);
            }
        }
        None
    }

    /// Takes a stretch that begins or ends with a line to one of its neighbours.
    fn elsewhere(&mut self, strand: usize, long: usize, waiting: &mut Waiting) -> Option<f64> {
        let at = self.place[strand];
        let count = self.order.len();
        let starts = [Some(at), at.checked_sub(long - 1).filter(|own| *own != at)];
        for first in starts.into_iter().flatten() {
            let end = first + long;
            if end > count {
                continue;
            }
            let before = self.before(first);
            let (head, tail) = (self.first(first), self.last(end - 1));
            let saved = self.to(before, first) + self.to(tail, end) - self.to(before, end);
            if saved < NOTHING {
                continue;
            }
            for number in 0..self.near[strand].len() {
                let other = self.place[self.near[strand][number]];
                if (first..end).contains(&other) {
                    continue;
                }
                for gap in [other, other + 1] {
                    if (first..=end).contains(&gap) {
                        continue;
                    }
                    let left = self.before(gap);
                    let joint = self.to(left, gap);
                    let straight = left.distance(head) + self.to(tail, gap) - joint;
                    let back = left.distance(tail) + self.to(head, gap) - joint;
                    let (cost, is_back) =
                        if back < straight { (back, true) } else { (straight, false) };
                    if cost >= saved - NOTHING || !self.may_move(first, end, gap, is_back) {
                        continue;
                    }
                    let now = if gap > end {
                        self.shift(first, end, gap);
                        gap - long
                    } else {
                        self.shift(gap, first, end);
                        gap
                    };
                    if is_back {
                        self.turn(now, now + long - 1);
                    }
                    let ends = [first.wrapping_sub(1), first, end - 1, end];
                    self.touch(
                        ends.into_iter().chain([
                            now.wrapping_sub(1),
                            now,
                            now + long - 1,
                            now + long,
                        ]),
                        waiting,
                    );
                    return Some(saved - cost);
                }
            }
        }
        None
    }

    /// True where turning a stretch about puts nothing before what lies inside it.
    fn may_turn(&self, first: usize, last: usize) -> bool {
        !self.has_rules
            || (first..=last).all(|at| {
                let inner = &self.known[self.order[at].0].inner;
                !inner.iter().any(|own| (first..=last).contains(&self.place[*own]))
            })
    }

    /// The same for a stretch that is taken elsewhere, and turned about.
    pub(super) fn may_move(&self, first: usize, end: usize, gap: usize, is_back: bool) -> bool {
        if !self.has_rules {
            return true;
        }
        let passed = if gap > end { end..gap } else { gap..first };
        (first..end).all(|at| {
            let own = &self.known[self.order[at].0];
            let bound = if gap > end { &own.outer } else { &own.inner };
            !bound.iter().any(|other| passed.contains(&self.place[*other]))
        }) && (!is_back || self.may_turn(first, end - 1))
    }

    /// Works each line in the way for which the whole order is shortest (by the shortest path through all their ways).
    fn begin_well(&mut self) {
        let mut costs: Vec<Vec<(f64, usize)>> = Vec::with_capacity(self.order.len());
        for (at, (strand, _)) in self.order.iter().enumerate() {
            let row = self.known[*strand].ways.iter().map(|way| {
                if at == 0 {
                    return (self.from.distance(way.begin), 0);
                }
                let before = &self.known[self.order[at - 1].0].ways;
                let reached = costs[at - 1].iter().zip(before).enumerate();
                let reached = reached
                    .map(|(number, ((cost, _), own))| (cost + own.end.distance(way.begin), number));
                let least = |one: (f64, usize), other: (f64, usize)| {
                    if other.0 < one.0 - NOTHING { other } else { one }
                };
                reached.reduce(least).unwrap_or((f64::INFINITY, 0))
            });
            let row = row.collect();
            costs.push(row);
        }
        let last = costs.last().and_then(|row| {
            (0..row.len()).min_by(|one, other| row[*one].0.total_cmp(&row[*other].0))
        });
        let Some(mut way) = last else { return };
        for at in (0..self.order.len()).rev() {
            self.order[at].1 = way;
            way = costs[at][way].1;
        }
    }
}

/// Each time the nearest of those whose inner lines are done.
fn nearest_first(known: &[Known], from: Point, beginnings: &mut Beginnings) -> Vec<Step> {
    let mut waits: Vec<usize> = known.iter().map(|own| own.inner.len()).collect();
    let mut order = Vec::with_capacity(known.len());
    let mut here = from;
    while let Some((at, way)) = beginnings.nearest(known, here, |at| waits[at] == 0) {
        beginnings.remove(known, at);
        here = known[at].ways[way].end;
        order.push((at, way));
        for other in &known[at].outer {
            waits[*other] -= 1;
        }
    }
    order
}
