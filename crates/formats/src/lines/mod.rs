//! Lines of drawings from elsewhere: SVG, pages of PDF, DXF and FOLD, told by their bytes, read into one model.

mod clip;
mod dxf;
mod fold;
mod svg;

use std::sync::Arc;

use ::svg::node::element::{Group as SvgGroup, Path as SvgPath};
use aptum_core::blob::{BlobId, Blobs};
use aptum_core::form::{Form, ReadLines};
use aptum_core::geometry::{Affine, Rect, path_text};
use aptum_core::lines::{Lines, LinesError, MOST_MENDS};
use aptum_core::memory::{Memory, recalled};
use aptum_core::units::INCH;
use serde::{Deserialize, Serialize};
use thiserror::Error;

use crate::drawing::{self, DrawingFile};
use crate::picture::PictureError;

/// The media type of lines as they are kept.
pub const MEDIA: &str = "application/json";

/// What kept lines begin with.
const HEAD: &[u8] = br#"{"drawing_lines":1,"#;

/// Largest file that is read, in bytes.
pub const LARGEST: usize = 32 << 20;

/// Largest lines that are kept, in bytes.
const LARGEST_KEPT: usize = 48 << 20;

/// So much stack there is for readers that call themselves, bytes.
const STACK: usize = 512 << 20;

/// Why a file brings no lines.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum ReadError {
    /// Larger than is taken.
    #[error("the file has {0} bytes: up to {LARGEST}")]
    Large(usize),
    /// None of the formats.
    #[error("it is no drawing of lines: save it as SVG, DXF, PDF or FOLD")]
    Other,
    /// A page description that is not read.
    #[error("it is a PostScript or EPS file, which is not read: save it as PDF or SVG")]
    PostScript,
    /// A picture.
    #[error("it is a picture of pixels, with no lines in it: start a job from it to trace it")]
    Pixels,
    /// A file that cannot be followed.
    #[error("it cannot be read: {0}")]
    Damaged(String),
    /// A drawing in SVG or PDF that cannot be read.
    #[error(transparent)]
    Drawing(#[from] PictureError),
    /// Lines that cannot be worked with.
    #[error(transparent)]
    Lines(#[from] LinesError),
}

/// What kind of file brings lines.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum File {
    Drawing(DrawingFile),
    Dxf,
    Fold,
}

impl File {
    /// Tells by the bytes, whatever the file is called.
    fn of(bytes: &[u8]) -> Result<Self, ReadError> {
        if let Some(drawing) = DrawingFile::of(bytes) {
            return Ok(Self::Drawing(drawing));
        }
        if crate::picture::Picture::head(bytes).is_ok() {
            return Err(ReadError::Pixels);
        }
        let head = &bytes[..bytes.len().min(4096)];
        let text = head.strip_prefix(b"\xef\xbb\xbf").unwrap_or(head);
        let text = String::from_utf8_lossy(text);
        let mut tags = text.lines().map(str::trim);
        // Comments have the code 999.
        let mut first = tags.next();
        while first == Some("999") {
            tags.next();
            first = tags.next();
        }
        if first == Some("0") && tags.next() == Some("SECTION") {
            Ok(Self::Dxf)
        } else if text.trim_start().starts_with("%!") || head.starts_with(b"\xc5\xd0\xd3\xc6") {
            Err(ReadError::PostScript)
        } else if text.trim_start().starts_with('{') {
            Ok(Self::Fold)
        } else {
            Err(ReadError::Other)
        }
    }
}

/// Reads the lines of a drawing: page `page` (from 1) of a PDF, or all of another file.
///
/// # Errors
/// [`ReadError`].
pub fn brought(bytes: &[u8], page: usize) -> Result<Lines, ReadError> {
    if bytes.len() > LARGEST {
        return Err(ReadError::Large(bytes.len()));
    }
    let file = File::of(bytes)?;
    let read = || match file {
        File::Drawing(DrawingFile::Svg) => svg::lines(drawing::text_of(bytes)?),
        File::Drawing(DrawingFile::Pdf) => {
            let (svg, unit) = drawing::page_of(bytes, page)?;
            svg::page(&svg, unit)
        }
        File::Dxf => dxf::lines(bytes),
        File::Fold => fold::lines(bytes),
    };
    let unreadable = || ReadError::Damaged("it cannot be followed".to_owned());
    std::thread::scope(|scope| {
        let reader = std::thread::Builder::new().stack_size(STACK).spawn_scoped(scope, read);
        // A reader that gives up takes nothing else with it.
        reader.map_err(|_| unreadable())?.join().map_err(|_| unreadable())?
    })
}

