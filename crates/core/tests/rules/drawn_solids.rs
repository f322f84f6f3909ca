//! Nets that were drawn elsewhere: which sides meet when they are folded, against what is known of solids; areas between
//! lines against Euler's formula; and drawings that are none.

#![allow(clippy::cast_possible_truncation, reason = "small drawings")]

use std::collections::{HashMap, HashSet};
use std::f64::consts::TAU;
use std::sync::Arc;

use aptum_core::check::{Check, State};
use aptum_core::face::{Art, Ink};
use aptum_core::faced::{FaceInput, Faced};
use aptum_core::fold::{Pose, prove};
use aptum_core::form::{Form, LineDrawing, ReadLines};
use aptum_core::formed::{FormInput, Formed};
use aptum_core::geometry::{BezPath, Point, Rect, Shape as _, Side, faces};
use aptum_core::lines::{
    Group, Lines, LinesError, Look, Scale, StepSay, ToldFolding, Turn, guessed,
};
use aptum_core::memory::Key;
use aptum_core::units::Unit;
use aptum_core::{blob::BlobId, blob::Origin};
use proptest::prelude::*;

fn group(layer: &str, colour: &str) -> Group {
    Group { layer: layer.to_owned(), colour: colour.to_owned(), look: Look::Stroke }
}

fn of(lines: Lines) -> LineDrawing {
    let key = guessed(&lines);
    let mut own = LineDrawing::new(BlobId("0".repeat(64)), Origin::default(), key);
    own.read = ReadLines(Some(Arc::new(lines)));
    own
}

fn drawing(lines: &[(&str, String)]) -> LineDrawing {
    let drawn = lines
        .iter()
        .map(|(layer, path)| (group(layer, "#000000"), BezPath::from_svg(path).unwrap()));
    of(Lines::gathered(Some(1.0), drawn, 0, 0).unwrap())
}

fn formed(own: LineDrawing) -> Formed {
    let form = Form::of_drawing(own);
    Formed::new(&FormInput { form: &form, held: &[], caliper: 0.3, unit: Unit::Mm }).unwrap()
}

fn check<'a>(formed: &'a Formed, id: &str) -> &'a Check {
    formed.checks.iter().find(|check| check.id == id).unwrap_or_else(|| panic!("{id}"))
}

/// Faces with corners as a net: what two of them share is a crease, everything else is cut.
fn net(faces: &[Vec<Point>], fold: f64) -> LineDrawing {
    let key = |point: Point| ((point.x * 1e4).round() as i64, (point.y * 1e4).round() as i64);
    let mut sides: HashMap<[(i64, i64); 2], (Point, Point, usize)> = HashMap::new();
    for face in faces {
        for (a, b) in face.iter().zip(face.iter().cycle().skip(1)) {
            let mut ends = [key(*a), key(*b)];
            ends.sort_unstable();
            sides.entry(ends).or_insert((*a, *b, 0)).2 += 1;
        }
    }
    let mut sides: Vec<(Point, Point, usize)> = sides.into_values().collect();
    sides.sort_by(|one, other| one.0.x.total_cmp(&other.0.x).then(one.0.y.total_cmp(&other.0.y)));
    let lines: Vec<(&str, String)> = sides
        .iter()
        .map(|(a, b, count)| {
            let layer = if *count == 2 { "crease" } else { "cut" };
            (layer, format!("M{} {}L{} {}", a.x, a.y, b.x, b.y))
        })
        .collect();
    let mut own = drawing(&lines);
    let mut read = Lines::clone(own.read.0.as_ref().unwrap());
    // As a file would say: mountains below 0.
    let creases = sides.iter().enumerate().filter(|(_, (.., count))| *count == 2);
    read.angles = creases.map(|(at, _)| (at, -fold)).collect();
    own.read = ReadLines(Some(Arc::new(read)));
    own
}

/// A triangle on the side from `a` to `b`, to the right of it.
fn triangle(a: Point, b: Point) -> Vec<Point> {
    let side = b - a;
    let tip =
        a.midpoint(b) + aptum_core::geometry::Vec2::new(side.y, -side.x) * (3f64.sqrt() / 2.0);
    vec![a, b, tip]
}

