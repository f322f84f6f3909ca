//! Bookmarks: for a page, over an edge, on a corner.

pub mod corner_pocket;
pub mod fold_over;
pub mod page_clip;
pub mod plain;

use super::param::{Bounds, Param};

/// Across a bookmark.
pub(super) const WIDTH: Param =
    Param::size("width", ["Width", "Across the bookmark."], [0.0, 0.0], |_| 50.0)
        .within(|_| Bounds::new(15.0, 300.0));
/// From end to end.
pub(super) const HEIGHT: Param =
    Param::size("height", ["Height", "From end to end."], [0.0, 0.0], |_| 150.0)
        .within(|_| Bounds::new(30.0, 600.0));
