//! Printing recipes: how a stock is printed by a printer, so that the next print comes out as the last good one.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::recipe::is_day;
use super::{Keeping, RecordId, Workshop, check_name, check_note};
use crate::error::{Faults, InputError, Remedy};

/// Which way up a sheet lies in the tray.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum LiesInTray {
    /// The side that is printed looks up.
    #[default]
    FaceUp,
    /// The side that is printed looks down.
    FaceDown,
}

impl LiesInTray {
    /// In words.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::FaceUp => "the side to print up",
            Self::FaceDown => "the side to print down",
        }
    }
}

/// What is set for a print. What is left empty is left as the printer has it.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(default)]
pub struct PrintSettings {
    /// The paper that the printer is told of, such as “heavy matt”.
    pub media: String,
    /// The quality, such as “high”.
    pub quality: String,
    /// Who minds the colours, such as “by the printer”.
    pub colour: String,
    /// The tray or slot, such as “rear tray”.
    pub tray: String,
    /// Which way up the sheet lies in it.
    pub lies: LiesInTray,
}

impl PrintSettings {
    /// Notes each setting that is too long, or cannot be shown.
    pub(crate) fn validate(&self, below: &str, faults: &mut Faults) {
        let Self { media, quality, colour, tray, .. } = self;
        for (field, text) in
            [("media", media), ("quality", quality), ("colour", colour), ("tray", tray)]
        {
            let long = text.chars().count();
            if long > LONGEST || text.chars().any(char::is_control) {
                faults.add(InputError::new(
                    &format!("{below}.{field}"),
                    format!("This setting has {long} characters, or some that cannot be shown"),
                    f64::from(u32::try_from(long).unwrap_or(u32::MAX)),
                    Remedy::advice(format!("Use up to {LONGEST} characters")),
                ));
            }
        }
    }

    /// Each setting in words, what is left as it is left out.
    #[must_use]
    pub fn words(&self) -> Vec<String> {
        let Self { media, quality, colour, tray, lies } = self;
        let named =
            [("paper type", media), ("quality", quality), ("colour", colour), ("from", tray)];
        let mut words: Vec<String> = named
            .into_iter()
            .filter(|(_, own)| !own.is_empty())
            .map(|(what, own)| format!("{what} {own}"))
            .collect();
        words.push(lies.name().to_owned());
        words
    }
}

/// How a stock is printed by a printer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct PrintRecipe {
    /// Its name in lists.
    pub name: String,
    /// The card.
    pub stock: RecordId,
    /// The printer.
    pub printer: RecordId,
    /// What is set.
    #[serde(default)]
    pub settings: PrintSettings,
    /// Minutes for a side of a sheet, 0.05 to 240, where somebody has taken the time.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub minutes: Option<f64>,
    /// The day on which it worked last, such as `2026-10-12`; none where nobody has tried it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub worked: Option<String>,
    /// What else is to be known.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// Where it stands in lists.
    #[serde(default)]
    pub keeping: Keeping,
}

/// Longest setting, characters.
const LONGEST: usize = 60;

impl PrintRecipe {
    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self) -> Result<(), Vec<InputError>> {
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        for (field, id) in [("stock", &self.stock), ("printer", &self.printer)] {
            if !id.is_sound() {
                faults.add(InputError::plain(
                    field,
                    format!("The printing recipe names no {field}"),
                    Remedy::advice(format!("Choose a {field} from the workshop")),
                ));
            }
        }
        self.settings.validate("settings", &mut faults);
        if let Some(minutes) = self.minutes {
            let show = |own: f64| format!("{own} min");
            faults.range("minutes", "The time for a sheet", minutes, 0.05..=240.0, show);
        }
        if self.worked.as_deref().is_some_and(|day| !is_day(day)) {
            faults.add(InputError::plain(
                "worked",
                "The day on which it worked last is no day",
                Remedy::advice("Write it as 2026-10-12"),
            ));
        }
        check_note("note", &self.note, &mut faults);
        faults.or(())
    }

    /// The one for a stock on a printer: those at hand first, of these the one that worked last.
    #[must_use]
    pub fn of<'a>(
        workshop: &'a Workshop,
        stock: &RecordId,
        printer: &RecordId,
    ) -> Option<&'a Self> {
        let fitting = workshop.print_recipes.iter().filter(|(_, own)| {
            own.keeping.is_offered() && own.stock == *stock && own.printer == *printer
        });
        let best = fitting.max_by(|(one_id, one), (other_id, other)| {
            let near = |own: &Self| own.keeping == Keeping::AtHand;
            near(one)
                .cmp(&near(other))
                .then_with(|| one.worked.cmp(&other.worked))
                .then_with(|| other_id.cmp(one_id))
        });
        best.map(|(_, own)| own)
    }
}
