//! The hand-cut file: lines printed by kind, with a legend, for a knife, a ruler and a bone
//! folder. No marks.

use std::collections::BTreeSet;
use std::io::{self, Write};

use aptum_core::blob::Blobs;
use aptum_core::face::{Separation, Side};
use aptum_core::geometry::{BezPath, Point, Rect};
use aptum_core::sheet::{LEGEND_ROW, legend_size};
use aptum_core::{Job, LineKind, Prepared};

use super::{Canvas, Copies, Document, Page, Show, notes};
use crate::line_style::line_style;
use aptum_core::lettering::{Anchor, letter};

/// Lines on top of the art, a page per sheet.
///
/// The legend goes where copies leave room for it; where they leave none it has a page of its own
/// at the end.
///
/// # Errors
/// What writing to `out` says.
pub fn hand_cut_pdf(
    job: &Job,
    prepared: &Prepared,
    blobs: &dyn Blobs,
    out: &mut dyn Write,
) -> io::Result<()> {
    let page = prepared.windows.page;
    let mut document = Document::new(&job.name, out)?;
    let show = Show {
        words: "#5b6764",
        reach: 1.0,
        inks: vec![Separation::Colour],
        ..Show::printed(prepared, Side::Front)
    };
    let art = Copies::new(&mut document, prepared, blobs, show)?;
    let kinds = prepared.kinds();
    let sheets = prepared.layout.sheets();
    let mut number = 0;
    for ((run, notes), legend) in
        prepared.layout.runs.iter().zip(&prepared.notes).zip(&prepared.legends)
    {
        let mut lines = Canvas::new();
        let plan = prepared.plan(&job.tooling, &run.placements);
        for kind in &kinds {
            let paths: BezPath = plan.of_kind(*kind).flat_map(BezPath::iter).collect();
            lines.stroke(&paths, line_style(*kind));
        }
        if let Some(notes) = notes {
            notes::draw_scale(&mut lines, notes, job.unit);
        }
        if let Some(place) = legend {
            draw_legend(&mut lines, *place, &kinds);
        }
        let lines = document.content(&lines.finish(), page.height())?;
        let mut first = None;
        for sheet in 0..run.sheets {
            number += 1;
            let at = (run, sheet);
            let (drawn, own) = art.content(&mut document, &mut first, at, page.height(), |_| ())?;
            let mut contents = vec![drawn, lines];
            if let Some(notes) = notes {
                let mut canvas = Canvas::new();
                notes::draw_code(&mut canvas, notes, &prepared.code, number, sheets);
                contents.push(document.content(&canvas.finish(), page.height())?);
            }
            document.page(&Page { media: page, trim: page, bleed: page, contents, own })?;
        }
    }
    if prepared.legends.iter().all(Option::is_none) {
        let mut canvas = Canvas::new();
        let size = legend_size(kinds.len());
        draw_legend(&mut canvas, Rect::from_origin_size((20.0, 20.0), (size.x, size.y)), &kinds);
        let contents = vec![document.content(&canvas.finish(), page.height())?];
        document.page(&Page { media: page, trim: page, bleed: page, contents, own: Vec::new() })?;
    }
    document.finish()
}

fn draw_legend(canvas: &mut Canvas, place: Rect, kinds: &BTreeSet<LineKind>) {
    let mut y = place.y0 + LEGEND_ROW.y / 2.0;
    for kind in kinds {
        let mut sample = BezPath::new();
        sample.move_to((place.x0 + 1.0, y));
        sample.line_to((place.x0 + 17.0, y));
        canvas.stroke(&sample, line_style(*kind));
        let words = letter(kind.name(), Point::new(place.x0 + 19.0, y + 0.9), 1.8, Anchor::Start);
        canvas.fill_black(&words);
        y += LEGEND_ROW.y;
    }
}
