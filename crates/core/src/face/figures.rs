//! Figures that shapes and patterns are drawn from, about the origin, within −½ to ½ both ways.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::geometry::{Affine, BezPath, Point, circle, heart, polygon};

/// A figure.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Outlined {
    /// A rectangle; of a pattern, a check.
    #[default]
    Rectangle,
    /// An ellipse; of a pattern, a dot.
    Ellipse,
    /// A polygon of so many corners, one on top.
    Polygon,
    /// A star of so many points, one on top.
    Star,
    /// A heart.
    Heart,
    /// A leaf, its tip on top.
    Leaf,
    /// A line from left to right; of a pattern, stripes.
    Line,
}

/// How far in a star's inner corners lie, as a share of its points'; that of the five-pointed star whose sides run
/// straight into each other is 0.382 (φ⁻²).
const STAR: f64 = 0.5;

impl Outlined {
    /// Its outline, with so many corners or points where it has them; none of a line.
    #[must_use]
    pub fn unit(self, points: u32) -> BezPath {
        let ring = |radii: &[f64]| -> BezPath {
            let corners = points as usize * radii.len();
            let corner = |at: usize| {
                let angle = std::f64::consts::TAU * at as f64 / corners as f64;
                let radius = radii[at % radii.len()];
                Point::new(radius * angle.sin(), -radius * angle.cos())
            };
            polygon(&(0..corners).map(corner).collect::<Vec<_>>())
        };
        match self {
            Self::Rectangle => polygon(&[
                Point::new(-0.5, -0.5),
                Point::new(0.5, -0.5),
                Point::new(0.5, 0.5),
                Point::new(-0.5, 0.5),
            ]),
            Self::Ellipse => circle(Point::ZERO, 0.5),
            Self::Polygon => ring(&[0.5]),
            Self::Star => ring(&[0.5, 0.5 * STAR]),
            Self::Heart => {
                let heart = heart(1.0, 1.0);
                let bounds = crate::geometry::Shape::bounding_box(&heart);
                let fill = Affine::scale_non_uniform(1.0 / bounds.width(), 1.0 / bounds.height());
                fill * Affine::translate(-bounds.center().to_vec2()) * heart
            }
            Self::Leaf => {
                let mut leaf = BezPath::new();
                leaf.move_to((0.0, -0.5));
                leaf.curve_to((0.5, -0.2), (0.4, 0.3), (0.0, 0.5));
                leaf.curve_to((-0.4, 0.3), (-0.5, -0.2), (0.0, -0.5));
                leaf.close_path();
                leaf
            }
            Self::Line => BezPath::new(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::Shape;

    #[test]
    fn figures_lie_within_their_square() {
        use Outlined::{Ellipse, Heart, Leaf, Polygon, Rectangle, Star};
        for figure in [Rectangle, Ellipse, Polygon, Star, Heart, Leaf] {
            for points in [3, 5, 8] {
                let bounds = figure.unit(points).bounding_box();
                let reach = bounds.x0.min(bounds.y0).abs().max(bounds.x1.max(bounds.y1));
                assert!((0.49..0.501).contains(&reach), "{figure:?} {points}: {bounds:?}");
            }
        }
    }

    /// Euclid, Elements IV: the hexagon in a circle of radius r has the area 3√3/2 · r²; a regular n-gon n/2 · r² ·
    /// sin(2π/n).
    #[test]
    fn polygons_have_the_area_of_the_book() {
        let hexagon = Outlined::Polygon.unit(6).area().abs();
        assert!((hexagon - 3.0 * 3f64.sqrt() / 2.0 * 0.25).abs() < 1e-12);
        let pentagon = Outlined::Polygon.unit(5).area().abs();
        assert!((pentagon - 2.5 * 0.25 * (std::f64::consts::TAU / 5.0).sin()).abs() < 1e-12);
    }
}
