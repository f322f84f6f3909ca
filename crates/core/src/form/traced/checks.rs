//! The limits of a traced outline: whether the trace makes sense, and whether a knife and a hand can deal with it.

use kurbo::{BezPath, Circle, Point, Rect, Shape};

use super::border::INNER;
use super::{Traced, TracedFacts};
use crate::check::{Check, Drawing, Sense, Stage, State};
use crate::error::{Remedy, Setting};
use crate::form::Flat;
use crate::geometry::path_text;
use crate::trace::Tracing;
use crate::units::{Unit, measure};

/// The least inner radius that a blade gets round, mm, until it is known which (common practice).
const LEAST_INNER: f64 = 0.5;

/// What inner corners are rounded to, mm: as curves they bend a little more here and there.
const ROUNDED_TO: f64 = 0.8;

/// The smallest piece that is weeded by hand, across, mm (common practice).
const LEAST_PIECE: f64 = 3.0;

/// A stay is not narrower than so many calipers (common practice), nor than a millimetre.
const STAY_CALIPERS: f64 = 5.0;

/// A cut this far inside the picture's edge shows no white, mm (common practice: a quarter to half a millimetre).
const LEAST_INWARDS: f64 = 0.25;

/// A border narrower than this looks uneven where the cut strays, mm (common practice).
const LEAST_OUTWARDS: f64 = 1.0;

/// From so many outlines on a trace is noise rather than motifs.
const MANY: usize = 100;

/// From so many spots that were left out on a threshold cuts through a texture.
const MANY_CRUMBS: usize = 200;

pub(super) fn checks(
    traced: &Traced,
    facts: &TracedFacts,
    flat: &Flat,
    caliper: f64,
    unit: Unit,
) -> Vec<Check> {
    let Ok(tracing) = &facts.looked.0 else { return Vec::new() };
    let mut checks = vec![sense(traced, tracing), crumbs(traced, tracing)];
    checks.push(white_edge(traced, unit));
    checks.extend(inner_corner(traced, facts, flat, unit));
    checks.extend(stay(facts, flat, caliper, unit));
    checks.extend(crate::form::checks::narrowest_bridge(flat, unit));
    checks.extend(smallest(facts, tracing, flat, unit));
    if !traced.mends.is_empty() {
        checks.push(mends(traced, facts));
    }
    checks
}

fn by_itself(tracing: &Tracing) -> Remedy {
    Remedy::set(
        format!("Set the threshold by itself: {:.0} %", tracing.proposed * 100.0),
        "form.traced.trace.threshold",
        Setting::Standard,
    )
}

fn sense(traced: &Traced, tracing: &Tracing) -> Check {
    let share = format!("{:.0} %", tracing.share * 100.0);
    let is_swallowed = tracing.swallows();
    let texts = [
        share,
        "of the picture is inside".to_owned(),
        if is_swallowed { "the whole rectangle" } else { "an outline" }.to_owned(),
    ];
    let state = if is_swallowed { State::Broken } else { State::Fits };
    let check = Check::yes_or_no("trace-inside", Stage::Form, "Traced", state, texts);
    if !is_swallowed {
        return check;
    }
    let is_own = traced.trace.threshold.is_some_and(|own| (own - tracing.proposed).abs() > 0.01);
    if is_own && !tracing.would_swallow(tracing.proposed) {
        check.remedy(by_itself(tracing))
    } else {
        check
            .remedy(Remedy::set(
                "Follow what differs from the background",
                "form.traced.trace.by",
                "background",
            ))
            .remedy(Remedy::advice("Or choose another way to tell what is inside"))
    }
}

fn crumbs(traced: &Traced, tracing: &Tracing) -> Check {
    let count = tracing.outlines.len() + tracing.too_many;
    let is_texture = tracing.coarse > 0;
    let is_noise = count > MANY || is_texture || tracing.left_out > MANY_CRUMBS;
    let verdict = if count > MANY {
        "too many to be motifs".to_owned()
    } else if is_texture {
        let are =
            if tracing.coarse == 1 { "1 is".to_owned() } else { format!("{} are", tracing.coarse) };
        format!("{are} too fine to be followed")
    } else {
        let crumbs = if tracing.left_out == 1 { "crumb" } else { "crumbs" };
        format!("{} {crumbs} left out", tracing.left_out)
    };
    let words = if count == 1 { "outline" } else { "outlines" };
    let texts = [count.to_string(), words.to_owned(), verdict];
    let state = if count > MANY {
        State::Broken
    } else if is_noise {
        State::Attention
    } else {
        State::Fits
    };
    let mut check = Check::yes_or_no("trace-crumbs", Stage::Form, "Motifs", state, texts);
    if !is_noise {
        return check;
    }
    if traced.trace.threshold.is_some_and(|own| (own - tracing.proposed).abs() > 0.01) {
        check = check.remedy(by_itself(tracing));
    }
    if count > MANY {
        // So large that few are left.
        let mut areas: Vec<f64> =
            tracing.outlines.iter().map(|own| own.outer.area().abs()).collect();
        areas.sort_by(|one, other| other.total_cmp(one));
        let least = (areas.get(11).or(areas.last()).copied().unwrap_or(1.0) * 0.95).min(10_000.0);
        check = check.remedy(Remedy::set(
            format!("Leave out what has less than {least:.1} mm²"),
            "form.traced.trace.least",
            least,
        ));
        return check;
    }
    if traced.trace.holes {
        let field = "form.traced.trace.holes";
        check = check.remedy(Remedy::set("Take the outline only, without holes", field, false));
    }
    check.remedy(Remedy::advice("Choose a threshold or a part of the picture with clear edges"))
}

