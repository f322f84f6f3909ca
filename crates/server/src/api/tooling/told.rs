//! What is said of operations and of the path.

use std::fmt::Write;

use aptum_core::geometry::Point;
use aptum_core::id::PieceId;
use aptum_core::job::{Moment, OperationId, Reverse, Share};
use aptum_core::logbook::{Combination, LogEntry};
use aptum_core::tooling::{
    Before, CutPlan, Operation, Outcome, Setting, Stretch, ToolPath, Worked, nick_places,
    tool_name, trailed,
};
use aptum_core::units::measure;
use aptum_core::workshop::{Cutter, DepthSetting, Finds, Force, RecordId, Tool};
use aptum_core::{Check, Job, LineKind, Prepared, Workshop};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::shares::ShareView;
use crate::api::logbook::{outcome_words, settings_words};
use crate::output::cutter_of;
use crate::store::{Logged, Store};

/// How a run of sheets is worked.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct ToolingView {
    pub(super) operations: Vec<OperationView>,
    pub(super) stretches: Vec<StretchView>,
    /// How long a sheet takes, s; none where the cutter's pace is not known.
    pub(super) seconds: Option<f64>,
    pub(super) time_text: String,
    /// How long all sheets of the job take that are alike; empty where it is one.
    pub(super) order_text: String,
    /// How long its sheets take to print; empty where that is not known.
    pub(super) print_text: String,
    /// What was asked for twice and is worked once; empty where nothing was.
    pub(super) left_out_text: String,
    /// How far tools go down, and up.
    pub(super) length_text: String,
    pub(super) travel_text: String,
    /// Where outlines are left uncut, mm.
    pub(super) nicks: Vec<[f64; 2]>,
    /// What is said of the path.
    pub(super) checks: Vec<Check>,
    /// Copies that can be worked first or last.
    pub(super) copies: Vec<SheetCopy>,
}

/// A copy that can be pinned to the beginning or the end.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SheetCopy {
    piece: PieceId,
    copy: u32,
    name: String,
}

/// An operation.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OperationView {
    id: OperationId,
    kind: LineKind,
    name: String,
    tool: String,
    /// The station that holds the tool; none where none does.
    station: Option<String>,
    /// The stations that could.
    stations: Vec<String>,
    /// How the station's blade gets its depth.
    depth_setting: Option<DepthSetting>,
    /// In the unit that is told with it; none leaves it to the machine.
    force: Option<Force>,
    /// mm/s; none leaves it to the machine.
    speed: Option<f64>,
    passes: u32,
    /// The station's step; none leaves it as it is.
    depth: Option<f64>,
    is_off: bool,
    when: Moment,
    reverse: Reverse,
    /// In which loading of the sheet, from 0.
    loading: usize,
    /// What a person does before it, in words.
    before: Vec<String>,
    /// The recipe that it goes by.
    recipe: Option<RecipeView>,
    /// What came of it when the same was done last; none where nobody has.
    last: Option<LastView>,
    /// Shares of its lines that could be worked by themselves.
    shares: Vec<ShareView>,
    /// True where it was split off.
    is_share: bool,
    lines: usize,
    length_text: String,
    time_text: String,
    /// When it begins and how long it takes, s.
    begins: f64,
    takes: f64,
}

/// The recipe that an operation goes by.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct RecipeView {
    id: RecordId,
    name: String,
    /// The day on which it worked last.
    worked: Option<String>,
    /// What the job says otherwise, such as “force 2 N, not 1.9 N”.
    differs: Vec<String>,
}

/// What came of the same card, cutter, tool and line when they came together last.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct LastView {
    /// When, such as `2026-10-12 14:03`.
    made_at: String,
    /// What came of it, in words.
    words: String,
    /// With which settings.
    settings: String,
    is_good: bool,
    force: Option<Force>,
    speed: Option<f64>,
    passes: u32,
    depth: Option<f64>,
    /// True where the operation has just these settings.
    is_same: bool,
}

/// A tool's way along one line, once.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct StretchView {
    /// Which of the operations.
    operation: usize,
    /// Which pass, from 1.
    pass: u32,
    /// The piece that the line is on; none in the waste.
    piece: Option<PieceId>,
    /// The line's name on it, such as `edge`; empty where a blade is turned in the waste.
    stroke: String,
    /// Where the tip runs, SVG path data, mm.
    line: String,
    /// Where the tip will really run with a blade that trails and nobody who allows for it, SVG path data, mm; empty where
    /// that is the same.
    trails: String,
    length_text: String,
    /// Where the tool comes down and goes up, mm.
    from: [f64; 2],
    to: [f64; 2],
    /// When it begins and how long it takes, s.
    begins: f64,
    takes: f64,
}

/// What an answer is told from.
pub(super) struct Told<'a> {
    pub job: &'a Job,
    pub workshop: &'a Workshop,
    pub prepared: &'a Prepared,
    pub store: &'a Store,
}

