//! Form: from figures to a dieline.
//!
//! A [`Structure`] of the [`catalogue`] turns its figures and the card's caliper into panel trees;
//! the flat with its outline, creases, areas and drafted dimensions follows from the trees, and so
//! does the folded piece.

mod add_on;
mod bookmark;
mod carton;
pub mod catalogue;
mod checks;
pub mod design;
mod dimension;
mod drafting;
mod figure;
mod figures;
mod flaps;
mod flat;
mod labels;
mod packet;
pub mod panel;
mod param;
mod resolve;
mod sleeve;
mod solid;
mod split;
mod structure;
mod tabs;
mod tag;
mod tray;
mod tube;

use std::collections::BTreeMap;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use add_on::{AddOn, AddOnKind};
pub use dimension::{Axis, Dimension};
pub use figure::{Figure, FigureKind};
pub use figures::Figures;
pub use flaps::GLUE_STANDARD;
pub use flat::{Flat, Folding, Label, Part, Sizes};
pub use panel::{Joint, Line, Panel, PlacedPanel, Role, Unfolded};
pub use param::{Bounds, Kind, Param};
pub use split::{JOIN_FLAP, Split, SplitBy};
pub use structure::{Family, Preset, Structure};

use crate::error::{Faults, InputError, Remedy, Setting};
use crate::units::{Unit, measure};
use crate::workshop::RecordId;

/// Which dimensions the user gives.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Basis {
    /// The room inside.
    #[default]
    Inside,
    /// Over everything when closed.
    Outside,
    /// Between creases, at the middle of the card.
    Crease,
}

/// A layer of another card behind the piece, which follows its outline.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Backing {
    /// Its card.
    pub stock: RecordId,
    /// How far it stands out beyond the piece, mm; 0 to 50.
    pub border: f64,
}

/// What is made: a structure, its figures, and what is added to its panels.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Form {
    /// A structure of the catalogue, by its id.
    pub structure: String,
    /// Which dimensions its sizes are.
    #[serde(default)]
    pub basis: Basis,
    /// Openings, notches and strips on its panels.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub add_ons: Vec<AddOn>,
    /// The words on its labels, in order; a label without any has its number.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub labels: Vec<String>,
    /// True to cut through the liner too, on stock that has one: its cuts are kiss cuts there otherwise.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub through: bool,
    /// A layer behind it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub backing: Option<Backing>,
    /// Where it is cut apart into two parts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub split: Option<Split>,
    /// The figures that are set, by their keys: mm, degrees or counts. Others follow the trade's
    /// defaults; those that the structure does not know wait for one that does.
    #[serde(flatten)]
    #[cfg_attr(feature = "api", ts(skip))]
    pub figures: BTreeMap<String, Option<f64>>,
}

/// Most add-ons on one piece.
const MOST_ADD_ONS: usize = 60;

impl Form {
    /// A structure with some figures set.
    #[must_use]
    pub fn new(structure: &str, figures: &[(&str, f64)]) -> Self {
        Self {
            structure: structure.to_owned(),
            basis: Basis::Inside,
            add_ons: Vec::new(),
            labels: Vec::new(),
            through: false,
            backing: None,
            split: None,
            figures: figures.iter().map(|(key, value)| ((*key).to_owned(), Some(*value))).collect(),
        }
    }

