//! A line to be worked, and the ways in which it can be.

use kurbo::Point;

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

/// A way to work a line.
#[derive(Debug, Clone, Copy)]
pub(super) struct Way {
    /// Where it begins.
    pub begin: Point,
    /// Where it ends.
    pub end: Point,
    /// How that is told.
    pub turn: Turn,
}

/// Places at which a closed line may begin.
const PLACES: usize = 12;

/// The ways of a line: from either end, or round from any of some places.
pub(super) fn ways(at: usize, strand: &Strand) -> Vec<Way> {
    let turn = |begins: usize, is_reversed: bool| Turn { strand: at, begins, is_reversed };
    let way = |begin: Point, end: Point, turn: Turn| Way { begin, end, turn };
    let (Some(first), Some(last)) = (strand.points.first(), strand.points.last()) else {
        return vec![way(Point::ZERO, Point::ZERO, turn(0, false))];
    };
    if !strand.is_closed {
        return vec![way(*first, *last, turn(0, false)), way(*last, *first, turn(0, true))];
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
    begins.into_iter().map(|begin| way(ring[begin], ring[begin], turn(begin, false))).collect()
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
