//! How much of each pixel counts as inside, before a threshold says from where on.

use super::InsideBy;
use crate::pixels::{Pixel, Pixels};

/// How much pixels of an even background may differ from it.
const EVEN: f32 = 0.12;

/// So many pixels of a faint colour at least are no accident.
const FAINT: usize = 60;

/// Levels that are told apart.
pub(super) const LEVELS: usize = 256;

/// A value for each pixel, 0 to 1: the greater, the more it is inside.
#[derive(Debug, Clone)]
pub struct Inside {
    /// Pixels across.
    pub width: usize,
    /// Pixels down.
    pub height: usize,
    /// Row after row.
    pub values: Vec<f32>,
    /// How much the pixels at the edge differ from the background; only where that is asked for.
    spread: Option<f32>,
}

impl Inside {
    /// Reads a part of a picture, `step` by `step` pixels as one: the mean of what each is worth, so that an edge stays
    /// where it is between two of them.
    ///
    /// Colours are compared as they are coded: that is how edges are blended by nearly all that draws, so half of the
    /// way between two colours is where half of a pixel is covered.
    #[must_use]
    pub fn of(pixels: &Pixels, by: &InsideBy, part: [usize; 4], step: usize) -> Self {
        let [left, top, right, bottom] = part;
        let (across, along) = (right - left, bottom - top);
        let (width, height) = (across.div_ceil(step), along.div_ceil(step));
        let ground = match by {
            InsideBy::Background { colour } => {
                colour.as_deref().and_then(crate::pixels::rgb).unwrap_or_else(|| {
                    let [red, green, blue, _] = pixels.colour_of_edges();
                    [red, green, blue]
                })
            }
            InsideBy::Colour { colour } => crate::pixels::rgb(colour).unwrap_or_default(),
            InsideBy::Transparency | InsideBy::Darkness => [255; 3],
        };
        let worth = |pixel: &Pixel| -> u32 {
            let [red, green, blue, alpha] = *pixel;
            let off = |ground: [u8; 3]| {
                let off = red.abs_diff(ground[0]).max(green.abs_diff(ground[1]));
                u32::from(off.max(blue.abs_diff(ground[2])))
            };
            match by {
                InsideBy::Transparency => 255 * u32::from(alpha),
                InsideBy::Darkness => {
                    // Weights of Rec. 709 in 1/256.
                    let light =
                        (54 * u32::from(red) + 183 * u32::from(green) + 19 * u32::from(blue)) >> 8;
                    (255 - light) * u32::from(alpha)
                }
                InsideBy::Background { .. } => off(ground) * u32::from(alpha),
                InsideBy::Colour { .. } => (255 - off(ground)) * u32::from(alpha),
            }
        };
        let mut sums = vec![0u32; width * height];
        let rows = pixels.rows().skip(top).take(along);
        for (y, row) in rows.enumerate() {
            let line = &mut sums[(y / step) * width..][..width];
            let row = &row[left..right];
            if step == 1 {
                line.iter_mut().zip(row).for_each(|(sum, pixel)| *sum = worth(pixel));
            } else {
                for (sum, group) in line.iter_mut().zip(row.chunks(step)) {
                    // 65025 for each: 255 rows of 255 would still fit.
                    *sum += group.iter().map(worth).sum::<u32>() / 16;
                }
            }
        }
        let unit = if step == 1 { 65_025.0 } else { 65_025.0 / 16.0 };
        let mut values = Vec::with_capacity(sums.len());
        for (at, sum) in sums.into_iter().enumerate() {
            let (x, y) = (at % width, at / width);
            let count = step.min(across - x * step) * step.min(along - y * step);
            values.push((small(sum) / (unit * small_of(count))).min(1.0));
        }
        let mut found = Self { width, height, values, spread: None };
        if matches!(by, InsideBy::Background { .. }) {
            found.spread = Some(found.spread_of_edges());
        }
        found
    }

    /// True where most of what lies at the edge is of one colour.
    pub(super) fn is_on_even_ground(&self) -> bool {
        self.spread.is_some_and(|spread| spread < EVEN)
    }

    /// How many values there are at each level.
    #[must_use]
    pub fn histogram(&self) -> [u32; LEVELS] {
        let mut counts = [0; LEVELS];
        for value in &self.values {
            counts[level(*value)] += 1;
        }
        counts
    }

