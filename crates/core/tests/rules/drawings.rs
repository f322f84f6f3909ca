//! Drawings from elsewhere as forms: their scale, their order, what is cut of them, and how they fold.

use std::sync::Arc;

use aptum_core::check::{Check, State};
use aptum_core::error::Setting;
use aptum_core::fold::{Pose, prove};
use aptum_core::form::{
    Doubles, Flat, FoldSay, Form, LineDrawing, ReadLines, catalogue::CATALOGUE,
};
use aptum_core::formed::{FormInput, Formed};
use aptum_core::geometry::{BezPath, Point, Shape as _};
use aptum_core::lines::{Group, Lines, Look, PanelName, Scale, guessed};
use aptum_core::units::Unit;
use aptum_core::{LineKind, blob::BlobId, blob::Origin};
use proptest::prelude::*;

fn group(layer: &str) -> Group {
    Group { layer: layer.to_owned(), colour: "#000000".to_owned(), look: Look::Stroke }
}

/// A drawing of such lines, by layer, in units of which each is a millimetre.
pub fn drawing(lines: &[(&str, &str)]) -> LineDrawing {
    let drawn = lines.iter().map(|(layer, path)| (group(layer), BezPath::from_svg(path).unwrap()));
    let lines = Lines::gathered(Some(1.0), drawn, 0, 0).unwrap();
    let key = guessed(&lines);
    let mut own = LineDrawing::new(BlobId("0".repeat(64)), Origin::default(), key);
    own.read = ReadLines(Some(Arc::new(lines)));
    own
}

fn formed(own: LineDrawing) -> Formed {
    let form = Form::of_drawing(own);
    Formed::new(&FormInput { form: &form, held: &[], caliper: 0.3, unit: Unit::Mm }).unwrap()
}

fn check<'a>(formed: &'a Formed, id: &str) -> &'a Check {
    formed.checks.iter().find(|check| check.id == id).unwrap_or_else(|| panic!("{id}"))
}

/// An open tray of 60 × 40 × 20, its sides as single lines, some of them a little off.
const TRAY: [(&str, &str); 20] = [
    ("cut", "M20 0L80 0"),
    ("cut", "M80.05 0.02L80 20"),
    ("cut", "M100 20L80 20"),
    ("cut", "M100 20.04L100 60"),
    ("cut", "M100 60L80 60"),
    ("cut", "M80 80L80 60"),
    ("cut", "M20 80L80 80"),
    ("cut", "M20 80.03L20 60"),
    ("cut", "M0 60L20 60"),
    ("cut", "M0 20L0 60"),
    ("cut", "M0 20L20 20"),
    ("cut", "M20 20L20 0"),
    ("crease", "M20 20L80 20"),
    ("crease", "M80 20L80 60"),
    ("crease", "M80 60L20 60"),
    ("crease", "M20 60L20 20"),
    ("cut", "M50 30A10 10 0 1 1 50 50A10 10 0 1 1 50 30Z"),
    ("note", "M0 0L100 80"),
    ("cut", "M20 0L80 0"),
    ("cut", "M30 0L30 0.01"),
];

#[test]
fn a_tray_of_loose_lines_is_joined_and_folds() {
    let own = formed(drawing(&TRAY));
    let facts = own.flat.drawing.as_ref().unwrap();
    assert!(facts.is_closed, "{:?}", facts.loose);
    assert_eq!((facts.doubles, facts.crumbs, facts.closed), (1, 1, 1));
    assert!(facts.joined >= 11, "{}", facts.joined);
    let part = &own.flat.parts[0];
    assert!((part.outline.area().abs() - (60.0 * 80.0 + 40.0 * 40.0)).abs() < 5.0);
    assert_eq!(part.openings().count(), 1);
    // Five panels, four of them square to the first, meeting at four corners.
    let model = own.fold.as_ref().unwrap();
    assert_eq!(model.panels.len(), 5);
    assert_eq!(model.musts.len(), 4, "{:?}", model.musts);
    assert_eq!(own.flat.mates.len(), 8);
    assert_eq!(check(&own, "fold-edges").state, State::Fits);
    assert_eq!(check(&own, "drawing-doubles").state, State::Attention);
    let proof = prove(model);
    assert!(proof.closed.is_none(), "{:?}", proof.closed);
    // Walls stand 20 high: away from the printed side.
    let pose = Pose::at(model, model.closed());
    let base = pose.normal(0);
    let heights = model.panels[1].ring.iter().map(|at| pose.point(1, *at).z);
    let (low, high) = heights.fold((f64::MAX, f64::MIN), |(a, b), z| (a.min(z), b.max(z)));
    assert!((high - low - 20.0).abs() < 0.1, "{low} to {high}");
    assert!(base.z > 0.99 && low < -19.0, "the walls go away from the printed side: {low}");
}

