//! A job's pieces and the page they go onto, before copies are laid.

use std::ops::Deref;
use std::sync::Arc;

use super::{
    LaidBlank, Machines, Marks, NO_CODE, Piece, SheetPlan, SheetRun, Turning, Windows,
    angle_that_fits, fits_somewhere, place_marks,
};
use crate::error::{Faults, InputError};
use crate::faced::{FaceInput, Faced};
use crate::form::{Axis, Held, HeldPiece};
use crate::formed::{FormInput, Formed};
use crate::id::{PartId, PieceId};
use crate::job::{Job, JobPiece};
use crate::memory::{Key, Memory};
use crate::records::Records;
use crate::workshop::{Grain, RecordId};

/// A piece, drawn and printed.
#[derive(Debug, Clone)]
pub struct Drawn {
    /// What is drawn.
    pub job_piece: JobPiece,
    /// Its form in its card.
    pub formed: Arc<Formed>,
    /// What the form is known by.
    pub form_key: Key,
    /// The form with its face.
    pub faced: Arc<Faced>,
    /// What these are known by.
    pub face_key: Key,
}

/// A piece, as it goes onto sheets.
#[derive(Debug, Clone)]
pub(crate) struct OnGround {
    pub drawn: Drawn,
    /// How its copies may be turned, degrees.
    pub turns: Vec<f64>,
    /// The number of its first blank among all of the job's.
    pub first: usize,
}

impl Deref for OnGround {
    type Target = Faced;

    fn deref(&self) -> &Faced {
        &self.drawn.faced
    }
}

/// A job's pieces with the page they go onto.
pub(crate) struct Ground {
    pub pieces: Vec<OnGround>,
    pub marks: Marks,
    pub windows: Windows,
    /// The card of each blank.
    pub cards: Vec<RecordId>,
}

/// Draws a job's pieces and prints their faces.
///
/// # Errors
/// Figures that cannot be worked with.
pub(crate) fn draw(
    job: &Job,
    records: &Records<'_>,
    memory: &dyn Memory,
) -> Result<Vec<Drawn>, Vec<InputError>> {
    let several = job.pieces.len() > 1 || job.pieces.iter().any(|piece| piece.made() > 1);
    let most_bleed = if several { job.sheet.spacing / 2.0 } else { f64::INFINITY };
    let turning = records.printer.map_or(0.0, |printer| printer.turning_error);
    let one = |number: usize, piece: &JobPiece, held: &[&Drawn], holder: Option<usize>| {
        // What a card holds is made of the card's stock, and may bleed halfway to its neighbours.
        let stock = &records.stocks[holder.unwrap_or(number)];
        let card = holder.and_then(|at| job.pieces[at].form.gathered());
        let most_bleed = card.map_or(most_bleed, |card| card.gap / 2.0);
        let mut piece = piece.clone();
        hold(&mut piece, held);
        let keys: Vec<Key> = held.iter().map(|own| own.form_key).collect();
        let input =
            FormInput { form: &piece.form, held: &keys, caliper: stock.caliper, unit: job.unit };
        let (form_key, formed) = input.made(memory)?;
        let parts = formed.flat.parts.iter();
        let on_liner: Vec<bool> =
            parts.map(|part| records.has_liner(holder.unwrap_or(number), part)).collect();
        let face = piece.face.as_ref();
        let (faces, worn): (Vec<Key>, Vec<Arc<Faced>>) =
            held.iter().map(|own| (own.face_key, Arc::clone(&own.faced))).unzip();
        let input = FaceInput {
            form: form_key,
            face,
            is_furnished: piece.is_furnished(),
            list: face.and(piece.list.as_ref()),
            bleed: face.map_or(0.0, |face| face.bleed.min(most_bleed).max(0.0)),
            held: &faces,
            is_held: holder.is_some(),
            mirrored: stock.mirrored && holder.is_none(),
            back_bleed: face
                .filter(|face| face.both_sides && !stock.mirrored)
                .map(|face| (face.bleed + turning).min(most_bleed).max(0.0)),
            on_liner: &on_liner,
            through: piece.form.through,
            unit: job.unit,
        };
        let (face_key, faced) = input.made(&formed, &worn, memory)?;
        Ok(Drawn { job_piece: piece, formed, form_key, faced, face_key })
    };
    let mut faults = Faults::default();
    let mut all: Vec<Option<Drawn>> = job.pieces.iter().map(|_| None).collect();
    // Cards last: they are drawn around what they hold.
    let mut order: Vec<usize> = (0..job.pieces.len()).collect();
    order.sort_by_key(|number| job.pieces[*number].form.gathered().is_some());
    for number in order {
        let piece = &job.pieces[number];
        let members = piece.form.gathered().map(|card| card.members.iter());
        let held: Option<Vec<&Drawn>> = members
            .into_iter()
            .flatten()
            .map(|member| {
                let drawn = all.iter().flatten();
                drawn.into_iter().find(|own| own.job_piece.id == member.piece)
            })
            .collect();
        // What is wrong with a member is said already.
        let Some(held) = held else { continue };
        let holder = job.holder(&piece.id).map(|(at, _)| at);
        let drawn: Result<Drawn, Vec<InputError>> = one(number, piece, &held, holder);
        let own = |errors: Vec<InputError>| -> Vec<InputError> {
            errors.into_iter().map(|error| error.below(&piece.path())).collect()
        };
        all[number] = faults.take(drawn.map_err(own));
    }
    faults.or(all.into_iter().flatten().collect())
}

