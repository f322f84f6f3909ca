//! A piece laid flat, as drawings and figures that a page can show.

use aptum_core::form::panel::{meant, whole_panels};
use aptum_core::form::{CutOut, Dimension, Figure, Flat, Part, Role, Sizes, Structure};
use aptum_core::geometry::{Affine, Shape, Vec2, path_text};
use aptum_core::id::PartId;
use aptum_core::job::JobPiece;
use aptum_core::units::{Unit, format_length, measure, measure_area, product};
use aptum_core::workshop::RecordId;
use aptum_core::{LineKind, PreparedPiece};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::drawing::{DrawingView, drawing};
use super::gathered::{GatheredView, gathered};
use super::traced::{TracedView, traced};

/// The lines of a kind, all in one: drawings have tens of thousands.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LinesView {
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

/// A panel as layers lie on it: a curved one with all its strips.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct WholePanelView {
    /// The name that is shown.
    name: String,
    /// Its own and those of its strips.
    names: Vec<String>,
    role: PanelRole,
    /// SVG path data, mm.
    path: String,
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

impl From<Role> for PanelRole {
    fn from(role: Role) -> Self {
        match role {
            Role::Face => Self::Face,
            Role::Flap => Self::Flap,
            Role::Glue => Self::Glue,
        }
    }
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
    lines: Vec<LinesView>,
    panels: Vec<PanelView>,
    /// The same as layers lie on them.
    whole_panels: Vec<WholePanelView>,
    /// The panel that is mostly meant, by the name that is shown; none where none is seen.
    meant: Option<String>,
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
    /// The outline of a picture, where it is one.
    traced: Option<TracedView>,
    /// What lies on it, where it is a card that holds other pieces.
    gathered: Option<GatheredView>,
    /// The lines of a drawing from elsewhere, and what they are.
    drawing: Option<DrawingView>,
    /// Words and drawings that are cut out of its panels.
    cut_outs: Vec<CutOutView>,
}

/// Words or a drawing cut out of a panel.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct CutOutView {
    /// Which of the add-ons it is.
    add_on: usize,
    /// Its middle, mm.
    at: [f64; 2],
    /// Width and height, mm.
    size: [f64; 2],
    /// The same as text.
    size_text: String,
    /// What falls out with it, and how many bridges hold what would.
    holding_text: String,
    /// The edges of what falls out, SVG path data, mm.
    islands: String,
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
    id: PartId,
    name: String,
    /// Its card.
    stock: RecordId,
    /// Where it lies in the drawing of the whole, mm.
    at: [f64; 2],
    /// Width and height, mm.
    size: [f64; 2],
    size_text: String,
    outline: String,
    /// What is done along the outline.
    edge: LineKind,
    openings: String,
    lines: Vec<LinesView>,
    /// True where it lies mirrored on sheets.
    is_mirrored: bool,
}

/// A piece of a job, laid flat.
/// The view of a flat, on a sheet of a size, mm.
pub fn flat(unit: Unit, sheet: [f64; 2], prepared: &PreparedPiece, flat: &Flat) -> FlatView {
    let piece = &prepared.job_piece;
    let path = piece.path();
    let sizes = &flat.sizes;
    let structure = piece.form.structure();
    let whole = whole_panels(flat);
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
        parts: flat
            .parts
            .iter()
            .map(|own| part(unit, piece, own, prepared.mirrored.is_some()))
            .collect(),
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
        lines: lines(flat.parts.iter().map(|part| (part, part.at))),
        panels: flat
            .panels()
            .map(|(panel, outline)| {
                let bounds = outline.bounding_box();
                PanelView {
                    name: panel.name.clone(),
                    shown: panel.shown_name().to_owned(),
                    role: panel.role.into(),
                    path: path_text(&outline),
                    centre: [bounds.center().x, bounds.center().y],
                    size: [bounds.width(), bounds.height()],
                }
            })
            .collect(),
        meant: meant(&whole).map(|panel| panel.name.clone()),
        whole_panels: whole
            .into_iter()
            .map(|panel| WholePanelView {
                name: panel.name,
                names: panel.names,
                role: panel.role.into(),
                path: path_text(&panel.outline),
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
        structure: structure
            .map_or_else(|| piece.own_name().to_owned(), |structure| structure.name.to_owned()),
        traced: piece.form.traced().zip(flat.traced.as_ref()).and_then(|(own, facts)| {
            let part = flat.parts.first()?;
            traced(own, facts, part.at, unit)
        }),
        gathered: flat.gathered.as_ref().map(gathered),
        drawing: piece.form.drawing().zip(flat.drawing.as_ref()).and_then(|(own, facts)| {
            Some(drawing(own, facts, sheet, flat.parts.first()?.at, unit))
        }),
        cut_outs: flat.cut_outs.iter().filter_map(|own| cut_out(flat, own, unit)).collect(),
    }
}

fn cut_out(flat: &Flat, own: &CutOut, unit: Unit) -> Option<CutOutView> {
    let place = Affine::translate(flat.parts.get(own.part)?.at);
    let middle = place * own.bounds.center();
    let size = own.size();
    let islands = own.islands.iter().map(|island| path_text(&(place * island.clone())));
    let holding_text = match (own.islands.len(), own.bridges) {
        (0, 0) => "nothing else falls out".to_owned(),
        (0, 1) => "held by 1 bridge".to_owned(),
        (0, bridges) => format!("held by {bridges} bridges"),
        (1, _) => "1 island falls out".to_owned(),
        (islands, _) => format!("{islands} islands fall out"),
    };
    Some(CutOutView {
        add_on: own.add_on,
        at: [middle.x, middle.y],
        size,
        size_text: product(&size, unit),
        holding_text,
        islands: islands.collect(),
    })
}

/// cm³ with one decimal below 100.
fn volume(mm3: f64) -> String {
    let cm3 = mm3 / 1000.0;
    if cm3 < 100.0 { format!("{cm3:.1} cm³") } else { format!("{cm3:.0} cm³") }
}

/// The lines of blanks, each where it lies, by their kinds.
fn lines<'a>(parts: impl Iterator<Item = (&'a Part, Vec2)>) -> Vec<LinesView> {
    let mut all: Vec<LinesView> = Vec::new();
    for (part, at) in parts {
        let place = Affine::translate(at);
        for stroke in &part.strokes {
            let (kind, path) = (part.kind(stroke.kind), path_text(&(place * stroke.path.clone())));
            match all.iter_mut().find(|own| own.kind == kind) {
                Some(own) => own.path.push_str(&path),
                None => all.push(LinesView { kind, path }),
            }
        }
    }
    all
}

fn openings(part: &Part, at: Vec2) -> String {
    part.openings().map(|path| path_text(&(Affine::translate(at) * path.clone()))).collect()
}

fn part(unit: Unit, piece: &JobPiece, part: &Part, is_mirrored: bool) -> PartView {
    PartView {
        id: part.id.clone(),
        name: part.name.clone(),
        stock: piece.card_of(part).clone(),
        at: [part.at.x, part.at.y],
        size: [part.bounds.width(), part.bounds.height()],
        size_text: product(&[part.bounds.width(), part.bounds.height()], unit),
        outline: path_text(&part.outline),
        edge: part.edge,
        openings: openings(part, Vec2::ZERO),
        lines: lines([(part, Vec2::ZERO)].into_iter()),
        is_mirrored,
    }
}
