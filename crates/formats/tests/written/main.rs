//! Files as they are written and read back.

#![allow(clippy::unwrap_used, reason = "a test fails by panicking")]

mod archive;
mod broken;
mod clean;
mod drawings;
mod files;
mod folded;
mod hpgl;
mod pictures;
mod piece;
mod reading;
mod rows;
mod seen;
mod steps;
mod ticket;
mod traced;
mod whites;
