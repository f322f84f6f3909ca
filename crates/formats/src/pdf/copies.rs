//! Copies on their sheets: what all copies of a blank wear is in the file once, what a row of a list brings beside it.

use std::io;

use aptum_core::blob::Blobs;
use aptum_core::face::{Art, Ink, Inked};
use aptum_core::geometry::Rect;
use aptum_core::sheet::{Placement, SheetRun};
use aptum_core::{Prepared, PreparedBlank};

use super::document::{Content, Needs, Shared};
use super::{Canvas, Document};

/// Draws the copies of a job onto its sheets.
pub(super) struct Copies<'a> {
    blanks: Vec<PreparedBlank<'a>>,
    blobs: &'a dyn Blobs,
    /// The ink of panels' names.
    words: &'a str,
    /// How far drawings reach beyond their blanks at least, mm.
    reach: f64,
}

impl<'a> Copies<'a> {
    /// Puts what all copies wear into the file.
    pub fn new(
        document: &mut Document<'_>,
        prepared: &'a Prepared,
        blobs: &'a dyn Blobs,
        words: &'a str,
        reach: f64,
    ) -> io::Result<Self> {
        let copies = Self { blanks: prepared.blanks().collect(), blobs, words, reach };
        for (part, blank) in copies.blanks.iter().enumerate() {
            let Some(art) = blank.art else { continue };
            for at in 0..=art.by_row.len() {
                let (drawing, needs) = draw(document, art.level(at), words, blobs)?;
                document.share(&level(part, at), &drawing, copies.bounds(blank, art), &needs)?;
            }
        }
        Ok(copies)
    }

    fn bounds(&self, blank: &PreparedBlank<'_>, art: &Art) -> Rect {
        let reach = art.bleed.max(self.reach);
        blank.part.bounds.inflate(reach, reach)
    }

    /// The copies of sheet `sheet` (from 0) of a run, and what `also` draws with them, as a content; and what that page
    /// alone needs. Where all sheets of the run are alike, the first one’s content, in `first`, serves the others.
    pub fn content(
        &self,
        document: &mut Document<'_>,
        first: &mut Option<Content>,
        (run, sheet): (&SheetRun, u32),
        height: f64,
        also: impl FnOnce(&mut Canvas),
    ) -> io::Result<(Content, Vec<Shared>)> {
        if let Some(content) = first.filter(|_| !self.differ(run)) {
            return Ok((content, Vec::new()));
        }
        let mut canvas = Canvas::new();
        let own = self.place(document, &mut canvas, run, sheet)?;
        also(&mut canvas);
        let content = document.content(&canvas.finish(), height)?;
        Ok((*first.insert(content), own))
    }

    /// True where sheets that are cut alike are printed differently.
    fn differ(&self, run: &SheetRun) -> bool {
        run.placements.iter().any(|at| self.art(at).is_some_and(|art| !art.by_row.is_empty()))
    }

    fn art(&self, at: &Placement) -> Option<&'a Art> {
        self.blanks.get(at.part).and_then(|blank| blank.art)
    }

    /// Draws the copies of sheet `sheet` (from 0) of a run; gives what that page alone needs.
    fn place(
        &self,
        document: &mut Document<'_>,
        canvas: &mut Canvas,
        run: &SheetRun,
        sheet: u32,
    ) -> io::Result<Vec<Shared>> {
        let mut own = Vec::new();
        for at in &run.placements {
            let (Some(blank), Some(art)) = (self.blanks.get(at.part), self.art(at)) else {
                continue;
            };
            let row = if art.by_row.is_empty() {
                0
            } else {
                run.copy(at, sheet).saturating_sub(1) as usize
            };
            for level_at in 0..=art.by_row.len() {
                canvas.place(&level(at.part, level_at), at.transform());
                let Some(layer) = art.by_row.get(level_at) else { continue };
                let worn = layer.rows.get(row).map_or(&[][..], Vec::as_slice);
                if worn.iter().all(|inked| !inked.is_printed) {
                    continue;
                }
                let (drawing, needs) = draw(document, worn, self.words, self.blobs)?;
                let name = format!("row{row}-{}-{level_at}", at.part);
                let bounds = self.bounds(blank, art);
                own.push(document.drawing(&name, &drawing, bounds, &needs)?);
                canvas.place(&name, at.transform());
            }
        }
        Ok(own)
    }
}

/// Layers, the first undermost, the names of panels in so dark an ink; and what the drawing needs. A picture whose bytes
/// are missing is left out.
pub(super) fn draw(
    document: &mut Document<'_>,
    layers: &[Inked],
    words: &str,
    blobs: &dyn Blobs,
) -> io::Result<(Vec<u8>, Needs)> {
    let mut canvas = Canvas::new();
    let mut needs = Needs::default();
    for inked in layers.iter().filter(|inked| inked.is_printed) {
        let opacity = (inked.opacity < 1.0).then(|| needs.opacity(inked.opacity));
        let opacity = opacity.as_deref();
        match &inked.ink {
            Ink::Area { path, colour, running: Some(running), clip } => {
                let name = document.running(colour, running)?;
                canvas.within(clip.as_ref(), opacity, |canvas| canvas.shade(path, &name.0));
                needs.shade(name);
            }
            Ink::Area { path, colour, running: None, clip } => {
                canvas.within(clip.as_ref(), opacity, |canvas| canvas.fill(path, colour));
            }
            Ink::Words { path } => canvas.within(None, opacity, |canvas| canvas.fill(path, words)),
            Ink::Picture { blob, place, clip } => {
                let Some(bytes) = blobs.bytes(blob) else { continue };
                if let Some(image) = document.picture(blob, &bytes)? {
                    canvas.within(Some(clip), opacity, |canvas| {
                        canvas.picture(&image.name, *place, image.upright);
                    });
                    needs.add(image);
                }
            }
        }
    }
    Ok((canvas.finish(), needs))
}

/// The name under which a level of a blank's drawing is shared.
fn level(part: usize, at: usize) -> String {
    format!("part{part}-{at}")
}
