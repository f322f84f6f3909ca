//! How near copies come to the nearest thing.

use kurbo::Point;
#[cfg(feature = "api")]
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
#[cfg(feature = "api")]
use ts_rs::TS;

use super::FAR;
use crate::geometry::Outline;
use crate::job::Job;
use crate::sheet::Ground;
use crate::sheet::{Piece, Placement};
use crate::units::measure;

/// How near a copy comes to something.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "api", derive(JsonSchema, TS))]
pub struct Clearance {
    /// The distance, mm; negative where they overlap or it lies outside.
    pub value: f64,
    /// The distance and to what, in words.
    pub text: String,
    /// Between which points, mm.
    pub from: [f64; 2],
    /// The other point.
    pub to: [f64; 2],
    /// False when it is less than the plan asks for.
    pub is_enough: bool,
}

/// How near the chosen copies come to the nearest other copy, window edge or keep-clear.
pub(super) fn clearance(
    blanks: &[&Piece],
    placements: &[Placement],
    chosen: &[usize],
    ground: &Ground,
    job: &Job,
) -> Option<Clearance> {
    let outline = |at: &Placement| Some(blanks.get(at.part)?.outline().transformed(at.transform()));
    let cut = &ground.windows.cut;
    let mut best: Option<(f64, Point, Point, &str, f64)> = None;
    let mut offer = |value: f64, from: Point, to: Point, what: &'static str, needed: f64| {
        if best.is_none_or(|(least, ..)| value - needed < least) {
            best = Some((value - needed, from, to, what, needed));
        }
    };
    for at in chosen.iter().take(50) {
        let Some(own) = placements.get(*at).and_then(outline) else { continue };
        let near = own.bounds().inflate(FAR, FAR);
        for (number, place) in placements.iter().enumerate() {
            if chosen.binary_search(&number).is_ok() {
                continue;
            }
            let Some(other) = outline(place) else { continue };
            if other.bounds().intersect(near).area() <= 0.0 {
                continue;
            }
            if let Some((gap, from, to)) = own.nearest(&other, FAR) {
                offer(gap, from, to, "to the next copy", job.sheet.spacing);
            }
        }
        for obstacle in &cut.obstacles {
            if let Some((gap, from, to)) = own.nearest(obstacle, FAR) {
                offer(gap, from, to, "to the marks’ keep-clear", 0.0);
            }
        }
        let (bounds, base) = (own.bounds(), cut.base);
        let edges = [
            (bounds.x0 - base.x0, extreme(&own, |p| p.x), Point::new(base.x0, 0.0), true),
            (base.x1 - bounds.x1, extreme(&own, |p| -p.x), Point::new(base.x1, 0.0), true),
            (bounds.y0 - base.y0, extreme(&own, |p| p.y), Point::new(0.0, base.y0), false),
            (base.y1 - bounds.y1, extreme(&own, |p| -p.y), Point::new(0.0, base.y1), false),
        ];
        for (room, from, line, upright) in edges {
            let to = if upright { Point::new(line.x, from.y) } else { Point::new(from.x, line.y) };
            offer(room, from, to, "to the window’s edge", 0.0);
        }
    }
    let (over, from, to, what, needed) = best?;
    let value = over + needed;
    let text = if value < 0.0 && what == "to the next copy" {
        "overlaps the next copy".to_owned()
    } else if value < -1e-6 {
        format!("{} outside, {what}", measure(-value, job.unit))
    } else {
        format!("{} {what}", measure(value.max(0.0), job.unit))
    };
    Some(Clearance {
        value,
        text,
        from: [from.x, from.y],
        to: [to.x, to.y],
        is_enough: over >= -0.01,
    })
}

/// The corner of an outline that is least by some measure.
fn extreme(outline: &Outline, by: impl Fn(&Point) -> f64) -> Point {
    let least = outline.points().iter().min_by(|a, b| by(a).total_cmp(&by(b)));
    least.copied().unwrap_or_default()
}
