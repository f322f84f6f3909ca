//! The rules of the job: from a job's figures and the workshop's records to dielines, sheets and
//! checks. No files, no network, no database, no clock and no interface live here.
//!
//! Lengths are `f64` millimetres, `y` points down, and a sheet's origin is its top left corner.
//! The stages follow each other: [`form`] draws the flat and [`fold`] closes it, [`face`] prints on it, [`sheet`] lays
//! copies into the working window, and [`prepare`] runs them all and gathers the [`check`]s.

pub mod arrange;
mod blank;
pub mod blob;
pub mod check;
pub mod error;
pub mod face;
pub mod faced;
pub mod fold;
pub mod form;
pub mod form_checks;
pub mod formed;
pub mod gathering;
pub mod geometry;
pub mod id;
pub mod job;
pub mod laid;
pub mod lettering;
pub mod line;
pub mod lines;
pub mod logbook;
pub mod memory;
pub mod nesting;
pub mod order_change;
pub mod piece_checks;
pub mod pixels;
pub mod prepare;
pub mod records;
pub mod rehearsal;
pub mod returned;
pub mod run;
pub mod sheet;
pub mod stroke;
pub mod tooling;
pub mod trace;
pub mod units;
pub mod workshop;

pub use check::{Check, State};
pub use error::InputError;
pub use job::Job;
pub use line::LineKind;
pub use nesting::{NestedJob, nest_job};
pub use prepare::{Prepared, PreparedBlank, PreparedPiece, prepare, prepare_with};
pub use workshop::Workshop;
