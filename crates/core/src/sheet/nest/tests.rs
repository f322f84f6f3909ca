//! The parts of the search on their own, judged by geo, which none of them uses.

use geo::{Area, Distance, Euclidean, Intersects};
use kurbo::{Point, Rect, Vec2};
use proptest::prelude::*;

use super::arena::Arena;
use super::fence::Fence;
use super::lattice::lattice;
use super::profile::Profile;
use super::seek::free_place;
use super::separate::{Patience, poses, separate};
use super::shape::{Pose, Shape, Turns};
use super::shrink::{foot, shrink};
use super::watch::{Effort, ToTheEnd};
use super::{NestBlank, SAMPLES};
use crate::geometry::{BezPath, Outline, Region, circle, polygon};
use crate::sheet::{Machines, Marks, Orientation, Piece, Window, Windows};

fn windows(width: f64, height: f64, bites: &[Rect]) -> Windows {
    let page = Rect::new(0.0, 0.0, width, height);
    let windows = Machines::default().windows(page, Orientation::Portrait, &Marks::default());
    let mut region = windows.cut.region.clone();
    for bite in bites {
        region = region.minus(&Region::rect(*bite));
    }
    Windows { cut: Window { region, ..windows.cut.clone() }, ..windows }
}

fn path(points: &[(f64, f64)]) -> BezPath {
    polygon(&points.iter().map(|(x, y)| Point::new(*x, *y)).collect::<Vec<_>>())
}

fn shape(path: &BezPath, spacing: f64, turns: Turns) -> Shape {
    let piece = Piece::new(path, &Region::empty()).unwrap();
    let blank = NestBlank { number: 0, piece: &piece, turns, wanted: 1 };
    Shape::new(&blank, spacing, true).unwrap()
}

fn square(side: f64) -> BezPath {
    path(&[(0.0, 0.0), (side, 0.0), (side, side), (0.0, side)])
}

fn arena<'a>(shapes: &'a [Shape], windows: &Windows) -> Arena<'a> {
    Arena::new(shapes, &Fence::new(&windows.cut).unwrap(), &Fence::new(&windows.print).unwrap())
}

fn at(x: f64, y: f64) -> Pose {
    Pose { at: Point::new(x, y), turn: 0.0 }
}

/// The exact outline where a pose has it.
fn placed(shape: &Shape, pose: Pose) -> geo::Polygon<f64> {
    let placement = shape.placement(pose);
    // `outline` lies about the middle; the pose says where the middle is and how it is turned.
    assert!((shape.pose(&placement).at - pose.at).hypot() < 1e-9, "a pose comes back");
    let turned = shape.outline.transformed(crate::sheet::rotation(pose.turn));
    let ring = turned.points().iter().map(|p| (p.x + pose.at.x, p.y + pose.at.y)).collect();
    geo::Polygon::new(ring, Vec::new())
}

/// The room that a copy keeps where a pose has it.
fn room(shape: &Shape, pose: Pose) -> geo::Polygon<f64> {
    let turn = crate::sheet::rotation(pose.turn);
    let corner = |p: &jagua_rs::geometry::primitives::Point| {
        let at = turn * Point::new(f64::from(p.0), f64::from(p.1)) + pose.at.to_vec2();
        (at.x, at.y)
    };
    geo::Polygon::new(shape.room.vertices().iter().map(corner).collect(), Vec::new())
}

fn least_gap(arena: &Arena<'_>) -> f64 {
    let all: Vec<_> =
        arena.copies().iter().map(|copy| placed(&arena.shapes()[copy.shape], copy.pose)).collect();
    let mut least = f64::INFINITY;
    for (number, one) in all.iter().enumerate() {
        for other in &all[number + 1..] {
            least = least.min(Euclidean.distance(one, other));
        }
    }
    least
}

fn star(radii: &[f64], size: f64) -> BezPath {
    let step = std::f64::consts::TAU / f64::from(u32::try_from(radii.len()).unwrap());
    let corner = |(radius, at): (&f64, u32)| {
        let (sin, cos) = (f64::from(at) * step).sin_cos();
        (size * radius * cos, size * radius * sin)
    };
    path(&radii.iter().zip(0..).map(corner).collect::<Vec<_>>())
}