/// Solids by their nets: a net of F faces has F - 1 folds, and the E - F + 1 other edges of the solid are joints. Edges
/// and dihedral angles from the table of regular polyhedra (Cundy and Rollett, Mathematical Models, from memory).
#[test]
fn nets_of_solids_have_as_many_joints_as_they_must() {
    let square = |x: f64, y: f64| {
        let corner = |dx: f64, dy: f64| Point::new(30.0 * (x + dx), 30.0 * (y + dy));
        vec![corner(0.0, 0.0), corner(1.0, 0.0), corner(1.0, 1.0), corner(0.0, 1.0)]
    };
    let cube: Vec<Vec<Point>> =
        [(1.0, 0.0), (0.0, 1.0), (1.0, 1.0), (2.0, 1.0), (3.0, 1.0), (1.0, 2.0)]
            .map(|(x, y)| square(x, y))
            .to_vec();
    let base = triangle(Point::new(0.0, 40.0), Point::new(40.0, 40.0));
    let [a, b, tip] = [base[0], base[1], base[2]];
    let around = vec![base.clone(), triangle(b, a), triangle(tip, b), triangle(a, tip)];
    // A band of six, every other one on its tip, and one above and one below it.
    let upright = |at: u32| {
        let left = Point::new(30.0 * f64::from(at), 60.0);
        triangle(left, left + aptum_core::geometry::Vec2::new(30.0, 0.0))
    };
    let band = (0..3).flat_map(|at| {
        let own = upright(at);
        let hanging = vec![own[2], own[1], upright(at + 1)[2]];
        [own, hanging]
    });
    let mut octahedron: Vec<Vec<Point>> = band.collect();
    let (first, last) = (octahedron[0].clone(), octahedron[5].clone());
    octahedron.extend([triangle(first[1], first[0]), triangle(last[0], last[2])]);
    let dihedral = |cosine: f64| 180.0 - cosine.acos().to_degrees();
    for (name, faces, edges, fold) in [
        ("cube", cube, 12, 90.0),
        ("tetrahedron", around, 6, dihedral(1.0 / 3.0)),
        ("octahedron", octahedron, 12, dihedral(-1.0 / 3.0)),
    ] {
        let count = faces.len();
        let own = formed(net(&faces, fold));
        let model = own.fold.as_ref().unwrap();
        assert_eq!(model.panels.len(), count, "{name}");
        assert_eq!(own.flat.drawing.as_ref().unwrap().creases.len(), count - 1, "{name}");
        assert_eq!(model.musts.len(), edges + 1 - count, "{name}");
        assert_eq!(check(&own, "fold-edges").state, State::Fits, "{name}");
        assert!(prove(model).closed.is_none(), "{name}");
        // A wrong angle leaves it open.
        let open = formed(net(&faces, fold - 20.0));
        assert!(open.fold.as_ref().unwrap().musts.len() < edges + 1 - count, "{name}");
    }
}

#[test]
fn what_tears_does_not_fold_by_itself() {
    let lines = [
        ("cut", "M0 0H100V40H0Z".to_owned()),
        ("perforation", "M30 0V40".to_owned()),
        ("crease", "M70 0V40".to_owned()),
    ];
    let own = formed(drawing(&lines));
    let facts = own.flat.drawing.as_ref().unwrap();
    let mut angles: Vec<f64> = facts.creases.iter().map(|crease| crease.degrees).collect();
    angles.sort_by(f64::total_cmp);
    assert_eq!(angles, [0.0, 90.0]);
}

#[test]
fn creases_that_end_in_nowhere_and_panels_that_hang_on_nothing_are_told() {
    let lines = [
        ("cut", "M0 0H100V40H0Z".to_owned()),
        ("crease", "M30 0V40".to_owned()),
        ("crease", "M60 0V25".to_owned()),
        // Cut off from the rest, in the same outline.
        ("cut", "M80 0V40".to_owned()),
    ];
    let own = formed(drawing(&lines));
    let told = check(&own, "drawing-ends");
    assert_eq!((told.state, told.value_text.as_str()), (State::Attention, "1"));
    assert!(told.verdict.contains("hangs on no other"), "{}", told.verdict);
    assert_eq!(own.fold.as_ref().unwrap().panels.len(), 2);
}

