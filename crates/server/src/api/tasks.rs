//! Long work: it runs off the request threads, sends what it finds as server-sent events, and ends when it is
//! told to, when its time is up, or when nobody listens any more.

use std::collections::HashMap;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use rocket::futures::stream::{BoxStream, StreamExt};
use rocket::response::stream::{Event, EventStream};
use rocket::tokio::sync::mpsc::{UnboundedReceiver, UnboundedSender, unbounded_channel};
use serde::Serialize;

use super::Problem;
use crate::background::in_background;

/// An answer of events.
pub type Events = EventStream<BoxStream<'static, Event>>;

/// A silent task writes this often, so that it is noticed when nobody listens any more.
const HEARTBEAT: Duration = Duration::from_millis(500);

/// So many searches go on at once; each keeps a core busy.
const MOST: usize = 4;

/// What is going on.
#[derive(Default)]
pub struct Tasks(Arc<Mutex<Running>>);

/// Every task, and those that are a job's, of which there is one at a time.
#[derive(Default)]
struct Running {
    all: Vec<Arc<AtomicBool>>,
    of_jobs: HashMap<i32, Task>,
}

/// A task that is going on.
struct Task {
    since: Instant,
    over: Arc<AtomicBool>,
}

/// A task's way out: events, and whether it may go on.
pub struct Sender {
    events: UnboundedSender<Event>,
    over: Arc<AtomicBool>,
    until: Instant,
}

impl Sender {
    /// False when nobody listens any more or the time is up.
    pub fn goes_on(&self) -> bool {
        !self.over.load(Ordering::Relaxed) && Instant::now() < self.until
    }

    /// Sends an event with a JSON body.
    pub fn send(&self, name: &'static str, body: &impl Serialize) {
        let event = Event::json(body).event(name);
        if self.events.send(event).is_err() {
            self.over.store(true, Ordering::Relaxed);
        }
    }
}

/// What is found is sent this often at most.
const PACE: Duration = Duration::from_millis(80);

/// When what was found on the way was sent last, by whichever thread.
#[derive(Default)]
pub struct Pace(Mutex<Option<Instant>>);

impl Pace {
    /// Hands over what makes the event, unless the last was sent just now.
    pub fn send(&self, send: impl FnOnce()) {
        let mut sent = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if sent.is_none_or(|sent| sent.elapsed() >= PACE) {
            *sent = Some(Instant::now());
            send();
        }
    }
}

/// Takes a task off the list and tells it to end: when its work is done, and when its stream ends, whichever
/// way that comes about.
#[derive(Clone)]
struct Guard {
    tasks: Arc<Mutex<Running>>,
    job: Option<i32>,
    over: Arc<AtomicBool>,
}

impl Drop for Guard {
    fn drop(&mut self) {
        self.over.store(true, Ordering::Relaxed);
        let mut running = self.tasks.lock().unwrap_or_else(PoisonError::into_inner);
        running.all.retain(|task| !Arc::ptr_eq(task, &self.over));
        let Some(job) = self.job else { return };
        // The job's next task is not this one's to end.
        if running.of_jobs.get(&job).is_some_and(|task| Arc::ptr_eq(&task.over, &self.over)) {
            running.of_jobs.remove(&job);
        }
    }
}

impl Tasks {
    /// Runs `work` for `job` for at most `budget`; its events become the answer.
    ///
    /// # Errors
    /// A problem when a task for the job is going on already, or as many as may at once.
    pub fn run(
        &self,
        job: Option<i32>,
        budget: Duration,
        work: impl FnOnce(&Sender) + Send + 'static,
    ) -> Result<Events, Problem> {
        let over = Arc::new(AtomicBool::new(false));
        {
            let mut running = self.0.lock().unwrap_or_else(PoisonError::into_inner);
            if let Some((job, task)) = job.and_then(|job| Some((job, running.of_jobs.get(&job)?))) {
                let seconds = task.since.elapsed().as_secs();
                return Err(Problem::busy(format!(
                    "Job {job} has been nesting for {seconds} s, in this window or another: stop that, or wait for it"
                )));
            }
            if running.all.len() >= MOST {
                return Err(Problem::too_many(MOST));
            }
            running.all.push(over.clone());
            if let Some(job) = job {
                running.of_jobs.insert(job, Task { since: Instant::now(), over: over.clone() });
            }
        }
        let (events, mut received): (_, UnboundedReceiver<Event>) = unbounded_channel();
        let guard = Guard { tasks: self.0.clone(), job, over: over.clone() };
        let sender = Sender { events, over, until: Instant::now() + budget };
        // A task that panics drops its sender, which ends the stream.
        let done = guard.clone();
        in_background(move || {
            work(&sender);
            // Off the list before the stream ends: whoever has read it to its end may start another.
            drop(done);
        })
        .map_err(|_| Problem::too_many(MOST))?;
        let stream = rocket::response::stream::stream! {
            let _guard = guard;
            while let Some(event) = received.recv().await {
                yield event;
            }
        };
        Ok(EventStream::from(stream.boxed()).heartbeat(HEARTBEAT))
    }

    /// Tells every task to end: the server stops.
    pub fn stop_all(&self) {
        let running = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        running.all.iter().for_each(|task| task.store(true, Ordering::Relaxed));
    }

    /// Tells a job's task to end with what it has; false when none is going on.
    pub fn stop(&self, job: i32) -> bool {
        let running = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let task = running.of_jobs.get(&job);
        task.inspect(|task| task.over.store(true, Ordering::Relaxed)).is_some()
    }
}
