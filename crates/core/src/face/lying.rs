//! Where a layer lies on its piece: the area that it belongs to, and its place and turn there.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Deserializer, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::upright::Uprights;
use crate::error::{Faults, InputError, Remedy};
use crate::form::{PICTURE, Part};
use crate::geometry::{Affine, Point, Rect, Region, Shape, Vec2};
use crate::units::{Unit, measure};

/// What is up for a layer.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Up {
    /// What is up for whoever reads the closed piece as it stands.
    AsRead,
    /// What is up in the flat.
    #[default]
    AsDrawn,
}

/// Where a layer lies.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Lying {
    /// The panels on which it lies, by their names: several are one area across their creases, none are all that is
    /// not glued; a curved panel is all its strips. What goes past the area is not printed.
    #[serde(default, alias = "panel", deserialize_with = "one_or_several")]
    pub panels: Vec<String>,
    /// From the area's middle to the layer's, to the right as the flat shows it, mm.
    #[serde(default)]
    pub x: f64,
    /// The same downwards, mm.
    #[serde(default)]
    pub y: f64,
    /// What is up for it.
    #[serde(default)]
    pub up: Up,
    /// How far it is turned from upright, clockwise, degrees.
    #[serde(default)]
    pub turn: f64,
}

/// Jobs of before name one panel.
fn one_or_several<'de, D: Deserializer<'de>>(from: D) -> Result<Vec<String>, D::Error> {
    #[derive(Deserialize)]
    #[serde(untagged)]
    enum Named {
        One(String),
        Several(Vec<String>),
    }
    Ok(match Named::deserialize(from)? {
        Named::One(panel) => vec![panel],
        Named::Several(panels) => panels,
    })
}

/// The area of a layer on one blank, in the blank's coordinates.
#[derive(Debug, Clone, PartialEq)]
pub struct Area {
    /// The area itself, without bleed.
    pub region: Region,
    /// The area's middle: that of its bounds.
    pub middle: Point,
    /// Which way up in it is, degrees clockwise from the flat's.
    pub upright: f64,
    /// What layers are fitted into, where that is not the area: the picture that the outline was traced from.
    pub frame: Option<Rect>,
}

/// How far from its area's middle a layer may lie, mm.
const FARTHEST: f64 = 5000.0;

/// How far strips of a curved panel may lie apart, mm.
const SEAM: f64 = 0.01;

/// Most panels that are named.
const MOST_PANELS: usize = 60;

impl Lying {
    /// In the middle of a panel, the right way up for its reader.
    #[must_use]
    pub fn on(panel: &str) -> Self {
        Self { panels: vec![panel.to_owned()], up: Up::AsRead, ..Self::default() }
    }

    /// Where that is on a blank; `None` where the blank has none of the panels.
    #[must_use]
    pub fn area(&self, part: &Part, uprights: &Uprights) -> Option<Area> {
        if let ([name], Some(frame)) = (self.panels.as_slice(), part.picture)
            && name == PICTURE
        {
            let (region, middle) = (part.region(), frame.center());
            return Some(Area { region, middle, upright: 0.0, frame: Some(frame) });
        }
        let named: Vec<_> = part
            .panels
            .iter()
            .filter(|panel| match self.panels.as_slice() {
                [] => panel.role != crate::form::Role::Glue,
                names => names.iter().any(|name| panel.goes_by(name)),
            })
            .collect();
        let of_first: Vec<_> = match self.panels.first() {
            Some(name) => named.iter().filter(|panel| panel.goes_by(name)).collect(),
            None => named.iter().take(1).collect(),
        };
        // What is up for a curved panel is so for its middle.
        let first = of_first.get(of_first.len() / 2).copied().or(named.first())?;
        let mut region = named
            .iter()
            .map(|panel| Region::inside(&panel.outline))
            .fold(Region::empty(), |all, panel| all.union(&panel));
        if named.iter().any(|panel| panel.strip_of.is_some()) {
            // Strips are one panel, with no seam between them.
            region = region.grown(SEAM).shrunk(SEAM);
        }
        let bounds = named
            .iter()
            .map(|panel| panel.outline.bounding_box())
            .reduce(|all, next| all.union(next))?;
        let upright = match self.up {
            Up::AsRead => uprights.of(&first.name),
            Up::AsDrawn => 0.0,
        };
        Some(Area { region, middle: bounds.center(), upright, frame: None })
    }

    /// From the layer's own coordinates, its middle at the origin and `y` down as it is read, to the blank's.
    #[must_use]
    pub fn place(&self, area: &Area) -> Affine {
        let turn = (area.upright + self.turn).to_radians();
        Affine::translate((area.middle + Vec2::new(self.x, self.y)).to_vec2())
            * Affine::rotate(turn)
    }

    pub(super) fn validate(&self, field: &dyn Fn(&str) -> String, unit: Unit, faults: &mut Faults) {
        if self.panels.len() > MOST_PANELS
            || self.panels.iter().any(|name| name.chars().count() > 80)
        {
            let count = self.panels.len();
            faults.add(InputError::new(
                &field("panels"),
                format!("The layer names {count} panels: up to {MOST_PANELS}, of up to 80 characters each"),
                f64::from(u32::try_from(count).unwrap_or(u32::MAX)),
                Remedy::advice("Choose some of the piece’s panels"),
            ));
        }
        let show = |mm: f64| measure(mm, unit);
        for (name, value) in [("x", self.x), ("y", self.y)] {
            let words = "The layer’s distance from the middle";
            faults.range(&field(name), words, value, -FARTHEST..=FARTHEST, show);
        }
        let degrees = |turn: f64| format!("{turn}°");
        faults.range(&field("turn"), "The turn", self.turn, -360.0..=360.0, degrees);
    }
}

impl Area {
    /// Width and height of the area as its reader sees it, mm.
    #[must_use]
    pub fn room(&self) -> [f64; 2] {
        let turned = Affine::rotate(-self.upright.to_radians());
        let bounds = self.frame.or_else(|| self.region.bounds()).unwrap_or(Rect::ZERO);
        let seen = turned.transform_rect_bbox(bounds);
        [seen.width(), seen.height()]
    }
}
