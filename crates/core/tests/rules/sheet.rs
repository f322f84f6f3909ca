//! Windows, faces and limits: what each figure of the workshop does to a sheet.

use aptum_core::check::{Drawing, Sense, Stage};
use aptum_core::face::{Coverage, Face, Layer, LayerKind};
use aptum_core::form::Form;
use aptum_core::geometry::{BezPath, Rect, Region, Shape};
use aptum_core::job::with_changes;
use aptum_core::memory::Forgetful;
use aptum_core::sheet::{Orientation, SheetSize, TakenBy, Turning};
use aptum_core::tooling::path_checks;
use aptum_core::units::{INCH, Unit};
use aptum_core::workshop::{AllowedBy, Field, Finds, Grain, Margins, RecordId};
use aptum_core::{Check, Job, Prepared, State, Workshop, prepare};

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn tomato() -> Job {
    serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap()
}

fn carton(length: f64, width: f64, height: f64) -> Form {
    Form::new("straight-tuck", &[("length", length), ("width", width), ("height", height)])
}

fn check<'a>(prepared: &'a Prepared, id: &str) -> &'a Check {
    prepared.checks.iter().find(|check| check.id == id).unwrap_or_else(|| panic!("no check {id}"))
}

fn cutter<'a>(workshop: &'a mut Workshop, id: &str) -> &'a mut aptum_core::workshop::Cutter {
    workshop.cutters.get_mut(&RecordId::from(id)).unwrap()
}

#[test]
fn everything_that_takes_room_is_named_and_accounts_for_what_is_missing() {
    let prepared = prepare(&tomato(), &workshop()).unwrap();
    let kinds: Vec<TakenBy> = prepared.windows.taken.iter().map(|taken| taken.by).collect();
    assert_eq!(
        kinds,
        [
            TakenBy::PrinterMargin,
            TakenBy::RollerStrips,
            TakenBy::Eye,
            TakenBy::KeepClear,
            TakenBy::KeepClear,
            TakenBy::KeepClear
        ]
    );
    assert!(prepared.windows.taken[1].name.starts_with("Reading-room cutter"));
    // Page less reach less keep-clears is the cut window, by polygon algebra alone.
    let page = Region::rect(prepared.windows.page);
    let left = prepared
        .windows
        .taken
        .iter()
        .filter(|taken| ![TakenBy::PrinterMargin, TakenBy::Eye].contains(&taken.by))
        .fold(page, |left, taken| left.minus(&even_odd(&taken.path)));
    assert!((left.area() - prepared.windows.cut.region.area()).abs() < 0.1);
}

/// A ring with its hole left out, as the page's hatches are filled.
fn even_odd(path: &BezPath) -> Region {
    let mut parts = path.subpaths().map(|part| Region::inside(&BezPath::from_vec(part.to_vec())));
    let first = parts.next().unwrap();
    parts.fold(first, |all, part| all.minus(&part))
}

#[test]
fn a_cutter_that_stays_within_its_marks_loses_the_rest() {
    let mut workshop = workshop();
    let wide = prepare(&tomato(), &workshop).unwrap();
    cutter(&mut workshop, "reading-room-cutter").field = Field::WithinMarks;
    let narrow = prepare(&tomato(), &workshop).unwrap();
    assert_eq!(narrow.windows.cut.base, Rect::new(10.0, 12.0, 287.0, 410.0));
    assert!(narrow.windows.cut.region.area() < wide.windows.cut.region.area());
    assert!(narrow.windows.taken.iter().any(|taken| taken.by == TakenBy::OutsideMarks));
}

