//! Pictures made from others: cleaned up, or with parts of a drawing left out, moved and coloured anew.

use aptum_core::face::{Rework, Reworked};
use aptum_core::pixels::{CleanError, Pixels};
use image::codecs::png::{CompressionType, FilterType, PngEncoder};
use image::{ExtendedColorType, ImageEncoder};
use thiserror::Error;

use crate::parts;
use crate::picture::{Coding, Picture, PictureError};

/// Why nothing was made.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum ReworkError {
    /// The picture itself.
    #[error(transparent)]
    Picture(#[from] PictureError),
    /// A step of a picture.
    #[error(transparent)]
    Clean(#[from] CleanError),
    /// A step for pictures.
    #[error("“{0}” is for pictures, and this is a drawing: take the step away")]
    OfPicture(&'static str),
    /// A part that the drawing lacks.
    #[error("the drawing has no part {0}: it has {1}; take the step away")]
    NoPart(u32, usize),
    /// A part that is a picture.
    #[error("part {0} is a picture within the drawing, which has no colour of its own: leave it")]
    NoColour(u32),
    /// A drawing whose parts cannot be told.
    #[error("the parts of this drawing cannot be told apart: change it where it was drawn")]
    NoParts,
    /// All parts are left out.
    #[error("all parts are left out: nothing of the drawing is left; show one again")]
    NothingLeft,
}

/// Makes a picture from the one that was brought in: of pixels a PNG of eight bits in a channel, of a drawing plain SVG.
///
/// # Errors
/// [`ReworkError`].
pub fn reworked(bytes: &[u8], how: &Reworked) -> Result<(Picture, Vec<u8>), ReworkError> {
    let picture = Picture::head(bytes)?;
    let kept = if picture.coding == Coding::Svg {
        if let Some(act) = how.acts().find(|act| !act.is_of_drawing()) {
            return Err(ReworkError::OfPicture(act.name()));
        }
        let svg = std::str::from_utf8(bytes).map_err(|_| PictureError::Other)?;
        parts::changed(svg, how.acts())?.into_bytes()
    } else {
        cleaned(picture, bytes, how.acts())?
    };
    Ok((Picture::head(&kept)?, kept))
}

fn cleaned<'a>(
    picture: Picture,
    bytes: &[u8],
    acts: impl Iterator<Item = &'a Rework>,
) -> Result<Vec<u8>, ReworkError> {
    let damaged = |error: image::ImageError| PictureError::Damaged(error.to_string());
    let upright = picture.decoded_upright(bytes)?.into_rgba8();
    let (width, height) = (upright.width() as usize, upright.height() as usize);
    let mut pixels = Pixels::new(width, height, upright.into_raw()).ok_or(PictureError::Other)?;
    pixels.clean(acts)?;
    let [width, height] = pixels.sides().map(|side| u32::try_from(side).unwrap_or(u32::MAX));
    let mut png = Vec::new();
    let (fast, filter) = (CompressionType::Fast, FilterType::Adaptive);
    let mut encoder = PngEncoder::new_with_quality(&mut png, fast, filter);
    // A profile of other channels than these says nothing of them (ICC.1, 7.2.6: the colour space of the data).
    if let Some(profile) = Picture::profile(bytes).filter(|own| own.get(16..20) == Some(b"RGB ")) {
        let _ = encoder.set_icc_profile(profile);
    }
    let colour = ExtendedColorType::Rgba8;
    encoder.write_image(pixels.raw(), width, height, colour).map_err(damaged)?;
    Ok(png)
}

#[cfg(test)]
mod tests {
    use aptum_core::blob::BlobId;
    use aptum_core::face::{Reach, ReworkStep};

    use super::*;
    use crate::drawing::{DrawingFile, brought};

    fn how(acts: impl IntoIterator<Item = Rework>) -> Reworked {
        let steps = acts.into_iter().map(|act| ReworkStep { off: false, act }).collect();
        Reworked { from: BlobId("0".repeat(64)), pixels: [1, 1], steps }
    }

    fn part(part: u32, hidden: bool, moved: [f64; 2], colour: Option<&str>) -> Rework {
        Rework::Part { part, hidden, moved, colour: colour.map(str::to_owned) }
    }

    fn drawing() -> Vec<u8> {
        let svg = r##"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 20">
            <linearGradient id="run"><stop stop-color="#ff0000"/><stop offset="1" stop-color="#0000ff"/></linearGradient>
            <clipPath id="clip"><rect width="40" height="20"/></clipPath>
            <rect width="10" height="10" fill="#112233"/>
            <g transform="rotate(90 20 10) scale(2)" clip-path="url(#clip)"><path d="M8 4h4v2h-4z" fill="url(#run)"/></g>
            <circle cx="30" cy="10" r="5" fill="none" stroke="#445566"/></svg>"##;
        brought(svg.as_bytes(), DrawingFile::Svg, 1).unwrap().svg.into_bytes()
    }

    #[test]
    fn parts_are_left_out_moved_and_coloured_where_they_are_seen() {
        let bytes = drawing();
        let svg = std::str::from_utf8(&bytes).unwrap();
        let found = parts::of(svg).unwrap();
        assert_eq!(found.parts.len(), 3);
        let near = |bounds: [f64; 4], wanted: [f64; 4]| {
            assert!(bounds.iter().zip(wanted).all(|(a, b)| (a - b).abs() < 1e-3), "{bounds:?}");
        };
        near(found.parts[0].bounds, [0.0, 0.0, 0.25, 0.5]);
        assert_eq!(found.parts[0].colour.as_deref(), Some("#112233"));
        assert_eq!(found.parts[1].colour, None, "it runs from one colour to another");
        assert_eq!(found.parts[2].colour.as_deref(), Some("#445566"));
        let before = found.parts[1].bounds;

        let acts = [
            part(0, true, [0.0; 2], None),
            part(1, false, [0.1, 0.2], Some("#00ff00")),
            part(2, false, [0.0; 2], Some("#abcdef")),
        ];
        let (picture, kept) = reworked(&bytes, &how(acts)).unwrap();
        assert_eq!(picture.pixels, Picture::head(&bytes).unwrap().pixels);
        let found = parts::of(std::str::from_utf8(&kept).unwrap()).unwrap();
        assert_eq!(found.parts.len(), 2);
        // A tenth of 40 and a fifth of 20, whichever way its group is turned.
        near(
            found.parts[0].bounds,
            [before[0] + 0.1, before[1] + 0.2, before[2] + 0.1, before[3] + 0.2],
        );
        assert_eq!(found.parts[0].colour.as_deref(), Some("#00ff00"));
        assert_eq!(found.parts[1].colour.as_deref(), Some("#abcdef"));
        Picture::of(&kept).unwrap();

        let refused = |acts: Vec<Rework>| reworked(&bytes, &how(acts)).unwrap_err();
        assert_eq!(refused(vec![part(3, true, [0.0; 2], None)]), ReworkError::NoPart(3, 3));
        let all = (0..3).map(|number| part(number, true, [0.0; 2], None)).collect();
        assert_eq!(refused(all), ReworkError::NothingLeft);
        assert_eq!(refused(vec![Rework::Crop]), ReworkError::OfPicture("Crop to what is left"));
    }

    #[test]
    fn a_cleaned_picture_is_a_png_the_right_way_up() {
        // Two wide, one high: white, then red.
        let mut png = Vec::new();
        let raw = [255, 255, 255, 200, 0, 0];
        PngEncoder::new(&mut png).write_image(&raw, 2, 1, ExtendedColorType::Rgb8).unwrap();
        let act = Rework::Background {
            from: Reach::Edges,
            colour: Some("#ffffff".into()),
            tolerance: 1.0,
            soft: 0.0,
        };
        let (picture, kept) = reworked(&png, &how([act.clone(), Rework::Crop])).unwrap();
        assert_eq!(picture.pixels, [1, 1]);
        assert_eq!(picture.decoded(&kept).unwrap().into_rgba8().into_raw(), [200, 0, 0, 255]);
        // Switched off it is as it came.
        let mut off = how([act]);
        off.steps[0].off = true;
        let (picture, kept) = reworked(&png, &off).unwrap();
        let pixels = picture.decoded(&kept).unwrap().into_rgb8().into_raw();
        assert_eq!(pixels, raw);
        assert!(reworked(b"nothing", &how([])).is_err());
    }
}
