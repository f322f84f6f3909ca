//! Nesting: copies of true outlines, flaps into gaps, on as few sheets as can be found.
//!
//! A first layout comes quickly: a lattice where one blank is laid, else copies one by one, the largest first,
//! each as high up as a place is found. Then one copy more is pressed onto each sheet in turn and the copies
//! are pulled apart until none meet, or not; and on the last sheet the copies are moved together, so that what
//! is left of it is in one part. The search is random, from a seed: the same seed and effort give the same
//! layout.

mod arena;
mod fence;
mod lattice;
mod overlap;
mod plan;
mod press;
mod profile;
mod seek;
mod separate;
mod shape;
mod shrink;
#[cfg(test)]
mod tests;
mod thing;
mod watch;

use self::arena::Arena;
use self::fence::Fence;
use self::shape::{Pose, Shape};
use self::watch::Effort;
use super::{Amount, Piece, Placement, SheetRun, Windows};

pub use self::shape::Turns;
pub use self::watch::{Found, ToTheEnd, Watch};

/// A blank to be laid.
#[derive(Debug, Clone)]
pub struct NestBlank<'a> {
    /// Its number among all of the job's blanks.
    pub number: usize,
    /// Its outline and print.
    pub piece: &'a Piece,
    /// How it may be turned.
    pub turns: Turns,
    /// How many are wanted.
    pub wanted: u32,
}

/// What is to be nested.
#[derive(Debug, Clone)]
pub struct NestAsk<'a> {
    /// The blanks, all of one card.
    pub blanks: Vec<NestBlank<'a>>,
    /// Where they may lie.
    pub windows: &'a Windows,
    /// Least distance between cuts, mm.
    pub spacing: f64,
    /// Sheets with copies that stay where they are.
    pub locked: Vec<SheetRun>,
    /// Whether the last sheet is filled up.
    pub amount: Amount,
    /// The same seed gives the same layout.
    pub seed: u32,
    /// Moves that may be tried.
    pub effort: u64,
}

/// A nested layout.
#[derive(Debug, Clone, PartialEq)]
pub struct Nested {
    /// The sheets.
    pub runs: Vec<SheetRun>,
    /// How many of each blank found no place, in the order of the ask.
    pub missing: Vec<u32>,
    /// False when the search was stopped before its effort was spent.
    pub is_complete: bool,
}

/// Samples for each place that is looked for one by one.
const SAMPLES: usize = 120;

/// Copies on one sheet; beyond it a sheet is left as it is.
const MOST_ON_SHEET: usize = 1500;

/// Lays copies of true outlines.
pub fn nest(ask: &NestAsk<'_>, watch: &dyn Watch) -> Nested {
    let fences = (Fence::new(&ask.windows.cut), Fence::new(&ask.windows.print));
    let missing: Vec<u32> = ask.blanks.iter().map(|blank| blank.wanted).collect();
    let (Some(cut), Some(print)) = fences else {
        return Nested { runs: Vec::new(), missing, is_complete: true };
    };
    let bites = cut.has_bites() || print.has_bites();
    let (shapes, wanted): (Vec<Shape>, Vec<u32>) = ask
        .blanks
        .iter()
        .filter_map(|blank| Some((Shape::new(blank, ask.spacing, bites)?, blank.wanted)))
        .unzip();
    let mut effort = Effort::new(watch, ask.effort);
    let mut search = Search {
        ask,
        shapes: &shapes,
        wanted,
        cut,
        print,
        rng: fastrand::Rng::with_seed(u64::from(ask.seed)),
        lattices: vec![None; shapes.len()],
    };
    let sheets = search.run(&mut effort);
    let runs: Vec<SheetRun> = sheets.into_iter().map(|sheet| search.run_of(&sheet)).collect();
    let missing = ask
        .blanks
        .iter()
        .map(|blank| {
            let laid: u32 = runs.iter().map(|run| run.sheets * run.count(blank.number)).sum();
            blank.wanted.saturating_sub(laid)
        })
        .collect();
    Nested { runs, missing, is_complete: watch.go_on() }
}

/// Sheets that are alike.
#[derive(Debug, Clone)]
struct Sheet {
    sheets: u32,
    copies: Vec<(usize, Pose)>,
    /// The first so many of the copies stay where they are.
    fixed: usize,
}

struct Search<'a> {
    ask: &'a NestAsk<'a>,
    shapes: &'a [Shape],
    /// Copies of each shape, over all sheets.
    wanted: Vec<u32>,
    cut: Fence,
    print: Fence,
    rng: fastrand::Rng,
    /// The fullest sheet of each shape alone, once it has been looked for.
    lattices: Vec<Option<Vec<Pose>>>,
}

impl<'a> Search<'a> {
    fn run(&mut self, effort: &mut Effort<'_>) -> Vec<Sheet> {
        let mut done: Vec<Sheet> = Vec::new();
        let mut rest = self.plan(&done);
        let fills = self.ask.amount == Amount::FillSheets;
        effort.tell(&self.runs(&done, &rest));
        let mut is_full = false;
        while !rest.is_empty() && effort.is_left() {
            let mut sheet = rest.remove(0);
            let may_save_one = !rest.is_empty() || sheet.sheets > 1;
            if may_save_one || fills {
                is_full = fills && rest.is_empty();
                self.press(&mut done, &mut sheet, &mut rest, effort);
            } else {
                done.push(sheet);
            }
        }
        done.extend(rest);
        let Some(mut last) = done.pop() else { return done };
        if !fills {
            if last.sheets == 1 && effort.is_left() {
                self.close_up(&done, &mut last, effort);
            }
            done.push(last);
        } else if is_full {
            done.push(last);
        } else {
            // Pressing has emptied the sheet that was filled up.
            let mut last = self.fill_evenly(last, &vec![u32::MAX; self.shapes.len()]);
            self.press(&mut done, &mut last, &mut Vec::new(), effort);
        }
        done
    }

    fn runs(&self, done: &[Sheet], rest: &[Sheet]) -> Vec<SheetRun> {
        done.iter().chain(rest).map(|sheet| self.run_of(sheet)).collect()
    }

    fn run_of(&self, sheet: &Sheet) -> SheetRun {
        let mut placements: Vec<Placement> = Vec::new();
        for (at, (shape, pose)) in sheet.copies.iter().enumerate() {
            let placement = self.shapes[*shape].placement(*pose);
            placements.push(Placement { locked: at < sheet.fixed, ..placement });
        }
        SheetRun { sheets: sheet.sheets, placements }
    }

    /// What is still wanted beside these sheets.
    fn left(&self, sheets: &[Sheet]) -> Vec<u32> {
        let mut left = self.wanted.clone();
        for sheet in sheets {
            for (shape, _) in &sheet.copies {
                left[*shape] = left[*shape].saturating_sub(sheet.sheets);
            }
        }
        left
    }

    fn arena(&self, sheet: &Sheet) -> Arena<'a> {
        let mut arena = Arena::new(self.shapes, &self.cut, &self.print);
        for (at, (shape, pose)) in sheet.copies.iter().enumerate() {
            if arena.reaches(*shape, *pose) {
                arena.add(*shape, *pose, at < sheet.fixed);
            }
        }
        arena
    }
}

/// How many sheets like this the copies left are enough for; 1 at least.
fn repeats(sheet: &Sheet, left: &[u32]) -> u32 {
    let mut counts = vec![0_u32; left.len()];
    for (shape, _) in &sheet.copies {
        counts[*shape] += 1;
    }
    let full = counts.iter().zip(left).filter(|(count, _)| **count > 0);
    full.map(|(count, left)| left / count).min().unwrap_or(1).max(1)
}
