//! A piece in two parts: cut at a crease or across a panel, and joined with a flap before it is folded.

use kurbo::{Affine, Point};
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::design::{Blank, Design, Edge, Move, Must, Step};
use super::flaps;
use super::panel::CutOff;
use crate::error::{Faults, InputError, Remedy, Setting};
use crate::units::{Unit, measure};

/// Width of a join flap, mm.
const FLAP: std::ops::RangeInclusive<f64> = 5.0..=60.0;

/// The join flap's name.
pub const JOIN_FLAP: &str = "Join flap";

/// Where a piece is cut apart.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum SplitBy {
    /// At the crease on which the panel hangs.
    #[default]
    Crease,
    /// Across the panel, parallel to its crease.
    Across,
    /// Square to that; only the panel that everything hangs on.
    Along,
}

/// How a piece is cut apart.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Split {
    /// The panel with which the second part begins, or that is cut across.
    pub panel: String,
    /// Where.
    #[serde(default)]
    pub by: SplitBy,
    /// How far from the panel's crease, or from its first corner along it, mm; not used at a crease.
    #[serde(default)]
    pub at: f64,
    /// Width of the join flap, mm; 5 to 60.
    #[serde(default = "usual_flap")]
    pub flap: f64,
}

const fn usual_flap() -> f64 {
    flaps::GLUE_STANDARD
}

/// Cuts a design apart.
pub(super) fn split(
    split: &Split,
    design: &mut Design,
    caliper: f64,
    faults: &mut Faults,
    unit: Unit,
) {
    faults.range("form.split.flap", "The join flap", split.flap, FLAP, |mm| measure(mm, unit));
    if !FLAP.contains(&split.flap) {
        return;
    }
    let found = design.blanks.iter_mut().enumerate().find_map(|(number, blank)| {
        let placed = blank.root.unfold(blank.frame).panels;
        let frame = placed.into_iter().find(|panel| panel.name == split.panel)?.frame;
        cut(split, blank, caliper).map(|off| (number, frame, off))
    });
    let Some((number, frame, off)) = found else {
        let panel: String = split.panel.chars().take(60).collect();
        faults.add(InputError::plain(
            "form.split.panel",
            format!("The piece cannot be cut apart at “{panel}”: it has no such panel, or something is in the way of the cut"),
            Remedy::set("Keep it in one piece", "form.split", Setting::Standard),
        ));
        return;
    };
    let frame = match split.by {
        SplitBy::Crease => frame,
        SplitBy::Across | SplitBy::Along => {
            let [from, to] = off.joined.ends;
            let along = (to - from).normalize();
            frame * Affine::new([along.x, along.y, -along.y, along.x, from.x, from.y])
        }
    };
    join(design, number, off, frame);
}

fn cut(split: &Split, blank: &mut Blank, caliper: f64) -> Option<CutOff> {
    let flap = |long: f64| {
        // As wide as its tapered ends allow.
        let wide = split.flap.min(0.9 * flaps::glue_limit(long)).max(1.0);
        flaps::glue_flap(JOIN_FLAP, long, wide).set_by("split.flap")
    };
    let second = format!("{}, second half", split.panel);
    let is_root = blank.root.name == split.panel;
    let at = split.at;
    match split.by {
        SplitBy::Crease => blank.root.cut_off(&split.panel, caliper, &flap),
        SplitBy::Across => {
            let panel = blank.root.find_mut(&split.panel)?;
            panel.cut_across(&|p: Point| p.y - at, caliper, &flap, &second)
        }
        SplitBy::Along if is_root => {
            blank.root.cut_across(&|p: Point| p.x - at, caliper, &flap, &second)
        }
        SplitBy::Along => None,
    }
}

/// Makes what was cut off a blank of its own, with the step that joins it and what must hold of the joint.
fn join(design: &mut Design, number: usize, off: CutOff, frame: Affine) {
    let CutOff { root, joined } = off;
    let name = design.blanks[number].name.clone();
    design.blanks[number].name = format!("{name}, first part");
    let long = (joined.ends[1] - joined.ends[0]).hypot();
    let edges = (
        Edge { panel: joined.panel.clone(), ends: joined.ends },
        Edge::new(root.name.clone(), (0.0, 0.0), (long, 0.0)),
    );
    design.musts.push(Must::Meet(edges.0, edges.1));
    design.musts.push(Must::Glue(JOIN_FLAP.to_owned(), root.name.clone(), 0.0));
    for step in &mut design.steps {
        // The flap goes with what is glued onto it.
        let with: Vec<Move> = step
            .moves
            .iter()
            .filter_map(|change| match change {
                Move::Close(name) if *name == root.name => Some(Move::Close(JOIN_FLAP.to_owned())),
                Move::Turn(name, to) if *name == root.name => {
                    Some(Move::Turn(JOIN_FLAP.to_owned(), *to))
                }
                _ => None,
            })
            .collect();
        step.moves.extend(with);
    }
    let text = format!(
        "Lay both parts flat and glue the {} onto the join flap of the {}, edges meeting",
        root.name.to_lowercase(),
        joined.panel.to_lowercase()
    );
    design.steps.insert(0, Step { text, moves: Vec::new() });
    design.blanks.push(Blank {
        name: format!("{name}, second part"),
        root,
        frame,
        joined: Some(joined),
    });
}
