//! Words and drawings cut out of panels: what falls out, and the bridges that hold it.

use std::sync::Arc;

use aptum_core::blob::{BlobId, Origin};
use aptum_core::check::{Check, State};
use aptum_core::form::{AddOn, AddOnKind, CutOut, Cutting, Flat, Form, OwnShape, ReadLines};
use aptum_core::geometry::{BezPath, Rect, Shape, flattened_to};
use aptum_core::lettering::SHELF;
use aptum_core::lines::{Group, Lines, Look};
use aptum_core::units::Unit;
use proptest::prelude::*;

fn sign(kind: AddOnKind, size: [f64; 2], cutting: Cutting, bridge: Option<f64>) -> Form {
    let mut form = Form::new("tag-rounded", &[("width", 160.0), ("height", 90.0)]);
    let own = OwnShape { cutting, turn: 0.0, bridge };
    form.chosen_mut().unwrap().add_ons = vec![AddOn {
        kind,
        panel: "Tag".to_owned(),
        across: 0.0,
        along: 8.0,
        width: size[0],
        height: size[1],
        cut: None,
        tie: None,
        own: Some(own),
    }];
    form
}

fn words(words: &str, typeface: &str) -> Cutting {
    Cutting::Words { words: words.to_owned(), typeface: typeface.to_owned(), letter_spacing: 0.1 }
}

fn drawing(paths: &[&str]) -> Cutting {
    let group = Group { layer: String::new(), colour: "#000000".to_owned(), look: Look::Stroke };
    let drawn = paths.iter().map(|path| (group.clone(), BezPath::from_svg(path).unwrap()));
    let lines = Lines::gathered(None, drawn, 0, 0).unwrap();
    let read = ReadLines(Some(Arc::new(lines)));
    Cutting::Drawing { lines: BlobId("0".repeat(64)), origin: Origin::default(), read }
}

fn drawn(form: &Form) -> Flat {
    form.draw(0.4, Unit::Mm).unwrap_or_else(|errors| panic!("{errors:?}"))
}

fn check<'a>(flat: &'a Flat, id: &str) -> Option<&'a Check> {
    flat.checks.iter().find(|check| check.id == id)
}

/// Parts of the card around an opening that hang together: painted in squares of a side, and filled from a corner.
/// How many squares of card are not reached, in groups.
fn loose_parts(own: &CutOut, side: f64) -> usize {
    let room: Rect = own.bounds.inflate(1.0, 1.0);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few thousand")]
    let count = |long: f64| (long / side) as usize;
    let (across, along) = (count(room.width()), count(room.height()));
    let mut rings = Vec::new();
    for cut in &own.cuts {
        rings.extend(flattened_to(cut, 0.005));
    }
    let mut is_open = vec![false; across * along];
    for row in 0..along {
        let y = room.y0 + (row as f64 + 0.5) * side;
        let mut hits: Vec<f64> = Vec::new();
        for ring in &rings {
            for (a, b) in ring.iter().zip(ring.iter().cycle().skip(1)) {
                if (a.y > y) != (b.y > y) {
                    hits.push(a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y));
                }
            }
        }
        hits.sort_by(f64::total_cmp);
        for pair in hits.chunks_exact(2) {
            for column in 0..across {
                let x = room.x0 + (column as f64 + 0.5) * side;
                is_open[row * across + column] |= (pair[0]..pair[1]).contains(&x);
            }
        }
    }
    let mut seen = is_open;
    let fill = |from: usize, seen: &mut Vec<bool>| {
        let mut left = vec![from];
        let mut size = 0;
        while let Some(at) = left.pop() {
            if std::mem::replace(&mut seen[at], true) {
                continue;
            }
            size += 1;
            let (x, y) = (at % across, at / across);
            left.extend((x > 0).then(|| at - 1));
            left.extend((x + 1 < across).then(|| at + 1));
            left.extend((y > 0).then(|| at - across));
            left.extend((y + 1 < along).then(|| at + across));
        }
        size
    };
    fill(0, &mut seen);
    let mut loose = 0;
    for at in 0..seen.len() {
        // Single squares are what rounding leaves along slanted edges.
        loose += usize::from(!seen[at] && fill(at, &mut seen) > 8);
    }
    loose
}

