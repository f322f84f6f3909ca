//! The machine: what it is told is queued, and done one after the other.

use std::collections::VecDeque;
use std::sync::{Arc, Condvar, Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use aptum_core::geometry::{Affine, Point, Rect, Vec2};
use aptum_core::workshop::Corner;

use super::blade::Blade;
use super::commands::{Command, Reader};
use super::eye::{Bed, Eye};
use super::mark::{AskedMark, MarkKind};
use super::reading::{Asked, AskedCode, Found, find};

/// How the machine is set up.
#[derive(Debug, Clone, PartialEq)]
pub struct Settings {
    /// Units in a millimetre.
    pub units: f64,
    /// The corner of the page from which it counts.
    pub origin: Corner,
    /// True where x runs along the feed.
    pub swapped: bool,
    /// How far the tips of what is put into it hang behind their axes, mm, in the order in which stations are chosen; the last
    /// stays.
    pub offsets: Vec<f64>,
    /// True where it allows for that itself.
    pub allows: bool,
    /// How fast it moves, mm/s; none as fast as it can be told.
    pub speed: Option<f64>,
    /// How far somebody's hand errs who sets crosshairs on the marks, mm, the standard deviation along each axis; 0 where an eye does
    /// it.
    pub hand: f64,
    /// True where somebody changes the tool at once when it asks for that.
    pub is_attended: bool,
    /// What goes wrong, and before which stroke, from 0.
    pub fault: Option<(Fault, usize)>,
}

impl Default for Settings {
    fn default() -> Self {
        Self {
            units: 40.0,
            origin: Corner::BottomLeft,
            swapped: false,
            offsets: vec![0.25],
            allows: true,
            speed: None,
            hand: 0.0,
            is_attended: false,
            fault: None,
        }
    }
}

/// What can go wrong with it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fault {
    /// There is no sheet.
    NoPaper,
    /// The sheet is stuck.
    Jam,
    /// Its cover is open.
    CoverOpen,
    /// The connection ends.
    CutOff,
}

/// What it is doing.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum State {
    /// Nothing.
    Ready,
    /// It looks for marks or cuts.
    Working,
    /// It waits until it is told to go on.
    Held,
    /// It was told to stop.
    Stopped,
    /// The sheet was refused, and why.
    Refused(String),
    /// Something went wrong.
    Failed(Fault),
}

