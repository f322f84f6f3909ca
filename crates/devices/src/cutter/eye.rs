//! The eye: sees a small square of the bed wherever the head stands.

use aptum_core::geometry::{Affine, Point};

use crate::Picture;
use crate::picture::lightness;

/// What lies on the bed.
#[derive(Debug, Clone)]
pub struct Bed {
    width: usize,
    height: usize,
    fine: f64,
    light: Vec<u8>,
    back: Affine,
}

/// How light the bed's own mat is.
const MAT: f64 = 150.0;

impl Bed {
    /// A sheet on the bed; `place` says where each point of it lies, mm.
    ///
    /// # Panics
    /// Never: a sheet that has no width is none.
    #[must_use]
    pub fn new(sheet: &Picture, place: Affine) -> Self {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255")]
        let light = sheet.pixels.iter().map(|own| lightness(own.map(f64::from)).round() as u8);
        let back =
            if place.determinant().abs() < 1e-9 { Affine::IDENTITY } else { place.inverse() };
        let (width, height, fine) = (sheet.width, sheet.height, sheet.fine);
        Self { width, height, fine, light: light.collect(), back }
    }

    /// Nothing lies on it.
    #[must_use]
    pub const fn empty() -> Self {
        Self { width: 0, height: 0, fine: 1.0, light: Vec::new(), back: Affine::IDENTITY }
    }

    /// True where nothing lies on it.
    #[must_use]
    pub const fn is_empty(&self) -> bool {
        self.light.is_empty()
    }

    /// How light it is at a place, 0 to 255.
    fn light(&self, at: Point) -> f64 {
        let own = self.back * at;
        let (x, y) = (own.x * self.fine - 0.5, own.y * self.fine - 0.5);
        let (left, top) = (x.floor(), y.floor());
        let is_on = |x: f64, y: f64| {
            x >= 0.0 && y >= 0.0 && x < self.width as f64 && y < self.height as f64
        };
        let pixel = |x: f64, y: f64| {
            if !is_on(x, y) {
                return MAT;
            }
            #[expect(
                clippy::cast_possible_truncation,
                clippy::cast_sign_loss,
                reason = "on the sheet"
            )]
            let at = y as usize * self.width + x as usize;
            f64::from(self.light[at])
        };
        let (right, down) = (x - left, y - top);
        let upper = pixel(left, top) * (1.0 - right) + pixel(left + 1.0, top) * right;
        let lower = pixel(left, top + 1.0) * (1.0 - right) + pixel(left + 1.0, top + 1.0) * right;
        upper * (1.0 - down) + lower * down
    }
}

/// An eye above a bed.
#[derive(Debug)]
pub struct Eye<'a> {
    bed: &'a Bed,
    /// How often it has looked.
    pub looks: u32,
    /// How far off a mark is set by who looks through it, mm, the standard deviation along each axis.
    pub(super) hand: f64,
}

/// What the eye sees from one place.
#[derive(Debug, Clone)]
pub(super) struct View {
    /// Its upper left corner on the bed.
    corner: Point,
    light: Vec<f32>,
}

/// What it sees is a square of so many mm.
pub(super) const SIDE: f64 = 20.0;

/// With so many pixels in a millimetre.
const FINE: f64 = 16.0;

/// Its pixels across.
const PIXELS: usize = 320;

impl<'a> Eye<'a> {
    /// An eye above a bed.
    #[must_use]
    pub const fn new(bed: &'a Bed) -> Self {
        Self { bed, looks: 0, hand: 0.0 }
    }

    /// A person's eye, and a hand that sets crosshairs so far off.
    #[must_use]
    pub const fn by_hand(bed: &'a Bed, hand: f64) -> Self {
        Self { bed, looks: 0, hand }
    }

    /// Looks, with the head above a place.
    pub(super) fn look(&mut self, head: Point) -> View {
        self.looks += 1;
        let corner = Point::new(head.x - SIDE / 2.0, head.y - SIDE / 2.0);
        let mut light = Vec::with_capacity(PIXELS * PIXELS);
        for y in 0..PIXELS {
            for x in 0..PIXELS {
                let at = Point::new(
                    corner.x + (x as f64 + 0.5) / FINE,
                    corner.y + (y as f64 + 0.5) / FINE,
                );
                #[expect(clippy::cast_possible_truncation, reason = "0 to 255")]
                light.push(self.bed.light(at) as f32);
            }
        }
        View { corner, light }
    }
}

impl View {
    /// How light a place of the bed is, between the pixels around it; `None` beside what is seen.
    pub fn light(&self, at: Point) -> Option<f64> {
        let (x, y) = ((at.x - self.corner.x) * FINE - 0.5, (at.y - self.corner.y) * FINE - 0.5);
        let most = PIXELS as f64 - 1.0;
        if !(x >= 0.0 && y >= 0.0 && x < most && y < most) {
            return None;
        }
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "looked at")]
        let (left, top) = (x as usize, y as usize);
        let (right, down) = (x - left as f64, y - top as f64);
        let pixel = |dx: usize, dy: usize| f64::from(self.light[(top + dy) * PIXELS + left + dx]);
        let upper = pixel(0, 0) * (1.0 - right) + pixel(1, 0) * right;
        let lower = pixel(0, 1) * (1.0 - right) + pixel(1, 1) * right;
        Some(upper * (1.0 - down) + lower * down)
    }

    /// The nearest pixel, which is quicker.
    pub fn rough(&self, at: Point) -> Option<f32> {
        let (x, y) = ((at.x - self.corner.x) * FINE, (at.y - self.corner.y) * FINE);
        let most = PIXELS as f64;
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "looked at")]
        (x >= 0.0 && y >= 0.0 && x < most && y < most)
            .then(|| self.light[y as usize * PIXELS + x as usize])
    }
}
