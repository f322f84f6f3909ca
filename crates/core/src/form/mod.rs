//! Form: from figures to a dieline.
//!
//! A form has a [`Source`]. A [`Structure`] of the [`catalogue`] turns its figures and the card's caliper into panel
//! trees; the flat with its outline, creases, areas and drafted dimensions follows from the trees, and so does the
//! folded piece.

mod add_on;
mod bookmark;
mod carton;
pub mod catalogue;
mod checks;
pub mod design;
mod dimension;
mod drafting;
mod drawing;
mod figure;
mod figures;
mod flaps;
mod flat;
mod gathered;
mod label;
mod labels;
mod packet;
pub mod panel;
mod param;
mod part;
mod resolve;
mod sleeve;
mod solid;
mod source;
mod split;
mod sticker_card;
mod structure;
mod tabs;
mod tag;
mod traced;
mod tray;
mod tube;

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

pub use add_on::{AddOn, AddOnKind, CutOut, Cutting, OwnShape};
pub use dimension::{Axis, Dimension};
pub use drawing::{
    Crease, Doubles, DrawingFacts, DrawnPanel, FoldSay, LineDrawing, PrintedLine, ReadLines,
};
pub use figure::{Figure, FigureKind};
pub use figures::Figures;
pub use flaps::GLUE_STANDARD;
pub use flat::{Flat, Folding, Label, Sizes};
pub use gathered::{
    Gathered, GatheredFacts, Held, HeldAt, HeldPiece, MOST_ON_CARD, Member, MemberPlace,
};
pub use panel::{Joint, Line, Panel, PlacedPanel, Role, Unfolded};
pub use param::{Bounds, Kind, Param};
pub use part::Part;
pub use source::{Basis, ChosenStructure, Source};
pub use split::{JOIN_FLAP, Split, SplitBy};
pub use sticker_card::StickerCard;
pub use structure::{Family, Preset, Structure};
pub use traced::{
    Border, Eye, Found, HoleRule, HoleSay, Looked, Mend, OUTLINE, PICTURE, Traced, TracedFacts,
};

use crate::blob::BlobId;
use crate::error::{Faults, InputError, Remedy, Setting};
use crate::geometry::{BezPath, contours, fine_region, redrawn};
use crate::units::{Unit, measure};
use crate::workshop::RecordId;

/// A layer of another card behind the piece, which follows its outline.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Backing {
    /// Its card.
    pub stock: RecordId,
    /// How far it stands out beyond the piece, mm; 0 to 50.
    pub border: f64,
}

/// What is made: where it comes from, and what holds of it whatever that is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Form {
    /// What its outline and its lines are drawn from.
    #[serde(flatten)]
    #[cfg_attr(feature = "api", ts(flatten))]
    pub source: Source,
    /// True to cut through the liner too, on stock that has one: its cuts are kiss cuts there otherwise.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub through: bool,
    /// A layer behind it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub backing: Option<Backing>,
}

impl Form {
    /// A structure of the catalogue with some figures set.
    #[must_use]
    pub fn new(structure: &str, figures: &[(&str, f64)]) -> Self {
        let source = Source::Structure(ChosenStructure::new(structure, figures));
        Self { source, through: false, backing: None }
    }

    /// The structure with its figures, where it is drawn from one.
    #[must_use]
    pub const fn chosen(&self) -> Option<&ChosenStructure> {
        match &self.source {
            Source::Structure(chosen) => Some(chosen),
            Source::Traced { .. } | Source::Drawing { .. } | Source::Gathered { .. } => None,
        }
    }

    /// The same, to be changed.
    pub const fn chosen_mut(&mut self) -> Option<&mut ChosenStructure> {
        match &mut self.source {
            Source::Structure(chosen) => Some(chosen),
            Source::Traced { .. } | Source::Drawing { .. } | Source::Gathered { .. } => None,
        }
    }

    /// An outline that is traced from a picture.
    #[must_use]
    pub fn of_picture(traced: Traced) -> Self {
        let source = Source::Traced { traced: Box::new(traced) };
        Self { source, through: false, backing: None }
    }

