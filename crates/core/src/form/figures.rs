//! A structure's figures: what they are, what they stand at by themselves, and what they may be.

use std::collections::BTreeMap;
use std::ops::Index;

use super::{Basis, Figure, FigureKind, Form, Sizes, Structure};
use crate::error::{Faults, InputError, Remedy};
use crate::units::{Unit, measure};

/// What a figure is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Kind {
    /// A finished dimension in mm, with the calipers that the crease-to-crease and the outside
    /// dimension add to the inside one.
    Size {
        /// Calipers from inside to crease-to-crease.
        crease: f64,
        /// Calipers from inside to outside.
        outside: f64,
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
    least: f64,
    most: f64,
    against: Option<&'static str>,
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
        let kind = Kind::Size { crease, outside };
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

    const fn calipers(&self, basis: Basis) -> f64 {
        match (self.kind, basis) {
            (Kind::Size { crease, .. }, Basis::Crease) => crease,
            (Kind::Size { outside, .. }, Basis::Outside) => outside,
            _ => 0.0,
        }
    }

    fn text(&self, value: f64, unit: Unit) -> String {
        if !value.is_finite() {
            return "not a number".to_owned();
        }
        match self.kind {
            Kind::Size { .. } | Kind::Length => measure(value, unit),
            Kind::Angle => format!("{}°", tidy(value)),
            Kind::Count => tidy(value).to_string(),
        }
    }
}

fn tidy(value: f64) -> f64 {
    (value * 100.0).round() / 100.0
}

/// The values that a structure is drawn from: mm, degrees and counts, sizes as inside ones.
#[derive(Debug, Clone)]
pub struct Figures {
    /// The caliper, mm.
    pub t: f64,
    values: BTreeMap<&'static str, f64>,
}

impl Index<&str> for Figures {
    type Output = f64;

    /// A key that the structure does not list is not a number, and everything made from it shows.
    fn index(&self, key: &str) -> &f64 {
        self.values.get(key).unwrap_or(&f64::NAN)
    }
}

