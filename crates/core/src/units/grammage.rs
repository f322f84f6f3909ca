//! Grammage (g/m²) from the basis weight by which North American mills sell paper.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use thiserror::Error;
#[cfg(feature = "api")]
use ts_rs::TS;

use super::INCH;

/// Grams in a pound, exact by definition.
const POUND: f64 = 453.592_37;

/// A basis weight is the weight in pounds of a ream of this many sheets.
const REAM: f64 = 500.0;

/// The sheet in which a grade of paper is weighed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum BasisSheet {
    /// Cover stock, 20 × 26 in.
    Cover,
    /// Index stock, 25.5 × 30.5 in.
    Index,
    /// Bristol, 22.5 × 28.5 in.
    Bristol,
    /// Text and book paper, 25 × 38 in.
    Text,
    /// Bond and writing paper, 17 × 22 in.
    Bond,
    /// Tag stock, 24 × 36 in.
    Tag,
}

impl BasisSheet {
    /// Width and height of the basis sheet in inches.
    #[must_use]
    pub const fn inches(self) -> (f64, f64) {
        match self {
            Self::Cover => (20.0, 26.0),
            Self::Index => (25.5, 30.5),
            Self::Bristol => (22.5, 28.5),
            Self::Text => (25.0, 38.0),
            Self::Bond => (17.0, 22.0),
            Self::Tag => (24.0, 36.0),
        }
    }
}

/// Grammage in g/m² of a basis weight in pounds: the ream's mass over the ream's area.
///
/// ```
/// use aptum_core::units::{BasisSheet, grammage_from_basis_weight};
/// let cover = grammage_from_basis_weight(80.0, BasisSheet::Cover);
/// assert!((cover - 216.33).abs() < 0.01);
/// ```
#[must_use]
pub fn grammage_from_basis_weight(pounds: f64, sheet: BasisSheet) -> f64 {
    let (width, height) = sheet.inches();
    let area = width * INCH / 1000.0 * height * INCH / 1000.0;
    pounds * POUND / (REAM * area)
}

/// Why a grammage cannot be read.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("“{0}” is no grammage: type one such as 300, 300 g/m² or 80 lb cover")]
pub struct GrammageError(String);

/// Reads a grammage as people type it: `300`, `300 gsm`, `80 lb cover`. A weight in pounds names its basis sheet:
/// cover, index, bristol, text, bond or tag.
///
/// # Errors
/// [`GrammageError`] for anything else.
pub fn parse_grammage(text: &str) -> Result<f64, GrammageError> {
    let wrong = || GrammageError(text.chars().take(40).collect());
    let clean = text.trim().to_lowercase().replace(',', ".");
    let end = clean.find(|c: char| !c.is_ascii_digit() && c != '.').unwrap_or(clean.len());
    let (digits, rest) = clean.split_at(end);
    let value: f64 = digits.parse().map_err(|_| wrong())?;
    if digits.len() > 12 {
        return Err(wrong());
    }
    let rest = rest.trim();
    if ["", "g", "gsm", "g/m2", "g/m²"].contains(&rest) {
        return Ok(value);
    }
    let pounds = ["lbs", "lb", "#"].iter().find_map(|unit| rest.strip_prefix(unit));
    let sheet = match pounds.ok_or_else(wrong)?.trim() {
        "cover" => BasisSheet::Cover,
        "index" => BasisSheet::Index,
        "bristol" => BasisSheet::Bristol,
        "text" | "book" => BasisSheet::Text,
        "bond" | "writing" => BasisSheet::Bond,
        "tag" => BasisSheet::Tag,
        _ => return Err(wrong()),
    };
    Ok(grammage_from_basis_weight(value, sheet))
}

#[cfg(test)]
mod tests {
    use super::{BasisSheet, grammage_from_basis_weight, parse_grammage};

    #[test]
    fn grammages_are_read_as_people_type_them() {
        for (text, value) in [
            ("300", 300.0),
            (" 300 g/m² ", 300.0),
            ("120,5gsm", 120.5),
            ("80 lb cover", 216.33),
            ("110# Index", 198.88),
        ] {
            let read = parse_grammage(text).unwrap();
            assert!((read - value).abs() < 0.01, "{text}: {read}");
        }
        for text in ["", "heavy", "80 lb", "80 lb carpet", "-3", "1e9", "300 g/m2 x"] {
            let error = parse_grammage(text).unwrap_err().to_string();
            assert!(error.contains("80 lb cover"), "{error}");
        }
    }

    /// Derived from the published basis sheets (cover 20 × 26 in and so on).
    #[test]
    fn basis_weights_give_the_published_grammages() {
        for (pounds, sheet, grammage) in [
            (65.0, BasisSheet::Cover, 175.77),
            (80.0, BasisSheet::Cover, 216.33),
            (100.0, BasisSheet::Cover, 270.41),
            (110.0, BasisSheet::Cover, 297.45),
            (90.0, BasisSheet::Index, 162.72),
            (110.0, BasisSheet::Index, 198.88),
            (67.0, BasisSheet::Bristol, 146.92),
            (100.0, BasisSheet::Bristol, 219.28),
            (20.0, BasisSheet::Bond, 75.19),
            (125.0, BasisSheet::Tag, 203.43),
        ] {
            let got = grammage_from_basis_weight(pounds, sheet);
            assert!((got - grammage).abs() < 0.01, "{pounds} lb {sheet:?}: {got}");
        }
    }
}
