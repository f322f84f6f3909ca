//! A piece laid flat, as drawings and figures that a page can show.

use aptum_core::blob::BlobId;
use aptum_core::face::{Inked, ink_colour};
use aptum_core::form::{Dimension, Figure, Line, Part, Role, Sizes, Structure};
use aptum_core::geometry::{Affine, Shape, Vec2, path_text};
use aptum_core::id::LayerId;
use aptum_core::units::{Unit, format_length, measure, measure_area, product};
use aptum_core::workshop::RecordId;
use aptum_core::{LineKind, PreparedPiece};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

/// A line of the flat.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LineView {
    kind: LineKind,
    /// SVG path data, mm.
    path: String,
}

/// A panel of the flat.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PanelView {
    name: String,
    /// The name that is shown: a strip has that of the curved panel it belongs to.
    shown: String,
    /// Glue area, flap or face.
    role: PanelRole,
    /// SVG path data, mm.
    path: String,
    /// The middle of its bounds, mm.
    centre: [f64; 2],
    /// Width and height of its bounds, mm.
    size: [f64; 2],
}

/// What a panel does in the finished piece.
#[derive(Debug, Clone, Copy, Serialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum PanelRole {
    /// Seen from outside.
    Face,
    /// Hidden when closed.
    Flap,
    /// Glued over.
    Glue,
}

/// One piece laid flat.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct FlatView {
    /// Width and height of the blank, mm.
    size: [f64; 2],
    /// The same as text.
    size_text: String,
    /// The blank's area as text.
    area_text: String,
    /// The blanks' outlines as SVG path data, mm.
    outline: String,
    /// What is done along the outline: cut through, or cut through the face only.
    edge: LineKind,
    /// True where its stock has a liner, so that it may be cut either way.
    has_liner: bool,
    /// What is cut out of them.
    openings: String,
    /// The blanks, each where it lies in this drawing.
    parts: Vec<PartView>,
    /// Numbers at mating edges: where, mm, and the number.
    mates: Vec<MateView>,
    /// The words on its labels, and where they stand.
    labels: Vec<LabelView>,
    /// Creases and inner cuts.
    lines: Vec<LineView>,
    panels: Vec<PanelView>,
    dimensions: Vec<Dimension>,
    figures: Vec<Figure>,
    sizes: Sizes,
    /// The three sizes as text: inside, crease to crease, outside; none where they are the same.
    sizes_text: Option<[String; 3]>,
    /// True where its sizes may be set in each of the three ways.
    has_basis: bool,
    /// What it holds, as text.
    volume_text: Option<String>,
    /// The structure's name.
    structure: String,
}

/// A label on the flat.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LabelView {
    text: String,
    /// Its middle, mm.
    at: [f64; 2],
    /// The room it has, across and along, mm.
    size: [f64; 2],
}

/// A number at a mating edge.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MateView {
    at: [f64; 2],
    number: usize,
}

/// One blank, in its own coordinates: its bounds' top left corner at the origin.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PartView {
    name: String,
    /// Its card, where that is not the job's.
    stock: Option<RecordId>,
    /// Where it lies in the drawing of the whole, mm.
    at: [f64; 2],
    /// Width and height, mm.
    size: [f64; 2],
    size_text: String,
    outline: String,
    /// What is done along the outline.
    edge: LineKind,
    openings: String,
    lines: Vec<LineView>,
    /// What is printed on it, if anything is.
    art: Option<ArtView>,
}

/// What is printed on one blank.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ArtView {
    /// Its layers, the first undermost.
    layers: Vec<InkedView>,
    /// SVG path data of what is printed up to cuts and past them.
    to_edge: String,
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

