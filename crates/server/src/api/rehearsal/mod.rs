//! Rehearsals: one sheet through the machines that ship with Aptum, and the odds of many.

mod told;

use std::sync::Arc;

use aptum_core::check::State as Standing;
use aptum_core::error::{InputError, Remedy};
use aptum_core::rehearsal::{Day, Loading, verdict};
use aptum_core::units::{INCH, Unit};
use aptum_core::{Job, Prepared, Workshop};
use aptum_devices::printer::PPI;
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use schemars::JsonSchema;
use serde::Deserialize;
use ts_rs::TS;

use crate::api::Problem;
use crate::api::body::Body;
use crate::desk::Desk;
use crate::rehearsing::{NoRehearsal, Pictures, Stage as Rehearsing};
use crate::shelf::{furnished, prepared};

pub use told::RehearsalView;
use told::Told;

/// What is rehearsed.
#[derive(Debug, Deserialize, JsonSchema, TS)]
pub struct RehearsalAsk {
    job: Job,
    /// Which sheet, from 1.
    sheet: u32,
    /// What the printer does to it.
    day: Day,
    /// By which it errs: the same number, the same errors; up to 4,294,967,295.
    seed: u32,
    /// How it is laid into the cutter.
    #[serde(default)]
    loading: Loading,
    /// Pixels in an inch that it prints: 300, or 600.
    #[serde(default = "usual")]
    ppi: u32,
}

const fn usual() -> u32 {
    PPI[0]
}

/// Looks whether the printer prints so many pixels in an inch.
fn printed_at(ppi: u32) -> Result<f64, Vec<InputError>> {
    if PPI.contains(&ppi) {
        return Ok(ppi.into());
    }
    let remedy = Remedy::advice("Choose one of the two");
    let [usual, fine] = PPI;
    let words = format!("The printer prints {usual} or {fine} pixels in an inch, not {ppi}");
    Err(vec![InputError::new("ppi", words, ppi.into(), remedy)])
}

impl From<NoRehearsal> for Problem {
    fn from(error: NoRehearsal) -> Self {
        Self::rehearsal(error.to_string())
    }
}

/// What may be off where nothing is printed to an edge, mm (common practice).
const WITHOUT_BLEED: f64 = 0.5;

/// Prints a sheet and cuts it.
#[post("/rehearsal", data = "<ask>")]
pub async fn rehearse(
    desk: &State<Desk>,
    pictures: &State<Arc<Pictures>>,
    ask: Body<RehearsalAsk>,
) -> Result<Json<RehearsalView>, Problem> {
    let pictures = Arc::clone(pictures);
    desk.slow(move |store| {
        let RehearsalAsk { job, sheet, day, seed, loading, ppi } = ask.0;
        loading.validate(job.unit)?;
        let ppi = printed_at(ppi)?;
        let (job, workshop) = (furnished(&job, store).into_owned(), as_built(&*store.workshop()?));
        let prepared = prepared(&job, &workshop, store)?;
        let stage =
            Rehearsing { job: &job, prepared: &prepared, workshop: &workshop, blobs: store, sheet };
        let run = stage.on_sheet()?.run;
        let made = stage.rehearse(day, seed.into(), &loading, ppi)?;
        let worn = stage.worn(run);
        let page = made.printed.page;
        let (place, printing) = (made.place, made.printed.printing);
        // Where nothing is printed, a cut is off its own line alone.
        let is_printed = prepared.is_printed();
        let print = |at| if is_printed { place * printing.place(at, page) } else { at };
        let judged = verdict(&made.lines, &worn, &print);
        let picture = pictures.keep(&made.printed.picture);
        let told = Told { job: &job, prepared: &prepared, made: &made, judged: &judged, run };
        Ok(Json(told.view(picture)))
    })
    .await
}

/// The picture of a sheet that was rehearsed lately.
#[get("/rehearsal/<id>/sheet.png")]
pub fn rehearsed_sheet(
    pictures: &State<Arc<Pictures>>,
    id: u32,
) -> Result<(ContentType, Vec<u8>), Problem> {
    let found = pictures.get(id.into());
    let bytes = found.ok_or_else(|| {
        Problem::missing("That rehearsal is no longer at hand: rehearse the sheet again".to_owned())
    })?;
    Ok((ContentType::PNG, bytes.to_vec()))
}

/// The workshop with machines that need no correction: those of a rehearsal are true.
pub(in crate::api) fn as_built(workshop: &Workshop) -> Workshop {
    let mut own = workshop.clone();
    own.cutters.values_mut().for_each(|cutter| cutter.correction = None);
    own
}

/// A length to a hundredth of a millimetre or a ten-thousandth of an inch: what rehearsals tell is small.
pub(in crate::api) fn fine(mm: f64, unit: Unit) -> String {
    match unit {
        Unit::In => format!("{:.4} in", mm / INCH),
        Unit::Mm | Unit::Cm => format!("{mm:.2} mm"),
    }
}

/// How far a cut may fall from the print: the least bleed of what is printed to its edge.
pub(in crate::api) fn bound_of(prepared: &Prepared) -> f64 {
    let least = bleeds(prepared).reduce(f64::min);
    least.filter(|own| *own > 0.0).unwrap_or(WITHOUT_BLEED)
}

/// How far what is printed to edges goes past them.
fn bleeds(prepared: &Prepared) -> impl Iterator<Item = f64> {
    let inked = prepared.blanks().filter_map(|blank| blank.art);
    inked.filter(|art| !art.to_edge.elements().is_empty()).map(|art| art.bleed)
}

fn has_bleed(prepared: &Prepared) -> bool {
    bleeds(prepared).any(|own| own > 0.0)
}

/// How a miss stands to what may be off: past it is broken, past half of it asks for a look.
pub(in crate::api) fn standing(off: f64, bound: f64) -> Standing {
    if off > bound {
        Standing::Broken
    } else if off > bound / 2.0 {
        Standing::Attention
    } else {
        Standing::Fits
    }
}
