//! What the machine does of a command.

use std::sync::{Arc, MutexGuard};
use std::time::Duration;

use super::{Cut, Cutter, Inner};
use crate::cutter::commands::Command;
use crate::cutter::eye::{Bed, Eye};
use crate::cutter::job::Job;
use crate::cutter::reading::{Found, Refusal, find};
use crate::cutter::settings::{Fault, Settings, State};

impl Cutter {
    pub(super) fn perform(&self, command: &Command, job: &mut Job) {
        let numbers = command.numbers();
        let (settings, bed) = {
            let inner = self.inner();
            (inner.settings.clone(), Arc::clone(&inner.bed))
        };
        match (&command.name, numbers.as_slice()) {
            (b"IN", _) => {
                *job = Job { stops: job.stops, ..Job::default() };
                let mut inner = self.inner();
                if inner.stops != job.stops {
                    return;
                }
                inner.state = State::Working;
                inner.found = None;
            }
            (b"SP", [station, ..]) => {
                job.chosen += usize::from(*station > 0.0);
                #[expect(
                    clippy::cast_possible_truncation,
                    clippy::cast_sign_loss,
                    reason = "clamped"
                )]
                {
                    job.station = station.clamp(0.0, 99.0) as u32;
                }
            }
            (b"PU" | b"PD" | b"PA" | b"PR", _) => {
                self.moves(command.name, &numbers, &settings, job);
            }
            (b"NR", _) if !settings.is_attended => self.hold_here(),
            (b"AF", _) => self.find(&bed, settings.hand, job),
            (b"AO", _) => self.answer("done".to_owned()),
            (b"OS", _) => {
                // Bit 4 says that it is ready, bit 5 that something is wrong.
                let state = self.state();
                let number =
                    if matches!(state, State::Refused(_) | State::Failed(_)) { 32 } else { 16 };
                self.answer(number.to_string());
            }
            _ => job.ask(command, &numbers, &settings),
        }
    }

    fn find(&self, bed: &Bed, hand: f64, job: &mut Job) {
        let result = if bed.is_empty() {
            Err(Refusal::NoSheet)
        } else {
            find(&mut Eye::by_hand(bed, hand), &job.asked)
        };
        let result = result.or_else(|refusal| self.another(hand, job).ok_or(refusal));
        let mut inner = self.inner();
        if inner.stops != job.stops {
            return;
        }
        match result {
            Ok(found) => {
                job.place = found.fit.affine;
                let fit = &found.fit;
                let shift = fit.shift(job.asked.page.center());
                let off = fit.residuals.iter().copied().fold(0.0, f64::max);
                inner.answers.push_back(format!(
                    "found shift {:.3} {:.3} turn {:.4} scale {:.5} {:.5} skew {:.4} off {:.3} looks {}",
                    shift.x, shift.y, fit.turn, fit.across, fit.along, fit.skew.unwrap_or(0.0), off, found.looks,
                ));
                inner.found = Some(found);
            }
            Err(refusal) => {
                inner.answers.push_back(format!("refused {refusal}"));
                inner.state = State::Refused(refusal.to_string());
                job.is_refused = true;
            }
        }
    }

    /// Somebody takes out what was refused, and lays in the sheet that is asked for, if it lies beside the machine.
    fn another(&self, hand: f64, job: &Job) -> Option<Found> {
        let beside: Vec<Arc<Bed>> = self.inner().beside.iter().cloned().collect();
        // The newest first: it was printed for this.
        beside.into_iter().rev().find_map(|bed| {
            let found = find(&mut Eye::by_hand(&bed, hand), &job.asked).ok()?;
            let mut inner = self.inner();
            inner.beside.retain(|own| !Arc::ptr_eq(own, &bed));
            if !inner.bed.is_empty() {
                let out = Arc::clone(&inner.bed);
                inner.beside.push_front(out);
            }
            inner.bed = bed;
            inner.cuts.clear();
            Some(found)
        })
    }

    fn answer(&self, line: String) {
        self.inner().answers.push_back(line);
    }

    fn hold_here(&self) {
        let mut inner = self.inner();
        inner.is_held = true;
        inner.state = State::Held;
        inner.answers.push_back("held".to_owned());
    }

    fn moves(&self, name: [u8; 2], numbers: &[f64], settings: &Settings, job: &mut Job) {
        match &name {
            b"PU" => self.lift(job),
            b"PD" => self.lower(settings, job),
            _ => {}
        }
        for pair in numbers.chunks_exact(2) {
            let here = if name == *b"PR" {
                (job.here.0 + pair[0], job.here.1 + pair[1])
            } else {
                (pair[0], pair[1])
            };
            let from = job.bed_place(settings, job.here);
            let to = job.bed_place(settings, here);
            job.here = here;
            if !self.travels(from.distance(to), settings, job.stops) {
                self.lift(job);
                return;
            }
            if let Some(line) = &mut job.line {
                job.blade.pull(from, to, line);
            }
        }
    }

    /// Moves so far; false once it is not to go on: it failed, or was stopped since the work began.
    fn travels(&self, long: f64, settings: &Settings, stops: u64) -> bool {
        let mut left = settings.speed.map_or(0.0, |speed| long / speed.max(1.0));
        let mut inner = self.inner();
        loop {
            if inner.stops != stops || matches!(inner.state, State::Failed(_)) {
                return false;
            }
            if inner.is_held {
                inner.state = State::Held;
                inner = self.wait(inner, 0.05);
                continue;
            }
            if left <= 0.0 {
                return true;
            }
            let slice = left.min(0.02);
            drop(inner);
            std::thread::sleep(Duration::from_secs_f64(slice));
            left -= slice;
            inner = self.inner();
        }
    }

    fn wait<'a>(&'a self, inner: MutexGuard<'a, Inner>, seconds: f64) -> MutexGuard<'a, Inner> {
        let waited = self.shared.woken.wait_timeout(inner, Duration::from_secs_f64(seconds));
        waited.map_or_else(|own| own.into_inner().0, |own| own.0)
    }

    fn lift(&self, job: &mut Job) {
        if let Some(line) = job.line.take() {
            self.inner().cuts.push(Cut { station: job.station, line });
        }
    }

    fn lower(&self, settings: &Settings, job: &mut Job) {
        if job.line.is_some() || job.is_refused {
            return;
        }
        {
            let mut inner = self.inner();
            let done = inner.cuts.len();
            if let Some((fault, after)) = settings.fault
                && done >= after
            {
                inner.settings.fault = None;
                inner.queue.clear();
                inner.waiting = 0;
                inner.state = State::Failed(fault);
                inner.is_cut_off = fault == Fault::CutOff;
                let words = inner.state.words();
                inner.answers.push_back(words);
                return;
            }
        }
        let chosen = job.chosen.saturating_sub(1).min(settings.offsets.len().saturating_sub(1));
        let offset = settings.offsets.get(chosen).copied().unwrap_or(0.0);
        job.blade.offset = if settings.allows { 0.0 } else { offset };
        let axis = job.bed_place(settings, job.here);
        job.line = Some(vec![job.blade.tip(axis)]);
    }
}
