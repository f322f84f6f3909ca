//! Sending a printed sheet's work to a cutter over TCP, with a hand on it all the while.

use std::collections::BTreeMap;
use std::sync::atomic::Ordering;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use aptum_core::geometry::Vec2;
use aptum_core::run::{Sent, StepKind, sent, steps};
use aptum_core::workshop::Dialect;
use aptum_formats::asking::{Asking, ask_marks};
use rocket::serde::json::Json;
use rocket::{State, post, put};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::runs::{held_by, machine_bytes};
use super::tasks::{Events, Sender, Tasks};
use crate::desk::Desk;
use crate::language::Language;
use crate::output::cutter_of;
use crate::printed::Printed;
use crate::rehearsing::{REACH, Talk, TalkError, Wish};

/// Prints that are being cut, with what is wished of their machines.
#[derive(Debug, Default, Clone)]
pub struct Sendings(Arc<Mutex<BTreeMap<i32, Arc<Wish>>>>);

/// What is sent.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct SendAsk {
    /// Which sheet lies in the machine, from 1.
    sheet: u32,
    /// In which of its loadings, from 0.
    loading: u32,
}

/// What is wished of a machine while it works.
#[derive(Debug, Clone, Copy, Deserialize, JsonSchema, TS)]
#[serde(rename_all = "kebab-case")]
pub enum MachineWish {
    /// It holds.
    Hold,
    /// It goes on.
    Resume,
    /// It stops, and forgets what was sent.
    Stop,
}

/// A wish.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct WishAsk {
    wish: MachineWish,
}

/// How far the sending has come.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SendProgress {
    /// What the machine does, in words.
    words: String,
    /// Bytes sent, and of how many.
    sent: u32,
    of: u32,
}

/// How it ended.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct SendEnd {
    is_done: bool,
    words: String,
}

/// Longest that a sheet takes.
const LONGEST: Duration = Duration::from_secs(6 * 3600);

/// How long a machine may look for marks.
const LOOKING: Duration = Duration::from_secs(180);

/// Sends a sheet: `progress` events, then `done`.
#[post("/prints/<id>/send", data = "<ask>")]
pub async fn send(
    desk: &State<Desk>,
    tasks: &State<Tasks>,
    sendings: &State<Sendings>,
    id: i32,
    ask: Body<SendAsk>,
) -> Result<Events, Problem> {
    let SendAsk { sheet, loading } = ask.0;
    let work = desk
        .slow(move |store| Work::new(&Printed::read(store, id)?, sheet, loading as usize))
        .await?;
    let wish = Arc::new(Wish::default());
    {
        let mut running = sendings.0.lock().unwrap_or_else(PoisonError::into_inner);
        if running.contains_key(&id) {
            return Err(Problem::busy(
                "This print is being cut already, on this screen or another",
            ));
        }
        running.insert(id, Arc::clone(&wish));
    }
    let own = sendings.inner().clone();
    let ended = Ended { sendings: own, id };
    let store = desk.store();
    tasks.run(None, LONGEST, move |sender| {
        let _ended = ended;
        let result = work.sent(sender, &wish);
        if let (Ok(()), Some((step, sheet, operations))) = (&result, &work.told)
            && let Err(error) = store.note_sent(id, step, *sheet, operations.clone())
        {
            tracing::warn!("what was sent is not noted: {error}");
        }
        let end = match result {
            Ok(()) => SendEnd { is_done: true, words: "The sheet is cut.".to_owned() },
            Err(error) => SendEnd { is_done: false, words: error.to_string() },
        };
        sender.send("done", &end);
    })
}

/// Holds a machine, lets it go on, or stops it.
#[put("/prints/<id>/send", data = "<ask>")]
pub fn wish(
    sendings: &State<Sendings>,
    id: i32,
    ask: Body<WishAsk>,
) -> Result<Json<bool>, Problem> {
    let running = sendings.0.lock().unwrap_or_else(PoisonError::into_inner);
    let Some(own) = running.get(&id) else {
        return Err(Problem::missing("Nothing of this print is being cut"));
    };
    match ask.0.wish {
        MachineWish::Hold => own.is_held.store(true, Ordering::Relaxed),
        MachineWish::Resume => own.is_held.store(false, Ordering::Relaxed),
        MachineWish::Stop => own.is_stopped.store(true, Ordering::Relaxed),
    }
    Ok(Json(true))
}