/// Gives a card the pieces that it holds, as they are drawn.
fn hold(piece: &mut JobPiece, held: &[&Drawn]) {
    let Some(card) = piece.form.gathered_mut() else { return };
    let drawn = held.iter().filter_map(|own| {
        let part = own.faced.flat.parts.first()?;
        Some(HeldPiece {
            piece: own.job_piece.id.clone(),
            name: own.job_piece.own_name().to_owned(),
            outline: part.outline.clone(),
            strokes: part.strokes.clone(),
            through: own.job_piece.form.through,
            bounds: part.bounds,
        })
    });
    card.held = Held(Some(Arc::new(drawn.collect())));
}

impl Ground {
    /// Draws a job's pieces and gets their page ready.
    pub(crate) fn new(
        job: &Job,
        records: &Records<'_>,
        memory: &dyn Memory,
    ) -> Result<Self, Vec<InputError>> {
        draw(job, records, memory).map(|drawn| Self::of(job, records, drawn))
    }

    /// The page for these pieces of a job.
    pub(crate) fn of(job: &Job, records: &Records<'_>, drawn: Vec<Drawn>) -> Self {
        let plan = &job.sheet;
        let page = plan.page();
        let machines = records.machines();
        let marks = records.marks.map_or_else(Marks::default, |set| {
            place_marks(set, page, machines.printable(page, plan.orientation), NO_CODE)
        });
        let windows = machines.windows(page, plan.orientation, &marks);
        let mut ground = Self { pieces: Vec::new(), marks, windows, cards: Vec::new() };
        for (drawn, stock) in drawn.into_iter().zip(&records.stocks) {
            let (flat, blanks) = (&drawn.faced.flat, &drawn.faced.blanks);
            let turns = turns(plan, stock.grain, flat.main_folds(), blanks, &ground.windows);
            let first = ground.cards.len();
            let parts = drawn.faced.laid_parts().iter();
            ground.cards.extend(parts.map(|part| drawn.job_piece.card_of(part).clone()));
            ground.pieces.push(OnGround { drawn, turns, first });
        }
        ground
    }

    /// True where a face puts white beneath the marks.
    pub(crate) fn marks_on_white(&self) -> bool {
        let mut faces = self.pieces.iter().filter_map(|piece| piece.drawn.job_piece.face.as_ref());
        faces.any(|face| face.white.under_marks)
    }

    /// The blanks as a layout names them.
    pub(crate) fn laid_blanks(&self) -> Vec<LaidBlank> {
        let named = self.blanks().map(|(piece, at)| LaidBlank {
            piece: piece.drawn.job_piece.id.clone(),
            part: piece.flat.parts[at].id.clone(),
            outline: Some(piece.outlines[at].clone()),
        });
        named.collect()
    }

    /// The number of a blank among all of the job's.
    pub(crate) fn number(&self, piece: &PieceId, part: &PartId) -> Option<usize> {
        self.blanks().position(|(own, at)| {
            own.drawn.job_piece.id == *piece && own.flat.parts[at].id == *part
        })
    }

    /// The cards, each once, in the order of the blanks.
    pub(crate) fn each_card(&self) -> Vec<&RecordId> {
        let mut cards: Vec<&RecordId> = Vec::new();
        for card in &self.cards {
            if !cards.contains(&card) {
                cards.push(card);
            }
        }
        cards
    }

    /// The card of a run of sheets: that of what lies on them.
    pub(crate) fn card_of(&self, run: &SheetRun) -> &RecordId {
        let part = run.placements.first().map_or(0, |at| at.part);
        &self.cards[part]
    }

    /// The pieces that lie on sheets: all but those that a card holds.
    pub(crate) fn on_sheets(&self) -> impl Iterator<Item = &OnGround> {
        self.pieces.iter().filter(|piece| !piece.blanks.is_empty())
    }

    /// True in a job of one piece.
    pub(crate) fn is_alone(&self) -> bool {
        self.pieces.len() == 1
    }

    /// Every blank of every piece with its number: the piece, and which of its blanks.
    pub(crate) fn blanks(&self) -> impl Iterator<Item = (&OnGround, usize)> {
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
    pub(crate) fn holds(&self, piece: &OnGround, at: usize) -> bool {
        fits_somewhere(&piece.blanks[at], &self.windows, &piece.turns)
    }

    /// The blank that fits nowhere, or else the largest: the piece, and which of its blanks.
    pub(crate) fn critical(&self) -> (&OnGround, usize) {
        let area = |(piece, at): &(&OnGround, usize)| piece.flat.parts[*at].bounds.area();
        let by_area = |a: &(&OnGround, usize), b: &(&OnGround, usize)| area(a).total_cmp(&area(b));
        let several = self.cards.len() > 1;
        let misfit =
            self.blanks().filter(|(piece, at)| several && !self.holds(piece, *at)).max_by(by_area);
        misfit.or_else(|| self.blanks().max_by(by_area)).unwrap_or((&self.pieces[0], 0))
    }
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

impl<'a> Records<'a> {
    /// The machines the sheet goes through.
    #[must_use]
    pub fn machines(&self) -> Machines<'a> {
        Machines {
            printer: self.printer,
            cutter: self.cutter,
            carrier: self.carrier,
            // All cards go onto the same page, so the widest sides count.
            sides: self
                .stocks
                .iter()
                .chain(self.backings.iter().flatten())
                .filter_map(|stock| stock.roll)
                .map(|roll| roll.side)
                .fold(0.0, f64::max),
            to_marks: self.to_marks,
            backs: self.backs,
        }
    }
}
