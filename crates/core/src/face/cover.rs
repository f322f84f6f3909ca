//! Where a picture covers what lies below it, and cuts along which it does not.

use std::collections::BTreeMap;
use std::fmt;
use std::sync::Arc;

use super::art::Ink;
use super::printer::Printer;
use super::row_checks::more_rows;
use super::{Beyond, Face, Layer, LayerKind, List, Uprights};
use crate::blob::BlobId;
use crate::check::{Check, Drawing, Stage, State};
use crate::error::{Change, Remedy};
use crate::form::Part;
use crate::geometry::{Affine, BezPath, Point, Shape, along, contours, flattened, path_text};
use crate::memory::Weighty;
use crate::pixels::Pixels;
use crate::units::{Unit, measure};

/// Most cells of a side.
const CELLS: usize = 256;

/// A cell is clear where it covers less than half.
const CLEAR: u32 = 128;

/// How closely cuts are looked at, mm, and the least length that is worth a word.
const STEP: f64 = 0.5;
const LEAST: f64 = 2.0;

/// What reaches a cut but for this, mm, reaches it.
const AT_CUT: f64 = 0.05;

/// Where a picture covers what lies below it, in cells; and what colour it has there, on the whole.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Cover {
    sides: [usize; 2],
    clear: Vec<bool>,
    colour: [u8; 3],
}

impl Weighty for Cover {
    fn weight(&self) -> usize {
        self.clear.len() + 100
    }
}

impl Cover {
    /// Of a picture that covers all.
    #[must_use]
    pub fn whole() -> Self {
        Self { sides: [1, 1], clear: vec![false], colour: [255; 3] }
    }

    /// Of the pixels of a picture, the right way up.
    #[must_use]
    pub fn of(pixels: &Pixels) -> Self {
        let sides = pixels.sides();
        let cells = sides.map(|side| side.clamp(1, CELLS));
        let mut sums = vec![(0u32, 0u32); cells[0] * cells[1]];
        let (mut colour, mut weight) = ([0u64; 3], 0u64);
        for (y, row) in pixels.rows().enumerate() {
            let row_of_cells = y * cells[1] / sides[1] * cells[0];
            for (x, [red, green, blue, covers]) in row.iter().enumerate() {
                let (covered, count) = &mut sums[row_of_cells + x * cells[0] / sides[0]];
                (*covered, *count) = (*covered + u32::from(*covers), *count + 1);
                let covers = u64::from(*covers);
                weight += covers;
                for (sum, own) in colour.iter_mut().zip([red, green, blue]) {
                    *sum += covers * u64::from(*own);
                }
            }
        }
        let clear = sums.into_iter().map(|(covered, count)| covered < CLEAR * count).collect();
        let colour = colour.map(|sum| u8::try_from(sum / weight.max(1)).unwrap_or(u8::MAX));
        Self { sides: cells, clear, colour }
    }

    /// True where a place of its unit square, `y` down, is clear.
    fn is_clear(&self, at: Point) -> bool {
        let cell = |share: f64, cells: usize| {
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
            let at = (share.clamp(0.0, 1.0) * cells as f64) as usize;
            at.min(cells - 1)
        };
        let [across, along] = self.sides;
        self.clear[cell(at.y, along) * across + cell(at.x, across)]
    }
}

/// The cover of a picture, where its bytes are here. What it is is told by the blob that names it.
#[derive(Clone, Default)]
pub struct KnownCover(pub Option<Arc<Cover>>);

impl PartialEq for KnownCover {
    fn eq(&self, _: &Self) -> bool {
        true
    }
}

impl fmt::Debug for KnownCover {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.write_str(if self.0.is_some() { "known" } else { "unknown" })
    }
}

