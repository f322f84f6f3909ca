//! The registration marks of a page alone.

use std::io::{self, Write};

use aptum_core::lettering::letter_into;
use aptum_core::{Job, Prepared};

use super::{Canvas, Document, Page};

/// One page with the marks, at true size.
///
/// # Errors
/// What writing to `out` says.
pub fn marks_pdf(job: &Job, prepared: &Prepared, out: &mut dyn Write) -> io::Result<()> {
    let page = prepared.windows.page;
    let mut document = Document::new(&job.name, out)?;
    let mut canvas = Canvas::new();
    draw_marks(&mut canvas, prepared);
    let contents = vec![document.content(&canvas.finish(), page.height())?];
    document.page(&Page { media: page, trim: page, bleed: page, contents, own: Vec::new() })?;
    document.finish()
}

/// The marks and what is written beside the first.
pub(super) fn draw_marks(canvas: &mut Canvas, prepared: &Prepared) {
    for mark in &prepared.marks.marks {
        canvas.fill_black(&mark.ink);
    }
    if let Some(sign) = &prepared.marks.sign {
        canvas.fill_black(&letter_into(&sign.text, sign.place));
    }
}
