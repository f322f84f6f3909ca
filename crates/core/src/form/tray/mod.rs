//! Trays and lids: a base with walls folded up round it. Each file is one structure; `walls.rs` holds
//! the glued tray that several are made of.

pub mod four_corner;
pub mod lid_and_base;
pub mod mailer;
pub mod tapered;
pub(super) mod walls;
