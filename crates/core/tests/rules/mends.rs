//! Lines mended by hand: nodes, joints, areas, what is added; and structures set free from their figures.

use std::f64::consts::PI;
use std::sync::Arc;

use aptum_core::fold::{FoldModel, Pose, prove};
use aptum_core::form::{Form, LineDrawing, ReadLines, catalogue::CATALOGUE};
use aptum_core::geometry::{BezPath, PathEl, Point, Shape, flattened_to};
use aptum_core::lines::{AddedLine, Group, LineMend, Lines, Look, Meaning};
use aptum_core::units::Unit;
use proptest::prelude::*;

fn lines(paths: &[&str]) -> Lines {
    let group = Group { layer: String::new(), colour: "#000000".to_owned(), look: Look::Stroke };
    let drawn = paths.iter().map(|path| (group.clone(), BezPath::from_svg(path).unwrap()));
    Lines::gathered(Some(1.0), drawn, 0, 0).unwrap()
}

/// The lines after steps of which each can be taken.
fn mended(paths: &[&str], mends: &[LineMend]) -> Lines {
    let made = lines(paths).mended(mends);
    for (said, mend) in made.mended.iter().zip(mends) {
        assert!(said.is_done, "{mend:?}: {}", said.words);
    }
    made
}

/// Why a step cannot be taken; it changes nothing.
fn refused(paths: &[&str], mend: LineMend) -> String {
    let (before, mut after) = (lines(paths), lines(paths).mended(&[mend]));
    let said = after.mended.remove(0);
    assert!(!said.is_done, "{}", said.words);
    assert_eq!(after, before);
    said.words.replace("{}", &said.length.map_or_else(String::new, |own| format!("{own}")))
}

fn area(lines: &Lines) -> f64 {
    lines.lines.iter().map(|line| line.path.area().abs()).sum()
}

fn nodes(lines: &Lines, line: usize) -> usize {
    lines.picked(line).unwrap().chain.nodes()
}

const SQUARE: &str = "M0 0H40V40H0Z";

/// The cubic of a quarter circle strays from it by 2.7·10⁻⁴ radii, its area by as little.
fn circle(x: f64, y: f64, radius: f64) -> LineMend {
    let at = [x, y];
    let figure = AddedLine::Ellipse { at, size: [2.0 * radius; 2] };
    LineMend::Add { figure, meaning: Meaning::Cut }
}

#[test]
fn nodes_are_moved_added_and_taken_out() {
    let moved = mended(&[SQUARE], &[LineMend::Move { line: 0, node: 2, to: [50.0, 40.0] }]);
    assert!((area(&moved) - (1600.0 + 200.0)).abs() < 1e-9);
    let more = mended(&[SQUARE], &[LineMend::AddNode { line: 0, segment: 1, share: 0.25 }]);
    assert_eq!((nodes(&more, 0), area(&more)), (5, 1600.0));
    let at = more.picked(0).unwrap().chain.node(2).unwrap();
    assert_eq!(at, Point::new(40.0, 10.0));
    let steps = [
        LineMend::AddNode { line: 0, segment: 1, share: 0.25 },
        LineMend::DropNode { line: 0, node: 2 },
        LineMend::DropNode { line: 0, node: 0 },
    ];
    let back = mended(&[SQUARE], &steps);
    assert_eq!((nodes(&back, 0), area(&back)), (3, 800.0));
    assert!(refused(&[SQUARE], LineMend::DropNode { line: 0, node: 4 }).contains("no node 5"));
    assert!(refused(&["M0 0H9"], LineMend::DropNode { line: 0, node: 0 }).contains("delete"));
}

/// De Casteljau's rule leaves a curve as it is: the same length and area with a node more.
#[test]
fn a_node_more_does_not_bend_a_curve() {
    let curve = "M0 0C10 40 50 40 60 0Z";
    let step = LineMend::AddNode { line: 0, segment: 0, share: 0.3 };
    let (before, after) = (lines(&[curve]), mended(&[curve], &[step]));
    assert!((area(&before) - area(&after)).abs() < 1e-9);
    let long = |lines: &Lines| lines.picked(0).unwrap().length;
    assert!((long(&before) - long(&after)).abs() < 1e-5);
}

