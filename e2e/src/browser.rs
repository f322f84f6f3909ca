//! A browser that does what a user does.

use std::ops::Deref;
use std::path::PathBuf;
use std::time::{Duration, Instant};

use fantoccini::Locator;
use fantoccini::actions::{
    InputSource, KeyAction, KeyActions, MOUSE_BUTTON_LEFT, MouseActions, PointerAction,
};
use fantoccini::elements::Element;
use fantoccini::key::Key;
use serde_json::Value;

use crate::session::{self, Session};

/// How long something on the page may take to appear.
const PATIENCE: Duration = Duration::from_secs(120);

/// How long to wait before looking again.
const POLL: Duration = Duration::from_millis(40);

/// Headless Chromium with an empty profile and download folder.
pub struct Browser {
    session: Option<Session>,
}

impl Browser {
    /// Opens a browser whose page is 1280 × 800, or takes one that an earlier test has done with.
    ///
    /// # Panics
    /// When ChromeDriver or Chromium are missing.
    pub async fn open() -> Self {
        let browser = Self { session: Some(session::take().await) };
        browser.resize(1280, 800).await;
        browser
    }

    /// Gives the page this size, whatever the window's frame takes.
    ///
    /// # Panics
    /// When the browser does not answer.
    pub async fn resize(&self, width: u32, height: u32) {
        self.client.set_window_size(width, height).await.expect("the window can be sized");
        let inner = self.run("return [innerWidth, innerHeight]").await;
        let frame = |index: usize, outer: u32| {
            let inner = u32::try_from(inner[index].as_u64().unwrap_or(0)).unwrap_or(0);
            outer + outer.saturating_sub(inner)
        };
        self.client
            .set_window_size(frame(0, width), frame(1, height))
            .await
            .expect("the window can be sized");
    }

    /// Goes to an address and waits for the page.
    ///
    /// # Panics
    /// When it does not load.
    pub async fn go(&self, address: &str) {
        self.client.goto(address).await.expect("the page loads");
        self.see(".top, .message-page").await;
    }

    /// Runs a script in the page.
    ///
    /// # Panics
    /// When it throws.
    pub async fn run(&self, script: &str) -> Value {
        self.client.execute(script, Vec::new()).await.expect("the script runs")
    }

    /// Waits for an element by its selector.
    ///
    /// # Panics
    /// When it does not appear.
    pub async fn see(&self, selector: &str) -> Element {
        let wait = self.client.wait().at_most(PATIENCE);
        match wait.for_element(Locator::Css(selector)).await {
            Ok(element) => element,
            Err(error) => {
                panic!("{selector} does not appear: {error}\n{}", self.text("body").await)
            }
        }
    }

    /// The text of the first element of a selector as it is shown, empty without one.
    pub async fn text(&self, selector: &str) -> String {
        // The driver's own way walks through every element with a script of its own, which takes longer than the page.
        let script = "const own = document.querySelector(arguments[0]); \
            const all = (e) => e.innerText ?? [...e.querySelectorAll('text, foreignObject')].map((t) => t.textContent).join('\\n'); \
            return own ? all(own).replaceAll('\\u00a0', ' ').trim() : ''";
        let told = self.client.execute(script, vec![Value::from(selector)]).await;
        told.ok().and_then(|text| text.as_str().map(str::to_owned)).unwrap_or_default()
    }

    /// Waits until the text of `selector` contains `words`.
    ///
    /// # Panics
    /// When it never does.
    pub async fn read(&self, selector: &str, words: &str) {
        let start = Instant::now();
        loop {
            let text = self.text(selector).await;
            if text.contains(words) {
                return;
            }
            assert!(
                start.elapsed() < PATIENCE,
                "“{words}” is not in {selector}, which says: {text}"
            );
            tokio::time::sleep(POLL).await;
        }
    }

    /// Clicks the button, link or other element with these words.
    ///
    /// # Panics
    /// When there is none, or it cannot be clicked.
    pub async fn click(&self, words: &str) {
        let path = format!(
            "//*[self::button or self::a][contains(normalize-space(.), \"{words}\") or @aria-label=\"{words}\"]"
        );
        let start = Instant::now();
        loop {
            let wait = self.client.wait().at_most(PATIENCE);
            let element = match wait.for_element(Locator::XPath(&path)).await {
                Ok(element) => element,
                Err(error) => {
                    panic!("nothing says “{words}”: {error}\n{}", self.text("body").await)
                }
            };
            let target = serde_json::to_value(&element).expect("elements have a JSON form");
            let into_view = "arguments[0].scrollIntoView({ block: 'center', behavior: 'instant' })";
            let _ = self.client.execute(into_view, vec![target]).await;
            match element.click().await {
                Ok(()) => return,
                // The page may have drawn it anew, or scrolled, between finding and clicking it.
                Err(error) if is_too_early(&error) && start.elapsed() < PATIENCE => {
                    tokio::time::sleep(POLL).await;
                }
                Err(error) => panic!("“{words}” cannot be clicked: {error}"),
            }
        }
    }

