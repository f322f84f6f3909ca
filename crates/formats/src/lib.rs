//! Files in and out: the print PDF, the hand-cut PDF, the cut SVG and the job archive.
//!
//! Everything is written from what [`aptum_core::prepare`] returns; nothing is computed again here.

pub mod archive;
pub mod lettering;
pub mod line_style;
pub mod pdf;
pub mod svg;
