//! Ladders: which settings to try next, from what came of those that were tried, until neighbours bracket what is looked
//! for.

#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use crate::LineKind;
use crate::workshop::{Cutter, ForceUnit};

/// What differs from rung to rung.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Varied {
    /// The force.
    #[default]
    Force,
    /// The blade's depth.
    Depth,
    /// The speed; slower goes deeper.
    Speed,
    /// The passes.
    Passes,
}

/// What came of a setting.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
#[serde(rename_all = "kebab-case")]
pub enum Outcome {
    /// It did not go through what it was to go through; of a crease: too faint.
    NotThrough,
    /// Just right.
    JustRight,
    /// It went too deep: into the liner, into the bed; of a crease: the card cracks.
    TooDeep,
}

/// A setting and what came of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tried {
    /// The value of what differs.
    pub value: f64,
    /// What came of it.
    pub outcome: Outcome,
}

/// Between which values a ladder may stand, and the finest difference that is worth trying.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reach {
    /// The least.
    pub least: f64,
    /// The greatest.
    pub most: f64,
    /// The finest difference.
    pub finest: f64,
}

/// What to do next.
#[derive(Debug, Clone, PartialEq)]
pub enum Advice {
    /// Try these.
    Try(Vec<f64>),
    /// This is it; of a kiss cut the middle of what is just right.
    Settled {
        /// The value to keep.
        value: f64,
        /// The least that was just right.
        from: f64,
        /// The greatest that was just right.
        to: f64,
    },
    /// Nothing in reach goes through: something else has to change.
    NeverThrough,
    /// Everything in reach goes too deep.
    AlwaysTooDeep,
    /// One step is too little and the next too much.
    NothingBetween(f64, f64),
    /// Two outcomes contradict each other: one of them has to be tried again or taken back.
    Contradiction(Tried, Tried),
}

/// Rungs of a ladder.
pub const RUNGS: usize = 5;

impl Varied {
    /// What it is called.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Force => "force",
            Self::Depth => "depth",
            Self::Speed => "speed",
            Self::Passes => "passes",
        }
    }

    /// How far it may go on a cutter.
    #[must_use]
    pub fn reach(self, cutter: &Cutter) -> Reach {
        match self {
            Self::Force => {
                let unit = cutter.force_unit;
                // Where nobody knows the machine's greatest force: what desktop machines have (common practice).
                let usual = match unit {
                    ForceUnit::Newtons => 5.0,
                    ForceUnit::Grams => 500.0,
                    ForceUnit::Steps => 33.0,
                };
                let finest = unit.finest();
                Reach { least: finest, most: cutter.force.unwrap_or(usual), finest }
            }
            Self::Depth => Reach { least: 0.0, most: 10.0, finest: 1.0 },
            Self::Speed => {
                let most = cutter.pace.map_or(100.0, |pace| pace.working.max(20.0));
                Reach { least: 5.0, most, finest: 5.0 }
            }
            Self::Passes => Reach { least: 1.0, most: 8.0, finest: 1.0 },
        }
    }
}

/// True for lines of which only the lesser end is looked for: what goes through, goes through.
const fn is_one_sided(kind: LineKind) -> bool {
    matches!(kind, LineKind::Cut | LineKind::Perforation)
}

