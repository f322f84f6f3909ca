//! The print file: art and marks, no lines.

use std::io::{self, Write};

use aptum_core::blob::Blobs;
use aptum_core::face::ink_colour;
use aptum_core::geometry::Rect;
use aptum_core::{Job, Prepared};

use super::{Canvas, Copies, Document, Page, notes};
use aptum_core::face::lettering::letter_into;

/// What is printed, a page per sheet; a job that is only cut has marks alone.
///
/// MediaBox is the page. TrimBox is the page too, or the blank's bounds where one piece lies alone
/// on it; BleedBox lies around the trim by the bleed. Each piece's art is in the file once.
///
/// # Errors
/// What writing to `out` says.
pub fn print_pdf(
    job: &Job,
    prepared: &Prepared,
    blobs: &dyn Blobs,
    out: &mut dyn Write,
) -> io::Result<()> {
    let page = prepared.windows.page;
    let mut document = Document::new(&job.name, out)?;

    let art = Copies::new(&mut document, prepared, blobs, ink_colour(), 0.0)?;

    let mut canvas = Canvas::new();
    for mark in &prepared.marks.marks {
        canvas.fill_black(&mark.ink);
    }
    if let Some(sign) = &prepared.marks.sign {
        canvas.fill_black(&letter_into(&sign.text, sign.place));
    }
    let marks = document.content(&canvas.finish(), page.height())?;

    let blanks: Vec<_> = prepared.blanks().collect();
    let sheets = prepared.layout.sheets();
    let mut number = 0;
    for (run, notes) in prepared.layout.runs.iter().zip(&prepared.notes) {
        let (trim, bleed) = match run.placements.as_slice() {
            [alone] => {
                let bounds = blanks.get(alone.part).map_or(page, |blank| blank.part.bounds);
                let art = blanks.get(alone.part).and_then(|blank| blank.art);
                let bleed = art.map_or(0.0, |art| art.bleed);
                let blank = alone.transform().transform_rect_bbox(bounds);
                (blank, blank.inflate(bleed, bleed).intersect(page))
            }
            _ => (page, page),
        };
        let mut first = None;
        for sheet in 0..run.sheets {
            number += 1;
            let scale = |canvas: &mut Canvas| {
                if let Some(notes) = notes {
                    notes::draw_scale(canvas, notes, job.unit);
                }
            };
            let at = (run, sheet);
            let (drawn, own) = art.content(&mut document, &mut first, at, page.height(), scale)?;
            let mut contents = vec![drawn, marks];
            if let Some(notes) = notes {
                let mut canvas = Canvas::new();
                notes::draw_code(&mut canvas, notes, &prepared.code, number, sheets);
                contents.push(document.content(&canvas.finish(), page.height())?);
            }
            document.page(&Page { media: page, trim, bleed, contents, own })?;
        }
    }
    if number == 0 {
        document.page(&empty_page(page, marks))?;
    }
    document.finish()
}

/// A PDF has at least one page: marks alone, when no copy fits.
fn empty_page(page: Rect, marks: super::document::Content) -> Page {
    Page { media: page, trim: page, bleed: page, contents: vec![marks], own: Vec::new() }
}
