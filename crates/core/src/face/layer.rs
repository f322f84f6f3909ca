//! One layer of a face.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::finish::Finish;
use super::lying::Lying;
use super::pattern::Pattern;
use super::picture::PlacedPicture;
use super::shape::Shape;
use super::text::Text;
use crate::error::{Faults, InputError, Remedy};
use crate::form::{PICTURE, Part};
use crate::id::LayerId;
use crate::lettering::OwnTypeface;
use crate::units::Unit;
use crate::workshop::{check_name, is_colour};

/// Which panels carry print.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Coverage {
    /// What is seen of the closed piece; flaps stay bare and may leave the printable area.
    Faces,
    /// Everything but the glue flap.
    Flaps,
}

/// A side of a piece.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Side {
    /// The one that is seen first.
    #[default]
    Front,
    /// The one behind it.
    Back,
}

/// What a layer is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case", tag = "kind")]
pub enum LayerKind {
    /// A flat colour.
    Colour {
        /// As `#rrggbb`.
        colour: String,
        /// The panels it covers.
        coverage: Coverage,
    },
    /// The panels' names, or the words of their labels.
    PanelNames,
    /// A picture.
    Picture(PlacedPicture),
    /// Words of the user's own.
    Text(Text),
    /// A shape.
    Shape(Shape),
    /// A motif again and again.
    Pattern(Pattern),
}

/// One layer of a face.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Layer {
    /// What it is known by.
    pub id: LayerId,
    /// Its name in the list; `None` goes by what it is.
    #[serde(default)]
    pub name: Option<String>,
    /// What the layers that it is held together with share; `None` stands alone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub group: Option<String>,
    /// Which side it is printed on.
    #[serde(default, skip_serializing_if = "is_front")]
    pub side: Side,
    /// What it is printed in.
    #[serde(default, skip_serializing_if = "Finish::is_colour")]
    pub finish: Finish,
    /// True where it is left out, of the print and of what is seen.
    #[serde(default, skip_serializing_if = "is_off")]
    pub hidden: bool,
    /// True where it stays as it is.
    #[serde(default, skip_serializing_if = "is_off")]
    pub locked: bool,
    /// True where it is only shown and not printed.
    #[serde(default, skip_serializing_if = "is_off")]
    pub only_shown: bool,
    /// How much of it covers what is below, 0 to 1.
    #[serde(default = "whole", skip_serializing_if = "is_whole")]
    pub opacity: f64,
    /// What it is.
    #[serde(flatten)]
    pub kind: LayerKind,
}

pub(super) const fn is_off(flag: &bool) -> bool {
    !*flag
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "as serde asks")]
fn is_front(side: &Side) -> bool {
    *side == Side::Front
}

const fn whole() -> f64 {
    1.0
}

#[expect(
    clippy::trivially_copy_pass_by_ref,
    clippy::float_cmp,
    reason = "as serde asks, and 1 is exact"
)]
fn is_whole(opacity: &f64) -> bool {
    *opacity == 1.0
}

impl Layer {
    /// A flat colour on the outer panels.
    #[must_use]
    pub fn colour(id: &str, colour: &str) -> Self {
        let kind = LayerKind::Colour { colour: colour.to_owned(), coverage: Coverage::Faces };
        Self::new(id, kind)
    }

    /// The panels' names.
    #[must_use]
    pub fn panel_names(id: &str) -> Self {
        Self::new(id, LayerKind::PanelNames)
    }

    /// True where it lies on what the outline of a blank was traced from.
    pub(super) fn is_traced(&self, part: &Part) -> bool {
        let on_picture = |lying: &Lying| lying.panels.iter().any(|own| own == PICTURE);
        part.picture.is_some() && self.lying().is_some_and(on_picture)
    }

    /// A layer that is printed whole.
    #[must_use]
    pub fn new(id: &str, kind: LayerKind) -> Self {
        Self {
            id: id.into(),
            name: None,
            group: None,
            side: Side::Front,
            finish: Finish::Colour,
            hidden: false,
            locked: false,
            only_shown: false,
            opacity: 1.0,
            kind,
        }
    }

