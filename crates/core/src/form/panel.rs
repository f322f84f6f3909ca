//! The panel tree: panels hinged on each other's sides, each drawn in its own frame.
//!
//! A panel's frame has its origin where its hinge starts, `u` along the hinge and `v` away from
//! the panel it hangs on. Seen from the printed side the tree runs clockwise, so a panel starts
//! at `(0, 0)`, goes round, and ends at `(hinge length, 0)`; the hinge closes it.

use kurbo::{Affine, BezPath, ParamCurve, ParamCurveArclen, PathSeg, Point, Shape, Vec2};

use crate::geometry::rounded;
use crate::line::LineKind;

/// Lines that lie on a panel and are not its sides.
#[derive(Debug, Clone)]
pub struct Line {
    /// What happens along it.
    pub kind: LineKind,
    /// Where it runs.
    pub path: BezPath,
}

/// What a panel does in the finished piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Role {
    /// Seen from outside when the piece is closed.
    Face,
    /// Hidden when closed: tucked in or folded under.
    Flap,
    /// Glued over: stays unprinted.
    Glue,
}

/// A crease on which a panel hangs.
#[derive(Debug, Clone)]
pub struct Hinge {
    /// The hinge's two ends in the parent's frame.
    pub from: Point,
    /// See `from`.
    pub to: Point,
    /// Degrees from flat to closed; positive folds away from the printed side.
    pub fold: f64,
    /// Length in mm that is cut instead of creased at each end (a slit lock).
    pub slit: f64,
    /// The panel that hangs here.
    pub panel: Panel,
}

#[derive(Debug, Clone)]
enum Side {
    Cut { to: Point, radius: f64 },
    Hinge(Box<Hinge>),
}

/// A flat part between creases, with the panels that hang on it.
#[derive(Debug, Clone)]
pub struct Panel {
    /// The trade's name, unique in its tree.
    pub name: &'static str,
    /// What it does in the finished piece.
    pub role: Role,
    sides: Vec<Side>,
}

/// A panel where it lies in the flat.
#[derive(Debug, Clone)]
pub struct PlacedPanel {
    /// The trade's name.
    pub name: &'static str,
    /// What it does in the finished piece.
    pub role: Role,
    /// Its closed outline.
    pub outline: BezPath,
    /// How far it reaches from its hinge, in mm; `None` for the panel everything hangs on.
    pub reach: Option<f64>,
    /// Length of its hinge in mm, 0 for the panel everything hangs on.
    pub hinge: f64,
}

/// A tree of panels laid flat.
#[derive(Debug, Clone, Default)]
pub struct Unfolded {
    /// Every panel, a parent before its children.
    pub panels: Vec<PlacedPanel>,
    /// The blank: one closed path of cuts.
    pub outline: BezPath,
    /// Creases and slits.
    pub lines: Vec<Line>,
}

impl Panel {
    /// A panel without sides yet.
    #[must_use]
    pub const fn new(name: &'static str, role: Role) -> Self {
        Self { name, role, sides: Vec::new() }
    }

    /// A cut to `(u, v)`.
    #[must_use]
    pub fn cut(self, u: f64, v: f64) -> Self {
        self.cut_rounded(u, v, 0.0)
    }

    /// A cut to `(u, v)`, where the corner to the next cut is rounded.
    #[must_use]
    pub fn cut_rounded(mut self, u: f64, v: f64, radius: f64) -> Self {
        self.sides.push(Side::Cut { to: Point::new(u, v), radius });
        self
    }

    /// A crease to `(u, v)` on which `panel` hangs, folding by `fold` degrees.
    #[must_use]
    pub fn hinge(self, u: f64, v: f64, fold: f64, panel: Self) -> Self {
        self.hinge_with_slits(u, v, fold, 0.0, panel)
    }

