//! Marks that must be printed whole, stand apart and be readable.

use kurbo::Rect;

use super::{Scene, outline};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::Remedy;
use crate::sheet::place_marks;
use crate::workshop::{Cutter, EyeRange, Finds, MarkSet};

impl Scene<'_> {
    pub(super) fn marks(&self) -> Vec<Check> {
        let Some(cutter) = self.records.cutter else { return Vec::new() };
        if !self.job.is_printed() || !cutter.finds.by_marks() {
            return Vec::new();
        }
        let Some(set) = self.records.marks else {
            let check = Check::yes_or_no(
                "marks",
                Stage::Sheet,
                "Registration marks",
                State::Broken,
                [
                    "none".to_owned(),
                    "are chosen".to_owned(),
                    format!("{} finds a printed sheet by its marks", cutter.name),
                ],
            );
            return vec![check.remedies(|| self.readable_sets(cutter))];
        };
        let windows = &self.ground.windows;
        let marks = &self.ground.marks;
        let around = |rect: Rect| outline(rect.inflate(1.0, 1.0));
        let nearest = |edges: Rect| {
            marks
                .marks
                .iter()
                .map(|mark| (inside_by(mark.bounds, edges), mark.bounds))
                .min_by(|(a, _), (b, _)| a.total_cmp(b))
        };
        let mut checks = Vec::new();
        let further = |by: f64| {
            vec![Remedy::advice(format!(
                "Use a mark set that stands {} further in, or a printer with smaller margins",
                self.show(by)
            ))]
        };
        if let Some((room, bounds)) = nearest(windows.printable) {
            checks.push(
                self.length("marks-printable", "Marks in the print", (room, Sense::AtLeast, 0.0))
                    .at(Drawing::Sheet, around(bounds))
                    .remedies(|| further(-room)),
            );
        }
        let gap = smallest_gap(&marks.marks.iter().map(|mark| mark.bounds).collect::<Vec<_>>());
        checks.push(
            self.length("marks-apart", "Between the marks", (gap, Sense::AtLeast, set.keep_clear))
                .at(Drawing::Sheet, outline(marks.span().unwrap_or(windows.page)))
                .remedy(Remedy::advice("Use a larger sheet, or marks nearer to its edges")),
        );
        checks.extend(self.lead_and_tail(cutter));
        if let Finds::Eye(eye) = &cutter.finds {
            checks.extend(self.eye(cutter, eye, set, nearest(windows.page)));
        }
        checks
    }

    /// Card in front of the first marks and behind the last, where the cutter needs any.
    fn lead_and_tail(&self, cutter: &Cutter) -> Vec<Check> {
        let Some(span) = self.ground.marks.span() else { return Vec::new() };
        let page = self.ground.windows.page;
        let border = self.records.carrier.map(|carrier| (carrier.border, carrier.length));
        let (before, after) = border.map_or((0.0, 0.0), |(border, length)| {
            (border.lead, (length - border.lead - page.height()).max(0.0))
        });
        [
            ("marks-lead", "Lead before the marks", span.y0 - page.y0 + before, cutter.lead),
            ("marks-tail", "Tail behind the marks", page.y1 - span.y1 + after, cutter.tail),
        ]
        .into_iter()
        .filter(|(_, _, _, needed)| *needed > 0.0)
        .map(|(id, label, room, needed)| {
            self.length(id, label, (room, Sense::AtLeast, needed))
                .at(Drawing::Sheet, outline(span))
                .remedy(Remedy::advice(format!(
                    "Use a longer sheet, a carrier, or marks that stand {} further in",
                    self.show(needed - room)
                )))
        })
        .collect()
    }

    /// The use of each other mark set that the cutter can go by, and that its eye reaches on this sheet.
    fn readable_sets(&self, cutter: &Cutter) -> Vec<Remedy> {
        let others = self.workshop.mark_sets.iter().filter(|(id, set)| {
            set.keeping.is_offered()
                && cutter.reads(set)
                && self.reaches(cutter, set)
                && self.job.sheet.marks.as_ref() != Some(id)
        });
        let chosen = others.map(|(id, set)| {
            Remedy::set(format!("Use {}", set.name), "sheet.marks", id.0.as_str())
        });
        chosen.collect()
    }

    /// False for marks that would stand nearer to the sheet's edge than the eye reads.
    fn reaches(&self, cutter: &Cutter, set: &MarkSet) -> bool {
        let Finds::Eye(eye) = &cutter.finds else { return true };
        let windows = &self.ground.windows;
        let placed = place_marks(set, windows.page, windows.printable, crate::sheet::NO_CODE);
        let rooms = placed.marks.iter().map(|mark| inside_by(mark.bounds, windows.page));
        rooms.fold(f64::INFINITY, f64::min) >= eye.edge - 1e-6
    }

    fn eye(
        &self,
        cutter: &Cutter,
        eye: &EyeRange,
        set: &MarkSet,
        to_edge: Option<(f64, Rect)>,
    ) -> Vec<Check> {
        let shape = set.mark.name();
        let readable: Vec<&str> = eye.shapes.iter().map(|shape| shape.plural()).collect();
        let known = eye.shapes.contains(&shape);
        let others = || self.readable_sets(cutter);
        let mut checks = vec![
            Check::yes_or_no(
                "marks-shape",
                Stage::Sheet,
                "Shape of the marks",
                if known { State::Fits } else { State::Broken },
                [
                    shape.plural().to_owned(),
                    format!("the eye reads {}", readable.join(", ")),
                    if known { "readable" } else { "not readable" }.to_owned(),
                ],
            )
            .remedies(others),
            self.length(
                "marks-size",
                "Size of the marks",
                (set.mark.extent(), Sense::AtLeast, eye.smallest),
            )
            .remedies(others),
            self.length(
                "marks-clear",
                "Marks’ keep-clear",
                (set.keep_clear, Sense::AtLeast, eye.keep_clear),
            )
            .remedy(Remedy::advice(format!(
                "Use a mark set that keeps {} clear",
                self.show(eye.keep_clear)
            ))),
        ];
        if let Some((room, bounds)) = to_edge {
            checks.push(
                self.length("marks-edge", "Marks to the edge", (room, Sense::AtLeast, eye.edge))
                    .at(Drawing::Sheet, outline(bounds.inflate(1.0, 1.0)))
                    .remedies(others),
            );
        }
        checks
    }
}

/// How far `inner` keeps from the edges of `outer`; negative when it sticks out.
fn inside_by(inner: Rect, outer: Rect) -> f64 {
    (inner.x0 - outer.x0).min(inner.y0 - outer.y0).min(outer.x1 - inner.x1).min(outer.y1 - inner.y1)
}

/// The least distance between any two rectangles; negative when they overlap.
fn smallest_gap(rects: &[Rect]) -> f64 {
    let mut least = f64::INFINITY;
    for (index, a) in rects.iter().enumerate() {
        for b in &rects[index + 1..] {
            let (dx, dy) = (a.x0.max(b.x0) - a.x1.min(b.x1), a.y0.max(b.y0) - a.y1.min(b.y1));
            let gap = if dx > 0.0 && dy > 0.0 { dx.hypot(dy) } else { dx.max(dy) };
            least = least.min(gap);
        }
    }
    least
}
