//! Nicks: short uncut places that hold a piece in its sheet, on straight stretches, off corners and creases.

use kurbo::{
    BezPath, ParamCurve, ParamCurveArclen, ParamCurveNearest, PathSeg, Point, Rect, Shape,
};

use super::perforated::between;
use super::plan::is_closed;
use crate::LineKind;
use crate::form::{Part, Role};
use crate::geometry::contours;
use crate::job::Nicks;

/// A nick keeps this far from corners, curves and creases, mm, where there is room.
const CLEAR: f64 = 2.0;

/// Where there is less room, at least so far.
const LEAST_CLEAR: f64 = 0.3;

/// Ways to turn the even places about, of which the best is taken.
const TURNS: u32 = 24;

/// How near to a line a place lies on it, mm.
const ON: f64 = 0.02;

/// Lengths are exact to this, mm.
const EXACT: f64 = 1e-6;

/// The segments of a path with their lengths.
type Measured = Vec<(PathSeg, f64)>;

fn measured(path: &BezPath) -> Measured {
    path.segments().map(|segment| (segment, segment.arclen(EXACT))).collect()
}

/// How many nicks an outline of that length has.
#[must_use]
pub fn nick_count(around: f64, nicks: &Nicks) -> u32 {
    match nicks.every {
        #[expect(
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "between 1 and 400"
        )]
        Some(every) => (around / every).ceil().clamp(1.0, 400.0) as u32,
        None => nicks.count,
    }
}

/// True where an outline is too short for its nicks: they would take half of it and more.
#[must_use]
pub fn is_too_short(around: f64, nicks: &Nicks) -> bool {
    around < 2.0 * nicks.width * f64::from(nick_count(around, nicks))
}

/// The middles of the nicks in a blank's outline; none where that is too short for them, or is not cut through.
#[must_use]
pub fn nick_places(part: &Part, nicks: &Nicks) -> Vec<Point> {
    if part.edge != LineKind::Cut {
        return Vec::new();
    }
    let creases: Vec<Point> = part
        .strokes
        .iter()
        .filter(|stroke| !matches!(stroke.kind, LineKind::Cut | LineKind::KissCut))
        .flat_map(|stroke| {
            let first = stroke.path.segments().next().map(|segment| segment.start());
            let last = stroke.path.segments().last().map(|segment| segment.end());
            [first, last].into_iter().flatten()
        })
        .collect();
    let hidden: Vec<&BezPath> = part
        .panels
        .iter()
        .filter(|panel| !nicks.seen && nicks.every.is_none() && panel.role != Role::Face)
        .map(|panel| &panel.outline)
        .collect();
    let is_hidden = |at: Point| hidden.iter().any(|outline| touches(outline, at));
    contours(&part.outline)
        .iter()
        .flat_map(|ring| places(ring, &creases, nicks, &is_hidden))
        .collect()
}

/// True for a place on an outline.
fn touches(outline: &BezPath, at: Point) -> bool {
    outline.bounding_box().inflate(ON, ON).contains(at)
        && outline.segments().any(|own| own.nearest(at, EXACT).distance_sq < ON * ON)
}

/// The same in one ring: as evenly as the stretches that may have them allow, those that are not seen before all others.
fn places(
    ring: &BezPath,
    creases: &[Point],
    nicks: &Nicks,
    is_hidden: &dyn Fn(Point) -> bool,
) -> Vec<Point> {
    let segments = measured(ring);
    let around: f64 = segments.iter().map(|(_, long)| long).sum();
    if is_too_short(around, nicks) {
        return Vec::new();
    }
    let count = nick_count(around, nicks);
    let half = nicks.width / 2.0;
    let allowed = [CLEAR, LEAST_CLEAR]
        .into_iter()
        .map(|clear| straight(&segments, creases, clear + half))
        .find(|spans| !spans.is_empty())
        // A round has no straight stretch: any place is as good as another.
        .unwrap_or_else(|| vec![(0.0, around)]);
    let pitch = around / f64::from(count);
    let turns = if count > 40 { 1 } else { TURNS };
    let best = |spans: &[(f64, f64)]| {
        let each = (0..turns).map(|turn| {
            let from = pitch * f64::from(turn) / f64::from(turns);
            snapped(spans, from, pitch, count, around, nicks.width)
        });
        let best = each
            .min_by(|one, other| other.0.len().cmp(&one.0.len()).then(one.1.total_cmp(&other.1)));
        best.unwrap_or_default().0
    };
    // A stretch ends where a crease meets it, so that it lies along one panel.
    let unseen: Vec<(f64, f64)> = allowed
        .iter()
        .copied()
        .filter(|(from, to)| is_hidden(at(&segments, f64::midpoint(*from, *to))))
        .collect();
    let kept = Some(unseen)
        .filter(|own| !own.is_empty())
        .map(|own| best(&own))
        .filter(|own| own.len() == count as usize);
    let found = kept.unwrap_or_else(|| best(&allowed));
    found.into_iter().map(|along| at(&segments, along)).collect()
}

