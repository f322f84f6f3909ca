//! Fold: from the flat to the finished piece, and the proof that it closes.
//!
//! Panels are flat plates whose middles turn about the creases; the structures' allowances for the
//! caliper put their planes where layers of card lie on each other. In three dimensions `x` points
//! right and `y` up in the flat, and `z` out of its printed side.

mod checks;
mod contact;
mod drawing;
mod joints;
mod mesh;
mod model;
mod pose;
mod proof;

pub use checks::fold_checks;
pub use drawing::{FoldedDrawing, FoldedFace, draw_folded};
pub use joints::meeting;
pub use mesh::{Mesh, panel_mesh};
pub use model::{FoldModel, FoldPanel, FoldStep};
pub use pose::{Pose, stood};
pub use proof::{Measured, Proof, prove};

/// A place in space: a turn and a shift.
pub type Place = nalgebra::Isometry3<f64>;
