//! Index dividers: a set of n leaves whose tabs stand side by side along one edge, each leaf a piece.
//!
//! With n positions and n − 1 gaps between them, a tab takes 1/n of what the gaps leave of the edge
//! (“1/n cut”), so that the first and the last stand flush with the leaf; its shoulders lean in.

use crate::form::design::{Blank, Design, Stand};
use crate::form::figures::Figures;
use crate::form::param::{Bounds, Param};
use crate::form::structure::{Family, Preset, Structure};
use crate::form::{Panel, Role};

/// Tabs along the upper edge.
pub const TOP: Structure = Structure {
    id: "index-tabs",
    name: "Index dividers, tabs on top",
    family: Family::Tabs,
    about: "A set of leaves with tabs side by side along the top: a third, a fifth, a twelfth cut.",
    uses: &["index", "divider", "drawer", "months", "alphabet", "card file", "no glue"],
    params: &[WIDTH, HEIGHT, COUNT, LEAVES, TAB, SHOULDER, GAP],
    presets: &[
        Preset {
            name: "Third cut",
            figures: &[("width", 127.0), ("height", 76.0), ("count", 3.0)],
        },
        Preset {
            name: "Fifth cut",
            figures: &[("width", 127.0), ("height", 76.0), ("count", 5.0)],
        },
        Preset {
            name: "Months",
            figures: &[("width", 150.0), ("height", 105.0), ("count", 6.0), ("leaves", 12.0)],
        },
    ],
    design: |f| design(f, Edge::Top),
};

/// Tabs along the right edge.
pub const SIDE: Structure = Structure {
    id: "index-tabs-side",
    name: "Index dividers, tabs at the side",
    params: &[WIDTH, HEIGHT, COUNT, LEAVES, TAB, SIDE_SHOULDER, SIDE_GAP],
    presets: &[
        Preset {
            name: "A5, five",
            figures: &[("width", 148.0), ("height", 210.0), ("count", 5.0)],
        },
        Preset {
            name: "A5, months",
            figures: &[("width", 148.0), ("height", 210.0), ("count", 12.0)],
        },
    ],
    about: "A set of leaves with tabs one below the other along the side.",
    design: |f| design(f, Edge::Side),
    ..TOP
};

#[derive(Clone, Copy, PartialEq)]
enum Edge {
    Top,
    Side,
}

const WIDTH: Param =
    Param::size("width", ["Width", "Of a leaf, without a tab at its side."], [0.0, 0.0], |_| 127.0)
        .within(|_| Bounds::new(30.0, 1000.0));
const HEIGHT: Param =
    Param::size("height", ["Height", "Of a leaf, without a tab on top."], [0.0, 0.0], |_| 76.0)
        .within(|_| Bounds::new(30.0, 1000.0));
const COUNT: Param = Param::count(
    "count",
    ["Positions", "How many tabs stand side by side along the edge."],
    |_| 5.0,
    |_| Bounds::new(2.0, 12.0),
);
const LEAVES: Param = Param::count(
    "leaves",
    ["Leaves", "How many are made; past the last position they start over at the first."],
    |f| f["count"],
    |_| Bounds::new(1.0, 31.0),
);
const TAB: Param = Param::length(
    "tab",
    ["Tab height", "How far a tab stands out."],
    |_| 11.0,
    |_| Bounds::new(4.0, 40.0),
);
const SHOULDER: Param = Param::length(
    "shoulder",
    ["Shoulder", "How far each side of a tab leans in."],
    |f| (f["width"] / f["count"] / 8.0).min(3.0),
    |f| Bounds::new(0.0, f["width"] / f["count"] / 3.0).against("count"),
);
const SIDE_SHOULDER: Param = Param::length(
    "shoulder",
    ["Shoulder", "How far each side of a tab leans in."],
    |f| (f["height"] / f["count"] / 8.0).min(3.0),
    |f| Bounds::new(0.0, f["height"] / f["count"] / 3.0).against("count"),
);
const GAP: Param = Param::length(
    "gap",
    ["Gap", "Between one leaf’s tab and the next one’s."],
    |_| 1.0,
    |f| Bounds::new(0.0, f["width"] / f["count"] / 4.0).against("count"),
);
const SIDE_GAP: Param = Param::length(
    "gap",
    ["Gap", "Between one leaf’s tab and the next one’s."],
    |_| 1.0,
    |f| Bounds::new(0.0, f["height"] / f["count"] / 4.0).against("count"),
);