/// What to do next with a kind of line, after what was tried.
#[must_use]
pub fn advise(tried: &[Tried], kind: LineKind, varied: Varied, reach: Reach) -> Advice {
    if let Some((one, other)) = contradiction(tried, varied) {
        return Advice::Contradiction(one, other);
    }
    // Slower goes deeper, so speeds are looked at from the other side.
    let turn = if varied == Varied::Speed { -1.0 } else { 1.0 };
    let of = |outcome: Outcome| {
        let own = tried.iter().filter(move |own| own.outcome == outcome);
        own.map(move |own| own.value * turn)
    };
    let (least, most) = match varied {
        Varied::Speed => (-reach.most, -reach.least),
        _ => (reach.least, reach.most),
    };
    let low = of(Outcome::NotThrough).reduce(f64::max);
    let high = of(Outcome::TooDeep).reduce(f64::min);
    let from = of(Outcome::JustRight).reduce(f64::min);
    let to = of(Outcome::JustRight).reduce(f64::max);
    let step = reach.finest;
    let is_narrow = |low: f64, high: f64| high - low <= step * 1.001;
    let back = |rungs: Vec<f64>| {
        let mut rungs: Vec<f64> = rungs.into_iter().map(|own| own * turn).collect();
        rungs.sort_by(f64::total_cmp);
        Advice::Try(rungs)
    };
    let (Some(from), Some(to)) = (from, to) else {
        return match (low, high) {
            (None, None) => back(whole(least, most, step)),
            (Some(low), None) if low >= most - 1e-9 => Advice::NeverThrough,
            (None, Some(high)) if high <= least + 1e-9 => Advice::AlwaysTooDeep,
            (Some(low), Some(high)) if is_narrow(low, high) => {
                Advice::NothingBetween(low * turn, high * turn)
            }
            (Some(low), None) => back(above(low, most, step)),
            (None, Some(high)) => back(below(least, high, step)),
            (Some(low), Some(high)) => back(between(low, high, step, RUNGS)),
        };
    };
    let lower = low.map_or_else(
        || (from - step >= least - 1e-9).then_some(least - step),
        |low| (!is_narrow(low, from)).then_some(low),
    );
    let upper = match high {
        _ if is_one_sided(kind) => None,
        None => (to + step <= most + 1e-9).then_some(most + step),
        Some(high) => (!is_narrow(to, high)).then_some(high),
    };
    let rungs: Vec<f64> = match (lower, upper) {
        (Some(low), None) => between(low, from, step, RUNGS),
        (None, Some(high)) => between(to, high, step, RUNGS),
        (Some(low), Some(high)) => {
            let mut rungs = between(low, from, step, 3);
            rungs.extend(between(to, high, step, 2));
            rungs
        }
        (None, None) => Vec::new(),
    };
    if !rungs.is_empty() {
        return back(rungs);
    }
    let value = if is_one_sided(kind) {
        from
    } else {
        on_step(f64::midpoint(from, to), step).clamp(from, to)
    };
    let (one, other) = (from * turn, to * turn);
    Advice::Settled { value: value * turn, from: one.min(other), to: one.max(other) }
}

/// Two outcomes that cannot both be so: less goes deeper than more.
fn contradiction(tried: &[Tried], varied: Varied) -> Option<(Tried, Tried)> {
    let deep = |own: &Tried| if varied == Varied::Speed { -own.value } else { own.value };
    let mut found = None;
    for (at, one) in tried.iter().enumerate() {
        for other in &tried[at + 1..] {
            let (less, more) = if deep(one) <= deep(other) { (one, other) } else { (other, one) };
            let is_same = (deep(one) - deep(other)).abs() < 1e-9;
            if less.outcome > more.outcome || (is_same && one.outcome != other.outcome) {
                found = Some((*less, *more));
            }
        }
    }
    found
}

fn on_step(value: f64, step: f64) -> f64 {
    ((value / step).round() * step * 1e6).round() / 1e6
}

/// So many values strictly between two, on whole steps.
fn between(low: f64, high: f64, step: f64, count: usize) -> Vec<f64> {
    let parts = f64::from(u32::try_from(count + 1).unwrap_or(u32::MAX));
    let mut rungs: Vec<f64> = (1..=count)
        .map(|rung| f64::from(u32::try_from(rung).unwrap_or(u32::MAX)))
        .map(|rung| on_step(low + (high - low) * rung / parts, step))
        .filter(|own| *own > low + step * 0.5 && *own < high - step * 0.5)
        .collect();
    rungs.dedup();
    if rungs.is_empty() && high - low > step * 1.001 {
        rungs.push(on_step(f64::midpoint(low, high), step));
    }
    rungs
}

/// The whole reach, its greatest included.
fn whole(least: f64, most: f64, step: f64) -> Vec<f64> {
    above(least - step, most, step)
}

fn above(low: f64, most: f64, step: f64) -> Vec<f64> {
    let mut rungs = between(low, most, step, RUNGS - 1);
    rungs.push(most);
    rungs
}

fn below(least: f64, high: f64, step: f64) -> Vec<f64> {
    let mut rungs = vec![least];
    rungs.extend(between(least, high, step, RUNGS - 1));
    rungs
}
