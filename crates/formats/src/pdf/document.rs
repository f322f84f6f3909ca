//! Pages and shared drawings, written as a PDF file.

use std::collections::BTreeMap;
use std::fmt::Write as _;
use std::io::{self, Write};

use aptum_core::blob::BlobId;
use aptum_core::geometry::Rect;
use flate2::Compression;
use flate2::write::ZlibEncoder;
use image::DynamicImage;
use pdf_writer::writers::{Catalog, DocumentInfo, ExtGraphicsState};
use pdf_writer::{Chunk, Filter, Finish, Name, Ref, TextStr};

use super::canvas::real;
use crate::picture::{self, Coding, Picture};

/// Points in a millimetre: a PDF unit is 1/72 in (ISO 32000).
const POINT: f64 = 72.0 / 25.4;

/// One page; boxes in mm with y down.
pub(super) struct Page {
    /// The whole page.
    pub media: Rect,
    /// Where the sheet, or a piece alone, is trimmed.
    pub trim: Rect,
    /// The trim with its bleed.
    pub bleed: Rect,
    /// Drawings from [`Document::content`], bottom first.
    pub contents: Vec<Content>,
}

/// A page content that any number of pages may show.
#[derive(Clone, Copy)]
pub(super) struct Content(Ref);

/// A file in the making: every object goes out as soon as it is whole, so that a file of any length takes
/// the room of a page.
pub(super) struct Document<'a> {
    out: &'a mut dyn Write,
    /// Bytes that have gone out.
    written: u64,
    /// Where each object starts, by its number less one.
    starts: Vec<u64>,
    shared: Vec<(String, Ref)>,
    pictures: BTreeMap<BlobId, Image>,
    pages: Vec<Ref>,
}

/// A picture in the file.
#[derive(Clone)]
pub(super) struct Image {
    pub name: String,
    id: Ref,
    /// What turns its unit square the right way up.
    pub upright: [f64; 6],
}

/// What a shared drawing refers to by name.
#[derive(Default)]
pub(super) struct Needs {
    pub pictures: Vec<Image>,
    opacities: Vec<(String, f64)>,
}

impl Needs {
    /// The name of the state in which what is filled is so opaque, 0 to 1.
    pub fn opacity(&mut self, opacity: f64) -> String {
        let name = format!("opacity{:.0}", opacity * 1000.0);
        if self.opacities.iter().all(|(known, _)| *known != name) {
            self.opacities.push((name.clone(), opacity));
        }
        name
    }
}

/// Objects whose numbers are known from the start.
const CATALOG: Ref = Ref::new(1);
const TREE: Ref = Ref::new(2);
const INFO: Ref = Ref::new(3);

impl<'a> Document<'a> {
    pub fn new(title: &str, out: &'a mut dyn Write) -> io::Result<Self> {
        let starts = vec![0; 3];
        let mut document = Self {
            out,
            written: 0,
            starts,
            shared: Vec::new(),
            pictures: BTreeMap::new(),
            pages: Vec::new(),
        };
        // The second line tells programs that the file is binary (ISO 32000, 7.5.2).
        document.put(b"%PDF-1.7\n%\xc2\xb5\xc2\xb6\n\n")?;
        document.object(CATALOG, |chunk| {
            let mut root = chunk.indirect(CATALOG).start::<Catalog<'_>>();
            root.pages(TREE);
            root.viewer_preferences().pair(Name(b"PrintScaling"), Name(b"None"));
        })?;
        document.object(INFO, |chunk| {
            let mut info = chunk.indirect(INFO).start::<DocumentInfo<'_>>();
            info.title(TextStr(title)).producer(TextStr("Aptum"));
        })?;
        Ok(document)
    }

    fn put(&mut self, bytes: &[u8]) -> io::Result<()> {
        self.out.write_all(bytes)?;
        self.written += bytes.len() as u64;
        Ok(())
    }

    fn id(&mut self) -> Ref {
        self.starts.push(0);
        number(self.starts.len())
    }

