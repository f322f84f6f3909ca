//! The working window: where print may lie, where cuts may lie, and what takes the rest.

use kurbo::{BezPath, Point, Rect, Vec2};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::Serialize;
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Marks, Orientation};
use crate::geometry::{Outline, Region};
use crate::workshop::{AllowedBy, Carrier, Cutter, Field, Finds, Margins, Printer};

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
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum TakenBy {
    /// The printer cannot print here.
    PrinterMargin,
    /// Rollers or clamps run here.
    RollerStrips,
    /// The cutter cannot reach this far.
    CutterReach,
    /// The cutter needs this card before and after the marks.
    LeadTail,
    /// The carrier does not hold the sheet here.
    Carrier,
    /// A roll loses this at its sides.
    RollSides,
    /// Its blade's axis swivels here around corners at the edge of what it reaches.
    Swivel,
    /// The eye reads no marks here. Cuts may lie here.
    Eye,
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

/// What the page goes through, and what is asked of it.
#[derive(Debug, Clone, Copy, Default)]
pub struct Machines<'a> {
    /// Prints it, if anything does.
    pub printer: Option<&'a Printer>,
    /// Cuts it, unless a hand does.
    pub cutter: Option<&'a Cutter>,
    /// Carries it through the cutter, if anything does.
    pub carrier: Option<&'a Carrier>,
    /// What a roll loses at each side, mm.
    pub sides: f64,
    /// Least distance from cuts to the marks’ keep-clear, mm.
    pub to_marks: f64,
    /// True where the back is printed, too: margins that differ from side to side lie elsewhere there.
    pub backs: bool,
}

impl Windows {
    /// Those of a page that nothing takes anything of.
    #[must_use]
    pub fn free(page: Rect) -> Self {
        let whole = Window::new(page, &[]);
        Self { page, printable: page, print: whole.clone(), cut: whole, taken: Vec::new() }
    }
}

impl Machines<'_> {
    /// The part of the page that can be printed.
    #[must_use]
    pub fn printable(&self, page: Rect, orientation: Orientation) -> Rect {
        let Some(printer) = self.printer else { return page };
        let Margins { lead, trail, left, right } = printer.margins;
        let front = match orientation {
            Orientation::Portrait => inset(page, left, lead, right, trail),
            // Turned so that the left edge leads: the feed's left edge lies at the bottom.
            Orientation::Landscape => inset(page, lead, right, trail, left),
        };
        if self.backs {
            // The printer keeps its margins; what was at its left lies at its right when the sheet is turned.
            let back = printer.turns_about.turned(page).transform_rect_bbox(front);
            front.intersect(back)
        } else {
            front
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
        let reach = self.reach(page, marks, &mut take);
        for mark in &marks.marks {
            let name = format!("keep-clear of the {} mark", mark.corner.name());
            take(TakenBy::KeepClear, name, &mark.keep_clear.intersection(&whole));
        }
        if let Some(sign) = &marks.sign {
            let name = format!("“{}”, so that a turned sheet shows", sign.text);
            take(TakenBy::Sign, name, &sign.keep_clear().intersection(&whole));
        }
        let keep_clear: Vec<Region> = marks.keep_clear().collect();
        // Cuts keep further off; print may come up to what the eye needs.
        let away: Vec<Region> =
            keep_clear.iter().map(|clear| clear.rounded_out(self.to_marks)).collect();
        Windows {
            page,
            printable,
            print: Window::new(printable, &keep_clear),
            cut: Window::new(reach, &away),
            taken,
        }
    }

    /// What of the page the cutter can cut, marks aside; tells `take` what takes the rest.
    fn reach(
        &self,
        page: Rect,
        marks: &Marks,
        take: &mut impl FnMut(TakenBy, String, &Region),
    ) -> Rect {
        let mut reach = page;
        let mut cut_to = |by: TakenBy, name: String, to: Rect| {
            let next = positive(reach.intersect(to));
            take(by, name, &Region::rect(reach).minus(&Region::rect(next)));
            reach = next;
        };
        if self.sides > 0.0 {
            let to = page.inset((-self.sides, 0.0));
            cut_to(TakenBy::RollSides, "lost at the roll’s sides".to_owned(), to);
        }
        // Where the page's top left corner lies in what goes through the rollers.
        let (corner, through) = self.carrier.map_or((Vec2::ZERO, page.size()), |carrier| {
            let corner = Vec2::new(carrier.border.left, carrier.border.lead);
            (corner, (carrier.width, carrier.length).into())
        });
        if let Some(carrier) = self.carrier {
            let holds = Rect::from_origin_size(Point::ZERO, carrier.holds());
            cut_to(TakenBy::Carrier, format!("{} does not hold here", carrier.name), holds);
        }
        let Some(cutter) = self.cutter else { return reach };
        let Margins { lead, trail, left, right } = cutter.margins;
        let held = Rect::from_origin_size(Point::ZERO, through);
        let strips = Rect::new(left, lead, held.x1 - right, held.y1 - trail) - corner;
        cut_to(TakenBy::RollerStrips, format!("{}: its rollers or clamps", cutter.name), strips);
        // What hangs over on the right and at the trailing edge is out of reach too.
        let far = Rect::new(left, lead, cutter.width - right, cutter.length - trail) - corner;
        cut_to(TakenBy::CutterReach, format!("{}: out of reach", cutter.name), far);
        if let Some(span) = marks.span() {
            let ends = Rect::new(held.x0, cutter.lead, held.x1, held.y1 - cutter.tail) - corner;
            let ends = Rect::new(page.x0, ends.y0, page.x1, ends.y1);
            cut_to(TakenBy::LeadTail, format!("{}: its lead and tail", cutter.name), ends);
            if cutter.field == Field::WithinMarks {
                let name = format!("{} cuts only inside its marks", cutter.name);
                cut_to(TakenBy::OutsideMarks, name, span);
            }
            if let Finds::Eye(eye) = &cutter.finds {
                let unread =
                    Region::rect(page).minus(&Region::rect(positive(page.inset(-eye.edge))));
                let name = format!("{}: its eye reads no marks here", cutter.name);
                take(TakenBy::Eye, name, &unread);
            }
        }
        let knife = cutter.knife;
        if knife.allowed_by == AllowedBy::Aptum && knife.offset > 0.0 {
            let inner = positive(reach.inset(-knife.offset));
            let name = format!("{}: its blade swivels here", cutter.name);
            take(TakenBy::Swivel, name, &Region::rect(reach).minus(&Region::rect(inner)));
            reach = inner;
        }
        reach
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
