//! The roll-over mailer: double side walls roll over the end flaps and lock into the base, without
//! glue; the lid hangs on the back and tucks in at the front.
//!
//! With inside L × W × H and caliper t, at the middle of the card. A side is three layers: outer wall,
//! end flap, inner wall, one caliper apart, so the base is L + 5t from side crease to side crease, the
//! front and back walls L + 3t between their end flaps, and the strip on top 2t. The base is W + t
//! from front to back. The strip lies under the lid: the outer wall is H high to its crease, the
//! inner one H − t/2 less the play. The back is H + t to the lid's crease, the front's edge H + t/2
//! less the play. The lid is W − c to its tuck's crease, and the tuck L − 2c wide.

use crate::LineKind;
use crate::check::Sense;
use crate::form::carton::tuck_in;
use crate::form::design::{Blank, Design, Limit, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::{self, CLEARANCE_PARAM};
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Panel, Role};
use crate::geometry::{Rect, Shape};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "roll-over-mailer",
    name: "Roll-over mailer",
    family: Family::TraysAndLids,
    about: "A sturdy box with double side walls and a lid, made without glue.",
    uses: &["box", "post", "shipping", "no glue", "lock", "lid"],
    params: &[LENGTH, WIDTH, HEIGHT, CLEARANCE, TUCK, ENDS, LOCKS],
    presets: &[
        Preset {
            name: "Seed order",
            figures: &[("length", 140.0), ("width", 100.0), ("height", 35.0)],
        },
        Preset {
            name: "Letter-box",
            figures: &[("length", 200.0), ("width", 140.0), ("height", 22.0)],
        },
    ],
    design,
};

const LENGTH: Param =
    Param::size("length", ["Length", "Between the inner side walls."], [5.0, 6.0], |_| 140.0)
        .within(|_| Bounds::new(30.0, 2000.0));
const WIDTH: Param = Param::size("width", ["Width", "From front to back."], [1.0, 2.0], |_| 100.0)
    .within(|_| Bounds::new(30.0, 2000.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "From the base to the lid."], [1.0, 2.0], |_| 35.0)
        .within(|_| Bounds::new(12.0, 1000.0));

const CLEARANCE: Param = CLEARANCE_PARAM.within(|_| Bounds::new(0.0, 3.0));

const TUCK: Param = Param::length(
    "tuck",
    ["Tuck flap", "From the tuck’s crease to its edge, behind the front."],
    |f| (f["height"] * 0.7).min(25.0),
    |f| flaps::flap_up_to(f["height"] - PLAY).against("height"),
);

const ENDS: Param = Param::length(
    "ends",
    ["End flaps", "How far they reach in between the double walls."],
    |f| (f["width"] / 3.0).clamp(8.0, 60.0),
    |f| flaps::flap_up_to(f["width"] / 2.0 - 1.0).against("width"),
);

const LOCKS: Param = Param::length(
    "locks",
    ["Locks", "Length of the tabs that stand in the base, two to a side; 0 leaves them out."],
    |f| (f["width"] / 7.0).clamp(5.0, 20.0),
    |f| Bounds::new(0.0, f["width"] / 5.0).against("width"),
);

/// What edges leave to what they stand on, mm.
const PLAY: f64 = 0.3;

fn design(f: &Figures) -> Design {
    let (t, c) = (f.t, f["clearance"]);
    let (length, width, height) = (f["length"], f["width"], f["height"]);
    let (a, b) = (length + 5.0 * t, width + t);
    let long = a - 2.0 * t;

    let front = wall("Front", long, height + 0.5 * t - PLAY, f).cut(long, 0.0);
    let lid = lid(f, a, long);
    let back = wall_with("Back", long, height + t, f, lid).cut(long, 0.0);
    let root = Panel::new("Base", Role::Face)
        .hinge(0.0, b, 90.0, side("Left", b, f))
        .cut(t, b)
        .hinge(a - t, b, 90.0, back)
        .cut(a, b)
        .hinge(a, 0.0, 90.0, side("Right", b, f))
        .cut(a - t, 0.0)
        .hinge(t, 0.0, 90.0, front)
        .cut(0.0, 0.0);
    // The inner wall stands 2t inside the side's crease; its slot has play, but leaves that crease alone.
    let (near, far) = ((1.5 * t - PLAY).max(0.5 * t), 2.5 * t + PLAY);
    let sides = [(near, far), (a - far, a - near)];
    let half = f["locks"] / 2.0 + PLAY;
    let root = slots(f, b).into_iter().flat_map(|y| sides.map(|x| (x, y))).fold(
        root,
        |panel, ((x0, x1), y)| {
            panel.with(LineKind::Cut, Rect::new(x0, y - half, x1, y + half).to_path(0.1))
        },
    );
    let both = |name: &str| ["Left", "Right"].map(|side| format!("{side} {name}"));
    let room = |key, one: &str, other: &str, want| {
        Must::Room(key, [one.to_owned(), other.to_owned()], want)
    };
    // Until here the locks swing clear of the base; then the wall bows as they are pressed in.
    let deep = height - 0.5 * t - PLAY;
    let rolled = 90.0 - (deep / (deep + t + PLAY)).acos().to_degrees();
    let [bend, set, push] = tuck_in("Lid", "Lid tuck", width - c, f["tuck"]);
    Design::new(vec![Blank::upwards("Mailer", root)], Stand::OnFirst)
        .steps([
            Step::close(
                "Fold the end flaps",
                ["Front", "Back"]
                    .iter()
                    .flat_map(|wall| ["first", "second"].map(|end| format!("{wall} {end} flap"))),
            ),
            Step::close("Raise front and back", ["Front", "Back"]),
            Step::close("Raise the outer side walls", both("side")),
            Step::close("Fold the left strip in", ["Left strip"]),
            Step::turn("Roll the left inner wall down", [("Left inner wall", rolled)]),
            Step::close("Press its locks into the base", ["Left inner wall"]),
            Step::close("Fold the right strip in", ["Right strip"]),
            Step::turn("Roll the right inner wall down", [("Right inner wall", rolled)]),
            Step::close("Press its locks into the base", ["Right inner wall"]),
            Step::turn("Bend the lid’s tuck in", bend),
            Step::turn("Set it behind the front", set),
            Step::turn("Close the lid", push),
        ])
        .must([
            room("length", "Left inner wall", "Right inner wall", length),
            room("width", "Front", "Back", width),
            room("height", "Base", "Lid", height),
            Must::Clear(["Lid tuck".to_owned(), "Front".to_owned()], c),
            Must::Clear(["Front first flap".to_owned(), "Right side".to_owned()], 0.0),
            Must::Clear(["Front first flap".to_owned(), "Right inner wall".to_owned()], 0.0),
        ])
        .limits([Limit {
            id: "ends",
            label: "End flaps, both".to_owned(),
            limit: (2.0 * f["ends"], Sense::AtMost, width),
            panel: "Front first flap".to_owned(),
            remedy: Some(("ends", width / 2.0 - 1.0)),
        }])
        .holds(length * width * height)
        .span("length", "Base", (0.0, 0.0), (a, 0.0))
        .span("width", "Base", (0.0, 0.0), (0.0, b))
        .span("height", "Back", (0.0, 0.0), (0.0, height + t))
        .span("tuck", "Lid tuck", (0.0, 0.0), (0.0, f["tuck"]))
        .span("ends", "Front first flap", (0.0, 0.0), (0.0, f["ends"]))
}

