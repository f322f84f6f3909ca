//! Nicks: short uncut places that hold a piece in its sheet, in the middle of straight stretches.

use kurbo::Point;

use crate::job::Nicks;

/// A nick keeps this far from corners, mm, where there is room.
const FROM_CORNERS: f64 = 2.0;

/// A closed line in pieces, with the uncut places between them; whole where it is too short for them. The first point is
/// not repeated at the end.
#[must_use]
pub fn nicked(ring: &[Point], nicks: Nicks) -> Vec<Vec<Point>> {
    let around: f64 = sides(ring).map(|(a, b)| a.distance(b)).sum();
    let count = usize::try_from(nicks.count).unwrap_or(1);
    if ring.len() < 3 || around < 2.0 * nicks.width * f64::from(nicks.count) {
        return vec![closed(ring)];
    }
    // Straight stretches, the longest first: a nick in the middle of each, then a second in the longest, and so on.
    let mut stretches: Vec<(usize, f64, u32)> = sides(ring)
        .enumerate()
        .map(|(at, (a, b))| (at, a.distance(b), 0))
        .filter(|(_, long, _)| *long >= nicks.width + 0.2)
        .collect();
    for _ in 0..count {
        let free = |(_, long, taken): &(usize, f64, u32)| {
            (long - 2.0 * FROM_CORNERS) / f64::from(taken + 1) - nicks.width
        };
        let best = stretches.iter_mut().max_by(|one, other| free(one).total_cmp(&free(other)));
        let Some(best) = best else { return vec![closed(ring)] };
        best.2 += 1;
    }
    // Where each begins and ends, counted along the line.
    let mut gaps: Vec<[f64; 2]> = Vec::new();
    let mut gone = 0.0;
    for (at, (a, b)) in sides(ring).enumerate() {
        let long = a.distance(b);
        if let Some((_, _, taken)) = stretches.iter().find(|own| own.0 == at && own.2 > 0) {
            for number in 0..*taken {
                let middle = gone + long * f64::from(number + 1) / f64::from(taken + 1);
                gaps.push([middle - nicks.width / 2.0, middle + nicks.width / 2.0]);
            }
        }
        gone += long;
    }
    let pieces = gaps.iter().enumerate().map(|(at, gap)| {
        let next = gaps.get(at + 1).map_or(gaps[0][0] + around, |next| next[0]);
        part(ring, around, gap[1], next)
    });
    pieces.filter(|piece| piece.len() > 1).collect()
}

fn sides(ring: &[Point]) -> impl Iterator<Item = (Point, Point)> + '_ {
    ring.iter().copied().zip(ring.iter().copied().cycle().skip(1))
}

fn closed(ring: &[Point]) -> Vec<Point> {
    ring.iter().copied().chain(ring.first().copied()).collect()
}

/// The line from one distance along it to another, beyond its end from its beginning on.
fn part(ring: &[Point], around: f64, from: f64, to: f64) -> Vec<Point> {
    let mut points = Vec::new();
    for turn in [0.0, around] {
        let mut gone = turn;
        for (a, b) in sides(ring) {
            let long = a.distance(b);
            let (begin, end) = (gone.max(from), (gone + long).min(to));
            if end > begin + 1e-9 && long > 0.0 {
                if points.is_empty() {
                    points.push(a.lerp(b, (begin - gone) / long));
                }
                points.push(a.lerp(b, (end - gone) / long));
            }
            gone += long;
        }
    }
    points
}
