//! Cubics that follow one another along a smooth line, moved together until they lie as near to it as so many can.

use kurbo::{CubicBez, ParamCurve, ParamCurveCurvature, ParamCurveDeriv, Point, Vec2};
use nalgebra::{SMatrix, SVector};

use super::cubics::Node;

/// How often every joint is moved.
const ROUNDS: usize = 12;

/// Rounds after which it shows whether there is hope.
const FIRST: usize = 4;

/// Rounds after which a line that came hardly nearer in any of them comes no nearer, and how much that is.
const IDLE: usize = 3;
const NEARER: f64 = 0.98;

/// What holds a joint where it is, beside what its samples say: without it a straight line's joints would wander along.
const HOLD: f64 = 1e-3;

/// The least cosine between a cubic's way and the line's.
const LEAST_ALONG: f64 = 0.5;

/// What stays of a line's ends while it is moved.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Ends {
    /// They are one place, through which it goes on.
    Joined,
    /// Their places.
    Placed,
}

/// Cubics that were moved.
pub(super) struct Refit {
    pub cubics: Vec<CubicBez>,
    pub strays: Strays,
}

/// How far a line strays from its nodes.
#[derive(Debug, Clone, Copy)]
pub(super) struct Strays {
    /// At most.
    pub most: f64,
    /// The root of the mean square.
    pub mean: f64,
}

type Row = SVector<f64, 5>;

/// Where two cubics meet, smoothly: its place, its way, and how far the handles before and after it reach.
#[derive(Debug, Clone, Copy)]
struct Joint {
    at: Point,
    angle: f64,
    before: f64,
    after: f64,
}

impl Joint {
    fn way(&self) -> Vec2 {
        Vec2::from_angle(self.angle)
    }

    fn moved(&self, by: &Row) -> Self {
        Self {
            at: self.at + Vec2::new(by[0], by[1]),
            angle: self.angle + by[2],
            before: self.before + by[3],
            after: self.after + by[4],
        }
    }
}

/// A place that the line should go through, on which cubic, and where on it.
#[derive(Debug, Clone, Copy)]
struct Sample {
    at: Point,
    /// The line's way there.
    way: Vec2,
    /// How much it bends there, radians per unit of length.
    bend: f64,
    on: usize,
    t: f64,
}

/// How much more than the nodes' line a cubic may bend: as many times, and so much more as a bow has that strays by the
/// tolerance, so many times.
const MOST_BEND: f64 = 2.0;
const BOWS: f64 = 8.0;

/// Moves cubics, each with the nodes that it was drawn for, so that the squares of their distances from all nodes are
/// least (Gauss and Newton's way, joint after joint). Ends stay as is said. Nothing where one would run back, or where
/// a node is further off than `hopeless` after [`FIRST`] rounds.
pub(super) fn refitted(
    cubics: &[(CubicBez, std::ops::Range<usize>)],
    nodes: &[Node],
    ends: Ends,
    tolerance: f64,
    hopeless: f64,
) -> Option<Refit> {
    let turn = |one: Vec2, other: Vec2| one.cross(other).atan2(one.dot(other)).abs();
    let bend = |at: usize| {
        let sides = nodes[at.saturating_sub(1)..nodes.len().min(at + 2)].windows(2);
        let bends = sides
            .map(|pair| turn(pair[0].way, pair[1].way) / (pair[1].along - pair[0].along).max(1e-9));
        bends.fold(0.0, f64::max)
    };
    let mut line = Line::of(cubics, ends)?;
    let mut samples: Vec<Sample> = Vec::new();
    for (on, (_, range)) in cubics.iter().enumerate() {
        let (first, last) = (nodes[range.start].along, nodes[range.end].along);
        let long = (last - first).max(1e-9);
        samples.extend(range.clone().map(|at| Sample {
            at: nodes[at].at,
            way: nodes[at].way,
            bend: bend(at),
            on,
            t: (nodes[at].along - first) / long,
        }));
    }
    let mut best: Option<(Strays, Line, Vec<Sample>)> = None;
    let (mut idle, mut near) = (0, f64::INFINITY);
    for round in 0..=ROUNDS {
        let strays = line.find(&mut samples)?;
        if strays.most < NEARER * near {
            (idle, near) = (0, strays.most);
        } else {
            idle += 1;
        }
        if best.as_ref().is_none_or(|(known, ..)| strays.most < known.most) {
            best = Some((strays, line.clone(), samples.clone()));
        }
        if round == FIRST && best.as_ref().is_some_and(|(known, ..)| known.most > hopeless) {
            return None;
        }
        if idle == IDLE {
            break;
        }
        line.step(&samples)?;
    }
    let (strays, line, samples) = best?;
    let cubics: Vec<CubicBez> = (0..line.count()).map(|on| line.cubic(on)).collect();
    goes_on(&cubics, &samples, tolerance).then_some(Refit { cubics, strays })
}

