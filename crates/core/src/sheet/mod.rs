//! Sheet: copies of a piece on stock, inside what the printer prints, what the cutter reaches and
//! what the marks leave free.

mod checks;
mod code;
mod compare;
mod ground;
mod lay;
mod layout;
mod margin_notes;
mod marks;
mod misfit;
pub mod nest;
mod order;
mod piece;
pub(crate) mod record_drawing;
mod returned;
mod rows;
mod sets;
mod standing;
mod ways;
mod window;

pub(crate) use crate::job::number_copies;
pub use crate::job::{
    Amount, Kept, LaidBlank, MOST_PLACED, Made, Orientation, Placement, Search, SheetPlan,
    SheetRun, Turning, rotation,
};
pub use crate::workshop::{SheetSize, standard_sizes};
pub(crate) use checks::{mark_checks, sheet_checks};
pub(crate) use code::{NO_CODE, SheetCode};
pub use compare::{MarkChoice, best_marks, compare_marks};
pub(crate) use ground::{Drawn, Ground, OnGround, draw, grain_runs_down};
pub(crate) use lay::{Named, in_rows, laid_of, lay};
pub use layout::Layout;
pub use margin_notes::{
    FreeRoom, LEGEND_ROW, LINE, MODULE, Notes, NotesForm, SQUARE, least_notes, legend_size,
    place_notes,
};
pub use marks::{Marks, PlacedMark, Sign, place_marks};
pub use misfit::{Misfit, misfit};
pub(crate) use order::order;
pub use order::{CardOrder, Order};
pub use piece::{Piece, Turned};
pub use record_drawing::{DrawnAs, DrawnPart, RecordDrawing, draw_record};
pub use returned::{ACCEPTED, Likeness, NotFound, Returned, find_marks, unit_mistake};
pub use rows::{angle_that_fits, fits_somewhere, rows_and_columns};
pub use sets::{SetPiece, lay_sets};
pub(crate) use standing::{MOST_PAIRS, standing};
pub use ways::{Way, WayKind, all_ways, misfits, ruled_out};
pub(crate) use ways::{on_sheet, ways_round, ways_to_fit};
pub use window::{Machines, Taken, TakenBy, Window, Windows};
