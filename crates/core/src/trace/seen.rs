//! A picture as a trace sees it: the part that is looked at, and how closely.

use serde::Serialize;

use super::inside::Inside;
use super::{InsideBy, Trace, real};
use crate::memory::Weighty;
use crate::pixels::Pixels;

/// Most pixels that are looked at; larger pictures are made smaller first.
const MOST_PIXELS: usize = 4_000_000;

/// Pixels in a millimetre that are enough for a knife: 600 in an inch.
const ENOUGH: f64 = 600.0 / crate::units::INCH;

/// What makes the pixels of a picture count as inside, most likely: where some of it is clear, that it is not; else that
/// it differs from an even background; else that it is dark.
#[must_use]
pub fn likely(pixels: &Pixels) -> InsideBy {
    let [across, along] = pixels.sides();
    let clear = pixels.rows().flatten().filter(|pixel| pixel[3] < 128).count();
    if real(clear) > 0.005 * real(across) * real(along) {
        return InsideBy::Transparency;
    }
    let by = InsideBy::Background { colour: None };
    let step = (across.max(along) / 800).max(1);
    let seen = Inside::of(pixels, &by, [0, 0, across, along], step);
    if seen.is_on_even_ground() { by } else { InsideBy::Darkness }
}

/// What of a picture is looked at, and how closely.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
pub struct View {
    /// The picture's width and height, px.
    pub(super) sides: [usize; 2],
    /// Left, top, right and bottom of the part.
    pub(super) part: [usize; 4],
    /// How many pixels are taken as one, each way.
    pub(super) step: usize,
}

/// A picture as a trace sees it.
#[derive(Debug, Clone)]
pub struct Seen {
    pub(super) inside: Inside,
    pub(super) proposed: f32,
    pub(super) view: View,
}

impl View {
    /// What a trace needs of a picture that is `width` mm wide; with `most`, so many pixels at most, for a first look.
    #[must_use]
    pub fn of(sides: [u32; 2], how: &Trace, width: f64, most: Option<usize>) -> Self {
        let sides = sides.map(|count| (count as usize).max(1));
        let part = how.part_of(sides);
        let step = step(part, width / real(sides[0]), most.unwrap_or(MOST_PIXELS));
        Self { sides, part, step }
    }
}

impl Seen {
    /// Looks at a picture. `None` where it has other sides than were said.
    #[must_use]
    pub fn new(pixels: &Pixels, by: &InsideBy, view: View) -> Option<Self> {
        if pixels.sides() != view.sides {
            return None;
        }
        let inside = Inside::of(pixels, by, view.part, view.step);
        let proposed = inside.threshold(by);
        Some(Self { inside, proposed, view })
    }

    /// Pixels across and down.
    #[must_use]
    pub const fn sides(&self) -> [usize; 2] {
        [self.inside.width, self.inside.height]
    }

    /// Whether each of them is inside, row after row.
    pub fn tint(&self, how: &Trace) -> impl Iterator<Item = bool> + '_ {
        let threshold = self.threshold(how);
        self.inside.values.iter().map(move |value| *value >= threshold)
    }

    #[expect(clippy::cast_possible_truncation, reason = "0 to 1")]
    pub(super) fn threshold(&self, how: &Trace) -> f32 {
        how.threshold.map_or(self.proposed, |own| own.clamp(0.002, 0.998) as f32)
    }
}

impl Weighty for Seen {
    fn weight(&self) -> usize {
        4 * self.inside.values.len()
    }
}

/// How many pixels are taken as one, each way.
fn step(part: [usize; 4], pixel: f64, most: usize) -> usize {
    let (across, along) = (part[2] - part[0], part[3] - part[1]);
    let long = across.max(along);
    // As many as the size on paper needs, or those of a small picture.
    let needed = (real(long) * pixel * ENOUGH).max(1200.0);
    let mut step = 1;
    while real(long) / real(step + 1) >= needed {
        step += 1;
    }
    while across.div_ceil(step) * along.div_ceil(step) > most && step < 250 {
        step += 1;
    }
    step
}