    /// The outline, where it is traced from a picture.
    #[must_use]
    pub const fn traced(&self) -> Option<&Traced> {
        match &self.source {
            Source::Traced { traced } => Some(traced),
            Source::Structure(_) | Source::Drawing { .. } | Source::Gathered { .. } => None,
        }
    }

    /// The same, to be changed.
    pub const fn traced_mut(&mut self) -> Option<&mut Traced> {
        match &mut self.source {
            Source::Traced { traced } => Some(traced),
            Source::Structure(_) | Source::Drawing { .. } | Source::Gathered { .. } => None,
        }
    }

    /// A card that holds other pieces.
    #[must_use]
    pub fn of_pieces(gathered: Gathered) -> Self {
        let source = Source::Gathered { gathered: Box::new(gathered) };
        Self { source, through: false, backing: None }
    }

    /// The card, where it holds other pieces.
    #[must_use]
    pub const fn gathered(&self) -> Option<&Gathered> {
        match &self.source {
            Source::Gathered { gathered } => Some(gathered),
            Source::Structure(_) | Source::Traced { .. } | Source::Drawing { .. } => None,
        }
    }

    /// The same, to be changed.
    pub const fn gathered_mut(&mut self) -> Option<&mut Gathered> {
        match &mut self.source {
            Source::Gathered { gathered } => Some(gathered),
            Source::Structure(_) | Source::Traced { .. } | Source::Drawing { .. } => None,
        }
    }

    /// Lines that were drawn in another program.
    #[must_use]
    pub fn of_drawing(drawing: LineDrawing) -> Self {
        let source = Source::Drawing { drawing: Box::new(drawing) };
        Self { source, through: false, backing: None }
    }

    /// The drawing, where its lines come from elsewhere.
    #[must_use]
    pub const fn drawing(&self) -> Option<&LineDrawing> {
        match &self.source {
            Source::Drawing { drawing } => Some(drawing),
            Source::Structure(_) | Source::Traced { .. } | Source::Gathered { .. } => None,
        }
    }

    /// The same, to be changed.
    pub const fn drawing_mut(&mut self) -> Option<&mut LineDrawing> {
        match &mut self.source {
            Source::Drawing { drawing } => Some(drawing),
            Source::Structure(_) | Source::Traced { .. } | Source::Gathered { .. } => None,
        }
    }

    /// Its drawings that lie in blobs: its own lines, and those that are cut out of its panels, each with what was read.
    pub fn drawn_lines(&self) -> impl Iterator<Item = (&BlobId, &ReadLines)> {
        let own = self.drawing().map(|drawing| (&drawing.lines, &drawing.read));
        let cut = self.chosen().into_iter().flat_map(|chosen| &chosen.add_ons);
        own.into_iter().chain(cut.filter_map(|add_on| match &add_on.own.as_ref()?.cutting {
            Cutting::Drawing { lines, read, .. } => Some((lines, read)),
            Cutting::Words { .. } => None,
        }))
    }

    /// The same, to be read.
    pub fn drawn_lines_mut(&mut self) -> Vec<(&BlobId, &mut ReadLines)> {
        match &mut self.source {
            Source::Drawing { drawing } => vec![(&drawing.lines, &mut drawing.read)],
            Source::Structure(chosen) => {
                let own = chosen.add_ons.iter_mut().filter_map(|add_on| add_on.own.as_mut());
                let drawn = own.filter_map(|own| match &mut own.cutting {
                    Cutting::Drawing { lines, read, .. } => Some((&*lines, read)),
                    Cutting::Words { .. } => None,
                });
                drawn.collect()
            }
            Source::Traced { .. } | Source::Gathered { .. } => Vec::new(),
        }
    }

    /// True for one blank that is not folded and holds nothing: what a card can hold.
    #[must_use]
    pub fn stays_flat(&self) -> bool {
        let is_flat = match &self.source {
            Source::Structure(chosen) => {
                let family = chosen.structure().map(|structure| structure.family);
                matches!(family, Ok(Family::Labels | Family::Tags | Family::Bookmarks))
                    && chosen.split.is_none()
            }
            Source::Traced { traced } => traced.card.is_none(),
            Source::Drawing { .. } => true,
            Source::Gathered { .. } => false,
        };
        is_flat && self.backing.is_none()
    }