/// A strip ruled every 10° is the half of a prism of 36 sides: its ends lie as far apart as that one is wide,
/// side / tan(π/36) (any geometry book).
#[test]
fn what_is_ruled_bows_as_a_prism_with_so_many_sides() {
    let (side, high) = (8.0, 40.0);
    let long = side * 18.0;
    let mut lines = vec![("cut", format!("M0 0H{long}V{high}H0Z"))];
    lines.extend((1..18).map(|at| ("bend", format!("M{0} 0V{high}", side * f64::from(at)))));
    let mut own = drawing(&lines);
    let mut read = Lines::clone(own.read.0.as_ref().unwrap());
    read.angles = (1..18).map(|at| (at, -10.0)).collect();
    own.read = ReadLines(Some(Arc::new(read)));
    let own = formed(own);
    let model = own.fold.as_ref().unwrap();
    assert_eq!(model.panels.len(), 18);
    assert_eq!(own.flat.drawing.as_ref().unwrap().panels.len(), 1, "it is one panel");
    assert!(own.flat.strokes().is_empty(), "nothing is worked along a bend");
    let pose = Pose::at(model, model.closed());
    let corners = model.panels.iter().enumerate().flat_map(|(at, panel)| {
        panel.ring.iter().map(|own| pose.point(at, *own)).collect::<Vec<_>>()
    });
    let corners: Vec<_> = corners.collect();
    let far = |one: &nalgebra::Point3<f64>| {
        corners.iter().map(|other| (one - other).norm()).fold(0.0, f64::max)
    };
    // Its first and last side lie across from each other.
    let most = corners.iter().map(far).fold(0.0, f64::max);
    let across = side / (std::f64::consts::PI / 36.0).tan();
    assert!((most - across.hypot(side).hypot(high)).abs() < 1e-6, "{most} {across}");
}

#[test]
fn a_curved_crease_folds_on_its_chord_and_is_told_until_bends_lead_to_it() {
    let cut = ("cut", "M0 0H90V60H0Z".to_owned());
    let crease = ("crease", "M0 30Q45 50 90 30".to_owned());
    let own = formed(drawing(&[cut.clone(), crease.clone()]));
    let told = check(&own, "drawing-curves");
    assert_eq!((told.state, told.value_text.as_str()), (State::Attention, "1"));
    let facts = own.flat.drawing.as_ref().unwrap();
    let [first] = facts.creases.as_slice() else { panic!("one crease") };
    assert!((first.ends[0].distance(first.ends[1]) - 90.0).abs() < 1e-6, "{:?}", first.ends);
    // Ruled, both sides of it are curved panels, and every piece of the crease is nearly straight.
    let mut lines = vec![cut, crease];
    lines.extend((1..18).map(|at| ("bend", format!("M{0} 0V60", 5 * at))));
    let own = formed(drawing(&lines));
    assert!(own.checks.iter().all(|check| check.id != "drawing-curves"));
    let facts = own.flat.drawing.as_ref().unwrap();
    assert_eq!((facts.panels.len(), facts.creases.len()), (2, 35));
    assert!(own.flat.panels().all(|(panel, _)| panel.strip_of.is_some()));
}

#[test]
fn told_steps_fold_the_panels_that_are_still_there_and_are_bounded() {
    let lines = [
        ("cut", "M0 0H100V40H0Z".to_owned()),
        ("crease", "M30 0V40".to_owned()),
        ("crease", "M70 0V40".to_owned()),
    ];
    let step = |text: &str, at: [f64; 2], degrees| StepSay {
        text: text.to_owned(),
        turns: vec![Turn { at, degrees }],
    };
    let mut own = drawing(&lines);
    own.steps = vec![
        step("Lift the right side", [90.0, 20.0], Some(30.0)),
        step("Fold what was taken off", [190.0, 20.0], None),
        step("Close both", [10.0, 20.0], None),
    ];
    let told = formed(own.clone());
    let model = told.fold.as_ref().unwrap();
    let texts: Vec<&str> = model.steps.iter().map(|step| step.text.as_str()).collect();
    assert_eq!(texts, ["Lift the right side", "Close both"]);
    let angles = |step: usize| {
        let mut angles = model.steps[step].angles.clone();
        angles.sort_by(f64::total_cmp);
        angles
    };
    assert_eq!((angles(0), angles(1)), (vec![0.0, 0.0, 30.0], vec![0.0, 30.0, 90.0]));

    for wrong in [
        step("", [10.0, 20.0], None),
        step("Too far", [10.0, 20.0], Some(181.0)),
        step("Nowhere", [f64::NAN, 20.0], None),
    ] {
        let told = ToldFolding { steps: vec![wrong.clone()], ..ToldFolding::default() };
        assert!(told.sound().steps.is_empty(), "out of a file it is left out: {wrong:?}");
        own.steps = vec![wrong];
        let errors = Form::of_drawing(own.clone()).draw(0.3, Unit::Mm).unwrap_err();
        assert_eq!(errors[0].field, "form.drawing.steps");
    }
}