/// True where each cubic goes the line's way all along, and bends little more than that.
fn goes_on(cubics: &[CubicBez], samples: &[Sample], tolerance: f64) -> bool {
    const STEPS: u32 = 16;
    let mut on: Vec<Vec<&Sample>> = vec![Vec::new(); cubics.len()];
    samples.iter().for_each(|sample| on[sample.on].push(sample));
    cubics.iter().zip(&on).all(|(own, on)| {
        let deriv = own.deriv();
        let bow = 8.0 * tolerance / own.p0.distance_squared(own.p3).max(1e-12);
        let most = MOST_BEND * on.iter().map(|own| own.bend).fold(0.0, f64::max) + BOWS * bow;
        (0..=STEPS).map(|step| f64::from(step) / f64::from(STEPS)).all(|t| {
            let near = |one: &&&Sample, other: &&&Sample| {
                (one.t - t).abs().total_cmp(&(other.t - t).abs())
            };
            let slope = deriv.eval(t).to_vec2();
            on.iter().min_by(near).is_some_and(|own| {
                slope.dot(own.way) > LEAST_ALONG * slope.hypot() * own.way.hypot()
            }) && own.curvature(t).abs() <= most
        })
    })
}

/// All cubics by their joints.
#[derive(Debug, Clone)]
struct Line {
    joints: Vec<Joint>,
    ends: Ends,
}

impl Line {
    fn of(cubics: &[(CubicBez, std::ops::Range<usize>)], ends: Ends) -> Option<Self> {
        let (last, _) = cubics.last()?;
        let is_ring = ends == Ends::Joined;
        let mut before = if is_ring { last.p3 - last.p2 } else { Vec2::ZERO };
        let mut joints: Vec<Joint> = Vec::with_capacity(cubics.len() + 1);
        for (own, _) in cubics {
            let after = own.p1 - own.p0;
            joints.push(Joint {
                at: own.p0,
                angle: after.angle(),
                before: before.hypot(),
                after: after.hypot(),
            });
            before = own.p3 - own.p2;
        }
        if !is_ring {
            let angle = before.angle();
            joints.push(Joint { at: last.p3, angle, before: before.hypot(), after: 0.0 });
        }
        Some(Self { joints, ends })
    }

    fn is_ring(&self) -> bool {
        self.ends == Ends::Joined
    }

    fn count(&self) -> usize {
        self.joints.len() - usize::from(!self.is_ring())
    }

    fn ends(&self, on: usize) -> (&Joint, &Joint) {
        (&self.joints[on], &self.joints[(on + 1) % self.joints.len()])
    }

    fn cubic(&self, on: usize) -> CubicBez {
        let (from, to) = self.ends(on);
        CubicBez::new(
            from.at,
            from.at + from.way() * from.after,
            to.at - to.way() * to.before,
            to.at,
        )
    }

