//! The words that name panels, so that a piece is put together the right way.

use kurbo::{Affine, BezPath, Point, Shape};

use crate::form::{Label, Part, PlacedPanel, Role};
use crate::lettering::{Anchor, letter};

/// Capital height of a panel's name, mm: legible, and never the main thing.
const NAME: std::ops::RangeInclusive<f64> = 1.2..=4.0;

/// The names of the outer panels, and the words of labels in their place.
pub(super) fn names(part: &Part) -> Vec<BezPath> {
    let named = part
        .panels
        .iter()
        .filter(|panel| panel.role == Role::Face && panel.strip_of.is_none())
        .filter(|panel| part.labels.iter().all(|label| label.panel != panel.name))
        .filter_map(name);
    named.chain(part.labels.iter().filter_map(words)).collect()
}

/// A label's words, unless there is no room for them.
fn words(label: &Label) -> Option<BezPath> {
    let [across, along] = label.size;
    lettered(&label.text, label.centre, (across, along / 1.8))
}

/// A panel's name in its middle, unless it is too narrow to carry one.
fn name(panel: &PlacedPanel) -> Option<BezPath> {
    let bounds = panel.outline.bounding_box();
    lettered(&panel.name, bounds.center(), (bounds.width(), bounds.height() / 3.0))
}

/// Words around a point in so much room, as large as they may be.
fn lettered(text: &str, centre: Point, (across, high): (f64, f64)) -> Option<BezPath> {
    let at_one = letter(text, Point::ZERO, 1.0, Anchor::Middle);
    let long = at_one.bounding_box().width();
    let fitting = (across * 0.8 / long.max(1e-6)).min(high).min(*NAME.end());
    let is_legible = long > 0.0 && fitting >= *NAME.start();
    is_legible.then(|| Affine::translate(centre.to_vec2()) * Affine::scale(fitting) * at_one)
}
