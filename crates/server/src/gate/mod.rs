//! Who may ask, and what a browser may do with the answers.

pub mod guard;
mod headers;
mod journal;
pub mod trusted;

pub use guard::Guard;
pub use headers::SafeHeaders;
pub use journal::{Journal, Numbered};
pub use trusted::Trusted;
