//! Room on the sheet, outside the pieces, for a scale to check the print with and for the code.

use kurbo::{Affine, Point, Rect, Vec2};

use super::{Placement, Windows};
use crate::geometry::{BezPath, Outline};
use crate::units::{INCH, Unit};

/// How scale and code stand to each other.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum NotesForm {
    /// The code to the right of a scale of so many mm.
    Beside(f64),
    /// The code above a scale of so many mm.
    Above(f64),
    /// The code alone.
    Code,
}

/// Where the notes go on one sheet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Notes {
    /// What they take.
    pub place: Rect,
    /// Scale and code, or the code alone.
    pub form: NotesForm,
    /// True where they are read from the right, along the sheet's side.
    pub turned: bool,
}

impl Notes {
    /// Length of the printed scale, mm, where there is one.
    #[must_use]
    pub const fn scale(&self) -> Option<f64> {
        match self.form {
            NotesForm::Beside(scale) | NotesForm::Above(scale) => Some(scale),
            NotesForm::Code => None,
        }
    }

    /// Maps a frame whose origin is the notes' upper left corner as they are read to the sheet.
    #[must_use]
    pub fn frame(&self) -> Affine {
        if self.turned {
            Affine::new([0.0, -1.0, 1.0, 0.0, self.place.x0, self.place.y1])
        } else {
            Affine::translate((self.place.x0, self.place.y0))
        }
    }

    /// Their height as they are read, mm.
    #[must_use]
    pub fn height(&self) -> f64 {
        if self.turned { self.place.width() } else { self.place.height() }
    }
}

/// Height of figures above a ruled line, mm.
const HEIGHT: f64 = 7.0;

/// Height of a line of words, mm.
pub const LINE: f64 = 3.6;

/// Room for a character of the code, mm.
const CHARACTER: f64 = 1.55;

/// Distance from cuts and from the window's edge, mm.
const CLEAR: f64 = 1.0;

/// Lengths of scale to try, mm: a longer one shows a smaller error.
const fn scales(unit: Unit) -> [f64; 3] {
    match unit {
        Unit::Mm | Unit::Cm => [100.0, 50.0, 20.0],
        Unit::In => [4.0 * INCH, 2.0 * INCH, INCH],
    }
}

/// Side of a square code with its clear space, mm: 21 modules and four on each side (ISO/IEC 18004, version 1), each of which an
/// eye sees in several pixels.
pub const SQUARE: f64 = 29.0 * MODULE;

/// Side of one of its modules, mm.
pub const MODULE: f64 = 0.4;

/// What copies and marks leave of a sheet's print window.
#[derive(Debug, Clone)]
pub struct FreeRoom {
    base: Rect,
    taken: Vec<Outline>,
    cells: Cells,
}

impl FreeRoom {
    /// The room on a sheet with these copies; `blanks` holds, for each of the job's blanks, what it takes:
    /// its outline and what is printed past it.
    #[must_use]
    pub fn new(windows: &Windows, blanks: &[Vec<&BezPath>], placements: &[Placement]) -> Self {
        let outlines: Vec<Vec<Outline>> = blanks
            .iter()
            .map(|paths| paths.iter().filter_map(|path| Outline::of_path(path)).collect())
            .collect();
        let copies = placements.iter().flat_map(|at| {
            let own = outlines.get(at.part).into_iter().flatten();
            own.map(|outline| outline.transformed(at.transform()))
        });
        let taken: Vec<Outline> = copies.chain(windows.print.obstacles.iter().cloned()).collect();
        let base = windows.print.base;
        let mut cells = Cells::new(base);
        for outline in &taken {
            cells.fill(outline);
        }
        cells.count(0);
        Self { base, taken, cells }
    }

    /// Leaves `place` out, since something else stands there.
    pub fn without(&mut self, place: Rect) {
        if let Some(block) = block(place) {
            let from = self.cells.fill(&block);
            self.cells.count(from);
            self.taken.push(block);
        }
    }

