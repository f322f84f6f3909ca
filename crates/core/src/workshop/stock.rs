//! Card and paper.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::SheetSize;
use super::{Keeping, PrintProcess, check_name};
use crate::error::{Faults, InputError, Remedy};
use crate::units::{Unit, measure};

/// How the fibres run on a sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Grain {
    /// Along the longer side.
    Long,
    /// Along the shorter side.
    Short,
    /// Not known, or none.
    Unknown,
}

/// Which side takes print.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum PrintableSide {
    /// Both sides.
    #[default]
    Both,
    /// The face only.
    Face,
    /// Neither: it is cut, not printed.
    Neither,
}

/// What shines through ink.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Shine {
    /// Nothing but its own colour.
    #[default]
    Opaque,
    /// What lies behind it.
    Clear,
    /// What is mirrored in it.
    Reflective,
}

/// A film laid over the print before it is cut.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Laminate {
    /// Its thickness, mm, 0.005 to 1.
    pub thickness: f64,
    /// True when a cutter’s eye reads marks through it.
    pub clear_to_eye: bool,
}

/// What one sheet costs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Price {
    /// For a sheet of the first size; other sizes cost by their area.
    pub amount: f64,
    /// The currency, 1 to 4 characters.
    pub currency: String,
}

/// Stock from a roll.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Roll {
    /// What is lost at each side, mm.
    pub side: f64,
}

/// A stock.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Stock {
    /// Its name in lists.
    pub name: String,
    /// Thickness in mm, 0.02 to 5.
    pub caliper: f64,
    /// Mass in g/m², 20 to 2000, where it is known.
    pub grammage: Option<f64>,
    /// How the fibres run.
    pub grain: Grain,
    /// The face's colour as `#rrggbb`, for drawings.
    pub colour: String,
    /// The sheets it is kept in, first choice first.
    pub sheets: Vec<SheetSize>,
    /// Thickness of the liner it lies on, mm; `None` without one. It counts in the caliper.
    #[serde(default)]
    pub liner: Option<f64>,
    /// Which side takes print.
    #[serde(default)]
    pub printable: PrintableSide,
    /// The only kind of printer that it takes; `None` takes either.
    #[serde(default)]
    pub takes: Option<PrintProcess>,
    /// What shines through ink that is printed on it.
    #[serde(default)]
    pub shine: Shine,
    /// True for what is printed mirrored because it is transferred, face down, onto something else.
    #[serde(default)]
    pub mirrored: bool,
    /// The film laid over it after printing.
    #[serde(default)]
    pub laminate: Option<Laminate>,
    /// True when a cut edge shows white against the print.
    #[serde(default)]
    pub white_edges: bool,
    /// What it costs.
    #[serde(default)]
    pub price: Option<Price>,
    /// Set when it comes from a roll: each size is then a length cut off it.
    #[serde(default)]
    pub roll: Option<Roll>,
    /// Where it stands in lists.
    #[serde(default)]
    pub keeping: Keeping,
}

impl Stock {
    /// Thickness in the cutter, laminate included, mm.
    #[must_use]
    pub fn thickness(&self) -> f64 {
        self.caliper + self.laminate.map_or(0.0, |film| film.thickness)
    }

    /// What a sheet of so many mm² costs, where that is known.
    #[must_use]
    pub fn cost(&self, area: f64) -> Option<f64> {
        let first = self.sheets.first()?;
        Some(self.price.as_ref()?.amount * area / (first.width * first.height))
    }

    /// # Errors
    /// Every figure out of range.
    pub fn validate(&self, unit: Unit) -> Result<(), Vec<InputError>> {
        let show = |length: f64| measure(length, unit);
        let mut faults = Faults::default();
        check_name("name", &self.name, &mut faults);
        faults.range("caliper", "The caliper", self.caliper, 0.02..=5.0, show);
        if let Some(grammage) = self.grammage {
            faults.range("grammage", "The grammage", grammage, 20.0..=2000.0, |g| {
                format!("{g} g/m²")
            });
        }
        if let Some(liner) = self.liner {
            faults.range("liner", "The liner", liner, 0.01..=self.caliper.max(0.01), show);
        }
        if let Some(film) = self.laminate {
            faults.range("laminate.thickness", "The laminate", film.thickness, 0.005..=1.0, show);
        }
        if let Some(roll) = self.roll {
            faults.range("roll.side", "What the roll loses", roll.side, 0.0..=200.0, show);
        }
        if let Some(price) = &self.price {
            faults.range("price.amount", "The price", price.amount, 0.0..=1e6, |n| format!("{n}"));
            let length = price.currency.chars().count();
            if !(1..=4).contains(&length) || price.currency.chars().any(char::is_control) {
                faults.add(InputError::plain(
                    "price.currency",
                    format!("The currency has {length} characters: use 1 to 4"),
                    Remedy::advice("Write a sign or a short code"),
                ));
            }
        }
        if !is_colour(&self.colour) {
            faults.add(InputError::plain(
                "colour",
                format!("“{}” is not a colour", self.colour.chars().take(20).collect::<String>()),
                Remedy::set("Use white, #ffffff", "colour", "#ffffff"),
            ));
        }
        if self.sheets.is_empty() || self.sheets.len() > 20 {
            faults.add(InputError::new(
                "sheets",
                format!("{} sheet sizes are listed: name 1 to 20", self.sheets.len()),
                f64::from(u32::try_from(self.sheets.len()).unwrap_or(u32::MAX)),
                Remedy::advice("List the sizes in which this stock is kept"),
            ));
        }
        for size in &self.sheets {
            size.validate("sheets", unit, &mut faults);
        }
        faults.or(())
    }
}

/// True for `#rrggbb`.
pub fn is_colour(text: &str) -> bool {
    text.strip_prefix('#').is_some_and(|digits| hex::decode_to_slice(digits, &mut [0; 3]).is_ok())
}
