//! What a mark looks like: where it is dark, where light, and where its edges run.

use aptum_core::geometry::{Point, Vec2};

/// A mark's shape.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum MarkKind {
    /// Two arms that meet in a corner, which is its place.
    Angle,
    /// A filled dot; its middle is its place. An odd one is a ring.
    Dot,
    /// Four bars around an open middle, which is its place. An odd one is closed.
    Cross,
}

/// A mark that is to be found, lengths in mm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AskedMark {
    /// Where it should lie on the page.
    pub at: Point,
    /// Its shape.
    pub kind: MarkKind,
    /// Its arm from end to end, or its diameter.
    pub size: f64,
    /// How wide its strokes are.
    pub stroke: f64,
    /// True for the one that differs from its fellows.
    pub is_odd: bool,
    /// Which way an angle's arms point.
    pub arms: (f64, f64),
}

/// A place on an edge of a mark, from the mark's place, with the direction from dark to light.
#[derive(Debug, Clone, Copy)]
pub(super) struct EdgePlace {
    pub at: Vec2,
    pub outwards: Vec2,
}

/// A mark as the eye knows it, from its place.
#[derive(Debug, Clone)]
pub(super) struct Shape {
    pub dark: Vec<Vec2>,
    pub light: Vec<Vec2>,
    pub edges: Vec<EdgePlace>,
    /// The middle of all of it.
    pub middle: Vec2,
    /// How far it reaches from there, clear space and all, mm.
    pub reach: f64,
    /// How far to each side of an edge it is dark or light, mm.
    pub slope: f64,
    /// True where a turn of it shows.
    pub turns: bool,
}

/// Arms are looked at for so far, mm: more than that the eye does not see at once.
const LONGEST: f64 = 12.0;

/// What is looked at beside a mark, mm.
const CLEAR: f64 = 0.7;

impl AskedMark {
    pub(super) fn shape(&self) -> Shape {
        match self.kind {
            MarkKind::Angle => self.angle(),
            MarkKind::Dot => self.dot(),
            MarkKind::Cross => self.cross(),
        }
    }

    fn angle(&self) -> Shape {
        let (sx, sy) = self.arms;
        let arm = if self.is_odd { self.size / 2.0 } else { self.size };
        let (seen, stroke) = (arm.min(LONGEST), self.stroke);
        let place = |x: f64, y: f64| Vec2::new(sx * x, sy * y);
        let mut own = Shape::new(place(seen / 2.0, seen / 2.0), seen / 2.0 + CLEAR, stroke);
        let count = steps(seen);
        for step in 0..count {
            let t = (step as f64 + 0.5) / count as f64;
            let (along, inner) = (seen * t, stroke + (seen - stroke) * t);
            // An arm, and the same with x and y changed.
            for swap in [false, true] {
                let both = |x: f64, y: f64| if swap { place(y, x) } else { place(x, y) };
                own.dark.push(both(along, stroke / 2.0));
                own.light.push(both(along, -CLEAR));
                if inner > stroke + CLEAR {
                    own.light.push(both(inner, stroke + CLEAR));
                }
                // Away from the corner and the arm's end, where the profile of an edge is that of a straight one.
                let straight = stroke + own.slope;
                if along > straight && along < arm - own.slope {
                    own.edge(both(along, 0.0), both(0.0, -1.0));
                    own.edge(both(along, stroke), both(0.0, 1.0));
                }
            }
        }
        if arm <= LONGEST {
            own.light.extend([place(arm + CLEAR, stroke / 2.0), place(stroke / 2.0, arm + CLEAR)]);
        }
        own
    }

    fn dot(&self) -> Shape {
        let radius = self.size / 2.0;
        let thick = if self.is_odd { radius / 2.0 } else { radius };
        let mut own = Shape::new(Vec2::ZERO, radius + CLEAR, thick);
        own.turns = false;
        let count = steps(self.size * 2.0);
        for step in 0..count {
            let way = Vec2::from_angle(step as f64 / count as f64 * std::f64::consts::TAU);
            own.edge(way * radius, way);
            own.light.push(way * (radius + CLEAR));
            if self.is_odd {
                own.dark.push(way * (radius * 0.75));
                own.light.push(way * (radius * 0.2));
                own.edge(way * (radius / 2.0), -way);
            } else {
                own.dark.extend([way * (radius * 0.3), way * (radius * 0.75)]);
            }
        }
        own
    }

    fn cross(&self) -> Shape {
        let (half, stroke) = ((self.size / 2.0).min(LONGEST / 2.0), self.stroke);
        let gap = if self.is_odd { 0.0 } else { stroke.max(self.size / 6.0) };
        let mut own = Shape::new(Vec2::ZERO, half + CLEAR, stroke);
        let count = steps(half - gap);
        for way in
            [Vec2::new(1.0, 0.0), Vec2::new(0.0, 1.0), Vec2::new(-1.0, 0.0), Vec2::new(0.0, -1.0)]
        {
            let wide = Vec2::new(-way.y, way.x);
            for step in 0..count {
                let along = gap + (half - gap) * (step as f64 + 0.5) / count as f64;
                own.dark.push(way * along);
                if along > stroke / 2.0 + CLEAR {
                    let aside = wide * (stroke / 2.0 + CLEAR);
                    own.light.extend([way * along + aside, way * along - aside]);
                }
                let ends = own.slope;
                if along > (gap + ends).max(stroke / 2.0 + ends) && along < half - ends {
                    own.edge(way * along + wide * (stroke / 2.0), wide);
                    own.edge(way * along - wide * (stroke / 2.0), -wide);
                }
            }
            if self.size / 2.0 <= LONGEST / 2.0 {
                own.light.push(way * (half + CLEAR));
            }
        }
        if gap > 0.0 {
            own.light.push(Vec2::ZERO);
        }
        own
    }
}

/// Places along so many mm.
#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few")]
fn steps(long: f64) -> usize {
    (long / 0.4).ceil().clamp(4.0, 60.0) as usize
}

impl Shape {
    fn new(middle: Vec2, reach: f64, thick: f64) -> Self {
        let slope = (thick * 0.48).clamp(0.1, 0.5);
        let (dark, light, edges) = (Vec::new(), Vec::new(), Vec::new());
        Self { dark, light, edges, middle, reach, slope, turns: true }
    }

    fn edge(&mut self, at: Vec2, outwards: Vec2) {
        self.edges.push(EdgePlace { at, outwards });
    }
}
