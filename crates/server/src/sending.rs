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
pub const PIECE: usize = 64 * 1024;

/// So many pieces lie ready for a reader who is slower: 2 MiB.
pub const READY: usize = 32;

/// A reader who takes nothing for so long has gone.
const PATIENCE: Duration = Duration::from_secs(30);

/// A silent answer sends something this often.
pub const HEARTBEAT: Duration = Duration::from_millis(300);

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
