//! Pictures that outlines are traced from: decoded, or drawn, and looked at.

use std::borrow::Cow;
use std::sync::Arc;

use aptum_core::Job;
use aptum_core::blob::{BlobId, Blobs};
use aptum_core::face::{Cover, Face, KnownCover};
use aptum_core::form::{Found, Looked, Traced};
use aptum_core::geometry::{BezPath, Rect};
use aptum_core::job::JobPiece;
use aptum_core::lines::{Group, Line, Lines, Look, ToldFolding};
use aptum_core::memory::{Memory, recalled};
use aptum_core::pixels::Pixels;
use aptum_core::trace::{InsideBy, Seen, Tracing, View, dark_edges, likely};
use aptum_core::units::Unit;
use resvg::tiny_skia::{Pixmap, Transform};

use crate::drawing::DrawingFile;
use crate::picture::{Coding, Picture, PictureError};
use crate::{drawing, lines};

/// The job with all that its pieces are made from that lies in blobs: typefaces of its maker's own, where
/// its pictures cover, and what is found in those that are traced. What is missing stays so, and is told when the job is prepared.
#[must_use]
pub fn furnished<'a>(job: &'a Job, blobs: &dyn Blobs, memory: &dyn Memory) -> Cow<'a, Job> {
    let job = job.with_fonts(blobs);
    let is_open = |traced: &Traced| traced.found.0.is_none();
    let lacks = |piece: &JobPiece| {
        !piece.is_furnished()
            || piece.form.traced().is_some_and(is_open)
            || piece.form.drawn_lines().any(|(_, read)| read.0.is_none())
    };
    if !job.pieces.iter().any(lacks) {
        return job;
    }
    let mut job = job.into_owned();
    for piece in &mut job.pieces {
        lines::read_into(&mut piece.form, blobs, memory);
        for picture in piece.face.iter_mut().flat_map(Face::pictures_mut) {
            picture.cover = KnownCover(covered(&picture.blob, picture.pixels, blobs, memory));
        }
        for picture in piece.list.iter_mut().flat_map(|list| &mut list.pictures) {
            picture.cover = KnownCover(covered(&picture.blob, picture.pixels, blobs, memory));
        }
    }
    for traced in job.pieces.iter_mut().filter_map(|piece| piece.form.traced_mut()) {
        traced.found = Found(looked(traced, blobs, memory));
    }
    Cow::Owned(job)
}

/// What is found in the picture of an outline; `None` where it is missing, or another than was said.
fn looked(traced: &Traced, blobs: &dyn Blobs, memory: &dyn Memory) -> Option<Arc<Looked>> {
    // What cannot be worked with is told when the job is prepared.
    traced.checked(Unit::Mm).ok()?;
    let input = (&traced.picture, &traced.trace, traced.width, traced.looked_at());
    let made = recalled(memory, "traced", &input, || {
        let seen = seen(traced, blobs, memory, None).ok_or_else(Vec::new)?;
        Ok(Looked(Tracing::of(&seen, &traced.trace, traced.width)))
    });
    made.ok().map(|(_, looked)| looked)
}

/// Where a picture covers; `None` where it is missing.
fn covered(
    blob: &BlobId,
    pixels: [u32; 2],
    blobs: &dyn Blobs,
    memory: &dyn Memory,
) -> Option<Arc<Cover>> {
    let made = recalled(memory, "cover", blob, || {
        let bytes = blobs.bytes(blob).ok_or_else(Vec::new)?;
        let head = Picture::head(&bytes).map_err(|_| Vec::new())?;
        if !head.may_be_clear(&bytes) {
            return Ok(Cover::whole());
        }
        let longest = pixels.iter().copied().max().unwrap_or(1).max(1);
        let sides = pixels.map(|side| {
            let side = u64::from(side) * u64::from(COVER) / u64::from(longest);
            u32::try_from(side).unwrap_or(COVER).clamp(1, COVER)
        });
        self::pixels(&bytes, sides).map(|own| Cover::of(&own)).ok_or_else(Vec::new)
    });
    made.ok().map(|(_, cover)| cover)
}