    /// As [`hinge`](Self::hinge), with the crease's ends slit through over `slit` mm.
    #[must_use]
    pub fn hinge_with_slits(mut self, u: f64, v: f64, fold: f64, slit: f64, panel: Self) -> Self {
        let from = self.end();
        let to = Point::new(u, v);
        self.sides.push(Side::Hinge(Box::new(Hinge { from, to, fold, slit, panel })));
        self
    }

    fn end(&self) -> Point {
        match self.sides.last() {
            None => Point::ZERO,
            Some(Side::Cut { to, .. }) => *to,
            Some(Side::Hinge(hinge)) => hinge.to,
        }
    }

    /// Lays the tree flat, this panel's frame mapped by `frame` to the flat's coordinates. The
    /// last side must end at the first one's start, the origin: the root has no hinge to close it.
    #[must_use]
    pub fn unfold(&self, frame: Affine) -> Unfolded {
        let mut flat = Unfolded::default();
        let mut boundary = Vec::new();
        self.lay(frame, None, &mut flat, &mut boundary);
        flat.outline = chain(&boundary);
        flat
    }

    fn lay(
        &self,
        frame: Affine,
        hung_on: Option<&Hinge>,
        flat: &mut Unfolded,
        boundary: &mut Vec<PathSeg>,
    ) {
        let index = flat.panels.len();
        flat.panels.push(PlacedPanel {
            name: self.name,
            role: self.role,
            outline: BezPath::new(),
            reach: None,
            hinge: hung_on.map_or(0.0, |hinge| (hinge.to - hinge.from).hypot()),
        });
        let mut own = Vec::new();
        let mut at = Point::ZERO;
        for (position, side) in self.sides.iter().enumerate() {
            match side {
                Side::Cut { to, radius } => {
                    let next = match self.sides.get(position + 1) {
                        Some(Side::Cut { to, .. }) if *radius > 0.0 => Some(*to),
                        _ => None,
                    };
                    let arc = next.and_then(|next| rounded(at, *to, next, *radius));
                    let end = arc.map_or(*to, |arc| arc[0]);
                    push_line(&mut own, frame, at, end, boundary);
                    at = end;
                    if let Some([start, a, b, end]) = arc {
                        let curve =
                            kurbo::CubicBez::new(frame * start, frame * a, frame * b, frame * end);
                        own.push(PathSeg::Cubic(curve));
                        boundary.push(PathSeg::Cubic(curve));
                        at = end;
                    }
                }
                Side::Hinge(hinge) => {
                    if (hinge.from - at).hypot() > 1e-9 {
                        push_line(&mut own, frame, at, hinge.from, boundary);
                    }
                    own.push(PathSeg::Line(kurbo::Line::new(frame * hinge.from, frame * hinge.to)));
                    flat.lines.extend(hinge.lines(frame));
                    hinge.panel.lay(frame * hinge.frame(), Some(hinge), flat, boundary);
                    at = hinge.to;
                }
            }
        }
        let reach = hung_on.map(|_| {
            let inverse = frame.inverse();
            let path = inverse * chain(&own);
            path.bounding_box().y1
        });
        flat.panels[index].outline = chain(&own);
        flat.panels[index].reach = reach;
    }
}

impl Hinge {
    /// Maps the hung panel's frame to the parent's: `u` along the hinge, `v` to its left, which in
    /// a frame whose `v` points away and whose path runs clockwise is outwards.
    fn frame(&self) -> Affine {
        let along = (self.to - self.from).normalize();
        let away = Vec2::new(-along.y, along.x);
        Affine::new([along.x, along.y, away.x, away.y, self.from.x, self.from.y])
    }

    fn lines(&self, frame: Affine) -> Vec<Line> {
        let whole = kurbo::Line::new(frame * self.from, frame * self.to);
        let kind = if self.fold < 0.0 { LineKind::ReverseCrease } else { LineKind::Crease };
        let share = (self.slit / whole.arclen(1e-9).max(1e-9)).clamp(0.0, 0.45);
        let straight = |kind, range: std::ops::Range<f64>| {
            let part = whole.subsegment(range);
            let mut path = BezPath::new();
            path.move_to(part.p0);
            path.line_to(part.p1);
            Line { kind, path }
        };
        if share == 0.0 {
            return vec![straight(kind, 0.0..1.0)];
        }
        vec![
            straight(LineKind::Cut, 0.0..share),
            straight(kind, share..1.0 - share),
            straight(LineKind::Cut, 1.0 - share..1.0),
        ]
    }
}

