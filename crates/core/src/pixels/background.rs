//! What is like a background and hangs together with where it begins.

use super::{Pixel, Pixels, floor};
use crate::face::Reach;

impl Pixels {
    /// Makes it clear. `None` where it begins beside the picture.
    pub(super) fn drop_background(
        &mut self,
        from: Reach,
        colour: Option<&str>,
        tolerance: f64,
        soft: f64,
    ) -> Option<()> {
        let start = match from {
            Reach::Point(at) => Some(self.at(at)?),
            Reach::Edges | Reach::Everywhere => None,
        };
        let found = || start.map_or_else(|| self.colour_of_edges(), |at| self.all()[at]);
        let [red, green, blue] = colour.and_then(rgb).unwrap_or_else(|| {
            let [red, green, blue, _] = found();
            [red, green, blue]
        });
        let most = u8::try_from(floor(tolerance / 100.0 * 255.0)).unwrap_or(u8::MAX);
        // What is clear already lets a background through.
        let is_like = |pixel: &Pixel| {
            let off = pixel[0].abs_diff(red).max(pixel[1].abs_diff(green));
            pixel[3] == 0 || off.max(pixel[2].abs_diff(blue)) <= most
        };
        let mut state: Vec<u8> = self.all().iter().map(|own| u8::from(is_like(own))).collect();
        match start {
            Some(start) => self.flood(&mut state, [start].into_iter()),
            None if from == Reach::Edges => self.flood(&mut state, self.edges()),
            None => state.iter_mut().for_each(|own| *own *= DROPPED),
        }
        let radius = floor(soft.round());
        if radius == 0 {
            let dropped = self.all_mut().iter_mut().zip(&state).filter(|(_, own)| **own == DROPPED);
            dropped.for_each(|(pixel, _)| pixel[3] = 0);
            return Some(());
        }
        let kept = state.iter().map(|own| if *own == DROPPED { 0 } else { 255 }).collect();
        let kept = self.blurred(kept, radius);
        for (pixel, kept) in self.all_mut().iter_mut().zip(kept) {
            // Half of the blur lies within what is left: nothing of the background comes back.
            let share = u16::from(kept.saturating_sub(128)) * 2 + u16::from(kept > 128);
            let alpha = u16::from(pixel[3]) * share.min(255) / 255;
            pixel[3] = u8::try_from(alpha).unwrap_or(u8::MAX);
        }
        Some(())
    }

    /// The pixels along the picture's edges.
    fn edges(&self) -> impl Iterator<Item = usize> + use<> {
        let (width, height) = (self.width, self.height);
        let last = (height - 1) * width;
        let rows = (0..width).chain(last..last + width);
        rows.chain((0..height).flat_map(move |row| [row * width, row * width + width - 1]))
    }

    /// The colour that most of the picture's edge has, or nearly has.
    pub(crate) fn colour_of_edges(&self) -> Pixel {
        let mut bins = std::collections::BTreeMap::<[u8; 3], (u64, [u64; 3])>::new();
        for pixel in self.edges().map(|at| self.all()[at]).filter(|pixel| pixel[3] > 0) {
            let [red, green, blue, _] = pixel;
            let (count, sum) = bins.entry([red >> 4, green >> 4, blue >> 4]).or_default();
            *count += 1;
            sum.iter_mut().zip(pixel).for_each(|(sum, own)| *sum += u64::from(own));
        }
        let most = bins.values().max_by_key(|(count, _)| *count);
        let Some((count, sum)) = most else { return [255; 4] };
        let mean = |at: usize| u8::try_from((sum[at] + count / 2) / count).unwrap_or(u8::MAX);
        [mean(0), mean(1), mean(2), 255]
    }

    /// Marks what is like the background and hangs together, side to side, with where it begins.
    fn flood(&self, state: &mut [u8], starts: impl Iterator<Item = usize>) {
        let width = self.width;
        let mut open: Vec<usize> = starts.filter(|at| state[*at] == LIKE).collect();
        while let Some(at) = open.pop() {
            if state[at] != LIKE {
                continue;
            }
            let row = at - at % width;
            let is_end = |own: &u8| *own != LIKE;
            let from = state[row..at].iter().rposition(is_end).map_or(row, |end| row + end + 1);
            let to = state[at..row + width].iter().position(is_end).map_or(row + width, |n| at + n);
            state[from..to].fill(DROPPED);
            // The first of each stretch beside it.
            let mut next = |from: usize, to: usize| {
                let mut is_in = false;
                for (step, own) in state[from..to].iter().enumerate() {
                    if *own == LIKE && !is_in {
                        open.push(from + step);
                    }
                    is_in = *own == LIKE;
                }
            };
            if row >= width {
                next(from - width, to - width);
            }
            if row + width < state.len() {
                next(from + width, to + width);
            }
        }
    }

    /// Each the mean of those up to `radius` beside, above and below it; beyond its edges the picture goes on.
    fn blurred(&self, values: Vec<u8>, radius: usize) -> Vec<u8> {
        let (width, height) = (self.width, self.height);
        let count = 2 * radius + 1;
        let mean = |sum: usize| u8::try_from((sum + radius) / count).unwrap_or(u8::MAX);
        let mut across = values;
        let mut line = vec![0; width];
        for row in across.chunks_exact_mut(width) {
            line.copy_from_slice(row);
            let own = |at: usize| usize::from(line[at.saturating_sub(radius).min(width - 1)]);
            let mut sum: usize = (0..count).map(own).sum();
            for (at, value) in row.iter_mut().enumerate() {
                *value = mean(sum);
                sum = sum + own(at + count) - own(at);
            }
        }
        let row = |at: usize| {
            let at = at.saturating_sub(radius).min(height - 1);
            &across[at * width..(at + 1) * width]
        };
        let mut sums = vec![0; width];
        let add = |sums: &mut [usize], row: &[u8]| {
            sums.iter_mut().zip(row).for_each(|(sum, own)| *sum += usize::from(*own));
        };
        (0..count).for_each(|at| add(&mut sums, row(at)));
        let mut all = Vec::with_capacity(across.len());
        for at in 0..height {
            all.extend(sums.iter().map(|sum| mean(*sum)));
            sums.iter_mut().zip(row(at)).for_each(|(sum, own)| *sum -= usize::from(*own));
            add(&mut sums, row(at + count));
        }
        all
    }
}

/// Like the background.
const LIKE: u8 = 1;
/// Part of it.
const DROPPED: u8 = 2;

/// Red, green and blue of `#rrggbb`.
#[must_use]
pub fn rgb(colour: &str) -> Option<[u8; 3]> {
    let mut found = [0; 3];
    hex::decode_to_slice(colour.strip_prefix('#')?, &mut found).ok()?;
    Some(found)
}
