//! Records of the workshop: every figure has its bounds, and every remedy makes it sound again.

use aptum_core::check::{Check, State};
use aptum_core::face::Layer;
use aptum_core::geometry::{Rect, Region, Shape};
use aptum_core::sheet::{
    DrawnAs, Machines, Marks, Orientation, TakenBy, Windows, draw_record, place_marks,
};
use aptum_core::units::Unit;
use aptum_core::workshop::{
    Carrier, Cutter, Field, Laminate, Margins, MarkSet, PrintableSide, Printer, Record, RecordId,
};
use aptum_core::{Job, Workshop, prepare};
use proptest::prelude::*;
use serde_json::{Value, json};

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn tomato() -> Job {
    serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap()
}

/// Every record of the demo as JSON with its kind.
fn records() -> Vec<Value> {
    let all = serde_json::to_value(workshop()).unwrap();
    let mut found = Vec::new();
    for (kind, records) in all.as_object().unwrap() {
        for record in records.as_object().unwrap().values() {
            let mut record = record.clone();
            record["kind"] = json!(kind);
            found.push(record);
        }
    }
    found
}

/// The dotted paths of the numbers in an object; what lies in lists goes without its index, as errors name it.
fn numbers(value: &Value, path: &str, pointer: &str, found: &mut Vec<(String, String)>) {
    match value {
        Value::Number(_) => found.push((path.to_owned(), pointer.to_owned())),
        Value::Object(fields) => {
            for (name, inner) in fields {
                let path = if path.is_empty() { name.clone() } else { format!("{path}.{name}") };
                numbers(inner, &path, &format!("{pointer}/{name}"), found);
            }
        }
        Value::Array(items) => {
            if let Some(first) = items.first() {
                numbers(first, path, &format!("{pointer}/0"), found);
            }
        }
        _ => {}
    }
}

#[test]
fn every_figure_has_bounds_and_its_remedy_is_within_them() {
    let mut tried = 0;
    for whole in records() {
        let sound: Record = serde_json::from_value(whole.clone()).unwrap();
        sound.validate(Unit::Mm).unwrap();
        let mut found = Vec::new();
        numbers(&whole, "", "", &mut found);
        for (path, pointer) in found {
            for absurd in [-1e6, 1e9, f64::MAX] {
                let mut changed = whole.clone();
                *changed.pointer_mut(&pointer).unwrap() = json!(absurd);
                let Ok(record) = serde_json::from_value::<Record>(changed.clone()) else {
                    assert!(pointer.ends_with("passes"), "{pointer} is a whole number");
                    tried += 1;
                    continue;
                };
                let errors = record.validate(Unit::Mm).expect_err(&path);
                let error = errors
                    .iter()
                    .find(|error| path.starts_with(&error.field) || error.field.starts_with(&path))
                    .unwrap_or_else(|| panic!("{path} = {absurd} of {errors:?}"));
                assert!(!error.message.is_empty() && !error.remedy.text.is_empty(), "{path}");
                tried += 1;
                // One change puts right what one change put wrong, unless two figures contradict each other.
                let [change] = error.remedy.changes.as_slice() else { continue };
                if change.field == path {
                    *changed.pointer_mut(&pointer).unwrap() =
                        serde_json::to_value(&change.value).unwrap();
                    let again: Record = serde_json::from_value(changed).unwrap();
                    let left = again.validate(Unit::Mm).err().unwrap_or_default();
                    assert!(
                        left.iter().all(|other| other.message != error.message),
                        "{path} = {absurd}: {left:?}"
                    );
                }
            }
        }
    }
    assert!(tried > 150, "{tried}");
}

