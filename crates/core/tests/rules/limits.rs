//! Single limits of a form at their edges: what is measured by hand, what is said on either side, and that the way out
//! that is offered does away with it.

use aptum_core::Check;
use aptum_core::check::{Sense, State};
use aptum_core::error::Setting;
use aptum_core::fold::FoldModel;
use aptum_core::form::Form;
use aptum_core::form_checks::form_checks;
use aptum_core::units::Unit;

fn checks(form: &Form, caliper: f64) -> Vec<Check> {
    let flat = form.draw(caliper, Unit::Mm).unwrap();
    form_checks(form, &flat, FoldModel::new(&flat, caliper).as_ref(), caliper, Unit::Mm)
}

fn check(form: &Form, caliper: f64, id: &str) -> Check {
    let all = checks(form, caliper);
    all.iter().find(|check| check.id == id).unwrap_or_else(|| panic!("no {id}: {all:#?}")).clone()
}

/// The form after the first remedy that sets figures.
fn mended(form: &Form, check: &Check) -> Form {
    let mut form = form.clone();
    let remedy = check.remedies.iter().find(|own| !own.changes.is_empty()).unwrap();
    for change in &remedy.changes {
        let value = match change.value {
            Setting::Number(value) => Some(value),
            Setting::Standard => None,
            _ => panic!("{change:?}"),
        };
        let key = change.field.strip_prefix("form.").unwrap().to_owned();
        form.chosen_mut().unwrap().figures.insert(key, value);
    }
    form
}

