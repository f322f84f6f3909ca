//! A job and its workshop, prepared: everything that views and files are made from.

use std::collections::BTreeSet;

use crate::LineKind;
use crate::check::{Check, Stage, State};
use crate::error::{Faults, InputError, Remedy};
use crate::face::{Art, Inked, face_checks};
use crate::fold::FoldModel;
use crate::form::{Flat, Part};
use crate::formed::{Forgetful, Memory};
use crate::geometry::{BezPath, Rect};
use crate::ground::{Drawn, Ground};
use crate::job::{Job, JobPiece};
use crate::records::Records;
use crate::sheet::{
    FreeRoom, Layout, Marks, Misfit, NO_CODE, Notes, Order, Orientation, Placement, SheetCode,
    Windows, lay, least_notes, legend_size, misfit, order, place_notes, sheet_checks,
};
use crate::units::measure;
use crate::workshop::Workshop;

/// A job, prepared.
#[derive(Debug, Clone)]
pub struct Prepared {
    /// The pieces, the job's own first.
    pub pieces: Vec<PreparedPiece>,
    /// The page's marks.
    pub marks: Marks,
    /// Where print and cuts may lie.
    pub windows: Windows,
    /// The copies on their sheets.
    pub layout: Layout,
    /// How the piece misses, when not one copy fits.
    pub misfit: Option<Misfit>,
    /// Room for scale and code, for each run of sheets.
    pub notes: Vec<Option<Notes>>,
    /// Room for the legend of lines printed by kind, for each run of sheets.
    pub legends: Vec<Option<Rect>>,
    /// The code that names exactly what is printed and cut.
    pub code: String,
    /// Which way round the page is.
    pub orientation: Orientation,
    /// Every limit.
    pub checks: Vec<Check>,
    /// What the whole order comes to.
    pub order: Order,
}

/// A piece, prepared.
#[derive(Debug, Clone)]
pub struct PreparedPiece {
    /// What it goes by.
    pub name: String,
    /// What was asked for.
    pub job_piece: JobPiece,
    /// It laid flat.
    pub flat: Flat,
    /// What is printed on each of its parts; none where nothing is printed.
    pub arts: Vec<Art>,
    /// How it folds.
    pub fold: FoldModel,
}

/// One of the job's blanks, of whichever piece.
#[derive(Debug, Clone, Copy)]
pub struct PreparedBlank<'a> {
    /// The blank.
    pub part: &'a Part,
    /// What is printed on it.
    pub art: Option<&'a Art>,
    /// Which piece it belongs to.
    pub piece: usize,
}

impl Prepared {
    /// The first piece.
    #[must_use]
    pub fn first(&self) -> &PreparedPiece {
        &self.pieces[0]
    }

    /// Every blank, in the order in which placements number them.
    pub fn blanks(&self) -> impl Iterator<Item = PreparedBlank<'_>> {
        self.pieces.iter().enumerate().flat_map(|(piece, prepared)| {
            prepared.flat.parts.iter().enumerate().map(move |(at, part)| PreparedBlank {
                part,
                art: prepared.arts.get(at),
                piece,
            })
        })
    }

    /// What each blank takes on a sheet: its outline, and what is printed past it.
    #[must_use]
    pub fn blank_paths(&self) -> Vec<Vec<&BezPath>> {
        self.blanks().map(|blank| blank_paths(blank.part, blank.art)).collect()
    }

    /// Pages of lines printed by kind: a sheet each, and one for a legend that has room on none.
    #[must_use]
    pub fn hand_cut_pages(&self) -> u32 {
        self.layout.sheets() + u32::from(self.legends.iter().all(Option::is_none))
    }

    /// True when something is printed.
    #[must_use]
    pub fn is_printed(&self) -> bool {
        self.pieces.iter().any(|piece| !piece.arts.is_empty())
    }

    /// The worst state of a stage's checks; `None` where it has none.
    #[must_use]
    pub fn state(&self, stage: Stage) -> Option<State> {
        self.checks.iter().filter(|check| check.stage == stage).map(|check| check.state).max()
    }

    /// The worst state of all.
    #[must_use]
    pub fn worst(&self) -> State {
        self.checks.iter().map(|check| check.state).max().unwrap_or(State::Fits)
    }
}

/// Prepares a job.
///
/// # Errors
/// Figures that cannot be worked with and ids that name nothing. A limit that is passed is no
/// error: it is a check in the result.
pub fn prepare(job: &Job, workshop: &Workshop) -> Result<Prepared, Vec<InputError>> {
    prepare_with(job, workshop, &Forgetful)
}

