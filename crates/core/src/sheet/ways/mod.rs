//! Ways to fit: changes that are known to make room for a piece, since each has been tried. A file for each
//! kind of change.

mod owned;
mod size;
mod split;
mod structure;
mod turned;

pub(crate) use self::owned::{on_sheet, ways_round};
use self::owned::{other_cutters, other_marks, other_sheets, other_stocks};
use self::size::{shorter, smaller};
use self::split::splits;
use self::structure::other_structures;
use self::turned::turned;
use crate::error::{Change, Remedy, Setting};
use crate::form::Form;
use crate::job::Job;
use crate::memory::Memory;
use crate::records::Records;
use crate::sheet::Ground;
use crate::units::measure;
use crate::workshop::Workshop;

/// A change that makes room.
#[derive(Debug, Clone, PartialEq)]
pub struct Way {
    /// What kind of change it is.
    pub kind: WayKind,
    /// What to do, and the changes that carry it out.
    pub remedy: Remedy,
    /// The job with them.
    pub job: Job,
}

/// The kinds of ways, in the order in which they are worked out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, serde::Serialize)]
#[cfg_attr(feature = "api", derive(schemars::JsonSchema, ts_rs::TS))]
#[serde(rename_all = "kebab-case")]
pub enum WayKind {
    /// The sheet or the piece turned.
    Turned,
    /// Other marks.
    Marks,
    /// Another sheet size or stock.
    Sheet,
    /// Another cutter.
    Cutter,
    /// The piece made smaller.
    Smaller,
    /// Another structure with the same inside.
    Structure,
    /// Two parts with a join flap.
    Split,
}

