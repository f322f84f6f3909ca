//! Drives the real program in a real browser.
//!
//! [`App`] is the built `aptum` binary on a data directory of its own; [`Browser`] is headless
//! Chromium behind ChromeDriver. Both end when they are dropped.

mod app;
mod browser;
mod machines;
mod session;

pub use app::{App, binary};
pub use browser::Browser;
pub use machines::Machines;
pub use session::Session;
