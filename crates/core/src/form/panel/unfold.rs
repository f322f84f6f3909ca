//! Laying a panel tree flat.

use kurbo::{Affine, BezPath, CubicBez, ParamCurve, PathSeg, Point, Shape, Vec2};

use super::chain::{Walked, cancelled, chain};
use super::{Hinge, Joint, Panel, Role, Side};
use crate::geometry::rounded;
use crate::id::plain;
use crate::line::LineKind;
use crate::stroke::{Stroke, StrokeSource};

/// Where a placed panel hangs, in its parent's frame.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hang {
    /// The parent's place among the panels.
    pub parent: usize,
    /// The hinge's two ends in the parent's frame.
    pub ends: [Point; 2],
    /// Degrees from flat to closed.
    pub fold: f64,
    /// See [`Hinge::lift`].
    pub lift: f64,
}

/// A panel where it lies in the flat.
#[derive(Debug, Clone)]
pub struct PlacedPanel {
    /// The trade's name.
    pub name: String,
    /// What it does in the finished piece.
    pub role: Role,
    /// The figure that sets its reach, if one does.
    pub figure: Option<&'static str>,
    /// The curved panel that it is a strip of, by name.
    pub strip_of: Option<String>,
    /// Sides beyond which the card goes on without a crease, in its frame.
    pub soft: Vec<[Point; 2]>,
    /// Its closed outline.
    pub outline: BezPath,
    /// Maps its frame to the flat.
    pub frame: Affine,
    /// Where it hangs; `None` for the panel everything hangs on.
    pub hang: Option<Hang>,
    /// How far it reaches from its hinge, in mm; `None` for the panel everything hangs on.
    pub reach: Option<f64>,
}

impl PlacedPanel {
    /// A panel that hangs on nothing.
    #[must_use]
    pub fn plain(name: &str, outline: BezPath) -> Self {
        Self {
            name: name.to_owned(),
            role: Role::Face,
            figure: None,
            strip_of: None,
            soft: Vec::new(),
            outline,
            frame: Affine::IDENTITY,
            hang: None,
            reach: None,
        }
    }

    /// True where it is the panel of that name, or a strip of it.
    #[must_use]
    pub fn goes_by(&self, name: &str) -> bool {
        self.name == name || self.strip_of.as_deref() == Some(name)
    }

    /// The name that is shown: a strip has that of the panel it belongs to.
    #[must_use]
    pub fn shown_name(&self) -> &str {
        self.strip_of.as_deref().unwrap_or(&self.name)
    }

    /// Length of its hinge in mm, 0 for the panel everything hangs on.
    #[must_use]
    pub fn hinge_length(&self) -> f64 {
        self.hang.map_or(0.0, |hang| (hang.ends[1] - hang.ends[0]).hypot())
    }
}

/// A tree of panels laid flat.
#[derive(Debug, Clone, Default)]
pub struct Unfolded {
    /// Every panel, a parent before its children.
    pub panels: Vec<PlacedPanel>,
    /// The blank: one closed path of cuts.
    pub outline: BezPath,
    /// Creases, slits, and what lies on the panels.
    pub strokes: Vec<Stroke>,
}

impl Panel {
    /// Lays the tree flat, this panel's frame mapped by `frame` to the flat's coordinates. The
    /// last side must end at the first one's start, the origin: the root has no hinge to close it.
    #[must_use]
    pub fn unfold(&self, frame: Affine) -> Unfolded {
        let mut flat = Unfolded::default();
        let mut boundary = Vec::new();
        self.lay(frame, None, &mut flat, &mut boundary);
        let (outline, slits) = cancelled(&boundary);
        flat.strokes.extend(slits.into_iter().enumerate().map(|(number, slit)| {
            let path = BezPath::from_path_segments(std::iter::once(PathSeg::Line(slit)));
            Stroke::new(format!("slit-{number}"), LineKind::Cut, path, StrokeSource::Sides)
        }));
        flat.outline = chain(&outline);
        flat
    }

