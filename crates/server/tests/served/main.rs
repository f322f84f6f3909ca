//! The program, as requests and commands see it.

#![allow(clippy::unwrap_used, reason = "a test fails by panicking")]

mod api;
mod bad_input;
mod behind;
mod command_line;
mod copies;
mod described;
mod drawings;
mod faces;
mod full_disk;
mod gate;
mod http;
mod inside;
mod kills;
mod life;
mod logged;
mod pictures;
mod races;
mod rehearsals;
mod sheet;
mod shelf;
mod store;
mod talks;
mod tooling;
mod traces;
mod workshop;
