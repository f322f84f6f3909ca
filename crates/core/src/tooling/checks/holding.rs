//! What holds pieces in the sheet, and what parts the waste.

use kurbo::ParamCurveArclen;

use super::{ToolingGround, told};
use crate::LineKind;
use crate::check::{Check, State};
use crate::error::{Change, Remedy, Setting};
use crate::geometry::{BezPath, contours};
use crate::tooling::holding::is_too_short;
use crate::tooling::weeding::weeding_frame;
use crate::units::measure;

fn around(ring: &BezPath) -> f64 {
    ring.segments().map(|segment| segment.arclen(0.01)).sum()
}

/// Outlines have room for their nicks.
pub(super) fn nicks(ground: &ToolingGround<'_>) -> Option<Check> {
    let nicks = ground.job.tooling.nicks?;
    let rings = ground
        .blanks
        .iter()
        .filter(|part| part.edge == LineKind::Cut)
        .flat_map(|part| contours(&part.outline));
    let rings: Vec<f64> = rings.map(|ring| around(&ring)).collect();
    let shortest = rings.iter().copied().reduce(f64::min)?;
    let short = rings.iter().filter(|own| is_too_short(**own, &nicks)).count();
    let show = |mm: f64| measure(mm, ground.job.unit);
    let state = if short == 0 { State::Fits } else { State::Broken };
    let verdict = if short == 0 {
        format!("of {} each", show(nicks.width))
    } else {
        format!(
            "{short} outlines are too short, the least is {} around: they get none",
            show(shortest)
        )
    };
    let value = match nicks.every {
        Some(every) => format!("every {}", show(every)),
        None => nicks.count.to_string(),
    };
    let texts = [value, "in an outline".to_owned(), verdict];
    let check = told("tooling-nicks", "Nicks", state, texts);
    let fits = shortest / (2.0 * nicks.width);
    if fits >= 1.0 && nicks.every.is_none() {
        let count = fits.floor();
        let text = format!("Leave {count} in an outline");
        return Some(check.remedy(Remedy::set(text, "tooling.nicks.count", count)));
    }
    let changes = vec![Change { value: Setting::Standard, ..Change::new("tooling.nicks", 0.0) }];
    Some(check.remedy(Remedy { text: "Leave no nicks".to_owned(), changes }))
}

/// Cuts in the waste lie where cuts may lie.
pub(super) fn waste(ground: &ToolingGround<'_>) -> Option<Check> {
    let say = ground.job.tooling.weeding?;
    let show = |mm: f64| measure(mm, ground.job.unit);
    let over = ground.runs.iter().filter_map(|run| {
        let outlines: Vec<BezPath> = run
            .iter()
            .filter_map(|at| Some(at.place(&ground.blanks.get(at.part)?.outline)))
            .collect();
        let frame = weeding_frame(&outlines, &say)?;
        let w = ground.window;
        let past = [w.x0 - frame.x0, w.y0 - frame.y0, frame.x1 - w.x1, frame.y1 - w.y1];
        past.into_iter().reduce(f64::max)
    });
    let past = over.reduce(f64::max)?;
    let state = if past > 1e-6 { State::Broken } else { State::Fits };
    let verdict = if past > 1e-6 {
        format!("{} past where cuts may lie", show(past))
    } else {
        format!("{} inside where cuts may lie", show(-past))
    };
    let texts = [show(say.frame), "around the pieces".to_owned(), verdict];
    let check = told("tooling-weeding", "Weeding frame", state, texts);
    let nearer = ((say.frame - past) * 10.0).floor() / 10.0;
    Some(if nearer >= 1.0 {
        check.remedy(Remedy::set(
            format!("Set the frame to {}", show(nearer)),
            "tooling.weeding.frame",
            nearer,
        ))
    } else {
        let changes =
            vec![Change { value: Setting::Standard, ..Change::new("tooling.weeding", 0.0) }];
        check.remedy(Remedy { text: "Leave the waste as it is".to_owned(), changes })
    })
}
