//! What a form is drawn from.

use std::collections::BTreeMap;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::add_on::CutOut;
use super::design::Design;
use super::drawing::LineDrawing;
use super::flat::{Flat, Folding};
use super::gathered::Gathered;
use super::part::Part;
use super::resolve::{self, Resolved, resolve};
use super::traced::Traced;
use super::{AddOn, Split, Structure, add_on, catalogue, checks, drafting, labels, split};
use crate::error::{Faults, InputError, Remedy};
use crate::units::Unit;

/// Where a form's outline and lines come from. What only some sources have (folding, figures, dimensions) is there
/// only with these.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(untagged)]
pub enum Source {
    /// A structure of the catalogue.
    Structure(ChosenStructure),
    /// The outline of a picture.
    Traced {
        /// How it is found.
        traced: Box<Traced>,
    },
    /// Lines that were drawn in another program.
    Drawing {
        /// What they are, and what they mean.
        drawing: Box<LineDrawing>,
    },
    /// A card that holds other pieces of the job.
    Gathered {
        /// What it holds, and how they lie on it.
        gathered: Box<Gathered>,
    },
}

// Told by its fields; read by hand, so that a fault in one of them is told by its name.
impl<'de> Deserialize<'de> for Source {
    fn deserialize<D: Deserializer<'de>>(from: D) -> Result<Self, D::Error> {
        use serde::de::Error;
        let mut fields = serde_json::Map::deserialize(from)?;
        let mut own = |name: &str| fields.remove(name).filter(|own| !own.is_null());
        if let Some(gathered) = own("gathered") {
            let read = serde_json::from_value(gathered);
            return read.map(|gathered| Self::Gathered { gathered }).map_err(D::Error::custom);
        }
        if let Some(drawing) = own("drawing") {
            let read = serde_json::from_value(drawing);
            return read.map(|drawing| Self::Drawing { drawing }).map_err(D::Error::custom);
        }
        match own("traced") {
            Some(traced) => serde_json::from_value(traced)
                .map(|traced| Self::Traced { traced })
                .map_err(D::Error::custom),
            None => ChosenStructure::deserialize(serde_json::Value::Object(fields))
                .map(Self::Structure)
                .map_err(D::Error::custom),
        }
    }
}

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

/// What holds of a form whatever it is drawn from stands beside the figures in the document, and is none of them.
#[cfg(feature = "api")]
fn beside_what_holds_of_all(schema: &mut schemars::Schema) {
    let Some(fields) = schema.get_mut("properties").and_then(|own| own.as_object_mut()) else {
        return;
    };
    for name in ["through", "backing"] {
        fields.insert(name.to_owned(), true.into());
    }
}

/// A structure of the catalogue with its figures, and what is added to its panels.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS), schemars(transform = beside_what_holds_of_all))]
pub struct ChosenStructure {
    /// The structure, by its id.
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

/// Blanks that are drawn, and what the rest of the flat follows from.
pub(super) struct Drafted {
    pub parts: Vec<Part>,
    design: Design,
    resolved: Resolved,
    cut_outs: Vec<CutOut>,
}

impl ChosenStructure {
    /// A structure with some figures set.
    pub(super) fn new(structure: &str, figures: &[(&str, f64)]) -> Self {
        Self {
            structure: structure.to_owned(),
            basis: Basis::Inside,
            add_ons: Vec::new(),
            labels: Vec::new(),
            split: None,
            figures: figures.iter().map(|(key, value)| ((*key).to_owned(), Some(*value))).collect(),
        }
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

    /// Its blanks; what is wrong with what is added to them goes to `faults`.
    ///
    /// # Errors
    /// What cannot be drawn at all.
    pub(super) fn draft(
        &self,
        caliper: f64,
        unit: Unit,
        faults: &mut Faults,
    ) -> Result<Drafted, Vec<InputError>> {
        let structure = self.structure()?;
        let resolved = resolve(structure, self, caliper, unit)?;
        let mut design = (structure.design)(&resolved.figures);
        if self.add_ons.len() > MOST_ADD_ONS {
            return Err(vec![InputError::new(
                "form.add_ons",
                format!("The piece has {} add-ons: at most {MOST_ADD_ONS}", self.add_ons.len()),
                f64::from(u32::try_from(self.add_ons.len()).unwrap_or(u32::MAX)),
                Remedy::advice("Take some away"),
            )]);
        }
        add_on::notch(&self.add_ons, &mut design, faults, unit);
        if let Some(split) = &self.split {
            split::split(split, &mut design, caliper, faults, unit);
        }
        let mut parts: Vec<Part> = design.blanks.iter().map(Part::of).collect();
        let cut_outs = add_on::place(&self.add_ons, &mut parts, faults, unit);
        labels::place(&self.labels, &design.labels, &mut parts, faults);
        Ok(Drafted { parts, design, resolved, cut_outs })
    }

    /// The inside dimensions in mm with their keys, in card of the given caliper; none where the
    /// figures cannot be used.
    pub(super) fn inside(&self, caliper: f64) -> Vec<(String, f64)> {
        let resolved =
            self.structure().and_then(|structure| resolve(structure, self, caliper, Unit::Mm));
        resolved.map_or_else(
            |_| Vec::new(),
            |resolved| resolved.sizes.keys.into_iter().zip(resolved.sizes.inside).collect(),
        )
    }

    /// The same with other inside dimensions in mm, its basis kept.
    pub(super) fn with_inside(&self, inside: &[(String, f64)], caliper: f64) -> Self {
        let mut changed = self.clone();
        let Ok(structure) = self.structure() else { return changed };
        let mut plain = Self { basis: Basis::Inside, ..self.clone() };
        plain.figures.extend(inside.iter().map(|(key, value)| (key.clone(), Some(*value))));
        // Where these sizes cannot be had, the figures that stand on them are as they were.
        let resolve = |chosen: &Self| resolve(structure, chosen, caliper, Unit::Mm);
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

impl Drafted {
    /// The blanks laid out with all that follows from the structure.
    pub(super) fn flat(self, caliper: f64, unit: Unit) -> Flat {
        let Self { parts, design, resolved, cut_outs } = self;
        let mut flat = Flat::of(parts);
        flat.figures = resolved.shown;
        flat.sizes = resolved.sizes;
        if let Some([inside, outside]) = design.measured {
            (flat.sizes.inside, flat.sizes.outside) = (inside, outside);
        }
        flat.volume = design.volume;
        flat.folding = Some(Folding {
            main: design.folds,
            steps: design.steps,
            musts: design.musts,
            stand: design.stand,
            ruling: design.ruling,
        });
        flat.mates = drafting::mates(&design.mates, &flat.parts);
        flat.dimensions = drafting::dimensions(&design.spans, &flat, unit);
        flat.cut_outs = cut_outs;
        flat.checks = checks::checks(&design.limits, &flat, caliper, unit);
        flat.checks.extend(add_on::checks(&flat, unit));
        flat
    }
}
