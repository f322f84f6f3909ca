//! What patterns repeat beside figures: words and pictures.

use std::sync::Arc;

use aptum_core::blob::{BlobId, Blobs, NoBlobs, Origin};
use aptum_core::check::{Check, State};
use aptum_core::face::{
    Face, Grid, Ink, Layer, LayerKind, List, Lying, Motif, MotifPicture, POINT, Pattern, Text,
    TextSize,
};
use aptum_core::form::Form;
use aptum_core::geometry::{Affine, Point, Rect, Region, Shape};
use aptum_core::job::{JobPiece, with_changes};
use aptum_core::lettering::{FontBytes, OwnTypeface, SHELF};
use aptum_core::piece_checks::missing_blobs;
use aptum_core::{Job, Prepared, Workshop, prepare};
use proptest::prelude::*;

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn job(pattern: Pattern) -> Job {
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let form = Form::new("tag", &[("width", 60.0), ("height", 100.0), ("hole", 0.0)]);
    let piece = JobPiece::new("p1", form, &job.pieces[0].stock.0);
    let face = Some(Face::new(0.0, vec![Layer::new("l1", LayerKind::Pattern(pattern))]));
    Job { pieces: vec![JobPiece { face, ..piece }], ..job }
}

fn prepared(pattern: Pattern) -> Prepared {
    prepare(&job(pattern), &workshop()).unwrap()
}

fn pattern(motif_of: Motif, motif: [f64; 2], grid: Grid) -> Pattern {
    let lying = Lying { panels: vec!["Tag".to_owned()], ..Lying::default() };
    Pattern { lying, motif_of, motif, grid, staggered: false, ..Pattern::dots("#336633") }
}

fn word(words: &str) -> Motif {
    Motif::Word { words: words.to_owned(), typeface: "plain".to_owned(), own_typeface: None }
}

fn picture(pixels: [u32; 2]) -> MotifPicture {
    MotifPicture {
        blob: BlobId("b".repeat(64)),
        pixels,
        drawn: false,
        origin: Origin { name: "beetle.png".into(), ..Origin::default() },
    }
}

fn check<'a>(prepared: &'a Prepared, id: &str) -> Option<&'a Check> {
    prepared.checks.iter().find(|check| check.id == id)
}

/// Where each of the pictures lies, and what is seen of it.
fn pictures(prepared: &Prepared) -> Vec<(Rect, Region)> {
    let art = &prepared.first().arts[0];
    art.all()
        .map(|inked| match &inked.ink {
            Ink::Picture { place, clip, .. } => {
                let corners = [Point::ZERO, Point::new(1.0, 1.0)].map(|corner| *place * corner);
                (Rect::from_points(corners[0], corners[1]), Region::inside(clip))
            }
            other => panic!("{other:?}"),
        })
        .collect()
}

proptest! {
    /// So many columns and rows of a picture are so many pictures, each whole in its motif, with its ratio kept.
    #[test]
    fn pictures_come_as_often_as_is_asked_for(
        columns in 1u32..8, rows in 1u32..9, across in 20u32..400, along in 20u32..400,
        turning in any::<bool>(),
    ) {
        let side = [60.0 / f64::from(columns) * 0.9, 100.0 / f64::from(rows) * 0.9];
        let motif = Motif::Picture(picture([across, along]));
        let made = Pattern { turning, ..pattern(motif, side, Grid::Count([columns, rows])) };
        let prepared = prepared(made);
        let found = pictures(&prepared);
        prop_assert_eq!(found.len(), (columns * rows) as usize);
        let ratio = f64::from(across) / f64::from(along);
        for (lies, seen) in &found {
            prop_assert!((lies.width() / lies.height() / ratio - 1.0).abs() < 1e-9);
            prop_assert!(lies.width() <= side[0] + 1e-9 && lies.height() <= side[1] + 1e-9);
            let full = (lies.width() - side[0]).abs().min((lies.height() - side[1]).abs());
            prop_assert!(full < 1e-9, "as large as it is held");
            prop_assert!((seen.area() - lies.area()).abs() < 1e-3 * lies.area(), "seen whole");
        }
        // 1 in = 25.4 mm.
        let ppi = f64::from(across) / found[0].0.width() * 25.4;
        let told: f64 = check(&prepared, "ppi-l1").unwrap().value_text.parse().unwrap();
        prop_assert!((told - ppi).abs() <= 0.5 + 1e-6, "{told} {ppi}");
    }

    /// A word is as wide or as high as its motif, and as heavy as the same word in type of that size.
    #[test]
    fn words_fill_their_motif(width in 8.0..25.0f64, height in 3.0..12.0f64) {
        let made = prepared(pattern(word("Fennel"), [width, height], Grid::Count([1, 1])));
        let Ink::Area { path, .. } = &made.first().arts[0].all().next().unwrap().ink else {
            panic!("an area")
        };
        let bounds = path.bounding_box();
        prop_assert!((bounds.width() - width).abs().min((bounds.height() - height).abs()) < 1e-6);
        prop_assert!(bounds.width() < width + 1e-6 && bounds.height() < height + 1e-6);
        let points: f64 = match check(&made, "type-l1") {
            Some(told) => told.value_text.parse().unwrap(),
            None => panic!("the type has a size"),
        };
        let alone = Text { size: TextSize::Em(points * POINT), ..Text::new("Fennel") };
        let own = alone.set([200.0, 200.0]).path.bounding_box();
        prop_assert!((own.width() - bounds.width()).abs() < 0.05 * bounds.width() / points.min(1.0) + 0.2);
    }
}

