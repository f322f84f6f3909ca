//! Panels as layers lie on them: the strips of a curved one are one panel.

use kurbo::{BezPath, Shape};

use super::Role;
use crate::form::Flat;

/// Of panels whose areas are this near to each other the first is meant: what differs by less differs by the card's
/// thickness only.
const ALIKE: f64 = 1.05;

/// A panel with all its strips.
#[derive(Debug, Clone)]
pub struct WholePanel {
    /// The name that is shown.
    pub name: String,
    /// Its own and those of its strips.
    pub names: Vec<String>,
    /// What it does in the finished piece.
    pub role: Role,
    /// The outlines of its strips, in the drawing of the whole.
    pub outline: BezPath,
    /// How large it is, mm².
    pub area: f64,
}

/// The panels of a flat, each whole.
#[must_use]
pub fn whole_panels(flat: &Flat) -> Vec<WholePanel> {
    let mut all: Vec<WholePanel> = Vec::new();
    for (panel, outline) in flat.panels() {
        let shown = panel.shown_name();
        let at = all.iter().position(|own| own.name == shown).unwrap_or_else(|| {
            all.push(WholePanel {
                name: shown.to_owned(),
                names: vec![shown.to_owned()],
                role: panel.role,
                outline: BezPath::new(),
                area: 0.0,
            });
            all.len() - 1
        });
        let own = &mut all[at];
        if panel.name != own.name {
            own.names.push(panel.name.clone());
        }
        own.area += outline.area().abs();
        own.outline.extend(outline);
    }
    all
}

/// The panel that is mostly meant: the largest that is seen.
#[must_use]
pub fn meant(panels: &[WholePanel]) -> Option<&WholePanel> {
    let seen = panels.iter().filter(|panel| panel.role == Role::Face);
    seen.reduce(|best, panel| if panel.area > ALIKE * best.area { panel } else { best })
}
