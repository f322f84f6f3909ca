//! Files in and out: the print PDF, the hand-cut PDF, the cut SVG, the flat as DXF and FOLD, the folded
//! piece as a drawing, glTF and OBJ, pictures, lists, and the job archive.
//!
//! Everything is written from what [`aptum_core::prepare`] returns; nothing is computed again here.

pub mod archive;
pub mod art;
pub mod asking;
pub mod content;
pub mod drawing;
pub mod dxf;
pub mod fold;
pub mod folded;
pub mod font;
pub mod gcode;
pub mod gltf;
pub mod hpgl;
pub mod line_style;
pub mod lines;
pub mod list;
mod loading;
pub mod marks;
pub mod obj;
pub mod parts;
pub mod pdf;
pub mod picture;
pub mod rework;
pub mod square_code;
pub mod svg;
pub mod trace;
