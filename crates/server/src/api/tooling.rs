//! The tool path of a sheet: operations in order, what each is done with, and where the tool runs when.

use std::fmt::Write;

use aptum_core::geometry::Point;
use aptum_core::tooling::{Stretch, Worked};
use aptum_core::units::measure;
use aptum_core::workshop::{Cutter, Tool};
use aptum_core::{Job, LineKind};
use rocket::serde::json::Json;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::shelf::{prepared, tool_path};

/// A job and which of its runs of sheets is meant.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct ToolingAsk {
    job: Job,
    run: usize,
}

/// How a run of sheets is worked.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ToolingView {
    operations: Vec<OperationView>,
    stretches: Vec<StretchView>,
    /// How long a sheet takes, s; none where the cutter's pace is not known.
    seconds: Option<f64>,
    time_text: String,
    /// What was asked for twice and is worked once; empty where nothing was.
    left_out_text: String,
    /// How far tools go down, and up.
    length_text: String,
    travel_text: String,
}

/// An operation.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OperationView {
    kind: LineKind,
    name: String,
    tool: String,
    /// The station that holds the tool; none where none does.
    station: Option<String>,
    /// The stations that could.
    stations: Vec<String>,
    /// N; none leaves it to the machine.
    force: Option<f64>,
    /// mm/s; none leaves it to the machine.
    speed: Option<f64>,
    passes: u32,
    is_off: bool,
    /// True where the machine stops before it for another tool.
    is_after_stop: bool,
    lines: usize,
    length_text: String,
    time_text: String,
    /// When it begins and how long it takes, s.
    begins: f64,
    takes: f64,
}

/// A tool's way along one line, once.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct StretchView {
    /// Which of the operations.
    operation: usize,
    /// Which pass, from 1.
    pass: u32,
    /// Where the tip runs, SVG path data, mm.
    line: String,
    /// Where the tool comes down and goes up, mm.
    from: [f64; 2],
    to: [f64; 2],
    /// When it begins and how long it takes, s.
    begins: f64,
    takes: f64,
}

/// What the tools do on a run of sheets.
#[post("/tooling", data = "<ask>")]
pub async fn tooling(
    desk: &State<Desk>,
    ask: Body<ToolingAsk>,
) -> Result<Json<ToolingView>, Problem> {
    desk.slow(move |store| {
        let ToolingAsk { job, run } = ask.0;
        let workshop = store.workshop()?;
        let prepared = prepared(&job, &workshop, store)?;
        let Some(path) = tool_path(&prepared, &job, &workshop, run) else {
            let runs = prepared.layout.runs.len();
            return Err(Problem::missing(format!("The job has {runs} kinds of sheets, no more")));
        };
        let cutter = job.sheet.cutter.as_ref().and_then(|id| workshop.cutters.get(id));
        let show = |mm: f64| measure(mm, job.unit);
        let (length, travel) = path.lengths();
        let operations = path.worked.iter().enumerate().map(|(number, worked)| {
            let own = || path.stretches.iter().filter(|own| own.operation == number);
            let begins = own().next().map_or(0.0, |first| first.begins);
            OperationView::new(worked, cutter, begins, &show)
        });
        Ok(Json(ToolingView {
            operations: operations.collect(),
            stretches: path.stretches.iter().map(StretchView::new).collect(),
            seconds: path.seconds,
            time_text: path.seconds.map_or_else(|| "not known".to_owned(), clock),
            left_out_text: if path.left_out > 0.5 { show(path.left_out) } else { String::new() },
            length_text: show(length),
            travel_text: show(travel),
        }))
    })
    .await
}

impl OperationView {
    fn new(
        worked: &Worked,
        cutter: Option<&Cutter>,
        begins: f64,
        show: &dyn Fn(f64) -> String,
    ) -> Self {
        let own = &worked.operation;
        let stations = cutter.map_or(&[] as &[_], |cutter| cutter.stations.as_slice());
        let holding = stations.iter().filter(|station| station.tools.contains(&own.tool));
        Self {
            kind: own.kind,
            name: own.kind.name().to_owned(),
            tool: match own.tool {
                Tool::DragKnife => "knife",
                Tool::Creaser => "creaser",
                Tool::Pen => "pen",
            }
            .to_owned(),
            station: own.station.and_then(|at| stations.get(at)).map(|own| own.name.clone()),
            stations: holding.map(|station| station.name.clone()).collect(),
            force: own.force,
            speed: own.speed,
            passes: own.passes,
            is_off: own.is_off,
            is_after_stop: own.is_after_stop,
            lines: worked.lines,
            length_text: show(worked.length),
            time_text: worked.seconds.map_or_else(String::new, clock),
            begins,
            takes: worked.seconds.unwrap_or(0.0),
        }
    }
}

impl StretchView {
    fn new(own: &Stretch) -> Self {
        let xy = |at: Option<&Point>| at.map_or([0.0; 2], |at| [at.x, at.y]);
        let mut line = String::new();
        for (at, point) in own.line.iter().enumerate() {
            let letter = if at == 0 { 'M' } else { 'L' };
            // Writing to a string cannot fail.
            let _ = write!(line, "{letter}{:.3} {:.3}", point.x, point.y);
        }
        Self {
            operation: own.operation,
            pass: own.pass,
            line,
            from: xy(own.way.first()),
            to: xy(own.way.last()),
            begins: own.begins,
            takes: own.takes,
        }
    }
}

/// Minutes and seconds.
fn clock(seconds: f64) -> String {
    let whole = seconds.round().clamp(0.0, 1e7);
    format!("{}:{:02}", (whole / 60.0).floor(), whole % 60.0)
}
