//! Areas against what is known of them.

use kurbo::{Affine, Shape as _};
use proptest::prelude::*;

use super::*;
use crate::geometry::{FLATTENING, Join, circle};

#[test]
fn what_is_near_a_hole_fills_it_from_its_edges() {
    let hole = Region::rect(Rect::new(10.0, 10.0, 30.0, 20.0));
    let window = Region::rect(Rect::new(0.0, 0.0, 100.0, 50.0)).minus(&hole);
    let left = Region::rect(Rect::new(-9.0, -9.0, 109.0, 59.0)).minus(&window.kept_clear(2.0));
    let inner = Region::rect(Rect::new(12.0, 12.0, 28.0, 18.0));
    assert!(inner.minus(&left).area() < 1e-6, "the middle of the hole stays open");
    assert!(left.intersection(&hole).minus(&inner).area() < 1e-6, "its edge does not");
}

/// A page with rectangular bites, some in its middle and some over its edge.
fn bitten(bites: &[(f64, f64, f64, f64)]) -> Region {
    bites.iter().fold(Region::rect(Rect::new(0.0, 0.0, 200.0, 140.0)), |left, bite| {
        let (x, y, width, height) = *bite;
        left.minus(&Region::rect(Rect::new(x, y, x + width, y + height)))
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(80))]

    /// Parts without holes make up the whole, and no two have area in common.
    #[test]
    fn simple_parts_are_the_region(
        bites in prop::collection::vec((-20.0..200.0f64, -20.0..140.0f64, 2.0..60.0f64, 2.0..60.0f64), 0..6),
    ) {
        let region = bitten(&bites);
        let parts: Vec<Region> = region
            .simple_parts()
            .iter()
            .map(|ring| Region::inside(&crate::geometry::polygon(ring)))
            .collect();
        prop_assert!(parts.iter().all(|part| part.0.iter().all(|ring| ring.interiors().is_empty())));
        let sum: f64 = parts.iter().map(Region::area).sum();
        prop_assert!((sum - region.area()).abs() < 1e-3, "{sum} of {}", region.area());
        let all = parts.iter().fold(Region::empty(), |all, part| all.union(part));
        prop_assert!(region.minus(&all).area() < 1e-3 && all.minus(&region).area() < 1e-3);
    }

    /// Held smaller and grown again it stays within itself; what is kept clear of it holds all that lies near.
    #[test]
    fn what_is_held_smaller_keeps_off_the_border(
        bites in prop::collection::vec((-20.0..200.0f64, -20.0..140.0f64, 2.0..60.0f64, 2.0..60.0f64), 0..5),
        by in 0.2..8.0f64,
    ) {
        let region = bitten(&bites);
        let less = region.shrunk(by);
        prop_assert!(less.minus(&region).area() < 1e-6);
        prop_assert!(less.rounded_out(by * 0.999).minus(&region).area() < 1e-3);
        let clear = region.kept_clear(by);
        prop_assert!(region.rounded_out(by).minus(&clear).area() < 1e-3);
        prop_assert!(clear.minus(&region.rounded_out(by * 1.5)).area() < 1e-3, "no corner strays further");
    }
}

#[test]
fn algebra_keeps_areas() {
    let page = Region::rect(Rect::new(0.0, 0.0, 100.0, 50.0));
    let hole = Region::rect(Rect::new(10.0, 10.0, 20.0, 20.0));
    let window = page.minus(&hole);
    assert!((window.area() - 4900.0).abs() < 1e-6);
    assert!((window.union(&hole).area() - 5000.0).abs() < 1e-6);
    assert!((hole.grown(1.0).area() - 144.0).abs() < 1e-6, "mitred corners stay square");
    assert!(Region::rect(Rect::new(5.0, 5.0, 5.0, 9.0)).is_empty());
}

