//! The limits of a sheet, each with its numbers.

use std::cell::OnceCell;

use kurbo::{Rect, Shape, Vec2};

use super::{Layout, Misfit, Piece, Turning, ways_to_fit};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::Remedy;
use crate::face::Coverage;
use crate::form::Axis;
use crate::geometry::path_text;
use crate::job::Job;
use crate::prepare::{Ground, Records, grain_runs_down};
use crate::units::measure;
use crate::workshop::{Cutter, EyeRange, Finds, MarkSet, Workshop};

/// Card left between pieces holds them while they are cut: 2 to 3 mm (common practice).
const SPACING: f64 = 2.0;

/// What came of laying the copies.
#[derive(Clone, Copy)]
pub(crate) struct Laid<'a> {
    pub piece: &'a Piece,
    pub layout: &'a Layout,
    pub misfit: Option<&'a Misfit>,
}

/// Every check that a sheet gives rise to, the blank first.
pub(crate) fn sheet_checks(
    job: &Job,
    workshop: &Workshop,
    records: Records<'_>,
    ground: &Ground,
    laid: Laid<'_>,
) -> Vec<Check> {
    let Laid { piece, layout, misfit } = laid;
    let ways = OnceCell::new();
    let scene = Scene { job, workshop, records, ground, piece, layout, misfit, ways };
    let mut checks = scene.blank();
    checks.extend(scene.copies());
    checks.extend(scene.machines());
    checks.extend(scene.marks());
    checks.extend(scene.neighbours());
    checks.extend(scene.grain());
    checks
}

struct Scene<'a> {
    job: &'a Job,
    workshop: &'a Workshop,
    records: Records<'a>,
    ground: &'a Ground,
    piece: &'a Piece,
    layout: &'a Layout,
    misfit: Option<&'a Misfit>,
    ways: OnceCell<Vec<Remedy>>,
}

fn outline(rect: Rect) -> String {
    path_text(&rect.to_path(0.1))
}

