//! The panel tree: panels hinged on each other's sides, each drawn in its own frame.
//!
//! A panel's frame has its origin where its hinge starts, `u` along the hinge and `v` away from
//! the panel it hangs on. Seen from the printed side the tree runs clockwise, so a panel starts
//! at `(0, 0)`, goes round, and ends at `(hinge length, 0)`; the hinge closes it. The frame's third
//! axis points out of the printed side, and with it the frame is right-handed.

mod chain;
mod split;
mod unfold;
mod whole;

use kurbo::{BezPath, Point};

pub use split::{CutOff, JoinFlap, Joined};
pub use unfold::{Hang, PlacedPanel, Unfolded};
pub use whole::{WholePanel, meant, whole_panels};

use crate::line::LineKind;
use crate::stroke::Perforation;

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

/// How two panels that hang together are parted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Joint {
    /// Pressed; the ends are cut instead over `slit` mm each (a slit lock).
    Crease {
        /// Length cut at each end, mm.
        slit: f64,
    },
    /// Cut and tied in turn, to be torn.
    Perforation(Perforation),
    /// Nothing is drawn: the card bends there of itself, as in a curved panel's strips.
    Bend,
}

/// Where a panel hangs on another.
#[derive(Debug, Clone)]
pub struct Hinge {
    /// The hinge's two ends in the parent's frame.
    pub from: Point,
    /// See `from`.
    pub to: Point,
    /// Degrees from flat to closed; positive folds away from the printed side.
    pub fold: f64,
    /// How far the folded panel lies beside the plane that the crease alone would put it in, mm,
    /// towards the side it folds to: the layers that a fold of half a turn goes round.
    pub lift: f64,
    /// What is done along it.
    pub joint: Joint,
    /// Control points of the crease as it is drawn, where it is a curve folded as a chord.
    pub curve: Option<[Point; 2]>,
    /// The panel that hangs here.
    pub panel: Panel,
}

#[derive(Debug, Clone)]
enum Side {
    Cut { to: Point, radius: f64 },
    Curve { a: Point, b: Point, to: Point },
    Seam { to: Point, kind: Option<LineKind> },
    Hinge(Box<Hinge>),
}

impl Side {
    const fn end(&self) -> Point {
        match self {
            Self::Cut { to, .. } | Self::Curve { to, .. } | Self::Seam { to, .. } => *to,
            Self::Hinge(hinge) => hinge.to,
        }
    }
}

/// A flat part between creases, with the panels that hang on it.
#[derive(Debug, Clone)]
pub struct Panel {
    /// The trade's name, unique in its structure.
    pub name: String,
    /// What it does in the finished piece.
    pub role: Role,
    /// The figure that sets its reach, if one does.
    pub figure: Option<&'static str>,
    /// The curved panel that it is a strip of, by name.
    pub strip_of: Option<String>,
    /// What is drawn on it besides its sides, in its frame.
    pub lines: Vec<Line>,
    sides: Vec<Side>,
}

impl Panel {
    /// A panel without sides yet.
    #[must_use]
    pub fn new(name: impl Into<String>, role: Role) -> Self {
        let (lines, sides) = (Vec::new(), Vec::new());
        Self { name: name.into(), role, figure: None, strip_of: None, lines, sides }
    }

    /// The same, its reach set by a figure.
    #[must_use]
    pub const fn set_by(mut self, figure: &'static str) -> Self {
        self.figure = Some(figure);
        self
    }

    /// The same, as a strip of a curved panel.
    #[must_use]
    pub fn strip_of(mut self, whole: impl Into<String>) -> Self {
        self.strip_of = Some(whole.into());
        self
    }

    /// A cut to `(u, v)`.
    #[must_use]
    pub fn cut(self, u: f64, v: f64) -> Self {
        self.cut_rounded(u, v, 0.0)
    }

    /// A cut to `(u, v)`, or nothing where the path is there already.
    #[must_use]
    pub fn cut_on(self, u: f64, v: f64) -> Self {
        if self.end().distance(Point::new(u, v)) < 1e-9 { self } else { self.cut(u, v) }
    }

    /// A cut to `(u, v)`, where the corner to the next cut is rounded.
    #[must_use]
    pub fn cut_rounded(mut self, u: f64, v: f64, radius: f64) -> Self {
        self.sides.push(Side::Cut { to: Point::new(u, v), radius });
        self
    }

    /// A curved cut to `to` with the cubic's control points `a` and `b`.
    #[must_use]
    pub fn curve(mut self, a: Point, b: Point, to: Point) -> Self {
        self.sides.push(Side::Curve { a, b, to });
        self
    }