/// Where Aptum leads the blade, its axis goes round corners by the blade's offset beyond them: the window leaves room.
#[test]
fn a_blade_that_aptum_leads_leaves_room_to_swivel() {
    let (job, mut workshop) = (tomato(), workshop());
    let id = job.sheet.cutter.clone().unwrap();
    let plain = prepare(&job, &workshop).unwrap().windows.cut.base;
    let knife = &mut workshop.cutters.get_mut(&id).unwrap().knife;
    (knife.allowed_by, knife.offset) = (AllowedBy::Aptum, 0.3);
    let prepared = prepare(&job, &workshop).unwrap();
    assert_eq!(prepared.windows.cut.base, plain.inset(-0.3));
    assert!(prepared.windows.taken.iter().any(|taken| taken.by == TakenBy::Swivel));
    // Whatever fills the sheet then, no axis leaves what the machine reaches.
    let mut full = job.clone();
    full.pieces[0].copies = 500;
    let prepared = prepare(&full, &workshop).unwrap();
    let path = prepared.tool_path(&full, &workshop, 0, &Forgetful).unwrap();
    let checks = path_checks(&path, workshop.cutters.get(&id), &prepared.windows.cut, full.unit);
    let window = checks.iter().find(|check| check.id == "tooling-window").unwrap();
    assert_eq!(window.state, State::Fits, "{window:?}");
    let reach = plain.inflate(1e-6, 1e-6);
    assert!(path.stretches.iter().flat_map(|own| &own.way).all(|at| reach.contains(*at)));
}

#[test]
fn a_sheet_wider_than_the_cutter_loses_what_hangs_over() {
    let mut job = tomato();
    job.sheet.size = SheetSize { name: "Wide".into(), width: 400.0, height: 420.0 };
    let prepared = prepare(&job, &workshop()).unwrap();
    assert_eq!(check(&prepared, "cutter-width").verdict, "70 mm too much");
    assert!((prepared.windows.cut.base.x1 - (330.0 - 8.0)).abs() < 1e-9);
    assert_eq!(check(&prepared, "printer-width").state, State::Broken);
    job.sheet.size = SheetSize { name: "Flat".into(), width: 400.0, height: 320.0 };
    let prepared = prepare(&job, &workshop()).unwrap();
    let turned = &check(&prepared, "cutter-width").remedies[0];
    assert_eq!(
        (turned.text.as_str(), turned.changes[0].field.as_str()),
        ("Turn the sheet", "sheet.orientation")
    );
}

#[test]
fn cutters_that_find_the_sheet_without_marks_get_none() {
    for finds in [Finds::Scan, Finds::SheetEdge, Finds::PrintedItself] {
        let mut workshop = workshop();
        cutter(&mut workshop, "reading-room-cutter").finds = finds;
        let prepared = prepare(&tomato(), &workshop).unwrap();
        assert!(prepared.marks.marks.is_empty());
        assert!(prepared.checks.iter().all(|check| !check.id.starts_with("marks")));
    }
    let mut job = tomato();
    job.sheet.marks = None;
    let prepared = prepare(&job, &workshop()).unwrap();
    let missing = check(&prepared, "marks");
    assert_eq!(missing.state, State::Broken);
    assert!(missing.verdict.contains("finds a printed sheet by its marks"));
    assert_eq!(missing.remedies.len(), 2, "one for each mark set that it can go by");
}

#[test]
fn the_grain_is_followed_when_asked_and_pointed_out_when_not() {
    let mut job = tomato();
    job.pieces[0].form = carton(60.0, 30.0, 90.0);
    job.pieces[0].copies = 50;
    let mut workshop = workshop();
    let stock = workshop.stocks.get_mut(&RecordId::from("white-14pt")).unwrap();
    stock.grain = Grain::Short;
    job.sheet.turning = Turning::Upright;
    let across = prepare(&job, &workshop).unwrap();
    let grain = check(&across, "grain");
    assert_eq!(grain.state, State::Attention);
    assert_eq!(grain.remedies[0].changes[0].field, "sheet.turning");
    job.sheet.turning = Turning::Grain;
    let along = prepare(&job, &workshop).unwrap();
    assert_eq!(check(&along, "grain").state, State::Fits);
    assert!(along.layout.runs[0].placements.iter().all(|placement| placement.quarters() % 2 == 1));
    // The sheet on its side turns the grain with it.
    job.sheet.orientation = Orientation::Landscape;
    let turned = prepare(&job, &workshop).unwrap();
    assert!(turned.layout.runs[0].placements.iter().all(|placement| placement.quarters() % 2 == 0));
    let stock = workshop.stocks.get_mut(&RecordId::from("white-14pt")).unwrap();
    stock.grain = Grain::Unknown;
    let unknown = prepare(&job, &workshop).unwrap();
    assert!(unknown.checks.iter().all(|check| check.id != "grain"));
}

