//! What other sheets and spacings would make of an order.

use crate::check::State;
use crate::error::{Change, Remedy, Setting};
use crate::job::Job;
use crate::prepare::{Prepared, prepare};
use crate::sheet::{SheetPlan, on_sheet, ways_round};
use crate::units::measure;
use crate::workshop::Workshop;

/// Distances between pieces that are tried, mm.
const SPACINGS: [f64; 5] = [0.0, 1.0, 2.0, 3.0, 5.0];

/// A change, and the order with it, in rows and columns.
#[derive(Debug, Clone)]
pub struct OrderChange {
    /// What is changed.
    pub remedy: Remedy,
    /// The job with it.
    pub prepared: Prepared,
}

/// What the other sizes and ways round of the job's stock, and other spacings, would make of its order. Sheets
/// that a machine does not take, and those on which nothing fits, are left out. `go_on` is asked before each; the rest
/// is left out once it says no.
#[must_use]
pub fn order_changes(
    job: &Job,
    workshop: &Workshop,
    mut go_on: impl FnMut() -> bool,
) -> Vec<OrderChange> {
    let plan = &job.sheet;
    let mut tried: Vec<(Job, Remedy)> = Vec::new();
    let stock = workshop.stocks.get(&job.pieces[0].stock);
    for size in stock.into_iter().flat_map(|stock| &stock.sheets) {
        for (orientation, id, words) in ways_round(size) {
            let is_square = words.is_empty();
            if size.same_as(&plan.size) && (is_square || orientation == plan.orientation) {
                continue;
            }
            let (changed, changes) = on_sheet(job, size, orientation, id);
            tried.push((changed, Remedy { text: format!("{}{words}", size.name), changes }));
        }
    }
    for spacing in SPACINGS.into_iter().filter(|spacing| (spacing - plan.spacing).abs() > 0.01) {
        let sheet = SheetPlan { spacing, kept: None, ..plan.clone() };
        let text = format!("{} between pieces", measure(spacing, job.unit));
        let changes = vec![Change::new("sheet.spacing", spacing)];
        tried.push((Job { sheet, ..job.clone() }, Remedy { text, changes }));
    }
    let tried = tried.into_iter().take_while(|_| go_on());
    let made = tried.filter_map(|(changed, mut remedy)| {
        // A layout that was kept was made for what is changed.
        remedy.changes.push(Change::new("sheet.kept", Setting::Standard));
        let prepared = prepare(&changed, workshop).ok()?;
        let is_taken = !prepared.checks.iter().any(|check| {
            check.state == State::Broken
                && (check.id.starts_with("cutter-") || check.id.starts_with("printer-"))
        });
        (is_taken && prepared.layout.laid > 0).then_some(OrderChange { remedy, prepared })
    });
    made.collect()
}
