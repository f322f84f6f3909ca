//! Pictures as pixels: what is background, what is a speck, what is erased.

mod background;
mod erase;
mod specks;

pub use background::rgb;
use thiserror::Error;

use crate::face::Rework;

/// Red, green, blue and how much it covers, 0 to 255 each, not multiplied.
pub type Pixel = [u8; 4];

/// A picture, row after row from its top left.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Pixels {
    width: usize,
    height: usize,
    raw: Vec<u8>,
}

/// Why nothing comes of it.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum CleanError {
    /// All of it is clear.
    #[error(
        "“{0}” leaves nothing of the picture: lower its tolerance or its size, or switch it off"
    )]
    NothingLeft(&'static str),
    /// A point that lies beside the picture.
    #[error("“{0}” begins beside the picture: point at a place in it")]
    Outside(&'static str),
    /// A step for the parts of drawings.
    #[error("“{0}” is for drawings, and this is a picture: take the step away")]
    OfDrawing(&'static str),
}

impl Pixels {
    /// A picture of so many pixels, their bytes row after row; `None` where they are not so many, or none.
    #[must_use]
    pub fn new(width: usize, height: usize, raw: Vec<u8>) -> Option<Self> {
        let count = width.checked_mul(height).and_then(|count| count.checked_mul(4));
        (count == Some(raw.len()) && !raw.is_empty()).then_some(Self { width, height, raw })
    }

    /// Width and height.
    #[must_use]
    pub const fn sides(&self) -> [usize; 2] {
        [self.width, self.height]
    }

    /// The bytes of its pixels, row after row.
    #[must_use]
    pub fn raw(&self) -> &[u8] {
        &self.raw
    }

    fn all(&self) -> &[Pixel] {
        self.raw.as_chunks().0
    }

    /// Its rows, from its top.
    pub(crate) fn rows(&self) -> impl Iterator<Item = &[Pixel]> {
        self.all().chunks_exact(self.width)
    }

    fn all_mut(&mut self) -> &mut [Pixel] {
        self.raw.as_chunks_mut().0
    }

    /// Does one act after the other; cropping comes last.
    ///
    /// # Errors
    /// [`CleanError`].
    pub fn clean<'a>(&mut self, acts: impl Iterator<Item = &'a Rework>) -> Result<(), CleanError> {
        let mut is_cropped = false;
        for act in acts {
            match act {
                Rework::Background { from, colour, tolerance, soft } => {
                    self.drop_background(*from, colour.as_deref(), *tolerance, *soft)
                        .ok_or(CleanError::Outside(act.name()))?;
                }
                Rework::Specks { under } => self.drop_specks(*under as usize),
                Rework::Rectangle { corners } => self.erase_rectangle(*corners),
                Rework::Stroke { points, width } => self.erase_along(points, *width),
                Rework::Crop => is_cropped = true,
                Rework::Part { .. } => return Err(CleanError::OfDrawing(act.name())),
            }
            if self.all().iter().all(|pixel| pixel[3] == 0) {
                return Err(CleanError::NothingLeft(act.name()));
            }
        }
        if is_cropped {
            self.crop();
        }
        Ok(())
    }

    /// Cuts away what is clear around the rest.
    fn crop(&mut self) {
        let is_left = |pixel: &Pixel| pixel[3] > 0;
        let rows = self.all().chunks_exact(self.width);
        let Some(top) = rows.clone().position(|row| row.iter().any(is_left)) else { return };
        let bottom = rows.clone().rposition(|row| row.iter().any(is_left)).unwrap_or(top);
        let (mut left, mut right) = (self.width, 0);
        for row in rows {
            left = left.min(row.iter().position(is_left).unwrap_or(left));
            right = right.max(row.iter().rposition(is_left).unwrap_or(right));
        }
        let kept = self.all().chunks_exact(self.width).take(bottom + 1).skip(top);
        let raw = kept.flat_map(|row| row[left..=right].as_flattened()).copied().collect();
        (self.width, self.height, self.raw) = (right - left + 1, bottom - top + 1, raw);
    }

    /// The pixel at a place given in shares of the sides; `None` beside the picture.
    fn at(&self, [x, y]: [f64; 2]) -> Option<usize> {
        let within = (0.0..=1.0).contains(&x) && (0.0..=1.0).contains(&y);
        let index = |share: f64, count: usize| floor(share * real(count)).min(count - 1);
        within.then(|| index(y, self.height) * self.width + index(x, self.width))
    }

    /// Makes a stretch of a row clear; both ends in pixels, from the left edge.
    fn erase_between(&mut self, row: usize, from: f64, to: f64) {
        // A pixel is erased where its middle is.
        let (from, to) = (floor((from - 0.5).max(0.0).ceil()), floor((to + 0.5).max(0.0)));
        let (from, to) = (from.min(self.width), to.min(self.width));
        if from < to {
            let start = row * self.width;
            let stretch = &mut self.all_mut()[start + from..start + to];
            stretch.iter_mut().for_each(|pixel| pixel[3] = 0);
        }
    }
}

/// Down to whole pixels; what is below none is none.
#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "bounded, not below 0")]
fn floor(value: f64) -> usize {
    value.clamp(0.0, 1e9) as usize
}

#[expect(clippy::cast_precision_loss, reason = "a side of a picture")]
const fn real(count: usize) -> f64 {
    count as f64
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::face::Reach;

    const WHITE: Pixel = [255, 255, 255, 255];
    const RED: Pixel = [200, 30, 30, 255];

    /// A picture out of letters: `.` white, `#` red, `-` nearly white.
    fn drawn(rows: &[&str]) -> Pixels {
        let pixel = |letter: char| match letter {
            '#' => RED,
            '-' => [250, 255, 249, 255],
            _ => WHITE,
        };
        let raw = rows.iter().flat_map(|row| row.chars()).flat_map(pixel).collect();
        Pixels::new(rows[0].len(), rows.len(), raw).unwrap()
    }

    /// What is left: `#` whole, `+` in part.
    fn left(pixels: &Pixels) -> Vec<String> {
        let letter = |pixel: &Pixel| match pixel[3] {
            0 => '.',
            255 => '#',
            _ => '+',
        };
        pixels.all().chunks(pixels.width).map(|row| row.iter().map(letter).collect()).collect()
    }

    fn background(from: Reach, tolerance: f64) -> Rework {
        Rework::Background { from, colour: None, tolerance, soft: 0.0 }
    }

    fn cleaned(rows: &[&str], acts: &[Rework]) -> Result<Vec<String>, CleanError> {
        let mut pixels = drawn(rows);
        pixels.clean(acts.iter())?;
        Ok(left(&pixels))
    }

    #[test]
    fn a_background_goes_as_far_as_it_hangs_together() {
        let ring = ["......", ".####.", ".#--#.", ".####.", "......"];
        let within = ["......", ".####.", ".####.", ".####.", "......"];
        assert_eq!(cleaned(&ring, &[background(Reach::Edges, 5.0)]).unwrap(), within);
        let without = ["......", ".####.", ".#..#.", ".####.", "......"];
        assert_eq!(cleaned(&ring, &[background(Reach::Everywhere, 5.0)]).unwrap(), without);
        // 6 of 255 is 2.35 %.
        assert_eq!(cleaned(&ring, &[background(Reach::Everywhere, 2.3)]).unwrap(), within);
        let inside = background(Reach::Point([0.5, 0.5]), 1.0);
        let hole = ["######", "######", "##..##", "######", "######"];
        assert_eq!(cleaned(&ring, &[inside]).unwrap(), hole);
        // Corners that touch let nothing through.
        let corner = ["..#", ".#.", "#.."];
        let one_side = ["..#", ".##", "###"];
        let from = background(Reach::Point([0.0, 0.0]), 1.0);
        assert_eq!(cleaned(&corner, &[from]).unwrap(), one_side);
    }

    #[test]
    fn a_soft_edge_fades_within_what_is_left() {
        let mut pixels = drawn(&["....##########......"; 20]);
        let act =
            Rework::Background { from: Reach::Edges, colour: None, tolerance: 1.0, soft: 4.0 };
        pixels.clean([act].iter()).unwrap();
        let row: Vec<u8> = pixels.all()[200..220].iter().map(|pixel| pixel[3]).collect();
        assert!(row[..4].iter().chain(&row[14..]).all(|alpha| *alpha == 0), "{row:?}");
        assert!(row[4..9].windows(2).all(|pair| pair[0] < pair[1] || pair[1] == 255), "{row:?}");
        assert!(row[8] == 255 && row[9] == 255, "{row:?}");
    }

    #[test]
    fn specks_go_and_what_is_larger_stays() {
        let spots = ["#...##", "....##", ".#...#", "..#...", "......"];
        let acts = [background(Reach::Edges, 1.0), Rework::Specks { under: 3 }];
        // Two pixels that touch at a corner are one spot of two.
        let kept = ["....##", "....##", ".....#", "......", "......"];
        assert_eq!(cleaned(&spots, &acts).unwrap(), kept);
        let acts = [background(Reach::Edges, 1.0), Rework::Specks { under: 2 }];
        let kept = ["....##", "....##", ".#...#", "..#...", "......"];
        assert_eq!(cleaned(&spots, &acts).unwrap(), kept);
        let cropped = [background(Reach::Edges, 1.0), Rework::Crop, Rework::Specks { under: 3 }];
        assert_eq!(cleaned(&spots, &cropped).unwrap(), ["##", "##", ".#"]);
    }

    #[test]
    fn the_eraser_takes_the_pixels_whose_middle_it_passes() {
        let all = ["##########"; 10];
        let rectangle = Rework::Rectangle { corners: [[0.9, 0.55], [0.2, 0.3]] };
        let result = cleaned(&all, &[rectangle]).unwrap();
        let gaps: Vec<usize> = result.iter().map(|row| row.matches('.').count()).collect();
        // From 2 to 9 across, from 3 to 5.5 down: the middle of the sixth row lies on its edge.
        assert_eq!(gaps, [0, 0, 0, 7, 7, 7, 0, 0, 0, 0]);
        // A stroke 4 wide from 3.5, 5 to 6.5, 5 has a half circle at each end.
        let stroke = Rework::Stroke { points: vec![[0.35, 0.5], [0.65, 0.5]], width: 0.4 };
        let result = cleaned(&all, &[stroke]).unwrap();
        let gaps: Vec<usize> = result.iter().map(|row| row.matches('.').count()).collect();
        assert_eq!(gaps, [0, 0, 0, 6, 6, 6, 6, 0, 0, 0]);
        let dot = Rework::Stroke { points: vec![[0.5, 0.5]], width: 0.2 };
        let gaps = cleaned(&all, &[dot]).unwrap().concat().matches('.').count();
        assert_eq!(gaps, 4);
    }

    #[test]
    fn what_leaves_nothing_is_named() {
        let nothing = cleaned(&["..", ".."], &[background(Reach::Everywhere, 1.0)]);
        assert_eq!(nothing, Err(CleanError::NothingLeft("Drop the background")));
        let beside = cleaned(&["#."], &[background(Reach::Point([1.4, 0.0]), 1.0)]);
        assert_eq!(beside, Err(CleanError::Outside("Drop the background")));
        let part = Rework::Part { part: 0, hidden: true, moved: [0.0; 2], colour: None };
        assert_eq!(cleaned(&["#."], &[part]), Err(CleanError::OfDrawing("Change a part")));
        assert!(Pixels::new(2, 2, vec![9; 12]).is_none());
    }
}
