//! The real run: what is done step by step at the machines, how far it has come, and what a measured scale tells of a print.

mod correction;
mod progress;
mod scale;
mod steps;

pub use correction::{Cause, MeasuredPlace, Told, told};
pub use progress::{Bad, Done, NoChange, Progress, RunChange};
pub use scale::{ScaleSays, scale_says};
pub use steps::{Ground, RunStep, StepKind, steps};