#[test]
fn neighbours_hold_each_others_bleed_back() {
    let mut job = tomato();
    job.sheet.spacing = 1.0;
    job.pieces[0].face.as_mut().unwrap().bleed = 2.0;
    let prepared = prepare(&job, &workshop()).unwrap();
    assert!((prepared.first().arts[0].bleed - 0.5).abs() < 1e-9);
    let bleed = check(&prepared, "bleed");
    assert_eq!(
        (bleed.state, bleed.verdict.as_str()),
        (State::Attention, "held back by the neighbour’s")
    );
    assert_eq!(bleed.remedies.len(), 2);
    assert_eq!(check(&prepared, "spacing").state, State::Attention);
    job.pieces[0].copies = 1;
    let alone = prepare(&job, &workshop()).unwrap();
    assert!((alone.first().arts[0].bleed - 2.0).abs() < 1e-9, "nobody is near");
}

#[test]
fn colour_goes_past_the_cut_by_the_bleed_and_spares_the_glue() {
    let flat = carton(60.0, 30.0, 90.0).draw(0.4, Unit::Mm).unwrap();
    let face = |coverage, bleed| {
        let kind = LayerKind::Colour { colour: "#e7dcc0".into(), coverage };
        let colour = Layer { kind, ..Layer::colour("l1", "") };
        Face::new(bleed, vec![colour, Layer::panel_names("l2")]).print(
            None,
            &flat.parts[0],
            &aptum_core::face::Uprights::default(),
            f64::INFINITY,
        )
    };
    let bare = face(Coverage::Faces, 0.0);
    let panels: f64 = flat.parts[0]
        .panels
        .iter()
        .filter(|panel| panel.role == aptum_core::form::Role::Face)
        .map(|panel| panel.outline.area().abs())
        .sum();
    assert!((bare.printed.area() - panels).abs() < 1e-3);
    let grown = face(Coverage::Faces, 2.0).printed.bounds().unwrap();
    let tight = bare.printed.bounds().unwrap();
    assert!((grown.width() - tight.width() - 4.0).abs() < 1e-6);
    let glue = Region::inside(&flat.panel("Glue flap").unwrap());
    assert!(face(Coverage::Flaps, 0.0).printed.intersection(&glue).area() < 1e-3);
    // Each name lies on its own panel.
    let words = bare.words();
    let faces = flat.panels().filter(|(panel, _)| panel.role == aptum_core::form::Role::Face);
    let panels: Vec<Region> = faces.map(|(_, outline)| Region::inside(&outline)).collect();
    let mut on = vec![false; panels.len()];
    for letter in words.subpaths() {
        let bounds = letter.iter().copied().collect::<BezPath>().bounding_box();
        let own = panels.iter().position(|panel| Region::rect(bounds).minus(panel).area() < 1e-6);
        on[own.unwrap()] = true;
    }
    assert!(on.iter().all(|on| *on), "{on:?}");
}

