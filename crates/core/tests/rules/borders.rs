//! Borders, against shapely's and pyclipper's with fine round joins (`tools/reference/tracing.py`).

use aptum_core::blob::BlobId;
use aptum_core::form::{Form, Found, HoleRule, HoleSay, Looked, Traced};
use aptum_core::geometry::{
    Affine, BezPath, Join, Point, Rect, Region, Shape, circle, fine_region, flattened_to, polygon,
    redrawn,
};
use aptum_core::trace::{Outlined, Trace, Tracing};
use aptum_core::units::Unit;
use proptest::prelude::*;
use serde::Deserialize;

#[derive(Deserialize)]
struct Table {
    cases: Vec<Case>,
}

#[derive(Deserialize)]
struct Case {
    /// Polygons, each an outer ring and its holes.
    rings: Vec<Vec<Vec<(f64, f64)>>>,
    distance: f64,
    area: f64,
    clipped: f64,
    outlines: usize,
    one_from: Option<f64>,
}

fn region(polygons: &[Vec<Vec<(f64, f64)>>]) -> Region {
    let points = |ring: &Vec<(f64, f64)>| ring.iter().map(|own| Point::from(*own)).collect();
    Region::of_rings(polygons.iter().map(|rings| rings.iter().map(points)))
}

/// A tracing of just these lines.
pub fn tracing(outlines: Vec<Outlined>, frame: Rect) -> Tracing {
    Tracing {
        outlines,
        frame,
        threshold: 0.5,
        proposed: 0.5,
        histogram: vec![0.0; 64],
        share: 0.3,
        left_out: 0,
        too_many: 0,
        coarse: 0,
        nodes: 10,
        corners: Vec::new(),
        length: 100.0,
        radius: None,
        deviation: (0.01, Point::ZERO),
        pixel: 0.05,
    }
}

/// A form of these lines in a picture of 100 × 100 mm.
pub fn traced(outlines: Vec<Outlined>) -> Traced {
    let mut own = Traced::new(BlobId("0".repeat(64)), [1000, 1000], 100.0, Trace::default());
    let frame = Rect::new(0.0, 0.0, 100.0, 100.0);
    own.found = Found(Some(Looked(Ok(tracing(outlines, frame))).into()));
    own
}

fn outlined(area: &Region) -> Vec<Outlined> {
    let mut all: Vec<Outlined> = Vec::new();
    for ring in area.rings() {
        let path = polygon(&ring.points);
        match all.last_mut() {
            Some(own) if ring.is_hole => own.holes.push(path),
            _ => all.push(Outlined { outer: path, holes: Vec::new() }),
        }
    }
    all
}

#[test]
fn borders_are_those_of_shapely_and_pyclipper() {
    let table: Table = serde_json::from_str(include_str!("../reference/borders.json")).unwrap();
    assert_eq!(table.cases.len(), 200);
    for case in table.cases {
        let grown = region(&case.rings).bordered(case.distance, Join::Round);
        let drawn = redrawn(&grown);
        let area: f64 = drawn
            .iter()
            .map(|(path, is_hole)| path.area().abs() * if *is_hole { -1.0 } else { 1.0 })
            .sum();
        // Shrunk to slivers the share says little.
        let most = (5e-4 * case.area).max(0.02);
        assert!((area - case.area).abs() < most, "{area} instead of {}", case.area);
        assert!((area - case.clipped).abs() < most, "{area} instead of {}", case.clipped);
        let outer = drawn.iter().filter(|(_, is_hole)| !is_hole).count();
        assert_eq!(outer, case.outlines, "at {}", case.distance);
    }
}

