//! Smooth lines in fewer cubics than drawing one after the other gives.

use std::ops::Range;

use kurbo::BezPath;

use super::cubics::{Node, append, greedy, put};
use super::refit::{Ends, Refit, refitted};

/// How far a single node may be from a line that is near to the others, of the tolerance.
const MOST: f64 = 1.6;

/// How near such a line is to its nodes as a rule, of the tolerance.
const MEAN: f64 = 0.5;

/// What is further off after a few rounds, as a multiple of that, comes no nearer.
const HOPELESS: f64 = 3.0;

/// As [`append`], in fewer: what is drawn may stray further at first, and is then moved as a whole until it lies within
/// the tolerance; single nodes may be further off where most are much nearer.
pub(crate) fn append_few(
    path: &mut BezPath,
    nodes: &[Node],
    ends: Ends,
    tolerance: f64,
    line: f64,
) {
    let mut tried: Vec<Range<usize>> = Vec::new();
    let found = [3.4, 3.0, 2.7, 2.4, 2.2, 2.0, 1.8, 1.6, 1.4, 1.2, 1.1, 1.0].into_iter().find_map(
        |share| {
            let first = greedy(nodes, share * tolerance);
            let ranges = || first.iter().map(|(_, range)| range);
            // The same stretches have the same cubics, which were no good.
            if ranges().eq(&tried) {
                return None;
            }
            tried = ranges().cloned().collect();
            refitted(&first, nodes, ends, tolerance, HOPELESS * MOST * tolerance).filter(
                |Refit { strays, .. }| {
                    strays.most <= MOST * tolerance && strays.mean <= MEAN * tolerance
                },
            )
        },
    );
    let Some(Refit { cubics: few, .. }) = found else {
        return append(path, nodes, tolerance, line);
    };
    if path.elements().is_empty() {
        path.move_to(few[0].p0);
    }
    put(path, few.into_iter(), line);
}

#[cfg(test)]
mod tests {
    use kurbo::{BezPath, CubicBez, ParamCurveCurvature, ParamCurveNearest, Point, Shape, Vec2};
    use proptest::prelude::*;

    use super::{Ends, MOST, Node, append, append_few};

    /// Nodes of a ring about the origin whose radius swings, at even turns.
    fn ring(radius: f64, waves: &[(f64, f64, f64)], count: u32) -> Vec<Node> {
        let place = |turn: f64| {
            let swing: f64 = waves
                .iter()
                .map(|(often, share, phase)| share * (often * turn + phase).sin())
                .sum();
            Point::ORIGIN + Vec2::from_angle(turn) * (radius * (1.0 + swing))
        };
        let mut along = 0.0;
        let turns = (0..=count).map(|at| f64::from(at) / f64::from(count) * std::f64::consts::TAU);
        let mut before: Option<Point> = None;
        turns
            .map(|turn| {
                let at = place(turn);
                along += before.map_or(0.0, |before| before.distance(at));
                before = Some(at);
                Node { at, way: place(turn + 1e-4) - place(turn - 1e-4), along }
            })
            .collect()
    }

    fn off(path: &BezPath, nodes: &[Node]) -> f64 {
        let near = |node: &Node| {
            let all = path.segments().map(|own| own.nearest(node.at, 1e-9).distance_sq);
            all.fold(f64::INFINITY, f64::min).sqrt()
        };
        nodes.iter().map(near).fold(0.0, f64::max)
    }

    /// Four cubics follow a circle to 2.7·10⁻⁴ of its radius, three to 1.5·10⁻³ at best (common practice; the first by
    /// handles of 0.5523 radii).
    #[test]
    fn a_circle_takes_as_few_cubics_as_it_can() {
        let nodes = ring(50.0, &[], 200);
        for (tolerance, most) in [(0.02, 4), (0.15, 3)] {
            let mut path = BezPath::new();
            append_few(&mut path, &nodes, Ends::Joined, tolerance, 1e-3);
            path.close_path();
            assert!(path.segments().count() <= most, "{}", path.to_svg());
            assert!(off(&path, &nodes) <= MOST * tolerance);
            assert!((path.area() / (std::f64::consts::PI * 2500.0) - 1.0).abs() < 1e-3);
        }
    }

    #[test]
    fn a_line_that_is_no_ring_keeps_its_ends() {
        let nodes: Vec<Node> = (0..=80)
            .map(|at| f64::from(at) / 4.0)
            .map(|x| Node {
                at: Point::new(x, 3.0 * x.sin()),
                way: Vec2::new(1.0, 3.0 * x.cos()),
                along: x,
            })
            .collect();
        let mut path = BezPath::new();
        append_few(&mut path, &nodes, Ends::Placed, 0.05, 1e-3);
        let all: Vec<_> = path.segments().map(|own| own.to_cubic()).collect();
        // To the last bit: what a stretch leaves open its neighbour would have to close.
        assert_eq!((all[0].p0, all[all.len() - 1].p3), (nodes[0].at, nodes[80].at));
        assert!(off(&path, &nodes) <= MOST * 0.05);
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(60))]

        /// Whatever swings it has: within what is said of its nodes, in no more cubics than where each is drawn by itself,
        /// and smooth where they meet.
        #[test]
        fn swinging_rings_are_followed_in_fewer(
            radius in 8.0..80.0f64,
            waves in prop::collection::vec((1..9u8, 0.0..0.06f64, 0.0..6.3f64), 0..4),
            tolerance in 0.02..0.5f64,
        ) {
            let waves: Vec<_> = waves.iter().map(|(often, share, at)| (f64::from(*often), *share, *at)).collect();
            let nodes = ring(radius, &waves, 360);
            let (mut few, mut plain) = (BezPath::new(), BezPath::new());
            append_few(&mut few, &nodes, Ends::Joined, tolerance, 1e-6);
            append(&mut plain, &nodes, tolerance, 1e-6);
            prop_assert!(few.segments().count() <= plain.segments().count());
            prop_assert!(off(&few, &nodes) <= MOST * tolerance + 1e-6);
            // No hooks: it bends little more than the ring itself, whose own bend is told by three nodes each, or than
            // where each cubic is drawn by itself.
            let bends = nodes.windows(3).map(|own| {
                let (into, out) = (own[1].at - own[0].at, own[2].at - own[1].at);
                into.cross(out).atan2(into.dot(out)).abs() * 2.0 / (into.hypot() + out.hypot())
            });
            let ring = bends.fold(0.0, f64::max);
            let bend = |own: &CubicBez| {
                (0..=40).map(|at| own.curvature(f64::from(at) / 40.0).abs()).fold(0.0, f64::max)
            };
            let alone = plain.segments().map(|own| bend(&own.to_cubic())).fold(0.0, f64::max);
            for own in few.segments().map(|own| own.to_cubic()) {
                let bow = 8.0 * tolerance / own.p0.distance_squared(own.p3);
                let most = (2.7 * ring + 8.5 * bow).max(1.01 * alone);
                prop_assert!(bend(&own) <= most, "{} {most}", bend(&own));
            }
            let own: Vec<_> = few.segments().map(|own| own.to_cubic()).collect();
            for (before, after) in own.iter().zip(own.iter().skip(1)) {
                prop_assert!(before.p3.distance(after.p0) < 1e-9);
                let (into, out) = (before.p3 - before.p2, after.p1 - after.p0);
                prop_assert!(into.cross(out).abs() < 1e-3 * into.hypot() * out.hypot());
            }
        }
    }
}
