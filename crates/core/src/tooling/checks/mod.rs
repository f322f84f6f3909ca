//! What is said of how lines are worked.

mod depths;
mod holding;

use super::operations::Operation;
use crate::LineKind;
use crate::check::{Check, Stage, State};
use crate::error::{Change, Remedy, Setting};
use crate::form::Part;
use crate::job::{Job, Moment};
use crate::records::Records;
use crate::sheet::Placement;
use crate::workshop::{Cutter, Finds, Tool, Workshop};

use self::depths::{depth, stops};
use self::holding::{nicks, waste};
use kurbo::Rect;

/// What the limits of tooling read.
pub(crate) struct ToolingGround<'a> {
    /// The job.
    pub job: &'a Job,
    /// The workshop.
    pub workshop: &'a Workshop,
    /// The records that the job uses.
    pub records: &'a Records<'a>,
    /// What is done.
    pub operations: &'a [Operation],
    /// Every blank.
    pub blanks: &'a [&'a Part],
    /// The copies of each run of sheets.
    pub runs: Vec<&'a [Placement]>,
    /// Where cuts may lie.
    pub window: Rect,
}

/// The limits of the operations on a cutter.
pub(crate) fn tooling_checks(ground: &ToolingGround<'_>) -> Vec<Check> {
    let Some(cutter) = ground.records.cutter else { return Vec::new() };
    let operations = ground.operations;
    let mut checks = vec![stations(operations, cutter)];
    checks.extend(off(operations));
    checks.extend(force_unit(operations, cutter));
    checks.extend(force(operations, cutter));
    checks.extend(depth(operations, cutter));
    checks.extend(stops(operations, cutter));
    checks.extend(bed(ground, cutter));
    checks.extend(sequence(ground));
    checks.extend(loadings(operations, cutter));
    checks.extend(nicks(ground));
    checks.extend(waste(ground));
    checks
}

/// What a tool is called.
#[must_use]
pub const fn tool_name(tool: Tool) -> &'static str {
    match tool {
        Tool::DragKnife => "knife",
        Tool::Creaser => "creaser",
        Tool::Pen => "pen",
    }
}

fn field(own: &Operation, name: &str) -> String {
    format!("tooling.operations.{}.{name}", own.id.0)
}

fn standard(own: &Operation, name: &str) -> Change {
    Change { value: Setting::Standard, ..Change::new(&field(own, name), 0.0) }
}

fn active(operations: &[Operation]) -> impl Iterator<Item = &Operation> {
    operations.iter().filter(|own| !own.is_off)
}

fn told(id: &str, label: &str, state: State, texts: [String; 3]) -> Check {
    Check::yes_or_no(id, Stage::Tooling, label, state, texts)
}

fn stations(operations: &[Operation], cutter: &Cutter) -> Check {
    let lacking: Vec<&Operation> = active(operations).filter(|own| own.station.is_none()).collect();
    let own = match lacking.as_slice() {
        [] => {
            [operations.len().to_string(), "operations".to_owned(), "each has a station".to_owned()]
        }
        [first, ..] => [
            lacking.len().to_string(),
            "without a station".to_owned(),
            format!(
                "{}: no station of {} holds a {}",
                first.name(),
                cutter.name,
                tool_name(first.tool)
            ),
        ],
    };
    let state = if lacking.is_empty() { State::Fits } else { State::Broken };
    let mut check = told("tooling-stations", "Stations", state, own);
    if let Some(first) = lacking.first() {
        let off = Change::new(&field(first, "off"), true);
        let text = format!("Work no {}", first.name());
        check = check
            .remedy(Remedy { text, changes: vec![off, standard(first, "station")] })
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
        format!("{} is on the sheet and stays as it is", first.name()),
    ];
    let check = told("tooling-off", "Switched off", State::Attention, own);
    let text = format!("Work {} too", first.name());
    Some(check.remedy(Remedy::set(text, &field(first, "off"), false)))
}

fn force_unit(operations: &[Operation], cutter: &Cutter) -> Option<Check> {
    let other = active(operations)
        .find_map(|own| Some((own, own.force.filter(|own| own.unit != cutter.force_unit)?)));
    let (own, force) = other?;
    let texts = [
        force.text(),
        format!("on a machine that takes {}", cutter.force_unit.symbol()),
        format!("{}: it means nothing to {}", own.name(), cutter.name),
    ];
    let check = told("tooling-force-unit", "Unit of force", State::Broken, texts);
    let text = format!("Leave the force of {} to the machine", own.name());
    Some(check.remedy(Remedy { text, changes: vec![standard(own, "force")] }).remedy(
        Remedy::advice("Cut a test with this cutter, and take the force that comes out just right"),
    ))
}

fn force(operations: &[Operation], cutter: &Cutter) -> Option<Check> {
    let most = cutter.most_force()?;
    let forced = active(operations)
        .filter_map(|own| Some((own.force.filter(|own| own.unit == most.unit)?, own)));
    let (force, own) = forced.max_by(|one, other| one.0.amount.total_cmp(&other.0.amount))?;
    let over = force.amount - most.amount;
    let state = if over > 0.0 { State::Broken } else { State::Fits };
    let apart = crate::workshop::Force { amount: over.abs(), ..most }.text();
    let verdict = if over > 0.0 {
        format!("{apart} more than the cutter has")
    } else {
        format!("{apart} left")
    };
    let texts = [format!("{}", force.amount), format!("of {}", most.text()), verdict];
    let check = told("tooling-force", "Greatest force", state, texts);
    let text = format!("Set {} to {}", own.name(), most.text());
    let unit = match most.unit {
        crate::workshop::ForceUnit::Newtons => "newtons",
        crate::workshop::ForceUnit::Grams => "grams",
        crate::workshop::ForceUnit::Steps => "steps",
    };
    let changes = vec![
        Change::new(&field(own, "force.amount"), most.amount),
        Change::new(&field(own, "force.unit"), unit),
    ];
    Some(check.remedy(Remedy { text, changes }))
}

