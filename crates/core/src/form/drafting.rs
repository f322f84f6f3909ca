//! Dimensions where a drafter would put them: the shortest nearest to the flat, the whole outside.

use kurbo::{Affine, Point};

use super::design::{Edge, Span};
use super::{Axis, Dimension, Flat, Part};
use crate::units::Unit;

/// A span is drawn when it runs along an axis within this many mm.
const LEVEL: f64 = 1e-6;

/// Spans and the whole's width and height, in tiers that do not run into each other.
pub(super) fn dimensions(spans: &[Span], flat: &Flat, unit: Unit) -> Vec<Dimension> {
    let mut found: Vec<(Axis, Point, Point, Option<String>, bool)> = Vec::new();
    for span in spans {
        let Some((from, to)) = on_flat(&span.panel, span.ends, &flat.parts) else { continue };
        let axis = if (to.y - from.y).abs() < LEVEL {
            Axis::Across
        } else if (to.x - from.x).abs() < LEVEL {
            Axis::Along
        } else {
            continue;
        };
        let (from, to) = if (to.x, to.y) < (from.x, from.y) { (to, from) } else { (from, to) };
        found.push((axis, from, to, Some(format!("form.{}", span.key)), span.is_quiet));
    }
    let length = |item: &(Axis, Point, Point, Option<String>, bool)| item.1.distance(item.2);
    found.sort_by(|a, b| length(a).total_cmp(&length(b)));
    let all = flat.bounds;
    let corner = Point::new(all.x0, all.y1);
    found.push((Axis::Across, corner, Point::new(all.x1, all.y1), None, false));
    found.push((Axis::Along, Point::new(all.x0, all.y0), corner, None, false));

    let mut taken: Vec<(Axis, u8, f64, f64)> = Vec::new();
    found
        .into_iter()
        .map(|(axis, from, to, field, is_quiet)| {
            let (start, end) = match axis {
                Axis::Across => (from.x, to.x),
                Axis::Along | Axis::Both => (from.y, to.y),
            };
            let is_free = |tier: u8| {
                taken
                    .iter()
                    .filter(|other| (other.0, other.1) == (axis, tier))
                    .all(|other| end <= other.2 + LEVEL || start >= other.3 - LEVEL)
            };
            let above = taken.iter().filter(|other| other.0 == axis).map(|other| other.1 + 1);
            let tier = match field {
                // The whole lies outside of everything.
                None => above.max().unwrap_or(0),
                Some(_) => (0..u8::MAX).find(|tier| is_free(*tier)).unwrap_or(0),
            };
            if !is_quiet {
                taken.push((axis, tier, start, end));
            }
            let dimension = Dimension { is_quiet, ..Dimension::new(axis, from, to, tier, unit) };
            match field {
                Some(field) => dimension.of(&field),
                None => dimension,
            }
        })
        .collect()
}

fn on_flat(panel: &str, ends: [Point; 2], parts: &[Part]) -> Option<(Point, Point)> {
    parts.iter().find_map(|part| {
        let placed = part.panels.iter().find(|placed| placed.name == panel)?;
        let map = Affine::translate(part.at) * placed.frame;
        Some((map * ends[0], map * ends[1]))
    })
}

/// Where the numbers of mating edges stand: beside the middle of the edge, on the panel.
pub(super) fn mates(edges: &[(Edge, usize)], parts: &[Part]) -> Vec<(Point, usize)> {
    edges
        .iter()
        .filter_map(|(edge, number)| {
            let (from, to) = on_flat(&edge.panel, edge.ends, parts)?;
            let (middle, along) = (from.midpoint(to), (to - from).normalize());
            // The panel lies to the right of its sides as they are walked.
            let inwards = kurbo::Vec2::new(-along.y, along.x);
            Some((middle + inwards * (from.distance(to) * 0.12).min(4.0), *number))
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Form;
    use crate::form::catalogue::CATALOGUE;

    /// Dimensions on one line leave each other alone, and the whole lies outside of all.
    #[test]
    fn no_two_dimensions_run_into_each_other() {
        for structure in CATALOGUE {
            let flat = Form::new(structure.id, &[]).draw(0.4, Unit::Mm).unwrap();
            let shown: Vec<_> = flat.dimensions.iter().filter(|d| !d.is_quiet).collect();
            for (index, one) in shown.iter().enumerate() {
                for other in &shown[index + 1..] {
                    if (one.axis, one.tier) != (other.axis, other.tier) {
                        continue;
                    }
                    let along = usize::from(one.axis == Axis::Along);
                    let apart = one.to[along] <= other.from[along] + 1e-6
                        || other.to[along] <= one.from[along] + 1e-6;
                    assert!(apart, "{}: {one:?} {other:?}", structure.id);
                }
            }
            for axis in [Axis::Across, Axis::Along] {
                let whole = shown.iter().find(|d| d.axis == axis && d.field.is_none()).unwrap();
                assert!(shown.iter().filter(|d| d.axis == axis).all(|d| d.tier <= whole.tier));
            }
        }
    }

    /// Every figure that has a place in the flat is one of the structure's, so that the card can show it.
    #[test]
    fn dimensions_belong_to_figures_of_the_structure() {
        for structure in CATALOGUE {
            let flat = Form::new(structure.id, &[]).draw(0.4, Unit::Mm).unwrap();
            for field in flat.dimensions.iter().filter_map(|dimension| dimension.field.as_ref()) {
                assert!(flat.figures.iter().any(|figure| &figure.field == field), "{field}");
            }
        }
    }
}