    /// Where it lies, where it has a place of its own.
    #[must_use]
    pub const fn lying(&self) -> Option<&Lying> {
        match &self.kind {
            LayerKind::Colour { .. } | LayerKind::PanelNames => None,
            LayerKind::Picture(picture) => Some(&picture.lying),
            LayerKind::Text(text) => Some(&text.lying),
            LayerKind::Shape(shape) => Some(&shape.lying),
            LayerKind::Pattern(pattern) => Some(&pattern.lying),
        }
    }

    /// The same, to be changed.
    pub const fn lying_mut(&mut self) -> Option<&mut Lying> {
        match &mut self.kind {
            LayerKind::Colour { .. } | LayerKind::PanelNames => None,
            LayerKind::Picture(picture) => Some(&mut picture.lying),
            LayerKind::Text(text) => Some(&mut text.lying),
            LayerKind::Shape(shape) => Some(&mut shape.lying),
            LayerKind::Pattern(pattern) => Some(&mut pattern.lying),
        }
    }

    /// What it goes by in lists.
    #[must_use]
    pub fn title(&self) -> &str {
        let own = match &self.kind {
            LayerKind::Text(text) => {
                match text.words.lines().find(|line| !line.trim().is_empty()) {
                    Some(line) => shortened(line.trim()),
                    None => "Text",
                }
            }
            LayerKind::Shape(_) => "Shape",
            LayerKind::Pattern(_) => "Pattern",
            LayerKind::Colour { .. } => "Colour",
            LayerKind::PanelNames => "Panel names",
            LayerKind::Picture(picture) if picture.origin.name.is_empty() => "Picture",
            LayerKind::Picture(picture) => &picture.origin.name,
        };
        self.name.as_deref().unwrap_or(own)
    }

    /// The typeface of its maker's own that its words are set in, and the field below it that names it.
    #[must_use]
    pub fn own_typeface(&self) -> Option<(&OwnTypeface, &'static str)> {
        match &self.kind {
            LayerKind::Text(text) => Some((text.own_typeface.as_ref()?, "own_typeface")),
            LayerKind::Pattern(pattern) => {
                Some((pattern.motif_of.own_typeface()?, "motif_of.own_typeface"))
            }
            _ => None,
        }
    }

    /// The path of one of its fields in the piece.
    #[must_use]
    pub fn field(&self, below: &str) -> String {
        format!("face.layers.{}.{below}", self.id)
    }

    pub(super) fn validate(&self, unit: Unit, faults: &mut Faults) {
        if let Some(name) = &self.name {
            check_name(&self.field("name"), name, faults);
        }
        if let Some(group) = &self.group {
            check_name(&self.field("group"), group, faults);
        }
        let share = |value: f64| format!("{value}");
        faults.range(&self.field("opacity"), "The opacity", self.opacity, 0.0..=1.0, share);
        let field = |below: &str| self.field(below);
        self.finish.validate(&field, faults);
        if let Some(lying) = self.lying() {
            lying.validate(&field, unit, faults);
        }
        match &self.kind {
            LayerKind::Colour { colour, .. } => colour_fault(&field("colour"), colour, faults),
            LayerKind::PanelNames => {}
            LayerKind::Picture(picture) => picture.validate(&field, unit, faults),
            LayerKind::Text(text) => text.validate(&field, unit, faults),
            LayerKind::Shape(shape) => shape.validate(&field, unit, faults),
            LayerKind::Pattern(pattern) => pattern.validate(&field, unit, faults),
        }
    }
}

/// So many characters as a list can show.
fn shortened(words: &str) -> &str {
    words.char_indices().nth(40).map_or(words, |(end, _)| &words[..end])
}

/// A colour is written as `#rrggbb`.
pub(super) fn colour_fault(field: &str, colour: &str, faults: &mut Faults) {
    if !is_colour(colour) {
        let shown: String = colour.chars().take(20).collect();
        faults.add(InputError::plain(
            field,
            format!("“{shown}” is not a colour"),
            Remedy::set("Use white, #ffffff", field, "#ffffff"),
        ));
    }
}
