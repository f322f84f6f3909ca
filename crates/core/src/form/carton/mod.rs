//! Cartons: tubes that are closed at both ends. Each file is one structure; `ends.rs` holds what
//! they close with.

pub mod crash_lock;
mod ends;
pub mod gable;
pub mod petals;
pub mod reverse_tuck;
pub mod seal_end;
pub mod snap_lock;
pub mod straight_tuck;

pub(super) use ends::tuck_in;
