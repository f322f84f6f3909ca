//! The shapes of add-ons, around a middle at the origin.

use std::f64::consts::PI;

use kurbo::{BezPath, Ellipse, Point, Rect, RoundedRect, Shape};

use super::{AddOn, AddOnKind};
use crate::geometry::heart;

impl AddOn {
    /// Its path around a middle at the origin.
    pub(super) fn path(&self) -> BezPath {
        let (w, h) = (self.width, self.height);
        let middle = |w: f64, h: f64| Rect::from_center_size(Point::ZERO, (w, h));
        match self.kind {
            AddOnKind::WindowRectangle | AddOnKind::Slot => middle(w, h).to_path(0.1),
            AddOnKind::WindowRound | AddOnKind::HangHole => {
                crate::geometry::circle(Point::ZERO, w / 2.0)
            }
            AddOnKind::WindowOval => {
                {
                    // kurbo leaves an ellipse's path open where it began.
                    let mut path = Ellipse::new(Point::ZERO, (w / 2.0, h / 2.0), 0.0).to_path(1e-4);
                    path.close_path();
                    path
                }
            }
            AddOnKind::WindowArch => arch(w, h),
            AddOnKind::WindowHeart => heart(w, h),
            AddOnKind::HandHole => {
                RoundedRect::from_rect(middle(w, h), w.min(h) / 2.0).to_path(1e-4)
            }
            AddOnKind::SlitLock => line(&[(-w / 2.0, 0.0), (w / 2.0, 0.0)]),
            AddOnKind::Tongue => {
                let radius = (w / 3.0).min(h / 2.0);
                let k = radius * 4.0 / 3.0 * (PI / 8.0).tan();
                let (x, y) = (w / 2.0, h / 2.0);
                let mut path = BezPath::new();
                path.move_to((-x, -y));
                path.line_to((-x, y - radius));
                path.curve_to((-x, y - radius + k), (-x + radius - k, y), (-x + radius, y));
                path.line_to((x - radius, y));
                path.curve_to((x - radius + k, y), (x, y - radius + k), (x, y - radius));
                path.line_to((x, -y));
                path
            }
            AddOnKind::ThumbNotch
            | AddOnKind::TearStrip
            | AddOnKind::Words
            | AddOnKind::Drawing => BezPath::new(),
        }
    }
}

fn arch(w: f64, h: f64) -> BezPath {
    let radius = (w / 2.0).min(h);
    let k = 4.0 / 3.0 * (PI / 8.0).tan();
    let (x, y) = (w / 2.0, h / 2.0);
    let spring = -y + radius;
    let mut path = BezPath::new();
    path.move_to((-x, y));
    path.line_to((-x, spring));
    path.curve_to((-x, spring - k * radius), (-k * x, -y), (0.0, -y));
    path.curve_to((k * x, -y), (x, spring - k * radius), (x, spring));
    path.line_to((x, y));
    path.close_path();
    path
}

fn line(points: &[(f64, f64)]) -> BezPath {
    let mut path = BezPath::new();
    for (index, point) in points.iter().enumerate() {
        if index == 0 {
            path.move_to(*point);
        } else {
            path.line_to(*point);
        }
    }
    path
}
