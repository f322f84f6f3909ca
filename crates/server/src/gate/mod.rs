//! Who may ask, and what a browser may do with the answers.

mod headers;
pub mod trusted;

pub use headers::SafeHeaders;
pub use trusted::Trusted;
