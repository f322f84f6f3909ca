//! What a cutter is told of a sheet before it is cut: where its marks are, how far to search, and which code it must carry. The
//! commands are those of the cutters that ship with Aptum (`aptum_devices::cutter`).

use std::fmt::Write;

use aptum_core::geometry::{Point, Vec2};
use aptum_core::sheet::{Marks, PlacedMark, place_marks};
use aptum_core::workshop::{Dialect, MarkSet, MarkShape, Tell};
use aptum_core::{Prepared, geometry::Rect};

use crate::hpgl::fine_units;

/// What is told of a run of sheets.
#[derive(Debug, Clone, Copy)]
pub struct Asking<'a> {
    /// The sheets.
    pub prepared: &'a Prepared,
    /// How their marks are arranged.
    pub set: &'a MarkSet,
    /// Which run of sheets.
    pub run: usize,
    /// The first sheet that may lie there, from 1, and the last.
    pub sheets: [u32; 2],
    /// How far around each mark it searches, mm.
    pub reach: f64,
    /// How far from the first mark the eye begins, mm.
    pub start: Vec2,
}

/// The commands, up to the one that makes it search.
#[must_use]
pub fn ask_marks(asking: &Asking<'_>, dialect: &Dialect) -> String {
    let Asking { prepared, set, .. } = asking;
    let page = prepared.windows.page;
    let mut text = String::new();
    let at = |point: Point| fine_units(point, dialect, page);
    let (unit, reach, start) = (dialect.units, asking.reach, asking.start);
    // Writing to a string cannot fail.
    let _ = write!(text, "AP{:.0},{:.0};", page.width() * unit, page.height() * unit);
    let _ = write!(text, "AR{:.1};AS{:.1},{:.1};", reach * unit, start.x * unit, start.y * unit);
    let mark = |name: &str, own: &PlacedMark, is_odd: bool| {
        let (kind, size, stroke) = match set.mark {
            MarkShape::Angle { arm, stroke } => (1, arm, stroke),
            MarkShape::Dot { diameter } => (2, diameter, 1.0),
            MarkShape::Cross { arm, stroke } => (3, arm, stroke),
        };
        let ((x, y), (sx, sy)) = (at(own.reference), own.corner.inwards());
        let (size, stroke, odd) = (size * unit, stroke * unit, u8::from(is_odd));
        format!("{name}{x:.3},{y:.3},{kind},{size:.2},{stroke:.2},{odd},{sx},{sy};")
    };
    for own in &prepared.marks.marks {
        let is_odd = set.tell == Tell::OddMark && own.corner == set.first.opposite();
        text.push_str(&mark("AM", own, is_odd));
    }
    for own in absent(&prepared.marks, set, page) {
        text.push_str(&mark("AB", &own, false));
    }
    let place = |own: Rect| {
        let ((x0, y0), (x1, y1)) = (at(own.origin()), at(Point::new(own.x1, own.y1)));
        format!("{x0:.2},{y0:.2},{x1:.2},{y1:.2}")
    };
    if let Some(sign) = &prepared.marks.sign {
        let _ = write!(text, "AT{};", place(sign.place));
    }
    if let Some(Some(code)) = prepared.square_codes.get(asking.run) {
        let [first, last] = asking.sheets;
        let _ = write!(text, "AC{},{},{first},{last};", place(*code), prepared.code);
    }
    text.push_str("AF;");
    text
}

/// The marks that are missing where that tells which way round a sheet lies.
fn absent(marks: &Marks, set: &MarkSet, page: Rect) -> Vec<PlacedMark> {
    if set.tell != Tell::MissingMark {
        return Vec::new();
    }
    let all = MarkSet { tell: Tell::Numeral, ..set.clone() };
    // The corner alone matters: where it lies follows from those that are there.
    let own = place_marks(&all, page, page, "");
    let known = |of: &dyn Fn(&PlacedMark) -> bool| marks.marks.iter().find(|mark| of(mark));
    own.marks
        .into_iter()
        .filter(|mark| marks.marks.iter().all(|other| other.corner != mark.corner))
        .filter_map(|mark| {
            let inwards = mark.corner.inwards();
            let beside = known(&|other| other.corner.inwards().0.total_cmp(&inwards.0).is_eq())?;
            let level = known(&|other| other.corner.inwards().1.total_cmp(&inwards.1).is_eq())?;
            let reference = Point::new(beside.reference.x, level.reference.y);
            Some(PlacedMark { reference, ..mark })
        })
        .collect()
}