/// Lengths that a unit writes differently, among them none in another unit’s name.
#[test]
fn faults_and_drawings_are_written_in_the_unit_that_is_asked_for() {
    let others = |unit: Unit| {
        [(Unit::Mm, " mm"), (Unit::Cm, " cm"), (Unit::In, " in")]
            .into_iter()
            .filter(move |(other, _)| *other != unit)
            .map(|(_, ending)| ending)
    };
    let speaks = |text: &str, unit: Unit| {
        let words: Vec<&str> = text.split([',', ':', '.', ';']).collect();
        // “in” is a word too: only after a figure is it a unit.
        let is_unit = |part: &&str, ending: &str| {
            part.match_indices(ending).any(|(at, _)| {
                let after = &part[at + ending.len()..];
                part[..at].ends_with(|c: char| c.is_ascii_digit())
                    && !after.starts_with(char::is_alphanumeric)
            })
        };
        others(unit).find(|ending| words.iter().any(|part| is_unit(part, ending)))
    };
    let mut lengths = 0;
    for mut whole in records() {
        // Names are the users’ own, and some of the demo’s hold a length.
        whole["name"] = json!("Nameless");
        for size in whole["sheets"].as_array_mut().into_iter().flatten() {
            size["name"] = json!("Size");
        }
        for unit in Unit::ALL {
            let record: Record = serde_json::from_value(whole.clone()).unwrap();
            for part in draw_record(&record, unit).parts {
                assert_eq!(speaks(&part.name, unit), None, "{}", part.name);
            }
            let mut found = Vec::new();
            numbers(&whole, "", "", &mut found);
            for (_, pointer) in found {
                let mut changed = whole.clone();
                *changed.pointer_mut(&pointer).unwrap() = json!(-12.7);
                let Ok(record) = serde_json::from_value::<Record>(changed) else { continue };
                for error in record.validate(unit).unwrap_err() {
                    assert_eq!(speaks(&error.message, unit), None, "{}", error.message);
                    assert_eq!(speaks(&error.remedy.text, unit), None, "{}", error.remedy.text);
                    let own = match unit {
                        Unit::Mm => "-12.7 mm",
                        Unit::Cm => "-1.27 cm",
                        Unit::In => "-1/2 in",
                    };
                    lengths += usize::from(error.message.contains(own));
                }
            }
        }
    }
    assert!(lengths > 150, "{lengths} lengths were read");
}

#[test]
fn a_drawing_stays_within_its_size_and_changes_with_the_figures() {
    for whole in records() {
        let record: Record = serde_json::from_value(whole.clone()).unwrap();
        let drawing = draw_record(&record, Unit::Mm);
        let frame = Rect::new(0.0, 0.0, drawing.size[0], drawing.size[1]).inflate(0.01, 0.01);
        assert!(
            drawing
                .parts
                .iter()
                .any(|part| part.what == DrawnAs::Sheet || part.what == DrawnAs::Frame)
        );
        for part in &drawing.parts {
            assert!(!part.name.is_empty());
            let path = kurbo::BezPath::from_svg(&part.path).unwrap();
            let bounds = path.bounding_box();
            // Signs may stand out of what they point at.
            if part.what != DrawnAs::Sign {
                assert!(frame.union(bounds) == frame, "{} of {}", part.name, record.name());
            }
        }
        let size = ["width", "diameter", "caliper"].iter().find(|name| whole[**name].is_number());
        if let Some(name) = size.filter(|name| **name == "width") {
            let mut larger = whole.clone();
            larger[*name] = json!(larger[*name].as_f64().unwrap() + 20.0);
            let larger: Record = serde_json::from_value(larger).unwrap();
            assert_ne!(draw_record(&larger, Unit::Mm), drawing, "{}", record.name());
        }
    }
}

fn check<'a>(checks: &'a [Check], id: &str) -> Option<&'a Check> {
    checks.iter().find(|check| check.id == id)
}