/// A shape grown by a distance holds the disc of that radius about each of its points: area + edge × d at
/// least, plus π d² for the corners of a convex one (Steiner’s formula).
#[test]
fn what_is_kept_clear_holds_the_arc_and_little_more() {
    for points in [
        vec![(0.0, 0.0), (40.0, 0.0), (40.0, 20.0), (0.0, 20.0)],
        vec![(0.0, 0.0), (50.0, 3.0), (0.0, 6.0)],
        vec![(0.0, 0.0), (40.0, 0.0), (40.0, 10.0), (10.0, 10.0), (10.0, 40.0), (0.0, 40.0)],
    ] {
        let ring: Vec<Point> = points.into_iter().map(Point::from).collect();
        let shape = Region::inside(&crate::geometry::polygon(&ring));
        let (clear, round) = (shape.kept_clear(2.0), shape.rounded_out(2.0));
        assert!(round.minus(&clear).area() < 1e-6);
        assert!(clear.area() < round.area() + 6.0 * 2.0 * 2.0, "{}", clear.area());
        let straight = Region::rect(clear.bounds().unwrap());
        assert!(clear.minus(&straight).is_empty());
    }
    let square = Region::rect(Rect::new(0.0, 0.0, 10.0, 10.0)).kept_clear(1.0);
    assert!((square.area() - 144.0).abs() < 1e-9, "right angles stay right");
}

