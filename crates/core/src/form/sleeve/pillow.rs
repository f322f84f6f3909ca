//! The pillow pack: two bowed faces, and end flaps that snap in along curved creases.
//!
//! Front and back are parts of a cylinder, b/2 high over the chord between the side creases, where b
//! is the depth of the pack. A face w wide between its side creases (measured along the card) has
//! the radius R with w = 2Rθ, b/2 = R(1 − cos θ). The end flap is the face's mirror image in a plane at
//! half a right angle, which meets the cylinder where the crease is: z(u) = R cos(u/R) − R cos θ in
//! from the end at u from the middle. So the flap stands square to the face, and its outer edge, as
//! far out from the end as the crease is in, reaches the other face's crease less the clearance. The back's
//! flaps lie outside the front's: its creases are one caliper further out.
//!
//! For the folded piece either face is ruled into strips; they lie R(1 − cos(θ/n)) from the curve at
//! most, which is stated as a check.

use std::f64::consts::FRAC_PI_2;

use crate::form::design::{Blank, Design, Edge, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::{self, in_frame};
use crate::form::panel::Joint;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Panel, Role};
use crate::geometry::Point;

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "pillow",
    name: "Pillow pack",
    family: Family::SleevesAndWraps,
    about: "Two bowed faces with curved ends that snap shut.",
    uses: &["box", "favour", "gift", "curved", "flat pack", "glue"],
    params: &[WIDTH, LENGTH, DEPTH, CLEARANCE, GLUE],
    presets: &[
        Preset {
            name: "Seed favour",
            figures: &[("width", 70.0), ("length", 95.0), ("depth", 22.0)],
        },
        Preset {
            name: "Gift card",
            figures: &[("width", 100.0), ("length", 130.0), ("depth", 25.0)],
        },
    ],
    design,
};

const WIDTH: Param =
    Param::size("width", ["Width", "Across a face, along the card."], [0.0, 0.0], |_| 70.0)
        .within(|_| Bounds::new(25.0, 500.0));
const LENGTH: Param =
    Param::size("length", ["Length", "From end to end at the side creases."], [0.0, 0.0], |_| 95.0)
        .within(|_| Bounds::new(25.0, 800.0));

const DEPTH: Param = Param::length(
    "depth",
    ["Depth", "Of the pack in the middle, between the faces’ middles."],
    |f| f["width"] * 0.3,
    |f| {
        let most = (f["width"] * 0.55).min(f["length"] * 0.7);
        Bounds::new((f["width"] * 0.08).min(most), most).against("width")
    },
);

const CLEARANCE: Param = flaps::CLEARANCE_PARAM.within(|_| Bounds::new(0.0, 3.0));

const GLUE: Param = Param::length(
    flaps::GLUE,
    ["Glue flap", "Width of the flap that joins front and back."],
    |f| flaps::GLUE_STANDARD.min(f["width"] / 4.0),
    |f| {
        flaps::flap_up_to((f["width"] / 3.0).min(flaps::glue_limit(f["length"] * 0.8)))
            .against("width")
    },
);

/// Strips to a face.
const STRIPS: usize = 10;

fn design(f: &Figures) -> Design {
    let bow = Bow::new(f);
    let (w, l) = (f["width"], f["length"]);
    let across = w / STRIPS as f64;
    let glue = bow.glue_flap(l, f[flaps::GLUE], 0);
    let back = bow.face(&Face { name: "Back", out: f.t }, None);
    let front = bow.face(&Face { name: "Front", out: 0.0 }, Some(back));
    let root = front.hinge(0.0, 0.0, bow.side_fold(), glue);
    let strips = |face: &'static str, from: usize| (from..STRIPS).map(move |at| strip(face, at));
    let ends = |face: &'static str| {
        (0..STRIPS).flat_map(move |at| ["top", "base"].map(|end| flap(face, end, at)))
    };
    let last = Edge::new(strip("Back", STRIPS - 1), bow.edge(f.t, l), bow.edge(f.t, 0.0));
    let mut design = Design::new(vec![Blank::downwards("Pillow", root)], Stand::Lying)
        .steps([
            Step::close("Fold the glue flap in", ["Glue flap"]),
            Step::close(
                "Bow the faces",
                strips("Front", 1).chain(strips("Back", 1)).chain(glue_strips(&bow, f).skip(1)),
            ),
            Step::close("Fold the back over and glue it to the flap", [strip("Back", 0)]),
            Step::close("Press in the front’s ends", ends("Front")),
            Step::close("Press in the back’s ends over them", ends("Back")),
        ])
        .must([Must::Meet(last, Edge::new(strip("Front", 0), (l, 0.0), (0.0, 0.0)))])
        .span("width", strip("Front", 0), (l, 0.0), (l - bow.rise(across), across))
        .span("length", strip("Front", 0), (0.0, 0.0), (l, 0.0))
        .span("glue", "Glue flap", (0.0, 0.0), (0.0, f[flaps::GLUE]));
    design.ruling = bow.radius * (1.0 - (bow.half / STRIPS as f64).cos());
    design
}

