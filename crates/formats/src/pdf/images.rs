//! Pictures, drawings and running colours in a PDF file, each once.

use std::collections::BTreeMap;
use std::io::{self, Write};

use aptum_core::blob::BlobId;
use aptum_core::face::Running;
use flate2::Compression;
use flate2::write::ZlibEncoder;
use image::DynamicImage;
use pdf_writer::types::FunctionShadingType;
use pdf_writer::writers::ImageXObject;
use pdf_writer::{Filter, Ref};

use super::canvas::real;
use super::document::{Document, Image, Shared, pack};
use crate::drawing;
use crate::line_style::rgb;
use crate::picture::{self, Coding, Picture};

impl Document<'_> {
    /// A picture that shared drawings can show by its name, its bytes in the file once; `None` where they cannot be
    /// read.
    pub fn picture(&mut self, blob: &BlobId, bytes: &[u8]) -> io::Result<Option<Image>> {
        if let Some(known) = self.pictures.get(blob) {
            return Ok(Some(known.clone()));
        }
        let Ok(picture) = Picture::head(bytes) else { return Ok(None) };
        let id = self.id();
        let is_there = match picture.coding {
            Coding::Jpeg => self.jpeg(id, bytes)?,
            Coding::Png => self.pixels(id, picture, bytes)?,
            Coding::Svg => self.drawn(id, bytes)?,
        };
        let name = format!("picture{}", self.pictures.len());
        let image = Image { name, id, upright: picture.upright() };
        self.pictures.insert(blob.clone(), image.clone());
        Ok(is_there.then_some(image))
    }

    /// Lines and areas stay lines and areas.
    fn drawn(&mut self, id: Ref, bytes: &[u8]) -> io::Result<bool> {
        let tree = std::str::from_utf8(bytes).ok().and_then(|svg| drawing::tree(svg).ok());
        let Some((chunk, top)) = tree
            .and_then(|tree| svg2pdf::to_chunk(&tree, svg2pdf::ConversionOptions::default()).ok())
        else {
            return Ok(false);
        };
        // Objects are numbered anew; the drawing itself gets the number that was given to it.
        let mut numbers = BTreeMap::from([(top.get(), id.get())]);
        for own in chunk.refs().filter(|own| *own != top) {
            numbers.insert(own.get(), self.id().get());
        }
        let chunk = chunk.renumber(|own| {
            let number = numbers.get(&own.get()).copied().unwrap_or_else(|| id.get());
            svg2pdf_writer::Ref::new(number)
        });
        let mut whole = svg2pdf_writer::Pdf::new();
        whole.extend(&chunk);
        let whole = whole.finish();
        for (id, object) in objects(&whole) {
            if let Some(start) = self.starts.get_mut(id - 1) {
                *start = self.written;
            }
            self.put(object)?;
        }
        Ok(true)
    }

    /// A colour that runs into another (ISO 32000-1, 8.7.4.5.3), as a shading that drawings fill with by its name.
    pub fn running(&mut self, colour: &str, running: &Running) -> io::Result<Shared> {
        let (function, shading) = (self.id(), self.id());
        self.object(function, |chunk| {
            let mut even = chunk.exponential_function(function);
            even.domain([0.0, 1.0]).n(1.0);
            even.c0(rgb(colour)).c1(rgb(&running.to));
        })?;
        self.object(shading, |chunk| {
            let [from, to] = running.ends;
            let mut axial = chunk.function_shading(shading);
            axial.shading_type(FunctionShadingType::Axial);
            axial.color_space().device_rgb();
            axial.coords([from.x, from.y, to.x, to.y].map(real));
            axial.function(function).extend([true, true]);
        })?;
        Ok((format!("running{}", shading.get()), shading))
    }

    /// Byte for byte: a PDF holds JPEGs as they are.
    fn jpeg(&mut self, id: Ref, bytes: &[u8]) -> io::Result<bool> {
        let Some(frame) = picture::frame(bytes) else { return Ok(false) };
        let profile = self.profile(bytes, frame.components)?;
        self.object(id, |chunk| {
            let mut image = chunk.image_xobject(id, bytes);
            image.filter(Filter::DctDecode);
            image.width(frame.width.into()).height(frame.height.into());
            image.bits_per_component(frame.bits.into());
            colours(&mut image, frame.components, profile);
            if frame.components == 4 && frame.is_adobe {
                image.decode([1.0, 0.0].repeat(4));
            }
        })?;
        Ok(true)
    }

    /// The profile of a picture of so many colours, in the file once for it; none where it has none that suits.
    fn profile(&mut self, bytes: &[u8], components: u8) -> io::Result<Option<Ref>> {
        // The signature of the data's colour space (ICC.1:2022, 7.2.6).
        let signature: &[u8] = match components {
            1 => b"GRAY",
            3 => b"RGB ",
            4 => b"CMYK",
            _ => return Ok(None),
        };
        let profile = Picture::profile(bytes);
        let Some(profile) = profile.filter(|own| own.get(16..20) == Some(signature)) else {
            return Ok(None);
        };
        let id = self.id();
        self.object(id, |chunk| {
            let packed = pack(&profile);
            let mut stream = chunk.icc_profile(id, &packed);
            stream.n(components.into());
            stream.filter(Filter::FlateDecode);
        })?;
        Ok(Some(id))
    }

    /// Without loss: colour, and transparency beside it.
    fn pixels(&mut self, id: Ref, picture: Picture, bytes: &[u8]) -> io::Result<bool> {
        let Ok(pixels) = picture.decoded(bytes) else { return Ok(false) };
        let (width, height) = (signed(pixels.width()), signed(pixels.height()));
        let (channels, bits) = (pixels.color().channel_count(), bits_of(&pixels));
        let width_of = usize::from(bits / 8);
        let has_alpha = pixels.color().has_alpha();
        let colours_of = usize::from(channels) - usize::from(has_alpha);
        let raw = big_endian(pixels, bits);
        let pick = |from: usize, count: usize| -> Vec<u8> {
            let step = usize::from(channels) * width_of;
            raw.chunks_exact(step)
                .flat_map(|pixel| &pixel[from * width_of..(from + count) * width_of])
                .copied()
                .collect()
        };
        let profile = self.profile(bytes, if colours_of == 1 { 1 } else { 3 })?;
        let mask = has_alpha.then(|| self.id());
        let packed = if has_alpha { quick(&pick(0, colours_of)) } else { quick(&raw) };
        self.object(id, |chunk| {
            let mut image = chunk.image_xobject(id, &packed);
            image.filter(Filter::FlateDecode);
            image.width(width).height(height);
            image.bits_per_component(bits.into());
            colours(&mut image, if colours_of == 1 { 1 } else { 3 }, profile);
            if let Some(mask) = mask {
                image.s_mask(mask);
            }
        })?;
        if let Some(mask) = mask {
            let packed = quick(&pick(colours_of, 1));
            self.object(mask, |chunk| {
                let mut image = chunk.image_xobject(mask, &packed);
                image.filter(Filter::FlateDecode);
                image.width(width).height(height);
                image.bits_per_component(bits.into());
                image.color_space().device_gray();
            })?;
        }
        Ok(true)
    }
}

