//! Hang tags: an outline, a hole to tie it by, and what a tag may have besides.

pub mod fold_over;
mod hole;
mod outline;
pub mod plain;

pub(super) use hole::{EDGE, HOLE, Hole, RING, SLOT};
pub(super) use outline::Outline;
