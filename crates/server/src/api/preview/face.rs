//! What is printed on a piece, as a page can show it.

use aptum_core::PreparedPiece;
use aptum_core::blob::BlobId;
use aptum_core::face::{Art, Inked, Layer, LayerKind, ink_colour};
use aptum_core::geometry::path_text;
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
    /// Of a picture whose panel is there, how it lies.
    picture: Option<PictureView>,
}

/// How a picture lies on its panel.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PictureView {
    /// Width and height, mm.
    size: [f64; 2],
    size_text: [String; 2],
    /// From the panel's middle to its own, to the right and downwards.
    at_text: [String; 2],
    pixels_text: String,
}

fn layers(drawn: &PreparedPiece, unit: Unit) -> Vec<LayerView> {
    let panel = |name: &str| {
        drawn.flat.panels().find(|(panel, _)| panel.name == name).map(|(panel, _)| panel)
    };
    let view = |layer: &Layer| LayerView {
        id: layer.id.clone(),
        title: layer.title().to_owned(),
        picture: match &layer.kind {
            LayerKind::Picture(picture) => {
                let [across, along] = picture.pixels;
                panel(&picture.panel).map(|panel| {
                    let (size, ppi) = (picture.sides(panel), picture.ppi(panel));
                    PictureView {
                        size,
                        size_text: size.map(|mm| format_length(mm, unit)),
                        at_text: [picture.x, picture.y].map(|mm| format_length(mm, unit)),
                        pixels_text: format!("{across} × {along} pixels, {ppi:.0} ppi"),
                    }
                })
            }
            _ => None,
        },
    };
    let face = drawn.job_piece.face.as_ref();
    face.map_or_else(Vec::new, |face| face.layers.iter().map(view).collect())
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

/// What one layer prints on a blank.
#[derive(Debug, Serialize, JsonSchema, TS)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum InkedView {
    /// A flat colour.
    Area {
        /// SVG path data of what is coloured, bleed included.
        path: String,
        colour: String,
    },
    /// Words.
    Words {
        /// Their outlines as SVG path data.
        path: String,
        colour: &'static str,
    },
    /// A picture.
    Picture {
        layer: LayerId,
        blob: BlobId,
        /// Left, top, width and height, mm.
        place: [f64; 4],
        /// SVG path data of what of it is printed.
        clip: String,
    },
}

impl InkedView {
    fn new(inked: &Inked) -> Self {
        match inked {
            Inked::Area { path, colour } => {
                Self::Area { path: path_text(path), colour: colour.clone() }
            }
            Inked::Words { path } => Self::Words { path: path_text(path), colour: ink_colour() },
            Inked::Picture { layer, blob, place, clip } => Self::Picture {
                layer: layer.clone(),
                blob: blob.clone(),
                place: [place.x0, place.y0, place.width(), place.height()],
                clip: path_text(clip),
            },
        }
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
