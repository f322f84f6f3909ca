//! Lines that are mended by hand: steps that stay a list, each of which can be taken back. Places and lengths are in
//! units of the file. Lines keep their numbers: one that is deleted is empty, and what is new comes after all others.

mod added;
mod areas;
mod chain;
mod nodes;
mod picked;
mod said;
mod step;
mod taking;
mod trim;

use kurbo::Point;

pub use added::AddedLine;
pub use chain::Chain;
pub use picked::Picked;
use said::Refusal;
pub use step::LineMend;

/// Most steps of one drawing.
pub const MOST_MENDS: usize = 1000;

/// Most lines that one step names.
const MOST_NAMED: usize = 2000;

/// How far out a place may lie, in units of the file.
const FARTHEST: f64 = 1e8;

/// What a step came to.
#[derive(Debug, Clone, PartialEq)]
pub struct MendSaid {
    /// What was done, or why it could not be; `{}` stands for the length.
    pub words: String,
    /// A length that this is about, in units of the file.
    pub length: Option<f64>,
    /// True where it could be done.
    pub is_done: bool,
}

fn place(at: [f64; 2]) -> Result<Point, Refusal> {
    if at.iter().all(|own| own.abs() <= FARTHEST) {
        Ok(Point::new(at[0], at[1]))
    } else {
        Err("that place is nowhere near the drawing".into())
    }
}

fn length(own: f64) -> Result<f64, Refusal> {
    if own > 1e-9 && own <= FARTHEST { Ok(own) } else { Err("a length is above 0".into()) }
}

fn named(lines: &[usize]) -> Result<&[usize], Refusal> {
    if lines.is_empty() || lines.len() > MOST_NAMED {
        return Err(format!("{} are named: 1 to {MOST_NAMED}", counted(lines.len())).into());
    }
    Ok(lines)
}

fn counted(lines: usize) -> String {
    if lines == 1 { "1 line".to_owned() } else { format!("{lines} lines") }
}
