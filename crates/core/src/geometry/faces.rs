//! The areas into which lines divide a plane.

use std::collections::HashMap;

use kurbo::Point;

/// A straight side of a drawing, with whatever tells it from others.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Side<T> {
    /// Where it begins.
    pub from: Point,
    /// Where it ends.
    pub to: Point,
    /// What it is; where two lie on each other, the greater counts.
    pub what: T,
}

/// An area, its corners in order.
#[derive(Debug, Clone, PartialEq)]
pub struct Face {
    /// Its corners, so that its area is to the left of the way where `y` runs up: with the clock where it runs down.
    pub ring: Vec<Point>,
    /// For each corner the side to the next, by its number among the [`Faces::edges`].
    pub sides: Vec<usize>,
}

/// What lines divide a plane into.
#[derive(Debug, Clone, PartialEq)]
pub struct Faces<T> {
    /// The sides, cut where they meet, each once.
    pub edges: Vec<Side<T>>,
    /// The bounded areas.
    pub faces: Vec<Face>,
    /// What the sides are that end in nowhere: they divide nothing and are left out.
    pub dangling: Vec<T>,
}

/// Divides the plane. Ends that are no farther than `snap` from each other are one, and an end so near to a side lies on
/// it.
#[must_use]
pub fn faces<T: Copy + Ord>(sides: &[Side<T>], snap: f64) -> Faces<T> {
    let mut net = Net { points: Vec::new(), grid: HashMap::new(), snap };
    let mut edges: HashMap<(usize, usize), T> = HashMap::new();
    for (at, parts) in cut(sides, snap).into_iter().enumerate() {
        let ends: Vec<usize> = parts.into_iter().map(|point| net.vertex(point)).collect();
        for pair in ends.windows(2) {
            if pair[0] != pair[1] {
                let key = (pair[0].min(pair[1]), pair[0].max(pair[1]));
                let what = sides[at].what;
                edges.entry(key).and_modify(|own| *own = (*own).max(what)).or_insert(what);
            }
        }
    }
    let mut edges: Vec<((usize, usize), T)> = edges.into_iter().collect();
    edges.sort_by_key(|(ends, _)| *ends);
    let (kept, dangling) = without_dangling(edges);
    let faces = walked(&net.points, &kept);
    let sides = kept.iter().map(|((a, b), what)| Side {
        from: net.points[*a],
        to: net.points[*b],
        what: *what,
    });
    Faces { edges: sides.collect(), faces, dangling }
}

struct Net {
    points: Vec<Point>,
    grid: HashMap<(i64, i64), Vec<usize>>,
    snap: f64,
}

impl Net {
    #[expect(clippy::cast_possible_truncation, reason = "places on sheets in steps of the snap")]
    fn vertex(&mut self, point: Point) -> usize {
        let cell = |value: f64| (value / self.snap).floor() as i64;
        let (x, y) = (cell(point.x), cell(point.y));
        let around = (-1..=1).flat_map(|a| (-1..=1).map(move |b| (x + a, y + b)));
        let near = around.filter_map(|key| self.grid.get(&key)).flatten().copied();
        let known = near
            .map(|at| (self.points[at].distance(point), at))
            .filter(|(gap, _)| *gap <= self.snap)
            .min_by(|one, other| one.0.total_cmp(&other.0));
        if let Some((_, at)) = known {
            return at;
        }
        self.points.push(point);
        self.grid.entry((x, y)).or_default().push(self.points.len() - 1);
        self.points.len() - 1
    }
}

/// The places at which each side is met by another, with its ends, in order.
fn cut<T: Copy>(sides: &[Side<T>], snap: f64) -> Vec<Vec<Point>> {
    let mut order: Vec<usize> = (0..sides.len()).collect();
    let left = |at: usize| sides[at].from.x.min(sides[at].to.x);
    let right = |at: usize| sides[at].from.x.max(sides[at].to.x);
    order.sort_by(|one, other| left(*one).total_cmp(&left(*other)));
    let mut shares: Vec<Vec<f64>> = vec![vec![0.0, 1.0]; sides.len()];
    for (place, one) in order.iter().enumerate() {
        for other in &order[place + 1..] {
            if left(*other) > right(*one) + snap {
                break;
            }
            let (a, b) = (&sides[*one], &sides[*other]);
            if a.from.y.max(a.to.y) + snap < b.from.y.min(b.to.y)
                || b.from.y.max(b.to.y) + snap < a.from.y.min(a.to.y)
            {
                continue;
            }
            for (side, at, others) in [(a, *one, b), (b, *other, a)] {
                for end in [others.from, others.to] {
                    shares[at].extend(on(side, end, snap));
                }
            }
            if let Some((s, t)) = crossing(a, b) {
                shares[*one].push(s);
                shares[*other].push(t);
            }
        }
    }
    let place = |at: usize, share: f64| sides[at].from.lerp(sides[at].to, share);
    let all = shares.into_iter().enumerate().map(|(at, mut own)| {
        own.sort_by(f64::total_cmp);
        own.into_iter().map(|share| place(at, share)).collect()
    });
    all.collect()
}

/// How far along a side a point lies that is no farther than `snap` from it.
fn on<T>(side: &Side<T>, point: Point, snap: f64) -> Option<f64> {
    let along = side.to - side.from;
    let share = (point - side.from).dot(along) / along.hypot2().max(1e-18);
    let near = side.from + along * share;
    ((0.0..=1.0).contains(&share) && near.distance(point) <= snap).then_some(share)
}

