//! Pictures: told by their bytes, bounded, and looked at to their end before anybody relies on them.

use std::io::Cursor;

use image::metadata::Orientation;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits};
use thiserror::Error;

/// Largest picture that is taken, in bytes.
pub const LARGEST: usize = 64 << 20;

/// Longest side that is taken, in pixels.
pub const LONGEST: u32 = 30_000;

/// Most pixels that are taken, in millions.
pub const MOST_MEGAPIXELS: u64 = 64;

/// Most bytes of a picture, unpacked.
pub const LARGEST_UNPACKED: u64 = 320 << 20;

/// How a picture is coded.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Coding {
    /// PNG (ISO/IEC 15948).
    Png,
    /// JPEG (ITU-T T.81).
    Jpeg,
}

impl Coding {
    /// Its media type.
    #[must_use]
    pub const fn media(self) -> &'static str {
        match self {
            Self::Png => "image/png",
            Self::Jpeg => "image/jpeg",
        }
    }

    /// How its files end.
    #[must_use]
    pub const fn extension(self) -> &'static str {
        match self {
            Self::Png => "png",
            Self::Jpeg => "jpg",
        }
    }
}

/// A picture that can be read.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Picture {
    /// How it is coded.
    pub coding: Coding,
    /// Width and height in pixels, the right way up.
    pub pixels: [u32; 2],
    /// How the stored pixels are turned to be the right way up (Exif 2.32, tag 274).
    orientation: Orientation,
}

/// Why bytes are no picture that can be used.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum PictureError {
    /// No bytes at all.
    #[error("the file is empty: choose a PNG or a JPEG")]
    Empty,
    /// More bytes than are taken.
    #[error("the file has {} MiB: a picture has up to {} MiB; save it smaller", .0 >> 20, LARGEST >> 20)]
    TooLarge(usize),
    /// Something else.
    #[error(
        "the file is neither a PNG nor a JPEG, whatever its name says: save it as one of these"
    )]
    Other,
    /// More pixels than are taken.
    #[error(
        "the picture has {} × {} pixels: each side has up to {LONGEST}, all together up to {MOST_MEGAPIXELS} \
         million, {} MiB unpacked; save it smaller", .0[0], .0[1], LARGEST_UNPACKED >> 20
    )]
    TooManyPixels([u32; 2]),
    /// Cut off or damaged.
    #[error("the picture is damaged or cut off ({0}): save it again from its original")]
    Damaged(String),
}

impl Picture {
    /// Tells what a picture is, and that all of it can be read.
    ///
    /// # Errors
    /// [`PictureError`] for anything that is no whole PNG or JPEG of a usable size.
    pub fn of(bytes: &[u8]) -> Result<Self, PictureError> {
        let picture = Self::head(bytes)?;
        if picture.coding == Coding::Jpeg && !is_ended(bytes) {
            return Err(PictureError::Damaged("its end is missing".to_owned()));
        }
        picture.decoded(bytes)?;
        Ok(picture)
    }

    /// Tells what a picture is by its head alone.
    ///
    /// # Errors
    /// As [`of`](Self::of), where the head says so.
    pub fn head(bytes: &[u8]) -> Result<Self, PictureError> {
        if bytes.is_empty() {
            return Err(PictureError::Empty);
        }
        if bytes.len() > LARGEST {
            return Err(PictureError::TooLarge(bytes.len()));
        }
        let coding = match image::guess_format(bytes) {
            Ok(ImageFormat::Png) => Coding::Png,
            Ok(ImageFormat::Jpeg) => Coding::Jpeg,
            _ => return Err(PictureError::Other),
        };
        let damaged = |error: image::ImageError| PictureError::Damaged(error.to_string());
        let mut decoder = reader(bytes).into_decoder().map_err(damaged)?;
        let (width, height) = decoder.dimensions();
        let count = u64::from(width) * u64::from(height);
        let unpacked = decoder.total_bytes();
        if width.max(height) > LONGEST
            || count > MOST_MEGAPIXELS * 1_000_000
            || unpacked > LARGEST_UNPACKED
        {
            return Err(PictureError::TooManyPixels([width, height]));
        }
        let orientation = decoder.orientation().unwrap_or(Orientation::NoTransforms);
        let pixels = if turns_sides(orientation) { [height, width] } else { [width, height] };
        Ok(Self { coding, pixels, orientation })
    }

