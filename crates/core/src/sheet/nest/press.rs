//! Making a layout better: one copy more pressed onto a sheet, and the copies of the last moved together.

use super::arena::Arena;
use super::seek::free_place;
use super::separate::{Patience, separate_either};
use super::shape::Pose;
use super::watch::Effort;
use super::{SAMPLES, Search, Sheet, repeats, seek, shrink};
use crate::sheet::Amount;

/// Moves for pressing one copy more onto a sheet: so many at first, twice as many after each failure.
const PRESS: u64 = 600;

/// A shape that has failed so often is not tried again until another has succeeded.
const MOST_FAILURES: u32 = 8;

/// Beyond so many copies on a sheet, moving them all about takes longer than anyone waits.
const MOST_MOVED: usize = 250;

impl<'a> Search<'a> {
    /// Presses one copy after the other onto a sheet, taken from those that follow, while that succeeds.
    pub(super) fn press(
        &mut self,
        done: &mut Vec<Sheet>,
        sheet: &mut Sheet,
        rest: &mut Vec<Sheet>,
        effort: &mut Effort<'_>,
    ) {
        let area = self.ask.windows.cut.region.area();
        let fills = self.ask.amount == Amount::FillSheets;
        let mut failed = vec![0_u32; self.shapes.len()];
        let reached = effort.left();
        // The sheet's copies as they were last moved together.
        let mut at_hand: Option<Arena<'a>> = None;
        while sheet.copies.len() < MOST_MOVED && effort.is_left() {
            let used: f64 = sheet.copies.iter().map(|(shape, _)| self.shapes[*shape].area).sum();
            // A sheet that is laid again and again may take from those that are like it.
            let alike = if sheet.fixed == 0 { 1 } else { sheet.sheets };
            let mut before = done.clone();
            before.push(Sheet { sheets: alike, ..sheet.clone() });
            let left = self.left(&before);
            // The largest that could go in, of those that have not failed too often.
            let next = (0..self.shapes.len())
                .filter(|at| {
                    let is_wanted = left[*at] >= alike || (fills && rest.is_empty());
                    is_wanted && failed[*at] < MOST_FAILURES
                })
                .filter(|at| used + self.shapes[*at].area < 0.97 * area)
                .max_by(|a, b| {
                    let key = |at: &usize| (std::cmp::Reverse(failed[*at]), self.shapes[*at].area);
                    key(a).partial_cmp(&key(b)).unwrap_or(std::cmp::Ordering::Equal)
                });
            let Some(shape) = next else { break };
            let mut arena = at_hand.take().unwrap_or_else(|| self.arena(sheet));
            if arena.copies().len() != sheet.copies.len() {
                break;
            }
            let moves = PRESS << failed[shape];
            if failed[shape] > 0 {
                // What the copies leave, moved together, may be room for one more.
                let mut part = effort.part(moves);
                shrink::shrink(&mut arena, &mut self.rng.fork(), &mut part, |_, _| {});
                effort.spend(part.spent());
            }
            at_hand = Some(arena.clone());
            if let Some(arena) = self.one_more(arena, sheet, shape, (moves, failed[shape]), effort)
            {
                at_hand = Some(arena.clone());
                let copies = arena.copies().iter().map(|copy| (copy.shape, copy.pose)).collect();
                let mut pressed = Sheet { copies, ..sheet.clone() };
                if pressed.fixed == 0 && !(fills && rest.is_empty()) {
                    let left = self.left(done);
                    pressed.sheets = repeats(&pressed, &left).max(1);
                }
                *sheet = pressed;
                failed.fill(0);
                let mut before = done.clone();
                before.push(sheet.clone());
                if !(fills && rest.is_empty()) {
                    *rest = self.plan(&before);
                }
                effort.tell(&self.runs(&before, rest));
            } else {
                failed[shape] += 1;
            }
            // A sheet does not use up what the others need.
            let spent = reached - effort.left();
            if !rest.is_empty() && spent > reached / (u64::try_from(rest.len()).unwrap_or(1) + 1) {
                break;
            }
        }
        done.push(sheet.clone());
    }

    /// The arena of a sheet with one copy more: where there is room for it, or after pulling two starts apart,
    /// the layout at hand with the new copy anywhere and, since a lattice seldom gives way, one laid afresh.
    fn one_more(
        &mut self,
        mut arena: Arena<'a>,
        sheet: &Sheet,
        shape: usize,
        (moves, failures): (u64, u32),
        effort: &mut Effort<'_>,
    ) -> Option<Arena<'a>> {
        if let Some(pose) = free_place(&mut arena, shape, SAMPLES, &mut self.rng) {
            arena.add(shape, pose, false);
            return Some(arena);
        }
        self.add_anywhere(&mut arena, shape);
        let afresh = self.laid_afresh(sheet, shape);
        let patience = Patience { passes: 60, strikes: 2 + failures as usize };
        let found = separate_either(arena, afresh, patience, &mut self.rng, moves, effort);
        found.into_iter().find(|(is_apart, _)| *is_apart).map(|(_, arena)| arena)
    }

    fn add_anywhere(&mut self, arena: &mut Arena<'_>, shape: usize) {
        let turn = self.shapes[shape].any_turn(&mut self.rng);
        let base = self.cut.base();
        let range = seek::range(arena, shape, turn, base).unwrap_or(base);
        let at = seek::within(&mut self.rng, range);
        arena.add(shape, Pose { at, turn }, false);
    }

    /// A sheet's copies and one more, laid again in an order of their own; what finds no place lies anywhere.
    fn laid_afresh(&mut self, sheet: &Sheet, more: usize) -> Arena<'a> {
        let fixed = Sheet { copies: sheet.copies[..sheet.fixed].to_vec(), ..sheet.clone() };
        let mut arena = self.arena(&fixed);
        let free = sheet.copies[sheet.fixed..].iter().map(|(shape, _)| *shape);
        let mut order: Vec<(f64, usize)> = free
            .chain([more])
            .map(|shape| (self.shapes[shape].area * (0.7 + 0.6 * self.rng.f64()), shape))
            .collect();
        order.sort_by(|(a, _), (b, _)| b.total_cmp(a));
        for (_, shape) in order {
            match free_place(&mut arena, shape, SAMPLES, &mut self.rng) {
                Some(pose) => {
                    arena.add(shape, pose, false);
                }
                None => self.add_anywhere(&mut arena, shape),
            }
        }
        arena
    }

    /// Moves the copies of the last sheet together.
    pub(super) fn close_up(&mut self, done: &[Sheet], sheet: &mut Sheet, effort: &mut Effort<'_>) {
        if sheet.copies.len() > MOST_MOVED {
            return;
        }
        let mut arena = self.arena(sheet);
        if arena.copies().len() != sheet.copies.len() {
            return;
        }
        let (sheets, fixed) = (sheet.sheets, sheet.fixed);
        let taken = |arena: &Arena<'_>| Sheet {
            sheets,
            fixed,
            copies: arena.copies().iter().map(|copy| (copy.shape, copy.pose)).collect(),
        };
        let mut rng = self.rng.fork();
        shrink::shrink(&mut arena, &mut rng, effort, |arena, effort| {
            effort.tell(&self.runs(done, &[taken(arena)]));
        });
        *sheet = taken(&arena);
    }
}