fn crossing<T>(one: &Side<T>, other: &Side<T>) -> Option<(f64, f64)> {
    let (a, b) = (one.to - one.from, other.to - other.from);
    let cross = a.cross(b);
    if cross.abs() < 1e-12 {
        return None;
    }
    let gap = other.from - one.from;
    let (s, t) = (gap.cross(b) / cross, gap.cross(a) / cross);
    ((0.0..=1.0).contains(&s) && (0.0..=1.0).contains(&t)).then_some((s, t))
}

type Edge<T> = ((usize, usize), T);

/// Edges whose both ends go on, and what the others are.
fn without_dangling<T: Copy>(edges: Vec<Edge<T>>) -> (Vec<Edge<T>>, Vec<T>) {
    let mut degree: HashMap<usize, usize> = HashMap::new();
    for ((a, b), _) in &edges {
        *degree.entry(*a).or_default() += 1;
        *degree.entry(*b).or_default() += 1;
    }
    let (mut left, mut dangling) = (edges, Vec::new());
    loop {
        let before = left.len();
        let is_loose = |(a, b): (usize, usize)| degree[&a] < 2 || degree[&b] < 2;
        let (gone, kept): (Vec<_>, Vec<_>) =
            left.into_iter().partition(|(ends, _)| is_loose(*ends));
        for ((a, b), what) in gone {
            dangling.push(what);
            *degree.entry(a).or_default() -= 1;
            *degree.entry(b).or_default() -= 1;
        }
        left = kept;
        if left.len() == before {
            return (left, dangling);
        }
    }
}

/// Walks around every area, keeping to the next side with the clock at each corner.
fn walked<T>(points: &[Point], edges: &[Edge<T>]) -> Vec<Face> {
    let mut leaving: HashMap<usize, Vec<(f64, usize, usize)>> = HashMap::new();
    for (at, ((a, b), _)) in edges.iter().enumerate() {
        let way = points[*b] - points[*a];
        leaving.entry(*a).or_default().push((way.atan2(), *b, at));
        leaving.entry(*b).or_default().push(((-way).atan2(), *a, at));
    }
    leaving.values_mut().for_each(|own| own.sort_by(|one, other| one.0.total_cmp(&other.0)));
    let mut done: std::collections::HashSet<(usize, usize)> = std::collections::HashSet::new();
    let mut faces = Vec::new();
    let starts = edges.iter().flat_map(|((a, b), _)| [(*a, *b), (*b, *a)]);
    for start in starts {
        if done.contains(&start) {
            continue;
        }
        let (mut ring, mut sides) = (Vec::new(), Vec::new());
        let (mut from, mut to) = start;
        loop {
            if !done.insert((from, to)) {
                break;
            }
            let Some(around) = leaving.get(&to) else { break };
            let Some(back) = around.iter().position(|(_, next, _)| *next == from) else { break };
            ring.push(points[from]);
            sides.push(around[back].2);
            // The next side with the clock from where the walk came.
            let next = around[(back + around.len() - 1) % around.len()].1;
            (from, to) = (to, next);
        }
        let area: f64 = ring
            .iter()
            .zip(ring.iter().cycle().skip(1))
            .map(|(a, b)| a.to_vec2().cross(b.to_vec2()) / 2.0)
            .sum();
        if area > 1e-9 {
            faces.push(Face { ring, sides });
        }
    }
    faces
}

#[cfg(test)]
mod tests {
    use super::*;

    fn side(from: (f64, f64), to: (f64, f64)) -> Side<u8> {
        Side { from: from.into(), to: to.into(), what: 0 }
    }

    fn area(face: &Face) -> f64 {
        let next = face.ring.iter().cycle().skip(1);
        face.ring.iter().zip(next).map(|(a, b)| a.to_vec2().cross(b.to_vec2()) / 2.0).sum()
    }

    #[test]
    fn crossing_lines_divide_a_square_and_loose_ones_do_not() {
        let sides = [
            side((0.0, 0.0), (30.0, 0.0)),
            side((30.0, 0.02), (30.0, 30.0)),
            side((30.0, 30.0), (0.0, 30.0)),
            side((0.0, 30.0), (0.0, 0.0)),
            side((10.0, 0.01), (10.0, 30.0)),
            side((0.0, 20.0), (29.99, 20.0)),
            side((20.0, 25.0), (25.0, 25.0)),
        ];
        let found = faces(&sides, 0.05);
        let mut areas: Vec<f64> = found.faces.iter().map(area).collect();
        areas.sort_by(f64::total_cmp);
        let wanted = [100.0, 200.0, 200.0, 400.0];
        assert_eq!(areas.len(), 4, "{areas:?}");
        assert!(areas.iter().zip(wanted).all(|(a, b)| (a - b).abs() < 1.5), "{areas:?}");
        assert_eq!(found.dangling.len(), 1);
        // Every inner side has a face on both sides, every outer one on one.
        let mut count = vec![0; found.edges.len()];
        found.faces.iter().flat_map(|face| &face.sides).for_each(|at| count[*at] += 1);
        assert_eq!(count.iter().filter(|own| **own == 2).count(), 4);
        assert_eq!(count.iter().filter(|own| **own == 1).count(), 8);
    }
}
