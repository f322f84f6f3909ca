//! Workshop records: what is out of range is named with field, number and remedy.

use aptum_core::InputError;
use aptum_core::Workshop;
use aptum_core::sheet::{SheetSize, standard_sizes};
use aptum_core::units::{BasisSheet, CALIPER_POINT, Unit, grammage_from_basis_weight};
use aptum_core::workshop::{
    Corner, Cutter, DistanceFrom, EyeRange, Finds, MarkSet, MarkShape, MarkShapeName, Printer,
    RecordId, Stock, Tell,
};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn stock() -> Stock {
    workshop().stocks.remove(&RecordId::from("white-14pt")).unwrap()
}

fn printer() -> Printer {
    workshop().printers.remove(&RecordId::from("back-room-inkjet")).unwrap()
}

fn cutter() -> Cutter {
    workshop().cutters.remove(&RecordId::from("desk-cutter")).unwrap()
}

fn marks() -> MarkSet {
    workshop().mark_sets.remove(&RecordId::from("four-angles")).unwrap()
}

/// The one error, which must name the field and say something to do.
fn only(result: Result<(), Vec<InputError>>, field: &str) -> InputError {
    let errors = result.unwrap_err();
    assert_eq!(errors.len(), 1, "{errors:?}");
    assert_eq!(errors[0].field, field);
    assert!(!errors[0].remedy.text.is_empty());
    errors.into_iter().next().unwrap()
}

#[test]
fn stock_is_checked() {
    for (caliper, number) in
        [(0.0, Some(0.0)), (9.0, Some(9.0)), (f64::NAN, None), (-1.0, Some(-1.0))]
    {
        let error = only(Stock { caliper, ..stock() }.validate(Unit::Mm), "caliper");
        assert_eq!(error.number, number);
    }
    only(Stock { grammage: Some(5.0), ..stock() }.validate(Unit::Mm), "grammage");
    only(Stock { colour: "red".into(), ..stock() }.validate(Unit::Mm), "colour");
    only(Stock { colour: "#12345é".into(), ..stock() }.validate(Unit::Mm), "colour");
    only(Stock { sheets: Vec::new(), ..stock() }.validate(Unit::Mm), "sheets");
    let huge = SheetSize { name: "Barn door".into(), width: 1e9, height: 200.0 };
    only(Stock { sheets: vec![huge], ..stock() }.validate(Unit::Mm), "sheets.width");
    only(Stock { name: " ".into(), ..stock() }.validate(Unit::Mm), "name");
    only(Stock { name: "x".repeat(81), ..stock() }.validate(Unit::Mm), "name");
    only(Stock { name: "two\nlines".into(), ..stock() }.validate(Unit::Mm), "name");
    only(Stock { name: "turned \u{202e}round".into(), ..stock() }.validate(Unit::Mm), "name");
}

/// Derived: 14 pt = 14 × 0.001 in, and 110 lb cover by its basis sheet.
#[test]
fn the_demo_board_is_what_its_name_says() {
    let board = stock();
    assert!((board.caliper - 14.0 * CALIPER_POINT).abs() < 1e-9);
    let cover = grammage_from_basis_weight(110.0, BasisSheet::Cover);
    assert!((board.grammage.unwrap() - cover).abs() < 0.01);
    let ivory = workshop().stocks.remove(&RecordId::from("ivory-cover-80")).unwrap();
    let cover = grammage_from_basis_weight(80.0, BasisSheet::Cover);
    assert!((ivory.grammage.unwrap() - cover).abs() < 0.01);
}

#[test]
fn a_printer_is_checked() {
    only(Printer { width: 0.0, ..printer() }.validate(Unit::Mm), "width");
    only(Printer { length: f64::INFINITY, ..printer() }.validate(Unit::Mm), "length");
    let mut bad = printer();
    bad.margins.trail = -0.1;
    let error = only(bad.validate(Unit::Mm), "margins.trail");
    assert_eq!(error.remedy.changes[0].field, "margins.trail");
}

#[test]
fn a_cutter_is_checked() {
    only(Cutter { width: 10.0, ..cutter() }.validate(Unit::Mm), "width");
    only(Cutter { thickest: 0.0, ..cutter() }.validate(Unit::Mm), "thickest");
    only(Cutter { force: Some(-2.0), ..cutter() }.validate(Unit::Mm), "force");
    only(Cutter { stations: Vec::new(), ..cutter() }.validate(Unit::Mm), "stations");
    let eye = |shapes: Vec<MarkShapeName>, smallest| {
        Finds::Eye(EyeRange { shapes, smallest, edge: 5.0, keep_clear: 2.0 })
    };
    let none = Cutter { finds: eye(Vec::new(), 5.0), ..cutter() };
    only(none.validate(Unit::Mm), "finds.shapes");
    let tiny = Cutter { finds: eye(vec![MarkShapeName::Dot], 0.0), ..cutter() };
    only(tiny.validate(Unit::Mm), "finds.smallest");
    assert!(
        Finds::Crosshairs.by_marks() && !Finds::SheetEdge.by_marks() && !Finds::Scan.by_marks()
    );
}

