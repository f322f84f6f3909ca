//! The working window: where print may lie, where cuts may lie, and what takes the rest.

use kurbo::{BezPath, Point, Rect};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::{Marks, Orientation};
use crate::geometry::{Outline, Region};
use crate::workshop::{Cutter, Field, Margins, Printer};

/// A rectangle with bites taken out of it.
#[derive(Debug, Clone)]
pub struct Window {
    /// What edges and margins leave; empty when they leave nothing.
    pub base: Rect,
    /// What marks and signs take out of it.
    pub obstacles: Vec<Outline>,
    /// Both as polygons.
    pub region: Region,
}

/// What takes card away from the window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum TakenBy {
    /// The printer cannot print here.
    PrinterMargin,
    /// The cutter cannot reach here.
    CutterReach,
    /// The cutter does not cut outside its marks.
    OutsideMarks,
    /// The eye needs this free.
    KeepClear,
    /// The sign that tells a turned sheet.
    Sign,
}

/// A part of the page that something takes.
#[derive(Debug, Clone)]
pub struct Taken {
    /// By what.
    pub by: TakenBy,
    /// Its name for people.
    pub name: String,
    /// The area.
    pub path: BezPath,
}

/// The page's windows.
#[derive(Debug, Clone)]
pub struct Windows {
    /// The page.
    pub page: Rect,
    /// Where print may lie, marks and sign aside.
    pub printable: Rect,
    /// Where art may lie.
    pub print: Window,
    /// Where cuts may lie.
    pub cut: Window,
    /// What takes what.
    pub taken: Vec<Taken>,
}

impl Window {
    fn new(base: Rect, keep_clear: &[Region]) -> Self {
        let base = if base.width() > 0.0 && base.height() > 0.0 { base } else { Rect::ZERO };
        let region =
            keep_clear.iter().fold(Region::rect(base), |window, obstacle| window.minus(obstacle));
        let obstacles = keep_clear.iter().flat_map(Outline::of_region).collect();
        Self { base, obstacles, region }
    }

    /// True when the outline, moved by `(dx, dy)`, lies inside; touching is inside.
    #[must_use]
    pub fn holds(&self, outline: &Outline, dx: f64, dy: f64) -> bool {
        const NOISE: f64 = 1e-6;
        let bounds = outline.bounds() + kurbo::Vec2::new(dx, dy);
        bounds.x0 >= self.base.x0 - NOISE
            && bounds.y0 >= self.base.y0 - NOISE
            && bounds.x1 <= self.base.x1 + NOISE
            && bounds.y1 <= self.base.y1 + NOISE
            && !self.obstacles.iter().any(|obstacle| outline.overlaps_at(dx, dy, obstacle))
    }
}

/// What the page goes through.
#[derive(Debug, Clone, Copy)]
pub struct Machines<'a> {
    /// Prints it, if anything does.
    pub printer: Option<&'a Printer>,
    /// Cuts it, unless a hand does.
    pub cutter: Option<&'a Cutter>,
}

impl Machines<'_> {
    /// The part of the page that can be printed.
    #[must_use]
    pub fn printable(&self, page: Rect, orientation: Orientation) -> Rect {
        let Some(printer) = self.printer else { return page };
        let Margins { lead, trail, left, right } = printer.margins;
        match orientation {
            Orientation::Portrait => inset(page, left, lead, right, trail),
            // Turned so that the left edge leads: the feed's left edge lies at the bottom.
            Orientation::Landscape => inset(page, lead, right, trail, left),
        }
    }

    /// The windows of a page with these marks on it.
    #[must_use]
    pub fn windows(&self, page: Rect, orientation: Orientation, marks: &Marks) -> Windows {
        let printable = self.printable(page, orientation);
        let mut taken = Vec::new();
        let mut take = |by, name: String, area: &Region| {
            if !area.is_empty() {
                taken.push(Taken { by, name, path: area.to_path() });
            }
        };
        let whole = Region::rect(page);
        if let Some(printer) = self.printer {
            let margin = whole.minus(&Region::rect(printable));
            take(TakenBy::PrinterMargin, format!("{}: not printable", printer.name), &margin);
        }
        let mut reach = page;
        if let Some(cutter) = self.cutter {
            let Margins { lead, trail, left, right } = cutter.margins;
            reach = inset(page, left, lead, right, trail);
            // What hangs over on the right and at the trailing edge is out of reach too.
            reach.x1 = reach.x1.min(cutter.width - right);
            reach.y1 = reach.y1.min(cutter.length - trail);
            let lost = whole.minus(&Region::rect(positive(reach)));
            take(TakenBy::CutterReach, format!("{}: out of reach", cutter.name), &lost);
            if cutter.field == Field::WithinMarks
                && let Some(span) = marks.span()
            {
                let lost = Region::rect(positive(reach)).minus(&Region::rect(span));
                take(
                    TakenBy::OutsideMarks,
                    format!("{} cuts only inside its marks", cutter.name),
                    &lost,
                );
                reach = Rect::new(
                    reach.x0.max(span.x0),
                    reach.y0.max(span.y0),
                    reach.x1.min(span.x1),
                    reach.y1.min(span.y1),
                );
            }
        }
        for mark in &marks.marks {
            let name = format!("keep-clear of the {} mark", mark.corner.name());
            take(TakenBy::KeepClear, name, &mark.keep_clear.intersection(&whole));
        }
        if let Some(sign) = &marks.sign {
            let name = format!("“{}”, so that a turned sheet shows", sign.text);
            take(TakenBy::Sign, name, &Region::rect(sign.place));
        }
        let keep_clear: Vec<Region> = marks.keep_clear().collect();
        Windows {
            page,
            printable,
            print: Window::new(printable, &keep_clear),
            cut: Window::new(reach, &keep_clear),
            taken,
        }
    }
}

fn inset(page: Rect, left: f64, top: f64, right: f64, bottom: f64) -> Rect {
    positive(Rect::new(page.x0 + left, page.y0 + top, page.x1 - right, page.y1 - bottom))
}

/// The rectangle, or an empty one where its sides have passed each other.
fn positive(rect: Rect) -> Rect {
    if rect.width() > 0.0 && rect.height() > 0.0 {
        rect
    } else {
        Rect::from_origin_size(Point::new(rect.x0, rect.y0), (0.0, 0.0))
    }
}
