//! What the interface needs before any job is open.

use std::collections::BTreeMap;

use aptum_core::face::{Face, Layer};
use aptum_core::form::{AddOnKind, Form};
use aptum_core::job::JobPiece;
use aptum_core::sheet::{SheetPlan, SheetSize, standard_sizes};
use aptum_core::units::{Unit, UnitInfo};
use aptum_core::workshop::{Keeping, RecordId};
use aptum_core::{Job, Workshop};
use rocket::serde::json::Json;
use rocket::{State, get};
use schemars::JsonSchema;
use serde::Serialize;
use serde_json::Value;
use ts_rs::TS;

use super::{Problem, openapi};
use crate::desk::Desk;

/// What does not change while the server runs, and a job to start from.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct Meta {
    /// The server's version.
    pub version: String,
    /// The units, in the order in which they are offered.
    pub units: Vec<UnitInfo>,
    /// The sheet sizes everyone has a name for.
    pub sheet_sizes: Vec<SheetSize>,
    /// What can be added to panels.
    pub add_ons: Vec<AddOnInfo>,
    /// A job to start from, made from the records at hand, or else the first ones.
    pub starting_job: Job,
}

/// Something that can be added to a panel.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct AddOnInfo {
    kind: AddOnKind,
    /// The trade's name.
    name: String,
    /// Width and height it starts with, mm.
    size: [f64; 2],
    /// Whether it has a width, and a height.
    measures: [bool; 2],
}

/// Units, sizes and a job to start from.
#[get("/meta")]
pub async fn meta(desk: &State<Desk>) -> Result<Json<Meta>, Problem> {
    let workshop = desk.quick(|store| Ok(store.workshop()?)).await?;
    Ok(Json(Meta {
        version: env!("CARGO_PKG_VERSION").to_owned(),
        units: Unit::ALL.map(Unit::info).to_vec(),
        sheet_sizes: standard_sizes(),
        add_ons: AddOnKind::ALL
            .map(|kind| AddOnInfo {
                kind,
                name: kind.name().to_owned(),
                size: kind.standard(),
                measures: kind.measures(),
            })
            .into(),
        starting_job: starting_job(&workshop),
    }))
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
fn starting_job(workshop: &Workshop) -> Job {
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
            face: Some(Face { bleed: 1.0, layers: vec![Layer::panel_names("l1")] }),
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
    }
}

/// The OpenAPI document.
#[get("/openapi.json")]
pub fn document() -> Json<Value> {
    Json(openapi::document())
}