/// Words that are cut off at the edge keep the insides of their letters open, as whole ones do.
#[test]
fn words_cut_off_at_the_edge_keep_their_insides_open() {
    let made = |side: f64| prepared(pattern(word("8"), [side, side], Grid::Pitch([400.0, 400.0])));
    let path = |made: &Prepared| match &made.first().arts[0].all().next().unwrap().ink {
        Ink::Area { path, .. } => path.clone(),
        other => panic!("{other:?}"),
    };
    let (small, large) = (made(10.0), made(120.0));
    let whole = path(&small);
    let middle = whole.bounding_box().center().to_vec2();
    let grown = Affine::translate(middle) * Affine::scale(12.0) * Affine::translate(-middle);
    let seen = Region::rect(large.first().flat.parts[0].bounds);
    let wanted = Region::wound(&(grown * whole.clone())).intersection(&seen);
    let solid = Region::inside(&(grown * whole)).intersection(&seen);
    assert!(solid.area() > 1.2 * wanted.area(), "what it encloses is seen");
    let cut = Region::wound(&path(&large));
    let off = cut.minus(&wanted).area() + wanted.minus(&cut).area();
    assert!(off < 0.01 * wanted.area(), "{off} mm² of {}", wanted.area());
}

/// What lies across the edge of its area is cut off there, and counted up to a bound.
#[test]
fn pictures_are_cut_off_at_the_edge_and_bounded() {
    let motif = || Motif::Picture(picture([100, 100]));
    let whole = prepared(pattern(motif(), [12.0, 12.0], Grid::Pitch([12.0, 12.0])));
    let seen: f64 = pictures(&whole).iter().map(|(_, seen)| seen.area()).sum();
    assert!((seen / 6000.0 - 1.0).abs() < 0.01, "they tile the tag: {seen}");

    let many = prepared(pattern(motif(), [1.0, 1.0], Grid::Pitch([1.5, 1.5])));
    let told = check(&many, "motifs-l1").unwrap();
    assert_eq!(told.state, State::Broken);
    assert!(told.verdict.contains("up to 1000"), "{}", told.verdict);
    assert!(many.first().arts[0].all().next().is_none());
}

/// A picture that is repeated belongs to its job: it is asked for and missed as any other.
#[test]
fn a_repeated_picture_is_one_of_the_job() {
    let job = job(pattern(Motif::Picture(picture([50, 50])), [5.0, 5.0], Grid::Pitch([9.0, 9.0])));
    assert!(job.blobs().any(|blob| blob.0 == "b".repeat(64)));
    let missing = missing_blobs(&job, &NoBlobs);
    assert_eq!(missing.len(), 1);
    assert!(missing[0].value_text.contains("missing"), "{:?}", missing[0]);
    let unsound = MotifPicture { blob: BlobId("no".into()), ..picture([5, 5]) };
    let mut bad = job.clone();
    bad.pieces[0].face.as_mut().unwrap().layers[0].kind =
        LayerKind::Pattern(pattern(Motif::Picture(unsound), [5.0, 5.0], Grid::Pitch([9.0, 9.0])));
    assert_eq!(bad.validate().unwrap_err()[0].field, "pieces.p1.face.layers.l1.motif_of");
}

