//! The queue: sheets that were printed and wait for their cutter, who is next, and what is done.

use std::collections::BTreeMap;

use aptum_core::run::Progress;
use aptum_core::{Job, Workshop};
use rocket::serde::json::Json;
use rocket::{State, get, post, put};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use crate::desk::Desk;
use crate::printed::ToFreeze;
use crate::store::{Frozen, Store};

/// What waits, machine by machine.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct QueueView {
    machines: Vec<MachineQueue>,
    /// Jobs that are not in it, and could be.
    others: Vec<QueueJob>,
}

/// What waits at a machine.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct MachineQueue {
    /// The cutter; “By hand” where there is none.
    name: String,
    /// Those that are not done, in their order, then those that are.
    prints: Vec<Queued>,
}

/// How a print stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum Waits {
    /// It goes on at the machine.
    UnderWay,
    /// Its sheets lie printed.
    Printed,
    /// Its sheets are not printed yet.
    ToBePrinted,
    /// It is held.
    Held,
    /// All is done.
    Done,
    /// It was stopped.
    Stopped,
}

/// A print in the queue.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct Queued {
    id: i32,
    job: i32,
    name: String,
    code: String,
    made_at: String,
    sheets: i32,
    state: Waits,
    /// How it stands, in words.
    state_text: String,
    /// What is done of it, 0 to 1.
    share: f64,
}

/// A job that could be printed and put in.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct QueueJob {
    id: i32,
    name: String,
    /// How many rows its list has; 0 where it has none.
    rows: usize,
}

/// An order: prints that come first, the first first; up to 1,000.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct QueueOrder {
    prints: Vec<i32>,
}

/// Jobs whose sheets are printed and put in together; up to 100.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct QueueAsk {
    jobs: Vec<i32>,
}

/// A job, for each row of whose list a job is made and put in.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct RowsAsk {
    job: i32,
}

/// Most prints of an order, and most jobs that go in at once.
const MOST: usize = 1000;
const MOST_JOBS: usize = 100;

/// What waits.
#[get("/queue")]
pub async fn queue(desk: &State<Desk>) -> Result<Json<QueueView>, Problem> {
    desk.quick(|store| view(store).map(Json)).await
}

/// Puts prints into an order.
#[put("/queue", data = "<order>")]
pub async fn put_in_order(
    desk: &State<Desk>,
    order: Body<QueueOrder>,
) -> Result<Json<QueueView>, Problem> {
    let mut prints = order.0.prints;
    if prints.len() > MOST {
        return Err(Problem::run(format!(
            "{} prints are named: an order has up to {MOST}",
            prints.len()
        )));
    }
    let mut seen = std::collections::BTreeSet::new();
    prints.retain(|own| seen.insert(*own));
    desk.write(move |store| {
        store.put_in_order(&prints)?;
        view(store).map(Json)
    })
    .await
}

/// Prints the sheets of several jobs and puts them in, in that order. All of them go in, or none.
#[post("/queue", data = "<ask>")]
pub async fn put_in(desk: &State<Desk>, ask: Body<QueueAsk>) -> Result<Json<QueueView>, Problem> {
    let jobs = ask.0.jobs;
    if jobs.is_empty() || jobs.len() > MOST_JOBS {
        return Err(Problem::run(format!(
            "{} jobs are named: 1 to {MOST_JOBS} go in together",
            jobs.len()
        )));
    }
    let frozen = desk
        .slow(move |store| {
            let mut frozen = Vec::new();
            for id in jobs {
                let job = store.job(id)?.job;
                let own = ToFreeze::of(store, &job).map_err(|problem| problem.about(&job.name))?;
                frozen.push((id, own));
            }
            Ok(frozen)
        })
        .await?;
    desk.write(move |store| {
        let prints: Vec<_> = frozen.iter().map(|(id, own)| (*id, own.new_print())).collect();
        store.freeze(&prints)?;
        view(store).map(Json)
    })
    .await
}