/// Most copies that are offered to be pinned.
const MOST_COPIES: usize = 400;

impl<'a> Told<'a> {
    pub fn cutter(&self) -> Option<&'a Cutter> {
        cutter_of(self.job, self.workshop)
    }

    pub fn nicks(&self, run: usize) -> Vec<[f64; 2]> {
        let Some(nicks) = &self.job.tooling.nicks else { return Vec::new() };
        let of: Vec<Vec<Point>> =
            self.prepared.blanks().map(|blank| nick_places(blank.part, nicks)).collect();
        let placements = self.prepared.layout.runs.get(run).map(|run| run.placements.as_slice());
        let placed = placements.unwrap_or_default().iter().filter_map(|at| {
            let to_sheet = at.transform();
            Some(of.get(at.part)?.iter().map(move |place| to_sheet * *place))
        });
        placed.flatten().map(|place| [place.x, place.y]).collect()
    }

    pub fn copies(&self, run: usize) -> Vec<SheetCopy> {
        let pieces: Vec<usize> = self.prepared.blanks().map(|blank| blank.piece).collect();
        let placements = self.prepared.layout.runs.get(run).map(|run| run.placements.as_slice());
        let mut copies: Vec<SheetCopy> = Vec::new();
        for at in placements.unwrap_or_default().iter().take(MOST_COPIES) {
            let Some(piece) = pieces.get(at.part).and_then(|at| self.prepared.pieces.get(*at))
            else {
                continue;
            };
            let id = &piece.job_piece.id;
            if copies.iter().all(|own| own.piece != *id || own.copy != at.copy) {
                let name = format!("{} {}", piece.name, at.copy);
                copies.push(SheetCopy { piece: id.clone(), copy: at.copy, name });
            }
        }
        copies
    }

    pub fn operation(&self, worked: &Worked, begins: f64) -> OperationView {
        let own = &worked.operation;
        let stations = self.cutter().map_or(&[] as &[_], |cutter| cutter.stations.as_slice());
        let holding = stations.iter().filter(|station| station.tools.contains(&own.tool));
        let station = own.station.and_then(|at| stations.get(at));
        OperationView {
            id: own.id.clone(),
            kind: own.kind,
            name: self.name(own),
            tool: tool_name(own.tool).to_owned(),
            station: station.map(|own| own.name.clone()),
            stations: holding.map(|station| station.name.clone()).collect(),
            depth_setting: station.map(|own| own.depth),
            force: own.force,
            speed: own.speed,
            passes: own.passes,
            depth: own.depth,
            is_off: own.is_off,
            when: own.when,
            reverse: own.reverse,
            loading: own.loading,
            before: own.before.iter().map(|before| self.before(*before, own)).collect(),
            recipe: self.recipe(own),
            last: self.last(own),
            shares: self.shares(own),
            is_share: !own.share.is_rest(),
            lines: worked.lines,
            length_text: measure(worked.length, self.job.unit),
            time_text: worked.seconds.map_or_else(String::new, clock),
            begins,
            takes: worked.seconds.unwrap_or(0.0),
        }
    }

    fn name(&self, own: &Operation) -> String {
        match &own.share {
            Share::Piece(id) => {
                let piece = self.prepared.pieces.iter().find(|piece| piece.job_piece.id == *id);
                let name = piece.map_or(id.0.as_str(), |piece| piece.name.as_str());
                format!("{}, {name}", own.kind.name())
            }
            Share::Drawn(group) => format!("{}, {}", own.kind.name(), self.group(group)),
            Share::Rest | Share::Card(_) | Share::Edge | Share::EdgeOn(_) => own.name(),
        }
    }

    fn before(&self, before: Before, own: &Operation) -> String {
        let cutter = self.cutter();
        let station = own.station.and_then(|at| cutter?.stations.get(at));
        let station = station.map_or("its station", |station| station.name.as_str());
        match before {
            Before::Tool => format!("stop: the {} goes into {station}", tool_name(own.tool)),
            Before::Depth => {
                format!("stop: {station} is set to step {}", own.depth.unwrap_or_default())
            }
            Before::Cap => format!(
                "stop: the cap for depth {} goes onto {station}",
                own.depth.unwrap_or_default()
            ),
            Before::Load => {
                let how = match cutter.map(|cutter| &cutter.finds) {
                    _ if own.is_from_behind() => "with its back up, registered by the stop",
                    Some(Finds::Eye(_)) => "and registered by its marks, which are read again",
                    Some(Finds::Crosshairs) => "and registered by the crosshairs, set again",
                    Some(Finds::Scan) => "and registered by a new scan",
                    _ => "registered by the stop",
                };
                let printed = match own.when {
                    Moment::BeforePrint => "",
                    Moment::BetweenInks => "printed in colour, ",
                    Moment::AfterPrint => "printed, ",
                };
                format!("pass {}: {printed}the sheet is loaded again {how}", own.loading + 1)
            }
        }
    }

    fn recipe(&self, own: &Operation) -> Option<RecipeView> {
        let id = own.recipe.as_ref()?;
        let recipe = self.workshop.recipes.get(id)?;
        let show = |mm: f64| format!("{}/s", measure(mm, self.job.unit));
        let left = || "left to the machine".to_owned();
        let differs = own.differs.iter().map(|setting| match setting {
            Setting::Force => (
                "force",
                own.force.map_or_else(left, Force::text),
                recipe.force.map_or_else(left, Force::text),
            ),
            Setting::Speed => {
                ("speed", own.speed.map_or_else(left, show), recipe.speed.map_or_else(left, show))
            }
            Setting::Passes => ("passes", own.passes.to_string(), recipe.passes.to_string()),
            Setting::Depth => {
                let step = |depth: Option<f64>| {
                    depth.map_or_else(|| "as it is".to_owned(), |own| own.to_string())
                };
                ("depth", step(own.depth), step(recipe.depth))
            }
        });
        Some(RecipeView {
            id: id.clone(),
            name: recipe.name.clone(),
            worked: recipe.worked.clone(),
            differs: differs.map(|(what, now, was)| format!("{what} {now}, not {was}")).collect(),
        })
    }

    fn last(&self, own: &Operation) -> Option<LastView> {
        let cutter = self.job.sheet.cutter.as_ref()?;
        let stock = own.stocks.iter().next()?;
        let combination = Combination { stock, cutter, tool: own.tool, line: own.kind };
        // A Logbook that cannot be read is no reason to show no path.
        let Logged { made_at, entry, .. } = self.store.last_logged(&combination).ok()??;
        let LogEntry { force, speed, passes, depth, outcome, .. } = entry;
        Some(LastView {
            made_at,
            words: outcome_words(outcome, own.kind).to_owned(),
            settings: settings_words(&entry, self.job.unit),
            is_good: outcome == Outcome::JustRight,
            force,
            speed,
            passes,
            depth,
            is_same: (force, speed, passes, depth) == (own.force, own.speed, own.passes, own.depth),
        })
    }

    pub fn stretch(&self, own: &Stretch, plan: &CutPlan, path: &ToolPath) -> StretchView {
        let xy = |at: Option<&Point>| at.map_or([0.0; 2], |at| [at.x, at.y]);
        let stroke = own.stroke.and_then(|at| plan.strokes.get(at));
        let piece = stroke.filter(|own| own.copy.is_some());
        let long: f64 = own.line.windows(2).map(|two| two[0].distance(two[1])).sum();
        let tip = self.cutter().and_then(|cutter| {
            let knife = path.worked.get(own.operation)?.operation.tool == Tool::DragKnife;
            let offset = cutter.knife.offset;
            (knife && offset > 0.0).then(|| trailed(&own.way, offset))
        });
        StretchView {
            operation: own.operation,
            pass: own.pass,
            piece: piece.and_then(|own| plan.pieces.get(own.blank)).cloned(),
            stroke: stroke.map_or_else(String::new, |own| own.stroke.to_string()),
            line: line_of(&own.line),
            trails: tip.filter(|_| own.pass == 1).map_or_else(String::new, |tip| line_of(&tip)),
            length_text: measure(long, self.job.unit),
            from: xy(own.way.first()),
            to: xy(own.way.last()),
            begins: own.begins,
            takes: own.takes,
        }
    }
}

