//! One figure of a structure: what it is, what it stands at by itself, and what it may be.

use super::Basis;
use super::figures::Figures;
use crate::units::{Unit, measure};

/// What a figure is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Kind {
    /// A finished dimension in mm, with what the crease-to-crease and the outside dimension add to the
    /// inside one.
    Size {
        /// Calipers from inside to crease-to-crease.
        crease: f64,
        /// Calipers from inside to outside.
        outside: f64,
        /// Clearances from inside to outside: of what goes over the piece.
        play: f64,
        /// Figures that stand on top of it, such as a handle.
        under: &'static [&'static str],
    },
    /// Any other length in mm.
    Length,
    /// Degrees.
    Angle,
    /// A whole number.
    Count,
}

/// Least and greatest value of a figure, and the figure that sets the bound, if one does.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bounds {
    pub(super) least: f64,
    pub(super) most: f64,
    pub(super) against: Option<&'static str>,
}

impl Bounds {
    /// Between two values; where they cross, the least holds.
    #[must_use]
    pub const fn new(least: f64, most: f64) -> Self {
        Self { least, most: most.max(least), against: None }
    }

    /// The same, bounded by the figure of that key.
    #[must_use]
    pub const fn against(mut self, key: &'static str) -> Self {
        self.against = Some(key);
        self
    }
}

/// One figure of a structure.
pub struct Param {
    /// Its field below `form`.
    pub key: &'static str,
    /// Its name on the spec card.
    pub label: &'static str,
    /// What it measures, in a sentence.
    pub note: &'static str,
    /// What it is.
    pub kind: Kind,
    /// What it stands at until the user sets it, from the figures before it.
    pub standard: fn(&Figures) -> f64,
    /// What it may be, from the figures before it.
    pub bounds: fn(&Figures) -> Bounds,
}

/// The least and greatest inside dimension of anything that is made, mm.
const SIZE: Bounds = Bounds::new(5.0, 2000.0);

impl Param {
    /// A finished dimension between 5 mm and 2 m.
    #[must_use]
    pub const fn size(
        key: &'static str,
        [label, note]: [&'static str; 2],
        [crease, outside]: [f64; 2],
        standard: fn(&Figures) -> f64,
    ) -> Self {
        let kind = Kind::Size { crease, outside, play: 0.0, under: &[] };
        Self { key, label, note, kind, standard, bounds: |_| SIZE }
    }

    /// A length that follows the others until it is set.
    #[must_use]
    pub const fn length(
        key: &'static str,
        [label, note]: [&'static str; 2],
        standard: fn(&Figures) -> f64,
        bounds: fn(&Figures) -> Bounds,
    ) -> Self {
        Self { key, label, note, kind: Kind::Length, standard, bounds }
    }

    /// An angle in degrees.
    #[must_use]
    pub const fn angle(
        key: &'static str,
        [label, note]: [&'static str; 2],
        standard: fn(&Figures) -> f64,
        bounds: fn(&Figures) -> Bounds,
    ) -> Self {
        Self { key, label, note, kind: Kind::Angle, standard, bounds }
    }

    /// A whole number.
    #[must_use]
    pub const fn count(
        key: &'static str,
        [label, note]: [&'static str; 2],
        standard: fn(&Figures) -> f64,
        bounds: fn(&Figures) -> Bounds,
    ) -> Self {
        Self { key, label, note, kind: Kind::Count, standard, bounds }
    }

    /// Any size or length with bounds of its own.
    #[must_use]
    pub const fn within(mut self, bounds: fn(&Figures) -> Bounds) -> Self {
        self.bounds = bounds;
        self
    }

    /// The same, going so many calipers and clearances beyond the inside when closed.
    #[must_use]
    pub const fn under(mut self, calipers: f64, clearances: f64) -> Self {
        if let Kind::Size { outside, play, .. } = &mut self.kind {
            (*outside, *play) = (calipers, clearances);
        }
        self
    }

    /// The same, with those figures on top of it when closed; they come before it.
    #[must_use]
    pub const fn carrying(mut self, figures: &'static [&'static str]) -> Self {
        if let Kind::Size { under, .. } = &mut self.kind {
            *under = figures;
        }
        self
    }

    /// What a basis adds to the inside dimension, mm, with the clearance `c` and the figures so far.
    pub(super) fn added(&self, basis: Basis, figures: &Figures, c: f64) -> f64 {
        match (self.kind, basis) {
            (Kind::Size { crease, .. }, Basis::Crease) => crease * figures.t,
            (Kind::Size { outside, play, under, .. }, Basis::Outside) => {
                let above: f64 = under.iter().map(|key| figures[key]).sum();
                outside * figures.t + play * c + above
            }
            _ => 0.0,
        }
    }

    pub(super) fn text(&self, value: f64, unit: Unit) -> String {
        if !value.is_finite() {
            return "not a number".to_owned();
        }
        match self.kind {
            Kind::Size { .. } | Kind::Length => measure(value, unit),
            Kind::Angle if value.abs() > 1e9 => format!("{value:e}°"),
            Kind::Angle => format!("{}°", tidy(value)),
            Kind::Count if value.abs() > 1e9 => format!("{value:e}"),
            Kind::Count => tidy(value).to_string(),
        }
    }
}

pub(super) fn tidy(value: f64) -> f64 {
    (value * 100.0).round() / 100.0
}
