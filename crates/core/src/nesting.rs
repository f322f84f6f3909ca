//! A job's copies, nested: each card's blanks on sheets of their own, locked copies left where they are.

use crate::error::{Faults, InputError, Remedy};
use crate::job::Job;
use crate::memory::Memory;
use crate::records::Records;
use crate::sheet::Ground;
use crate::sheet::nest::{Found, NestAsk, NestBlank, Turns, Watch, nest};
use crate::sheet::{Kept, Made, Named, SheetRun, Turning, number_copies, standing};
use crate::workshop::Workshop;

/// Moves that the slowest machine the budgets were made for tries in a second; a faster one is done
/// sooner, with the same layout.
const MOVES_A_SECOND: f64 = 1800.0;

/// What came of nesting a job.
#[derive(Debug, Clone, PartialEq)]
pub struct NestedJob {
    /// The layout, to be kept.
    pub kept: Kept,
    /// False when the search was stopped before its effort was spent: another run may then end elsewhere.
    pub is_complete: bool,
}

/// Nests a job's copies as its plan says.
///
/// # Errors
/// Figures that cannot be worked with, ids that name nothing, and locked copies that overlap.
pub fn nest_job(
    job: &Job,
    workshop: &Workshop,
    memory: &dyn Memory,
    watch: &dyn Watch,
) -> Result<NestedJob, Vec<InputError>> {
    let mut faults = Faults::default();
    let _ = faults.take(job.validate());
    let records = Records::of(job, workshop)?;
    faults.or(())?;
    let ground = Ground::new(job, &records, memory)?;
    let plan = &job.sheet;
    let kept = plan.kept.as_ref().and_then(|kept| Named::of(kept, &ground));
    let locked: Vec<SheetRun> = kept
        .map_or_else(Vec::new, |kept| kept.runs)
        .into_iter()
        .map(|run| SheetRun {
            placements: run.placements.into_iter().filter(|at| at.locked).collect(),
            ..run
        })
        .filter(|run| !run.placements.is_empty())
        .collect();
    let stands = standing(&ground, &locked, plan.spacing);
    if let Some((run, ..)) = stands.overlapping.first() {
        let pairs = stands.overlapping.len();
        return Err(vec![InputError::new(
            "sheet.kept",
            format!("{pairs} pairs of locked copies overlap, the first on sheet {}", run + 1),
            f64::from(u32::try_from(pairs).unwrap_or(u32::MAX)),
            Remedy::advice("Move them apart, or unlock one of each pair"),
        )]);
    }
    let cards = ground.each_card();
    let blanks = ground.laid_blanks();
    let share = 1.0 / f64::from(u32::try_from(cards.len()).unwrap_or(1));
    #[expect(
        clippy::cast_possible_truncation,
        clippy::cast_sign_loss,
        reason = "at most 600 s of moves"
    )]
    let effort = (plan.search.budget * MOVES_A_SECOND * share) as u64;
    let mut runs: Vec<SheetRun> = Vec::new();
    let mut is_complete = true;
    for (at, card) in cards.iter().enumerate() {
        let wanted = ground.blanks().filter(|(piece, at)| ground.cards[piece.first + at] == **card);
        let ask = NestAsk {
            blanks: wanted
                .map(|(piece, at)| NestBlank {
                    number: piece.first + at,
                    piece: &piece.blanks[at],
                    turns: if plan.turning == Turning::Free {
                        Turns::Any
                    } else {
                        Turns::These(piece.turns.clone())
                    },
                    wanted: piece.drawn.job_piece.made(),
                })
                .collect(),
            windows: &ground.windows,
            spacing: plan.spacing,
            locked: locked.iter().filter(|run| ground.card_of(run) == *card).cloned().collect(),
            amount: plan.amount,
            seed: plan.search.seed,
            effort,
        };
        let before = f64::from(u32::try_from(at).unwrap_or(0)) * share;
        let part = Part { watch, done: runs.clone(), before, share };
        let nested = nest(&ask, &part);
        is_complete &= nested.is_complete;
        runs.extend(nested.runs);
    }
    number_copies(&mut runs);
    Ok(NestedJob { kept: Kept { made: Made::Nested, blanks, runs }, is_complete })
}

/// Watches one card's search for whoever watches the whole.
struct Part<'a> {
    watch: &'a dyn Watch,
    done: Vec<SheetRun>,
    before: f64,
    share: f64,
}

impl Watch for Part<'_> {
    fn go_on(&self) -> bool {
        self.watch.go_on()
    }

    fn found(&self, found: &Found<'_>) {
        let mut runs: Vec<SheetRun> = self.done.iter().chain(found.runs).cloned().collect();
        number_copies(&mut runs);
        self.watch.found(&Found { runs: &runs, done: self.before + self.share * found.done });
    }
}