#[test]
fn the_panel_that_stays_and_the_angles_are_a_matter_of_choice() {
    let mut own = drawing(&TRAY);
    own.root = Some([50.0, 10.0]);
    own.folds = vec![FoldSay { at: [50.0, 60.0], degrees: -45.0 }];
    let formed = formed(own);
    let model = formed.fold.as_ref().unwrap();
    let first = &model.panels[0];
    assert!((first.ring.iter().map(|at| at.y).fold(0.0, f64::max) - 20.0).abs() < 0.1);
    let facts = formed.flat.drawing.as_ref().unwrap();
    let told: Vec<f64> =
        facts.creases.iter().filter(|own| own.told_by == Some(0)).map(|own| own.degrees).collect();
    assert_eq!(told, [-45.0]);
    assert_eq!(facts.creases.len(), 4);
}

/// A panel is called what it is told, by a place on it, whatever the other panels are.
#[test]
fn panels_of_a_drawing_are_called_by_names() {
    let mut own = drawing(&TRAY);
    let before = formed(own.clone());
    let panels = &before.flat.drawing.as_ref().unwrap().panels;
    assert_eq!(panels.len(), 5);
    assert!(panels.iter().all(|own| own.told_by.is_none()));
    own.names = vec![PanelName { at: panels[3].at, name: "Lid".to_owned(), on: None }];
    let after = formed(own);
    let facts = after.flat.drawing.as_ref().unwrap();
    assert_eq!((facts.panels[3].name.as_str(), facts.panels[3].told_by), ("Lid", Some(0)));
    assert!(after.flat.panel("Lid").is_some());
    assert!(facts.creases.iter().any(|own| own.name == "Lid"));
    assert_eq!(facts.panels[1].name, panels[1].name);
}

#[test]
fn an_open_outline_is_said_with_its_gap_and_the_way_out_works() {
    let mut lines = TRAY.to_vec();
    lines[3] = ("cut", "M100 20.6L100 60");
    let own = drawing(&lines);
    let before = formed(own.clone());
    let open = check(&before, "drawing-outline");
    assert_eq!((open.state, open.value_text.as_str()), (State::Broken, "open"));
    // Nothing is cut that nobody asked for.
    assert_eq!(before.flat.parts[0].edge, LineKind::Guide);
    let Setting::Number(join) = open.remedies[0].changes[0].value else { panic!("a number") };
    assert!((0.6..0.7).contains(&join), "{join}");
    let after = formed(LineDrawing { join, ..own });
    assert_eq!(check(&after, "drawing-outline").state, State::Fits);
}

#[test]
fn nothing_without_a_meaning_is_cut() {
    let mut own =
        drawing(&[("cut", "M0 0H50V50H0Z"), ("7", "M10 10H20V20H10Z"), ("printed", "M30 30H40")]);
    let before = formed(own.clone());
    assert_eq!(check(&before, "drawing-key").state, State::Attention);
    assert!(before.flat.parts[0].strokes.is_empty());
    assert_eq!(before.flat.drawing.as_ref().unwrap().printed.len(), 1);
    own.key.0.insert(group("7").id(), aptum_core::lines::Meaning::Cut);
    let after = formed(own);
    assert_eq!(after.flat.parts[0].openings().count(), 1);
    assert_eq!(check(&after, "drawing-key").state, State::Fits);
}

#[test]
fn doubles_are_asked_about_and_become_passes_where_they_are_meant() {
    let lines = [("cut", "M0 0H50V50H0Z"), ("cut", "M0 0H50V50H0Z"), ("cut", "M50 0H0V50H50Z")];
    let mut own = drawing(&lines);
    own.doubles = Some(Doubles::Passes);
    let passes = formed(own.clone());
    let again: Vec<u32> = passes.flat.parts[0].strokes.iter().map(|own| own.times).collect();
    assert_eq!(again, [2], "once around, and twice more");
    own.doubles = Some(Doubles::Once);
    assert!(formed(own).flat.parts[0].strokes.is_empty());
}