    /// The input or list with this label.
    ///
    /// # Panics
    /// When there is none.
    pub async fn field(&self, label: &str) -> Element {
        let path = format!(
            "//label[normalize-space(.)=\"{label}\"]/following::*[self::input or self::select][1]"
        );
        let wait = self.client.wait().at_most(PATIENCE);
        wait.for_element(Locator::XPath(&path))
            .await
            .unwrap_or_else(|_| panic!("no field “{label}”"))
    }

    /// Types into a field without leaving it, over what stood there.
    ///
    /// # Panics
    /// When it cannot be typed into.
    pub async fn write(&self, label: &str, text: &str) {
        let mut field = self.field(label).await;
        // What was found may be drawn anew before it is clicked.
        let start = Instant::now();
        while let Err(error) = field.click().await {
            let is_gone = error.is_stale_element_reference() && start.elapsed() < PATIENCE;
            assert!(is_gone, "the field “{label}” can be clicked: {error}");
            field = self.field(label).await;
        }
        let all = format!("{}a{}", char::from(Key::Control), char::from(Key::Null));
        field.send_keys(&format!("{all}{text}")).await.expect("the field takes keys");
    }

    /// Types into a field and presses Enter, then waits until it is saved.
    ///
    /// # Panics
    /// As [`write`](Self::write).
    pub async fn enter(&self, label: &str, text: &str) {
        self.write(label, &format!("{text}{}", char::from(Key::Enter))).await;
        self.settled().await;
    }

    /// Nests for so many seconds at most, so that the search is not over before it is seen.
    ///
    /// # Panics
    /// When it cannot be begun.
    pub async fn nest_for(&self, seconds: &str) {
        self.click("Time and seed of the search").await;
        self.enter("Seconds at most", seconds).await;
        self.click("Nest").await;
    }

    /// Waits until everything typed is taken and saved.
    ///
    /// # Panics
    /// When it never is.
    pub async fn settled(&self) {
        let start = Instant::now();
        let script = "return document.querySelector('[data-pending]') === null \
                      && document.querySelector('.saving')?.textContent === 'saved'";
        while self.run(script).await != Value::Bool(true) {
            if start.elapsed() > PATIENCE {
                panic!("not saved: {}", self.text("body").await);
            }
            tokio::time::sleep(POLL).await;
        }
    }

    /// Runs a script until what it gives is as expected, and hands that on.
    ///
    /// # Panics
    /// When it never is.
    pub async fn until(&self, script: &str, expected: impl Fn(&Value) -> bool) -> Value {
        let start = Instant::now();
        loop {
            let got = self.run(script).await;
            if expected(&got) {
                return got;
            }
            assert!(start.elapsed() < PATIENCE, "{script} still gives {got}");
            tokio::time::sleep(POLL).await;
        }
    }

    /// Presses at one point of the page and lets go at another.
    ///
    /// # Panics
    /// When the browser does not answer.
    pub async fn drag(&self, from: (f64, f64), to: (f64, f64)) {
        let at = |(x, y): (f64, f64)| PointerAction::MoveTo {
            duration: Some(Duration::from_millis(80)),
            x,
            y,
        };
        let mouse = MouseActions::new("mouse".to_owned())
            .then(at(from))
            .then(PointerAction::Down { button: MOUSE_BUTTON_LEFT })
            .then(at((f64::midpoint(from.0, to.0), f64::midpoint(from.1, to.1))))
            .then(at(to))
            .then(PointerAction::Up { button: MOUSE_BUTTON_LEFT });
        self.client.perform_actions(mouse).await.expect("the pointer can be moved");
    }

    /// Presses a key where the focus is.
    ///
    /// # Panics
    /// When nothing takes it.
    pub async fn press(&self, keys: &str) {
        let element = self.client.active_element().await.expect("something has the focus");
        element.send_keys(keys).await.expect("it takes keys");
    }

    /// Waits until a field has this text.
    ///
    /// # Panics
    /// When it never does.
    pub async fn shows(&self, label: &str, text: &str) {
        let start = Instant::now();
        loop {
            let value = self.value(label).await;
            if value == text {
                return;
            }
            assert!(start.elapsed() < PATIENCE, "{label} shows “{value}”, not “{text}”");
            tokio::time::sleep(POLL).await;
        }
    }