/// A square of 30 around one of 10: 30² falls out where nothing holds the middle; else 30² − 10², less two bridges of
/// 10 × 2 (areas from any handbook of geometry).
#[test]
fn bridges_hold_what_would_fall_out() {
    let square = ["M0 0H30V30H0Z", "M10 10H20V20H10Z"];
    let whole = drawn(&Form::new("tag-rounded", &[("width", 160.0), ("height", 90.0)])).area();
    let fallen = drawn(&sign(AddOnKind::Drawing, [30.0, 0.5], drawing(&square), None));
    assert!((whole - fallen.area() - 900.0).abs() < 0.01, "{}", whole - fallen.area());
    assert_eq!((fallen.cut_outs[0].islands.len(), loose_parts(&fallen.cut_outs[0], 0.1)), (1, 1));
    let islands = check(&fallen, "islands").unwrap();
    assert_eq!((islands.state, islands.value_text.as_str()), (State::Attention, "1"));

    let held = drawn(&sign(AddOnKind::Drawing, [30.0, 0.5], drawing(&square), Some(2.0)));
    assert!((whole - held.area() - 760.0).abs() < 0.01, "{}", whole - held.area());
    let own = &held.cut_outs[0];
    assert_eq!((own.islands.len(), own.bridges, own.cuts.len()), (0, 2, 2));
    assert_eq!(loose_parts(own, 0.1), 0);
    assert_eq!(check(&held, "islands").unwrap().state, State::Fits);
    // The bridge is as wide as it was asked for.
    let narrowest = check(&held, "bridge").unwrap();
    assert_eq!(narrowest.state, State::Fits, "{narrowest:?}");
}

#[test]
fn words_are_held_in_every_typeface() {
    for typeface in SHELF {
        let form = sign(AddOnKind::Words, [10.0, 16.0], words("Bog8", typeface.id), None);
        let loose = drawn(&form);
        let count = loose.cut_outs[0].islands.len();
        // Where a serif nearly closes a bay the squares see one more.
        let seen = loose_parts(&loose.cut_outs[0], 0.03);
        assert!((count..=count + 1).contains(&seen), "{}: {seen} for {count}", typeface.id);
        let form = sign(AddOnKind::Words, [10.0, 16.0], words("Bog8", typeface.id), Some(0.8));
        let held = drawn(&form);
        assert_eq!(held.cut_outs[0].islands.len(), 0, "{}", typeface.id);
        assert!(loose_parts(&held.cut_outs[0], 0.03) <= seen - count, "{}", typeface.id);
        assert!(held.cut_outs[0].bridges >= count, "{}", typeface.id);
    }
}

#[test]
fn letters_are_as_high_as_they_are_told() {
    let flat = drawn(&sign(AddOnKind::Words, [10.0, 16.0], words("HE", "plain"), None));
    assert!(
        (flat.cut_outs[0].bounds.height() - 16.0).abs() < 0.05,
        "{:?}",
        flat.cut_outs[0].bounds
    );
    let mut form = sign(AddOnKind::Words, [10.0, 16.0], words("HE", "plain"), None);
    form.chosen_mut().unwrap().add_ons[0].own.as_mut().unwrap().turn = 90.0;
    let turned = drawn(&form);
    assert!((turned.cut_outs[0].bounds.width() - 16.0).abs() < 0.05);
}

