//! What would fit: marks compared, the best marks, ways to fit, and what an order comes to.

use aptum_core::geometry::Rect;
use aptum_core::job::with_changes;
use aptum_core::memory::Forgetful;
use aptum_core::order_change::order_changes;
use aptum_core::sheet::{
    Kept, LaidBlank, Machines, Made, Marks, Orientation, Placement, SheetRun, SheetSize, TakenBy,
    Turning, Way, WayKind, all_ways, best_marks, compare_marks, draw_record, misfits, ruled_out,
};
use aptum_core::units::Unit;
use aptum_core::workshop::{Carrier, Finds, Laminate, Margins, MarkSet, Record, RecordId, Roll};
use aptum_core::{Job, State, Workshop, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn tomato() -> Job {
    serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap()
}

fn runner_bean() -> Job {
    serde_json::from_str(include_str!("../../../../demo/jobs/runner-bean-carton.json")).unwrap()
}

fn ways(job: &Job, workshop: &Workshop) -> Vec<Way> {
    let mut all = Vec::new();
    all_ways(job, workshop, &Forgetful, |way| {
        all.push(way);
        true
    });
    all
}

fn applied(job: &Job, way: &Way) -> Job {
    with_changes(job, &way.remedy.changes).unwrap()
}

#[test]
fn every_way_fits_when_it_is_carried_out() {
    let (job, workshop) = (runner_bean(), workshop());
    assert_eq!(prepare(&job, &workshop).unwrap().layout.laid, 0);
    let found = ways(&job, &workshop);
    let kinds: Vec<WayKind> = found.iter().map(|way| way.kind).collect();
    for kind in [WayKind::Sheet, WayKind::Smaller, WayKind::Structure] {
        assert!(kinds.contains(&kind), "{kind:?} of {kinds:?}");
    }
    for way in &found {
        let changed = applied(&job, way);
        let prepared = prepare(&changed, &workshop).unwrap();
        let words = &way.remedy.text;
        assert!(prepared.layout.laid > 0, "{words}");
        assert!(prepared.misfit.is_none(), "{words}");
        let broken = prepared.checks.iter().filter(|check| check.state == State::Broken);
        let machines = broken.filter(|check| {
            check.id.starts_with("blank")
                || check.id.starts_with("cutter-")
                || check.id == "caliper"
        });
        assert_eq!(machines.count(), 0, "{words}");
    }
    // The largest of its shape: a tenth more each way fits no longer.
    let smaller = found.iter().find(|way| way.remedy.text.contains("of this shape")).unwrap();
    let mut larger = smaller.job.clone();
    for key in ["length", "width", "height"] {
        let figure = larger.pieces[0].form.chosen_mut().unwrap().figures.get_mut(key).unwrap();
        *figure = figure.map(|value| value * 1.01);
    }
    assert_eq!(prepare(&larger, &workshop).unwrap().layout.laid, 0);
}

#[test]
fn a_long_strip_fits_across_the_diagonal_and_only_there() {
    let (mut job, workshop) = (tomato(), workshop());
    // 430 mm is longer than A3, and shorter than the diagonal of its window.
    job.pieces[0].form =
        aptum_core::form::Form::new("bookmark-rounded", &[("width", 30.0), ("height", 430.0)]);
    job.pieces[0].face = None;
    job.pieces[0].copies = 1;
    assert_eq!(prepare(&job, &workshop).unwrap().layout.laid, 0);
    let found = ways(&job, &workshop);
    let turned = found.iter().find(|way| way.job.sheet.turning == Turning::Free).unwrap();
    let prepared = prepare(&applied(&job, turned), &workshop).unwrap();
    assert_eq!(prepared.layout.laid, 1);
    let turn = prepared.layout.runs[0].placements[0].turn;
    assert!((turn / 90.0).fract().abs() > 0.05, "{turn}°");
}

#[test]
fn where_nothing_helps_the_limit_is_named() {
    let (mut job, mut workshop) = (runner_bean(), workshop());
    job.pieces[0].form = aptum_core::form::Form::new(
        "straight-tuck",
        &[("length", 300.0), ("width", 200.0), ("height", 400.0)],
    );
    job.sheet.cutter = Some("reading-room-cutter".into());
    workshop.cutters.retain(|id, _| id.0 == "reading-room-cutter");
    let text = ruled_out(&job, &workshop, &Forgetful);
    assert!(
        text.contains("the blank is 1014.8 mm × 840.2 mm") && text.contains("Reading-room cutter"),
        "{text}"
    );
    let found = ways(&job, &workshop);
    assert!(found.iter().all(|way| way.kind == WayKind::Smaller), "{found:?}");
}

#[test]
fn another_structure_holds_the_same() {
    let (mut job, workshop) = (tomato(), workshop());
    // A carton whose blank is too large where a tray of the same inside is not.
    job.pieces[0].form = aptum_core::form::Form::new(
        "straight-tuck",
        &[("length", 110.0), ("width", 80.0), ("height", 90.0)],
    );
    assert_eq!(prepare(&job, &workshop).unwrap().layout.laid, 0);
    let found = ways(&job, &workshop);
    let others: Vec<&Way> = found.iter().filter(|way| way.kind == WayKind::Structure).collect();
    assert!(!others.is_empty());
    for way in others {
        let caliper = workshop.stocks[&job.pieces[0].stock].caliper;
        let inside = applied(&job, way).pieces[0].form.inside(caliper);
        for (key, side) in [("length", 110.0), ("width", 80.0), ("height", 90.0)] {
            let found = inside.iter().find(|(other, _)| other == key).unwrap().1;
            assert!((found - side).abs() < 0.01, "{}: {key} {found}", way.remedy.text);
        }
    }
}

#[test]
fn marks_are_compared_by_what_they_leave_and_those_that_cannot_be_read_come_last() {
    let (job, workshop) = (tomato(), workshop());
    let choices = compare_marks(&job, &workshop, &Forgetful, || true);
    assert_eq!(choices.len(), 3);
    let last = choices.last().unwrap();
    assert_eq!(last.set.name, "Four open crosses, coded");
    assert_eq!(last.state, State::Broken);
    assert!(last.trouble.as_ref().unwrap().contains("not readable"));
    for choice in &choices {
        let mut changed = job.clone();
        changed.sheet.marks.clone_from(&choice.id);
        let prepared = prepare(&changed, &workshop).unwrap();
        assert_eq!(prepared.layout.per_sheet, choice.per_sheet);
        assert!((prepared.windows.cut.region.area() - choice.usable).abs() < 1e-6);
    }
    let mut bare = job;
    bare.pieces[0].face = None;
    assert!(compare_marks(&bare, &workshop, &Forgetful, || true).is_empty(), "nothing is printed");
}

#[test]
fn the_best_marks_can_be_read_and_printed_and_leave_no_less() {
    let (job, mut workshop) = (tomato(), workshop());
    let mut shares = Vec::new();
    let best = best_marks(&job, &workshop, &Forgetful, |done| {
        shares.push(done);
        true
    })
    .unwrap();
    assert!(shares.windows(2).all(|pair| pair[0] < pair[1]));
    assert_ne!(best.state, State::Broken, "{:?}", best.trouble);
    for choice in compare_marks(&job, &workshop, &Forgetful, || true) {
        let fits = choice.state != State::Broken;
        assert!(!fits || best.per_sheet >= choice.per_sheet);
        assert!(!fits || best.per_sheet > choice.per_sheet || best.usable >= choice.usable - 1.0);
    }
    // Added to the workshop it is what it was said to be.
    let id = RecordId("best".to_owned());
    assert!(best.set.validate(Unit::Mm).is_ok());
    workshop.mark_sets.insert(id.clone(), best.set.clone());
    let mut changed = job.clone();
    changed.sheet.marks = Some(id);
    let prepared = prepare(&changed, &workshop).unwrap();
    assert_eq!(prepared.layout.per_sheet, best.per_sheet);
    let marks = prepared.checks.iter().filter(|check| check.id.starts_with("marks-"));
    assert!(marks.clone().count() > 4 && marks.clone().all(|check| check.state != State::Broken));
    // A cutter that needs no marks has none that are best.
    workshop.cutters.get_mut(job.sheet.cutter.as_ref().unwrap()).unwrap().finds = Finds::Scan;
    assert!(best_marks(&job, &workshop, &Forgetful, |_| true).is_none());
}

#[test]
fn a_carrier_holds_what_it_holds_and_saves_the_sheet_from_the_rollers() {
    let workshop = workshop();
    let cutter = &workshop.cutters[&RecordId::from("desk-cutter")];
    let carrier = &workshop.carriers[&RecordId::from("desk-carrier-12")];
    let page = Rect::new(0.0, 0.0, 304.8, 304.8);
    let windows = |carrier: Option<&Carrier>| {
        let machines = Machines { cutter: Some(cutter), carrier, ..Machines::default() };
        machines.windows(page, Orientation::Portrait, &Marks::default())
    };
    // Without it the rollers take 10 mm all round; on it they run on its border, but 12 in of its 12 in are
    // held, so that only what hangs over the cutter's reach on the right is lost.
    assert_eq!(windows(None).cut.base, Rect::new(10.0, 10.0, 294.8, 294.8));
    let on = windows(Some(carrier));
    assert!((on.cut.base.x0, on.cut.base.y0) == (0.0, 0.0), "{:?}", on.cut.base);
    assert!((on.cut.base.x1 - (304.8 - 10.0 - 12.6)).abs() < 1e-9, "{:?}", on.cut.base);
    let small = Carrier { width: 200.0, ..carrier.clone() };
    let on = windows(Some(&small));
    assert!((on.cut.base.x1 - (200.0 - 2.0 * 12.6)).abs() < 1e-9);
    assert!(on.taken.iter().any(|taken| taken.by == TakenBy::Carrier));
    assert!(Carrier { border: Margins::all(120.0), ..small }.validate(Unit::Mm).is_err());
}

/// Common practice: some machines need about 100 mm of sheet behind the last marks, and a roll loses about an
/// inch at each side.
#[test]
fn lead_tail_and_the_sides_of_a_roll_take_their_room() {
    let (mut job, mut workshop) = (tomato(), workshop());
    job.sheet.cutter = Some("seed-loft-roll-cutter".into());
    job.sheet.marks = Some("four-angles".into());
    let stock = workshop.stocks.get_mut(&job.pieces[0].stock).unwrap();
    stock.roll = Some(Roll { side: 25.4 });
    stock.laminate = Some(Laminate { thickness: 0.08, clear_to_eye: true });
    let caliper = stock.caliper;
    let prepared = prepare(&job, &workshop).unwrap();
    let window = prepared.windows.cut.base;
    let page = prepared.windows.page;
    assert!((window.x0 - 25.4).abs() < 1e-9 && (page.x1 - window.x1 - 25.4).abs() < 1e-9);
    assert!((page.y1 - window.y1 - 100.0).abs() < 1e-9, "{window:?}");
    let tail = prepared.checks.iter().find(|check| check.id == "marks-tail").unwrap();
    assert_eq!(tail.state, State::Broken);
    assert_eq!(tail.verdict, "93.65 mm short");
    let card = prepared.checks.iter().find(|check| check.id == "caliper").unwrap();
    assert!((card.gauge.unwrap().value - caliper - 0.08).abs() < 1e-9, "laminate counts");
    let takers: Vec<TakenBy> = prepared.windows.taken.iter().map(|taken| taken.by).collect();
    for by in [TakenBy::RollSides, TakenBy::LeadTail, TakenBy::Eye] {
        assert!(takers.contains(&by), "{by:?} of {takers:?}");
    }
}

#[test]
fn cuts_keep_the_distance_to_the_marks_that_is_asked_for() {
    let (mut job, workshop) = (tomato(), workshop());
    let near = &prepare(&job, &workshop).unwrap().windows.cut.region;
    job.sheet.to_marks = 4.0;
    let far = &prepare(&job, &workshop).unwrap().windows.cut.region;
    assert!(far.area() < near.area());
    // Around each of three dots of 5 mm, 3 mm clear: discs of 5.5 mm grow to 9.5 mm.
    let discs = std::f64::consts::PI * (9.5 * 9.5 - 5.5 * 5.5);
    let lost = near.area() - far.area();
    assert!(lost < 3.0 * discs + 1.0 && lost > discs, "{lost} of {discs} each");
}

/// Derived: the price of the first size, A3 by its area.
#[test]
fn an_order_costs_its_sheets() {
    let (job, workshop) = (tomato(), workshop());
    let order = prepare(&job, &workshop).unwrap().order.clone();
    let stock = &workshop.stocks[&job.pieces[0].stock];
    let (first, price) = (&stock.sheets[0], stock.price.as_ref().unwrap());
    let (cost, currency) = order.cost().unwrap();
    let a3 = 297.0 * 420.0 / (first.width * first.height) * price.amount;
    assert!((cost - a3 * f64::from(order.cards[0].sheets)).abs() < 1e-9);
    assert_eq!(currency, "€");
    let mut without = workshop.clone();
    without.stocks.get_mut(&job.pieces[0].stock).unwrap().price = None;
    assert_eq!(prepare(&job, &without).unwrap().order.cost(), None);
}

#[test]
fn every_record_is_drawn_with_what_takes_its_room() {
    let workshop = workshop();
    let kinds = |record: Record| -> Vec<TakenBy> {
        let drawing = draw_record(&record, Unit::Mm);
        assert!(drawing.size.iter().all(|side| *side > 10.0));
        assert!(
            drawing.parts.iter().all(|part| part.path.starts_with('M') && !part.name.is_empty())
        );
        let mut kinds: Vec<TakenBy> = drawing.parts.iter().filter_map(|part| part.by).collect();
        kinds.dedup();
        kinds
    };
    let cutter = workshop.cutters[&RecordId::from("seed-loft-roll-cutter")].clone();
    let found = kinds(Record::Cutters(cutter));
    for by in [TakenBy::RollerStrips, TakenBy::LeadTail, TakenBy::Eye] {
        assert!(found.contains(&by), "{found:?}");
    }
    for (id, set) in &workshop.mark_sets {
        let found = kinds(Record::MarkSets(MarkSet { keep_clear: 3.0, ..set.clone() }));
        assert_eq!(found[0], TakenBy::KeepClear, "{id}");
    }
    for printer in workshop.printers.values() {
        assert_eq!(kinds(Record::Printers(printer.clone())), [TakenBy::PrinterMargin]);
    }
    for stock in workshop.stocks.values() {
        let mut stock = stock.clone();
        stock.sheets.push(SheetSize { name: "Strip".into(), width: 60.0, height: 600.0 });
        assert!(kinds(Record::Stocks(stock)).is_empty());
    }
    for carrier in workshop.carriers.values() {
        assert_eq!(kinds(Record::Carriers(carrier.clone())), [TakenBy::Carrier]);
    }
}

#[test]
fn a_square_sheet_is_offered_once_and_not_said_to_stand_or_lie() {
    let found = ways(&runner_bean(), &workshop());
    let sheets: Vec<&Way> = found.iter().filter(|way| way.kind == WayKind::Sheet).collect();
    let square = |way: &&&Way| way.job.sheet.size.width == way.job.sheet.size.height;
    let squares: Vec<&str> =
        sheets.iter().filter(square).map(|way| way.remedy.text.as_str()).collect();
    assert_eq!(squares, ["Use Ivory cover 80 lb, 12 × 12 in"]);
    assert!(sheets.iter().any(|way| way.remedy.text == "Use A3 upright"));
}

#[test]
fn a_kept_layout_goes_with_what_it_was_made_for() {
    let workshop = workshop();
    let mut job = runner_bean();
    let at = Placement { x: 0.0, y: 0.0, turn: 0.0, locked: true, ..Placement::default() };
    let runs = vec![SheetRun { sheets: 12, placements: vec![at] }];
    job.sheet.kept =
        Some(Kept { made: Made::ByHand, blanks: vec![LaidBlank::any("p1", "tag")], runs });
    let found = ways(&job, &workshop);
    assert!(found.len() > 5);
    for way in &found {
        let changed = applied(&job, way);
        assert_eq!(changed, way.job, "{}", way.remedy.text);
        let prepared = prepare(&changed, &workshop).unwrap();
        assert_eq!(prepared.layout.laid, job.pieces[0].copies, "{}", way.remedy.text);
    }
    for change in order_changes(&runner_bean(), &workshop, || true) {
        let words = &change.remedy.text;
        assert!(change.prepared.layout.laid > 0, "{words}");
        assert!(!words.contains("12 × 12 in upright"), "{words}");
    }
}

#[test]
fn the_piece_that_fits_nowhere_is_the_one_that_is_changed() {
    let workshop = workshop();
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/spring-table-set.json")).unwrap();
    job.pieces[1].form = aptum_core::form::Form::new(
        "straight-tuck",
        &[("length", 90.0), ("width", 60.0), ("height", 150.0)],
    );
    let found = ways(&job, &workshop);
    let made: Vec<&Way> =
        found.iter().filter(|way| matches!(way.kind, WayKind::Smaller | WayKind::Split)).collect();
    assert!(made.len() >= 2, "{found:?}");
    for way in &made {
        let fields = way.remedy.changes.iter().map(|change| change.field.as_str());
        assert!(fields.clone().all(|field| field.starts_with("pieces.p2.form")), "{way:?}");
        assert_eq!(way.job.pieces[0].form, job.pieces[0].form);
        assert_eq!(applied(&job, way), way.job, "what is offered is what was tried");
    }
}

#[test]
fn of_two_pieces_that_fit_nowhere_each_is_mended_in_turn() {
    let workshop = workshop();
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/spring-table-set.json")).unwrap();
    let too_large = |height: f64| {
        let sizes = [("length", 90.0), ("width", 60.0), ("height", height)];
        aptum_core::form::Form::new("straight-tuck", &sizes)
    };
    job.pieces[0].form = too_large(150.0);
    job.pieces[1].form = too_large(170.0);
    for expected in [vec![1, 0], vec![0]] {
        assert_eq!(misfits(&job, &workshop, &Forgetful), expected);
        let found = ways(&job, &workshop);
        let smaller = found.iter().find(|way| way.kind == WayKind::Smaller).unwrap();
        job = applied(&job, smaller);
    }
    assert_eq!(misfits(&job, &workshop, &Forgetful), Vec::<usize>::new());
    let prepared = prepare(&job, &workshop).unwrap();
    assert!(prepared.misfit.is_none() && prepared.layout.laid > 0);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(10))]

    /// Cartons and trays of any size: every way that is offered has been tried, and holds when its changes are
    /// made; the largest size that fits is the largest to a hundredth.
    #[test]
    fn whatever_is_offered_makes_room(
        structure in prop::sample::select(vec!["straight-tuck", "reverse-tuck", "four-corner-tray", "roll-over-mailer"]),
        length in 60.0..200.0f64, width in 40.0..150.0f64, height in 40.0..300.0f64,
    ) {
        let workshop = workshop();
        let mut job = runner_bean();
        let form = aptum_core::form::Form::new(
            structure, &[("length", length), ("width", width), ("height", height)],
        );
        prop_assume!(form.draw(0.4, job.unit).is_ok());
        job.pieces[0].form = form;
        let now = prepare(&job, &workshop).unwrap();
        prop_assume!(now.layout.laid == 0);
        for way in ways(&job, &workshop) {
            let changed = applied(&job, &way);
            prop_assert_eq!(&changed, &way.job);
            let prepared = prepare(&changed, &workshop).unwrap();
            prop_assert!(prepared.layout.per_sheet > 0, "{}", way.remedy.text);
            let is_whole = way.remedy.changes.len() == 3;
            if way.kind == WayKind::Smaller && is_whole {
                let mut larger = changed;
                for key in ["length", "width", "height"] {
                    let side = larger.pieces[0].form.chosen_mut().unwrap().figures.get_mut(key).unwrap();
                    *side = side.map(|side| side * 1.01 + 0.2);
                }
                let larger = prepare(&larger, &workshop);
                prop_assert!(larger.is_ok_and(|larger| larger.layout.per_sheet == 0));
            }
        }
    }
}
