//! Sheet: copies of a piece on stock, inside what the printer prints, what the cutter reaches and
//! what the marks leave free.

mod checks;
mod code;
mod layout;
mod margin_notes;
mod marks;
mod misfit;
mod plan;
mod sets;
mod ways;
mod window;

pub(crate) use checks::{Laid, sheet_checks};
pub use code::sheet_code;
pub use layout::{Layout, Piece, Placement, SheetRun, fits_somewhere, rows_and_columns};
pub use margin_notes::{FreeRoom, Notes, place_notes};
pub use marks::{Marks, PlacedMark, Sign, place_marks};
pub use misfit::{Misfit, misfit};
pub(crate) use plan::unknown;
pub use plan::{Orientation, SheetPlan, SheetSize, Turning, standard_sizes};
pub use sets::{SetPiece, lay_sets};
pub(crate) use ways::ways_to_fit;
pub use window::{Machines, Taken, TakenBy, Window, Windows};
