//! Where a traced line has corners. Pixels round them off; what is straight on either side says where they were.

use kurbo::{Point, Vec2};
use nalgebra::{Matrix3, Vector3};

/// How far apart points of a ring are once they are spaced evenly, px.
pub(super) const SPACING: f64 = 0.5;

/// A ring of points at even distances of about [`SPACING`].
pub(super) struct Even {
    pub points: Vec<Point>,
    /// How far apart they are.
    pub spacing: f64,
}

impl Even {
    pub fn new(ring: &[Point]) -> Option<Self> {
        let ends = || ring.iter().zip(ring.iter().skip(1).chain(ring.first()));
        let length: f64 = ends().map(|(a, b)| a.distance(*b)).sum();
        let count = (length / SPACING).ceil();
        if !(8.0..1e7).contains(&count) {
            return None;
        }
        let spacing = length / count;
        let mut points = Vec::new();
        let mut left = 0.0;
        for (a, b) in ends() {
            let long = a.distance(*b);
            while left < long {
                points.push(a.lerp(*b, left / long));
                left += spacing;
            }
            left -= long;
        }
        Some(Self { points, spacing })
    }

    pub fn len(&self) -> usize {
        self.points.len()
    }

    pub fn at(&self, index: isize) -> Point {
        let count = self.points.len().cast_signed();
        self.points[index.rem_euclid(count).cast_unsigned()]
    }

    /// How far from a place the ring's points about one of them are.
    pub fn off(&self, at: isize, reach: isize, place: Point) -> f64 {
        let near = (-reach..=reach).map(|step| self.at(at + step).distance(place));
        near.fold(f64::INFINITY, f64::min)
    }

    /// How many points lie over a length.
    pub fn steps(&self, length: f64) -> isize {
        whole((length / self.spacing).round())
    }
}

/// A corner of a ring.
#[derive(Debug, Clone, Copy)]
pub(super) struct Corner {
    /// By the ring's points.
    pub at: usize,
    /// Where it is.
    pub point: Point,
    /// How far along on either side pixels round it off, px.
    pub rounding: f64,
    /// How much farther along each side is seen together with the other, since the tip is narrow, px.
    pub narrow: f64,
    /// How far from the ring it may lie, px: so much of its tip fills no half of a pixel.
    pub cut: f64,
}

/// The least turn of a corner, radians.
const LEAST_TURN: f64 = 26.0 * std::f64::consts::PI / 180.0;