/// Middles of the locks along the base.
fn slots(f: &Figures, b: f64) -> Vec<f64> {
    if f["locks"] < 1.0 { Vec::new() } else { vec![b * 0.27, b * 0.73] }
}

fn wall(name: &str, long: f64, high: f64, f: &Figures) -> Panel {
    ends(name, long, high, f, |panel| panel.cut(0.0, high).cut(long, high))
}

fn wall_with(name: &str, long: f64, high: f64, f: &Figures, lid: Panel) -> Panel {
    ends(name, long, high, f, |panel| panel.cut(0.0, high).hinge(long, high, 90.0, lid))
}

/// A wall with an end flap at either side, below the strips.
fn ends(name: &str, long: f64, high: f64, f: &Figures, top: impl FnOnce(Panel) -> Panel) -> Panel {
    let (low, up) = (f.t, (f["height"] - 0.5 * f.t - PLAY).min(high));
    let flap = |end: &str| {
        let (hinge, reach) = (up - low, f["ends"]);
        let lean = (reach * 0.06).min(hinge / 5.0);
        Panel::new(format!("{name} {end} flap"), Role::Flap)
            .set_by("ends")
            .cut_rounded(lean, reach, reach / 8.0)
            .cut_rounded(hinge - lean, reach, reach / 8.0)
            .cut(hinge, 0.0)
    };
    let panel = Panel::new(name, Role::Face).cut(0.0, low).hinge(0.0, up, 90.0, flap("first"));
    top(panel).cut(long, up).hinge(long, low, 90.0, flap("second"))
}

fn side(name: &str, b: f64, f: &Figures) -> Panel {
    let t = f.t;
    let inset = 0.5 * t + f["clearance"].max(PLAY);
    let deep = f["height"] - 0.5 * t - PLAY;
    let hinge = b - 2.0 * inset;
    let tab = t + PLAY;
    let half = f["locks"] / 2.0;
    let mut inner = Panel::new(format!("{name} inner wall"), Role::Flap).cut(0.0, deep);
    for middle in slots(f, b).into_iter().map(|at| at - inset) {
        inner = inner
            .cut(middle - half, deep)
            .cut(middle - half, deep + tab)
            .cut(middle + half, deep + tab)
            .cut(middle + half, deep);
    }
    let inner = inner.cut(hinge, deep).cut(hinge, 0.0);
    let strip = Panel::new(format!("{name} strip"), Role::Face)
        .cut(0.0, 2.0 * t)
        .hinge(hinge, 2.0 * t, 90.0, inner)
        .cut(hinge, 0.0);
    Panel::new(format!("{name} side"), Role::Face)
        .cut(0.0, f["height"])
        .cut(inset, f["height"])
        .hinge(b - inset, f["height"], 90.0, strip)
        .cut(b, f["height"])
        .cut(b, 0.0)
}

fn lid(f: &Figures, a: f64, hinge: f64) -> Panel {
    let (t, c) = (f.t, f["clearance"]);
    let deep = f["width"] - c;
    let over = (a - hinge) / 2.0;
    let shoulder = (hinge - (f["length"] - 2.0 * c)) / 2.0;
    let tuck = flaps::tuck_flap("Lid tuck", f["length"] - 2.0 * c, f["tuck"]);
    Panel::new("Lid", Role::Face)
        .cut(-over + 0.5 * t, 0.0)
        .cut(-over + 0.5 * t, deep)
        .cut(shoulder, deep)
        .hinge(hinge - shoulder, deep, 90.0, tuck)
        .cut(hinge + over - 0.5 * t, deep)
        .cut(hinge + over - 0.5 * t, 0.0)
        .cut(hinge, 0.0)
}