#[test]
fn card_that_takes_no_print_is_said_and_another_card_puts_it_right() {
    let (job, mut workshop) = (tomato(), workshop());
    assert!(check(&prepare(&job, &workshop).unwrap().checks, "stock-printable").is_none());
    workshop.stocks.get_mut(&job.pieces[0].stock).unwrap().printable = PrintableSide::Neither;
    let prepared = prepare(&job, &workshop).unwrap();
    let found = check(&prepared.checks, "stock-printable").unwrap();
    assert_eq!(found.state, State::Broken);
    let change = &found.remedies[0].changes[0];
    assert_eq!(change.field, "pieces.p1.stock");
    let mut other = job.clone();
    let aptum_core::error::Setting::Text(id) = &change.value else { panic!("{change:?}") };
    other.pieces[0].stock = RecordId::from(id.as_str());
    assert!(check(&prepare(&other, &workshop).unwrap().checks, "stock-printable").is_none());
    // What is only cut needs no print.
    let mut bare = job;
    bare.pieces[0].face = None;
    assert!(check(&prepare(&bare, &workshop).unwrap().checks, "stock-printable").is_none());
}

#[test]
fn the_thickest_piece_is_the_one_that_gets_thinner_card() {
    let workshop = workshop();
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/spring-table-set.json")).unwrap();
    job.pieces[2].stock = "grey-board-1".into();
    let prepared = prepare(&job, &workshop).unwrap();
    let card = check(&prepared.checks, "caliper").unwrap();
    assert_eq!(card.state, State::Broken, "1 mm in a cutter for 0.8 mm");
    assert_eq!(card.remedies[0].changes[0].field, "pieces.p3.stock");
}

#[test]
fn marks_that_are_retired_or_cannot_be_read_are_not_offered() {
    let (mut job, mut workshop) = (tomato(), workshop());
    job.sheet.marks = None;
    let offered = |workshop: &Workshop| -> Vec<String> {
        let prepared = prepare(&job, workshop).unwrap();
        let remedies = &check(&prepared.checks, "marks").unwrap().remedies;
        remedies.iter().map(|remedy| remedy.text.clone()).collect()
    };
    assert_eq!(offered(&workshop), ["Use Four angles, ¼ in", "Use Three dots, 10 mm"]);
    let dots = workshop.mark_sets.get_mut(&"three-dots".into()).unwrap();
    dots.keeping = aptum_core::workshop::Keeping::Retired;
    assert_eq!(offered(&workshop), ["Use Four angles, ¼ in"]);
}

#[test]
fn the_sides_of_any_card_from_a_roll_count() {
    let mut workshop = workshop();
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/spring-table-set.json")).unwrap();
    job.pieces[1].stock = "white-14pt".into();
    let roll = aptum_core::workshop::Roll { side: 25.4 };
    workshop.stocks.get_mut(&"white-14pt".into()).unwrap().roll = Some(roll);
    let window = prepare(&job, &workshop).unwrap().windows.cut.base;
    assert!((window.x0 - 25.4).abs() < 1e-9, "{window:?}");
}

fn backed(stock: &str) -> Job {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/plant-tag.json")).unwrap();
    job.pieces[0].form.backing.as_mut().unwrap().stock = stock.into();
    job
}

#[test]
fn a_backing_layers_card_goes_through_the_cutter_too() {
    let mut workshop = workshop();
    let job = backed("grey-board-1");
    let card = |job: &Job, workshop: &Workshop| {
        check(&prepare(job, workshop).unwrap().checks, "caliper").unwrap().clone()
    };
    let broken = card(&job, &workshop);
    assert_eq!(broken.state, State::Broken, "1 mm in a cutter for 0.8 mm");
    assert_eq!(broken.remedies[0].changes[0].field, "pieces.p1.form.backing.stock");
    assert_eq!(card(&backed("white-14pt"), &workshop).state, State::Fits);

    // Its roll's sides take room as any other card's.
    let before = prepare(&backed("white-14pt"), &workshop).unwrap().windows.cut.base;
    let roll = aptum_core::workshop::Roll { side: 40.0 };
    workshop.stocks.get_mut(&"white-14pt".into()).unwrap().roll = Some(roll);
    let after = prepare(&backed("white-14pt"), &workshop).unwrap().windows.cut.base;
    assert!(before.x0 < 39.0 && (after.x0 - 40.0).abs() < 1e-9, "{before:?}, {after:?}");
}