#[test]
fn bare_flaps_may_leave_the_printable_area_and_print_on_them_may_not() {
    let mut job = tomato();
    job.sheet.cutter = None;
    job.pieces[0].copies = 1;
    let blank = prepare(&job, &workshop()).unwrap().first().flat.bounds;
    // A sheet just larger than the blank; the printer cannot print on 3.4 mm of either side.
    job.sheet.size = SheetSize {
        name: "Tight".into(),
        width: blank.width() + 1.0,
        height: blank.height() + 1.0,
    };
    let face = job.pieces[0].face.as_mut().unwrap();
    face.bleed = 0.0;
    face.layers.retain(|layer| layer.kind != LayerKind::PanelNames);
    // Glue flap on the left and tuck flaps above and below are bare; the left side is not.
    let prepared = prepare(&job, &workshop()).unwrap();
    assert_eq!(check(&prepared, "print-along").state, State::Fits);
    let colour = "#f0d9cf".to_owned();
    job.pieces[0].face.as_mut().unwrap().layers[0].kind =
        LayerKind::Colour { colour, coverage: Coverage::Flaps };
    let prepared = prepare(&job, &workshop()).unwrap();
    let along = check(&prepared, "print-along");
    assert_eq!(along.state, State::Broken);
    let spares = |check: &Check| {
        check.remedies.iter().any(|remedy| remedy.text.contains("Leave the flaps unprinted"))
    };
    assert!(spares(along));
    // Where the faces alone are too long, it would not help.
    job.sheet.size.height /= 2.0;
    let prepared = prepare(&job, &workshop()).unwrap();
    let along = check(&prepared, "print-along");
    assert!(along.state == State::Broken && !spares(along), "{along:?}");
}

#[test]
fn a_misfit_shows_exactly_what_lies_outside() {
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/runner-bean-carton.json"))
            .unwrap();
    let prepared = prepare(&job, &workshop()).unwrap();
    let misfit = prepared.misfit.as_ref().unwrap();
    let copy = Region::inside(&misfit.placement.place(&prepared.first().flat.parts[0].outline));
    let inside = copy.intersection(&prepared.windows.cut.region);
    assert!((inside.area() + misfit.outside.area() - copy.area()).abs() < 1e-3);
    assert!(misfit.outside.area() > 1.0);
    let place = check(&prepared, "blank-across").place.clone().unwrap();
    assert_eq!(place.drawing, Drawing::Sheet);
    assert!(BezPath::from_svg(&place.path).is_ok());
    assert!(prepare(&tomato(), &workshop()).unwrap().misfit.is_none());
}

#[test]
fn yield_and_waste_add_up_to_the_sheets() {
    let prepared = prepare(&tomato(), &workshop()).unwrap();
    let sheets = 7.0 * 297.0 * 420.0;
    assert!((prepared.order.used * sheets + prepared.order.waste - sheets).abs() < 1e-6);
    assert!((prepared.order.used * sheets - 40.0 * prepared.first().flat.area()).abs() < 1e-6);
}

#[test]
fn a_limit_holds_to_the_nanometre_and_says_how_much_is_missing() {
    let limit = |value, sense, bound| {
        Check::length("x", Stage::Sheet, "X", (value, sense, bound), Unit::Mm)
    };
    let cases = [
        (190.5, Sense::AtMost, 190.5, State::Fits, "exactly at the limit"),
        (190.5 + 1e-9, Sense::AtMost, 190.5, State::Fits, "exactly at the limit"),
        (190.6, Sense::AtMost, 190.5, State::Broken, "0.1 mm too much"),
        (100.0, Sense::AtMost, 190.5, State::Fits, "90.5 mm left"),
        (8.0, Sense::AtLeast, 8.0, State::Fits, "exactly at the limit"),
        (7.9, Sense::AtLeast, 8.0, State::Broken, "0.1 mm short"),
        (9.0, Sense::AtLeast, 8.0, State::Fits, "1 mm to spare"),
    ];
    for (value, sense, bound, state, verdict) in cases {
        let check = limit(value, sense, bound);
        assert_eq!((check.state, check.verdict.as_str()), (state, verdict), "{value} {bound}");
    }
    let inches = Check::length("x", Stage::Form, "X", (INCH, Sense::AtMost, 2.0 * INCH), Unit::In);
    assert_eq!((inches.value_text.as_str(), inches.bound_text.as_str()), ("1", "of 2 in"));
}

