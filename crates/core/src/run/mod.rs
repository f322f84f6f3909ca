//! The real run: what is done step by step at the machines, how far it has come, and what a measured scale tells of a print.

mod correction;
mod more;
mod printing;
mod progress;
mod scale;
mod sent;
mod steps;

pub use correction::{Cause, MeasuredPlace, Told, told};
pub use more::{PieceStands, pieces_stand};
pub use printing::{minutes_text, print_minutes, print_recipe};
pub use progress::{Bad, Counted, Done, NoChange, Progress, RunChange};
pub use scale::{ScaleSays, scale_says};
pub use sent::{AllSent, Sent, SheetsSent, sent};
pub use steps::{Ground, RunStep, StepKind, steps};
