//! White beneath what is printed, drawn again from its plate by another library (hayro).

use aptum_core::face::{Beyond, Finish, Layer, PictureSize, PlacedPicture};
use aptum_core::geometry::{Point, Vec2};
use aptum_core::workshop::SheetSize;
use aptum_core::{Job, Prepared, prepare};
use aptum_formats::pdf::{plates, plates_pdf};
use image::{ImageFormat, Rgba, RgbaImage};

use crate::pictures::{Hand, coded, workshop};
use crate::rows::{FINE, at, first_pages, picture, tags};

const BLACK: [u8; 3] = [0; 3];

/// The plates of a picture on a tag with white beneath it, drawn in by so much, mm.
fn whitened(placed: PlacedPicture, hand: &Hand, choke: f64) -> (Prepared, Vec<RgbaImage>) {
    let (mut job, _) = tags(vec![picture(placed)], None, 1);
    job.sheet.size = SheetSize { name: "small".into(), width: 130.0, height: 120.0 };
    let white = &mut job.pieces[0].face.as_mut().unwrap().white;
    (white.on, white.choke) = (true, choke);
    plated(&job, hand, 1)
}

/// The first so many of its plates.
fn plated(job: &Job, hand: &Hand, count: usize) -> (Prepared, Vec<RgbaImage>) {
    let prepared = prepare(job, &workshop()).unwrap();
    let mut bytes = Vec::new();
    plates_pdf(job, &prepared, hand, &mut bytes).unwrap();
    let pages = first_pages(&bytes, count);
    (prepared, pages)
}

/// Where the middle of the first copy lies on its sheet.
fn middle(prepared: &Prepared) -> Point {
    let part = prepared.blanks().next().unwrap().part;
    let copy = prepared.layout.each_sheet().next().unwrap()[0];
    copy.transform() * part.bounds.center()
}

/// How far a plate is black from a point on, in a direction, mm.
fn reach(plate: &RgbaImage, from: Point, angle: f64) -> f64 {
    let way = Vec2::from_angle(angle);
    let steps = (0..2000u32).map(|step| f64::from(step) / FINE);
    steps.take_while(|mm| at(plate, from + way * *mm)[0] < 128).last().unwrap()
}

/// A disc of known radius is white in a disc whose radius is less by the choke, or more by a spread: common practice.
#[test]
fn white_is_drawn_in_from_what_a_picture_covers() {
    let mut hand = Hand::default();
    // A tenth of a millimetre each: the disc has a radius of 8 mm.
    let disc = RgbaImage::from_fn(240, 240, |x, y| {
        let off = (f64::from(x) - 119.5).hypot(f64::from(y) - 119.5);
        Rgba([40, 90, 60, if off <= 80.0 { 255 } else { 0 }])
    });
    let placed = hand.keep(&coded(&disc.into(), ImageFormat::Png));
    let placed = PlacedPicture { size: PictureSize::Width(24.0), ..placed };
    for (choke, radius) in [(0.5, 7.5), (-0.5, 8.5)] {
        let (prepared, pages) = whitened(placed.clone(), &hand, choke);
        for angle in [0.0, 0.4, 0.9, 2.0, 3.5, 5.1] {
            let own = reach(&pages[0], middle(&prepared), angle);
            assert!((own - radius).abs() < 0.13, "{choke} at {angle}: {own}");
        }
    }
}

/// A picture and its mirrored edges are one: there is no seam of bare card between them.
#[test]
fn white_beneath_a_picture_and_what_is_beyond_it_has_no_seam() {
    let mut hand = Hand::default();
    let flat = RgbaImage::from_pixel(40, 30, Rgba([200, 30, 30, 255]));
    let placed = hand.keep(&coded(&flat.into(), ImageFormat::Png));
    let size = PictureSize::Width(30.0);
    let placed = PlacedPicture { size, beyond: Beyond::Mirrored, ..placed };
    let (prepared, pages) = whitened(placed.clone(), &hand, 0.3);
    let from = middle(&prepared);
    let seam = |x: f64| at(&pages[0], from + Vec2::new(x, 2.0)) == BLACK;
    assert!((0..400).all(|step| seam(f64::from(step) * 0.05)), "past its edge at 15 mm");
    // By itself it is drawn in from its own edge.
    let alone = PlacedPicture { beyond: Beyond::Nothing, ..placed };
    let (prepared, pages) = whitened(alone, &hand, 0.3);
    let own = reach(&pages[0], middle(&prepared), 0.0);
    assert!((own - 14.7).abs() < 0.11, "{own}");
}

/// White beneath the marks alone is a plate all the same.
#[test]
fn white_beneath_the_marks_is_a_plate_of_its_own() {
    let mut hand = Hand::default();
    let spot = RgbaImage::from_pixel(20, 20, Rgba([0, 60, 120, 255]));
    let placed = hand.keep(&coded(&spot.into(), ImageFormat::Png));
    let varnished = Layer { finish: Finish::Varnish, id: "l2".into(), ..picture(placed.clone()) };
    let (mut job, plain) = tags(vec![picture(placed), varnished], None, 1);
    assert_eq!(plates(&plain), 2);
    job.sheet.size = SheetSize { name: "small".into(), width: 130.0, height: 120.0 };
    job.pieces[0].face.as_mut().unwrap().white.under_marks = true;
    let (prepared, pages) = plated(&job, &hand, 2);
    assert_eq!(plates(&prepared), 3, "white, colour, varnish");
    let mark = kurbo::Shape::bounding_box(&prepared.marks.marks[1].ink);
    let beside = Point::new(mark.x0 - 0.5, mark.center().y);
    let beside = [beside, Point::new(mark.x1 + 0.5, mark.center().y)];
    assert!(beside.iter().any(|own| at(&pages[0], *own) == BLACK), "white beside the mark");
    assert!(beside.iter().all(|own| at(&pages[1], *own) == [255; 3]));
}
