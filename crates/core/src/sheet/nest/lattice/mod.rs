//! Many copies of one blank: rows of copies turned alike, or each second one turned by half, that slide into
//! each other, and rows that slide into rows.
//!
//! Every pitch is the least at which the shapes, grown by half the spacing, slide clear of each other, so
//! that neighbours are exactly the spacing apart.

mod draft;
mod lay;
mod stack;

use kurbo::Vec2;

use self::draft::Draft;
use self::lay::{Fits, lay};
use super::shape::{Pose, Shape, Turns};
use crate::sheet::Windows;

/// A row: its copies within one period, each turned and moved, and the period.
#[derive(Debug, Clone)]
struct Row {
    copies: Vec<(f64, Vec2)>,
    period: f64,
}

/// Rows that repeat: each row with where it stands beside and below the one before it.
#[derive(Debug, Clone)]
struct Lattice {
    rows: Vec<(Row, Vec2)>,
    /// Rows run from top to bottom rather than from left to right.
    upright: bool,
    /// Area for one copy, mm².
    each: f64,
}

/// Lattices that are laid into the window, of those that need least area.
const LAID: usize = 10;

/// The fullest sheet of one shape that a lattice gives.
pub(super) fn lattice(shape: &Shape, windows: &Windows) -> Vec<Pose> {
    let draft = Draft::new(shape);
    let turns = turns(shape);
    // Lying rows and upright ones, each on a core of its own.
    let of = |upright: bool| -> Vec<Lattice> {
        turns.iter().flat_map(|turn| draft.lattices(*turn, upright)).collect()
    };
    let mut found = std::thread::scope(|scope| {
        let upright = scope.spawn(|| of(true));
        let mut all = of(false);
        // A search that panicked has found nothing.
        all.extend(upright.join().unwrap_or_default());
        all
    });
    found.sort_by(|a, b| a.each.total_cmp(&b.each));
    let fits = Fits::new(shape, windows);
    let mut best: Vec<Pose> = Vec::new();
    for lattice in found.iter().take(LAID) {
        let room = windows.cut.base.area() / lattice.each;
        // Rows at the edges can hold more than their share, but not twice.
        if room * 2.0 + 8.0 < count(best.len()) {
            continue;
        }
        let laid = lay(lattice, windows, &fits);
        if laid.len() > best.len() {
            best = laid;
        }
    }
    best
}

#[expect(clippy::cast_precision_loss, reason = "at most some thousands")]
const fn count(copies: usize) -> f64 {
    copies as f64
}

/// Turns that are tried: all that are allowed, or those that bring an edge level, and steps of 15°. Half a turn
/// further a lattice is the same one, seen from its other end.
fn turns(shape: &Shape) -> Vec<f64> {
    match &shape.turns {
        Turns::These(turns) => {
            let mut different: Vec<f64> = Vec::new();
            for turn in turns {
                let is_half = |known: &f64| ((turn - known).rem_euclid(180.0)).abs() < 1e-9;
                if !different.iter().any(is_half) {
                    different.push(*turn);
                }
            }
            different
        }
        Turns::Any => {
            let mut turns: Vec<f64> = (0..12).map(|step| f64::from(step) * 15.0).collect();
            let points = shape.outline.points();
            let mut edges: Vec<Vec2> =
                (0..points.len()).map(|at| points[(at + 1) % points.len()] - points[at]).collect();
            edges.sort_by(|a, b| b.hypot2().total_cmp(&a.hypot2()));
            for edge in edges.iter().take(6) {
                let level = (-edge.atan2().to_degrees()).rem_euclid(180.0);
                if turns.iter().all(|known| (known - level).abs() > 0.5) {
                    turns.push(level);
                }
            }
            turns
        }
    }
}
