//! The order in which lines are worked, from which end, and where closed ones begin: what lies inside before what goes
//! around it, and the shortest way between them.

use kurbo::{Point, Rect};

use crate::geometry::Outline;

/// A line to be worked.
#[derive(Debug, Clone, PartialEq)]
pub struct Strand {
    /// Where it runs; of a closed one the last point is the first.
    pub points: Vec<Point>,
    /// True where it comes back to where it began.
    pub is_closed: bool,
}

/// A line in its place in the order.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Turn {
    /// Which of the lines.
    pub strand: usize,
    /// The point at which a closed one begins.
    pub begins: usize,
    /// True where an open one is worked from its end.
    pub is_reversed: bool,
}

/// Places at which a closed line may begin.
const PLACES: usize = 12;

/// Passes over the whole order in search of a shorter way.
const PASSES: usize = 12;

/// An order of more lines is only built, not improved line by line.
const MOST_IMPROVED: usize = 1500;

/// A line with where it may begin.
struct Known {
    /// Where it begins, where it ends then, and how that is told.
    ways: Vec<(Point, Point, Turn)>,
    /// Lines that come before it.
    inner: Vec<usize>,
}

/// The order for lines, beginning at a place. The same lines give the same order.
#[must_use]
pub fn order(strands: &[Strand], from: Point) -> Vec<Turn> {
    let inner = inside(strands);
    let known: Vec<Known> = strands
        .iter()
        .zip(inner)
        .enumerate()
        .map(|(at, (strand, inner))| Known { ways: ways(at, strand), inner })
        .collect();
    let mut order = nearest_first(&known, from);
    if order.len() <= MOST_IMPROVED {
        for _ in 0..PASSES {
            let shorter = moved(&known, &mut order, from) | turned(&known, &mut order, from);
            if !shorter {
                break;
            }
        }
    }
    begin_well(&known, &mut order, from);
    order.into_iter().map(|(strand, way)| known[strand].ways[way].2).collect()
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
    let within = |at: usize| {
        let own = &strands[at];
        if !own.is_closed {
            return Vec::new();
        }
        let around = Outline::new(own.points[..own.points.len().saturating_sub(1)].to_vec());
        let Some(around) = around else { return Vec::new() };
        let is_in = |other: &usize| {
            let first = strands[*other].points.first();
            *other != at
                && boxes[at].contains_rect(boxes[*other])
                && boxes[at] != boxes[*other]
                && first.is_some_and(|first| around.holds(*first))
        };
        (0..strands.len()).filter(is_in).collect()
    };
    (0..strands.len()).map(within).collect()
}

fn ways(at: usize, strand: &Strand) -> Vec<(Point, Point, Turn)> {
    let turn = |begins: usize, is_reversed: bool| Turn { strand: at, begins, is_reversed };
    let (Some(first), Some(last)) = (strand.points.first(), strand.points.last()) else {
        return vec![(Point::ZERO, Point::ZERO, turn(0, false))];
    };
    if !strand.is_closed {
        return vec![(*first, *last, turn(0, false)), (*last, *first, turn(0, true))];
    }
    // Corners, the sharpest first, and evenly where it has none: a knife begins best where it would swivel anyway.
    let ring = &strand.points[..strand.points.len() - 1];
    let count = ring.len().max(1);
    let mut corners: Vec<(f64, usize)> = (0..ring.len())
        .map(|at| {
            let into = ring[at] - ring[(at + count - 1) % count];
            let out = ring[(at + 1) % count] - ring[at];
            (into.cross(out).atan2(into.dot(out)).abs(), at)
        })
        .collect();
    corners.sort_by(|one, other| other.0.total_cmp(&one.0).then(one.1.cmp(&other.1)));
    let sharp = corners.iter().filter(|(turn, _)| *turn > 0.3).map(|(_, at)| *at);
    let mut begins: Vec<usize> = sharp.take(PLACES).collect();
    if begins.len() < 4 {
        begins.extend((0..8).map(|part| part * count / 8));
    }
    begins.sort_unstable();
    begins.dedup();
    begins.into_iter().map(|begin| (ring[begin], ring[begin], turn(begin, false))).collect()
}

/// Each time the nearest of those whose inner lines are done.
fn nearest_first(known: &[Known], from: Point) -> Vec<(usize, usize)> {
    let mut waits: Vec<usize> = known.iter().map(|own| own.inner.len()).collect();
    let mut outer: Vec<Vec<usize>> = vec![Vec::new(); known.len()];
    for (at, own) in known.iter().enumerate() {
        own.inner.iter().for_each(|inner| outer[*inner].push(at));
    }
    let mut free: Vec<usize> = (0..known.len()).filter(|at| waits[*at] == 0).collect();
    let mut order = Vec::with_capacity(known.len());
    let mut here = from;
    while !free.is_empty() {
        let mut best = (f64::INFINITY, 0, 0);
        for (place, at) in free.iter().enumerate() {
            for (way, (begin, ..)) in known[*at].ways.iter().enumerate() {
                let far = here.distance_squared(*begin);
                if far < best.0 {
                    best = (far, place, way);
                }
            }
        }
        let at = free.swap_remove(best.1);
        here = known[at].ways[best.2].1;
        order.push((at, best.2));
        for other in &outer[at] {
            waits[*other] -= 1;
            if waits[*other] == 0 {
                free.push(*other);
            }
        }
    }
    order
}

