//! Room on the sheet, outside the pieces, for a scale to check the print with and for the code.

use kurbo::{Rect, Vec2};

use super::{Placement, Windows};
use crate::geometry::{BezPath, Outline};

/// Where the notes go on one sheet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Notes {
    /// The scale and the code beside or below it.
    pub place: Rect,
    /// Length of the printed scale in mm.
    pub scale: f64,
}

/// Lengths of scale to try, mm: a longer one shows a smaller error.
const SCALES: [f64; 3] = [100.0, 50.0, 20.0];

/// Height of the notes, mm: figures above a ruled line.
const HEIGHT: f64 = 7.0;

/// Room beside the scale for the code, mm.
const CODE: f64 = 30.0;

/// Distance from cuts and from the window's edge, mm.
const CLEAR: f64 = 1.0;

/// How finely room is searched for, mm.
const STEP: f64 = 3.0;

/// Finds room for the notes on a sheet with these copies: the longest scale, as near as possible to
/// the foot. `None` when there is no room, since pieces must not carry them.
#[must_use]
pub fn place_notes(
    windows: &Windows,
    outline: &BezPath,
    placements: &[Placement],
) -> Option<Notes> {
    let copies: Vec<Outline> = placements
        .iter()
        .filter_map(|placement| Outline::of_path(&placement.place(outline)))
        .collect();
    SCALES.into_iter().find_map(|scale| {
        find(windows, &copies, Vec2::new(scale + CODE, HEIGHT)).map(|place| Notes { place, scale })
    })
}

/// Room for an upright rectangle of `size`, clear of the copies.
pub(super) fn find(windows: &Windows, copies: &[Outline], size: Vec2) -> Option<Rect> {
    let base = windows.print.base.inset(-CLEAR);
    let (mut y, top) = (base.y1 - size.y, base.y0);
    while y >= top {
        let mut x = base.x0;
        while x + size.x <= base.x1 {
            let place = Rect::from_origin_size((x, y), (size.x, size.y));
            let room = place.inflate(CLEAR, CLEAR);
            let corners =
                [(room.x0, room.y0), (room.x1, room.y0), (room.x1, room.y1), (room.x0, room.y1)];
            let block = Outline::new(corners.into_iter().map(Into::into).collect())?;
            let in_the_way = copies
                .iter()
                .chain(&windows.print.obstacles)
                .find(|other| block.overlaps_at(0.0, 0.0, other));
            match in_the_way {
                None => return Some(place),
                Some(_) => x += STEP,
            }
        }
        y -= STEP;
    }
    None
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::Shape;
    use crate::sheet::{Machines, Marks, Orientation};

    #[test]
    fn notes_take_the_room_there_is_and_never_a_piece() {
        let page = Rect::new(0.0, 0.0, 140.0, 100.0);
        let windows = Machines { printer: None, cutter: None }.windows(
            page,
            Orientation::Portrait,
            &Marks::default(),
        );
        let copy = |height: f64| Rect::new(0.0, 0.0, 140.0, height).to_path(0.01);
        let at = [Placement { x: 0.0, y: 0.0, turn: 0 }];
        let roomy = place_notes(&windows, &copy(50.0), &at).unwrap();
        assert!((roomy.scale - 100.0).abs() < f64::EPSILON);
        assert!(roomy.place.y0 > 50.0 && roomy.place.y1 < 100.0);
        assert_eq!(place_notes(&windows, &copy(95.0), &at), None);
    }
}
