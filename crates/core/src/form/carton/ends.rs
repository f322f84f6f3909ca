//! What closes a carton's end: a tuck closure over dust flaps.
//!
//! The clearance c is the room from face to face. Closed, the tuck stands c behind the wall that it slides
//! in at, so the closing panel is W − c from crease to crease, half a caliper of its hinge and half a caliper
//! of that wall apart from its inside. The dust flaps stand c from the tuck, c from the wall that the closing
//! panel hangs on; the tuck is c short of either side wall.

use crate::check::Sense;
use crate::form::design::{Limit, Must, Span, Step};
use crate::form::figures::Figures;
use crate::form::flaps;
use crate::form::param::{Bounds, Param};
use crate::form::tube::{Box4, End};

/// Inside dimensions of a carton. The outside length holds both sides and the glue flap between; the
/// outside height two closing panels over two dust flaps.
pub const LENGTH: Param =
    Param::size("length", ["Length", "Across the front."], [1.0, 3.0], |_| 60.0);
/// See [`LENGTH`].
pub const WIDTH: Param =
    Param::size("width", ["Width", "From front to back."], [1.0, 2.0], |_| 30.0);
/// See [`LENGTH`].
pub const HEIGHT: Param =
    Param::size("height", ["Height", "Between the two closures."], [1.0, 4.0], |_| 90.0);

/// Depth of the tuck.
pub const TUCK: Param = Param::length(
    "tuck",
    ["Tuck flap", "From the tuck’s crease to its edge, behind the wall it slides in at."],
    // Two tucks that face each other leave room between them.
    |f| flaps::tuck_standard(f["width"]).min(f["height"] / 2.0 - 0.5),
    |_| Bounds::new(flaps::FLAP[0], flaps::FLAP[1]),
);

/// Reach of the dust flaps.
pub const DUST: Param = Param::length(
    "dust",
    ["Dust flaps", "How far they reach in from the sides, under the closing panel."],
    |f| flaps::dust_standard(f["length"], f["width"], f["clearance"]),
    |f| {
        let hinge = f["width"] - f.t - 3.0 * f["clearance"];
        flaps::flap_up_to(flaps::dust_limit(hinge)).against("width")
    },
);

/// Length of the slit locks.
pub const SLIT: Param = Param::length(
    "slit",
    ["Slit lock", "Cut in from each end of the tuck’s crease; the dust flaps catch in it."],
    |f| flaps::slit_standard(f["length"] - 2.0 * f["clearance"]),
    |f| Bounds::new(0.0, (f["length"] - 2.0 * f["clearance"]) / 3.0).against("length"),
);

/// The clearance of a carton's tuck: its flaps keep a hinge of 3 mm.
pub const CLEARANCE: Param = flaps::CLEARANCE_PARAM.within(|f| {
    let width = (f["width"] - f.t - flaps::FLAP[0]) / 3.0;
    let length = (f["length"] - flaps::FLAP[0]) / 2.0;
    Bounds::new(0.0, 5f64.min(width).min(length)).against("width")
});

/// The sizes of a carton's tube.
pub fn box_of(f: &Figures) -> Box4 {
    Box4 { length: f["length"], width: f["width"], height: f["height"], t: f.t }
}

/// A closing panel on one wall that tucks in behind the opposite one, over dust flaps.
pub struct TuckEnd {
    /// “Top” or “Base”.
    pub name: &'static str,
    /// The wall it hangs on: 0 for the front, 2 for the back.
    pub on: usize,
}

impl TuckEnd {
    /// The four walls' ends, in order.
    pub fn ends(&self, carton: &Box4, f: &Figures) -> [End; 4] {
        let (t, c, name) = (carton.t, f["clearance"], self.name);
        // Where the tuck goes in, dust flaps leave room for it.
        let (tuck_side, hinge_side) = (1.5 * t + 2.0 * c, 0.5 * t + c);
        let (front, back) =
            if self.on == 2 { (tuck_side, hinge_side) } else { (hinge_side, tuck_side) };
        let hinge = carton.side_hinge(front, back);
        let [right, left] = carton.side_insets(front, back).map(|insets| (insets, hinge));
        let dust = |(insets, hinge): ([f64; 2], f64), side: &str| {
            End::inset(
                0.0,
                insets,
                flaps::dust_flap(format!("{name} {side} dust flap"), hinge, f["dust"]),
            )
        };
        let across = carton.across()[self.on];
        // The tuck is as wide as the inside less a clearance each side, whichever wall it hangs on.
        let shoulder = (across - carton.length) / 2.0 + c;
        let closure = flaps::tuck_closure(
            [name.to_owned(), format!("{name} tuck")],
            across,
            carton.width - c,
            shoulder,
            f["slit"],
            f["tuck"],
        );
        // The closing panel's crease lies over the dust flaps; the opposite wall's free edge ends
        // flush with the closed panel's outer face.
        let (closing, free) = (End::whole(t, closure), End::Free { out: 1.5 * t });
        let (front, back) = if self.on == 2 { (free, closing) } else { (closing, free) };
        [front, dust(right, "right"), back, dust(left, "left")]
    }

    /// What must hold of it.
    pub fn musts(&self, f: &Figures) -> [Must; 3] {
        let (name, c) = (self.name, f["clearance"]);
        let opposite = if self.on == 2 { "Front" } else { "Back" };
        let tuck = || format!("{name} tuck");
        let beside = |side: &str| Must::Beside([format!("{name} {side} dust flap"), tuck()], c);
        [Must::Clear([tuck(), opposite.to_owned()], c), beside("right"), beside("left")]
    }