#[test]
fn the_least_border_that_joins_all_is_what_bisection_with_shapely_finds() {
    let table: Table = serde_json::from_str(include_str!("../reference/borders.json")).unwrap();
    let mut compared = 0;
    for case in table.cases {
        let Some(wanted) = case.one_from else { continue };
        let mut own = traced(outlined(&region(&case.rings)));
        let drawn = Form::of_picture(own.clone()).draw(0.3, Unit::Mm).unwrap();
        let facts = drawn.traced.unwrap();
        assert_eq!(facts.outlines, case.rings.len());
        let found = facts.one_from.unwrap();
        assert!((found - wanted).abs() < 2e-3, "{found} instead of {wanted}");
        for (by, count) in [(3e-3, 1), (-3e-3, 2)] {
            own.border.distance = found + by;
            if own.border.distance <= 0.0 || own.border.distance > 50.0 {
                continue;
            }
            let drawn = Form::of_picture(own.clone()).draw(0.3, Unit::Mm).unwrap();
            let outlines = drawn.traced.unwrap().outlines;
            assert!(
                outlines == count || (count == 2 && outlines > 1),
                "{outlines} at {found} + {by}"
            );
        }
        compared += 1;
    }
    assert!(compared > 60, "{compared}");
}

#[test]
fn corners_come_out_as_they_are_asked_for() {
    let square = Region::rect(Rect::new(0.0, 0.0, 30.0, 30.0));
    let area = |join| {
        let drawn = redrawn(&square.bordered(3.0, join));
        assert_eq!(drawn.len(), 1);
        (drawn[0].0.area().abs(), drawn[0].0.segments().count())
    };
    // Handbook areas: with quarter circles, full corners, and corners cut off along the chord.
    let (round, nodes) = area(Join::Round);
    assert!((round - (900.0 + 360.0 + 9.0 * std::f64::consts::PI)).abs() < 0.01, "{round}");
    assert!(nodes <= 12, "{nodes}");
    assert_eq!(area(Join::Mitred), (36.0 * 36.0, 4));
    let (bevelled, nodes) = area(Join::Bevelled);
    assert!((bevelled - (900.0 + 360.0 + 18.0)).abs() < 1e-3 && nodes == 8, "{bevelled}");
}

#[test]
fn holes_are_bordered_kept_or_closed_each_on_its_own() {
    let plate = Region::rect(Rect::new(10.0, 10.0, 70.0, 50.0));
    let holes = [Rect::new(15.0, 20.0, 30.0, 40.0), Rect::new(45.0, 20.0, 60.0, 40.0)];
    let area = holes.iter().fold(plate, |left, hole| left.minus(&Region::rect(*hole)));
    let mut own = traced(outlined(&area));
    own.border.distance = 1.0;
    own.border.join = Join::Mitred;
    let openings = |own: &Traced| {
        let flat = Form::of_picture(own.clone()).draw(0.3, Unit::Mm).unwrap();
        let mut all: Vec<f64> = flat.parts[0].openings().map(|path| path.area().abs()).collect();
        all.sort_by(f64::total_cmp);
        all
    };
    let near = |found: Vec<f64>, wanted: &[f64]| {
        assert!(
            found.len() == wanted.len()
                && found.iter().zip(wanted).all(|(a, b)| (a - b).abs() < 0.01),
            "{found:?}"
        );
    };
    near(openings(&own), &[13.0 * 18.0, 13.0 * 18.0]);
    own.border.holes = HoleRule::Kept;
    near(openings(&own), &[300.0, 300.0]);
    let [width, height] = own.sides();
    let at = [50.0 / width, 30.0 / height];
    own.border.each = vec![HoleSay { at, rule: HoleRule::Closed }];
    near(openings(&own), &[300.0]);
    own.border.distance = -0.5;
    own.border.holes = HoleRule::Followed;
    near(openings(&own), &[16.0 * 21.0]);
}

#[test]
fn an_inward_border_that_eats_the_shape_says_at_which_distance() {
    let mut own = traced(outlined(&Region::rect(Rect::new(10.0, 10.0, 50.0, 18.0))));
    own.border.distance = -4.5;
    let errors = Form::of_picture(own.clone()).draw(0.3, Unit::Mm).unwrap_err();
    assert!(errors[0].message.contains("at 4 mm"), "{}", errors[0].message);
    let change = &errors[0].remedy.changes[0];
    let aptum_core::error::Setting::Number(mm) = change.value else { panic!("a number") };
    own.border.distance = mm;
    assert!(Form::of_picture(own).draw(0.3, Unit::Mm).is_ok(), "the remedy works: {mm}");
}

