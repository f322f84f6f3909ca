//! Pictures: told by their bytes, bounded, and looked at to their end before anybody relies on them.

use std::borrow::Cow;
use std::io::Cursor;

use image::codecs::png::PngEncoder;
use image::metadata::Orientation;
use image::{DynamicImage, ImageDecoder, ImageEncoder, ImageFormat, ImageReader, Limits};
use thiserror::Error;

use crate::drawing::{self, Drawing, DrawingFile};

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
    /// A drawing: SVG of this program's plain kind.
    Svg,
}

impl Coding {
    /// Its media type.
    #[must_use]
    pub const fn media(self) -> &'static str {
        match self {
            Self::Png => "image/png",
            Self::Jpeg => "image/jpeg",
            Self::Svg => "image/svg+xml",
        }
    }

    /// How its files end.
    #[must_use]
    pub const fn extension(self) -> &'static str {
        match self {
            Self::Png => "png",
            Self::Jpeg => "jpg",
            Self::Svg => "svg",
        }
    }
}

/// A picture that can be read.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Picture {
    /// How it is coded.
    pub coding: Coding,
    /// Width and height in pixels, the right way up; of a drawing sides of which only the ratio counts.
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
        "the file is no picture (PNG, JPEG, WebP, TIFF, GIF, BMP) and no drawing (SVG, PDF), whatever its name says: save it as one of these"
    )]
    Other,
    /// More pixels than are taken.
    #[error(
        "the picture has {} × {} pixels: each side has up to {LONGEST}, all together up to {MOST_MEGAPIXELS} \
         million, {} MiB unpacked; save it smaller", .0[0], .0[1], LARGEST_UNPACKED >> 20
    )]
    TooManyPixels([u32; 2]),
    /// A drawing of too many bytes.
    #[error("the drawing has {0} bytes: up to {most}; simplify it, or save it as a PNG", most = drawing::LARGEST)]
    LargeDrawing(usize),
    /// A drawing of too many nodes.
    #[error("the drawing has more than {most} nodes; simplify it, or save it as a PNG", most = drawing::MOST_NODES)]
    TooManyNodes,
    /// A drawing whose elements lie within each other too deep.
    #[error(
        "the drawing nests its groups more than {most} deep; ungroup some, or save it as a PNG",
        most = drawing::DEEPEST
    )]
    TooDeep,
    /// A PDF with a password.
    #[error("the PDF is locked with a password: save it without one")]
    Locked,
    /// A PDF without such a page.
    #[error("the PDF has no page {0}: it has {1}")]
    NoPage(usize, usize),
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
        if picture.coding == Coding::Svg {
            let svg = std::str::from_utf8(bytes).map_err(|_| PictureError::Other)?;
            return drawing::look_at_plain(svg).map(|()| picture);
        }
        if picture.coding == Coding::Jpeg && !is_ended(bytes) {
            return Err(PictureError::Damaged("its end is missing".to_owned()));
        }
        picture.decoded(bytes)?;
        Ok(picture)
    }

    /// Tells what a picture is, and gives its bytes as they are kept: PNG and JPEG as they came, WebP, TIFF, GIF (its
    /// first frame) and BMP as PNG with the same pixels, the right way up; SVG and page `page` (from 1) of a PDF as plain
    /// SVG.
    ///
    /// # Errors
    /// [`PictureError`] for anything that is no whole picture of a usable size.
    pub fn brought(bytes: &[u8], page: usize) -> Result<(Self, Cow<'_, [u8]>), PictureError> {
        if let Some(file) = DrawingFile::of(bytes) {
            let Drawing { svg, sides } = drawing::brought(bytes, file, page)?;
            return Ok((Self::drawn(sides), Cow::Owned(svg.into_bytes())));
        }
        let format = image::guess_format(bytes).ok();
        let is_other = matches!(
            format,
            Some(ImageFormat::WebP | ImageFormat::Tiff | ImageFormat::Gif | ImageFormat::Bmp)
        );
        if !is_other {
            return Self::of(bytes).map(|picture| (picture, Cow::Borrowed(bytes)));
        }
        let (_, orientation) = measured(bytes)?;
        let damaged = |error: image::ImageError| PictureError::Damaged(error.to_string());
        let mut decoder = reader(bytes).into_decoder().map_err(damaged)?;
        let profile = decoder.icc_profile().ok().flatten();
        let mut pixels = DynamicImage::from_decoder(decoder).map_err(damaged)?;
        pixels.apply_orientation(orientation);
        // A PNG has up to sixteen bits.
        let pixels = match pixels {
            DynamicImage::ImageRgb32F(_) => DynamicImage::ImageRgb16(pixels.into_rgb16()),
            DynamicImage::ImageRgba32F(_) => DynamicImage::ImageRgba16(pixels.into_rgba16()),
            other => other,
        };
        let mut kept = Vec::new();
        let mut encoder = PngEncoder::new(&mut kept);
        if let Some(profile) = profile {
            // What an encoder cannot hold is left out.
            let _ = encoder.set_icc_profile(profile);
        }
        pixels.write_with_encoder(encoder).map_err(damaged)?;
        Self::head(&kept).map(|picture| (picture, Cow::Owned(kept)))
    }

    /// True where its pixels are stored the right way up.
    #[must_use]
    pub fn is_upright(&self) -> bool {
        self.orientation == Orientation::NoTransforms
    }

    /// The picture the right way up, as a PNG.
    ///
    /// # Errors
    /// [`PictureError::Damaged`].
    pub fn turned(&self, bytes: &[u8]) -> Result<Vec<u8>, PictureError> {
        let pixels = self.decoded_upright(bytes)?;
        let mut png = Vec::new();
        let written = pixels.write_with_encoder(PngEncoder::new(&mut png));
        written.map_err(|error| PictureError::Damaged(error.to_string()))?;
        Ok(png)
    }

    const fn drawn(sides: [u32; 2]) -> Self {
        Self { coding: Coding::Svg, pixels: sides, orientation: Orientation::NoTransforms }
    }

    /// Its colour profile (ICC.1), where it has one.
    #[must_use]
    pub fn profile(bytes: &[u8]) -> Option<Vec<u8>> {
        reader(bytes).into_decoder().ok()?.icc_profile().ok().flatten()
    }

    /// Tells what a picture is by its head alone.
    ///
    /// # Errors
    /// As [`of`](Self::of), where the head says so.
    pub fn head(bytes: &[u8]) -> Result<Self, PictureError> {
        if bytes.len() > LARGEST {
            return Err(PictureError::TooLarge(bytes.len()));
        }
        if DrawingFile::of(bytes) == Some(DrawingFile::Svg) {
            let svg = std::str::from_utf8(bytes).ok().and_then(drawing::sides);
            return svg.map(Self::drawn).ok_or(PictureError::Other);
        }
        let coding = match image::guess_format(bytes) {
            _ if bytes.is_empty() => return Err(PictureError::Empty),
            Ok(ImageFormat::Png) => Coding::Png,
            Ok(ImageFormat::Jpeg) => Coding::Jpeg,
            _ => return Err(PictureError::Other),
        };
        let ([width, height], orientation) = measured(bytes)?;
        let pixels = if turns_sides(orientation) { [height, width] } else { [width, height] };
        Ok(Self { coding, pixels, orientation })
    }

    /// False where its bytes say that it covers all that lies below it.
    #[must_use]
    pub fn may_be_clear(&self, bytes: &[u8]) -> bool {
        match self.coding {
            Coding::Jpeg => false,
            Coding::Svg => true,
            Coding::Png => {
                let decoder = reader(bytes).into_decoder();
                decoder.is_ok_and(|own| own.color_type().has_alpha())
            }
        }
    }

    /// The stored pixels, as they are before they are turned the right way up.
    ///
    /// # Errors
    /// [`PictureError::Damaged`].
    pub fn decoded(&self, bytes: &[u8]) -> Result<DynamicImage, PictureError> {
        reader(bytes).decode().map_err(|error| PictureError::Damaged(error.to_string()))
    }

    /// The pixels, the right way up.
    ///
    /// # Errors
    /// [`PictureError::Damaged`].
    pub fn decoded_upright(&self, bytes: &[u8]) -> Result<DynamicImage, PictureError> {
        let mut pixels = self.decoded(bytes)?;
        pixels.apply_orientation(self.orientation);
        Ok(pixels)
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

/// The stored sides of a picture, within what is taken, and how it is turned.
fn measured(bytes: &[u8]) -> Result<([u32; 2], Orientation), PictureError> {
    if bytes.len() > LARGEST {
        return Err(PictureError::TooLarge(bytes.len()));
    }
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
    Ok(([width, height], orientation))
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

/// Red, green and blue, row after row, as PNG; `None` where they are not so many.
#[must_use]
pub fn rgb_png(width: u32, height: u32, pixels: &[u8]) -> Option<Vec<u8>> {
    let mut bytes = Vec::new();
    let coder = PngEncoder::new(&mut bytes);
    coder.write_image(pixels, width, height, image::ExtendedColorType::Rgb8).ok()?;
    Some(bytes)
}