/// The glue flap's strips.
fn glue_strips(bow: &Bow, f: &Figures) -> impl Iterator<Item = String> + use<> {
    let (reach, across) = (f[flaps::GLUE], bow.width / STRIPS as f64);
    (0..STRIPS).take_while(move |at| across * *at as f64 <= reach - 1e-6).map(glue_strip)
}

fn glue_strip(at: usize) -> String {
    if at == 0 { "Glue flap".to_owned() } else { format!("Glue flap {}", at + 1) }
}

fn strip(face: &str, at: usize) -> String {
    format!("{face} {}", at + 1)
}

fn flap(face: &str, end: &str, at: usize) -> String {
    format!("{face} {end} {}", at + 1)
}

/// The front or the back: its name, and how far out its ends' creases lie.
struct Face {
    name: &'static str,
    out: f64,
}

/// The cylinder that a face is a part of.
struct Bow {
    width: f64,
    length: f64,
    radius: f64,
    /// Half the angle that a face takes, radians.
    half: f64,
    /// The share of the crease's rise that the flap's outer edge runs out.
    share: f64,
}

impl Bow {
    fn new(f: &Figures) -> Self {
        let (width, rise) = (f["width"], f["depth"] / 2.0);
        // w/2 · (1 − cos θ)/θ is the rise: θ found by halving, since the rise grows with it.
        let (mut low, mut high) = (1e-6, FRAC_PI_2 * 1.3);
        for _ in 0..60 {
            let middle = f64::midpoint(low, high);
            if width / 2.0 * (1.0 - middle.cos()) / middle < rise {
                low = middle;
            } else {
                high = middle;
            }
        }
        let share = 1.0 - ((f["clearance"] + f.t) / rise).min(0.8);
        Self { width, length: f["length"], radius: width / 2.0 / low, half: low, share }
    }

    /// How far in from the end the crease runs, `v` from the face's side.
    fn rise(&self, v: f64) -> f64 {
        let u = (v - self.width / 2.0) / self.radius;
        (self.radius * (u.cos() - self.half.cos())).max(0.0)
    }

    /// The rise's slope.
    fn slope(&self, v: f64) -> f64 {
        -((v - self.width / 2.0) / self.radius).sin()
    }

    /// Degrees from strip to strip.
    fn bend(&self) -> f64 {
        (2.0 * self.half / STRIPS as f64).to_degrees()
    }

    /// Degrees at a side crease, from the outer strip of one face to that of the other.
    fn side_fold(&self) -> f64 {
        180.0 - (2.0 * self.half * (1.0 - 1.0 / STRIPS as f64)).to_degrees()
    }

    /// Degrees by which a strip's end flap turns: a strip leaning by λ across the pack and its mirror
    /// image in a plane at half a right angle have normals whose cosine is −sin² λ.
    fn end_fold(&self, at: usize) -> f64 {
        let lean = self.half - (at as f64 + 0.5) * self.bend().to_radians();
        (-lean.sin().powi(2)).acos().to_degrees()
    }

    /// A point of the last strip's free side, `along` from the pack's end, in the strip's frame.
    fn edge(&self, out: f64, along: f64) -> (f64, f64) {
        let across = self.width / STRIPS as f64;
        (along - self.rise(self.width - across) + out, across)
    }

