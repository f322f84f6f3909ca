//! Add-ons: what they cut, that they stay with their panel, and what they are refused for.

use aptum_core::LineKind;
use aptum_core::error::{InputError, Setting};
use aptum_core::form::{AddOn, AddOnKind, Backing, Flat, Form};
use aptum_core::geometry::{BezPath, Point, Rect, Shape, gap};
use aptum_core::tooling::perforated;
use aptum_core::units::Unit;
use proptest::prelude::*;

const CARD: f64 = 0.4;

fn carton(add_ons: Vec<AddOn>) -> Form {
    let figures = [("length", 90.0), ("width", 60.0), ("height", 140.0)];
    let mut form = Form::new("straight-tuck", &figures);
    form.chosen_mut().unwrap().add_ons = add_ons;
    form
}

fn add_on(kind: AddOnKind, panel: &str) -> AddOn {
    let [width, height] = kind.standard();
    let panel = panel.to_owned();
    AddOn { kind, panel, across: 0.0, along: 0.0, width, height, cut: None, tie: None, own: None }
}

fn draw(add_ons: Vec<AddOn>) -> Flat {
    carton(add_ons).draw(CARD, Unit::Mm).unwrap()
}

fn refused(add_ons: Vec<AddOn>) -> InputError {
    carton(add_ons).draw(CARD, Unit::Mm).unwrap_err().remove(0)
}

fn front(flat: &Flat) -> Rect {
    flat.panel("Front").unwrap().bounding_box()
}

/// The cuts that lie well inside a panel's bounds.
fn cuts_on(flat: &Flat, panel: Rect) -> Vec<BezPath> {
    let inside = panel.inflate(-0.5, -0.5);
    flat.strokes()
        .into_iter()
        .filter(|line| line.kind == LineKind::Cut)
        .map(|line| line.path)
        .filter(|path| inside.contains_rect(path.bounding_box()))
        .collect()
}

#[test]
fn every_kind_fits_the_front_at_its_ordinary_size() {
    let plain = draw(Vec::new());
    // Words and drawings say themselves what is cut out.
    let known = |kind: &AddOnKind| !matches!(kind, AddOnKind::Words | AddOnKind::Drawing);
    for kind in AddOnKind::ALL.into_iter().filter(known) {
        let flat = draw(vec![add_on(kind, "Front")]);
        let changed = match kind {
            AddOnKind::ThumbNotch => plain.area() - flat.area() > 50.0,
            AddOnKind::TearStrip => {
                flat.strokes().iter().filter(|line| line.kind == LineKind::Perforation).count() == 2
            }
            _ => cuts_on(&flat, front(&flat)).len() == 1,
        };
        assert!(changed, "{kind:?}");
    }
}

/// Areas from any geometry handbook: rectangle, circle, ellipse, half circle on a rectangle.
#[test]
fn windows_take_the_area_of_their_shape() {
    let plain = draw(Vec::new()).area();
    let pi = std::f64::consts::PI;
    for (kind, area) in [
        (AddOnKind::WindowRectangle, 20.0 * 30.0),
        (AddOnKind::WindowRound, pi * 100.0),
        (AddOnKind::WindowOval, pi * 10.0 * 15.0),
        (AddOnKind::WindowArch, 20.0 * 20.0 + pi * 50.0),
        (AddOnKind::HandHole, 20.0 * 10.0 + pi * 100.0),
    ] {
        let window = AddOn { width: 20.0, height: 30.0, ..add_on(kind, "Back") };
        let cut = plain - draw(vec![window]).area();
        assert!((cut - area).abs() < 0.05, "{kind:?}: {cut} {area}");
    }
}

#[test]
fn it_stays_with_its_panel_when_sizes_change() {
    let window = AddOn { across: 12.0, along: -30.0, ..add_on(AddOnKind::WindowRound, "Front") };
    for (length, height) in [(90.0, 140.0), (70.0, 120.0), (140.0, 200.0)] {
        let mut form = carton(vec![window.clone()]);
        form.chosen_mut().unwrap().figures.insert("length".to_owned(), Some(length));
        form.chosen_mut().unwrap().figures.insert("height".to_owned(), Some(height));
        let flat = form.draw(CARD, Unit::Mm).unwrap();
        let middle = front(&flat).center();
        let hole = cuts_on(&flat, front(&flat))[0].bounding_box();
        assert!((hole.center().x - middle.x - 12.0).abs() < 1e-3);
        assert!((hole.center().y - middle.y + 30.0).abs() < 1e-3);
    }
}

