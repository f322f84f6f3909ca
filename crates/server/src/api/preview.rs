//! What core prepares, as drawings and figures that a page can show.

use aptum_core::check::{Stage, State as Standing};
use aptum_core::form::{Dimension, Figure, Line, Part, Role, Sizes};
use aptum_core::geometry::{Affine, BezPath, Shape, Vec2, path_text};
use aptum_core::sheet::{Layout, Placement, TakenBy};
use aptum_core::units::{format_length, measure, product};
use aptum_core::workshop::RecordId;
use aptum_core::{Check, Job, LineKind, Prepared, prepare};
use aptum_formats::lettering::letter_into;
use aptum_formats::pdf::caption_outlines;
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::store::Store;

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
    openings: String,
    lines: Vec<LineView>,
    /// What is printed on it, if anything is.
    art: Option<ArtView>,
}

/// What is printed on one piece.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ArtView {
    /// SVG path data of the coloured area, bleed included.
    fill: String,
    colour: Option<String>,
    /// The captions' outlines as SVG path data.
    captions: String,
}

/// A part of the page that something takes.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TakenView {
    by: TakenBy,
    name: String,
    /// SVG path data, mm.
    path: String,
}

/// The scale and the code printed beside the pieces.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct NotesView {
    /// Left, top, width and height, mm.
    place: [f64; 4],
    /// Length of the scale, mm.
    scale: f64,
    /// What it measures, as text.
    text: String,
}

/// A copy that fits nowhere.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MisfitView {
    placement: Placement,
    /// What of it lies outside the cut window, as SVG path data.
    outside: String,
}

/// A sheet with its copies.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SheetView {
    /// Width and height of the page, mm.
    page: [f64; 2],
    page_text: String,
    /// SVG path data of the windows, mm.
    print_window: String,
    cut_window: String,
    taken: Vec<TakenView>,
    /// SVG path data of the marks and the sign beside the first.
    marks: String,
    layout: Layout,
    /// Where a copy would lie, when not one fits.
    misfit: Option<MisfitView>,
    sheets: u32,
    /// One for each run of the layout.
    notes: Vec<Option<NotesView>>,
    /// Share of the sheets that becomes pieces, as text.
    yield_text: String,
    waste_text: String,
}

/// How a stage of the route stands.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct StageView {
    stage: Stage,
    /// `None` when it has nothing to check.
    state: Option<Standing>,
}

/// A job as core prepares it.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct Preview {
    flat: FlatView,
    /// True when something is printed.
    is_printed: bool,
    sheet: SheetView,
    checks: Vec<Check>,
    stages: Vec<StageView>,
    /// The code that names this content on its printed sheets.
    code: String,
    spacing_text: String,
    bleed_text: String,
}

/// Prepares a job that need not be saved.
#[post("/preview", data = "<job>")]
pub fn preview(store: &State<Store>, job: Body<Job>) -> Result<Json<Preview>, Problem> {
    let prepared = prepare(&job.0, &store.workshop()?)?;
    Ok(Json(Preview::new(&job.0, &prepared)))
}

/// cm² with one decimal below 100.
fn area(mm2: f64) -> String {
    let cm2 = mm2 / 100.0;
    if cm2 < 100.0 { format!("{cm2:.1} cm²") } else { format!("{cm2:.0} cm²") }
}

impl Preview {
    /// The view of a prepared job.
    #[must_use]
    pub fn new(job: &Job, prepared: &Prepared) -> Self {
        let stages = [Stage::Form, Stage::Face, Stage::Sheet, Stage::Run];
        Self {
            flat: flat(job, prepared),
            is_printed: !prepared.arts.is_empty(),
            sheet: sheet(job, prepared),
            checks: prepared.checks.clone(),
            stages: stages.map(|stage| StageView { stage, state: prepared.state(stage) }).into(),
            code: prepared.code.clone(),
            spacing_text: format_length(job.sheet.spacing, job.unit),
            bleed_text: format_length(job.face.as_ref().map_or(0.0, |face| face.bleed), job.unit),
        }
    }
}

