//! The narrowest place of an area: where its edge comes nearest to itself across card.

use kurbo::{Point, Vec2};

use crate::geometry::Region;

/// Places of the edge that are looked at, about.
const PLACES: usize = 900;

/// The least width, mm, and where it lies. From places spread along the edge straight across the card, to where the edge
/// is met again; where that runs another way it is a corner, not a stay.
pub(super) fn narrowest(area: &Region) -> Option<(f64, Point, Point)> {
    let rings: Vec<Vec<Point>> = area.rings().map(|ring| ring.points).collect();
    let sides: Vec<(Point, Point)> = rings
        .iter()
        .flat_map(|ring| ring.iter().zip(ring.iter().skip(1).chain(ring.first())))
        .map(|(a, b)| (*a, *b))
        .collect();
    let length: f64 = sides.iter().map(|(a, b)| a.distance(*b)).sum();
    let step = (length / real(PLACES)).max(0.2);
    // Sides by the rows that they pass, so that few are held against each place.
    let bounds = area.bounds()?;
    let rows = 64usize;
    let high = (bounds.height() / real(rows)).max(1e-6);
    let row = |y: f64| whole((y - bounds.y0) / high).min(rows - 1);
    let mut by_row: Vec<Vec<u32>> = vec![Vec::new(); rows];
    for (at, (a, b)) in sides.iter().enumerate() {
        let passed = &mut by_row[row(a.y.min(b.y))..=row(a.y.max(b.y))];
        passed.iter_mut().for_each(|own| own.push(u32::try_from(at).unwrap_or(0)));
    }
    let mut best: Option<(f64, Point, Point)> = None;
    let mut left = 0.0;
    for (at, (a, b)) in sides.iter().enumerate() {
        let long = a.distance(*b);
        if long < 1e-9 {
            continue;
        }
        let way = (*b - *a) / long;
        while left < long {
            let from = *a + way * left;
            left += step;
            for inward in [Vec2::new(-way.y, way.x), Vec2::new(way.y, -way.x)] {
                if !area.holds(from + inward * 1e-3) {
                    continue;
                }
                let most = best.map_or(f64::INFINITY, |(gap, ..)| gap);
                let reach = most.min(bounds.width() + bounds.height());
                let to = from + inward * reach;
                let rows = row(from.y.min(to.y))..=row(from.y.max(to.y));
                let hit = rows
                    .flat_map(|own| by_row[own].iter())
                    .filter(|other| **other as usize != at)
                    .filter_map(|other| {
                        let (c, d) = sides[*other as usize];
                        let across = d - c;
                        let turn = inward.cross(across);
                        if turn.abs() < 1e-12 {
                            return None;
                        }
                        let gap = (c - from).cross(across) / turn;
                        let share = (c - from).cross(inward) / turn;
                        ((0.0..=1.0).contains(&share) && gap > 1e-6).then_some((gap, across))
                    })
                    .min_by(|one, other| one.0.total_cmp(&other.0));
                // The other side must run back, within 50 degrees.
                if let Some((gap, across)) = hit
                    && gap < most
                    && across.normalize().dot(way) < -0.64
                {
                    best = Some((gap, from, from + inward * gap));
                }
            }
        }
        left -= long;
    }
    best
}

#[expect(clippy::cast_precision_loss, reason = "small counts")]
const fn real(count: usize) -> f64 {
    count as f64
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
fn whole(value: f64) -> usize {
    value.clamp(0.0, 1e6) as usize
}
