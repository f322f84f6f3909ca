//! What would fit: mark sets compared, the best marks, ways to fit, and what other sheets would change.

use std::time::Duration;

use aptum_core::check::State as Standing;
use aptum_core::error::Remedy;
use aptum_core::geometry::path_text;
use aptum_core::order_change::{OrderChange, order_changes};
use aptum_core::sheet::{
    MarkChoice, SheetPlan, Way, WayKind, all_ways, best_marks, compare_marks, misfits, ruled_out,
};
use aptum_core::units::{measure_area, product};
use aptum_core::workshop::{MarkSet, RecordId};
use aptum_core::{Job, Prepared, Workshop, prepare_with};
use rocket::http::ContentType;
use rocket::response::{self, Responder};
use rocket::{Request, Response, State, post};
use schemars::JsonSchema;
use serde::Serialize;
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::preview::money;
use super::tasks::{Events, Tasks};
use crate::desk::Desk;
use crate::sending;
use crate::shelf::{furnished, prepared, shelf};

/// A mark set with what it leaves.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MarkChoiceView {
    /// `None` for one that is not in the workshop.
    id: Option<RecordId>,
    set: MarkSet,
    /// The set in words.
    summary: String,
    usable: f64,
    usable_text: String,
    per_sheet: u32,
    sheets: u32,
    state: Standing,
    trouble: Option<String>,
    /// What it gains against the marks in use, in words.
    gain_text: String,
    /// A small drawing of the sheet with it.
    sheet: SmallSheet,
}

/// A sheet, small.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SmallSheet {
    page: [f64; 2],
    /// SVG path data, mm.
    cut_window: String,
    marks: String,
    copies: String,
}

/// A way to fit, tried.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct WayView {
    kind: WayKind,
    remedy: Remedy,
    /// What it comes to: names and figures.
    figures: Vec<[String; 2]>,
    sheet: SmallSheet,
}

/// The end of the search for ways.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct WaysDone {
    /// How many were found.
    found: u32,
    /// Which limit rules everything out, where none was.
    ruled_out: Option<String>,
    /// The piece they are for, in a job of several.
    piece: Option<String>,
    /// How many other pieces fit nowhere either.
    others: u32,
}

/// How far the search for the best marks is.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MarksProgress {
    done: f64,
}

/// What another sheet or spacing would make of the order.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OrderChoice {
    /// What is changed.
    remedy: Remedy,
    sheets: u32,
    per_sheet: u32,
    yield_text: String,
    waste_text: String,
    cost_text: Option<String>,
}

/// JSON that goes out when it is made, to whoever still waits for it.
pub struct Answer(sending::Body);

impl<'r> Responder<'r, 'static> for Answer {
    fn respond_to(self, _: &'r Request<'_>) -> response::Result<'static> {
        Response::build().header(ContentType::JSON).streamed_body(self.0).ok()
    }
}

/// Longest that ways and best marks may take.
const LONGEST: Duration = Duration::from_secs(60);

fn small(prepared: &Prepared) -> SmallSheet {
    let page = prepared.windows.page;
    let blanks: Vec<_> = prepared.blanks().collect();
    let first = prepared.layout.runs.first();
    let placements = first.map_or(&[] as &[_], |run| &run.placements);
    let copies = placements.iter().filter_map(|at| {
        let blank = blanks.get(at.part)?;
        Some(path_text(&at.place(&blank.part.outline)))
    });
    let marks = prepared.marks.marks.iter().map(|mark| path_text(&mark.ink)).collect();
    SmallSheet {
        page: [page.width(), page.height()],
        cut_window: path_text(&prepared.windows.cut.region.to_path()),
        marks,
        copies: copies.collect(),
    }
}

fn choice_view(
    job: &Job,
    workshop: &Workshop,
    now: &MarkChoice,
    choice: &MarkChoice,
) -> Option<MarkChoiceView> {
    let mut with = workshop.clone();
    let id = choice.id.clone().unwrap_or_else(|| RecordId("tried".to_owned()));
    with.mark_sets.insert(id.clone(), choice.set.clone());
    let plan = SheetPlan { marks: Some(id), kept: None, ..job.sheet.clone() };
    let prepared = prepare_with(&Job { sheet: plan, ..job.clone() }, &with, shelf()).ok()?;
    let (copies, room) =
        (i64::from(choice.per_sheet) - i64::from(now.per_sheet), choice.usable - now.usable);
    let copies = match copies {
        0 => "as many copies".to_owned(),
        more if more > 0 => format!("{more} more on a sheet"),
        less => format!("{} fewer on a sheet", -less),
    };
    let gain_text = if room.abs() < 5.0 {
        copies
    } else {
        let sign = if room > 0.0 { "+" } else { "−" };
        format!("{sign}{}, {copies}", measure_area(room.abs(), job.unit))
    };
    Some(MarkChoiceView {
        id: choice.id.clone(),
        set: choice.set.clone(),
        summary: choice.set.summary(job.unit),
        usable: choice.usable,
        usable_text: measure_area(choice.usable, job.unit),
        per_sheet: choice.per_sheet,
        sheets: choice.sheets,
        state: choice.state,
        trouble: choice.trouble.clone(),
        gain_text,
        sheet: small(&prepared),
    })
}

/// The marks in use, or the first of those that are compared.
fn in_use<'a>(job: &Job, choices: &'a [MarkChoice]) -> Option<&'a MarkChoice> {
    choices.iter().find(|choice| choice.id == job.sheet.marks).or(choices.first())
}

