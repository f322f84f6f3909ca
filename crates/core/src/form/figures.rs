//! The values that a structure is drawn from.

use std::collections::BTreeMap;
use std::ops::Index;

/// The values that a structure is drawn from: mm, degrees and counts, sizes as inside ones.
#[derive(Debug, Clone)]
pub struct Figures {
    /// The caliper, mm.
    pub t: f64,
    pub(super) values: BTreeMap<&'static str, f64>,
}

impl Index<&str> for Figures {
    type Output = f64;

    /// A key that the structure does not list is not a number, and everything made from it shows.
    fn index(&self, key: &str) -> &f64 {
        self.values.get(key).unwrap_or(&f64::NAN)
    }
}

impl Figures {
    /// Figures for drawing one structure as a part of another.
    #[must_use]
    pub fn of(t: f64, values: &[(&'static str, f64)]) -> Self {
        Self { t, values: values.iter().copied().collect() }
    }

    /// A whole number as an index.
    #[must_use]
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
    pub fn count(&self, key: &str) -> usize {
        self[key].round().clamp(0.0, 10_000.0) as usize
    }
}