impl Scene<'_> {
    fn length(&self, id: &str, label: &str, limit: (f64, Sense, f64)) -> Check {
        Check::length(id, Stage::Sheet, label, limit, self.job.unit)
    }

    fn show(&self, mm: f64) -> String {
        measure(mm, self.job.unit)
    }

    /// Worked out once, and only when something does not fit.
    fn ways(&self) -> Vec<Remedy> {
        self.ways.get_or_init(|| ways_to_fit(self.job, self.workshop)).clone()
    }

    /// The turn in which the copies lie, or in which the piece misses by least.
    fn turn(&self) -> u16 {
        let first = self.layout.runs.first().and_then(|run| run.placements.first());
        first.or(self.misfit.map(|misfit| &misfit.placement)).map_or(0, |placement| placement.turn)
    }

    /// What sticks out of the window, or else the window.
    fn window_or_excess(&self, room: Rect) -> String {
        match self.misfit {
            Some(misfit) if !misfit.outside.is_empty() => path_text(&misfit.outside.to_path()),
            _ => outline(room),
        }
    }

    fn blank(&self) -> Vec<Check> {
        let windows = &self.ground.windows;
        let turn = self.turn();
        let against = |ids: [&str; 2], names: [&str; 2], size: Vec2, room: Rect| {
            [(ids[0], names[0], size.x, room.width()), (ids[1], names[1], size.y, room.height())]
                .map(|(id, name, value, bound)| {
                    self.length(id, name, (value, Sense::AtMost, bound))
                        .at(Drawing::Sheet, self.window_or_excess(room))
                        .remedies(|| self.ways())
                })
        };
        let mut checks = Vec::from(against(
            ["blank-across", "blank-along"],
            ["Blank across", "Blank along"],
            self.piece.size(turn),
            windows.cut.base,
        ));
        if let Some(printed) = self.piece.printed_size(turn) {
            checks.extend(
                against(
                    ["print-across", "print-along"],
                    ["Print across", "Print along"],
                    printed,
                    windows.print.base,
                )
                .map(|check| self.spare_the_flaps(check)),
            );
        }
        checks
    }

    fn spare_the_flaps(&self, check: Check) -> Check {
        match &self.job.face {
            Some(face) if face.coverage == Coverage::Flaps => check.remedy(Remedy::set(
                "Leave the flaps unprinted: they may leave the printable area",
                "face.coverage",
                "faces",
            )),
            _ => check,
        }
    }

    fn copies(&self) -> Vec<Check> {
        let (laid, wanted) = (self.layout.laid, self.job.sheet.copies);
        let verdict = match (laid, self.layout.sheets()) {
            (0, _) => "none fits".to_owned(),
            (_, 1) => "on one sheet".to_owned(),
            (_, sheets) => format!("on {sheets} sheets, {} on each", self.layout.per_sheet),
        };
        let room = self.ground.windows.cut.base;
        let check =
            Check::count("copies", Stage::Sheet, "Copies", (laid, Sense::AtLeast, wanted), verdict)
                .at(Drawing::Sheet, self.window_or_excess(room))
                .remedies(|| self.ways());
        let mut checks = vec![check];
        let windows = &self.ground.windows;
        if windows.cut.region.is_empty() || windows.print.region.is_empty() {
            let what = if windows.cut.region.is_empty() { "cut" } else { "print" };
            checks.push(
                Check::yes_or_no(
                    "window",
                    Stage::Sheet,
                    "Working window",
                    State::Broken,
                    [
                        "nothing".to_owned(),
                        format!(
                            "left of {} × {}",
                            self.show(windows.page.width()),
                            self.show(windows.page.height())
                        ),
                        format!("margins and marks leave no {what} window"),
                    ],
                )
                .at(Drawing::Sheet, outline(windows.page))
                .remedy(Remedy::advice(
                    "Choose a larger sheet, or machines and marks that take less",
                )),
            );
        }
        checks
    }

    fn machines(&self) -> Vec<Check> {
        let page = self.ground.windows.page;
        let mut checks = Vec::new();
        if let Some(printer) = self.records.printer {
            let (short, long) = (page.width().min(page.height()), page.width().max(page.height()));
            for (id, name, value, bound) in [
                ("printer-width", "Printer, across", short, printer.width),
                ("printer-length", "Printer, along", long, printer.length),
            ] {
                checks.push(
                    self.length(id, name, (value, Sense::AtMost, bound))
                        .at(Drawing::Sheet, outline(page))
                        .remedy(Remedy::advice(format!(
                            "Choose a sheet that is no wider than {} and no longer than {}, or another printer",
                            self.show(printer.width),
                            self.show(printer.length)
                        ))),
                );
            }
        }
        if let Some(cutter) = self.records.cutter {
            checks.extend(self.cutter(cutter, page));
        }
        checks
    }

    fn cutter(&self, cutter: &Cutter, page: Rect) -> Vec<Check> {
        let turned = || {
            let flipped = match self.job.sheet.orientation {
                super::Orientation::Portrait => "landscape",
                super::Orientation::Landscape => "portrait",
            };
            (page.height() <= cutter.width && page.width() <= cutter.length)
                .then(|| Remedy::set("Turn the sheet", "sheet.orientation", flipped))
                .into_iter()
                .chain([Remedy::advice("Choose a smaller sheet or a larger cutter")])
                .collect()
        };
        let caliper = self.records.stock.caliper;
        let thinner = || {
            self.workshop
                .stocks
                .iter()
                .filter(|(_, stock)| stock.caliper <= cutter.thickest)
                .max_by(|(_, a), (_, b)| a.caliper.total_cmp(&b.caliper))
                .map(|(id, stock)| {
                    let text = format!("Use {}, {}", stock.name, self.show(stock.caliper));
                    Remedy::set(text, "stock", id.0.as_str())
                })
                .into_iter()
                .chain([Remedy::advice(format!(
                    "{} cuts up to {}",
                    cutter.name,
                    self.show(cutter.thickest)
                ))])
                .collect()
        };
        vec![
            self.length(
                "cutter-width",
                "Cutter, across",
                (page.width(), Sense::AtMost, cutter.width),
            )
            .at(Drawing::Sheet, outline(page))
            .remedies(turned),
            self.length(
                "cutter-length",
                "Cutter, along",
                (page.height(), Sense::AtMost, cutter.length),
            )
            .at(Drawing::Sheet, outline(page))
            .remedies(turned),
            self.length("caliper", "Card thickness", (caliper, Sense::AtMost, cutter.thickest))
                .remedies(thinner),
        ]
    }

    fn marks(&self) -> Vec<Check> {
        let Some(cutter) = self.records.cutter else { return Vec::new() };
        if self.job.face.is_none() || !cutter.finds.by_marks() {
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
            let sets = self.workshop.mark_sets.iter();
            return vec![check.remedies(|| {
                sets.map(|(id, set)| {
                    Remedy::set(format!("Use {}", set.name), "sheet.marks", id.0.as_str())
                })
                .collect()
            })];
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
        if let Finds::Eye(eye) = &cutter.finds {
            checks.extend(self.eye(eye, set, nearest(windows.page)));
        }
        checks
    }

    fn eye(&self, eye: &EyeRange, set: &MarkSet, to_edge: Option<(f64, Rect)>) -> Vec<Check> {
        let shape = set.mark.name();
        let readable: Vec<&str> = eye.shapes.iter().map(|shape| shape.plural()).collect();
        let known = eye.shapes.contains(&shape);
        let others = || {
            let sets = self.workshop.mark_sets.iter();
            sets.filter(|(_, set)| eye.shapes.contains(&set.mark.name()))
                .map(|(id, set)| {
                    Remedy::set(format!("Use {}", set.name), "sheet.marks", id.0.as_str())
                })
                .collect()
        };
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

    fn neighbours(&self) -> Vec<Check> {
        if self.job.sheet.copies < 2 {
            return Vec::new();
        }
        let spacing = self.job.sheet.spacing;
        let pair = self.layout.runs.first().map(|run| {
            let places = run.placements.iter().take(2);
            places.fold(String::new(), |all, placement| {
                all + &path_text(&placement.place(&self.ground.flat.outline))
            })
        });
        let place = |check: Check| match &pair {
            Some(path) => check.at(Drawing::Sheet, path.clone()),
            None => check,
        };
        let mut check =
            self.length("spacing", "Between pieces", (spacing, Sense::AtLeast, SPACING));
        if check.state == State::Broken {
            check.state = State::Attention;
            check.verdict = if spacing == 0.0 {
                "neighbours share their cuts".to_owned()
            } else {
                "little card left to hold them".to_owned()
            };
        }
        let mut checks = vec![place(check.remedy(Remedy::set(
            format!("Set the spacing to {}", self.show(SPACING)),
            "sheet.spacing",
            SPACING,
        )))];
        let bleed =
            self.job.face.as_ref().filter(|face| face.colour.is_some()).map(|face| face.bleed);
        if let Some(bleed) = bleed.filter(|bleed| *bleed > 0.0) {
            let held = self.ground.art.as_ref().map_or(0.0, |art| art.bleed);
            let mut check =
                self.length("bleed", "Bleed between pieces", (held, Sense::AtLeast, bleed));
            if check.state == State::Broken {
                check.state = State::Attention;
                check.verdict = "held back by the neighbour’s".to_owned();
            }
            checks.push(place(
                check
                    .remedy(Remedy::set(
                        format!("Set the spacing to {}", self.show(2.0 * bleed)),
                        "sheet.spacing",
                        2.0 * bleed,
                    ))
                    .remedy(Remedy::set(
                        format!("Set the bleed to {}", self.show(held)),
                        "face.bleed",
                        held,
                    )),
            ));
        }
        checks
    }

    /// Main folds crack less along the grain (common practice).
    fn grain(&self) -> Option<Check> {
        let down = grain_runs_down(&self.job.sheet, self.records.stock.grain)?;
        let run = self.layout.runs.first()?;
        let along = self.ground.flat.folds == Axis::Along;
        let crossing = run
            .placements
            .iter()
            .filter(|placement| (along == placement.turn.is_multiple_of(2)) != down)
            .count();
        let total = run.placements.len();
        let state = if crossing == 0 { State::Fits } else { State::Attention };
        let text = if crossing == 0 { "along" } else { "across" };
        let verdict = if crossing == 0 {
            "main folds follow it".to_owned()
        } else {
            format!("{crossing} of {total} fold across it and may crack")
        };
        let check = Check::yes_or_no(
            "grain",
            Stage::Sheet,
            "Folds to the grain",
            state,
            [text.to_owned(), "best along".to_owned(), verdict],
        );
        Some(check.remedies(|| match self.job.sheet.turning {
            Turning::Grain => Vec::new(),
            _ => vec![Remedy::set("Turn copies only along the grain", "sheet.turning", "grain")],
        }))
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
