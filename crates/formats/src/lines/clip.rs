//! What a clip leaves of lines, and what it hides.

use aptum_core::geometry::{BezPath, PathEl, Rect, Region, Shape};
use kurbo::{Line, ParamCurve, PathSeg, Point};

/// A line cut where it crosses the edge of a clip: what is seen, and what is hidden.
pub(super) fn clipped(path: &BezPath, clip: &Region) -> (BezPath, BezPath) {
    let bounds = clip.bounds().unwrap_or_default();
    let own = path.bounding_box();
    if !overlap(own, bounds) {
        return (BezPath::new(), path.clone());
    }
    let edges: Vec<Line> = clip
        .rings()
        .flat_map(|ring| {
            let points = ring.points;
            let next: Vec<Point> = points.iter().skip(1).chain(points.first()).copied().collect();
            points.into_iter().zip(next).map(|(a, b)| Line::new(a, b)).collect::<Vec<_>>()
        })
        .collect();
    let crosses = path.segments().any(|segment| !crossings(segment, &edges).is_empty());
    if !crosses {
        let start = path.elements().first().and_then(PathEl::end_point).unwrap_or_default();
        let empty = BezPath::new();
        return if clip.holds(start) { (path.clone(), empty) } else { (empty, path.clone()) };
    }
    let (mut seen, mut hidden) = (BezPath::new(), BezPath::new());
    let mut last: Option<bool> = None;
    for segment in path.segments() {
        let mut from = 0.0;
        for to in crossings(segment, &edges).into_iter().chain([1.0]) {
            if to - from < 1e-9 {
                continue;
            }
            let part = segment.subsegment(from..to);
            let is_seen = clip.holds(part.eval(0.5));
            let into = if is_seen { &mut seen } else { &mut hidden };
            if last != Some(is_seen) {
                into.move_to(part.start());
            }
            into.push(part.as_path_el());
            last = Some(is_seen);
            from = to;
        }
    }
    (seen, hidden)
}

fn overlap(one: Rect, other: Rect) -> bool {
    one.x0 <= other.x1 && other.x0 <= one.x1 && one.y0 <= other.y1 && other.y0 <= one.y1
}

/// Where along a segment it meets the clip's edge, in order.
fn crossings(segment: PathSeg, edges: &[Line]) -> Vec<f64> {
    let own = segment.bounding_box();
    let near = edges.iter().filter(|edge| overlap(own, edge.bounding_box()));
    let mut all: Vec<f64> = near
        .flat_map(|edge| segment.intersect_line(*edge))
        .map(|met| met.segment_t)
        .filter(|t| (1e-9..1.0 - 1e-9).contains(t))
        .collect();
    all.sort_by(f64::total_cmp);
    all
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_line_across_a_clip_is_cut_at_its_edge() {
        let clip = Region::rect(Rect::new(0.0, 0.0, 10.0, 10.0));
        let path = |text: &str| BezPath::from_svg(text).unwrap();
        let long = |path: &BezPath| {
            path.segments().map(|own| kurbo::ParamCurveArclen::arclen(&own, 1e-6)).sum::<f64>()
        };
        let (seen, hidden) = clipped(&path("M-5 5L15 5"), &clip);
        assert!((long(&seen) - 10.0).abs() < 1e-9 && (long(&hidden) - 10.0).abs() < 1e-9);
        assert_eq!(
            hidden.elements().iter().filter(|own| matches!(own, PathEl::MoveTo(_))).count(),
            2
        );
        let (seen, hidden) = clipped(&path("M2 2L8 8"), &clip);
        assert!(!seen.is_empty() && hidden.is_empty());
        assert!(clipped(&path("M20 20L30 20"), &clip).0.is_empty());
        // A curve stays one.
        let (seen, _) = clipped(&path("M-5 5C0 -5 10 15 15 5"), &clip);
        assert!(seen.elements().iter().all(|own| !matches!(own, PathEl::LineTo(_))), "{seen:?}");
    }
}
