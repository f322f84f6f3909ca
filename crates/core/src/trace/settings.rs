//! What a trace is told.

use std::ops::RangeInclusive;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::{Faults, InputError, Remedy, Setting};
use crate::units::{Unit, measure};

/// What makes a pixel count as inside.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "by")]
pub enum InsideBy {
    /// That it is not clear.
    #[default]
    Transparency,
    /// That it is dark.
    Darkness,
    /// That it differs from the background.
    Background {
        /// What the background is like, as `#rrggbb`; `None` is found at the picture's edges.
        #[serde(default)]
        colour: Option<String>,
    },
    /// That it is like a colour.
    Colour {
        /// The colour, as `#rrggbb`.
        colour: String,
    },
}

/// How a picture is traced.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Trace {
    /// What counts as inside.
    #[serde(flatten)]
    #[cfg_attr(feature = "api", ts(flatten))]
    pub by: InsideBy,
    /// From which share of the way on, 0.002 to 0.998; `None` is found.
    #[serde(default)]
    pub threshold: Option<f64>,
    /// How far the line may stray from the picture's edge, mm, 0.005 to 5; `None` is about a third of a pixel.
    #[serde(default)]
    pub detail: Option<f64>,
    /// Gaps up to this width are closed, mm, 0 to 20.
    #[serde(default, deserialize_with = "gap_or_standard")]
    pub gap: f64,
    /// Spots and holes of less are left out, mm², 0 to 10,000.
    #[serde(default = "least", deserialize_with = "least_or_standard")]
    pub least: f64,
    /// True to follow the holes too.
    #[serde(default)]
    pub holes: bool,
    /// The part of the picture that is looked at: left, top, right and bottom as shares of its sides; `None` is all.
    #[serde(default)]
    pub part: Option<[f64; 4]>,
    /// A place, as shares of the sides, whose outline alone is taken; `None` takes all.
    #[serde(default)]
    pub around: Option<[f64; 2]>,
}

/// How far a line may stray, mm.
pub const DETAILS: RangeInclusive<f64> = 0.005..=5.0;

/// Gaps that are closed, mm.
pub const GAPS: RangeInclusive<f64> = 0.0..=20.0;

/// Specks under half a square millimetre are noise (common practice).
const fn least() -> f64 {
    0.5
}

fn gap_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_default())
}

fn least_or_standard<'de, D: Deserializer<'de>>(from: D) -> Result<f64, D::Error> {
    Ok(Option::deserialize(from)?.unwrap_or_else(least))
}

impl Default for Trace {
    fn default() -> Self {
        Self {
            by: InsideBy::default(),
            threshold: None,
            detail: None,
            gap: 0.0,
            least: least(),
            holes: false,
            part: None,
            around: None,
        }
    }
}

impl Trace {
    /// The part in pixels of a picture with such sides: left, top, right, bottom; a pixel at least.
    pub(super) fn part_of(&self, [across, along]: [usize; 2]) -> [usize; 4] {
        let [left, top, right, bottom] = self.part.unwrap_or([0.0, 0.0, 1.0, 1.0]);
        let span = |from: f64, to: f64, count: usize| {
            let (from, to) = (from.clamp(0.0, 1.0), to.clamp(0.0, 1.0));
            let first = whole(from * super::real(count)).min(count - 1);
            (first, whole((to * super::real(count)).ceil()).clamp(first + 1, count))
        };
        let ((left, right), (top, bottom)) = (span(left, right, across), span(top, bottom, along));
        [left, top, right, bottom]
    }

    pub(crate) fn validate(&self, field: &dyn Fn(&str) -> String, unit: Unit, faults: &mut Faults) {
        let colour = match &self.by {
            InsideBy::Colour { colour } => Some(colour),
            InsideBy::Background { colour } => colour.as_ref(),
            InsideBy::Transparency | InsideBy::Darkness => None,
        };
        if let Some(colour) = colour.filter(|colour| crate::pixels::rgb(colour).is_none()) {
            let shown: String = colour.chars().take(20).collect();
            faults.add(InputError::plain(
                &field("colour"),
                format!("“{shown}” is no colour"),
                Remedy::set("Take white", &field("colour"), "#ffffff"),
            ));
        }
        let show = |mm: f64| measure(mm, unit);
        let per_cent = |share: f64| format!("{:.1} %", share * 100.0);
        if let Some(threshold) = self.threshold {
            faults.range(&field("threshold"), "The threshold", threshold, 0.002..=0.998, per_cent);
        }
        if let Some(detail) = self.detail {
            faults.range(&field("detail"), "The detail", detail, DETAILS, show);
        }
        faults.range(&field("gap"), "The gap", self.gap, GAPS, show);
        let area = |area: f64| format!("{area} mm²");
        faults.range(&field("least"), "What is left out", self.least, 0.0..=10_000.0, area);
        let is_in = |share: &f64| (0.0..=1.0).contains(share);
        if !self.around.iter().flatten().all(is_in) {
            faults.add(InputError::plain(
                &field("around"),
                "The motif that was chosen lies beside the picture",
                Remedy::set("Take all motifs", &field("around"), Setting::Standard),
            ));
        }
        let has_area =
            self.part.is_none_or(|[left, top, right, bottom]| left < right && top < bottom);
        if !(self.part.iter().flatten().all(is_in) && has_area) {
            faults.add(InputError::plain(
                &field("part"),
                "The part of the picture lies beside it, or has no area",
                Remedy::set("Take the whole picture", &field("part"), Setting::Standard),
            ));
        }
    }
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "within a picture")]
fn whole(value: f64) -> usize {
    value.clamp(0.0, 1e6) as usize
}