#[test]
fn a_copy_is_free_up_to_the_spacing_and_to_the_windows_edge() {
    let shapes = [shape(&square(20.0), 3.0, Turns::These(vec![0.0]))];
    let mut arena = arena(&shapes, &windows(100.0, 100.0, &[Rect::new(60.0, 60.0, 100.0, 70.0)]));
    arena.add(0, at(30.0, 30.0), false);
    // Squares of 20 whose middles are 23 apart leave the spacing of 3.
    assert!(arena.is_free(0, at(53.001, 30.0), usize::MAX));
    assert!(!arena.is_free(0, at(52.98, 30.0), usize::MAX));
    assert!(arena.is_free(0, at(30.0, 30.0), 0), "it is not in its own way");
    // The window’s edge asks for no spacing, and neither does what bites into the window.
    assert!(arena.is_free(0, at(10.0, 80.0), usize::MAX));
    assert!(!arena.is_free(0, at(9.99, 80.0), usize::MAX));
    assert!(arena.is_free(0, at(80.0, 49.999), usize::MAX));
    assert!(!arena.is_free(0, at(80.0, 50.02), usize::MAX));
}

#[test]
fn cost_falls_as_copies_part_and_is_nothing_when_they_have() {
    let shapes = [shape(&square(20.0), 2.0, Turns::These(vec![0.0]))];
    let mut arena = arena(&shapes, &windows(200.0, 60.0, &[]));
    arena.add(0, at(50.0, 30.0), false);
    let cost = |arena: &mut Arena<'_>, x: f64| {
        arena.cost((0, at(x, 30.0), usize::MAX), |_| 1.0, f32::INFINITY)
    };
    let costs: Vec<f32> = (0..=22).map(|step| cost(&mut arena, 50.0 + f64::from(step))).collect();
    assert!(costs.windows(2).all(|pair| pair[1] <= pair[0]), "{costs:?}");
    assert!(costs[0] > 0.0 && costs[21] > 0.0, "{costs:?}");
    assert!(costs[22] == 0.0, "{costs:?}");
    // Farther outside costs more.
    let outside: Vec<f32> =
        (0..20).map(|step| cost(&mut arena, 189.0 + 3.0 * f64::from(step))).collect();
    assert!(outside.windows(2).all(|pair| pair[1] > pair[0]), "{outside:?}");
    // A weight makes the same meeting count for more.
    let twice = arena.cost((0, at(60.0, 30.0), usize::MAX), |_| 2.0, f32::INFINITY);
    assert!((twice - 2.0 * costs[10]).abs() < 1e-3 * twice);
}

#[test]
fn what_meets_is_named_with_how_badly() {
    let shapes = [shape(&square(20.0), 2.0, Turns::These(vec![0.0]))];
    let mut arena = arena(&shapes, &windows(200.0, 60.0, &[]));
    for x in [30.0, 45.0, 100.0] {
        arena.add(0, at(x, 30.0), false);
    }
    let mut met = Vec::new();
    arena.meets(0, &mut met);
    assert_eq!(met.iter().map(|(other, _)| *other).collect::<Vec<_>>(), [1]);
    let badly = met[0].1;
    arena.meets(1, &mut met);
    assert!((met[0].1 - badly).abs() < 1e-3 * badly, "the same from either side");
    arena.meets(2, &mut met);
    assert!(met.is_empty());
    assert!(arena.excess(2) == 0.0);
    arena.move_to(2, at(195.0, 30.0));
    assert!(arena.excess(2) > 0.0);
}

#[test]
fn copies_that_lie_on_each_other_are_pulled_apart() {
    let shapes = [shape(&square(20.0), 2.0, Turns::These(vec![0.0]))];
    // Four squares of 20 in a window of 46: two by two with 2 between leaves 4 to spare.
    let mut arena = arena(&shapes, &windows(46.0, 46.0, &[]));
    for number in 0..4 {
        arena.add(0, at(20.0 + f64::from(number), 22.0), false);
    }
    let effort = Effort::new(&ToTheEnd, 5000);
    let patience = Patience { passes: 60, strikes: 6 };
    let mut rng = fastrand::Rng::with_seed(3);
    assert!(separate(&mut arena, patience, &mut rng, &effort.purse(5000)));
    assert!(least_gap(&arena) >= 2.0 - 0.003, "{}", least_gap(&arena));
}

