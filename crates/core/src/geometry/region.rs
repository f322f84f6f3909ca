//! Areas for polygon algebra: curves flattened to within [`FLATTENING`](super::FLATTENING).

use geo::algorithm::buffer::{BufferStyle, LineJoin};
use geo::{Area, BooleanOps, BoundingRect, Buffer, Coord, LineString, MultiPolygon, Polygon};
use kurbo::{BezPath, Point, Rect};

/// An area of any number of parts, with holes. Outer rings and holes are closed and do not cross.
#[derive(Debug, Clone, PartialEq)]
pub struct Region(MultiPolygon<f64>);

impl Region {
    /// No area.
    #[must_use]
    pub fn empty() -> Self {
        Self(MultiPolygon::new(Vec::new()))
    }

    /// A rectangle; one of no area gives the empty region.
    #[must_use]
    pub fn rect(rect: Rect) -> Self {
        if rect.width() <= 0.0 || rect.height() <= 0.0 {
            return Self::empty();
        }
        Self(
            geo::Rect::new(Coord { x: rect.x0, y: rect.y0 }, Coord { x: rect.x1, y: rect.y1 })
                .to_polygon()
                .into(),
        )
    }

    /// The area inside the closed subpaths of `path`, each counted once (nothing subtracts).
    #[must_use]
    pub fn inside(path: &BezPath) -> Self {
        super::flattened(path)
            .into_iter()
            .filter(|ring| ring.len() > 2)
            .map(|ring| {
                let ring = ring.into_iter().map(|point| Coord { x: point.x, y: point.y }).collect();
                Self(Polygon::new(LineString::new(ring), Vec::new()).into())
            })
            .fold(Self::empty(), |all, part| all.union(&part))
    }

    /// What lies in either.
    #[must_use]
    pub fn union(&self, other: &Self) -> Self {
        if self.is_empty() {
            return other.clone();
        }
        Self(self.0.union(&other.0))
    }

    /// What lies in both.
    #[must_use]
    pub fn intersection(&self, other: &Self) -> Self {
        Self(self.0.intersection(&other.0))
    }

    /// What lies in this and not in the other.
    #[must_use]
    pub fn minus(&self, other: &Self) -> Self {
        if other.is_empty() {
            return self.clone();
        }
        Self(self.0.difference(&other.0))
    }

    /// Grown by `distance` mm on every side, with sharp corners kept sharp.
    #[must_use]
    pub fn grown(&self, distance: f64) -> Self {
        if distance <= 0.0 || self.is_empty() {
            return self.clone();
        }
        let style = BufferStyle::new(distance).line_join(LineJoin::Miter(0.2));
        Self(self.0.buffer_with_style(style))
    }

    /// Grown by `distance` mm on every side, with outer corners rounded.
    #[must_use]
    pub fn rounded_out(&self, distance: f64) -> Self {
        if distance <= 0.0 || self.is_empty() {
            return self.clone();
        }
        // An arc's chord of this angle strays from it by less than the flattening at any border.
        let style = BufferStyle::new(distance).line_join(LineJoin::Round(0.05));
        Self(self.0.buffer_with_style(style))
    }

    /// Area in mm².
    #[must_use]
    pub fn area(&self) -> f64 {
        self.0.unsigned_area()
    }

    /// True without any part.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.0.0.is_empty()
    }

    /// Number of separate parts.
    #[must_use]
    pub fn parts(&self) -> usize {
        self.0.0.len()
    }

    /// The smallest upright rectangle around it.
    #[must_use]
    pub fn bounds(&self) -> Option<Rect> {
        self.0
            .bounding_rect()
            .map(|rect| Rect::new(rect.min().x, rect.min().y, rect.max().x, rect.max().y))
    }

    /// The outer rings, each a closed polygon without its last point repeated.
    #[must_use]
    pub fn outer_rings(&self) -> Vec<Vec<Point>> {
        self.0.iter().map(|part| ring_points(part.exterior())).collect()
    }

    /// Every ring, outer and holes, as closed subpaths.
    #[must_use]
    pub fn to_path(&self) -> BezPath {
        let mut path = BezPath::new();
        for part in &self.0 {
            for ring in std::iter::once(part.exterior()).chain(part.interiors()) {
                for element in super::polygon(&ring_points(ring)) {
                    path.push(element);
                }
            }
        }
        path
    }

    /// The polygons themselves, for other geometry libraries.
    #[must_use]
    pub const fn polygons(&self) -> &MultiPolygon<f64> {
        &self.0
    }
}

fn ring_points(ring: &LineString<f64>) -> Vec<Point> {
    let mut points: Vec<Point> = ring.coords().map(|c| Point::new(c.x, c.y)).collect();
    if points.len() > 1 && points.first() == points.last() {
        points.pop();
    }
    points
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{FLATTENING, circle};

    #[test]
    fn algebra_keeps_areas() {
        let page = Region::rect(Rect::new(0.0, 0.0, 100.0, 50.0));
        let hole = Region::rect(Rect::new(10.0, 10.0, 20.0, 20.0));
        let window = page.minus(&hole);
        assert!((window.area() - 4900.0).abs() < 1e-6);
        assert!((window.union(&hole).area() - 5000.0).abs() < 1e-6);
        assert!((hole.grown(1.0).area() - 144.0).abs() < 1e-6, "mitred corners stay square");
        assert!(Region::rect(Rect::new(5.0, 5.0, 5.0, 9.0)).is_empty());
    }

    /// πr², from any geometry handbook.
    #[test]
    fn a_flattened_circle_is_within_the_stated_tolerance() {
        let area = Region::inside(&circle(Point::ZERO, 20.0)).area();
        let exact = std::f64::consts::PI * 400.0;
        assert!((area - exact).abs() < std::f64::consts::TAU * 20.0 * FLATTENING, "{area}");
    }
}
