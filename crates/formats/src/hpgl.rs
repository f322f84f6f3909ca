//! HP-GL of a sheet's tool path, in the dialect of its cutter. Only what the path says is written.

use std::fmt::Write as _;
use std::io::{self, Write};

use aptum_core::geometry::{Point, Rect};
use aptum_core::tooling::{Operation, ToolPath};
use aptum_core::workshop::{Corner, Dialect};

/// Grams of force in a newton (standard gravity, ISO 80000-4: 9.80665 m/s²).
const GRAMS: f64 = 1000.0 / 9.806_65;

/// Writes the path of a sheet: `IN`, for each operation its station, force and speed, then `PU` to where a line begins and
/// `PD` along it; `NR` where the machine waits for another tool.
///
/// # Errors
/// What writing to `out` says.
pub fn hpgl(path: &ToolPath, dialect: &Dialect, page: Rect, out: &mut dyn Write) -> io::Result<()> {
    let units = |at: Point| units(at, dialect, page);
    write!(out, "IN;PU;")?;
    let mut last = None;
    let mut text = String::new();
    for stretch in &path.stretches {
        if last != Some(stretch.operation) {
            last = Some(stretch.operation);
            if let Some(worked) = path.worked.get(stretch.operation) {
                writeln!(out)?;
                setting(&worked.operation, dialect, out)?;
            }
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

/// The station, the force and the speed of an operation.
fn setting(operation: &Operation, dialect: &Dialect, out: &mut dyn Write) -> io::Result<()> {
    let told = |command: &str, number: String| command.replacen("{}", &number, 1);
    if operation.is_after_stop {
        write!(out, "PU;NR;")?;
    }
    let station = operation.station.map_or(1, |at| at + 1);
    write!(out, "{}", told(&dialect.station, station.to_string()))?;
    if let Some(force) = operation.force.filter(|_| !dialect.force.is_empty()) {
        write!(out, "{}", told(&dialect.force, format!("{:.0}", force * GRAMS)))?;
    }
    if let Some(speed) = operation.speed.filter(|_| !dialect.speed.is_empty()) {
        write!(out, "{}", told(&dialect.speed, format!("{:.0}", (speed / 10.0).max(1.0))))?;
    }
    Ok(())
}

/// A place of the sheet in the machine's units, from its corner.
fn units(at: Point, dialect: &Dialect, page: Rect) -> (i64, i64) {
    let (x, y) = match dialect.origin {
        Corner::TopLeft => (at.x - page.x0, at.y - page.y0),
        Corner::TopRight => (page.x1 - at.x, at.y - page.y0),
        Corner::BottomRight => (page.x1 - at.x, page.y1 - at.y),
        Corner::BottomLeft => (at.x - page.x0, page.y1 - at.y),
    };
    #[expect(clippy::cast_possible_truncation, reason = "a sheet has metres, not kilometres")]
    let round = |mm: f64| (mm * dialect.units).round() as i64;
    let (x, y) = (round(x), round(y));
    if dialect.swapped { (y, x) } else { (x, y) }
}
