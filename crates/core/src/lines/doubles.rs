//! Lines that lie on each other.

use std::collections::HashMap;

use kurbo::{BezPath, ParamCurve, ParamCurveArclen, PathEl, PathSeg, Point, Shape};

/// Lines that were drawn, each once, with how often.
#[derive(Debug, Clone, PartialEq)]
pub struct Copies {
    /// The lines, in their order.
    pub lines: Vec<(BezPath, u32)>,
    /// How many lie on one that was there before.
    pub doubles: usize,
}

/// Lines that are nearer to each other than this along all of them are the same, mm.
const SAME: f64 = 0.02;

/// Lines about as large about the same place that are compared; what lies thicker is no drawing.
const MOST_NEAR: usize = 32;

/// Finds lines that run where another does, whichever way round.
#[must_use]
pub fn copies(lines: Vec<BezPath>) -> Copies {
    let mut known: HashMap<[i64; 3], Vec<usize>> = HashMap::new();
    let mut all: Vec<(BezPath, u32)> = Vec::new();
    let mut doubles = 0;
    for path in lines {
        let sign = signature(&path);
        let [least, own, most] = [-SAME, 0.0, SAME].map(|away| buckets(sign, away));
        // What is near a border of two buckets lies in either.
        let near = (least[0]..=most[0]).flat_map(|a| {
            (least[1]..=most[1]).flat_map(move |b| (least[2]..=most[2]).map(move |c| [a, b, c]))
        });
        let found = near
            .filter_map(|key| known.get(&key))
            .flat_map(|here| here.iter().take(MOST_NEAR))
            .copied()
            .find(|at| is_same(&all[*at].0, &path));
        if let Some(at) = found {
            all[at].1 += 1;
            doubles += 1;
        } else {
            known.entry(own).or_default().push(all.len());
            all.push((path, 1));
        }
    }
    Copies { lines: all, doubles }
}

/// Where its middle lies, and how large it is: of two that are the same no figure differs by more than [`SAME`].
fn signature(path: &BezPath) -> [f64; 3] {
    let bounds = path.bounding_box();
    [bounds.center().x, bounds.center().y, (bounds.width() + bounds.height()) / 4.0]
}

/// The bucket of a signature, all of it moved by `away`.
#[expect(clippy::cast_possible_truncation, reason = "mm on sheets")]
fn buckets(sign: [f64; 3], away: f64) -> [i64; 3] {
    sign.map(|mm| ((mm + away) / (4.0 * SAME)).floor() as i64)
}

/// True where points all along one lie on the other, and they are as long as each other.
fn is_same(one: &BezPath, other: &BezPath) -> bool {
    let (ours, theirs) = (sampled(one), sampled(other));
    let length = |path: &BezPath| path.segments().map(|seg| seg.arclen(SAME)).sum::<f64>();
    (length(one) - length(other)).abs() < 4.0 * SAME
        && is_closed(one) == is_closed(other)
        && ours.iter().all(|point| is_on(*point, other))
        && theirs.iter().all(|point| is_on(*point, one))
}

fn is_closed(path: &BezPath) -> bool {
    path.elements().last() == Some(&PathEl::ClosePath)
}

fn sampled(path: &BezPath) -> Vec<Point> {
    let segments: Vec<PathSeg> = path.segments().collect();
    let step = (segments.len() / 40).max(1);
    let some = segments.iter().step_by(step);
    some.flat_map(|segment| [segment.start(), segment.eval(0.37), segment.end()]).collect()
}

fn is_on(point: Point, path: &BezPath) -> bool {
    use kurbo::ParamCurveNearest;
    path.segments().any(|segment| {
        let near = segment.bounding_box().inflate(SAME, SAME);
        near.contains(point) && segment.nearest(point, SAME / 10.0).distance_sq <= SAME * SAME
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::circle;

    #[test]
    fn the_same_line_the_other_way_round_or_from_elsewhere_is_a_double() {
        let path = |text: &str| BezPath::from_svg(text).unwrap();
        let lines = vec![
            path("M0 0L10 0L10 10"),
            path("M10 10L10 0L0 0"),
            path("M0 0L10 0L10 10Z"),
            path("M10 0L10 10L0 0Z"),
            path("M0 0L10 0"),
            path("M0.005 0L10.004 0.003"),
            path("M0 0.1L10 0.1"),
        ];
        let found = copies(lines);
        let counts: Vec<u32> = found.lines.iter().map(|(_, count)| *count).collect();
        assert_eq!((counts, found.doubles), (vec![2, 2, 2, 1], 3));
        let turned = kurbo::Affine::rotate(0.7) * circle(Point::ZERO, 5.0);
        assert_eq!(copies(vec![circle(Point::ZERO, 5.0), turned]).doubles, 1);
    }
}
