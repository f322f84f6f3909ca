//! Cartons against blanks worked out by hand, and figures that contradict each other.

use aptum_core::form::{Basis, Flat, Form, Role};
use aptum_core::units::Unit;
use aptum_core::{LineKind, State};

fn near(got: f64, want: f64) {
    assert!((got - want).abs() < 1e-6, "{got} instead of {want}");
}

fn carton(length: f64, width: f64, height: f64) -> Form {
    Form::new("straight-tuck", &[("length", length), ("width", width), ("height", height)])
}

fn measured(basis: Basis, mut form: Form) -> Form {
    form.chosen_mut().unwrap().basis = basis;
    form
}

fn with(form: Form, figures: &[(&str, f64)]) -> Form {
    let mut form = form;
    form.chosen_mut()
        .unwrap()
        .figures
        .extend(figures.iter().map(|(key, value)| ((*key).to_owned(), Some(*value))));
    form
}

fn draw(form: &Form, caliper: f64) -> Flat {
    form.draw(caliper, Unit::Mm).unwrap()
}

/// Common practice (mid-surface allowances), each part added up by hand.
#[test]
fn three_blanks_worked_out_by_hand() {
    // 60 × 30 × 90 inside in 0.4 mm card, all flaps at their defaults:
    // across: glue 13, front 60.4, side 30.4, back 60.8, side 30.2
    // along: tuck 12, panel 29.5, back 90 + 1.2, panel 29.5, tuck 12
    let flat = draw(&carton(60.0, 30.0, 90.0), 0.4);
    near(flat.bounds.width(), 13.0 + 60.4 + 30.4 + 60.8 + 30.2);
    near(flat.bounds.height(), 12.0 + 29.5 + 91.2 + 29.5 + 12.0);

    // 100 × 60 × 150 inside in 14 pt board (0.3556 mm), glue flap 15, tuck 18, clearance 1:
    // across: 15 + 100.3556 + 60.3556 + 100.7112 + 60.1778
    // along: 18 + 59 + 151.0668 + 59 + 18
    let form =
        with(carton(100.0, 60.0, 150.0), &[("glue", 15.0), ("tuck", 18.0), ("clearance", 1.0)]);
    let flat = draw(&form, 0.3556);
    near(flat.bounds.width(), 336.6002);
    near(flat.bounds.height(), 305.0668);

    // 40 × 20 × 60 outside in 1 mm board: inside 37 × 18 × 56; tuck 12 (a quarter of 18 is less):
    // across: 13 + 38 + 19 + 39 + 18.5; along: 12 + 17.5 + 59 + 17.5 + 12
    let flat = draw(&measured(Basis::Outside, carton(40.0, 20.0, 60.0)), 1.0);
    assert_eq!(flat.sizes.inside, [37.0, 18.0, 56.0]);
    near(flat.bounds.width(), 127.5);
    near(flat.bounds.height(), 118.0);
}

/// Common practice, added up by hand: the four-corner tray in 0.5 mm card.
#[test]
fn a_tray_worked_out_by_hand() {
    // 100 × 60 × 30 inside: base 100 + 1.5 by 60 + 0.5; walls 30.25; so across 2 × 30.25 + 101.5 and
    // along 2 × 30.25 + 60.5.
    let form =
        Form::new("four-corner-tray", &[("length", 100.0), ("width", 60.0), ("height", 30.0)]);
    let flat = draw(&form, 0.5);
    near(flat.bounds.width(), 162.0);
    near(flat.bounds.height(), 121.0);
}

#[test]
fn the_three_ways_of_measuring_agree() {
    let inside = carton(60.0, 30.0, 90.0);
    let drawn = draw(&inside, 0.4);
    let sizes = [(Basis::Outside, &drawn.sizes.outside), (Basis::Crease, &drawn.sizes.crease)];
    for (basis, given) in sizes {
        let other = measured(basis, carton(given[0], given[1], given[2]));
        let again = draw(&other, 0.4);
        near(again.bounds.width(), drawn.bounds.width());
        near(again.bounds.height(), drawn.bounds.height());
        let back = other.with_inside(&inside.inside(0.4), 0.4);
        assert!((back.chosen().unwrap().figures["length"].unwrap() - given[0]).abs() < 1e-9);
    }
}

#[test]
fn dimensions_say_what_a_drafter_would() {
    let flat = draw(&carton(60.0, 30.0, 90.0), 0.4);
    let text = |field: &str| {
        let of = |d: &&aptum_core::form::Dimension| d.field.as_deref() == Some(field);
        flat.dimensions.iter().find(of).unwrap().text.clone()
    };
    assert_eq!(text("form.length"), "60.4");
    assert_eq!(text("form.width"), "30.4");
    assert_eq!(text("form.height"), "90.4");
    assert_eq!(text("form.tuck"), "12");
    assert_eq!(text("form.glue"), "13");
    let overall: Vec<_> =
        flat.dimensions.iter().filter(|d| d.field.is_none()).map(|d| d.text.as_str()).collect();
    assert_eq!(overall, ["194.8", "174.2"]);
}

