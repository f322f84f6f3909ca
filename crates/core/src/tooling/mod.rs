//! Tooling: what is cut on a sheet, decided once. Files and views read the plan and decide nothing themselves.

mod checks;
mod holding;
mod ladder;
mod on_bed;
mod operations;
mod order;
mod path;
mod perforated;
mod plan;
mod shared;
mod trailing;
mod trial;
mod weeding;

pub use checks::tool_name;
pub(crate) use checks::{ToolingGround, tooling_checks};
pub use holding::{nick_places, without_nicks};
pub use ladder::{Advice, Outcome, RUNGS, Reach, Tried, Varied, advise};
pub use on_bed::path_checks;
pub use operations::{
    Before, LineClass, Machine, Operation, Setting, operations, recipe_for, tool_for, works,
};
pub use order::{Effort, Group, Strand, Turn, order, order_with, travel};
pub use path::{Bed, Stretch, ToolPath, Worked};
pub use perforated::perforated;
pub use plan::{CutPlan, PlanBlank, PlannedStroke};
pub use trailing::{axis_way, overcut, trailed};
pub use trial::{Trial, free_place, scrap_place, trial, trial_pattern, trial_size};
pub use weeding::{WasteCut, weeding};
