//! The handled gable carton: a roof of two slopes with a handle on either, sides folded in between,
//! a snap-lock base.
//!
//! With inside width W, rise h and caliper t, each slope runs W/2 inwards over h, so that the handles'
//! middles stand one caliper apart. The slope's length is s = √(W²/4 + h²). Above a side wall the
//! card is a strip s high: a middle triangle folds in, and the two corners beside it fold back
//! against the slopes. The triangle's tip then lies h − Wt/4h above the wall's top: there both
//! corners' sides keep their lengths.

use super::ends::{box_of, glue_limit};
use super::snap_lock::{CLEARANCE, LENGTH, LOCK, base, base_steps};
use nalgebra::Vector3;

use crate::LineKind;
use crate::form::design::{Blank, Design, Edge, Must, Stand, Step};
use crate::form::figures::Figures;
use crate::form::flaps::{GLUE_PARAM, in_frame};
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::tube::{End, wrap_steps};
use crate::form::{Panel, Role};
use crate::geometry::{Point, Rect, Shape};

/// Its entry in the catalogue.
pub const STRUCTURE: Structure = Structure {
    id: "gable",
    name: "Gable carton",
    family: Family::Cartons,
    about: "A carton with a roof and a handle, for carrying home.",
    uses: &["box", "handle", "carry", "favour", "lunch", "gift", "hand hole"],
    params: &[LENGTH, WIDTH, CLEARANCE, RISE, HANDLE, HEIGHT, GRIP, GLUE_PARAM, LOCK],
    presets: &[
        Preset { name: "Favour", figures: &[("length", 80.0), ("width", 50.0), ("height", 60.0)] },
        Preset {
            name: "Seedlings",
            figures: &[("length", 140.0), ("width", 90.0), ("height", 90.0)],
        },
    ],
    design,
};

/// The sides' tips meet in the middle of a carton that is as long as it is wide.
const WIDTH: Param = super::ends::WIDTH
    .within(|f| Bounds::new(15.0, f["length"] - 4.0 * f.t - 1.0).against("length"));

const HEIGHT: Param = Param::size(
    "height",
    ["Height", "From the base to where the roof starts; outside, to the top of the handle."],
    [1.0, 3.5],
    |_| 60.0,
)
.carrying(&["rise", "handle"]);

const RISE: Param = Param::length(
    "rise",
    ["Rise", "From where the roof starts to its ridge."],
    |f| f["width"] * 0.45,
    |f| Bounds::new(f["width"] * 0.25, f["width"] * 1.5).against("width"),
);

const HANDLE: Param = Param::length(
    "handle",
    ["Handle", "How far it stands above the ridge."],
    |f| (f["length"] * 0.35).clamp(18.0, 34.0),
    |_| Bounds::new(10.0, 80.0),
);

const GRIP: Param = Param::length(
    "grip",
    ["Hand hole", "Its width; 0 leaves it out."],
    |f| (f["length"] * 0.5).min(75.0),
    |f| Bounds::new(0.0, (f["length"] - 12.0).max(0.0)).against("length"),
);

fn design(f: &Figures) -> Design {
    let carton = box_of(f);
    let roof = Roof::new(f);
    let across = carton.across();
    let [slope, gusset, _] = roof.folds(roof.lean());
    let tops = [
        leaning(slope, roof.slope("Front", across[0])),
        leaning(gusset, roof.gusset("Right", across[1], LineKind::Crease)),
        leaning(slope, roof.slope("Back", across[2])),
        leaning(gusset, roof.gusset("Left", across[3], LineKind::Cut)),
    ];
    let root = carton.tube(tops, base(&carton, f), f["glue"]);
    let s = roof.slope;
    let seam = |corner: &str, corner_edge: [(f64, f64); 2], wall: &str, x: f64| {
        Must::Meet(
            Edge::new(corner, corner_edge[0], corner_edge[1]),
            Edge::new(format!("{wall} roof"), (x, 0.0), (x, s)),
        )
    };
    let right = roof.corners(across[1]);
    let left = roof.corners(across[3]);
    Design::new(vec![Blank::downwards("Carton", root)], Stand::Upright)
        .steps(wrap_steps())
        .steps(base_steps())
        .steps([
            Step::turn("Press the sides in", roof.closing(1.0 / 3.0)),
            Step::turn("Bring the slopes together", roof.closing(2.0 / 3.0)),
            Step::turn("Close the roof until the handles meet", roof.closing(1.0)),
        ])
        .must(carton.musts())
        .must([
            Must::Clear(["Front handle".to_owned(), "Back handle".to_owned()], 0.0),
            seam("Right front corner", [(0.0, 0.0), right[0]], "Front", across[0]),
            seam("Right back corner", [right[2], right[1]], "Back", 0.0),
            seam("Left back corner", [(0.0, 0.0), left[0]], "Back", across[2]),
        ])
        .limits([glue_limit(f)])
        .holds(carton.volume())
        .spans(carton.spans(carton.height))
        .span("handle", "Front handle", (0.0, 0.0), (0.0, f["handle"]))
        .span("rise", "Front roof", (0.0, 0.0), (0.0, s))
        .span("glue", "Glue flap", (0.0, 0.0), (0.0, f["glue"]))
}

