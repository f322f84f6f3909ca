//! A job's pieces and the page they go onto, before copies are laid.

use std::sync::Arc;

use crate::LineKind;
use crate::error::{InputError, Remedy};
use crate::face::Art;
use crate::form::{Axis, Flat};
use crate::formed::{FormKey, Formed, Memory};
use crate::geometry::Region;
use crate::job::{Job, JobPiece};
use crate::records::Records;
use crate::sheet::{
    Marks, NO_CODE, Piece, SheetPlan, Turning, Windows, angle_that_fits, fits_somewhere,
    place_marks,
};
use crate::workshop::{Grain, RecordId};

/// A piece, drawn.
#[derive(Debug, Clone)]
pub struct Drawn {
    /// What is drawn.
    pub job_piece: JobPiece,
    /// Its form in its card.
    pub formed: Arc<Formed>,
    /// It laid flat.
    pub flat: Flat,
    /// What is printed on each of its blanks; none where nothing is printed.
    pub arts: Vec<Art>,
    /// Its blanks as layouts see them.
    pub blanks: Vec<Piece>,
    /// How its copies may be turned, degrees.
    pub turns: Vec<f64>,
    /// The number of its first blank among all of the job's.
    pub first: usize,
}

/// A job's pieces with the page they go onto.
pub(crate) struct Ground {
    pub pieces: Vec<Drawn>,
    pub marks: Marks,
    pub windows: Windows,
    /// The card of each blank, where that is not the job's.
    pub cards: Vec<Option<RecordId>>,
}

impl Ground {
    pub(crate) fn new(
        job: &Job,
        records: &Records<'_>,
        memory: &dyn Memory,
    ) -> Result<Self, Vec<InputError>> {
        let plan = &job.sheet;
        let page = plan.page();
        let machines = records.machines();
        let marks = records.marks.map_or_else(Marks::default, |set| {
            place_marks(set, page, machines.printable(page, plan.orientation), NO_CODE)
        });
        let windows = machines.windows(page, plan.orientation, &marks);
        let several = job.pieces.len() > 1 || job.pieces.iter().any(|piece| piece.copies > 1);
        let most_bleed = if several { plan.spacing / 2.0 } else { f64::INFINITY };
        let mut ground = Self { pieces: Vec::new(), marks, windows, cards: Vec::new() };
        let mut errors = Vec::new();
        for (number, (piece, stock)) in job.pieces.iter().zip(&records.stocks).enumerate() {
            let key = FormKey { form: piece.form.clone(), caliper: stock.caliper, unit: job.unit };
            match memory.formed(key) {
                Ok(formed) => {
                    let mut flat = formed.flat.clone();
                    for part in &mut flat.parts {
                        part.on_liner = records.has_liner(number, part);
                        if part.on_liner && !piece.form.through {
                            part.edge = LineKind::KissCut;
                        }
                    }
                    let arts: Vec<Art> = piece.face.as_ref().map_or_else(Vec::new, |face| {
                        flat.parts.iter().map(|part| face.print(part, most_bleed)).collect()
                    });
                    let blanks = blanks(&flat, &arts);
                    if blanks.len() < flat.parts.len() || blanks.is_empty() {
                        errors.push(no_outline().below(&piece.path()));
                        continue;
                    }
                    let turns = turns(plan, stock.grain, flat.folds, &blanks, &ground.windows);
                    let first = ground.cards.len();
                    ground.cards.extend(flat.parts.iter().map(|part| {
                        let card = part.stock.as_ref().unwrap_or(&piece.stock);
                        (*card != job.pieces[0].stock).then(|| card.clone())
                    }));
                    ground.pieces.push(Drawn {
                        job_piece: piece.clone(),
                        formed,
                        flat,
                        arts,
                        blanks,
                        turns,
                        first,
                    });
                }
                Err(own) => errors.extend(own.into_iter().map(|error| error.below(&piece.path()))),
            }
        }
        if errors.is_empty() { Ok(ground) } else { Err(errors) }
    }

