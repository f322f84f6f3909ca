//! What is printed on a piece, as a page can show it.

use aptum_core::PreparedPiece;
use aptum_core::blob::BlobId;
use aptum_core::face::{
    Art, ByRow, Face, Ink, Inked, Layer, LayerKind, List, POINT, PlacedLayer, Separation, Side,
    Uprights, ink_colour,
};
use aptum_core::form::Flat;
use aptum_core::geometry::path_text;
use aptum_core::id::LayerId;
use aptum_core::units::{Unit, format_length};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::flat::{FlatView, flat};

/// What is printed on a piece.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct FaceView {
    /// True when something is printed on it.
    is_printed: bool,
    /// The layers of its face, the first printed first.
    layers: Vec<LayerView>,
    bleed_text: String,
    /// What is printed on each of its blanks; none where nothing is.
    arts: Vec<ArtView>,
    /// Its back, where it is printed there too.
    back: Option<BackView>,
}

/// The back of a piece.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct BackView {
    /// The piece laid flat, seen from behind.
    flat: FlatView,
    /// What is printed on each of its blanks, as it is seen from behind.
    arts: Vec<ArtView>,
}

/// A layer of a face, in words and figures.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LayerView {
    id: LayerId,
    /// What it goes by.
    title: String,
    /// True where it differs from row to row of the piece's list.
    is_by_row: bool,
    /// How it lies, where it has a place of its own on panels that are there.
    place: Option<PlaceView>,
    /// What a layer of its kind has to tell, such as `2400 × 1600 pixels, 312 ppi`.
    told: Option<String>,
}

/// How a layer lies.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PlaceView {
    /// Its middle in the drawing of the whole, mm.
    centre: [f64; 2],
    /// How far it is turned there, degrees clockwise.
    turn: f64,
    /// Width and height as it is read, mm.
    size: [f64; 2],
    size_text: [String; 2],
    /// Width and height of what it takes in the drawing, mm.
    bounds: [f64; 2],
    /// What its middle is drawn to when it is moved, across and down in the drawing, mm.
    snaps: [Vec<f64>; 2],
    /// From its area's middle to its own, to the right and downwards in the flat.
    at_text: [String; 2],
}

fn layers(drawn: &PreparedPiece, unit: Unit, row: usize) -> Vec<LayerView> {
    let Some(face) = &drawn.job_piece.face else { return Vec::new() };
    let list = drawn.job_piece.list.as_ref();
    let of_row = list.map(|list| (list, row));
    let front = Seen::new(face, Side::Front, of_row, &drawn.flat, drawn.formed.uprights.clone());
    let back = drawn.back.as_ref().map(|back| {
        Seen::new(face, Side::Back, of_row, &back.flat, drawn.formed.uprights.mirrored())
    });
    let view = |own: &Layer| {
        let Seen { placed, flat, uprights } = match own.side {
            Side::Front => &front,
            Side::Back => back.as_ref().unwrap_or(&front),
        };
        // What a row leaves empty is shown as it was written.
        let filled = list.and_then(|list| list.of_row(own, row));
        let layer = filled.as_deref().unwrap_or(own);
        let place = placed.iter().find(|place| place.id == own.id);
        let mut parts = flat.parts.iter();
        let area =
            layer.lying().and_then(|lying| parts.find_map(|part| lying.area(part, uprights)));
        let room = area.map_or([0.0; 2], |area| area.room());
        let told = match &layer.kind {
            LayerKind::Picture(picture) if picture.drawn => {
                Some("a drawing, sharp at any size".to_owned())
            }
            LayerKind::Picture(picture) => {
                let ([across, along], ppi) = (picture.pixels, picture.ppi(room, face.bleed));
                Some(format!("{across} × {along} pixels, {ppi:.0} ppi"))
            }
            LayerKind::Text(text) => {
                let set = text.set(room);
                Some(format!("{:.1} pt, {}", set.em / POINT, lines(set.lines)))
            }
            LayerKind::Pattern(pattern) => {
                let [across, down] = pattern.pitch(room).map(|mm| format_length(mm, unit));
                let ppi = pattern.ppi().map_or_else(String::new, |ppi| format!(", {ppi:.0} ppi"));
                Some(format!("pitch {across} × {down} {}{ppi}", unit.name()))
            }
            LayerKind::Shape(_) | LayerKind::Colour { .. } | LayerKind::PanelNames => None,
        };
        LayerView {
            id: layer.id.clone(),
            title: own.title().to_owned(),
            is_by_row: list.is_some_and(|list| list.fills(own)),
            told: told.filter(|_| place.is_some()),
            place: place.zip(layer.lying()).map(|(place, lying)| PlaceView {
                centre: [place.centre.x, place.centre.y],
                turn: place.turn,
                size: place.size,
                size_text: place.size.map(|mm| format_length(mm, unit)),
                bounds: [place.bounds.width(), place.bounds.height()],
                snaps: place.snaps(placed),
                at_text: [lying.x, lying.y].map(|mm| format_length(mm, unit)),
            }),
        }
    };
    face.layers.iter().map(view).collect()
}