/// A line as SVG path data.
pub(in crate::api) fn line_of(points: &[Point]) -> String {
    let mut line = String::new();
    for (at, point) in points.iter().enumerate() {
        let letter = if at == 0 { 'M' } else { 'L' };
        // Writing to a string cannot fail.
        let _ = write!(line, "{letter}{:.3} {:.3}", point.x, point.y);
    }
    line
}

/// Minutes and seconds.
pub(super) fn clock(seconds: f64) -> String {
    let whole = seconds.round().clamp(0.0, 1e7);
    format!("{}:{:02}", (whole / 60.0).floor(), whole % 60.0)
}

/// More lines than a page can tell apart: what follows each other in an operation is told as one.
const MOST_STRETCHES: usize = 12_000;

pub(super) fn together(all: Vec<StretchView>) -> Vec<StretchView> {
    let each = all.len().div_ceil(MOST_STRETCHES);
    if each < 2 {
        return all;
    }
    let mut few: Vec<StretchView> = Vec::new();
    let mut room = 0;
    for next in all {
        match few.last_mut() {
            Some(last)
                if room > 0 && (last.operation, last.pass) == (next.operation, next.pass) =>
            {
                room -= 1;
                last.line.push_str(&next.line);
                last.trails.push_str(&next.trails);
                last.to = next.to;
                last.takes = next.begins + next.takes - last.begins;
            }
            _ => {
                room = each - 1;
                few.push(next);
            }
        }
    }
    few
}