/// Makes a job for each row of a job's list, prints their sheets and puts them in, in the list's order; all of them, or none.
#[post("/queue/rows", data = "<ask>")]
pub async fn put_in_rows(
    desk: &State<Desk>,
    ask: Body<RowsAsk>,
) -> Result<Json<QueueView>, Problem> {
    let id = ask.0.job;
    let (jobs, frozen) = desk
        .slow(move |store| {
            let job = store.job(id)?.job;
            let rows = job.rows();
            if rows == 0 || rows > MOST_JOBS {
                return Err(Problem::run(format!(
                    "The list of “{}” has {rows} rows: a job for each is made of 1 to {MOST_JOBS}",
                    job.name
                )));
            }
            let jobs: Vec<Job> = (0..rows).filter_map(|row| job.of_row(row)).collect();
            let frozen = jobs.iter().map(|own| {
                own.validate()?;
                ToFreeze::of(store, own).map_err(|problem| problem.about(&own.name))
            });
            let frozen: Vec<ToFreeze> = frozen.collect::<Result<_, Problem>>()?;
            Ok((jobs, frozen))
        })
        .await?;
    desk.write(move |store| {
        let jobs: Vec<(Job, u32)> = jobs.into_iter().map(|job| (job, 0)).collect();
        let ids = store.add_jobs(&jobs, &Workshop::default(), &BTreeMap::new())?;
        let prints: Vec<_> =
            ids.into_iter().zip(&frozen).map(|(id, own)| (id, own.new_print())).collect();
        store.freeze(&prints)?;
        view(store).map(Json)
    })
    .await
}

fn view(store: &Store) -> Result<QueueView, Problem> {
    let all = store.queue()?;
    let mut machines: Vec<MachineQueue> = Vec::new();
    for own in &all {
        let name = if own.cutter.is_empty() { "By hand" } else { own.cutter.as_str() };
        let at = machines.iter().position(|machine| machine.name == name);
        let at = at.unwrap_or_else(|| {
            machines.push(MachineQueue { name: name.to_owned(), prints: Vec::new() });
            machines.len() - 1
        });
        machines[at].prints.push(queued(own));
    }
    for machine in &mut machines {
        machine.prints.sort_by_key(|own| matches!(own.state, Waits::Done | Waits::Stopped));
    }
    let is_in = |id: i32| all.iter().any(|own| own.job == id && waits(own) < Waits::Done);
    let others = store.jobs()?.into_iter().filter(|entry| !is_in(entry.id));
    let others = others.filter_map(|entry| {
        let job = entry.job.ok()?;
        Some(QueueJob { id: entry.id, rows: job.rows(), name: job.name })
    });
    Ok(QueueView { machines, others: others.collect() })
}

fn ticked(run: &Progress) -> u32 {
    run.done.values().fold(0, |sum, done| done.times.saturating_add(sum))
}

fn waits(own: &Frozen) -> Waits {
    let done = ticked(&own.run);
    let at_machine =
        own.run.done.iter().any(|(step, done)| step.starts_with("load-") && done.times > 0);
    if own.run.is_stopped {
        Waits::Stopped
    } else if u32::try_from(own.ticks).is_ok_and(|ticks| done >= ticks) {
        Waits::Done
    } else if own.run.is_held {
        Waits::Held
    } else if at_machine {
        Waits::UnderWay
    } else if own.run.times("print") > 0 {
        Waits::Printed
    } else {
        Waits::ToBePrinted
    }
}

fn queued(own: &Frozen) -> Queued {
    let state = waits(own);
    let words = match state {
        Waits::UnderWay => "at the machine",
        Waits::Printed => "printed, and waits",
        Waits::ToBePrinted => "to be printed",
        Waits::Held => "held",
        Waits::Done => "done",
        Waits::Stopped => "stopped",
    };
    Queued {
        id: own.id,
        job: own.job,
        name: own.name.clone(),
        code: own.code.clone(),
        made_at: own.made_at.clone(),
        sheets: own.sheets,
        state,
        state_text: words.to_owned(),
        share: (f64::from(ticked(&own.run)) / f64::from(own.ticks.max(1))).min(1.0),
    }
}