#[test]
fn open_lines_of_a_drawing_are_left_out_and_said() {
    let lines = ["M0 0H30V30H0Z", "M40 0V30"];
    let flat = drawn(&sign(AddOnKind::Drawing, [40.0, 0.5], drawing(&lines), None));
    assert_eq!((flat.cut_outs[0].cuts.len(), flat.cut_outs[0].open), (1, 1));
    assert_eq!(check(&flat, "cut-out-open").unwrap().state, State::Attention);
    // Ends that nearly meet are closed.
    let flat = drawn(&sign(AddOnKind::Drawing, [30.0, 0.5], drawing(&["M0 0H30V30H0V0.05"]), None));
    assert_eq!((flat.cut_outs[0].cuts.len(), flat.cut_outs[0].open), (1, 0));
}

#[test]
fn what_cannot_be_cut_out_is_told_with_a_way_out() {
    let refused = |form: Form| form.draw(0.4, Unit::Mm).unwrap_err().remove(0);
    let cases = [
        (sign(AddOnKind::Words, [10.0, 16.0], words("  ", "plain"), None), "cutting.words"),
        (sign(AddOnKind::Words, [10.0, 16.0], words("a", "no such"), None), "cutting.typeface"),
        (sign(AddOnKind::Words, [10.0, 16.0], words("a", "plain"), Some(0.1)), "bridge"),
        (sign(AddOnKind::Words, [10.0, 16.0], drawing(&["M0 0H9V9Z"]), None), "own"),
        (sign(AddOnKind::Drawing, [30.0, 1.0], drawing(&["M0 0H30"]), None), "cutting"),
        (sign(AddOnKind::Words, [10.0, f64::NAN], words("a", "plain"), None), "height"),
    ];
    for (form, field) in cases {
        let error = refused(form);
        assert!(error.field.ends_with(field), "{field}: {error:?}");
        assert!(!error.remedy.text.is_empty());
    }
    // Too large for its panel: a size is named at which it fits.
    let error = refused(sign(AddOnKind::Words, [10.0, 60.0], words("Seeds", "plain"), None));
    assert!(error.remedy.text.starts_with("Make it"), "{error:?}");
    let mut form = sign(AddOnKind::Words, [10.0, 60.0], words("Seeds", "plain"), None);
    let value = |field: &str| {
        let change = error.remedy.changes.iter().find(|own| own.field.ends_with(field)).unwrap();
        serde_json::to_value(&change.value).unwrap().as_f64().unwrap()
    };
    let own = &mut form.chosen_mut().unwrap().add_ons[0];
    (own.across, own.along, own.height) = (value("across"), value("along"), value("height"));
    drawn(&form);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Whatever the words are: nothing falls out that bridges are to hold, and cuts enclose what they did, less these.
    #[test]
    fn no_island_is_left_without_a_bridge(
        text in "[ABDOPQRabdegopq04689&@%]{1,4}",
        typeface in 0..SHELF.len(),
        capitals in 6.0..20.0f64,
        bridge in 0.5..2.0f64,
    ) {
        let cutting = words(&text, SHELF[typeface].id);
        let form = sign(AddOnKind::Words, [10.0, capitals], cutting.clone(), Some(bridge));
        // What has no room on the tag is another test's.
        let Ok(held) = form.draw(0.4, Unit::Mm) else { return Ok(()) };
        let own = &held.cut_outs[0];
        prop_assert_eq!(own.islands.len(), 0);
        let loose = drawn(&sign(AddOnKind::Words, [10.0, capitals], cutting, None));
        let area = |own: &CutOut| own.cuts.iter().map(|cut| cut.area().abs()).sum::<f64>();
        let islands: f64 = loose.cut_outs[0].islands.iter().map(|own| 2.0 * own.area().abs()).sum();
        prop_assert!(area(own) <= area(&loose.cut_outs[0]) - islands + 0.05);
        let side = bridge.min(0.8) / 8.0;
        let bays = loose_parts(&loose.cut_outs[0], side).saturating_sub(loose.cut_outs[0].islands.len());
        prop_assert!(loose_parts(own, side) <= bays);
    }
}
