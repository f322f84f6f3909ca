//! What can be done to chosen copies, and whether it can be done to these.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::error::{Faults, InputError, Remedy};
use crate::id::{PartId, PieceId};
use crate::sheet::Ground;
use crate::sheet::SheetRun;

/// An edge or a middle to bring copies to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum AlignTo {
    /// Left edges.
    Left,
    /// Middles, side by side.
    Middle,
    /// Right edges.
    Right,
    /// Top edges.
    Top,
    /// Middles, one above the other.
    Centre,
    /// Bottom edges.
    Bottom,
}

/// A direction on the sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Direction {
    /// From left to right.
    Across,
    /// From top to bottom.
    Down,
}

/// What is done to the chosen copies.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(tag = "act", rename_all = "kebab-case")]
pub enum Act {
    /// Moved, and drawn to lines nearer than `snap` mm; 0 draws to none.
    Move {
        /// To the right, mm.
        x: f64,
        /// Down, mm.
        y: f64,
        /// How near a line must be, mm.
        snap: f64,
    },
    /// Turned about their common middle, degrees clockwise.
    Turn {
        /// By how much.
        degrees: f64,
    },
    /// Brought to a common edge or middle; a single copy to the cut window's.
    Align {
        /// Which.
        to: AlignTo,
    },
    /// Given equal gaps between the first and the last.
    Distribute {
        /// Along which direction.
        along: Direction,
    },
    /// Repeated in a grid.
    Grid {
        /// Columns, themselves included.
        columns: u32,
        /// Rows, themselves included.
        rows: u32,
        /// Gap between columns, mm.
        across: f64,
        /// Gap between rows, mm.
        down: f64,
    },
    /// Stay where they are when the others are laid again.
    Lock,
    /// May be laid again.
    Unlock,
    /// Taken off the sheet.
    Remove,
    /// Another copy of a blank put into the middle of the window.
    Add {
        /// The piece.
        piece: PieceId,
        /// Which of its blanks.
        part: PartId,
    },
}

/// An act on the copies of one run of sheets.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Arrange {
    /// Which run of sheets that are alike.
    pub run: usize,
    /// The chosen copies, by their place in it.
    pub chosen: Vec<usize>,
    /// What is done.
    pub what: Act,
}

/// Most places in a layout.
const MOST: usize = 5000;

pub(super) fn check(
    ask: &Arrange,
    runs: &[SheetRun],
    ground: &Ground,
    places: usize,
) -> Result<(), Vec<InputError>> {
    let mut faults = Faults::default();
    let count = |number: usize| f64::from(u32::try_from(number).unwrap_or(u32::MAX));
    let again = || Remedy::advice("Choose it again: the sheet has been laid anew");
    if ask.run >= runs.len() {
        let text =
            format!("There is no sheet {}: the job has {}", ask.run.saturating_add(1), runs.len());
        faults.add(InputError::new("run", text, count(ask.run), again()));
    }
    let held = runs.get(ask.run).map_or(0, |run| run.placements.len());
    if let Some(stray) = ask.chosen.iter().find(|at| **at >= held) {
        let text =
            format!("There is no copy {} on this sheet: it has {held}", stray.saturating_add(1));
        faults.add(InputError::new("chosen", text, count(*stray), again()));
    }
    let mut range = |name: &str, value: f64, most: f64| {
        faults.range(name, &format!("The {name}"), value, -most..=most, |n| format!("{n}"));
    };
    match &ask.what {
        &Act::Move { x, y, snap } => {
            range("x", x, 5000.0);
            range("y", y, 5000.0);
            range("snap", snap, 50.0);
        }
        &Act::Turn { degrees } => range("degrees", degrees, 3600.0),
        &Act::Grid { columns, rows, across, down } => {
            range("gap across", across, 500.0);
            range("gap down", down, 500.0);
            let more = count(ask.chosen.len()) * f64::from(columns) * f64::from(rows);
            if columns == 0 || rows == 0 || count(places) + more > count(MOST) {
                faults.add(InputError::new(
                    "columns",
                    format!("{columns} × {rows} makes {more} copies: a layout holds 1 to {MOST}"),
                    more,
                    Remedy::advice("Repeat fewer, or nest the job"),
                ));
            }
        }
        Act::Add { piece, part } => match ground.number(piece, part) {
            None => {
                let text =
                    format!("The job has no blank “{}” of “{}”", part.shown(), piece.shown());
                faults.add(InputError::plain("part", text, again()));
            }
            Some(number) => {
                let run = runs.get(ask.run).filter(|run| !run.placements.is_empty());
                if run.is_some_and(|run| *ground.card_of(run) != ground.cards[number]) {
                    faults.add(InputError::plain(
                        "part",
                        format!("“{}” is cut from another card than this sheet", part.shown()),
                        Remedy::advice("Add it to a sheet of its card"),
                    ));
                }
            }
        },
        _ => {}
    }
    faults.or(())
}
