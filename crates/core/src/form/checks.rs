//! Limits that hold for every structure, and those a structure states itself.

use kurbo::{BezPath, Shape};

use super::design::Limit;
use super::{Flat, Part, Role, flaps};
use crate::LineKind;
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::Remedy;
use crate::geometry::{least_gap, path_text};
use crate::units::{Unit, measure};

/// Card left between two cuts, mm: less tears while it is weeded (common practice).
pub(super) const NARROWEST_BRIDGE: f64 = 2.0;

pub(super) fn checks(limits: &[Limit], flat: &Flat, caliper: f64, unit: Unit) -> Vec<Check> {
    let mut checks: Vec<Check> = Vec::new();
    checks.extend(smallest_flap(flat, caliper, unit));
    checks.extend(limits.iter().map(|limit| stated(limit, flat, unit)));
    checks.extend(narrowest_bridge(flat, unit));
    checks
}

fn smallest_flap(flat: &Flat, caliper: f64, unit: Unit) -> Option<Check> {
    let show = |mm| measure(mm, unit);
    let flaps = flat.panels().filter(|(panel, _)| panel.role != Role::Face);
    let (panel, outline) = flaps
        .filter(|(panel, _)| panel.reach.is_some() && panel.figure.is_some())
        .min_by(|a, b| a.0.reach.unwrap_or(0.0).total_cmp(&b.0.reach.unwrap_or(0.0)))?;
    let reach = panel.reach.unwrap_or(0.0);
    let least = flaps::workable(caliper);
    let mut check = Check::length(
        "smallest-flap",
        Stage::Form,
        if panel.role == Role::Glue { "Smallest glue flap" } else { "Smallest flap" },
        (reach, Sense::AtLeast, least),
        unit,
    );
    // A short flap still closes; a short glue flap does not hold.
    if check.state == State::Broken
        && panel.role == Role::Flap
        && reach >= flaps::SHORTEST_FLAP - 1e-6
    {
        check.state = State::Attention;
    }
    let check = check.at(Drawing::Flat, path_text(&outline));
    Some(match panel.figure {
        Some(figure) => check.remedy(Remedy::set(
            format!("Make {} reach {}", panel.name.to_lowercase(), show(least)),
            &format!("form.{figure}"),
            least,
        )),
        None => check,
    })
}

fn stated(limit: &Limit, flat: &Flat, unit: Unit) -> Check {
    let place = flat.panel(&limit.panel).map_or_else(String::new, |path| path_text(&path));
    let check = Check::length(limit.id, Stage::Form, &limit.label, limit.limit, unit)
        .at(Drawing::Flat, place);
    match limit.remedy {
        Some((key, value)) => check.remedy(Remedy::set(
            format!("Set it to {}", measure(value, unit)),
            &format!("form.{key}"),
            value,
        )),
        None => check,
    }
}

/// The least card between an opening and the next cut.
pub(super) fn narrowest_bridge(flat: &Flat, unit: Unit) -> Option<Check> {
    let (width, part, path) = flat
        .parts
        .iter()
        .filter_map(|part| bridge(part).map(|(width, path)| (width, part, path)))
        .min_by(|a, b| a.0.total_cmp(&b.0))?;
    let path = kurbo::Affine::translate(part.at) * path;
    let check = Check::length(
        "bridge",
        Stage::Form,
        "Between two cuts",
        (width, Sense::AtLeast, NARROWEST_BRIDGE),
        unit,
    );
    Some(check.at(Drawing::Flat, path_text(&path)).remedy(Remedy::advice(
        "Move the opening away from the cut, make it smaller, or set letters further apart",
    )))
}

fn bridge(part: &Part) -> Option<(f64, BezPath)> {
    let openings: Vec<&BezPath> = part.openings().collect();
    // Between an opening and what falls out with it lies no card that stays.
    let slits = part
        .strokes
        .iter()
        .filter(|stroke| stroke.kind == LineKind::Cut && !stroke.is_closed())
        .map(|stroke| &stroke.path);
    let others: Vec<&BezPath> = slits.chain([&part.outline]).collect();
    let (width, at) = least_gap(&openings, &others)?;
    Some((width, openings[at].bounding_box().inflate(1.0, 1.0).to_path(0.1)))
}