/// A piece of a job, laid flat.
pub fn flat(unit: Unit, prepared: &PreparedPiece) -> FlatView {
    let (flat, piece) = (&prepared.flat, &prepared.job_piece);
    let path = piece.path();
    let sizes = &flat.sizes;
    let structure = piece.form.structure().ok();
    FlatView {
        size: [flat.bounds.width(), flat.bounds.height()],
        size_text: format!(
            "{} × {}",
            format_length(flat.bounds.width(), unit),
            measure(flat.bounds.height(), unit)
        ),
        area_text: measure_area(flat.area(), unit),
        outline: path_text(&flat.outline()),
        edge: flat.parts.first().map_or(LineKind::Cut, |part| part.edge),
        has_liner: flat.parts.iter().any(|part| part.on_liner),
        openings: flat.parts.iter().map(|part| openings(part, part.at)).collect(),
        parts: (0..flat.parts.len()).map(|index| part(unit, prepared, index)).collect(),
        mates: flat
            .mates
            .iter()
            .map(|(at, number)| MateView { at: [at.x, at.y], number: *number })
            .collect(),
        labels: flat
            .parts
            .iter()
            .flat_map(|part| part.labels.iter().map(move |label| (part.at, label)))
            .map(|(shift, label)| {
                let at = label.centre + shift;
                LabelView { text: label.text.clone(), at: [at.x, at.y], size: label.size }
            })
            .collect(),
        lines: flat
            .parts
            .iter()
            .flat_map(|part| {
                let place = Affine::translate(part.at);
                part.lines.iter().map(move |drawn| line(part, drawn, place))
            })
            .collect(),
        panels: flat
            .panels()
            .map(|(panel, outline)| {
                let bounds = outline.bounding_box();
                PanelView {
                    name: panel.name.clone(),
                    shown: panel.strip_of.clone().unwrap_or_else(|| panel.name.clone()),
                    role: match panel.role {
                        Role::Face => PanelRole::Face,
                        Role::Flap => PanelRole::Flap,
                        Role::Glue => PanelRole::Glue,
                    },
                    path: path_text(&outline),
                    centre: [bounds.center().x, bounds.center().y],
                    size: [bounds.width(), bounds.height()],
                }
            })
            .collect(),
        // In the job a figure lies below its piece.
        dimensions: flat
            .dimensions
            .iter()
            .cloned()
            .map(|dimension| Dimension {
                field: dimension.field.map(|field| format!("{path}{field}")),
                ..dimension
            })
            .collect(),
        figures: flat
            .figures
            .iter()
            .cloned()
            .map(|figure| Figure { field: format!("{path}{}", figure.field), ..figure })
            .collect(),
        sizes: sizes.clone(),
        sizes_text: (sizes.inside != sizes.outside)
            .then(|| [&sizes.inside, &sizes.crease, &sizes.outside].map(|all| product(all, unit))),
        has_basis: structure.is_some_and(Structure::has_basis),
        volume_text: flat.volume.map(volume),
        structure: structure.map_or_else(String::new, |structure| structure.name.to_owned()),
    }
}

/// cm³ with one decimal below 100.
fn volume(mm3: f64) -> String {
    let cm3 = mm3 / 1000.0;
    if cm3 < 100.0 { format!("{cm3:.1} cm³") } else { format!("{cm3:.0} cm³") }
}

fn line(part: &Part, line: &Line, place: Affine) -> LineView {
    LineView { kind: part.kind(line.kind), path: path_text(&(place * line.path.clone())) }
}

fn openings(part: &Part, at: Vec2) -> String {
    part.openings().map(|path| path_text(&(Affine::translate(at) * path.clone()))).collect()
}

fn part(unit: Unit, prepared: &PreparedPiece, index: usize) -> PartView {
    let part = &prepared.flat.parts[index];
    PartView {
        name: part.name.clone(),
        stock: part.stock.clone(),
        at: [part.at.x, part.at.y],
        size: [part.bounds.width(), part.bounds.height()],
        size_text: product(&[part.bounds.width(), part.bounds.height()], unit),
        outline: path_text(&part.outline),
        edge: part.edge,
        openings: openings(part, Vec2::ZERO),
        lines: part.lines.iter().map(|drawn| line(part, drawn, Affine::IDENTITY)).collect(),
        art: prepared.arts.get(index).map(|art| ArtView {
            layers: art.layers.iter().map(InkedView::new).collect(),
            to_edge: path_text(&art.to_edge),
        }),
    }
}