    /// A face's strips from the left, each hung on the one before; `next` hangs on the last. The root
    /// is left open at its left side.
    fn face(&self, face: &Face, next: Option<Panel>) -> Panel {
        let mut hung = next.map(|panel| (panel, self.side_fold(), Joint::Crease { slit: 0.0 }));
        for at in (0..STRIPS).rev() {
            let panel = self.strip(face, at, hung.take());
            if at == 0 {
                return panel;
            }
            hung = Some((panel, self.bend(), Joint::Bend));
        }
        Panel::new(face.name, Role::Face)
    }

    /// One strip with its end flaps; its frame starts where the strip's left side meets the crease, or, of
    /// a face's first strip, at the pack's end.
    fn strip(&self, face: &Face, at: usize, hung: Option<(Panel, f64, Joint)>) -> Panel {
        let across = self.width / STRIPS as f64;
        let [from, to] = [at, at + 1].map(|edge| across * edge as f64);
        let top = |v: f64| self.rise(v) - face.out;
        let base = |v: f64| self.length - self.rise(v) + face.out;
        let start = if at == 0 { 0.0 } else { top(from) };
        let third = across / 3.0;
        let (rise, fall) = (self.slope(from) * third, self.slope(to) * third);
        let up = [
            Point::new(top(from) + rise - start, third),
            Point::new(top(to) - fall - start, 2.0 * third),
        ];
        let down = [
            Point::new(base(to) + fall - start, 2.0 * third),
            Point::new(base(from) - rise - start, third),
        ];
        let fold = self.end_fold(at);
        let first = self.end(flap(face.name, "top", at), face, [from, to]);
        let second = self.end(flap(face.name, "base", at), face, [from, to]);
        let long = (top(to) - top(from)).hypot(across);
        let panel = Panel::new(strip(face.name, at), Role::Face)
            .strip_of(face.name)
            .cut(top(from) - start, 0.0)
            .hinge_curved(top(to) - start, across, fold, up, first);
        let panel = match hung {
            // The next face's creases may lie further out: its first strip starts at the pack's end.
            Some((next, fold, joint)) if at + 1 == STRIPS => {
                panel.hinge_as(self.length - start, across, fold, joint, next)
            }
            Some((next, fold, joint)) => {
                panel.hinge_as(base(to) - start, across, fold, joint, next)
            }
            None => panel.cut(base(to) - start, across),
        };
        let panel = panel.cut(base(to) - start, across).hinge_curved(
            base(from) - start,
            0.0,
            fold,
            down,
            second.mirrored(long),
        );
        if at == 0 { panel.cut(self.length, 0.0) } else { panel }
    }

    /// The glue flap, ruled like the face it is glued to: what is left of it from its strip `at` on.
    fn glue_flap(&self, hinge: f64, reach: f64, at: usize) -> Panel {
        let across = (self.width / STRIPS as f64).min(reach);
        let taper = across * flaps::GLUE_TAPER.to_radians().tan();
        let panel = Panel::new(glue_strip(at), Role::Glue).strip_of("Glue flap").cut(taper, across);
        let (left, long) = (reach - across, hinge - 2.0 * taper);
        let panel = if left > 1e-6 {
            let next = self.glue_flap(long, left, at + 1);
            panel.hinge_as(hinge - taper, across, self.bend(), Joint::Bend, next)
        } else {
            panel.cut(hinge - taper, across)
        };
        panel.cut(hinge, 0.0)
    }

    /// The end flap of a strip, as at the top.
    fn end(&self, name: String, face: &Face, [from, to]: [f64; 2]) -> Panel {
        let across = to - from;
        let top = |v: f64| self.rise(v) - face.out;
        let edge = |v: f64| -self.rise(v) * self.share - face.out;
        let local = in_frame((top(from), 0.0), (top(to), across));
        let third = across / 3.0;
        let (rise, fall) = (self.slope(from) * third, self.slope(to) * third);
        let control =
            [(edge(from) - rise * self.share, third), (edge(to) + fall * self.share, 2.0 * third)]
                .map(&local);
        let (start, stop) = (local((edge(from), 0.0)), local((edge(to), across)));
        Panel::new(name, Role::Flap)
            .strip_of(format!("{} ends", face.name))
            .joined(start.0, start.1)
            .curve(control[0].into(), control[1].into(), stop.into())
            .joined((top(to) - top(from)).hypot(across), 0.0)
    }
}
