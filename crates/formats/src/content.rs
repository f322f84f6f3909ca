//! Heavy bytes that a job names: what they are, told by themselves.

use thiserror::Error;

use crate::font::{self, FontError};
use crate::lines::{self, ReadError};
use crate::picture::{Picture, PictureError};

/// What some bytes are.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Content {
    /// A picture or a drawing.
    Picture(Picture),
    /// A typeface.
    Font,
    /// Lines of a drawing.
    Lines,
}

/// Why bytes are nothing that a job can name.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum ContentError {
    /// No picture.
    #[error(transparent)]
    Picture(#[from] PictureError),
    /// No typeface.
    #[error(transparent)]
    Font(#[from] FontError),
    /// No lines.
    #[error(transparent)]
    Lines(#[from] ReadError),
}

impl Content {
    /// Tells what bytes are, and that all of them can be read.
    ///
    /// # Errors
    /// [`ContentError`].
    pub fn of(bytes: &[u8]) -> Result<Self, ContentError> {
        if font::is_font(bytes) {
            font::look_at(bytes)?;
            return Ok(Self::Font);
        }
        if lines::is_kept(bytes) {
            lines::look_at(bytes)?;
            return Ok(Self::Lines);
        }
        Ok(Self::Picture(Picture::of(bytes)?))
    }

    /// Tells what bytes are by their head alone.
    ///
    /// # Errors
    /// [`ContentError`].
    pub fn head(bytes: &[u8]) -> Result<Self, ContentError> {
        if font::is_font(bytes) {
            return Ok(Self::Font);
        }
        if lines::is_kept(bytes) {
            return Ok(Self::Lines);
        }
        Ok(Self::Picture(Picture::head(bytes)?))
    }

    /// Its media type.
    #[must_use]
    pub const fn media(&self) -> &'static str {
        match self {
            Self::Picture(picture) => picture.coding.media(),
            Self::Font => font::MEDIA,
            Self::Lines => lines::MEDIA,
        }
    }

    /// How its files end.
    #[must_use]
    pub const fn extension(&self) -> &'static str {
        match self {
            Self::Picture(picture) => picture.coding.extension(),
            Self::Font => "ttf",
            Self::Lines => "json",
        }
    }

    /// Width and height in pixels; none of what has none.
    #[must_use]
    pub const fn pixels(&self) -> [u32; 2] {
        match self {
            Self::Picture(picture) => picture.pixels,
            Self::Font | Self::Lines => [0, 0],
        }
    }
}