#[test]
fn a_mark_set_is_checked() {
    only(MarkSet { across: -1.0, ..marks() }.validate(Unit::Mm), "across");
    only(MarkSet { keep_clear: 99.0, ..marks() }.validate(Unit::Mm), "keep_clear");
    let fat = MarkShape::Angle { arm: 10.0, stroke: 5.0 };
    let error = only(MarkSet { mark: fat, ..marks() }.validate(Unit::Mm), "mark.stroke");
    assert_eq!(error.message, "A stroke of 5 mm fills arms of 10 mm");
    let mended = MarkShape::Angle { arm: 10.0, stroke: 2.5 };
    assert!(MarkSet { mark: mended, ..marks() }.validate(Unit::Mm).is_ok(), "the remedy is right");
    only(
        MarkSet { mark: MarkShape::Dot { diameter: 0.0 }, ..marks() }.validate(Unit::Mm),
        "mark.diameter",
    );
}

#[test]
fn a_bad_record_is_named_by_kind_and_id() {
    let mut workshop = workshop();
    workshop.stocks.get_mut(&RecordId::from("kraft-300")).unwrap().caliper = 0.0;
    workshop.cutters.get_mut(&RecordId::from("desk-cutter")).unwrap().width = 0.0;
    let fields: Vec<_> =
        workshop.validate(Unit::Mm).unwrap_err().into_iter().map(|error| error.field).collect();
    assert_eq!(fields, ["stocks.kraft-300.caliper", "cutters.desk-cutter.width"]);
}

/// ISO 216 and ANSI/ASME Y14.1.
#[test]
fn sheets_have_their_published_sizes() {
    let size = |name: &str| {
        let found = standard_sizes().into_iter().find(|size| size.name == name).unwrap();
        (found.width, found.height)
    };
    assert_eq!(size("A5"), (148.0, 210.0));
    assert_eq!(size("A4"), (210.0, 297.0));
    assert_eq!(size("A3"), (297.0, 420.0));
    assert!((size("Letter").0 - 215.9).abs() < 1e-9 && (size("Letter").1 - 279.4).abs() < 1e-9);
    assert!((size("Tabloid").0 - 279.4).abs() < 1e-9 && (size("Tabloid").1 - 431.8).abs() < 1e-9);
}

#[test]
fn records_read_back_from_the_json_they_are_kept_in() {
    let workshop = workshop();
    let json = serde_json::to_string(&workshop).unwrap();
    assert_eq!(serde_json::from_str::<Workshop>(&json).unwrap(), workshop);
}

fn shapes() -> impl Strategy<Value = MarkShape> {
    prop_oneof![
        (4.0..30.0f64, 0.2..1.0f64).prop_map(|(arm, stroke)| MarkShape::Angle { arm, stroke }),
        (1.0..20.0f64).prop_map(|diameter| MarkShape::Dot { diameter }),
        (4.0..30.0f64, 0.2..1.0f64).prop_map(|(arm, stroke)| MarkShape::Cross { arm, stroke }),
    ]
}

proptest! {
    /// Every mark stands at its distances, in its own corner, inside its keep-clear.
    #[test]
    fn marks_stand_where_their_set_says(
        mark in shapes(), across in 0.0..30.0f64, along in 0.0..30.0f64, keep_clear in 0.0..5.0f64,
        first in 0..4usize, three: bool, printable: bool,
    ) {
        use aptum_core::geometry::{Rect, Region, Shape};
        let page = Rect::new(0.0, 0.0, 210.0, 297.0);
        let inner = Rect::new(4.0, 5.0, 204.0, 290.0);
        let set = MarkSet {
            name: "Any".into(), mark, across, along, keep_clear, keeping: Default::default(),
            first: Corner::ALL[first],
            tell: if three { Tell::MissingMark } else { Tell::Numeral },
            from: if printable { DistanceFrom::PrintableEdge } else { DistanceFrom::PaperEdge },
        };
        prop_assert!(set.validate(Unit::Mm).is_ok());
        let placed = aptum_core::sheet::place_marks(&set, page, inner, "");
        prop_assert_eq!(placed.marks.len(), if three { 3 } else { 4 });
        prop_assert_eq!(placed.marks[0].corner, set.first);
        let edges = if printable { inner } else { page };
        for mark in &placed.marks {
            let left = matches!(mark.corner, Corner::TopLeft | Corner::BottomLeft);
            let top = matches!(mark.corner, Corner::TopLeft | Corner::TopRight);
            let x = if left { mark.bounds.x0 - edges.x0 } else { edges.x1 - mark.bounds.x1 };
            let y = if top { mark.bounds.y0 - edges.y0 } else { edges.y1 - mark.bounds.y1 };
            prop_assert!((x - across).abs() < 1e-3 && (y - along).abs() < 1e-3, "{x} {y}");
            let clear = mark.keep_clear.bounds().unwrap();
            let ink = mark.ink.bounding_box();
            prop_assert!(clear.x0 <= ink.x0 - keep_clear + 0.02 && clear.y1 >= ink.y1 + keep_clear - 0.02);
            prop_assert!(Region::inside(&mark.ink).minus(&mark.keep_clear).area() < 0.05);
        }
        let span = placed.span().unwrap();
        prop_assert!((span.width() - (edges.width() - 2.0 * across)).abs() < 1e-3);
    }
}
