//! Whole jobs: the demo's, and jobs with something wrong.

use aptum_core::check::Stage;
use aptum_core::face::Layer;
use aptum_core::job::with_changes;
use aptum_core::units::{INCH, Unit};
use aptum_core::workshop::{DistanceFrom, Margins, MarkShape, RecordId};
use aptum_core::{Check, Job, Prepared, State, Workshop, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn demo(name: &str) -> Job {
    let text = match name {
        "runner bean" => include_str!("../../../../demo/jobs/runner-bean-carton.json"),
        "tomato" => include_str!("../../../../demo/jobs/tomato-carton.json"),
        "map" => include_str!("../../../../demo/jobs/allotment-map-carton.json"),
        _ => include_str!("../../../../demo/jobs/dibber-carton.json"),
    };
    serde_json::from_str(text).unwrap()
}

fn check<'a>(prepared: &'a Prepared, id: &str) -> &'a Check {
    prepared.checks.iter().find(|check| check.id == id).unwrap_or_else(|| panic!("no check {id}"))
}

/// A change as the interface carries it out.
fn apply(job: &Job, changes: &[aptum_core::error::Change]) -> Job {
    with_changes(job, changes).unwrap()
}

#[test]
fn the_demo_workshop_is_sound() {
    workshop().validate(Unit::Mm).unwrap();
}

/// The whole table of limits of one job, to be read in review.
#[test]
fn the_limits_of_a_job_that_fits() {
    let prepared = prepare(&demo("tomato"), &workshop()).unwrap();
    let table: String = prepared
        .checks
        .iter()
        .map(|c| {
            format!(
                "{:?} | {} | {} | {} | {}\n",
                c.state, c.label, c.value_text, c.bound_text, c.verdict
            )
        })
        .collect();
    insta::assert_snapshot!(table);
}

#[test]
fn every_way_to_fit_really_fits() {
    let (job, workshop) = (demo("runner bean"), workshop());
    let prepared = prepare(&job, &workshop).unwrap();
    assert_eq!(prepared.worst(), State::Broken);
    let ways = &check(&prepared, "blank-across").remedies;
    assert!(ways.len() >= 2, "{ways:?}");
    for way in ways {
        let mended = prepare(&apply(&job, &way.changes), &workshop).unwrap();
        assert!(mended.layout.per_sheet >= 1, "{}", way.text);
        assert_ne!(check(&mended, "blank-across").state, State::Broken, "{}", way.text);
    }
}

#[test]
fn a_job_that_is_only_cut_has_no_marks_and_no_printable_area() {
    let mut job = demo("tomato");
    job.pieces[0].face = None;
    let prepared = prepare(&job, &workshop()).unwrap();
    assert!(prepared.marks.marks.is_empty());
    assert!(prepared.first().arts.is_empty());
    assert_eq!(prepared.windows.printable, prepared.windows.page);
    assert!(
        prepared
            .checks
            .iter()
            .all(|check| !check.id.starts_with("mark") && !check.id.starts_with("print"))
    );
    assert!(prepared.state(Stage::Sheet).is_some());
}

/// Derived: the areas are the page's and the marks', by arithmetic.
#[test]
fn the_cut_window_is_the_reach_less_the_keep_clears() {
    let mut workshop = workshop();
    let cutter = workshop.cutters.get_mut(&RecordId::from("desk-cutter")).unwrap();
    cutter.margins = Margins::all(0.875 * INCH);
    let prepared = prepare(&demo("runner bean"), &workshop).unwrap();
    // The window of practice on Letter: 6.75 × 9.25 in. The marks stand outside it.
    let window = &prepared.windows.cut;
    assert!((window.base.width() - 6.75 * INCH).abs() < 1e-9);
    assert!((window.base.height() - 9.25 * INCH).abs() < 1e-9);

    let cutter = workshop.cutters.get_mut(&RecordId::from("desk-cutter")).unwrap();
    cutter.margins = Margins::default();
    let prepared = prepare(&demo("runner bean"), &workshop).unwrap();
    // Each angle with 2.5 mm around: an L of 15 mm arms, 6 mm wide; and the sign's box beside one.
    let (width, arm) = (6.0, 15.0);
    let angles = 4.0 * (2.0 * arm * width - width * width);
    let sign = (3.5 * 0.75 + 1.0) * (3.5 + 1.0);
    let taken = 215.9 * 279.4 - prepared.windows.cut.region.area();
    assert!(taken <= angles + sign + 1e-6 && taken > angles, "{taken}");
    assert!(!prepared.windows.taken.is_empty());
}

