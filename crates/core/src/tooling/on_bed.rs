//! What is said of a path when it is known: whether it stays where cuts may lie, and where a blade cannot follow.

use super::path::{Stretch, ToolPath};
use crate::check::{Check, Drawing, Place, Stage, State};
use crate::error::Remedy;
use crate::geometry::Point;
use crate::sheet::Window;
use crate::units::{Unit, measure};
use crate::workshop::{AllowedBy, Cutter, Tool};

/// A turn from which on a place is a corner, radians.
const CORNER: f64 = 0.5;

/// Most places that are drawn.
const MOST: usize = 200;

/// The limits of a path on its bed.
#[must_use]
pub fn path_checks(
    path: &ToolPath,
    cutter: Option<&Cutter>,
    window: &Window,
    unit: Unit,
) -> Vec<Check> {
    let Some(cutter) = cutter else { return Vec::new() };
    let mut checks = vec![inside(path, window, cutter, unit)];
    checks.extend(corners(path, cutter, unit));
    checks
}

/// Swivels, overcuts and lead-ins stay where cuts may lie.
fn inside(path: &ToolPath, window: &Window, cutter: &Cutter, unit: Unit) -> Check {
    // The window leaves room for an axis that Aptum leads.
    let led = cutter.knife.allowed_by == AllowedBy::Aptum;
    let past = if led { cutter.knife.offset } else { 0.0 } + 1e-3;
    let edge = window.base.inflate(past, past);
    let is_out = |at: &&Point| !edge.contains(**at);
    let out: Vec<Point> =
        path.stretches.iter().flat_map(|own| own.way.iter().filter(is_out)).copied().collect();
    let (state, verdict) = match out.first() {
        None => (State::Fits, "the path stays where cuts may lie".to_owned()),
        Some(first) => (
            State::Broken,
            format!(
                "swivels or overcuts pass it at {} places, first at {} from the left and {} from the top",
                out.len(),
                measure(first.x, unit),
                measure(first.y, unit)
            ),
        ),
    };
    let texts = [out.len().to_string(), "places outside".to_owned(), verdict];
    let check = Check::yes_or_no("tooling-window", Stage::Tooling, "Cut window", state, texts);
    let check = Check { place: placed(&out), ..check };
    check.remedy(Remedy::advice(
        "Move the pieces away from the edge on Sheet by the blade’s offset, or let the machine allow for the blade",
    ))
}

/// Corners that lie nearer to each other, and curves that are tighter, than the blade trails.
fn corners(path: &ToolPath, cutter: &Cutter, unit: Unit) -> Option<Check> {
    let offset = cutter.knife.offset;
    let is_knife = |own: &&Stretch| {
        let operation = path.worked.get(own.operation).map(|own| &own.operation);
        own.pass == 1 && operation.is_some_and(|own| own.tool == Tool::DragKnife)
    };
    let knives: Vec<&Stretch> = path.stretches.iter().filter(is_knife).collect();
    if offset <= 0.0 || knives.is_empty() {
        return None;
    }
    let tight: Vec<Point> = knives.iter().flat_map(|own| tight(&own.line, offset)).collect();
    let show = |mm: f64| measure(mm, unit);
    let (state, verdict) = if tight.is_empty() {
        (State::Fits, "the blade gets round".to_owned())
    } else {
        (State::Attention, format!("tighter than the blade trails, {}", show(offset)))
    };
    let texts = [tight.len().to_string(), "tight places".to_owned(), verdict];
    let check = Check::yes_or_no("tooling-corners", Stage::Tooling, "Corners", state, texts);
    let check = Check { place: placed(&tight), ..check };
    Some(check.remedy(Remedy::advice(
        "Round or straighten these places on Form, or take a blade with a smaller offset: there the cut is torn",
    )))
}

/// Places of a line that a blade which trails so far cannot follow.
fn tight(line: &[Point], offset: f64) -> Vec<Point> {
    let turn = |at: usize| {
        let (into, out) = (line[at] - line[at - 1], line[at + 1] - line[at]);
        into.cross(out).atan2(into.dot(out)).abs()
    };
    let count = line.len();
    let mut found = Vec::new();
    for at in 1..count.saturating_sub(1) {
        let here = turn(at);
        let (back, on) = (line[at - 1].distance(line[at]), line[at].distance(line[at + 1]));
        if here >= CORNER {
            // Two corners with less than the blade between them.
            if at + 2 < count && on < offset && turn(at + 1) >= CORNER {
                found.push(line[at].midpoint(line[at + 1]));
            }
        } else if here > 0.05 && back.min(on) > 1e-9 {
            // The radius of the circle on which the three lie, about.
            let radius = f64::midpoint(back, on) / here;
            if radius < offset * 0.98 && back.max(on) < 2.0 * offset {
                found.push(line[at]);
            }
        }
    }
    found
}

/// Small crosses at places on the sheet.
fn placed(places: &[Point]) -> Option<Place> {
    let cross =
        |at: &Point| format!("M{:.2} {:.2}h3M{:.2} {:.2}v3", at.x - 1.5, at.y, at.x, at.y - 1.5);
    let path: String = places.iter().take(MOST).map(cross).collect();
    (!path.is_empty()).then_some(Place { drawing: Drawing::Sheet, piece: None, path })
}
