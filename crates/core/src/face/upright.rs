//! Which way is up on each panel for whoever reads the closed piece as it stands.

use nalgebra::Vector3;

use crate::fold::{FoldModel, Pose, stood};
use crate::form::design::Stand;
use crate::geometry::Vec2;

/// The turn of every panel: degrees clockwise, in the flat, from the flat's up to the reader's.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Uprights(Vec<(String, f64)>);

/// A panel within so much of level (as a share of one) is read from above or below.
const LEVEL: f64 = 0.3;

/// Turns this near to a quarter, degrees, are quarters.
const QUARTER: f64 = 0.5;

impl Uprights {
    /// Read off the closed piece. A standing panel's up is the piece's. Of what lies on top the far side is up for a
    /// reader in front; of what lies below, tipped towards the reader, the near one. In front is where the first panel
    /// faces, or, of a piece that stands on it, where its lower side in the flat is. Pieces that lie, and those that
    /// do not fold, are read as they are drawn.
    #[must_use]
    pub fn of_model(model: Option<&FoldModel>) -> Self {
        let Some(model) = model.filter(|model| model.stand != Stand::Lying && !model.is_flat())
        else {
            return Self::default();
        };
        let pose = Pose::at(model, model.closed());
        let axes = |at: usize| {
            let back = model.panels[at].frame.inverse();
            let along = |way: Vec2| -> Vector3<f64> {
                let [a, b, c, d, ..] = back.as_coeffs();
                let local = [a * way.x + c * way.y, b * way.x + d * way.y, 0.0];
                let from: Vector3<f64> = stood(model, &pose, at, [0.0; 3]).into();
                Vector3::from(stood(model, &pose, at, local)) - from
            };
            let out: Vector3<f64> = Vector3::from(stood(model, &pose, at, [0.0, 0.0, 1.0]))
                - Vector3::from(stood(model, &pose, at, [0.0; 3]));
            (along(Vec2::new(1.0, 0.0)), along(Vec2::new(0.0, 1.0)), out)
        };
        let level = |way: &Vector3<f64>| Vector3::new(way.x, 0.0, way.z);
        let front = model.panels.first().map_or_else(Vector3::z, |_| {
            let (_, down, out) = axes(0);
            let front = if out.y.abs() < 1.0 - LEVEL { level(&out) } else { level(&down) };
            front.try_normalize(1e-9).unwrap_or_else(Vector3::z)
        });
        let one = |at: usize| {
            let (right, down, out) = axes(at);
            let up = if out.y > 1.0 - LEVEL {
                -front
            } else if out.y < LEVEL - 1.0 {
                front
            } else {
                Vector3::y()
            };
            let turn = right.dot(&up).atan2(-down.dot(&up)).to_degrees();
            let quarter = (turn / 90.0).round() * 90.0;
            let turn = if (turn - quarter).abs() < QUARTER { quarter } else { turn };
            (model.panels[at].name.clone(), turn.rem_euclid(360.0))
        };
        Self((0..model.panels.len()).map(one).collect())
    }

    /// The same for whoever looks at the flat from behind.
    #[must_use]
    pub fn mirrored(&self) -> Self {
        let turned = |(name, turn): &(String, f64)| (name.clone(), (-turn).rem_euclid(360.0));
        Self(self.0.iter().map(turned).collect())
    }

    /// The turn of a panel.
    #[must_use]
    pub fn of(&self, panel: &str) -> f64 {
        self.0.iter().find(|(name, _)| name == panel).map_or(0.0, |(_, turn)| *turn)
    }
}
