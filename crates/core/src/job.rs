//! A job: one piece, what is printed on it, and how its copies go onto sheets.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ts_rs::TS;

use crate::error::{Faults, InputError};
use crate::face::Face;
use crate::form::Form;
use crate::sheet::SheetPlan;
use crate::units::Unit;
use crate::workshop::{RecordId, check_name};

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
    /// How copies go onto sheets.
    pub sheet: SheetPlan,
}

impl Job {
    /// Checks what holds for any workshop.
    ///
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        if let Some(face) = &self.face {
            face.validate(self.unit, &mut faults);
        }
        self.sheet.validate(self.unit, &mut faults);
        faults.or(())
    }
}