    /// An arc to `(u, v)` that bulges outwards (to the left of the way there) by `rise` mm;
    /// negative bulges inwards. Arcs of more than a quarter circle are divided.
    #[must_use]
    pub fn arc(self, u: f64, v: f64, rise: f64) -> Self {
        let cubics = crate::geometry::arc(self.end(), Point::new(u, v), rise);
        cubics.into_iter().fold(self, |panel, [a, b, to]| panel.curve(a, b, to))
    }

    /// A crease to `(u, v)` against a neighbour in the flat that hangs elsewhere in the tree. The
    /// neighbour has the same side as a cut; the two cancel.
    #[must_use]
    pub fn seam(mut self, u: f64, v: f64, kind: LineKind) -> Self {
        self.sides.push(Side::Seam { to: Point::new(u, v), kind: Some(kind) });
        self
    }

    /// As [`seam`](Self::seam), with nothing done along it: the card goes on, as between the strips of a
    /// curved panel.
    #[must_use]
    pub fn joined(mut self, u: f64, v: f64) -> Self {
        self.sides.push(Side::Seam { to: Point::new(u, v), kind: None });
        self
    }

    /// A crease to `(u, v)` on which `panel` hangs, folding by `fold` degrees.
    #[must_use]
    pub fn hinge(self, u: f64, v: f64, fold: f64, panel: Self) -> Self {
        self.hinge_as(u, v, fold, Joint::Crease { slit: 0.0 }, panel)
    }

    /// As [`hinge`](Self::hinge), with the crease's ends slit through over `slit` mm.
    #[must_use]
    pub fn hinge_with_slits(self, u: f64, v: f64, fold: f64, slit: f64, panel: Self) -> Self {
        self.hinge_as(u, v, fold, Joint::Crease { slit }, panel)
    }

    /// As [`hinge`](Self::hinge), with the joint named.
    #[must_use]
    pub fn hinge_as(mut self, u: f64, v: f64, fold: f64, joint: Joint, panel: Self) -> Self {
        let (from, to) = (self.end(), Point::new(u, v));
        let hinge = Hinge { from, to, fold, lift: 0.0, joint, curve: None, panel };
        self.sides.push(Side::Hinge(Box::new(hinge)));
        self
    }

    /// As [`hinge`](Self::hinge) for a fold over other layers: the panel comes to lie `lift` mm
    /// beside the plane of the fold.
    #[must_use]
    pub fn hinge_over(self, u: f64, v: f64, fold: f64, lift: f64, panel: Self) -> Self {
        self.hinge(u, v, fold, panel).last_hinge(|hinge| hinge.lift = lift)
    }

    /// As [`hinge`](Self::hinge) along a chord whose crease is drawn as the cubic through `a`, `b`.
    #[must_use]
    pub fn hinge_curved(self, u: f64, v: f64, fold: f64, [a, b]: [Point; 2], panel: Self) -> Self {
        self.hinge(u, v, fold, panel).last_hinge(|hinge| hinge.curve = Some([a, b]))
    }

    fn last_hinge(mut self, change: impl FnOnce(&mut Hinge)) -> Self {
        if let Some(Side::Hinge(hinge)) = self.sides.last_mut() {
            change(hinge);
        }
        self
    }

    /// The same with a line on it.
    #[must_use]
    pub fn with(mut self, kind: LineKind, path: BezPath) -> Self {
        self.lines.push(Line { kind, path });
        self
    }

    /// Where the path has come to.
    #[must_use]
    pub fn end(&self) -> Point {
        self.sides.last().map_or(Point::ZERO, Side::end)
    }

    /// The panel as it hangs on the far side of a symmetric parent: `u` runs the other way along a
    /// hinge of `hinge` mm.
    #[must_use]
    pub fn mirrored(self, hinge: f64) -> Self {
        let flip = |p: Point| Point::new(hinge - p.x, p.y);
        let mut starts = vec![Point::ZERO];
        starts.extend(self.sides.iter().map(Side::end));
        let mut radii = vec![0.0];
        radii.extend(self.sides.iter().map(|side| match side {
            Side::Cut { radius, .. } => *radius,
            _ => 0.0,
        }));
        let mut sides: Vec<Side> = Vec::with_capacity(self.sides.len());
        for (index, side) in self.sides.into_iter().enumerate().rev() {
            let to = flip(starts[index]);
            sides.push(match side {
                // A corner's radius stands where the cut ends, which is now the cut before.
                Side::Cut { .. } => Side::Cut { to, radius: radii[index] },
                Side::Curve { a, b, .. } => Side::Curve { a: flip(b), b: flip(a), to },
                Side::Seam { kind, .. } => Side::Seam { to, kind },
                Side::Hinge(hinge) => {
                    let long = (hinge.to - hinge.from).hypot();
                    Side::Hinge(Box::new(Hinge {
                        from: flip(hinge.to),
                        to: flip(hinge.from),
                        curve: hinge.curve.map(|[a, b]| [flip(b), flip(a)]),
                        panel: hinge.panel.mirrored(long),
                        ..*hinge
                    }))
                }
            });
        }
        let over = kurbo::Affine::new([-1.0, 0.0, 0.0, 1.0, hinge, 0.0]);
        let lines = self.lines.into_iter();
        let lines = lines.map(|line| Line { kind: line.kind, path: over * line.path }).collect();
        Self { sides, lines, ..self }
    }

