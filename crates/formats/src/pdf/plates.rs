//! The inks of a print one by one, for printers that take a plate at a time.

use std::io::{self, Write};

use super::marks::draw_marks;
use aptum_core::blob::Blobs;
use aptum_core::face::{Separation, Side};
use aptum_core::{Job, Prepared};

use super::copies::separations;
use super::print::mark_grounds;
use super::{Canvas, Copies, Document, Page, Show, notes};

/// How many pages that has for a sheet.
#[must_use]
pub fn plates(prepared: &Prepared) -> usize {
    let of = |side| separations(prepared, side).len();
    of(Side::Front) + if prepared.has_backs() { of(Side::Back) } else { 0 }
}

/// Sheet by sheet and side by side, a page for each ink in the order in which they are printed, colour in its colours,
/// all others as so much black as there is to be of them. All of a side carry the same marks and say which ink they
/// are.
///
/// # Errors
/// What writing to `out` says.
pub fn plates_pdf(
    job: &Job,
    prepared: &Prepared,
    blobs: &dyn Blobs,
    out: &mut dyn Write,
) -> io::Result<()> {
    let page = prepared.windows.page;
    let mut document = Document::new(&job.name, out)?;
    let sides = [Side::Front, Side::Back].into_iter();
    let mut plates = Vec::new();
    for side in sides.filter(|side| *side == Side::Front || prepared.has_backs()) {
        for ink in separations(prepared, side) {
            let in_black = ink != Separation::Colour;
            let show = Show { inks: vec![ink], in_black, ..Show::printed(prepared, side) };
            plates.push((side, ink, Copies::new(&mut document, prepared, blobs, show)?));
        }
    }
    let grounds = mark_grounds(&mut document, prepared, true)?;
    let mut canvas = Canvas::new();
    draw_marks(&mut canvas, prepared);
    let marks = document.content(&canvas.finish(), page.height())?;
    for (run, notes) in prepared.layout.runs.iter().zip(&prepared.notes) {
        for sheet in 0..run.sheets {
            for (side, ink, copies) in &plates {
                let at = (run, sheet);
                let (drawn, own) =
                    copies.content(&mut document, &mut None, at, page.height(), |_| {})?;
                let mut contents = vec![drawn];
                if *side == Side::Front {
                    contents.extend(grounds.filter(|_| *ink == Separation::White));
                    contents.push(marks);
                    if let Some(notes) = notes {
                        let mut canvas = Canvas::new();
                        notes::draw_ink(&mut canvas, notes, &prepared.code, *ink);
                        contents.push(document.content(&canvas.finish(), page.height())?);
                    }
                }
                document.page(&Page { media: page, trim: page, bleed: page, contents, own })?;
            }
        }
    }
    document.finish()
}