fn art(own: &Formed) -> Art {
    let input = FaceInput {
        form: Key::of("form", &1),
        face: None,
        is_furnished: true,
        list: None,
        bleed: 0.0,
        back_bleed: None,
        held: &[],
        is_held: false,
        mirrored: false,
        on_liner: &[false],
        through: false,
        unit: Unit::Mm,
    };
    Faced::new(&input, own, &[]).unwrap().arts.remove(0)
}

#[test]
fn lines_that_are_only_printed_stay_on_the_blank_an_area_for_each_colour() {
    let drawn = [
        (group("cut", "#000000"), "M0 0H50V50H0Z"),
        (group("print", "#aa0000"), "M-40 25H90"),
        (group("print", "#aa0000"), "M25 10V40"),
        (group("print", "#0000aa"), "M5 5L45 45"),
    ];
    let drawn = drawn.map(|(group, path)| (group, BezPath::from_svg(path).unwrap()));
    let own = formed(of(Lines::gathered(Some(1.0), drawn, 0, 0).unwrap()));
    let art = art(&own);
    assert_eq!(art.layers.len(), 2);
    let reach = art.printed.bounds().unwrap();
    assert!(Rect::new(0.0, 0.0, 50.0, 50.0).inflate(1e-6, 1e-6).contains_rect(reach), "{reach:?}");
    for inked in &art.layers {
        let Ink::Area { path, colour, clip, .. } = &inked.ink else { panic!("an area") };
        assert_eq!(clip.as_ref().unwrap().bounding_box(), Rect::new(0.0, 0.0, 50.0, 50.0));
        // A point wide (0.35 mm): the area is its length times that, where two cross counted twice.
        let long = if colour == "#aa0000" { 130.0 + 30.0 } else { 40.0 * 2f64.sqrt() };
        assert!((path.area().abs() - 0.35 * long).abs() < 0.2, "{colour}: {}", path.area());
    }
}

