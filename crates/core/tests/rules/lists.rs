//! Copies that wear the rows of a list, and layers that are lined up.

use aptum_core::check::State;
use aptum_core::face::{
    Face, KnownCover, Layer, LayerKind, LineUp, List, Lying, NamedPicture, PlacedPicture, Shape,
    ShapeSize, Text, TextSize,
};
use aptum_core::form::Form;
use aptum_core::geometry::Shape as _;
use aptum_core::id::LayerId;
use aptum_core::job::{JobPiece, with_changes, with_field};
use aptum_core::{Job, Prepared, Workshop, blob::BlobId, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn cells<const N: usize>(cells: [&str; N]) -> Vec<String> {
    cells.map(str::to_owned).to_vec()
}

fn on_tag() -> Lying {
    Lying { panels: vec!["Tag".into()], ..Lying::default() }
}

fn words(id: &str, words: &str, points: f64) -> Layer {
    let text = Text { lying: on_tag(), size: TextSize::Points(points), ..Text::new(words) };
    Layer::new(id, LayerKind::Text(text))
}

fn list(names: &[&str]) -> List {
    let rows = names.iter().map(|name| cells([name, "x"])).collect();
    List { name: "names.csv".into(), columns: cells(["Name", "Other"]), rows, ..List::default() }
}

/// Tags with these layers and rows.
fn job(layers: Vec<Layer>, list: List, copies: u32) -> Job {
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let form = Form::new("tag", &[("width", 60.0), ("height", 40.0), ("hole", 0.0)]);
    let piece = JobPiece::new("p1", form, &job.pieces[0].stock.0);
    let face = Some(Face::new(1.0, layers));
    Job { pieces: vec![JobPiece { face, list: Some(list), copies, ..piece }], ..job }
}

fn prepared(job: &Job) -> Prepared {
    prepare(job, &workshop()).unwrap()
}

#[test]
fn each_row_has_its_own_words_between_the_layers_that_all_have() {
    let layers =
        vec![words("l1", "below", 9.0), words("l2", "{Name}", 12.0), words("l3", "above", 9.0)];
    let prepared = prepared(&job(layers, list(&["Ada", "Bo", ""]), 3));
    let art = &prepared.first().arts[0];
    let order = |row: usize| -> Vec<String> {
        art.inks(row).map(|inked| inked.layer.to_string()).collect()
    };
    assert_eq!(order(0), ["l1", "l2", "l3"]);
    assert_eq!(order(2), ["l1", "l3"], "an empty cell prints nothing");
    assert_eq!(order(7), ["l1", "l3"], "nor does a row that is not there");
    assert_ne!(art.by_row[0].rows[0], art.by_row[0].rows[1]);
    // The print window counts with the widest of them.
    let reach = art.printed.bounds().unwrap();
    for inked in art.all() {
        if let aptum_core::face::Ink::Area { path, .. } = &inked.ink {
            assert!(reach.inflate(1e-6, 1e-6).contains_rect(path.bounding_box()));
        }
    }
}

#[test]
fn copies_and_rows_are_counted_against_each_other() {
    let state = |copies: u32| {
        let job = job(vec![words("l1", "{Name}", 12.0)], list(&["Ada", "Bo", "Cleo"]), copies);
        let prepared = prepared(&job);
        let check = prepared.checks.iter().find(|check| check.id == "rows").unwrap().clone();
        (job, check)
    };
    assert_eq!(state(3).1.state, State::Fits);
    let (job, few) = state(1);
    assert_eq!(few.state, State::Broken);
    assert!(few.verdict.contains("rows 2 to 3"), "{}", few.verdict);
    let (_, many) = state(5);
    assert_eq!(many.state, State::Attention);
    assert!(many.verdict.contains("2 copies without a row"), "{}", many.verdict);
    let mended = with_changes(&job, &few.remedies[0].changes).unwrap();
    assert_eq!(mended.pieces[0].copies, 3);
    // A list that no layer reads asks for nothing.
    let plain = with_field(&job, "pieces.p1.face.layers.l1.words", "for all".into()).unwrap();
    assert!(prepared(&plain).checks.iter().all(|check| check.id != "rows"));
}

/// Of rows that all run past their panel the longest is told of: what helps that one helps all.
#[test]
fn what_helps_the_longest_row_helps_every_row() {
    let names = ["Bartholomew Quillfeather", "Bartholomew Quillfeather of Upper Fennel", "Bo"];
    let job = job(vec![words("l1", "{Name}", 36.0)], list(&names), 3);
    let safe = |job: &Job| {
        let checks = prepared(job).checks;
        checks.into_iter().find(|check| check.id == "safe-l1").unwrap()
    };
    let before = safe(&job);
    assert!(before.verdict.contains("row 2") && before.verdict.contains("1 more"), "{before:?}");
    let mended = with_changes(&job, &before.remedies[0].changes).unwrap();
    assert_eq!(safe(&mended).state, State::Fits, "{:?}", before.remedies);
}

#[test]
fn what_does_not_fit_is_named_with_its_row() {
    let names = ["Ada", "Bartholomew Quillfeather of Upper Fennel", "Bo", "Σ☃"];
    let layers = vec![words("l1", "{Name}", 24.0), words("l2", "{Nmae}", 9.0)];
    let prepared = prepared(&job(layers, list(&names), 4));
    let check = |id: &str| prepared.checks.iter().find(|check| check.id == id).unwrap();
    let safe = check("safe-l1");
    assert_ne!(safe.state, State::Fits);
    assert!(safe.verdict.contains("row 2 (“Bartholomew"), "{}", safe.verdict);
    let letters = check("letters-l1");
    assert!(
        letters.verdict.contains('☃') && letters.verdict.contains("row 4"),
        "{}",
        letters.verdict
    );
    let column = check("column-l2");
    assert_eq!((column.state, column.value_text.as_str()), (State::Attention, "Nmae"));
}

#[test]
fn pictures_are_chosen_by_the_names_of_their_files() {
    let blob = |digit: &str| BlobId(digit.repeat(64));
    let named = |name: &str, digit: &str| NamedPicture {
        name: name.into(),
        blob: blob(digit),
        pixels: [40, 30],
        drawn: false,
        cover: KnownCover::default(),
    };
    let placed = PlacedPicture {
        column: Some("Name".into()),
        ..PlacedPicture::new(blob("f"), [9, 9], on_tag())
    };
    let own = List {
        pictures: vec![named("fern.png", "a"), named("Moss.jpg", "b")],
        ..list(&["moss", "fern.png", "lichen"])
    };
    let job = job(vec![Layer::new("l1", LayerKind::Picture(placed))], own, 3);
    let prepared = prepared(&job);
    let art = &prepared.first().arts[0];
    let worn = |row: usize| {
        art.inks(row).find_map(|inked| match &inked.ink {
            aptum_core::face::Ink::Picture { blob, .. } => Some(blob.0.clone()),
            _ => None,
        })
    };
    assert_eq!([worn(0), worn(1), worn(2)], [Some(blob("b").0), Some(blob("a").0), None]);
    let missing = prepared.checks.iter().find(|check| check.id == "pictures-l1").unwrap();
    assert!(missing.verdict.contains("“lichen” in row 3"), "{}", missing.verdict);
    // The list's pictures are held as long as the list is.
    assert_eq!(job.blobs().count(), 3);
}

#[test]
fn lists_of_no_use_are_refused_with_their_numbers() {
    let refused = |list: List| {
        let errors = prepare(&job(vec![words("l1", "{Name}", 9.0)], list, 2), &workshop());
        errors.unwrap_err()[0].message.clone()
    };
    let twice = List { columns: cells(["Name", " name "]), ..list(&["Ada"]) };
    assert!(refused(twice).contains("no column of its own"));
    let short = List { rows: vec![cells(["Ada"])], ..list(&[]) };
    assert!(refused(short).contains("Row 1 has 1 cells for 2 columns"));
    assert!(refused(list(&vec!["Ada"; 2001])).contains("2001 rows"));
    assert!(refused(list(&["A\u{7}da"])).contains("Row 1"));
}

fn shape(id: &str, at: (f64, f64), size: (f64, f64), turn: f64) -> Layer {
    let shape = Shape {
        lying: Lying { x: at.0, y: at.1, turn, ..on_tag() },
        size: ShapeSize::Sides([size.0, size.1]),
        ..Shape::filled("#123456")
    };
    Layer::new(id, LayerKind::Shape(shape))
}

proptest! {
    /// Sides that are lined up are in line, gaps equal, widths the same; what is locked stays.
    #[test]
    fn layers_are_lined_up(
        at in prop::collection::vec((-20.0..20.0f64, -10.0..10.0f64), 4),
        size in prop::collection::vec((2.0..15.0f64, 2.0..15.0f64), 4),
        turn in prop::sample::select(vec![0.0, 90.0, 30.0]),
        locked in prop::option::of(1usize..4),
    ) {
        let mut layers: Vec<Layer> = (0..4)
            .map(|k| shape(&format!("l{k}"), at[k], size[k], if k == 1 { turn } else { 0.0 }))
            .collect();
        if let Some(locked) = locked {
            layers[locked].locked = true;
        }
        let job = job(layers, List { columns: cells(["Name"]), ..List::default() }, 1);
        let ids: Vec<LayerId> = (0..4).map(|k| format!("l{k}").as_str().into()).collect();
        let placed = |job: &Job| {
            let prepared = prepared(job);
            let piece = prepared.first();
            let face = job.pieces[0].face.clone().unwrap();
            (face.placed(None, &piece.flat, &piece.formed.uprights), face)
        };
        let (before, face) = placed(&job);
        let done = |how: LineUp| {
            let changes = face.lined_up(&before, &ids, how);
            let below: Vec<_> = changes.into_iter().map(|change| change.below("pieces.p1.")).collect();
            placed(&with_changes(&job, &below).unwrap()).0
        };
        let left = done(LineUp::Left);
        let edge = before.iter().map(|own| own.bounds.x0).fold(f64::INFINITY, f64::min);
        for (k, own) in left.iter().enumerate() {
            if locked == Some(k) {
                prop_assert_eq!(own.bounds, before[k].bounds);
            } else {
                prop_assert!((own.bounds.x0 - edge).abs() < 2e-3);
            }
            prop_assert!((own.centre.y - before[k].centre.y).abs() < 1e-9, "only across");
        }
        let wide = done(LineUp::Widths);
        prop_assert!((0..4).all(|k| locked == Some(k) || (wide[k].size[0] - before[0].size[0]).abs() < 2e-3));
        if locked.is_none() {
            let spaced = done(LineUp::GapsDown);
            let mut order: Vec<usize> = (0..4).collect();
            order.sort_by(|a, b| before[*a].bounds.center().y.total_cmp(&before[*b].bounds.center().y));
            let spaced: Vec<_> = order.into_iter().map(|k| spaced[k].clone()).collect();
            let gaps: Vec<f64> = spaced.windows(2).map(|pair| pair[1].bounds.y0 - pair[0].bounds.y1).collect();
            prop_assert!(gaps.iter().all(|gap| (gap - gaps[0]).abs() < 5e-3), "{:?}", gaps);
        }
        // What a layer is drawn to takes it where it says.
        let snaps = before[0].snaps(&before);
        let middle = before[0].area.center();
        prop_assert!(snaps[0].iter().any(|x| (x - middle.x).abs() < 1e-9));
        prop_assert!(snaps[1].iter().any(|y| (y - before[2].bounds.center().y).abs() < 1e-9));
    }
}
