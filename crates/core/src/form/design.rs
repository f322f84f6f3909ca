//! What a structure's definition gives: panels, how they fold, and what must hold when they have.

use kurbo::{Affine, Point};

use super::panel::Joined;
use super::{Axis, Panel};
use crate::check::Sense;

/// A blank of a structure: one tree of panels.
pub struct Blank {
    /// Its name, such as “Lid”.
    pub name: String,
    /// What everything else hangs on.
    pub root: Panel,
    /// Maps the root's frame to the flat.
    pub frame: Affine,
    /// Where it is joined to another blank before either is folded.
    pub joined: Option<Joined>,
}

impl Blank {
    /// A blank whose root's `u` runs down and `v` to the right: walls of a tube.
    #[must_use]
    pub fn downwards(name: impl Into<String>, root: Panel) -> Self {
        let frame = Affine::new([0.0, 1.0, 1.0, 0.0, 0.0, 0.0]);
        Self { name: name.into(), root, frame, joined: None }
    }

    /// A blank whose root's `u` runs to the right and `v` up.
    #[must_use]
    pub fn upwards(name: impl Into<String>, root: Panel) -> Self {
        let frame = Affine::new([1.0, 0.0, 0.0, -1.0, 0.0, 0.0]);
        Self { name: name.into(), root, frame, joined: None }
    }
}

/// What moves in a step.
#[derive(Debug, Clone, PartialEq)]
pub enum Move {
    /// A panel turns on its hinge to this many degrees.
    Turn(String, f64),
    /// A panel turns on its hinge to its closed angle.
    Close(String),
    /// A whole blank is lifted off the table by so many mm, away from its printed side.
    Lift(usize, f64),
    /// A whole blank is carried to a place beside or in the first one.
    Carry(usize, Rest),
}

/// Where a blank is in the finished piece: how its frame lies in that of the first blank's root,
/// both with the printed side's normal as third axis.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rest {
    /// Where its root's `u`, `v` and printed side point.
    pub axes: [[f64; 3]; 3],
    /// Where its root's origin lies, mm.
    pub at: [f64; 3],
}

/// A step of the folding, in order.
#[derive(Debug, Clone, PartialEq)]
pub struct Step {
    /// What to do, in the imperative.
    pub text: String,
    /// What moves, all at once.
    pub moves: Vec<Move>,
}

impl Step {
    /// Panels turn to their closed angles.
    #[must_use]
    pub fn close<S: Into<String>>(
        text: impl Into<String>,
        panels: impl IntoIterator<Item = S>,
    ) -> Self {
        let moves = panels.into_iter().map(|panel| Move::Close(panel.into())).collect();
        Self { text: text.into(), moves }
    }

    /// Panels turn to the angles given, in degrees.
    #[must_use]
    pub fn turn<S: Into<String>>(
        text: impl Into<String>,
        panels: impl IntoIterator<Item = (S, f64)>,
    ) -> Self {
        let moves = panels.into_iter().map(|(panel, to)| Move::Turn(panel.into(), to)).collect();
        Self { text: text.into(), moves }
    }

    /// A blank is lifted off the table by so many mm.
    #[must_use]
    pub fn lift(text: impl Into<String>, blank: usize, by: f64) -> Self {
        Self { text: text.into(), moves: vec![Move::Lift(blank, by)] }
    }

    /// A blank is carried.
    #[must_use]
    pub fn carry(text: impl Into<String>, blank: usize, rest: Rest) -> Self {
        Self { text: text.into(), moves: vec![Move::Carry(blank, rest)] }
    }
}

/// An edge of a panel, in its frame.
#[derive(Debug, Clone, PartialEq)]
pub struct Edge {
    /// The panel.
    pub panel: String,
    /// Its two ends.
    pub ends: [Point; 2],
}

impl Edge {
    /// The edge of `panel` between two points of its frame.
    #[must_use]
    pub fn new(panel: impl Into<String>, from: (f64, f64), to: (f64, f64)) -> Self {
        Self { panel: panel.into(), ends: [from.into(), to.into()] }
    }
}

