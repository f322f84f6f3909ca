//! Flat packets, and what stands or hangs.

pub mod envelope;
pub mod header_card;
pub mod pyramid_tie;
pub mod tent_card;
