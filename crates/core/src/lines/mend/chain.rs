//! A line as its nodes and what runs between them.

use kurbo::{BezPath, CubicBez, Line, PathEl, PathSeg, Point};

/// Points that are no farther apart, in units of the file, are one.
const SAME: f64 = 1e-9;

/// A line in one go. Node `n` is where segment `n` begins; an open line has one more, where it ends.
#[derive(Debug, Clone, PartialEq)]
pub struct Chain {
    /// What runs between the nodes; none is of no length.
    pub segments: Vec<PathSeg>,
    /// True where it comes back to where it began.
    pub is_closed: bool,
}

impl Chain {
    /// The first subpath of a path; `None` where nothing runs.
    #[must_use]
    pub fn of(path: &BezPath) -> Option<Self> {
        let is_closed = path.elements().last() == Some(&PathEl::ClosePath);
        let is_long = |own: &PathSeg| match own {
            PathSeg::Line(line) => line.p0.distance(line.p1) > SAME,
            _ => true,
        };
        let segments: Vec<PathSeg> = path.segments().filter(is_long).map(raised).collect();
        (!segments.is_empty()).then_some(Self { segments, is_closed })
    }

    /// The path that it is.
    #[must_use]
    pub fn path(&self) -> BezPath {
        let mut path = BezPath::new();
        let last = self.segments.len().saturating_sub(1);
        for (at, segment) in self.segments.iter().enumerate() {
            if at == 0 {
                path.move_to(start(segment));
            }
            match segment {
                // The straight way back is what closing draws.
                PathSeg::Line(_) if self.is_closed && at == last => {}
                PathSeg::Line(line) => path.line_to(line.p1),
                PathSeg::Quad(quad) => path.quad_to(quad.p1, quad.p2),
                PathSeg::Cubic(cubic) => path.curve_to(cubic.p1, cubic.p2, cubic.p3),
            }
        }
        if self.is_closed {
            path.close_path();
        }
        path
    }

    /// How many nodes it has.
    #[must_use]
    pub fn nodes(&self) -> usize {
        self.segments.len() + usize::from(!self.is_closed)
    }

    /// Where a node lies.
    #[must_use]
    pub fn node(&self, node: usize) -> Option<Point> {
        match self.segments.get(node) {
            Some(segment) => Some(start(segment)),
            None if node == self.segments.len() && !self.is_closed => self.segments.last().map(end),
            None => None,
        }
    }

    /// The segment that ends in a node.
    #[must_use]
    pub fn before(&self, node: usize) -> Option<usize> {
        match node {
            0 if self.is_closed => self.segments.len().checked_sub(1),
            _ => node.checked_sub(1).filter(|at| *at < self.segments.len()),
        }
    }

    /// The segment that begins in a node.
    #[must_use]
    pub fn after(&self, node: usize) -> Option<usize> {
        (node < self.segments.len()).then_some(node)
    }

    /// Both handles of a segment that is a curve.
    #[must_use]
    pub fn handles(&self, segment: usize) -> Option<[Point; 2]> {
        match self.segments.get(segment)? {
            PathSeg::Line(_) => None,
            own => Some([own.to_cubic().p1, own.to_cubic().p2]),
        }
    }

    /// The same with its nodes counted from another, where it is closed.
    #[must_use]
    pub fn begun_at(mut self, node: usize) -> Self {
        if self.is_closed && node < self.segments.len() {
            self.segments.rotate_left(node);
        }
        self
    }

    /// The same the other way round.
    #[must_use]
    pub fn reversed(mut self) -> Self {
        self.segments.reverse();
        self.segments.iter_mut().for_each(|own| *own = own.reverse());
        self
    }
}

/// Where a segment begins.
#[must_use]
pub fn start(segment: &PathSeg) -> Point {
    match segment {
        PathSeg::Line(own) => own.p0,
        PathSeg::Quad(own) => own.p0,
        PathSeg::Cubic(own) => own.p0,
    }
}

/// Where it ends.
#[must_use]
pub fn end(segment: &PathSeg) -> Point {
    match segment {
        PathSeg::Line(own) => own.p1,
        PathSeg::Quad(own) => own.p2,
        PathSeg::Cubic(own) => own.p3,
    }
}

/// The same between other places: handles go with their ends.
#[must_use]
pub fn between(segment: &PathSeg, from: Point, to: Point) -> PathSeg {
    match segment {
        PathSeg::Line(_) => PathSeg::Line(Line::new(from, to)),
        own => {
            let own = own.to_cubic();
            let (out, into) = (own.p1 + (from - own.p0), own.p2 + (to - own.p3));
            PathSeg::Cubic(CubicBez::new(from, out, into, to))
        }
    }
}

/// Curves with one handle have two.
fn raised(segment: PathSeg) -> PathSeg {
    match segment {
        PathSeg::Quad(quad) => PathSeg::Cubic(quad.raise()),
        other => other,
    }
}