/// What is cut through is cut into what lies beneath.
fn bed(ground: &ToolingGround<'_>, cutter: &Cutter) -> Option<Check> {
    let through = active(ground.operations)
        .find(|own| matches!(own.kind, LineKind::Cut | LineKind::Perforation))?;
    let (state, value, verdict) = if let Some(carrier) = ground.records.carrier {
        (State::Fits, "carrier", format!("on {}", carrier.name))
    } else if cutter.bears_cuts {
        (State::Fits, "its bed", format!("{} bears cuts", cutter.name))
    } else {
        let name = &cutter.name;
        (State::Attention, "nothing", format!("{} goes into {name}", through.name()))
    };
    let texts = [value.to_owned(), "beneath".to_owned(), verdict];
    let mut check = told("tooling-bed", "Into the bed", state, texts);
    if state != State::Fits {
        let mut carriers = ground.workshop.carriers.iter();
        let fits = |own: &(&crate::workshop::RecordId, &crate::workshop::Carrier)| {
            own.1.keeping.is_offered() && own.1.width <= cutter.width
        };
        if let Some((id, carrier)) = carriers.find(fits) {
            let text = format!("Lay it on {}", carrier.name);
            check = check.remedy(Remedy::set(text, "sheet.carrier", id.0.as_str()));
        }
        check = check.remedy(Remedy::advice(
            "Choose a carrier on Sheet, or say in the Workshop that the cutter’s bed bears cuts",
        ));
    }
    Some(check)
}

/// Nothing is pressed or cut on a piece that has been cut free.
fn sequence(ground: &ToolingGround<'_>) -> Option<Check> {
    let operations: Vec<&Operation> = active(ground.operations).collect();
    // Where outlines are cut by themselves, what is cut inside them frees nothing.
    let is_apart = |own: &Operation| {
        let mut edges = operations.iter().filter(|edge| edge.share.is_edge());
        edges.any(|edge| !edge.stocks.is_disjoint(&own.stocks))
    };
    let frees =
        |own: &Operation| own.kind == LineKind::Cut && (!own.share.is_rest() || !is_apart(own));
    let is_held = ground.job.tooling.nicks.is_some() || ground.job.tooling.perforated.is_some();
    // Inside cuts of the same kind that come later are no trouble: only the outline frees. Nor is what lies on another
    // card, and so on another sheet.
    let mut freeing = operations.iter().enumerate().filter(|(_, own)| frees(own));
    let (own, freeing) = freeing.find_map(|(at, freeing)| {
        let is_freed = |own: &&&Operation| {
            own.kind != LineKind::Cut && !own.stocks.is_disjoint(&freeing.stocks)
        };
        Some((*operations[at + 1..].iter().find(is_freed)?, *freeing))
    })?;
    let pressed = matches!(own.kind, LineKind::Crease | LineKind::ReverseCrease);
    let state = match (is_held, ground.records.carrier.is_some()) {
        (true, _) | (_, true) => State::Attention,
        _ => State::Broken,
    };
    let verdict = if pressed {
        format!("{} is pressed on pieces that are cut free", own.name())
    } else {
        format!("{} is worked on pieces that are cut free", own.name())
    };
    let texts = [own.name(), "after cut".to_owned(), verdict];
    let check = told("tooling-sequence", "Order of work", state, texts);
    let mut changes =
        vec![Change { value: Setting::Standard, ..Change::new("tooling.order", 0.0) }];
    // What is cut before the print is cut before all else, whatever the order.
    changes.extend((freeing.when != Moment::AfterPrint).then(|| standard(freeing, "when")));
    Some(check.remedy(Remedy { text: "Cut last, as usual".to_owned(), changes }))
}

/// A sheet that is loaded more than once has to be found again each time.
fn loadings(operations: &[Operation], cutter: &Cutter) -> Option<Check> {
    let last = active(operations).map(|own| own.loading).max()?;
    if last == 0 && active(operations).all(|own| own.when == Moment::AfterPrint) {
        return None;
    }
    let blind =
        active(operations).find(|own| own.when == Moment::BeforePrint || own.is_from_behind());
    let by_marks = matches!(cutter.finds, Finds::Eye(_) | Finds::Crosshairs | Finds::Scan);
    let (state, verdict) = match blind {
        Some(own) if by_marks => (
            State::Attention,
            format!("{} has no marks to go by: lay the sheet to the stop each time", own.name()),
        ),
        Some(own) => (State::Fits, format!("{} goes by the sheet’s edge", own.name())),
        None => (State::Fits, "it is found by its marks each time".to_owned()),
    };
    let texts = [(last + 1).to_string(), "loadings".to_owned(), verdict];
    let check = told("tooling-loadings", "Loadings", state, texts);
    Some(match blind {
        Some(own) if own.when == Moment::BeforePrint => {
            let text = format!("Work {} when all is printed", own.name());
            check.remedy(Remedy { text, changes: vec![standard(own, "when")] })
        }
        Some(own) => {
            let text = format!("Press {} from the front", own.name());
            check.remedy(Remedy { text, changes: vec![standard(own, "reverse")] })
        }
        None => check,
    })
}