    /// Takes an upright rectangle of `size`, as near as possible to the foot, if there is room.
    pub fn take(&mut self, size: Vec2) -> Option<Rect> {
        let base = self.base.inset(-CLEAR);
        let step = self.cells.side;
        let mut y = base.y1 - size.y;
        let mut tries = MOST_TRIES;
        while y >= base.y0 {
            let mut x = base.x0;
            while x + size.x <= base.x1 {
                let place = Rect::from_origin_size((x, y), (size.x, size.y));
                if self.cells.is_free(place.inflate(CLEAR, CLEAR)) {
                    if self.is_free(place) {
                        self.without(place.inflate(CLEAR, CLEAR));
                        return Some(place);
                    }
                    tries -= 1;
                    if tries == 0 {
                        return None;
                    }
                }
                x += step;
            }
            y -= step;
        }
        None
    }

    /// True when nothing meets the place or comes too near to it.
    fn is_free(&self, place: Rect) -> bool {
        let place = place.inflate(CLEAR, CLEAR);
        let Some(block) = block(place) else { return false };
        !self
            .taken
            .iter()
            .any(|other| other.bounds().overlaps(place) && block.overlaps_at(0.0, 0.0, other))
    }
}

/// Places that look free by their cells and are not: so many are looked at closely before giving up.
const MOST_TRIES: u32 = 400;

/// The window in square cells, each taken when its middle is; sums over rectangles tell at once whether
/// one is free, however many copies there are.
#[derive(Debug, Clone)]
struct Cells {
    side: f64,
    origin: Point,
    across: usize,
    along: usize,
    taken: Vec<bool>,
    /// How many cells above and to the left of a corner are taken.
    sums: Vec<u32>,
}

impl Cells {
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a page in cells")]
    fn new(base: Rect) -> Self {
        let side = (base.area() / 60_000.0).sqrt().clamp(1.0, 3.0);
        let count = |long: f64| ((long / side).ceil() as usize).min(4000);
        let (across, along) = (count(base.width()), count(base.height()));
        let (taken, sums) = (vec![false; across * along], vec![0; (across + 1) * (along + 1)]);
        Self { side, origin: base.origin(), across, along, taken, sums }
    }

    /// The cells whose middles lie between two places, from and past.
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
    fn range(&self, from: f64, to: f64, start: f64, count: usize) -> std::ops::Range<usize> {
        let at = |place: f64| {
            ((place - start) / self.side - 0.5).ceil().clamp(0.0, count as f64) as usize
        };
        at(from)..at(to)
    }

    /// Takes what an outline covers; gives the first row that it may touch.
    fn fill(&mut self, outline: &Outline) -> usize {
        let bounds = outline.bounds();
        let rows = self.range(bounds.y0, bounds.y1, self.origin.y, self.along);
        let columns = self.range(bounds.x0, bounds.x1, self.origin.x, self.across);
        // An edge that crosses the middle of a row turns all that is right of it: inside is what is turned an odd
        // number of times.
        let width = columns.len() + 1;
        let mut turns = vec![false; rows.len() * width];
        for (a, b) in outline.edges() {
            let own = self.range(a.y.min(b.y), a.y.max(b.y), self.origin.y, self.along);
            // One row more at either end, for what rounding does.
            let own = own.start.saturating_sub(1).max(rows.start)..(own.end + 1).min(rows.end);
            for row in own {
                let y = self.origin.y + (row as f64 + 0.5) * self.side;
                if (a.y > y) != (b.y > y) {
                    let x = a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y);
                    let column = self.range(x, x, self.origin.x, self.across).start;
                    let column = column.clamp(columns.start, columns.end) - columns.start;
                    turns[(row - rows.start) * width + column] ^= true;
                }
            }
        }
        for (row, turns) in rows.clone().zip(turns.chunks_exact(width)) {
            let taken = &mut self.taken[row * self.across..][columns.clone()];
            let mut inside = false;
            for (cell, turn) in taken.iter_mut().zip(turns) {
                inside ^= turn;
                *cell |= inside;
            }
        }
        rows.start
    }

    /// Counts again from a row on.
    fn count(&mut self, from: usize) {
        let wide = self.across + 1;
        for row in from..self.along {
            let mut so_far = 0;
            for column in 0..self.across {
                so_far += u32::from(self.taken[row * self.across + column]);
                let above = self.sums[row * wide + column + 1];
                self.sums[(row + 1) * wide + column + 1] = above + so_far;
            }
        }
    }

    fn is_free(&self, rect: Rect) -> bool {
        let columns = self.range(rect.x0, rect.x1, self.origin.x, self.across);
        let rows = self.range(rect.y0, rect.y1, self.origin.y, self.along);
        let sum = |row: usize, column: usize| self.sums[row * (self.across + 1) + column];
        sum(rows.end, columns.end) + sum(rows.start, columns.start)
            == sum(rows.start, columns.end) + sum(rows.end, columns.start)
    }
}

