//! Where requests have their work done: off the threads that answer, in lanes, so that long work holds up only
//! its like.

use std::io::{self, Write};
use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};

use rocket::tokio::sync::{OwnedSemaphorePermit, Semaphore, oneshot};
use rocket::tokio::task::spawn_blocking;
use serde::Serialize;

use crate::api::{Problem, Summaries};
use crate::background::in_background;
use crate::sending::{Body, pipe};
use crate::store::Store;

/// So many do one kind of work at once, and so many more may wait for their turn.
struct Lane {
    turns: Arc<Semaphore>,
    waiting: AtomicUsize,
    most: usize,
}

impl Lane {
    fn new(at_once: usize, most: usize) -> Self {
        Self { turns: Arc::new(Semaphore::new(at_once)), waiting: AtomicUsize::new(0), most }
    }

    async fn turn(&self) -> Result<OwnedSemaphorePermit, Problem> {
        struct Waiting<'a>(&'a AtomicUsize);
        impl Drop for Waiting<'_> {
            fn drop(&mut self) {
                self.0.fetch_sub(1, Ordering::Relaxed);
            }
        }
        let before = self.waiting.fetch_add(1, Ordering::Relaxed);
        let _waiting = Waiting(&self.waiting);
        if before >= self.most && self.turns.available_permits() == 0 {
            return Err(Problem::too_many(self.most));
        }
        // The semaphore is never closed.
        self.turns.clone().acquire_owned().await.map_err(|_| Problem::too_many(self.most))
    }
}

/// The store and those who work on it.
pub struct Desk {
    store: Arc<Store>,
    summaries: Arc<Summaries>,
    quick: Lane,
    slow: Lane,
    long: Lane,
    pictures: Lane,
    writing: Lane,
}

impl Desk {
    /// A desk over a store.
    #[must_use]
    pub fn new(store: Store) -> Self {
        Self {
            store: Arc::new(store),
            summaries: Arc::new(Summaries::default()),
            quick: Lane::new(8, 256),
            slow: Lane::new(2, 12),
            long: Lane::new(2, 12),
            pictures: Lane::new(1, 12),
            writing: Lane::new(1, 256),
        }
    }

    /// What takes milliseconds: reading, previews.
    ///
    /// # Errors
    /// What the work says, or that too many wait.
    pub async fn quick<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Store) -> Result<T, Problem> + Send + 'static,
    ) -> Result<T, Problem> {
        self.work(&self.quick, work).await
    }

    /// What may take a second: files.
    ///
    /// # Errors
    /// As [`quick`](Self::quick).
    pub async fn slow<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Store) -> Result<T, Problem> + Send + 'static,
    ) -> Result<T, Problem> {
        self.work(&self.slow, work).await
    }

    /// The store, for what is worked out after an answer.
    #[must_use]
    pub fn store(&self) -> Arc<Store> {
        self.store.clone()
    }

    /// A picture that is looked at: one at a time, since each takes room.
    ///
    /// # Errors
    /// As [`quick`](Self::quick).
    pub async fn picture<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Store) -> Result<T, Problem> + Send + 'static,
    ) -> Result<T, Problem> {
        self.work(&self.pictures, work).await
    }

    /// A file: `find` says what it is and how it is written, and it goes out while that happens.
    ///
    /// # Errors
    /// As [`quick`](Self::quick); what goes wrong later breaks the body off.
    pub async fn file<T: Send + 'static, W: FnOnce(&mut dyn Write) -> io::Result<()>>(
        &self,
        find: impl FnOnce(&Arc<Store>) -> Result<(T, W), Problem> + Send + 'static,
    ) -> Result<(T, Body), Problem> {
        let turn = self.slow.turn().await?;
        let store = self.store.clone();
        let (found, answer) = oneshot::channel();
        spawn_blocking(move || match find(&store) {
            Err(problem) => drop(found.send(Err(problem))),
            Ok((what, write)) => {
                let (mut outlet, body) = pipe(turn);
                if found.send(Ok((what, body))).is_ok() {
                    let written = write(&mut outlet).and_then(|()| outlet.finish());
                    if let Err(error) = written {
                        tracing::info!("a file was not sent to its end: {error}");
                    }
                }
            }
        });
        answer.await.unwrap_or_else(|_| Err(Problem::broken()))
    }

    /// What may take seconds and gives way to everything else: comparisons. `find` makes sure that it can be done
    /// and says how; that is asked again and again whether to go on, which is answered with no when whoever
    /// asked has gone.
    ///
    /// # Errors
    /// As [`quick`](Self::quick).
    pub async fn long<T: Serialize, W: FnOnce(&mut dyn FnMut() -> bool) -> T>(
        &self,
        find: impl FnOnce(&Store) -> Result<W, Problem> + Send + 'static,
    ) -> Result<Body, Problem> {
        let turn = self.long.turn().await?;
        let store = self.store.clone();
        let (found, answer) = oneshot::channel();
        in_background(move || match find(&store) {
            Err(problem) => drop(found.send(Err(problem))),
            Ok(work) => {
                let (mut outlet, body) = pipe(turn);
                if found.send(Ok(body)).is_ok() {
                    let made = work(&mut || outlet.is_awaited());
                    let written = serde_json::to_writer(&mut outlet, &made)
                        .map_err(io::Error::from)
                        .and_then(|()| outlet.finish());
                    if let Err(error) = written {
                        tracing::info!("a comparison was not sent to its end: {error}");
                    }
                }
            }
        })
        .map_err(|_| Problem::broken())?;
        answer.await.unwrap_or_else(|_| Err(Problem::broken()))
    }

    /// Changes of the store, one after the other: while another program locks the file the next one waits
    /// without holding up anybody.
    ///
    /// # Errors
    /// As [`quick`](Self::quick).
    pub async fn write<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Store) -> Result<T, Problem> + Send + 'static,
    ) -> Result<T, Problem> {
        self.work(&self.writing, work).await
    }

    /// The summaries of jobs.
    #[must_use]
    pub fn summaries(&self) -> &Arc<Summaries> {
        &self.summaries
    }

    async fn work<T: Send + 'static>(
        &self,
        lane: &Lane,
        work: impl FnOnce(&Store) -> Result<T, Problem> + Send + 'static,
    ) -> Result<T, Problem> {
        let turn = lane.turn().await?;
        let store = self.store.clone();
        let done = spawn_blocking(move || {
            let _turn = turn;
            work(&store)
        });
        done.await.unwrap_or_else(|error| {
            tracing::error!("work ended early: {error}");
            Err(Problem::broken())
        })
    }
}
