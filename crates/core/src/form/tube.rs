//! A tube of walls side by side, closed by a glue flap on the first, with something at each end.

use super::design::{Edge, Must, Span, Step};
use super::{Panel, Role, flaps};

/// What is at one end of a wall. Flaps are drawn as at the top, `u` from left to right; at the base
/// they are mirrored.
pub(super) enum End {
    /// A cut, `out` mm beyond the tube's creases.
    Free { out: f64 },
    /// A flap whose crease lies `out` mm beyond the tube's, `left` and `right` mm short of the wall's
    /// sides.
    Flap { out: f64, left: f64, right: f64, slit: f64, fold: f64, flap: Panel },
}

impl End {
    /// A flap over the wall's whole width, folding in by a right angle.
    pub fn whole(out: f64, flap: Panel) -> Self {
        Self::Flap { out, left: 0.0, right: 0.0, slit: 0.0, fold: 90.0, flap }
    }

    /// A flap short of the wall's sides, folding in by a right angle.
    pub fn inset(out: f64, [left, right]: [f64; 2], flap: Panel) -> Self {
        Self::Flap { out, left, right, slit: 0.0, fold: 90.0, flap }
    }
}

/// One wall of a tube.
pub(super) struct Wall {
    pub name: String,
    /// Crease to crease, mm.
    pub across: f64,
    /// Degrees by which the next wall is turned from this one.
    pub turn: f64,
    pub top: End,
    pub base: End,
}

/// The tube, its walls `along` mm from end to end, everything hung on the first. The last wall's
/// `turn` is the glue flap's.
pub(super) fn tube(walls: Vec<Wall>, along: f64, glue: Panel, inset: f64) -> Panel {
    let glue_turn = walls.last().map_or(90.0, |wall| wall.turn);
    let mut next: Option<Panel> = None;
    let count = walls.len();
    for (index, wall) in walls.into_iter().enumerate().rev() {
        let Wall { name, across, turn, top, base } = wall;
        let mut panel = at_top(Panel::new(name, Role::Face), across, top);
        panel = match next.take() {
            Some(hung) => panel.hinge(along, across, turn, hung),
            None => panel.cut(along, across),
        };
        panel = at_base(panel, across, along, base);
        if index == 0 && count > 0 {
            panel = panel.cut(along - inset, 0.0).hinge(inset, 0.0, glue_turn, glue).cut(0.0, 0.0);
            return panel;
        }
        next = Some(panel);
    }
    glue
}

fn at_top(panel: Panel, across: f64, end: End) -> Panel {
    match end {
        End::Free { out } => panel.cut(-out, 0.0).cut(-out, across).cut(0.0, across),
        End::Flap { out, left, right, slit, fold, flap } => panel
            .cut(-out, 0.0)
            .cut(-out, left)
            .hinge_with_slits(-out, across - right, fold, slit, flap)
            .cut(-out, across)
            .cut(0.0, across),
    }
}

fn at_base(panel: Panel, across: f64, along: f64, end: End) -> Panel {
    match end {
        End::Free { out } => panel.cut(along + out, across).cut(along + out, 0.0).cut(along, 0.0),
        End::Flap { out, left, right, slit, fold, flap } => panel
            .cut(along + out, across)
            .cut(along + out, across - right)
            .hinge_with_slits(along + out, left, fold, slit, flap.mirrored(across - right - left))
            .cut(along + out, 0.0)
            .cut(along, 0.0),
    }
}

/// The sizes of a four-walled tube, mm.
#[derive(Clone, Copy)]
pub(super) struct Box4 {
    /// Inside, across the front.
    pub length: f64,
    /// Inside, from front to back.
    pub width: f64,
    /// Inside, between what closes the ends.
    pub height: f64,
    /// The caliper.
    pub t: f64,
}

/// The walls of a four-walled tube, in order.
pub(super) const WALLS: [&str; 4] = ["Front", "Right side", "Back", "Left side"];

impl Box4 {
    /// Crease to crease across each wall: half a caliper at each end; the back longer by one, since
    /// the left side lies on the glue flap one caliper further out; and the left side one caliper
    /// short of the front's outer face, so that its edge does not stand proud.
    pub fn across(&self) -> [f64; 4] {
        let Self { length, width, t, .. } = *self;
        [length + t, width + t, length + 2.0 * t, width + 0.5 * t]
    }

    /// The tube with these ends.
    pub fn tube(&self, tops: [End; 4], bases: [End; 4], glue: f64) -> Panel {
        let across = self.across();
        let ends = tops.into_iter().zip(bases);
        let walls = WALLS
            .iter()
            .zip(across)
            .zip(ends)
            .map(|((name, across), (top, base))| Wall {
                name: (*name).to_owned(),
                across,
                turn: 90.0,
                top,
                base,
            })
            .collect();
        let flap = flaps::glue_flap("Glue flap", self.height, glue);
        tube(walls, self.height + self.t, flap, 0.5 * self.t)
    }

    /// Insets of a side wall's flap, given the room it leaves towards front and back.
    pub fn side_insets(&self, front: f64, back: f64) -> [[f64; 2]; 2] {
        // The front's middle lies at width + t for both sides; the left one ends short of it.
        [[front, back], [back, front - 0.5 * self.t]]
    }

    /// Length of the hinge that those insets leave.
    pub fn side_hinge(&self, front: f64, back: f64) -> f64 {
        self.width + self.t - front - back
    }

    /// Its sizes, the two across it drawn `along` the walls from their base.
    pub fn spans(&self, along: f64) -> [Span; 3] {
        let [length, width, ..] = self.across();
        [
            Span::new("length", "Front", (along, 0.0), (along, length)),
            Span::new("width", "Right side", (along, 0.0), (along, width)),
            Span::new("height", "Right side", (0.0, 0.0), (self.height + self.t, 0.0)),
        ]
    }

    /// What must hold of the tube itself.
    pub fn musts(&self) -> Vec<Must> {
        let across = self.across()[3];
        let end = Edge::new("Left side", (0.0, across), (self.height + self.t, across));
        vec![
            Must::Reach(end, "Front".to_owned(), 0.5 * self.t),
            Must::Glue("Glue flap".to_owned(), "Left side".to_owned(), 0.0),
            Must::Room("length", ["Glue flap".to_owned(), "Right side".to_owned()], self.length),
            Must::Room("width", ["Front".to_owned(), "Back".to_owned()], self.width),
        ]
    }

    /// What it holds, mm³.
    pub fn volume(&self) -> f64 {
        self.length * self.width * self.height
    }
}

/// The steps that make the tube.
pub(super) fn wrap_steps() -> Vec<Step> {
    vec![
        Step::close("Fold the glue flap in", ["Glue flap"]),
        Step::close(
            "Wrap the walls round and glue the left side to the flap",
            WALLS[1..].iter().copied(),
        ),
    ]
}
