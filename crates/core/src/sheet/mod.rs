//! Sheet: copies of a piece on stock, inside what the printer prints, what the cutter reaches and
//! what the marks leave free.

mod checks;
mod code;
mod compare;
mod lay;
mod layout;
mod margin_notes;
mod marks;
mod misfit;
pub mod nest;
mod order;
mod order_change;
mod piece;
pub(crate) mod placement;
mod plan;
mod record_drawing;
mod rows;
mod sets;
mod standing;
mod ways;
mod window;

pub(crate) use checks::{mark_checks, sheet_checks};
pub(crate) use code::{NO_CODE, SheetCode};
pub use compare::{MarkChoice, best_marks, compare_marks};
pub(crate) use lay::{Named, in_rows, laid_of, lay};
pub(crate) use layout::number_copies;
pub use layout::{LaidBlank, Layout, SheetRun};
pub use margin_notes::{
    FreeRoom, LEGEND_ROW, LINE, Notes, NotesForm, least_notes, legend_size, place_notes,
};
pub use marks::{Marks, PlacedMark, Sign, place_marks};
pub use misfit::{Misfit, misfit};
pub(crate) use order::order;
pub use order::{CardOrder, Order};
pub use order_change::{OrderChange, order_changes};
pub use piece::{Piece, Turned};
pub use placement::{Placement, rotation};
pub(crate) use plan::unknown;
pub use plan::{
    Amount, Kept, MOST_PLACED, Made, Orientation, Search, SheetPlan, SheetSize, Turning,
    standard_sizes,
};
pub use record_drawing::{DrawnAs, DrawnPart, RecordDrawing, draw_record};
pub use rows::{angle_that_fits, fits_somewhere, rows_and_columns};
pub use sets::{SetPiece, lay_sets};
pub(crate) use standing::{MOST_PAIRS, standing};
pub(crate) use ways::ways_to_fit;
pub use ways::{Way, WayKind, all_ways, misfits, ruled_out};
pub use window::{Machines, Taken, TakenBy, Window, Windows};
