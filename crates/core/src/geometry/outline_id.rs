//! Which outline it is.

use kurbo::{BezPath, PathEl};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
#[cfg(feature = "api")]
use ts_rs::TS;

/// Which outline it is: 16 digits of base 16, the same for what is the same to a ten-thousandth of a millimetre.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(transparent)]
pub struct OutlineId(pub String);

impl OutlineId {
    /// The id of an outline.
    #[must_use]
    pub fn of(outline: &BezPath) -> Self {
        let mut hash = Sha256::new();
        for element in outline.elements() {
            let (letter, points) = match *element {
                PathEl::MoveTo(a) => (b'M', vec![a]),
                PathEl::LineTo(a) => (b'L', vec![a]),
                PathEl::QuadTo(a, b) => (b'Q', vec![a, b]),
                PathEl::CurveTo(a, b, c) => (b'C', vec![a, b, c]),
                PathEl::ClosePath => (b'Z', Vec::new()),
            };
            hash.update([letter]);
            for number in points.into_iter().flat_map(|point| [point.x, point.y]) {
                // Adding nothing makes one of the two zeros.
                hash.update(((number * 1e4).round() + 0.0).to_le_bytes());
            }
        }
        Self(hex::encode(&hash.finalize()[..8]))
    }
}

#[cfg(test)]
mod tests {
    use super::OutlineId;
    use crate::geometry::circle;
    use kurbo::Point;

    #[test]
    fn it_follows_the_outline_and_not_its_noise() {
        let id = |radius: f64| OutlineId::of(&circle(Point::ZERO, radius));
        assert_eq!(id(10.0), id(10.0 + 1e-9));
        assert_ne!(id(10.0), id(10.001));
        assert_eq!(id(10.0).0.len(), 16);
    }
}
