//! Mark sets compared for a page and its machines, and the best marks that could be.

use crate::check::{Check, State};
use crate::job::Job;
use crate::memory::Memory;
use crate::records::Records;
use crate::sheet::Ground;
use crate::sheet::{Layout, SheetPlan, in_rows, mark_checks};
use crate::workshop::{
    Corner, DistanceFrom, Finds, Keeping, MarkSet, MarkShape, MarkShapeName, RecordId, Tell,
    Workshop,
};

/// What a mark set leaves a job.
#[derive(Debug, Clone, PartialEq)]
pub struct MarkChoice {
    /// Its id; `None` for one that is not in the workshop.
    pub id: Option<RecordId>,
    /// The set.
    pub set: MarkSet,
    /// Area of the cut window, mm².
    pub usable: f64,
    /// Copies of the first piece that a full sheet holds in rows and columns.
    pub per_sheet: u32,
    /// Sheets that the job then takes; 0 where nothing fits.
    pub sheets: u32,
    /// How its worst limit stands.
    pub state: State,
    /// What is wrong with it, if anything.
    pub trouble: Option<String>,
}

/// Every mark set of the workshop that is not retired, the one that leaves most copies first. Empty where the
/// job has no use for marks. `go_on` is asked before each; the rest is left out once it says no.
#[must_use]
pub fn compare_marks(
    job: &Job,
    workshop: &Workshop,
    memory: &dyn Memory,
    mut go_on: impl FnMut() -> bool,
) -> Vec<MarkChoice> {
    let chosen = job.sheet.marks.as_ref();
    let mut choices: Vec<MarkChoice> = workshop
        .mark_sets
        .iter()
        .filter(|(id, set)| set.keeping.is_offered() || chosen == Some(id))
        .take_while(|_| go_on())
        .filter_map(|(id, set)| judge(job, workshop, memory, Some(id.clone()), set))
        .collect();
    choices.sort_by(|a, b| {
        (a.state == State::Broken)
            .cmp(&(b.state == State::Broken))
            .then(b.per_sheet.cmp(&a.per_sheet))
            .then(b.usable.total_cmp(&a.usable))
    });
    choices
}

/// The name under which a set is tried.
const TRIED: &str = "a set that is tried";

fn judge(
    job: &Job,
    workshop: &Workshop,
    memory: &dyn Memory,
    id: Option<RecordId>,
    set: &MarkSet,
) -> Option<MarkChoice> {
    let mut workshop = workshop.clone();
    let tried = RecordId(TRIED.to_owned());
    workshop.mark_sets.insert(tried.clone(), set.clone());
    let plan = SheetPlan { marks: Some(tried), kept: None, ..job.sheet.clone() };
    let job = Job { sheet: plan, ..job.clone() };
    let records = Records::of(&job, &workshop).ok()?;
    records.marks?;
    let ground = Ground::new(&job, &records, memory).ok()?;
    let layout: Layout = in_rows(&job.sheet, &ground);
    let checks: Vec<Check> = mark_checks(&job, &workshop, &records, &ground, &layout, memory);
    // Of those that stand alike, the first.
    let worst = checks.iter().rev().max_by_key(|check| check.state);
    let state = worst.map_or(State::Fits, |check| check.state);
    let trouble = worst.filter(|check| check.state != State::Fits);
    Some(MarkChoice {
        id,
        set: set.clone(),
        usable: ground.windows.cut.region.area(),
        per_sheet: layout.per_sheet,
        sheets: layout.sheets(),
        state,
        trouble: trouble.map(|check| format!("{}: {}", check.label, check.verdict)),
    })
}

/// Steps inwards from the least distance that are tried, mm.
const INSETS: [f64; 6] = [0.0, 1.0, 2.5, 5.0, 8.0, 12.0];

/// The marks that leave this job the most room, within what the cutter's eye reads and the printer prints:
/// shape, number, and distance from the edges. `go_on` is asked before each try with the share that is done.
/// `None` where the job has no use for marks or none can be read.
#[must_use]
pub fn best_marks(
    job: &Job,
    workshop: &Workshop,
    memory: &dyn Memory,
    mut go_on: impl FnMut(f64) -> bool,
) -> Option<MarkChoice> {
    let records = Records::of(job, workshop).ok()?;
    let cutter = records.cutter.filter(|cutter| cutter.finds.by_marks() && job.is_printed())?;
    let (shapes, smallest, edge, clear) = match &cutter.finds {
        Finds::Eye(eye) => (eye.shapes.clone(), eye.smallest, eye.edge, eye.keep_clear),
        _ => (
            vec![MarkShapeName::Cross, MarkShapeName::Angle],
            records.marks.map_or(8.0, |set| set.mark.extent()),
            0.0,
            records.marks.map_or(2.0, |set| set.keep_clear),
        ),
    };
    let page = job.sheet.page();
    let printable = records.machines().printable(page, job.sheet.orientation);
    let least = |near: f64, far: f64| {
        let needed = near.max(far).max(edge);
        // To a tenth, and never less.
        ((needed * 10.0) - 1e-9).ceil() / 10.0
    };
    let across = least(printable.x0 - page.x0, page.x1 - printable.x1);
    let mut along = least(printable.y0 - page.y0, page.y1 - printable.y1);
    if records.carrier.is_none() {
        along = along.max(cutter.lead).max(cutter.tail);
    }
    let size = smallest.max(0.5);
    let mut sets = Vec::new();
    for shape in shapes {
        let mark = match shape {
            MarkShapeName::Angle => {
                MarkShape::Angle { arm: size.max(4.0), stroke: (size / 10.0).clamp(0.5, 1.0) }
            }
            MarkShapeName::Dot => MarkShape::Dot { diameter: size.max(1.0) },
            MarkShapeName::Cross => MarkShape::Cross { arm: size.max(2.0), stroke: 0.5 },
        };
        for tell in [Tell::MissingMark, Tell::OddMark, Tell::Numeral] {
            // With three marks, the corner that is left free matters.
            let firsts: &[Corner] =
                if tell == Tell::MissingMark { &Corner::ALL } else { &Corner::ALL[..1] };
            for first in firsts {
                for (x, y) in INSETS.iter().flat_map(|x| INSETS.iter().map(move |y| (x, y))) {
                    sets.push(MarkSet {
                        name: format!("Best marks: {}", cutter.name),
                        mark,
                        first: *first,
                        tell,
                        across: across + x,
                        along: along + y,
                        from: DistanceFrom::PaperEdge,
                        keep_clear: clear,
                        keeping: Keeping::Kept,
                    });
                }
            }
        }
    }
    let total = f64::from(u32::try_from(sets.len()).unwrap_or(u32::MAX));
    let mut best: Option<MarkChoice> = None;
    for (at, set) in sets.iter().enumerate() {
        if !go_on(f64::from(u32::try_from(at).unwrap_or(u32::MAX)) / total) {
            break;
        }
        let Some(choice) = judge(job, workshop, memory, None, set) else { continue };
        let better = best.as_ref().is_none_or(|best| {
            let key = |choice: &MarkChoice| (choice.state != State::Broken, choice.per_sheet);
            key(&choice) > key(best)
                || (key(&choice) == key(best) && choice.usable > best.usable + 1.0)
        });
        if better {
            best = Some(choice);
        }
    }
    best
}