/// The mark sets of the workshop for a job's page and machines.
#[post("/marks/compare", data = "<job>")]
pub async fn compare(desk: &State<Desk>, job: Body<Job>) -> Result<Answer, Problem> {
    let answer = desk.long(move |store| {
        let (job, workshop) = (furnished(&job.0, store).into_owned(), store.workshop()?);
        prepared(&job, &workshop, store)?;
        Ok(move |goes_on: &mut dyn FnMut() -> bool| {
            let choices = compare_marks(&job, &workshop, shelf(), &mut *goes_on);
            let Some(now) = in_use(&job, &choices) else { return Vec::new() };
            let each = choices.iter().take_while(|_| goes_on());
            each.filter_map(|choice| choice_view(&job, &workshop, now, choice)).collect()
        })
    });
    Ok(Answer(answer.await?))
}

/// A job that can be prepared, with the workshop.
async fn usable(desk: &Desk, job: Job) -> Result<(Job, Workshop), Problem> {
    desk.quick(move |store| {
        let workshop = store.workshop()?;
        prepared(&job, &workshop, store)?;
        Ok((furnished(&job, store).into_owned(), workshop.as_ref().clone()))
    })
    .await
}

/// The best marks for a job: `progress` events, then one `done` with them, or with nothing.
#[post("/marks/best", data = "<job>")]
pub async fn best(
    desk: &State<Desk>,
    tasks: &State<Tasks>,
    job: Body<Job>,
) -> Result<Events, Problem> {
    let (job, workshop) = usable(desk, job.0).await?;
    tasks.run(None, LONGEST, move |sender| {
        let found = best_marks(&job, &workshop, shelf(), |done| {
            sender.send("progress", &MarksProgress { done });
            sender.goes_on()
        });
        let choices = compare_marks(&job, &workshop, shelf(), || sender.goes_on());
        let view = found.and_then(|found| {
            let now = in_use(&job, &choices).unwrap_or(&found);
            choice_view(&job, &workshop, now, &found)
        });
        sender.send("done", &view);
    })
}

/// The ways to fit for a job: a `way` event for each, then `done`.
#[post("/ways", data = "<job>")]
pub async fn ways(
    desk: &State<Desk>,
    tasks: &State<Tasks>,
    job: Body<Job>,
) -> Result<Events, Problem> {
    let (job, workshop) = usable(desk, job.0).await?;
    tasks.run(None, LONGEST, move |sender| {
        let misfits = misfits(&job, &workshop, shelf());
        let piece = misfits.first().copied().unwrap_or(0);
        let mut found = 0;
        let any = all_ways(&job, &workshop, shelf(), |way| {
            if let Some(view) = way_view(&way, piece, &workshop) {
                found += 1;
                sender.send("way", &view);
            }
            sender.goes_on()
        });
        let ruled_out = (!any).then(|| ruled_out(&job, &workshop, shelf()));
        let others = u32::try_from(misfits.len().saturating_sub(1)).unwrap_or(u32::MAX);
        let named = job.pieces.get(piece).filter(|_| job.pieces.len() > 1);
        let piece = named.map(|piece| piece.own_name().to_owned());
        sender.send("done", &WaysDone { found, ruled_out, piece, others });
    })
}

/// A way with what it makes of the piece in question.
fn way_view(way: &Way, piece: usize, workshop: &Workshop) -> Option<WayView> {
    let prepared = prepare_with(&way.job, workshop, shelf()).ok()?;
    let unit = way.job.unit;
    let flat = &prepared.pieces.get(piece)?.flat;
    let mut figures =
        vec![["blank".to_owned(), product(&[flat.bounds.width(), flat.bounds.height()], unit)]];
    if !flat.sizes.inside.is_empty() {
        figures.push(["inside".to_owned(), product(&flat.sizes.inside, unit)]);
    }
    let page = prepared.windows.page;
    figures.push(["sheet".to_owned(), product(&[page.width(), page.height()], unit)]);
    let window = prepared.windows.cut.base;
    figures.push(["window".to_owned(), product(&[window.width(), window.height()], unit)]);
    figures.push(["on a sheet".to_owned(), prepared.layout.per_sheet.to_string()]);
    let sheets = prepared.layout.sheets();
    figures.push(["sheets".to_owned(), sheets.to_string()]);
    Some(WayView { kind: way.kind, remedy: way.remedy.clone(), figures, sheet: small(&prepared) })
}

/// What other sheets that the stock is kept in, and other spacings, would make of the order in rows and columns.
#[post("/order", data = "<job>")]
pub async fn order(desk: &State<Desk>, job: Body<Job>) -> Result<Answer, Problem> {
    let answer = desk.long(move |store| {
        let (job, workshop) = (furnished(&job.0, store).into_owned(), store.workshop()?);
        prepared(&job, &workshop, store)?;
        Ok(move |goes_on: &mut dyn FnMut() -> bool| {
            let view = |OrderChange { remedy, prepared }| OrderChoice {
                remedy,
                sheets: prepared.layout.sheets(),
                per_sheet: prepared.layout.per_sheet,
                yield_text: format!("{:.0} %", prepared.order.used * 100.0),
                waste_text: measure_area(prepared.order.waste, job.unit),
                cost_text: prepared.order.cost().map(money),
            };
            let changes = order_changes(&job, &workshop, goes_on);
            changes.into_iter().map(view).collect::<Vec<_>>()
        })
    });
    Ok(Answer(answer.await?))
}
