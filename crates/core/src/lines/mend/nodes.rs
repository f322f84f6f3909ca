//! What is done to single nodes and to what runs between them.

use kurbo::{CubicBez, Line, ParamCurve, PathSeg, Point, Vec2};

use super::chain::{Chain, between, end, start};
use super::said::Refusal;

/// Share of a segment at which a node may be put in.
const INSIDE: std::ops::RangeInclusive<f64> = 1e-4..=1.0 - 1e-4;

/// Handles of a node that was made smooth reach so far along what runs there (a third draws a straight line evenly).
const HANDLE: f64 = 1.0 / 3.0;

fn no_node(node: usize) -> Refusal {
    format!("it has no node {}", node + 1).into()
}

/// A node goes to another place, its handles with it.
pub fn moved(mut line: Chain, node: usize, to: Point) -> Result<Chain, Refusal> {
    line.node(node).ok_or_else(|| no_node(node))?;
    let (before, after) = (line.before(node), line.after(node));
    if let Some(at) = before {
        let own = line.segments[at];
        line.segments[at] = between(&own, start(&own), to);
    }
    if let Some(at) = after {
        let own = line.segments[at];
        line.segments[at] = between(&own, to, end(&own));
    }
    Ok(line)
}

/// A handle goes to another place: of the curve that leaves the node, or of the one that comes to it. A straight segment
/// becomes a curve.
pub fn bent(mut line: Chain, node: usize, leaves: bool, to: Point) -> Result<Chain, Refusal> {
    let at = if leaves { line.after(node) } else { line.before(node) };
    let at = at.ok_or_else(|| no_node(node))?;
    let mut own = line.segments[at].to_cubic();
    if leaves {
        own.p1 = to;
    } else {
        own.p2 = to;
    }
    line.segments[at] = PathSeg::Cubic(own);
    Ok(line)
}

/// A node more, at a share of a segment; the line runs as before.
pub fn added(mut line: Chain, segment: usize, share: f64) -> Result<Chain, Refusal> {
    let own = *line.segments.get(segment).ok_or("it has no such segment")?;
    if !INSIDE.contains(&share) {
        return Err("a node goes between two others".into());
    }
    let two = [own.subsegment(0.0..share), own.subsegment(share..1.0)];
    line.segments.splice(segment..=segment, two);
    Ok(line)
}

/// A node less: what ran to it and from it is one.
pub fn dropped(mut line: Chain, node: usize) -> Result<Chain, Refusal> {
    line.node(node).ok_or_else(|| no_node(node))?;
    let least = if line.is_closed { 3 } else { 2 };
    if line.segments.len() < least {
        return Err("too little of it would be left: delete it instead".into());
    }
    match (line.before(node), line.after(node)) {
        (Some(before), Some(after)) => {
            let (one, two) = (line.segments[before], line.segments[after]);
            line.segments[before] = joined(&one, &two);
            line.segments.remove(after);
        }
        (Some(last), None) => drop(line.segments.remove(last)),
        (None, Some(first)) => drop(line.segments.remove(first)),
        (None, None) => {}
    }
    Ok(line)
}

/// One segment for two: handles are longer, as for a curve that goes as far as both.
fn joined(one: &PathSeg, two: &PathSeg) -> PathSeg {
    if let (PathSeg::Line(one), PathSeg::Line(two)) = (one, two) {
        return PathSeg::Line(Line::new(one.p0, two.p1));
    }
    let (one, two) = (one.to_cubic(), two.to_cubic());
    let (long, other) = (one.p0.distance(one.p3), two.p0.distance(two.p3));
    let out = one.p0 + (one.p1 - one.p0) * ((long + other) / long.max(1e-9));
    let into = two.p3 + (two.p2 - two.p3) * ((long + other) / other.max(1e-9));
    PathSeg::Cubic(CubicBez::new(one.p0, out, into, two.p3))
}

/// A node whose two sides run on into each other.
pub fn smoothed(mut line: Chain, node: usize) -> Result<Chain, Refusal> {
    let at = line.node(node).ok_or_else(|| no_node(node))?;
    let (Some(before), Some(after)) = (line.before(node), line.after(node)) else {
        return Err("an end has but one side".into());
    };
    let (mut one, mut two) = (line.segments[before].to_cubic(), line.segments[after].to_cubic());
    let way = |curve: &PathSeg, handle: Vec2, straight: Vec2| match curve {
        PathSeg::Line(_) => straight,
        _ => handle,
    };
    let into = way(&line.segments[before], at - one.p2, at - one.p0);
    let out = way(&line.segments[after], two.p1 - at, two.p3 - at);
    let along = into.normalize() + out.normalize();
    if along.hypot() < 1e-6 || !along.is_finite() {
        return Err("the line turns back on itself there".into());
    }
    let along = along.normalize();
    one.p2 = at - along * (at.distance(one.p0) * HANDLE);
    two.p1 = at + along * (at.distance(two.p3) * HANDLE);
    line.segments[before] = PathSeg::Cubic(one);
    line.segments[after] = PathSeg::Cubic(two);
    Ok(line)
}