#[test]
fn drawings_of_nothing_of_no_size_and_of_all_sizes_are_told_and_harm_nothing() {
    let none = Lines::gathered(None, [], 3, 1).unwrap_err();
    assert_eq!(none, LinesError::NoLines { words: 3, pictures: 1 });
    assert!(none.to_string().contains("trace it"), "{none}");
    let path = |text: &str| BezPath::from_svg(text).unwrap();
    let far = Lines::gathered(None, [(group("cut", ""), path("M0 0L1e12 0"))], 0, 0);
    assert_eq!(far.unwrap_err(), LinesError::FarOut);
    let many = (0..500).map(|at| (group(&format!("{at}"), ""), path("M0 0L9 9")));
    assert_eq!(Lines::gathered(None, many, 0, 0).unwrap_err(), LinesError::TooManyGroups);
    // A micrometre and a kilometre wide: shown as large as a hand until somebody says how large they are.
    for size in [1e-3, 1e6] {
        let square = format!("M0 0H{size}V{size}H0Z");
        let drawn = [(group("cut", "#000000"), path(&square))];
        let own = of(Lines::gathered(None, drawn, 0, 0).unwrap());
        let asked = formed(own.clone());
        assert_eq!(check(&asked, "drawing-scale").state, State::Broken);
        assert!((asked.flat.bounds.width() - 100.0).abs() < 1.5, "{}", asked.flat.bounds);
        let told = LineDrawing { scale: Some(Scale::Known { units: size, mm: 60.0 }), ..own };
        assert!((formed(told).flat.bounds.width() - 60.0).abs() < 1e-6);
    }
    // Lines that cross themselves, touch in a point, or lie in a heap.
    for odd in [
        "M0 0L50 50L50 0L0 50Z",
        "M0 0H30V30H0ZM30 30H60V60H30Z",
        "M0 0H50V50H0ZM10 10H20V20H10ZM12 12H15V15H12Z",
        "M0 0H50M0 0H50M0 0H50",
    ] {
        let own = formed(drawing(&[("cut", odd.to_owned()), ("crease", "M0 25H60".to_owned())]));
        assert!(own.flat.bounds.width() > 10.0, "{odd}");
    }
    let heap: Vec<(&str, String)> =
        (0..3000).map(|at| ("crease", format!("M{} 5l3 2", f64::from(at) * 1e-5))).collect();
    let own = formed(drawing(&heap));
    assert_eq!(check(&own, "drawing-outline").state, State::Broken);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// Bounded areas of a plane graph: edges less corners plus its separate parts (Euler). They overlap nowhere.
    #[test]
    fn areas_between_lines_are_as_many_as_euler_says(
        ends in prop::collection::vec((0.0..100.0f64, 0.0..100.0f64, 0.0..100.0f64, 0.0..100.0f64), 3..24),
    ) {
        let sides: Vec<Side<u8>> = ends
            .iter()
            .map(|(a, b, c, d)| Side { from: Point::new(*a, *b), to: Point::new(*c, *d), what: 0 })
            .collect();
        let found = faces(&sides, 1e-6);
        let key = |point: Point| ((point.x * 1e5).round() as i64, (point.y * 1e5).round() as i64);
        let mut parts: HashMap<(i64, i64), (i64, i64)> = HashMap::new();
        fn root(parts: &HashMap<(i64, i64), (i64, i64)>, mut at: (i64, i64)) -> (i64, i64) {
            while parts[&at] != at {
                at = parts[&at];
            }
            at
        }
        for edge in &found.edges {
            for end in [edge.from, edge.to] {
                parts.entry(key(end)).or_insert_with(|| key(end));
            }
            let (one, other) = (root(&parts, key(edge.from)), root(&parts, key(edge.to)));
            parts.insert(one, other);
        }
        let corners = parts.len();
        let separate: HashSet<_> = parts.keys().map(|at| root(&parts, *at)).collect();
        let wanted = found.edges.len() + separate.len() - corners;
        prop_assert_eq!(found.faces.len(), wanted);
    }

    /// A grid of creases has a panel for each of its fields, each hanging on another, whichever one stays.
    #[test]
    fn a_grid_of_creases_has_a_panel_for_each_field(
        across in 1usize..7,
        along in 1usize..6,
        stays in (0.0..1.0f64, 0.0..1.0f64),
    ) {
        prop_assume!(across * along > 1);
        let (wide, high) = (20.0 * across as f64, 15.0 * along as f64);
        let mut lines = vec![("cut", format!("M0 0H{wide}V{high}H0Z"))];
        lines.extend((1..across).map(|at| ("crease", format!("M{} 0V{high}", 20.0 * at as f64))));
        lines.extend((1..along).map(|at| ("crease", format!("M0 {}H{wide}", 15.0 * at as f64))));
        let mut own = drawing(&lines);
        own.root = Some([stays.0 * wide, stays.1 * high]);
        let own = formed(own);
        let model = own.fold.as_ref().unwrap();
        prop_assert_eq!(model.panels.len(), across * along);
        prop_assert_eq!(model.panels.iter().filter(|panel| panel.hang.is_none()).count(), 1);
        let first = &own.flat.parts[0].panels[0].outline;
        let inside = first.bounding_box().inflate(1e-6, 1e-6);
        prop_assert!(inside.contains(Point::new(stays.0 * wide, stays.1 * high)));
        // Flat, every corner lies where it was drawn.
        let pose = Pose::at(model, 0.0);
        for (at, panel) in own.flat.parts[0].panels.iter().enumerate() {
            let drawn = panel.outline.bounding_box();
            for corner in &model.panels[at].ring {
                let place = pose.point(at, *corner);
                let seen = drawn.inflate(1e-6, 1e-6);
                prop_assert!(seen.contains(Point::new(place.x, -place.y)), "{place} {drawn:?}");
                prop_assert!(place.z.abs() < 1e-9);
            }
        }
    }

    /// A polygon that is drawn round and round from any corner is one outline, its doubles counted.
    #[test]
    fn a_polygon_drawn_again_is_counted_and_not_cut_again(
        count in 3u32..30,
        radius in 10.0..100.0f64,
        again in 1usize..5,
        from in any::<prop::sample::Index>(),
    ) {
        let corner = |at: u32| {
            let angle = TAU * f64::from(at % count) / f64::from(count);
            format!("{} {}", radius * angle.cos(), radius * angle.sin())
        };
        let ring = |start: u32| {
            let rest: Vec<String> = (1..count).map(|at| corner(start + at)).collect();
            format!("M{}L{}Z", corner(start), rest.join("L"))
        };
        let mut lines = vec![("cut", ring(0))];
        let start = u32::try_from(from.index(count as usize)).unwrap();
        lines.extend((0..again).map(|_| ("cut", ring(start))));
        let own = formed(drawing(&lines));
        let facts = own.flat.drawing.as_ref().unwrap();
        prop_assert_eq!(facts.doubles, again);
        prop_assert!(own.flat.parts[0].strokes.is_empty());
        prop_assert_eq!(check(&own, "drawing-doubles").state, State::Attention);
    }
}
