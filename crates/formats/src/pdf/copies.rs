//! Copies on their sheets: what all copies of a blank wear is in the file once, what a row of a list brings beside it.

use std::collections::BTreeSet;
use std::io;

use aptum_core::blob::Blobs;
use aptum_core::face::{Art, Ink, Inked, Separation, Side, ink_colour};
use aptum_core::geometry::{BezPath, Rect};
use aptum_core::sheet::{Placement, SheetRun};
use aptum_core::{Prepared, PreparedBlank};

use super::document::{Content, Needs, OVERPRINT, Shared};
use super::print::has_mark_grounds;
use super::{Canvas, Document};

/// What of the copies is drawn, and how.
#[derive(Debug, Clone)]
pub(super) struct Show<'a> {
    /// The side of the sheets.
    pub side: Side,
    /// The inks, the first undermost.
    pub inks: Vec<Separation>,
    /// The ink of panels' names.
    pub words: &'a str,
    /// True where all is black, as a plate for one ink.
    pub in_black: bool,
    /// How far drawings reach beyond their blanks at least, mm.
    pub reach: f64,
}

impl Show<'_> {
    /// A side as it is printed in all of a job's inks.
    pub fn printed(prepared: &Prepared, side: Side) -> Self {
        let inks = separations(prepared, side);
        Self { side, inks, words: ink_colour(), in_black: false, reach: 0.0 }
    }
}

/// The inks that are printed on one side of a job's sheets, beneath the marks too.
pub(super) fn separations(prepared: &Prepared, side: Side) -> Vec<Separation> {
    let has = |separation: &Separation| {
        let mut arts = prepared.blanks().filter_map(|blank| blank.art_on(side));
        let is_beneath_marks = *separation == Separation::White && side == Side::Front;
        arts.any(|art| art.separations().any(|own| own == *separation))
            || (is_beneath_marks && has_mark_grounds(prepared))
    };
    Separation::ALL.into_iter().filter(has).collect()
}

/// Draws the copies of a job onto one side of its sheets.
pub(super) struct Copies<'a> {
    prepared: &'a Prepared,
    blanks: Vec<PreparedBlank<'a>>,
    blobs: &'a dyn Blobs,
    show: Show<'a>,
    /// What was put into the file for all copies.
    shared: BTreeSet<String>,
}

impl<'a> Copies<'a> {
    /// Puts what all copies wear into the file.
    pub fn new(
        document: &mut Document<'_>,
        prepared: &'a Prepared,
        blobs: &'a dyn Blobs,
        show: Show<'a>,
    ) -> io::Result<Self> {
        let blanks = prepared.blanks().collect();
        let mut copies = Self { prepared, blanks, blobs, show, shared: BTreeSet::new() };
        let mut shared = BTreeSet::new();
        for (part, blank) in copies.blanks.iter().enumerate() {
            let Some(art) = blank.art_on(copies.show.side) else { continue };
            for (at, ink) in copies.levels(art) {
                let inks = art.level(at).iter().filter(|own| own.finish.separation() == ink);
                if !inks.clone().any(|inked| inked.is_printed) {
                    continue;
                }
                let name = copies.level(part, at, ink);
                let (drawing, needs) = draw(document, inks, &copies.show, blobs)?;
                document.share(&name, &drawing, copies.bounds(blank, art), &needs)?;
                shared.insert(name);
            }
        }
        copies.shared = shared;
        Ok(copies)
    }

