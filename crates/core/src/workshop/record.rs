//! Any record of the workshop, by its kind.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::{Carrier, Cutter, MarkSet, PrintRecipe, Printer, Recipe, RecordId, Stock, Workshop};
use crate::error::InputError;
use crate::units::Unit;

/// The kinds of records.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "snake_case")]
pub enum RecordKind {
    /// Card and paper.
    Stocks,
    /// Printers.
    Printers,
    /// Cutters.
    Cutters,
    /// Carriers.
    Carriers,
    /// Mark sets.
    MarkSets,
    /// Recipes.
    Recipes,
    /// Printing recipes.
    PrintRecipes,
}

impl RecordKind {
    /// All kinds.
    pub const ALL: [Self; 7] = [
        Self::Stocks,
        Self::Printers,
        Self::Cutters,
        Self::Carriers,
        Self::MarkSets,
        Self::Recipes,
        Self::PrintRecipes,
    ];

    /// Its key in the workshop, such as `mark_sets`.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Stocks => "stocks",
            Self::Printers => "printers",
            Self::Cutters => "cutters",
            Self::Carriers => "carriers",
            Self::MarkSets => "mark_sets",
            Self::Recipes => "recipes",
            Self::PrintRecipes => "print_recipes",
        }
    }

    /// One of them, in words.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Stocks => "stock",
            Self::Printers => "printer",
            Self::Cutters => "cutter",
            Self::Carriers => "carrier",
            Self::MarkSets => "mark set",
            Self::Recipes => "recipe",
            Self::PrintRecipes => "printing recipe",
        }
    }

    /// The kind of a key.
    #[must_use]
    pub fn named(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.key() == key)
    }
}

/// A record with its kind.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(tag = "kind", rename_all = "snake_case")]
#[expect(clippy::large_enum_variant, reason = "one at a time, not thousands")]
pub enum Record {
    /// Card or paper.
    Stocks(Stock),
    /// A printer.
    Printers(Printer),
    /// A cutter.
    Cutters(Cutter),
    /// A carrier.
    Carriers(Carrier),
    /// A mark set.
    MarkSets(MarkSet),
    /// A recipe.
    Recipes(Recipe),
    /// A printing recipe.
    PrintRecipes(PrintRecipe),
}

impl Record {
    /// What a new record of each kind starts as.
    ///
    /// # Panics
    /// Never: a test reads what is read here.
    #[must_use]
    pub fn starts() -> Vec<Self> {
        serde_json::from_str(include_str!("starts.json")).expect("a test reads it")
    }

    /// Its kind.
    #[must_use]
    pub const fn kind(&self) -> RecordKind {
        match self {
            Self::Stocks(_) => RecordKind::Stocks,
            Self::Printers(_) => RecordKind::Printers,
            Self::Cutters(_) => RecordKind::Cutters,
            Self::Carriers(_) => RecordKind::Carriers,
            Self::MarkSets(_) => RecordKind::MarkSets,
            Self::Recipes(_) => RecordKind::Recipes,
            Self::PrintRecipes(_) => RecordKind::PrintRecipes,
        }
    }

    /// Its name in lists.
    #[must_use]
    pub fn name(&self) -> &str {
        match self {
            Self::Stocks(record) => &record.name,
            Self::Printers(record) => &record.name,
            Self::Cutters(record) => &record.name,
            Self::Carriers(record) => &record.name,
            Self::MarkSets(record) => &record.name,
            Self::Recipes(record) => &record.name,
            Self::PrintRecipes(record) => &record.name,
        }
    }

    /// Its JSON, without the kind.
    #[must_use]
    pub fn to_json(&self) -> String {
        // Types without maps keyed by anything but strings always have a JSON form.
        match self {
            Self::Stocks(record) => serde_json::to_string(record),
            Self::Printers(record) => serde_json::to_string(record),
            Self::Cutters(record) => serde_json::to_string(record),
            Self::Carriers(record) => serde_json::to_string(record),
            Self::MarkSets(record) => serde_json::to_string(record),
            Self::Recipes(record) => serde_json::to_string(record),
            Self::PrintRecipes(record) => serde_json::to_string(record),
        }
        .unwrap_or_default()
    }

    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        match self {
            Self::Stocks(record) => record.validate(unit),
            Self::Printers(record) => record.validate(unit),
            Self::Cutters(record) => record.validate(unit),
            Self::Carriers(record) => record.validate(unit),
            Self::MarkSets(record) => record.validate(unit),
            Self::Recipes(record) => record.validate(unit),
            Self::PrintRecipes(record) => record.validate(),
        }
    }
}

impl Workshop {
    /// A record.
    #[must_use]
    pub fn record(&self, kind: RecordKind, id: &RecordId) -> Option<Record> {
        match kind {
            RecordKind::Stocks => self.stocks.get(id).cloned().map(Record::Stocks),
            RecordKind::Printers => self.printers.get(id).cloned().map(Record::Printers),
            RecordKind::Cutters => self.cutters.get(id).cloned().map(Record::Cutters),
            RecordKind::Carriers => self.carriers.get(id).cloned().map(Record::Carriers),
            RecordKind::MarkSets => self.mark_sets.get(id).cloned().map(Record::MarkSets),
            RecordKind::Recipes => self.recipes.get(id).cloned().map(Record::Recipes),
            RecordKind::PrintRecipes => {
                self.print_recipes.get(id).cloned().map(Record::PrintRecipes)
            }
        }
    }

    /// Puts a record in, in the place of one of its kind and id.
    pub fn insert(&mut self, id: RecordId, record: Record) {
        match record {
            Record::Stocks(stock) => drop(self.stocks.insert(id, stock)),
            Record::Printers(printer) => drop(self.printers.insert(id, printer)),
            Record::Cutters(cutter) => drop(self.cutters.insert(id, cutter)),
            Record::Carriers(carrier) => drop(self.carriers.insert(id, carrier)),
            Record::MarkSets(marks) => drop(self.mark_sets.insert(id, marks)),
            Record::Recipes(recipe) => drop(self.recipes.insert(id, recipe)),
            Record::PrintRecipes(recipe) => drop(self.print_recipes.insert(id, recipe)),
        }
    }

    /// True when there is such a record.
    #[must_use]
    pub fn has(&self, kind: RecordKind, id: &RecordId) -> bool {
        self.record(kind, id).is_some()
    }

    /// The name of a record.
    #[must_use]
    pub fn name_of(&self, kind: RecordKind, id: &RecordId) -> Option<String> {
        self.record(kind, id).map(|record| record.name().to_owned())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_new_record_of_each_kind_is_sound() {
        let starts = Record::starts();
        let kinds: Vec<RecordKind> = starts.iter().map(Record::kind).collect();
        assert_eq!(kinds, RecordKind::ALL);
        let mut workshop = Workshop::default();
        for record in starts {
            workshop.insert(RecordId("new".to_owned()), record);
        }
        workshop.validate(Unit::Mm).unwrap();
    }
}
