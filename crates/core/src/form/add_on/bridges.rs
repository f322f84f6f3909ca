//! Bridges: strips of card left standing in an opening, so that what it goes around stays in the sheet.

use kurbo::{Point, Vec2};

use crate::geometry::Region;

/// An island that holds others is held with them: so many rounds of that.
const ROUNDS: usize = 6;

/// Places along an island's edge where a bridge may stand.
const PLACES: usize = 160;

/// The second bridge of an island stands so far around it, as the cosine of the angle between the two.
const ACROSS: f64 = -0.25;

/// Ways that are longer by no more than this, as a share, are as short.
const NEARLY: f64 = 1.02;

/// Ways run the same way up to the turn of which this is the cosine.
const SAME_WAY: f64 = 0.9;

/// What is smaller is dust of the algebra, mm².
const DUST: f64 = 0.02;

/// The opening with bridges of the given width, mm, two to each island where there is room, and how many they are. They
/// stand where the way from the island to the other side is shortest.
pub(super) fn bridged(open: &Region, width: f64) -> (Region, usize) {
    let mut bridges = 0;
    let mut done: Vec<Region> = Vec::new();
    let mut left: Vec<Region> = open.each().collect();
    for _ in 0..ROUNDS {
        for part in std::mem::take(&mut left) {
            let rings: Vec<Vec<Point>> = part.rings().map(|ring| ring.points).collect();
            if rings.len() < 2 {
                done.push(part);
                continue;
            }
            let mut strips = Vec::new();
            for island in 1..rings.len() {
                strips.extend(ways(&rings, island).into_iter().map(|way| strip(way, width)));
            }
            bridges += strips.len();
            let strips = Region::of_rings(strips.into_iter().map(std::iter::once)).united();
            left.extend(part.minus(&strips).each().filter(|own| own.area() > DUST));
        }
    }
    done.append(&mut left);
    let polygons = done.iter().map(|part| {
        let rings: Vec<Vec<Point>> = part.rings().map(|ring| ring.points).collect();
        rings.into_iter()
    });
    (Region::of_rings(polygons), bridges)
}

/// From an island's edge to the nearest place of another ring: the shortest of all, and the shortest on its other side.
fn ways(rings: &[Vec<Point>], island: usize) -> Vec<[Point; 2]> {
    let own = &rings[island];
    let middle = own.iter().fold(Vec2::ZERO, |sum, at| sum + at.to_vec2()) / count(own.len());
    let others: Vec<(Point, Point)> = rings
        .iter()
        .enumerate()
        .filter(|(at, _)| *at != island)
        .flat_map(|(_, ring)| ring.iter().copied().zip(ring.iter().copied().cycle().skip(1)))
        .collect();
    let found: Vec<(f64, [Point; 2])> = places(own)
        .into_iter()
        .filter_map(|from| {
            let near = others.iter().map(|(a, b)| nearest(from, *a, *b));
            let to = near.min_by(|one, other| {
                from.distance_squared(*one).total_cmp(&from.distance_squared(*other))
            })?;
            Some((from.distance(to), [from, to]))
        })
        .filter(|(long, _)| *long > 1e-6)
        .collect();
    let least = |is_wanted: &dyn Fn(&[Point; 2]) -> bool| {
        let wanted = found.iter().enumerate().filter(|(_, (_, way))| is_wanted(way));
        let (at, (short, _)) = wanted.min_by(|one, other| one.1.0.total_cmp(&other.1.0))?;
        // The middle of the stretch along which it is about as short and runs the same way.
        let all = found.len();
        let way_of = |way: &[Point; 2]| (way[1] - way[0]).normalize();
        let along = way_of(&found[at].1);
        let is_as_short = |step: usize| {
            let (long, way) = &found[step % all];
            *long <= short * NEARLY && way_of(way).dot(along) > SAME_WAY && is_wanted(way)
        };
        let on = (1..all).take_while(|step| is_as_short(at + step)).count();
        let back = (1..all - on).take_while(|step| is_as_short(at + all - step)).count();
        Some(found[(at + all - back + (on + back) / 2) % all].1)
    };
    let Some(first) = least(&|_| true) else { return Vec::new() };
    let side = |way: &[Point; 2]| (way[0].to_vec2() - middle).normalize();
    let second = least(&|way| side(way).dot(side(&first)) < ACROSS);
    [first].into_iter().chain(second).collect()
}

/// Places on a ring, evenly.
fn places(ring: &[Point]) -> Vec<Point> {
    let sides = || ring.iter().zip(ring.iter().cycle().skip(1));
    let around: f64 = sides().map(|(a, b)| a.distance(*b)).sum();
    let step = around / count(PLACES);
    let mut places = Vec::with_capacity(PLACES + 1);
    let mut next = 0.0;
    let mut gone = 0.0;
    for (a, b) in sides() {
        let long = a.distance(*b);
        while next < gone + long && places.len() <= PLACES {
            places.push(a.lerp(*b, ((next - gone) / long).clamp(0.0, 1.0)));
            next += step.max(1e-6);
        }
        gone += long;
    }
    places
}

fn nearest(from: Point, a: Point, b: Point) -> Point {
    let along = b - a;
    let share = (from - a).dot(along) / along.hypot2().max(1e-18);
    a + along * share.clamp(0.0, 1.0)
}

/// The strip over a way, a little into the card at both ends, for edges that run away from it.
fn strip([from, to]: [Point; 2], width: f64) -> Vec<Point> {
    let along = (to - from).normalize();
    let (beyond, aside) = (along * (width / 2.0), Vec2::new(-along.y, along.x) * (width / 2.0));
    let (from, to) = (from - beyond, to + beyond);
    vec![from - aside, to - aside, to + aside, from + aside]
}

fn count(number: usize) -> f64 {
    f64::from(u32::try_from(number).unwrap_or(u32::MAX))
}
