//! Pictures of sheets that were rehearsed lately, for the page that asked for them.

use std::collections::VecDeque;
use std::sync::{Arc, Mutex, PoisonError};

use aptum_devices::Picture;
use aptum_formats::picture::rgb_png;

/// So many are kept.
const MOST: usize = 12;

/// Pixels in a millimetre: enough to look at.
const FINE: f64 = 5.0;

/// The last few pictures.
#[derive(Debug, Default)]
pub struct Pictures(Mutex<Kept>);

/// How many there were, and the last of them with their numbers.
#[derive(Debug, Default)]
struct Kept {
    count: u64,
    last: VecDeque<(u64, Arc<[u8]>)>,
}

impl Pictures {
    /// Keeps a picture as PNG, with fewer pixels; what it is asked for by. `None` where it cannot be coded.
    pub fn keep(&self, picture: &Picture) -> Option<u64> {
        let bytes: Arc<[u8]> = coded(picture)?.into();
        let mut kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        kept.count += 1;
        let id = kept.count;
        kept.last.push_back((id, bytes));
        if kept.last.len() > MOST {
            kept.last.pop_front();
        }
        Some(id)
    }

    /// A picture.
    #[must_use]
    pub fn get(&self, id: u64) -> Option<Arc<[u8]>> {
        let kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        kept.last.iter().find(|own| own.0 == id).map(|own| Arc::clone(&own.1))
    }
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "pixels of a sheet")]
fn coded(picture: &Picture) -> Option<Vec<u8>> {
    let each = (picture.fine / FINE).round().max(1.0) as usize;
    let (width, height) = (picture.width / each, picture.height / each);
    let mut bytes = Vec::with_capacity(width * height * 3);
    for y in 0..height {
        for x in 0..width {
            let mut sum = [0_usize; 3];
            for row in 0..each {
                for own in 0..each {
                    let pixel = picture.pixels[(y * each + row) * picture.width + x * each + own];
                    for channel in 0..3 {
                        sum[channel] += usize::from(pixel[channel]);
                    }
                }
            }
            bytes.extend(sum.map(|own| (own / (each * each)) as u8));
        }
    }
    let (width, height) = (u32::try_from(width).ok()?, u32::try_from(height).ok()?);
    rgb_png(width, height, &bytes)
}