#[test]
fn figures_that_cannot_be_drawn_name_the_field_the_number_and_the_remedy() {
    let cases = [
        (carton(0.0, 30.0, 90.0), 0.4, "form.length"),
        (carton(60.0, -3.0, 90.0), 0.4, "form.width"),
        (carton(60.0, 30.0, 1e7), 0.4, "form.height"),
        (carton(60.0, 30.0, f64::NAN), 0.4, "form.height"),
        (carton(f64::INFINITY, 30.0, 90.0), 0.4, "form.length"),
        (with(carton(60.0, 30.0, 90.0), &[("tuck", 600.0)]), 0.4, "form.tuck"),
        (with(carton(60.0, 30.0, 90.0), &[("glue", -1.0)]), 0.4, "form.glue"),
        (with(carton(60.0, 30.0, 90.0), &[("dust", 400.0)]), 0.4, "form.dust"),
        (with(carton(60.0, 30.0, 90.0), &[("slit", 25.0)]), 0.4, "form.slit"),
        (with(carton(60.0, 30.0, 90.0), &[("clearance", 9.0)]), 0.4, "form.clearance"),
        (carton(60.0, 30.0, 90.0), 9.0, "form.width"),
        (carton(60.0, 30.0, 90.0), 0.0, "stock"),
        (Form::new("prism-petals", &[("sides", 2.0)]), 0.4, "form.sides"),
        (Form::new("prism-petals", &[("sides", 1000.0)]), 0.4, "form.sides"),
        (Form::new("prism-petals", &[("sides", 5.5)]), 0.4, "form.sides"),
    ];
    for (form, caliper, field) in cases {
        let errors = form.draw(caliper, Unit::Mm).unwrap_err();
        let error = errors.iter().find(|error| error.field == field).unwrap_or_else(|| {
            panic!("{field} is not named in {errors:?}");
        });
        assert!(error.message.chars().any(|c| c.is_ascii_digit()), "{}", error.message);
        assert!(!error.remedy.text.is_empty());
    }
    assert_eq!(
        Form::new("moebius", &[]).draw(0.3, Unit::Mm).unwrap_err()[0].field,
        "form.structure"
    );
}

#[test]
fn a_conflict_names_the_other_figure_and_the_nearest_value_works() {
    let form = with(carton(60.0, 30.0, 90.0), &[("slit", 25.0)]);
    let error = form.draw(0.4, Unit::Mm).unwrap_err().remove(0);
    assert!(error.message.contains("with length at 60 mm"), "{}", error.message);
    assert!(error.message.contains("5.33 mm too much"), "{}", error.message);
    let aptum_core::error::Setting::Number(nearest) = error.remedy.changes[0].value else {
        panic!("the remedy sets a number");
    };
    assert!(with(form, &[("slit", nearest)]).draw(0.4, Unit::Mm).is_ok());
}

#[test]
fn a_flap_longer_than_its_panel_is_drawn_and_said_to_be_broken() {
    let flat = draw(&with(carton(60.0, 30.0, 90.0), &[("tuck", 60.0)]), 0.4);
    let check = flat.checks.iter().find(|check| check.id == "tuck-top").unwrap();
    assert_eq!(check.state, State::Broken);
    assert_eq!(check.verdict, "15 mm too much");
    assert_eq!(check.remedies[0].changes[0].field, "form.tuck");
}

#[test]
fn flaps_stay_bare_and_faces_carry_print() {
    let flat = draw(&carton(60.0, 30.0, 90.0), 0.4);
    let names = |role| {
        let panels = flat.parts[0].panels.iter().filter(move |panel| panel.role == role);
        panels.map(|panel| panel.name.as_str()).collect::<Vec<_>>()
    };
    assert_eq!(names(Role::Glue), ["Glue flap"]);
    assert_eq!(names(Role::Face), ["Front", "Right side", "Back", "Top", "Left side", "Base"]);
    assert_eq!(names(Role::Flap).len(), 6);
}

/// Between flaps that stand out beyond their walls' creases by the caliper lies a slit, not a joint.
#[test]
fn neighbours_that_stand_out_are_parted() {
    let form = Form::new("snap-lock", &[("length", 72.0), ("width", 72.0), ("height", 95.0)]);
    let part = &draw(&form, 0.4).parts[0];
    let slits = part.strokes.iter().filter(|line| line.kind == LineKind::Cut).filter(|line| {
        let length = kurbo::Shape::perimeter(&line.path, 1e-6);
        (length - 0.4).abs() < 1e-6
    });
    assert!(slits.count() >= 1);
}
