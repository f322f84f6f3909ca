//! The fold checks find what is wrong, and measure what a protractor and a ruler would.

use aptum_core::fold::{FoldModel, Pose, draw_folded, panel_mesh, prove};
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::design::Must;
use aptum_core::form::{Flat, Form};
use aptum_core::geometry::{BezPath, Point, Shape as _};
use aptum_core::units::Unit;

const CARD: f64 = 0.4;

fn carton() -> Flat {
    Form::new("straight-tuck", &[]).draw(CARD, Unit::Mm).unwrap()
}

fn flat(id: &str, figures: &[(&str, f64)]) -> Flat {
    Form::new(id, figures).draw(CARD, Unit::Mm).unwrap()
}

/// Published: dihedral angles of the Platonic solids, in degrees.
#[test]
fn platonic_solids_close_at_their_dihedral_angles() {
    for (id, angle) in [
        ("tetrahedron", 70.528_779),
        ("cube", 90.0),
        ("octahedron", 109.471_221),
        ("dodecahedron", 116.565_051),
        ("icosahedron", 138.189_685),
    ] {
        let model = FoldModel::new(&flat(id, &[]), CARD).unwrap();
        let faces = model.panels.iter().filter(|panel| panel.hang.is_some());
        for panel in faces {
            assert!(
                (180.0 - panel.fold - angle).abs() < 1e-5,
                "{id} {} {}",
                panel.name,
                panel.fold
            );
        }
    }
}

#[test]
fn a_planted_fault_is_found_and_its_panels_are_named() {
    let whole = carton();
    let sound = prove(&FoldModel::new(&whole, CARD).unwrap());
    assert!(sound.closed.is_none() && sound.on_the_way.is_none());

    // A room asked for that is not there.
    let mut wrong = whole.clone();
    for must in &mut wrong.folding.as_mut().unwrap().musts {
        if let Must::Room("length", _, want) = must {
            *want += 0.3;
        }
    }
    let found = prove(&FoldModel::new(&wrong, CARD).unwrap()).sizes.unwrap();
    assert!((found.value - 0.3).abs() < 1e-9);
    assert_eq!(found.panels, ["Glue flap", "Right side"]);

    // A fold that stops short of a right angle by one degree: the joint gapes.
    let mut model = FoldModel::new(&whole, CARD).unwrap();
    let back = model.index("Left side").unwrap();
    for step in &mut model.steps {
        step.angles[back] = step.angles[back].min(89.0);
    }
    let proof = prove(&model);
    assert!(proof.planes.1.unwrap().value > 0.1);

    // A top pressed in past its closed angle goes through the flaps beneath.
    let mut model = FoldModel::new(&whole, CARD).unwrap();
    let top = model.index("Top").unwrap();
    model.steps.last_mut().unwrap().angles[top] = 130.0;
    let (found, step) = prove(&model).on_the_way.unwrap();
    assert!(found.value > 1.0 && found.panels.iter().any(|name| name.contains("Top")), "{found:?}");
    assert_eq!(step, "Close the top");

    // A side pressed half into the carton stands in the way of its neighbours when closed.
    let mut model = FoldModel::new(&whole, CARD).unwrap();
    let dust = model.index("Base right dust flap").unwrap();
    model.steps.last_mut().unwrap().angles[dust] = 60.0;
    let closed = prove(&model).closed.unwrap();
    assert!(closed.panels.contains(&"Base right dust flap".to_owned()), "{closed:?}");
}

#[test]
fn a_flap_in_the_way_blocks_in_the_step_in_which_it_does() {
    // Closing the top before the dust flaps are in: they stand up through it.
    let mut whole = carton();
    let steps = &mut whole.folding.as_mut().unwrap().steps;
    let close = steps.len() - 1;
    let top: Vec<_> = steps.drain(close - 2..).collect();
    let dust = steps.pop().unwrap();
    steps.extend(top);
    steps.push(dust);
    let (found, step) = prove(&FoldModel::new(&whole, CARD).unwrap()).on_the_way.unwrap();
    assert!(found.panels.iter().any(|name| name.contains("dust")), "{found:?}");
    assert!(step.contains("top"), "{step}");
}

#[test]
fn glue_that_finds_little_of_its_mate_is_measured() {
    let mut short = flat("seal-end", &[]);
    for must in &mut short.folding.as_mut().unwrap().musts {
        if let Must::Glue(_, mate, _) = must
            && mate == "Top"
        {
            *mate = "Top right flap".to_owned();
        }
    }
    let glued = prove(&FoldModel::new(&short, CARD).unwrap()).glued.unwrap();
    assert!(glued.value < 0.9, "{glued:?}");
}

