//! Sizes measured on the folded plates with their thickness, as a calliper would.

#![allow(clippy::unwrap_used, reason = "a test fails by panicking")]

use aptum_core::fold::{FoldModel, Pose, panel_mesh};
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::design::Must;
use aptum_core::form::{Basis, Flat, Form, Kind, Structure};
use aptum_core::units::Unit;
use nalgebra::{Point3, Vector3};
use proptest::prelude::*;
use proptest::test_runner::{Config, TestRunner};

/// How far a closed panel reaches along a direction, its card's thickness included: from, to, mm.
fn reach(model: &FoldModel, pose: &Pose, panel: usize, way: &Vector3<f64>) -> [f64; 2] {
    let points = panel_mesh(&model.panels[panel], model.caliper).points;
    let along = points.into_iter().map(|p| (pose.0[panel] * Point3::from(p)).coords.dot(way));
    along.fold([f64::MAX, f64::MIN], |[low, high], at| [low.min(at), high.max(at)])
}

/// Measured inside, where two panels bound it, and over everything.
struct Measured {
    key: String,
    inside: Option<f64>,
    outside: f64,
}

/// Every size of a closed piece. A direction is square to the panels that leave the room that was asked
/// for; one that no panels bound, as an open tray's height, is square to the other two.
fn measure(flat: &Flat, caliper: f64) -> Vec<Measured> {
    let model = FoldModel::new(flat, caliper);
    let pose = Pose::at(&model, model.closed());
    let room = |key: &str| {
        model.musts.iter().find_map(|must| match must {
            Must::Room(known, [one, other], _) if *known == key => {
                Some((model.index(one)?, model.index(other)?))
            }
            _ => None,
        })
    };
    let known: Vec<Vector3<f64>> = flat
        .sizes
        .keys
        .iter()
        .filter_map(|key| room(key))
        .map(|(one, _)| pose.normal(one))
        .collect();
    flat.sizes
        .keys
        .iter()
        .map(|key| {
            let room = room(key);
            let way = room
                .map_or_else(|| known[0].cross(&known[1]).normalize(), |(one, _)| pose.normal(one));
            let over = (0..model.panels.len()).map(|panel| reach(&model, &pose, panel, &way));
            let [low, high] =
                over.fold([f64::MAX, f64::MIN], |[a, b], [low, high]| [a.min(low), b.max(high)]);
            let inside = room.map(|(one, other)| {
                let (a, b) = (reach(&model, &pose, one, &way), reach(&model, &pose, other, &way));
                (b[0] - a[1]).max(a[0] - b[1])
            });
            Measured { key: key.clone(), inside, outside: high - low }
        })
        .collect()
}

/// Structures that are measured three ways, and the sizes that a calliper can take: not a prism's side,
/// which runs from corner to corner, nor a gable's height, which ends where the roof starts.
fn measured() -> impl Iterator<Item = (&'static Structure, Vec<&'static str>)> {
    CATALOGUE.iter().filter(|structure| structure.has_basis()).map(|structure| {
        let keys =
            structure.params.iter().filter(|p| matches!(p.kind, Kind::Size { .. })).map(|p| p.key);
        let structure: &'static Structure = structure;
        let keys = keys.filter(|key| *key != "side" && (structure.id, *key) != ("gable", "height"));
        (structure, keys.collect())
    })
}

/// In card of any caliper, with any clearance, what was asked for is what is measured.
#[test]
fn inside_and_outside_are_what_was_asked_for() {
    let mut judged = 0;
    for (structure, keys) in measured() {
        let config = Config { failure_persistence: None, cases: 48, ..Config::default() };
        let drawn = std::cell::Cell::new(0);
        let shares = proptest::collection::vec(0.0..1.0f64, keys.len());
        let inputs = (shares, 0.1..0.8f64, 0.0..1.5f64, any::<bool>());
        let outcome =
            TestRunner::new(config).run(&inputs, |(shares, caliper, clearance, is_outside)| {
                let mut form = Form::new(structure.id, &[("clearance", clearance)]);
                form.basis = if is_outside { Basis::Outside } else { Basis::Inside };
                for (key, share) in keys.iter().zip(shares) {
                    let Ok(flat) = form.draw(caliper, Unit::Mm) else { break };
                    let field = format!("form.{key}");
                    let figure = flat.figures.iter().find(|figure| figure.field == field).unwrap();
                    let [low, high] = figure.range;
                    let value = (figure.standard * (0.6 + 2.0 * share)).clamp(low, high);
                    form.figures.insert((*key).to_owned(), Some(value));
                }
                let Ok(flat) = form.draw(caliper, Unit::Mm) else { return Ok(()) };
                drawn.set(drawn.get() + 1);
                for found in
                    measure(&flat, caliper).into_iter().filter(|m| keys.contains(&m.key.as_str()))
                {
                    let at = flat.sizes.keys.iter().position(|key| *key == found.key).unwrap();
                    let asked = form.figures[&found.key].unwrap();
                    let shown =
                        if is_outside { flat.sizes.outside[at] } else { flat.sizes.inside[at] };
                    prop_assert!((asked - shown).abs() < 1e-9);
                    let (inside, outside) = (flat.sizes.inside[at], flat.sizes.outside[at]);
                    prop_assert!(
                        (found.outside - outside).abs() < 0.02,
                        "{} is {} over everything, not {outside}: {form:?} {caliper}",
                        found.key,
                        found.outside
                    );
                    if let Some(got) = found.inside {
                        prop_assert!(
                            (got - inside).abs() < 0.02,
                            "{} is {got} inside, not {inside}: {form:?} {caliper}",
                            found.key
                        );
                    }
                }
                Ok(())
            });
        if let Err(error) = outcome {
            panic!("{}: {error}", structure.id);
        }
        assert!(drawn.get() >= 36, "{}: only {} of 48 were drawn", structure.id, drawn.get());
        judged += 1;
    }
    assert_eq!(judged, measured().count());
    assert!(judged >= 10);
}