/// What must hold in the closed piece.
#[derive(Debug, Clone, PartialEq)]
pub enum Must {
    /// Two edges lie on each other.
    Meet(Edge, Edge),
    /// An edge lies this far, mm, from the middle of a panel's card.
    Reach(Edge, String, f64),
    /// A glue area lies on its mate, one caliper away. With the number, the trade's convention
    /// lets the joint skew by so many calipers.
    Glue(String, String, f64),
    /// Two panels leave this room between them, mm: a size that was asked for.
    Room(&'static str, [String; 2], f64),
    /// What is tucked or slides leaves this clearance to its neighbour, mm, from face to face.
    Clear([String; 2], f64),
    /// The edge of the first panel's card leaves this clearance to the face of the second, mm.
    Beside([String; 2], f64),
}

/// A limit met in the form itself.
pub struct Limit {
    /// A stable name.
    pub id: &'static str,
    /// What is measured.
    pub label: String,
    /// Value, sense and bound, mm.
    pub limit: (f64, Sense, f64),
    /// The panel to look at.
    pub panel: String,
    /// The figure to set, and to what.
    pub remedy: Option<(&'static str, f64)>,
}

/// A length that the drawing shows, between two points of a panel's frame.
pub struct Span {
    /// The figure it shows.
    pub key: &'static str,
    /// The panel.
    pub panel: String,
    /// See `panel`.
    pub ends: [Point; 2],
    /// True where it is shown only while its figure is in hand, since many would hide the flat.
    pub is_quiet: bool,
}

impl Span {
    /// Between two points of a panel's frame, always shown.
    pub fn new(
        key: &'static str,
        panel: impl Into<String>,
        from: (f64, f64),
        to: (f64, f64),
    ) -> Self {
        Self { key, panel: panel.into(), ends: [from.into(), to.into()], is_quiet: false }
    }
}

/// Where a label stands on a panel: around `centre` in its frame, `size` wide and high in the flat, mm.
pub struct LabelSpot {
    /// The panel.
    pub panel: String,
    /// See the type.
    pub centre: Point,
    /// See the type.
    pub size: [f64; 2],
}

/// How the finished piece stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Stand {
    /// As it is drawn: the flat's top is up.
    Upright,
    /// On the printed side of the first panel.
    OnFirst,
    /// Lying with the printed side up.
    Lying,
}

/// What a definition gives.
pub struct Design {
    /// Its blanks; the first is the one that stays where it is.
    pub blanks: Vec<Blank>,
    /// The folding, in order. Panels that no step names are closed at the end.
    pub steps: Vec<Step>,
    /// What must hold when it is closed.
    pub musts: Vec<Must>,
    /// Lengths to draw.
    pub spans: Vec<Span>,
    /// Limits of its own.
    pub limits: Vec<Limit>,
    /// What it holds, mm³.
    pub volume: Option<f64>,
    /// Its sizes inside and outside, where they do not follow from the figures alone.
    pub measured: Option<[Vec<f64>; 2]>,
    /// How it stands.
    pub stand: Stand,
    /// The way its main folds run, which should be the grain's.
    pub folds: Axis,
    /// How far a panel that is ruled into strips lies from the curved one, mm.
    pub ruling: f64,
    /// The numbers at mating edges: the edge and its number.
    pub mates: Vec<(Edge, usize)>,
    /// Where labels stand, in order.
    pub labels: Vec<LabelSpot>,
}

impl Design {
    /// A design of these blanks, without steps or conditions yet.
    #[must_use]
    pub fn new(blanks: Vec<Blank>, stand: Stand) -> Self {
        Self {
            blanks,
            steps: Vec::new(),
            musts: Vec::new(),
            spans: Vec::new(),
            limits: Vec::new(),
            volume: None,
            measured: None,
            stand,
            folds: Axis::Along,
            ruling: 0.0,
            mates: Vec::new(),
            labels: Vec::new(),
        }
    }

    /// The same with steps.
    #[must_use]
    pub fn steps(mut self, steps: impl IntoIterator<Item = Step>) -> Self {
        self.steps.extend(steps);
        self
    }

    /// The same with conditions.
    #[must_use]
    pub fn must(mut self, musts: impl IntoIterator<Item = Must>) -> Self {
        self.musts.extend(musts);
        self
    }

    /// The same with limits.
    #[must_use]
    pub fn limits(mut self, limits: impl IntoIterator<Item = Limit>) -> Self {
        self.limits.extend(limits);
        self
    }

    /// The same, showing figures.
    #[must_use]
    pub fn spans(mut self, spans: impl IntoIterator<Item = Span>) -> Self {
        self.spans.extend(spans);
        self
    }

    /// The same, showing a figure between two points of a panel's frame.
    #[must_use]
    pub fn span(
        self,
        key: &'static str,
        panel: impl Into<String>,
        from: (f64, f64),
        to: (f64, f64),
    ) -> Self {
        self.spans([Span::new(key, panel, from, to)])
    }

    /// As [`span`](Self::span), shown only while the figure is in hand.
    #[must_use]
    pub fn quiet_span(
        self,
        key: &'static str,
        panel: impl Into<String>,
        from: (f64, f64),
        to: (f64, f64),
    ) -> Self {
        self.spans([Span { is_quiet: true, ..Span::new(key, panel, from, to) }])
    }

    /// The same with a label on a panel.
    #[must_use]
    pub fn label(mut self, panel: impl Into<String>, centre: (f64, f64), size: [f64; 2]) -> Self {
        self.labels.push(LabelSpot { panel: panel.into(), centre: centre.into(), size });
        self
    }

    /// The same, holding so many mm³.
    #[must_use]
    pub const fn holds(mut self, volume: f64) -> Self {
        self.volume = Some(volume);
        self
    }

    /// The same, being so large inside and outside, in the order of its figures: for sizes that are set
    /// neither inside nor outside nor at the creases of walls that stand square.
    #[must_use]
    pub fn measures(mut self, inside: Vec<f64>, outside: Vec<f64>) -> Self {
        self.measured = Some([inside, outside]);
        self
    }

    /// The same, its main folds running the other way.
    #[must_use]
    pub const fn folds(mut self, folds: Axis) -> Self {
        self.folds = folds;
        self
    }
}
