//! Lines that copies are drawn to as they are moved.

use kurbo::{Rect, Vec2};

/// Lines to be drawn, from one point to another, mm.
pub(super) type Guides = Vec<[[f64; 2]; 2]>;

/// What copies may be drawn to: the window's edges, the page's middle, neighbours' edges and middles, and the
/// spacing beside them.
pub(super) struct Lines {
    pub window: Rect,
    pub page: Rect,
    pub neighbours: Vec<Rect>,
    /// The plan's distance between copies, mm.
    pub spacing: f64,
}

/// A line that bounds are drawn to: how far they must go, where it stands, and whose it is.
type Drawn = (f64, f64, Rect);

impl Lines {
    /// How much further bounds must move to meet the nearest lines across and down that are within `snap` mm,
    /// and those lines.
    pub(super) fn draw(&self, bounds: Rect, snap: f64) -> (Vec2, Guides) {
        let across = self.nearest(bounds, snap, |rect| (rect.x0, rect.x1));
        let down = self.nearest(bounds, snap, |rect| (rect.y0, rect.y1));
        let by = Vec2::new(across.map_or(0.0, |(by, ..)| by), down.map_or(0.0, |(by, ..)| by));
        let moved = bounds + by;
        let mut guides = Vec::new();
        if let Some((_, x, of)) = across {
            let both = moved.union(of);
            guides.push([[x, both.y0], [x, both.y1]]);
        }
        if let Some((_, y, of)) = down {
            let both = moved.union(of);
            guides.push([[both.x0, y], [both.x1, y]]);
        }
        (by, guides)
    }

    fn nearest(&self, bounds: Rect, snap: f64, span: fn(&Rect) -> (f64, f64)) -> Option<Drawn> {
        let middle = |(low, high): (f64, f64)| f64::midpoint(low, high);
        let own = span(&bounds);
        let mut best: Option<Drawn> = None;
        let mut offer = |from: f64, line: f64, of: Rect| {
            let by = line - from;
            if by.abs() <= snap && best.is_none_or(|(least, ..)| by.abs() < least.abs()) {
                best = Some((by, line, of));
            }
        };
        let window = span(&self.window);
        offer(own.0, window.0, self.window);
        offer(own.1, window.1, self.window);
        offer(middle(own), middle(span(&self.page)), self.page);
        for neighbour in &self.neighbours {
            let other = span(neighbour);
            offer(own.0, other.0, *neighbour);
            offer(own.1, other.1, *neighbour);
            offer(middle(own), middle(other), *neighbour);
            offer(own.0, other.1 + self.spacing, *neighbour);
            offer(own.1, other.0 - self.spacing, *neighbour);
        }
        best
    }
}
