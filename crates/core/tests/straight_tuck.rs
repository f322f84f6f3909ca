//! The straight-tuck carton against blanks worked out by hand, and over its whole range.

#![allow(clippy::unwrap_used, reason = "a test fails by panicking")]

use aptum_core::LineKind;
use aptum_core::form::carton::StraightTuck;
use aptum_core::form::{Basis, Form, Role};
use aptum_core::geometry::{Region, Shape};
use aptum_core::units::Unit;
use geo::Validation;
use proptest::prelude::*;

fn near(got: f64, want: f64) {
    assert!((got - want).abs() < 1e-6, "{got} instead of {want}");
}

/// Common practice (mid-surface allowances), each part added up by hand.
#[test]
fn three_blanks_worked_out_by_hand() {
    // 60 × 30 × 90 inside in 0.4 mm card, all flaps at their defaults:
    // across: glue 13, front 60.4, side 30.4, back 60.8, side 30.2
    // along: tuck 12, panel 29.5, back 90 + 1.2, panel 29.5, tuck 12
    let carton = StraightTuck::inside_of(60.0, 30.0, 90.0);
    let flat = carton.draw(0.4, Unit::Mm).unwrap();
    near(flat.bounds.width(), 13.0 + 60.4 + 30.4 + 60.8 + 30.2);
    near(flat.bounds.height(), 12.0 + 29.5 + 91.2 + 29.5 + 12.0);

    // 100 × 60 × 150 inside in 14 pt board (0.3556 mm), glue flap 15, tuck 18, clearance 1:
    // across: 15 + 100.3556 + 60.3556 + 100.7112 + 60.1778
    // along: 18 + 59 + 151.0668 + 59 + 18
    let carton = StraightTuck {
        glue: Some(15.0),
        tuck: Some(18.0),
        clearance: Some(1.0),
        ..StraightTuck::inside_of(100.0, 60.0, 150.0)
    };
    let flat = carton.draw(0.3556, Unit::Mm).unwrap();
    near(flat.bounds.width(), 336.6002);
    near(flat.bounds.height(), 305.0668);

    // 40 × 20 × 60 outside in 1 mm board: inside 37 × 18 × 56; tuck 12 (a quarter of 18 is less):
    // across: 13 + 38 + 19 + 39 + 18.5; along: 12 + 17.5 + 59 + 17.5 + 12
    let carton =
        StraightTuck { basis: Basis::Outside, ..StraightTuck::inside_of(40.0, 20.0, 60.0) };
    let flat = carton.draw(1.0, Unit::Mm).unwrap();
    assert_eq!(flat.sizes.inside, [37.0, 18.0, 56.0]);
    near(flat.bounds.width(), 127.5);
    near(flat.bounds.height(), 118.0);
}

#[test]
fn the_three_ways_of_measuring_agree() {
    let inside = StraightTuck::inside_of(60.0, 30.0, 90.0);
    let drawn = inside.draw(0.4, Unit::Mm).unwrap();
    for (basis, given) in
        [(Basis::Outside, drawn.sizes.outside), (Basis::Crease, drawn.sizes.crease)]
    {
        let [length, width, height] = given;
        let other = StraightTuck { basis, ..StraightTuck::inside_of(length, width, height) };
        let again = other.draw(0.4, Unit::Mm).unwrap();
        near(again.bounds.width(), drawn.bounds.width());
        near(again.bounds.height(), drawn.bounds.height());
        let back = Form::StraightTuck(other).with_inside([60.0, 30.0, 90.0], 0.4);
        assert!(back.given().iter().zip(given).all(|((_, a), b)| (a - b).abs() < 1e-9));
    }
}

#[test]
fn dimensions_say_what_a_drafter_would() {
    let flat = StraightTuck::inside_of(60.0, 30.0, 90.0).draw(0.4, Unit::Mm).unwrap();
    let text = |field: &str| {
        let of = |d: &&aptum_core::form::Dimension| d.field.as_deref() == Some(field);
        flat.dimensions.iter().find(of).unwrap().text.clone()
    };
    assert_eq!(text("form.length"), "60.4");
    assert_eq!(text("form.width"), "30.4");
    assert_eq!(text("form.height"), "90.4");
    assert_eq!(text("form.tuck"), "12");
    assert_eq!(text("form.glue"), "13");
    let overall: Vec<_> =
        flat.dimensions.iter().filter(|d| d.field.is_none()).map(|d| d.text.as_str()).collect();
    assert_eq!(overall, ["194.8", "174.2"]);
}

#[test]
fn figures_that_cannot_be_drawn_name_the_field_the_number_and_the_remedy() {
    let carton = || StraightTuck::inside_of(60.0, 30.0, 90.0);
    let cases = [
        (StraightTuck { length: 0.0, ..carton() }, 0.4, "form.length"),
        (StraightTuck { width: -3.0, ..carton() }, 0.4, "form.width"),
        (StraightTuck { height: 1e7, ..carton() }, 0.4, "form.height"),
        (StraightTuck { height: f64::NAN, ..carton() }, 0.4, "form.height"),
        (StraightTuck { length: f64::INFINITY, ..carton() }, 0.4, "form.length"),
        (StraightTuck { tuck: Some(600.0), ..carton() }, 0.4, "form.tuck"),
        (StraightTuck { glue: Some(-1.0), ..carton() }, 0.4, "form.glue"),
        (StraightTuck { dust: Some(400.0), ..carton() }, 0.4, "form.dust"),
        (StraightTuck { slit: Some(25.0), ..carton() }, 0.4, "form.slit"),
        (StraightTuck { clearance: Some(9.0), ..carton() }, 0.4, "form.clearance"),
        (carton(), 9.0, "form.width"),
    ];
    for (carton, caliper, field) in cases {
        let errors = carton.draw(caliper, Unit::Mm).unwrap_err();
        let error = errors.iter().find(|error| error.field == field).unwrap_or_else(|| {
            panic!("{field} is not named in {errors:?}");
        });
        assert!(error.message.chars().any(|c| c.is_ascii_digit()), "{}", error.message);
        assert!(!error.remedy.text.is_empty());
    }
}

