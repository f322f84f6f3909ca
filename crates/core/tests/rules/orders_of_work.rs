//! The order in which lines are worked: each once, the inner ones first, by nearly the shortest way.

use aptum_core::geometry::Point;
use aptum_core::tooling::{Group, Strand, order, travel};
use proptest::prelude::*;

const fn anywhere(_: usize) -> Group {
    Group::Between
}

fn lines() -> impl Strategy<Value = Vec<Strand>> {
    let place = || (0.0..200.0f64, 0.0..280.0f64);
    let open = (place(), -20.0..20.0f64, -20.0..20.0f64).prop_map(|((x, y), dx, dy)| Strand {
        points: vec![Point::new(x, y), Point::new(x + dx, y + dy + 0.1)],
        is_closed: false,
    });
    let closed = (place(), 1.0..40.0f64).prop_map(|((x, y), side)| Strand {
        points: [(0.0, 0.0), (side, 0.0), (side, side), (0.0, side), (0.0, 0.0)]
            .map(|(dx, dy)| Point::new(x + dx, y + dy))
            .to_vec(),
        is_closed: true,
    });
    prop::collection::vec(prop_oneof![open, closed], 1..40)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(30))]

    /// Every line once; what lies inside a closed one before it; and no longer than taking them as they come.
    #[test]
    fn an_order_has_every_line_once_and_the_inner_ones_first(strands in lines()) {
        let turns = order(&strands, Point::ZERO, &anywhere);
        let mut seen: Vec<usize> = turns.iter().map(|turn| turn.strand).collect();
        let places = seen.clone();
        seen.sort_unstable();
        prop_assert_eq!(seen, (0..strands.len()).collect::<Vec<_>>());
        let holds = |outer: &Strand, inner: &Strand| {
            let (x0, y0) = (outer.points[0].x, outer.points[0].y);
            let (x1, y1) = (outer.points[2].x, outer.points[2].y);
            let is_in = |at: &Point| at.x > x0 && at.x < x1 && at.y > y0 && at.y < y1;
            inner.points.iter().all(is_in)
        };
        for (at, outer) in strands.iter().enumerate().filter(|(_, own)| own.is_closed) {
            for (within, inner) in strands.iter().enumerate() {
                if at != within && holds(outer, inner) {
                    let place = |of: usize| places.iter().position(|own| *own == of).unwrap();
                    prop_assert!(place(within) < place(at));
                }
            }
        }
        let mut here = Point::ZERO;
        let mut plain = 0.0;
        for strand in &strands {
            plain += here.distance(strand.points[0]);
            here = *strand.points.last().unwrap();
        }
        prop_assert!(travel(&strands, &turns, Point::ZERO) <= plain + 1e-6);
        prop_assert_eq!(&turns, &order(&strands, Point::ZERO, &anywhere), "the same each time");
    }

    /// What is pinned comes first and last, and yet what lies inside before what goes around it.
    #[test]
    fn what_is_pinned_comes_first_and_last(strands in lines(), first in 0..40usize, last in 0..40usize) {
        let (first, last) = (first % strands.len(), last % strands.len());
        prop_assume!(first != last);
        let group = |at: usize| match at {
            _ if at == first => Group::First,
            _ if at == last => Group::Last,
            _ => Group::Between,
        };
        let turns = order(&strands, Point::ZERO, &group);
        let plain = order(&strands, Point::ZERO, &anywhere);
        prop_assert_eq!(turns.len(), plain.len());
        let has_inner = |at: usize| strands[at].is_closed;
        if !has_inner(first) {
            prop_assert_eq!(turns[0].strand, first);
        }
        // Something may go around the last one: that comes after it then.
        let place = turns.iter().position(|own| own.strand == last).unwrap();
        prop_assert!(turns[place + 1..].iter().all(|own| strands[own.strand].is_closed));
    }
}

/// The shortest travel of all: every order, every direction, tried one by one.
fn shortest(strands: &[Strand], left: &mut Vec<usize>, here: Point, gone: f64, best: &mut f64) {
    if gone >= *best {
        return;
    }
    if left.is_empty() {
        *best = gone;
        return;
    }
    for at in 0..left.len() {
        let own = left.swap_remove(at);
        let ends = [strands[own].points[0], *strands[own].points.last().unwrap()];
        for (begin, end) in [(ends[0], ends[1]), (ends[1], ends[0])] {
            shortest(strands, left, end, gone + here.distance(begin), best);
        }
        left.push(own);
        let last = left.len() - 1;
        left.swap(at, last);
    }
}

/// Against every order there is: on six lines at random the travel is seldom longer than it must be.
#[test]
fn travel_is_nearly_the_shortest_there_is() {
    let mut random = fastrand::Rng::with_seed(20_261_129);
    let (mut ratios, mut worst) = (0.0, 1.0f64);
    let tries = 60;
    for _ in 0..tries {
        let mut place = || Point::new(random.f64() * 200.0, random.f64() * 200.0);
        let strands: Vec<Strand> =
            (0..6).map(|_| Strand { points: vec![place(), place()], is_closed: false }).collect();
        let own = travel(&strands, &order(&strands, Point::ZERO, &anywhere), Point::ZERO);
        let mut best = f64::INFINITY;
        shortest(&strands, &mut (0..6).collect(), Point::ZERO, 0.0, &mut best);
        assert!(own >= best - 1e-6);
        ratios += own / best;
        worst = worst.max(own / best);
    }
    let mean = ratios / f64::from(tries);
    assert!(mean < 1.005 && worst < 1.05, "{mean} on average, {worst} at worst");
}

/// Against a published constant: a shortest tour through n places at random in a square of area A is about
/// 0.7124 sqrt(n A) long (Beardwood, Halton and Hammersley 1959; the constant of Percus and Martin 1996). Points are lines
/// of no length, so the travel is such a way.
#[test]
fn travel_through_points_at_random_is_as_long_as_theory_says() {
    let mut random = fastrand::Rng::with_seed(7);
    let count = 600;
    let strands: Vec<Strand> = (0..count)
        .map(|_| {
            let at = Point::new(random.f64() * 200.0, random.f64() * 200.0);
            Strand { points: vec![at, at], is_closed: false }
        })
        .collect();
    let own = travel(&strands, &order(&strands, Point::ZERO, &anywhere), Point::ZERO);
    // The edge of the square makes it longer by about 0.33 / n of itself for each place there (the same paper): some
    // 3 % here. Five more are allowed.
    let theory = 0.7124 * (600.0f64 * 200.0 * 200.0).sqrt();
    assert!(own / theory < 1.11, "{} times theory", own / theory);
    assert!(own / theory > 0.93, "{} times theory: shorter than can be", own / theory);
}
