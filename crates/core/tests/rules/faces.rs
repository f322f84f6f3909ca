//! What is printed on a piece: words, shapes and patterns, where they lie and what is said of them.

use aptum_core::blob::{BlobId, Blobs, NoBlobs, Origin};
use aptum_core::check::{Check, State};
use aptum_core::face::{
    Beyond, Face, Grid, Ink, Layer, LayerKind, Lying, Outlined, POINT, Pattern, PlacedPicture,
    Shape, ShapeSize, Stripes, Text, TextSize, Up, Uprights,
};
use aptum_core::fold::{FoldModel, Pose, stood};
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::{Flat, Form, Role};
use aptum_core::geometry::{Affine, BezPath, Point, Region, Shape as _};
use aptum_core::job::{JobPiece, with_changes, with_field};
use aptum_core::lettering::{Align, FontBytes, OwnTypeface, SHELF};
use aptum_core::piece_checks::missing_blobs;
use aptum_core::units::Unit;
use aptum_core::{Job, Prepared, Workshop, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

/// A job of one form with these layers.
fn job(form: Form, layers: Vec<Layer>) -> Job {
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let piece = JobPiece::new("p1", form, &job.pieces[0].stock.0);
    let face = Some(Face::new(1.0, layers));
    Job { pieces: vec![JobPiece { face, ..piece }], ..job }
}

fn prepared(form: Form, layers: Vec<Layer>) -> Prepared {
    prepare(&job(form, layers), &workshop()).unwrap()
}

fn tag() -> Form {
    Form::new("tag", &[("width", 60.0), ("height", 100.0), ("hole", 0.0)])
}

fn on(panel: &str) -> Lying {
    Lying { panels: vec![panel.to_owned()], ..Lying::default() }
}

fn text(words: &str, size: TextSize) -> Text {
    Text { size, lying: on("Tag"), ..Text::new(words) }
}

/// The outlines of the only area that the layers print.
fn inked(layers: Vec<Layer>) -> BezPath {
    let prepared = prepared(tag(), layers);
    let inks: Vec<_> = prepared.first().arts[0].all().collect();
    assert_eq!(inks.len(), 1);
    match &inks[0].ink {
        Ink::Area { path, .. } => path.clone(),
        other => panic!("{other:?}"),
    }
}

fn check<'a>(checks: &'a [Check], id: &str) -> Option<&'a Check> {
    checks.iter().find(|check| check.id == id)
}

/// 1 pt = 1/72 in (ISO 32000-1, 8.3.2.3); capitals are as high as is asked for in every typeface.
#[test]
fn words_have_the_size_that_is_asked_for() {
    assert!((72.0 * POINT - 25.4).abs() < 1e-12);
    for typeface in SHELF {
        let set =
            |size| Text { typeface: typeface.id.to_owned(), ..text("H", size) }.set([60.0, 100.0]);
        let capital = set(TextSize::Capitals(10.0)).path.bounding_box().height();
        // Hands and scripts have capitals that differ among each other.
        let allowed =
            if matches!(typeface.id, "hand" | "tall-hand" | "script") { 1.3 } else { 0.15 };
        assert!((capital - 10.0).abs() < allowed, "{}: {capital}", typeface.id);
        let (points, mm) = (set(TextSize::Points(72.0)), set(TextSize::Em(25.4)));
        assert!((points.em - 25.4).abs() < 1e-12);
        assert_eq!(points.path, mm.path, "{}", typeface.id);
    }
}

/// Against HarfBuzz (tools/reference/shaping.py): kerning, ligatures, from right to left, other scripts.
#[test]
fn words_are_as_long_as_the_reference_shaper_has_them() {
    let table: serde_json::Value =
        serde_json::from_str(include_str!("../reference/shaping.json")).unwrap();
    let rows = table["rows"].as_array().unwrap();
    assert!(rows.len() > 20);
    for row in rows {
        let words = row["words"].as_str().unwrap();
        let typeface = row["typeface"].as_str().unwrap().to_owned();
        let set = Text { typeface, ..text(words, TextSize::Em(1.0)) }.set([60.0, 100.0]);
        let advance = row["advance"].as_f64().unwrap();
        assert!((set.size[0] - advance).abs() < 2e-3, "{row}: {}", set.size[0]);
    }
}

