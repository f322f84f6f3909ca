//! Sizes measured on the folded plates with their thickness, as a calliper would.

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
    let model = FoldModel::new(flat, caliper).unwrap();
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
/// which runs from corner to corner.
fn measured() -> impl Iterator<Item = (&'static Structure, Vec<&'static str>)> {
    CATALOGUE.iter().filter(|structure| structure.has_basis()).map(|structure| {
        let keys =
            structure.params.iter().filter(|p| matches!(p.kind, Kind::Size { .. })).map(|p| p.key);
        let structure: &'static Structure = structure;
        (structure, keys.filter(|key| *key != "side").collect())
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
                form.chosen_mut().unwrap().basis =
                    if is_outside { Basis::Outside } else { Basis::Inside };
                for (key, share) in keys.iter().zip(shares) {
                    let Ok(flat) = form.draw(caliper, Unit::Mm) else { break };
                    let field = format!("form.{key}");
                    let figure = flat.figures.iter().find(|figure| figure.field == field).unwrap();
                    let [low, high] = figure.range;
                    let value = (figure.standard * (0.6 + 2.0 * share)).clamp(low, high);
                    form.chosen_mut().unwrap().figures.insert((*key).to_owned(), Some(value));
                }
                let Ok(flat) = form.draw(caliper, Unit::Mm) else { return Ok(()) };
                drawn.set(drawn.get() + 1);
                for found in
                    measure(&flat, caliper).into_iter().filter(|m| keys.contains(&m.key.as_str()))
                {
                    let at = flat.sizes.keys.iter().position(|key| *key == found.key).unwrap();
                    let asked = form.chosen().unwrap().figures[&found.key].unwrap();
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
        assert!(drawn.get() >= 36, "{}: only {} of 55 were drawn", structure.id, drawn.get());
        judged += 1;
    }
    assert_eq!(judged, measured().count());
    assert!(judged >= 10);
}

/// The faces of a closed piece as planes: which way each looks, and how far the card's inner and its outer
/// side lie from a point inside.
fn faces(flat: &Flat, caliper: f64) -> Vec<(String, Vector3<f64>, [f64; 2])> {
    let model = FoldModel::new(flat, caliper).unwrap();
    let pose = Pose::at(&model, model.closed());
    let main: Vec<usize> = (0..model.panels.len())
        .filter(|panel| {
            let name = &model.panels[*panel].name;
            !name.starts_with("Tab ")
        })
        .collect();
    let points = |panel: usize| {
        panel_mesh(&model.panels[panel], caliper).points.into_iter().map(Point3::from)
    };
    let all: Vec<Vector3<f64>> = main
        .iter()
        .flat_map(|panel| points(*panel).map(|point| (pose.0[*panel] * point).coords))
        .collect();
    let middle = all.iter().sum::<Vector3<f64>>() / all.len() as f64;
    main.iter()
        .map(|panel| {
            let [low, high] = reach(&model, &pose, *panel, &pose.normal(*panel));
            let at = middle.dot(&pose.normal(*panel));
            let name = model.panels[*panel].name.clone();
            if at < low {
                (name, pose.normal(*panel), [low - at, high - at])
            } else {
                (name, -pose.normal(*panel), [at - high, at - low])
            }
        })
        .collect()
}

fn drawn(id: &str, figures: &[(&str, f64)], caliper: f64) -> Flat {
    Form::new(id, figures).draw(caliper, Unit::Mm).unwrap()
}

fn mean(values: impl Iterator<Item = f64>) -> f64 {
    let (sum, count) = values.fold((0.0, 0.0), |(sum, count), value| (sum + value, count + 1.0));
    sum / count
}

/// The radius of the sphere that touches all faces, in edges, from any geometry handbook: √6/12, 1/2, √6/6,
/// 1.113516 and 0.755761. From any point inside a regular solid the faces are that far away on average
/// (Viviani).
#[test]
fn a_regular_solid_is_as_large_inside_and_outside_as_its_faces_make_it() {
    let radii = [
        ("tetrahedron", 6f64.sqrt() / 12.0),
        ("cube", 0.5),
        ("octahedron", 6f64.sqrt() / 6.0),
        ("dodecahedron", 1.113_516_364),
        ("icosahedron", 0.755_761_314),
    ];
    for (id, radius) in radii {
        for (edge, caliper) in [(33.0, 0.3), (80.0, 0.7)] {
            let flat = drawn(id, &[("edge", edge)], caliper);
            let faces = faces(&flat, caliper);
            for (side, told) in [(0, &flat.sizes.inside), (1, &flat.sizes.outside)] {
                let got = mean(faces.iter().map(|(_, _, at)| at[side])) / radius;
                assert!((got - told[0]).abs() < 1e-3, "{id} {edge} {caliper}: {got} {told:?}");
            }
            assert!((flat.sizes.crease[0] - edge).abs() < 1e-9);
        }
    }
}

#[test]
fn prisms_and_blocks_are_as_large_inside_and_outside_as_their_faces_make_them() {
    let across = |faces: &[(String, Vector3<f64>, [f64; 2])], names: [&str; 2], side: usize| {
        let of = |name| faces.iter().find(|face| face.0 == name).unwrap().2[side];
        of(names[0]) + of(names[1])
    };
    let flat = drawn("cuboid", &[("length", 90.0), ("width", 35.0), ("height", 50.0)], 0.6);
    let block = faces(&flat, 0.6);
    for (side, told) in [(0, &flat.sizes.inside), (1, &flat.sizes.outside)] {
        let pairs = [["Left", "Right"], ["Front", "Back"], ["Top", "Bottom"]];
        for (pair, told) in pairs.into_iter().zip(told) {
            let got = across(&block, pair, side);
            assert!((got - told).abs() < 1e-3, "{pair:?} {got} {told}");
        }
    }
    for count in [3.0, 5.0, 8.0, 12.0] {
        let figures = [("sides", count), ("side", 40.0), ("height", 70.0)];
        let flat = drawn("prism-net", &figures, 0.6);
        let prism = faces(&flat, 0.6);
        for (side, told) in [(0, &flat.sizes.inside), (1, &flat.sizes.outside)] {
            let walls = prism.iter().filter(|face| face.0.starts_with("Wall"));
            let wide =
                mean(walls.map(|face| face.2[side])) * 2.0 * (std::f64::consts::PI / count).tan();
            assert!((wide - told[0]).abs() < 1e-3, "{count}: {wide} {told:?}");
            let high = across(&prism, ["Top", "Bottom"], side);
            assert!((high - told[1]).abs() < 1e-3, "{count}: {high} {told:?}");
        }
    }
}

/// A pyramid's walls and its base, each as far from a point inside as measured, meet at the side told and in
/// the tip told.
#[test]
fn a_pyramid_is_as_large_inside_and_outside_as_its_faces_make_it() {
    for (count, side, height) in [(3.0, 60.0, 90.0), (4.0, 60.0, 60.0), (9.0, 30.0, 120.0)] {
        let figures = [("sides", count), ("side", side), ("height", height)];
        let flat = drawn("pyramid-net", &figures, 0.5);
        let all = faces(&flat, 0.5);
        let (base, walls): (Vec<_>, Vec<_>) = all.into_iter().partition(|face| face.0 == "Base");
        let slope = (-base[0].1.dot(&walls[0].1)).acos();
        for (at, told) in [(0, &flat.sizes.inside), (1, &flat.sizes.outside)] {
            let below = base[0].2[at];
            let apothem =
                mean(walls.iter().map(|wall| wall.2[at])) / slope.sin() + below / slope.tan();
            let wide = apothem * 2.0 * (std::f64::consts::PI / count).tan();
            assert!((wide - told[0]).abs() < 2e-3, "{count}: side {wide} {told:?}");
            let high = apothem * slope.tan();
            assert!((high - told[1]).abs() < 5e-3, "{count}: height {high} {told:?}");
        }
    }
}

/// A tray is over everything at its rim, and has its room at the base.
#[test]
fn a_tapered_tray_is_measured_over_its_rim_and_inside_on_its_base() {
    for (flare, caliper) in [(2.0, 0.3), (12.0, 0.5), (40.0, 0.8)] {
        let figures = [("length", 90.0), ("width", 60.0), ("height", 40.0), ("flare", flare)];
        let flat = drawn("tapered-tray", &figures, caliper);
        let model = FoldModel::new(&flat, caliper).unwrap();
        let pose = Pose::at(&model, model.closed());
        let panel = |name: &str| model.index(name).unwrap();
        let up = pose.normal(panel("Base"));
        let front = pose.normal(panel("Front wall"));
        let out = (front - up * front.dot(&up)).normalize();
        let right = out.cross(&up);
        let over = |way: &Vector3<f64>| {
            let all = (0..model.panels.len()).map(|index| reach(&model, &pose, index, way));
            all.fold([f64::MAX, f64::MIN], |[a, b], [low, high]| [a.min(low), b.max(high)])
        };
        for (way, told) in [right, out, up].iter().zip(&flat.sizes.outside) {
            let [low, high] = over(way);
            assert!((high - low - told).abs() < 0.02, "{flare}: {} {told}", high - low);
        }
        // Where the walls' inner faces meet that of the base.
        let all = faces(&flat, caliper);
        let of = |name: &str| all.iter().find(|face| face.0 == name).unwrap();
        let floor = of("Base").2[0];
        let lean = flare.to_radians();
        for (pair, told) in [["Left wall", "Right wall"], ["Front wall", "Back wall"]]
            .iter()
            .zip(&flat.sizes.inside)
        {
            let at_floor = |name: &str| of(name).2[0] / lean.cos() - floor * lean.tan();
            let got = at_floor(pair[0]) + at_floor(pair[1]);
            assert!((got - told).abs() < 0.02, "{pair:?} {flare}: {got} {told}");
        }
    }
}