#[test]
fn corners_are_made_smooth_round_and_sharp() {
    let smooth = mended(&[SQUARE], &[LineMend::Smooth { line: 0, node: 1 }]);
    let chain = smooth.picked(0).unwrap().chain;
    let (into, out) = (chain.handles(0).unwrap()[1], chain.handles(1).unwrap()[0]);
    let at = chain.node(1).unwrap();
    assert!((at - into).cross(out - at).abs() < 1e-9, "one line through the node");
    let steps = [
        LineMend::Smooth { line: 0, node: 1 },
        LineMend::Corner { line: 0, node: 1 },
        LineMend::Straighten { line: 0, segment: 0 },
        LineMend::Straighten { line: 0, segment: 1 },
    ];
    assert_eq!(mended(&[SQUARE], &steps).lines, lines(&[SQUARE]).lines);
    // A corner of 90° that is rounded loses (1 − π/4) r².
    let round = mended(&[SQUARE], &[LineMend::Round { line: 0, node: 2, radius: 8.0 }]);
    assert!((area(&round) - (1600.0 - (1.0 - PI / 4.0) * 64.0)).abs() < 0.02, "{}", area(&round));
    assert_eq!(nodes(&round, 0), 5);
    let first = mended(&[SQUARE], &[LineMend::Round { line: 0, node: 0, radius: 8.0 }]);
    assert!((area(&first) - area(&round)).abs() < 1e-9);
    let words = refused(&[SQUARE], LineMend::Round { line: 0, node: 2, radius: 50.0 });
    assert!(words.contains("40"), "{words}");
}

#[test]
fn lines_are_parted_joined_and_closed() {
    let open = mended(&[SQUARE], &[LineMend::Split { line: 0, node: 2 }]);
    assert!(!open.picked(0).unwrap().chain.is_closed);
    let two = [LineMend::Split { line: 0, node: 2 }, LineMend::Split { line: 0, node: 1 }];
    let parts = mended(&[SQUARE], &two);
    assert_eq!(parts.lines.len(), 2);
    assert_eq!([0, 1].map(|line| parts.picked(line).unwrap().length), [40.0, 120.0]);
    let mut steps = two.to_vec();
    steps.push(LineMend::Join { line: 0, with: Some(1) });
    steps.push(LineMend::Join { line: 0, with: None });
    let back = mended(&[SQUARE], &steps);
    assert!((area(&back) - 1600.0).abs() < 1e-9);
    assert!(back.picked(1).is_none(), "it became part of the other");
    let words = refused(&[SQUARE], LineMend::Join { line: 0, with: None });
    assert!(words.contains("closed"), "{words}");
}

#[test]
fn lines_are_trimmed_to_others_and_lengthened_to_them() {
    let cross = ["M-10 20H50", SQUARE];
    let trim = |x: f64| LineMend::Trim { line: 0, at: [x, 20.0], to: 1 };
    let inner = mended(&cross, &[trim(-5.0), trim(45.0)]);
    assert!((inner.picked(0).unwrap().length - 40.0).abs() < 1e-6);
    let outer = mended(&cross, &[trim(20.0)]);
    let long = |line| outer.picked(line).unwrap().length;
    assert!((long(0) - 10.0).abs() < 1e-6 && (long(2) - 10.0).abs() < 1e-6);
    // A closed line loses what lies beyond.
    let half =
        mended(&[SQUARE, "M-10 20H50"], &[LineMend::Trim { line: 0, at: [20.0, 0.0], to: 1 }]);
    assert!((half.picked(0).unwrap().length - 80.0).abs() < 1e-6);
    let short =
        mended(&["M10 10H30", SQUARE], &[LineMend::Trim { line: 0, at: [30.0, 10.0], to: 1 }]);
    assert!((short.picked(0).unwrap().length - 30.0).abs() < 1e-6);
    let words =
        refused(&["M50 10H60", SQUARE], LineMend::Trim { line: 0, at: [60.0, 10.0], to: 1 });
    assert!(words.contains("neither"), "{words}");
}

/// Two circles of radius 20 whose middles are 20 apart have 2r²·acos(d/2r) − d/2·√(4r² − d²) in common (the lens of any
/// handbook of geometry).
#[test]
fn areas_are_united_taken_away_and_met() {
    let both = [circle(50.0, 50.0, 20.0), circle(70.0, 50.0, 20.0)];
    let whole = PI * 400.0;
    let lens = 2.0 * 400.0 * 0.5f64.acos() - 10.0 * (1600.0f64 - 400.0).sqrt();
    let made = |act: LineMend| {
        let mut steps = both.to_vec();
        steps.extend([LineMend::Delete { lines: vec![0] }, act]);
        mended(&["M0 0H1"], &steps)
    };
    let (lines, with) = (vec![1], vec![2]);
    let united = made(LineMend::Unite { lines: lines.clone(), with: with.clone() });
    let less = made(LineMend::Subtract { lines: lines.clone(), with: with.clone() });
    let common = made(LineMend::Intersect { lines, with });
    for (made, wanted) in [(united, 2.0 * whole - lens), (less, whole - lens), (common, lens)] {
        assert!((area(&made) - wanted).abs() < 0.5, "{} for {wanted}", area(&made));
        assert!(nodes(&made, 1) < 16, "curves stay curves: {}", nodes(&made, 1));
    }
    let apart = LineMend::Intersect { lines: vec![0], with: vec![1] };
    assert!(refused(&[SQUARE, "M60 0H70V10H60Z"], apart).contains("nothing"));
    let open = LineMend::Unite { lines: vec![0], with: vec![1] };
    assert!(refused(&[SQUARE, "M0 0H9"], open).contains("open"));
}