fn leaning(fold: f64, flap: Panel) -> End {
    End::Flap { out: 0.0, left: 0.0, right: 0.0, slit: 0.0, fold, flap }
}

struct Roof {
    width: f64,
    t: f64,
    rise: f64,
    slope: f64,
    handle: f64,
    grip: f64,
}

impl Roof {
    fn new(f: &Figures) -> Self {
        let (width, rise) = (f["width"], f["rise"]);
        let slope = (width / 2.0).hypot(rise);
        Self { width, t: f.t, rise, slope, handle: f["handle"], grip: f["grip"] }
    }

    /// How far the slopes lean in, radians.
    fn lean(&self) -> f64 {
        (self.width / 2.0).atan2(self.rise)
    }

    fn slope(&self, wall: &str, across: f64) -> Panel {
        let lean = self.lean().to_degrees();
        let radius = self.handle / 3.0;
        let mut handle = Panel::new(format!("{wall} handle"), Role::Face)
            .cut_rounded(across * 0.04, self.handle, radius)
            .cut_rounded(across * 0.96, self.handle, radius)
            .cut(across, 0.0);
        let high = (self.handle * 0.45).min(24.0);
        if self.grip > high {
            let middle = Point::new(across / 2.0, self.handle * 0.52);
            let hole = Rect::from_center_size(middle, (self.grip, high));
            handle = handle.with(LineKind::Cut, hole.to_rounded_rect(high / 2.0).to_path(1e-4));
        }
        Panel::new(format!("{wall} roof"), Role::Face)
            .cut(0.0, self.slope)
            .hinge(across, self.slope, -lean, handle)
            .cut(across, 0.0)
    }

    /// The folds when the slopes lean in by `lean` radians: the slopes', the middle triangles', and the
    /// corners'.
    ///
    /// The triangle's tip stays in the middle between the walls, √(half² + s²) from a wall's corner and
    /// half the width from a slope's upper end, so it stands (s − half · sin α) / cos α high.
    fn folds(&self, lean: f64) -> [f64; 3] {
        let (half, s) = ((self.width + self.t) / 2.0, self.slope);
        let up = ((s - half * lean.sin()) / lean.cos()).clamp(-s, s);
        let inwards = (s * s - up * up).max(0.0).sqrt();
        // x out of the side wall, y along it, z up: the triangle's normal, the crease to the corner, and
        // square to both; then where the slope's upper end lies.
        let out = Vector3::new(up, 0.0, inwards).normalize();
        let along = Vector3::new(-inwards, half, up).normalize();
        let away = out.cross(&along);
        let end = Vector3::new(0.0, s * lean.sin(), s * lean.cos());
        let back = -end.dot(&out).atan2(end.dot(&away));
        [lean, inwards.atan2(up), back].map(f64::to_degrees)
    }

    /// Every panel's angle when the roof is closed to a share.
    fn closing(&self, share: f64) -> Vec<(String, f64)> {
        let [lean, gusset, back] = self.folds(share * self.lean());
        let walls = ["Front", "Back"]
            .into_iter()
            .flat_map(|wall| [(format!("{wall} roof"), lean), (format!("{wall} handle"), -lean)]);
        let sides = ["Right", "Left"].into_iter().flat_map(|side| {
            [
                (format!("{side} gusset"), gusset),
                (format!("{side} front corner"), back),
                (format!("{side} back corner"), back),
            ]
        });
        walls.chain(sides).collect()
    }

    /// The outer corner of the front corner in its own frame; that of the back corner in its own
    /// frame, and the end of its hinge.
    fn corners(&self, across: f64) -> [(f64, f64); 3] {
        let tip = ((self.width + self.t) / 2.0, self.slope);
        let front = in_frame((0.0, 0.0), tip)((0.0, self.slope));
        let to_back = in_frame(tip, (across, 0.0));
        [front, to_back((across, self.slope)), to_back((across, 0.0))]
    }

    /// The strip above a side wall; `last` is what its far side is: a crease against the back's roof, or
    /// a cut where the wrap ends. The left side hangs the other way round.
    fn gusset(&self, side: &str, across: f64, last: LineKind) -> Panel {
        let half = (self.width + self.t) / 2.0;
        let [_, _, back] = self.folds(self.lean());
        let [front, far, long] = self.corners(across);
        let tip = (half, self.slope);
        let names = match side {
            "Right" => ["front", "back"],
            _ => ["back", "front"],
        };
        let near = Panel::new(format!("{side} {} corner", names[0]), Role::Flap)
            .seam(front.0, front.1, LineKind::Crease)
            .cut(half.hypot(self.slope), 0.0);
        let beyond =
            Panel::new(format!("{side} {} corner", names[1]), Role::Flap).cut(far.0, far.1);
        let beyond = match last {
            LineKind::Cut => beyond.cut(long.0, long.1),
            kind => beyond.seam(long.0, long.1, kind),
        };
        Panel::new(format!("{side} gusset"), Role::Flap)
            .hinge(tip.0, tip.1, back, near)
            .hinge(across, 0.0, back, beyond)
    }
}