#[test]
fn a_tear_strip_runs_from_edge_to_edge_and_begins_and_ends_with_a_cut() {
    let strip = AddOn { along: 20.0, height: 8.0, ..add_on(AddOnKind::TearStrip, "Back") };
    let flat = draw(vec![strip]);
    let panel = flat.panel("Back").unwrap().bounding_box();
    let strips: Vec<BezPath> = flat
        .strokes()
        .into_iter()
        .filter(|stroke| stroke.kind == LineKind::Perforation)
        .map(|stroke| perforated(&stroke.path, stroke.pattern.unwrap()))
        .collect();
    let heights: Vec<f64> = strips.iter().map(|path| path.bounding_box().y0).collect();
    assert!((heights[1] - heights[0] - 8.0).abs() < 1e-9);
    assert!(((heights[0] + heights[1]) / 2.0 - panel.center().y - 20.0).abs() < 1e-9);
    for path in &strips {
        let bounds = path.bounding_box();
        assert!((bounds.x0 - panel.x0).abs() < 1e-6 && (bounds.x1 - panel.x1).abs() < 1e-6);
        let cuts: Vec<f64> = path.subpaths().map(|cut| cut.bounding_box().width()).collect();
        // 3 mm cut and 1 mm tie; what is left over goes to both ends.
        let inner = &cuts[1..cuts.len() - 1];
        assert!(inner.iter().all(|cut| (cut - 3.0).abs() < 1e-9), "{inner:?}");
        assert!((cuts[0] - cuts[cuts.len() - 1]).abs() < 1e-9);
        assert!((2.0..=4.0).contains(&cuts[0]), "{}", cuts[0]);
    }
}

#[test]
fn a_thumb_notch_bites_the_nearest_free_edge_and_the_blank_stays_one_outline() {
    let notch =
        AddOn { along: -60.0, width: 20.0, height: 8.0, ..add_on(AddOnKind::ThumbNotch, "Front") };
    let (plain, flat) = (draw(Vec::new()), draw(vec![notch.clone()]));
    assert_eq!(flat.parts[0].outline.subpaths().count(), 1);
    // A circle's segment of chord 20 and height 8: r²(φ − sin φ)/2.
    let radius: f64 = (100.0 + 64.0) / 16.0;
    let sweep = 4.0 * (8.0f64 / 10.0).atan();
    let area = radius * radius * (sweep - sweep.sin()) / 2.0;
    assert!((plain.area() - flat.area() - area).abs() < 0.05);
    // The same below the middle bites the lower edge.
    let below = draw(vec![AddOn { along: 60.0, ..notch.clone() }]);
    let lowest = |flat: &Flat| {
        let panel = flat.panel("Front").unwrap();
        let at = Point::new(panel.bounding_box().center().x, panel.bounding_box().y1);
        gap(&aptum_core::geometry::circle(at, 0.1), &flat.outline())
    };
    assert!(lowest(&below) > 5.0 && lowest(&flat) < 0.2);
    // Sides have no free edge: their flaps take all of it.
    let error = refused(vec![AddOn { width: 50.0, ..add_on(AddOnKind::ThumbNotch, "Right side") }]);
    assert_eq!(error.field, "form.add_ons.0.width");
    assert!(error.message.contains("no free edge of 54 mm"), "{}", error.message);
}

