//! A first layout: a lattice where one blank is alone, else copies one by one, the largest first.

use super::arena::Arena;
use super::lattice::lattice;
use super::seek::free_place;
use super::shape::{Pose, Turns};
use super::{MOST_ON_SHEET, SAMPLES, Search, Sheet, repeats};
use crate::sheet::{Amount, Placement, rows_and_columns};

/// Share of a sheet's room.
const REST: f64 = 0.25;

impl Search<'_> {
    /// Lays what is wanted beside `done`, one by one.
    pub(super) fn plan(&mut self, done: &[Sheet]) -> Vec<Sheet> {
        let mut rest = Vec::new();
        if done.is_empty() {
            for run in &self.ask.locked {
                let copies: Vec<(usize, Pose)> = run
                    .placements
                    .iter()
                    .filter_map(|at| {
                        let shape = self.shapes.iter().position(|s| s.number == at.part)?;
                        Some((shape, self.shapes[shape].pose(at)))
                    })
                    .collect();
                let fixed = copies.len();
                rest.push(Sheet { sheets: run.sheets.max(1), copies, fixed });
            }
            // A locked sheet that stands for several goes on doing so while there are copies for all.
            for at in 0..rest.len() {
                let mut left = self.left(&rest);
                let sheets = rest[at].sheets;
                for count in &mut left {
                    *count /= sheets;
                }
                let filled = self.fill(rest[at].clone(), &left);
                rest[at] = filled;
            }
        }
        loop {
            let all: Vec<Sheet> = done.iter().chain(&rest).cloned().collect();
            let left = self.left(&all);
            if left.iter().all(|count| *count == 0) {
                break;
            }
            let empty = Sheet { sheets: 1, copies: Vec::new(), fixed: 0 };
            let mut sheet = self.fill(empty, &left);
            if sheet.copies.is_empty() {
                break;
            }
            sheet.sheets = repeats(&sheet, &left);
            rest.push(sheet);
        }
        if self.ask.amount == Amount::FillSheets && done.is_empty() && !rest.is_empty() {
            let last = rest.len() - 1;
            let more = vec![u32::MAX; self.shapes.len()];
            let filled = self.fill_evenly(rest[last].clone(), &more);
            rest[last] = filled;
        }
        rest
    }

    /// Adds copies to a sheet while they find a place, at most those that are left.
    fn fill(&mut self, sheet: Sheet, left: &[u32]) -> Sheet {
        let mut kinds = left.iter().enumerate().filter(|(_, count)| **count > 0);
        if let (Some((only, count)), None) = (kinds.next(), kinds.next())
            && sheet.copies.is_empty()
            && !self.is_a_rest(only, *count)
        {
            let poses = self.lattice_of(only);
            let most = usize::try_from(*count).unwrap_or(usize::MAX);
            let copies = poses.into_iter().take(most).map(|pose| (only, pose)).collect();
            return Sheet { copies, ..sheet };
        }
        let mut order: Vec<usize> = (0..self.shapes.len()).collect();
        order.sort_by(|a, b| {
            let size = |at: &usize| {
                self.shapes[*at].area.sqrt() + 0.5 * f64::from(self.shapes[*at].room.diameter())
            };
            size(b).total_cmp(&size(a))
        });
        let mut arena = self.arena(&sheet);
        let mut sheet = sheet;
        for shape in order {
            let mut count = left[shape];
            while count > 0 && sheet.copies.len() < MOST_ON_SHEET {
                let Some(pose) = free_place(&mut arena, shape, SAMPLES, &mut self.rng) else {
                    break;
                };
                arena.add(shape, pose, false);
                sheet.copies.push((shape, pose));
                count -= 1;
            }
        }
        sheet
    }

    /// True where what is left of one shape beside others takes little of a sheet: it needs no lattice, whose search
    /// takes longer than laying all the others.
    fn is_a_rest(&self, shape: usize, count: u32) -> bool {
        let Self { shapes, ask, .. } = self;
        let room = ask.windows.cut.base.area();
        shapes.len() > 1 && f64::from(count) * shapes[shape].area < REST * room
    }

    /// Adds copies of each shape in turn while they find a place.
    pub(super) fn fill_evenly(&mut self, sheet: Sheet, left: &[u32]) -> Sheet {
        if self.shapes.len() == 1 && sheet.fixed == 0 {
            let afresh = self.fill(Sheet { copies: Vec::new(), ..sheet.clone() }, left);
            if afresh.copies.len() >= sheet.copies.len() {
                return afresh;
            }
        }
        let mut arena = self.arena(&sheet);
        let mut sheet = sheet;
        let mut open: Vec<usize> = (0..self.shapes.len()).collect();
        while !open.is_empty() && sheet.copies.len() < MOST_ON_SHEET {
            open.retain(|shape| {
                let found = free_place(&mut arena, *shape, SAMPLES, &mut self.rng);
                if let Some(pose) = found {
                    arena.add(*shape, pose, false);
                    sheet.copies.push((*shape, pose));
                }
                found.is_some()
            });
        }
        sheet
    }

    fn lattice_of(&mut self, shape: usize) -> Vec<Pose> {
        if let Some(known) = &self.lattices[shape] {
            return known.clone();
        }
        let blank = self.ask.blanks.iter().find(|blank| blank.number == self.shapes[shape].number);
        let mut best: Vec<Pose> = Vec::new();
        if let Some(blank) = blank {
            let quarters = vec![0.0, 90.0, 180.0, 270.0];
            let turns = match &blank.turns {
                Turns::These(turns) => turns.clone(),
                Turns::Any => quarters,
            };
            let rows =
                rows_and_columns(blank.piece, self.ask.windows, &turns, self.ask.spacing, 10_000);
            let first = rows.runs.first().map_or(&[] as &[Placement], |run| &run.placements);
            best = first.iter().map(|at| self.shapes[shape].pose(at)).collect();
        }
        let found = lattice(&self.shapes[shape], self.ask.windows);
        if found.len() > best.len() {
            best = found;
        }
        best.truncate(10_000);
        // What the lattice leaves at the edges may hold a few more.
        if best.len() <= MOST_ON_SHEET {
            let mut arena = Arena::new(self.shapes, &self.cut, &self.print);
            for pose in &best {
                arena.add(shape, *pose, false);
            }
            while let Some(pose) = free_place(&mut arena, shape, SAMPLES, &mut self.rng) {
                arena.add(shape, pose, false);
                best.push(pose);
            }
        }
        best.sort_by(|a, b| {
            (a.at.y, a.at.x).partial_cmp(&(b.at.y, b.at.x)).unwrap_or(std::cmp::Ordering::Equal)
        });
        self.lattices[shape] = Some(best.clone());
        best
    }
}
