//! What steps come to, in words.

/// Words, with a length that they are about in units of the file; it stands for `{}` in them.
#[derive(Debug, Clone, PartialEq)]
pub struct Said {
    /// The words.
    pub words: String,
    /// The length.
    pub length: Option<f64>,
}

/// Why a step cannot be taken.
pub type Refusal = Said;

impl Said {
    /// Words about a length.
    pub fn of(words: &str, length: f64) -> Self {
        Self { words: words.to_owned(), length: Some(length) }
    }
}

impl<T: Into<String>> From<T> for Said {
    fn from(words: T) -> Self {
        Self { words: words.into(), length: None }
    }
}
