//! Cartons: folded from one wrap of panels, closed at both ends.

mod flaps;
mod straight_tuck;

pub use straight_tuck::StraightTuck;