/// With how many pixels a drawing's longer side is drawn to see where it covers.
const COVER: u32 = 512;

/// A picture as its trace sees it; with `most`, so many pixels at most. `None` where it is missing, or another than was
/// said.
#[must_use]
pub fn seen(
    traced: &Traced,
    blobs: &dyn Blobs,
    memory: &dyn Memory,
    most: Option<usize>,
) -> Option<Arc<Seen>> {
    let sides = traced.looked_at();
    let view = View::of(sides, &traced.trace, traced.width, most);
    let made = recalled(memory, "seen", &(&traced.picture, &traced.trace.by, view), || {
        let bytes = blobs.bytes(&traced.picture).ok_or_else(Vec::new)?;
        let pixels = pixels(&bytes, sides).ok_or_else(Vec::new)?;
        Seen::new(&pixels, &traced.trace.by, view).ok_or_else(Vec::new)
    });
    made.ok().map(|(_, seen)| seen)
}

/// What most likely tells what is inside in a picture; `None` where its bytes are none.
#[must_use]
pub fn likely_in(bytes: &[u8], sides: [u32; 2]) -> Option<InsideBy> {
    Some(likely(&pixels(bytes, sides)?))
}

/// True for a picture of pixels, by its first bytes.
#[must_use]
pub fn is_of_pixels(bytes: &[u8]) -> bool {
    DrawingFile::of(bytes).is_none() && image::guess_format(bytes).is_ok()
}

/// What is dark in a picture of pixels, as lines in pixels, and its frame.
///
/// # Errors
/// [`PictureError`].
pub fn dark_in(bytes: &[u8]) -> Result<(Lines, Rect), PictureError> {
    let (picture, kept) = Picture::brought(bytes, 1)?;
    let sides = picture.pixels;
    let edges = pixels(&kept, sides).map_or_else(Vec::new, |pixels| dark_edges(&pixels));
    let black = Group { layer: String::new(), colour: "#000000".to_owned(), look: Look::Fill };
    let line = |path: BezPath| Line { group: 0, path, width: 0.0, told: None };
    let lines = Lines {
        groups: vec![black],
        lines: edges.into_iter().map(line).collect(),
        unit: None,
        angles: Vec::new(),
        words: 0,
        pictures: 1,
        folding: ToldFolding::default(),
        mended: Vec::new(),
    };
    let [width, height] = sides.map(f64::from);
    Ok((lines, Rect::new(0.0, 0.0, width, height)))
}

fn pixels(bytes: &[u8], sides: [u32; 2]) -> Option<Pixels> {
    let picture = Picture::head(bytes).ok()?;
    if picture.coding == Coding::Svg {
        return drawn(std::str::from_utf8(bytes).ok()?, sides);
    }
    let upright = picture.decoded_upright(bytes).ok()?.into_rgba8();
    let (width, height) = (upright.width() as usize, upright.height() as usize);
    Pixels::new(width, height, upright.into_raw())
}

/// A drawing as it is painted, strokes, effects and words with it.
fn drawn(svg: &str, [across, along]: [u32; 2]) -> Option<Pixels> {
    let tree = drawing::tree(svg).ok()?;
    let mut pixmap = Pixmap::new(across, along)?;
    #[expect(clippy::cast_precision_loss, reason = "a few thousand pixels")]
    let fit = |pixels: u32, length: f32| pixels as f32 / length;
    let size = tree.size();
    let scale = Transform::from_scale(fit(across, size.width()), fit(along, size.height()));
    resvg::render(&tree, scale, &mut pixmap.as_mut());
    let plain = pixmap.pixels().iter().flat_map(|pixel| {
        let pixel = pixel.demultiply();
        [pixel.red(), pixel.green(), pixel.blue(), pixel.alpha()]
    });
    Pixels::new(across as usize, along as usize, plain.collect())
}
