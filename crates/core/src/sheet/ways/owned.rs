//! Using something else that the workshop owns: marks, sheets, stock, a cutter.

use super::{Way, WayKind, way};
use crate::error::{Change, Remedy};
use crate::job::Job;
use crate::sheet::{Orientation, SheetSize};
use crate::workshop::Workshop;

/// Other marks.
pub(super) fn other_marks<'a>(
    job: &'a Job,
    workshop: &'a Workshop,
) -> impl Iterator<Item = Way> + 'a {
    workshop
        .mark_sets
        .iter()
        .filter(|(id, set)| {
            set.keeping.is_offered() && job.sheet.marks.as_ref().is_some_and(|chosen| chosen != *id)
        })
        .map(|(id, set)| {
            let mut changed = job.clone();
            changed.sheet.marks = Some(id.clone());
            let text = format!("Use {}", set.name);
            way(WayKind::Marks, changed, Remedy::set(text, "sheet.marks", id.0.as_str()))
        })
}

/// An orientation, its id, and how it is said after a sheet's name.
pub(crate) type Lies = (Orientation, &'static str, &'static str);

const UPRIGHT_OR_NOT: [Lies; 2] = [
    (Orientation::Portrait, "portrait", " upright"),
    (Orientation::Landscape, "landscape", " on its side"),
];
const SQUARE: [Lies; 1] = [(Orientation::Portrait, "portrait", "")];

/// How a sheet may lie; a square one lies the same either way.
pub(crate) fn ways_round(size: &SheetSize) -> impl Iterator<Item = Lies> + use<> {
    let is_square = (size.width - size.height).abs() < 0.01;
    let lies: &'static [Lies] = if is_square { &SQUARE } else { &UPRIGHT_OR_NOT };
    lies.iter().copied()
}

/// A job on sheets of another size, and the changes for it.
pub(crate) fn on_sheet(
    job: &Job,
    size: &SheetSize,
    orientation: Orientation,
    id: &str,
) -> (Job, Vec<Change>) {
    let mut changed = job.clone();
    changed.sheet.size = size.clone();
    changed.sheet.orientation = orientation;
    changed.sheet.kept = None;
    let changes = vec![
        Change::new("sheet.size.name", size.name.as_str()),
        Change::new("sheet.size.width", size.width),
        Change::new("sheet.size.height", size.height),
        Change::new("sheet.orientation", id),
    ];
    (changed, changes)
}

/// Other sizes in which the stock is kept.
pub(super) fn other_sheets<'a>(
    job: &'a Job,
    workshop: &'a Workshop,
) -> impl Iterator<Item = Way> + 'a {
    let kept = workshop
        .stocks
        .get(&job.pieces[0].stock)
        .map_or(&[] as &[SheetSize], |stock| &stock.sheets);
    kept.iter().filter(|size| !size.same_as(&job.sheet.size)).flat_map(move |size| {
        ways_round(size).map(move |(orientation, id, words)| {
            let (changed, changes) = on_sheet(job, size, orientation, id);
            let text = format!("Use {}{words}", size.name);
            way(WayKind::Sheet, changed, Remedy { text, changes })
        })
    })
}

/// Other stocks of about the same thickness, in sizes that this one is not kept in.
pub(super) fn other_stocks<'a>(
    job: &'a Job,
    workshop: &'a Workshop,
) -> impl Iterator<Item = Way> + 'a {
    let own = workshop.stocks.get(&job.pieces[0].stock);
    let alike = move |caliper: f64| {
        own.is_some_and(|own| (caliper - own.caliper).abs() <= 0.4 * own.caliper)
    };
    workshop
        .stocks
        .iter()
        .filter(move |(id, stock)| {
            **id != job.pieces[0].stock && stock.keeping.is_offered() && alike(stock.caliper)
        })
        .flat_map(move |(id, stock)| {
            let new = move |size: &&SheetSize| {
                own.is_none_or(|own| !own.sheets.iter().any(|known| known.same_as(size)))
            };
            stock.sheets.iter().filter(new).flat_map(move |size| {
                ways_round(size).map(move |(orientation, turned, words)| {
                    let (mut changed, mut changes) = on_sheet(job, size, orientation, turned);
                    // Card is changed for all pieces that share it.
                    let shared = job.pieces[0].stock.clone();
                    for piece in changed.pieces.iter_mut().filter(|piece| piece.stock == shared) {
                        piece.stock = id.clone();
                        changes.push(Change::new(&format!("{}stock", piece.path()), id.0.as_str()));
                    }
                    let text = format!("Use {}, {}{words}", stock.name, size.name);
                    way(WayKind::Sheet, changed, Remedy { text, changes })
                })
            })
        })
}

/// Other cutters, with marks they can go by where the job needs any.
pub(super) fn other_cutters<'a>(
    job: &'a Job,
    workshop: &'a Workshop,
) -> impl Iterator<Item = Way> + 'a {
    workshop
        .cutters
        .iter()
        .filter(|(id, cutter)| cutter.keeping.is_offered() && job.sheet.cutter.as_ref() != Some(id))
        .flat_map(move |(id, cutter)| {
            let readable = workshop
                .mark_sets
                .iter()
                .filter(move |(_, set)| set.keeping.is_offered() && cutter.reads(set));
            let needs = job.is_printed() && cutter.finds.by_marks();
            let marks: Vec<Option<_>> =
                if needs { readable.map(Some).collect() } else { vec![None] };
            marks.into_iter().map(move |marks| {
                let mut changed = job.clone();
                changed.sheet.cutter = Some(id.clone());
                let mut changes = vec![Change::new("sheet.cutter", id.0.as_str())];
                let mut text = format!("Use {}", cutter.name);
                if let Some((marks, set)) = marks {
                    changed.sheet.marks = Some(marks.clone());
                    changes.push(Change::new("sheet.marks", marks.0.as_str()));
                    text = format!("{text} with {}", set.name);
                }
                way(WayKind::Cutter, changed, Remedy { text, changes })
            })
        })
}
