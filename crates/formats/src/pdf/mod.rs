//! PDF at exactly 100 %: pages in mm, shared drawings, and viewers told not to scale.

mod art;
mod canvas;
mod choke;
mod copies;
mod document;
mod hand_cut;
mod images;
mod marks;
mod notes;
mod plates;
mod print;
mod spots;
mod steps;
mod ticket;

pub use art::art_pdf;
pub use hand_cut::hand_cut_pdf;
pub use marks::marks_pdf;
pub use notes::{code_ink, code_words, scale_rule, scale_words};
pub use plates::{plates, plates_pdf};
pub use print::print_pdf;
pub use steps::{StepsWith, steps_pdf};
pub use ticket::{TICKET_PAGE, ticket_pdf};

use canvas::Canvas;
use copies::{Copies, Show};
use document::{Document, Page};
