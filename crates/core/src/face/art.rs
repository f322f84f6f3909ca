//! A face as it is printed on one blank: areas, outlines of words and pictures, each where it lies.

use std::collections::BTreeMap;

use kurbo::{Affine, BezPath, Point, Shape, Stroke, StrokeOpts};

use super::finish::Finish;
use super::printer::{Printer, Put};
use super::upright::Uprights;
use super::{Face, List};
use crate::blob::BlobId;
use crate::form::{Part, PrintedLine};
use crate::geometry::Region;
use crate::id::LayerId;

/// What one layer puts on a blank.
#[derive(Debug, Clone, PartialEq)]
pub struct Inked {
    /// The layer.
    pub layer: LayerId,
    /// How much of it covers what is below, 0 to 1.
    pub opacity: f64,
    /// False where it is only shown.
    pub is_printed: bool,
    /// What it is printed in.
    pub finish: Finish,
    /// What it is.
    pub ink: Ink,
}

/// What is put on a blank, in the blank's coordinates.
#[derive(Debug, Clone, PartialEq)]
pub enum Ink {
    /// A colour, flat or running into another.
    Area {
        /// What is coloured, bleed included.
        path: BezPath,
        /// As `#rrggbb`.
        colour: String,
        /// What it runs into.
        running: Option<Running>,
        /// What of it is printed, where that is not all.
        clip: Option<BezPath>,
    },
    /// The words that name panels.
    Words {
        /// Their outlines.
        path: BezPath,
    },
    /// A picture.
    Picture {
        /// Its bytes.
        blob: BlobId,
        /// From the picture's unit square, `y` down from its top left, to where it lies.
        place: Affine,
        /// What of it is printed: its area with its bleed.
        clip: BezPath,
        /// How far it stays within what it covers, mm; below zero it goes beyond.
        choke: f64,
    },
}

impl Ink {
    /// It where `to` takes it.
    fn moved(&self, to: Affine) -> Self {
        match self.clone() {
            Self::Area { path, colour, running, clip } => Self::Area {
                path: to * path,
                colour,
                running: running.map(|own| Running { ends: own.ends.map(|end| to * end), ..own }),
                clip: clip.map(|clip| to * clip),
            },
            Self::Words { path } => Self::Words { path: to * path },
            Self::Picture { blob, place, clip, choke } => {
                Self::Picture { blob, place: to * place, clip: to * clip, choke }
            }
        }
    }
}

/// What a colour runs into, evenly, along a line.
#[derive(Debug, Clone, PartialEq)]
pub struct Running {
    /// As `#rrggbb`.
    pub to: String,
    /// Where the first colour is alone, and where the second is.
    pub ends: [Point; 2],
}

/// How wide lines of a drawing are printed, mm: a point (common practice).
const LINE: f64 = 0.35;

/// The ink of words.
#[must_use]
pub const fn ink_colour() -> &'static str {
    "#22302f"
}

/// What is printed on one blank, in its coordinates.
#[derive(Debug, Clone, PartialEq)]
pub struct Art {
    /// The layers that are the same on every copy, the first printed first; those that print nothing here are left out.
    pub layers: Vec<Inked>,
    /// The layers that each copy has of its own.
    pub by_row: Vec<ByRow>,
    /// Everything that is printed, bleed included: what must lie in the print window.
    pub printed: Region,
    /// What of it is printed up to a cut and past it, bleed included.
    pub to_edge: BezPath,
    /// The bleed in force, mm.
    pub bleed: f64,
}

/// A layer that differs from row to row of a list.
#[derive(Debug, Clone, PartialEq)]
pub struct ByRow {
    /// How many of the layers that are the same everywhere lie below it.
    pub above: usize,
    /// What it puts on the copy of each row.
    pub rows: Vec<Vec<Inked>>,
}

impl Art {
    /// Nothing that is printed, with a bleed of so many mm.
    #[must_use]
    pub fn bare(bleed: f64) -> Self {
        Self {
            layers: Vec::new(),
            by_row: Vec::new(),
            printed: Region::empty(),
            to_edge: BezPath::new(),
            bleed,
        }
    }

    /// Puts lines with their colours below everything else, drawn [`LINE`] wide, as far as they lie on the blank.
    pub fn underlay(&mut self, lines: &[PrintedLine], blank: &BezPath) {
        let mut by_colour: BTreeMap<&str, BezPath> = BTreeMap::new();
        for PrintedLine { path, colour, width } in lines {
            let style = Stroke::new(if *width > 0.0 { *width } else { LINE });
            let stroke = kurbo::stroke(path.iter(), &style, &StrokeOpts::default(), 0.01);
            by_colour.entry(colour).or_default().extend(stroke.iter());
        }
        let reach = by_colour.values().map(BezPath::bounding_box);
        if let Some(reach) = reach.reduce(|all, next| all.union(next)) {
            let reach = reach.intersect(blank.bounding_box());
            self.printed = self.printed.union(&Region::rect(reach));
        }
        let drawn = by_colour.into_iter().map(|(colour, path)| Inked {
            layer: LayerId("lines".to_owned()),
            opacity: 1.0,
            is_printed: true,
            finish: Finish::Colour,
            ink: Ink::Area {
                path,
                colour: if colour.is_empty() { ink_colour() } else { colour }.to_owned(),
                running: None,
                clip: Some(blank.clone()),
            },
        });
        let drawn: Vec<Inked> = drawn.collect();
        let count = drawn.len();
        self.layers.splice(0..0, drawn);
        for layer in &mut self.by_row {
            layer.above += count;
        }
    }