#[test]
fn a_flap_longer_than_its_panel_is_drawn_and_said_to_be_broken() {
    let carton = StraightTuck { tuck: Some(60.0), ..StraightTuck::inside_of(60.0, 30.0, 90.0) };
    let flat = carton.draw(0.4, Unit::Mm).unwrap();
    let check = flat.checks.iter().find(|check| check.id == "tucks").unwrap();
    assert_eq!(check.state, aptum_core::State::Broken);
    assert_eq!(check.verdict, "30 mm too much");
    assert_eq!(check.remedies[0].changes[0].field, "form.tuck");
}

/// Any carton that can be drawn.
fn cartons() -> impl Strategy<Value = (StraightTuck, f64)> {
    let side = || 5.0..400.0f64;
    let flap = || proptest::option::of(3.0..80.0f64);
    (side(), side(), side(), flap(), flap(), flap(), 0.0..2.0f64, 0.05..3.0f64).prop_map(
        |(length, width, height, tuck, dust, glue, clearance, caliper)| {
            let carton = StraightTuck {
                tuck,
                dust,
                glue,
                clearance: Some(clearance),
                ..StraightTuck::inside_of(length, width, height)
            };
            (carton, caliper)
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    /// Judged by the geo library: one simple outline, panels that tile it, creases that end on it.
    #[test]
    fn every_blank_is_one_simple_outline((carton, caliper) in cartons()) {
        let Ok(flat) = carton.draw(caliper, Unit::Mm) else { return Ok(()) };
        let whole = Region::inside(&flat.outline);
        prop_assert_eq!(whole.parts(), 1);
        prop_assert!(whole.polygons().is_valid());
        prop_assert!(whole.polygons().iter().all(|part| part.interiors().is_empty()));
        prop_assert!((whole.area() - flat.area()).abs() < flat.area() * 1e-3 + 0.5);

        let panels: f64 = flat.panels.iter().map(|panel| panel.outline.area().abs()).sum();
        prop_assert!((panels - flat.area()).abs() < 1e-6 * flat.area());
        let tiled = flat.panels.iter().fold(Region::empty(), |all, panel| all.union(&Region::inside(&panel.outline)));
        prop_assert!((tiled.area() - whole.area()).abs() < 1e-3 * flat.area(), "panels overlap");

        for line in flat.lines.iter().filter(|line| line.kind == LineKind::Crease) {
            let ends = line.path.segments().next().map(|s| (s.as_path_el(), line.path.elements()[0]));
            prop_assert!(ends.is_some());
            for element in line.path.elements() {
                let end = element.end_point().unwrap();
                let on_cut = flat.outline.segments().any(|s| near_segment(s, end))
                    || flat.lines.iter().filter(|l| l.kind == LineKind::Cut)
                        .any(|l| l.path.segments().any(|s| near_segment(s, end)));
                prop_assert!(on_cut, "a crease ends in the open at {end:?}");
            }
        }
    }

    #[test]
    fn a_larger_inside_never_gives_a_smaller_blank((carton, caliper) in cartons(), more in 0.0..50.0f64, axis in 0..3usize) {
        let mut inside = carton.inside(caliper);
        inside[axis] += more;
        let larger = carton.with_inside(inside, caliper);
        if let (Ok(a), Ok(b)) = (carton.draw(caliper, Unit::Mm), larger.draw(caliper, Unit::Mm)) {
            prop_assert!(b.bounds.width() >= a.bounds.width() - 1e-9);
            prop_assert!(b.bounds.height() >= a.bounds.height() - 1e-9);
        }
    }

    #[test]
    fn nothing_makes_it_panic(values in proptest::array::uniform8(proptest::num::f64::ANY), caliper in proptest::num::f64::ANY) {
        let [length, width, height, tuck, dust, glue, slit, clearance] = values;
        let carton = StraightTuck {
            basis: Basis::Outside, length, width, height,
            tuck: Some(tuck), dust: Some(dust), glue: Some(glue), slit: Some(slit), clearance: Some(clearance),
        };
        let _ = carton.draw(caliper, Unit::In);
    }
}

fn near_segment(segment: kurbo::PathSeg, point: kurbo::Point) -> bool {
    use kurbo::ParamCurveNearest;
    segment.nearest(point, 1e-9).distance_sq < 1e-12
}

#[test]
fn flaps_stay_bare_and_faces_carry_print() {
    let flat = StraightTuck::inside_of(60.0, 30.0, 90.0).draw(0.4, Unit::Mm).unwrap();
    let names =
        |role| flat.panels.iter().filter(|p| p.role == role).map(|p| p.name).collect::<Vec<_>>();
    assert_eq!(names(Role::Glue), ["Glue flap"]);
    assert_eq!(names(Role::Face), ["Front", "Right side", "Back", "Top", "Left side", "Base"]);
    assert_eq!(names(Role::Flap).len(), 6);
}