#[test]
fn a_scale_that_nobody_told_is_asked_for() {
    let lines = [("cut", "M0 0H96V192H0Z")];
    let mut own = drawing(&lines);
    let mut read = Lines::clone(own.read.0.as_ref().unwrap());
    read.unit = None;
    own.read = ReadLines(Some(Arc::new(read)));
    let asked = formed(own.clone());
    assert_eq!(check(&asked, "drawing-scale").state, State::Broken);
    own.scale = Some(Scale::PerInch { count: 96.0 });
    let told = formed(own.clone());
    assert_eq!(check(&told, "drawing-scale").state, State::Fits);
    assert!((told.flat.bounds.width() - 25.4).abs() < 1e-9);
    own.scale = Some(Scale::Known { units: 192.0, mm: 100.0 });
    assert!((formed(own.clone()).flat.bounds.height() - 100.0).abs() < 1e-9);
    own.scale = Some(Scale::Each { mm: 1000.0 });
    let form = Form::of_drawing(own);
    let errors = form.draw(0.3, Unit::Mm).unwrap_err();
    assert!(errors[0].message.contains("1 mm to 5 m"), "{}", errors[0].message);
}

/// A sheet of four squares about a corner, as a file with angles says: it closes about its middle.
#[test]
fn angles_of_the_file_are_those_that_it_folds_by() {
    let lines = [
        ("boundary", "M0 0L100 0"),
        ("boundary", "M100 0L100 100"),
        ("boundary", "M100 100L0 100"),
        ("boundary", "M0 100L0 0"),
        ("valley", "M50 0L50 100"),
    ];
    let mut own = drawing(&lines);
    let mut read = Lines::clone(own.read.0.as_ref().unwrap());
    read.angles = vec![(4, 120.0)];
    own.read = ReadLines(Some(Arc::new(read)));
    let formed = formed(own);
    let model = formed.fold.as_ref().unwrap();
    // Valleys come towards the printed side: below 0 here.
    assert!((model.panels[1].fold + 120.0).abs() < 1e-9, "{}", model.panels[1].fold);
    let pose = Pose::at(model, model.closed());
    let far = model.panels[1].ring.iter().map(|at| pose.point(1, *at).z).fold(0.0, f64::max);
    assert!((far - 50.0 * 120f64.to_radians().sin()).abs() < 0.1, "{far}");
}

/// The lines of a flat as somebody else would draw them.
fn redrawn(flat: &Flat) -> LineDrawing {
    let part = &flat.parts[0];
    let outline = (group("cut"), part.outline.clone());
    let strokes = part.strokes.iter().map(|stroke| {
        let layer = match stroke.kind {
            LineKind::ReverseCrease => "reverse",
            LineKind::Perforation => "perforation",
            LineKind::Score => "score",
            LineKind::Cut => "cut",
            _ => "crease",
        };
        (group(layer), stroke.path.clone())
    });
    let lines = Lines::gathered(Some(1.0), std::iter::once(outline).chain(strokes), 0, 0).unwrap();
    let key = guessed(&lines);
    let mut own = LineDrawing::new(BlobId("0".repeat(64)), Origin::default(), key);
    own.read = ReadLines(Some(Arc::new(lines)));
    own
}