/// A structure with its figures in a card of 0.3 mm, the limit that is looked at, its value and its bound by hand, and
/// how it stands.
type Case = (&'static str, &'static [(&'static str, f64)], &'static str, [f64; 2], State);

const CASES: &[Case] = &[
    // A flap is worked by hand from 8 mm on and closes from 5 mm on; a glue flap under 8 mm does not hold.
    (
        "straight-tuck",
        &[("length", 60.0), ("width", 30.0), ("tuck", 8.0)],
        "smallest-flap",
        [8.0, 8.0],
        State::Fits,
    ),
    (
        "straight-tuck",
        &[("length", 60.0), ("width", 30.0), ("tuck", 5.0)],
        "smallest-flap",
        [5.0, 8.0],
        State::Attention,
    ),
    (
        "straight-tuck",
        &[("length", 60.0), ("width", 30.0), ("tuck", 4.9)],
        "smallest-flap",
        [4.9, 8.0],
        State::Broken,
    ),
    (
        "straight-tuck",
        &[("length", 60.0), ("width", 30.0), ("glue", 6.0)],
        "smallest-flap",
        [6.0, 8.0],
        State::Broken,
    ),
    // A glue flap is not wider than the wall it is glued to.
    (
        "straight-tuck",
        &[("length", 60.0), ("width", 20.0), ("glue", 20.0)],
        "glue-flap",
        [20.0, 20.0],
        State::Fits,
    ),
    (
        "straight-tuck",
        &[("length", 60.0), ("width", 20.0), ("glue", 20.5)],
        "glue-flap",
        [20.5, 20.0],
        State::Broken,
    ),
    // Both dust flaps have room along the length.
    (
        "straight-tuck",
        &[("length", 60.0), ("width", 40.0), ("dust", 30.0)],
        "dust-top",
        [60.0, 60.0],
        State::Fits,
    ),
    (
        "straight-tuck",
        &[("length", 60.0), ("width", 40.0), ("dust", 30.2)],
        "dust-top",
        [60.4, 60.0],
        State::Broken,
    ),
    // The tip lies (32 − 16) ⁄ 2 from the foot, the root 24 or 24.5 above it.
    (
        "bookmark-clip",
        &[("width", 32.0), ("height", 40.0), ("tongue", 16.0), ("long", 24.0)],
        "clip-root",
        [8.0, 8.0],
        State::Fits,
    ),
    (
        "bookmark-clip",
        &[("width", 32.0), ("height", 40.0), ("tongue", 16.0), ("long", 24.5)],
        "clip-root",
        [7.5, 8.0],
        State::Broken,
    ),
    // (32 − 26) ⁄ 2 beside the widest tongue that may be asked for.
    (
        "bookmark-clip",
        &[("width", 32.0), ("height", 90.0), ("tongue", 26.0)],
        "clip-sides",
        [3.0, 3.0],
        State::Fits,
    ),
    // Two corner flaps of 15 mm are glued to an end of 30 mm.
    (
        "four-corner-tray",
        &[("length", 80.0), ("width", 30.0), ("height", 25.0), ("glue", 15.0)],
        "corner-flaps",
        [30.0, 30.0],
        State::Fits,
    ),
];

#[test]
fn limits_stand_as_they_are_by_hand_and_their_remedies_mend() {
    for (structure, figures, id, [value, bound], state) in CASES {
        let form = Form::new(structure, figures);
        let found = check(&form, 0.3, id);
        let gauge = found.gauge.unwrap();
        let told = format!("{structure} {figures:?}: {found:?}");
        assert!((gauge.value - value).abs() < 1e-9, "{told}");
        assert!((gauge.bound - bound).abs() < 1e-9, "{told}");
        assert_eq!(found.state, *state, "{told}");
        assert_eq!(
            gauge.sense == Sense::AtLeast,
            !["glue-flap", "dust-top", "corner-flaps"].contains(id)
        );
        if *state == State::Fits {
            assert!(found.remedies.is_empty(), "nothing to mend: {told}");
            continue;
        }
        let then = check(&mended(&form, &found), 0.3, id);
        assert_eq!(then.state, State::Fits, "{told} then {then:?}");
    }
}

/// Common practice: a flap springs back from its crease where it is shorter than ten calipers.
#[test]
fn thick_card_asks_for_longer_flaps() {
    let form = Form::new("straight-tuck", &[("length", 60.0), ("width", 40.0), ("tuck", 11.0)]);
    for (caliper, bound) in [(0.3, 8.0), (0.8, 8.0), (1.0, 10.0), (1.2, 12.0)] {
        let found = check(&form, caliper, "smallest-flap");
        assert!((found.gauge.unwrap().bound - bound).abs() < 1e-9, "{caliper}: {found:?}");
        assert_eq!(found.state == State::Fits, bound <= 11.0, "{caliper}: {found:?}");
    }
}

#[test]
fn a_glue_flap_that_hangs_over_its_mate_is_told_by_its_share() {
    // 24 of 30 mm and less, since the flap tapers, lie on the wall of 24 mm.
    let form = Form::new("straight-tuck", &[("length", 60.0), ("width", 24.0), ("glue", 30.0)]);
    let found = check(&form, 0.3, "fold-glue");
    assert_eq!(found.state, State::Broken);
    let gauge = found.gauge.unwrap();
    assert!((gauge.bound - 90.0).abs() < 1e-9);
    assert!((80.0..90.0).contains(&gauge.value), "{gauge:?}");
    assert_eq!(found.value_text, format!("{:.0} %", gauge.value));
    assert!(found.verdict.contains("glue flap"), "{}", found.verdict);
    let as_wide = Form::new("straight-tuck", &[("length", 60.0), ("width", 24.0), ("glue", 23.0)]);
    assert_eq!(check(&as_wide, 0.3, "fold-glue").state, State::Fits);
}

#[test]
fn flaps_that_meet_are_named_and_without_them_nothing_is_in_the_way() {
    let figures = |dust| [("length", 60.0), ("width", 40.0), ("height", 80.0), ("dust", dust)];
    let meeting = check(&Form::new("straight-tuck", &figures(35.0)), 0.3, "fold-through");
    assert_eq!(meeting.state, State::Broken);
    assert!(meeting.verdict.contains("dust flap"), "{}", meeting.verdict);
    assert!(meeting.verdict.ends_with("when it is closed"), "{}", meeting.verdict);
    // Their places are drawn on the flat.
    assert!(meeting.place.unwrap().path.matches('M').count() >= 2);
    let apart = check(&Form::new("straight-tuck", &figures(29.0)), 0.3, "fold-through");
    assert_eq!((apart.state, apart.gauge.unwrap().value), (State::Fits, 0.0));
    assert!(apart.verdict.contains("steps"), "{}", apart.verdict);
}

/// A hole nearer than 2 mm to the edge tears (common practice); the card between them is measured, not guessed from
/// boxes.
#[test]
fn card_between_a_hole_and_the_edge_is_measured() {
    let plain = Form::new("tag-rounded", &[("width", 40.0), ("height", 70.0), ("hole", 5.0)]);
    let found = check(&plain, 0.3, "bridge");
    let flat = plain.draw(0.3, Unit::Mm).unwrap();
    let hole = flat.parts[0].openings().next().unwrap();
    let (hole, whole) =
        (kurbo::Shape::bounding_box(hole), kurbo::Shape::bounding_box(&flat.parts[0].outline));
    // The hole is round and lies in the middle: its nearest edge is the one above.
    assert!((found.gauge.unwrap().value - (hole.y0 - whole.y0)).abs() < 0.01, "{found:?} {hole:?}");
    assert!((hole.width() - 5.0).abs() < 1e-3 && (hole.center().x - 20.0).abs() < 1e-6);
}

/// Where no value of the flap that was asked for will do, what is usual does, or the size that rules the piece out even
/// then is named with it.
#[test]
fn flaps_that_cannot_be_mended_alone_go_back_to_what_is_usual() {
    // Each end's corner flaps would need half of 5 mm: less than any flap may have.
    let low = [("length", 53.0), ("width", 5.0), ("height", 37.0), ("clearance", 5.0)];
    // A wall of 5 mm has no room for a glue flap of any use.
    let narrow =
        [("length", 60.0), ("width", 5.0), ("height", 90.0), ("glue", 54.0), ("tuck", 56.0)];
    // Neighbouring tabs leave each other less than 8 mm at a side of 15.
    let slim = [("length", 60.0), ("width", 15.0), ("height", 41.0), ("tab", 6.0)];
    for (structure, figures, id) in [
        ("sleeve-and-tray", &low[..], "corner-flaps"),
        ("straight-tuck", &narrow[..], "glue-flap"),
        ("cuboid", &slim[..], "smallest-flap"),
    ] {
        let form = Form::new(structure, figures);
        let found = check(&form, 0.3, id);
        assert_eq!(found.state, State::Broken, "{structure}: {found:?}");
        // One after the other, if there are several.
        let mut after = mended(&form, &found);
        assert_ne!(check(&after, 0.3, id).state, State::Broken, "{structure}");
        for _ in 0..3 {
            let all = checks(&after, 0.3);
            let Some(next) = all.iter().find(|check| check.state == State::Broken) else { break };
            after = mended(&after, next);
        }
        let left = checks(&after, 0.3);
        assert!(left.iter().all(|check| check.state != State::Broken), "{structure}: {left:#?}");
    }
    // One flap of several is to blame: the other stays as it was asked for.
    let figures = [("length", 60.0), ("width", 30.0), ("glue", 12.0), ("dust", 40.0)];
    let form = Form::new("straight-tuck", &figures);
    let found = check(&form, 0.3, "fold-through");
    let after = mended(&form, &found);
    assert_eq!(after.chosen().unwrap().figures["glue"], Some(12.0), "{:?}", found.remedies);
    assert_eq!(after.chosen().unwrap().figures["dust"], None);
}