    /// Writes one object.
    fn object(&mut self, id: Ref, write: impl FnOnce(&mut Chunk)) -> io::Result<()> {
        let mut chunk = Chunk::new();
        write(&mut chunk);
        if let Some(start) =
            usize::try_from(id.get() - 1).ok().and_then(|at| self.starts.get_mut(at))
        {
            *start = self.written;
        }
        self.put(chunk.as_bytes())
    }

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
        };
        let name = format!("picture{}", self.pictures.len());
        let image = Image { name, id, upright: picture.upright() };
        self.pictures.insert(blob.clone(), image.clone());
        Ok(is_there.then_some(image))
    }

    /// Byte for byte: a PDF holds JPEGs as they are.
    fn jpeg(&mut self, id: Ref, bytes: &[u8]) -> io::Result<bool> {
        let Some(frame) = picture::frame(bytes) else { return Ok(false) };
        self.object(id, |chunk| {
            let mut image = chunk.image_xobject(id, bytes);
            image.filter(Filter::DctDecode);
            image.width(frame.width.into()).height(frame.height.into());
            image.bits_per_component(frame.bits.into());
            match frame.components {
                1 => image.color_space().device_gray(),
                4 => image.color_space().device_cmyk(),
                _ => image.color_space().device_rgb(),
            }
            if frame.components == 4 && frame.is_adobe {
                image.decode([1.0, 0.0].repeat(4));
            }
        })?;
        Ok(true)
    }

    /// Without loss: colour, and transparency beside it.
    fn pixels(&mut self, id: Ref, picture: Picture, bytes: &[u8]) -> io::Result<bool> {
        let Ok(pixels) = picture.decoded(bytes) else { return Ok(false) };
        let (width, height) = (signed(pixels.width()), signed(pixels.height()));
        let (channels, bits) = (pixels.color().channel_count(), bits_of(&pixels));
        let width_of = usize::from(bits / 8);
        let has_alpha = pixels.color().has_alpha();
        let colours = usize::from(channels) - usize::from(has_alpha);
        let raw = big_endian(pixels, bits);
        let pick = |from: usize, count: usize| -> Vec<u8> {
            let step = usize::from(channels) * width_of;
            raw.chunks_exact(step)
                .flat_map(|pixel| &pixel[from * width_of..(from + count) * width_of])
                .copied()
                .collect()
        };
        let mask = has_alpha.then(|| self.id());
        let packed = if has_alpha { quick(&pick(0, colours)) } else { quick(&raw) };
        self.object(id, |chunk| {
            let mut image = chunk.image_xobject(id, &packed);
            image.filter(Filter::FlateDecode);
            image.width(width).height(height);
            image.bits_per_component(bits.into());
            if colours == 1 {
                image.color_space().device_gray();
            } else {
                image.color_space().device_rgb();
            }
            if let Some(mask) = mask {
                image.s_mask(mask);
            }
        })?;
        if let Some(mask) = mask {
            let packed = quick(&pick(colours, 1));
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

    /// A drawing in mm that contents can place by name, however often.
    pub fn share(
        &mut self,
        name: &str,
        drawing: &[u8],
        bounds: Rect,
        needs: &Needs,
    ) -> io::Result<()> {
        let id = self.id();
        let packed = pack(drawing);
        self.object(id, |chunk| {
            let mut form = chunk.form_xobject(id, &packed);
            form.filter(Filter::FlateDecode);
            form.bbox(pdf_writer::Rect::new(
                real(bounds.x0),
                real(bounds.y0),
                real(bounds.x1),
                real(bounds.y1),
            ));
            let mut resources = form.resources();
            let mut images = resources.x_objects();
            for image in &needs.pictures {
                images.pair(Name(image.name.as_bytes()), image.id);
            }
            images.finish();
            if !needs.opacities.is_empty() {
                let mut states = resources.ext_g_states();
                for (name, opacity) in &needs.opacities {
                    let mut state =
                        states.insert(Name(name.as_bytes())).start::<ExtGraphicsState<'_>>();
                    state.non_stroking_alpha(real(*opacity));
                }
            }
        })?;
        self.shared.push((name.to_owned(), id));
        Ok(())
    }

    /// A drawing in mm with y down, as a page content for pages `height` mm high.
    pub fn content(&mut self, drawing: &[u8], height: f64) -> io::Result<Content> {
        let id = self.id();
        let mut whole = format!("q\n{POINT} 0 0 {} 0 {} cm\n", -POINT, height * POINT).into_bytes();
        whole.extend_from_slice(drawing);
        whole.extend_from_slice(b"\nQ\n");
        let packed = pack(&whole);
        self.object(id, |chunk| {
            chunk.stream(id, &packed).filter(Filter::FlateDecode);
        })?;
        Ok(Content(id))
    }

    /// The next page.
    pub fn page(&mut self, page: &Page) -> io::Result<()> {
        let id = self.id();
        let height = page.media.height();
        let flip = |rect: Rect| {
            pdf_writer::Rect::new(
                real(rect.x0 * POINT),
                real((height - rect.y1) * POINT),
                real(rect.x1 * POINT),
                real((height - rect.y0) * POINT),
            )
        };
        let shared = std::mem::take(&mut self.shared);
        self.object(id, |chunk| {
            let mut writer = chunk.page(id);
            writer.parent(TREE);
            writer.media_box(flip(page.media));
            writer.trim_box(flip(page.trim));
            writer.bleed_box(flip(page.bleed));
            writer.contents_array(page.contents.iter().map(|content| content.0));
            let mut resources = writer.resources();
            let mut drawings = resources.x_objects();
            for (name, id) in &shared {
                drawings.pair(Name(name.as_bytes()), *id);
            }
        })?;
        self.shared = shared;
        self.pages.push(id);
        Ok(())
    }

    /// Writes what closes the file: the pages' tree, and where each object starts (ISO 32000, 7.5.4).
    pub fn finish(mut self) -> io::Result<()> {
        let pages = std::mem::take(&mut self.pages);
        let count = i32::try_from(pages.len()).unwrap_or(i32::MAX);
        self.object(TREE, |chunk| {
            chunk.pages(TREE).kids(pages).count(count);
        })?;
        let (table, size) = (self.written, self.starts.len() + 1);
        let mut rows = format!("xref\n0 {size}\n0000000000 65535 f\r\n");
        for start in &self.starts {
            let _ = write!(rows, "{start:010} 00000 n\r\n");
        }
        let _ = write!(
            rows,
            "trailer\n<<\n  /Size {size}\n  /Root 1 0 R\n  /Info 3 0 R\n>>\nstartxref\n{table}\n%%EOF"
        );
        self.put(rows.as_bytes())
    }
}

/// The number of an object from how many there are.
fn number(count: usize) -> Ref {
    Ref::new(i32::try_from(count).unwrap_or(i32::MAX))
}

fn signed(count: u32) -> i32 {
    i32::try_from(count).unwrap_or(i32::MAX)
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
fn quick(bytes: &[u8]) -> Vec<u8> {
    let mut packer = ZlibEncoder::new(Vec::new(), Compression::fast());
    // Writing to memory cannot fail.
    let _ = packer.write_all(bytes);
    packer.finish().unwrap_or_default()
}

fn pack(bytes: &[u8]) -> Vec<u8> {
    let mut packer = ZlibEncoder::new(Vec::new(), Compression::default());
    // Writing to memory cannot fail.
    let _ = packer.write_all(bytes);
    packer.finish().unwrap_or_default()
}
