//! Lines that are added by figures.

use kurbo::{Arc, BezPath, Ellipse, Rect, Shape, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::said::Refusal;
use super::{length, place};

/// A line that is added by figures.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "figure")]
pub enum AddedLine {
    /// From place to place.
    Line {
        /// Where it begins.
        from: [f64; 2],
        /// Where it ends.
        to: [f64; 2],
    },
    /// From its top left corner, width and height.
    Rectangle {
        /// Where it lies.
        at: [f64; 2],
        /// Width and height.
        size: [f64; 2],
    },
    /// About its middle, width and height.
    Ellipse {
        /// Where it lies.
        at: [f64; 2],
        /// Width and height.
        size: [f64; 2],
    },
    /// About its middle, from an angle through an angle, degrees with the clock from the right.
    Arc {
        /// Where it lies.
        at: [f64; 2],
        /// How large the arc is.
        radius: f64,
        /// Where it begins, degrees.
        from: f64,
        /// How far it goes, degrees.
        through: f64,
    },
}

impl AddedLine {
    pub(super) const fn name(&self) -> &'static str {
        match self {
            Self::Line { .. } => "line",
            Self::Rectangle { .. } => "rectangle",
            Self::Ellipse { .. } => "ellipse",
            Self::Arc { .. } => "arc",
        }
    }

    pub(super) fn path(&self) -> Result<BezPath, Refusal> {
        let closed = |mut path: BezPath| {
            if path.elements().last() != Some(&kurbo::PathEl::ClosePath) {
                path.close_path();
            }
            path
        };
        Ok(match self {
            Self::Line { from, to } => {
                let (from, to) = (place(*from)?, place(*to)?);
                length(from.distance(to))?;
                let mut path = BezPath::new();
                path.move_to(from);
                path.line_to(to);
                path
            }
            Self::Rectangle { at, size } => {
                let size = (length(size[0])?, length(size[1])?);
                closed(Rect::from_origin_size(place(*at)?, size).to_path(0.1))
            }
            Self::Ellipse { at, size } => {
                let radii = Vec2::new(length(size[0])?, length(size[1])?) / 2.0;
                let fine = radii.x.max(radii.y) * 1e-5;
                closed(Ellipse::new(place(*at)?, radii, 0.0).to_path(fine))
            }
            Self::Arc { at, radius, from, through } => {
                let radius = length(*radius)?;
                let is_turn = |degrees: &f64| degrees.abs() <= 360.0;
                if !is_turn(from) || !is_turn(through) || through.abs() < 0.01 {
                    return Err("an arc goes through 0.01 to 360 degrees".into());
                }
                let arc = Arc::new(
                    place(*at)?,
                    (radius, radius),
                    from.to_radians(),
                    through.to_radians(),
                    0.0,
                );
                let path = arc.to_path(radius * 1e-5);
                if through.abs() > 359.99 { closed(path) } else { path }
            }
        })
    }
}
