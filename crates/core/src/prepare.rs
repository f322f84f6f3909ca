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
use crate::id::PieceId;
use crate::job::{Job, JobPiece, OperationId, Tooling};
use crate::laid::{Laid, blank_paths};
use crate::memory::{Forgetful, Key, Memory, recalled};
use crate::piece_checks::rows_check;
use crate::records::Records;
use crate::sheet::{Drawn, draw};
use crate::sheet::{Placement, SheetRun};
use crate::tooling::{
    Bed, CutPlan, LineClass, Machine, Operation, PlanBlank, ToolPath, ToolingGround, operations,
    tooling_checks,
};
use crate::workshop::{RecordId, Workshop};

/// A job, prepared: its last stage, with the pieces that went into it.
#[derive(Debug, Clone)]
pub struct Prepared {
    /// The pieces.
    pub pieces: Vec<PreparedPiece>,
    /// The copies on their sheets.
    pub laid: Arc<Laid>,
    /// What the layout is known by.
    pub laid_key: Key,
    /// What is done along its lines, in order.
    pub operations: Vec<Operation>,
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

    /// The card of a run of sheets: that of the blanks on them.
    #[must_use]
    pub fn card_of(&self, run: &SheetRun) -> Option<&RecordId> {
        let blank = self.blanks().nth(run.placements.first()?.part)?;
        Some(self.pieces[blank.piece].job_piece.card_of(blank.part))
    }

    /// What each blank takes on a sheet: its outline, and what is printed past it.
    #[must_use]
    pub fn blank_paths(&self) -> Vec<Vec<&BezPath>> {
        self.blanks().map(|blank| blank_paths(blank.part, blank.art)).collect()
    }

    /// The plan of a sheet with these copies.
    #[must_use]
    pub fn plan(&self, tooling: &Tooling, placements: &[Placement]) -> CutPlan {
        let blanks: Vec<PlanBlank<'_>> = self
            .blanks()
            .map(|blank| PlanBlank {
                part: blank.part,
                piece: &self.pieces[blank.piece].job_piece.id,
            })
            .collect();
        CutPlan::of(&blanks, placements, tooling)
    }

    /// The plan of a run of sheets, made anew or remembered; `None` where there is no such run.
    #[must_use]
    pub fn planned(
        &self,
        tooling: &Tooling,
        run: usize,
        memory: &dyn Memory,
    ) -> Option<Arc<CutPlan>> {
        let placements = &self.layout.runs.get(run)?.placements;
        let Tooling { nicks, perforated, weeding, .. } = tooling;
        let reverse = tooling.of(&OperationId::from(LineKind::ReverseCrease)).reverse;
        let input = (self.laid_key, run, nicks, perforated, weeding, reverse);
        let made = recalled(memory, "planned", &input, || Ok(self.plan(tooling, placements)));
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
        let plan = self.planned(&job.tooling, run, memory)?;
        let cutter = job.sheet.cutter.as_ref().and_then(|id| workshop.cutters.get(id));
        let input = (self.laid_key, run, &job.tooling, cutter, &workshop.recipes);
        let bed = Bed {
            plan: &plan,
            placements: &self.layout.runs.get(run)?.placements,
            page: self.windows.page,
            window: &self.windows.cut,
        };
        let made = recalled(memory, "tool path", &input, || {
            Ok(ToolPath::of(bed, &self.operations, &job.tooling, cutter))
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

    /// A limit of a stage that is broken.
    #[must_use]
    pub fn broken(&self, stage: Stage) -> Option<&Check> {
        self.checks.iter().find(|check| check.stage == stage && check.state == State::Broken)
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
    let is_sound = faults.take(job.validate()).is_some();
    let Some(records) = faults.take(Records::of(job, workshop)) else {
        return Err(faults.or(()).err().unwrap_or_default());
    };
    // What is wrong with forms is told as well, but nothing is printed with figures out of their range: it could take
    // for ever.
    let bare = (!is_sound).then(|| job.bare());
    let Some(drawn) = faults.take(draw(bare.as_ref().unwrap_or(job), &records, memory)) else {
        return Err(faults.or(()).err().unwrap_or_default());
    };
    faults.or(())?;

    let (laid_key, laid) = Laid::made(job, workshop, &records, &drawn, memory)?;
    let mut checks = Vec::new();
    for piece in &drawn {
        let own = piece.formed.checks.iter().chain(&piece.faced.checks).cloned();
        let made =
            job.holder(&piece.job_piece.id).map_or(piece.job_piece.made(), |(_, count)| count);
        let own = own.chain(rows_check(&piece.job_piece, made));
        checks.extend(own.map(|check| check.of_piece(&piece.job_piece, drawn.len() == 1)));
    }
    checks.extend(laid.sheet_checks.iter().cloned());
    let machine = job.sheet.cutter.as_ref().zip(records.cutter).map(|(id, cutter)| Machine {
        id,
        cutter,
        recipes: &workshop.recipes,
    });
    let classes = line_classes(job, &drawn);
    let operations = operations(&classes, &workshop.stocks, &job.tooling, machine);
    let blanks: Vec<&Part> = drawn.iter().flat_map(|piece| piece.faced.laid_parts()).collect();
    checks.extend(tooling_checks(&ToolingGround {
        job,
        workshop,
        records: &records,
        operations: &operations,
        blanks: &blanks,
        runs: laid.layout.runs.iter().map(|run| run.placements.as_slice()).collect(),
        window: laid.windows.cut.base,
    }));
    let pieces = drawn.into_iter().map(|piece| {
        let Drawn { job_piece, formed, form_key, faced, face_key } = piece;
        let name = job.title(&job_piece).to_owned();
        PreparedPiece { name, job_piece, formed, form_key, faced, face_key }
    });
    Ok(Prepared { pieces: pieces.collect(), laid, laid_key, operations, checks })
}

/// The lines of a job, as operations tell them apart.
fn line_classes(job: &Job, drawn: &[Drawn]) -> BTreeSet<LineClass> {
    let mut classes = BTreeSet::new();
    for piece in drawn {
        for part in piece.faced.laid_parts() {
            let class = |kind: LineKind, is_edge: bool, drawn: Option<&Arc<str>>| LineClass {
                kind,
                is_edge,
                drawn: drawn.cloned(),
                piece: piece.job_piece.id.clone(),
                stock: piece.job_piece.card_of(part).clone(),
            };
            let inside = part.strokes.iter();
            classes.extend(inside.map(|own| class(part.kind(own.kind), false, own.source.drawn())));
            classes.insert(class(part.edge, true, None));
        }
    }
    // Cuts in the waste belong to no piece.
    if job.tooling.weeding.is_some()
        && let Some(first) = classes.iter().find(|own| own.is_edge).cloned()
    {
        let all_kissed = classes.iter().all(|own| !own.is_edge || own.kind == LineKind::KissCut);
        let kind = if all_kissed { LineKind::KissCut } else { LineKind::Cut };
        let piece = PieceId(String::new());
        classes.insert(LineClass { kind, is_edge: false, piece, drawn: None, stock: first.stock });
    }
    classes
}
