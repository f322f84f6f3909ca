//! The steps at the cutter: which tool goes where, how each sheet is loaded, what is cut and looked at.

use super::{Making, RunStep, StepKind, capital, many, step};
use crate::tooling::{Before, Operation, tool_name};
use crate::workshop::{Carrier, Cutter, Finds, MarkSet};

impl Making<'_> {
    pub(super) fn cutting(&self, steps: &mut Vec<RunStep>, cutter: &Cutter, sheets: u32) {
        let worked: Vec<&Operation> =
            self.ground.prepared.operations.iter().filter(|own| !own.is_off).collect();
        let loadings = worked.iter().map(|own| own.loading + 1).max().unwrap_or(0);
        for loading in 0..loadings {
            let own: Vec<&Operation> =
                worked.iter().copied().filter(|own| own.loading == loading).collect();
            let Some(first) = own.first() else { continue };
            self.tools(steps, cutter, &own, loading);
            steps.push(self.load(cutter, first, loading, loadings, sheets));
            let title = if loadings > 1 {
                format!("Work the sheet, loading {}", loading + 1)
            } else {
                "Work the sheet".to_owned()
            };
            let mut cut = step(&format!("cut-{loading}"), StepKind::Cut, &title, sheets);
            for operation in &own {
                cut = cut.says(self.operation(cutter, operation));
            }
            steps.push(cut.in_loading(loading));
            let look = step(
                &format!("look-{loading}"),
                StepKind::Look,
                "Look before you take it out",
                sheets,
            )
            .says("Lift a corner of the waste. Where it is not through, repeat that operation in this loading: once the sheet is out, no second cut meets the first.");
            steps.push(look.in_loading(loading));
        }
    }

    /// What is put in before a loading begins; what changes during it is said with its operation.
    fn tools(&self, steps: &mut Vec<RunStep>, cutter: &Cutter, own: &[&Operation], loading: usize) {
        let mut seen = Vec::new();
        for operation in own {
            let Some(at) = operation.station else { continue };
            let Some(station) = cutter.stations.get(at) else { continue };
            if seen.contains(&at) {
                continue;
            }
            seen.push(at);
            let title = format!("{} into {}", capital(tool_name(operation.tool)), station.name);
            let mut tool = step(&format!("tool-{loading}-{at}"), StepKind::Tool, &title, 1);
            if let Some(depth) = operation.depth {
                tool = tool.says(format!("Depth {depth}."));
            }
            let others = own.iter().filter(|other| other.station == Some(at)).skip(1);
            let is_change = |before: &Before| *before != Before::Load;
            if others.flat_map(|other| &other.before).any(is_change) {
                tool = tool.says("It is changed during the work: the machine stops for that.");
            }
            steps.push(tool.in_loading(loading));
        }
    }

    fn load(
        &self,
        cutter: &Cutter,
        first: &Operation,
        loading: usize,
        loadings: usize,
        sheets: u32,
    ) -> RunStep {
        let carrier: Option<&Carrier> = self.records.carrier;
        let which = if loadings > 1 { format!(", loading {}", loading + 1) } else { String::new() };
        let title = format!("Load the sheet into {}{which}", cutter.name);
        let mut load = step(&format!("load-{loading}"), StepKind::Load, &title, sheets);
        load = match carrier {
            Some(carrier) => load.says(format!("On {}, pressed down well.", carrier.name)),
            None if cutter.bears_cuts => load.says("On its bed; switch the hold-down on."),
            None => load.says("Without a carrier."),
        };
        load = load.says(if first.is_from_behind() {
            "With its back up, turned about the long edge."
        } else {
            "With its printed side up, its top edge first."
        });
        let marks: Option<&MarkSet> = self.records.marks;
        load = match (&cutter.finds, marks) {
            (Finds::Eye(_), Some(set)) => load.says(format!(
                "The first mark lies {}; jog the head near to it.",
                set.first.name()
            )),
            (Finds::Crosshairs, Some(set)) => load.says(format!(
                "Set the crosshairs on each mark, the one {} first.",
                set.first.name()
            )),
            (Finds::Scan, _) => load.says(
                "It scans the page: outlines must be closed, in contrast, and two borders apart.",
            ),
            (Finds::PrintedItself, _) => load.says("It printed the sheet itself: leave it in."),
            _ => load.says("Against the stop: it goes by the sheet’s edge."),
        };
        if let Some(length) = self.strip() {
            let page = self.ground.prepared.windows.page;
            load = load.says(format!(
                "Feed {} of the roll, the sheets and what the cutter holds.",
                self.show(length)
            ));
            if self.in_a_row() > 1 {
                load = load
                    .says(format!(
                        "{} lie in a row: after each, jog {} on, to the first mark of the next.",
                        many(self.in_a_row().min(sheets), "sheet"),
                        self.show(page.height())
                    ))
                    .in_strips(self.in_a_row());
            }
        }
        if !self.ground.prepared.code.is_empty() && self.ground.prepared.is_printed() {
            load = load.says(format!("The sheet’s code must be {}.", self.ground.prepared.code));
        }
        load.in_loading(loading)
    }

    fn operation(&self, cutter: &Cutter, own: &Operation) -> String {
        let station = own.station.and_then(|at| cutter.stations.get(at));
        let mut text = format!("{}: {}", own.name(), tool_name(own.tool));
        if let Some(station) = station {
            text.push_str(&format!(" in {}", station.name));
        }
        match own.force {
            Some(force) => text.push_str(&format!(", {}", force.text())),
            None => text.push_str(", force as the machine is set"),
        }
        if let Some(speed) = own.speed {
            text.push_str(&format!(", {}/s", self.show(speed)));
        }
        if own.passes > 1 {
            text.push_str(&format!(", {} passes", own.passes));
        }
        if own.before.iter().any(|before| matches!(before, Before::Tool | Before::Cap)) {
            text.push_str("; the machine stops before it for the tool");
        }
        text
    }

    pub(super) fn by_hand(&self, steps: &mut Vec<RunStep>, sheets: u32) {
        steps.push(
            step("crease-0", StepKind::Cut, "Press the creases", sheets)
                .says("With a bone folder along a ruler, on the printed hand-cut pages."),
        );
        steps.push(step("cut-0", StepKind::Cut, "Cut by hand", sheets).says(
            "Inside before outside, a new blade, two light passes rather than one hard one.",
        ));
    }
}
