//! The program under test.

use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};

use tempfile::TempDir;

/// A running server with the demo's data.
pub struct App {
    child: Child,
    /// Such as `http://127.0.0.1:40123`.
    pub address: String,
    data: TempDir,
}

impl App {
    /// Starts the demo on a free port.
    ///
    /// # Panics
    /// When the program is not built or does not listen.
    #[must_use]
    pub fn start() -> Self {
        let data = TempDir::new().expect("a temporary directory");
        let (child, address) = launch(data.path(), "0");
        Self { child, address, data }
    }

    /// Kills the server with SIGKILL, as a power cut would, and starts it again at the same address.
    ///
    /// # Panics
    /// When it does not come back.
    pub fn kill_and_restart(&mut self) {
        self.child.kill().expect("the server can be killed");
        self.child.wait().expect("the server ends");
        let port = self.address.rsplit(':').next().expect("an address has a port").to_owned();
        (self.child, self.address) = launch(self.data.path(), &port);
    }

    /// Where the server keeps its data.
    #[must_use]
    pub fn data(&self) -> &Path {
        self.data.path()
    }
}

impl Drop for App {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

/// The `aptum` binary next to the test binary.
///
/// # Panics
/// When it is not built: `make test` builds it first.
#[must_use]
pub fn binary() -> PathBuf {
    let test = std::env::current_exe().expect("the test knows where it is");
    test.ancestors()
        .skip(1)
        .map(|folder| folder.join("aptum"))
        .find(|binary| binary.is_file())
        .expect("build the program first: cargo build -p aptum")
}

fn launch(data: &Path, port: &str) -> (Child, String) {
    let mut child = Command::new(binary())
        .args(["demo", "--port", port, "--data"])
        .arg(data)
        .stdout(Stdio::piped())
        .spawn()
        .expect("the server starts");
    let output = BufReader::new(child.stdout.take().expect("piped"));
    let line = output.lines().map_while(Result::ok).find(|line| line.contains("http://"));
    let line = line.expect("the server prints its address");
    let address = line[line.find("http://").expect("found above")..].trim().to_owned();
    (child, address)
}
