//! What is known of the sheet that is being worked.

use aptum_core::geometry::{Affine, Point, Rect, Vec2};
use aptum_core::workshop::Corner;

use super::blade::Blade;
use super::commands::Command;
use super::mark::{AskedMark, MarkKind};
use super::reading::{Asked, AskedCode};
use super::settings::Settings;

#[derive(Debug)]
pub(super) struct Job {
    pub asked: Asked,
    /// From the page to the bed.
    pub place: Affine,
    pub is_refused: bool,
    pub station: u32,
    /// How often a station was chosen.
    pub chosen: usize,
    /// Where the head stands, in units.
    pub here: (f64, f64),
    pub blade: Blade,
    pub line: Option<Vec<Point>>,
    /// How often the machine had been stopped when this began: what was sent before a stop is not done after it.
    pub stops: u64,
}

impl Default for Job {
    fn default() -> Self {
        Self {
            asked: Asked::default(),
            place: Affine::IDENTITY,
            is_refused: false,
            station: 1,
            chosen: 0,
            here: (0.0, 0.0),
            blade: Blade { offset: 0.0, heading: Vec2::new(0.0, 1.0) },
            line: None,
            stops: 0,
        }
    }
}

impl Job {
    /// Takes what is told of the sheet that is to be found.
    pub fn ask(&mut self, command: &Command, numbers: &[f64], settings: &Settings) {
        let mm = 1.0 / settings.units;
        let at = |own: &Self, x: f64, y: f64| own.page_place(settings, x, y);
        match (&command.name, numbers) {
            (b"AP", [w, h, ..]) => self.asked.page = Rect::new(0.0, 0.0, w * mm, h * mm),
            (b"AR", [reach, ..]) => self.asked.reach = (reach * mm).clamp(0.5, 60.0),
            (b"AS", [dx, dy, ..]) => self.asked.start = Vec2::new(dx * mm, dy * mm),
            (b"AT", [x0, y0, x1, y1, ..]) => {
                self.asked.sign = Some(Rect::from_points(at(self, *x0, *y0), at(self, *x1, *y1)));
            }
            (b"AM" | b"AB", [x, y, kind, size, stroke, odd, sx, sy, ..]) => {
                let kind = match *kind {
                    kind if kind < 1.5 => MarkKind::Angle,
                    kind if kind < 2.5 => MarkKind::Dot,
                    _ => MarkKind::Cross,
                };
                let mark = AskedMark {
                    at: at(self, *x, *y),
                    kind,
                    size: (size * mm).clamp(0.5, 100.0),
                    stroke: (stroke * mm).clamp(0.1, 20.0),
                    is_odd: *odd > 0.5,
                    arms: (sx.signum(), sy.signum()),
                };
                let list = if command.name == *b"AM" {
                    &mut self.asked.marks
                } else {
                    &mut self.asked.absent
                };
                if list.len() < 8 {
                    list.push(mark);
                }
            }
            (b"AC", [x0, y0, x1, y1, ..]) => {
                let whole = |at: usize| command.words.get(at).and_then(|own| own.parse().ok());
                self.asked.code = command.words.get(4).map(|code| AskedCode {
                    place: Rect::from_points(at(self, *x0, *y0), at(self, *x1, *y1)),
                    code: code.clone(),
                    first: whole(5).unwrap_or(1),
                    last: whole(6).unwrap_or(1),
                });
            }
            _ => {}
        }
    }

    /// A place in units, on the page.
    pub fn page_place(&self, settings: &Settings, x: f64, y: f64) -> Point {
        let (x, y) = if settings.swapped { (y, x) } else { (x, y) };
        let (x, y) = (x / settings.units, y / settings.units);
        let page = self.asked.page;
        match settings.origin {
            Corner::TopLeft => Point::new(page.x0 + x, page.y0 + y),
            Corner::TopRight => Point::new(page.x1 - x, page.y0 + y),
            Corner::BottomRight => Point::new(page.x1 - x, page.y1 - y),
            Corner::BottomLeft => Point::new(page.x0 + x, page.y1 - y),
        }
    }

    pub fn bed_place(&self, settings: &Settings, (x, y): (f64, f64)) -> Point {
        self.place * self.page_place(settings, x, y)
    }
}