/// ISO 216 and the sizes of ANSI: A3 is 297 × 420 mm, tabloid 279.4 × 431.8 mm, so neither is cut from the other.
#[test]
fn card_that_is_kept_in_smaller_sheets_only_is_pointed_out() {
    let workshop = workshop();
    let sizes = |job: &Job| -> Vec<Check> {
        let checks = prepare(job, &workshop).unwrap().checks;
        checks.into_iter().filter(|check| check.id.starts_with("card-size")).collect()
    };
    assert!(sizes(&backed("white-14pt")).is_empty());
    let mut job = backed("ivory-cover-80");
    let found = sizes(&job);
    assert_eq!(found.len(), 1, "{found:?}");
    assert_eq!(found[0].state, State::Attention);
    assert_eq!(found[0].verdict, "Ivory cover 80 lb is not kept as large as A3");
    // A4 is no sheet of it either, and is cut from tabloid.
    job.sheet.size =
        aptum_core::sheet::SheetSize { name: "A4".into(), width: 210.0, height: 297.0 };
    assert!(sizes(&job).is_empty());
    // Each piece's card counts, and each card once.
    let mut set: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/spring-table-set.json")).unwrap();
    for piece in &mut set.pieces {
        piece.stock = "jar-label-paper".into();
    }
    set.pieces[0].stock = "ivory-cover-80".into();
    assert_eq!(sizes(&set).len(), 2);
    let texts: Vec<&str> = found[0].remedies.iter().map(|remedy| remedy.text.as_str()).collect();
    assert_eq!(texts, ["Use Tabloid upright", "Use Tabloid on its side"]);
}

/// Common practice: colour goes 1 to 3 mm past the cut.
#[test]
fn white_edges_ask_for_bleed_and_other_card_does_not() {
    let (mut job, mut workshop) = (tomato(), workshop());
    let state = |job: &Job, workshop: &Workshop| {
        let prepared = prepare(job, workshop).unwrap();
        check(&prepared.checks, "white-edges").map(|check| (check.state, check.remedies.clone()))
    };
    assert_eq!(state(&job, &workshop).unwrap().0, State::Fits, "a millimetre is enough");
    job.pieces[0].face.as_mut().unwrap().bleed = 0.2;
    let (short, remedies) = state(&job, &workshop).unwrap();
    assert_eq!((short, remedies[0].text.as_str()), (State::Attention, "Set the bleed to 1 mm"));
    // Bleed that the neighbours hold back is too little as well.
    job.pieces[0].face.as_mut().unwrap().bleed = 2.0;
    job.sheet.spacing = 1.0;
    let (held, remedies) = state(&job, &workshop).unwrap();
    assert_eq!((held, remedies[0].text.as_str()), (State::Attention, "Set the spacing to 2 mm"));
    job.pieces[0].face.as_mut().unwrap().layers.clear();
    assert!(state(&job, &workshop).is_none(), "nothing is coloured up to the cut");
    job.pieces[0].face.as_mut().unwrap().layers = vec![Layer::colour("colour", "#c0d0e0")];
    workshop.stocks.get_mut(&job.pieces[0].stock).unwrap().white_edges = false;
    assert!(state(&job, &workshop).is_none());
}

#[test]
fn a_film_over_the_marks_is_looked_at_unless_the_eye_reads_through_it() {
    let (job, mut workshop) = (tomato(), workshop());
    let mut with = |clear_to_eye: bool| {
        let stock = workshop.stocks.get_mut(&job.pieces[0].stock).unwrap();
        stock.laminate = Some(Laminate { thickness: 0.05, clear_to_eye });
        let checks = prepare(&job, &workshop).unwrap().checks;
        check(&checks, "marks-under-film").map(|check| check.state)
    };
    assert_eq!((with(false), with(true)), (Some(State::Attention), None));
}

