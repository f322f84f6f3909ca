//! Speaking with a cutter over TCP: the same for one that ships with Aptum and for one in the workshop.

use std::io::{self, BufRead, BufReader, Read, Write};
use std::net::{SocketAddr, TcpStream, ToSocketAddrs};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::{Duration, Instant};

/// Why the talk ended.
#[derive(Debug, thiserror::Error)]
pub enum TalkError {
    /// Nobody answers there.
    #[error(
        "No cutter answers at {0}: see that it is switched on and that the address in its record is right"
    )]
    Nobody(String),
    /// Another host speaks with it.
    #[error("The cutter is taken: another program is speaking with it")]
    Taken,
    /// It said nothing in time.
    #[error("The cutter does not answer: it is told nothing more")]
    Silent,
    /// What it answered is no answer of a cutter.
    #[error("What answers there is no cutter that Aptum can speak with: it said “{0}”")]
    Nonsense(String),
    /// The connection ended.
    #[error("The connection to the cutter ended")]
    Ended,
    /// It failed, and how.
    #[error("The cutter stopped: {0}")]
    Failed(String),
    /// Whoever asked for it wants no more.
    #[error("It was stopped")]
    Stopped,
}

/// What somebody wants of a machine while it works.
#[derive(Debug, Default)]
pub struct Wish {
    /// True while it is to hold.
    pub is_held: AtomicBool,
    /// True once it is to stop.
    pub is_stopped: AtomicBool,
}

/// A talk with a cutter.
#[derive(Debug)]
pub struct Talk {
    lines: BufReader<TcpStream>,
    open: Vec<u8>,
    wish: Arc<Wish>,
    /// True where it was told to hold.
    is_held: bool,
}

/// How long a connection may take.
const CONNECT: Duration = Duration::from_secs(3);

/// How long an answer may take that needs no movement.
const ANSWER: Duration = Duration::from_secs(5);

/// Longest line that is an answer, bytes.
const LONGEST: usize = 1000;

/// What is sent at once, bytes.
const CHUNK: usize = 4096;

impl Talk {
    /// Begins a talk.
    ///
    /// # Errors
    /// That nobody answers, or that it is taken.
    pub fn with(address: &str, wish: Arc<Wish>) -> Result<Self, TalkError> {
        let nobody = || TalkError::Nobody(address.to_owned());
        let places: Vec<SocketAddr> =
            address.to_socket_addrs().map_err(|_| nobody())?.take(4).collect();
        let stream = places
            .iter()
            .find_map(|place| TcpStream::connect_timeout(place, CONNECT).ok())
            .ok_or_else(nobody)?;
        stream.set_read_timeout(Some(Duration::from_millis(100))).map_err(|_| nobody())?;
        stream.set_write_timeout(Some(ANSWER)).map_err(|_| nobody())?;
        // Small questions go out at once; a socket that cannot do that still works.
        let _ = stream.set_nodelay(true);
        let (lines, open) = (BufReader::new(stream), Vec::new());
        let mut talk = Self { lines, open, wish, is_held: false };
        talk.room()?;
        Ok(talk)
    }

    /// Says something, which it must have room for.
    ///
    /// # Errors
    /// That the connection ended.
    pub fn say(&mut self, bytes: &[u8]) -> Result<(), TalkError> {
        let written = self.lines.get_mut().write_all(bytes);
        written.map_err(|error| match error.kind() {
            io::ErrorKind::WouldBlock | io::ErrorKind::TimedOut => TalkError::Silent,
            _ => TalkError::Ended,
        })
    }

