//! Files as they are written and read back.

mod archive;
mod files;
mod pictures;
mod piece;
mod reading;
