//! A job and its workshop, prepared: everything that views and files are made from.

use crate::check::{Check, Stage, State};
use crate::error::{Faults, InputError};
use crate::face::Art;
use crate::fold::FoldModel;
use crate::form::{Flat, Part};
use crate::form_checks::form_checks;
use crate::ground::{Drawn, Ground};
use crate::job::Job;
use crate::records::Records;
use crate::sheet::{
    FreeRoom, Layout, Marks, Misfit, Notes, Order, Orientation, Placement, Windows, lay, misfit,
    order, place_notes, sheet_checks, sheet_code,
};
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
    /// The code that names this content.
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
    /// Its name.
    pub name: String,
    /// Copies wanted.
    pub copies: u32,
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
    let mut faults = Faults::default();
    let _ = faults.take(job.validate());
    let Some(records) = faults.take(Records::of(job, workshop)) else {
        return Err(faults.or(()).err().unwrap_or_default());
    };
    let content = (&job.form, &job.face, &job.sheet, &job.companions, &records);
    let code = sheet_code(&content);
    let Some(ground) = faults.take(Ground::new(job, &records, &code)) else {
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
    let outlines: Vec<_> =
        ground.blanks().map(|(piece, at)| &piece.flat.parts[at].outline).collect();
    let notes = layout
        .runs
        .iter()
        .map(|run| {
            let mut room = FreeRoom::new(&ground.windows, &outlines, &run.placements);
            place_notes(&mut room, job.unit)
        })
        .collect();
    let folds: Vec<FoldModel> = ground
        .pieces
        .iter()
        .zip(&records.stocks)
        .map(|(piece, stock)| FoldModel::new(&piece.flat, stock.caliper))
        .collect();
    let mut checks = Vec::new();
    for (number, ((piece, fold), wanted)) in
        ground.pieces.iter().zip(&folds).zip(job.pieces()).enumerate()
    {
        let own = form_checks(wanted.form, &piece.flat, fold, job.unit).into_iter();
        checks.extend(own.map(|check| check.of_piece(number, &piece.name, &piece.path)));
    }
    checks.extend(sheet_checks(job, workshop, &records, &ground, &layout, misfit.as_ref()));
    let order = order(job, workshop, &ground, &layout);
    let Ground { pieces, marks, windows, .. } = ground;
    let pieces = pieces
        .into_iter()
        .zip(folds)
        .map(|(piece, fold)| {
            let Drawn { name, copies, flat, arts, .. } = piece;
            PreparedPiece { name, copies, flat, arts, fold }
        })
        .collect();
    Ok(Prepared {
        pieces,
        marks,
        windows,
        misfit,
        notes,
        code,
        orientation: plan.orientation,
        checks,
        order,
        layout,
    })
}