#[test]
fn what_cannot_be_pulled_apart_is_said_and_fixed_copies_stay() {
    let shapes = [shape(&square(20.0), 2.0, Turns::These(vec![0.0]))];
    let mut arena = arena(&shapes, &windows(41.0, 60.0, &[]));
    arena.add(0, at(20.0, 30.0), true);
    arena.add(0, at(20.0, 40.0), false);
    let effort = Effort::new(&ToTheEnd, 400);
    let mut rng = fastrand::Rng::with_seed(3);
    let patience = Patience { passes: 20, strikes: 2 };
    assert!(!separate(&mut arena, patience, &mut rng, &effort.purse(400)));
    assert_eq!(poses(&arena)[0], at(20.0, 30.0));
}

#[test]
fn a_purse_holds_what_is_left_and_no_more() {
    let mut effort = Effort::new(&ToTheEnd, 10);
    effort.spend(7);
    let purse = effort.purse(100);
    assert_eq!((0..100).filter(|_| purse.pay()).count(), 3);
    effort.spend(3);
    assert!(!effort.is_left());
    effort.spend(u64::MAX);
    assert_eq!(effort.left(), 0);
}

#[test]
fn copies_are_moved_together_and_end_earlier() {
    let shapes = [
        shape(&square(20.0), 2.0, Turns::These(vec![0.0])),
        shape(&path(&[(0.0, 0.0), (44.0, 0.0), (0.0, 30.0)]), 2.0, Turns::These(vec![0.0, 180.0])),
    ];
    let mut arena = arena(&shapes, &windows(100.0, 200.0, &[]));
    for (which, x, y) in [(0, 15.0, 20.0), (1, 60.0, 90.0), (1, 30.0, 150.0), (0, 80.0, 180.0)] {
        arena.add(which, at(x, y), false);
    }
    let before = foot(&arena);
    let mut effort = Effort::new(&ToTheEnd, 3000);
    let mut told = Vec::new();
    shrink(&mut arena, &mut fastrand::Rng::with_seed(5), &mut effort, |arena, _| {
        told.push(foot(arena));
    });
    // All four side by side and below each other need about 55.
    assert!(foot(&arena) < 0.5 * before, "{} of {before}", foot(&arena));
    assert!(least_gap(&arena) >= 2.0 - 0.003, "{}", least_gap(&arena));
    assert!(told.windows(2).all(|pair| pair[1] < pair[0]), "{told:?}");
    assert!((told.last().unwrap() - foot(&arena)).abs() < 1e-9);
}

#[test]
fn what_cannot_end_higher_up_costs_no_effort() {
    let shapes = [shape(
        &path(&[(0.0, 0.0), (60.0, 0.0), (60.0, 20.0), (0.0, 20.0)]),
        2.0,
        Turns::These(vec![0.0, 90.0]),
    )];
    let spent = |copies: &[(Pose, bool)]| {
        let mut arena = arena(&shapes, &windows(100.0, 200.0, &[]));
        for (pose, fixed) in copies {
            arena.add(0, *pose, *fixed);
        }
        let mut effort = Effort::new(&ToTheEnd, 300);
        shrink(&mut arena, &mut fastrand::Rng::with_seed(5), &mut effort, |_, _| {});
        (effort.spent(), foot(&arena))
    };
    assert_eq!(spent(&[(at(30.0, 10.0), false)]), (0, 20.0));
    // A copy that stays ends lower down anyway.
    assert_eq!(spent(&[(at(30.0, 10.0), false), (at(30.0, 150.0), true)]), (0, 160.0));
    let (spent, foot) = spent(&[(at(30.0, 70.0), false)]);
    assert!(spent > 0 && foot < 21.0, "{spent} moves to {foot}");
}