/// Begin and end of the line at a place of the order; before the first, where the tool begins.
fn ends(known: &[Known], order: &[(usize, usize)], at: usize) -> (Point, Point) {
    let (strand, way) = order[at];
    let (begin, end, _) = known[strand].ways[way];
    (begin, end)
}

fn gap(known: &[Known], order: &[(usize, usize)], from: Point, at: usize) -> f64 {
    // The tool may stay where the last one ends.
    if at >= order.len() {
        return 0.0;
    }
    let before = if at == 0 { from } else { ends(known, order, at - 1).1 };
    before.distance(ends(known, order, at).0)
}

/// Takes up to three lines elsewhere, where that is shorter; true where it was.
fn moved(known: &[Known], order: &mut Vec<(usize, usize)>, from: Point) -> bool {
    let mut any = false;
    let count = order.len();
    for long in 1..=3usize {
        let mut at = 0;
        while at + long <= count {
            let gain = gap(known, order, from, at) + gap(known, order, from, at + long);
            let before = if at == 0 { from } else { ends(known, order, at - 1).1 };
            let rest = if at + long < count {
                before.distance(ends(known, order, at + long).0)
            } else {
                0.0
            };
            let saved = gain - rest;
            if saved > 1e-6 {
                let (head, tail) = (ends(known, order, at).0, ends(known, order, at + long - 1).1);
                let (least, most) = bounds(known, order, at, long);
                let mut best: Option<(f64, usize)> = None;
                for to in least..=most {
                    if (at..=at + long).contains(&to) {
                        continue;
                    }
                    let left = if to == 0 { from } else { ends(known, order, to - 1).1 };
                    let (join, cut) = if to < count {
                        let right = ends(known, order, to).0;
                        (left.distance(head) + tail.distance(right), left.distance(right))
                    } else {
                        (left.distance(head), 0.0)
                    };
                    let cost = join - cut;
                    if cost < saved - 1e-6 && best.is_none_or(|(known, _)| cost < known) {
                        best = Some((cost, to));
                    }
                }
                if let Some((_, to)) = best {
                    let chain: Vec<_> = order.drain(at..at + long).collect();
                    let to = if to > at { to - long } else { to };
                    order.splice(to..to, chain);
                    any = true;
                }
            }
            at += 1;
        }
    }
    any
}

/// Between which places of the order a chain may go, for what lies inside to come before what goes around it.
fn bounds(known: &[Known], order: &[(usize, usize)], at: usize, long: usize) -> (usize, usize) {
    let chain: Vec<usize> = order[at..at + long].iter().map(|own| own.0).collect();
    let mut least = 0;
    let mut most = order.len();
    for (place, (strand, _)) in order.iter().enumerate() {
        if (at..at + long).contains(&place) {
            continue;
        }
        if chain.iter().any(|own| known[*own].inner.contains(strand)) {
            least = least.max(place + 1);
        }
        if chain.iter().any(|own| known[*strand].inner.contains(own)) {
            most = most.min(place);
        }
    }
    (least, most)
}

/// Turns a stretch of the order about, each line the other way, where that is shorter; true where it was.
fn turned(known: &[Known], order: &mut [(usize, usize)], from: Point) -> bool {
    let mut any = false;
    let count = order.len();
    for first in 0..count {
        for last in first + 1..count.min(first + 400) {
            let (strand, _) = order[last];
            // What goes around another in the stretch would come before it.
            if order[first..last].iter().any(|(other, _)| known[strand].inner.contains(other)) {
                break;
            }
            let before = if first == 0 { from } else { ends(known, order, first - 1).1 };
            let now = gap(known, order, from, first) + gap(known, order, from, last + 1);
            let head = ends(known, order, last).1;
            let tail = ends(known, order, first).0;
            let next =
                if last + 1 < count { tail.distance(ends(known, order, last + 1).0) } else { 0.0 };
            if before.distance(head) + next < now - 1e-6 {
                order[first..=last].reverse();
                for (strand, way) in &mut order[first..=last] {
                    // An open line has two ways; a closed one begins where it did.
                    if known[*strand].ways.len() == 2
                        && known[*strand].ways[0].0 == known[*strand].ways[1].1
                    {
                        *way = 1 - *way;
                    }
                }
                any = true;
            }
        }
    }
    any
}

/// Begins each line where the way from the one before and to the next is shortest.
fn begin_well(known: &[Known], order: &mut [(usize, usize)], from: Point) {
    for _ in 0..2 {
        for at in 0..order.len() {
            let before = if at == 0 { from } else { ends(known, order, at - 1).1 };
            let next = (at + 1 < order.len()).then(|| ends(known, order, at + 1).0);
            let cost = |way: &(Point, Point, Turn)| {
                before.distance(way.0) + next.map_or(0.0, |next| way.1.distance(next))
            };
            let ways = &known[order[at].0].ways;
            let best = (0..ways.len()).min_by(|a, b| cost(&ways[*a]).total_cmp(&cost(&ways[*b])));
            order[at].1 = best.unwrap_or(order[at].1);
        }
    }
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

impl Turn {
    /// The line as it is worked.
    #[must_use]
    pub fn points(&self, strand: &Strand) -> Vec<Point> {
        if strand.is_closed {
            let ring = &strand.points[..strand.points.len().saturating_sub(1)];
            let begins = self.begins.min(ring.len().saturating_sub(1));
            let turned = ring[begins..].iter().chain(&ring[..begins]);
            return turned.copied().chain(ring.get(begins).copied()).collect();
        }
        let mut points = strand.points.clone();
        if self.is_reversed {
            points.reverse();
        }
        points
    }
}