    /// The structure of the catalogue, where it is drawn from one that the catalogue holds.
    #[must_use]
    pub fn structure(&self) -> Option<&'static Structure> {
        self.chosen()?.structure().ok()
    }

    /// The flat of this form in card of the given caliper (mm); texts are in `unit`.
    ///
    /// # Errors
    /// Every figure that is out of range or contradicts another, and add-ons that meet something.
    pub fn draw(&self, caliper: f64, unit: Unit) -> Result<Flat, Vec<InputError>> {
        let mut faults = Faults::default();
        match &self.source {
            Source::Structure(chosen) => {
                let mut drafted = chosen.draft(caliper, unit, &mut faults)?;
                if self.backing.is_some() && chosen.split.is_some() {
                    faults.add(InputError::plain(
                        "form.backing",
                        "A piece in two parts has no outline of its own that a backing layer could follow",
                        Remedy::set("Keep it in one piece", "form.split", Setting::Standard),
                    ));
                }
                let layer = self.backing_layer(&drafted.parts, unit, &mut faults);
                drafted.parts.extend(layer);
                faults.or(())?;
                Ok(drafted.flat(caliper, unit))
            }
            Source::Traced { traced } => {
                let Some((part, facts)) = faults.take(traced.draft(unit)) else {
                    return Err(faults.or(()).err().unwrap_or_default());
                };
                let mut parts = vec![part];
                let layer = self.backing_layer(&parts, unit, &mut faults);
                parts.extend(layer);
                faults.or(())?;
                Ok(traced.flat(parts, facts, caliper, unit))
            }
            Source::Drawing { drawing } => {
                let Some((part, facts)) = faults.take(drawing.draft(unit)) else {
                    return Err(faults.or(()).err().unwrap_or_default());
                };
                let mut parts = vec![part];
                let layer = self.backing_layer(&parts, unit, &mut faults);
                parts.extend(layer);
                faults.or(())?;
                Ok(drawing.flat(parts, facts, unit))
            }
            Source::Gathered { gathered } => {
                let Some((part, facts)) = faults.take(gathered.draft(unit)) else {
                    return Err(faults.or(()).err().unwrap_or_default());
                };
                let mut parts = vec![part];
                let layer = self.backing_layer(&parts, unit, &mut faults);
                parts.extend(layer);
                faults.or(())?;
                Ok(gathered.flat(parts, facts, unit))
            }
        }
    }

    fn backing_layer(&self, parts: &[Part], unit: Unit, faults: &mut Faults) -> Option<Part> {
        let backing = self.backing.as_ref()?;
        faults.range("form.backing.border", "The border", backing.border, 0.0..=50.0, |mm| {
            measure(mm, unit)
        });
        let border = if backing.border.is_finite() { backing.border } else { 0.0 };
        backing_layer(parts, backing, border.clamp(0.0, 50.0))
    }

    /// The inside dimensions in mm with their keys, in card of the given caliper; none where the
    /// figures cannot be used, or its source has no inside.
    #[must_use]
    pub fn inside(&self, caliper: f64) -> Vec<(String, f64)> {
        self.chosen().map_or_else(Vec::new, |chosen| chosen.inside(caliper))
    }

    /// The same form with other inside dimensions in mm, its basis kept.
    #[must_use]
    pub fn with_inside(&self, inside: &[(String, f64)], caliper: f64) -> Self {
        let source = match &self.source {
            Source::Structure(chosen) => Source::Structure(chosen.with_inside(inside, caliper)),
            other => other.clone(),
        };
        Self { source, ..self.clone() }
    }
}

/// The layer behind the first blank: around all its outlines, without holes.
fn backing_layer(parts: &[Part], backing: &Backing, border: f64) -> Option<Part> {
    let outlines = contours(&parts.first()?.outline);
    let whole = fine_region(outlines.iter().map(std::iter::once)).united();
    let rings = redrawn(&whole.rounded_out(border));
    let mut outline = BezPath::new();
    for (path, _) in rings.iter().filter(|(_, is_hole)| !is_hole) {
        outline.extend(path.iter());
    }
    let layer = Part::plain("Backing layer", outline);
    Some(Part { stock: Some(backing.stock.clone()), ..layer })
}
