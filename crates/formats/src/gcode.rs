//! G-code (ISO 6983) of a sheet's tool path, for machines that draw a knife or press a wheel: millimetres, absolute, from
//! the sheet's lower left corner, `Z` 0 on the card's face.

use std::io::{self, Write};

use aptum_core::geometry::{Point, Rect};
use aptum_core::tooling::{Before, Operation, ToolPath};
use aptum_core::workshop::{Cutter, Gcode};

use crate::loading::{seen_as, stands_still};

/// Writes what is done in one loading of a sheet: `G0` while the tool is up, `G1` while it is down, `M0` where a person has
/// something to do, `T` for the station.
///
/// # Errors
/// What writing to `out` says.
pub fn gcode(
    path: &ToolPath,
    loading: usize,
    cutter: &Cutter,
    page: Rect,
    out: &mut dyn Write,
) -> io::Result<()> {
    let how = cutter.gcode.unwrap_or_default();
    let seen = seen_as(path, loading, page);
    let xy = |at: &Point| {
        let at = seen * *at;
        format!("X{} Y{}", number(at.x - page.x0), number(page.y1 - at.y))
    };
    writeln!(out, "%\nG21\nG90\nG0 Z{}", number(how.travel))?;
    let mut last = None;
    let mut feed = String::new();
    for stretch in path.of_loading(loading) {
        let Some(worked) = path.worked.get(stretch.operation) else { continue };
        let operation = &worked.operation;
        if last != Some(stretch.operation) {
            last = Some(stretch.operation);
            setting(operation, cutter, out)?;
            let usual = cutter.pace.map_or(50.0, |pace| pace.working);
            // Feeds are told by the minute.
            feed = number(operation.speed.unwrap_or(usual) * 60.0);
        }
        let mut places = stretch.way.iter();
        let Some(first) = places.next() else { continue };
        writeln!(out, "G0 {}", xy(first))?;
        writeln!(out, "G1 Z{} F{feed}", number(-depth(operation, how)))?;
        for place in places {
            writeln!(out, "G1 {}", xy(place))?;
        }
        writeln!(out, "G0 Z{}", number(how.travel))?;
    }
    writeln!(out, "M2\n%")
}

/// How deep an operation goes, mm.
fn depth(operation: &Operation, how: Gcode) -> f64 {
    operation.depth.unwrap_or(how.depth)
}

fn setting(operation: &Operation, cutter: &Cutter, out: &mut dyn Write) -> io::Result<()> {
    let station = operation.station.and_then(|at| cutter.stations.get(at));
    let name = station.map_or("by hand", |station| station.name.as_str());
    // A comment ends with the bracket that it begins with.
    let plain = |text: &str| text.replace(['(', ')', '%', '\n'], " ");
    writeln!(out, "({}: {})", plain(&operation.name()), plain(name))?;
    if operation.before.iter().any(|before: &Before| stands_still(*before)) {
        writeln!(out, "M0")?;
    }
    writeln!(out, "T{} M6", operation.station.map_or(1, |at| at + 1))
}

/// A number to a thousandth, without what it does not need.
fn number(mm: f64) -> String {
    let text = format!("{:.3}", (mm * 1000.0).round() / 1000.0);
    let text = text.trim_end_matches('0').trim_end_matches('.');
    if text == "-0" { "0".to_owned() } else { text.to_owned() }
}
