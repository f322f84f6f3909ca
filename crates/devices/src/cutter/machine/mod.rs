//! The machine: what it is told is queued, and done one after the other.

mod performing;

use std::collections::VecDeque;
use std::sync::{Arc, Condvar, Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use aptum_core::geometry::Point;

use super::commands::{Command, Reader};
use super::eye::Bed;
use super::job::Job;
use super::reading::Found;
use super::settings::{Settings, State};

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
}

/// What a command takes while it waits, bytes.
fn weight(command: &Command) -> usize {
    4 + command.words.iter().map(|word| word.len() + 1).sum::<usize>()
}