/// Whether white may show beside the picture where the cut strays a little.
fn white_edge(traced: &Traced, unit: Unit) -> Check {
    let distance = traced.border.distance;
    let is_risky = distance > -LEAST_INWARDS + 1e-9 && distance < LEAST_OUTWARDS - 1e-9;
    let (state, verdict) = if is_risky {
        (State::Attention, "white shows on one side where the cut strays")
    } else if distance > 0.0 {
        (State::Fits, "an even border")
    } else {
        (State::Fits, "no white shows")
    };
    let way = if distance < 0.0 { "inwards" } else { "outwards" };
    let texts = [measure(distance.abs(), unit), way.to_owned(), verdict.to_owned()];
    let check = Check::yes_or_no("trace-border", Stage::Form, "Border", state, texts);
    if !is_risky {
        return check;
    }
    let field = "form.traced.border.distance";
    let set = |words: &str, mm: f64| {
        Remedy::set(
            format!("Cut {} {words} the picture’s edge", measure(mm.abs(), unit)),
            field,
            mm,
        )
    };
    check.remedy(set("inside", -0.3)).remedy(set("outside", 2.0))
}

/// The sharpest inner corner of the cut.
fn inner_corner(traced: &Traced, facts: &TracedFacts, flat: &Flat, unit: Unit) -> Option<Check> {
    let shift = flat.parts.first()?.at;
    let all = facts.cut.iter().filter_map(|(path, is_hole)| inner_radius(path, *is_hole));
    let least = all.min_by(|one, other| one.0.total_cmp(&other.0));
    let least = least.map(|(radius, at)| (radius, at + shift));
    let (radius, at) = least?;
    let value = (radius.min(99.0), Sense::AtLeast, LEAST_INNER);
    let mut check = Check::length("inner-corner", Stage::Form, "Inner corner", value, unit);
    if check.state == State::Broken {
        check.state = State::Attention;
        check.verdict = "a blade cuts it short".to_owned();
        // Where that much is not enough, half as much again.
        let to = ((traced.border.inner * 15.0).ceil() / 10.0).max(ROUNDED_TO);
        check = check.remedy(if INNER.contains(&to) {
            let text = format!("Round inner corners to {}", measure(to, unit));
            Remedy::set(text, "form.traced.border.inner", to)
        } else {
            Remedy::advice("Close the bay beside it, or take less detail")
        });
    }
    Some(check.at(Drawing::Flat, path_text(&Circle::new(at, 2.0).to_path(0.05))))
}

/// The least radius of bends towards the card, 0 for a sharp corner. In a hole all corners that bend around the hole are
/// such.
fn inner_radius(path: &BezPath, is_hole: bool) -> Option<(f64, Point)> {
    use kurbo::{ParamCurve, ParamCurveCurvature, ParamCurveDeriv};
    let segments: Vec<kurbo::PathSeg> = path.segments().collect();
    // With the clock, as seen, curvature is above 0 where the line bends around what it encloses.
    let way = if path.area() > 0.0 { 1.0 } else { -1.0 };
    let inward = if is_hole { way } else { -way };
    let mut least: Option<(f64, Point)> = None;
    let mut offer = |radius: f64, at: Point| {
        if least.is_none_or(|(own, _)| radius < own) {
            least = Some((radius, at));
        }
    };
    for (at, segment) in segments.iter().enumerate() {
        let next = segments[(at + 1) % segments.len()];
        let (into, out) = (segment.to_cubic(), next.to_cubic());
        let end = |cubic: &kurbo::CubicBez, t: f64| {
            let slope = cubic.deriv().eval(t).to_vec2();
            if slope.hypot() > 1e-9 { slope.normalize() } else { (cubic.p3 - cubic.p0).normalize() }
        };
        let (one, two) = (end(&into, 1.0), end(&out, 0.0));
        let turn = one.cross(two).atan2(one.dot(two)) * inward;
        if turn > 0.26 {
            offer(0.0, into.p3);
        }
        if let kurbo::PathSeg::Cubic(cubic) = segment {
            for step in 1..12 {
                let t = f64::from(step) / 12.0;
                // Its sign is that of the bend seen with y up.
                let bend = -cubic.curvature(t) * inward;
                if bend > 1e-6 {
                    offer(1.0 / bend, cubic.eval(t));
                }
            }
        }
    }
    least
}