/// The closed carton measured as a ruler would: outside sizes from its corners in space.
#[test]
fn a_closed_carton_has_its_outside_size() {
    let whole = carton();
    let model = FoldModel::new(&whole, CARD).unwrap();
    let pose = Pose::at(&model, model.closed());
    let mut low = [f64::MAX; 3];
    let mut high = [f64::MIN; 3];
    for (index, panel) in model.panels.iter().enumerate() {
        for point in panel_mesh(panel, CARD).points {
            let at = pose.0[index] * nalgebra::Point3::from(point);
            for axis in 0..3 {
                low[axis] = low[axis].min(at[axis]);
                high[axis] = high[axis].max(at[axis]);
            }
        }
    }
    // x is the length, y the height, z the width in the flat's directions.
    let outside = &whole.sizes.outside;
    for (axis, size) in [(0, 0), (1, 2), (2, 1)] {
        let got = high[axis] - low[axis];
        assert!(
            (got - outside[size]).abs() < 0.05,
            "axis {axis}: {got} instead of {}",
            outside[size]
        );
    }
}

#[test]
fn folding_goes_from_flat_to_closed_and_keeps_panels_rigid() {
    let model = FoldModel::new(&carton(), CARD).unwrap();
    let start = Pose::at(&model, 0.0);
    assert!((0..model.panels.len()).all(|panel| (start.normal(panel).z - 1.0).abs() < 1e-12));
    for share in [0.3, 1.7, 4.2, f64::NAN, -5.0, 1e9] {
        let pose = Pose::at(&model, share);
        for (index, panel) in model.panels.iter().enumerate() {
            let corner = |at: usize| pose.point(index, panel.ring[at]);
            let flat = (panel.ring[0] - panel.ring[1]).hypot();
            assert!(((corner(0) - corner(1)).norm() - flat).abs() < 1e-9);
        }
    }
}

/// A mesh is closed when every edge of its triangles is walked once each way.
#[test]
fn meshes_are_closed_around_openings_too() {
    let mut form = Form::new("straight-tuck", &[]);
    form.chosen_mut().unwrap().add_ons.push(aptum_core::form::AddOn {
        kind: aptum_core::form::AddOnKind::WindowHeart,
        panel: "Front".to_owned(),
        across: 0.0,
        along: 0.0,
        width: 25.0,
        height: 25.0,
        cut: None,
        tie: None,
        own: None,
    });
    let flat = form.draw(CARD, Unit::Mm).unwrap();
    let model = FoldModel::new(&flat, CARD).unwrap();
    let front = model.index("Front").unwrap();
    assert_eq!(model.panels[front].openings.len(), 1);
    for panel in &model.panels {
        let mesh = panel_mesh(panel, CARD);
        let volume: f64 = mesh
            .printed
            .iter()
            .chain(&mesh.back)
            .chain(&mesh.edges)
            .map(|face| {
                let [a, b, c] =
                    face.map(|corner| nalgebra::Vector3::from(mesh.points[corner as usize]));
                a.dot(&b.cross(&c)) / 6.0
            })
            .sum();
        let ring = aptum_core::geometry::polygon(&panel.ring);
        let holes: f64 = panel
            .openings
            .iter()
            .map(|hole| kurbo::Shape::area(&aptum_core::geometry::polygon(hole)).abs())
            .sum();
        let area = kurbo::Shape::area(&ring).abs() - holes;
        assert!(
            (volume - area * CARD).abs() < 1e-6 * area,
            "{}: {volume} {}",
            panel.name,
            area * CARD
        );
    }
}

#[test]
fn the_drawing_hides_what_lies_behind() {
    // Of a closed cube seen from outside, only printed sides are in front: the last faces drawn.
    let model = FoldModel::new(&flat("cube", &[]), 0.1).unwrap();
    let drawing = draw_folded(&model, model.closed());
    let last: Vec<_> = drawing.faces.iter().rev().take(3).collect();
    assert!(last.iter().all(|face| !face.is_inside), "{last:?}");
    assert!(drawing.bounds[2] > 40.0 && drawing.bounds[3] > 40.0);
}

/// What is printed lies on the drawing where the blank does: each face, taken back, is a part of its blank, and is the
/// other way round just where the unprinted side is seen.
#[test]
fn faces_of_the_drawing_lie_on_their_blanks() {
    for structure in CATALOGUE {
        let flat = flat(structure.id, &[]);
        let Some(model) = FoldModel::new(&flat, CARD) else { continue };
        for progress in [0.0, model.closed() * 0.4, model.closed()] {
            for face in draw_folded(&model, progress).faces {
                let turned = face.lies.determinant();
                if turned.abs() < 0.02 {
                    // Seen along its edge.
                    continue;
                }
                assert_eq!(turned < 0.0, face.is_inside, "{} {}", structure.id, face.panel);
                let back = face.lies.inverse() * BezPath::from_svg(&face.face).unwrap();
                let bounds = flat.parts[face.part].bounds.inflate(0.1, 0.1);
                let corners: Vec<Point> =
                    back.segments().map(|side| kurbo::ParamCurve::start(&side)).collect();
                assert!(corners.iter().all(|at| bounds.contains(*at)), "{}", structure.id);
                let count = corners.len() as f64;
                let middle =
                    corners.iter().fold(kurbo::Vec2::ZERO, |all, at| all + at.to_vec2()) / count;
                let outline = &flat.parts[face.part].outline;
                if face.face.len() > 40 && back.area().abs() > 1.0 {
                    assert_ne!(outline.winding(middle.to_point()), 0, "{}", structure.id);
                }
            }
        }
    }
}
