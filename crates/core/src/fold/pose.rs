//! Where every plate is at some point of the folding.

use nalgebra::{Isometry3, Point3, Rotation3, Translation3, Unit, UnitQuaternion, Vector3};

use super::model::{FoldModel, FoldPanel};
use crate::form::design::Stand;
use crate::geometry::Point;

/// The places of all plates: each maps a panel's frame, its printed side as third axis, to space.
#[derive(Debug, Clone)]
pub struct Pose(pub Vec<Isometry3<f64>>);

impl Pose {
    /// The model at `progress`: 0 is flat, each step adds 1.
    #[must_use]
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
    pub fn at(model: &FoldModel, progress: f64) -> Self {
        let progress = if progress.is_finite() { progress.clamp(0.0, model.closed()) } else { 0.0 };
        let step = (progress.ceil() as usize).max(1) - 1;
        let share = progress - step as f64;
        let flat = vec![0.0; model.panels.len()];
        let before = step.checked_sub(1).and_then(|index| model.steps.get(index));
        let after = model.steps.get(step);
        let from = before.map_or(&flat, |step| &step.angles);
        let to = after.map_or(&flat, |step| &step.angles);
        let start = before.map_or(&model.laid, |step| &step.roots);
        let end = after.map_or(&model.laid, |step| &step.roots);

        let mut places: Vec<Isometry3<f64>> = Vec::with_capacity(model.panels.len());
        for (index, panel) in model.panels.iter().enumerate() {
            let place = match panel.hang {
                None => between(&start[panel.part], &end[panel.part], share),
                Some((parent, ends)) => {
                    let angle = from[index] + (to[index] - from[index]) * share;
                    places[parent] * hung(panel, ends, angle)
                }
            };
            places.push(place);
        }
        Self(places)
    }

    /// A point of a panel's frame in space.
    #[must_use]
    pub fn point(&self, panel: usize, at: Point) -> Point3<f64> {
        self.0[panel] * Point3::new(at.x, at.y, 0.0)
    }

    /// Where a panel's printed side points.
    #[must_use]
    pub fn normal(&self, panel: usize) -> Vector3<f64> {
        self.0[panel].rotation * Vector3::z()
    }
}

/// From the flat's directions to those of the piece as it stands, `y` up.
#[must_use]
pub(super) fn upright(stand: Stand) -> Rotation3<f64> {
    let turn = match stand {
        Stand::Upright => 0.0f64,
        // What folds away from the printed side stands on it, open side up.
        Stand::OnFirst => 90.0,
        Stand::Lying => -90.0,
    };
    Rotation3::from_axis_angle(&Vector3::x_axis(), turn.to_radians())
}

/// A point of a panel's frame (its third coordinate out of the printed side) as the piece stands, mm.
#[must_use]
pub fn stood(model: &FoldModel, pose: &Pose, panel: usize, at: [f64; 3]) -> [f64; 3] {
    let point = upright(model.stand) * (pose.0[panel] * Point3::from(at));
    [point.x, point.y, point.z]
}

/// A blank on its way: straight ahead, turning evenly. Half a turn goes about the axis that the two
/// ends leave open.
fn between(start: &Isometry3<f64>, end: &Isometry3<f64>, share: f64) -> Isometry3<f64> {
    let rotation = start.rotation.try_slerp(&end.rotation, share, 1e-9).unwrap_or(if share < 0.5 {
        start.rotation
    } else {
        end.rotation
    });
    let shift = start.translation.vector.lerp(&end.translation.vector, share);
    Isometry3::from_parts(Translation3::from(shift), rotation)
}

/// A panel's frame in its parent's, turned by `angle` degrees away from the printed side.
fn hung(panel: &FoldPanel, [from, to]: [Point; 2], angle: f64) -> Isometry3<f64> {
    let along = to - from;
    let heading = UnitQuaternion::from_axis_angle(&Vector3::z_axis(), along.y.atan2(along.x));
    let axis: Unit<Vector3<f64>> = Vector3::x_axis();
    let fold = UnitQuaternion::from_axis_angle(&axis, -angle.to_radians());
    // A panel that does not fold lies beside the other from the start: a join flap behind its mate.
    let share = if panel.fold == 0.0 { 1.0 } else { (angle / panel.fold).clamp(0.0, 1.0) };
    let lift = -panel.lift * share * panel.fold.signum();
    Isometry3::from_parts(Translation3::new(from.x, from.y, lift), heading * fold)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Form;
    use crate::units::Unit as Lengths;

    fn model(id: &str) -> FoldModel {
        let flat = Form::new(id, &[]).draw(0.4, Lengths::Mm).unwrap();
        FoldModel::new(&flat, 0.4).unwrap()
    }

    #[test]
    fn flat_and_folded_lie_where_the_drawing_and_the_lift_say() {
        let model = model("packet");
        let side = model.index("Left flap").unwrap();
        let flat = Pose::at(&model, 0.0);
        // In the flat a panel's corner is where the drawing has it, y up.
        assert!(flat.point(side, Point::ZERO).z.abs() < 1e-12);
        let closed = Pose::at(&model, model.closed());
        let front = model.index("Front").unwrap();
        let behind = |name: &str| {
            let panel = model.index(name).unwrap();
            let middle = closed.point(panel, model.panels[panel].ring[1]);
            (closed.0[front].inverse() * middle).z
        };
        // One, two and three calipers behind the front's printed side.
        for (name, layers) in [("Left flap", 1.0), ("Back", 2.0), ("Closing flap", 3.0)] {
            assert!((behind(name) + layers * 0.4).abs() < 1e-9, "{name}: {}", behind(name));
        }
    }

    #[test]
    fn half_way_through_a_step_is_half_the_angle() {
        let model = model("header-card");
        let back = model.index("Back").unwrap();
        let half = Pose::at(&model, 0.5);
        // Half of half a turn: the back stands square to the front.
        assert!(half.normal(back).z.abs() < 1e-9);
        let front = model.index("Front").unwrap();
        assert!((half.normal(front).z - 1.0).abs() < 1e-12, "the first panel stays");
    }

    #[test]
    fn pieces_stand_as_they_are_used() {
        let heights = |id: &str, panel: &str| {
            let model = model(id);
            let pose = Pose::at(&model, model.closed());
            let index = model.index(panel).unwrap();
            let ring = model.panels[index].ring.clone();
            ring.iter()
                .map(|corner| stood(&model, &pose, index, [corner.x, corner.y, 0.0])[1])
                .fold((f64::MAX, f64::MIN), |(low, high), y| (low.min(y), high.max(y)))
        };
        // A tray's base is below its walls' rims; a carton's top above its base.
        assert!(
            heights("four-corner-tray", "Base").1
                < heights("four-corner-tray", "Left end").1 - 10.0
        );
        assert!(heights("straight-tuck", "Top").0 > heights("straight-tuck", "Base").1 + 50.0);
    }
}