fn flat(job: &Job, prepared: &Prepared) -> FlatView {
    let flat = &prepared.flat;
    let sizes = &flat.sizes;
    let structure = job.form.structure().ok();
    FlatView {
        size: [flat.bounds.width(), flat.bounds.height()],
        size_text: format!(
            "{} × {}",
            format_length(flat.bounds.width(), job.unit),
            measure(flat.bounds.height(), job.unit)
        ),
        area_text: area(flat.area()),
        outline: path_text(&flat.outline()),
        openings: flat.parts.iter().map(|part| openings(part, part.at)).collect(),
        parts: (0..flat.parts.len()).map(|index| part(job, prepared, index)).collect(),
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
        lines: flat.lines().iter().map(line).collect(),
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
        dimensions: flat.dimensions.clone(),
        figures: flat.figures.clone(),
        sizes: sizes.clone(),
        sizes_text: structure.filter(|structure| structure.has_basis()).map(|_| {
            [&sizes.inside, &sizes.crease, &sizes.outside].map(|sizes| product(sizes, job.unit))
        }),
        volume_text: flat.volume.map(volume),
        structure: structure.map_or_else(String::new, |structure| structure.name.to_owned()),
    }
}

/// cm³ with one decimal below 100.
fn volume(mm3: f64) -> String {
    let cm3 = mm3 / 1000.0;
    if cm3 < 100.0 { format!("{cm3:.1} cm³") } else { format!("{cm3:.0} cm³") }
}

fn line(line: &Line) -> LineView {
    LineView { kind: line.kind, path: path_text(&line.path) }
}

fn openings(part: &Part, at: Vec2) -> String {
    part.openings().map(|path| path_text(&(Affine::translate(at) * path.clone()))).collect()
}

fn part(job: &Job, prepared: &Prepared, index: usize) -> PartView {
    let part = &prepared.flat.parts[index];
    PartView {
        name: part.name.clone(),
        stock: part.stock.clone(),
        at: [part.at.x, part.at.y],
        size: [part.bounds.width(), part.bounds.height()],
        size_text: product(&[part.bounds.width(), part.bounds.height()], job.unit),
        outline: path_text(&part.outline),
        openings: openings(part, Vec2::ZERO),
        lines: part.lines.iter().map(line).collect(),
        art: prepared.arts.get(index).map(|art| ArtView {
            fill: path_text(&art.fill),
            colour: art.colour.clone(),
            captions: path_text(&caption_outlines(prepared, index)),
        }),
    }
}

fn sheet(job: &Job, prepared: &Prepared) -> SheetView {
    let windows = &prepared.windows;
    let mut marks = BezPath::new();
    for mark in &prepared.marks.marks {
        marks.extend(mark.ink.iter());
    }
    if let Some(sign) = &prepared.marks.sign {
        marks.extend(letter_into(&sign.text, sign.place));
    }
    SheetView {
        page: [windows.page.width(), windows.page.height()],
        page_text: format!(
            "{} × {}",
            format_length(windows.page.width(), job.unit),
            measure(windows.page.height(), job.unit)
        ),
        print_window: path_text(&windows.print.region.to_path()),
        cut_window: path_text(&windows.cut.region.to_path()),
        taken: windows
            .taken
            .iter()
            .map(|taken| TakenView {
                by: taken.by,
                name: taken.name.clone(),
                path: path_text(&taken.path),
            })
            .collect(),
        marks: path_text(&marks),
        layout: prepared.layout.clone(),
        misfit: prepared.misfit.as_ref().map(|misfit| MisfitView {
            placement: misfit.placement,
            outside: path_text(&misfit.outside.to_path()),
        }),
        sheets: prepared.layout.sheets(),
        notes: prepared
            .notes
            .iter()
            .map(|notes| {
                notes.map(|notes| NotesView {
                    place: [
                        notes.place.x0,
                        notes.place.y0,
                        notes.place.width(),
                        notes.place.height(),
                    ],
                    scale: notes.scale,
                    text: measure(notes.scale, job.unit),
                })
            })
            .collect(),
        yield_text: format!("{:.0} %", prepared.used * 100.0),
        waste_text: area(prepared.waste),
    }
}
