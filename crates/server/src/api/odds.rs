//! The odds: what many sheets come to, by figures alone.

use std::time::Duration;

use aptum_core::Job;
use aptum_core::check::State as Standing;
use aptum_core::rehearsal::{Day, Odds, OddsAsk as Asked, odds as odds_of};
use aptum_core::units::{Unit, measure};
use aptum_core::workshop::Finds;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use super::Problem;
use super::body::Body;
use super::rehearsal::{as_built, bound_of, fine, standing};
use super::tasks::{Events, Tasks};
use crate::desk::Desk;
use crate::rehearsing::{HAND, Stage as Rehearsing};
use crate::shelf::{furnished, prepared};

/// Of what the odds are asked.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct OddsAsk {
    job: Job,
    /// Which sheet, from 1.
    sheet: u32,
    day: Day,
    /// How many sheets, 1 to 10,000.
    sheets: u32,
    seed: u32,
}

/// How far it has come.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OddsProgress {
    done: u32,
}

/// Sheets whose worst place is about as far off.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OddsBar {
    count: u32,
    state: Standing,
}

/// What many sheets come to.
#[derive(Debug, Serialize, JsonSchema, TS)]
pub struct OddsView {
    tried: u32,
    white: u32,
    /// How many sheets have their worst place between equal steps from 0.
    bars: Vec<OddsBar>,
    /// Where the last bar ends, mm.
    to: f64,
    to_text: String,
    /// What may be off, mm.
    bound: f64,
    bound_text: String,
    /// What they say, in a sentence.
    words: String,
    /// What that number of tries can say.
    sure: String,
    state: Standing,
}

/// Most sheets of one question.
const MOST_SHEETS: u32 = 10_000;

/// How far an eye errs on a sheet that is not at its best, mm: what the simulated one was measured at.
const EYE: f64 = 0.006;

/// Longest that the odds are worked out, s.
const LONGEST: Duration = Duration::from_secs(60);

/// Prints and cuts many sheets by figures alone: `progress` events, then one `done`.
#[post("/odds", data = "<ask>")]
pub async fn odds(
    desk: &State<Desk>,
    tasks: &State<Tasks>,
    ask: Body<OddsAsk>,
) -> Result<Events, Problem> {
    let OddsAsk { job, sheet, day, sheets, seed } = ask.0;
    if !(1..=MOST_SHEETS).contains(&sheets) {
        return Err(Problem::rehearsal(format!(
            "{sheets} sheets are asked for: the odds are told of 1 to {MOST_SHEETS}"
        )));
    }
    let store = desk.store();
    let (job, workshop, prepared) = desk
        .slow(move |store| {
            let (job, workshop) =
                (furnished(&job, store).into_owned(), as_built(&*store.workshop()?));
            let prepared = prepared(&job, &workshop, store)?;
            let stage = Rehearsing {
                job: &job,
                prepared: &prepared,
                workshop: &workshop,
                blobs: store,
                sheet,
            };
            stage.marks(stage.on_sheet()?.cutter())?;
            Ok((job, workshop, prepared))
        })
        .await?;
    tasks.run(None, LONGEST, move |sender| {
        let blobs = store.as_ref();
        let stage =
            Rehearsing { job: &job, prepared: &prepared, workshop: &workshop, blobs, sheet };
        let Ok(own) = stage.on_sheet() else { return };
        let Ok(set) = stage.marks(own.cutter()) else { return };
        let lines = own.meant();
        let copies = stage.worn(own.run);
        let marks = set.map_or_else(Vec::new, |_| {
            prepared.marks.marks.iter().map(|mark| mark.reference).collect()
        });
        let is_hand = own.cutter().finds == Finds::Crosshairs;
        let asked = Asked {
            page: prepared.windows.page,
            margins: stage.margins(),
            day,
            marks,
            eye: if is_hand { HAND } else { EYE },
            lines: &lines,
            copies: &copies,
            seed: seed.into(),
        };
        let found = odds_of(&asked, sheets, &mut |done| {
            sender.send("progress", &OddsProgress { done });
            sender.goes_on()
        });
        let bound = bound_of(&prepared);
        sender.send("done", &odds_view(&found, bound, job.unit));
    })
}

/// A count with its thousands apart.
fn grouped(count: u32) -> String {
    let digits = count.to_string();
    let mut text = String::new();
    for (at, digit) in digits.chars().enumerate() {
        if at > 0 && (digits.len() - at).is_multiple_of(3) {
            text.push(',');
        }
        text.push(digit);
    }
    text
}

fn odds_view(odds: &Odds, bound: f64, unit: Unit) -> OddsView {
    let chance = odds.white.chance();
    let (tried, white) = (odds.white.tried, odds.white.wrong);
    let words = format!(
        "{} of {} show no white; half are within {}, 99 of 100 within {}.",
        grouped(tried - white),
        grouped(tried),
        fine(odds.typical, unit),
        fine(odds.p99, unit),
    );
    let most = chance.at_most * 100.0;
    let most = if most < 1.0 { format!("{most:.2}") } else { format!("{most:.1}") };
    let sure = format!(
        "{} wrong of {}: at 95 %, under {most} % of sheets go wrong.",
        if white == 0 { "None".to_owned() } else { grouped(white) },
        grouped(tried),
    );
    let state = match white {
        0 => Standing::Fits,
        own if own * 100 <= tried => Standing::Attention,
        _ => Standing::Broken,
    };
    let step = odds.worst / odds.bars.len().max(1) as f64;
    let bars = odds.bars.iter().enumerate().map(|(at, count)| OddsBar {
        count: *count,
        state: standing((at + 1) as f64 * step, bound),
    });
    OddsView {
        tried,
        white,
        bars: bars.collect(),
        to: odds.worst,
        to_text: fine(odds.worst, unit),
        bound,
        bound_text: measure(bound, unit),
        words,
        sure,
        state,
    }
}