    /// Its steps.
    pub fn steps(&self, f: &Figures) -> [Step; 4] {
        let name = self.name;
        let low = name.to_lowercase();
        let dust = ["right", "left"].map(|side| format!("{name} {side} dust flap"));
        let [bend, set, push] =
            tuck_in(name, &format!("{name} tuck"), f["width"] - f["clearance"], f["tuck"]);
        [
            Step::close(format!("Fold in the dust flaps of the {low}"), dust),
            Step::turn(format!("Bend the {low}’s tuck in"), bend),
            Step::turn(format!("Set the {low}’s tuck behind the wall"), set),
            Step::turn(format!("Close the {low}"), push),
        ]
    }

    /// Its figures, and the glue flap's.
    pub fn spans(&self, f: &Figures) -> [Span; 4] {
        let (tuck, dust) =
            (format!("{} tuck", self.name), format!("{} right dust flap", self.name));
        let deep = |key, panel| Span::new(key, panel, (0.0, 0.0), (0.0, f[key]));
        let slit = Span::new("slit", tuck.clone(), (0.0, 0.0), (f["slit"], 0.0));
        [
            deep("tuck", tuck),
            deep("dust", dust),
            deep("glue", "Glue flap".to_owned()),
            Span { is_quiet: true, ..slit },
        ]
    }

    /// Limits between its flaps and the walls.
    pub fn limits(&self, f: &Figures) -> [Limit; 2] {
        let name = self.name;
        let (tuck, dust) = (f["tuck"], f["dust"]);
        [
            Limit {
                id: if name == "Top" { "tuck-top" } else { "tuck-base" },
                label: format!("{name} tuck in the carton"),
                limit: (tuck, Sense::AtMost, f["height"] / 2.0),
                panel: format!("{name} tuck"),
                remedy: Some(("tuck", f["height"] / 2.0)),
            },
            Limit {
                id: if name == "Top" { "dust-top" } else { "dust-base" },
                label: format!("{name} dust flaps, both"),
                limit: (2.0 * dust, Sense::AtMost, f["length"]),
                panel: format!("{name} right dust flap"),
                remedy: Some(("dust", f["length"] / 2.0)),
            },
        ]
    }
}

/// The angles of a closing panel `deep` mm and its tuck, in three steps: the tuck bent in above the edge
/// of the wall it goes behind; half way down; closed. On the way down the tuck's edge slides along the
/// wall, so that it meets neither the wall nor the flaps beneath.
pub fn tuck_in(panel: &str, tuck: &str, deep: f64, reach: f64) -> [[(String, f64); 2]; 3] {
    // With the panel θ short of closed the tuck leans out by ψ: deep · (1 − cos θ) = reach · sin ψ.
    let lean = |theta: f64| (deep * (1.0 - theta.cos()) / reach).min(0.99).asin();
    let above = |theta: f64| deep * theta.sin() - reach * lean(theta).cos();
    let (mut low, mut high) = (0.0, 80f64.to_radians());
    for _ in 0..30 {
        let middle = f64::midpoint(low, high);
        if above(middle) < 1.0 { low = middle } else { high = middle }
    }
    [high, high / 2.0, 0.0].map(|theta| {
        let turned = 90.0 - theta.to_degrees();
        let bent = 90.0 + theta.to_degrees() - lean(theta).to_degrees();
        [(panel.to_owned(), turned), (tuck.to_owned(), bent)]
    })
}

/// The glue flap may not be wider than the wall it is glued to.
pub fn glue_limit(f: &Figures) -> Limit {
    Limit {
        id: "glue-flap",
        label: "Glue flap".to_owned(),
        limit: (f["glue"], Sense::AtMost, f["width"]),
        panel: "Glue flap".to_owned(),
        remedy: Some(("glue", f["width"])),
    }
}

/// Room between what closes the two ends.
pub fn height_between(f: &Figures, top: &str, base: &str) -> Must {
    Must::Room("height", [top.to_owned(), base.to_owned()], f["height"])
}

#[cfg(test)]
mod tests {
    use super::*;

    /// While the panel comes down the tuck's edge stays behind the wall: it never passes the panel's own
    /// depth, where the tuck will hang, by more than a hair.
    #[test]
    fn a_tuck_slides_down_behind_its_wall() {
        for (deep, reach) in [(30.0, 12.0), (60.0, 18.0), (15.0, 12.0), (90.0, 20.0)] {
            let stages = tuck_in("Top", "Top tuck", deep, reach);
            for [(_, panel), (_, tuck)] in &stages {
                let (theta, bent) = ((90.0 - panel).to_radians(), tuck.to_radians());
                // Across from the hinge to the tuck's edge.
                let edge = deep * theta.cos() + reach * (bent - theta).cos();
                assert!(edge <= deep + 1e-6, "{deep} {reach}: {edge}");
                assert!(edge >= deep - 0.01 * deep - 1.0, "{deep} {reach}: {edge}");
            }
            let [(_, panel), (_, tuck)] = &stages[2];
            assert!((panel - 90.0).abs() < 1e-9 && (tuck - 90.0).abs() < 1e-9);
        }
    }
}