    /// Puts on top what other blanks wear, each as the copy of a row and where it is taken.
    pub fn wear<'a>(&mut self, others: impl Iterator<Item = (&'a Self, usize, Affine)>) {
        let mut reach = Vec::new();
        for (other, row, to) in others {
            let inks = other.inks(row);
            let moved = inks.map(|inked| Inked { ink: inked.ink.moved(to), ..inked.clone() });
            self.layers.extend(moved);
            reach.extend(other.printed.transformed(to).outer_rings());
        }
        // All at once: one after the other each would be laid over all before it.
        let reach = Region::of_rings(reach.into_iter().map(std::iter::once)).united();
        self.printed = self.printed.union(&reach);
    }

    /// What is the same on every copy and has so many of the layers that differ below it.
    #[must_use]
    pub fn level(&self, at: usize) -> &[Inked] {
        let end = |at: usize| self.by_row.get(at).map_or(self.layers.len(), |layer| layer.above);
        let from = at.checked_sub(1).map_or(0, end);
        self.layers.get(from..end(at)).unwrap_or_default()
    }

    /// What is printed on the copy of a row, the first undermost.
    pub fn inks(&self, row: usize) -> impl Iterator<Item = &Inked> {
        let own = move |at: usize| self.by_row.get(at).and_then(|layer| layer.rows.get(row));
        let levels = 0..=self.by_row.len();
        let all =
            levels.flat_map(move |at| self.level(at).iter().chain(own(at).into_iter().flatten()));
        all.filter(|inked| inked.is_printed)
    }

    /// Everything that is printed on any copy.
    pub fn all(&self) -> impl Iterator<Item = &Inked> {
        let rows = self.by_row.iter().flat_map(|layer| layer.rows.iter().flatten());
        self.layers.iter().chain(rows).filter(|inked| inked.is_printed)
    }

    /// The flat colour and the area it covers, where there is one.
    #[must_use]
    pub fn area(&self) -> Option<(&BezPath, &str)> {
        let printed = |inked: &&Inked| inked.is_printed && inked.finish == Finish::Colour;
        self.layers.iter().filter(printed).find_map(|inked| match &inked.ink {
            Ink::Area { path, colour, .. } => Some((path, colour.as_str())),
            _ => None,
        })
    }

    /// It seen in a mirror that takes places where `turned` says.
    #[must_use]
    pub fn mirrored(&self, turned: Affine) -> Self {
        let all = |inks: &[Inked]| -> Vec<Inked> {
            inks.iter()
                .map(|inked| Inked { ink: inked.ink.moved(turned), ..inked.clone() })
                .collect()
        };
        let by_row = self
            .by_row
            .iter()
            .map(|layer| ByRow { rows: layer.rows.iter().map(|row| all(row)).collect(), ..*layer });
        Self {
            layers: all(&self.layers),
            by_row: by_row.collect(),
            printed: self.printed.transformed(turned),
            to_edge: turned * self.to_edge.clone(),
            bleed: self.bleed,
        }
    }

    /// How many elements its paths have.
    pub(crate) fn elements(&self) -> usize {
        let rows = self.by_row.iter().flat_map(|layer| layer.rows.iter().flatten());
        let layers = self.layers.iter().chain(rows).map(|inked| match &inked.ink {
            Ink::Area { path, .. } | Ink::Words { path } => path.elements().len(),
            Ink::Picture { clip, .. } => clip.elements().len() + 4,
        });
        layers.sum::<usize>() + self.to_edge.elements().len()
    }

    /// The outlines of all words.
    #[must_use]
    pub fn words(&self) -> BezPath {
        self.all().fold(BezPath::new(), |mut all, inked| {
            if let Ink::Words { path } = &inked.ink {
                all.extend(path.iter());
            }
            all
        })
    }
}

impl Face {
    /// What is printed on a copy of a blank, its bleed held to `most` mm, and on the copies of a list's rows.
    #[must_use]
    pub fn print(&self, list: Option<&List>, part: &Part, uprights: &Uprights, most: f64) -> Art {
        let bleed = self.bleed.min(most).max(0.0);
        let mut art = Art::bare(bleed);
        let mut to_edge = Region::empty();
        for layer in self.layers.iter().filter(|layer| !layer.hidden) {
            let Some(printer) = Printer::new(self, layer, part, uprights, bleed) else { continue };
            let inked = |ink: Ink| Inked {
                layer: layer.id.clone(),
                opacity: layer.opacity,
                is_printed: !layer.only_shown,
                finish: layer.finish,
                ink,
            };
            let mut whole = Put::default();
            if let Some(list) = list.filter(|list| list.fills(layer)) {
                let mut of_row = |row: usize| -> Vec<Inked> {
                    let own = list.of_row(layer, row);
                    let mut put = own.map_or_else(Put::default, |own| printer.put(&own.kind));
                    whole.reach(&put);
                    std::mem::take(&mut put.inks).into_iter().map(inked).collect()
                };
                let rows = (0..list.rows.len()).map(&mut of_row).collect();
                art.by_row.push(ByRow { above: art.layers.len(), rows });
            } else {
                whole = printer.put(&layer.kind);
                art.layers.extend(std::mem::take(&mut whole.inks).into_iter().map(inked));
            }
            if layer.only_shown {
                continue;
            }
            if let Some(inside) = whole.inside {
                art.printed = art.printed.union(&Region::rect(inside));
            }
            if let Some(seen) = whole.seen {
                let reach = if whole.is_to_edge { &mut to_edge } else { &mut art.printed };
                *reach = reach.union(&seen);
            }
        }
        art.printed = art.printed.union(&to_edge);
        art.to_edge = to_edge.to_path();
        self.whiten(&mut art);
        art
    }
}
