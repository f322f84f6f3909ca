//! An outline's two sides, for sliding one shape against another.

use kurbo::Point;

/// For each band between two corners' heights, where the outline's left and right sides run.
#[derive(Debug, Clone)]
pub(super) struct Profile {
    bands: Vec<Band>,
}

#[derive(Debug, Clone, Copy)]
struct Band {
    y0: f64,
    y1: f64,
    /// Left side at the top and at the bottom of the band.
    left: [f64; 2],
    right: [f64; 2],
}

impl Band {
    fn left_at(&self, y: f64) -> f64 {
        self.left[0] + (self.left[1] - self.left[0]) * (y - self.y0) / (self.y1 - self.y0)
    }

    fn right_at(&self, y: f64) -> f64 {
        self.right[0] + (self.right[1] - self.right[0]) * (y - self.y0) / (self.y1 - self.y0)
    }
}

impl Profile {
    /// The sides of a simple polygon.
    pub(super) fn new(points: &[Point]) -> Self {
        let mut levels: Vec<f64> = points.iter().map(|point| point.y).collect();
        levels.sort_by(f64::total_cmp);
        levels.dedup_by(|a, b| (*a - *b).abs() < 1e-9);
        let count = points.len();
        let edges: Vec<(Point, Point)> = (0..count)
            .map(|at| (points[at], points[(at + 1) % count]))
            .map(|(a, b)| if a.y <= b.y { (a, b) } else { (b, a) })
            .collect();
        let mut bands = Vec::with_capacity(levels.len());
        for pair in levels.windows(2) {
            let (y0, y1) = (pair[0], pair[1]);
            let middle = f64::midpoint(y0, y1);
            let x = |(a, b): &(Point, Point), y: f64| a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y);
            let crossing = || edges.iter().filter(|(a, b)| a.y < middle && b.y > middle);
            let by_x = |one: &&(Point, Point), other: &&(Point, Point)| {
                x(one, middle).total_cmp(&x(other, middle))
            };
            if let (Some(left), Some(right)) = (crossing().min_by(by_x), crossing().max_by(by_x)) {
                bands.push(Band {
                    y0,
                    y1,
                    left: [x(left, y0), x(left, y1)],
                    right: [x(right, y0), x(right, y1)],
                });
            }
        }
        Self { bands }
    }

    /// How far to the right of this one another must stand that is moved down by `down`, to slide clear of it;
    /// minus infinity where they pass each other.
    pub(super) fn clears(&self, other: &Self, down: f64) -> f64 {
        let mut most = f64::NEG_INFINITY;
        let mut from = 0;
        for ours in &self.bands {
            while from < other.bands.len() && other.bands[from].y1 + down <= ours.y0 {
                from += 1;
            }
            for theirs in &other.bands[from..] {
                let (y0, y1) = (ours.y0.max(theirs.y0 + down), ours.y1.min(theirs.y1 + down));
                if theirs.y0 + down >= ours.y1 {
                    break;
                }
                if y1 - y0 < 1e-9 {
                    continue;
                }
                for y in [y0, y1] {
                    most = most.max(ours.right_at(y) - theirs.left_at(y - down));
                }
            }
        }
        most
    }
}
