//! Lines trimmed to others, and lengthened to them.

use kurbo::{Line, ParamCurve, PathSeg, Point};

use super::chain::Chain;
use super::said::Refusal;

/// What is left of a line when the part nearest to `at` goes, up to where it crosses `other`. A straight end that falls
/// short of it is lengthened to it instead.
pub fn trimmed(line: &Chain, at: Point, other: &Chain) -> Result<Vec<Chain>, Refusal> {
    let sides = straight_sides(other);
    let mut cuts: Vec<f64> = Vec::new();
    for (number, segment) in line.segments.iter().enumerate() {
        for side in &sides {
            for hit in segment.intersect_line(*side) {
                cuts.push(count(number) + hit.segment_t.clamp(0.0, 1.0));
            }
        }
    }
    cuts.sort_by(f64::total_cmp);
    cuts.dedup_by(|one, other| (*one - *other).abs() < 1e-6);
    let whole = count(line.segments.len());
    if !line.is_closed {
        cuts.retain(|cut| (1e-6..=whole - 1e-6).contains(cut));
    }
    let place = nearest(line, at);
    if line.is_closed {
        if cuts.len() < 2 {
            return Err("it does not cross the other line twice".into());
        }
        let from = cuts.iter().rev().find(|cut| **cut <= place).or(cuts.last());
        let to = cuts.iter().find(|cut| **cut > place).or(cuts.first());
        let (Some(from), Some(to)) = (from, to) else { return Ok(Vec::new()) };
        // What stays runs from where the part ends, around to where it begins.
        let until = if *to < *from { *from } else { *from + whole };
        return Ok(vec![part(line, *to, until)]);
    }
    if cuts.is_empty() {
        return lengthened(line, at, &sides).map(|own| vec![own]);
    }
    let from = cuts.iter().rev().find(|cut| **cut <= place);
    let to = cuts.iter().find(|cut| **cut > place);
    let first = from.map(|from| part(line, 0.0, *from));
    let second = to.map(|to| part(line, *to, whole));
    Ok(first.into_iter().chain(second).filter(|own| !own.segments.is_empty()).collect())
}

/// The line with its straight end that is nearer to `at` reaching the first of the sides in its way.
fn lengthened(line: &Chain, at: Point, sides: &[Line]) -> Result<Chain, Refusal> {
    let mut line = line.clone();
    let ends = [line.node(0), line.node(line.segments.len())].map(Option::unwrap_or_default);
    let is_turned = ends[0].distance(at) < ends[1].distance(at);
    if is_turned {
        line = line.reversed();
    }
    let Some(PathSeg::Line(last)) = line.segments.last_mut() else {
        return Err(
            "it does not cross the other line, and its end is no straight one that could reach it"
                .into(),
        );
    };
    let along = (last.p1 - last.p0).normalize();
    let far = Line::new(last.p1, last.p1 + along * 1e7);
    let hits = sides.iter().filter_map(|side| {
        let (across, gap) = (side.p1 - side.p0, side.p0 - far.p0);
        let turn = along.cross(across);
        let (way, share) = (gap.cross(across) / turn, gap.cross(along) / turn);
        (way > 1e-9 && (0.0..=1.0).contains(&share)).then_some(way)
    });
    let way = hits
        .min_by(f64::total_cmp)
        .ok_or("it neither crosses the other line nor runs towards it")?;
    last.p1 += along * way;
    Ok(if is_turned { line.reversed() } else { line })
}

/// A line from one place on it to another, counted in segments; beyond its end a closed line goes on from its beginning.
fn part(line: &Chain, from: f64, to: f64) -> Chain {
    let number = line.segments.len();
    let mut segments = Vec::new();
    let mut at = from;
    while at < to - 1e-9 {
        let index = whole(at);
        let (begin, stop) = (at - count(index), (to - count(index)).min(1.0));
        if stop - begin > 1e-9 {
            segments.push(line.segments[index % number].subsegment(begin..stop));
        }
        at = count(index + 1);
    }
    Chain { segments, is_closed: false }
}

/// Where on a line it comes nearest to a place, counted in segments.
fn nearest(line: &Chain, at: Point) -> f64 {
    use kurbo::ParamCurveNearest;
    let near = line.segments.iter().enumerate().map(|(number, segment)| {
        let near = segment.nearest(at, 1e-6);
        (near.distance_sq, count(number) + near.t)
    });
    near.min_by(|one, other| one.0.total_cmp(&other.0)).map_or(0.0, |(_, place)| place)
}

fn straight_sides(line: &Chain) -> Vec<Line> {
    let bounds = kurbo::Shape::bounding_box(&line.path());
    let fine = bounds.width().max(bounds.height()) * 1e-5;
    let rings = crate::geometry::flattened_to(&line.path(), fine.max(1e-9));
    let mut sides = Vec::new();
    for ring in rings {
        sides.extend(ring.windows(2).map(|pair| Line::new(pair[0], pair[1])));
        if let (true, [first, .., last]) = (line.is_closed, ring.as_slice()) {
            sides.push(Line::new(*last, *first));
        }
    }
    sides
}

fn count(number: usize) -> f64 {
    f64::from(u32::try_from(number).unwrap_or(u32::MAX))
}

#[expect(
    clippy::cast_possible_truncation,
    clippy::cast_sign_loss,
    reason = "a place on a line of few segments"
)]
fn whole(place: f64) -> usize {
    place.floor().max(0.0) as usize
}