impl State {
    /// In words, as it answers.
    #[must_use]
    pub fn words(&self) -> String {
        match self {
            Self::Ready => "ready".to_owned(),
            Self::Working => "working".to_owned(),
            Self::Held => "held".to_owned(),
            Self::Stopped => "stopped".to_owned(),
            Self::Refused(why) => format!("refused {why}"),
            Self::Failed(Fault::NoPaper) => "failed no paper".to_owned(),
            Self::Failed(Fault::Jam) => "failed jam".to_owned(),
            Self::Failed(Fault::CoverOpen) => "failed cover open".to_owned(),
            Self::Failed(Fault::CutOff) => "failed connection".to_owned(),
        }
    }
}

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
    epoch: u64,
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
            epoch: 0,
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
        inner.epoch += 1;
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
        let mut epoch = 0;
        while !is_over() {
            let command = {
                let mut inner = self.inner();
                if epoch != inner.epoch {
                    epoch = inner.epoch;
                    job = Job::default();
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
        let (mm, at) = (1.0 / settings.units, |x: f64, y: f64| job.page_place(&settings, x, y));
        match (&command.name, numbers.as_slice()) {
            (b"IN", _) => {
                *job = Job::default();
                let mut inner = self.inner();
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
            (b"AP", [w, h, ..]) => job.asked.page = Rect::new(0.0, 0.0, w * mm, h * mm),
            (b"AR", [reach, ..]) => job.asked.reach = (reach * mm).clamp(0.5, 60.0),
            (b"AS", [dx, dy, ..]) => job.asked.start = Vec2::new(dx * mm, dy * mm),
            (b"AT", [x0, y0, x1, y1, ..]) => {
                job.asked.sign = Some(Rect::from_points(at(*x0, *y0), at(*x1, *y1)));
            }
            (b"AM" | b"AB", [x, y, kind, size, stroke, odd, sx, sy, ..]) => {
                let kind = match *kind {
                    kind if kind < 1.5 => MarkKind::Angle,
                    kind if kind < 2.5 => MarkKind::Dot,
                    _ => MarkKind::Cross,
                };
                let mark = AskedMark {
                    at: at(*x, *y),
                    kind,
                    size: (size * mm).clamp(0.5, 100.0),
                    stroke: (stroke * mm).clamp(0.1, 20.0),
                    is_odd: *odd > 0.5,
                    arms: (sx.signum(), sy.signum()),
                };
                let list = if command.name == *b"AM" {
                    &mut job.asked.marks
                } else {
                    &mut job.asked.absent
                };
                if list.len() < 8 {
                    list.push(mark);
                }
            }
            (b"AC", [x0, y0, x1, y1, ..]) => {
                let whole = |at: usize| command.words.get(at).and_then(|own| own.parse().ok());
                job.asked.code = command.words.get(4).map(|code| AskedCode {
                    place: Rect::from_points(at(*x0, *y0), at(*x1, *y1)),
                    code: code.clone(),
                    first: whole(5).unwrap_or(1),
                    last: whole(6).unwrap_or(1),
                });
            }
            (b"AF", _) => self.find(&bed, settings.hand, job),
            (b"AO", _) => self.answer("done".to_owned()),
            (b"OS", _) => {
                // Bit 4 says that it is ready, bit 5 that something is wrong.
                let state = self.state();
                let number =
                    if matches!(state, State::Refused(_) | State::Failed(_)) { 32 } else { 16 };
                self.answer(number.to_string());
            }
            _ => {}
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
            if !self.travels(from.distance(to), settings) {
                self.lift(job);
                return;
            }
            if let Some(line) = &mut job.line {
                job.blade.pull(from, to, line);
            }
        }
    }

    /// Moves so far; false once it is not to go on.
    fn travels(&self, long: f64, settings: &Settings) -> bool {
        let mut left = settings.speed.map_or(0.0, |speed| long / speed.max(1.0));
        let mut inner = self.inner();
        let epoch = inner.epoch;
        loop {
            if inner.epoch != epoch || matches!(inner.state, State::Failed(_)) {
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

/// What is known of the sheet that is being worked.
#[derive(Debug)]
struct Job {
    asked: Asked,
    /// From the page to the bed.
    place: Affine,
    is_refused: bool,
    station: u32,
    /// How often a station was chosen.
    chosen: usize,
    /// Where the head stands, in units.
    here: (f64, f64),
    blade: Blade,
    line: Option<Vec<Point>>,
}

impl Default for Job {
    fn default() -> Self {
        Self {
            asked: Asked::default(),
            place: Affine::IDENTITY,
            is_refused: false,
            station: 1,
            chosen: 0,
            here: (0.0, 0.0),
            blade: Blade { offset: 0.0, heading: Vec2::new(0.0, 1.0) },
            line: None,
        }
    }
}

impl Job {
    /// A place in units, on the page.
    fn page_place(&self, settings: &Settings, x: f64, y: f64) -> Point {
        let (x, y) = if settings.swapped { (y, x) } else { (x, y) };
        let (x, y) = (x / settings.units, y / settings.units);
        let page = self.asked.page;
        match settings.origin {
            Corner::TopLeft => Point::new(page.x0 + x, page.y0 + y),
            Corner::TopRight => Point::new(page.x1 - x, page.y0 + y),
            Corner::BottomRight => Point::new(page.x1 - x, page.y1 - y),
            Corner::BottomLeft => Point::new(page.x0 + x, page.y1 - y),
        }
    }

    fn bed_place(&self, settings: &Settings, (x, y): (f64, f64)) -> Point {
        self.place * self.page_place(settings, x, y)
    }
}
