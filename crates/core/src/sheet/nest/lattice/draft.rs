//! Lattices that a shape can stand in: rows of copies, and the rows stacked on their like.

use kurbo::Vec2;

use super::stack::{Member, Sides, fall_of, stacked, stretch};
use super::{LAID, Lattice, Row, count};
use crate::sheet::nest::shape::{Shape, Turns};

/// Heights that are tried for a copy beside a copy, up and down.
const RISES: usize = 16;

/// Steps by which copies turned alike may stand farther apart than they need to, so that those of the next row
/// reach in between; at twice the distance there is room for one more.
const GAPS: usize = 16;

/// Offsets for a first look at a row, and rows that are looked at again.
const ROUGH: usize = 8;
const CLOSE: usize = 14;

/// The lattices of a shape.
pub(super) struct Draft<'a> {
    shape: &'a Shape,
    /// Copies may be turned by half.
    halves: bool,
}

/// The copies of a row within one period, and the period.
struct Strip {
    members: Vec<Member>,
    period: f64,
}

impl Strip {
    /// The same row turned by half.
    fn turned(&self) -> Self {
        let members = self.members.iter().map(|(which, by)| (1 - which, -*by)).collect();
        Self { members, period: self.period }
    }

    fn row(&self, turn: f64) -> Row {
        let turns = [turn, turn + 180.0];
        let copies = self.members.iter().map(|(which, by)| (turns[*which], *by)).collect();
        Row { copies, period: self.period }
    }

    /// The area of one copy where such rows stand a fall apart.
    fn each(&self, fall: f64) -> f64 {
        self.period * fall / count(self.members.len())
    }

    /// The area of one copy where such a row stands on its like, roughly.
    fn rough(&self, sides: &Sides) -> f64 {
        let falls = (0..ROUGH).map(|step| {
            let offset = count(step) * self.period / count(ROUGH);
            fall_of(sides, &self.members, &self.members, offset, self.period)
        });
        self.each(falls.filter(|fall| *fall > 0.0).fold(f64::INFINITY, f64::min))
    }
}

impl<'a> Draft<'a> {
    pub(super) fn new(shape: &'a Shape) -> Self {
        let halves = match &shape.turns {
            Turns::Any => true,
            Turns::These(turns) => turns.iter().any(|turn| {
                turns.iter().any(|other| ((turn - other).rem_euclid(360.0) - 180.0).abs() < 1e-9)
            }),
        };
        Self { shape, halves }
    }

    /// Those of one turn that need least area, in rows that lie or stand upright.
    pub(super) fn lattices(&self, turn: f64, upright: bool) -> Vec<Lattice> {
        let sides = Sides::new(self.shape, turn, upright);
        // Only rows that need least area at a rough look are looked at closely.
        let mut strips: Vec<(f64, Strip)> =
            self.strips(&sides).into_iter().map(|strip| (strip.rough(&sides), strip)).collect();
        strips.sort_by(|(a, _), (b, _)| a.total_cmp(b));
        strips.truncate(CLOSE);
        let mut found: Vec<Lattice> = Vec::new();
        for (_, strip) in strips {
            let lattice = |rows: Vec<(Row, Vec2)>, fall: f64| Lattice {
                rows,
                upright,
                each: strip.each(fall),
            };
            let (own, period) = (&strip.members, strip.period);
            for (offset, fall) in stacked(&sides, own, own, period) {
                let fall = fall * stretch(&sides, &[(own, Vec2::new(offset, fall))], period);
                found.push(lattice(vec![(strip.row(turn), Vec2::new(offset, fall))], fall));
            }
            if !self.halves {
                continue;
            }
            let turned = strip.turned();
            let downs = stacked(&sides, own, &turned.members, period);
            let ups = stacked(&sides, &turned.members, own, period);
            if let (Some((o1, h1)), Some((o2, h2))) = (downs.first(), ups.first()) {
                let steps: [(&[Member], Vec2); 2] =
                    [(own, Vec2::new(*o2, *h2)), (&turned.members, Vec2::new(*o1, *h1))];
                let more = stretch(&sides, &steps, period);
                let (h1, h2) = (h1 * more, h2 * more);
                let rows = vec![
                    (strip.row(turn), Vec2::new(*o2, h2)),
                    (turned.row(turn), Vec2::new(*o1, h1)),
                ];
                found.push(lattice(rows, f64::midpoint(h1, h2)));
            }
        }
        found.retain(|lattice| lattice.each.is_finite() && lattice.each > 0.0);
        found.sort_by(|a, b| a.each.total_cmp(&b.each));
        found.truncate(LAID);
        found
    }

    /// Rows of copies turned alike, and of copies each second of which is turned by half and stands higher or
    /// lower.
    fn strips(&self, sides: &Sides) -> Vec<Strip> {
        let alone = sides.across[0].clears(&sides.across[0], 0.0);
        let mut strips: Vec<Strip> = (0..GAPS)
            .map(|step| alone * (1.0 + count(step) / count(GAPS)))
            .map(|period| Strip { members: vec![(0, Vec2::ZERO)], period })
            .collect();
        if !self.halves {
            return strips;
        }
        for rise in 0..=2 * RISES {
            let share = count(rise) / count(RISES) - 1.0;
            let down = share * sides.height * 0.98;
            let to = sides.across[0].clears(&sides.across[1], down);
            let back = sides.across[1].clears(&sides.across[0], -down);
            if !to.is_finite() || !back.is_finite() {
                continue;
            }
            // Copies turned alike must clear each other too.
            let period = (to + back).max(alone);
            if period <= 0.0 || (period / 2.0 >= alone && down != 0.0) {
                continue;
            }
            let members = vec![(0, Vec2::ZERO), (1, Vec2::new(to, down))];
            strips.push(Strip { members, period });
        }
        strips
    }
}