/// Every structure of the catalogue, read back as a drawing, is the same blank, and has as many panels where its creases
/// are straight.
#[test]
fn structures_drawn_elsewhere_are_the_same_flat() {
    let mut folded = 0;
    for structure in CATALOGUE {
        let flat =
            Form::new(structure.id, structure.presets[0].figures).draw(0.4, Unit::Mm).unwrap();
        let own = formed(redrawn(&flat));
        let (one, other) = (&flat.parts[0], &own.flat.parts[0]);
        let facts = own.flat.drawing.as_ref().unwrap();
        assert!(facts.is_closed, "{}", structure.id);
        let area = (one.outline.area() / other.outline.area()).abs();
        assert!((area - 1.0).abs() < 1e-6, "{}: {area}", structure.id);
        let bounds = (one.bounds.size() - other.bounds.size()).to_vec2().hypot();
        assert!(bounds < 1e-6, "{}: {bounds}", structure.id);
        let panels = one.panels.iter().filter(|own| own.strip_of.is_none()).count();
        let soft = one.panels.iter().any(|own| !own.soft.is_empty() || own.strip_of.is_some());
        if flat.folding.as_ref().is_some_and(|own| !own.steps.is_empty()) && !soft {
            let found = own.fold.as_ref().map_or(1, |model| model.panels.len());
            assert_eq!(found, panels, "{}", structure.id);
            folded += 1;
        }
    }
    assert!(folded >= 15, "{folded}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// The sides of a polygon in any order, each either way round, are joined to the polygon.
    #[test]
    fn sides_in_any_order_become_their_polygon(
        count in 3u32..40,
        radius in 5.0..200.0f64,
        order in any::<u64>(),
        slip in 0.0..0.09f64,
    ) {
        let corner = |at: u32| {
            let angle = std::f64::consts::TAU * f64::from(at % count) / f64::from(count);
            Point::new(radius * angle.cos(), radius * angle.sin())
        };
        prop_assume!(corner(0).distance(corner(1)) > 0.5);
        let mut rng = fastrand::Rng::with_seed(order);
        let mut sides: Vec<(&str, String)> = (0..count)
            .map(|at| {
                let (mut a, mut b) = (corner(at), corner(at + 1));
                if rng.bool() {
                    std::mem::swap(&mut a, &mut b);
                }
                let way = rng.f64() * std::f64::consts::TAU;
                b += aptum_core::geometry::Vec2::new(way.cos(), way.sin()) * slip / 2.0;
                ("cut", format!("M{} {}L{} {}", a.x, a.y, b.x, b.y))
            })
            .collect();
        rng.shuffle(&mut sides);
        let lines: Vec<(&str, &str)> = sides.iter().map(|(a, b)| (*a, b.as_str())).collect();
        let own = formed(LineDrawing { arcs: false, ..drawing(&lines) });
        let facts = own.flat.drawing.as_ref().unwrap();
        prop_assert!(facts.is_closed);
        let n = f64::from(count);
        let wanted = n / 2.0 * radius * radius * (std::f64::consts::TAU / n).sin();
        let area = own.flat.parts[0].outline.area().abs();
        let most = n * corner(0).distance(corner(1)) * 0.1 + 0.1;
        prop_assert!((area - wanted).abs() < most, "{area} for {wanted}");
    }
}

/// A strip 40 long with round ends of radius 10, its ends written as sides of 5°: its area is 40 · 20 + π · 10².
#[test]
fn arcs_that_were_written_as_short_sides_are_arcs_again() {
    let end = |middle: f64, from: f64| {
        let sides = (0..=36).map(move |at| (from + f64::from(at) * 5.0).to_radians());
        sides.map(move |angle| {
            format!("{:.6} {:.6}", middle + 10.0 * angle.cos(), 10.0 * angle.sin())
        })
    };
    let corners: Vec<String> = end(40.0, -90.0).chain(end(0.0, 90.0)).collect();
    let path = format!("M{}Z", corners.join("L"));
    let own = drawing(&[("cut", &path)]);
    let made = formed(own.clone());
    let facts = made.flat.drawing.as_ref().unwrap();
    assert_eq!(facts.arcs, 2);
    let part = &made.flat.parts[0];
    let curves = part.outline.elements().iter();
    assert!(
        curves.filter(|own| matches!(own, aptum_core::geometry::PathEl::CurveTo(..))).count() <= 8
    );
    let wanted = 40.0 * 20.0 + std::f64::consts::PI * 100.0;
    assert!((part.area() - wanted).abs() < 0.05, "{} for {wanted}", part.area());
    let plain = formed(LineDrawing { arcs: false, ..own });
    assert_eq!(plain.flat.drawing.as_ref().unwrap().arcs, 0);
    assert!(plain.flat.parts[0].outline.elements().len() > 70);
}

proptest! {
    /// Polygons of few sides stay what they are, and what becomes an arc stays within a hundredth of its corners.
    #[test]
    fn only_arcs_are_arcs(
        sides in 3..200u32,
        radius in 2.0..80.0f64,
        wobble in prop_oneof![Just(0.0), 0.03..0.5f64],
    ) {
        let corners: Vec<Point> = (0..sides)
            .map(|at| (f64::from(at) / f64::from(sides) * std::f64::consts::TAU, at % 2))
            .map(|(angle, odd)| (angle, radius + f64::from(odd) * wobble))
            .map(|(angle, long)| Point::new(long * angle.cos(), long * angle.sin()))
            .collect();
        let path = aptum_core::geometry::polygon(&corners);
        let (made, arcs) = aptum_core::lines::with_arcs(vec![path.clone()]);
        if sides < 31 || wobble > 0.0 {
            prop_assert_eq!((arcs, &made[0]), (0, &path));
        } else if sides > 33 {
            prop_assert!(arcs == 1, "{arcs} of {sides}");
        }
        if wobble == 0.0 {
            // The circle through the corners has an area of π r².
            let sector = 0.5 * f64::from(sides) * (std::f64::consts::TAU / f64::from(sides)).sin();
            let wanted = if arcs > 0 { std::f64::consts::PI } else { sector } * radius * radius;
            prop_assert!((made[0].area().abs() / wanted - 1.0).abs() < 1e-3);
        }
    }
}

/// A stroke of 4 around a square of 40 is cut along its middle, or around its outer edge: 44² less what four round corners
/// of radius 2 leave, (4 − π) · 2².
#[test]
fn what_is_printed_can_be_cut_along_its_middle_or_around() {
    use aptum_core::lines::Meaning;
    let group = group("frame");
    let path = BezPath::from_svg("M0 0H40V40H0Z").unwrap();
    let lines = Lines::gathered_wide(Some(1.0), [(group.clone(), path, 4.0)], 0, 0).unwrap();
    let with = |meaning: Meaning| {
        let mut own = drawing(&[("cut", "M0 0H1")]);
        own.key = std::iter::once((group.id(), meaning)).collect();
        own.read = ReadLines(Some(Arc::new(lines.clone())));
        formed(own).flat
    };
    let middle = with(Meaning::PrintedAndCut);
    assert!((middle.area() - 1600.0).abs() < 1e-6);
    let around = with(Meaning::PrintedAndCutAround);
    let wanted = 44.0 * 44.0 - (4.0 - std::f64::consts::PI) * 4.0;
    assert!((around.area() - wanted).abs() < 0.1, "{} for {wanted}", around.area());
    for flat in [&middle, &around] {
        let printed = &flat.drawing.as_ref().unwrap().printed;
        assert_eq!((printed.len(), printed[0].width), (1, 4.0));
    }
}

#[test]
fn lines_beside_the_outline_are_told_and_left_out() {
    let square = ("cut", "M0 0L60 0L60 40L0 40Z");
    let formed_with = |beside: &[(&str, &str)]| formed(drawing(&[&[square], beside].concat()));
    let plain = formed_with(&[]);
    assert!(plain.checks.iter().all(|check| check.id != "drawing-beside"));
    let own = formed_with(&[("crease", "M80 0L80 30"), ("crease", "M90 0L90 30")]);
    let found = check(&own, "drawing-beside");
    assert_eq!((found.state, found.value_text.as_str()), (State::Attention, "2"));
    assert!(found.bound_text.contains("lines beside the outline"), "{found:?}");
    // Nothing of them is worked, and the piece is as large as without.
    let size = |own: &Formed| own.flat.parts[0].bounds.size();
    assert_eq!((own.flat.parts.len(), size(&own)), (1, size(&plain)));
    let count = |own: &Formed| own.flat.parts[0].all_strokes().count();
    assert_eq!(count(&own), count(&plain));
}

#[test]
fn creases_that_end_in_nowhere_are_told_until_they_reach_something() {
    let square = ("cut", "M0 0L60 0L60 40L0 40Z");
    let formed_with = |crease: &'static str| formed(drawing(&[square, ("crease", crease)]));
    let across = formed_with("M30 0L30 40");
    assert!(across.checks.iter().all(|check| check.id != "drawing-ends"));
    assert_eq!(across.flat.parts[0].panels.len(), 2);
    for (crease, why) in [("M30 5L30 35", "both ends"), ("M30 0L30 35", "one end")] {
        let own = formed_with(crease);
        let found = check(&own, "drawing-ends");
        assert_eq!(found.state, State::Attention, "{why}");
        assert_eq!(own.flat.parts[0].panels.len(), 1, "{why}: nothing folds there");
        assert!(!found.remedies.is_empty(), "{why}");
    }
    // A second one that it reaches is enough.
    let both = formed(drawing(&[square, ("crease", "M30 0L30 20"), ("crease", "M0 20L60 20")]));
    assert!(both.checks.iter().all(|check| check.id != "drawing-ends"), "{:?}", both.checks);
    assert_eq!(both.flat.parts[0].panels.len(), 3);
}