#[test]
fn a_carrier_must_go_through_the_cutter_and_not_the_sheet_on_it() {
    let (mut job, mut workshop) = (tomato(), workshop());
    job.sheet.cutter = Some("desk-cutter".into());
    job.sheet.carrier = Some("desk-carrier-12".into());
    let width = |workshop: &Workshop| {
        let checks = prepare(&job, workshop).unwrap().checks;
        check(&checks, "cutter-width").unwrap().gauge.unwrap()
    };
    // The carrier is 330 mm wide and the cutter takes 304.8.
    let gauge = width(&workshop);
    assert!((gauge.value - 330.0).abs() < 1e-9 && (gauge.bound - 304.8).abs() < 1e-9);
    let carrier = workshop.carriers.get_mut(&"desk-carrier-12".into()).unwrap();
    carrier.width = 300.0;
    assert!((width(&workshop).value - 300.0).abs() < 1e-9);
}

fn margins(most: f64) -> impl Strategy<Value = Margins> {
    let side = move || 0.0..most;
    (side(), side(), side(), side()).prop_map(|(lead, trail, left, right)| Margins {
        lead,
        trail,
        left,
        right,
    })
}

/// A ring with its hole left out, as the page's hatches are filled.
fn even_odd(path: &kurbo::BezPath) -> Region {
    let mut parts =
        path.subpaths().map(|part| Region::inside(&kurbo::BezPath::from_vec(part.to_vec())));
    let first = parts.next().unwrap();
    parts.fold(first, |all, part| {
        let outside = part.minus(&all);
        if outside.area() > 1e-9 { all.union(&part) } else { all.minus(&part) }
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(120))]

    /// Whatever the machines: the cut window and what is taken from it are the page, and lie on it apart.
    #[test]
    fn the_cut_window_and_what_takes_the_rest_are_the_page(
        page in (150.0..600.0f64, 150.0..600.0f64),
        prints in margins(15.0), rolls in margins(40.0), border in margins(30.0),
        reach in (120.0..650.0f64, 120.0..650.0f64), tail in 0.0..60.0f64, lead in 0.0..40.0f64,
        sides in prop_oneof![Just(0.0), 1.0..30.0f64],
        carried in any::<bool>(), within in any::<bool>(), landscape in any::<bool>(),
        set in prop::sample::select(vec!["four-angles", "three-dots", "four-crosses"]),
    ) {
        let workshop = workshop();
        let printer = Printer {
            margins: prints, ..workshop.printers[&RecordId::from("back-room-inkjet")].clone()
        };
        let cutter = Cutter {
            margins: rolls,
            width: reach.0,
            length: reach.1,
            lead,
            tail,
            field: if within { Field::WithinMarks } else { Field::WholeReach },
            ..workshop.cutters[&RecordId::from("reading-room-cutter")].clone()
        };
        let carrier = Carrier {
            border,
            width: page.0 + 20.0,
            length: page.1 + 20.0,
            ..workshop.carriers[&RecordId::from("desk-carrier-12")].clone()
        };
        let set: &MarkSet = &workshop.mark_sets[&RecordId::from(set)];
        let machines = Machines {
            backs: false,
            printer: Some(&printer),
            cutter: Some(&cutter),
            carrier: carried.then_some(&carrier),
            sides,
            to_marks: 0.0,
        };
        let page = Rect::new(0.0, 0.0, page.0, page.1);
        let orientation = if landscape { Orientation::Landscape } else { Orientation::Portrait };
        let marks: Marks = place_marks(set, page, machines.printable(page, orientation), "00000");
        let Windows { cut, taken, .. } = machines.windows(page, orientation, &marks);
        let whole = Region::rect(page);
        let mut covered = cut.region.clone();
        for part in &taken {
            if matches!(part.by, TakenBy::PrinterMargin | TakenBy::Eye) {
                continue;
            }
            let area = even_odd(&part.path).intersection(&whole);
            let both = area.intersection(&cut.region).area();
            prop_assert!(both < 1e-3 * page.area().sqrt(), "{:?} takes {both} mm² of the window", part.by);
            covered = covered.union(&area);
        }
        let missing = whole.minus(&covered).area();
        prop_assert!(missing < 1e-3 * page.area().sqrt(), "{missing} mm² are taken by nobody");
        prop_assert!(cut.region.minus(&whole).area() < 1e-3, "the window lies on the page");
    }
}