#[test]
fn margins_larger_than_the_page_and_marks_that_fill_it_are_checks_not_panics() {
    let mut workshop = workshop();
    workshop.printers.get_mut(&RecordId::from("back-room-inkjet")).unwrap().margins =
        Margins::all(200.0);
    let prepared = prepare(&demo("tomato"), &workshop).unwrap();
    assert_eq!(check(&prepared, "window").state, State::Broken);
    assert_eq!(prepared.layout.laid, 0);

    let mut workshop = self::workshop();
    let marks = workshop.mark_sets.get_mut(&RecordId::from("three-dots")).unwrap();
    marks.across = 145.0;
    let prepared = prepare(&demo("tomato"), &workshop).unwrap();
    let apart = check(&prepared, "marks-apart");
    assert_eq!(apart.state, State::Broken, "{apart:?}");

    let mut workshop = self::workshop();
    let marks = workshop.mark_sets.get_mut(&RecordId::from("three-dots")).unwrap();
    marks.from = DistanceFrom::PrintableEdge;
    marks.across = 0.0;
    marks.mark = MarkShape::Cross { arm: 8.0, stroke: 0.5 };
    let prepared = prepare(&demo("tomato"), &workshop).unwrap();
    assert_eq!(check(&prepared, "marks-shape").state, State::Broken);
    assert_eq!(check(&prepared, "marks-edge").state, State::Broken);
}

#[test]
fn card_that_the_cutter_cannot_take_names_one_that_it_can() {
    let mut job = demo("runner bean");
    job.pieces[0].stock = "grey-board-1".into();
    let workshop = workshop();
    let prepared = prepare(&job, &workshop).unwrap();
    let thick = check(&prepared, "caliper");
    assert_eq!((thick.state, thick.verdict.as_str()), (State::Broken, "0.5 mm too much"));
    let mended = prepare(&apply(&job, &thick.remedies[0].changes), &workshop).unwrap();
    assert_eq!(check(&mended, "caliper").state, State::Fits);
}

#[test]
fn unknown_ids_and_absurd_figures_are_all_said_at_once() {
    let mut job = demo("tomato");
    job.pieces[0].stock = "no-such".into();
    job.sheet.printer = Some("nobody".into());
    job.pieces[0].copies = 0;
    job.sheet.spacing = f64::NAN;
    job.name = " ".into();
    let fields: Vec<_> =
        prepare(&job, &workshop()).unwrap_err().into_iter().map(|error| error.field).collect();
    assert_eq!(
        fields,
        ["name", "pieces.p1.copies", "sheet.spacing", "pieces.p1.stock", "sheet.printer"]
    );
}

#[test]
fn landscape_turns_the_printers_margins_with_the_sheet() {
    let mut workshop = workshop();
    let printer = workshop.printers.get_mut(&RecordId::from("back-room-inkjet")).unwrap();
    printer.margins = Margins { lead: 1.0, trail: 2.0, left: 3.0, right: 4.0 };
    let mut job = demo("tomato");
    job.sheet.orientation = aptum_core::sheet::Orientation::Landscape;
    let printable = prepare(&job, &workshop).unwrap().windows.printable;
    // The left edge leads; the feed's left edge lies at the bottom.
    assert_eq!(printable, kurbo::Rect::new(1.0, 4.0, 418.0, 294.0));
}

#[test]
fn the_sheet_code_follows_what_is_printed_and_not_the_name() {
    let workshop = workshop();
    let job = demo("tomato");
    let code = |job: &Job| prepare(job, &workshop).unwrap().code.clone();
    assert_eq!(code(&job), code(&Job { name: "Other".into(), ..job.clone() }));
    let mut moved = job.clone();
    moved.sheet.spacing = 2.1;
    assert_ne!(code(&job), code(&moved));
}

/// What is neither printed nor cut leaves the code alone; what is changes it.
#[test]
fn the_sheet_code_names_exactly_what_is_printed_and_cut() {
    let workshop = workshop();
    let job = demo("tomato");
    let before = prepare(&job, &workshop).unwrap().code.clone();
    let mut other = workshop.clone();
    for stock in other.stocks.values_mut() {
        stock.name += " again";
        stock.grammage = stock.grammage.map(|grammage| grammage + 7.0);
        stock.price = None;
        stock.keeping = aptum_core::workshop::Keeping::Retired;
    }
    for cutter in other.cutters.values_mut() {
        cutter.force = cutter.force.map(|force| force * 2.0);
    }
    assert_eq!(prepare(&job, &other).unwrap().code, before, "prices, names, keeping, force");
    let code = |change: &dyn Fn(&mut Job)| {
        let mut changed = job.clone();
        change(&mut changed);
        prepare(&changed, &workshop).unwrap().code.clone()
    };
    assert_eq!(code(&|job| job.sheet.search.seed += 1), before, "an unused seed");
    assert_ne!(code(&|job| job.unit = aptum_core::units::Unit::In), before, "the scale’s unit");
    assert_ne!(code(&|job| job.pieces[0].face.as_mut().unwrap().bleed -= 0.2), before);
    assert_ne!(code(&|job| job.pieces[0].copies += 1), before);
    assert_ne!(
        code(&|job| job.pieces[0]
            .form
            .chosen_mut()
            .unwrap()
            .figures
            .insert("tuck".into(), Some(13.5))
            .map_or((), |_| ())),
        before
    );
}

