//! Pages and shared drawings, written as a PDF file.

use std::io::Write;

use aptum_core::geometry::Rect;
use flate2::Compression;
use flate2::write::ZlibEncoder;
use pdf_writer::{Filter, Finish, Name, Pdf, Ref, TextStr};

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
}

/// A page content that any number of pages may show.
#[derive(Clone, Copy)]
pub(super) struct Content(Ref);

/// A file in the making.
pub(super) struct Document {
    pdf: Pdf,
    next: i32,
    shared: Vec<(String, Ref)>,
    pages: Vec<Page>,
    title: String,
}

impl Document {
    pub fn new(title: &str) -> Self {
        Self {
            pdf: Pdf::new(),
            next: 4,
            shared: Vec::new(),
            pages: Vec::new(),
            title: title.to_owned(),
        }
    }

    fn id(&mut self) -> Ref {
        let id = Ref::new(self.next);
        self.next += 1;
        id
    }

    /// A drawing in mm that contents can place by name, however often.
    pub fn share(&mut self, name: &str, drawing: &[u8], bounds: Rect) {
        let id = self.id();
        let packed = pack(drawing);
        let mut form = self.pdf.form_xobject(id, &packed);
        form.filter(Filter::FlateDecode);
        form.bbox(pdf_writer::Rect::new(
            real(bounds.x0),
            real(bounds.y0),
            real(bounds.x1),
            real(bounds.y1),
        ));
        form.finish();
        self.shared.push((name.to_owned(), id));
    }

    /// A drawing in mm with y down, as a page content for pages `height` mm high.
    pub fn content(&mut self, drawing: &[u8], height: f64) -> Content {
        let id = self.id();
        let mut whole = format!("q\n{POINT} 0 0 {} 0 {} cm\n", -POINT, height * POINT).into_bytes();
        whole.extend_from_slice(drawing);
        whole.extend_from_slice(b"\nQ\n");
        let packed = pack(&whole);
        self.pdf.stream(id, &packed).filter(Filter::FlateDecode);
        Content(id)
    }

    pub fn page(&mut self, page: Page) {
        self.pages.push(page);
    }

    pub fn finish(mut self) -> Vec<u8> {
        let (catalog, tree, info) = (Ref::new(1), Ref::new(2), Ref::new(3));
        let mut root = self.pdf.catalog(catalog);
        root.pages(tree);
        root.viewer_preferences().pair(Name(b"PrintScaling"), Name(b"None"));
        root.finish();
        self.pdf.document_info(info).title(TextStr(&self.title)).producer(TextStr("Aptum"));

        let ids: Vec<Ref> = (0..self.pages.len()).map(|_| self.id()).collect();
        let count = i32::try_from(ids.len()).unwrap_or(i32::MAX);
        self.pdf.pages(tree).kids(ids.iter().copied()).count(count);
        for (id, page) in ids.into_iter().zip(&self.pages) {
            let height = page.media.height();
            let flip = |rect: Rect| {
                pdf_writer::Rect::new(
                    real(rect.x0 * POINT),
                    real((height - rect.y1) * POINT),
                    real(rect.x1 * POINT),
                    real((height - rect.y0) * POINT),
                )
            };
            let mut writer = self.pdf.page(id);
            writer.parent(tree);
            writer.media_box(flip(page.media));
            writer.trim_box(flip(page.trim));
            writer.bleed_box(flip(page.bleed));
            writer.contents_array(page.contents.iter().map(|content| content.0));
            let mut resources = writer.resources();
            let mut drawings = resources.x_objects();
            for (name, id) in &self.shared {
                drawings.pair(Name(name.as_bytes()), *id);
            }
            drawings.finish();
            resources.finish();
            writer.finish();
        }
        self.pdf.finish()
    }
}

fn pack(bytes: &[u8]) -> Vec<u8> {
    let mut packer = ZlibEncoder::new(Vec::new(), Compression::default());
    // Writing to memory cannot fail.
    let _ = packer.write_all(bytes);
    packer.finish().unwrap_or_default()
}
