//! A job and its workshop, prepared: everything that views and files are made from.

use serde::Serialize;

use crate::check::{Check, Stage, State};
use crate::error::{Faults, InputError, Remedy};
use crate::face::Art;
use crate::fold::{FoldModel, fold_checks};
use crate::form::{Axis, Flat};
use crate::geometry::Region;
use crate::job::Job;
use crate::sheet::{
    FreeRoom, Laid, Layout, Machines, Marks, Misfit, Notes, Orientation, Piece, Placement,
    SetPiece, SheetPlan, Turning, Windows, fits_somewhere, lay_sets, misfit, place_marks,
    place_notes, sheet_checks, sheet_code, unknown,
};
use crate::workshop::{Cutter, Grain, MarkSet, Printer, Stock, Workshop};

/// The records that a job uses.
#[derive(Debug, Clone, Copy, Serialize)]
pub struct Records<'a> {
    /// The card.
    pub stock: &'a Stock,
    /// The printer, when something is printed.
    pub printer: Option<&'a Printer>,
    /// The cutter, unless a hand cuts.
    pub cutter: Option<&'a Cutter>,
    /// The marks, when something is printed and the cutter goes by marks.
    pub marks: Option<&'a MarkSet>,
}

impl<'a> Records<'a> {
    /// Looks up what a job names.
    ///
    /// # Errors
    /// Every id that names nothing.
    pub fn of(job: &Job, workshop: &'a Workshop) -> Result<Self, Vec<InputError>> {
        let mut faults = Faults::default();
        let plan = &job.sheet;
        let stock = workshop.stocks.get(&job.stock);
        if stock.is_none() {
            faults.add(unknown("stock", "stock", &job.stock));
        }
        if let Some(backing) = &job.form.backing
            && !workshop.stocks.contains_key(&backing.stock)
        {
            faults.add(unknown("form.backing.stock", "stock", &backing.stock));
        }
        let mut look_up = |field, kind, id: Option<&crate::workshop::RecordId>, known: bool| {
            if let Some(id) = id
                && !known
            {
                faults.add(unknown(field, kind, id));
            }
        };
        let printer = plan.printer.as_ref().and_then(|id| workshop.printers.get(id));
        look_up("sheet.printer", "printer", plan.printer.as_ref(), printer.is_some());
        let cutter = plan.cutter.as_ref().and_then(|id| workshop.cutters.get(id));
        look_up("sheet.cutter", "cutter", plan.cutter.as_ref(), cutter.is_some());
        let marks = plan.marks.as_ref().and_then(|id| workshop.mark_sets.get(id));
        look_up("sheet.marks", "mark set", plan.marks.as_ref(), marks.is_some());
        match stock {
            Some(stock) if faults.is_empty() => Ok(Self::used(job, stock, printer, cutter, marks)),
            _ => Err(faults.or(()).err().unwrap_or_default()),
        }
    }

    /// A job that is only cut has no printed page, so it has neither printer nor marks; and marks
    /// are only for a cutter that goes by them.
    fn used(
        job: &Job,
        stock: &'a Stock,
        printer: Option<&'a Printer>,
        cutter: Option<&'a Cutter>,
        marks: Option<&'a MarkSet>,
    ) -> Self {
        let printed = job.face.is_some();
        let by_marks = cutter.is_some_and(|cutter| cutter.finds.by_marks());
        Self {
            stock,
            printer: printer.filter(|_| printed),
            cutter,
            marks: marks.filter(|_| printed && by_marks),
        }
    }

    /// The machines the sheet goes through.
    #[must_use]
    pub const fn machines(&self) -> Machines<'a> {
        Machines { printer: self.printer, cutter: self.cutter }
    }
}

/// One piece with the page it goes onto, before copies are laid.
pub(crate) struct Ground {
    pub flat: Flat,
    /// One for each part; none where nothing is printed.
    pub arts: Vec<Art>,
    pub marks: Marks,
    pub windows: Windows,
    pub turns: Vec<u16>,
    /// One for each part.
    pub pieces: Vec<Piece>,
}

