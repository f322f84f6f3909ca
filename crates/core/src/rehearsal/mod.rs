//! The way between print and cut: how a sheet comes to lie otherwise than it was meant, what marks tell of that, and what
//! is said of a cut afterwards.

mod day;
mod fit;
mod misfeed;
mod odds;
mod verdict;

pub use day::{Day, Loading, Printing, normal};
pub use fit::{Fit, LeastMarks, fit};
pub use misfeed::{Misfeed, Stretch};
pub use odds::{Chance, Odds, OddsAsk, Tries, odds};
pub use verdict::{CutLine, PieceVerdict, Sample, Verdict, Worn, verdict};
