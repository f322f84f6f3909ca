//! White beneath colour, varnishes, and backs.

use aptum_core::check::State;
use aptum_core::face::{
    Face, Finish, Ink, Layer, LayerKind, Lying, Separation, Shape, ShapeSize, Side, Text, TextSize,
    UnderWhite,
};
use aptum_core::form::Form;
use aptum_core::geometry::{Rect, Region, Shape as _};
use aptum_core::job::{JobPiece, with_changes};
use aptum_core::workshop::{Margins, PrintableSide, Shine, TurnsAbout};
use aptum_core::{Job, Prepared, Workshop, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn job(layers: Vec<Layer>) -> Job {
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let form = Form::new("tag", &[("width", 60.0), ("height", 100.0), ("hole", 0.0)]);
    let piece = JobPiece::new("p1", form, &job.pieces[0].stock.0);
    let face = Some(Face::new(1.0, layers));
    Job { pieces: vec![JobPiece { face, ..piece }], ..job }
}

/// A rectangle on the tag, so far from its middle.
fn rectangle(id: &str, sides: [f64; 2], x: f64, finish: Finish) -> Layer {
    let lying = Lying { panels: vec!["Tag".to_owned()], x, ..Lying::default() };
    let shape = Shape { lying, size: ShapeSize::Sides(sides), ..Shape::filled("#336699") };
    Layer { finish, ..Layer::new(id, LayerKind::Shape(shape)) }
}

fn white(prepared: &Prepared) -> Option<Region> {
    let art = &prepared.first().arts[0];
    let white = art.all().find(|inked| inked.finish == Finish::White)?;
    match &white.ink {
        Ink::Area { path, .. } => Some(Region::painted(path)),
        other => panic!("{other:?}"),
    }
}

/// The card shines through the insides of letters: white lies beneath their strokes alone.
#[test]
fn white_beneath_words_leaves_their_insides_open() {
    let words = Text { size: TextSize::Capitals(16.0), ..Text::new("8oB") };
    let mut job = job(vec![Layer::new("l1", LayerKind::Text(words))]);
    job.pieces[0].face.as_mut().unwrap().white =
        UnderWhite { on: true, choke: 0.0, ..UnderWhite::default() };
    let prepared = prepare(&job, &workshop()).unwrap();
    let letters = prepared.first().arts[0].all().find_map(|own| match &own.ink {
        Ink::Area { path, .. } if own.finish == Finish::Colour => Some(Region::wound(path)),
        _ => None,
    });
    let (white, letters) = (white(&prepared).unwrap(), letters.unwrap());
    let off = white.minus(&letters).area() + letters.minus(&white).area();
    assert!(off < 0.01 * letters.area(), "{off} mm² of {}", letters.area());
    let solid = Region::inside(&letters.to_path());
    assert!(solid.area() > 1.15 * letters.area(), "five insides are open");
}

fn bounds(region: &Region) -> Rect {
    region.bounds().unwrap()
}

proptest! {
    /// White lies beneath all that is coloured, so far within it, and beneath nothing else.
    #[test]
    fn white_stays_within_what_is_coloured(
        width in 5.0..40.0f64, height in 5.0..60.0f64, choke in -1.0..1.0f64,
        knocked in any::<bool>(),
    ) {
        let layers = vec![
            rectangle("l1", [width, height], 0.0, Finish::Colour),
            rectangle("l2", [8.0, 90.0], 0.0, Finish::Varnish),
            rectangle("l3", [4.0, 4.0], 25.0, Finish::Colour),
        ];
        let mut job = job(layers);
        let knocked_out = if knocked { vec!["l3".into()] } else { Vec::new() };
        job.pieces[0].face.as_mut().unwrap().white =
            UnderWhite { on: true, choke, knocked_out, ..UnderWhite::default() };
        let prepared = prepare(&job, &workshop()).unwrap();
        let white = white(&prepared).unwrap();
        let side = |length: f64| length - 2.0 * choke;
        let large = side(width) * side(height);
        let touching = width / 2.0 - choke > 23.0 + choke;
        prop_assume!(!touching);
        let small = if knocked { 0.0 } else { side(4.0).powi(2) };
        let tolerance = 0.05 * (width + height);
        prop_assert!((white.area() - large - small).abs() < tolerance, "{} {large} {small}", white.area());
        let art = &prepared.first().arts[0];
        prop_assert_eq!(art.layers[0].finish, Finish::White, "undermost");
        let inks: Vec<_> = art.separations().collect();
        prop_assert_eq!(inks, [Separation::White, Separation::Colour, Separation::Varnish]);
    }
}

#[test]
fn each_row_has_its_own_white() {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/thirty-plant-tags.json")).unwrap();
    let plain = prepare(&job, &workshop()).unwrap();
    job.pieces[0].face.as_mut().unwrap().white.on = true;
    let prepared = prepare(&job, &workshop()).unwrap();
    let (before, after) = (&plain.first().arts[0], &prepared.first().arts[0]);
    for row in [0, 7, 29] {
        let drawn: Vec<_> = after.inks(row).filter(|own| own.finish == Finish::Colour).collect();
        assert_eq!(drawn, before.inks(row).collect::<Vec<_>>(), "the colours stay as they were");
        let own = after.by_row.iter().flat_map(|layer| &layer.rows[row]);
        assert!(own.filter(|own| own.finish == Finish::White).count() > 0);
    }
    assert_ne!(plain.code, prepared.code);
}

#[test]
fn card_that_shines_asks_for_white_beneath_colour_and_marks() {
    let job = job(vec![rectangle("l1", [30.0, 30.0], 0.0, Finish::Colour)]);
    let mut workshop = workshop();
    let found = |job: &Job, workshop: &Workshop, id: &str| {
        let prepared = prepare(job, workshop).unwrap();
        prepared.checks.into_iter().find(|check| check.id == id)
    };
    assert!(found(&job, &workshop, "white").is_none(), "white card needs none");
    for shine in [Shine::Clear, Shine::Reflective] {
        workshop.stocks.get_mut(&job.pieces[0].stock).unwrap().shine = shine;
        let mut mended = job.clone();
        for id in ["white", "white-marks"] {
            let before = prepare(&mended, &workshop).unwrap().code.clone();
            let check = found(&mended, &workshop, id).unwrap();
            assert_eq!(check.state, State::Attention);
            mended = with_changes(&mended, &check.remedies[0].changes).unwrap();
            assert!(found(&mended, &workshop, id).is_none(), "{id}");
            assert_ne!(prepare(&mended, &workshop).unwrap().code, before, "another print");
        }
        // Around each mark, and nowhere near the pieces.
        let prepared = prepare(&mended, &workshop).unwrap();
        let marks = &prepared.marks;
        for (ground, mark) in marks.grounds().iter().zip(&marks.marks) {
            assert_eq!(ground.inset(-3.0), mark.ink.bounding_box());
        }
    }
}

#[test]
fn varnish_is_no_colour_and_reaches_no_code_but_its_own() {
    let plain = job(vec![rectangle("l1", [30.0, 30.0], 0.0, Finish::Colour)]);
    let raised = |passes: u8| {
        let mut job = plain.clone();
        let layer = rectangle("l2", [10.0, 10.0], 0.0, Finish::Raised { passes });
        job.pieces[0].face.as_mut().unwrap().layers.push(layer);
        job
    };
    let codes = [plain.clone(), raised(2), raised(3)]
        .map(|job| prepare(&job, &workshop()).unwrap().code.clone());
    assert!(codes[0] != codes[1] && codes[1] != codes[2], "{codes:?}");
    for (passes, is_sound) in [(1, true), (20, true), (0, false), (21, false)] {
        assert_eq!(prepare(&raised(passes), &workshop()).is_ok(), is_sound, "{passes} passes");
    }
}

#[test]
fn a_back_is_seen_from_behind_and_told_where_its_card_takes_none() {
    let mut front = rectangle("l1", [10.0, 10.0], 20.0, Finish::Colour);
    let behind = Layer { side: Side::Back, id: "l2".into(), ..front.clone() };
    front.id = "l1".into();
    let mut both = job(vec![front, behind]);
    let prepared = prepare(&both, &workshop()).unwrap();
    assert!(prepared.first().back.is_none(), "until both sides are printed");
    assert_eq!(prepared.first().arts[0].all().count(), 1);

    both.pieces[0].face.as_mut().unwrap().both_sides = true;
    let prepared = prepare(&both, &workshop()).unwrap();
    let back = prepared.first().back.as_ref().unwrap();
    assert_eq!(back.arts[0].all().count(), 1);
    let place = |art: &aptum_core::face::Art| match &art.all().next().unwrap().ink {
        Ink::Area { path, .. } => path.bounding_box(),
        other => panic!("{other:?}"),
    };
    assert_eq!(place(&back.arts[0]), place(&prepared.first().arts[0]), "each as it is seen");
    let outlines =
        [&back.flat, &prepared.first().flat].map(|flat| Region::inside(&flat.parts[0].outline));
    assert_eq!(bounds(&outlines[0]), bounds(&outlines[1]));

    // What the printer cannot print on lies at the other side behind: neither may be printed on.
    let mut uneven = workshop();
    let printer = uneven.printers.get_mut(both.sheet.printer.as_ref().unwrap()).unwrap();
    printer.margins = Margins { lead: 4.0, trail: 9.0, left: 3.0, right: 12.0 };
    let room = |job: &Job, workshop: &Workshop| prepare(job, workshop).unwrap().windows.printable;
    let mut front = both.clone();
    front.pieces[0].face.as_mut().unwrap().both_sides = false;
    let page = room(&both, &uneven);
    let (width, height) = (both.sheet.page().width(), both.sheet.page().height());
    let alone = room(&front, &uneven);
    assert_eq!((alone.x0, width - alone.x1, alone.y0, height - alone.y1), (3.0, 12.0, 4.0, 9.0));
    assert_eq!((page.x0, width - page.x1, page.y0, height - page.y1), (12.0, 12.0, 4.0, 9.0));
    let printer = uneven.printers.get_mut(both.sheet.printer.as_ref().unwrap()).unwrap();
    printer.turns_about = TurnsAbout::ShortEdge;
    let page = room(&both, &uneven);
    assert_eq!((page.x0, width - page.x1, page.y0, height - page.y1), (3.0, 12.0, 9.0, 9.0));

    let plain = workshop();
    for is_transferred in [false, true] {
        let mut workshop = plain.clone();
        let stock = workshop.stocks.get_mut(&both.pieces[0].stock).unwrap();
        if is_transferred {
            stock.mirrored = true;
        } else {
            stock.printable = PrintableSide::Face;
        }
        let prepared = prepare(&both, &workshop).unwrap();
        assert_eq!(prepared.has_backs(), !is_transferred);
        let check = prepared.checks.iter().find(|check| check.id == "back-printable").unwrap();
        assert_eq!(check.state, State::Broken);
        let mended = with_changes(&both, &check.remedies[0].changes).unwrap();
        assert!(!mended.pieces[0].face.as_ref().unwrap().both_sides);
        let prepared = prepare(&mended, &workshop).unwrap();
        assert!(prepared.checks.iter().all(|check| check.id != "back-printable"));
    }
}

/// On card that is transferred everything on the sheet is mirrored, what is cut and what is printed alike, and nothing
/// of what is drawn.
#[test]
fn what_is_transferred_is_printed_and_cut_mirrored() {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/lettuce-packet.json")).unwrap();
    job.pieces[0].copies = 1;
    let mut workshop = workshop();
    let plain = prepare(&job, &workshop).unwrap();
    workshop.stocks.get_mut(&job.pieces[0].stock).unwrap().mirrored = true;
    let mirrored = prepare(&job, &workshop).unwrap();
    let drawn = |prepared: &Prepared| prepared.first().flat.parts[0].outline.clone();
    assert_eq!(drawn(&plain), drawn(&mirrored), "the board shows what was drawn");
    assert_eq!(plain.first().arts[0], mirrored.first().arts[0]);

    let (before, after) = (plain.blanks().next().unwrap(), mirrored.blanks().next().unwrap());
    let width = before.part.bounds.width();
    let glass = |p: aptum_core::geometry::Point| aptum_core::geometry::Point::new(width - p.x, p.y);
    let points = |path: &aptum_core::geometry::BezPath| -> Vec<(i64, i64)> {
        let ends = path.elements().iter().filter_map(kurbo::PathEl::end_point);
        #[allow(clippy::cast_possible_truncation)]
        ends.map(|p| ((p.x * 1e6).round() as i64, (p.y * 1e6).round() as i64)).collect()
    };
    let seen = |path: &aptum_core::geometry::BezPath| {
        let mut path = path.clone();
        path.apply_affine(aptum_core::geometry::Affine::new([-1.0, 0.0, 0.0, 1.0, width, 0.0]));
        points(&path)
    };
    assert_eq!(points(&after.part.outline), seen(&before.part.outline));
    for (own, other) in after.part.strokes.iter().zip(&before.part.strokes) {
        assert_eq!(points(&own.path), seen(&other.path));
    }
    let inks = |blank: &aptum_core::PreparedBlank<'_>| {
        blank.art.unwrap().all().cloned().collect::<Vec<_>>()
    };
    let (before, after) = (inks(&before), inks(&after));
    assert_eq!(before.len(), after.len());
    for (own, other) in after.iter().zip(&before) {
        match (&own.ink, &other.ink) {
            (Ink::Area { path, .. }, Ink::Area { path: plain, .. })
            | (Ink::Words { path }, Ink::Words { path: plain }) => {
                assert_eq!(points(path), seen(plain));
            }
            (Ink::Picture { place, .. }, Ink::Picture { place: plain, .. }) => {
                for corner in [(0.0, 0.0), (1.0, 0.0), (0.0, 1.0)] {
                    let off = *place * aptum_core::geometry::Point::from(corner)
                        - glass(*plain * aptum_core::geometry::Point::from(corner));
                    assert!(off.hypot() < 1e-9);
                }
            }
            other => panic!("{other:?}"),
        }
    }
    assert_ne!(plain.code, mirrored.code);
    let words = mirrored.checks.iter().find(|check| check.id == "mirrored-words").unwrap();
    assert_eq!(words.state, State::Attention);
    // Its cut lies within the window as it would unmirrored.
    assert_eq!(plain.layout.laid, mirrored.layout.laid);
}
