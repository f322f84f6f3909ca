//! The limits of a sheet, each with its numbers.

mod machines;
mod marks;
mod neighbours;

use std::cell::OnceCell;

use kurbo::{Rect, Shape, Vec2};

use super::{Layout, Misfit, Piece, ways_to_fit};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::Remedy;
use crate::face::Coverage;
use crate::geometry::path_text;
use crate::job::Job;
use crate::prepare::{Ground, Records};
use crate::units::measure;
use crate::workshop::Workshop;

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
}