/// The corners of a ring. `blur` is how much longer than on a clean picture the line must be looked at, 1 or more.
pub(super) fn corners(ring: &Even, blur: f64) -> Vec<Corner> {
    let count = ring.len().cast_signed();
    let (near, far) = (ring.steps(blur), ring.steps(3.1 * blur));
    if count < 4 * far {
        return Vec::new();
    }
    let basis = basis(ring.steps(3.6 * blur));
    let sharp = 0.042 * blur;
    let turns: Vec<f64> = (0..count)
        .map(|at| {
            let before = direction((near..=far).map(|step| ring.at(at - step)), ring.at(at));
            let after = direction((near..=far).map(|step| ring.at(at + step)), ring.at(at));
            let (into, out) = (-before.1, after.1);
            into.cross(out).atan2(into.dot(out))
        })
        .collect();
    let apart = ring.steps(2.2 * blur);
    let turn = |at: isize| turns[at.rem_euclid(count).cast_unsigned()].abs();
    // At a narrow tip a window that reaches around it sees any turn: the tip is what stands out most.
    let heights: Vec<f64> = (0..count)
        .map(|at| {
            let (before, after) = (ring.at(at - far), ring.at(at + far));
            ring.at(at).distance(before.midpoint(after))
        })
        .collect();
    let height = |at: isize| heights[at.rem_euclid(count).cast_unsigned()];
    let mut found: Vec<isize> = (0..count)
        .filter(|at| {
            let own = height(*at);
            turn(*at) > LEAST_TURN
                && (1..=apart).all(|step| own >= height(at - step) && own > height(at + step))
                && stray(ring, *at, &basis) > sharp
        })
        .collect();
    let mut corners = Vec::new();
    // Sides that are looked at end before the next corner.
    let all = found.clone();
    for (index, at) in found.drain(..).enumerate() {
        let last = all[(index + all.len() - 1) % all.len()];
        let next = all[(index + 1) % all.len()];
        let gap = |gap: isize| if gap <= 0 { gap + count } else { gap };
        let (behind, ahead) = (gap(at - last), gap(next - at));
        // Half of a pixel is covered so far from a corner's tip, and the sides are straight from there on.
        let half = |turn: f64| ((std::f64::consts::PI - turn) / 2.0).sin().max(0.08);
        let rounding = |turn: f64| (0.55 + 0.5 / half(turn)).min(6.0) * blur;
        let stretch = |turn: f64, gap: isize, way: isize, long: f64| {
            let near = ring.steps(rounding(turn)).min((gap / 2 - 3).max(1));
            let far = (gap - near).min(near + ring.steps(long * blur)).max(near + 2);
            (near..=far).map(move |step| ring.at(at + way * step))
        };
        let sides = |turn: f64| {
            let side =
                |gap: isize, way: isize| direction(stretch(turn, gap, way, 4.0), ring.at(at));
            (side(behind, -1), side(ahead, 1))
        };
        let turn_of = |(before, after): &((Point, Vec2), (Point, Vec2))| {
            (-before.1).cross(after.1).atan2((-before.1).dot(after.1)).abs()
        };
        let first = turn_of(&sides(turn(at)));
        let (before, after) = sides(first);
        let turn = turn_of(&(before, after));
        let Some(mut point) = meeting(before, after) else { continue };
        // With noise the sides say less of where they meet.
        let cut = (0.42 * half(turn).powf(-1.35) + 0.12) * blur.min(1.4);
        if ring.off(at, near, point) > cut {
            continue;
        }
        let narrow = 0.6 * (1.0 / half(turn) - 2.5).max(0.0) * blur;
        // The narrower a tip, the farther is its end moved by a bend of its sides.
        if narrow > 0.0 {
            let bent = |line, gap, way| {
                let points: Vec<Point> = stretch(turn, gap, way, LONG).collect();
                bend(line, &points).filter(|own| own.sagitta > BENT * blur)
            };
            let bends = (bent(before, behind, -1), bent(after, ahead, 1));
            let met = met(point, (before, bends.0), (after, bends.1));
            point = met.filter(|own| ring.off(at, near, *own) <= cut).unwrap_or(point);
        }
        let rounding = rounding(turn);
        corners.push(Corner { at: at.cast_unsigned(), point, rounding, narrow, cut });
    }
    corners
}

/// How far sides of a narrow tip are looked at for their bend, px.
const LONG: f64 = 16.0;

/// From how far off its chord on a side is bent, px.
const BENT: f64 = 0.03;

/// How far off a line points of a side are: a parabola in the length along it.
struct Bend {
    /// From the constant on.
    terms: [f64; 3],
    /// How far it is off its own chord, px.
    sagitta: f64,
}

/// The parabola through points by least squares, over the line beside them; `None` of a few.
fn bend(line: (Point, Vec2), points: &[Point]) -> Option<Bend> {
    let (first, last) = (points.first()?, points.last()?);
    let long = first.distance(*last);
    if points.len() < 12 {
        return None;
    }
    let mut normal = Matrix3::zeros();
    let mut right = Vector3::zeros();
    for point in points {
        let off = *point - line.0;
        let along = off.dot(line.1);
        let powers = Vector3::new(1.0, along, along * along);
        normal += powers * powers.transpose();
        right += powers * line.1.cross(off);
    }
    let terms = normal.cholesky()?.solve(&right);
    let sagitta = terms[2].abs() * long * long / 4.0;
    Some(Bend { terms: [terms[0], terms[1], terms[2]], sagitta })
}

