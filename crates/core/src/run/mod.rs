//! The real run: what is done step by step at the machines, how far it has come, and what a measured scale tells of a print.

mod correction;
mod more;
mod printing;
mod progress;
mod scale;
mod steps;

pub use correction::{Cause, MeasuredPlace, Told, told};
pub use more::{PieceStands, pieces_stand};
pub use printing::{minutes_text, print_minutes, print_recipe};
pub use progress::{Bad, Counted, Done, NoChange, Progress, RunChange, Sent, SheetSent, sent};
pub use scale::{ScaleSays, scale_says};
pub use steps::{Ground, RunStep, StepKind, steps};
