//! Copies in rows, one beside the other, as long as a row has room.

use kurbo::{Point, Size};

/// Rows of things of these sizes, in their order.
#[derive(Debug)]
pub(super) struct Rows {
    /// The middle of each, from the rows' top left corner, mm, and whether it lies within the height that there is.
    pub middles: Vec<(Point, bool)>,
    /// How wide and high they are, mm, all of them.
    pub size: Size,
}

/// Lays things in rows that are so wide at most and so high together; each row is centred, and what is lower than its
/// row lies in the row's middle.
pub(super) fn rows(sizes: &[Size], width: f64, height: f64, gap: f64) -> Rows {
    const NOISE: f64 = 1e-6;
    let mut rows: Vec<(Vec<usize>, Size)> = Vec::new();
    for (at, size) in sizes.iter().enumerate() {
        let fits =
            rows.last().is_some_and(|(_, row)| row.width + gap + size.width <= width + NOISE);
        match rows.last_mut().filter(|_| fits) {
            Some((things, row)) => {
                things.push(at);
                *row = Size::new(row.width + gap + size.width, row.height.max(size.height));
            }
            None => rows.push((vec![at], *size)),
        }
    }
    let across = rows.iter().map(|(_, row)| row.width).fold(0.0, f64::max);
    let wide = if width.is_finite() { width } else { across };
    let mut middles = vec![(Point::ZERO, false); sizes.len()];
    let mut top = 0.0;
    for (things, row) in &rows {
        let mut left = (wide - row.width) / 2.0;
        for at in things {
            let size = sizes[*at];
            let fits = top + row.height <= height + NOISE && row.width <= width + NOISE;
            middles[*at] = (Point::new(left + size.width / 2.0, top + row.height / 2.0), fits);
            left += size.width + gap;
        }
        top += row.height + gap;
    }
    Rows { middles, size: Size::new(across, (top - gap).max(0.0)) }
}

/// How wide rows become for things of these sizes to lie in about a rectangle half as high again as it is wide.
pub(super) fn balanced(sizes: &[Size], gap: f64) -> f64 {
    const UPRIGHT: f64 = 1.4;
    let room = |size: &Size| (size.width + gap) * (size.height + gap);
    let area: f64 = sizes.iter().map(room).sum();
    let widest = sizes.iter().map(|size| size.width).fold(0.0, f64::max);
    let try_width = (area / UPRIGHT).sqrt().max(widest);
    // The width that rows really take, which the last rows may leave free.
    rows(sizes, try_width, f64::INFINITY, gap).size.width.max(widest)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_row_takes_what_has_room_and_the_next_begins_below_it() {
        let size = |width, height| Size::new(width, height);
        let own = rows(&[size(30.0, 10.0), size(20.0, 20.0), size(40.0, 5.0)], 55.0, 100.0, 3.0);
        let at: Vec<Point> = own.middles.iter().map(|(at, _)| *at).collect();
        // 30, 3 and 20 are 53: a millimetre free on both sides of 55.
        assert_eq!(at, [Point::new(16.0, 10.0), Point::new(44.0, 10.0), Point::new(27.5, 25.5)]);
        assert_eq!(own.size, size(53.0, 28.0));
        assert!(own.middles.iter().all(|(_, fits)| *fits));
        let low = rows(&[size(30.0, 10.0), size(20.0, 20.0), size(40.0, 5.0)], 55.0, 22.0, 3.0);
        assert_eq!(low.middles.iter().filter(|(_, fits)| *fits).count(), 2);
        assert!(!rows(&[size(60.0, 5.0)], 55.0, 22.0, 3.0).middles[0].1, "wider than the rows");
    }
}
