//! Pictures that are clear along a cut, where the card shows.

use std::sync::Arc;

use aptum_core::blob::BlobId;
use aptum_core::check::{Check, State};
use aptum_core::face::{
    Beyond, Cover, Face, KnownCover, Layer, LayerKind, List, Lying, NamedPicture, PictureSize,
    PlacedPicture,
};
use aptum_core::form::Form;
use aptum_core::job::{JobPiece, with_changes};
use aptum_core::pixels::Pixels;
use aptum_core::{Job, Workshop, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

/// A picture of a pixel for each millimetre of a tag of 60 × 100 mm, green but where it is clear.
fn picture(is_clear: impl Fn(usize, usize) -> bool) -> PlacedPicture {
    let pixel = |at: usize| [20, 140, 60, if is_clear(at % 60, at / 60) { 0 } else { 255 }];
    let raw: Vec<u8> = (0..6000).flat_map(pixel).collect();
    let cover = Cover::of(&Pixels::new(60, 100, raw).unwrap());
    let lying = Lying { panels: vec!["Tag".to_owned()], ..Lying::default() };
    let placed = PlacedPicture::new(BlobId("a".repeat(64)), [60, 100], lying);
    PlacedPicture { cover: KnownCover(Some(Arc::new(cover))), ..placed }
}

fn job(layers: Vec<Layer>) -> Job {
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let form = Form::new("tag", &[("width", 60.0), ("height", 100.0), ("hole", 0.0)]);
    let piece = JobPiece::new("p1", form, &job.pieces[0].stock.0);
    let face = Some(Face::new(2.0, layers));
    Job { pieces: vec![JobPiece { face, ..piece }], ..job }
}

fn layer(placed: PlacedPicture) -> Layer {
    Layer::new("l1", LayerKind::Picture(placed))
}

fn found(job: &Job) -> Option<Check> {
    let prepared = prepare(job, &workshop()).unwrap();
    prepared.checks.into_iter().find(|check| check.id == "clear-l1")
}

/// The millimetres of the cut that the check names.
fn told(placed: PlacedPicture) -> Option<f64> {
    let check = found(&job(vec![layer(placed)]))?;
    let words = check.value_text.trim_start_matches("clear along ").trim_end_matches(" mm");
    Some(words.parse().unwrap())
}

proptest! {
    /// Half a side that is clear is named as long as it is, wherever it lies and however it is turned.
    #[test]
    fn as_much_of_the_cut_is_named_as_is_clear(
        from in 5usize..40, long in 4usize..50, deep in 1usize..30, mirrored in any::<bool>(),
        turned in prop::sample::select(vec![0.0, 180.0]),
    ) {
        let mut placed = picture(|x, y| x < deep && (from..from + long).contains(&y));
        placed.mirrored = mirrored;
        placed.lying.turn = turned;
        let told = told(placed).unwrap();
        prop_assert!((told - long as f64).abs() <= 1.5, "{told} for {long}");
    }

    /// What is clear and reaches no cut is nobody's concern.
    #[test]
    fn holes_inside_a_picture_are_not_named(x0 in 1usize..30, y0 in 1usize..50, side in 1usize..29) {
        let placed = picture(|x, y| (x0..x0 + side).contains(&x) && (y0..y0 + side).contains(&y));
        prop_assert_eq!(told(placed), None);
    }
}

#[test]
fn a_clear_edge_is_no_fault_where_something_is_beneath_it_or_it_reaches_no_cut() {
    let clear = || picture(|x, _| x < 4);
    let job = |placed| job(vec![layer(placed)]);
    let check = found(&job(clear())).unwrap();
    assert_eq!(check.state, State::Attention);
    // One long side, and of the two short ones what the corners leave of 4 mm each.
    assert!((100.0..=108.0).contains(&told(clear()).unwrap()));
    assert!(check.place.is_some());

    // Its remedy fills its panel with its own colour.
    let mended = with_changes(&job(clear()), &check.remedies[0].changes).unwrap();
    let beyond = mended.pieces[0].face.as_ref().unwrap().pictures().next().unwrap().beyond.clone();
    assert_eq!(beyond, Beyond::Colour("#148c3c".into()));
    assert_eq!(told(PlacedPicture { beyond, ..clear() }), None);

    let on_colour = vec![Layer::colour("l0", "#123456"), layer(clear())];
    assert_eq!(found(&self::job(on_colour)), None);
    let mut face = job(clear());
    face.pieces[0].face.as_mut().unwrap().layers[0].only_shown = true;
    assert_eq!(found(&face), None);
    assert_eq!(told(PlacedPicture { crop: [0.1, 0.0, 0.0, 0.0], ..clear() }), None, "cut away");
    assert_eq!(
        told(PlacedPicture { size: PictureSize::Width(40.0), ..clear() }),
        None,
        "well inside"
    );
    assert_eq!(told(picture(|_, _| false)), None);
    assert_eq!(told(PlacedPicture { cover: KnownCover(None), ..clear() }), None, "not known");
    // Mirrored beyond its edges, what is clear there is clear past them.
    let wide = PlacedPicture { beyond: Beyond::Mirrored, ..clear() };
    assert!(told(wide).unwrap() >= 99.0);
}

/// Of the pictures that rows print in its place, those count, and not its own.
#[test]
fn the_row_whose_picture_is_clear_the_farthest_is_named() {
    let named = |name: &str, digit: &str, deep: usize| NamedPicture {
        name: format!("{name}.png"),
        blob: BlobId(digit.repeat(64)),
        pixels: [60, 100],
        drawn: false,
        cover: picture(|x, y| x < 4 && y < deep).cover,
    };
    let told = |rows: &[&str]| {
        let own = PlacedPicture { column: Some("Picture".into()), ..picture(|x, _| x < 4) };
        let mut job = job(vec![layer(own)]);
        job.pieces[0].list = Some(List {
            name: "beds.csv".into(),
            columns: vec!["Picture".into()],
            rows: rows.iter().map(|cell| vec![(*cell).to_owned()]).collect(),
            pictures: vec![named("pea", "1", 40), named("bean", "2", 70), named("kale", "3", 0)],
        });
        found(&job).map(|check| check.verdict)
    };
    let says = |rows: &[&str], words: &str| {
        let verdict = told(rows).unwrap();
        assert!(verdict.contains(words), "{verdict}");
    };
    assert_eq!(told(&["kale", "kale"]), None);
    says(&["kale", "pea", "bean"], "in row 3 (“bean”), and 1 more row");
    says(&["pea", "kale"], "in row 1 (“pea”)");
    assert!(!told(&["pea", "kale"]).unwrap().contains("more"));
    says(&["pea", "bean", "bean", "pea"], "in row 2 (“bean”), and 3 more rows");
}
