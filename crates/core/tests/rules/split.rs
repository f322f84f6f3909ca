//! Pieces in two parts: what is cut apart must fold as the whole did.

use aptum_core::check::State;
use aptum_core::fold::{FoldModel, Pose, fold_checks};
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::{Flat, Form, JOIN_FLAP, Split, SplitBy};
use aptum_core::geometry::Point;
use aptum_core::units::Unit;

const CALIPER: f64 = 0.4;

fn split(panel: &str, by: SplitBy, at: f64) -> Option<Split> {
    Some(Split { panel: panel.to_owned(), by, at, flap: 13.0 })
}

fn draw(form: &Form) -> Option<Flat> {
    form.draw(CALIPER, Unit::Mm).ok()
}

/// How far the panels of the blank that was cut apart lie from where they lie in the whole, both closed, seen
/// from the panel that the second part is joined to, mm.
fn apart(one: &Flat, other: &Flat) -> f64 {
    let (a, b) = (FoldModel::new(one, CALIPER).unwrap(), FoldModel::new(other, CALIPER).unwrap());
    let (pose_a, pose_b) = (Pose::at(&a, a.closed()), Pose::at(&b, b.closed()));
    let joined = other.parts.iter().find_map(|part| part.joined.as_ref()).unwrap();
    let (at_a, at_b) = (a.index(&joined.panel).unwrap(), b.index(&joined.panel).unwrap());
    let (from_a, from_b) = (pose_a.0[at_a].inverse(), pose_b.0[at_b].inverse());
    let mut most = 0.0f64;
    let blank = a.panels[at_a].part;
    for (index, panel) in a.panels.iter().enumerate().filter(|(_, panel)| panel.part == blank) {
        let Some(same) = b.index(&panel.name) else { continue };
        for corner in [Point::ZERO, Point::new(30.0, 0.0), Point::new(0.0, 30.0)] {
            let here = from_a * pose_a.point(index, corner);
            let there = from_b * pose_b.point(same, corner);
            most = most.max((here - there).norm());
        }
    }
    most
}

#[test]
fn a_carton_in_two_parts_closes_as_the_whole_does() {
    let whole = Form::new("straight-tuck", &[("length", 72.0), ("width", 40.0), ("height", 110.0)]);
    let mut parted = whole.clone();
    parted.chosen_mut().unwrap().split = split("Back", SplitBy::Crease, 0.0);
    let (one, two) = (draw(&whole).unwrap(), draw(&parted).unwrap());
    assert_eq!((one.parts.len(), two.parts.len()), (1, 2));
    assert!(apart(&one, &two) < 1e-9, "{}", apart(&one, &two));

    // Either part is as large as what it holds: walls and flaps, and on the first the join flap.
    let widths: Vec<f64> = two.parts.iter().map(|part| part.bounds.width()).collect();
    assert!((widths[0] - (13.0 + 72.0 + 40.0 + 13.0 + CALIPER)).abs() < 1.0, "{widths:?}");
    assert!((widths[1] - (72.0 + 40.0 + 3.0 * CALIPER)).abs() < 1.0, "{widths:?}");

    let model = FoldModel::new(&two, CALIPER).unwrap();
    let checks = fold_checks(&two, &model, Unit::Mm);
    for check in &checks {
        assert_ne!(check.state, State::Broken, "{}: {}", check.label, check.value_text);
    }
    assert!(checks.iter().any(|check| check.label == "Glue lies flat"));
    let first = &model.steps[0].text;
    assert!(first.contains("glue") && first.contains("join flap"), "{first}");
}

#[test]
fn whatever_can_be_cut_apart_comes_together_again() {
    let (mut creases, mut across) = (0, 0);
    for structure in CATALOGUE {
        let whole = Form::new(structure.id, &[]);
        let flat = draw(&whole).unwrap();
        let names: Vec<String> = flat.panels().map(|(panel, _)| panel.name.clone()).collect();
        for name in &names {
            for (by, at) in
                [(SplitBy::Crease, 0.0), (SplitBy::Across, 21.0), (SplitBy::Along, 21.0)]
            {
                let mut parted = whole.clone();
                parted.chosen_mut().unwrap().split = split(name, by, at);
                let Some(two) = draw(&parted) else { continue };
                let what = format!("{} at {name} {by:?}", structure.id);
                assert_eq!(two.parts.len(), flat.parts.len() + 1, "{what}");
                assert!(apart(&flat, &two) < 1e-6, "{what}: {}", apart(&flat, &two));
                // Nothing is lost but the caliper by which the flap's crease is set back.
                let flap = two.panels().find(|(panel, _)| panel.name == JOIN_FLAP).unwrap();
                let (flap, long) = (kurbo::Shape::area(&flap.1).abs(), flap.0.hinge_length());
                let lost = flat.area() + flap - two.area();
                let most = if by == SplitBy::Crease { 2.0 * CALIPER * (long + 2.0) } else { 1e-6 };
                assert!((-1e-6..=most).contains(&lost), "{what}: {lost} of {most}");
                match by {
                    SplitBy::Crease => creases += 1,
                    _ => across += 1,
                }
            }
        }
    }
    assert!(creases > 40 && across > 20, "{creases} creases, {across} across");
}

#[test]
fn what_cannot_be_cut_apart_is_said_with_the_way_back() {
    let refuse = |split: Option<Split>, id: &str| {
        let mut form = Form::new(id, &[]);
        form.chosen_mut().unwrap().split = split;
        let errors = form.draw(CALIPER, Unit::Mm).unwrap_err();
        assert_eq!(errors.len(), 1, "{errors:?}");
        errors.into_iter().next().unwrap()
    };
    let nowhere = refuse(split("Roof", SplitBy::Crease, 0.0), "straight-tuck");
    assert!(nowhere.message.contains("Roof"), "{}", nowhere.message);
    assert_eq!(nowhere.remedy.changes[0].field, "form.split");
    for at in [-5.0, 1e9, f64::NAN] {
        refuse(split("Back", SplitBy::Across, at), "straight-tuck");
    }
    // Only the panel that everything hangs on can be cut along.
    refuse(split("Back", SplitBy::Along, 20.0), "straight-tuck");
    let narrow = refuse(
        Some(Split { flap: 2.0, ..split("Back", SplitBy::Crease, 0.0).unwrap() }),
        "straight-tuck",
    );
    assert_eq!((narrow.field.as_str(), narrow.number), ("form.split.flap", Some(2.0)));
}
