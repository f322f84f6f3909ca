//! The units in which lengths are shown, and how a length is written in each.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::INCH;

/// The unit in which a job shows its lengths, and the one a bare number is taken to be in.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "lowercase")]
pub enum Unit {
    /// Millimetres.
    #[default]
    Mm,
    /// Centimetres.
    Cm,
    /// Inches, written as fractions where the value is one.
    In,
}

/// What an interface needs to know of a unit to draw rulers and to step a field.
#[derive(Debug, Clone, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct UnitInfo {
    /// The unit.
    pub unit: Unit,
    /// Millimetres in one.
    pub millimetres: f64,
    /// Millimetres by which an arrow key changes a field.
    pub step: f64,
    /// Parts into which a ruler divides one unit.
    pub divisions: u32,
    /// Decimals worth showing.
    pub decimals: u32,
}

impl Unit {
    /// Every unit, in the order in which they are offered.
    pub const ALL: [Self; 3] = [Self::Mm, Self::Cm, Self::In];

    /// Millimetres in one of this unit.
    #[must_use]
    pub const fn millimetres(self) -> f64 {
        match self {
            Self::Mm => 1.0,
            Self::Cm => 10.0,
            Self::In => INCH,
        }
    }

    /// How the unit is written behind a figure.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Mm => "mm",
            Self::Cm => "cm",
            Self::In => "in",
        }
    }

    const fn decimals(self) -> u32 {
        match self {
            Self::Mm => 2,
            Self::Cm | Self::In => 3,
        }
    }

    /// What an interface needs to know of this unit.
    #[must_use]
    pub const fn info(self) -> UnitInfo {
        UnitInfo {
            unit: self,
            millimetres: self.millimetres(),
            step: match self {
                Self::Mm | Self::Cm => 1.0,
                Self::In => INCH / 16.0,
            },
            divisions: match self {
                Self::Mm | Self::Cm => 10,
                Self::In => 16,
            },
            decimals: self.decimals(),
        }
    }
}

/// Lengths above this, mm, are not written digit by digit.
const LONGEST_WRITTEN: f64 = 1e9;

/// Writes a length without its unit: trailing zeros dropped, sixteenths of an inch as fractions.
///
/// What is too large to be a length is written with its power of ten, not with all its digits.
///
/// ```
/// use aptum_core::units::{Unit, format_length};
/// assert_eq!(format_length(61.9125, Unit::In), "2 7/16");
/// assert_eq!(format_length(60.40, Unit::Mm), "60.4");
/// assert_eq!(format_length(1e308, Unit::Mm), "1e308");
/// ```
#[must_use]
pub fn format_length(mm: f64, unit: Unit) -> String {
    if unit == Unit::In
        && let Some(fraction) = sixteenths(mm / INCH)
    {
        return fraction;
    }
    if mm.abs() > LONGEST_WRITTEN {
        return format!("{:e}", mm / unit.millimetres());
    }
    let decimals = unit.decimals() as usize;
    let text = format!("{:.decimals$}", mm / unit.millimetres());
    let text = text.trim_end_matches('0').trim_end_matches('.');
    if text == "-0" { "0".to_owned() } else { text.to_owned() }
}

/// Writes a length with its unit, as checks and messages do.
#[must_use]
pub fn measure(mm: f64, unit: Unit) -> String {
    format!("{} {}", format_length(mm, unit), unit.name())
}

/// Writes an area of mm² with its unit: in cm², or in square inches where lengths are in inches; with one
/// decimal below a hundred.
#[must_use]
pub fn measure_area(mm2: f64, unit: Unit) -> String {
    let (area, name) = match unit {
        Unit::In => (mm2 / (INCH * INCH), "in²"),
        Unit::Mm | Unit::Cm => (mm2 / 100.0, "cm²"),
    };
    if area < 100.0 { format!("{area:.1} {name}") } else { format!("{area:.0} {name}") }
}

fn sixteenths(inches: f64) -> Option<String> {
    let sixteenths = inches * 16.0;
    let whole = sixteenths.round();
    // Within a micrometre it is the fraction that was meant.
    if (sixteenths - whole).abs() > 16.0 * 0.001 / INCH || whole.abs() > 1e9 {
        return None;
    }
    #[expect(
        clippy::cast_possible_truncation,
        clippy::cast_sign_loss,
        reason = "bounded and made positive just above"
    )]
    let count = whole.abs() as u64;
    let sign = if whole < 0.0 { "-" } else { "" };
    let (units, rest) = (count / 16, count % 16);
    if rest == 0 {
        return Some(format!("{sign}{units}"));
    }
    let shared = 1 << rest.trailing_zeros();
    let fraction = format!("{}/{}", rest / shared, 16 / shared);
    Some(if units == 0 { format!("{sign}{fraction}") } else { format!("{sign}{units} {fraction}") })
}

/// Sizes as `60 × 30 × 90 mm`.
#[must_use]
pub fn product(sizes: &[f64], unit: Unit) -> String {
    let last = sizes.len().saturating_sub(1);
    let texts: Vec<String> = sizes
        .iter()
        .enumerate()
        .map(|(at, mm)| if at == last { measure(*mm, unit) } else { format_length(*mm, unit) })
        .collect();
    texts.join(" × ")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn inches_are_written_as_the_fractions_on_a_ruler() {
        for (mm, text) in
            [(25.4, "1"), (12.7, "1/2"), (61.9125, "2 7/16"), (-6.35, "-1/4"), (10.0, "0.394")]
        {
            assert_eq!(format_length(mm, Unit::In), text);
        }
        assert_eq!(format_length(-0.001, Unit::Mm), "0");
        assert_eq!(measure(203.2, Unit::In), "8 in");
    }

    #[test]
    fn areas_are_written_in_square_centimetres_or_square_inches() {
        // A4 is a sixteenth of a square metre, letter 8 1/2 by 11 in.
        assert_eq!(measure_area(210.0 * 297.0, Unit::Mm), "624 cm²");
        assert_eq!(measure_area(215.9 * 279.4, Unit::In), "93.5 in²");
        assert_eq!(measure_area(50.0 * 90.0, Unit::Cm), "45.0 cm²");
    }
}