/// πr², from any geometry handbook.
#[test]
fn a_flattened_circle_is_within_the_stated_tolerance() {
    let area = Region::inside(&circle(Point::ZERO, 20.0)).area();
    let exact = std::f64::consts::PI * 400.0;
    assert!((area - exact).abs() < std::f64::consts::TAU * 20.0 * FLATTENING, "{area}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(20))]

    /// Put together part by part or all at once, what many rings with holes paint is the same.
    #[test]
    fn many_rings_paint_what_they_paint_at_once(
        places in prop::collection::vec((0.0..60.0f64, 0.0..60.0f64, 0.5..4.0f64), 210..260),
    ) {
        let mut path = BezPath::new();
        for (x, y, radius) in places {
            let at = Affine::translate((x, y));
            path.extend(at * circle(Point::ORIGIN, radius));
            path.extend(at * circle(Point::ORIGIN, radius / 2.0).reverse_subpaths());
        }
        let painted = Region::painted(&path);
        let at_once = Region::wound(&path);
        let off = painted.minus(&at_once).area() + at_once.minus(&painted).area();
        // The one is flattened more finely.
        prop_assert!(off < 0.01 * at_once.area(), "{off} of {}", at_once.area());
        let holes = Region::inside(&path).area() - painted.area();
        prop_assert!(holes > 0.0, "{holes}");
    }
}

/// An outline of so many corners around a middle, its reach from there as told of the share of the way round.
fn around(corners: u32, reach: impl Fn(f64) -> f64) -> Vec<Point> {
    let corner = |at: u32| {
        let share = f64::from(at) / f64::from(corners);
        let angle = share * std::f64::consts::TAU;
        Point::new(50.0 + reach(share) * angle.cos(), 50.0 + reach(share) * angle.sin())
    };
    (0..corners).map(corner).collect()
}

/// How far the edges of two areas are apart in the mean, mm: what lies in one of them by the length of the edge.
fn apart(one: &Region, other: &Region) -> f64 {
    let differs = one.minus(other).area() + other.minus(one).area();
    let long: f64 = one.to_path().perimeter(1e-3);
    differs / long.max(1.0)
}

/// A disc that rolls along an outline draws what the algebra of areas makes, whichever way and however jagged.
#[test]
fn rolled_borders_are_those_of_the_algebra() {
    let grain = |share: f64| ((share * 12_345.678).fract() * 8.0).floor() / 10.0;
    let wave = |share: f64, waves: f64| (waves * share * std::f64::consts::TAU).sin();
    let flower = around(3000, |share| 30.0 + 8.0 * wave(share, 7.0));
    let ring = vec![
        around(2500, |share| 40.0 + 2.0 * wave(share, 60.0)),
        around(1500, |share| 25.0 + 4.0 * wave(share, 9.0)),
    ];
    let jagged = around(4000, |share| 40.0 + grain(share));
    let shapes: [(&str, Vec<Vec<Point>>); 3] =
        [("flower", vec![flower]), ("ring", ring), ("jagged", vec![jagged])];
    for (name, rings) in shapes {
        let region = Region::of_rings([rings.into_iter()].into_iter());
        for distance in [0.3, 1.0, 2.5, 6.0, -0.3, -1.0, -3.0] {
            let rolled = rolled::bordered(&region, distance).unwrap();
            let made = region.buffered(distance, Join::Round);
            let off = apart(&rolled, &made);
            assert!(off < 2e-3, "{name} {distance}: {off} mm apart");
            assert_eq!(rolled.parts(), made.parts(), "{name} {distance}");
            let holes = |region: &Region| region.rings().filter(|ring| ring.is_hole).count();
            assert_eq!(holes(&rolled), holes(&made), "{name} {distance}");
        }
    }
}

/// Corners on a grid lie on circles together with many others, and straight edges hold many points.
#[test]
fn rolled_borders_of_what_lies_on_a_grid_are_exact() {
    // Teeth of 1 mm, a grid of 0.1 mm along them.
    let mut ring = Vec::new();
    let mut go = |to: Point| {
        let from: Point = ring.last().copied().unwrap_or(to);
        let parts = ((to - from).hypot() / 0.1).round().max(1.0);
        let mut at = 1.0;
        while at <= parts {
            ring.push(from.lerp(to, at / parts));
            at += 1.0;
        }
    };
    go(Point::ZERO);
    for tooth in 0..60 {
        let x = 2.0 * f64::from(tooth);
        for to in [(x, 1.0), (x + 1.0, 1.0), (x + 1.0, 0.0), (x + 2.0, 0.0)] {
            go(Point::from(to));
        }
    }
    for to in [(120.0, 20.0), (0.0, 20.0), (0.0, 0.1)] {
        go(Point::from(to));
    }
    let region = Region::of_rings([[ring].into_iter()].into_iter());
    for distance in [0.2, 0.5, 0.7, 3.0, -0.2, -0.5, -2.0] {
        let rolled = rolled::bordered(&region, distance).unwrap();
        let made = region.buffered(distance, Join::Round);
        let off = apart(&rolled, &made);
        assert!(off < 2e-3, "{distance}: {off} mm apart");
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// Any ring around a middle, smooth or jagged, and any distance: as the algebra of areas makes it, and outwards
    /// nothing of it is lost, inwards nothing is gained.
    #[test]
    fn any_rolled_border_is_that_of_the_algebra(
        reaches in proptest::collection::vec(6.0..20.0f64, 12..90),
        distance in prop_oneof![-4.0..-0.2f64, 0.2..9.0f64],
        fine in 1..5_u32,
    ) {
        // Between the reaches that were drawn the edge runs straight, in several parts.
        let count = reaches.len();
        let corners = u32::try_from(count).unwrap() * fine;
        let real = f64::from(u32::try_from(count).unwrap());
        let reach = |share: f64| {
            let at = share * real;
            let from = reaches[format!("{}", at.floor()).parse::<usize>().unwrap() % count];
            let to = reaches[(format!("{}", at.floor()).parse::<usize>().unwrap() + 1) % count];
            from + (to - from) * at.fract()
        };
        let region = Region::of_rings([[around(corners, reach)].into_iter()].into_iter());
        let Some(rolled) = rolled::bordered(&region, distance) else { return Ok(()) };
        let made = region.buffered(distance, Join::Round);
        prop_assert!(apart(&rolled, &made) < 3e-3, "{} mm apart", apart(&rolled, &made));
        let lost = if distance > 0.0 { region.minus(&rolled) } else { rolled.minus(&region) };
        prop_assert!(lost.area() < 1e-3, "{}", lost.area());
    }
}