/// What the figures of a picture's pixels mean.
fn colours(image: &mut ImageXObject<'_>, components: u8, profile: Option<Ref>) {
    match (profile, components) {
        (Some(profile), _) => image.color_space().icc_based(profile),
        (None, 1) => image.color_space().device_gray(),
        (None, 4) => image.color_space().device_cmyk(),
        (None, _) => image.color_space().device_rgb(),
    }
}

/// The objects of a whole file by their numbers, as its table says where they start (ISO 32000, 7.5.4).
fn objects(file: &[u8]) -> Vec<(usize, &[u8])> {
    let word = b"startxref\n";
    let at = file.windows(word.len()).rposition(|own| own == word);
    let number =
        |text: &[u8]| -> Option<usize> { std::str::from_utf8(text).ok()?.trim().parse().ok() };
    let table = at.and_then(|at| {
        let rest = &file[at + word.len()..];
        number(&rest[..rest.iter().position(|byte| *byte == b'\n')?])
    });
    let Some(table) = table else { return Vec::new() };
    let mut starts = Vec::new();
    // A row for the head, one for the range, then twenty bytes for each object.
    let rows = file[table..].split(|byte| *byte == b'\n').skip(2).enumerate();
    for (id, row) in rows.take_while(|(_, row)| row.len() >= 18) {
        if let Some(start) = number(&row[..10]).filter(|_| row[17] == b'n') {
            starts.push((start, id));
        }
    }
    starts.sort_unstable();
    let ends = starts.iter().skip(1).map(|(start, _)| *start).chain([table]);
    starts.iter().zip(ends).map(|((start, id), end)| (*id, &file[*start..end])).collect()
}

/// Bits of a channel.
fn bits_of(pixels: &DynamicImage) -> u8 {
    let color = pixels.color();
    if color.bytes_per_pixel() / color.channel_count() == 2 { 16 } else { 8 }
}

/// The samples one after the other, sixteen bits with the higher byte first, as PDF has them.
fn big_endian(pixels: DynamicImage, bits: u8) -> Vec<u8> {
    let mut bytes = pixels.into_bytes();
    if bits == 16 && cfg!(target_endian = "little") {
        bytes.chunks_exact_mut(2).for_each(|sample| sample.swap(0, 1));
    }
    bytes
}

/// Packs what is large: a little more room for much less time.
pub(super) fn quick(bytes: &[u8]) -> Vec<u8> {
    let mut packer = ZlibEncoder::new(Vec::new(), Compression::fast());
    // Writing to memory cannot fail.
    let _ = packer.write_all(bytes);
    packer.finish().unwrap_or_default()
}

pub(super) fn signed(count: u32) -> i32 {
    i32::try_from(count).unwrap_or(i32::MAX)
}
