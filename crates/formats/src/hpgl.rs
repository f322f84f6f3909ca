//! HP-GL of a sheet's tool path, in the dialect of its cutter. Only what the path says is written.

use std::fmt::Write as _;
use std::io::{self, Write};

use aptum_core::geometry::{Point, Rect};
use aptum_core::tooling::{Before, Operation, ToolPath};
use aptum_core::workshop::{Corner, Dialect};

use crate::loading::{seen_as, stands_still};

/// Writes what is done in one loading of a sheet: `IN`, for each operation its station, depth, force, speed and passes, then
/// `PU` to where a line begins and `PD` along it; `NR` where the machine waits for a person.
///
/// # Errors
/// What writing to `out` says.
pub fn hpgl(
    path: &ToolPath,
    loading: usize,
    dialect: &Dialect,
    page: Rect,
    out: &mut dyn Write,
) -> io::Result<()> {
    let seen = seen_as(path, loading, page);
    let units = |at: Point| units(seen * at, dialect, page);
    write!(out, "IN;PU;")?;
    let mut last = None;
    let mut text = String::new();
    for stretch in path.of_loading(loading) {
        let Some(worked) = path.worked.get(stretch.operation) else { continue };
        if last != Some(stretch.operation) {
            last = Some(stretch.operation);
            writeln!(out)?;
            setting(&worked.operation, dialect, out)?;
        }
        // A machine that repeats lines by itself gets each once.
        let repeats = !dialect.passes.is_empty();
        if repeats && !(stretch.pass - 1).is_multiple_of(worked.operation.passes.max(1)) {
            continue;
        }
        let mut places = stretch.way.iter().map(|at| units(*at));
        let Some(first) = places.next() else { continue };
        text.clear();
        // Writing to a string cannot fail.
        let _ = write!(text, "PU{},{};PD", first.0, first.1);
        let mut before = first;
        let mut is_any = false;
        for place in places.filter(|place| {
            // Places that round to the same one are one.
            std::mem::replace(&mut before, *place) != *place
        }) {
            let comma = if is_any { "," } else { "" };
            is_any = true;
            let _ = write!(text, "{comma}{},{}", place.0, place.1);
        }
        text.push(';');
        out.write_all(text.as_bytes())?;
    }
    writeln!(out, "PU;SP0;")
}

/// What is told before an operation.
fn setting(operation: &Operation, dialect: &Dialect, out: &mut dyn Write) -> io::Result<()> {
    let is_stop = |before: &Before| stands_still(*before);
    if operation.before.iter().any(is_stop) {
        write!(out, "PU;NR;")?;
    }
    let mut tell = |command: &str, number: Option<String>| match number {
        Some(number) if !command.is_empty() => {
            write!(out, "{}", command.replacen("{}", &number, 1))
        }
        _ => Ok(()),
    };
    let station = operation.station.map_or(1, |at| at + 1);
    tell(&dialect.station, Some(station.to_string()))?;
    let amount = |own: f64| format!("{}", (own * 100.0).round() / 100.0);
    tell(&dialect.depth, operation.depth.map(amount))?;
    tell(&dialect.force, operation.force.map(|force| amount(force.amount)))?;
    let slow = |speed: f64| format!("{:.0}", (speed / 10.0).max(1.0));
    tell(&dialect.speed, operation.speed.map(slow))?;
    tell(&dialect.passes, Some(operation.passes.to_string()))
}

/// A place of the sheet in the machine's units, from its corner, rounded as HP-GL has it.
fn units(at: Point, dialect: &Dialect, page: Rect) -> (i64, i64) {
    let (x, y) = fine_units(at, dialect, page);
    #[expect(clippy::cast_possible_truncation, reason = "a sheet has metres, not kilometres")]
    let round = |own: f64| own.round() as i64;
    (round(x), round(y))
}

/// The same, not rounded.
pub(crate) fn fine_units(at: Point, dialect: &Dialect, page: Rect) -> (f64, f64) {
    let (x, y) = match dialect.origin {
        Corner::TopLeft => (at.x - page.x0, at.y - page.y0),
        Corner::TopRight => (page.x1 - at.x, at.y - page.y0),
        Corner::BottomRight => (page.x1 - at.x, page.y1 - at.y),
        Corner::BottomLeft => (at.x - page.x0, page.y1 - at.y),
    };
    let (x, y) = (x * dialect.units, y * dialect.units);
    if dialect.swapped { (y, x) } else { (x, y) }
}
