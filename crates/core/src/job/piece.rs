//! One of the pieces that a job makes.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::Faults;
use crate::face::{Face, List};
use crate::form::{Form, Part, Source};
use crate::id::PieceId;
use crate::units::Unit;
use crate::workshop::{RecordId, check_name};

/// One of the pieces that a job makes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct JobPiece {
    /// What it is known by.
    pub id: PieceId,
    /// Its name in lists; `None` goes by what it is.
    #[serde(default)]
    pub name: Option<String>,
    /// What is made.
    pub form: Form,
    /// In which card.
    pub stock: RecordId,
    /// What is printed on it; `None` leaves it bare.
    pub face: Option<Face>,
    /// The list whose rows its copies wear, the first copy the first row.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub list: Option<List>,
    /// Copies wanted, 1 to 10,000.
    pub copies: u32,
    /// Copies made beside them because some go wrong, 0 to 10,000.
    #[serde(default, skip_serializing_if = "is_none")]
    pub spares: u32,
    /// How many good ones go into a pack, up to 10,000; 0 where they are not packed.
    #[serde(default, skip_serializing_if = "is_none")]
    pub pack: u32,
}

/// serde asks by reference.
#[expect(clippy::trivially_copy_pass_by_ref, reason = "as serde asks")]
const fn is_none(count: &u32) -> bool {
    *count == 0
}

/// Most copies of a piece, spares among them.
const MOST_COPIES: u32 = 10_000;

impl JobPiece {
    /// A piece of a form in a card, one copy, bare.
    #[must_use]
    pub fn new(id: &str, form: Form, stock: &str) -> Self {
        let (id, stock) = (PieceId(id.to_owned()), RecordId(stock.to_owned()));
        Self { id, name: None, form, stock, face: None, list: None, copies: 1, spares: 0, pack: 0 }
    }

    /// Copies that are made: those that are wanted, and the spares.
    #[must_use]
    pub const fn made(&self) -> u32 {
        self.copies.saturating_add(self.spares)
    }

    /// The card that a blank of it is made of.
    #[must_use]
    pub fn card_of<'a>(&'a self, part: &'a Part) -> &'a RecordId {
        part.stock.as_ref().unwrap_or(&self.stock)
    }

    /// True where all that what is printed on it needs of blobs is here.
    #[must_use]
    pub fn is_furnished(&self) -> bool {
        self.face.as_ref().is_none_or(Face::is_furnished)
            && self.list.as_ref().is_none_or(List::is_furnished)
    }

    /// What it goes by among others.
    #[must_use]
    pub fn own_name(&self) -> &str {
        let what = || match &self.form.source {
            Source::Traced { .. } => "Traced piece",
            Source::Drawing { .. } => "Drawing",
            Source::Gathered { .. } => "Sticker card",
            Source::Structure(_) => "Piece",
        };
        let structure = || self.form.structure().map_or_else(what, |structure| structure.name);
        self.name.as_deref().unwrap_or_else(structure)
    }

    /// What the paths of its fields begin with.
    #[must_use]
    pub fn path(&self) -> String {
        format!("pieces.{}.", self.id)
    }

    fn field(&self, below: &str) -> String {
        format!("{}{below}", self.path())
    }

    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        if let Some(name) = &self.name {
            check_name(&self.field("name"), name, faults);
        }
        let mut own = Faults::default();
        if let Some(face) = &self.face {
            face.validate(unit, &mut own);
        }
        if let Some(list) = &self.list {
            list.validate(&mut own);
        }
        let own = own.or(()).err().unwrap_or_default();
        own.into_iter().for_each(|error| faults.add(error.below(&self.path())));
        faults.range(
            &self.field("copies"),
            "The number of copies",
            f64::from(self.copies),
            1.0..=f64::from(MOST_COPIES),
            |count| format!("{count}"),
        );
        let spare = f64::from(MOST_COPIES.saturating_sub(self.copies));
        faults.range(
            &self.field("spares"),
            "The number of spares",
            f64::from(self.spares),
            0.0..=spare,
            |count| format!("{count}"),
        );
        faults.range(
            &self.field("pack"),
            "The size of a pack",
            f64::from(self.pack),
            0.0..=f64::from(MOST_COPIES),
            |count| format!("{count}"),
        );
    }
}