impl Figures {
    /// Figures for drawing one structure as a part of another.
    #[must_use]
    pub fn of(t: f64, values: &[(&'static str, f64)]) -> Self {
        Self { t, values: values.iter().copied().collect() }
    }

    /// A whole number as an index.
    #[must_use]
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped")]
    pub fn count(&self, key: &str) -> usize {
        self[key].round().clamp(0.0, 10_000.0) as usize
    }
}

/// What comes of a structure and what the user has set.
pub(super) struct Resolved {
    pub figures: Figures,
    pub shown: Vec<Figure>,
    pub sizes: Sizes,
}

/// A wall may take up at most this share of the smallest inside dimension.
const THICKEST_WALL: f64 = 0.25;

/// Every figure of a structure, checked in order.
pub(super) fn resolve(
    structure: &Structure,
    form: &Form,
    t: f64,
    unit: Unit,
) -> Result<Resolved, Vec<InputError>> {
    let mut faults = Faults::default();
    faults.range("stock", "The card’s caliper", t, 0.01..=10.0, |mm| measure(mm, unit));
    if !faults.is_empty() {
        return Err(faults.or(()).err().unwrap_or_default());
    }
    let mut figures = Figures { t, values: BTreeMap::new() };
    let mut shown = Vec::new();
    let mut sizes = Sizes::default();
    for param in structure.params {
        let bounds = (param.bounds)(&figures);
        let more = param.calipers(form.basis) * t;
        let standard = (param.standard)(&figures).clamp(bounds.least, bounds.most) + more;
        let set = form.figures.get(param.key).copied().flatten();
        let value = set.unwrap_or(standard);
        let range = [bounds.least + more, bounds.most + more];
        let field = format!("form.{}", param.key);
        if !(range[0] - 1e-9..=range[1] + 1e-9).contains(&value) {
            faults.add(outside(structure, &figures, param, &field, (value, range, bounds), unit));
        } else if param.kind == Kind::Count && value.fract() != 0.0 {
            let whole = value.round();
            faults.add(InputError::new(
                &field,
                format!("{} is {}: it must be a whole number", param.label, tidy(value)),
                value,
                Remedy::set(format!("Set it to {whole}"), &field, whole),
            ));
        }
        let held = if value.is_finite() { value.clamp(range[0], range[1]) } else { range[0] };
        let inside = if param.kind == Kind::Count { held.round() } else { held - more };
        figures.values.insert(param.key, inside);
        if let Kind::Size { crease, outside } = param.kind {
            sizes.keys.push(param.key.to_owned());
            sizes.inside.push(inside);
            sizes.crease.push(inside + crease * t);
            sizes.outside.push(inside + outside * t);
        }
        shown.push(Figure {
            field,
            label: param.label.to_owned(),
            note: param.note.to_owned(),
            kind: match param.kind {
                Kind::Size { .. } => FigureKind::Size,
                Kind::Length => FigureKind::Length,
                Kind::Angle => FigureKind::Angle,
                Kind::Count => FigureKind::Count,
            },
            value: held,
            text: match param.kind {
                Kind::Size { .. } | Kind::Length => crate::units::format_length(held, unit),
                Kind::Angle | Kind::Count => tidy(held).to_string(),
            },
            standard,
            own: set.is_some(),
            range,
            range_text: format!(
                "{} to {}, by itself {}",
                param.text(range[0], unit),
                param.text(range[1], unit),
                param.text(standard, unit)
            ),
        });
    }
    if faults.is_empty() && structure.has_basis() {
        too_thick(structure, form, &figures, unit, &mut faults);
    }
    faults.or(Resolved { figures, shown, sizes })
}

fn outside(
    structure: &Structure,
    so_far: &Figures,
    param: &Param,
    field: &str,
    (value, range, bounds): (f64, [f64; 2], Bounds),
    unit: Unit,
) -> InputError {
    let nearest = if value > range[1] { range[1] } else { range[0] };
    let show = |value| param.text(value, unit);
    let against =
        bounds.against.and_then(|key| structure.param(key)).map_or_else(String::new, |other| {
            let (at, label) = (so_far[other.key], other.label.to_lowercase());
            let (by, word) = if value > range[1] {
                (value - range[1], "too much")
            } else {
                (range[0] - value, "short")
            };
            let over =
                if by.is_finite() { format!(", {} {word}", show(by)) } else { String::new() };
            format!(", with {label} at {}{over}", other.text(at, unit))
        });
    InputError::new(
        field,
        format!(
            "{} is {}: it must lie between {} and {}{against}",
            param.label,
            show(value),
            show(range[0]),
            show(range[1]),
        ),
        value,
        Remedy::set(format!("Set it to {}", show(nearest)), field, nearest),
    )
}

fn too_thick(
    structure: &Structure,
    form: &Form,
    figures: &Figures,
    unit: Unit,
    faults: &mut Faults,
) {
    let t = figures.t;
    let sizes = structure.params.iter().filter(|param| matches!(param.kind, Kind::Size { .. }));
    let Some(thinnest) = sizes.min_by(|a, b| figures[a.key].total_cmp(&figures[b.key])) else {
        return;
    };
    let room = figures[thinnest.key];
    if t > room * THICKEST_WALL {
        let field = format!("form.{}", thinnest.key);
        let least = t / THICKEST_WALL + thinnest.calipers(form.basis) * t;
        faults.add(InputError::new(
            &field,
            format!(
                "Card of {} is too thick for a piece that is {} inside: it may be at most {}",
                measure(t, unit),
                measure(room, unit),
                measure(room * THICKEST_WALL, unit)
            ),
            t,
            Remedy::set(
                format!("Set the {} to {}", thinnest.label.to_lowercase(), measure(least, unit)),
                &field,
                least,
            ),
        ));
    }
}
