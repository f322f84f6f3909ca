//! The browsers behind the tests. To start one costs more than most tests do, so they are used again.

use std::io::{BufRead, BufReader};
use std::os::unix::process::CommandExt;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::sync::{LazyLock, Mutex, PoisonError};

use fantoccini::{Client, ClientBuilder};
use serde_json::json;
use tempfile::TempDir;
use tokio::runtime::Runtime;

/// One Chromium with its ChromeDriver, its profile and its downloads.
pub struct Session {
    /// The WebDriver session.
    pub client: Client,
    /// Ends with its input, and everything that it started ends with it.
    keeper: Child,
    folder: TempDir,
}

/// Where the sessions live: each test's own runtime ends with the test.
static RUNTIME: LazyLock<Runtime> = LazyLock::new(|| Runtime::new().expect("a runtime starts"));

/// Those that no test uses now.
static IDLE: Mutex<Vec<Session>> = Mutex::new(Vec::new());

/// Starts ChromeDriver in a group of its own, and ends the whole group once nobody holds the input any more: the tests'
/// process may end in any way, and Chromium outlives a driver that is killed.
const KEEPER: &str = "chromedriver --port=0 & exec >&-; trap : TERM; read -r _; kill -TERM 0; sleep 0.2; \
                      rm -rf \"$0\"; kill -KILL 0";

impl Session {
    /// The folder of the profile, for files of the test.
    #[must_use]
    pub fn folder(&self) -> &Path {
        self.folder.path()
    }

    /// Where downloads arrive.
    #[must_use]
    pub fn downloads(&self) -> PathBuf {
        self.folder().join("downloads")
    }
}

impl Drop for Session {
    fn drop(&mut self) {
        drop(self.keeper.stdin.take());
        let _ = self.keeper.wait();
    }
}

/// An idle session, or a new one.
///
/// # Panics
/// When ChromeDriver or Chromium are missing.
pub(crate) async fn take() -> Session {
    let idle = IDLE.lock().unwrap_or_else(PoisonError::into_inner).pop();
    match idle {
        Some(session) => session,
        None => RUNTIME.spawn(start()).await.expect("a browser starts"),
    }
}

/// Leaves the page as a new profile would, for the next test; a session that cannot be cleared is ended.
pub(crate) async fn give_back(session: Session) {
    if clear(&session).await.is_some() {
        IDLE.lock().unwrap_or_else(PoisonError::into_inner).push(session);
    }
}

async fn clear(session: &Session) -> Option<()> {
    let client = &session.client;
    let windows = client.windows().await.ok()?;
    let (first, others) = windows.split_first()?;
    for other in others {
        client.switch_to_window(other.clone()).await.ok()?;
        client.close_window().await.ok()?;
    }
    client.switch_to_window(first.clone()).await.ok()?;
    let _ = client.execute("localStorage.clear(); sessionStorage.clear();", Vec::new()).await;
    client.delete_all_cookies().await.ok()?;
    client.goto("about:blank").await.ok()?;
    std::fs::remove_dir_all(session.downloads()).ok()?;
    std::fs::create_dir(session.downloads()).ok()
}

async fn start() -> Session {
    let (folder, keeper, port) = (0..5).find_map(|_| start_driver()).expect("chromedriver starts");
    let downloads = folder.path().join("downloads");
    std::fs::create_dir(&downloads).expect("a folder for downloads");
    let options = json!({
        "args": [
            "--headless", "--no-sandbox", "--enable-unsafe-swiftshader", "--disable-quic", "--no-first-run",
            "--disable-background-networking", "--disable-component-update", "--disable-sync",
            "--hide-scrollbars", "--force-device-scale-factor=1",
            format!("--user-data-dir={}", folder.path().join("profile").display()),
        ],
        "prefs": { "download.default_directory": downloads, "download.prompt_for_download": false },
    });
    let mut capabilities = serde_json::Map::new();
    capabilities.insert("goog:chromeOptions".to_owned(), options);
    // A busy machine takes longer to look through a page than the driver waits by itself.
    capabilities.insert("timeouts".to_owned(), json!({ "script": 180_000 }));
    let client = ClientBuilder::new(hyper_util::client::legacy::connect::HttpConnector::new())
        .capabilities(capabilities)
        .connect(&format!("http://127.0.0.1:{port}"))
        .await
        .expect("chromium starts");
    Session { client, keeper, folder }
}

/// A ChromeDriver with its folder and port; `None` when the port that it picked was taken meanwhile. A driver that ends
/// takes its folder along, so each has one of its own.
fn start_driver() -> Option<(TempDir, Child, String)> {
    let folder = TempDir::new().expect("a temporary directory");
    let mut keeper = Command::new("sh")
        .args(["-c", KEEPER])
        .arg(folder.path())
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .process_group(0)
        .spawn()
        .expect("a shell starts");
    let output = BufReader::new(keeper.stdout.take().expect("piped"));
    let mut lines = output.lines().map_while(Result::ok);
    let ready = lines.find(|line| line.contains("started successfully on port"));
    if let Some(line) = ready {
        let port = line.chars().filter(char::is_ascii_digit).collect();
        return Some((folder, keeper, port));
    }
    drop(keeper.stdin.take());
    let _ = keeper.wait();
    None
}