    /// Finds the place of each sample on the line, near where it was; how far they are off.
    fn find(&self, samples: &mut [Sample]) -> Option<Strays> {
        let cubics: Vec<CubicBez> = (0..self.count()).map(|on| self.cubic(on)).collect();
        let count = cubics.len();
        let (mut most, mut sum, mut number): (f64, f64, f64) = (0.0, 0.0, 0.0);
        for sample in samples {
            for _ in 0..4 {
                let own = &cubics[sample.on];
                let gap = own.eval(sample.t) - sample.at;
                let slope = own.deriv().eval(sample.t).to_vec2();
                let bend = slope.hypot2() + gap.dot(own.deriv().deriv().eval(sample.t).to_vec2());
                // Where the bend's middle is passed a whole step would lead away.
                let bend = bend.max(0.3 * slope.hypot2()).max(1e-12);
                let t = sample.t - gap.dot(slope) / bend;
                let (on, t) = match t {
                    t if t < 0.0 && (self.is_ring() || sample.on > 0) => {
                        ((sample.on + count - 1) % count, 1.0)
                    }
                    t if t > 1.0 && (self.is_ring() || sample.on + 1 < count) => {
                        ((sample.on + 1) % count, 0.0)
                    }
                    t => (sample.on, t.clamp(0.0, 1.0)),
                };
                let is_there = on == sample.on && (t - sample.t).abs() < 1e-4;
                (sample.on, sample.t) = (on, t);
                if is_there {
                    break;
                }
            }
            let off = cubics[sample.on].eval(sample.t).distance(sample.at);
            if !off.is_finite() {
                return None;
            }
            most = most.max(off);
            sum += off * off;
            number += 1.0;
        }
        Some(Strays { most, mean: (sum / number.max(1.0)).sqrt() })
    }

    /// Moves each joint to where the samples on both sides of it are nearest, all else as it is.
    fn step(&mut self, samples: &[Sample]) -> Option<()> {
        let mut on: Vec<Vec<Sample>> = vec![Vec::new(); self.count()];
        for sample in samples {
            on[sample.on].push(*sample);
        }
        for at in 0..self.joints.len() {
            let before = match at {
                0 if self.is_ring() => Some(self.count() - 1),
                0 => None,
                at => Some(at - 1),
            };
            let after = (at < self.count()).then_some(at);
            let joint = self.joints[at];
            let (way, across) = (joint.way(), joint.way().turn_90());
            let mut normal = SMatrix::<f64, 5, 5>::identity() * HOLD;
            let mut right = Row::zeros();
            let mut add = |curve: usize, is_before: bool| {
                let own = self.cubic(curve);
                let deriv = own.deriv();
                for Sample { at, t, .. } in &on[curve] {
                    let (t, u) = (*t, 1.0 - *t);
                    let slope = deriv.eval(t).to_vec2();
                    if slope.hypot2() < 1e-18 {
                        continue;
                    }
                    let off = slope.normalize().turn_90();
                    let (b0, b1, b2, b3) = (u * u * u, 3.0 * u * u * t, 3.0 * u * t * t, t * t * t);
                    let row = if is_before {
                        let place = off * (b2 + b3);
                        let (turn, reach) = (-b2 * joint.before, -b2);
                        Row::new(
                            place.x,
                            place.y,
                            turn * across.dot(off),
                            reach * way.dot(off),
                            0.0,
                        )
                    } else {
                        let place = off * (b0 + b1);
                        let turn = b1 * joint.after;
                        Row::new(place.x, place.y, turn * across.dot(off), 0.0, b1 * way.dot(off))
                    };
                    normal += row * row.transpose();
                    right -= row * (own.eval(t) - *at).dot(off);
                }
            };
            if let Some(before) = before {
                add(before, true);
            }
            if let Some(after) = after {
                add(after, false);
            }
            // An end stays where it is.
            let fixed = if before.is_some() && after.is_some() { 0 } else { 2 };
            for own in 0..fixed {
                normal.row_mut(own).fill(0.0);
                normal.column_mut(own).fill(0.0);
                normal[(own, own)] = 1.0;
                right[own] = 0.0;
            }
            let by = normal.cholesky()?.solve(&right);
            let mut moved = joint.moved(&by);
            let long = |other: &Joint| 1.2 * other.at.distance(moved.at).max(1e-6);
            if let Some(before) = before {
                let long = long(self.ends(before).0);
                moved.before = moved.before.clamp(0.15 * long, long);
            }
            if let Some(after) = after {
                let long = long(self.ends(after).1);
                moved.after = moved.after.clamp(0.15 * long, long);
            }
            if !(moved.at.is_finite() && moved.angle.is_finite()) {
                return None;
            }
            self.joints[at] = moved;
        }
        Some(())
    }
}
