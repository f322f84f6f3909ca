//! The narrowest place of an area: where its edge comes nearest to itself across card.

use kurbo::{Point, Shape};

use crate::geometry::{Region, Ring, polygon};

/// Places of the edge that are looked at, about.
const PLACES: usize = 900;

/// The least width, mm, and where it lies. From places spread along the edge straight across the card, to where the edge
/// is met again; where that runs another way it is a corner, not a stay.
pub(super) fn narrowest(area: &Region) -> Option<(f64, Point, Point)> {
    let mut sides: Vec<(Point, Point)> = Vec::new();
    for Ring { mut points, is_hole } in area.rings() {
        // All with the card a quarter turn on from their way.
        if (polygon(&points).area() < 0.0) != is_hole {
            points.reverse();
        }
        let next = points.iter().skip(1).chain(points.first());
        sides.extend(points.iter().zip(next).map(|(a, b)| (*a, *b)));
    }
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
            let inward = way.turn_90();
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

#[cfg(test)]
mod tests {
    use kurbo::{Rect, Vec2};
    use proptest::prelude::*;

    use super::*;

    fn square(middle: Point, half: f64) -> Vec<Point> {
        [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)]
            .map(|(x, y)| middle + Vec2::new(x, y) * half)
            .to_vec()
    }

    proptest! {
        /// A plate of 60 mm with a square hole near to one side, and a smaller plate in it: what is narrowest is what is left
        /// beside the hole, or the smaller plate, however all of it is turned and whichever way round its rings run.
        #[test]
        fn card_is_measured_beside_holes_and_in_them(
            stay in 0.3..4.0f64,
            small in 0.3..4.0f64,
            turned in 0.0..6.3f64,
            reversed in any::<[bool; 3]>(),
        ) {
            let hole = Point::new(30.0 - stay - 10.0, 0.0);
            let mut rings = [square(Point::ZERO, 30.0), square(hole, 10.0), square(hole, small / 2.0)];
            for (ring, reversed) in rings.iter_mut().zip(reversed) {
                if reversed {
                    ring.reverse();
                }
            }
            let [plate, hole, small_plate] = rings;
            let area = Region::of_rings([vec![plate, hole], vec![small_plate]].into_iter().map(Vec::into_iter));
            let area = area.transformed(kurbo::Affine::rotate(turned));
            let (gap, from, to) = narrowest(&area).unwrap();
            prop_assert!((gap - stay.min(small)).abs() < 1e-6, "{gap} of {stay} and {small}");
            prop_assert!(area.holds(from.midpoint(to)) && (from.distance(to) - gap).abs() < 1e-9);
        }
    }

    #[test]
    fn a_corner_is_no_narrow_place() {
        let area = Region::rect(Rect::new(0.0, 0.0, 40.0, 25.0));
        let (gap, ..) = narrowest(&area).unwrap();
        assert!((gap - 25.0).abs() < 1e-9, "{gap}");
    }
}