/// A stroke covers its length times its width, and a circle for its two round ends.
#[test]
fn strokes_become_outlines() {
    let outline = mended(&["M0 0H50"], &[LineMend::Outline { lines: vec![0], width: 6.0 }]);
    assert!((area(&outline) - (300.0 + PI * 9.0)).abs() < 0.2, "{}", area(&outline));
    // Around a square there are two outlines, one in the other.
    let ring = mended(&[SQUARE], &[LineMend::Outline { lines: vec![0], width: 4.0 }]);
    assert_eq!(ring.lines.len(), 2);
}

#[test]
fn simplified_lines_stay_near_and_have_fewer_nodes() {
    let ring: Vec<String> = (0..240)
        .map(|at| f64::from(at) * PI / 120.0)
        .map(|angle| format!("{:.4} {:.4}", 50.0 + 30.0 * angle.cos(), 50.0 + 30.0 * angle.sin()))
        .collect();
    let path = format!("M{}Z", ring.join("L"));
    let made = mended(&[&path], &[LineMend::Simplify { lines: vec![0], within: 0.05 }]);
    assert!(nodes(&made, 0) <= 24, "{}", nodes(&made, 0));
    for point in flattened_to(&made.lines[0].path, 0.001).into_iter().flatten() {
        let off = (point.distance(Point::new(50.0, 50.0)) - 30.0).abs();
        assert!(off < 0.06, "{off}");
    }
    assert!(made.mended[0].words.starts_with("240 nodes are"), "{}", made.mended[0].words);
    assert!(made.mended[0].length.unwrap() <= 0.05, "how far it strays is told");
}

#[test]
fn what_lies_inside_is_dropped() {
    let row = lines(&[SQUARE]).groups[0].id();
    let inner = ["M5 5H10V10H5Z", "M30 30H60V60H30Z", "M8 8L9 9"];
    let own = mended(&[SQUARE, inner[0], inner[1], inner[2]], &[LineMend::Silhouette { row }]);
    // Two squares of 40 and 30 that share one of 10.
    assert!((area(&own) - (1600.0 + 900.0 - 100.0)).abs() < 0.01, "{}", area(&own));
    assert!(own.picked(1).is_none() && own.picked(3).is_some(), "an open line stays");
    assert!(refused(&[SQUARE], LineMend::Silhouette { row: "none".to_owned() }).contains("row"));
}

/// Lengths and areas from any handbook of geometry.
#[test]
fn lines_are_added_by_figures() {
    let add = |figure| LineMend::Add { figure, meaning: Meaning::Crease };
    let steps = [
        add(AddedLine::Line { from: [0.0, 0.0], to: [30.0, 40.0] }),
        add(AddedLine::Rectangle { at: [5.0, 5.0], size: [20.0, 10.0] }),
        add(AddedLine::Ellipse { at: [0.0, 0.0], size: [20.0, 12.0] }),
        add(AddedLine::Arc { at: [0.0, 0.0], radius: 10.0, from: 0.0, through: 90.0 }),
    ];
    let made = mended(&["M0 0H1"], &steps);
    let picked = |line| made.picked(line).unwrap();
    assert!((picked(1).length - 50.0).abs() < 1e-9);
    assert!((made.lines[2].path.area().abs() - 200.0).abs() < 1e-9);
    assert!((made.lines[3].path.area().abs() - PI * 60.0).abs() < 0.1);
    assert!((picked(4).length - 5.0 * PI).abs() < 1e-3);
    let arc = picked(4).chain;
    let end = arc.node(arc.segments.len()).unwrap();
    assert!(end.distance(Point::new(0.0, 10.0)) < 1e-6, "with the clock");
    assert!(made.lines[1..].iter().all(|line| line.told == Some(Meaning::Crease)));
    let none = add(AddedLine::Rectangle { at: [0.0, 0.0], size: [0.0, 5.0] });
    assert!(refused(&["M0 0H1"], none).contains("above 0"));
    let far = add(AddedLine::Line { from: [0.0, f64::NAN], to: [1.0, 1.0] });
    assert!(refused(&["M0 0H1"], far).contains("nowhere"));
}

