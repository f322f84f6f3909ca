//! What the interface needs before any job is open.

use aptum_core::check::Stage;
use aptum_core::face::{Text, TextSize};
use aptum_core::form::AddOnKind;
use aptum_core::geometry::path_text;
use aptum_core::lettering::{SHELF, Typeface};
use aptum_core::lines::PER_INCH;
use aptum_core::rehearsal::Day;
use aptum_core::sheet::{SheetSize, standard_sizes};
use aptum_core::units::{Unit, UnitInfo};
use aptum_core::{LineKind, Workshop};
use aptum_devices::printer::PPI;
use aptum_formats::art::{OFFERED_PPI, USUAL_PPI};
use rocket::serde::json::Json;
use rocket::{State, get};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::Problem;
use super::starts::Starts;
use crate::desk::Desk;
use crate::shelf::{Written, written};

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
    /// The stages of a job, in their order.
    stages: Vec<StageInfo>,
    /// What a printer can do to a sheet in a rehearsal, the usual first.
    days: Vec<DayInfo>,
    /// The kinds of line, as they are offered to the eye: cuts first.
    lines: Vec<LineInfo>,
    /// The typefaces of the shelf, the plainest first.
    typefaces: Vec<TypefaceInfo>,
    /// Pixels in an inch at which the simulated printer prints, the usual first.
    printer_ppi: [u32; 2],
    /// Pixels in an inch that are offered for pictures of sheets.
    picture_ppi: [u32; 3],
    /// The one of these where nothing is said.
    usual_ppi: u32,
    /// Units to the inch in which a cut file can be written.
    units_per_inch: [f64; 4],
    /// What new things start as.
    starts: Starts,
}

/// A typeface of the shelf.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct TypefaceInfo {
    id: &'static str,
    /// Its character, in a word or two.
    character: &'static str,
    family: &'static str,
    /// Its character's name set in it: SVG path data about the middle of a box of this width and height.
    sample: String,
    sample_size: [f64; 2],
}

impl TypefaceInfo {
    fn new(typeface: &Typeface) -> Self {
        let text = Text {
            typeface: typeface.id.to_owned(),
            size: TextSize::Capitals(10.0),
            ..Text::new(typeface.character)
        };
        let set = text.set([200.0, 20.0]);
        Self {
            id: typeface.id,
            character: typeface.character,
            family: typeface.family,
            sample: path_text(&set.path),
            sample_size: set.size,
        }
    }
}

/// A stage of a job.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct StageInfo {
    stage: Stage,
    /// What it is called.
    name: &'static str,
}

/// What a printer can do to a sheet.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct DayInfo {
    day: Day,
    /// In words.
    name: &'static str,
}

/// A kind of line.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LineInfo {
    kind: LineKind,
    /// What it is called in running text.
    name: &'static str,
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
pub async fn meta(desk: &State<Desk>) -> Result<Json<Written>, Problem> {
    desk.quick(|store| {
        let workshop = store.workshop()?;
        let meta = written("meta", &*workshop, || Meta::of(&workshop));
        meta.map(Json).ok_or_else(Problem::broken)
    })
    .await
}

impl Meta {
    fn of(workshop: &Workshop) -> Self {
        let mut units_per_inch = PER_INCH;
        units_per_inch.sort_by(f64::total_cmp);
        Self {
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
            stages: Stage::ALL.map(|stage| StageInfo { stage, name: stage.name() }).into(),
            days: Day::ALL.map(|day| DayInfo { day, name: day.name() }).into(),
            lines: LineKind::IN_ORDER
                .into_iter()
                .rev()
                .map(|kind| LineInfo { kind, name: kind.name() })
                .collect(),
            typefaces: SHELF.iter().map(TypefaceInfo::new).collect(),
            printer_ppi: PPI,
            picture_ppi: OFFERED_PPI,
            usual_ppi: USUAL_PPI,
            units_per_inch,
            starts: Starts::of(workshop),
        }
    }
}