/// Small words are pointed out, with the size at which they are read; letters that are lacking too.
#[test]
fn small_words_and_missing_letters_are_pointed_out() {
    let small = job(pattern(word("parsley"), [4.0, 4.0], Grid::Pitch([9.0, 9.0])));
    let made = prepare(&small, &workshop()).unwrap();
    let told = check(&made, "type-l1").unwrap();
    assert_eq!(told.state, State::Attention);
    let mended = with_changes(&small, &told.remedies[0].changes).unwrap();
    let mended = prepare(&mended, &workshop()).unwrap();
    assert_eq!(check(&mended, "type-l1").unwrap().state, State::Fits);

    let foreign = job(pattern(word("水"), [9.0, 9.0], Grid::Pitch([19.0, 19.0])));
    let made = prepare(&foreign, &workshop()).unwrap();
    assert_eq!(check(&made, "letters-l1").unwrap().state, State::Broken);
    let long = "x".repeat(61);
    let refused = job(pattern(word(&long), [9.0, 9.0], Grid::Pitch([19.0, 19.0]))).validate();
    assert_eq!(refused.unwrap_err()[0].field, "pieces.p1.face.layers.l1.motif_of.words");
}

/// Each copy's pattern says the word of its row.
#[test]
fn words_come_from_the_list() {
    let mut job = job(pattern(word("{Name}"), [20.0, 8.0], Grid::Count([2, 4])));
    job.pieces[0].copies = 2;
    job.pieces[0].list = Some(List {
        name: "two.csv".into(),
        columns: vec!["Name".into()],
        rows: vec![vec!["Dill".into()], vec!["Sorrel".into()]],
        ..List::default()
    });
    let made = prepare(&job, &workshop()).unwrap();
    let art = &made.first().arts[0];
    let width = |row: usize| {
        let inks: Vec<_> = art.inks(row).collect();
        let Ink::Area { path, .. } = &inks[0].ink else { panic!("an area") };
        path.elements().len()
    };
    assert_ne!(width(0), width(1));
}

/// A word that is repeated is set in its maker's typeface as words that stand alone are, and that is missed as theirs is.
#[test]
fn a_motif_is_set_in_a_typeface_of_ones_own() {
    struct OneFont(BlobId);
    impl Blobs for OneFont {
        fn holds(&self, id: &BlobId) -> bool {
            *id == self.0
        }
        fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>> {
            let poster = SHELF.iter().find(|typeface| typeface.id == "poster")?;
            self.holds(id).then(|| poster.bytes().into())
        }
    }
    let of = |typeface: &str, own: Option<&BlobId>| {
        let origin = Origin { name: "Poster of ours".into(), ..Origin::default() };
        let own =
            own.map(|blob| OwnTypeface { blob: blob.clone(), origin, bytes: FontBytes::default() });
        let motif = Motif::Word {
            words: "Fennel".to_owned(),
            typeface: typeface.to_owned(),
            own_typeface: own,
        };
        job(pattern(motif, [20.0, 8.0], Grid::Count([2, 3])))
    };
    let drawn = |job: &Job| {
        let made = prepare(job, &workshop()).unwrap();
        made.first().arts[0].all().next().unwrap().ink.clone()
    };
    let blob = BlobId("a".repeat(64));
    let fonts = OneFont(blob.clone());
    let bare = of("plain", Some(&blob));
    assert_eq!(drawn(&bare.with_fonts(&fonts)), drawn(&of("poster", None)));
    assert_eq!(drawn(&bare), drawn(&of("plain", None)), "in the plainest until it is here");
    assert_ne!(drawn(&bare), drawn(&bare.with_fonts(&fonts)));
    assert!(bare.blobs().any(|id| *id == blob), "it is held while the job names it");
    let missing = missing_blobs(&bare, &NoBlobs);
    assert_eq!(missing[0].bound_text, "“Poster of ours”");
    let mended = with_changes(&bare, &missing[0].remedies[0].changes).unwrap();
    assert!(missing_blobs(&mended, &NoBlobs).is_empty());
    let unsound = of("plain", Some(&BlobId("../x".into())));
    assert!(prepare(&unsound, &workshop()).is_err());
}