    /// The flat of this form in card of the given caliper (mm); texts are in `unit`.
    ///
    /// # Errors
    /// Every figure that is out of range or contradicts another, and add-ons that meet something.
    pub fn draw(&self, caliper: f64, unit: Unit) -> Result<Flat, Vec<InputError>> {
        let structure = self.structure()?;
        let resolved = resolve::resolve(structure, self, caliper, unit)?;
        let mut design = (structure.design)(&resolved.figures);
        let mut faults = Faults::default();
        if self.add_ons.len() > MOST_ADD_ONS {
            faults.add(InputError::new(
                "form.add_ons",
                format!("The piece has {} add-ons: at most {MOST_ADD_ONS}", self.add_ons.len()),
                f64::from(u32::try_from(self.add_ons.len()).unwrap_or(u32::MAX)),
                Remedy::advice("Take some away"),
            ));
            return Err(faults.or(()).err().unwrap_or_default());
        }
        add_on::notch(&self.add_ons, &mut design, &mut faults, unit);
        if let Some(split) = &self.split {
            split::split(split, &mut design, caliper, &mut faults, unit);
        }
        let mut parts: Vec<Part> = design.blanks.iter().map(Part::of).collect();
        add_on::place(&self.add_ons, &mut parts, &mut faults, unit);
        labels::place(&self.labels, &design.labels, &mut parts, &mut faults);
        if let Some(backing) = &self.backing {
            if self.split.is_some() {
                faults.add(InputError::plain(
                    "form.backing",
                    "A piece in two parts has no outline of its own that a backing layer could follow",
                    Remedy::set("Keep it in one piece", "form.split", Setting::Standard),
                ));
            }
            faults.range("form.backing.border", "The border", backing.border, 0.0..=50.0, |mm| {
                measure(mm, unit)
            });
            let border = if backing.border.is_finite() { backing.border } else { 0.0 };
            parts.extend(backing_layer(&parts, backing, border.clamp(0.0, 50.0)));
        }
        faults.or(())?;
        let mut sizes = resolved.sizes;
        if let Some([inside, outside]) = design.measured {
            (sizes.inside, sizes.outside) = (inside, outside);
        }
        let bounds = flat::arrange(&mut parts);
        let mut flat = Flat {
            bounds,
            dimensions: Vec::new(),
            figures: resolved.shown,
            sizes,
            volume: design.volume,
            folds: design.folds,
            folding: Folding {
                steps: design.steps,
                musts: design.musts,
                stand: design.stand,
                ruling: design.ruling,
            },
            mates: drafting::mates(&design.mates, &parts),
            checks: Vec::new(),
            parts,
        };
        flat.dimensions = drafting::dimensions(&design.spans, &flat, unit);
        flat.checks = checks::checks(&design.limits, &flat, caliper, unit);
        Ok(flat)
    }

    /// The structure of the catalogue.
    ///
    /// # Errors
    /// An id that the catalogue does not hold.
    pub fn structure(&self) -> Result<&'static Structure, Vec<InputError>> {
        catalogue::find(&self.structure).ok_or_else(|| {
            let id: String = self.structure.chars().take(40).collect();
            vec![InputError::plain(
                "form.structure",
                format!("The catalogue has no structure “{id}”"),
                Remedy::set("Make a straight-tuck carton", "form.structure", "straight-tuck"),
            )]
        })
    }

    /// The inside dimensions in mm with their keys, in card of the given caliper; none where the
    /// figures cannot be used.
    #[must_use]
    pub fn inside(&self, caliper: f64) -> Vec<(String, f64)> {
        let resolved = self
            .structure()
            .and_then(|structure| resolve::resolve(structure, self, caliper, Unit::Mm));
        resolved.map_or_else(
            |_| Vec::new(),
            |resolved| resolved.sizes.keys.into_iter().zip(resolved.sizes.inside).collect(),
        )
    }

    /// The same form with other inside dimensions in mm, its basis kept.
    #[must_use]
    pub fn with_inside(&self, inside: &[(String, f64)], caliper: f64) -> Self {
        let mut changed = self.clone();
        let Ok(structure) = self.structure() else { return changed };
        let mut plain = Self { basis: Basis::Inside, ..self.clone() };
        plain.figures.extend(inside.iter().map(|(key, value)| (key.clone(), Some(*value))));
        // Where these sizes cannot be had, the figures that stand on them are as they were.
        let resolve = |form: &Self| resolve::resolve(structure, form, caliper, Unit::Mm);
        let Ok(resolved) = resolve(&plain).or_else(|_| resolve(self)) else { return plain };
        let c = resolve::clearance(structure, self, &resolved.figures);
        for (key, value) in inside {
            let more = structure
                .param(key)
                .map_or(0.0, |param| param.added(self.basis, &resolved.figures, c));
            changed.figures.insert(key.clone(), Some(value + more));
        }
        changed
    }
}

/// The layer behind the first blank.
fn backing_layer(parts: &[Part], backing: &Backing, border: f64) -> Option<Part> {
    let outline = parts.first()?.region().rounded_out(border).outer_rings().into_iter().next()?;
    let layer = Part::plain("Backing layer", crate::geometry::polygon(&outline));
    Some(Part { stock: Some(backing.stock.clone()), ..layer })
}