    /// The panel of that name in this tree.
    pub fn find_mut(&mut self, name: &str) -> Option<&mut Self> {
        if self.name == name {
            return Some(self);
        }
        self.sides.iter_mut().find_map(|side| match side {
            Side::Hinge(hinge) => hinge.panel.find_mut(name),
            _ => None,
        })
    }

    /// The straight cuts of this panel, each with its place among the sides and its two ends.
    #[must_use]
    pub fn cuts(&self) -> Vec<(usize, Point, Point)> {
        let mut at = Point::ZERO;
        let mut found = Vec::new();
        for (index, side) in self.sides.iter().enumerate() {
            if let Side::Cut { to, .. } = side {
                found.push((index, at, *to));
            }
            at = side.end();
        }
        found
    }

    /// Puts a bay into the straight cut at `index`: from its point `start` an arc of `depth` mm into
    /// the panel to its point `end`. False when there is no such cut.
    pub fn notch(&mut self, index: usize, start: Point, end: Point, depth: f64) -> bool {
        let Some(Side::Cut { to, radius }) = self.sides.get(index) else { return false };
        let last = Side::Cut { to: *to, radius: *radius };
        let arc = crate::geometry::arc(start, end, -depth);
        let bay = arc.into_iter().map(|[a, b, to]| Side::Curve { a, b, to });
        let first = Side::Cut { to: start, radius: 0.0 };
        self.sides.splice(index..=index, std::iter::once(first).chain(bay).chain([last]));
        true
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stroke::Stroke;
    use kurbo::{Affine, PathSeg, Shape};

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
        assert!((flat.panels[1].hinge_length() - 10.0).abs() < 1e-9);
    }

    #[test]
    fn a_slit_lock_cuts_the_ends_of_the_crease() {
        let lines = flapped().strokes;
        let length = |line: &Stroke| line.path.perimeter(1e-9);
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

    #[test]
    fn a_mirrored_panel_is_the_same_seen_the_other_way_round() {
        let flap = || {
            Panel::new("Flap", Role::Flap)
                .cut_rounded(1.0, 3.0, 1.0)
                .cut(7.0, 5.0)
                .arc(10.0, 2.0, 0.5)
                .cut(10.0, 0.0)
        };
        let hung = |flap| {
            Panel::new("Base", Role::Face)
                .cut(0.0, 4.0)
                .hinge(10.0, 4.0, 90.0, flap)
                .cut(10.0, 0.0)
                .cut(0.0, 0.0)
                .unfold(Affine::IDENTITY)
        };
        let (plain, twice) = (hung(flap()), hung(flap().mirrored(10.0).mirrored(10.0)));
        assert_eq!(plain.outline.elements().len(), twice.outline.elements().len());
        let over = Affine::new([-1.0, 0.0, 0.0, 1.0, 10.0, 0.0]);
        let once = over * hung(flap().mirrored(10.0)).outline;
        assert!((once.area().abs() - plain.outline.area().abs()).abs() < 1e-9);
        let (a, b) = (once.bounding_box(), plain.outline.bounding_box());
        assert!((a.x0 - b.x0).abs() < 1e-9 && (a.y1 - b.y1).abs() < 1e-9);
    }

    #[test]
    fn a_seam_is_a_crease_and_no_cut() {
        // Two flaps side by side on a split edge: the side they share is creased once.
        let left = Panel::new("Left", Role::Flap).cut(0.0, 3.0).cut(5.0, 3.0).seam(
            5.0,
            0.0,
            LineKind::ReverseCrease,
        );
        let right = Panel::new("Right", Role::Flap).cut(0.0, 3.0).cut(5.0, 3.0).cut(5.0, 0.0);
        let flat = Panel::new("Base", Role::Face)
            .cut(0.0, 4.0)
            .hinge(5.0, 4.0, 90.0, left)
            .hinge(10.0, 4.0, 90.0, right)
            .cut(10.0, 0.0)
            .cut(0.0, 0.0)
            .unfold(Affine::IDENTITY);
        assert!((flat.outline.area().abs() - 70.0).abs() < 1e-9);
        assert_eq!(flat.outline.segments().count(), 4);
        assert_eq!(flat.strokes.iter().filter(|l| l.kind == LineKind::ReverseCrease).count(), 1);
    }
}
