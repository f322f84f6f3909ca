//! The lines of a drawing, worked at by hand: one that is pressed, and a structure that is set free from its figures.

use aptum_core::Job;
use aptum_core::face::Face;
use aptum_core::form::{Form, LineDrawing};
use aptum_core::geometry::{Point, path_text};
use aptum_core::job::JobPiece;
use aptum_core::lines::{Chain, Line, Meaning, Picked};
use aptum_core::units::{Unit, measure};
use aptum_core::workshop::RecordId;
use aptum_formats::content::Content;
use aptum_formats::lines::kept;
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::fold::caliper;
use super::starts::starting_job;
use crate::desk::Desk;
use crate::shelf::{furnished, with_lines};

/// A drawing and the line of it that is looked for: by its number, or by a place.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct PickAsk {
    drawing: LineDrawing,
    /// Its number.
    line: Option<usize>,
    /// A place near it, in units of the file.
    at: Option<[f64; 2]>,
    /// How near, in units of the file.
    #[serde(default)]
    reach: f64,
    /// How long a unit of the file is, mm.
    mm: f64,
    /// What its length is told in.
    unit: Unit,
}

/// A line that was found.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PickedView {
    /// Its number.
    line: usize,
    /// Where it runs, in units of the file.
    path: String,
    is_closed: bool,
    nodes: Vec<NodeView>,
    /// What runs from each node to the next.
    segments: Vec<SegmentView>,
    length_text: String,
    /// The same in units of the file.
    length: f64,
    /// What it is, where that is told of it alone.
    told: Option<Meaning>,
    /// The row of the line key that it belongs to.
    row: String,
    /// The segment nearest to the place by which it was found, and how far along that, 0 to 1.
    near: Option<NearView>,
}

/// A place on a line.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct NearView {
    segment: usize,
    share: f64,
}

/// A node, with the handles of the curves that come to it and leave it, in units of the file.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct NodeView {
    at: [f64; 2],
    into: Option<[f64; 2]>,
    out: Option<[f64; 2]>,
}

/// What runs between two nodes.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SegmentView {
    is_straight: bool,
    /// Where it runs, in units of the file.
    path: String,
}

/// Most nodes of a line that are shown.
const MOST_NODES: usize = 20_000;

fn xy(at: Point) -> [f64; 2] {
    [at.x, at.y]
}

impl PickedView {
    fn new(picked: &Picked, line: &Line, row: String, mm: f64, unit: Unit) -> Self {
        let chain = &picked.chain;
        let nodes = (0..chain.nodes().min(MOST_NODES)).filter_map(|node| {
            let at = chain.node(node)?;
            Some(NodeView {
                at: xy(at),
                into: chain.before(node).and_then(|own| chain.handles(own)).map(|own| xy(own[1])),
                out: chain.after(node).and_then(|own| chain.handles(own)).map(|own| xy(own[0])),
            })
        });
        let segments = chain.segments.iter().take(MOST_NODES).map(|own| {
            let alone = Chain { segments: vec![*own], is_closed: false };
            SegmentView {
                is_straight: matches!(own, aptum_core::geometry::PathSeg::Line(_)),
                path: path_text(&alone.path()),
            }
        });
        Self {
            line: picked.line,
            path: path_text(&chain.path()),
            is_closed: chain.is_closed,
            nodes: nodes.collect(),
            segments: segments.collect(),
            length_text: measure(picked.length * mm, unit),
            length: picked.length,
            told: line.told,
            row,
            near: picked.near.map(|(segment, share)| NearView { segment, share }),
        }
    }
}

/// The line that is looked for, or nothing where none is.
#[post("/lines/pick", data = "<ask>")]
pub async fn pick(
    desk: &State<Desk>,
    ask: Body<PickAsk>,
) -> Result<Json<Option<PickedView>>, Problem> {
    let PickAsk { drawing, line, at, reach, mm, unit } = ask.0;
    desk.quick(move |store| {
        let form = with_lines(Form::of_drawing(drawing), store);
        let lines = form.drawing().and_then(|own| own.read.0.clone());
        let lines =
            lines.ok_or_else(|| Problem::missing("The drawing is not here: bring it in again"))?;
        let found = match (line, at) {
            (Some(line), _) => lines.picked(line),
            (None, Some([x, y])) => lines.nearest(Point::new(x, y), reach),
            (None, None) => None,
        };
        Ok(Json(found.and_then(|found| {
            let line = lines.lines.get(found.line)?;
            let row = lines.groups.get(line.group)?.id();
            Some(PickedView::new(&found, line, row, mm, unit))
        })))
    })
    .await
}

/// A structure that is to be set free, and the card that it is made of.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct FreeAsk {
    form: Form,
    stock: RecordId,
    /// What is printed on it.
    face: Option<Face>,
    /// What its lines are called.
    name: String,
}

/// A form that was set free.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct FreedView {
    drawing: LineDrawing,
    /// What is printed on it, where it lay.
    face: Option<Face>,
}

/// A structure as lines of its own, which fold as it did: kept on disk when the answer comes.
#[post("/drawings/free", data = "<ask>")]
pub async fn set_free(desk: &State<Desk>, ask: Body<FreeAsk>) -> Result<Json<FreedView>, Problem> {
    let FreeAsk { form, stock, face, name } = ask.0;
    let name: String = name.chars().filter(|own| !own.is_control()).take(200).collect();
    let (lines, drawing, face) = desk
        .quick(move |store| {
            let caliper = caliper(store, &stock)?;
            let mut piece = JobPiece::new("p1", form, &stock.0);
            piece.face = face;
            let job = Job { pieces: vec![piece], ..starting_job(&*store.workshop()?) };
            let piece = &furnished(&job, store).pieces[0];
            let flat = piece.form.draw(caliper, Unit::Mm)?;
            let (lines, drawing) = LineDrawing::freed(&flat, &name)
                .map_err(|error| Problem::drawing(422, error.to_string()))?;
            let face = piece.face.as_ref().zip(flat.parts.first());
            Ok((lines, drawing, face.map(|(face, part)| face.set_free(part))))
        })
        .await?;
    let bytes = kept(&lines);
    desk.write(move |store| {
        let lines = store.add_blob(Content::Lines, &bytes)?;
        Ok(Json(FreedView { drawing: LineDrawing { lines, ..drawing }, face }))
    })
    .await
}