    fn bounds(&self, blank: &PreparedBlank<'_>, art: &Art) -> Rect {
        let reach = art.bleed.max(self.show.reach);
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
        self.blanks.get(at.part).and_then(|blank| blank.art_on(self.show.side))
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
            let transform = self.prepared.transform(self.show.side, blank.part, at);
            for (level, ink) in self.levels(art) {
                let name = self.level(at.part, level, ink);
                if self.shared.contains(&name) {
                    canvas.place(&name, transform);
                }
                let Some(layer) = art.by_row.get(level) else { continue };
                let worn = layer.rows.get(row).map_or(&[][..], Vec::as_slice);
                let worn = worn.iter().filter(|own| own.finish.separation() == ink);
                if worn.clone().all(|inked| !inked.is_printed) {
                    continue;
                }
                let (drawing, needs) = draw(document, worn, &self.show, self.blobs)?;
                let name = format!("row{row}-{name}");
                let bounds = self.bounds(blank, art);
                own.push(document.drawing(&name, &drawing, bounds, &needs)?);
                canvas.place(&name, transform);
            }
        }
        Ok(own)
    }

    /// Ink after ink, every level of a blank's drawing.
    fn levels(&self, art: &Art) -> impl Iterator<Item = (usize, Separation)> + use<> {
        let inks = self.show.inks.clone();
        let levels = art.by_row.len();
        inks.into_iter().flat_map(move |ink| (0..=levels).map(move |at| (at, ink)))
    }

    /// The name under which an ink of a level of a blank's drawing is shared.
    fn level(&self, part: usize, at: usize, ink: Separation) -> String {
        let side = match self.show.side {
            Side::Front => "part",
            Side::Back => "back",
        };
        let ink = ink as u8;
        format!("{side}{part}-{at}-{ink}")
    }
}

/// Layers, the first undermost; and what the drawing needs. A picture whose bytes are missing is left out.
pub(super) fn draw<'a>(
    document: &mut Document<'_>,
    layers: impl Iterator<Item = &'a Inked>,
    show: &Show<'_>,
    blobs: &dyn Blobs,
) -> io::Result<(Vec<u8>, Needs)> {
    let mut canvas = Canvas::new();
    let mut needs = Needs::default();
    for inked in layers.filter(|inked| inked.is_printed) {
        let separation = inked.finish.separation();
        if show.in_black || separation != Separation::Colour {
            let spot = (!show.in_black).then_some(separation);
            draw_in_one(document, &mut canvas, &mut needs, inked, spot, blobs)?;
            continue;
        }
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
            Ink::Words { path } => {
                canvas.within(None, opacity, |canvas| canvas.fill(path, show.words));
            }
            Ink::Picture { blob, place, clip, .. } => {
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

/// A layer in one ink, its opacity as so much of it: a spot ink, or black.
fn draw_in_one(
    document: &mut Document<'_>,
    canvas: &mut Canvas,
    needs: &mut Needs,
    inked: &Inked,
    spot: Option<Separation>,
    blobs: &dyn Blobs,
) -> io::Result<()> {
    let space = spot.map(|separation| document.spot(separation)).transpose()?;
    let fill = |canvas: &mut Canvas, path: &BezPath| match &space {
        Some((name, _)) => canvas.fill_spot(path, name, inked.opacity),
        None => canvas.fill_grey(path, inked.opacity),
    };
    match &inked.ink {
        Ink::Area { path, clip, .. } => {
            canvas.within(clip.as_ref(), None, |canvas| fill(canvas, path));
        }
        Ink::Words { path } => fill(canvas, path),
        Ink::Picture { blob, place, clip, choke } => {
            let Some(bytes) = blobs.bytes(blob) else { return Ok(()) };
            let [a, b, c, d, ..] = place.as_coeffs();
            let choke = [a.hypot(b), c.hypot(d)].map(|side| choke / side);
            if let Some(image) = document.silhouette(blob, &bytes, spot, choke)? {
                let opacity = (inked.opacity < 1.0).then(|| needs.opacity(inked.opacity));
                let state = opacity.as_deref().or(spot.map(|_| OVERPRINT));
                canvas.within(Some(clip), state, |canvas| {
                    canvas.picture(&image.name, *place, image.upright);
                });
                needs.add(image);
            }
        }
    }
    if let Some(space) = space {
        needs.spot(space);
    }
    Ok(())
}