    /// Presses Tab until the focus is on what the selector names.
    ///
    /// # Panics
    /// When it does not get there.
    pub async fn tab_to(&self, selector: &str) {
        let there = format!("return document.activeElement.matches(`{selector}`)");
        for _ in 0..200 {
            if self.run(&there).await == Value::Bool(true) {
                return;
            }
            let tab = KeyActions::new("keys".to_owned())
                .then(KeyAction::Down { value: char::from(Key::Tab) })
                .then(KeyAction::Up { value: char::from(Key::Tab) });
            self.client.perform_actions(tab).await.expect("the page takes keys");
        }
        panic!("Tab does not lead to {selector}");
    }

    /// What a field shows.
    ///
    /// # Panics
    /// When there is no such field.
    pub async fn value(&self, label: &str) -> String {
        let field = self.field(label).await;
        field.prop("value").await.expect("a field has a value").unwrap_or_default()
    }

    /// Chooses from a list by the words shown.
    ///
    /// # Panics
    /// When there is no such choice.
    pub async fn choose(&self, label: &str, words: &str) {
        self.field(label).await.select_by_label(words).await.expect("the choice is there");
        self.settled().await;
    }

    /// Clicks a link and returns the file that arrives.
    ///
    /// # Panics
    /// When none arrives.
    pub async fn download(&self, words: &str, ending: &str) -> Vec<u8> {
        self.click(words).await;
        let start = Instant::now();
        loop {
            if let Some(path) = self.arrived(ending) {
                let bytes = std::fs::read(&path).expect("the file can be read");
                std::fs::remove_file(&path).expect("the file can be removed");
                return bytes;
            }
            assert!(start.elapsed() < PATIENCE, "no {ending} arrives");
            tokio::time::sleep(POLL).await;
        }
    }

    /// Chromium holds the name with an empty file and moves the finished download onto it.
    fn arrived(&self, ending: &str) -> Option<PathBuf> {
        let files: Vec<PathBuf> = std::fs::read_dir(self.downloads())
            .ok()?
            .filter_map(Result::ok)
            .map(|entry| entry.path())
            .collect();
        let named = |ending: &str| {
            files.iter().find(|path| path.to_string_lossy().ends_with(ending)).cloned()
        };
        if named(".crdownload").is_some() {
            return None;
        }
        named(ending).filter(|path| path.metadata().is_ok_and(|file| file.len() > 0))
    }

    /// A place for a file that is to be brought in.
    #[must_use]
    pub fn scratch(&self, name: &str) -> PathBuf {
        self.folder().join(name)
    }

    /// The page as PNG.
    ///
    /// # Panics
    /// When the browser does not answer.
    pub async fn picture(&self) -> Vec<u8> {
        // Whatever moves or blinks would make each picture different.
        self.run("document.activeElement?.blur(); window.getSelection().removeAllRanges();").await;
        tokio::time::sleep(Duration::from_millis(400)).await;
        self.client.screenshot().await.expect("a picture can be taken")
    }

    /// What axe-core finds wrong with the page, as text; empty when nothing is.
    ///
    /// # Panics
    /// When axe-core is not installed.
    pub async fn barriers(&self) -> String {
        let axe = concat!(env!("CARGO_MANIFEST_DIR"), "/../web/node_modules/axe-core/axe.min.js");
        let axe = std::fs::read_to_string(axe).expect("npm has installed axe-core");
        self.run(&axe).await;
        let script = "const done = arguments[0]; axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', \
            'wcag21a', 'wcag21aa', 'wcag22aa'] }).then(found => done(found.violations.map(v => \
            v.id + ': ' + v.help + ' ' + v.nodes.map(n => n.html.slice(0, 120) + ' ' + \
            (n.any[0]?.message ?? '')).join(' | ')).join('\\n')));";
        let found = self.client.execute_async(script, Vec::new()).await.expect("axe runs");
        found.as_str().unwrap_or_default().to_owned()
    }
}

impl Deref for Browser {
    type Target = Session;

    fn deref(&self) -> &Session {
        self.session.as_ref().expect("it is given back only at the end")
    }
}

impl Drop for Browser {
    /// A browser whose test failed is not used again.
    fn drop(&mut self) {
        let Some(session) = self.session.take() else { return };
        if !std::thread::panicking() {
            tokio::task::block_in_place(|| {
                tokio::runtime::Handle::current().block_on(session::give_back(session));
            });
        }
    }
}

/// True where what was to be clicked has gone or moved meanwhile.
fn is_too_early(error: &fantoccini::error::CmdError) -> bool {
    let words = error.to_string();
    words.contains("stale") || words.contains("intercepted")
}
