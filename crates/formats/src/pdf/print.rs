//! The print file: art and marks, no lines.

use std::io::{self, Write};

use aptum_core::blob::Blobs;
use aptum_core::face::{Art, Ink, ink_colour};
use aptum_core::geometry::Rect;
use aptum_core::{Job, Prepared};

use super::document::Needs;
use super::{Canvas, Document, Page, notes};
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

    for (number, blank) in prepared.blanks().enumerate() {
        let Some(art) = blank.art else { continue };
        let mut canvas = Canvas::new();
        let needs = draw_art(&mut document, &mut canvas, art, ink_colour(), blobs)?;
        let bounds = blank.part.bounds.inflate(art.bleed, art.bleed);
        document.share(&part_name(number), &canvas.finish(), bounds, &needs)?;
    }

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
        let mut canvas = Canvas::new();
        let printed = |part: usize| blanks.get(part).is_some_and(|blank| blank.art.is_some());
        for placement in run.placements.iter().filter(|at| printed(at.part)) {
            canvas.place(&part_name(placement.part), placement.transform());
        }
        if let Some(notes) = notes {
            notes::draw_scale(&mut canvas, notes, job.unit);
        }
        let copies = document.content(&canvas.finish(), page.height())?;
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
        for _ in 0..run.sheets {
            number += 1;
            let mut contents = vec![copies, marks];
            if let Some(notes) = notes {
                let mut canvas = Canvas::new();
                notes::draw_code(&mut canvas, notes, &prepared.code, number, sheets);
                contents.push(document.content(&canvas.finish(), page.height())?);
            }
            document.page(&Page { media: page, trim, bleed, contents })?;
        }
    }
    if number == 0 {
        document.page(&empty_page(page, marks))?;
    }
    document.finish()
}

/// A PDF has at least one page: marks alone, when no copy fits.
fn empty_page(page: Rect, marks: super::document::Content) -> Page {
    Page { media: page, trim: page, bleed: page, contents: vec![marks] }
}

/// The name under which a part's drawing is shared.
pub(super) fn part_name(part: usize) -> String {
    format!("part{part}")
}

/// A blank's layers, the first undermost, its words in so dark an ink; gives what the drawing needs. A picture whose
/// bytes are missing is left out.
pub(super) fn draw_art(
    document: &mut Document<'_>,
    canvas: &mut Canvas,
    art: &Art,
    words: &str,
    blobs: &dyn Blobs,
) -> io::Result<Needs> {
    let mut needs = Needs::default();
    for inked in art.inks() {
        let opacity = (inked.opacity < 1.0).then(|| needs.opacity(inked.opacity));
        let opacity = opacity.as_deref();
        match &inked.ink {
            Ink::Area { path, colour, clip } => {
                canvas.within(clip.as_ref(), opacity, |canvas| canvas.fill(path, colour));
            }
            Ink::Words { path } => canvas.within(None, opacity, |canvas| canvas.fill(path, words)),
            Ink::Picture { blob, place, clip } => {
                let Some(bytes) = blobs.bytes(blob) else { continue };
                if let Some(image) = document.picture(blob, &bytes)? {
                    canvas.within(Some(clip), opacity, |canvas| {
                        canvas.picture(&image.name, *place, image.upright);
                    });
                    needs.pictures.push(image);
                }
            }
        }
    }
    Ok(needs)
}