#[test]
fn lines_stand_to_each_other_as_chosen_and_keep_their_distance() {
    let set = |align| Text { align, ..text("II\nIIIIII", TextSize::Em(10.0)) }.set([60.0, 100.0]);
    let lines = |align| {
        let path = set(align).path;
        let middle = path.bounding_box().center().y;
        let part = |above: bool| {
            let mut own = BezPath::new();
            let mut upper = false;
            for element in path.elements() {
                if let aptum_core::geometry::PathEl::MoveTo(to) = element {
                    upper = (to.y < middle) == above;
                }
                if upper {
                    own.push(*element);
                }
            }
            own.bounding_box()
        };
        (part(true), part(false))
    };
    let (short, long) = lines(Align::Left);
    assert!((short.x0 - long.x0).abs() < 0.05 && short.x1 < long.x1 - 1.0);
    let (short, long) = lines(Align::Right);
    assert!((short.x1 - long.x1).abs() < 0.05);
    let (short, long) = lines(Align::Centre);
    assert!((short.center().x - long.center().x).abs() < 0.05);
    assert!((long.y1 - short.y1 - 12.0).abs() < 0.01, "1.2 ems of 10 mm");
}

#[test]
fn words_round_a_circle_stand_on_it() {
    for radius in [20.0, -20.0] {
        let round = Text { round: Some(radius), ..text("HHHHHHHHHH", TextSize::Em(5.0)) };
        let path = round.set([60.0, 100.0]).path;
        let far: Vec<f64> = path
            .elements()
            .iter()
            .filter_map(|el| Some(el.end_point()?.to_vec2().hypot()))
            .collect();
        let (least, most) =
            far.iter().fold((f64::MAX, 0.0f64), |(low, high), at| (low.min(*at), high.max(*at)));
        let on = if radius > 0.0 { least } else { most };
        // The feet of a letter are straight, the circle is not.
        assert!((on - 20.0).abs() < 0.15, "{radius}: {least} to {most}");
        let capital = most - least;
        assert!((3.0..4.2).contains(&capital), "{capital}");
        let bounds = path.bounding_box();
        assert!((bounds.center().x).abs() < 0.2);
        assert_eq!(bounds.center().y < 0.0, radius > 0.0, "on top, or at the bottom");
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    #[test]
    fn words_that_fill_their_area_lie_in_it(
        words in "[A-Za-z]{1,9}( [a-z]{1,9}){0,6}",
        width in 8.0..200.0f64, height in 6.0..200.0f64,
        wrapped: bool, which in 0..SHELF.len(),
    ) {
        let typeface = SHELF[which].id.to_owned();
        let set = Text { wrapped, typeface, ..text(&words, TextSize::Area) }.set([width, height]);
        prop_assume!(set.em > 0.2);
        prop_assert!(set.size[0] <= width + 1e-6 && set.size[1] <= height + 1e-6, "{:?}", set.size);
        // One of the sides is used up.
        let used = (set.size[0] / width).max(set.size[1] / height);
        prop_assert!(used > 0.5, "{used}");
    }

    #[test]
    fn a_pattern_covers_its_area_evenly_and_ends_where_it_ends(
        across in 3.0..20.0f64, down in 3.0..20.0f64, share in 0.2..0.9f64,
        x in -30.0..30.0f64, turn in 0.0..360.0f64, staggered: bool, turning: bool,
    ) {
        let motif = [across * share, down * share];
        let pattern = Pattern {
            lying: Lying { x, turn, ..on("Tag") },
            figure: Outlined::Rectangle, motif, grid: Grid::Pitch([across, down]), staggered, turning,
            ..Pattern::dots("#336633")
        };
        let path = inked(vec![Layer::new("l1", LayerKind::Pattern(pattern))]);
        let bounds = path.bounding_box();
        // A millimetre of bleed around a tag of 60 by 100.
        prop_assert!(bounds.x0 > -1.001 && bounds.y0 > -1.001);
        prop_assert!(bounds.x1 < 61.001 && bounds.y1 < 101.001, "{bounds:?}");
        let covered: f64 =
            aptum_core::geometry::contours(&path).iter().map(|motif| motif.area().abs()).sum();
        let expected = 62.0 * 102.0 * share * share;
        // What is cut off at one edge is made up for at the other, but for a row and a column.
        let rim = 2.0 * (62.0 * down + 102.0 * across) * share * share;
        prop_assert!((covered - expected).abs() < rim, "{covered} of {expected}");
    }
}

#[test]
fn columns_and_rows_are_as_many_as_are_asked_for() {
    for (columns, rows) in [(1, 1), (3, 5), (4, 6)] {
        let pattern = Pattern {
            lying: on("Tag"),
            motif: [4.0, 4.0],
            grid: Grid::Count([columns, rows]),
            staggered: false,
            ..Pattern::dots("#336633")
        };
        let path = inked(vec![Layer::new("l1", LayerKind::Pattern(pattern))]);
        let whole = aptum_core::geometry::contours(&path);
        let dot = std::f64::consts::PI * 4.0;
        let dots = whole.iter().filter(|dot_path| (dot_path.area().abs() - dot).abs() < 0.05);
        assert_eq!(dots.count(), (columns * rows) as usize, "{columns} × {rows}");
    }
}

#[test]
fn a_shape_follows_its_panels_edge_at_a_distance() {
    for (inset, width, height) in [(3.0, 54.0, 94.0), (0.0, 60.0, 100.0), (-2.0, 64.0, 104.0)] {
        let shape =
            Shape { lying: on("Tag"), size: ShapeSize::Inset(inset), ..Shape::filled("#336633") };
        let bounds = inked(vec![Layer::new("l1", LayerKind::Shape(shape))]).bounding_box();
        assert!((bounds.width() - width).abs() < 1e-6 && (bounds.height() - height).abs() < 1e-6);
    }
}

#[test]
fn what_is_hidden_or_only_shown_is_not_printed() {
    let layer = || Layer::colour("l1", "#336633");
    let printed = |layer: Layer| {
        let prepared = prepared(tag(), vec![layer]);
        let art = &prepared.first().arts[0];
        (art.layers.len(), art.all().count(), art.printed.area() > 0.0)
    };
    assert_eq!(printed(layer()), (1, 1, true));
    assert_eq!(printed(Layer { hidden: true, ..layer() }), (0, 0, false));
    assert_eq!(printed(Layer { only_shown: true, ..layer() }), (1, 0, false));
    // The sheet's code names what is printed.
    let code = |layer: Layer| prepared(tag(), vec![layer]).code.clone();
    assert_ne!(code(layer()), code(Layer { opacity: 0.5, ..layer() }));
    assert_eq!(
        code(Layer { hidden: true, ..layer() }),
        code(Layer { only_shown: true, ..layer() })
    );
}

fn flat(form: &Form) -> (Flat, Uprights) {
    let flat = form.draw(0.3, Unit::Mm).unwrap();
    let uprights = Uprights::of_model(FoldModel::new(&flat, 0.3).as_ref());
    (flat, uprights)
}

/// A top panel that hangs on the back, and a tent card's back, are upside down in the flat (a fact of the trade); what
/// lies flat is read as it is drawn.
#[test]
fn what_hangs_on_the_back_is_read_upside_down() {
    let turn = |structure: &str, panel: &str| flat(&Form::new(structure, &[])).1.of(panel);
    let box_of = [("length", 70.0), ("width", 40.0), ("height", 100.0)];
    let carton = flat(&Form::new("straight-tuck", &box_of)).1;
    assert_eq!((carton.of("Front"), carton.of("Back"), carton.of("Top")), (0.0, 0.0, 180.0));
    assert_eq!((turn("tent-card", "Front"), turn("tent-card", "Back")), (0.0, 180.0));
    assert_eq!(turn("tag", "Tag"), 0.0);
}

/// On every structure's standing walls, what is drawn upright and turned as is said points up in space: the foot of a
/// letter lies below its head.
#[test]
fn letters_stand_on_their_feet_on_every_wall() {
    let mut walls = 0;
    for structure in CATALOGUE {
        let (flat, uprights) = flat(&Form::new(structure.id, structure.presets[0].figures));
        let Some(model) = FoldModel::new(&flat, 0.3).filter(|model| !model.is_flat()) else {
            continue;
        };
        if model.stand == aptum_core::form::design::Stand::Lying {
            continue;
        }
        let pose = Pose::at(&model, model.closed());
        for (at, panel) in
            model.panels.iter().enumerate().filter(|(_, panel)| panel.role == Role::Face)
        {
            let space = |point: Point| {
                let local = panel.frame.inverse() * point;
                stood(&model, &pose, at, [local.x, local.y, 0.0])
            };
            let (x, y) = (space(Point::new(1.0, 0.0)), space(Point::new(0.0, 1.0)));
            let o = space(Point::ZERO);
            // How steep the panel stands: the most that a step in it rises.
            let steep = (x[1] - o[1]).hypot(y[1] - o[1]);
            if steep < 0.75 {
                continue;
            }
            walls += 1;
            let upright = Affine::rotate(uprights.of(&panel.name).to_radians());
            let head = space(upright * Point::new(0.0, -1.0));
            assert!(head[1] - o[1] > 0.99 * steep, "{} {}", structure.id, panel.name);
        }
    }
    assert!(walls > 100, "{walls}");
}

#[test]
fn a_layer_as_read_is_turned_for_its_reader() {
    let carton =
        Form::new("straight-tuck", &[("length", 70.0), ("width", 40.0), ("height", 100.0)]);
    let place = |up: Up| {
        let words = Text { lying: Lying { up, ..on("Top") }, ..text("L", TextSize::Em(20.0)) };
        let prepared = prepared(carton.clone(), vec![Layer::new("l1", LayerKind::Text(words))]);
        let Ink::Area { path, .. } = &prepared.first().arts[0].layers[0].ink else { panic!() };
        let panel = prepared.first().flat.panel("Top").unwrap().bounding_box();
        (path.clone(), panel.center())
    };
    let ((read, middle), (drawn, _)) = (place(Up::AsRead), place(Up::AsDrawn));
    let half = Affine::rotate_about(std::f64::consts::PI, middle);
    let apart = Region::inside(&read).minus(&Region::inside(&(half * drawn))).area();
    assert!(apart < 0.01, "{apart}");
}

#[test]
fn small_type_missing_letters_and_what_is_near_the_edge_are_told_and_mended() {
    let words =
        Text { lying: Lying { x: 22.0, ..on("Tag") }, ..text("Käse", TextSize::Points(4.0)) };
    let hebrew = Text { typeface: "stencil".into(), ..text("שלום", TextSize::Points(20.0)) };
    let layers =
        vec![Layer::new("l1", LayerKind::Text(words)), Layer::new("l2", LayerKind::Text(hebrew))];
    let mut job = job(tag(), layers);
    let checks = |job: &Job| prepare(job, &workshop()).unwrap().checks;
    let before = checks(&job);
    assert_eq!(check(&before, "letters-l2").unwrap().state, State::Broken);
    assert!(check(&before, "letters-l1").is_none());
    for id in ["type-l1", "letters-l2"] {
        let found = check(&before, id).unwrap();
        assert_ne!(found.state, State::Fits, "{id}");
        job = with_changes(&job, &found.remedies[0].changes).unwrap();
    }
    let after = checks(&job);
    assert_eq!(check(&after, "type-l1").unwrap().state, State::Fits);
    assert!(check(&after, "letters-l2").is_none());
    // Words of 5 pt are about 4 mm long: from 22 mm right of the middle they reach past the margin of 3 mm.
    let near = with_field(&job, "pieces.p1.face.layers.l1.x", 26.5.into()).unwrap();
    let found = check(&checks(&near), "safe-l1").unwrap().clone();
    assert_eq!(found.state, State::Attention);
    let (value, bound) = found.gauge.map(|gauge| (gauge.value, gauge.bound)).unwrap();
    assert!(bound == 3.0 && value < 3.0, "{value}");
    let mended = with_changes(&near, &found.remedies[0].changes).unwrap();
    let after = checks(&mended);
    assert_eq!(
        check(&after, "safe-l1").unwrap().state,
        State::Fits,
        "{:?}",
        check(&after, "safe-l1")
    );
}

#[test]
fn lines_for_which_a_circle_has_no_room_are_told() {
    let words = "one\ntwo\nthree\nfour\nfive\nsix";
    for radius in [2.0, 5.0, -2.0, -10.0, 8.4, 21.6, 45.0] {
        let round = Text { round: Some(radius), ..text(words, TextSize::Em(6.0)) };
        let set = round.set([60.0, 100.0]);
        assert!(set.path.elements().iter().all(|el| {
            el.end_point().is_none_or(|end| end.x.is_finite() && end.to_vec2().hypot() < 80.0)
        }));
        // The sixth line stands 36 mm further in, and a circle has half an em.
        let innermost = if radius > 0.0 { radius - 36.0 } else { -radius };
        assert_eq!(set.is_cramped, innermost < 3.0, "{radius}");
        let told = prepared(tag(), vec![Layer::new("l1", LayerKind::Text(round))]);
        assert_eq!(check(&told.checks, "circle-l1").is_some(), set.is_cramped);
    }
}

#[test]
fn a_line_is_drawn_though_it_has_nothing_to_fill() {
    let size = ShapeSize::Sides([30.0, 10.0]);
    let line = Shape {
        figure: Outlined::Line,
        size,
        thickness: 0.8,
        lying: on("Tag"),
        ..Shape::filled("#336633")
    };
    let bounds = inked(vec![Layer::new("l1", LayerKind::Shape(line))]).bounding_box();
    assert!((bounds.width() - 30.0).abs() < 1e-6 && (bounds.height() - 0.8).abs() < 1e-6);
}

/// What lies in a window is cut out.
#[test]
fn words_in_a_window_are_past_the_card() {
    let carton =
        Form::new("straight-tuck", &[("length", 70.0), ("width", 40.0), ("height", 100.0)]);
    let windowed = |is_windowed: bool| {
        let words = Text { lying: on("Front"), ..text("Bean", TextSize::Points(12.0)) };
        let mut carton = carton.clone();
        if is_windowed {
            let window = serde_json::json!({
                "kind": "window-rectangle", "panel": "Front", "across": 0, "along": 0, "width": 40, "height": 40
            });
            carton.chosen_mut().unwrap().add_ons = vec![serde_json::from_value(window).unwrap()];
        }
        let told = prepared(carton, vec![Layer::new("l1", LayerKind::Text(words))]);
        check(&told.checks, "safe-l1").unwrap().state
    };
    assert_eq!((windowed(false), windowed(true)), (State::Fits, State::Attention));
}

#[test]
fn a_layer_that_cannot_be_is_refused_by_its_field() {
    let refused = |kind: LayerKind| {
        let errors = prepare(&job(tag(), vec![Layer::new("l1", kind)]), &workshop()).unwrap_err();
        errors[0].field.replace("pieces.p1.face.layers.l1.", "")
    };
    let words = |words: &str| Text::new(words);
    assert_eq!(refused(LayerKind::Text(words(&"x".repeat(2001)))), "words");
    assert_eq!(refused(LayerKind::Text(words("a\u{7}b"))), "words");
    let unknown = Text { typeface: "none".into(), ..words("a") };
    assert_eq!(refused(LayerKind::Text(unknown)), "typeface");
    let huge = Text { size: TextSize::Points(f64::INFINITY), ..words("a") };
    assert_eq!(refused(LayerKind::Text(huge)), "size.value");
    let thin = Shape { thickness: 0.0, ..Shape::filled("#ffffff") };
    assert_eq!(refused(LayerKind::Shape(thin)), "thickness");
    // Nothing is drawn with figures without bounds: it would take for ever, or more memory than there is.
    let endless = Shape { thickness: -1e308, ..Shape::filled("#ffffff") };
    assert_eq!(refused(LayerKind::Shape(endless)), "thickness");
    let vast = Pattern { motif: [9e15, 5.0], ..Pattern::dots("#ffffff") };
    assert!(refused(LayerKind::Pattern(vast)).starts_with("motif"));
    let red = Shape { fill: Some("red".into()), ..Shape::filled("#ffffff") };
    assert_eq!(refused(LayerKind::Shape(red)), "fill");
    let dense = Pattern { grid: Grid::Pitch([0.0, 5.0]), ..Pattern::dots("#ffffff") };
    assert_eq!(refused(LayerKind::Pattern(dense)), "grid.value.0");
    let many =
        Pattern { grid: Grid::Pitch([0.2, 0.2]), motif: [0.2, 0.2], ..Pattern::dots("#ffffff") };
    let told = prepared(tag(), vec![Layer::new("l1", LayerKind::Pattern(many))]);
    assert_eq!(check(&told.checks, "motifs-l1").unwrap().state, State::Broken);
}

/// A job of before names the panel of a picture, and only one.
#[test]
fn a_picture_of_before_lies_where_it_lay() {
    let layer: Layer = serde_json::from_value(serde_json::json!({
        "id": "l2", "name": null, "kind": "picture", "blob": "0".repeat(64), "pixels": [100, 50],
        "panel": "Front", "x": 3.5, "y": -2.0, "size": { "by": "width", "mm": 30.0 }
    }))
    .unwrap();
    let expected = Lying { x: 3.5, y: -2.0, ..on("Front") };
    assert_eq!(layer.lying(), Some(&expected));
    assert_eq!(layer.opacity, 1.0);
}

/// A picture as large as its tag ends at the cut; mirrored past it, or with a colour below, no card is laid bare.
#[test]
fn art_that_ends_at_a_cut_is_pointed_out() {
    let picture = |beyond: Beyond| {
        let blob = aptum_core::blob::BlobId("a".repeat(64));
        let placed = PlacedPicture { beyond, ..PlacedPicture::new(blob, [600, 1000], on("Tag")) };
        Layer::new("l1", LayerKind::Picture(placed))
    };
    let told = |layers: Vec<Layer>| {
        let job = job(tag(), layers);
        let prepared = prepare(&job, &workshop()).unwrap();
        let found = prepared.checks.iter().find(|check| check.id == "ends-l1").cloned();
        (job, found)
    };
    let (job, found) = told(vec![picture(Beyond::Nothing)]);
    let found = found.unwrap();
    assert_eq!(found.state, State::Attention);
    let mended = with_changes(&job, &found.remedies[0].changes).unwrap();
    let mended = prepare(&mended, &workshop()).unwrap();
    assert!(mended.checks.iter().all(|check| check.id != "ends-l1"));
    assert!(told(vec![picture(Beyond::Mirrored)]).1.is_none());
    let below = Layer { id: "l0".into(), ..Layer::colour("l0", "#123456") };
    assert!(told(vec![below, picture(Beyond::Nothing)]).1.is_none());
    // Well inside the tag there is nothing to go past.
    let small = Shape {
        lying: on("Tag"),
        size: ShapeSize::Sides([20.0, 20.0]),
        ..Shape::filled("#123456")
    };
    assert!(told(vec![Layer::new("l1", LayerKind::Shape(small))]).1.is_none());
    let whole = Shape { lying: on("Tag"), ..Shape::filled("#123456") };
    let (job, found) = told(vec![Layer::new("l1", LayerKind::Shape(whole))]);
    let mended = with_changes(&job, &found.unwrap().remedies[0].changes).unwrap();
    assert!(
        prepare(&mended, &workshop()).unwrap().checks.iter().all(|check| check.id != "ends-l1")
    );
}

/// A third of a shape's stripes is covered where they are a third of the pitch wide, whichever way they run.
#[test]
fn stripes_cover_their_share() {
    for turn in [0.0, 30.0, 90.0] {
        let stripes = Stripes { colour: "#123456".into(), width: 1.0, pitch: 3.0, turn };
        let shape = Shape {
            lying: on("Tag"),
            size: ShapeSize::Sides([45.0, 60.0]),
            fill: None,
            stripes: Some(stripes),
            ..Shape::filled("#ffffff")
        };
        let path = inked(vec![Layer::new("l1", LayerKind::Shape(shape))]);
        let share = Region::inside(&path).area() / (45.0 * 60.0);
        assert!((share - 1.0 / 3.0).abs() < 0.02, "{turn}: {share}");
    }
}

/// A maker’s store with one typeface in it.
struct OneFont(BlobId, std::sync::Arc<[u8]>);

impl Blobs for OneFont {
    fn holds(&self, id: &BlobId) -> bool {
        *id == self.0
    }

    fn bytes(&self, id: &BlobId) -> Option<std::sync::Arc<[u8]>> {
        (*id == self.0).then(|| self.1.clone())
    }
}

#[test]
fn words_in_a_typeface_of_ones_own_are_set_in_it_and_told_where_it_is_missing() {
    let blob = BlobId("a".repeat(64));
    let shelf = SHELF.iter().find(|typeface| typeface.id == "poster").unwrap();
    let in_shelf = |id: &str| {
        let own = Text { typeface: id.to_owned(), ..text("Käthe fi", TextSize::Points(20.0)) };
        inked(vec![Layer::new("l1", LayerKind::Text(own))])
    };
    let origin = Origin { name: "Käthes Hand".to_owned(), ..Origin::default() };
    let own = OwnTypeface { blob: blob.clone(), origin, bytes: FontBytes::default() };
    let own = Text { own_typeface: Some(own), ..text("Käthe fi", TextSize::Points(20.0)) };
    let bare = job(tag(), vec![Layer::new("l1", LayerKind::Text(own))]);
    let drawn = |job: &Job| {
        let prepared = prepare(job, &workshop()).unwrap();
        let path = match &prepared.first().arts[0].all().next().unwrap().ink {
            Ink::Area { path, .. } => path.clone(),
            other => panic!("{other:?}"),
        };
        (path, prepared.first().face_key)
    };
    let fonts = OneFont(blob.clone(), shelf.bytes().into());
    let found = bare.with_fonts(&fonts);
    let (with, key) = drawn(&found);
    let (without, other_key) = drawn(&bare);
    assert_eq!(with, in_shelf("poster"), "the same letters, from the maker’s file");
    assert_eq!(without, in_shelf("plain"), "in the plainest until it is here");
    assert_ne!(key, other_key, "what is remembered of one is not given for the other");
    assert_ne!(with, without);

    assert!(missing_blobs(&bare, &fonts).is_empty());
    let missing = missing_blobs(&bare, &NoBlobs);
    assert_eq!(missing[0].id, "typeface-l1");
    assert_eq!(missing[0].bound_text, "“Käthes Hand”");
    let mended = with_changes(&bare, &missing[0].remedies[0].changes).unwrap();
    assert!(missing_blobs(&mended, &NoBlobs).is_empty());
    // It is held for as long as the job names it, and its bytes are no part of the job.
    assert!(bare.blobs().any(|id| *id == blob));
    let json = serde_json::to_string(&*found).unwrap();
    assert_eq!(json, serde_json::to_string(&bare).unwrap());

    // Many of them at once push each other out of the shaper, and come back.
    let many: Vec<BlobId> = (0..12).map(|at| BlobId(format!("{at:064x}"))).collect();
    for _ in 0..2 {
        for id in &many {
            let mut job = bare.clone();
            let layer = &mut job.pieces[0].face.as_mut().unwrap().layers[0];
            let LayerKind::Text(text) = &mut layer.kind else { panic!("{layer:?}") };
            text.own_typeface.as_mut().unwrap().blob = id.clone();
            let fonts = OneFont(id.clone(), shelf.bytes().into());
            assert_eq!(drawn(&job.with_fonts(&fonts)).0, with);
        }
    }
}

/// A curved panel is one panel, by whichever name: its bends are neither edges nor creases, and its middle is the
/// pack's.
#[test]
fn words_on_a_curved_panel_keep_clear_of_its_edges_alone() {
    let laid = |panels: Vec<String>| {
        let lying = Lying { panels, up: aptum_core::face::Up::AsRead, ..Lying::default() };
        let own = Text { lying, ..text("Sweet pea", TextSize::Points(17.0)) };
        let pillow = Form::new("pillow", &[("length", 85.0), ("width", 62.0)]);
        let job = job(pillow, vec![Layer::new("l1", LayerKind::Text(own))]);
        let prepared = prepare(&job, &workshop()).unwrap();
        let check = prepared.checks.iter().find(|check| check.id == "safe-l1").unwrap();
        let path = match &prepared.first().arts[0].all().next().unwrap().ink {
            Ink::Area { path, .. } => path.bounding_box(),
            other => panic!("{other:?}"),
        };
        let front: Vec<_> = prepared.first().flat.parts[0].panels.clone();
        (check.clone(), path, front)
    };
    let (check, words, panels) = laid(vec!["Front".to_owned()]);
    assert_eq!(check.state, State::Fits, "{} {}", check.value_text, check.verdict);
    let strips: Vec<_> = panels.iter().filter(|panel| panel.goes_by("Front")).collect();
    assert!(strips.len() > 4);
    let around = strips.iter().map(|panel| panel.outline.bounding_box());
    let around = around.reduce(|all, next| all.union(next)).unwrap();
    assert!((words.center() - around.center()).hypot() < 3.0, "{words:?} in {around:?}");
    let gap = (words.x0 - around.x0).min(around.x1 - words.x1);
    let told = check.gauge.as_ref().unwrap().value;
    assert!(told <= gap + 0.1 && told > 0.5 * gap, "{told} of {gap}");
    let by_strips = laid(strips.iter().map(|panel| panel.name.clone()).collect());
    assert!((by_strips.1.center() - words.center()).hypot() < 1e-6);
    assert_eq!(by_strips.0.state, State::Fits);
}

/// A round tag with a hole: what lies near its edge is moved or made smaller until it is clear of both, which the tag's
/// box alone would not tell.
#[test]
fn what_runs_past_a_round_piece_is_brought_back_clear_of_edge_and_hole() {
    let form = Form::new("label-round", &[("width", 60.0)]);
    let panel = form.draw(0.3, Unit::Mm).unwrap().parts[0].panels[0].name.clone();
    let words = |points: f64| {
        let words = text("Sweet pea", TextSize::Points(points));
        LayerKind::Text(Text { lying: on(&panel), ..words })
    };
    let state = |job: &Job| {
        let checks = prepare(job, &workshop()).unwrap().checks;
        check(&checks, "safe-l1").unwrap().clone()
    };
    for (points, x, y) in
        [(12.0, 22.0, 0.0), (12.0, 20.0, 20.0), (30.0, 0.0, 22.0), (90.0, 0.0, 0.0)]
    {
        let mut job = job(form.clone(), vec![Layer::new("l1", words(points))]);
        for (name, value) in [("x", x), ("y", y)] {
            job = with_field(&job, &format!("pieces.p1.face.layers.l1.{name}"), value.into())
                .unwrap();
        }
        let found = state(&job);
        assert_eq!(found.state, State::Attention, "{points} pt at {x}, {y}");
        assert!(!found.remedies.is_empty(), "{points} pt at {x}, {y}");
        let is_moved = found.remedies[0].text.starts_with("Move");
        assert_eq!(is_moved, points < 80.0, "{:?}", found.remedies);
        for remedy in &found.remedies {
            let after = state(&with_changes(&job, &remedy.changes).unwrap());
            assert_eq!(after.state, State::Fits, "{}: {after:?}", remedy.text);
        }
    }
}

/// Wherever words lie on whatever piece: what is offered brings them clear of its edges and openings.
#[test]
fn words_anywhere_are_brought_clear_of_edges_and_openings() {
    let forms = ["tag-rounded", "tag-arch", "label-round", "label-oval", "label-star", "page-flag"];
    let forms: Vec<Form> = forms
        .iter()
        .filter(|id| CATALOGUE.iter().any(|own| own.id == **id))
        .map(|id| Form::new(id, &[]))
        .collect();
    assert!(forms.len() > 3);
    let any = (0..forms.len(), 3.0..60.0f64, -40.0..40.0f64, -40.0..40.0f64, -90.0..90.0f64);
    let helped = std::cell::Cell::new(0);
    let mut runner = proptest::test_runner::TestRunner::new(ProptestConfig::with_cases(120));
    let outcome = runner.run(&any, |(form, points, x, y, turn)| {
        let form = &forms[form];
        let panel = form.draw(0.3, Unit::Mm).unwrap().parts[0].panels[0].name.clone();
        let lying = Lying { x, y, turn, ..on(&panel) };
        let words = Text { lying, ..text("Sweet pea", TextSize::Points(points)) };
        let job = job(form.clone(), vec![Layer::new("l1", LayerKind::Text(words))]);
        let state = |job: &Job| {
            let checks = prepare(job, &workshop()).unwrap().checks;
            check(&checks, "safe-l1").cloned()
        };
        let Some(found) = state(&job) else { return Ok(()) };
        for remedy in found.remedies.iter().filter(|own| !own.changes.is_empty()) {
            let after = state(&with_changes(&job, &remedy.changes).unwrap()).unwrap();
            prop_assert_eq!(after.state, State::Fits, "{}: {:?}", remedy.text, after.gauge);
            helped.set(helped.get() + 1);
        }
        prop_assert!(found.state == State::Fits || !found.remedies.is_empty(), "{:?}", found);
        Ok(())
    });
    outcome.unwrap();
    assert!(helped.get() > 60, "{}", helped.get());
}
