//! Which lines begin near to a place: their beginnings in square cells, looked through from the inside out.

use kurbo::{Point, Rect};

use super::Known;

/// Where lines may begin.
pub(super) struct Beginnings {
    corner: Point,
    side: f64,
    across: usize,
    down: usize,
    /// In each cell, lines with the way that begins there.
    cells: Vec<Vec<(usize, usize)>>,
}

impl Beginnings {
    /// Of these lines, in all their ways.
    pub fn of(known: &[Known]) -> Self {
        let places = || known.iter().flat_map(|own| own.ways.iter().map(|way| way.begin));
        let first = places().next().unwrap_or_default();
        let bounds = places().fold(Rect::from_points(first, first), |all, at| all.union_pt(at));
        let count = f64::from(u32::try_from(places().count()).unwrap_or(u32::MAX)).max(1.0);
        let most = bounds.width().max(bounds.height()).max(1e-6);
        let side = (bounds.width().max(most / 100.0) * bounds.height().max(most / 100.0) / count)
            .sqrt()
            .max(most / 2000.0);
        let number = |long: f64| cell_number(long / side) + 1;
        let (across, down) = (number(bounds.width()), number(bounds.height()));
        let mut own = Self {
            corner: bounds.origin(),
            side,
            across,
            down,
            cells: vec![Vec::new(); across * down],
        };
        for (strand, known) in known.iter().enumerate() {
            for (way, at) in known.ways.iter().enumerate() {
                let (x, y) = own.cell(at.begin);
                own.cells[y * across + x].push((strand, way));
            }
        }
        own
    }

    fn cell(&self, at: Point) -> (usize, usize) {
        let x = cell_number((at.x - self.corner.x) / self.side).min(self.across - 1);
        let y = cell_number((at.y - self.corner.y) / self.side).min(self.down - 1);
        (x, y)
    }

    /// A line is done: it is not found any more.
    pub fn remove(&mut self, known: &[Known], strand: usize) {
        for way in &known[strand].ways {
            let (x, y) = self.cell(way.begin);
            self.cells[y * self.across + x].retain(|(own, _)| *own != strand);
        }
    }

    /// Hands on the lines of one ring of cells around a place after the other, with how far those of the ring lie away at
    /// least, until `enough` says so.
    fn outwards(&self, from: Point, mut look: impl FnMut(f64, &[(usize, usize)]) -> bool) {
        let (x, y) = self.cell(from);
        for ring in 0..=self.across.max(self.down) {
            let least = f64::from(u32::try_from(ring.saturating_sub(1)).unwrap_or(u32::MAX));
            let (left, top) = (x.checked_sub(ring), y.checked_sub(ring));
            let (right, bottom) = (x + ring, y + ring);
            for row in top.unwrap_or(0)..=bottom.min(self.down - 1) {
                let is_edge = Some(row) == top || row == bottom;
                let columns: &mut dyn Iterator<Item = usize> = if is_edge {
                    &mut (left.unwrap_or(0)..=right.min(self.across - 1))
                } else {
                    &mut left.into_iter().chain((right < self.across).then_some(right))
                };
                for column in columns {
                    let own = &self.cells[row * self.across + column];
                    if !own.is_empty() && look(least * self.side, own) {
                        return;
                    }
                }
            }
            // Rings without a line in them end the search too.
            if look(least * self.side, &[]) {
                return;
            }
        }
    }

    /// The nearest that is allowed, and its way.
    pub fn nearest(
        &self,
        known: &[Known],
        from: Point,
        is_allowed: impl Fn(usize) -> bool,
    ) -> Option<(usize, usize)> {
        let mut best: Option<(f64, usize, usize)> = None;
        self.outwards(from, |least, found| {
            for (strand, way) in found.iter().filter(|own| is_allowed(own.0)) {
                let far = from.distance(known[*strand].ways[*way].begin);
                if best.is_none_or(|own| (far, *strand, *way) < own) {
                    best = Some((far, *strand, *way));
                }
            }
            found.is_empty() && best.is_some_and(|own| own.0 <= least)
        });
        best.map(|own| (own.1, own.2))
    }

    /// So many of the nearest to any end of a line, but not itself.
    pub fn around(&self, known: &[Known], strand: usize, count: usize) -> Vec<usize> {
        let mut all: Vec<(f64, usize)> = Vec::new();
        for way in &known[strand].ways {
            let mut found: Vec<(f64, usize)> = Vec::new();
            self.outwards(way.begin, |least, cell| {
                for (other, at) in cell.iter().filter(|own| own.0 != strand) {
                    let far = way.begin.distance(known[*other].ways[*at].begin);
                    found.push((far, *other));
                }
                found.len() >= count
                    && cell.is_empty()
                    && found.iter().filter(|own| own.0 <= least).count() >= count
            });
            found.sort_by(|one, other| one.0.total_cmp(&other.0).then(one.1.cmp(&other.1)));
            found.truncate(2 * count);
            all.extend(found);
        }
        all.sort_by(|one, other| one.0.total_cmp(&other.0).then(one.1.cmp(&other.1)));
        let mut near: Vec<usize> = Vec::new();
        for (_, other) in all {
            if near.len() < count && !near.contains(&other) {
                near.push(other);
            }
        }
        near
    }
}

fn cell_number(cells: f64) -> usize {
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 2000")]
    let number = cells.floor().clamp(0.0, 1e6) as usize;
    number
}
