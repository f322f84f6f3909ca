//! Every structure of the catalogue over its whole range.

use aptum_core::error::Setting;
use aptum_core::fold::{FoldModel, prove};
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::{Flat, Form, Kind, Structure};
use aptum_core::form_checks::form_checks;
use aptum_core::geometry::{FLATTENING, Point, Region, Shape, gap};
use aptum_core::units::Unit;
use aptum_core::{LineKind, State};
use geo::Validation;
use proptest::prelude::*;
use proptest::test_runner::{Config, TestRunner};

/// Any figures a structure can be drawn with: each is left at its default, or set somewhere between
/// its bounds, which may depend on the figures before it.
fn forms(structure: &'static Structure) -> impl Strategy<Value = (Form, f64)> {
    let count = structure.params.len();
    let shares = proptest::collection::vec(proptest::option::of(0.0..1.0f64), count);
    (shares, 0.05..1.2f64).prop_map(move |(shares, caliper)| {
        let mut form = Form::new(structure.id, &[]);
        for (param, share) in structure.params.iter().zip(shares) {
            let Some(share) = share else { continue };
            let known = match form.draw(caliper, Unit::Mm) {
                Ok(flat) => flat.figures,
                Err(_) => continue,
            };
            let field = format!("form.{}", param.key);
            let [low, high] = known.iter().find(|figure| figure.field == field).unwrap().range;
            // Sizes up to a third of a metre: what desks hold.
            let high = if matches!(param.kind, Kind::Size { .. }) {
                high.min(300.0f64.max(low))
            } else {
                high
            };
            let value = low + (high - low) * share;
            let value = if param.kind == Kind::Count { value.round() } else { value };
            form.chosen_mut().unwrap().figures.insert(param.key.to_owned(), Some(value));
        }
        (form, caliper)
    })
}

