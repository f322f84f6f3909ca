//! A hole or slot near an edge, and the ring that strengthens it.

use kurbo::RoundedRect;

use crate::LineKind;
use crate::check::Sense;
use crate::form::design::{Blank, Limit};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::{Panel, Role};
use crate::geometry::{Point, Rect, Shape, Vec2, circle};

/// Width of the hole.
pub const HOLE: Param = Param::length(
    "hole",
    ["Hole", "Its width; 0 leaves it out."],
    |f| (f["width"].min(f["height"]) / 9.0).clamp(3.0, 6.0),
    |f| Bounds::new(0.0, f["width"].min(f["height"]) / 3.0).against("width"),
);

/// Length of a slot across the tag.
pub const SLOT: Param = Param::length(
    "slot",
    ["Slot", "How long the hole is across the tag; 0 makes it round."],
    |_| 0.0,
    |f| Bounds::new(0.0, f["width"] * 0.6).against("width"),
);

/// Card between the hole and the edge.
pub const EDGE: Param = Param::length(
    "edge",
    ["Card above the hole", "From the hole to the edge above it."],
    |f| (f["hole"] * 1.2).max(3.0),
    |f| Bounds::new(1.0, f["height"] / 2.0).against("height"),
);

/// A ring glued round the hole.
pub const RING: Param = Param::length(
    "ring",
    ["Ring", "Width of a ring to be glued round the hole; 0 leaves it out."],
    |_| 0.0,
    |f| Bounds::new(0.0, (f["width"] / 2.0 - f["hole"] / 2.0).clamp(0.0, 15.0)).against("width"),
);

/// A hole where it lies.
pub struct Hole {
    /// Its width along the tag.
    pub width: f64,
    /// Its length across the tag; 0 for a round one.
    pub slot: f64,
    /// Its middle.
    pub at: Point,
}

impl Hole {
    /// The hole of the figures, its edge `edge` mm below `top` on the line `x`.
    pub fn below(f: &Figures, x: f64, top: f64) -> Self {
        let at = Point::new(x, top - f["edge"] - f["hole"] / 2.0);
        let slot = f["slot"];
        Self { width: f["hole"], slot: if slot.is_nan() { 0.0 } else { slot }, at }
    }

    /// True when it is left out.
    pub fn is_none(&self) -> bool {
        self.width < 0.5
    }

    /// The panel with the hole cut into it.
    pub fn cut(&self, panel: Panel) -> Panel {
        if self.is_none() {
            return panel;
        }
        let path = if self.slot > self.width {
            let rect = Rect::from_center_size(self.at, (self.slot, self.width));
            RoundedRect::from_rect(rect, self.width / 2.0).to_path(1e-4)
        } else {
            circle(self.at, self.width / 2.0)
        };
        panel.with(LineKind::Cut, path)
    }

    /// The strength rule: at least the hole's width of card between it and the edge (common practice).
    ///
    /// `beside` is how much nearer the edge is than straight above the hole.
    pub fn limit(&self, panel: &str, edge: f64, beside: f64) -> Option<Limit> {
        (!self.is_none()).then(|| Limit {
            id: "hole-edge",
            label: "Card at the hole".to_owned(),
            limit: (edge - beside, Sense::AtLeast, self.width),
            panel: panel.to_owned(),
            remedy: Some(("edge", self.width + beside)),
        })
    }

    /// The ring to be glued round it.
    pub fn ring(&self, band: f64) -> Option<Blank> {
        if self.is_none() || band < 1.0 {
            return None;
        }
        let radius = self.width.max(self.slot) / 2.0 + band;
        let ring = super::Outline::Oval.draw(
            Panel::new("Ring", Role::Face),
            2.0 * radius,
            2.0 * radius,
            0.0,
        );
        let middle = Self { at: Point::ZERO + Vec2::new(radius, 0.0), ..*self };
        Some(Blank::upwards("Ring", middle.cut(ring)))
    }
}