impl Ground {
    pub(crate) fn new(
        job: &Job,
        records: Records<'_>,
        code: &str,
    ) -> Result<Self, Vec<InputError>> {
        let flat = job.form.draw(records.stock.caliper, job.unit)?;
        let plan = &job.sheet;
        let page = plan.page();
        let most_bleed = if plan.copies > 1 { plan.spacing / 2.0 } else { f64::INFINITY };
        let arts: Vec<Art> = job.face.as_ref().map_or_else(Vec::new, |face| {
            flat.parts.iter().map(|part| face.print(part, most_bleed)).collect()
        });
        let machines = records.machines();
        let marks = records.marks.map_or_else(Marks::default, |set| {
            place_marks(set, page, machines.printable(page, plan.orientation), code)
        });
        let windows = machines.windows(page, plan.orientation, &marks);
        let turns = turns(plan, records.stock.grain, flat.folds);
        let bare = Region::empty();
        let pieces: Vec<Piece> = flat
            .parts
            .iter()
            .enumerate()
            .filter_map(|(at, part)| {
                Piece::new(&part.outline, arts.get(at).map_or(&bare, |art| &art.printed))
            })
            .collect();
        if pieces.len() < flat.parts.len() || pieces.is_empty() {
            return Err(vec![InputError::plain(
                "form",
                "A blank has no outline",
                Remedy::advice("Give the piece a length, a width and a height"),
            )]);
        }
        Ok(Self { flat, arts, marks, windows, turns, pieces })
    }

    /// True when at least one copy fits.
    pub(crate) fn fits(&self) -> bool {
        self.pieces.iter().all(|piece| fits_somewhere(piece, &self.windows, &self.turns))
    }

    /// The blank that fits nowhere, or else the largest.
    fn critical(&self) -> usize {
        let fits = |at: &usize| fits_somewhere(&self.pieces[*at], &self.windows, &self.turns);
        let area = |at: &usize| self.flat.parts[*at].bounds.area();
        let all = 0..self.pieces.len();
        let by_area = |a: &usize, b: &usize| area(a).total_cmp(&area(b));
        if self.pieces.len() == 1 {
            return 0;
        }
        let misfit = all.clone().filter(|at| !fits(at)).max_by(by_area);
        misfit.or_else(|| all.max_by(by_area)).unwrap_or(0)
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

fn turns(plan: &SheetPlan, grain: Grain, folds: Axis) -> Vec<u16> {
    match (plan.turning, grain_runs_down(plan, grain)) {
        (Turning::Upright, _) => vec![0],
        (Turning::Grain, _) if folds == Axis::Both => vec![0, 1, 2, 3],
        (Turning::Quarter, _) | (Turning::Grain, None) => vec![0, 1, 2, 3],
        (Turning::Grain, Some(down)) if down == (folds == Axis::Along) => vec![0, 2],
        (Turning::Grain, Some(_)) => vec![1, 3],
    }
}

/// A job, prepared.
#[derive(Debug, Clone)]
pub struct Prepared {
    /// The piece laid flat.
    pub flat: Flat,
    /// What is printed on each of its parts; none for a job that is only cut.
    pub arts: Vec<Art>,
    /// How it folds.
    pub fold: FoldModel,
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
    /// Share of the sheets that becomes pieces, 0 to 1.
    pub used: f64,
    /// What is left over, in mm² over all sheets.
    pub waste: f64,
}

impl Prepared {
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
    let code = sheet_code(&(&job.form, &job.face, &job.sheet, records));
    let Some(ground) = faults.take(Ground::new(job, records, &code)) else {
        return Err(faults.or(()).err().unwrap_or_default());
    };
    faults.or(())?;

    let plan = &job.sheet;
    let Ground { flat, windows, turns, pieces, .. } = &ground;
    let set: Vec<SetPiece<'_>> = pieces
        .iter()
        .zip(&flat.parts)
        .enumerate()
        .map(|(part, (piece, blank))| SetPiece { part, stock: blank.stock.as_ref(), piece })
        .collect();
    let layout = lay_sets(&set, windows, turns, plan.spacing, plan.copies);
    let critical = ground.critical();
    let piece = &pieces[critical];
    let misfit = (layout.laid == 0).then(|| {
        let miss = misfit(piece, &flat.parts[critical].outline, windows, turns);
        Misfit { placement: Placement { part: critical, ..miss.placement }, ..miss }
    });
    let outlines: Vec<_> = flat.parts.iter().map(|part| &part.outline).collect();
    let notes = layout
        .runs
        .iter()
        .map(|run| {
            let mut room = FreeRoom::new(windows, &outlines, &run.placements);
            place_notes(&mut room, job.unit)
        })
        .collect();
    let sheets = f64::from(layout.sheets()) * windows.page.area();
    let pieces = f64::from(layout.laid) * flat.area();
    let fold = FoldModel::new(flat, records.stock.caliper);
    let mut checks = flat.checks.clone();
    checks.extend(fold_checks(flat, &fold, job.unit));
    let laid = Laid { piece, layout: &layout, misfit: misfit.as_ref() };
    checks.extend(sheet_checks(job, workshop, records, &ground, laid));
    let Ground { flat, arts, marks, windows, .. } = ground;
    Ok(Prepared {
        flat,
        arts,
        fold,
        marks,
        windows,
        misfit,
        notes,
        code,
        orientation: plan.orientation,
        checks,
        used: if sheets > 0.0 { pieces / sheets } else { 0.0 },
        waste: sheets - pieces,
        layout,
    })
}
