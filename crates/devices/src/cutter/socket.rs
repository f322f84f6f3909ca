//! The socket: one host at a time is spoken with.

use std::io::{self, Read, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use super::machine::Cutter;

/// Serves a cutter until told that it is over. A second host is told that the machine is taken.
///
/// # Errors
/// That the listener cannot be used.
pub fn serve(listener: &TcpListener, cutter: &Cutter, is_over: &AtomicBool) -> io::Result<()> {
    listener.set_nonblocking(true)?;
    let over = || is_over.load(Ordering::Relaxed);
    std::thread::scope(|threads| {
        threads.spawn(|| cutter.work(&over));
        let mut host: Option<Host> = None;
        while !over() {
            match listener.accept() {
                Ok((mut stream, _)) => {
                    if host.is_some() {
                        // It goes away unheard if it does not listen.
                        let _ = stream.write_all(b"taken\n");
                    } else {
                        cutter.forget_answers();
                        host = Host::new(stream).ok();
                    }
                }
                Err(error) if error.kind() == io::ErrorKind::WouldBlock => {}
                Err(error) => return Err(error),
            }
            let is_idle = match &mut host {
                Some(own) => match own.listen(cutter) {
                    Ok(is_idle) => is_idle,
                    Err(_) => {
                        host = None;
                        true
                    }
                },
                None => true,
            };
            if is_idle {
                std::thread::sleep(Duration::from_millis(2));
            }
        }
        Ok(())
    })
}

/// Who is spoken with.
struct Host {
    stream: TcpStream,
    /// What has come of an escape.
    escape: Vec<u8>,
    unsent: Vec<u8>,
}

const ESCAPE: u8 = 0x1b;

impl Host {
    fn new(stream: TcpStream) -> io::Result<Self> {
        stream.set_nonblocking(true)?;
        stream.set_nodelay(true)?;
        Ok(Self { stream, escape: Vec::new(), unsent: Vec::new() })
    }

    /// Reads what has come and answers; true where nothing had. An error ends the talk.
    fn listen(&mut self, cutter: &Cutter) -> io::Result<bool> {
        if cutter.is_cut_off() {
            return Err(io::ErrorKind::ConnectionAborted.into());
        }
        let mut bytes = [0; 8192];
        let count = match self.stream.read(&mut bytes) {
            Ok(0) => return Err(io::ErrorKind::UnexpectedEof.into()),
            Ok(count) => count,
            Err(error) if error.kind() == io::ErrorKind::WouldBlock => 0,
            Err(error) => return Err(error),
        };
        let mut plain = Vec::with_capacity(count);
        for byte in &bytes[..count] {
            if self.escape.is_empty() && *byte != ESCAPE {
                plain.push(*byte);
                continue;
            }
            self.escape.push(*byte);
            if self.escape.len() == 3 {
                let command = self.escape[2];
                self.escape.clear();
                cutter.take(&plain);
                plain.clear();
                self.at_once(command, cutter);
            }
        }
        if !plain.is_empty() {
            cutter.take(&plain);
        }
        for answer in cutter.answers() {
            self.say(&answer);
        }
        self.send()?;
        Ok(count == 0)
    }

    fn at_once(&mut self, command: u8, cutter: &Cutter) {
        match command {
            b'K' => cutter.stop(),
            b'H' => cutter.hold(true),
            b'G' => cutter.hold(false),
            b'B' => self.say(&format!("room {}", cutter.room())),
            b'O' => self.say(&format!("state {}", cutter.state().words())),
            _ => {}
        }
    }

    fn say(&mut self, line: &str) {
        self.unsent.extend(line.bytes().filter(|own| *own != b'\n'));
        self.unsent.push(b'\n');
    }

    fn send(&mut self) -> io::Result<()> {
        while !self.unsent.is_empty() {
            match self.stream.write(&self.unsent) {
                Ok(count) => drop(self.unsent.drain(..count)),
                Err(error) if error.kind() == io::ErrorKind::WouldBlock => return Ok(()),
                Err(error) => return Err(error),
            }
        }
        Ok(())
    }
}