    fn lay(
        &self,
        frame: Affine,
        hang: Option<Hang>,
        flat: &mut Unfolded,
        boundary: &mut Vec<Walked>,
    ) {
        let index = flat.panels.len();
        flat.panels.push(PlacedPanel {
            name: self.name.clone(),
            role: self.role,
            figure: self.figure,
            strip_of: self.strip_of.clone(),
            soft: Vec::new(),
            outline: BezPath::new(),
            frame,
            hang,
            reach: None,
        });
        let own_lines = self.lines.iter().enumerate();
        flat.strokes.extend(own_lines.map(|(number, line)| {
            let id = format!("line-{}-{number}", plain(&self.name));
            let source = StrokeSource::Panel(self.name.clone());
            Stroke::new(id, line.kind, frame * line.path.clone(), source)
        }));
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
                        push_curve(&mut own, frame, [start, a, b, end], boundary);
                        at = end;
                    }
                }
                Side::Curve { a, b, to } => {
                    push_curve(&mut own, frame, [at, *a, *b, *to], boundary);
                    at = *to;
                }
                Side::Seam { to, kind } => {
                    if kind.is_none() {
                        flat.panels[index].soft.push([at, *to]);
                    }
                    if let Some(kind) = kind {
                        let mut path = BezPath::new();
                        path.move_to(frame * at);
                        path.line_to(frame * *to);
                        let id = format!("side-{}-{position}", plain(&self.name));
                        flat.strokes.push(Stroke::new(id, *kind, path, StrokeSource::Sides));
                    }
                    let before = boundary.len();
                    push_line(&mut own, frame, at, *to, boundary);
                    for side in &mut boundary[before..] {
                        side.is_joined = true;
                    }
                    at = *to;
                }
                Side::Hinge(hinge) => {
                    if (hinge.from - at).hypot() > 1e-9 {
                        push_line(&mut own, frame, at, hinge.from, boundary);
                    }
                    own.push(PathSeg::Line(kurbo::Line::new(frame * hinge.from, frame * hinge.to)));
                    flat.strokes.extend(hinge.strokes(frame));
                    let hang = Hang {
                        parent: index,
                        ends: [hinge.from, hinge.to],
                        fold: hinge.fold,
                        lift: hinge.lift,
                    };
                    let next = flat.panels.len();
                    hinge.panel.lay(frame * hinge.frame(), Some(hang), flat, boundary);
                    if hinge.joint == Joint::Bend {
                        let long = (hinge.to - hinge.from).hypot();
                        flat.panels[index].soft.push([hinge.from, hinge.to]);
                        flat.panels[next].soft.push([Point::ZERO, Point::new(long, 0.0)]);
                    }
                    at = hinge.to;
                }
            }
        }
        let outline = chain(&own);
        if hang.is_some() {
            let local = frame.inverse() * outline.clone();
            flat.panels[index].reach = Some(local.bounding_box().y1);
        }
        flat.panels[index].outline = outline;
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

    fn strokes(&self, frame: Affine) -> Vec<Stroke> {
        let kind = if self.fold < 0.0 { LineKind::ReverseCrease } else { LineKind::Crease };
        let (from, to) = (frame * self.from, frame * self.to);
        let whole = match self.curve {
            Some([a, b]) => PathSeg::Cubic(CubicBez::new(from, frame * a, frame * b, to)),
            None => PathSeg::Line(kurbo::Line::new(from, to)),
        };
        let part = |what: &str, kind, range: std::ops::Range<f64>| {
            let path = BezPath::from_path_segments(std::iter::once(whole.subsegment(range)));
            let source = StrokeSource::Hinge(self.panel.name.clone());
            Stroke::new(format!("{what}-{}", plain(&self.panel.name)), kind, path, source)
        };
        match self.joint {
            Joint::Bend => Vec::new(),
            Joint::Perforation(pattern) => {
                vec![part("hinge", LineKind::Perforation, 0.0..1.0).with_pattern(pattern)]
            }
            Joint::Crease { slit } => {
                let share = (slit / (to - from).hypot().max(1e-9)).clamp(0.0, 0.45);
                if share == 0.0 {
                    return vec![part("hinge", kind, 0.0..1.0)];
                }
                vec![
                    part("slit-first", LineKind::Cut, 0.0..share),
                    part("hinge", kind, share..1.0 - share),
                    part("slit-second", LineKind::Cut, 1.0 - share..1.0),
                ]
            }
        }
    }
}

fn push_line(
    own: &mut Vec<PathSeg>,
    frame: Affine,
    from: Point,
    to: Point,
    boundary: &mut Vec<Walked>,
) {
    if (to - from).hypot() < 1e-9 {
        return;
    }
    let line = PathSeg::Line(kurbo::Line::new(frame * from, frame * to));
    own.push(line);
    boundary.push(Walked { segment: line, is_joined: false });
}

fn push_curve(
    own: &mut Vec<PathSeg>,
    frame: Affine,
    points: [Point; 4],
    boundary: &mut Vec<Walked>,
) {
    let [from, a, b, to] = points.map(|point| frame * point);
    let curve = PathSeg::Cubic(CubicBez::new(from, a, b, to));
    own.push(curve);
    boundary.push(Walked { segment: curve, is_joined: false });
}
