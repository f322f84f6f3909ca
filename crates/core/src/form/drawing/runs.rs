//! Sides between two panels as the creases that they are: what runs straight on, or round a curve, is one.

use std::collections::VecDeque;

use kurbo::Point;

use super::panels::SNAP;

/// A curve turns by less from side to side, degrees; more is a corner, and what meets there are two creases.
const CORNER: f64 = 25.0;

/// A crease, as it folds.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Run {
    /// Its ends.
    pub ends: [Point; 2],
    /// How far it stands off the straight line between these, mm.
    pub bow: f64,
}

/// The creases that the sides between two panels make, in the order of their first sides, each side in the
/// way in which the one panel is walked round. A curved crease stands for its chord, on which it folds.
pub(super) fn creases(sides: &[[Point; 2]]) -> Vec<Run> {
    let mut left: Vec<[Point; 2]> = sides.to_vec();
    let mut found: Vec<Run> = Vec::new();
    while !left.is_empty() {
        let points = run(&mut left);
        let own = chord(&points);
        // A crease that others meet is one all the same.
        match found.iter_mut().find(|known| is_in_line(known.ends, own)) {
            Some(known) => known.ends = widest(known.ends, own),
            None => {
                let along = (own[1] - own[0]).normalize();
                let off = points.iter().map(|at| (*at - own[0]).cross(along).abs());
                found.push(Run { ends: own, bow: off.fold(0.0, f64::max) });
            }
        }
    }
    found
}

/// Takes the first side and all that it runs on into, as the points along it.
fn run(left: &mut Vec<[Point; 2]>) -> VecDeque<Point> {
    let mut run = VecDeque::from(left.remove(0));
    while let Some(at) =
        left.iter().position(|side| goes_on([run[run.len() - 2], run[run.len() - 1]], *side))
    {
        run.push_back(left.remove(at)[1]);
    }
    while let Some(at) = left.iter().position(|side| goes_on(*side, [run[0], run[1]])) {
        run.push_front(left.remove(at)[0]);
    }
    run
}

fn goes_on(side: [Point; 2], next: [Point; 2]) -> bool {
    let (way, then) = (side[1] - side[0], next[1] - next[0]);
    let turn = way.cross(then).atan2(way.dot(then)).abs().to_degrees();
    side[1].distance(next[0]) < SNAP && turn < CORNER
}

/// The ends of a run; of one that comes back to where it began those of its longest side.
fn chord(run: &VecDeque<Point>) -> [Point; 2] {
    let ends = [run[0], run[run.len() - 1]];
    if run.len() == 2 || ends[0].distance(ends[1]) > 2.0 * SNAP {
        return ends;
    }
    let sides = run.iter().zip(run.iter().skip(1)).map(|(from, to)| [*from, *to]);
    let long = |side: &[Point; 2]| side[0].distance(side[1]);
    sides.max_by(|one, other| long(one).total_cmp(&long(other))).unwrap_or(ends)
}

fn is_in_line(one: [Point; 2], other: [Point; 2]) -> bool {
    let along = (one[1] - one[0]).normalize();
    other.iter().all(|end| (*end - one[0]).cross(along).abs() < 2.0 * SNAP)
}

/// The two ends that are farthest apart.
fn widest(one: [Point; 2], other: [Point; 2]) -> [Point; 2] {
    let all = [one[0], one[1], other[0], other[1]];
    let along = (one[1] - one[0]).normalize();
    let far = |end: &&Point| (**end - one[0]).dot(along);
    let least = all.iter().min_by(|a, b| far(a).total_cmp(&far(b)));
    let most = all.iter().max_by(|a, b| far(a).total_cmp(&far(b)));
    [*least.unwrap_or(&one[0]), *most.unwrap_or(&one[1])]
}

#[cfg(test)]
mod tests {
    use super::*;

    fn along(points: &[(f64, f64)]) -> Vec<[Point; 2]> {
        points.windows(2).map(|pair| [pair[0].into(), pair[1].into()]).collect()
    }

    #[test]
    fn a_curve_is_its_chord_in_whatever_order_its_sides_come() {
        let bow: Vec<(f64, f64)> = (0..=12)
            .map(|at| (f64::from(at) * 15.0).to_radians())
            .map(|turn| (-20.0 * turn.cos(), 20.0 * turn.sin()))
            .collect();
        let mut sides = along(&bow);
        for round in 0..sides.len() {
            sides.rotate_left(5);
            sides.swap(0, round);
            let [Run { ends: own, bow }] = creases(&sides)[..] else { panic!("one crease") };
            assert!((bow - 20.0).abs() < 1e-9, "{bow}");
            // In the way in which it is walked.
            assert!(own[0].distance(Point::new(-20.0, 0.0)) < 1e-9, "{own:?}");
            assert!(own[1].distance(Point::new(20.0, 0.0)) < 1e-9, "{own:?}");
        }
    }

    #[test]
    fn corners_part_creases_and_gaps_in_a_line_do_not() {
        let corner = along(&[(0.0, 0.0), (30.0, 0.0), (30.0, 10.0)]);
        assert_eq!(creases(&corner).len(), 2);
        let mut gap = along(&[(0.0, 0.0), (10.0, 0.0)]);
        gap.extend(along(&[(20.0, 0.0), (25.0, 0.0)]));
        assert_eq!(creases(&gap), [Run { ends: [Point::ZERO, Point::new(25.0, 0.0)], bow: 0.0 }]);
        // All the way round there is no chord.
        let round: Vec<(f64, f64)> =
            (0..=36).map(|at| (f64::from(at) * 10.0).to_radians().sin_cos()).collect();
        let [Run { ends: own, .. }] = creases(&along(&round))[..] else { panic!("one crease") };
        assert!(own[0].distance(own[1]) > 0.1, "{own:?}");
    }
}