fn push_line(
    own: &mut Vec<PathSeg>,
    frame: Affine,
    from: Point,
    to: Point,
    boundary: &mut Vec<PathSeg>,
) {
    if (to - from).hypot() < 1e-9 {
        return;
    }
    let line = PathSeg::Line(kurbo::Line::new(frame * from, frame * to));
    own.push(line);
    boundary.push(line);
}

/// Joins segments that follow each other into one closed path. Straight runs on one line become
/// one segment, so that a knife does not stop between them.
fn chain(segments: &[PathSeg]) -> BezPath {
    let mut path = BezPath::new();
    let Some(first) = segments.first() else { return path };
    path.move_to(first.start());
    let mut last: Option<kurbo::Line> = None;
    for segment in segments {
        match segment {
            PathSeg::Line(line) => {
                let joined = last.filter(|before| {
                    let (a, b) = (before.p1 - before.p0, line.p1 - line.p0);
                    a.cross(b).abs() < 1e-9 * a.hypot() * b.hypot() && a.dot(b) > 0.0
                });
                if let Some(before) = joined {
                    path.pop();
                    last = Some(kurbo::Line::new(before.p0, line.p1));
                } else {
                    last = Some(*line);
                }
                path.line_to(line.p1);
            }
            PathSeg::Cubic(curve) => {
                path.curve_to(curve.p1, curve.p2, curve.p3);
                last = None;
            }
            PathSeg::Quad(curve) => {
                path.quad_to(curve.p1, curve.p2);
                last = None;
            }
        }
    }
    path.close_path();
    path
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A 10 × 4 base with a 10 × 3 flap on its far side.
    fn flapped() -> Unfolded {
        let flap =
            Panel::new("Flap", Role::Flap).cut_rounded(0.0, 3.0, 1.0).cut(10.0, 3.0).cut(10.0, 0.0);
        Panel::new("Base", Role::Face)
            .cut(0.0, 4.0)
            .hinge_with_slits(10.0, 4.0, 90.0, 2.0, flap)
            .cut(10.0, 0.0)
            .cut(0.0, 0.0)
            .unfold(Affine::IDENTITY)
    }

    #[test]
    fn the_blank_is_the_panels_without_their_hinges() {
        let flat = flapped();
        let panels: f64 = flat.panels.iter().map(|panel| panel.outline.area().abs()).sum();
        assert!((flat.outline.area().abs() - panels).abs() < 1e-9);
        assert!((flat.outline.bounding_box().height() - 7.0).abs() < 1e-9);
        assert_eq!(flat.panels[1].reach, Some(3.0));
        assert!((flat.panels[1].hinge - 10.0).abs() < 1e-9);
    }

    #[test]
    fn a_slit_lock_cuts_the_ends_of_the_crease() {
        let lines = flapped().lines;
        let length = |line: &Line| line.path.perimeter(1e-9);
        assert_eq!(
            lines.iter().map(|line| line.kind).collect::<Vec<_>>(),
            [LineKind::Cut, LineKind::Crease, LineKind::Cut]
        );
        assert!((length(&lines[0]) - 2.0).abs() < 1e-9);
        assert!((length(&lines[1]) - 6.0).abs() < 1e-9);
    }

    #[test]
    fn straight_runs_across_hinges_become_one_cut() {
        // Base side and flap side lie on one line on the right (10, 0)–(10, 7).
        let lines = flapped().outline.segments().filter(|s| matches!(s, PathSeg::Line(_))).count();
        assert_eq!(lines, 4);
    }
}
