//! Ways to fit: changes that are known to make room for a piece, since each has been tried.

use super::{Orientation, SheetSize};
use crate::error::{Change, Remedy};
use crate::job::Job;
use crate::prepare::{Ground, Records};
use crate::units::product;
use crate::workshop::Workshop;

/// The largest piece that fits is sought downwards in steps of a twentieth, then by halving.
const STEPS: u32 = 20;
const HALVINGS: u32 = 8;

/// The ways out for a piece that fits nowhere, the least disturbing first. Without any, says so.
pub(crate) fn ways_to_fit(job: &Job, workshop: &Workshop) -> Vec<Remedy> {
    let mut ways: Vec<Remedy> = [turned_sheet(job), free_turning(job)]
        .into_iter()
        .flatten()
        .chain(other_marks(job, workshop))
        .chain(other_sheets(job, workshop))
        .filter(|(changed, _)| fits(changed, workshop))
        .map(|(_, remedy)| remedy)
        .collect();
    ways.extend(smaller(job, workshop));
    if ways.is_empty() {
        ways.push(Remedy::advice(
            "No sheet this stock is kept in, no mark set and no smaller size makes room: choose another cutter or printer",
        ));
    }
    ways
}

type Way = (Job, Remedy);

fn fits(job: &Job, workshop: &Workshop) -> bool {
    let Ok(records) = Records::of(job, workshop) else { return false };
    let page = job.sheet.page();
    let taken = records
        .cutter
        .is_none_or(|cutter| page.width() <= cutter.width && page.height() <= cutter.length)
        && records.printer.is_none_or(|printer| {
            page.width().min(page.height()) <= printer.width
                && page.width().max(page.height()) <= printer.length
        });
    taken && Ground::new(job, records, "00000").is_ok_and(|ground| ground.fits())
}

fn turned_sheet(job: &Job) -> Option<Way> {
    let mut changed = job.clone();
    let (orientation, id, words) = match job.sheet.orientation {
        Orientation::Portrait => (Orientation::Landscape, "landscape", "on its side"),
        Orientation::Landscape => (Orientation::Portrait, "portrait", "upright"),
    };
    changed.sheet.orientation = orientation;
    Some((changed, Remedy::set(format!("Use the sheet {words}"), "sheet.orientation", id)))
}

fn free_turning(job: &Job) -> Option<Way> {
    let mut changed = job.clone();
    changed.sheet.turning = super::Turning::Quarter;
    (changed.sheet.turning != job.sheet.turning)
        .then(|| (changed, Remedy::set("Let copies turn by a quarter", "sheet.turning", "quarter")))
}

fn other_marks<'a>(job: &'a Job, workshop: &'a Workshop) -> impl Iterator<Item = Way> + 'a {
    workshop
        .mark_sets
        .iter()
        .filter(|(id, _)| job.sheet.marks.as_ref().is_some_and(|chosen| chosen != *id))
        .map(|(id, set)| {
            let mut changed = job.clone();
            changed.sheet.marks = Some(id.clone());
            (changed, Remedy::set(format!("Use {}", set.name), "sheet.marks", id.0.as_str()))
        })
}

fn other_sheets<'a>(job: &'a Job, workshop: &'a Workshop) -> impl Iterator<Item = Way> + 'a {
    let kept = workshop.stocks.get(&job.stock).map_or(&[] as &[SheetSize], |stock| &stock.sheets);
    kept.iter().filter(|size| !size.same_as(&job.sheet.size)).flat_map(|size| {
        [
            (Orientation::Portrait, "portrait", "upright"),
            (Orientation::Landscape, "landscape", "on its side"),
        ]
        .map(|(orientation, id, words)| {
            let mut changed = job.clone();
            changed.sheet.size = size.clone();
            changed.sheet.orientation = orientation;
            let remedy = Remedy {
                text: format!("Use {} {words}", size.name),
                changes: vec![
                    Change::new("sheet.size.name", size.name.as_str()),
                    Change::new("sheet.size.width", size.width),
                    Change::new("sheet.size.height", size.height),
                    Change::new("sheet.orientation", id),
                ],
            };
            (changed, remedy)
        })
    })
}

/// The largest piece of the same proportions that fits, in tenths of a millimetre.
fn smaller(job: &Job, workshop: &Workshop) -> Option<Remedy> {
    let caliper = workshop.stocks.get(&job.stock)?.caliper;
    let inside = job.form.inside(caliper);
    if inside.is_empty() {
        return None;
    }
    let scaled = |share: f64| {
        let scale =
            |(key, side): &(String, f64)| (key.clone(), (side * share * 10.0).floor() / 10.0);
        let inside: Vec<(String, f64)> = inside.iter().map(scale).collect();
        let form = job.form.with_inside(&inside, caliper);
        (Job { form, ..job.clone() }, inside)
    };
    let (mut low, mut high) = (1..STEPS)
        .rev()
        .map(|step| (f64::from(step) / f64::from(STEPS), f64::from(step + 1) / f64::from(STEPS)))
        .find(|(low, _)| fits(&scaled(*low).0, workshop))?;
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if fits(&scaled(middle).0, workshop) {
            low = middle;
        } else {
            high = middle;
        }
    }
    let (changed, inside) = scaled(low);
    let set = |key: &String| changed.form.figures.get(key).copied().flatten();
    let sizes = inside.iter().map(|(_, side)| *side).collect::<Vec<_>>();
    Some(Remedy {
        text: format!(
            "Make it {} inside, the largest of this shape that fits",
            product(&sizes, job.unit)
        ),
        changes: inside
            .iter()
            .filter_map(|(key, _)| Some(Change::new(&format!("form.{key}"), set(key)?)))
            .collect(),
    })
}
