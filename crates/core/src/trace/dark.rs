//! What is dark in a picture, as it lies there: nothing is made smooth and nothing left out but specks.

use kurbo::{BezPath, Shape};

use super::inside::Inside;
use super::{InsideBy, rings};
use crate::pixels::Pixels;

/// Half way from white to black.
const DARK: f32 = 0.5;

/// Smaller than this, px², is a speck.
const SPECK: f64 = 9.0;

/// Most pixels that are looked at one by one: beyond, several are taken as one.
const MOST: usize = 16_000_000;

/// The edges around and within all that is dark on white, each closed, in pixels from the top left corner.
#[must_use]
pub fn dark_edges(pixels: &Pixels) -> Vec<BezPath> {
    let [width, height] = pixels.sides();
    let mut step = 1;
    while (width / step) * (height / step) > MOST {
        step += 1;
    }
    let inside = Inside::of(pixels, &InsideBy::Darkness, [0, 0, width, height], step);
    let found = rings::rings(&inside, DARK).into_iter();
    let edges = found.filter(|ring| rings::area(ring).abs() > SPECK).map(|ring| {
        let scale = kurbo::Affine::scale(f64::from(u32::try_from(step).unwrap_or(1)));
        scale * crate::geometry::polygon(&ring)
    });
    edges.filter(|edge| edge.area().abs() > 0.0).collect()
}
