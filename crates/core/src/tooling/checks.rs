//! What is said of how lines are worked.

use super::operations::Operation;
use crate::check::{Check, Stage, State};
use crate::error::{Change, Remedy, Setting};
use crate::workshop::{Cutter, Tool};

/// The limits of the operations on a cutter.
pub(crate) fn tooling_checks(operations: &[Operation], cutter: Option<&Cutter>) -> Vec<Check> {
    let Some(cutter) = cutter else { return Vec::new() };
    let mut checks = vec![stations(operations, cutter)];
    checks.extend(off(operations));
    checks.extend(force(operations, cutter));
    checks.extend(stops(operations, cutter));
    checks
}

const fn tool(tool: Tool) -> &'static str {
    match tool {
        Tool::DragKnife => "knife",
        Tool::Creaser => "creaser",
        Tool::Pen => "pen",
    }
}

fn stations(operations: &[Operation], cutter: &Cutter) -> Check {
    let lacking: Vec<&Operation> =
        operations.iter().filter(|own| !own.is_off && own.station.is_none()).collect();
    let own = match lacking.as_slice() {
        [] => {
            [operations.len().to_string(), "operations".to_owned(), "each has a station".to_owned()]
        }
        [first, ..] => [
            lacking.len().to_string(),
            "without a station".to_owned(),
            format!(
                "{}: no station of {} holds a {}",
                first.kind.name(),
                cutter.name,
                tool(first.tool)
            ),
        ],
    };
    let state = if lacking.is_empty() { State::Fits } else { State::Broken };
    let mut check = Check::yes_or_no("tooling-stations", Stage::Tooling, "Stations", state, own);
    if let Some(first) = lacking.first() {
        let field = format!("tooling.operations.{}", first.kind.id());
        let back =
            Change { value: Setting::Standard, ..Change::new(&format!("{field}.station"), 0.0) };
        let off =
            Change { value: Setting::Switch(true), ..Change::new(&format!("{field}.off"), 0.0) };
        let text = format!("Work no {}", first.kind.name());
        check = check
            .remedy(Remedy { text, changes: vec![off, back] })
            .remedy(Remedy::advice("Choose another cutter on Sheet, or put the tool into one of its stations in the Workshop"));
    }
    check
}

fn off(operations: &[Operation]) -> Option<Check> {
    let off: Vec<&Operation> = operations.iter().filter(|own| own.is_off).collect();
    let first = off.first()?;
    let own = [
        off.len().to_string(),
        "not worked".to_owned(),
        format!("{} is on the sheet and stays as it is", first.kind.name()),
    ];
    let check =
        Check::yes_or_no("tooling-off", Stage::Tooling, "Switched off", State::Attention, own);
    let field = format!("tooling.operations.{}.off", first.kind.id());
    let text = format!("Work {} too", first.kind.name());
    Some(check.remedy(Remedy::set(text, &field, false)))
}

fn force(operations: &[Operation], cutter: &Cutter) -> Option<Check> {
    let most = cutter.force?;
    let forced = operations.iter().filter(|own| !own.is_off);
    let (force, own) = forced
        .filter_map(|own| Some((own.force?, own)))
        .max_by(|one, other| one.0.total_cmp(&other.0))?;
    let state = if force > most { State::Broken } else { State::Fits };
    let verdict = if force > most {
        format!("{:.1} N more than the cutter has", force - most)
    } else {
        format!("{:.1} N left", most - force)
    };
    let texts = [format!("{force}"), format!("of {most} N"), verdict];
    let check = Check::yes_or_no("tooling-force", Stage::Tooling, "Greatest force", state, texts);
    let field = format!("tooling.operations.{}.force", own.kind.id());
    Some(check.remedy(Remedy::set(format!("Set {} to {most} N", own.kind.name()), &field, most)))
}

fn stops(operations: &[Operation], cutter: &Cutter) -> Option<Check> {
    let stops: Vec<&Operation> = operations.iter().filter(|own| own.is_after_stop).collect();
    let first = stops.first()?;
    let station = first.station.and_then(|at| cutter.stations.get(at));
    let own = [
        stops.len().to_string(),
        if stops.len() == 1 { "stop" } else { "stops" }.to_owned(),
        format!(
            "before {}: a {} goes into {}",
            first.kind.name(),
            tool(first.tool),
            station.map_or("its station", |station| station.name.as_str())
        ),
    ];
    // It is part of the work: told, not warned of.
    Some(Check::yes_or_no("tooling-stops", Stage::Tooling, "Change of tool", State::Fits, own))
}
