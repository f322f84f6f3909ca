//! What a user does in each view, with the demo's data.

#![allow(clippy::unwrap_used, reason = "a test fails by panicking")]

mod board;
mod cards;
mod drawings;
mod face;
mod form;
mod jobs;
mod merge;
mod rehearsal;
mod run;
mod sheet;
mod tooling;
mod trace;
mod workshop;
