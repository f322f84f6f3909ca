//! The machines that ship with Aptum, on free ports.

use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};

use crate::binary;

/// A printer and a cutter that listen.
pub struct Machines {
    child: Child,
    /// Where the cutter is reached, such as `127.0.0.1:40123`.
    pub cutter: String,
    /// Where the printer is.
    pub printer: String,
}

impl Machines {
    /// Starts both, set up as is told.
    ///
    /// # Panics
    /// When the program is not built or does not listen.
    #[must_use]
    pub fn start(told: &[&str]) -> Self {
        let mut child = Command::new(binary())
            .args(["devices", "--cutter", "0", "--printer", "0"])
            .args(told)
            .stdout(Stdio::piped())
            .spawn()
            .expect("the program is built");
        let out = child.stdout.take().expect("its output is piped");
        let mut lines = BufReader::new(out).lines();
        let mut address = || {
            let line = lines.next().expect("it says where it listens").expect("in words");
            line.rsplit(' ').next().unwrap_or_default().to_owned()
        };
        let (cutter, printer) = (address(), address());
        Self { child, cutter, printer }
    }
}

impl Drop for Machines {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