fn design(f: &Figures, edge: Edge) -> Design {
    let (w, h) = (f["width"], f["height"]);
    let (leaves, positions) = (f.count("leaves"), f.count("count"));
    let blanks = (0..leaves)
        .map(|index| {
            let position = index % positions;
            let name = format!("Leaf {}", index + 1);
            let leaf = Panel::new(name.clone(), Role::Face);
            let leaf = match edge {
                Edge::Top => tab(leaf.cut(0.0, h), f, position, (0.0, h), (1.0, 0.0), w)
                    .cut_on(w, h)
                    .cut(w, 0.0),
                Edge::Side => tab(leaf.cut(0.0, h).cut(w, h), f, position, (w, h), (0.0, -1.0), h)
                    .cut_on(w, 0.0),
            };
            Blank::upwards(name, leaf.cut(0.0, 0.0))
        })
        .collect();
    let long = if edge == Edge::Top { w } else { h };
    let labelled = (0..leaves).fold(Design::new(blanks, Stand::Upright), |design, index| {
        let [from, to] = span(f, index % positions, long);
        let middle = f64::midpoint(from, to);
        let room = to - from - 2.0 * f["shoulder"];
        let (centre, size) = match edge {
            Edge::Top => ((middle, h + f["tab"] / 2.0), [room, f["tab"]]),
            Edge::Side => ((w + f["tab"] / 2.0, h - middle), [f["tab"], room]),
        };
        design.label(format!("Leaf {}", index + 1), centre, size)
    });
    let design = labelled.span("width", "Leaf 1", (0.0, 0.0), (w, 0.0)).span(
        "height",
        "Leaf 1",
        (0.0, 0.0),
        (0.0, h),
    );
    let [first, last] = span(f, 0, long);
    match edge {
        Edge::Top => design.span("tab", "Leaf 1", (last, h), (last, h + f["tab"])).quiet_span(
            "count",
            "Leaf 1",
            (first, h),
            (last, h),
        ),
        Edge::Side => design
            .span("tab", "Leaf 1", (w, h - last), (w + f["tab"], h - last))
            .quiet_span("count", "Leaf 1", (w, h - first), (w, h - last)),
    }
}

/// Where the tab at a position starts and ends along an edge, mm from its start.
fn span(f: &Figures, position: usize, long: f64) -> [f64; 2] {
    let wide = (long - f["gap"] * (f["count"] - 1.0)) / f["count"];
    let from = (wide + f["gap"]) * position as f64;
    [from, from + wide]
}

/// A tab at its position along an edge that runs from `start` in the direction `way`; it stands out to
/// the left of that.
fn tab(
    leaf: Panel,
    f: &Figures,
    position: usize,
    start: (f64, f64),
    way: (f64, f64),
    long: f64,
) -> Panel {
    let [from, to] = span(f, position, long);
    let (high, lean) = (f["tab"], f["shoulder"]);
    let at = |along: f64, out: f64| {
        (start.0 + way.0 * along - way.1 * out, start.1 + way.1 * along + way.0 * out)
    };
    let radius = (high / 3.0).min(2.0);
    let [a, b, c, d] = [at(from, 0.0), at(from + lean, high), at(to - lean, high), at(to, 0.0)];
    leaf.cut_on(a.0, a.1).cut_rounded(b.0, b.1, radius).cut_rounded(c.0, c.1, radius).cut(d.0, d.1)
}
