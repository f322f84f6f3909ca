//! Tools and depths that share a station.

use super::{active, standard, told, tool_name};
use crate::LineKind;
use crate::check::{Check, State};
use crate::error::Remedy;
use crate::tooling::operations::{Before, Operation};
use crate::workshop::{Cutter, DepthSetting, Tool};

/// Two cuts of different depths in one station: by its own depth, by a stop, or by force alone.
pub(super) fn depth(operations: &[Operation], cutter: &Cutter) -> Option<Check> {
    let is_part = |kind| matches!(kind, LineKind::KissCut | LineKind::Score);
    let is_through = |kind| matches!(kind, LineKind::Cut | LineKind::Perforation);
    let knives = |of: &dyn Fn(LineKind) -> bool| -> Vec<&Operation> {
        active(operations).filter(|own| own.tool == Tool::DragKnife && of(own.kind)).collect()
    };
    let through = knives(&is_through);
    let pair = knives(&is_part).into_iter().find_map(|part| {
        let other = through.iter().find(|own| own.station == part.station)?;
        Some((part, *other))
    });
    let (part, other) = pair?;
    let station = cutter.stations.get(part.station?)?;
    let names = format!("{} and {}", part.name(), other.name());
    let is_apart = part.depth.zip(other.depth).is_some_and(|(one, two)| one != two);
    let (state, way, verdict) = match (is_apart, station.depth) {
        (true, DepthSetting::Itself) => {
            (State::Fits, "own depths", format!("{} sets them itself", station.name))
        }
        (true, DepthSetting::Stepped | DepthSetting::Cap) => (
            State::Fits,
            "own depths",
            format!("it stops between {names} for the depth of {}", station.name),
        ),
        (true, DepthSetting::Fixed) => (
            State::Broken,
            "two depths",
            format!("{} has one depth: {names} can differ in force and speed only", station.name),
        ),
        (false, _)
            if part.force.is_some() && other.force.is_some() && part.force != other.force =>
        {
            (State::Fits, "one depth", format!("{names} differ in force"))
        }
        (false, _) => (
            State::Attention,
            "one depth",
            format!("nothing tells {names} apart yet: give them forces of their own"),
        ),
    };
    let texts = [way.to_owned(), format!("in {}", station.name), verdict];
    let mut check = told("tooling-depth", "Part and through", state, texts);
    if state == State::Broken {
        let text = format!("Leave the depth of {names} as it is");
        let changes = vec![standard(part, "depth"), standard(other, "depth")];
        check = check.remedy(Remedy { text, changes });
    } else if state == State::Attention {
        check = check.remedy(Remedy::advice(format!(
            "Cut a test for each: {} needs the least force, {} the most",
            part.name(),
            other.name()
        )));
    }
    Some(check)
}

pub(super) fn stops(operations: &[Operation], cutter: &Cutter) -> Option<Check> {
    let is_stop = |before: &Before| *before != Before::Load;
    let stops: Vec<(&Operation, Before)> = active(operations)
        .filter_map(|own| Some((own, *own.before.iter().find(|before| is_stop(before))?)))
        .collect();
    let (first, before) = stops.first()?;
    let station = first.station.and_then(|at| cutter.stations.get(at));
    let station = station.map_or("its station", |station| station.name.as_str());
    let what = match before {
        Before::Tool => format!("a {} goes into {station}", tool_name(first.tool)),
        Before::Cap => format!("another cap goes onto {station}"),
        _ => format!("{station} is set to step {}", first.depth.unwrap_or_default()),
    };
    let own = [
        stops.len().to_string(),
        if stops.len() == 1 { "stop" } else { "stops" }.to_owned(),
        format!("before {}: {what}", first.name()),
    ];
    // It is part of the work: told, not warned of.
    Some(told("tooling-stops", "Stops", State::Fits, own))
}