fn block(rect: Rect) -> Option<Outline> {
    let corners = [(rect.x0, rect.y0), (rect.x1, rect.y0), (rect.x1, rect.y1), (rect.x0, rect.y1)];
    Outline::new(corners.into_iter().map(Into::into).collect())
}

/// What the code with its sheet of `sheets` takes, mm.
fn code_length(sheets: u32) -> f64 {
    let digits = f64::from(sheets.max(1).ilog10() + 1);
    // Five characters, “ · ”, the sheet, “ of ”, and how many there are.
    (5.0 + 3.0 + 4.0 + 2.0 * digits) * CHARACTER
}

/// The least room that notes take on a sheet of so many, mm: the code alone.
#[must_use]
pub fn least_notes(sheets: u32) -> Vec2 {
    Vec2::new(code_length(sheets) + 1.0, LINE)
}

/// Size of a row of the legend that goes with lines printed by kind, mm.
pub const LEGEND_ROW: Vec2 = Vec2::new(38.0, 5.0);

/// What a legend of so many kinds takes, mm.
#[must_use]
pub fn legend_size(kinds: usize) -> Vec2 {
    Vec2::new(LEGEND_ROW.x, LEGEND_ROW.y * kinds as f64)
}

/// Takes room for the notes of a sheet of so many: the longest scale that has any, the code beside or above
/// it, along the sheet's foot or its side; else the code alone. `None` without room, since pieces must not
/// carry them.
#[must_use]
pub fn place_notes(room: &mut FreeRoom, unit: Unit, sheets: u32) -> Option<Notes> {
    let code = code_length(sheets);
    let beside =
        scales(unit).map(|scale| (NotesForm::Beside(scale), Vec2::new(scale + code + 4.0, HEIGHT)));
    let shortest = scales(unit)[2];
    let above = Vec2::new(shortest.max(code) + 1.0, HEIGHT + LINE);
    let forms = beside
        .into_iter()
        .chain([(NotesForm::Above(shortest), above), (NotesForm::Code, least_notes(sheets))]);
    forms.into_iter().find_map(|(form, size)| {
        [(size, false), (Vec2::new(size.y, size.x), true)]
            .into_iter()
            .find_map(|(size, turned)| room.take(size).map(|place| Notes { place, form, turned }))
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::Shape;
    use crate::sheet::{Machines, Marks, Orientation};

    fn windows(page: Rect) -> Windows {
        Machines::default().windows(page, Orientation::Portrait, &Marks::default())
    }

    const AT: [Placement; 1] =
        [Placement { part: 0, copy: 1, x: 0.0, y: 0.0, turn: 0.0, locked: false }];

    fn notes_beside(page: Rect, copy: Rect) -> Option<Notes> {
        let copy = copy.to_path(0.01);
        let mut room = FreeRoom::new(&windows(page), &[vec![&copy]], &AT);
        place_notes(&mut room, Unit::Mm, 2)
    }

    #[test]
    fn notes_take_the_room_there_is_and_never_a_piece() {
        let page = Rect::new(0.0, 0.0, 140.0, 100.0);
        let copy = Rect::new(0.0, 0.0, 140.0, 50.0).to_path(0.01);
        let mut room = FreeRoom::new(&windows(page), &[vec![&copy]], &AT);
        let notes = place_notes(&mut room, Unit::Mm, 1).unwrap();
        assert_eq!(notes.form, NotesForm::Beside(100.0));
        assert!(notes.place.y0 > 50.0 && notes.place.y1 < 100.0);
        let next = room.take(Vec2::new(40.0, 20.0)).unwrap();
        assert_eq!(next.intersect(notes.place).area(), 0.0);
        assert_eq!(notes_beside(page, Rect::new(0.0, 0.0, 140.0, 97.0)), None);
    }

    #[test]
    fn notes_turn_shrink_and_leave_the_scale_out_before_they_are_given_up() {
        let page = Rect::new(0.0, 0.0, 60.0, 160.0);
        // A strip of 10 mm at the side: on its side; of 8 mm at the foot: the code alone.
        let beside = notes_beside(page, Rect::new(0.0, 0.0, 49.0, 160.0)).unwrap();
        assert!(beside.turned && beside.form == NotesForm::Beside(100.0), "{beside:?}");
        assert!(beside.place.x0 >= 50.0 && beside.place.height() > 100.0);
        let alone = notes_beside(page, Rect::new(0.0, 0.0, 60.0, 153.0)).unwrap();
        assert_eq!((alone.form, alone.turned), (NotesForm::Code, false));
        let corner = notes_beside(Rect::new(0.0, 0.0, 40.0, 30.0), Rect::new(0.0, 0.0, 40.0, 16.0));
        assert_eq!(corner.unwrap().form, NotesForm::Above(20.0));
        // As it is read, the frame's origin is the upper left corner.
        let frame = beside.frame();
        assert!(
            (frame * Point::ZERO).distance(Point::new(beside.place.x0, beside.place.y1)) < 1e-9
        );
        let right = frame * Point::new(beside.place.height(), 0.0);
        assert!(right.distance(beside.place.origin()) < 1e-9);
    }

    #[test]
    fn room_is_found_among_thousands_of_copies() {
        let page = Rect::new(0.0, 0.0, 2000.0, 2000.0);
        let tag = Rect::new(0.0, 0.0, 18.0, 18.0).to_path(0.01);
        let mut at: Vec<Placement> = (0..10_000u32)
            .map(|number| {
                let (row, column) = (f64::from(number / 100), f64::from(number % 100));
                Placement { x: column * 20.0, y: row * 20.0, turn: 0.0, ..Placement::default() }
            })
            .collect();
        // Between tags 2 mm apart there is no room; where one is missing the code alone has none either.
        let none = |at: &[Placement]| {
            let mut room = FreeRoom::new(&windows(page), &[vec![&tag]], at);
            place_notes(&mut room, Unit::Mm, 1)
        };
        assert_eq!(none(&at), None);
        at.retain(|at| !(at.y == 400.0 && (600.0..700.0).contains(&at.x)));
        let found = none(&at).unwrap();
        assert!(Rect::new(599.0, 399.0, 701.0, 421.0).contains_rect(found.place), "{found:?}");
        assert_eq!(found.form, NotesForm::Beside(50.0));
    }

    /// Held against a general library's point in polygon, on stars whose points cross many rows or none.
    #[test]
    fn cells_are_taken_whose_middles_lie_inside() {
        use geo::{Contains, Distance, Euclidean, LineString, Polygon, point};
        let mut random = fastrand::Rng::with_seed(11);
        let base = Rect::new(-5.0, 3.0, 75.0, 63.0);
        let mut taken = 0;
        for _ in 0..60 {
            let middle = Point::new(random.f64() * 80.0 - 5.0, random.f64() * 60.0 + 3.0);
            let count = random.usize(3..90);
            let ring: Vec<Point> = (0..count)
                .map(|at| {
                    let angle = std::f64::consts::TAU * at as f64 / count as f64;
                    let reach = 0.2 + random.f64() * 30.0;
                    middle + reach * Vec2::new(angle.cos(), angle.sin())
                })
                .collect();
            let line: LineString = ring.iter().map(|at| (at.x, at.y)).collect();
            let polygon = Polygon::new(line, Vec::new());
            let mut cells = Cells::new(base);
            let Some(outline) = Outline::new(ring) else { continue };
            let first = cells.fill(&outline);
            for row in 0..cells.along {
                for column in 0..cells.across {
                    let at = point!(
                        x: base.x0 + (column as f64 + 0.5) * cells.side,
                        y: base.y0 + (row as f64 + 0.5) * cells.side
                    );
                    let is_taken = cells.taken[row * cells.across + column];
                    taken += usize::from(is_taken);
                    assert!(!is_taken || row >= first, "row {row} is counted from {first} on");
                    if Euclidean.distance(&at, polygon.exterior()) > 1e-9 {
                        assert_eq!(is_taken, polygon.contains(&at), "{at:?} of {polygon:?}");
                    }
                }
            }
        }
        assert!(taken > 5000, "{taken}");
    }
}