#[test]
fn texts_follow_the_jobs_unit() {
    let mut job = tomato();
    job.unit = Unit::In;
    let prepared = prepare(&job, &workshop()).unwrap();
    assert!(check(&prepared, "blank-across").bound_text.ends_with(" in"));
    let scale = prepared.notes[0].unwrap().scale().unwrap();
    assert!((scale - 4.0 * INCH).abs() < 1e-9, "the printed scale is whole inches");
    job.unit = Unit::Cm;
    job.pieces[0].form = carton(1.0, 14.0, 52.0);
    let errors = prepare(&job, &workshop()).unwrap_err();
    assert_eq!(errors[0].message, "Length is 0.1 cm: it must lie between 0.5 cm and 200 cm");
}

#[test]
fn a_printers_and_a_cutters_margins_may_differ_on_every_side() {
    let mut workshop = workshop();
    cutter(&mut workshop, "reading-room-cutter").margins =
        Margins { lead: 20.0, trail: 30.0, left: 5.0, right: 9.0 };
    let prepared = prepare(&tomato(), &workshop).unwrap();
    assert_eq!(prepared.windows.cut.base, Rect::new(5.0, 20.0, 288.0, 390.0));
    assert_eq!(prepared.windows.print.base, Rect::new(3.4, 3.0, 293.6, 417.0));
}

#[test]
fn card_that_is_not_kept_in_the_page_s_size_is_told_with_the_sizes_there_are() {
    let (mut job, workshop) = (tomato(), workshop());
    let (id, stock) = workshop
        .stocks
        .iter()
        .find(|(_, stock)| stock.sheets.iter().all(|size| size.width.max(size.height) < 400.0))
        .unwrap();
    job.pieces[0].stock = id.clone();
    job.sheet.size = SheetSize { name: "A3".into(), width: 297.0, height: 420.0 };
    let told = prepare(&job, &workshop).unwrap();
    let found = check(&told, "card-size-1");
    assert_eq!(found.state, State::Attention);
    assert!(found.verdict.contains(&stock.name), "{}", found.verdict);
    let largest = stock
        .sheets
        .iter()
        .max_by(|one, other| (one.width * one.height).total_cmp(&(other.width * other.height)))
        .unwrap();
    assert_eq!(found.value_text, largest.name);
    for remedy in &found.remedies {
        let then = with_changes(&job, &remedy.changes).unwrap();
        assert_eq!(then.sheet.size.name, largest.name, "{}", remedy.text);
        let then = prepare(&then, &workshop).unwrap();
        assert!(then.checks.iter().all(|check| !check.id.starts_with("card-size")));
    }
    assert!(!found.remedies.is_empty());
}

/// A knife that trails by 2 mm does not get round a hole of 3 mm; one of a quarter millimetre does.
#[test]
fn holes_that_are_tighter_than_the_blade_trails_are_pointed_out() {
    let (mut job, mut workshop) = (tomato(), workshop());
    let figures = [("width", 40.0), ("height", 70.0), ("hole", 3.0)];
    job.pieces[0].form = Form::new("tag-rounded", &figures);
    job.pieces[0].copies = 2;
    job.sheet.kept = None;
    let id = job.sheet.cutter.clone().unwrap();
    let mut corners = |offset: f64| {
        workshop.cutters.get_mut(&id).unwrap().knife.offset = offset;
        let prepared = prepare(&job, &workshop).unwrap();
        let path = prepared.tool_path(&job, &workshop, 0, &Forgetful).unwrap();
        let window = &prepared.windows.cut;
        let checks = path_checks(&path, workshop.cutters.get(&id), window, job.unit);
        checks.into_iter().find(|check| check.id == "tooling-corners").unwrap()
    };
    let fine = corners(0.25);
    assert_eq!((fine.state, fine.place), (State::Fits, None));
    let tight = corners(2.0);
    assert_eq!(tight.state, State::Attention, "{tight:?}");
    assert!(tight.verdict.contains("2 mm"), "{}", tight.verdict);
    assert!(tight.place.unwrap().path.starts_with('M'));
}
