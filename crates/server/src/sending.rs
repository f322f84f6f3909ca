//! Answers that go out while they are made, so that a file takes no room as a whole and its making ends when
//! whoever asked for it has gone.

use std::io::{self, Write};
use std::time::{Duration, Instant};

use rocket::futures::stream::{BoxStream, StreamExt, poll_fn};
use rocket::tokio::sync::OwnedSemaphorePermit;
use rocket::tokio::sync::mpsc::error::TrySendError;
use rocket::tokio::sync::mpsc::{Sender, channel};
use tokio_util::io::StreamReader;

type Piece = io::Result<io::Cursor<Vec<u8>>>;

/// What is read of an answer: ends in an error where its making did.
pub type Body = StreamReader<BoxStream<'static, Piece>, io::Cursor<Vec<u8>>>;

/// Bytes go out in pieces of this size.
const PIECE: usize = 64 * 1024;

/// So many pieces lie ready for a reader who is slower: 2 MiB.
const READY: usize = 32;

/// A reader who takes nothing for so long has gone.
const PATIENCE: Duration = Duration::from_secs(30);

/// A silent answer sends something this often.
const HEARTBEAT: Duration = Duration::from_millis(300);

/// How often a reader who lags is looked at.
const LOOK: Duration = Duration::from_millis(20);

/// Where the bytes of an answer are written to.
pub struct Outlet {
    pieces: Sender<Piece>,
    held: Vec<u8>,
    /// Given back as soon as the reader lags: a slow line holds up nobody's work.
    turn: Option<OwnedSemaphorePermit>,
    is_whole: bool,
    /// When something was last sent.
    last: Instant,
}

/// Both ends of an answer, made during `turn`.
pub fn pipe(turn: OwnedSemaphorePermit) -> (Outlet, Body) {
    let (pieces, mut read) = channel(READY);
    let stream = poll_fn(move |context| read.poll_recv(context)).boxed();
    let outlet = Outlet {
        pieces,
        held: Vec::new(),
        turn: Some(turn),
        is_whole: false,
        last: Instant::now(),
    };
    (outlet, StreamReader::new(stream))
}

impl Outlet {
    /// Sends what is held back; without it the reader is told that the answer is not whole.
    ///
    /// # Errors
    /// When the reader has gone.
    pub fn finish(mut self) -> io::Result<()> {
        self.flush()?;
        self.is_whole = true;
        Ok(())
    }

    /// Whether anybody still waits for an answer in JSON that takes its time. That a connection was closed is
    /// noticed when something is written to it: white space, which stands before any JSON.
    pub fn is_awaited(&mut self) -> bool {
        if self.last.elapsed() < HEARTBEAT {
            return !self.pieces.is_closed();
        }
        self.send(Ok(io::Cursor::new(b" ".to_vec()))).is_ok()
    }

    fn send(&mut self, piece: Piece) -> io::Result<()> {
        self.last = Instant::now();
        let mut piece = piece;
        let since = Instant::now();
        loop {
            match self.pieces.try_send(piece) {
                Ok(()) => return Ok(()),
                Err(TrySendError::Closed(_)) => return Err(gone()),
                Err(TrySendError::Full(_)) if since.elapsed() > PATIENCE => return Err(gone()),
                Err(TrySendError::Full(back)) => piece = back,
            }
            self.turn = None;
            std::thread::sleep(LOOK);
        }
    }
}

fn gone() -> io::Error {
    io::Error::new(io::ErrorKind::BrokenPipe, "nobody waits for this file any more")
}

impl Write for Outlet {
    fn write(&mut self, bytes: &[u8]) -> io::Result<usize> {
        if self.pieces.is_closed() {
            return Err(gone());
        }
        self.held.extend_from_slice(bytes);
        if self.held.len() >= PIECE { self.flush().map(|()| bytes.len()) } else { Ok(bytes.len()) }
    }

    fn flush(&mut self) -> io::Result<()> {
        let held = std::mem::take(&mut self.held);
        if held.is_empty() { Ok(()) } else { self.send(Ok(io::Cursor::new(held))) }
    }
}

impl Drop for Outlet {
    fn drop(&mut self) {
        if !self.is_whole && !self.pieces.is_closed() {
            let _told = self.send(Err(io::Error::other("the file could not be made to its end")));
        }
    }
}

#[cfg(test)]
#[allow(clippy::unwrap_used)]
mod tests {
    use std::sync::Arc;

    use rocket::tokio::io::AsyncReadExt;
    use rocket::tokio::sync::Semaphore;
    use rocket::tokio::task::spawn_blocking;

    use super::*;

    async fn lane() -> (Arc<Semaphore>, OwnedSemaphorePermit) {
        let lane = Arc::new(Semaphore::new(1));
        let turn = lane.clone().acquire_owned().await.unwrap();
        (lane, turn)
    }

    #[rocket::async_test]
    async fn what_is_written_is_read_to_its_end() {
        let (_, turn) = lane().await;
        let (mut outlet, mut body) = pipe(turn);
        let whole: Vec<u8> = (0..10 * PIECE).map(|at| u8::try_from(at % 251).unwrap()).collect();
        let written = whole.clone();
        let made = spawn_blocking(move || {
            written.chunks(1000).try_for_each(|some| outlet.write_all(some))?;
            outlet.finish()
        });
        let mut read = Vec::new();
        body.read_to_end(&mut read).await.unwrap();
        assert_eq!(read, whole);
        made.await.unwrap().unwrap();
    }

    #[rocket::async_test]
    async fn a_reader_who_lags_holds_no_turn_and_one_who_has_gone_ends_the_work() {
        let (lane, turn) = lane().await;
        let (mut outlet, body) = pipe(turn);
        let made = spawn_blocking(move || {
            let mut pieces = 0;
            while outlet.write_all(&[7; PIECE]).is_ok() {
                pieces += 1;
            }
            pieces
        });
        let _turn = lane.acquire().await.unwrap();
        drop(body);
        assert_eq!(made.await.unwrap(), READY);
    }

    #[rocket::async_test]
    async fn work_hears_that_nobody_waits_any_more_and_its_white_space_is_json_all_the_same() {
        let (_, turn) = lane().await;
        let (mut outlet, mut body) = pipe(turn);
        assert!(outlet.is_awaited());
        let made = spawn_blocking(move || {
            std::thread::sleep(HEARTBEAT * 2);
            assert!(outlet.is_awaited());
            serde_json::to_writer(&mut outlet, &[1, 2]).unwrap();
            outlet.finish()
        });
        let mut read = Vec::new();
        body.read_to_end(&mut read).await.unwrap();
        assert_eq!(read[0], b' ');
        assert_eq!(serde_json::from_slice::<Vec<u8>>(&read).unwrap(), [1, 2]);
        made.await.unwrap().unwrap();

        let (_, turn) = lane().await;
        let (mut outlet, body) = pipe(turn);
        drop(body);
        assert!(!outlet.is_awaited());
    }

    #[rocket::async_test]
    async fn what_ends_early_is_not_taken_for_whole() {
        let (_, turn) = lane().await;
        let (mut outlet, mut body) = pipe(turn);
        outlet.write_all(b"half").unwrap();
        drop(outlet);
        assert!(body.read_to_end(&mut Vec::new()).await.is_err());
    }
}
