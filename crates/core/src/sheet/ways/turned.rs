//! Turning the sheet, or the copies on it.

use super::{Way, WayKind, way};
use crate::error::Remedy;
use crate::job::Job;
use crate::sheet::{Orientation, Turning};

/// The sheet turned, and the piece turned freely.
pub(super) fn turned(job: &Job) -> impl Iterator<Item = Way> + use<> {
    let (orientation, id, words) = match job.sheet.orientation {
        Orientation::Portrait => (Orientation::Landscape, "landscape", "on its side"),
        Orientation::Landscape => (Orientation::Portrait, "portrait", "upright"),
    };
    let mut sheet = job.clone();
    sheet.sheet.orientation = orientation;
    sheet.sheet.kept = None;
    let remedy = Remedy::set(format!("Use the sheet {words}"), "sheet.orientation", id);
    let mut ways = vec![way(WayKind::Turned, sheet, remedy)];
    let turnings = [
        (Turning::Quarter, "quarter", "Let copies turn by a quarter"),
        (Turning::Free, "free", "Turn copies by the angle at which they fit"),
    ];
    for (turning, id, words) in turnings {
        // Whoever turns freely turns by quarters too.
        if job.sheet.turning != turning && job.sheet.turning != Turning::Free {
            let mut changed = job.clone();
            changed.sheet.turning = turning;
            changed.sheet.kept = None;
            ways.push(way(WayKind::Turned, changed, Remedy::set(words, "sheet.turning", id)));
        }
    }
    ways.into_iter()
}