/// Corners grown by a few thousandths of a millimetre cross each other in single precision.
#[test]
fn a_hair_of_spacing_loses_no_shape() {
    let radii = [0.946_290_2, 0.794_367_8, 0.492_118_9, 0.961_588_3, 0.683_198, 0.558_200_3];
    for spacing in [0.0, 0.001, 0.003, 0.007_819_178_753_620_617, 0.02, 0.1] {
        let shapes = [shape(&star(&radii, 21.238_327_7), spacing, Turns::Any)];
        let laid = lattice(&shapes[0], &windows(150.0, 150.0, &[]));
        assert!(laid.len() > 8, "{} copies at {spacing}", laid.len());
    }
}

#[test]
fn the_only_hole_left_is_found() {
    let shapes = [shape(&square(20.0), 0.0, Turns::These(vec![0.0]))];
    // All is taken but one place of 21 by 21.
    let bites = [
        Rect::new(0.0, 0.0, 100.0, 50.0),
        Rect::new(0.0, 71.0, 100.0, 100.0),
        Rect::new(0.0, 50.0, 40.0, 71.0),
        Rect::new(61.0, 50.0, 100.0, 71.0),
    ];
    let mut arena = arena(&shapes, &windows(100.0, 100.0, &bites));
    let mut rng = fastrand::Rng::with_seed(1);
    let found = (0..40).find_map(|_| free_place(&mut arena, 0, SAMPLES, &mut rng));
    let Pose { at: found, .. } = found.expect("there is a place");
    // Up and to the left within it.
    assert!((found - Point::new(50.0, 60.0)).hypot() < 0.05, "{found:?}");
}

/// Area that each copy takes, from the pitches of a lattice that has been laid: the middles’ nearest neighbours.
fn density(path: &BezPath, turns: Turns) -> f64 {
    let shape = shape(path, 0.0, turns);
    let side = 40.0 * shape.area.sqrt();
    let laid = lattice(&shape, &windows(side, side, &[]));
    f64::from(u32::try_from(laid.len()).unwrap()) * shape.area / (side * side)
}

/// Triangles, quadrilaterals and regular hexagons tile the plane (any handbook of geometry); equal discs cover
/// at most π/√12 = 0.9069 of it (Thue 1890, Fejes Tóth 1940). What a window’s edges cost is less than a tenth
/// here.
#[test]
fn lattices_come_near_to_what_is_known_to_be_densest() {
    let halves = Turns::These(vec![0.0, 180.0]);
    let triangle = path(&[(0.0, 0.0), (31.0, 0.0), (9.0, 23.0)]);
    let odd = path(&[(0.0, 0.0), (30.0, -6.0), (36.0, 22.0), (5.0, 15.0)]);
    let hexagon = star(&[1.0; 6], 15.0);
    for (name, path) in [("triangle", &triangle), ("quadrilateral", &odd), ("hexagon", &hexagon)] {
        let found = density(path, halves.clone());
        assert!(found > 0.9 && found <= 1.0, "{name}: {found}");
    }
    let disc = density(&circle(Point::ZERO, 10.0), Turns::These(vec![0.0]));
    assert!(disc > 0.9 * 0.9069 && disc <= 0.9069, "disc: {disc}");
}

