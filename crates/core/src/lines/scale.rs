//! How long a unit of a drawing is.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

/// Units to the inch at which drawings without units are made, the most frequent first: of the web, of print, of older
/// vector programs, of pictures (common practice).
pub const PER_INCH: [f64; 4] = [96.0, 72.0, 90.0, 300.0];

/// How a drawing's units are read.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(tag = "by", rename_all = "kebab-case")]
pub enum Scale {
    /// As the file says.
    Stated,
    /// So many to the inch, 1 to 100,000.
    PerInch {
        /// How many.
        count: f64,
    },
    /// Each is so many mm, 0.000001 to 1,000,000.
    Each {
        /// How many.
        mm: f64,
    },
    /// By a known dimension: so many units are so many mm.
    Known {
        /// How long it is in the file, above 0.
        units: f64,
        /// How long it really is, mm; 0.01 to 10,000.
        mm: f64,
    },
}

impl Scale {
    /// How long a unit is, mm; `None` where the file was to say so and does not, or a figure is out of range.
    #[must_use]
    pub fn unit(self, stated: Option<f64>) -> Option<f64> {
        let unit = match self {
            Self::Stated => stated?,
            Self::PerInch { count } => {
                25.4 / Some(count).filter(|own| (1.0..=1e5).contains(own))?
            }
            Self::Each { mm } => mm,
            Self::Known { units, mm } => {
                let mm = Some(mm).filter(|mm| (0.01..=1e4).contains(mm))?;
                mm / Some(units).filter(|units| *units > 0.0 && units.is_finite())?
            }
        };
        Some(unit).filter(|unit| (1e-6..=1e6).contains(unit))
    }
}

#[cfg(test)]
mod tests {
    use super::Scale;

    /// Letter drawn at so many to the inch and read at another: FACTS of the trade, derived.
    #[test]
    fn a_drawing_read_at_another_number_to_the_inch_is_so_many_times_too_large() {
        let wide = |drawn: f64, read: f64| {
            8.5 * drawn * Scale::PerInch { count: read }.unit(None).unwrap()
        };
        assert!((wide(300.0, 72.0) - 8.5 * 25.4 * 4.166_666_7).abs() < 1e-4);
        assert!((wide(96.0, 72.0) / wide(96.0, 96.0) - 4.0 / 3.0).abs() < 1e-12);
        assert!((wide(90.0, 96.0) / wide(96.0, 96.0) - 0.9375).abs() < 1e-12);
    }

    #[test]
    fn what_is_out_of_range_is_no_scale() {
        assert_eq!(Scale::Stated.unit(None), None);
        assert_eq!(Scale::Stated.unit(Some(25.4)), Some(25.4));
        assert_eq!(Scale::Known { units: 0.0, mm: 10.0 }.unit(None), None);
        assert_eq!(Scale::Known { units: 200.0, mm: 50.0 }.unit(None), Some(0.25));
        for count in [0.0, -1.0, f64::NAN, 1e9] {
            assert_eq!(Scale::PerInch { count }.unit(None), None);
        }
    }
}