/// A ring about a point, its corners so far from it.
fn ring(at: (f64, f64), radii: &[f64]) -> Region {
    let step = std::f64::consts::TAU / f64::from(u32::try_from(radii.len()).unwrap());
    let points = radii.iter().zip(0..).map(|(radius, index)| {
        let (sin, cos) = (f64::from(index) * step).sin_cos();
        Point::new(at.0 + radius * cos, at.1 + radius * sin)
    });
    Region::inside(&polygon(&points.collect::<Vec<_>>()))
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// Closed and simple; grown and shrunk again it holds what it was made from, and is that where nothing was narrow.
    #[test]
    fn out_and_in_again_is_no_less(
        radii in prop::collection::vec(6.0..20.0f64, 4..14), distance in 0.2..6.0f64,
        at in (20.0..60.0f64, 20.0..60.0f64),
    ) {
        let area = ring(at, &radii);
        let grown = area.bordered(distance, Join::Round);
        let drawn = redrawn(&grown);
        for (path, _) in &drawn {
            let flat = flattened_to(path, 0.005);
            prop_assert_eq!(flat.len(), 1);
            let own = fine_region([[path]]).united();
            prop_assert!(own.parts() == 1 && (own.area() - path.area().abs()).abs() < 0.3, "simple");
        }
        let curves = fine_region(drawn.iter().map(|(path, _)| [path]));
        let back = curves.bordered(-distance, Join::Round);
        prop_assert!(area.minus(&back.grown(0.02)).area() < 1e-3);
        // A convex outline has no gap and no inner radius.
        let hull = Region::inside(&ellipse(at, radii[0], radii[1]));
        let again = hull.bordered(distance, Join::Round).bordered(-distance, Join::Round);
        let off = again.minus(&hull).area() + hull.minus(&again).area();
        prop_assert!(off < 2e-3 * hull.area(), "{off}");
    }
}

fn ellipse(at: (f64, f64), across: f64, along: f64) -> BezPath {
    Affine::translate(at) * Affine::scale_non_uniform(across, along) * circle(Point::ZERO, 1.0)
}

/// Outlines of thousands of corners, whose borders are made by steps: what is nearer than the distance is in it and
/// nothing else, by distances to the outline itself.
#[test]
fn the_border_of_thousands_of_corners_is_what_is_near() {
    let mut random = fastrand::Rng::with_seed(3);
    let count = 2400;
    let ring: Vec<Point> = (0..count)
        .map(|at| {
            let angle = std::f64::consts::TAU * f64::from(at) / f64::from(count);
            let reach = 20.0 + 2.0 * (7.0 * angle).sin() + random.f64() * 0.8;
            Point::new(30.0 + reach * angle.cos(), 30.0 + reach * angle.sin())
        })
        .collect();
    let area = fine_region([[&polygon(&ring)]]);
    let apart = |at: Point| {
        let edges = ring.iter().zip(ring.iter().cycle().skip(1));
        let to_edge = edges.map(|(a, b)| {
            let along = (*b - *a).hypot2();
            let share = ((at - *a).dot(*b - *a) / along).clamp(0.0, 1.0);
            (at - a.lerp(*b, share)).hypot()
        });
        let edge = to_edge.fold(f64::INFINITY, f64::min);
        if area.holds(at) { -edge } else { edge }
    };
    for distance in [0.4, 1.5, 4.0, -0.4, -1.5] {
        let border = area.bordered(distance, Join::Round);
        let corners: Vec<Point> = border.rings().flat_map(|own| own.points).collect();
        assert!(corners.len() > 100);
        for corner in corners.iter().step_by(1 + corners.len() / 300) {
            let off = (apart(*corner) - distance).abs();
            assert!(off < 0.01, "{corner} is {off} mm off a border of {distance} mm");
        }
        let mut near = 0;
        for _ in 0..600 {
            let angle = random.f64() * std::f64::consts::TAU;
            let reach = 17.0 + distance + random.f64() * 7.0;
            let at = Point::new(30.0 + reach * angle.cos(), 30.0 + reach * angle.sin());
            let off = apart(at) - distance;
            if off.abs() > 0.01 {
                near += usize::from(off.abs() < 0.5);
                assert_eq!(border.holds(at), off < 0.0, "{at}, {off} mm off");
            }
        }
        assert!(near > 50, "{near}");
    }
    // Held smaller until nothing is left.
    assert!(area.bordered(-30.0, Join::Round).is_empty());
}
