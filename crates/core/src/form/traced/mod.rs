//! A form whose outline is traced from a picture: the border around it, what is mended by hand, a hole to hang it by.

mod border;
mod checks;
mod draft;
mod eye;
mod figures;
mod mend;
mod narrow;

use std::sync::Arc;

use kurbo::{BezPath, Rect};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use border::{Border, HoleRule, HoleSay};
pub use eye::Eye;
pub use mend::Mend;

use super::{Flat, Part, StickerCard, drafting};
use crate::blob::{BlobId, Origin};
use crate::error::{Faults, InputError, Remedy, Setting};
use crate::memory::Weighty;
use crate::trace::{Trace, TraceError, Tracing};
use crate::units::{Unit, measure};

/// The panel that a traced piece has.
pub const OUTLINE: &str = "Outline";

/// What a layer lies on to be where the picture was that the outline was traced from.
pub const PICTURE: &str = "Picture";

/// How wide a picture may be, mm.
const WIDTH: std::ops::RangeInclusive<f64> = 3.0..=2000.0;

/// An outline that is traced from a picture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Traced {
    /// The picture.
    pub picture: BlobId,
    /// Its width and height in pixels, the right way up.
    pub pixels: [u32; 2],
    /// True for a drawing of lines and areas.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub drawn: bool,
    /// What is known of where it comes from.
    #[serde(default)]
    pub origin: Origin,
    /// How wide the whole picture is, mm; 3 to 2000.
    pub width: f64,
    /// What of it counts as inside, and how its edge is followed.
    #[serde(default)]
    pub trace: Trace,
    /// What is mended by hand, one after the other; up to 200.
    #[serde(default, deserialize_with = "standard", skip_serializing_if = "Vec::is_empty")]
    pub mends: Vec<Mend>,
    /// How far from what was traced the cut runs.
    #[serde(default)]
    pub border: Border,
    /// A hole to hang it by.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub eye: Option<Eye>,
    /// A card around the outlines, cut through; they themselves are cut to its liner.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub card: Option<StickerCard>,
    /// What was found in the picture; `None` until somebody looks.
    #[serde(skip)]
    #[cfg_attr(feature = "api", ts(skip), schemars(skip))]
    pub found: Found,
}

/// What was found in a picture: no part of what the user decides, so all are alike.
#[derive(Debug, Clone, Default)]
pub struct Found(pub Option<Arc<Looked>>);

impl PartialEq for Found {
    fn eq(&self, _: &Self) -> bool {
        true
    }
}

/// The outlines of a picture, or why there are none.
#[derive(Debug, Clone)]
pub struct Looked(pub Result<Tracing, TraceError>);

impl Weighty for Looked {
    fn weight(&self) -> usize {
        self.0.as_ref().map_or(200, |tracing| 3000 + 60 * tracing.nodes)
    }
}

/// What a traced outline came to, for whoever sets it up.
#[derive(Debug, Clone)]
pub struct TracedFacts {
    /// What was found.
    pub looked: Arc<Looked>,
    /// The line that was traced, in the blank's coordinates.
    pub line: BezPath,
    /// What is cut around it, in the blank's coordinates, and whether each is a hole.
    pub cut: Vec<(BezPath, bool)>,
    /// Where the whole picture lies, in the blank's coordinates.
    pub picture: Rect,
    /// How many separate outlines are cut.
    pub outlines: usize,
    /// The least border at which they are one, mm; none where they are, or cannot be.
    pub one_from: Option<f64>,
    /// Ends of curves in all that is cut.
    pub nodes: usize,
    /// Mends that no longer make sense, by their places.
    pub dropped: Vec<usize>,
    /// The narrowest place of the piece, mm, and where it is.
    pub narrowest: Option<(f64, kurbo::Point, kurbo::Point)>,
}

/// With how many pixels a drawing's longer side is drawn to be traced.
const DRAWN: u32 = 1600;

/// Most mends of one outline.
const MOST_MENDS: usize = 200;

impl Traced {
    /// An outline of a picture, so wide, as it is found by itself.
    #[must_use]
    pub fn new(picture: BlobId, pixels: [u32; 2], width: f64, trace: Trace) -> Self {
        Self {
            picture,
            pixels,
            drawn: false,
            origin: Origin::default(),
            width,
            trace,
            mends: Vec::new(),
            border: Border::default(),
            eye: None,
            card: None,
            found: Found::default(),
        }
    }

    /// How large the whole picture is, mm.
    #[must_use]
    pub fn sides(&self) -> [f64; 2] {
        let [across, along] = self.pixels.map(|count| f64::from(count.max(1)));
        [self.width, self.width * along / across]
    }

    /// How many pixels of it are looked at: of a drawing as many as it is drawn with for that.
    #[must_use]
    pub fn looked_at(&self) -> [u32; 2] {
        if !self.drawn {
            return self.pixels;
        }
        let longest = self.pixels[0].max(self.pixels[1]).max(1);
        let side = |count: u32| {
            let pixels = u64::from(count) * u64::from(DRAWN) / u64::from(longest);
            u32::try_from(pixels).unwrap_or(DRAWN).max(1)
        };
        self.pixels.map(side)
    }

    /// Checks every figure.
    ///
    /// # Errors
    /// All that are out of range.
    pub fn checked(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        self.validate(unit, &mut faults);
        faults.or(())
    }

    fn validate(&self, unit: Unit, faults: &mut Faults) {
        let show = |mm: f64| measure(mm, unit);
        faults.range("form.traced.width", "The picture’s width", self.width, WIDTH, show);
        self.trace.validate(&|field| format!("form.traced.trace.{field}"), unit, faults);
        self.border.validate(unit, faults);
        if let Some(eye) = &self.eye {
            eye.validate(unit, faults);
        }
        if let Some(card) = &self.card {
            card.validate("form.traced.card", unit, faults);
        }
        if self.mends.len() > MOST_MENDS || !self.mends.iter().all(Mend::is_sound) {
            faults.add(InputError::plain(
                "form.traced.mends",
                format!(
                    "{} corrections by hand, or one beside the picture: up to {MOST_MENDS} on it",
                    self.mends.len()
                ),
                Remedy::set("Leave them out", "form.traced.mends", Setting::Standard),
            ));
        }
        self.origin.validate("form.traced.origin", faults);
        if !self.picture.is_sound() {
            faults.add(InputError::plain(
                "form.traced.picture",
                "The picture is named by no SHA-256",
                Remedy::advice("Bring the picture in again"),
            ));
        }
        if self.pixels.iter().any(|side| !(1..=60_000).contains(side)) {
            let [across, along] = self.pixels;
            faults.add(InputError::new(
                "form.traced.pixels",
                format!("The picture has {across} × {along} pixels: each side has 1 to 60000"),
                f64::from(across.max(along)),
                Remedy::advice("Bring the picture in again"),
            ));
        }
    }

    /// The flat of its blanks.
    pub(super) fn flat(
        &self,
        parts: Vec<Part>,
        facts: TracedFacts,
        caliper: f64,
        unit: Unit,
    ) -> Flat {
        let mut flat = Flat::of(parts);
        flat.dimensions = drafting::dimensions(&[], &flat, unit);
        flat.figures = figures::figures(self, unit);
        flat.checks = checks::checks(self, &facts, &flat, caliper, unit);
        flat.traced = Some(facts);
        flat
    }
}

/// A field that is set back to its standard carries nothing.
fn standard<'de, D, T>(from: D) -> Result<T, D::Error>
where
    D: Deserializer<'de>,
    T: Deserialize<'de> + Default,
{
    Ok(Option::deserialize(from)?.unwrap_or_default())
}