/// Where along a ring a nick may have its middle: straight stretches without `clear` at either end, and not so near to a
/// crease.
fn straight(segments: &Measured, creases: &[Point], clear: f64) -> Vec<(f64, f64)> {
    let mut spans = Vec::new();
    let mut gone = 0.0;
    for (segment, long) in segments {
        if let PathSeg::Line(line) = segment {
            let mut from = clear;
            let mut ends: Vec<f64> = creases
                .iter()
                .filter(|at| line.nearest(**at, EXACT).distance_sq < ON * ON)
                .map(|at| line.p0.distance(*at))
                .filter(|along| *along > 0.0 && along < long)
                .collect();
            ends.sort_by(f64::total_cmp);
            for end in ends.into_iter().map(Some).chain([None]) {
                let to = end.unwrap_or(*long) - clear;
                if to >= from {
                    spans.push((gone + from, gone + to));
                }
                from = end.unwrap_or(*long) + clear;
            }
        }
        gone += long;
    }
    spans
}

/// Even places, each moved to the nearest that is allowed and lies clear of those before; and how far they were moved in
/// all.
fn snapped(
    allowed: &[(f64, f64)],
    from: f64,
    pitch: f64,
    count: u32,
    around: f64,
    width: f64,
) -> (Vec<f64>, f64) {
    let apart = |one: f64, other: f64| {
        let far = (one - other).abs();
        far.min(around - far)
    };
    let least = (3.0 * width).min(pitch / 2.0);
    let (mut found, mut moved): (Vec<f64>, f64) = (Vec::new(), 0.0);
    for number in 0..count {
        let wanted = (from + pitch * f64::from(number)) % around;
        // In each stretch: the nearest place, and those right beside the last ones.
        let candidates = allowed.iter().flat_map(|(low, high)| {
            let beside = found.iter().rev().take(2).flat_map(|own| [own - least, own + least]);
            let beside: Vec<f64> = beside.map(|own| own.clamp(*low, *high)).collect();
            beside.into_iter().chain([wanted.clamp(*low, *high), *low, *high])
        });
        let best = candidates
            .filter(|own| found.iter().all(|other| apart(*own, *other) >= least - EXACT))
            .min_by(|one, other| apart(*one, wanted).total_cmp(&apart(*other, wanted)));
        if let Some(best) = best {
            moved += apart(best, wanted);
            found.push(best);
        }
    }
    (found, moved)
}

/// The place at a length along segments.
fn at(segments: &Measured, along: f64) -> Point {
    let mut left = along;
    for (segment, long) in segments {
        if left <= *long {
            return segment.eval(segment.inv_arclen(left.max(0.0), EXACT));
        }
        left -= long;
    }
    segments.last().map_or(Point::ZERO, |(segment, _)| segment.end())
}

/// What of a line is cut when it is left uncut at those of the places that lie on it.
#[must_use]
pub fn without_nicks(path: &BezPath, places: &[Point], width: f64) -> Vec<BezPath> {
    let reach: Rect = path.bounding_box().inflate(ON, ON);
    let near: Vec<Point> = places.iter().copied().filter(|at| reach.contains(*at)).collect();
    if near.is_empty() {
        return vec![path.clone()];
    }
    let segments = measured(path);
    let long: f64 = segments.iter().map(|(_, long)| long).sum();
    let mut middles: Vec<f64> = near.iter().filter_map(|place| along(&segments, *place)).collect();
    middles.sort_by(f64::total_cmp);
    middles.dedup_by(|one, other| (*one - *other).abs() < EXACT);
    let half = width / 2.0;
    let is_ring = is_closed(path);
    // What is left uncut, from the line's beginning on; of a ring also past its end.
    let mut gaps: Vec<(f64, f64)> =
        middles.iter().map(|middle| (middle - half, middle + half)).collect();
    let Some(first) = gaps.first().copied() else { return vec![path.clone()] };
    let (mut from, end) = if is_ring {
        gaps.remove(0);
        gaps.push((first.0 + long, first.1 + long));
        (first.1, first.0 + long)
    } else {
        gaps.push((long, long));
        (0.0, long)
    };
    let twice: Measured =
        if is_ring { segments.iter().chain(&segments).copied().collect() } else { segments };
    let mut parts = Vec::new();
    for (low, high) in gaps {
        if low - from > EXACT {
            parts.push(between(&twice, from, low.min(end)));
        }
        from = from.max(high);
    }
    parts.retain(|part| !part.elements().is_empty());
    parts
}

/// How far along segments a place lies; `None` where it lies beside them.
fn along(segments: &Measured, place: Point) -> Option<f64> {
    let mut gone = 0.0;
    for (segment, long) in segments {
        let near = segment.nearest(place, EXACT);
        if near.distance_sq < ON * ON {
            return Some(gone + segment.subsegment(0.0..near.t).arclen(EXACT));
        }
        gone += long;
    }
    None
}
