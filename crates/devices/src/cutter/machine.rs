//! The machine: what it is told is queued, and done one after the other.

use std::collections::VecDeque;
use std::sync::{Arc, Condvar, Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use aptum_core::geometry::Point;

use super::commands::{Command, Reader};
use super::eye::{Bed, Eye};
use super::job::Job;
use super::reading::{Found, find};
use super::settings::{Fault, Settings, State};

/// A line that was cut.
#[derive(Debug, Clone, PartialEq)]
pub struct Cut {
    /// The station that it was cut with.
    pub station: u32,
    /// Where the tip ran on the bed, mm.
    pub line: Vec<Point>,
}

/// A cutter.
#[derive(Debug, Clone)]
pub struct Cutter {
    shared: Arc<Shared>,
}

#[derive(Debug)]
struct Shared {
    inner: Mutex<Inner>,
    woken: Condvar,
}

#[derive(Debug)]
struct Inner {
    settings: Settings,
    bed: Arc<Bed>,
    /// Sheets that lie beside it, for whoever lays in the one that it asks for.
    beside: VecDeque<Arc<Bed>>,
    state: State,
    queue: VecDeque<Command>,
    reader: Reader,
    /// Bytes of commands that wait, roughly.
    waiting: usize,
    is_working: bool,
    is_held: bool,
    cuts: Vec<Cut>,
    found: Option<Found>,
    answers: VecDeque<String>,
    is_cut_off: bool,
    /// How often it was stopped.
    stops: u64,
}

/// So many sheets lie beside it; the oldest go.
const MOST_BESIDE: usize = 24;

/// So much it takes before it is told to wait, bytes.
pub(super) const ROOM: usize = 64 * 1024;

impl Cutter {
    /// A machine with nothing on its bed.
    #[must_use]
    pub fn new(settings: Settings) -> Self {
        let inner = Inner {
            settings,
            bed: Arc::new(Bed::empty()),
            beside: VecDeque::new(),
            state: State::Ready,
            queue: VecDeque::new(),
            reader: Reader::default(),
            waiting: 0,
            is_working: false,
            is_held: false,
            cuts: Vec::new(),
            found: None,
            answers: VecDeque::new(),
            is_cut_off: false,
            stops: 0,
        };
        Self { shared: Arc::new(Shared { inner: Mutex::new(inner), woken: Condvar::new() }) }
    }

    /// Puts a sheet on its bed; what was cut of the one before is forgotten.
    pub fn load(&self, bed: Bed) {
        let mut inner = self.inner();
        inner.bed = Arc::new(bed);
        inner.cuts.clear();
        inner.found = None;
        inner.state = State::Ready;
        inner.is_held = false;
        self.shared.woken.notify_all();
    }

    /// Lays a sheet beside it: somebody lays it in once it is asked for, or what lies in is another one.
    pub fn lay_beside(&self, bed: Bed) {
        let mut inner = self.inner();
        inner.beside.push_back(Arc::new(bed));
        if inner.beside.len() > MOST_BESIDE {
            inner.beside.pop_front();
        }
    }

    /// Changes how it is set up.
    pub fn set(&self, change: impl FnOnce(&mut Settings)) {
        change(&mut self.inner().settings);
        self.shared.woken.notify_all();
    }

    /// What was cut of the sheet that lies on it.
    #[must_use]
    pub fn cuts(&self) -> Vec<Cut> {
        self.inner().cuts.clone()
    }

    /// How the sheet lies, once its marks were found.
    #[must_use]
    pub fn found(&self) -> Option<Found> {
        self.inner().found.clone()
    }

    /// What it is doing.
    #[must_use]
    pub fn state(&self) -> State {
        self.inner().state.clone()
    }

    fn inner(&self) -> MutexGuard<'_, Inner> {
        // A panic while it is held leaves a machine that still answers.
        self.shared.inner.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// How many bytes it can still take.
    pub(super) fn room(&self) -> usize {
        ROOM.saturating_sub(self.inner().waiting)
    }

    /// Takes bytes that came.
    pub(super) fn take(&self, bytes: &[u8]) {
        let mut inner = self.inner();
        if matches!(inner.state, State::Stopped | State::Failed(_)) && !bytes.is_empty() {
            // What was on its way when it stopped belongs to nothing, until `IN` begins anew.
            let fresh = inner.reader.take(bytes);
            let Some(from) = fresh.iter().position(|own| own.name == *b"IN") else { return };
            inner.state = State::Ready;
            inner.queue.extend(fresh.into_iter().skip(from));
        } else {
            let fresh = inner.reader.take(bytes);
            inner.queue.extend(fresh);
        }
        inner.waiting = inner.queue.iter().map(weight).sum();
        self.shared.woken.notify_all();
    }

    /// Stops and forgets what was sent.
    pub(super) fn stop(&self) {
        let mut inner = self.inner();
        inner.queue.clear();
        inner.reader.clear();
        inner.waiting = 0;
        inner.is_held = false;
        inner.state = State::Stopped;
        inner.stops += 1;
        self.shared.woken.notify_all();
    }

    /// Holds, or goes on.
    pub(super) fn hold(&self, is_held: bool) {
        let mut inner = self.inner();
        inner.is_held = is_held;
        // What waits to be done counts: it may not have begun.
        let has_work = inner.is_working || !inner.queue.is_empty();
        if is_held && has_work {
            inner.state = State::Held;
        } else if !is_held && inner.state == State::Held {
            inner.state = if has_work { State::Working } else { State::Ready };
        }
        self.shared.woken.notify_all();
    }

    /// Forgets answers that another host did not wait for.
    pub(super) fn forget_answers(&self) {
        self.inner().answers.clear();
    }

    /// Answers that wait to be sent.
    pub(super) fn answers(&self) -> Vec<String> {
        self.inner().answers.drain(..).collect()
    }

    /// True once the connection is to end.
    pub(super) fn is_cut_off(&self) -> bool {
        std::mem::take(&mut self.inner().is_cut_off)
    }

    /// Works until `is_over`; run by a thread of its own.
    pub(super) fn work(&self, is_over: &dyn Fn() -> bool) {
        let mut job = Job::default();
        while !is_over() {
            let command = {
                let mut inner = self.inner();
                if job.stops != inner.stops {
                    job = Job { stops: inner.stops, ..Job::default() };
                }
                let is_stuck = inner.is_held || matches!(inner.state, State::Failed(_));
                let next = if is_stuck { None } else { inner.queue.pop_front() };
                if let Some(command) = next {
                    inner.waiting = inner.waiting.saturating_sub(weight(&command));
                    inner.is_working = true;
                    if inner.state == State::Ready {
                        inner.state = State::Working;
                    }
                    command
                } else {
                    inner.is_working = false;
                    if inner.state == State::Working {
                        inner.state = State::Ready;
                    }
                    let wait = Duration::from_millis(50);
                    drop(self.shared.woken.wait_timeout(inner, wait));
                    continue;
                }
            };
            self.perform(&command, &mut job);
        }
    }

    fn perform(&self, command: &Command, job: &mut Job) {
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
            Err(super::Refusal::NoSheet)
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

/// What a command takes while it waits, bytes.
fn weight(command: &Command) -> usize {
    4 + command.words.iter().map(|word| word.len() + 1).sum::<usize>()
}
