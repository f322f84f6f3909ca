//! Thumb notches, which change a panel's outline.

use kurbo::{Point, Shape};

use super::{AddOn, AddOnKind, CARD, OFFERED};
use crate::error::{Faults, InputError, Remedy};
use crate::form::Part;
use crate::form::design::Design;
use crate::units::{Unit, measure};

/// Cuts thumb notches into the free edges of their panels, before the tree is laid flat.
pub(in crate::form) fn notch(
    add_ons: &[AddOn],
    design: &mut Design,
    faults: &mut Faults,
    unit: Unit,
) {
    for (index, add_on) in add_ons.iter().enumerate() {
        if add_on.kind != AddOnKind::ThumbNotch || !add_on.in_range(index, faults, unit) {
            continue;
        }
        let mut found = None;
        for (number, blank) in design.blanks.iter().enumerate() {
            let part = Part::of(blank);
            if let Some(placed) = part.panels.iter().find(|panel| panel.name == add_on.panel) {
                let middle = placed.outline.bounding_box().center();
                let wanted = middle + kurbo::Vec2::new(add_on.across, add_on.along);
                found = Some((number, placed.frame.inverse() * wanted));
            }
        }
        let panel = found.and_then(|(number, at)| {
            design.blanks[number].root.find_mut(&add_on.panel).map(|panel| (panel, at))
        });
        let Some((panel, at)) = panel else {
            faults.add(add_on.missing(index));
            continue;
        };
        let needs = add_on.width + 2.0 * CARD;
        let cuts = panel.cuts();
        let longest = cuts.iter().map(|(_, a, b)| a.distance(*b)).fold(0.0, f64::max);
        let nearest = cuts
            .into_iter()
            .filter(|(_, a, b)| a.distance(*b) >= needs)
            .min_by(|one, other| beside(at, one).total_cmp(&beside(at, other)));
        let Some((side, a, b)) = nearest else {
            faults.add(InputError::new(
                &AddOn::field(index, "width"),
                format!(
                    "{} has no free edge of {} for a thumb notch of {}: its longest is {}",
                    add_on.panel,
                    measure(needs, unit),
                    measure(add_on.width, unit),
                    measure(longest, unit)
                ),
                add_on.width,
                if longest - 2.0 * CARD > 1.0 {
                    let width = ((longest - 2.0 * CARD) * OFFERED).floor() / OFFERED;
                    Remedy::set(
                        format!("Make it {} wide", measure(width, unit)),
                        &AddOn::field(index, "width"),
                        width,
                    )
                } else {
                    Remedy::advice("Choose a panel with a free edge")
                },
            ));
            continue;
        };
        let long = a.distance(b);
        let half = add_on.width / 2.0;
        let middle = ((at - a).dot(b - a) / long).clamp(half + CARD, long - half - CARD);
        let (start, end) = (a.lerp(b, (middle - half) / long), a.lerp(b, (middle + half) / long));
        panel.notch(side, start, end, add_on.height.min(half));
    }
}

fn beside(at: Point, (_, a, b): &(usize, Point, Point)) -> f64 {
    let along = *b - *a;
    let share = ((at - *a).dot(along) / along.hypot2().max(1e-12)).clamp(0.0, 1.0);
    (*a + along * share).distance(at)
}