    /// The stored pixels, as they are before they are turned the right way up.
    ///
    /// # Errors
    /// [`PictureError::Damaged`].
    pub fn decoded(&self, bytes: &[u8]) -> Result<DynamicImage, PictureError> {
        reader(bytes).decode().map_err(|error| PictureError::Damaged(error.to_string()))
    }

    /// Maps the unit square of the stored picture, y up as PDF has it, to that of the picture the right way up:
    /// the six numbers of a matrix.
    #[must_use]
    pub const fn upright(&self) -> [f64; 6] {
        match self.orientation {
            Orientation::NoTransforms => [1.0, 0.0, 0.0, 1.0, 0.0, 0.0],
            Orientation::FlipHorizontal => [-1.0, 0.0, 0.0, 1.0, 1.0, 0.0],
            Orientation::Rotate180 => [-1.0, 0.0, 0.0, -1.0, 1.0, 1.0],
            Orientation::FlipVertical => [1.0, 0.0, 0.0, -1.0, 0.0, 1.0],
            Orientation::Rotate90FlipH => [0.0, -1.0, -1.0, 0.0, 1.0, 1.0],
            Orientation::Rotate90 => [0.0, -1.0, 1.0, 0.0, 0.0, 1.0],
            Orientation::Rotate270FlipH => [0.0, 1.0, 1.0, 0.0, 0.0, 0.0],
            Orientation::Rotate270 => [0.0, 1.0, -1.0, 0.0, 1.0, 0.0],
        }
    }
}

const fn turns_sides(orientation: Orientation) -> bool {
    matches!(
        orientation,
        Orientation::Rotate90
            | Orientation::Rotate270
            | Orientation::Rotate90FlipH
            | Orientation::Rotate270FlipH
    )
}

fn reader(bytes: &[u8]) -> ImageReader<Cursor<&[u8]>> {
    let format = image::guess_format(bytes).unwrap_or(ImageFormat::Png);
    let mut reader = ImageReader::with_format(Cursor::new(bytes), format);
    let mut limits = Limits::default();
    // The pixels, and as much again to decode them.
    limits.max_alloc = Some(2 * LARGEST_UNPACKED);
    reader.limits(limits);
    reader
}

/// True where a JPEG's last scan is followed by the end of its image: decoders make up for what is missing.
fn is_ended(bytes: &[u8]) -> bool {
    let last = |marker: u8| bytes.windows(2).rposition(|pair| pair == [0xff, marker]);
    last(0xd9) > last(0xda)
}

/// What a JPEG's frame says of it (ITU-T T.81, B.2.2).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Frame {
    pub bits: u8,
    pub width: u16,
    pub height: u16,
    pub components: u8,
    /// True with an Adobe marker, whose four inks are stored inverted (common practice).
    pub is_adobe: bool,
}

pub(crate) fn frame(bytes: &[u8]) -> Option<Frame> {
    let mut at = 2;
    let mut is_adobe = false;
    loop {
        while *bytes.get(at)? != 0xff {
            at += 1;
        }
        while *bytes.get(at)? == 0xff {
            at += 1;
        }
        let marker = bytes[at];
        at += 1;
        // Markers that stand alone.
        if matches!(marker, 0x01 | 0xd0..=0xd9) {
            continue;
        }
        let short = |at: usize| Some(u16::from_be_bytes([*bytes.get(at)?, *bytes.get(at + 1)?]));
        let length = usize::from(short(at)?);
        match marker {
            0xc0..=0xcf if !matches!(marker, 0xc4 | 0xc8 | 0xcc) => {
                return Some(Frame {
                    bits: *bytes.get(at + 2)?,
                    height: short(at + 3)?,
                    width: short(at + 5)?,
                    components: *bytes.get(at + 7)?,
                    is_adobe,
                });
            }
            0xee => is_adobe |= bytes.get(at + 2..at + 7) == Some(b"Adobe"),
            _ => {}
        }
        at += length.max(2);
    }
}