#[test]
fn what_meets_a_crease_an_edge_or_another_cut_is_refused_with_the_distance() {
    // The front is 90.4 wide: a hole of 6 at 41.2 from the middle is 1 mm from its crease.
    let hole = |across: f64| AddOn { across, ..add_on(AddOnKind::HangHole, "Front") };
    let error = refused(vec![hole(41.2)]);
    assert_eq!(error.field, "form.add_ons.0.across");
    assert!(error.message.contains("1 mm from a crease"), "{}", error.message);
    assert!(error.message.contains("it must keep 2 mm"), "{}", error.message);
    assert!(refused(vec![hole(44.0)]).message.contains("meets a crease"));
    assert!(refused(vec![hole(80.0)]).message.contains("meets a crease"), "off the panel");
    let error = refused(vec![hole(0.0), hole(5.0)]);
    assert_eq!(error.field, "form.add_ons.1.across");
    let inside = AddOn { width: 40.0, ..add_on(AddOnKind::WindowRound, "Front") };
    assert_eq!(refused(vec![inside, hole(0.0)]).field, "form.add_ons.1.across", "one in the other");
}

#[test]
fn nonsense_is_answered_with_field_number_and_remedy() {
    let base = add_on(AddOnKind::WindowRectangle, "Front");
    for (bad, field) in [
        (AddOn { width: 0.0, ..base.clone() }, "width"),
        (AddOn { height: -4.0, ..base.clone() }, "height"),
        (AddOn { width: 1e7, ..base.clone() }, "width"),
        (AddOn { across: f64::NAN, ..base.clone() }, "across"),
        (AddOn { along: f64::INFINITY, ..base.clone() }, "along"),
        (AddOn { panel: "Nowhere".to_owned(), ..base.clone() }, "panel"),
        (AddOn { tie: Some(99.0), ..add_on(AddOnKind::TearStrip, "Front") }, "tie"),
        (AddOn { along: 500.0, ..add_on(AddOnKind::TearStrip, "Front") }, "along"),
    ] {
        let error = refused(vec![bad]);
        assert_eq!(error.field, format!("form.add_ons.0.{field}"), "{}", error.message);
        assert!(!error.remedy.text.is_empty());
    }
    let many = vec![base; 61];
    assert_eq!(refused(many).field, "form.add_ons");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever the place and size: either it keeps its distance, or the way out that is offered does.
    #[test]
    fn the_way_out_always_works(
        kind in 0..12usize, across in -60.0..60.0f64, along in -90.0..90.0f64,
        width in 0.5..150.0f64, height in 0.5..150.0f64,
    ) {
        let kind = AddOnKind::ALL[kind];
        let wanted = AddOn { across, along, width, height, ..add_on(kind, "Front") };
        let Err(errors) = carton(vec![wanted.clone()]).draw(CARD, Unit::Mm) else { return Ok(()) };
        let error = &errors[0];
        if error.remedy.changes.is_empty() {
            return Ok(());
        }
        let mut mended = wanted;
        for change in &error.remedy.changes {
            let Setting::Number(value) = change.value else { continue };
            match change.field.rsplit('.').next().unwrap() {
                "across" => mended.across = value,
                "along" => mended.along = value,
                "width" => mended.width = value,
                _ => mended.height = value,
            }
        }
        let again = carton(vec![mended.clone()]).draw(CARD, Unit::Mm);
        prop_assert!(again.is_ok(), "{mended:?}: {}", again.unwrap_err()[0].message);
    }
}

#[test]
fn a_backing_layer_follows_the_outline_at_its_distance() {
    let form = |border: f64| Form {
        backing: Some(Backing { stock: "red".into(), border }),
        ..Form::new("tag-round", &[("width", 50.0)])
    };
    let flat = form(3.0).draw(CARD, Unit::Mm).unwrap();
    assert_eq!(flat.parts.len(), 2);
    let layer = &flat.parts[1];
    assert_eq!(layer.stock.as_ref().unwrap().0, "red");
    // A circle of 25 grown by 3 is one of 28: πr², from any geometry handbook.
    let area = std::f64::consts::PI * 28.0 * 28.0;
    assert!((layer.outline.area().abs() - area).abs() < 1e-3 * area);
    assert!((layer.bounds.width() - 56.0).abs() < 0.02);
    for bad in [-1.0, 51.0, f64::NAN] {
        let error = form(bad).draw(CARD, Unit::Mm).unwrap_err().remove(0);
        assert_eq!(error.field, "form.backing.border");
    }
}
