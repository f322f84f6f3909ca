//! Operations: what is done along the lines of each kind, in the order of work.

use crate::LineKind;
use crate::job::Tooling;
use crate::workshop::{Cutter, Tool};

/// What is done along the lines of a kind.
#[derive(Debug, Clone, PartialEq)]
pub struct Operation {
    /// The kind.
    pub kind: LineKind,
    /// What it is done with.
    pub tool: Tool,
    /// Which of the cutter's stations holds that; `None` where none does.
    pub station: Option<usize>,
    /// The force, N; `None` leaves it to the machine.
    pub force: Option<f64>,
    /// The speed, mm/s; `None` leaves it to the machine.
    pub speed: Option<f64>,
    /// How often the tool goes along each line.
    pub passes: u32,
    /// True where it is not done.
    pub is_off: bool,
    /// True where the machine stops before it, for another tool in its station.
    pub is_after_stop: bool,
}

/// The tool for a kind of line.
#[must_use]
pub const fn tool_for(kind: LineKind) -> Tool {
    match kind {
        LineKind::Crease | LineKind::ReverseCrease => Tool::Creaser,
        _ => Tool::DragKnife,
    }
}

/// The operations for kinds of line, in the order of work: what presses first, what frees a piece last.
#[must_use]
pub fn operations(
    kinds: impl Iterator<Item = LineKind>,
    tooling: &Tooling,
    cutter: Option<&Cutter>,
) -> Vec<Operation> {
    let kinds: Vec<LineKind> = kinds.collect();
    let wanted = LineKind::IN_ORDER.into_iter().filter(|kind| *kind != LineKind::Guide);
    let mut held: Vec<Option<Tool>> = vec![None; cutter.map_or(0, |cutter| cutter.stations.len())];
    let all = wanted.filter(|kind| kinds.contains(kind)).map(|kind| {
        let say = tooling.of(kind);
        let tool = tool_for(kind);
        let stations = cutter.map_or(&[] as &[_], |cutter| cutter.stations.as_slice());
        let holds = |at: &usize| stations.get(*at).is_some_and(|own| own.tools.contains(&tool));
        let named = say.station.as_ref();
        let station = match named {
            Some(name) => stations.iter().position(|own| own.name == *name).filter(holds),
            None => (0..stations.len()).find(holds),
        };
        let mut is_after_stop = false;
        if let Some(at) = station.filter(|_| !say.off) {
            is_after_stop = held[at].is_some_and(|before| before != tool);
            held[at] = Some(tool);
        }
        Operation {
            kind,
            tool,
            station,
            force: say.force,
            speed: say.speed,
            passes: say.passes.unwrap_or(1).max(1),
            is_off: say.off,
            is_after_stop,
        }
    });
    all.collect()
}
