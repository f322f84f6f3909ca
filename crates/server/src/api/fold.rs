//! The folded piece: plates and steps for a view in space, or a flat-shaded drawing where none can be had.

use aptum_core::error::{InputError, Remedy};
use aptum_core::fold::{FoldModel, FoldedDrawing, Mesh, draw_folded, panel_mesh};
use aptum_core::form::design::Stand;
use aptum_core::form::{Flat, Form};
use aptum_core::units::Unit;
use aptum_core::workshop::RecordId;
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::shelf::with_lines;
use crate::store::Store;

/// What is folded.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct FoldAsk {
    form: Form,
    stock: RecordId,
}

/// A moment of the folding.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct FoldMoment {
    form: Form,
    stock: RecordId,
    /// 0 is flat; each step adds 1.
    progress: f64,
}

/// A flat plate.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct PlateView {
    name: String,
    /// The blank it belongs to.
    part: usize,
    /// The plate it hangs on, and the hinge's two ends in that plate's frame, mm.
    parent: Option<usize>,
    hinge: [[f64; 2]; 2],
    /// Distance beside the fold's plane when closed, mm, and the closed angle it goes with, degrees.
    lift: f64,
    fold: f64,
    /// Maps its frame to its blank: the six numbers of an affine map.
    frame: [f64; 6],
    /// Corners in its frame, mm, the third coordinate out of the printed side.
    points: Vec<f64>,
    /// Triangles of the printed side, of the other, and of the edges: indices of corners.
    printed: Vec<u32>,
    back: Vec<u32>,
    edges: Vec<u32>,
    /// How many corners the printed side has; as many of the other follow.
    side: usize,
    /// Its outline and openings, for drawn edges: indices of corners of the printed side, in pairs.
    rims: Vec<u32>,
}

/// A step of the folding.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct StepView {
    text: String,
    /// Each plate's angle in degrees at the end of the step.
    angles: Vec<f64>,
    /// Where each blank's root stands at the end: position (3) and quaternion (x, y, z, w).
    roots: Vec<[f64; 7]>,
}

/// How a finished piece stands.
#[derive(Debug, Clone, Copy, Serialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum StandView {
    /// The flat's top is up.
    Upright,
    /// On the printed side of its first panel.
    OnFirst,
    /// Lying, the printed side up.
    Lying,
}

/// Everything a view in space needs.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct FoldView {
    plates: Vec<PlateView>,
    /// Where each blank's root lies in the flat.
    laid: Vec<[f64; 7]>,
    steps: Vec<StepView>,
    stand: StandView,
    caliper: f64,
}

pub(super) fn caliper(store: &Store, stock: &RecordId) -> Result<f64, Problem> {
    let workshop = store.workshop()?;
    Ok(workshop.stocks.get(stock).map_or(0.3, |stock| stock.caliper))
}

fn folding(flat: &Flat, caliper: f64) -> Result<FoldModel, Vec<InputError>> {
    FoldModel::new(flat, caliper).ok_or_else(|| {
        let advice = Remedy::advice("Look at it flat, or give it creases");
        vec![InputError::plain("form", "The piece has nothing that folds", advice)]
    })
}

/// The plates and steps of a form.
#[post("/fold", data = "<ask>")]
pub async fn fold(desk: &State<Desk>, ask: Body<FoldAsk>) -> Result<Json<FoldView>, Problem> {
    desk.quick(move |store| {
        let caliper = caliper(store, &ask.0.stock)?;
        let flat = with_lines(ask.0.form, store).draw(caliper, Unit::Mm)?;
        Ok(Json(FoldView::new(&folding(&flat, caliper)?)))
    })
    .await
}

/// A flat-shaded drawing of a form at one moment of the folding.
#[post("/folded", data = "<moment>")]
pub async fn folded(
    desk: &State<Desk>,
    moment: Body<FoldMoment>,
) -> Result<Json<FoldedDrawing>, Problem> {
    desk.quick(move |store| {
        let caliper = caliper(store, &moment.0.stock)?;
        let FoldMoment { form, progress, .. } = moment.0;
        let flat = with_lines(form, store).draw(caliper, Unit::Mm)?;
        Ok(Json(draw_folded(&folding(&flat, caliper)?, progress)))
    })
    .await
}

impl FoldView {
    fn new(model: &FoldModel) -> Self {
        let steps = model
            .steps
            .iter()
            .map(|step| StepView {
                text: step.text.clone(),
                angles: step.angles.clone(),
                roots: step.roots.iter().map(Placed::placed).collect(),
            })
            .collect();
        Self {
            plates: (0..model.panels.len()).map(|at| plate(model, at)).collect(),
            laid: model.laid.iter().map(Placed::placed).collect(),
            steps,
            stand: match model.stand {
                Stand::Upright => StandView::Upright,
                Stand::OnFirst => StandView::OnFirst,
                Stand::Lying => StandView::Lying,
            },
            caliper: model.caliper,
        }
    }
}

fn plate(model: &FoldModel, at: usize) -> PlateView {
    let panel = &model.panels[at];
    let Mesh { points, printed, back, edges } = panel_mesh(panel, model.caliper);
    let flat = |faces: &[[u32; 3]]| faces.iter().flatten().copied().collect();
    let mut rims = Vec::new();
    let mut start = 0u32;
    for ring in std::iter::once(&panel.ring).chain(&panel.openings) {
        let long = u32::try_from(ring.len()).unwrap_or(0);
        let seen = (0..ring.len())
            .filter(|here| panel.is_seen(ring[*here], ring[(here + 1) % ring.len()]))
            .filter_map(|here| u32::try_from(here).ok());
        rims.extend(seen.flat_map(|here| [start + here, start + (here + 1) % long]));
        start += long;
    }
    PlateView {
        name: panel.shown_name().to_owned(),
        side: panel.ring.len() + panel.openings.iter().map(Vec::len).sum::<usize>(),
        part: panel.part,
        parent: panel.hang.map(|(parent, _)| parent),
        hinge: panel.hang.map_or([[0.0; 2]; 2], |(_, ends)| ends.map(|end| [end.x, end.y])),
        lift: panel.lift,
        fold: panel.fold,
        frame: panel.frame.as_coeffs(),
        points: points.into_iter().flatten().collect(),
        printed: flat(&printed),
        back: flat(&back),
        edges: flat(&edges),
        rims,
    }
}

/// A place in space as seven numbers.
trait Placed {
    fn placed(&self) -> [f64; 7];
}

impl Placed for aptum_core::fold::Place {
    fn placed(&self) -> [f64; 7] {
        let (at, turn) = (self.translation.vector, self.rotation.coords);
        [at.x, at.y, at.z, turn.x, turn.y, turn.z, turn.w]
    }
}
