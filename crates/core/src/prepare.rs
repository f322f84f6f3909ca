//! A job and its workshop, prepared: everything that views and files are made from.

use std::collections::BTreeSet;
use std::ops::Deref;
use std::sync::Arc;

use crate::LineKind;
use crate::check::{Check, Stage, State};
use crate::error::{Faults, InputError};
use crate::face::{Art, Side};
use crate::faced::Faced;
use crate::form::Part;
use crate::formed::Formed;
use crate::geometry::{Affine, BezPath};
use crate::job::{Job, JobPiece};
use crate::laid::{Laid, blank_paths};
use crate::memory::{Forgetful, Key, Memory, recalled};
use crate::piece_checks::rows_check;
use crate::records::Records;
use crate::sheet::Placement;
use crate::sheet::{Drawn, draw};
use crate::tooling::{CutPlan, ToolPath, operations, tooling_checks};
use crate::workshop::Workshop;

/// A job, prepared: its last stage, with the pieces that went into it.
#[derive(Debug, Clone)]
pub struct Prepared {
    /// The pieces.
    pub pieces: Vec<PreparedPiece>,
    /// The copies on their sheets.
    pub laid: Arc<Laid>,
    /// What the layout is known by.
    pub laid_key: Key,
    /// Every limit, of all stages.
    pub checks: Vec<Check>,
}

impl Deref for Prepared {
    type Target = Laid;

    fn deref(&self) -> &Laid {
        &self.laid
    }
}

/// A piece, prepared: its form with its face.
#[derive(Debug, Clone)]
pub struct PreparedPiece {
    /// What it goes by.
    pub name: String,
    /// What was asked for.
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

impl Deref for PreparedPiece {
    type Target = Faced;

    fn deref(&self) -> &Faced {
        &self.faced
    }
}

/// One of the job's blanks, of whichever piece.
#[derive(Debug, Clone, Copy)]
pub struct PreparedBlank<'a> {
    /// The blank.
    pub part: &'a Part,
    /// What is printed on it.
    pub art: Option<&'a Art>,
    /// What is printed behind it, as it is seen from there.
    pub back: Option<&'a Art>,
    /// Which piece it belongs to.
    pub piece: usize,
}

impl<'a> PreparedBlank<'a> {
    /// What is printed on one side of it, as that is seen.
    #[must_use]
    pub const fn art_on(&self, side: Side) -> Option<&'a Art> {
        match side {
            Side::Front => self.art,
            Side::Back => self.back,
        }
    }
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
            prepared.laid_parts().iter().enumerate().map(move |(at, part)| PreparedBlank {
                part,
                art: prepared.laid_arts().get(at),
                back: prepared.back.as_ref().and_then(|back| back.arts.get(at)),
                piece,
            })
        })
    }

    /// What each blank takes on a sheet: its outline, and what is printed past it.
    #[must_use]
    pub fn blank_paths(&self) -> Vec<Vec<&BezPath>> {
        self.blanks().map(|blank| blank_paths(blank.part, blank.art)).collect()
    }

    /// The plan of a sheet with these copies.
    #[must_use]
    pub fn plan(&self, placements: &[Placement]) -> CutPlan {
        let blanks: Vec<&Part> = self.blanks().map(|blank| blank.part).collect();
        CutPlan::of(&blanks, placements)
    }

    /// The plan of a run of sheets, made anew or remembered; `None` where there is no such run.
    #[must_use]
    pub fn planned(&self, run: usize, memory: &dyn Memory) -> Option<Arc<CutPlan>> {
        let placements = &self.layout.runs.get(run)?.placements;
        let made = recalled(memory, "planned", &(self.laid_key, run), || Ok(self.plan(placements)));
        made.ok().map(|(_, plan)| plan)
    }

    /// The path of the tools on a run of its sheets, made anew or remembered; `None` where there is no such run.
    #[must_use]
    pub fn tool_path(
        &self,
        job: &Job,
        workshop: &Workshop,
        run: usize,
        memory: &dyn Memory,
    ) -> Option<Arc<ToolPath>> {
        let plan = self.planned(run, memory)?;
        let cutter = job.sheet.cutter.as_ref().and_then(|id| workshop.cutters.get(id));
        let input = (self.laid_key, run, &job.tooling, cutter);
        let page = self.windows.page;
        let made = recalled(memory, "tool path", &input, || {
            Ok(ToolPath::of(&plan, &job.tooling, cutter, page))
        });
        made.ok().map(|(_, path)| path)
    }

    /// The kinds of line that it has, in the order of work.
    #[must_use]
    pub fn kinds(&self) -> BTreeSet<LineKind> {
        self.blanks().flat_map(|blank| blank.part.kinds()).collect()
    }

    /// Pages of lines printed by kind: a sheet each, and one for a legend that has room on none.
    #[must_use]
    pub fn hand_cut_pages(&self) -> u32 {
        self.layout.sheets() + u32::from(self.legends.iter().all(Option::is_none))
    }

    /// True when the sheets are printed on both sides.
    #[must_use]
    pub fn has_backs(&self) -> bool {
        self.pieces.iter().any(|piece| piece.back.is_some())
    }

    /// From one side of a copy of a blank to that side of its page, each as it is seen.
    #[must_use]
    pub fn transform(&self, side: Side, part: &Part, at: &Placement) -> Affine {
        match side {
            Side::Front => at.transform(),
            Side::Back => self.turned * at.transform() * part.turned_over(),
        }
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
    let Some(drawn) = faults.take(draw(job, &records, memory)) else {
        return Err(faults.or(()).err().unwrap_or_default());
    };
    faults.or(())?;

    let (laid_key, laid) = Laid::made(job, workshop, &records, &drawn, memory)?;
    let mut checks = Vec::new();
    for piece in &drawn {
        let own = piece.formed.checks.iter().chain(&piece.faced.checks).cloned();
        let made =
            job.holder(&piece.job_piece.id).map_or(piece.job_piece.copies, |(_, count)| count);
        let own = own.chain(rows_check(&piece.job_piece, made));
        checks.extend(own.map(|check| check.of_piece(&piece.job_piece, drawn.len() == 1)));
    }
    checks.extend(laid.sheet_checks.iter().cloned());
    let parts = drawn.iter().flat_map(|piece| piece.faced.laid_parts());
    let own = operations(parts.flat_map(Part::kinds), &job.tooling, records.cutter);
    checks.extend(tooling_checks(&own, records.cutter));
    let pieces = drawn.into_iter().map(|piece| {
        let Drawn { job_piece, formed, form_key, faced, face_key } = piece;
        let name = job.title(&job_piece).to_owned();
        PreparedPiece { name, job_piece, formed, form_key, faced, face_key }
    });
    Ok(Prepared { pieces: pieces.collect(), laid, laid_key, checks })
}
