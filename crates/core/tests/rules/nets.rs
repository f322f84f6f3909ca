//! Glue tabs of nets: each lies on its mate and none in another.

use aptum_core::fold::{FoldModel, Pose, prove};
use aptum_core::form::design::Must;
use aptum_core::form::{Flat, Form};
use aptum_core::units::Unit;
use geo::{Area, BooleanOps, Contains, Coord, LineString, Polygon};
use nalgebra::Point3;
use proptest::prelude::*;

const SOLIDS: [&str; 8] = [
    "cube",
    "cuboid",
    "tetrahedron",
    "octahedron",
    "dodecahedron",
    "icosahedron",
    "prism-net",
    "pyramid-net",
];

/// A panel as it lies in the closed piece, seen square to another.
fn seen(model: &FoldModel, pose: &Pose, panel: usize, from: usize) -> Polygon {
    let ring = model.panels[panel].ring.iter().map(|at| {
        let point = pose.0[from].inverse() * pose.0[panel] * Point3::new(at.x, at.y, 0.0);
        Coord { x: point.x, y: point.y }
    });
    Polygon::new(LineString::new(ring.collect()), Vec::new())
}

/// The greatest area that two tabs on one face share, mm², and how many tabs have a tip that does not lie on
/// their mate; judged by geo.
fn worst(flat: &Flat, caliper: f64) -> (f64, usize) {
    let model = FoldModel::new(flat, caliper).unwrap();
    let pose = Pose::at(&model, model.closed());
    let glued: Vec<(usize, usize)> = model
        .musts
        .iter()
        .filter_map(|must| match must {
            Must::Glue(tab, mate, _) => Some((model.index(tab)?, model.index(mate)?)),
            _ => None,
        })
        .collect();
    let (mut shared, mut off) = (0.0f64, 0);
    for (at, (tab, mate)) in glued.iter().enumerate() {
        let one = seen(&model, &pose, *tab, *mate);
        let card = seen(&model, &pose, *mate, *mate);
        // A panel's ring starts and ends at its crease.
        let tips = &one.exterior().0[1..one.exterior().0.len() - 2];
        off += usize::from(!tips.iter().all(|tip| card.contains(tip)));
        for (other, _) in glued[at + 1..].iter().filter(|(_, on)| on == mate) {
            let other = seen(&model, &pose, *other, *mate);
            shared = shared.max(one.intersection(&other).unsigned_area());
        }
    }
    (shared, off)
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, cases: 120, ..Default::default() })]
    #[test]
    fn tabs_on_one_face_never_share_card(
        which in 0..SOLIDS.len(),
        size in 0.0..1.0f64,
        high in 0.0..1.0f64,
        sides in 3u8..13,
        tab in proptest::option::of(3.0..30.0f64),
        caliper in 0.1..0.8f64,
    ) {
        let mut form = Form::new(SOLIDS[which], &[]);
        let mut set = |key: &str, value: f64| {
            form.chosen_mut().unwrap().figures.insert(key.to_owned(), Some(value));
        };
        set("sides", f64::from(sides));
        if let Some(tab) = tab {
            set("tab", tab);
        }
        for key in ["edge", "side", "length", "width"] {
            set(key, 15.0 + 75.0 * size);
        }
        // A flat pyramid of many sides is refused.
        let low = if SOLIDS[which] == "pyramid-net" { 20.0 + 90.0 * size } else { 15.0 };
        set("height", low + 120.0 * high);
        let flat = form.draw(caliper, Unit::Mm);
        prop_assert!(flat.is_ok(), "{form:?} {flat:?}");
        let flat = flat.unwrap();
        let (shared, off) = worst(&flat, caliper);
        prop_assert!(shared < 1e-6, "{shared} mm² shared: {form:?} {caliper}");
        prop_assert_eq!(off, 0, "tips off their mates: {:?} {}", form, caliper);
        let proof = prove(&FoldModel::new(&flat, caliper).unwrap());
        prop_assert!(proof.closed.is_none(), "{:?} {form:?} {caliper}", proof.closed);
    }
}

/// The case in which it was seen first: twice 54.9 mm².
#[test]
fn an_octahedron_of_33_has_its_tabs_beside_each_other() {
    let flat = Form::new("octahedron", &[("edge", 33.0)]).draw(0.4, Unit::Mm).unwrap();
    assert!(worst(&flat, 0.4).0 < 1e-6);
}

/// A tab twice on one face is seen by the fold check, though both lie in one plane.
#[test]
fn overlap_in_one_plane_is_in_the_way() {
    let flat = Form::new("straight-tuck", &[("dust", 20.0)]).draw(0.4, Unit::Mm).unwrap();
    let model = FoldModel::new(&flat, 0.4).unwrap();
    assert!(prove(&model).closed.is_none());
    let wide = Form::new("straight-tuck", &[("length", 60.0), ("width", 50.0), ("dust", 33.0)]);
    let flat = wide.draw(0.4, Unit::Mm).unwrap();
    let found = prove(&FoldModel::new(&flat, 0.4).unwrap()).closed.unwrap();
    // Two flaps of 33 mm in 60 mm: 6 mm deep in each other, and a strip of that width is found.
    assert!(found.panels.iter().all(|name| name.contains("dust flap")), "{found:?}");
    assert!((4.0..6.5).contains(&found.value), "{found:?}");
}