    /// The ninth part of ten of what lies at the edge differs by less than this.
    fn spread_of_edges(&self) -> f32 {
        let last = self.values.len() - self.width;
        let mut edge: Vec<f32> = self.values[..self.width].to_vec();
        edge.extend(&self.values[last..]);
        for row in self.values.chunks_exact(self.width) {
            edge.extend([row[0], row[self.width - 1]]);
        }
        edge.sort_by(f32::total_cmp);
        edge[edge.len() * 9 / 10]
    }

    /// The threshold that parts what is inside from what is not best.
    ///
    /// Half for transparency; else half of the way between the two classes that Otsu (1979) finds. Where the background
    /// is even and much differs from it by less, just above its noise, so that faint colours are inside too.
    #[must_use]
    pub fn threshold(&self, by: &InsideBy) -> f32 {
        if matches!(by, InsideBy::Transparency) {
            return 0.5;
        }
        let counts = self.histogram();
        let split = otsu(&counts);
        let low = middle(&counts, 0..split);
        let high = middle(&counts, split..LEVELS);
        let between = (small_of(low + high) / 2.0 / small_of(LEVELS - 1)).clamp(0.02, 0.98);
        let Some(spread) = self.spread.filter(|spread| *spread < EVEN) else { return between };
        let above = (2.5 * spread + 0.02).max(0.08);
        // Pixels of an edge differ from their neighbours; those of a faint colour do not.
        let is_even = |at: usize| {
            let own = self.values[at];
            [1, self.width].iter().all(|step| {
                let other = self.values.get(at + step).copied().unwrap_or(own);
                (other - own).abs() < 0.02
            })
        };
        let faint = self.values.iter().enumerate();
        let faint =
            faint.filter(|(at, own)| (above..between).contains(*own) && is_even(*at)).count();
        if faint > FAINT.max(self.values.len() / 2000) { above.min(between) } else { between }
    }

    /// The value at a place between pixels' middles; beyond the edge that of the edge.
    pub(super) fn at(&self, x: f32, y: f32) -> f32 {
        let place = |value: f32, count: usize| {
            let value = (value - 0.5).clamp(0.0, small_of(count - 1));
            let whole = whole(value).min(count.saturating_sub(2));
            (whole, value - small_of(whole))
        };
        let ((x, right), (y, down)) = (place(x, self.width), place(y, self.height));
        let row = |y: usize| {
            let row = &self.values[y.min(self.height - 1) * self.width..];
            row[x] + (row[(x + 1).min(self.width - 1)] - row[x]) * right
        };
        let (upper, lower) = (row(y), row(y + 1));
        upper + (lower - upper) * down
    }
}

/// The middle one of the values at some levels.
fn middle(counts: &[u32; LEVELS], levels: std::ops::Range<usize>) -> usize {
    let mut left = counts[levels.clone()].iter().sum::<u32>() / 2;
    let start = levels.start;
    levels
        .into_iter()
        .find(|at| {
            let is_here = left < counts[*at];
            left = left.saturating_sub(counts[*at]);
            is_here
        })
        .unwrap_or(start)
}

/// The level from which on values are in the upper of two classes, so that the variance between the classes is
/// greatest (Otsu 1979).
fn otsu(counts: &[u32; LEVELS]) -> usize {
    let all: f64 = counts.iter().map(|count| f64::from(*count)).sum();
    let moment = |range: &[u32]| -> f64 {
        range.iter().zip(0u32..).map(|(count, at)| f64::from(*count) * f64::from(at)).sum()
    };
    let whole = moment(counts);
    let (mut below, mut sum) = (0.0, 0.0);
    let mut best = (0.0, LEVELS / 2);
    for at in 1..LEVELS {
        let count = f64::from(counts[at - 1]);
        below += count;
        sum += count * f64::from(u32::try_from(at - 1).unwrap_or(0));
        if below == 0.0 || below >= all {
            continue;
        }
        let apart = sum / below - (whole - sum) / (all - below);
        let between = below * (all - below) * apart * apart;
        if between > best.0 {
            best = (between, at);
        }
    }
    best.1
}

fn level(value: f32) -> usize {
    whole(value * 255.0 + 0.5).min(LEVELS - 1)
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
fn whole(value: f32) -> usize {
    value.clamp(0.0, 1e7) as usize
}

#[expect(clippy::cast_precision_loss, reason = "levels and sides of a picture are small")]
const fn small(value: u32) -> f32 {
    value as f32
}

#[expect(clippy::cast_precision_loss, reason = "levels and sides of a picture are small")]
const fn small_of(value: usize) -> f32 {
    value as f32
}