/// The ways out for a piece that fits nowhere, the least disturbing first. Without any, says so. Those that take
/// long to work out are left to [`all_ways`].
pub(crate) fn ways_to_fit(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> Vec<Remedy> {
    let quick = turned(job)
        .chain(other_marks(job, workshop))
        .chain(other_sheets(job, workshop))
        .filter(|way| fits(&way.job, workshop, memory));
    let mut ways: Vec<Remedy> =
        quick.chain(smaller(job, workshop, memory)).map(|way| laid_anew(job, way).remedy).collect();
    if ways.is_empty() {
        ways.push(Remedy::advice(format!(
            "No sheet this stock is kept in, no mark set and no smaller size makes room: {}",
            ruled_out(job, workshop, memory)
        )));
    }
    ways
}

/// Every way out, each handed to `found` as soon as it is known; `found` returns false to end the search. True
/// when at least one was found.
pub fn all_ways(
    job: &Job,
    workshop: &Workshop,
    memory: &dyn Memory,
    mut found: impl FnMut(Way) -> bool,
) -> bool {
    let mut any = false;
    let mut goes_on = true;
    let mut offer = |way: Way| {
        any = true;
        goes_on = goes_on && found(laid_anew(job, way));
        goes_on
    };
    let tried = turned(job)
        .chain(other_marks(job, workshop))
        .chain(other_sheets(job, workshop))
        .chain(other_stocks(job, workshop))
        .chain(other_cutters(job, workshop));
    for way in tried {
        if fits(&way.job, workshop, memory) && !offer(way) {
            return any;
        }
    }
    let sized = smaller(job, workshop, memory).into_iter().chain(shorter(job, workshop, memory));
    for way in sized {
        if !offer(way) {
            return any;
        }
    }
    let made =
        other_structures(job, workshop, memory).into_iter().chain(splits(job, workshop, memory));
    for way in made {
        if !offer(way) {
            return any;
        }
    }
    any
}

/// The limit that rules everything out: the blank against the largest window of the workshop.
#[must_use]
pub fn ruled_out(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> String {
    let Ok(records) = Records::of(job, workshop) else { return String::new() };
    let Ok(ground) = Ground::new(job, &records, memory) else { return String::new() };
    let (piece, at) = ground.critical();
    let size = piece.blanks[at].size(0.0);
    let show = |width: f64, height: f64| {
        format!("{} × {}", measure(width, job.unit), measure(height, job.unit))
    };
    let mut largest: Option<(f64, f64, String)> = None;
    let stocks = workshop.stocks.values().filter(|stock| stock.keeping.is_offered());
    let sizes = stocks.flat_map(|stock| &stock.sheets);
    let cutters = || workshop.cutters.values().filter(|cutter| cutter.keeping.is_offered());
    for (size, cutter) in sizes.flat_map(|size| cutters().map(move |cutter| (size, cutter))) {
        let (width, height) = (
            size.width.min(cutter.width) - cutter.margins.left - cutter.margins.right,
            size.height.min(cutter.length) - cutter.margins.lead - cutter.margins.trail,
        );
        if largest.as_ref().is_none_or(|(w, h, _)| width * height > w * h) {
            largest = Some((width, height, format!("{} on {}", cutter.name, size.name)));
        }
    }
    let blank = format!("the blank is {}", show(size.x, size.y));
    largest.map_or(blank.clone(), |(width, height, whose)| {
        format!(
            "{blank}, and the most that any cutter here reaches is {}, {whose}",
            show(width, height)
        )
    })
}

/// A layout that was kept was made for the job as it was.
fn laid_anew(job: &Job, mut way: Way) -> Way {
    if job.sheet.kept.is_some() {
        way.job.sheet.kept = None;
        way.remedy.changes.push(Change::new("sheet.kept", Setting::Standard));
    }
    way
}

fn way(kind: WayKind, job: Job, remedy: Remedy) -> Way {
    Way { kind, remedy, job }
}

fn fits(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> bool {
    ground_taken(job, workshop, memory).is_some_and(|ground| ground.fits())
}

/// True when one of the pieces fits: another that does not is mended after it.
fn piece_fits(job: &Job, workshop: &Workshop, memory: &dyn Memory, number: usize) -> bool {
    ground_taken(job, workshop, memory).is_some_and(|ground| ground.fits_piece(number))
}

/// A job's pieces on its page, where the machines take the page and the card.
fn ground_taken(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> Option<Ground> {
    let records = Records::of(job, workshop).ok()?;
    let page = job.sheet.page();
    let through = records
        .carrier
        .map_or((page.width(), page.height()), |carrier| (carrier.width, carrier.length));
    let taken =
        records.cutter.is_none_or(|cutter| through.0 <= cutter.width && through.1 <= cutter.length)
            && records.printer.is_none_or(|printer| {
                page.width().min(page.height()) <= printer.width
                    && page.width().max(page.height()) <= printer.length
            })
            && records.cutter.is_none_or(|cutter| {
                records.cards(job).iter().all(|(_, stock)| stock.thickness() <= cutter.thickest)
            });
    if taken { Ground::new(job, &records, memory).ok() } else { None }
}

/// The numbers of the pieces that fit nowhere, the first being 0: before the others the one that ways are worked out for.
#[must_use]
pub fn misfits(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> Vec<usize> {
    let Ok(records) = Records::of(job, workshop) else { return Vec::new() };
    let Ok(ground) = Ground::new(job, &records, memory) else { return Vec::new() };
    let critical = ground.critical().0.first;
    let all = 0..ground.pieces.len();
    let mut found: Vec<usize> = all.filter(|number| !ground.fits_piece(*number)).collect();
    found.sort_by_key(|number| ground.pieces[*number].first != critical);
    found
}

/// The piece that fits nowhere: its number, form and card's caliper.
fn misfit_piece(job: &Job, workshop: &Workshop, memory: &dyn Memory) -> Option<(usize, Form, f64)> {
    let records = Records::of(job, workshop).ok()?;
    let ground = Ground::new(job, &records, memory).ok()?;
    let (piece, _) = ground.critical();
    let number = ground
        .pieces
        .iter()
        .position(|other| other.first == piece.first && !other.blanks.is_empty())?;
    let own = job.pieces.get(number)?;
    Some((number, own.form.clone(), records.stocks.get(number)?.caliper))
}

/// The job with another form for one of its pieces, and what the paths of its fields begin with.
fn with_form(job: &Job, number: usize, form: Form) -> (Job, String) {
    let mut changed = job.clone();
    changed.sheet.kept = None;
    let piece = &mut changed.pieces[number];
    piece.form = form;
    let path = piece.path();
    (changed, path)
}