    /// True in a job of one piece.
    pub(crate) fn is_alone(&self) -> bool {
        self.pieces.len() == 1
    }

    /// Every blank of every piece with its number: the piece, and which of its blanks.
    pub(crate) fn blanks(&self) -> impl Iterator<Item = (&Drawn, usize)> {
        self.pieces.iter().flat_map(|piece| (0..piece.blanks.len()).map(move |at| (piece, at)))
    }

    /// True when at least one copy of every blank fits.
    pub(crate) fn fits(&self) -> bool {
        self.blanks().all(|(piece, at)| self.holds(piece, at))
    }

    /// True when at least one copy of every blank of a piece fits.
    pub(crate) fn fits_piece(&self, number: usize) -> bool {
        let piece = self.pieces.get(number);
        piece.is_some_and(|piece| (0..piece.blanks.len()).all(|at| self.holds(piece, at)))
    }

    /// True when a blank fits somewhere.
    pub(crate) fn holds(&self, piece: &Drawn, at: usize) -> bool {
        fits_somewhere(&piece.blanks[at], &self.windows, &piece.turns)
    }

    /// The blank that fits nowhere, or else the largest: the piece, and which of its blanks.
    pub(crate) fn critical(&self) -> (&Drawn, usize) {
        let area = |(piece, at): &(&Drawn, usize)| piece.flat.parts[*at].bounds.area();
        let by_area = |a: &(&Drawn, usize), b: &(&Drawn, usize)| area(a).total_cmp(&area(b));
        let several = self.cards.len() > 1;
        let misfit =
            self.blanks().filter(|(piece, at)| several && !self.holds(piece, *at)).max_by(by_area);
        misfit.or_else(|| self.blanks().max_by(by_area)).unwrap_or((&self.pieces[0], 0))
    }
}

fn blanks(flat: &Flat, arts: &[Art]) -> Vec<Piece> {
    let bare = Region::empty();
    let parts = flat.parts.iter().enumerate();
    parts
        .filter_map(|(at, part)| {
            Piece::new(&part.outline, arts.get(at).map_or(&bare, |art| &art.printed))
        })
        .collect()
}

fn no_outline() -> InputError {
    InputError::plain(
        "form",
        "A blank has no outline",
        Remedy::advice("Give the piece a length, a width and a height"),
    )
}

/// True when the grain runs from top to bottom of the page, `None` when nobody knows.
pub(crate) fn grain_runs_down(plan: &SheetPlan, grain: Grain) -> Option<bool> {
    let page = plan.page();
    match grain {
        Grain::Unknown => None,
        Grain::Long => Some(page.height() >= page.width()),
        Grain::Short => Some(page.height() < page.width()),
    }
}

const QUARTERS: [f64; 4] = [0.0, 90.0, 180.0, 270.0];

fn turns(
    plan: &SheetPlan,
    grain: Grain,
    folds: Axis,
    blanks: &[Piece],
    windows: &Windows,
) -> Vec<f64> {
    match (plan.turning, grain_runs_down(plan, grain)) {
        (Turning::Upright, _) => vec![0.0],
        (Turning::Grain, Some(down)) if folds != Axis::Both => {
            if down == (folds == Axis::Along) {
                vec![0.0, 180.0]
            } else {
                vec![90.0, 270.0]
            }
        }
        (Turning::Quarter | Turning::Grain, _) => QUARTERS.to_vec(),
        (Turning::Free, _) => {
            // Rows and columns lie straight unless only a slant makes room.
            let slant = blanks
                .iter()
                .filter(|blank| !fits_somewhere(blank, windows, &QUARTERS))
                .find_map(|blank| angle_that_fits(blank, windows));
            slant.map_or(QUARTERS.to_vec(), |angle| vec![angle, angle + 180.0])
        }
    }
}
