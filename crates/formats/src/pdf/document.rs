//! Pages and shared drawings, written as a PDF file.

use std::collections::BTreeMap;
use std::fmt::Write as _;
use std::io::{self, Write};

use aptum_core::LineKind;
use aptum_core::blob::BlobId;
use aptum_core::face::Separation;
use aptum_core::geometry::Rect;
use flate2::Compression;
use flate2::write::ZlibEncoder;
use pdf_writer::types::OverprintMode;
use pdf_writer::writers::{Catalog, DocumentInfo, ExtGraphicsState};
use pdf_writer::{Chunk, Filter, Finish, Name, Ref, TextStr};

use super::canvas::real;

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
    /// Drawings that no other page shows.
    pub own: Vec<Shared>,
}

/// A drawing that contents place by name.
pub(super) type Shared = (String, Ref);

/// A page content that any number of pages may show.
#[derive(Clone, Copy)]
pub(super) struct Content(Ref);

/// A file in the making: every object goes out as soon as it is whole, so that a file of any length takes
/// the room of a page.
pub(super) struct Document<'a> {
    out: &'a mut dyn Write,
    /// Bytes that have gone out.
    pub written: u64,
    /// Where each object starts, by its number less one.
    pub starts: Vec<u64>,
    shared: Vec<(String, Ref)>,
    pub pictures: BTreeMap<BlobId, Image>,
    pub spots: BTreeMap<Separation, Ref>,
    /// The separations of kinds of line.
    pub lines: BTreeMap<LineKind, Ref>,
    /// The optional-content groups of kinds of line.
    steps: Vec<Shared>,
    /// Silhouettes of pictures, by what they are printed in; black without one.
    pub silhouettes: BTreeMap<(BlobId, Option<Separation>, [i64; 2]), Image>,
    pages: Vec<Ref>,
}

/// A picture in the file.
#[derive(Clone)]
pub(super) struct Image {
    pub name: String,
    pub id: Ref,
    /// What turns its unit square the right way up.
    pub upright: [f64; 6],
}

/// What a shared drawing refers to by name.
#[derive(Default)]
pub(super) struct Needs {
    pictures: Vec<Image>,
    opacities: Vec<(String, f64)>,
    shadings: Vec<Shared>,
    spots: Vec<Shared>,
}

/// The state in which inks lie on each other and none is knocked out.
pub(super) const OVERPRINT: &str = "overprint";

impl Needs {
    /// The colour space of a spot ink.
    pub fn spot(&mut self, spot: Shared) {
        if self.spots.iter().all(|(known, _)| *known != spot.0) {
            self.spots.push(spot);
        }
    }

    /// A shading.
    pub fn shade(&mut self, shading: Shared) {
        self.shadings.push(shading);
    }