/// Copies of a triangle that are all turned alike cover at most two thirds of the plane (Fáry 1950, from
/// memory).
#[test]
fn turns_that_are_not_allowed_are_not_used() {
    let triangle = path(&[(0.0, 0.0), (31.0, 0.0), (9.0, 23.0)]);
    let alike = shape(&triangle, 0.0, Turns::These(vec![90.0]));
    let laid = lattice(&alike, &windows(300.0, 300.0, &[]));
    assert!(!laid.is_empty() && laid.iter().all(|pose| pose.turn == 90.0));
    let found = density(&triangle, Turns::These(vec![90.0]));
    assert!(found > 0.6 && found <= 2.0 / 3.0, "{found}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]
    /// Profiles know of a shape only where its outer sides run, so what they say is exact for shapes that each
    /// level crosses once, and never too little for others: moved so far, and a hair more, two are apart; for
    /// convex ones a hair less they are not.
    #[test]
    fn a_profile_clears_another(
        one in prop::collection::vec(0.4..1.0f64, 4..9), other in prop::collection::vec(0.4..1.0f64, 4..9),
        size in 5.0..30.0f64, down in -40.0..40.0f64, convex in any::<bool>(),
    ) {
        let radii = |radii: Vec<f64>| if convex { vec![1.0; radii.len()] } else { radii };
        let outlines = [radii(one), radii(other)].map(|radii| Outline::of_path(&star(&radii, size)).unwrap());
        let [a, b] = outlines.each_ref().map(|outline| Profile::new(outline.points()));
        let far = a.clears(&b, down);
        let ring = |outline: &Outline, by: Vec2| {
            geo::Polygon::new(outline.points().iter().map(|p| (p.x + by.x, p.y + by.y)).collect(), Vec::new())
        };
        let still = ring(&outlines[0], Vec2::ZERO);
        let moved = |x: f64| ring(&outlines[1], Vec2::new(x, down));
        if far.is_finite() {
            for beyond in [1e-6, 1.0, 50.0] {
                prop_assert!(!still.intersects(&moved(far + beyond)), "{beyond} beyond {far}");
            }
            if convex {
                prop_assert!(still.intersects(&moved(far - 1e-6)), "just short of {far}");
            }
        } else {
            for x in [-60.0, -10.0, 0.0, 10.0, 60.0] {
                prop_assert!(!still.intersects(&moved(x)), "they pass each other");
            }
        }
    }

    /// A place that is called free keeps the spacing to every copy and lies in the window, by geo’s measure; a
    /// place in the window where the rooms that copies keep are apart is called free.
    #[test]
    fn free_is_what_geo_calls_free(
        radii in prop::collection::vec(0.4..1.0f64, 4..9), size in 8.0..25.0f64, spacing in 0.0..5.0f64,
        poses in prop::collection::vec((0.0..150.0f64, 0.0..150.0f64, 0.0..360.0f64), 2..6),
    ) {
        let shapes = [shape(&star(&radii, size), spacing, Turns::Any)];
        let bite = Rect::new(50.0, 0.0, 70.0, 60.0);
        let mut arena = arena(&shapes, &windows(150.0, 150.0, &[bite]));
        let poses: Vec<Pose> =
            poses.iter().map(|(x, y, turn)| Pose { at: Point::new(*x, *y), turn: *turn }).collect();
        let (tried, others) = poses.split_first().unwrap();
        for pose in others {
            arena.add(0, *pose, false);
        }
        let own = placed(&shapes[0], *tried);
        let gap = others
            .iter()
            .map(|pose| Euclidean.distance(&own, &placed(&shapes[0], *pose)))
            .fold(f64::INFINITY, f64::min);
        let inside = own.exterior().coords().map(|c| c.x.min(c.y).min(150.0 - c.x).min(150.0 - c.y));
        let inside = inside.fold(f64::INFINITY, f64::min);
        let bite = geo::Rect::new((bite.x0, bite.y0), (bite.x1, bite.y1)).to_polygon();
        let off = if own.intersects(&bite) { -1.0 } else { Euclidean.distance(&own, &bite) };
        let free = arena.is_free(0, *tried, usize::MAX);
        if free {
            prop_assert!(gap >= spacing - 0.01 && inside >= -0.01 && off >= -0.01, "{gap} {inside} {off}");
        }
        // Room is simplified outwards, by little of its area.
        let kept = room(&shapes[0], Pose { at: Point::ZERO, turn: 0.0 }).unsigned_area();
        let exact = Region::inside(&polygon(shapes[0].grown.points())).area();
        prop_assert!(kept < 1.0006 * exact, "{kept} of {exact} mm²");
        let own = room(&shapes[0], *tried);
        let apart = others
            .iter()
            .map(|pose| Euclidean.distance(&own, &room(&shapes[0], *pose)))
            .fold(f64::INFINITY, f64::min);
        if apart > 0.01 && inside > 0.01 && off > 0.01 {
            prop_assert!(free, "{apart} {inside} {off}");
        }
    }
}
