//! The hand-cut file: lines printed by kind, with a legend, for a knife, a ruler and a bone
//! folder. No marks.

use std::collections::{BTreeMap, BTreeSet};

use aptum_core::form::Part;
use aptum_core::geometry::{BezPath, Point, Rect, Vec2};
use aptum_core::sheet::FreeRoom;
use aptum_core::{Job, LineKind, Prepared};

use super::print::part_name;
use super::{Canvas, Document, Page, notes};
use crate::lettering::{Anchor, letter};
use crate::line_style::line_style;

/// Size of a legend's row, mm.
const ROW: Vec2 = Vec2::new(38.0, 5.0);

/// Lines on top of the art, a page per sheet.
///
/// The legend goes where copies leave room for it; where they leave none it has a page of its own
/// at the end.
#[must_use]
pub fn hand_cut_pdf(job: &Job, prepared: &Prepared) -> Vec<u8> {
    let page = prepared.windows.page;
    let mut document = Document::new(&job.name);
    let mut lines: BTreeMap<LineKind, BezPath> = BTreeMap::new();
    for (index, blank) in prepared.blanks().enumerate() {
        let (part, art) = (blank.part, blank.art);
        let own = lines_by_kind(part);
        let mut canvas = Canvas::new();
        if let Some(art) = art {
            if let Some(colour) = &art.colour {
                canvas.fill(&art.fill, colour);
            }
            for caption in &art.captions {
                canvas.fill(
                    &letter(&caption.text, caption.centre, caption.height, Anchor::Middle),
                    "#5b6764",
                );
            }
        }
        for (kind, path) in &own {
            canvas.stroke(path, line_style(*kind));
        }
        let reach = art.map_or(0.0, |art| art.bleed).max(1.0);
        document.share(&part_name(index), &canvas.finish(), part.bounds.inflate(reach, reach));
        for (kind, path) in own {
            lines.entry(kind).or_default().extend(path.iter());
        }
    }
    let legends = legends(prepared, lines.len());
    let sheets = prepared.layout.sheets();
    let mut number = 0;
    for ((run, notes), legend) in prepared.layout.runs.iter().zip(&prepared.notes).zip(&legends) {
        let mut canvas = Canvas::new();
        for placement in &run.placements {
            canvas.place(&part_name(placement.part), placement.transform());
        }
        if let Some(notes) = notes {
            notes::draw_scale(&mut canvas, notes, job.unit);
        }
        if let Some(place) = legend {
            draw_legend(&mut canvas, *place, &lines);
        }
        let copies = document.content(&canvas.finish(), page.height());
        for _ in 0..run.sheets {
            number += 1;
            let mut contents = vec![copies];
            if let Some(notes) = notes {
                let mut canvas = Canvas::new();
                notes::draw_code(&mut canvas, notes, &prepared.code, number, sheets);
                contents.push(document.content(&canvas.finish(), page.height()));
            }
            document.page(Page { media: page, trim: page, bleed: page, contents });
        }
    }
    if legends.iter().all(Option::is_none) {
        let mut canvas = Canvas::new();
        let size = legend_size(lines.len());
        draw_legend(&mut canvas, Rect::from_origin_size((20.0, 20.0), (size.x, size.y)), &lines);
        let contents = vec![document.content(&canvas.finish(), page.height())];
        document.page(Page { media: page, trim: page, bleed: page, contents });
    }
    document.finish()
}

/// How many pages the file has: a sheet each, and one for a legend that has room on none.
#[must_use]
pub fn hand_cut_pages(prepared: &Prepared) -> u32 {
    let kinds: BTreeSet<LineKind> =
        prepared.blanks().flat_map(|blank| lines_by_kind(blank.part).into_keys()).collect();
    let legends = legends(prepared, kinds.len());
    prepared.layout.sheets() + u32::from(legends.iter().all(Option::is_none))
}

fn legend_size(kinds: usize) -> Vec2 {
    Vec2::new(ROW.x, ROW.y * f64::from(u32::try_from(kinds).unwrap_or(0)))
}

/// Where the legend of so many kinds stands on each run of sheets, if there is room.
fn legends(prepared: &Prepared, kinds: usize) -> Vec<Option<Rect>> {
    let blanks = prepared.blank_paths();
    let runs = prepared.layout.runs.iter().zip(&prepared.notes);
    runs.map(|(run, notes)| {
        let mut room = FreeRoom::new(&prepared.windows, &blanks, &run.placements);
        if let Some(notes) = notes {
            room.without(notes.place);
        }
        room.take(legend_size(kinds))
    })
    .collect()
}

/// Every line of one blank by its kind, in the order of work.
pub(crate) fn lines_by_kind(part: &Part) -> BTreeMap<LineKind, BezPath> {
    let mut lines: BTreeMap<LineKind, BezPath> = BTreeMap::new();
    for line in &part.lines {
        lines.entry(part.kind(line.kind)).or_default().extend(line.path.iter());
    }
    lines.entry(part.edge).or_default().extend(part.outline.iter());
    lines
}

fn draw_legend(canvas: &mut Canvas, place: Rect, lines: &BTreeMap<LineKind, BezPath>) {
    let mut y = place.y0 + ROW.y / 2.0;
    for kind in lines.keys() {
        let mut sample = BezPath::new();
        sample.move_to((place.x0 + 1.0, y));
        sample.line_to((place.x0 + 17.0, y));
        canvas.stroke(&sample, line_style(*kind));
        let words = letter(kind.name(), Point::new(place.x0 + 19.0, y + 0.9), 1.8, Anchor::Start);
        canvas.fill_black(&words);
        y += ROW.y;
    }
}