/// Where two sides meet that may be bent, by Newton's way from `near` on.
fn met(near: Point, one: Side, other: Side) -> Option<Point> {
    // The straight line along a side beside a place.
    let beside = |(line, bend): &Side, place: Point| match bend {
        None => *line,
        Some(Bend { terms: [a, b, c], .. }) => {
            let along = (place - line.0).dot(line.1);
            let across = Vec2::new(-line.1.y, line.1.x);
            let off = a + along * (b + along * c);
            let way = line.1 + across * (b + 2.0 * c * along);
            (line.0 + line.1 * along + across * off, way.normalize())
        }
    };
    (0..4).try_fold(near, |place, _| meeting(beside(&one, place), beside(&other, place)))
}

/// A side of a corner: its line and its bend.
type Side = ((Point, Vec2), Option<Bend>);

/// How far a ring strays from smooth lines near each place, px: the middle one of all places, which corners hardly
/// change.
pub(super) fn roughness(ring: &Even) -> f64 {
    let basis = basis(ring.steps(3.6));
    let mut off: Vec<f64> =
        (0..ring.len().cast_signed()).step_by(5).map(|at| stray(ring, at, &basis)).collect();
    off.sort_by(f64::total_cmp);
    off[off.len() / 2]
}

/// Four polynomials over even steps, orthonormal.
fn basis(reach: isize) -> Vec<Vec<f64>> {
    let mut basis: Vec<Vec<f64>> = Vec::new();
    for power in 0..4 {
        let steps = (-reach..=reach).map(|step| (real(step) / real(reach)).powi(power));
        let mut own: Vec<f64> = steps.collect();
        for other in &basis {
            let share: f64 = own.iter().zip(other).map(|(a, b)| a * b).sum();
            own.iter_mut().zip(other).for_each(|(own, other)| *own -= share * other);
        }
        let norm = own.iter().map(|own| own * own).sum::<f64>().sqrt();
        own.iter_mut().for_each(|own| *own /= norm);
        basis.push(own);
    }
    basis
}

/// How far the ring about a place strays from the smooth line nearest to it, a cubic in the length along it.
fn stray(ring: &Even, at: isize, basis: &[Vec<f64>]) -> f64 {
    let count = basis[0].len().cast_signed();
    let middle = ring.at(at);
    let mut off: Vec<Vec2> =
        (0..count).map(|step| ring.at(at + step - count / 2) - middle).collect();
    for own in basis {
        let share = off.iter().zip(own).fold(Vec2::ZERO, |sum, (off, own)| sum + *off * *own);
        off.iter_mut().zip(own).for_each(|(off, own)| *off -= share * *own);
    }
    (off.iter().map(|off| off.hypot2()).sum::<f64>() / real(count)).sqrt()
}

/// The straight line through points by least squares: a place on it, and its way, seen from `from`.
pub(super) fn direction(points: impl Iterator<Item = Point> + Clone, from: Point) -> (Point, Vec2) {
    let count = points.clone().fold(0.0, |count, _| count + 1.0f64).max(1.0);
    let middle = points.clone().fold(Vec2::ZERO, |sum, point| sum + (point - from)) / count;
    let (mut xx, mut xy, mut yy) = (0.0, 0.0, 0.0);
    for point in points {
        let off = point - from - middle;
        xx += off.x * off.x;
        xy += off.x * off.y;
        yy += off.y * off.y;
    }
    let angle = 0.5 * (2.0 * xy).atan2(xx - yy);
    let way = Vec2::new(angle.cos(), angle.sin());
    (from + middle, if way.dot(middle) < 0.0 { -way } else { way })
}

/// Where two lines meet.
pub(super) fn meeting(one: (Point, Vec2), other: (Point, Vec2)) -> Option<Point> {
    let turn = one.1.cross(other.1);
    (turn.abs() > 1e-6).then(|| one.0 + one.1 * ((other.0 - one.0).cross(other.1) / turn))
}

#[expect(clippy::cast_precision_loss, reason = "steps along a ring")]
const fn real(count: isize) -> f64 {
    count as f64
}

#[expect(clippy::cast_possible_truncation, reason = "bounded")]
const fn whole(value: f64) -> isize {
    value.clamp(0.0, 1e7) as isize
}