    /// The next line that it says; `None` where it says nothing for so long.
    ///
    /// # Errors
    /// That the connection ended, or that what comes is no line.
    pub fn hear(&mut self, wait: Duration) -> Result<Option<String>, TalkError> {
        let until = Instant::now() + wait;
        loop {
            let left = LONGEST.saturating_sub(self.open.len()) as u64 + 1;
            match Read::by_ref(&mut self.lines).take(left).read_until(b'\n', &mut self.open) {
                Ok(0) => return Err(TalkError::Ended),
                Ok(_) if self.open.ends_with(b"\n") => {
                    let line = String::from_utf8_lossy(&self.open).trim_end().to_owned();
                    self.open.clear();
                    return Ok(Some(line));
                }
                Ok(_) if self.open.len() > LONGEST => {
                    return Err(TalkError::Nonsense(shown(&self.open)));
                }
                Ok(_) => {}
                Err(error)
                    if matches!(
                        error.kind(),
                        io::ErrorKind::WouldBlock | io::ErrorKind::TimedOut
                    ) => {}
                Err(_) => return Err(TalkError::Ended),
            }
            if Instant::now() >= until {
                return Ok(None);
            }
        }
    }

    /// How many bytes it can take. What else it says meanwhile is a failure, or it is passed over.
    fn room(&mut self) -> Result<usize, TalkError> {
        self.say(b"\x1b.B")?;
        let until = Instant::now() + ANSWER;
        while let Some(line) = self.hear(until.saturating_duration_since(Instant::now()))? {
            match line.split_once(' ') {
                Some(("room", bytes)) => {
                    return bytes.parse().map_err(|_| TalkError::Nonsense(shown(line.as_bytes())));
                }
                Some(("failed", why)) => return Err(TalkError::Failed(why.to_owned())),
                Some(("refused", why)) => return Err(TalkError::Failed(why.to_owned())),
                _ if line == "taken" => return Err(TalkError::Taken),
                _ if line == "done" || line == "held" => {}
                _ => return Err(TalkError::Nonsense(shown(line.as_bytes()))),
            }
        }
        Err(TalkError::Silent)
    }

    /// Tells the machine what is wished of it.
    fn obey(&mut self) -> Result<(), TalkError> {
        if self.wish.is_stopped.load(Ordering::Relaxed) {
            self.say(b"\x1b.K")?;
            return Err(TalkError::Stopped);
        }
        let is_held = self.wish.is_held.load(Ordering::Relaxed);
        if is_held != self.is_held {
            self.say(if is_held { b"\x1b.H" } else { b"\x1b.G" })?;
            self.is_held = is_held;
        }
        Ok(())
    }

    /// Sends all of it, never more than the machine has room for; `told` is told how many bytes are sent.
    ///
    /// # Errors
    /// As [`hear`](Self::hear), what the machine says of a failure, and that it was to stop.
    pub fn send(&mut self, bytes: &[u8], told: &mut dyn FnMut(usize)) -> Result<(), TalkError> {
        let mut sent = 0;
        while sent < bytes.len() {
            told(sent);
            self.obey()?;
            let room = self.room()?.min(CHUNK * 8);
            if room < CHUNK.min(bytes.len() - sent) {
                std::thread::sleep(Duration::from_millis(20));
                continue;
            }
            let end = (sent + room).min(bytes.len());
            self.say(&bytes[sent..end])?;
            sent = end;
        }
        Ok(())
    }

    /// Waits until everything is done that was sent.
    ///
    /// # Errors
    /// As [`send`](Self::send).
    pub fn finish(&mut self) -> Result<(), TalkError> {
        const ASKED: &[u8] = b"AO;";
        while self.room()? < ASKED.len() {
            self.obey()?;
            std::thread::sleep(Duration::from_millis(20));
        }
        self.say(ASKED)?;
        loop {
            self.obey()?;
            match self.hear(Duration::from_millis(200))? {
                Some(line) if line == "done" => return Ok(()),
                Some(line) => {
                    if let Some(why) = line.strip_prefix("failed ") {
                        return Err(TalkError::Failed(why.to_owned()));
                    }
                }
                None => {}
            }
        }
    }
}

/// What was said, as far as it can be said again.
fn shown(bytes: &[u8]) -> String {
    let text = String::from_utf8_lossy(bytes);
    text.chars().filter(|own| own.is_ascii_graphic() || *own == ' ').take(40).collect()
}