/// A side of a piece, and where its layers lie.
struct Seen<'a> {
    placed: Vec<PlacedLayer>,
    flat: &'a Flat,
    uprights: Uprights,
}

impl<'a> Seen<'a> {
    fn new(
        face: &Face,
        side: Side,
        row: Option<(&List, usize)>,
        flat: &'a Flat,
        uprights: Uprights,
    ) -> Self {
        Self { placed: face.side(side).placed(row, flat, &uprights), flat, uprights }
    }
}

fn lines(count: usize) -> String {
    if count == 1 { "a line".to_owned() } else { format!("{count} lines") }
}

/// What is printed on one blank.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ArtView {
    /// Its layers, the first undermost.
    layers: Vec<InkedView>,
    /// How many layers differ from row to row.
    levels: usize,
    /// SVG path data of what is printed up to cuts and past them.
    to_edge: String,
}

impl ArtView {
    fn new(art: &Art, row: usize) -> Self {
        let mut layers = Vec::new();
        for level in 0..=art.by_row.len() {
            layers.extend(art.level(level).iter().map(|inked| InkedView::new(inked, level, false)));
            let own = art.by_row.get(level);
            layers.extend(own.into_iter().flat_map(|own| worn(own, level, row)));
        }
        Self { layers, levels: art.by_row.len(), to_edge: path_text(&art.to_edge) }
    }
}

/// What a layer puts on the copy of a row.
fn worn(layer: &ByRow, level: usize, row: usize) -> impl Iterator<Item = InkedView> {
    let inks = layer.rows.get(row).into_iter().flatten();
    inks.map(move |inked| InkedView::new(inked, level, true))
}

/// What the copy of a row wears beside what all do.
pub fn worn_by(art: &Art, row: usize) -> Vec<InkedView> {
    art.by_row.iter().enumerate().flat_map(|(level, layer)| worn(layer, level, row)).collect()
}

/// What one layer puts on a blank.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct InkedView {
    layer: LayerId,
    /// How much of it covers what is below, 0 to 1.
    opacity: f64,
    /// False where it is only shown.
    is_printed: bool,
    /// What it is printed in.
    separation: Separation,
    /// How many of the layers that differ from row to row lie below it.
    level: usize,
    /// True where other copies have something else.
    is_by_row: bool,
    #[serde(flatten)]
    ink: InkView,
}

/// What a colour runs into, evenly.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RunningView {
    to: String,
    /// Where the first colour is alone, and where the second is, mm.
    ends: [[f64; 2]; 2],
}

/// What is put on a blank.
#[derive(Debug, Serialize, JsonSchema, TS)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum InkView {
    /// Filled in one colour, or one that runs into another.
    Area {
        /// SVG path data, bleed included.
        path: String,
        colour: String,
        /// What the colour runs into.
        running: Option<RunningView>,
        /// SVG path data of what of it is printed, where that is not all.
        clip: Option<String>,
    },
    /// A picture.
    Picture {
        blob: BlobId,
        /// From its unit square, `y` down, to where it lies, as an SVG matrix.
        place: [f64; 6],
        /// SVG path data of what of it is printed.
        clip: String,
    },
}

impl InkedView {
    fn new(inked: &Inked, level: usize, is_by_row: bool) -> Self {
        let ink = match &inked.ink {
            Ink::Area { path, colour, running, clip } => InkView::Area {
                path: path_text(path),
                colour: colour.clone(),
                running: running.as_ref().map(|running| RunningView {
                    to: running.to.clone(),
                    ends: running.ends.map(|end| [end.x, end.y]),
                }),
                clip: clip.as_ref().map(path_text),
            },
            Ink::Words { path } => {
                let colour = ink_colour().to_owned();
                InkView::Area { path: path_text(path), colour, running: None, clip: None }
            }
            Ink::Picture { blob, place, clip, .. } => InkView::Picture {
                blob: blob.clone(),
                place: place.as_coeffs(),
                clip: path_text(clip),
            },
        };
        let Inked { layer, opacity, is_printed, finish, .. } = inked;
        Self {
            layer: layer.clone(),
            opacity: *opacity,
            is_printed: *is_printed,
            separation: finish.separation(),
            level,
            is_by_row,
            ink,
        }
    }
}

pub fn face(drawn: &PreparedPiece, unit: Unit, row: usize) -> FaceView {
    let bleed = drawn.job_piece.face.as_ref().map_or(0.0, |face| face.bleed);
    FaceView {
        is_printed: !drawn.arts.is_empty(),
        layers: layers(drawn, unit, row),
        bleed_text: format_length(bleed, unit),
        arts: drawn.arts.iter().map(|art| ArtView::new(art, row)).collect(),
        back: drawn.back.as_ref().map(|back| BackView {
            flat: flat(unit, [f64::INFINITY; 2], drawn, &back.flat),
            arts: back.arts.iter().map(|art| ArtView::new(art, row)).collect(),
        }),
    }
}
