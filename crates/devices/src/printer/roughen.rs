//! What paper and ink do to sharp edges and even colours.

use crate::Picture;

/// Blurs by a bell of that radius (standard deviation), mm: down and across, one after the other.
pub(super) fn blur(picture: &mut Picture, radius: f64) {
    let sigma = radius * picture.fine;
    if sigma < 0.05 {
        return;
    }
    #[expect(clippy::cast_possible_truncation, reason = "a few pixels")]
    let reach = (sigma * 3.0).ceil().clamp(1.0, 16.0) as i32;
    let mut weights: Vec<f32> = (-reach..=reach)
        .map(|at| {
            let off = f64::from(at) / sigma;
            #[expect(clippy::cast_possible_truncation, reason = "a share")]
            {
                (-0.5 * off * off).exp() as f32
            }
        })
        .collect();
    let sum: f32 = weights.iter().sum();
    weights.iter_mut().for_each(|own| *own /= sum);
    for along in [false, true] {
        picture.pixels = blurred(picture, &weights, weights.len() / 2, along);
    }
}

fn blurred(picture: &Picture, weights: &[f32], reach: usize, along: bool) -> Vec<[u8; 3]> {
    let (width, height) = (picture.width, picture.height);
    let mut result = picture.pixels.clone();
    let (step, long) = if along { (width, height) } else { (1, width) };
    // How many pixels before this one are like it, for each line: most of a sheet is even, and stays as it is.
    let mut alike = vec![0_usize; if along { width } else { 1 }];
    for y in 0..height {
        for x in 0..width {
            let here = y * width + x;
            let (own, line) = if along { (y, x) } else { (x, 0) };
            let pixel = picture.pixels[here];
            let is_alike = own > 0 && picture.pixels[here - step] == pixel;
            alike[line] = if is_alike { alike[line] + 1 } else { 0 };
            let is_last = own + 1 == long;
            if own < reach || (alike[line] >= 2 * reach && !is_last) {
                continue;
            }
            let centres =
                if is_last { own - reach.min(own)..=own } else { own - reach..=own - reach };
            for centre in centres {
                let at = here - (own - centre) * step;
                result[at] = bell(picture, weights, reach, at, (centre, long, step));
            }
        }
    }
    result
}

/// One pixel, and its neighbours by their weights; the last stand for those beyond the edge.
fn bell(
    picture: &Picture,
    weights: &[f32],
    reach: usize,
    at: usize,
    (centre, long, step): (usize, usize, usize),
) -> [u8; 3] {
    let mut mixed = [0.0_f32; 3];
    for (tap, weight) in weights.iter().enumerate() {
        let other = (centre + tap).saturating_sub(reach).min(long - 1);
        let from = picture.pixels[at - centre * step + other * step];
        for channel in 0..3 {
            mixed[channel] += weight * f32::from(from[channel]);
        }
    }
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255")]
    {
        mixed.map(|own| own.round() as u8)
    }
}

/// Makes each pixel lighter or darker by up to that share of black.
pub(super) fn grain(picture: &mut Picture, share: f64, seed: u64) {
    if share <= 0.0 {
        return;
    }
    let mut random = fastrand::Rng::with_seed(seed ^ 0x9e37_79b9_7f4a_7c15);
    #[expect(clippy::cast_possible_truncation, reason = "0 to 255")]
    let most = (share * 255.0).round().clamp(1.0, 255.0) as i16;
    for pixel in &mut picture.pixels {
        let by = random.i16(-most..=most);
        for channel in pixel {
            *channel = u8::try_from((i16::from(*channel) + by).clamp(0, 255)).unwrap_or(255);
        }
    }
}
