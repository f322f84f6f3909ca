//! The print file: art and marks, no lines.

use std::io::{self, Write};

use aptum_core::blob::Blobs;
use aptum_core::face::{Separation, Side};
use aptum_core::geometry::{Affine, Rect, Shape};
use aptum_core::{Job, Prepared};

use super::document::{Content, Needs};
use super::marks::draw_marks;
use super::{Canvas, Copies, Document, Page, Show, notes};

/// What is printed, a page per sheet, followed by its back where pieces are printed behind; a job that is only cut has
/// marks alone.
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

    let show = |side| Show::printed(prepared, side);
    let art = Copies::new(&mut document, prepared, blobs, show(Side::Front))?;
    let behind = prepared
        .has_backs()
        .then(|| Copies::new(&mut document, prepared, blobs, show(Side::Back)))
        .transpose()?;

    let grounds = mark_grounds(&mut document, prepared, false)?;
    let mut canvas = Canvas::new();
    draw_marks(&mut canvas, prepared);
    let marks = document.content(&canvas.finish(), page.height())?;

    let blanks: Vec<_> = prepared.blanks().collect();
    let mut number = 0;
    for (run_number, (run, notes)) in prepared.layout.runs.iter().zip(&prepared.notes).enumerate() {
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
        let (mut first, mut first_back) = (None, None);
        for sheet in 0..run.sheets {
            number += 1;
            let scale = |canvas: &mut Canvas| {
                if let Some(notes) = notes {
                    notes::draw_scale(canvas, notes, job.unit);
                }
            };
            let at = (run, sheet);
            let (drawn, own) = art.content(&mut document, &mut first, at, page.height(), scale)?;
            let mut contents: Vec<_> = grounds.into_iter().chain([drawn, marks]).collect();
            let code = notes::code_ink(prepared, run_number, number);
            if !code.elements().is_empty() {
                let mut canvas = Canvas::new();
                canvas.fill_black(&code);
                contents.push(document.content(&canvas.finish(), page.height())?);
            }
            document.page(&Page { media: page, trim, bleed, contents, own })?;
            let Some(behind) = &behind else { continue };
            let (drawn, own) =
                behind.content(&mut document, &mut first_back, at, page.height(), |_| {})?;
            let [trim, bleed] = [trim, bleed].map(|own| prepared.turned.transform_rect_bbox(own));
            document.page(&Page { media: page, trim, bleed, contents: vec![drawn], own })?;
        }
    }
    if number == 0 {
        document.page(&empty_page(page, marks))?;
    }
    document.finish()
}

/// True where a face asks for white beneath the marks, and there are some.
pub(super) fn has_mark_grounds(prepared: &Prepared) -> bool {
    let mut faces = prepared.pieces.iter().filter_map(|piece| piece.job_piece.face.as_ref());
    faces.any(|face| face.white.under_marks) && !prepared.marks.grounds().is_empty()
}

/// White beneath the marks, where a face asks for it: the spot ink, or black on a plate.
pub(super) fn mark_grounds(
    document: &mut Document<'_>,
    prepared: &Prepared,
    in_black: bool,
) -> io::Result<Option<Content>> {
    if !has_mark_grounds(prepared) {
        return Ok(None);
    }
    let grounds = prepared.marks.grounds();
    let page = prepared.windows.page;
    let (mut canvas, mut needs) = (Canvas::new(), Needs::default());
    let spot = document.spot(Separation::White)?;
    for ground in grounds {
        let path = ground.to_path(0.1);
        if in_black {
            canvas.fill_grey(&path, 1.0);
        } else {
            canvas.fill_spot(&path, &spot.0, 1.0);
        }
    }
    needs.spot(spot);
    document.share("mark-grounds", &canvas.finish(), page, &needs)?;
    let mut canvas = Canvas::new();
    canvas.place("mark-grounds", Affine::IDENTITY);
    document.content(&canvas.finish(), page.height()).map(Some)
}

/// A PDF has at least one page: marks alone, when no copy fits.
fn empty_page(page: Rect, marks: Content) -> Page {
    Page { media: page, trim: page, bleed: page, contents: vec![marks], own: Vec::new() }
}
