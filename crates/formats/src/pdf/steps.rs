//! The lines of sheets as processing steps (ISO 19593-1): an optional-content group for each kind, that says what it is, and
//! a separation for each that overprints, for an outside finisher or a machine that takes art and lines in one file.

use std::io::{self, Write};

use aptum_core::blob::Blobs;
use aptum_core::face::Side;
use aptum_core::geometry::BezPath;
use aptum_core::{Job, LineKind, Prepared};

use super::document::Needs;
use super::marks::draw_marks;
use super::print::mark_grounds;
use super::{Canvas, Copies, Document, Page, Show, notes};
use crate::line_style::line_style;

/// What lies on the pages.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StepsWith {
    /// Lines alone.
    Nothing,
    /// Art and marks beneath, as in the print file.
    Art,
}

/// A page for each sheet, in register with the print file.
///
/// # Errors
/// What writing to `out` says.
pub fn steps_pdf(
    job: &Job,
    prepared: &Prepared,
    with: StepsWith,
    blobs: &dyn Blobs,
    out: &mut dyn Write,
) -> io::Result<()> {
    let page = prepared.windows.page;
    let kinds: Vec<LineKind> =
        prepared.kinds().into_iter().filter(|kind| kind.processing_step().is_some()).collect();
    let mut document = Document::with_steps(&job.name, &kinds, out)?;
    let art = match with {
        StepsWith::Nothing => None,
        StepsWith::Art => {
            let show = Show::printed(prepared, Side::Front);
            Some(Copies::new(&mut document, prepared, blobs, show)?)
        }
    };
    let grounds =
        art.as_ref().map(|_| mark_grounds(&mut document, prepared, false)).transpose()?.flatten();
    let mut canvas = Canvas::new();
    draw_marks(&mut canvas, prepared);
    let marks = document.content(&canvas.finish(), page.height())?;
    let mut number = 0;
    for (run_number, (run, notes)) in prepared.layout.runs.iter().zip(&prepared.notes).enumerate() {
        let plan = prepared.plan(&job.tooling, &run.placements);
        let mut canvas = Canvas::new();
        let mut own_lines = Vec::new();
        for kind in &kinds {
            let paths: BezPath = plan.of_kind(*kind).flat_map(BezPath::iter).collect();
            if paths.elements().is_empty() {
                continue;
            }
            let ink = document.line_ink(*kind)?;
            let mut lines = Canvas::new();
            lines.stroke_spot(&paths, &ink.0, line_style(*kind).width);
            let mut needs = Needs::default();
            needs.spot(ink);
            let name = format!("lines-{run_number}-{}", kind.id());
            own_lines.push(document.drawing(&name, &lines.finish(), page, &needs)?);
            canvas.step(kind.id(), &name);
        }
        let lines = document.content(&canvas.finish(), page.height())?;
        let mut first = None;
        for sheet in 0..run.sheets {
            number += 1;
            let mut contents = Vec::new();
            let mut own = own_lines.clone();
            if let Some(art) = &art {
                let scale = |canvas: &mut Canvas| {
                    if let Some(notes) = notes {
                        notes::draw_scale(canvas, notes, job.unit);
                    }
                };
                let at = (run, sheet);
                let (drawn, of_art) =
                    art.content(&mut document, &mut first, at, page.height(), scale)?;
                contents.extend(grounds);
                contents.extend([drawn, marks]);
                own.extend(of_art);
                let code = notes::code_ink(prepared, run_number, number);
                if !code.elements().is_empty() {
                    let mut canvas = Canvas::new();
                    canvas.fill_black(&code);
                    contents.push(document.content(&canvas.finish(), page.height())?);
                }
            }
            contents.push(lines);
            document.page(&Page { media: page, trim: page, bleed: page, contents, own })?;
        }
    }
    if number == 0 {
        let contents = vec![marks];
        document.page(&Page { media: page, trim: page, bleed: page, contents, own: Vec::new() })?;
    }
    document.finish()
}