#[test]
fn a_press_finds_the_line_and_the_place_on_it() {
    let own = lines(&["M0 0H40", "M0 5H40"]);
    let found = own.nearest(Point::new(10.0, 3.0), 4.0).unwrap();
    assert_eq!((found.line, found.near), (1, Some((0, 0.25))));
    assert!(own.nearest(Point::new(10.0, 30.0), 4.0).is_none());
}

#[test]
fn a_step_of_a_drawing_reaches_its_blank() {
    let mut own = LineDrawing::new(
        aptum_core::blob::BlobId("0".repeat(64)),
        aptum_core::blob::Origin::default(),
        aptum_core::lines::LineKey::default(),
    );
    let read = lines(&[SQUARE]).mended(&[
        LineMend::Meaning { lines: vec![0], meaning: Meaning::Cut },
        circle(20.0, 20.0, 5.0),
    ]);
    own.read = ReadLines(Some(Arc::new(read)));
    let flat = Form::of_drawing(own).draw(0.3, Unit::Mm).unwrap();
    assert!((flat.area() - (1600.0 - 25.0 * PI)).abs() < 0.05, "{}", flat.area());
}

/// Every structure set free is the same blank, of as many panels of the same names, and closes the same way.
#[test]
fn a_structure_set_free_is_the_same_and_folds_the_same() {
    let (mut folded, mut curved) = (0, 0);
    for structure in CATALOGUE.iter() {
        let flat = Form::new(structure.id, &[]).draw(0.3, Unit::Mm).unwrap();
        let (lines, mut own) = LineDrawing::freed(&flat, structure.name).unwrap();
        own.lines = aptum_core::blob::BlobId("0".repeat(64));
        own.read = ReadLines(Some(Arc::new(lines)));
        let free = Form::of_drawing(own).draw(0.3, Unit::Mm).unwrap();
        let (before, after) = (flat.area(), free.area());
        assert!((before - after).abs() < 1e-4 * before, "{}: {before} and {after}", structure.id);
        // Several blanks are folded each by itself.
        let is_one = flat.parts.len() == 1 && flat.parts[0].joined.is_none();
        let (Some(model), true) = (FoldModel::new(&flat, 0.3), is_one) else { continue };
        let Some(same) = FoldModel::new(&free, 0.3) else { continue };
        folded += 1;
        let told = |model: &FoldModel| {
            model.steps.iter().map(|step| step.text.clone()).collect::<Vec<_>>()
        };
        assert_eq!(told(&same), told(&model), "{}", structure.id);
        let proof = prove(&same);
        assert!(proof.on_the_way.is_none(), "{}: {:?}", structure.id, proof.on_the_way);
        if model.panels.iter().any(|own| own.strip_of.is_some()) {
            curved += 1;
            assert_bows_the_same(&same, &model);
            continue;
        }
        let names = |model: &FoldModel| {
            let mut names: Vec<String> = model.panels.iter().map(|own| own.name.clone()).collect();
            names.sort();
            names
        };
        assert_eq!(names(&same), names(&model), "{}", structure.id);
        let hung = |model: &FoldModel| {
            let hung = model.panels.iter().filter_map(|own| {
                Some((own.name.clone(), model.panels[own.hang?.0].name.clone(), own.fold.round()))
            });
            let mut hung: Vec<_> =
                hung.map(|(name, on, fold)| (name, on, format!("{fold}"))).collect();
            hung.sort();
            hung
        };
        assert_eq!(hung(&same), hung(&model), "{}", structure.id);
    }
    assert!(folded >= 12 && curved >= 1, "{folded}, {curved}");
}