/// Tests what can be drawn; a structure of which a third of the cases cannot be is a fault of the test or of its
/// bounds.
fn each(
    cases: u32,
    test: impl Fn(&'static Structure, Form, f64, Flat) -> Result<(), TestCaseError>,
) {
    for structure in CATALOGUE {
        let drawn = std::cell::Cell::new(0);
        let config = Config { failure_persistence: None, cases, ..Config::default() };
        let mut runner = TestRunner::new(config);
        let result = runner.run(&forms(structure), |(form, caliper)| {
            let Ok(flat) = form.draw(caliper, Unit::Mm) else { return Ok(()) };
            drawn.set(drawn.get() + 1);
            test(structure, form, caliper, flat)
        });
        if let Err(error) = result {
            panic!("{}: {error}", structure.id);
        }
        assert!(drawn.get() * 3 >= cases * 2, "{}: {} of {cases}", structure.id, drawn.get());
    }
}

/// Judged by the geo library: simple outlines, panels that tile them.
#[test]
fn every_blank_is_one_simple_outline_tiled_by_its_panels() {
    each(40, |_, form, caliper, flat| {
        for part in &flat.parts {
            let whole = Region::inside(&part.outline);
            let exact = part.outline.area().abs();
            prop_assert_eq!(whole.parts(), 1);
            prop_assert!(whole.polygons().is_valid(), "{} {form:?} {caliper}", part.name);
            prop_assert!(whole.polygons().iter().all(|polygon| polygon.interiors().is_empty()));
            // As far as curves are flattened, all the way round.
            let flattened = FLATTENING * part.outline.perimeter(0.01);
            prop_assert!((whole.area() - exact).abs() < flattened, "{} {form:?}", part.name);
            let panels: f64 = part.panels.iter().map(|panel| panel.outline.area().abs()).sum();
            prop_assert!((panels - exact).abs() < 1e-6 * exact, "{panels} {exact} {form:?}");
            let tiled = part
                .panels
                .iter()
                .fold(Region::empty(), |all, panel| all.union(&Region::inside(&panel.outline)));
            prop_assert!(
                (tiled.area() - exact).abs() < 2.0 * flattened,
                "panels overlap: {form:?}"
            );
        }
        Ok(())
    });
}

#[test]
fn every_blank_and_every_stroke_has_an_id_of_its_own() {
    use std::collections::BTreeSet;
    each(12, |_, form, _, flat| {
        let parts: BTreeSet<_> = flat.parts.iter().map(|part| &part.id).collect();
        prop_assert_eq!(parts.len(), flat.parts.len(), "{:?}", form);
        prop_assert!(parts.iter().all(|id| id.is_sound()), "{:?}", parts);
        for part in &flat.parts {
            let strokes: Vec<_> = part.all_strokes().map(|stroke| stroke.id).collect();
            let apart: BTreeSet<_> = strokes.iter().collect();
            prop_assert_eq!(apart.len(), strokes.len(), "{:?}: {:?}", form, strokes);
        }
        Ok(())
    });
}

#[test]
fn every_crease_ends_on_a_cut_or_a_crease() {
    each(20, |_, form, _, flat| {
        for part in &flat.parts {
            for (index, line) in part.strokes.iter().enumerate() {
                if !matches!(line.kind, LineKind::Crease | LineKind::ReverseCrease) {
                    continue;
                }
                let elements = line.path.elements();
                let ends = [elements.first(), elements.last()];
                for end in ends.into_iter().flatten().filter_map(|element| element.end_point()) {
                    let dot =
                        aptum_core::geometry::polygon(&[end, end + kurbo::Vec2::new(1e-9, 0.0)]);
                    let others =
                        part.strokes.iter().enumerate().filter(|(other, _)| *other != index);
                    let nearest = others
                        .map(|(_, other)| &other.path)
                        .chain([&part.outline])
                        .map(|path| gap(&dot, path))
                        .fold(f64::MAX, f64::min);
                    prop_assert!(nearest < 0.02, "a crease ends in the open at {end:?}: {form:?}");
                }
            }
        }
        Ok(())
    });
}

/// With every flap at its default, in card that is ordinary for the size, the fold checks pass.
#[test]
fn every_structure_folds_shut_at_any_size_with_its_default_flaps() {
    for structure in CATALOGUE {
        let sizes: Vec<_> = structure
            .params
            .iter()
            .filter(|param| matches!(param.kind, Kind::Size { .. } | Kind::Count))
            .collect();
        let config = Config { failure_persistence: None, cases: 24, ..Config::default() };
        let shares = proptest::collection::vec(0.0..1.0f64, sizes.len());
        let outcome = TestRunner::new(config).run(&(shares, 0.1..0.5f64), |(shares, caliper)| {
            let mut form = Form::new(structure.id, &[]);
            for (param, share) in sizes.iter().zip(&shares) {
                let flat = form.draw(caliper, Unit::Mm).unwrap();
                let field = format!("form.{}", param.key);
                let figure = flat.figures.iter().find(|figure| figure.field == field).unwrap();
                let [low, high] = figure.range;
                let value = if param.kind == Kind::Count {
                    (low + (high - low) * share).round()
                } else {
                    // From three quarters of the usual size to twice it.
                    (figure.standard * (0.75 + 1.25 * share)).clamp(low, high)
                };
                form.chosen_mut().unwrap().figures.insert(param.key.to_owned(), Some(value));
            }
            let flat = form.draw(caliper, Unit::Mm).unwrap();
            let proof = prove(&FoldModel::new(&flat, caliper).unwrap());
            let worst = |found: &Option<aptum_core::fold::Measured>| {
                found.as_ref().map_or(0.0, |m| m.value)
            };
            prop_assert!(worst(&proof.edges.1) <= 0.05, "{:?} {form:?} {caliper}", proof.edges);
            prop_assert!(worst(&proof.planes.1) <= 0.05, "{:?} {form:?} {caliper}", proof.planes);
            prop_assert!(worst(&proof.sizes) <= 0.05, "{:?} {form:?} {caliper}", proof.sizes);
            prop_assert!(
                worst(&proof.clearances.1) <= 0.05,
                "{:?} {form:?} {caliper}",
                proof.clearances
            );
            prop_assert!(proof.closed.is_none(), "{:?} {form:?} {caliper}", proof.closed);
            Ok(())
        });
        if let Err(error) = outcome {
            panic!("{}: {error}", structure.id);
        }
    }
}

/// Whatever the size, with everything else at its default no limit of the form is broken, or one of them
/// names the size that rules the piece out, and that size does away with it.
#[test]
fn a_default_breaks_no_limit_or_the_size_that_rules_it_out_is_named() {
    for structure in CATALOGUE {
        let sizes: Vec<_> = structure
            .params
            .iter()
            .filter(|param| matches!(param.kind, Kind::Size { .. }))
            .map(|param| (param.key, format!("form.{}", param.key)))
            .collect();
        let config = Config { failure_persistence: None, cases: 30, ..Config::default() };
        let shares = proptest::collection::vec(0.0..1.0f64, sizes.len());
        let outcome = TestRunner::new(config).run(&(shares, 0.1..1.2f64), |(shares, caliper)| {
            let mut form = Form::new(structure.id, &[]);
            for ((key, field), share) in sizes.iter().zip(&shares) {
                let flat = form.draw(caliper, Unit::Mm).unwrap();
                let figure = flat.figures.iter().find(|figure| figure.field == *field).unwrap();
                let [low, high] = figure.range;
                // As many small ones as large ones.
                let value = low * (high.min(400f64.max(low)) / low).powf(*share);
                form.chosen_mut().unwrap().figures.insert((*key).to_owned(), Some(value));
            }
            let limits = |form: &Form| {
                let flat = form.draw(caliper, Unit::Mm).unwrap();
                form_checks(form, &flat, FoldModel::new(&flat, caliper).as_ref(), caliper, Unit::Mm)
            };
            let broken: Vec<_> =
                limits(&form).into_iter().filter(|check| check.state == State::Broken).collect();
            let mut named = broken.is_empty();
            for check in &broken {
                for remedy in &check.remedies {
                    let fields = remedy.changes.iter().map(|change| &change.field);
                    let is_size = |field: &String| sizes.iter().any(|(_, size)| size == field);
                    if remedy.changes.is_empty() || !fields.clone().all(is_size) {
                        continue;
                    }
                    let mut other = form.clone();
                    for change in &remedy.changes {
                        let Setting::Number(value) = change.value else { panic!("{change:?}") };
                        let key = change.field.strip_prefix("form.").unwrap();
                        other.chosen_mut().unwrap().figures.insert(key.to_owned(), Some(value));
                    }
                    let then = limits(&other);
                    let then = then.iter().find(|other| other.id == check.id);
                    prop_assert!(
                        then.is_none_or(|then| then.state != State::Broken),
                        "{remedy:?} does not help {check:?} {form:?} {caliper}"
                    );
                    named = true;
                }
            }
            prop_assert!(named, "no size is named: {form:?} {caliper} {broken:?}");
            Ok(())
        });
        if let Err(error) = outcome {
            panic!("{}: {error}", structure.id);
        }
    }
}

#[test]
fn where_one_size_must_grow_and_another_shrink_both_are_named() {
    let sizes = [("length", 5.0), ("width", 8.84), ("height", 375.0)];
    let form = Form::new("sleeve-and-tray", &sizes);
    let limits = |form: &Form| {
        let flat = form.draw(1.05, Unit::Mm).unwrap();
        form_checks(form, &flat, FoldModel::new(&flat, 1.05).as_ref(), 1.05, Unit::Mm)
    };
    let is_broken = |check: &&aptum_core::Check| check.state == State::Broken;
    let before = limits(&form);
    let remedy = &before.iter().find(is_broken).unwrap().remedies[0];
    assert_eq!(remedy.changes.len(), 2, "{}", remedy.text);
    let mut mended = form.clone();
    for change in &remedy.changes {
        let Setting::Number(value) = change.value else { panic!("{change:?}") };
        let key = change.field.strip_prefix("form.").unwrap().to_owned();
        mended.chosen_mut().unwrap().figures.insert(key, Some(value));
    }
    assert!(!limits(&mended).iter().any(|check| is_broken(&check)), "{}", remedy.text);
}

#[test]
fn a_low_carton_starts_with_a_tuck_that_it_has_room_for() {
    let sizes = [("length", 70.0), ("width", 45.0), ("height", 20.0)];
    let flat = Form::new("straight-tuck", &sizes).draw(0.4, Unit::Mm).unwrap();
    assert!(flat.checks.iter().all(|check| check.state != State::Broken), "{:?}", flat.checks);
}

/// Over the whole range the checks say either that it folds or which panels are in the way.
#[test]
fn fold_checks_pass_or_say_why_not() {
    each(12, |_, _, caliper, flat| {
        let model = FoldModel::new(&flat, caliper).unwrap();
        for check in aptum_core::fold::fold_checks(&flat, &model, Unit::Mm) {
            if check.state != aptum_core::State::Fits {
                prop_assert!(!check.verdict.is_empty() && !check.remedies.is_empty(), "{check:?}");
                prop_assert!(check.place.is_some_and(|place| !place.path.is_empty()));
            }
        }
        Ok(())
    });
}

#[test]
fn a_larger_inside_never_gives_a_smaller_blank() {
    each(20, |structure, form, caliper, small| {
        let inside = form.inside(caliper);
        for (at, (key, _)) in inside.iter().enumerate() {
            let mut larger = inside.clone();
            larger[at].1 += 7.0;
            let larger = form.with_inside(&larger, caliper);
            if let Ok(large) = larger.draw(caliper, Unit::Mm) {
                let card = |flat: &Flat| -> f64 {
                    flat.parts.iter().map(|part| part.outline.area().abs()).sum()
                };
                // Openings that follow the size, and a lock's step, may take a little back.
                prop_assert!(
                    card(&large) >= card(&small) * 0.995,
                    "{} {key}: {} {} {form:?}",
                    structure.id,
                    card(&small),
                    card(&large)
                );
            }
        }
        Ok(())
    });
}

#[test]
fn no_figures_make_it_panic() {
    let values = proptest::collection::vec(proptest::num::f64::ANY, 10);
    let config = Config { failure_persistence: None, cases: 60, ..Config::default() };
    TestRunner::new(config)
        .run(&(values, proptest::num::f64::ANY), |(values, caliper)| {
            for structure in CATALOGUE {
                let mut form = Form::new(structure.id, &[]);
                for (param, value) in structure.params.iter().zip(&values) {
                    form.chosen_mut().unwrap().figures.insert(param.key.to_owned(), Some(*value));
                }
                let _ = form.draw(caliper, Unit::In);
            }
            Ok(())
        })
        .unwrap();
}

/// Every bound itself can be drawn, and just beyond it is refused with the nearest value as the way out.
#[test]
fn bounds_hold_and_what_lies_beyond_is_refused() {
    for structure in CATALOGUE {
        let plain = Form::new(structure.id, &[]).draw(0.3, Unit::Mm).unwrap();
        for figure in &plain.figures {
            let key = figure.field.strip_prefix("form.").unwrap();
            for (bound, beyond) in [(figure.range[0], -1.0), (figure.range[1], 1.0)] {
                let form = Form::new(structure.id, &[(key, bound + beyond)]);
                let errors = form.draw(0.3, Unit::Mm).unwrap_err();
                let error = errors.iter().find(|error| error.field == figure.field);
                assert!(error.is_some(), "{} {key} {}", structure.id, bound + beyond);
            }
        }
    }
}

#[test]
fn corners_keep_their_radius_when_the_size_changes() {
    let radius = |width: f64| {
        let form = Form::new("tag-rounded", &[("width", width), ("height", 75.0), ("corner", 6.0)]);
        let flat = form.draw(0.3, Unit::Mm).unwrap();
        // The upper left corner's arc starts 6 mm below the top.
        let left: Vec<Point> = flat.parts[0]
            .outline
            .elements()
            .iter()
            .filter_map(|element| element.end_point())
            .filter(|point| point.x.abs() < 1e-9)
            .collect();
        left.iter().map(|point| point.y).fold(f64::MAX, f64::min)
    };
    assert!((radius(45.0) - 6.0).abs() < 1e-9);
    assert!((radius(90.0) - 6.0).abs() < 1e-9);
}

#[test]
fn sets_are_pieces_and_mating_edges_carry_the_same_number() {
    let months = Form::new("index-tabs", &[("count", 12.0)]).draw(0.3, Unit::Mm).unwrap();
    assert_eq!(months.parts.len(), 12);
    for (id, edges) in [
        ("cube", 7),
        ("tetrahedron", 3),
        ("octahedron", 5),
        ("dodecahedron", 19),
        ("icosahedron", 11),
    ] {
        let flat = Form::new(id, &[]).draw(0.3, Unit::Mm).unwrap();
        let tabs = flat.parts[0].panels.iter().filter(|panel| panel.name.starts_with("Tab"));
        // A net of a solid with E edges and F faces has F − 1 creases: the others are glued.
        assert_eq!(tabs.count(), edges, "{id}");
        for number in 1..=edges {
            assert_eq!(flat.mates.iter().filter(|(_, known)| *known == number).count(), 2, "{id}");
        }
    }
}