/// How wide lines are printed of a file that knows no widths, mm: a point (common practice).
const PRINTED: f64 = 0.35;

/// A drawing of lines that is no picture (DXF, FOLD), as an SVG of its lines at true size, in their colours; `None` for
/// any other file.
#[must_use]
pub fn as_svg(bytes: &[u8]) -> Option<String> {
    if !matches!(File::of(bytes), Ok(File::Dxf | File::Fold)) {
        return None;
    }
    let lines = brought(bytes, 1).ok()?;
    // Units that are not told are the web's.
    let mm = lines.unit.unwrap_or(INCH / 96.0);
    let around = lines.bounds().inflate(PRINTED / mm, PRINTED / mm);
    let to_mm = Affine::scale(mm) * Affine::translate(-around.origin().to_vec2());
    let (width, height) = (around.width() * mm, around.height() * mm);
    let mut all = SvgGroup::new()
        .set("fill", "none")
        .set("stroke-width", PRINTED)
        .set("stroke-linecap", "round");
    for line in &lines.lines {
        let group = lines.groups.get(line.group)?;
        let colour = if group.colour.is_empty() { "#000000" } else { &group.colour };
        let path = path_text(&(to_mm * line.path.clone()));
        all = all.add(SvgPath::new().set("d", path).set("stroke", colour.to_owned()));
    }
    let document = ::svg::Document::new()
        .set("width", format!("{width}mm"))
        .set("height", format!("{height}mm"))
        .set("viewBox", (0, 0, width, height));
    Some(document.add(all).to_string())
}

/// The frame of a drawing that can be printed, in units of its lines: an SVG's, or a page's of a PDF.
#[must_use]
pub fn frame(bytes: &[u8], page: usize) -> Option<Rect> {
    let tree = match DrawingFile::of(bytes)? {
        DrawingFile::Svg => drawing::tree(drawing::text_of(bytes).ok()?).ok()?,
        DrawingFile::Pdf => drawing::tree(&drawing::page_of(bytes, page).ok()?.0).ok()?,
    };
    let size = tree.size();
    Some(Rect::new(0.0, 0.0, size.width().into(), size.height().into()))
}

#[derive(Serialize, Deserialize)]
struct Kept<L> {
    drawing_lines: u32,
    #[serde(flatten)]
    lines: L,
}

/// Lines as they are kept.
#[must_use]
pub fn kept(lines: &Lines) -> Vec<u8> {
    serde_json::to_vec(&Kept { drawing_lines: 1, lines }).unwrap_or_default()
}

/// True for lines as they are kept, by their head.
#[must_use]
pub fn is_kept(bytes: &[u8]) -> bool {
    bytes.starts_with(HEAD)
}

/// Reads kept lines, such as those out of an archive.
///
/// # Errors
/// [`ReadError`].
pub fn look_at(bytes: &[u8]) -> Result<Lines, ReadError> {
    if bytes.len() > LARGEST_KEPT {
        return Err(ReadError::Large(bytes.len()));
    }
    let read: Result<Kept<Lines>, _> = serde_json::from_slice(bytes);
    let Kept { lines, .. } = read.map_err(|error| ReadError::Damaged(error.to_string()))?;
    lines.checked()?;
    Ok(lines)
}

/// The lines that are kept as a blob: remembered, or as `read` gives them.
fn of_blob(
    id: &BlobId,
    memory: &dyn Memory,
    read: impl Fn() -> Option<Lines>,
) -> Option<Arc<Lines>> {
    recalled(memory, "lines", id, || read().ok_or_else(Vec::new)).ok().map(|(_, lines)| lines)
}

/// Remembers lines that were just kept, so that they need not be read again.
pub fn remember(id: &BlobId, lines: &Lines, memory: &dyn Memory) {
    of_blob(id, memory, || Some(lines.clone()));
}

/// Reads the lines of all drawings of a form, mended; those that are missing stay unread.
pub fn read_into(form: &mut Form, blobs: &dyn Blobs, memory: &dyn Memory) {
    let read = |id: &BlobId| of_blob(id, memory, || look_at(&blobs.bytes(id)?).ok());
    for (id, lines) in form.drawn_lines_mut() {
        *lines = ReadLines(read(id));
    }
    let Some(drawing) = form.drawing_mut().filter(|drawing| !drawing.mends.is_empty()) else {
        return;
    };
    let Some(lines) = drawing.read.0.clone() else { return };
    let steps = &drawing.mends[..drawing.mends.len().min(MOST_MENDS)];
    let made = recalled(memory, "mended", &(&drawing.lines, steps), || Ok(lines.mended(steps)));
    drawing.read = ReadLines(made.ok().map(|(_, lines)| lines));
}
