//! What is printed on a piece, as a page can show it.

use aptum_core::PreparedPiece;
use aptum_core::blob::BlobId;
use aptum_core::face::{Art, Ink, Inked, Layer, LayerKind, POINT, ink_colour};
use aptum_core::geometry::{Point, path_text};
use aptum_core::id::LayerId;
use aptum_core::units::{Unit, format_length};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

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
}

/// A layer of a face, in words and figures.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LayerView {
    id: LayerId,
    /// What it goes by.
    title: String,
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
    /// From its area's middle to its own, to the right and downwards in the flat.
    at_text: [String; 2],
}

fn layers(drawn: &PreparedPiece, unit: Unit) -> Vec<LayerView> {
    let view = |layer: &Layer| {
        let laid = layer.lying().and_then(|lying| {
            let mut parts = drawn.flat.parts.iter();
            parts.find_map(|part| Some((lying, part, lying.area(part, &drawn.formed.uprights)?)))
        });
        let room = laid.as_ref().map_or([0.0; 2], |(.., area)| area.room());
        let (size, told) = match &layer.kind {
            LayerKind::Picture(picture) => {
                let ([across, along], ppi) = (picture.pixels, picture.ppi(room));
                let told = format!("{across} × {along} pixels, {ppi:.0} ppi");
                (picture.sides(room), Some(told))
            }
            LayerKind::Text(text) => {
                let set = text.set(room);
                (set.size, Some(format!("{:.1} pt, {}", set.em / POINT, lines(set.lines))))
            }
            LayerKind::Shape(shape) => (shape.sides(room), None),
            LayerKind::Pattern(pattern) => {
                let [across, down] = pattern.pitch(room).map(|mm| format_length(mm, unit));
                (room, Some(format!("pitch {across} × {down} {}", unit.name())))
            }
            LayerKind::Colour { .. } | LayerKind::PanelNames => ([0.0; 2], None),
        };
        LayerView {
            id: layer.id.clone(),
            title: layer.title().to_owned(),
            told: told.filter(|_| laid.is_some()),
            place: laid.map(|(lying, part, area)| {
                let centre = lying.place(&area) * Point::ZERO + part.at;
                PlaceView {
                    centre: [centre.x, centre.y],
                    turn: area.upright + lying.turn,
                    size,
                    size_text: size.map(|mm| format_length(mm, unit)),
                    at_text: [lying.x, lying.y].map(|mm| format_length(mm, unit)),
                }
            }),
        }
    };
    let face = drawn.job_piece.face.as_ref();
    face.map_or_else(Vec::new, |face| face.layers.iter().map(view).collect())
}

fn lines(count: usize) -> String {
    if count == 1 { "a line".to_owned() } else { format!("{count} lines") }
}

/// What is printed on one blank.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ArtView {
    /// Its layers, the first undermost.
    layers: Vec<InkedView>,
    /// SVG path data of what is printed up to cuts and past them.
    to_edge: String,
}

impl ArtView {
    fn new(art: &Art) -> Self {
        Self {
            layers: art.layers.iter().map(InkedView::new).collect(),
            to_edge: path_text(&art.to_edge),
        }
    }
}

/// What one layer puts on a blank.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct InkedView {
    layer: LayerId,
    /// How much of it covers what is below, 0 to 1.
    opacity: f64,
    /// False where it is only shown.
    is_printed: bool,
    #[serde(flatten)]
    ink: InkView,
}

/// What is put on a blank.
#[derive(Debug, Serialize, JsonSchema, TS)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum InkView {
    /// Filled in one colour.
    Area {
        /// SVG path data, bleed included.
        path: String,
        colour: String,
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
    fn new(inked: &Inked) -> Self {
        let ink = match &inked.ink {
            Ink::Area { path, colour, clip } => InkView::Area {
                path: path_text(path),
                colour: colour.clone(),
                clip: clip.as_ref().map(path_text),
            },
            Ink::Words { path } => {
                InkView::Area { path: path_text(path), colour: ink_colour().to_owned(), clip: None }
            }
            Ink::Picture { blob, place, clip } => InkView::Picture {
                blob: blob.clone(),
                place: place.as_coeffs(),
                clip: path_text(clip),
            },
        };
        let Inked { layer, opacity, is_printed, .. } = inked;
        Self { layer: layer.clone(), opacity: *opacity, is_printed: *is_printed, ink }
    }
}

pub fn face(drawn: &PreparedPiece, unit: Unit) -> FaceView {
    let bleed = drawn.job_piece.face.as_ref().map_or(0.0, |face| face.bleed);
    FaceView {
        is_printed: !drawn.arts.is_empty(),
        layers: layers(drawn, unit),
        bleed_text: format_length(bleed, unit),
        arts: drawn.arts.iter().map(ArtView::new).collect(),
    }
}
