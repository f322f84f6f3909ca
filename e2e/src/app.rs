//! The program under test.

use std::fs;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::sync::{Mutex, OnceLock, PoisonError};
use std::time::{Duration, Instant};

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
        for file in fs::read_dir(demo()).expect("the demo's data") {
            let file = file.expect("a file of it");
            fs::copy(file.path(), data.path().join(file.file_name())).expect("a copy of it");
        }
        let used = PORTS.lock().unwrap_or_else(PoisonError::into_inner).pop();
        let (child, address) = used
            .and_then(|port| launch(data.path(), &port))
            .or_else(|| launch(data.path(), "0"))
            .expect("the server prints its address");
        Self { child, address, data }
    }

    /// Kills the server with SIGKILL, as a power cut would, and starts it again at the same address.
    ///
    /// # Panics
    /// When it does not come back.
    pub fn kill_and_restart(&mut self) {
        self.child.kill().expect("the server can be killed");
        self.child.wait().expect("the server ends");
        (self.child, self.address) =
            launch(self.data.path(), self.port()).expect("the server prints its address");
    }

    fn port(&self) -> &str {
        self.address.rsplit(':').next().expect("an address has a port")
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
        PORTS.lock().unwrap_or_else(PoisonError::into_inner).push(self.port().to_owned());
    }
}

/// Ports that servers of earlier tests have left: at the same address a browser finds the page's scripts again.
static PORTS: Mutex<Vec<String>> = Mutex::new(Vec::new());

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

/// How long the demo may take to print what waits in its queue.
const PATIENCE: Duration = Duration::from_secs(120);

/// How many prints of the demo's queue lie printed once it is whole.
const PRINTED: usize = 3;

/// The demo's data, made once for each build of the program: its queue takes seconds of work to print.
fn demo() -> &'static Path {
    static DEMO: OnceLock<PathBuf> = OnceLock::new();
    DEMO.get_or_init(|| {
        let program = binary();
        let target = program.parent().expect("the program lies in a folder");
        let built =
            fs::metadata(&program).and_then(|file| file.modified()).expect("when it was built");
        let age = built.duration_since(std::time::UNIX_EPOCH).expect("after 1970").as_nanos();
        let kept = target.join(format!("demo-{age}"));
        if !kept.is_dir() {
            for old in fs::read_dir(target).expect("the folder can be read").flatten() {
                if old.file_name().to_string_lossy().starts_with("demo-") {
                    let _ = fs::remove_dir_all(old.path());
                }
            }
            let data = TempDir::new_in(target).expect("a temporary directory");
            let (mut child, address) =
                launch(data.path(), "0").expect("the server prints its address");
            until_printed(&address);
            child.kill().expect("the server can be killed");
            child.wait().expect("the server ends");
            fs::rename(data.keep(), &kept).expect("its data can be kept");
        }
        kept
    })
}

fn until_printed(address: &str) {
    let host = address.trim_start_matches("http://");
    let until = Instant::now() + PATIENCE;
    loop {
        let mut told = String::new();
        let mut server = TcpStream::connect(host).expect("the server listens");
        write!(server, "GET /api/queue HTTP/1.0\r\nHost: {host}\r\n\r\n").expect("it can be asked");
        server.read_to_string(&mut told).expect("it answers");
        if told.matches(r#""state":"printed""#).count() == PRINTED {
            return;
        }
        assert!(Instant::now() < until, "the demo's queue is never printed: {told}");
        std::thread::sleep(Duration::from_millis(200));
    }
}

/// The server and its address; `None` where it ends without one, for the port may be taken.
fn launch(data: &Path, port: &str) -> Option<(Child, String)> {
    let mut child = Command::new(binary())
        .args(["demo", "--port", port, "--data"])
        .arg(data)
        .stdout(Stdio::piped())
        .spawn()
        .expect("the server starts");
    let output = BufReader::new(child.stdout.take().expect("piped"));
    let line = output.lines().map_while(Result::ok).find(|line| line.contains("http://"));
    let Some(line) = line else {
        let _ = child.wait();
        return None;
    };
    let address = line[line.find("http://").expect("found above")..].trim().to_owned();
    Some((child, address))
}
