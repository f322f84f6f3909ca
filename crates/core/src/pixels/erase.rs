//! The eraser: a rectangle, and what lies along a stroke.

use super::{Pixels, floor, real};

impl Pixels {
    pub(super) fn erase_rectangle(&mut self, [one, other]: [[f64; 2]; 2]) {
        let (width, height) = (real(self.width), real(self.height));
        let span = |a: f64, b: f64, side: f64| (a.min(b) * side, a.max(b) * side);
        let (left, right) = span(one[0], other[0], width);
        let (top, bottom) = span(one[1], other[1], height);
        for row in 0..self.height {
            let middle = real(row) + 0.5;
            if (top..=bottom).contains(&middle) {
                self.erase_between(row, left, right);
            }
        }
    }

    /// Makes clear what is no further than half of `width`, a share of the longer side, from a run of lines.
    pub(super) fn erase_along(&mut self, points: &[[f64; 2]], width: f64) {
        let (across, down) = (real(self.width), real(self.height));
        let radius = width * across.max(down) / 2.0;
        let points: Vec<[f64; 2]> = points.iter().map(|[x, y]| [x * across, y * down]).collect();
        let mut spans = Vec::new();
        for row in 0..self.height {
            let middle = real(row) + 0.5;
            spans.clear();
            spans.extend(points.iter().filter_map(|point| disc(*point, radius, middle)));
            spans.extend(points.windows(2).filter_map(|pair| band(pair, radius, middle)));
            spans.sort_by(|a: &[f64; 2], b| a[0].total_cmp(&b[0]));
            // Each stretch once, however many strokes pass it.
            let mut done = 0.0f64;
            for [from, to] in &spans {
                if *to > done {
                    self.erase_between(row, from.max(done - 1.0), *to);
                    done = real(floor(*to));
                }
            }
        }
    }
}

/// Where a row crosses a disc.
fn disc([x, y]: [f64; 2], radius: f64, row: f64) -> Option<[f64; 2]> {
    let half = (radius * radius - (row - y).powi(2)).sqrt();
    (half >= 0.0).then_some([x - half, x + half])
}

/// Where a row crosses the band along a line.
fn band(pair: &[[f64; 2]], radius: f64, row: f64) -> Option<[f64; 2]> {
    let [[ax, ay], [bx, by]] = [pair[0], pair[1]];
    let length = (bx - ax).hypot(by - ay);
    if length == 0.0 {
        return None;
    }
    let (nx, ny) = ((ay - by) / length * radius, (bx - ax) / length * radius);
    let corners = [[ax + nx, ay + ny], [bx + nx, by + ny], [bx - nx, by - ny], [ax - nx, ay - ny]];
    let (mut from, mut to) = (f64::INFINITY, f64::NEG_INFINITY);
    for (at, [px, py]) in corners.iter().enumerate() {
        let [qx, qy] = corners[(at + 1) % 4];
        if (py.min(qy)..=py.max(qy)).contains(&row) {
            let share = if qy == *py { 0.0 } else { (row - py) / (qy - py) };
            let x = px + share * (qx - px);
            (from, to) = (from.min(x), to.max(x));
        }
    }
    (from <= to).then_some([from, to])
}
