//! What the stages share: exact paths, and polygons flattened from them for the algebra.

mod arc;
mod border;
mod crossing;
mod cubics;
mod distance;
mod faces;
mod few;
mod outline;
mod outline_id;
mod path;
mod polyline;
mod refit;
mod region;

pub use arc::{arc, middle_of, rounded, turn_of};
pub use border::{Join, fine_region, redrawn, redrawn_as};
pub(crate) use crossing::crossings;
pub(crate) use cubics::{Node, append};
pub(crate) use distance::between;
pub use distance::{gap, least_gap};
pub use faces::{Face as DividedFace, Faces, Side, faces};
pub(crate) use few::append_few;
pub use kurbo::{Affine, BezPath, CubicBez, PathEl, PathSeg, Point, Rect, Shape, Vec2};
pub use outline::Outline;
pub use outline_id::OutlineId;
pub use path::{circle, contours, exact_text, flattened, flattened_to, heart, path_text, polygon};
pub(crate) use polyline::{along, nearest};
pub(crate) use refit::Ends;
pub use region::{Region, Ring};

/// How far a flattened curve may lie from the true one, in mm.
pub const FLATTENING: f64 = 0.01;