/// The bleed of a further piece is held back as well, and said.
#[test]
fn a_further_pieces_bleed_is_held_back_in_words() {
    let mut job = demo("tomato");
    job.pieces[0].face.as_mut().unwrap().bleed = 0.5;
    let mut face = job.pieces[0].face.clone().unwrap();
    face.bleed = 3.0;
    face.layers = vec![Layer::colour("colour", "#aabbcc")];
    let form = aptum_core::form::Form::new("tag", &[]);
    let stock = job.pieces[0].stock.0.clone();
    let tag = aptum_core::job::JobPiece::new("tag", form, &stock);
    job.pieces.push(aptum_core::job::JobPiece { face: Some(face), copies: 2, ..tag });
    job.sheet.spacing = 2.0;
    let checks = |job: &Job| prepare(job, &workshop()).unwrap().checks;
    let check = checks(&job).into_iter().find(|check| check.id == "bleed-tag").unwrap();
    assert_eq!(check.state, State::Attention, "{check:?}");
    assert_eq!(check.gauge.map(|gauge| (gauge.value, gauge.bound)), Some((1.0, 3.0)));
    assert_eq!(check.remedies[1].changes[0].field, "pieces.tag.face.bleed");
    job.sheet.spacing = 6.0;
    let check = checks(&job).into_iter().find(|check| check.id == "bleed-tag").unwrap();
    assert_eq!(check.state, State::Fits);
}

/// A bookmark that fills its sheet leaves no room for scale and code: that is a limit, with what to do.
#[test]
fn a_sheet_without_room_for_its_code_says_so() {
    let mut job = demo("tomato");
    job.sheet.marks = None;
    job.sheet.cutter = None;
    job.sheet.printer = None;
    job.pieces[0].copies = 1;
    let note = |width: f64, height: f64| {
        let mut job = job.clone();
        job.pieces[0].form =
            aptum_core::form::Form::new("bookmark", &[("width", width), ("height", height)]);
        job.sheet.size =
            aptum_core::sheet::SheetSize { name: "Own".into(), width: 62.0, height: 182.0 };
        let prepared = prepare(&job, &workshop()).unwrap();
        let check = prepared.checks.iter().find(|check| check.id == "notes").unwrap().clone();
        (check, prepared.notes[0])
    };
    let (check, notes) = note(60.0, 180.0);
    assert!(notes.is_none() && check.state == State::Attention && !check.remedies.is_empty());
    assert!(check.verdict.contains("mm"), "{}", check.verdict);
    let (check, notes) = note(50.0, 160.0);
    assert!(notes.is_some() && check.state == State::Fits, "{check:?}");
}

/// A heap of copies is told by its number; only some of it is drawn.
#[test]
fn a_heap_of_copies_gives_a_short_answer() {
    use aptum_core::sheet::{Kept, LaidBlank, Made, Placement, SheetRun};
    let mut job = demo("tomato");
    let at = Placement { x: 20.0, y: 20.0, turn: 0.0, ..Placement::default() };
    let run = SheetRun { sheets: 1, placements: vec![at; 5000] };
    job.sheet.kept = Some(Kept {
        made: Made::ByHand,
        blanks: vec![LaidBlank::any("p1", "carton")],
        runs: vec![run],
    });
    let prepared = prepare(&job, &workshop()).unwrap();
    let apart = prepared.checks.iter().find(|check| check.id == "apart").unwrap();
    assert!(apart.verdict.contains("1000 pairs"), "{}", apart.verdict);
    let drawn: usize =
        prepared.checks.iter().filter_map(|c| c.place.as_ref()).map(|p| p.path.len()).sum();
    assert!(drawn < 500_000, "{drawn}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]
    /// Whatever is laid lies inside both windows, by polygon algebra.
    #[test]
    fn copies_never_leave_their_windows(
        length in 10.0..160.0f64, width in 8.0..80.0f64, height in 10.0..160.0f64,
        spacing in 0.0..8.0f64, copies in 1..40u32, bleed in 0.0..4.0f64, which in 0..3usize, landscape: bool,
    ) {
        use aptum_core::form::Form;
        let mut job = demo(["runner bean", "tomato", "map"][which]);
        job.pieces[0].form = Form::new(
            "straight-tuck",
            &[("length", length), ("width", width), ("height", height)],
        );
        job.sheet.spacing = spacing;
        job.pieces[0].copies = copies;
        job.pieces[0].face.as_mut().unwrap().bleed = bleed;
        job.pieces[0].face.as_mut().unwrap().layers = vec![Layer::colour("colour", "#abcdef")];
        if landscape { job.sheet.orientation = aptum_core::sheet::Orientation::Landscape; }
        let prepared = prepare(&job, &workshop());
        prop_assert!(prepared.is_ok(), "{:?}", prepared.err());
        let prepared = prepared.unwrap();
        let art = &prepared.first().arts[0];
        for run in &prepared.layout.runs {
            for placement in &run.placements {
                let copy = aptum_core::geometry::Region::inside(&placement.place(&prepared.first().flat.parts[0].outline));
                prop_assert!(copy.minus(&prepared.windows.cut.region).area() < 1e-3);
                let printed = aptum_core::geometry::Region::inside(&placement.place(art.area().unwrap().0));
                prop_assert!(printed.minus(&prepared.windows.print.region).area() < 1e-3);
            }
        }
    }
}