/// Takes a print from those that are being cut, however that ends.
struct Ended {
    sendings: Sendings,
    id: i32,
}

impl Drop for Ended {
    fn drop(&mut self) {
        self.sendings.0.lock().unwrap_or_else(PoisonError::into_inner).remove(&self.id);
    }
}

/// What is sent where.
struct Work {
    address: String,
    /// What tells of the sheet; ends with the search for its marks where it has some.
    asking: String,
    looks: bool,
    bytes: Vec<u8>,
    /// The step that cuts, which sheet, and with what: for the Logbook.
    told: Option<(String, u32, Vec<Sent>)>,
}

impl Work {
    fn new(printed: &Printed, sheet: u32, loading: usize) -> Result<Self, Problem> {
        let Printed { job, workshop, prepared, .. } = printed;
        if printed.head.run.is_stopped {
            return Err(Problem::run(
                "The run was stopped: print the sheets again to begin a new one",
            ));
        }
        if printed.head.run.is_held {
            return Err(Problem::run("The run is held: let it go on first"));
        }
        let steps = steps(&printed.ground());
        let cut = steps.iter().find(|own| own.kind == StepKind::Cut && own.loading == loading);
        if let Some(why) = cut.and_then(|step| held_by(printed, step)) {
            return Err(Problem::run(why));
        }
        let cutter = cutter_of(job, workshop).filter(|own| !own.address.is_empty());
        let Some(cutter) = cutter else {
            return Err(Problem::run(
                "The cutter has no address: write it into its record, or save the file and carry it there",
            ));
        };
        let dialect: Dialect = cutter.dialect.clone().unwrap_or_default();
        let bytes = machine_bytes(printed, sheet, loading, Language::Hpgl)?;
        let page = prepared.windows.page;
        let unit = dialect.units;
        let mut asking = format!("IN;AP{:.0},{:.0};", page.width() * unit, page.height() * unit);
        let set = job.sheet.marks.as_ref().and_then(|id| workshop.mark_sets.get(id));
        let set = set.filter(|_| cutter.finds.by_marks() && prepared.marks.marks.len() > 2);
        if let Some(set) = set {
            let run = prepared.layout.run_of(sheet).map_or(0, |(run, _)| run);
            let sheets = [sheet, sheet];
            let (reach, start) = (REACH, Vec2::ZERO);
            asking.push_str(&ask_marks(
                &Asking { prepared, set, run, sheets, reach, start },
                &dialect,
            ));
        }
        let body = bytes.strip_prefix(b"IN;").unwrap_or(&bytes).to_vec();
        let told = cut.map(|own| (own.id.clone(), sheet, sent(prepared, sheet, loading)));
        let (address, looks) = (cutter.address.clone(), set.is_some());
        Ok(Self { address, asking, looks, bytes: body, told })
    }

    fn sent(&self, sender: &Sender, wish: &Arc<Wish>) -> Result<(), TalkError> {
        let of = u32::try_from(self.bytes.len()).unwrap_or(u32::MAX);
        let tell = |words: &str, sent: usize| {
            let sent = u32::try_from(sent).unwrap_or(u32::MAX);
            sender.send("progress", &SendProgress { words: words.to_owned(), sent, of });
            // Whoever closes the page still has a machine that works: the sheet is not left half cut.
        };
        tell("Calling the cutter", 0);
        let mut talk = Talk::with(&self.address, Arc::clone(wish))?;
        talk.say(self.asking.as_bytes())?;
        if self.looks {
            tell("Looking for the marks", 0);
            match talk.hear(LOOKING)? {
                Some(line) if line.starts_with("found ") => {}
                Some(line) => {
                    let why = line.strip_prefix("refused ").unwrap_or(&line);
                    return Err(TalkError::Failed(why.to_owned()));
                }
                None => return Err(TalkError::Silent),
            }
        }
        talk.send(&self.bytes, &mut |sent| tell("Cutting", sent))?;
        tell("Cutting, all is sent", self.bytes.len());
        talk.finish()
    }
}