/// Curved panels are ruled as they were: as many strips, each whole by its name, and every strip closed where it was.
fn assert_bows_the_same(same: &FoldModel, model: &FoldModel) {
    assert_eq!(same.panels.len(), model.panels.len());
    let faces = |model: &FoldModel, name: &str| {
        model.panels.iter().filter(|own| own.shown_name() == name).count()
    };
    for name in ["Front", "Back"] {
        assert_eq!(faces(same, name), faces(model, name), "{name}");
    }
    let middles = |model: &FoldModel| {
        let pose = Pose::at(model, model.closed());
        // Where the area's middle lies, however many corners a curve has.
        let middle = |at: usize| {
            let ring = &model.panels[at].ring;
            let first = ring[0];
            let (mut sum, mut area) = (aptum_core::geometry::Vec2::ZERO, 0.0);
            for pair in ring.windows(2) {
                let (a, b) = (pair[0] - first, pair[1] - first);
                area += a.cross(b);
                sum += (a + b) * a.cross(b);
            }
            pose.point(at, first + sum / (3.0 * area)).coords
        };
        (0..model.panels.len()).map(middle).collect::<Vec<_>>()
    };
    // Whichever way the closed piece lies: how far each panel's middle is from all the others.
    let spread = |model: &FoldModel| {
        let all = middles(model);
        let far =
            |one: &nalgebra::Vector3<f64>| all.iter().map(|own| (own - one).norm()).sum::<f64>();
        let mut spread: Vec<f64> = all.iter().map(far).collect();
        spread.sort_by(f64::total_cmp);
        spread
    };
    for (one, other) in spread(same).iter().zip(spread(model)) {
        assert!((one - other).abs() < 0.005 * other, "{one} for {other}");
    }
}

fn any_mend() -> impl Strategy<Value = LineMend> {
    let line = 0..6usize;
    let node = 0..6usize;
    let place = || prop::array::uniform2(-20.0..80.0f64);
    prop_oneof![
        (line.clone(), node.clone(), place()).prop_map(|(line, node, to)| LineMend::Move {
            line,
            node,
            to
        }),
        (line.clone(), node.clone(), any::<bool>(), place())
            .prop_map(|(line, node, leaves, to)| LineMend::Bend { line, node, leaves, to }),
        (line.clone(), node.clone(), -0.2..1.2f64)
            .prop_map(|(line, segment, share)| LineMend::AddNode { line, segment, share }),
        (line.clone(), node.clone()).prop_map(|(line, node)| LineMend::DropNode { line, node }),
        (line.clone(), node.clone()).prop_map(|(line, node)| LineMend::Smooth { line, node }),
        (line.clone(), node.clone()).prop_map(|(line, node)| LineMend::Corner { line, node }),
        (line.clone(), node.clone()).prop_map(|(line, node)| LineMend::Split { line, node }),
        (line.clone(), prop::option::of(line.clone()))
            .prop_map(|(line, with)| LineMend::Join { line, with }),
        (line.clone(), node.clone(), -1.0..30.0f64)
            .prop_map(|(line, node, radius)| LineMend::Round { line, node, radius }),
        (line.clone(), place(), line.clone()).prop_map(|(line, at, to)| LineMend::Trim {
            line,
            at,
            to
        }),
        (line.clone(), 0.01..2.0f64)
            .prop_map(|(line, within)| LineMend::Simplify { lines: vec![line], within }),
        (line.clone(), 0.1..9.0f64)
            .prop_map(|(line, width)| LineMend::Outline { lines: vec![line], width }),
        (line.clone(), line.clone())
            .prop_map(|(one, two)| LineMend::Unite { lines: vec![one], with: vec![two] }),
        (line.clone(), line.clone())
            .prop_map(|(one, two)| LineMend::Subtract { lines: vec![one], with: vec![two] }),
        (line.clone(), line)
            .prop_map(|(one, two)| LineMend::Intersect { lines: vec![one], with: vec![two] }),
        (place(), -1.0..30.0f64).prop_map(|(at, side)| LineMend::Add {
            figure: AddedLine::Rectangle { at, size: [side, 10.0] },
            meaning: Meaning::Cut
        }),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(160))]

    /// Whatever is done in whatever order: every line is in one go, of figures that can be worked with, and a step that
    /// cannot be taken leaves all as it was.
    #[test]
    fn no_steps_break_a_drawing(mends in prop::collection::vec(any_mend(), 1..12)) {
        let start = lines(&[SQUARE, "M10 10C20 30 40 30 50 10", "M0 60L20 70L40 60", "M30 30H70V70H30Z"]);
        let mut before = start.clone();
        for (at, _) in mends.iter().enumerate() {
            let after = start.mended(&mends[..=at]);
            prop_assert!(after.lines.iter().any(|own| !own.path.elements().is_empty()) || after.lines.is_empty() || after.checked().is_ok());
            for line in &after.lines {
                let moves = line.path.elements().iter().filter(|own| matches!(own, PathEl::MoveTo(_)));
                prop_assert!(moves.count() <= 1);
                prop_assert!(line.path.is_finite(), "{}", line.path.to_svg());
            }
            if !after.mended[at].is_done {
                prop_assert_eq!(&after.lines, &before.lines);
            }
            before = after;
        }
    }
}
