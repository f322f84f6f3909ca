//! A job: its pieces, what is printed on them, and how their copies go onto sheets.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use crate::error::{Faults, InputError, Remedy};
use crate::face::Face;
use crate::form::Form;
use crate::sheet::SheetPlan;
use crate::units::Unit;
use crate::workshop::{RecordId, RecordKind, check_name};

/// Everything the user decides about a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
pub struct Job {
    /// Its name in lists.
    pub name: String,
    /// The unit in which its lengths are shown.
    #[serde(default)]
    pub unit: Unit,
    /// What is made.
    pub form: Form,
    /// In which card.
    pub stock: RecordId,
    /// What is printed on it; `None` for a job that is only cut.
    pub face: Option<Face>,
    /// How copies go onto sheets. Its copies are those of the piece above.
    pub sheet: SheetPlan,
    /// Further pieces that share the sheets, such as the tag that goes with a carton; up to 11.
    #[serde(default)]
    pub companions: Vec<Companion>,
}

/// A further piece of a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema, TS)]
pub struct Companion {
    /// Its name in lists.
    pub name: String,
    /// What is made.
    pub form: Form,
    /// In which card.
    pub stock: RecordId,
    /// What is printed on it; `None` leaves it bare.
    pub face: Option<Face>,
    /// Copies wanted, 1 to 10,000.
    pub copies: u32,
}

/// One of a job's pieces, the first or a companion.
#[derive(Debug, Clone)]
pub struct JobPiece<'a> {
    /// Its name.
    pub name: &'a str,
    /// What is made.
    pub form: &'a Form,
    /// In which card.
    pub stock: &'a RecordId,
    /// What is printed on it.
    pub face: Option<&'a Face>,
    /// Copies wanted.
    pub copies: u32,
    /// What the paths of its fields begin with: nothing, or `companions.0.`.
    pub path: String,
}

/// Most companions of a job.
const MOST_COMPANIONS: usize = 11;

impl Job {
    /// Its pieces, the first one first.
    pub fn pieces(&self) -> impl Iterator<Item = JobPiece<'_>> {
        // Among others the first goes by what it is.
        let own = self.form.structure().ok().filter(|_| !self.companions.is_empty());
        let first = JobPiece {
            name: own.map_or(&self.name, |structure| structure.name),
            form: &self.form,
            stock: &self.stock,
            face: self.face.as_ref(),
            copies: self.sheet.copies,
            path: String::new(),
        };
        let others = self.companions.iter().enumerate().map(|(at, other)| JobPiece {
            name: &other.name,
            form: &other.form,
            stock: &other.stock,
            face: other.face.as_ref(),
            copies: other.copies,
            path: format!("companions.{at}."),
        });
        std::iter::once(first).chain(others)
    }

    /// The records of the workshop that it names, by kind and id.
    #[must_use]
    pub fn records(&self) -> Vec<(RecordKind, &RecordId)> {
        let plan = &self.sheet;
        let machines = [
            (RecordKind::Printers, &plan.printer),
            (RecordKind::Cutters, &plan.cutter),
            (RecordKind::Carriers, &plan.carrier),
            (RecordKind::MarkSets, &plan.marks),
        ];
        let machines = machines.into_iter().filter_map(|(kind, id)| Some((kind, id.as_ref()?)));
        let stocks = self.pieces().flat_map(|piece| {
            let backing = piece.form.backing.as_ref().map(|backing| &backing.stock);
            [Some(piece.stock), backing].into_iter().flatten()
        });
        stocks.map(|id| (RecordKind::Stocks, id)).chain(machines).collect()
    }

    /// True when something is printed on any piece.
    #[must_use]
    pub fn is_printed(&self) -> bool {
        self.pieces().any(|piece| piece.face.is_some())
    }

    /// Checks what holds for any workshop.
    ///
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        if self.companions.len() > MOST_COMPANIONS {
            faults.add(InputError::new(
                "companions",
                format!(
                    "The job has {} further pieces: it has up to {MOST_COMPANIONS}",
                    self.companions.len()
                ),
                f64::from(u32::try_from(self.companions.len()).unwrap_or(u32::MAX)),
                Remedy::advice("Make a second job of some of them"),
            ));
        }
        check_name("name", &self.name, &mut faults);
        for (at, other) in self.companions.iter().enumerate() {
            check_name(&format!("companions.{at}.name"), &other.name, &mut faults);
        }
        for piece in self.pieces() {
            if let Some(face) = piece.face {
                let mut own = Faults::default();
                face.validate(self.unit, &mut own);
                let errors = own.or(()).err().unwrap_or_default();
                errors.into_iter().for_each(|error| faults.add(error.below(&piece.path)));
            }
        }
        for (at, other) in self.companions.iter().enumerate() {
            faults.range(
                &format!("companions.{at}.copies"),
                "The number of copies",
                f64::from(other.copies),
                1.0..=10_000.0,
                |count| format!("{count}"),
            );
        }
        self.sheet.validate(self.unit, &mut faults);
        faults.or(())
    }
}
