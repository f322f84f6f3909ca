//! What new things start as.

use std::collections::BTreeMap;

use aptum_core::face::{
    Coverage, Face, Layer, LayerKind, Lying, Pattern, PlacedPicture, Shape, Text,
};
use aptum_core::form::{Form, LineDrawing, OwnShape, PICTURE, Traced};
use aptum_core::job::{JobPiece, Nicks, Tooling, Weeding};
use aptum_core::sheet::{SheetPlan, standard_sizes};
use aptum_core::stroke::Perforation;
use aptum_core::units::Unit;
use aptum_core::workshop::{Dialect, Force, ForceUnit, Gcode, Keeping, Pace, Record, RecordId};
use aptum_core::{Job, Workshop};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

/// What new things start as, until the user says otherwise.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct Starts {
    /// A job, made from the records at hand, or else the first ones.
    job: Job,
    /// A face: the panels' names.
    face: Face,
    /// A layer of each kind, but pictures, which are brought in.
    layers: Vec<Layer>,
    /// Colours that are offered; any other can be mixed.
    inks: [&'static str; 6],
    /// How far a backing stands out, mm.
    border: f64,
    /// How a tear strip is cut and tied.
    perforation: Perforation,
    /// Words that are cut out of a panel.
    cut_out: OwnShape,
    /// How wide bridges are, mm.
    bridge: f64,
    /// Uncut places in outlines.
    nicks: Nicks,
    /// A speed that is told, mm/s.
    speed: f64,
    /// A force that is told, in each unit.
    forces: Vec<Force>,
    /// Cuts in the waste.
    weeding: Weeding,
    /// How a machine takes G-code.
    gcode: Gcode,
    /// How a cutter moves.
    pace: Pace,
    /// How a cutter is spoken to.
    dialect: Dialect,
    /// A record of each kind.
    records: Vec<Record>,
}

impl Starts {
    /// From what the workshop has.
    pub fn of(workshop: &Workshop) -> Self {
        let ground = "#e7dcc0".to_owned();
        let layers = [
            LayerKind::Colour { colour: ground, coverage: Coverage::Faces },
            LayerKind::Text(Text::new("Words")),
            LayerKind::Shape(Shape::filled("#f3e3b3")),
            LayerKind::Pattern(Pattern::dots("#8fae7c")),
            LayerKind::PanelNames,
        ];
        Self {
            job: starting_job(workshop),
            face: Face::new(1.5, vec![Layer::panel_names("l1")]),
            layers: layers.into_iter().map(|kind| Layer::new("l1", kind)).collect(),
            inks: ["#e7dcc0", "#f0d9cf", "#dfe8d6", "#d5e3e6", "#f3e3b3", "#c9b8d1"],
            border: 3.0,
            perforation: Perforation::STANDARD,
            cut_out: OwnShape::words(),
            bridge: OwnShape::BRIDGE,
            nicks: Nicks::default(),
            speed: 50.0,
            forces: vec![
                Force::newtons(1.0),
                Force { amount: 100.0, unit: ForceUnit::Grams },
                Force { amount: 5.0, unit: ForceUnit::Steps },
            ],
            weeding: Weeding::default(),
            gcode: Gcode::default(),
            pace: Pace::default(),
            dialect: Dialect::default(),
            records: Record::starts(),
        }
    }
}

/// The records that are offered, those at hand first.
fn offered<T>(
    records: &BTreeMap<RecordId, T>,
    keeping: impl Fn(&T) -> Keeping,
) -> impl Iterator<Item = (&RecordId, &T)> {
    let mut offered: Vec<_> =
        records.iter().filter(|(_, record)| keeping(record).is_offered()).collect();
    offered.sort_by_key(|(_, record)| keeping(record));
    offered.into_iter()
}

/// A straight-tuck carton in the first stock that the first cutter takes.
pub(super) fn starting_job(workshop: &Workshop) -> Job {
    let cutter = offered(&workshop.cutters, |cutter| cutter.keeping).next();
    let thickest = cutter.map_or(f64::INFINITY, |(_, cutter)| cutter.thickest);
    let stock = offered(&workshop.stocks, |stock| stock.keeping)
        .find(|(_, stock)| stock.thickness() <= thickest);
    let size = stock.and_then(|(_, stock)| stock.sheets.first().cloned());
    let readable = cutter.and_then(|(_, cutter)| {
        offered(&workshop.mark_sets, |set| set.keeping).find(|(_, set)| cutter.reads(set))
    });
    let form = Form::new("straight-tuck", &[("length", 50.0), ("width", 25.0), ("height", 80.0)]);
    Job {
        name: "New job".to_owned(),
        unit: Unit::Mm,
        pieces: vec![JobPiece {
            face: Some(Face::new(1.0, vec![Layer::panel_names("l1")])),
            ..JobPiece::new("p1", form, stock.map_or("none", |(id, _)| id.0.as_str()))
        }],
        sheet: SheetPlan {
            size: size.unwrap_or_else(|| standard_sizes().swap_remove(1)),
            printer: offered(&workshop.printers, |printer| printer.keeping)
                .next()
                .map(|(id, _)| id.clone()),
            cutter: cutter.map(|(id, _)| id.clone()),
            marks: readable.map(|(id, _)| id.clone()),
            ..SheetPlan::default()
        },
        tooling: Tooling::default(),
    }
}

/// A job of a drawing from elsewhere, bare.
pub fn job_of_drawing(workshop: &Workshop, drawing: LineDrawing) -> Job {
    let mut job = starting_job(workshop);
    job.name = named(&drawing.origin.name, "New drawing");
    job.pieces[0].face = None;
    job.pieces[0].form = Form::of_drawing(drawing);
    job
}

/// What a job goes by that is made of a file.
fn named(file: &str, otherwise: &str) -> String {
    let name = file.rsplit_once('.').map_or(file, |own| own.0);
    let name: String = name.chars().filter(|c| !c.is_control()).take(60).collect();
    if name.trim().is_empty() { otherwise.to_owned() } else { name.trim().to_owned() }
}

/// The border of what is cut around a picture, mm (common practice).
const BORDER: f64 = 2.0;

/// The least radius of inner corners, mm: a blade gets round it.
const INNER: f64 = 0.8;

/// A job of what a picture shows: its outline with a border, on stock with a liner if there is one at hand.
pub fn job_of_picture(workshop: &Workshop, mut traced: Traced) -> Job {
    let mut job = starting_job(workshop);
    let cutter = job.sheet.cutter.as_ref().and_then(|id| workshop.cutters.get(id));
    let thickest = cutter.map_or(f64::INFINITY, |cutter| cutter.thickest);
    let lined = offered(&workshop.stocks, |stock| stock.keeping)
        .find(|(_, stock)| stock.liner.is_some() && stock.thickness() <= thickest);
    if let Some((id, stock)) = lined {
        job.pieces[0].stock = id.clone();
        if let Some(size) = stock.sheets.first() {
            job.sheet.size = size.clone();
        }
    }
    traced.border.distance = BORDER;
    traced.border.inner = INNER;
    job.name = named(&traced.origin.name, "New outline");
    let lying = Lying { panels: vec![PICTURE.to_owned()], ..Lying::default() };
    let mut picture = PlacedPicture::new(traced.picture.clone(), traced.pixels, lying);
    picture.drawn = traced.drawn;
    picture.origin = traced.origin.clone();
    let layer = Layer::new("l1", LayerKind::Picture(picture));
    job.pieces[0].face = Some(Face::new(1.0, vec![layer]));
    job.pieces[0].form = Form::of_picture(traced);
    job
}
