//! From the sides of a walk round the tree to one closed path.

use kurbo::{BezPath, ParamCurve, PathSeg};

/// Ends nearer than this, mm, are one point.
const SAME: f64 = 1e-6;

/// A side on the walk round a tree.
#[derive(Clone, Copy)]
pub(super) struct Walked {
    pub segment: PathSeg,
    /// True where the card goes on beyond it: a seam between neighbours.
    pub is_joined: bool,
}

/// Takes out what is walked there and straight back: where neighbours are joined nothing is cut there,
/// and where they are not a slit is left, which is handed on.
pub(super) fn cancelled(walk: &[Walked]) -> (Vec<PathSeg>, Vec<kurbo::Line>) {
    let mut kept: Vec<Walked> = Vec::with_capacity(walk.len());
    let mut slits = Vec::new();
    for side in walk {
        let mut side = *side;
        loop {
            let Some(before) = kept.last().copied() else {
                kept.push(side);
                break;
            };
            if is_way_back(&before.segment, &side.segment) {
                kept.pop();
                if !before.is_joined && !side.is_joined {
                    slits.push(kurbo::Line::new(side.segment.start(), side.segment.end()));
                }
                break;
            }
            let Some(rest) = turned_back(&before.segment, &side.segment) else {
                kept.push(side);
                break;
            };
            kept.pop();
            let turn = side.segment.start();
            let back = if rest.p1.distance(turn) < before.segment.start().distance(turn) {
                rest.p1
            } else {
                before.segment.start()
            };
            slits.push(kurbo::Line::new(turn, back));
            side.segment = PathSeg::Line(rest);
        }
    }
    (kept.into_iter().map(|side| side.segment).collect(), slits)
}

/// What is left of two straight sides of which the second runs back along the first.
fn turned_back(before: &PathSeg, side: &PathSeg) -> Option<kurbo::Line> {
    let (PathSeg::Line(a), PathSeg::Line(b)) = (before, side) else { return None };
    let (one, two) = (a.p1 - a.p0, b.p1 - b.p0);
    let is_back = one.cross(two).abs() < 1e-9 * one.hypot() * two.hypot() && one.dot(two) < 0.0;
    (is_back && a.p1.distance(b.p0) < SAME).then(|| kurbo::Line::new(a.p0, b.p1))
}

fn is_way_back(one: &PathSeg, other: &PathSeg) -> bool {
    one.start().distance(other.end()) < SAME
        && one.end().distance(other.start()) < SAME
        && one.eval(0.5).distance(other.eval(0.5)) < SAME
}

/// Joins segments that follow each other into one closed path. Straight runs on one line become
/// one segment, so that a knife does not stop between them.
pub(super) fn chain(segments: &[PathSeg]) -> BezPath {
    let mut path = BezPath::new();
    let Some(first) = segments.first() else { return path };
    path.move_to(first.start());
    let mut last: Option<kurbo::Line> = None;
    for segment in segments {
        match segment {
            PathSeg::Line(line) => {
                let joined = last.filter(|before| {
                    let (a, b) = (before.p1 - before.p0, line.p1 - line.p0);
                    a.cross(b).abs() < 1e-9 * a.hypot() * b.hypot() && a.dot(b) > 0.0
                });
                if let Some(before) = joined {
                    path.pop();
                    last = Some(kurbo::Line::new(before.p0, line.p1));
                } else {
                    last = Some(*line);
                }
                path.line_to(line.p1);
            }
            PathSeg::Cubic(curve) => {
                path.curve_to(curve.p1, curve.p2, curve.p3);
                last = None;
            }
            PathSeg::Quad(curve) => {
                path.quad_to(curve.p1, curve.p2);
                last = None;
            }
        }
    }
    path.close_path();
    path
}

#[cfg(test)]
mod tests {
    use super::*;
    use kurbo::{Line, Point};

    fn walk(points: &[(f64, f64)], joined: bool) -> Vec<Walked> {
        points
            .windows(2)
            .map(|pair| Walked {
                segment: PathSeg::Line(Line::new(pair[0], pair[1])),
                is_joined: joined,
            })
            .collect()
    }

    /// Down between two flaps and up again.
    const CLEFT: [(f64, f64); 5] = [(0.0, 0.0), (5.0, 0.0), (5.0, 3.0), (5.0, 0.0), (9.0, 0.0)];

    #[test]
    fn a_way_there_and_back_is_a_slit_unless_the_card_is_joined_there() {
        let (kept, slits) = cancelled(&walk(&CLEFT, false));
        assert_eq!((kept.len(), slits.len()), (2, 1));
        assert!((slits[0].p1.y - slits[0].p0.y).abs() > 2.9);
        let (kept, slits) = cancelled(&walk(&CLEFT, true));
        assert_eq!((kept.len(), slits.len()), (2, 0));
    }

    #[test]
    fn a_way_back_that_is_longer_or_shorter_leaves_the_rest() {
        for (up, end) in [(1.0, 1.0), (5.0, 5.0)] {
            // In by 3, out by `up`, and on.
            let points = [(0.0, 0.0), (5.0, 0.0), (5.0, -3.0), (5.0, -3.0 + up), (9.0, -3.0 + up)];
            let (kept, slits) = cancelled(&walk(&points, false));
            assert_eq!(slits.len(), 1);
            assert!((slits[0].p1 - slits[0].p0).hypot() - f64::min(up, 3.0) < 1e-9, "{end}");
            let path = chain(&kept);
            assert!(path.elements().len() >= 4);
            // Nothing is walked twice: each side starts where the one before ended.
            for pair in kept.windows(2) {
                assert!(pair[0].end().distance(pair[1].start()) < 1e-9);
            }
        }
    }

    #[test]
    fn straight_runs_become_one_side() {
        let sides = walk(&[(0.0, 0.0), (2.0, 0.0), (5.0, 0.0), (5.0, 4.0)], false);
        let (kept, _) = cancelled(&sides);
        let path = chain(&kept);
        let corners: Vec<Point> = path.elements().iter().filter_map(|el| el.end_point()).collect();
        assert_eq!(corners, [Point::ZERO, Point::new(5.0, 0.0), Point::new(5.0, 4.0)]);
    }
}
