//! The workshop's records that a job uses.

use serde::Serialize;

use crate::error::{Faults, InputError, Remedy};
use crate::form::Part;
use crate::job::{Job, JobPiece};
use crate::workshop::{Carrier, Cutter, MarkSet, Printer, RecordId, Stock, Workshop};

/// The records that a job uses.
#[derive(Debug, Clone, Serialize)]
pub struct Records<'a> {
    /// The card of each piece.
    pub stocks: Vec<&'a Stock>,
    /// The card of each piece's backing layer, in a job where any has one.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub(crate) backings: Vec<Option<&'a Stock>>,
    /// The printer, when something is printed.
    pub printer: Option<&'a Printer>,
    /// The cutter, unless a hand cuts.
    pub cutter: Option<&'a Cutter>,
    /// The carrier, when the cutter uses one.
    pub carrier: Option<&'a Carrier>,
    /// The marks, when something is printed and the cutter goes by marks.
    pub marks: Option<&'a MarkSet>,
    /// Least distance from cuts to the marks’ keep-clear, mm.
    pub(crate) to_marks: f64,
    /// True where sheets are printed behind, too.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub(crate) backs: bool,
}

impl<'a> Records<'a> {
    /// Looks up what a job names.
    ///
    /// # Errors
    /// Every id that names nothing.
    pub fn of(job: &Job, workshop: &'a Workshop) -> Result<Self, Vec<InputError>> {
        let mut faults = Faults::default();
        let plan = &job.sheet;
        let mut stocks = Vec::new();
        let mut backings = Vec::new();
        for piece in &job.pieces {
            match workshop.stocks.get(&piece.stock) {
                Some(stock) => stocks.push(stock),
                None => {
                    let field = format!("{}stock", piece.path());
                    faults.add(unknown(&field, "stock", &piece.stock));
                }
            }
            let layer = piece.form.backing.as_ref().map(|backing| &backing.stock);
            let backing = layer.and_then(|id| workshop.stocks.get(id));
            if let (Some(id), None) = (layer, backing) {
                let field = format!("{}form.backing.stock", piece.path());
                faults.add(unknown(&field, "stock", id));
            }
            backings.push(backing);
        }
        if backings.iter().all(Option::is_none) {
            backings.clear();
        }
        let mut look_up = |field, kind, id: Option<&RecordId>, known: bool| {
            if let Some(id) = id
                && !known
            {
                faults.add(unknown(field, kind, id));
            }
        };
        let printer = plan.printer.as_ref().and_then(|id| workshop.printers.get(id));
        look_up("sheet.printer", "printer", plan.printer.as_ref(), printer.is_some());
        let cutter = plan.cutter.as_ref().and_then(|id| workshop.cutters.get(id));
        look_up("sheet.cutter", "cutter", plan.cutter.as_ref(), cutter.is_some());
        let carrier = plan.carrier.as_ref().and_then(|id| workshop.carriers.get(id));
        look_up("sheet.carrier", "carrier", plan.carrier.as_ref(), carrier.is_some());
        let marks = plan.marks.as_ref().and_then(|id| workshop.mark_sets.get(id));
        look_up("sheet.marks", "mark set", plan.marks.as_ref(), marks.is_some());
        // A job that is only cut has no printed page, so it has neither printer nor marks; and
        // marks are only for a cutter that goes by them.
        let printed = job.is_printed();
        let by_marks = cutter.is_some_and(|cutter| cutter.finds.by_marks());
        let behind = |piece: &JobPiece| piece.face.as_ref().is_some_and(|face| face.both_sides);
        let backs = job.pieces.iter().any(behind);
        faults.or(Self {
            stocks,
            backings,
            printer: printer.filter(|_| printed),
            cutter,
            carrier: carrier.filter(|_| cutter.is_some()),
            marks: marks.filter(|_| printed && by_marks),
            to_marks: plan.to_marks,
            backs,
        })
    }

    /// The card of the first piece.
    #[must_use]
    pub fn stock(&self) -> &'a Stock {
        self.stocks[0]
    }

    /// True where a blank of that piece lies on a liner.
    pub(crate) fn has_liner(&self, piece: usize, part: &Part) -> bool {
        let backing = || self.backings.get(piece).copied().flatten();
        let card = if part.stock.is_some() { backing() } else { self.stocks.get(piece).copied() };
        card.is_some_and(|card| card.liner.is_some())
    }

    /// Every card of the job with the field that names it.
    pub(crate) fn cards(&self, job: &Job) -> Vec<(String, &'a Stock)> {
        let own = job.pieces.iter().zip(&self.stocks);
        let own = own.map(|(piece, stock)| (format!("{}stock", piece.path()), *stock));
        let layers = job.pieces.iter().zip(&self.backings).filter_map(|(piece, layer)| {
            Some((format!("{}form.backing.stock", piece.path()), (*layer)?))
        });
        own.chain(layers).collect()
    }
}

/// An id that names nothing.
fn unknown(field: &str, kind: &str, id: &RecordId) -> InputError {
    let id: String = id.0.chars().take(60).collect();
    InputError::plain(
        field,
        format!("The workshop has no {kind} “{id}”"),
        Remedy::advice(format!("Choose a {kind} from the workshop")),
    )
}
