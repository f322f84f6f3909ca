//! A structure's figures, worked out one after the other from what the user has set.

use std::collections::BTreeMap;

use super::figures::Figures;
use super::flaps;
use super::param::{Bounds, Kind, Param, tidy};
use super::{Basis, ChosenStructure, Figure, FigureKind, Sizes, Structure};
use crate::error::{Faults, InputError, Remedy};
use crate::units::{Unit, measure};

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
    chosen: &ChosenStructure,
    t: f64,
    unit: Unit,
) -> Result<Resolved, Vec<InputError>> {
    let mut faults = Faults::default();
    faults.range("stock", "The card’s caliper", t, 0.01..=10.0, |mm| measure(mm, unit));
    if !faults.is_empty() {
        return Err(faults.or(()).err().unwrap_or_default());
    }
    let mut figures = Figures { t, values: BTreeMap::new() };
    let c = clearance(structure, chosen, &figures);
    let mut shown = Vec::new();
    let mut sizes = Sizes::default();
    for param in structure.params {
        let bounds = (param.bounds)(&figures);
        let more = param.added(chosen.basis, &figures, c);
        let standard = (param.standard)(&figures).clamp(bounds.least, bounds.most) + more;
        let set = chosen.figures.get(param.key).copied().flatten();
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
        if matches!(param.kind, Kind::Size { .. }) {
            sizes.keys.push(param.key.to_owned());
            sizes.inside.push(inside);
            sizes.crease.push(inside + param.added(Basis::Crease, &figures, c));
            sizes.outside.push(inside + param.added(Basis::Outside, &figures, c));
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
        too_thick(structure, chosen, (&figures, c), unit, &mut faults);
    }
    faults.or(Resolved { figures, shown, sizes })
}

/// The clearance that the outside dimensions count with. It comes after the sizes, and where they count with
/// it its bounds do not depend on them.
pub(super) fn clearance(structure: &Structure, chosen: &ChosenStructure, figures: &Figures) -> f64 {
    structure.param(flaps::CLEARANCE_PARAM.key).map_or(0.0, |param| {
        let bounds = (param.bounds)(figures);
        let set = chosen.figures.get(param.key).copied().flatten();
        let value = set.unwrap_or_else(|| (param.standard)(figures));
        value.max(bounds.least).min(bounds.most)
    })
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
    chosen: &ChosenStructure,
    (figures, c): (&Figures, f64),
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
        let least = t / THICKEST_WALL + thinnest.added(chosen.basis, figures, c);
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
