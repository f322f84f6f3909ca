//! The order in which lines are worked, from which end, and where closed ones begin: what lies inside before what goes
//! around it, and the shortest way between them.

mod cooled;
mod improve;
mod near;
mod strand;
mod waiting;

use kurbo::{Point, Rect};

use crate::geometry::Outline;
use improve::{Step, Tour};
pub use strand::{Strand, Turn};
use strand::{Way, ways};

/// A line with where it may begin, and what comes before it.
struct Known {
    /// The ways to work it.
    pub ways: Vec<Way>,
    /// Lines that come before it.
    pub inner: Vec<usize>,
    /// Lines that come after it.
    pub outer: Vec<usize>,
    /// True where one of its ways is another the other way round.
    pub is_open: bool,
}

/// Which lines are worked before and after the others.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Group {
    /// Before all others.
    First,
    /// Between.
    Between,
    /// After all others.
    Last,
}

/// How much is done to find a shorter order: an amount of work, not of time, so that the same lines give the same order on
/// any machine.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Effort {
    /// Disturbances for each line.
    pub tries: usize,
    /// Places of the order that may be touched in all.
    pub work: usize,
    /// Where the disturbances begin to be drawn.
    pub seed: u64,
}

impl Effort {
    /// What is done for a sheet: about a second in a release build at most.
    pub const USUAL: Self = Self { tries: 120, work: 60_000_000, seed: 13 };
}

/// The order for lines, beginning at a place. The same lines give the same order. `group` tells which come first and last;
/// what lies inside a line comes with it where it would come too late, what goes around it where it would come too early.
#[must_use]
pub fn order(strands: &[Strand], from: Point, group: &dyn Fn(usize) -> Group) -> Vec<Turn> {
    order_with(strands, from, group, Effort::USUAL)
}

/// As [`order`], with more effort or less.
#[must_use]
pub fn order_with(
    strands: &[Strand],
    from: Point,
    group: &dyn Fn(usize) -> Group,
    effort: Effort,
) -> Vec<Turn> {
    let inner = inside(strands);
    let mut groups: Vec<Group> = (0..strands.len()).map(group).collect();
    for (at, inner) in inner.iter().enumerate() {
        for own in inner {
            if groups[at] == Group::First {
                groups[*own] = Group::First;
            }
            if groups[*own] == Group::Last {
                groups[at] = Group::Last;
            }
        }
    }
    let mut turns = Vec::with_capacity(strands.len());
    let mut here = from;
    for group in [Group::First, Group::Between, Group::Last] {
        let own: Vec<usize> = (0..strands.len()).filter(|at| groups[*at] == group).collect();
        if own.is_empty() {
            continue;
        }
        let known = known(strands, &own, &inner);
        for (strand, way) in shortest(&known, here, effort) {
            let way = &known[strand].ways[way];
            here = way.end;
            turns.push(Turn { strand: own[strand], ..way.turn });
        }
    }
    turns
}

/// Orders with disturbances drawn otherwise, where what lies inside comes first: rules keep a disturbed order near to what
/// it was, and what is stuck in one is found in another. Each does half the tries.
const RUNS: u64 = 8;

/// The shortest order that was found.
fn shortest(known: &[Known], from: Point, effort: Effort) -> Vec<Step> {
    if known.iter().all(|own| own.inner.is_empty()) {
        return Tour::new(known, from, effort).improved().0;
    }
    let far = |order: &[Step]| {
        let mut here = from;
        let mut far = 0.0;
        for (strand, way) in order {
            let way = &known[*strand].ways[*way];
            far += here.distance(way.begin);
            here = way.end;
        }
        far
    };
    let mut best: Option<(f64, Vec<Step>)> = None;
    let mut left = effort.work;
    for run in 0..RUNS {
        let own = Effort { tries: effort.tries / 2, work: left, seed: effort.seed + run };
        let (order, work) = Tour::new(known, from, own).improved();
        let far = far(&order);
        if best.as_ref().is_none_or(|(known, _)| far < *known) {
            best = Some((far, order));
        }
        left = left.saturating_sub(work);
        // Another like it would not come to its end.
        if left < work {
            break;
        }
    }
    best.map(|(_, order)| order).unwrap_or_default()
}

/// Some of the lines, numbered anew.
fn known(strands: &[Strand], own: &[usize], inner: &[Vec<usize>]) -> Vec<Known> {
    let mut number = vec![usize::MAX; strands.len()];
    own.iter().enumerate().for_each(|(at, strand)| number[*strand] = at);
    let mut known: Vec<Known> = own
        .iter()
        .map(|strand| Known {
            ways: ways(*strand, &strands[*strand]),
            inner: inner[*strand]
                .iter()
                .map(|other| number[*other])
                .filter(|at| *at != usize::MAX)
                .collect(),
            outer: Vec::new(),
            is_open: !strands[*strand].is_closed,
        })
        .collect();
    for at in 0..known.len() {
        for other in known[at].inner.clone() {
            known[other].outer.push(at);
        }
    }
    known
}

/// Which lines lie within each closed one.
fn inside(strands: &[Strand]) -> Vec<Vec<usize>> {
    let boxes: Vec<Rect> = strands
        .iter()
        .map(|own| {
            let first = own.points.first().copied().unwrap_or_default();
            own.points.iter().fold(Rect::from_points(first, first), |all, at| all.union_pt(*at))
        })
        .collect();
    // By their left edges, so that each looks only at those that can lie in it.
    let mut by_left: Vec<usize> = (0..strands.len()).collect();
    by_left.sort_by(|one, other| boxes[*one].x0.total_cmp(&boxes[*other].x0));
    let within = |at: usize| {
        let own = &strands[at];
        if !own.is_closed {
            return Vec::new();
        }
        let around = Outline::new(own.points[..own.points.len().saturating_sub(1)].to_vec());
        let Some(around) = around else { return Vec::new() };
        let first = by_left.partition_point(|other| boxes[*other].x0 < boxes[at].x0);
        let near = by_left[first..].iter().take_while(|other| boxes[**other].x0 <= boxes[at].x1);
        let is_in = |other: &usize| {
            let first = strands[*other].points.first();
            *other != at
                && boxes[at].contains_rect(boxes[*other])
                && boxes[at] != boxes[*other]
                && first.is_some_and(|first| around.holds(*first))
        };
        near.copied().filter(is_in).collect()
    };
    (0..strands.len()).map(within).collect()
}

/// How far the tool travels while it is up, from a place.
#[must_use]
pub fn travel(strands: &[Strand], order: &[Turn], from: Point) -> f64 {
    let mut here = from;
    let mut far = 0.0;
    for turn in order {
        let points = turn.points(&strands[turn.strand]);
        if let (Some(first), Some(last)) = (points.first(), points.last()) {
            far += here.distance(*first);
            here = *last;
        }
    }
    far
}