/// A node that is a corner: no handles on it, and sides without any are straight.
pub fn cornered(mut line: Chain, node: usize) -> Result<Chain, Refusal> {
    let at = line.node(node).ok_or_else(|| no_node(node))?;
    let sides = [(line.before(node), false), (line.after(node), true)];
    for (side, leaves) in sides {
        let Some(side) = side else { continue };
        let mut own = line.segments[side].to_cubic();
        let other_end = if leaves {
            own.p1 = at;
            own.p2.distance(own.p3)
        } else {
            own.p2 = at;
            own.p1.distance(own.p0)
        };
        line.segments[side] = if other_end < 1e-9 {
            PathSeg::Line(Line::new(own.p0, own.p3))
        } else {
            PathSeg::Cubic(own)
        };
    }
    Ok(line)
}

/// A segment that runs straight.
pub fn straightened(mut line: Chain, segment: usize) -> Result<Chain, Refusal> {
    let own = line.segments.get_mut(segment).ok_or("it has no such segment")?;
    *own = PathSeg::Line(Line::new(start(own), end(own)));
    Ok(line)
}

/// A corner between straight sides, rounded by an arc of a radius.
pub fn rounded(mut line: Chain, node: usize, radius: f64) -> Result<Chain, Refusal> {
    let corner = line.node(node).ok_or_else(|| no_node(node))?;
    let (Some(before), Some(after)) = (line.before(node), line.after(node)) else {
        return Err("an end is no corner".into());
    };
    let (PathSeg::Line(one), PathSeg::Line(two)) = (line.segments[before], line.segments[after])
    else {
        return Err("a corner is rounded between two straight sides".into());
    };
    let (into, out) = (corner - one.p0, two.p1 - corner);
    let turn = into.cross(out).atan2(into.dot(out)).abs();
    let straight = 1e-6..=std::f64::consts::PI - 1e-6;
    if !straight.contains(&turn) {
        return Err("the sides run on straight there".into());
    }
    let trim = radius * (turn / 2.0).tan();
    let room = into.hypot().min(out.hypot());
    if trim > room {
        let most = room / (turn / 2.0).tan();
        return Err(Refusal::of("the radius is too large for the sides: up to {}", most));
    }
    let handle = 4.0 / 3.0 * (turn / 4.0).tan() * radius;
    let (into, out) = (into.normalize(), out.normalize());
    let (from, to) = (corner - into * trim, corner + out * trim);
    let arc = PathSeg::Cubic(CubicBez::new(from, from + into * handle, to - out * handle, to));
    line.segments[before] = PathSeg::Line(Line::new(one.p0, from));
    line.segments[after] = PathSeg::Line(Line::new(to, two.p1));
    line.segments.insert(if after == 0 { line.segments.len() } else { after }, arc);
    line.segments.retain(|own| start(own).distance(end(own)) > 1e-12);
    Ok(line)
}

/// Two lines for one, apart at a node; a closed line is open there.
pub fn split(line: Chain, node: usize) -> Result<Vec<Chain>, Refusal> {
    line.node(node).ok_or_else(|| no_node(node))?;
    if line.is_closed {
        let open = line.begun_at(node);
        return Ok(vec![Chain { is_closed: false, ..open }]);
    }
    if node == 0 || node >= line.segments.len() {
        return Err("there is nothing beyond an end".into());
    }
    let mut first = line.segments;
    let second = first.split_off(node);
    Ok([first, second].into_iter().map(|segments| Chain { segments, is_closed: false }).collect())
}

/// One line for two, or a closed one for an open one: the ends that are nearest are joined, straight where they lie apart.
pub fn joined_ends(one: Chain, other: Option<Chain>) -> Result<Chain, Refusal> {
    if one.is_closed || other.as_ref().is_some_and(|own| own.is_closed) {
        return Err("a closed line has no ends".into());
    }
    let bridge = |segments: &mut Vec<PathSeg>, from: Point, to: Point| {
        if from.distance(to) > 1e-9 {
            segments.push(PathSeg::Line(Line::new(from, to)));
        }
    };
    let ends =
        |own: &Chain| [own.node(0), own.node(own.segments.len())].map(Option::unwrap_or_default);
    let Some(other) = other else {
        let mut segments = one.segments.clone();
        let [first, last] = ends(&one);
        if segments.len() < 2 && matches!(segments.first(), Some(PathSeg::Line(_))) {
            return Err("one straight side encloses nothing".into());
        }
        bridge(&mut segments, last, first);
        return Ok(Chain { segments, is_closed: true });
    };
    let ways = [(false, false), (false, true), (true, false), (true, true)];
    let turned =
        |own: &Chain, is_turned| if is_turned { own.clone().reversed() } else { own.clone() };
    let apart = |(first, second): (bool, bool)| {
        ends(&turned(&one, first))[1].distance(ends(&turned(&other, second))[0])
    };
    let best = ways.into_iter().min_by(|a, b| apart(*a).total_cmp(&apart(*b)));
    let (first, second) = best.unwrap_or_default();
    let (one, other) = (turned(&one, first), turned(&other, second));
    let mut segments = one.segments.clone();
    bridge(&mut segments, ends(&one)[1], ends(&other)[0]);
    segments.extend(other.segments);
    Ok(Chain { segments, is_closed: false })
}
