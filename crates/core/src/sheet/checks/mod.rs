//! The limits of a sheet, each with its numbers.

mod edges;
mod kept;
mod machines;
mod marks;
mod neighbours;
mod scan;

use std::cell::OnceCell;

use kurbo::{Rect, Shape, Vec2};

use super::{Layout, Misfit, Piece, laid_of, rotation, ways_to_fit};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::{Change, Remedy, Setting};
use crate::face::{Coverage, LayerKind};
use crate::form::Role;
use crate::geometry::path_text;
use crate::job::Job;
use crate::memory::Memory;
use crate::records::Records;
use crate::sheet::{Ground, OnGround};
use crate::units::measure;
use crate::workshop::Workshop;

/// Every check that a sheet gives rise to, the blank first.
pub(crate) fn sheet_checks(
    job: &Job,
    workshop: &Workshop,
    records: &Records<'_>,
    ground: &Ground,
    layout: &Layout,
    misfit: Option<&Misfit>,
    memory: &dyn Memory,
) -> Vec<Check> {
    let (drawn, at) = ground.critical();
    let piece = &drawn.blanks[at];
    let number = drawn.first + at;
    let ways = OnceCell::new();
    let scene =
        Scene { job, workshop, records, ground, piece, number, layout, misfit, memory, ways };
    let mut checks = scene.blank();
    checks.extend(scene.copies());
    checks.extend(scene.machines());
    checks.extend(scene.marks());
    checks.extend(scene.kept());
    checks.extend(scene.neighbours());
    checks.extend(scene.scanned());
    checks.extend(scene.white_edges());
    checks.extend(scene.backs());
    checks.extend(scene.white_beneath());
    checks.extend(scene.mirrored_words());
    checks.extend(scene.grain());
    checks
}

/// The checks of the marks alone.
pub(crate) fn mark_checks(
    job: &Job,
    workshop: &Workshop,
    records: &Records<'_>,
    ground: &Ground,
    layout: &Layout,
    memory: &dyn Memory,
) -> Vec<Check> {
    let (drawn, at) = ground.critical();
    let (piece, number, ways) = (&drawn.blanks[at], drawn.first + at, OnceCell::new());
    Scene { job, workshop, records, ground, piece, number, layout, misfit: None, memory, ways }
        .marks()
}

struct Scene<'a> {
    job: &'a Job,
    workshop: &'a Workshop,
    records: &'a Records<'a>,
    ground: &'a Ground,
    /// The blank that fits least.
    piece: &'a Piece,
    /// Its number among all blanks.
    number: usize,
    layout: &'a Layout,
    misfit: Option<&'a Misfit>,
    memory: &'a dyn Memory,
    ways: OnceCell<Vec<Remedy>>,
}

/// Gives up the kept layout.
fn rows_again() -> Remedy {
    Remedy {
        text: "Lay all in rows and columns".to_owned(),
        changes: vec![Change { field: "sheet.kept".to_owned(), value: Setting::Standard }],
    }
}

fn nested_again() -> Remedy {
    Remedy::advice("Nest it again, or move its copies")
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
        self.ways.get_or_init(|| ways_to_fit(self.job, self.workshop, self.memory)).clone()
    }

    /// What makes this piece fit. The ways of the job are those of its piece that fits least; another goes its own.
    fn ways_of(&self, piece: &OnGround) -> Vec<Remedy> {
        let own = &piece.drawn.job_piece;
        if self.ground.critical().0.drawn.job_piece.id == own.id || own.form.gathered().is_some() {
            return self.ways();
        }
        let mut alone = self.job.clone();
        alone.pieces.retain(|other| other.id == own.id);
        ways_to_fit(&alone, self.workshop, self.memory)
    }

    /// The turn in which the copies lie, or in which the piece misses by least.
    fn turn(&self) -> f64 {
        let laid = self.layout.runs.iter().flat_map(|run| &run.placements);
        let first = laid.clone().find(|place| place.part == self.number);
        let misfit = self.misfit.map(|misfit| &misfit.placement);
        misfit.or(first).map_or(0.0, |placement| placement.turn)
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
                .into_iter()
                .zip([Vec2::new(1.0, 0.0), Vec2::new(0.0, 1.0)])
                .map(|(check, way)| self.spare_the_flaps(check, turn, way)),
            );
        }
        checks
    }

    /// Leaves flaps unprinted, where what is left of the print fits that way.
    fn spare_the_flaps(&self, check: Check, turn: f64, way: Vec2) -> Check {
        let (drawn, at) = self.ground.critical();
        let piece = &drawn.drawn.job_piece;
        let panels = drawn.flat.parts[at].panels.iter().filter(|panel| panel.role == Role::Face);
        let faces = panels
            .map(|panel| (rotation(turn) * panel.outline.clone()).bounding_box())
            .reduce(|all, own| all.union(own));
        let left = faces.map_or(0.0, |faces| faces.size().to_vec2().dot(way));
        if check.gauge.is_none_or(|gauge| left > gauge.bound) {
            return check;
        }
        let layers = piece.face.iter().flat_map(|face| &face.layers);
        let on_flaps = layers.filter(|layer| {
            matches!(&layer.kind, LayerKind::Colour { coverage: Coverage::Flaps, .. })
        });
        let changes: Vec<Change> =
            on_flaps.map(|layer| Change::new(&layer.field("coverage"), "faces")).collect();
        if changes.is_empty() {
            return check;
        }
        let text = "Leave the flaps unprinted: they may leave the printable area".to_owned();
        check.remedy(Remedy { text, changes }.below(&piece.path()))
    }

    fn copies(&self) -> Vec<Check> {
        let room = self.ground.windows.cut.base;
        let several = self.ground.pieces.len() > 1;
        let mut checks: Vec<Check> = Vec::new();
        for piece in self.ground.on_sheets() {
            let wanted = piece.drawn.job_piece.made();
            let laid = laid_of(piece, self.layout);
            let verdict = match (laid, self.layout.sheets()) {
                (0, _) => "none fits".to_owned(),
                (_, 1) => "on one sheet".to_owned(),
                (_, sheets) if several => format!("on {sheets} sheets"),
                (_, sheets) => format!("on {sheets} sheets, {} on each", self.layout.per_sheet),
            };
            let limit = (laid, Sense::AtLeast, wanted);
            let mut check = Check::count("copies", Stage::Sheet, "Copies", limit, verdict)
                .at(Drawing::Sheet, self.window_or_excess(room));
            if check.state == State::Broken && self.job.sheet.kept.is_some() {
                check = check
                    .saying(format!("{} missing in the kept layout", wanted - laid.min(wanted)))
                    .remedy(rows_again());
            } else {
                check = check.remedies(|| self.ways_of(piece));
            }
            checks.push(check.of_piece(&piece.drawn.job_piece, !several));
        }
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