/// A check for a picture that reaches a cut and is clear there, with no colour beneath it: the card shows. Where the rows
/// of a list have pictures of their own, the worst of them.
pub(super) fn clear_at_cut(
    face: &Face,
    list: Option<&List>,
    layer: &Layer,
    part: &Part,
    uprights: &Uprights,
    unit: Unit,
) -> Option<Check> {
    let LayerKind::Picture(picture) = &layer.kind else { return None };
    let is_filled = matches!(picture.beyond, Beyond::Colour(_));
    if is_filled || layer.only_shown || face.is_on_colour(layer) || layer.is_traced(part) {
        return None;
    }
    let see = |layer: &Layer| Showing::of(face, layer, part, uprights);
    let Some(list) = list.filter(|list| list.fills(layer)) else {
        return Some(see(layer)?.told(layer, part, unit));
    };
    let mut seen: BTreeMap<BlobId, Option<Showing>> = BTreeMap::new();
    let mut rows = 0;
    let mut worst: Option<(Showing, usize)> = None;
    for row in 0..list.rows.len() {
        let Some(own) = list.of_row(layer, row) else { continue };
        let LayerKind::Picture(picture) = &own.kind else { continue };
        let known = seen.entry(picture.blob.clone()).or_insert_with(|| see(&own));
        let Some(showing) = known else { continue };
        rows += 1;
        if worst.as_ref().is_none_or(|(known, _)| showing.long > known.long) {
            worst = Some((showing.clone(), row));
        }
    }
    let (showing, row) = worst?;
    let check = showing.told(layer, part, unit);
    let others = more_rows(rows - 1);
    let words = format!("{} in {}{others}", check.verdict, list.told(row));
    Some(check.saying(words))
}

/// Where the card shows along the cuts of a part.
#[derive(Clone)]
struct Showing {
    long: f64,
    place: BezPath,
    /// The picture's own colour.
    colour: [u8; 3],
}

impl Showing {
    fn of(face: &Face, layer: &Layer, part: &Part, uprights: &Uprights) -> Option<Self> {
        let LayerKind::Picture(picture) = &layer.kind else { return None };
        let cover = picture.cover.0.as_ref().filter(|cover| cover.clear.contains(&true))?;
        let inks = Printer::new(face, layer, part, uprights, face.bleed)?.put(&layer.kind).inks;
        let tiles: Vec<_> = inks
            .iter()
            .filter_map(|ink| match ink {
                Ink::Picture { place, clip, .. } => {
                    let seen = clip.bounding_box().inflate(AT_CUT, AT_CUT);
                    Some((seen, place.inverse()))
                }
                _ => None,
            })
            .collect();
        let within = -0.002..=1.002;
        let (mut clear, mut place) = (0.0, BezPath::new());
        for contour in contours(&part.outline) {
            for run in flattened(&contour) {
                for (at, way, long) in along(&run, STEP) {
                    let mut over = tiles.iter().filter_map(|(seen, inverse)| {
                        let own = *inverse * at;
                        let holds = within.contains(&own.x) && within.contains(&own.y);
                        (seen.contains(at) && holds).then_some(own)
                    });
                    let Some(first) = over.next() else { continue };
                    if cover.is_clear(first) && over.all(|own| cover.is_clear(own)) {
                        clear += long;
                        place.move_to(at - way * (long / 2.0));
                        place.line_to(at + way * (long / 2.0));
                    }
                }
            }
        }
        (clear >= LEAST).then_some(Self { long: clear, place, colour: cover.colour })
    }

    fn told(&self, layer: &Layer, part: &Part, unit: Unit) -> Check {
        let texts = [
            format!("clear along {}", measure(self.long.round(), unit)),
            "covered all along the cut".to_owned(),
            "the card shows beside the cut".to_owned(),
        ];
        let label = format!("Edge of {}", layer.title());
        let id = format!("clear-{}", layer.id);
        let [red, green, blue] = self.colour;
        let check = Check::yes_or_no(&id, Stage::Face, &label, State::Attention, texts);
        let place = path_text(&(Affine::translate(part.at) * self.place.clone()));
        check.at(Drawing::Flat, place).remedy(Remedy {
            text: "Print its colour beneath it, as far as its panel goes".to_owned(),
            changes: vec![
                Change::new(&layer.field("beyond.by"), "colour"),
                Change::new(
                    &layer.field("beyond.colour"),
                    format!("#{red:02x}{green:02x}{blue:02x}").as_str(),
                ),
            ],
        })
    }
}