/// Prepares a job, with what `memory` knows already.
///
/// # Errors
/// As [`prepare`].
pub fn prepare_with(
    job: &Job,
    workshop: &Workshop,
    memory: &dyn Memory,
) -> Result<Prepared, Vec<InputError>> {
    let mut faults = Faults::default();
    let _ = faults.take(job.validate());
    let Some(records) = faults.take(Records::of(job, workshop)) else {
        return Err(faults.or(()).err().unwrap_or_default());
    };
    let Some(mut ground) = faults.take(Ground::new(job, &records, memory)) else {
        return Err(faults.or(()).err().unwrap_or_default());
    };
    faults.or(())?;

    let plan = &job.sheet;
    let layout = lay(plan, &ground);
    let (piece, at) = ground.critical();
    let misfit = (!ground.holds(piece, at) && plan.kept.is_none()).then(|| {
        let outline = &piece.flat.parts[at].outline;
        let miss = misfit(&piece.blanks[at], outline, &ground.windows, &piece.turns);
        Misfit { placement: Placement { part: piece.first + at, ..miss.placement }, ..miss }
    });
    let blanks: Vec<Vec<&BezPath>> = ground
        .blanks()
        .map(|(piece, at)| blank_paths(&piece.flat.parts[at], piece.arts.get(at)))
        .collect();
    let sheets = layout.sheets();
    let kinds: BTreeSet<LineKind> =
        ground.blanks().flat_map(|(piece, at)| piece.flat.parts[at].kinds()).collect();
    let (notes, legends): (Vec<Option<Notes>>, Vec<Option<Rect>>) = layout
        .runs
        .iter()
        .map(|run| {
            let mut room = FreeRoom::new(&ground.windows, &blanks, &run.placements);
            let notes = place_notes(&mut room, job.unit, sheets);
            (notes, room.take(legend_size(kinds.len())))
        })
        .unzip();
    let code = code_of(job, &ground, &layout, &notes);
    if let Some(sign) = ground.marks.sign.as_mut().filter(|sign| sign.text == NO_CODE) {
        sign.text.clone_from(&code);
    }
    let mut checks = Vec::new();
    let is_alone = ground.is_alone();
    for piece in &ground.pieces {
        let wanted = &piece.job_piece;
        let own = piece.formed.checks.iter().cloned();
        let face = face_checks(wanted, &piece.flat, job.unit).into_iter();
        checks.extend(own.chain(face).map(|check| check.of_piece(wanted, is_alone)));
    }
    checks.extend(sheet_checks(job, workshop, &records, &ground, &layout, misfit.as_ref()));
    checks.extend(notes_check(job, &layout, &notes));
    let order = order(job, workshop, &ground, &layout);
    let Ground { pieces, marks, windows, .. } = ground;
    let pieces = pieces
        .into_iter()
        .map(|piece| {
            let Drawn { job_piece, formed, flat, arts, .. } = piece;
            let fold = formed.fold.clone();
            PreparedPiece { name: job.title(&job_piece).to_owned(), job_piece, flat, arts, fold }
        })
        .collect();
    Ok(Prepared {
        pieces,
        marks,
        windows,
        misfit,
        notes,
        legends,
        code,
        orientation: plan.orientation,
        checks,
        order,
        layout,
    })
}

fn blank_paths<'a>(part: &'a Part, art: Option<&'a Art>) -> Vec<&'a BezPath> {
    let art = art.map(|art| &art.to_edge).filter(|area| !area.elements().is_empty());
    std::iter::once(&part.outline).chain(art).collect()
}

/// The code that names what is printed and cut: every line, all ink, where copies lie, and nothing else.
fn code_of(job: &Job, ground: &Ground, layout: &Layout, notes: &[Option<Notes>]) -> String {
    let mut code = SheetCode::new();
    code.number(ground.windows.page.width());
    code.number(ground.windows.page.height());
    for mark in &ground.marks.marks {
        code.path(&mark.ink);
    }
    if let Some(sign) = &ground.marks.sign {
        code.text(&sign.text);
    }
    for (piece, at) in ground.blanks() {
        let part = &piece.flat.parts[at];
        code.text(part.edge.id());
        code.path(&part.outline);
        for line in &part.lines {
            code.text(part.kind(line.kind).id());
            code.path(&line.path);
        }
        if let Some(art) = piece.arts.get(at) {
            art.layers.iter().for_each(|inked| ink(&mut code, inked));
        }
    }
    for (run, notes) in layout.runs.iter().zip(notes) {
        code.number(f64::from(run.sheets));
        for at in &run.placements {
            code.text(&at.part.to_string());
            [at.x, at.y, at.turn].into_iter().for_each(|number| code.number(number));
        }
        if let Some(notes) = notes {
            code.number(notes.place.x0);
            code.number(notes.place.y0);
            code.text(if notes.turned { "turned" } else { "upright" });
            if let Some(scale) = notes.scale() {
                code.text(&measure(scale, job.unit));
            }
        }
    }
    code.finish()
}

/// Everything of a layer that shows.
fn ink(code: &mut SheetCode, inked: &Inked) {
    match inked {
        Inked::Area { path, colour } => {
            code.text(colour);
            code.path(path);
        }
        Inked::Words { path } => {
            code.text("words");
            code.path(path);
        }
        Inked::Picture { blob, place, clip, .. } => {
            code.text(&blob.0);
            for number in [place.x0, place.y0, place.x1, place.y1] {
                code.number(number);
            }
            code.path(clip);
        }
    }
}

/// A printed sheet without its code cannot be told from another; one without a scale cannot be measured.
fn notes_check(job: &Job, layout: &Layout, notes: &[Option<Notes>]) -> Option<Check> {
    if !job.is_printed() || notes.is_empty() {
        return None;
    }
    let least = least_notes(layout.sheets());
    let show = |mm| measure(mm, job.unit);
    let bare = notes.iter().filter(|notes| notes.is_none()).count();
    let unscaled = notes.iter().flatten().filter(|notes| notes.scale().is_none()).count();
    let (state, value, verdict) = match (bare, unscaled) {
        (0, 0) => (State::Fits, "both", "beside the pieces".to_owned()),
        (0, _) => (State::Attention, "the code alone", "no room for a scale".to_owned()),
        _ => (
            State::Attention,
            "left out",
            format!("{} × {} are free nowhere", show(least.x + 2.0), show(least.y + 2.0)),
        ),
    };
    let check = Check::yes_or_no(
        "notes",
        Stage::Sheet,
        "Scale and code",
        state,
        [value.to_owned(), "on each sheet".to_owned(), verdict],
    );
    Some(check.remedy(Remedy::advice(format!(
        "Leave {} × {} free on the sheet: take a larger one, or lay fewer copies on it by hand",
        show(least.x + 2.0),
        show(least.y + 2.0)
    ))))
}
