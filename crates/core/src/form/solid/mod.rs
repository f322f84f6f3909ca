//! Nets of solids: faces unfolded along a tree, one glue tab for every other edge.

mod net;
pub mod platonic;
pub mod prism;
pub mod pyramid;
mod tabs;

pub(super) use net::{Net, Solid};
pub(super) use tabs::TAB;
