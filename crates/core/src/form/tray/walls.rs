//! A tray of four walls whose corners are glued by flaps inside the end walls.
//!
//! With inside L × W × H and caliper t, at the middle of the card: the room L is kept between the
//! glued flaps, so the base is L + 3t from end crease to end crease and the long walls L + t between
//! their flaps; the base is W + t across. A wall is H + t/2 high, from the base's middle to its
//! edge. Flaps start above the base's inside.

use crate::check::Sense;
use crate::form::design::{Edge, Limit, Must, Step};
use crate::form::figures::Figures;
use crate::form::param::Param;
use crate::form::{Panel, Role, flaps};

/// The width of the corner flaps.
pub const CORNER: Param = Param::length(
    flaps::GLUE,
    ["Corner flaps", "Width of the flaps that are glued inside the end walls."],
    |f| {
        let usual = flaps::GLUE_STANDARD.min(f["width"] / 2.0 - 1.0);
        flaps::usual(usual, f["width"] / 2.0, f.t)
    },
    |f| {
        let tip = flaps::glue_limit(f["height"]);
        flaps::flap_up_to(tip.min(f["width"] / 2.0)).against("width")
    },
);

/// A glued tray.
pub struct Tray {
    /// Before each panel's name, such as “Lid ”.
    pub name: &'static str,
    /// Inside, along the long walls.
    pub length: f64,
    /// Inside, across.
    pub width: f64,
    /// Inside.
    pub height: f64,
    /// The caliper.
    pub t: f64,
    /// Width of the corner flaps.
    pub glue: f64,
}

impl Tray {
    /// A tray of the figures `length`, `width`, `height` and `glue`.
    pub fn of(f: &Figures) -> Self {
        Self {
            name: "",
            length: f["length"],
            width: f["width"],
            height: f["height"],
            t: f.t,
            glue: f[flaps::GLUE],
        }
    }

    /// Length and width of the base between its creases.
    pub fn base(&self) -> [f64; 2] {
        [self.length + 3.0 * self.t, self.width + self.t]
    }

    /// Length, width and height over everything.
    pub fn outside(&self) -> [f64; 3] {
        let t = self.t;
        [self.length + 4.0 * t, self.width + 2.0 * t, self.height + t]
    }

    /// Height of a wall from its crease.
    pub fn wall(&self) -> f64 {
        self.height + 0.5 * self.t
    }

    /// A panel's full name.
    pub fn named(&self, panel: &str) -> String {
        if self.name.is_empty() {
            return panel.to_owned();
        }
        format!("{} {}", self.name, panel.to_lowercase())
    }

    /// The tray, hung on its base.
    pub fn panel(&self) -> Panel {
        let [a, b] = self.base();
        let t = self.t;
        Panel::new(self.named("Base"), Role::Face)
            .hinge(0.0, b, 90.0, self.end("Left end", b))
            .cut(t, b)
            .hinge(a - t, b, 90.0, self.long("Back wall", "Back", a - 2.0 * t))
            .cut(a, b)
            .hinge(a, 0.0, 90.0, self.end("Right end", b))
            .cut(a - t, 0.0)
            .hinge(t, 0.0, 90.0, self.long("Front wall", "Front", a - 2.0 * t))
            .cut(0.0, 0.0)
    }

    fn end(&self, name: &str, across: f64) -> Panel {
        let high = self.wall();
        Panel::new(self.named(name), Role::Face).cut(0.0, high).cut(across, high).cut(across, 0.0)
    }

    fn long(&self, name: &str, side: &str, across: f64) -> Panel {
        let (high, low) = (self.wall(), self.t);
        let flap = |end: &str| {
            flaps::glue_flap(self.named(&format!("{side} {end} flap")), high - low, self.glue)
        };
        Panel::new(self.named(name), Role::Face)
            .cut(0.0, low)
            .hinge(0.0, high, 90.0, flap("first"))
            .cut(across, high)
            .hinge(across, low, 90.0, flap("second"))
            .cut(across, 0.0)
    }

    /// Where each flap is glued. Walls are walked clockwise, so a wall's first flap meets the end before
    /// it.
    pub fn glued(&self) -> [[String; 2]; 4] {
        [
            ["Back first flap", "Left end"],
            ["Back second flap", "Right end"],
            ["Front first flap", "Right end"],
            ["Front second flap", "Left end"],
        ]
        .map(|pair| pair.map(|name| self.named(name)))
    }

    /// What must hold of it.
    pub fn musts(&self) -> Vec<Must> {
        let high = self.wall();
        let rim = Edge::new(self.named("Left end"), (0.0, high), (self.base()[1], high));
        let mut musts: Vec<Must> =
            self.glued().into_iter().map(|[flap, end]| Must::Glue(flap, end, 0.0)).collect();
        musts.push(Must::Reach(rim, self.named("Base"), high));
        musts.push(Must::Room(
            "width",
            [self.named("Front wall"), self.named("Back wall")],
            self.width,
        ));
        musts.push(Must::Room(
            "length",
            [self.named("Back first flap"), self.named("Back second flap")],
            self.length,
        ));
        musts
    }

    /// Its steps; `what` says which tray.
    pub fn steps(&self, what: &str) -> [Step; 3] {
        let named = |name: &str| self.named(name);
        let flaps = self.glued().map(|[flap, _]| flap);
        [
            Step::close(format!("Fold the {what}’s corner flaps"), flaps),
            Step::close(
                format!("Fold up the {what}’s long walls"),
                [named("Front wall"), named("Back wall")],
            ),
            Step::close(
                format!("Fold up the {what}’s ends and glue them to the flaps"),
                [named("Left end"), named("Right end")],
            ),
        ]
    }

    /// Both flaps of an end must have room on it.
    pub fn limit(&self) -> Limit {
        Limit {
            id: "corner-flaps",
            label: "Corner flaps, both".to_owned(),
            limit: (2.0 * self.glue, Sense::AtMost, self.width),
            panel: self.named("Back first flap"),
            remedy: Some((flaps::GLUE, self.width / 2.0)),
        }
    }

    /// What it holds, mm³.
    pub fn volume(&self) -> f64 {
        self.length * self.width * self.height
    }
}
