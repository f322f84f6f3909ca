//! Room on the sheet, outside the pieces, for a scale to check the print with and for the code.

use kurbo::{Rect, Vec2};

use super::{Placement, Windows};
use crate::geometry::{BezPath, Outline};
use crate::units::{INCH, Unit};

/// Where the notes go on one sheet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Notes {
    /// The scale and the code beside it.
    pub place: Rect,
    /// Length of the printed scale in mm.
    pub scale: f64,
}

/// Height of the notes, mm: figures above a ruled line.
const HEIGHT: f64 = 7.0;

/// Room beside the scale for the code, mm.
const CODE: f64 = 34.0;

/// Distance from cuts and from the window's edge, mm.
const CLEAR: f64 = 1.0;

/// How finely room is searched for, mm.
const STEP: f64 = 3.0;

/// Lengths of scale to try, mm: a longer one shows a smaller error.
const fn scales(unit: Unit) -> [f64; 3] {
    match unit {
        Unit::Mm | Unit::Cm => [100.0, 50.0, 20.0],
        Unit::In => [4.0 * INCH, 2.0 * INCH, INCH],
    }
}

/// What copies and marks leave of a sheet's print window.
#[derive(Debug, Clone)]
pub struct FreeRoom {
    base: Rect,
    taken: Vec<Outline>,
}

impl FreeRoom {
    /// The room on a sheet with these copies; `outlines` are those of the parts, in order.
    #[must_use]
    pub fn new(windows: &Windows, outlines: &[&BezPath], placements: &[Placement]) -> Self {
        let copies = placements.iter().filter_map(|placement| {
            Outline::of_path(&placement.place(outlines.get(placement.part)?))
        });
        let taken = copies.chain(windows.print.obstacles.iter().cloned()).collect();
        Self { base: windows.print.base, taken }
    }

    /// Leaves `place` out, since something else stands there.
    pub fn without(&mut self, place: Rect) {
        self.taken.extend(block(place));
    }

    /// Takes an upright rectangle of `size`, as near as possible to the foot, if there is room.
    pub fn take(&mut self, size: Vec2) -> Option<Rect> {
        let base = self.base.inset(-CLEAR);
        let mut y = base.y1 - size.y;
        while y >= base.y0 {
            let mut x = base.x0;
            while x + size.x <= base.x1 {
                let place = Rect::from_origin_size((x, y), (size.x, size.y));
                let block = block(place.inflate(CLEAR, CLEAR))?;
                let in_the_way = self.taken.iter().find(|other| block.overlaps_at(0.0, 0.0, other));
                if in_the_way.is_none() {
                    self.taken.push(block);
                    return Some(place);
                }
                x += STEP;
            }
            y -= STEP;
        }
        None
    }
}

fn block(rect: Rect) -> Option<Outline> {
    let corners = [(rect.x0, rect.y0), (rect.x1, rect.y0), (rect.x1, rect.y1), (rect.x0, rect.y1)];
    Outline::new(corners.into_iter().map(Into::into).collect())
}

/// Takes room for the notes: the longest scale that has any. `None` without room, since pieces
/// must not carry them.
#[must_use]
pub fn place_notes(room: &mut FreeRoom, unit: Unit) -> Option<Notes> {
    scales(unit).into_iter().find_map(|scale| {
        room.take(Vec2::new(scale + CODE, HEIGHT)).map(|place| Notes { place, scale })
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::Shape;
    use crate::sheet::{Machines, Marks, Orientation};

    #[test]
    fn notes_take_the_room_there_is_and_never_a_piece() {
        let page = Rect::new(0.0, 0.0, 140.0, 100.0);
        let windows = Machines::default().windows(page, Orientation::Portrait, &Marks::default());
        let copy = |height: f64| Rect::new(0.0, 0.0, 140.0, height).to_path(0.01);
        let at = [Placement { part: 0, x: 0.0, y: 0.0, turn: 0.0, locked: false }];
        let mut room = FreeRoom::new(&windows, &[&copy(50.0)], &at);
        let notes = place_notes(&mut room, Unit::Mm).unwrap();
        assert!((notes.scale - 100.0).abs() < f64::EPSILON);
        assert!(notes.place.y0 > 50.0 && notes.place.y1 < 100.0);
        let next = room.take(Vec2::new(40.0, 20.0)).unwrap();
        assert_eq!(next.intersect(notes.place).area(), 0.0);
        let mut full = FreeRoom::new(&windows, &[&copy(95.0)], &at);
        assert_eq!(place_notes(&mut full, Unit::In), None);
    }
}