    /// A picture, once.
    pub fn add(&mut self, image: Image) {
        if self.pictures.iter().all(|known| known.id != image.id) {
            self.pictures.push(image);
        }
    }

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
        Self::with_steps(title, &[], out)
    }

    /// A file with a group of optional content for each of these kinds of line.
    pub fn with_steps(title: &str, kinds: &[LineKind], out: &'a mut dyn Write) -> io::Result<Self> {
        let starts = vec![0; 3];
        let mut document = Self {
            out,
            written: 0,
            starts,
            lines: BTreeMap::new(),
            steps: Vec::new(),
            shared: Vec::new(),
            pictures: BTreeMap::new(),
            spots: BTreeMap::new(),
            silhouettes: BTreeMap::new(),
            pages: Vec::new(),
        };
        // The second line tells programs that the file is binary (ISO 32000, 7.5.2).
        document.put(b"%PDF-1.7\n%\xc2\xb5\xc2\xb6\n\n")?;
        for kind in kinds {
            document.step(*kind)?;
        }
        let groups: Vec<Ref> = document.steps.iter().map(|own| own.1).collect();
        document.object(CATALOG, |chunk| {
            let mut root = chunk.indirect(CATALOG).start::<Catalog<'_>>();
            root.pages(TREE);
            root.viewer_preferences().pair(Name(b"PrintScaling"), Name(b"None"));
            if !groups.is_empty() {
                // ISO 32000, 8.11.4.2.
                let mut properties = root.insert(Name(b"OCProperties")).dict();
                properties.insert(Name(b"OCGs")).array().items(groups.iter().copied());
                let mut usual = properties.insert(Name(b"D")).dict();
                usual.pair(Name(b"Name"), TextStr("Processing steps"));
                usual.insert(Name(b"Order")).array().items(groups.iter().copied());
            }
        })?;
        document.object(INFO, |chunk| {
            let mut info = chunk.indirect(INFO).start::<DocumentInfo<'_>>();
            info.title(TextStr(title)).producer(TextStr("Aptum"));
        })?;
        Ok(document)
    }

    /// The group of a kind of line: what is done along it, in the words of ISO 19593-1.
    fn step(&mut self, kind: LineKind) -> io::Result<()> {
        let id = self.id();
        self.object(id, |chunk| {
            let mut group = chunk.indirect(id).dict();
            group.pair(Name(b"Type"), Name(b"OCG"));
            group.pair(Name(b"Name"), TextStr(kind.name()));
            let mut metadata = group.insert(Name(b"GTS_Metadata")).dict();
            metadata.pair(Name(b"GTS_ProcStepsGroup"), Name(b"Structural"));
            if let Some(step) = kind.processing_step() {
                metadata.pair(Name(b"GTS_ProcStepsType"), Name(step.as_bytes()));
            }
        })?;
        self.steps.push((kind.id().to_owned(), id));
        Ok(())
    }

    pub fn put(&mut self, bytes: &[u8]) -> io::Result<()> {
        self.out.write_all(bytes)?;
        self.written += bytes.len() as u64;
        Ok(())
    }

    pub fn id(&mut self) -> Ref {
        self.starts.push(0);
        number(self.starts.len())
    }

    /// Writes one object.
    pub fn object(&mut self, id: Ref, write: impl FnOnce(&mut Chunk)) -> io::Result<()> {
        let mut chunk = Chunk::new();
        write(&mut chunk);
        if let Some(start) =
            usize::try_from(id.get() - 1).ok().and_then(|at| self.starts.get_mut(at))
        {
            *start = self.written;
        }
        self.put(chunk.as_bytes())
    }

    /// A drawing in mm that the contents of all pages can place by name, however often.
    pub fn share(
        &mut self,
        name: &str,
        drawing: &[u8],
        bounds: Rect,
        needs: &Needs,
    ) -> io::Result<()> {
        let shared = self.drawing(name, drawing, bounds, needs)?;
        self.shared.push(shared);
        Ok(())
    }

    /// A drawing in mm that the contents of pages which name it as their own can place.
    pub fn drawing(
        &mut self,
        name: &str,
        drawing: &[u8],
        bounds: Rect,
        needs: &Needs,
    ) -> io::Result<Shared> {
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
            if !needs.shadings.is_empty() {
                let mut shadings = resources.shadings();
                for (name, id) in &needs.shadings {
                    shadings.pair(Name(name.as_bytes()), *id);
                }
            }
            if !needs.spots.is_empty() {
                let mut spaces = resources.color_spaces();
                for (name, id) in &needs.spots {
                    spaces.pair(Name(name.as_bytes()), *id);
                }
            }
            if !needs.opacities.is_empty() || !needs.spots.is_empty() {
                let mut states = resources.ext_g_states();
                if !needs.spots.is_empty() {
                    let name = Name(OVERPRINT.as_bytes());
                    let mut state = states.insert(name).start::<ExtGraphicsState<'_>>();
                    state.overprint(true).overprint_fill(true);
                    state.overprint_mode(OverprintMode::IgnoreZeroChannel);
                }
                for (name, opacity) in &needs.opacities {
                    let mut state =
                        states.insert(Name(name.as_bytes())).start::<ExtGraphicsState<'_>>();
                    state.non_stroking_alpha(real(*opacity));
                }
            }
        })?;
        Ok((name.to_owned(), id))
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
        let steps = std::mem::take(&mut self.steps);
        self.object(id, |chunk| {
            let mut writer = chunk.page(id);
            writer.parent(TREE);
            writer.media_box(flip(page.media));
            writer.trim_box(flip(page.trim));
            writer.bleed_box(flip(page.bleed));
            writer.contents_array(page.contents.iter().map(|content| content.0));
            let mut resources = writer.resources();
            let mut drawings = resources.x_objects();
            for (name, id) in shared.iter().chain(&page.own) {
                drawings.pair(Name(name.as_bytes()), *id);
            }
            drawings.finish();
            if !steps.is_empty() {
                let mut properties = resources.insert(Name(b"Properties")).dict();
                for (name, id) in &steps {
                    properties.pair(Name(name.as_bytes()), *id);
                }
            }
        })?;
        self.steps = steps;
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

pub(super) fn pack(bytes: &[u8]) -> Vec<u8> {
    let mut packer = ZlibEncoder::new(Vec::new(), Compression::default());
    // Writing to memory cannot fail.
    let _ = packer.write_all(bytes);
    packer.finish().unwrap_or_default()
}
