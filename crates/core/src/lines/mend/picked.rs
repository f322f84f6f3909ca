//! A line that was pressed.

use kurbo::{ParamCurveArclen, Point};

use super::chain::Chain;
use crate::lines::Lines;

/// A line that was pressed, for tools to work on.
#[derive(Debug, Clone, PartialEq)]
pub struct Picked {
    /// Its number.
    pub line: usize,
    /// What runs between its nodes.
    pub chain: Chain,
    /// How long it is.
    pub length: f64,
    /// Where the place is nearest by which it was found: its segment, and how far along that, 0 to 1.
    pub near: Option<(usize, f64)>,
}

impl Lines {
    /// A line by its number.
    #[must_use]
    pub fn picked(&self, line: usize) -> Option<Picked> {
        let chain = self.chain(line).ok()?;
        let length = chain.segments.iter().map(|own| own.arclen(1e-6)).sum();
        Some(Picked { line, chain, length, near: None })
    }

    /// The line nearest to a place, within a reach.
    #[must_use]
    pub fn nearest(&self, at: Point, reach: f64) -> Option<Picked> {
        use kurbo::ParamCurveNearest;
        let near = self.lines.iter().enumerate().filter_map(|(number, line)| {
            let around = line.path.control_box().inflate(reach, reach);
            if !around.contains(at) {
                return None;
            }
            let far = line.path.segments().map(|own| own.nearest(at, 1e-6).distance_sq);
            Some((far.min_by(f64::total_cmp)?, number))
        });
        let (far, number) = near.min_by(|one, other| one.0.total_cmp(&other.0))?;
        let mut found = self.picked(number).filter(|_| far.sqrt() <= reach)?;
        let segments = found.chain.segments.iter().map(|own| own.nearest(at, 1e-6));
        let near = segments
            .enumerate()
            .min_by(|one, other| one.1.distance_sq.total_cmp(&other.1.distance_sq));
        found.near = near.map(|(segment, near)| (segment, near.t));
        Some(found)
    }
}
