//! Lengths, card thickness and paper weight as people write them.

mod grammage;
mod length;
mod tokens;
mod unit;

pub use grammage::{BasisSheet, GrammageError, grammage_from_basis_weight, parse_grammage};
pub use length::{LengthError, parse_caliper, parse_length};
pub use unit::{Unit, UnitInfo, format_length, measure, measure_area, product};

/// Millimetres in an inch, exact by definition (international yard and pound agreement, 1959).
pub const INCH: f64 = 25.4;

/// Millimetres in a caliper point: a thousandth of an inch.
pub const CALIPER_POINT: f64 = INCH / 1000.0;
