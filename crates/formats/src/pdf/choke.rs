//! What an ink covers, drawn in or spread by a distance.

/// From here on a pixel counts as covered: half of 255.
const COVERED: u8 = 128;

/// How much the pixels of a picture cover when what is covered is drawn in by these shares of its sides; below zero it
/// spreads.
pub(super) fn choked([width, height]: [u32; 2], alpha: Vec<u8>, shares: [f64; 2]) -> Vec<u8> {
    let (across, along) = (width as usize, height as usize);
    let radii = [shares[0].abs() * f64::from(width), shares[1].abs() * f64::from(height)];
    if radii[0] < 0.05 || radii[1] < 0.05 || across * along != alpha.len() || alpha.len() < 2 {
        return alpha;
    }
    let is_spread = shares[0] < 0.0;
    // In units of the radius, which differ across and along where the picture is stretched.
    let steps = radii.map(|radius| 1.0 / radius);
    let distances = distances([across, along], steps, |at| (alpha[at] >= COVERED) == is_spread);
    let pixel = (steps[0] * steps[1]).sqrt();
    let choke = |(own, distance): (u8, f32)| {
        // The edge lies about half a pixel before the first pixel on its other side.
        let past = (f64::from(distance.sqrt()) - 1.0) / pixel;
        if is_spread { own.max(byte(1.0 - past)) } else { own.min(byte(past)) }
    };
    alpha.into_iter().zip(distances).map(choke).collect()
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255")]
fn byte(share: f64) -> u8 {
    (share.clamp(0.0, 1.0) * 255.0).round() as u8
}

/// The square of the distance from each pixel's middle to the next that counts. P. Felzenszwalb and D. Huttenlocher,
/// “Distance Transforms of Sampled Functions”, Theory of Computing 8 (2012).
fn distances(
    [across, along]: [usize; 2],
    steps: [f64; 2],
    counts: impl Fn(usize) -> bool,
) -> Vec<f32> {
    let mut field: Vec<f32> =
        (0..across * along).map(|at| if counts(at) { 0.0 } else { FAR }).collect();
    let mut line = Vec::new();
    for column in 0..across {
        line.clear();
        line.extend(field.iter().skip(column).step_by(across));
        let own = field.iter_mut().skip(column).step_by(across);
        own.zip(along_line(&line, steps[1])).for_each(|(own, new)| *own = new);
    }
    for row in field.chunks_exact_mut(across) {
        line.clear();
        line.extend_from_slice(row);
        row.iter_mut().zip(along_line(&line, steps[0])).for_each(|(own, new)| *own = new);
    }
    field
}

/// Farther than any pixel, squared.
const FAR: f32 = 1e20;

/// The lowest of the parabolas that stand on a line's values, at each of its places.
fn along_line(line: &[f32], step: f64) -> impl Iterator<Item = f32> {
    let place = |at: usize| at as f64 * step;
    let foot = |at: usize| f64::from(line[at]) + place(at).powi(2);
    // Which parabolas are lowest somewhere, and from where.
    let mut lowest: Vec<(usize, f64)> = Vec::new();
    for at in (0..line.len()).filter(|at| line[*at] < FAR) {
        let mut from = f64::NEG_INFINITY;
        while let Some((last, since)) = lowest.last() {
            from = (foot(at) - foot(*last)) / (2.0 * (place(at) - place(*last)));
            if from > *since {
                break;
            }
            lowest.pop();
            from = f64::NEG_INFINITY;
        }
        lowest.push((at, from));
    }
    let mut now = 0;
    (0..line.len()).map(move |at| {
        let Some(first) = lowest.get(now) else { return FAR };
        let mut own = first.0;
        while let Some((next, from)) = lowest.get(now + 1)
            && *from <= at as f64 * step
        {
            (own, now) = (*next, now + 1);
        }
        let off = (at as f64 - own as f64) * step;
        #[expect(clippy::cast_possible_truncation, reason = "as it came")]
        let height = off.mul_add(off, f64::from(line[own])) as f32;
        height
    })
}