fn stay(facts: &TracedFacts, flat: &Flat, caliper: f64, unit: Unit) -> Option<Check> {
    let (gap, from, to) = facts.narrowest?;
    let part = flat.parts.first()?;
    let bound = (STAY_CALIPERS * caliper).max(1.0);
    let value = (gap, Sense::AtLeast, bound);
    let mut check = Check::length("narrowest-stay", Stage::Form, "Narrowest place", value, unit);
    if check.state == State::Broken {
        check.state = State::Attention;
        check = check.remedy(Remedy::advice("Take a wider border, or close the bay beside it"));
    }
    let mut line = BezPath::new();
    line.move_to(from + part.at);
    line.line_to(to + part.at);
    Some(check.at(Drawing::Flat, path_text(&line)))
}

/// The smallest thing that is cut: it must be taken off, or out, by hand.
fn smallest(facts: &TracedFacts, tracing: &Tracing, flat: &Flat, unit: Unit) -> Option<Check> {
    let part = flat.parts.first()?;
    let across = |path: &BezPath| {
        let Rect { x0, y0, x1, y1 } = path.bounding_box();
        (x1 - x0).max(y1 - y0)
    };
    let least =
        facts.cut.iter().min_by(|(one, _), (other, _)| across(one).total_cmp(&across(other)));
    let (least, is_hole) = least?;
    let value = (across(least), Sense::AtLeast, LEAST_PIECE);
    let mut check = Check::length("smallest-piece", Stage::Form, "Smallest to weed", value, unit);
    if check.state == State::Broken {
        check.state = State::Attention;
        let over = traced_area(facts, tracing, least.bounding_box(), *is_hole);
        check = check.remedy(match over.filter(|area| *area <= 10_000.0) {
            Some(area) => Remedy::set(
                format!("Leave out what has less than {area:.2} mm²"),
                "form.traced.trace.least",
                area,
            ),
            None => Remedy::advice("Make it larger, or take it away"),
        });
    }
    let mut at = least.clone();
    at.apply_affine(kurbo::Affine::translate(part.at));
    Some(check.at(Drawing::Flat, path_text(&at)))
}

/// Below which area, mm², what a cut goes around is left out: of the largest motif in it, or of the hole that it follows,
/// with as much more as curves may lie inside the line of the pixels, whose area is what counts.
fn traced_area(facts: &TracedFacts, tracing: &Tracing, cut: Rect, is_hole: bool) -> Option<f64> {
    let shift = facts.picture.origin().to_vec2();
    let stray = (tracing.pixel / 4.0).max(tracing.deviation.0);
    let area = |path: &BezPath| path.area().abs() + path.perimeter(0.01) * stray;
    let near = |path: &&BezPath| {
        let own = path.bounding_box() + shift;
        if is_hole {
            own.inflate(0.1, 0.1).contains(cut.center())
        } else {
            cut.inflate(0.1, 0.1).contains_rect(own)
        }
    };
    let found = tracing.outlines.iter().flat_map(|own| {
        let outer = (!is_hole).then_some(&own.outer);
        outer.into_iter().chain(own.holes.iter().filter(move |_| is_hole))
    });
    let areas = found.filter(near).map(area);
    // Rounded up, so that what is told is what is set.
    let up = |area: f64| (area * 100.0).ceil() / 100.0;
    if is_hole { areas.reduce(f64::min).map(up) } else { areas.reduce(f64::max).map(up) }
}

fn mends(traced: &Traced, facts: &TracedFacts) -> Check {
    let (all, gone) = (traced.mends.len(), facts.dropped.len());
    let texts = [
        all.to_string(),
        "by hand".to_owned(),
        if gone == 0 { "all still fit".to_owned() } else { format!("{gone} no longer fit") },
    ];
    let state = if gone == 0 { State::Fits } else { State::Attention };
    let check = Check::yes_or_no("trace-mends", Stage::Form, "Corrections", state, texts);
    if gone == 0 {
        return check;
    }
    check.remedy(Remedy::advice(
        "Take those away, or go back to the threshold at which they were made",
    ))
}
