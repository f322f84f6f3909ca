//! What is printed, drawn again from the files by other libraries: hayro (PDF) and resvg (SVG).

use aptum_core::face::{
    Beyond, Face, Finish, KnownCover, Layer, LayerKind, List, Lying, NamedPicture, PictureSize,
    PlacedPicture, Runs, Shape, ShapeSize, Side, Text, TextSize,
};
use aptum_core::form::Form;
use aptum_core::geometry::{Point, Rect, Vec2};
use aptum_core::job::{JobPiece, Orientation, with_changes};
use aptum_core::workshop::{SheetSize, TurnsAbout};
use aptum_core::{Job, Prepared, State, prepare};
use aptum_formats::archive::blob_id;
use aptum_formats::art::{art_svg, png, sheet_svg};
use aptum_formats::drawing::{DrawingFile, brought};
use aptum_formats::pdf::{art_pdf, plates, plates_pdf, print_pdf};
use aptum_formats::picture::Picture;
use hayro::hayro_interpret::InterpreterSettings;
use hayro::hayro_syntax::Pdf;
use hayro::hayro_syntax::page::Page;
use hayro::{PixmapSettings, RenderCache, RenderSettings};
use image::{ImageFormat, Rgba, RgbaImage};

use crate::pictures::{Hand, coded, workshop};

impl Hand {
    /// Keeps a picture, which lies on the tag.
    pub fn keep(&mut self, bytes: &[u8]) -> PlacedPicture {
        let picture = Picture::of(bytes).unwrap();
        let id = blob_id(bytes);
        self.0.insert(id.clone(), bytes.into());
        let lying = Lying { panels: vec!["Tag".into()], ..Lying::default() };
        PlacedPicture::new(id, picture.pixels, lying)
    }
}

/// Pixels in a millimetre at which files are drawn again, and at which places are measured: hayro draws no part of a
/// pixel of a picture's edge.
pub const FINE: f64 = 20.0;
const FINEST: f64 = 60.0;

fn pages(pdf: &[u8]) -> Vec<RgbaImage> {
    drawn_pages(pdf, FINE, |page| page)
}

/// The first so many pages.
pub fn first_pages(pdf: &[u8], count: usize) -> Vec<RgbaImage> {
    let pdf = Pdf::new(pdf.to_vec()).unwrap();
    pdf.pages().iter().take(count).map(|page| drawn(page, FINE)).collect()
}

/// The pages of a PDF, drawn by hayro on white at so many pixels in a millimetre, one after the other.
fn drawn_pages<T>(pdf: &[u8], fine: f64, look: impl Fn(RgbaImage) -> T) -> Vec<T> {
    let pdf = Pdf::new(pdf.to_vec()).unwrap();
    pdf.pages().iter().map(|page| look(drawn(page, fine))).collect()
}

fn drawn(page: &Page<'_>, fine: f64) -> RgbaImage {
    #[allow(clippy::cast_possible_truncation)]
    let scale = (fine * 25.4 / 72.0) as f32;
    let cache = RenderCache::new();
    let fine = PixmapSettings { x_scale: scale, y_scale: scale, ..PixmapSettings::default() };
    let (reading, drawing) = (InterpreterSettings::default(), RenderSettings::default());
    let pixmap = hayro::render(page, &cache, &reading, &drawing, &fine);
    let (width, height) = (u32::from(pixmap.width()), u32::from(pixmap.height()));
    let bytes: Vec<u8> = pixmap.data().iter().flat_map(|p| [p.r, p.g, p.b, p.a]).collect();
    on_white(RgbaImage::from_raw(width, height, bytes).unwrap())
}

/// Premultiplied pixels laid on white.
fn on_white(mut pixels: RgbaImage) -> RgbaImage {
    for Rgba([r, g, b, a]) in pixels.pixels_mut() {
        let rest = 255 - *a;
        (*r, *g, *b, *a) = (*r + rest, *g + rest, *b + rest, 255);
    }
    pixels
}

pub fn at(pixels: &RgbaImage, point: Point) -> [u8; 3] {
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
    let Rgba([r, g, b, _]) = *pixels.get_pixel((point.x * FINE) as u32, (point.y * FINE) as u32);
    [r, g, b]
}

/// True where a rectangle has one colour, and what is a tenth of a millimetre outside of its corners has not.
fn is_just(pixels: &RgbaImage, colour: [u8; 3], own: Rect) -> bool {
    let corners =
        |own: Rect| [(own.x0, own.y0), (own.x1, own.y0), (own.x0, own.y1), (own.x1, own.y1)];
    let is = |own: Rect| corners(own).map(|corner| at(pixels, corner.into()) == colour);
    is(own.inset(-0.1)) == [true; 4] && is(own.inflate(0.1, 0.1)) == [false; 4]
}

/// The bounds of what has one colour within so much of a page that was drawn at its finest.
fn measured(pixels: &RgbaImage, colour: [u8; 3], within: Rect) -> Rect {
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
    let [x0, y0, x1, y1] =
        [within.x0, within.y0, within.x1, within.y1].map(|mm| (mm * FINEST) as u32);
    let (mid_x, mid_y) = (u32::midpoint(x0, x1), u32::midpoint(y0, y1));
    let span = |from: u32, to: u32, of: &dyn Fn(u32) -> Rgba<u8>| -> [f64; 2] {
        let is_own = |at: &u32| of(*at).0[..3] == colour;
        let first = (from..to).find(is_own).unwrap();
        let last = (from..to).rev().find(is_own).unwrap();
        [f64::from(first) / FINEST, f64::from(last + 1) / FINEST]
    };
    let [left, right] = span(x0, x1, &|x| *pixels.get_pixel(x, mid_y));
    let [top, bottom] = span(y0, y1, &|y| *pixels.get_pixel(mid_x, y));
    Rect::new(left, top, right, bottom)
}

fn one_colour(colour: [u8; 3], width: u32, height: u32) -> Vec<u8> {
    let [r, g, b] = colour;
    let pixels = RgbaImage::from_pixel(width, height, Rgba([r, g, b, 255]));
    coded(&pixels.into(), ImageFormat::Png)
}

pub fn tags(layers: Vec<Layer>, list: Option<List>, copies: u32) -> (Job, Prepared) {
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let form = Form::new("tag", &[("width", 60.0), ("height", 40.0), ("hole", 0.0)]);
    let piece = JobPiece::new("p1", form, &job.pieces[0].stock.0);
    let face = Some(Face::new(1.0, layers));
    let job = Job { pieces: vec![JobPiece { face, list, copies, ..piece }], ..job };
    let prepared = prepare(&job, &workshop()).unwrap();
    (job, prepared)
}

fn printed(job: &Job, prepared: &Prepared, hand: &Hand) -> Vec<RgbaImage> {
    let mut bytes = Vec::new();
    print_pdf(job, prepared, hand, &mut bytes).unwrap();
    pages(&bytes)
}

pub fn picture(placed: PlacedPicture) -> Layer {
    Layer::new("l1", LayerKind::Picture(placed))
}

/// Each corner within 0.02 mm of its figures, on every copy, turned or not.
#[test]
fn a_picture_lies_where_its_figures_say_on_every_copy() {
    let mut hand = Hand::default();
    let colour = [20, 90, 160];
    let placed = hand.keep(&one_colour(colour, 40, 30));
    let lying = Lying { x: 3.25, y: -2.4, ..placed.lying.clone() };
    let placed = PlacedPicture { size: PictureSize::Width(22.3), lying, ..placed };
    let (mut job, _) = tags(vec![picture(placed)], None, 7);
    job.sheet.size = SheetSize { name: "own".into(), width: 150.0, height: 110.0 };
    (job.sheet.marks, job.sheet.cutter) = (None, None);
    let prepared = prepare(&job, &workshop()).unwrap();
    let part = prepared.blanks().next().unwrap().part;
    let own = Rect::from_center_size(
        part.bounds.center() + Vec2::new(3.25, -2.4),
        (22.3, 22.3 * 30.0 / 40.0),
    );
    let sheets: Vec<_> = prepared.layout.each_sheet().collect();
    let at = std::cell::Cell::new(0);
    let mut bytes = Vec::new();
    print_pdf(&job, &prepared, &hand, &mut bytes).unwrap();
    let seen: Vec<usize> = drawn_pages(&bytes, FINEST, |page| {
        let sheet = sheets[at.replace(at.get() + 1)];
        for copy in sheet {
            let lies = copy.transform().transform_rect_bbox(own);
            let found = measured(&page, colour, lies.inflate(1.0, 1.0));
            let (low, high) = (found.origin() - lies.origin(), found.max_x() - lies.max_x());
            let off = [low.x, low.y, high, found.max_y() - lies.max_y()];
            assert!(off.iter().all(|mm| mm.abs() < 0.02), "{off:?}");
        }
        sheet.len()
    });
    assert_eq!(seen.iter().sum::<usize>(), 7);
}

/// Held against the light, the back lies behind its own copy: what is upper right from behind is upper left from the
/// front, whichever edge the printer turns the sheet about.
#[test]
fn a_back_lies_behind_its_own_copy() {
    let mut hand = Hand::default();
    let [front, behind] = [[180, 60, 20], [20, 90, 160]];
    let small = |hand: &mut Hand, colour: [u8; 3], side: Side| {
        let placed = hand.keep(&one_colour(colour, 30, 30));
        let lying = Lying { x: 18.0, y: -11.0, ..placed.lying.clone() };
        let placed = PlacedPicture { size: PictureSize::Width(9.0), lying, ..placed };
        Layer { side, ..picture(placed) }
    };
    let layers = vec![
        small(&mut hand, front, Side::Front),
        Layer { id: "l2".into(), ..small(&mut hand, behind, Side::Back) },
    ];
    let (mut job, _) = tags(layers, None, 5);
    job.pieces[0].face.as_mut().unwrap().both_sides = true;
    job.sheet.size = SheetSize { name: "own".into(), width: 110.0, height: 150.0 };
    (job.sheet.marks, job.sheet.cutter) = (None, None);
    let mut codes = Vec::new();
    for (about, is_upright) in [
        (TurnsAbout::LongEdge, false),
        (TurnsAbout::ShortEdge, false),
        (TurnsAbout::LongEdge, true),
    ] {
        let mut workshop = workshop();
        let printer = workshop.printers.get_mut(job.sheet.printer.as_ref().unwrap()).unwrap();
        printer.turns_about = about;
        job.sheet.orientation =
            if is_upright { Orientation::Portrait } else { Orientation::Landscape };
        let prepared = prepare(&job, &workshop).unwrap();
        codes.push(prepared.code.clone());
        let page = prepared.windows.page;
        assert_eq!(page.height() > page.width(), is_upright);
        let middle = prepared.blanks().next().unwrap().part.bounds.center();
        let at = |x: f64, y: f64| Rect::from_center_size(middle + Vec2::new(x, y), (9.0, 9.0));
        let mut bytes = Vec::new();
        print_pdf(&job, &prepared, &hand, &mut bytes).unwrap();
        let pages = pages(&bytes);
        let sheets: Vec<_> = prepared.layout.each_sheet().collect();
        assert_eq!(pages.len(), 2 * sheets.len(), "each sheet has its back after it");
        for (number, (pages, sheet)) in (1..).zip(pages.chunks(2).zip(sheets)) {
            // The same in pixels, five to a millimetre.
            let [seen_front, seen_behind] = [Side::Front, Side::Back].map(|side| {
                let svg = sheet_svg(&job, &prepared, number, side, &hand).unwrap();
                image::load_from_memory(&png(&svg, 127.0, true).unwrap()).unwrap().to_rgb8()
            });
            #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
            let pixel = |of: &image::RgbImage, at: Point| {
                of.get_pixel((at.x * 5.0) as u32, (at.y * 5.0) as u32).0
            };
            for copy in sheet {
                let lies = copy.transform().transform_rect_bbox(at(18.0, -11.0));
                assert!(is_just(&pages[0], front, lies));
                let through = copy.transform().transform_rect_bbox(at(-18.0, -11.0));
                // An upright page turned about its long edge, like a lying one about its short, changes left and right.
                let turns_sides = is_upright == (about == TurnsAbout::LongEdge);
                let seen = if turns_sides {
                    Rect::new(
                        page.width() - through.x1,
                        through.y0,
                        page.width() - through.x0,
                        through.y1,
                    )
                } else {
                    Rect::new(
                        through.x0,
                        page.height() - through.y1,
                        through.x1,
                        page.height() - through.y0,
                    )
                };
                assert!(is_just(&pages[1], behind, seen), "{about:?} {seen:?}");
                assert_eq!(pixel(&seen_front, lies.center()), front);
                assert_eq!(pixel(&seen_behind, seen.center()), behind, "{about:?} {seen:?}");
            }
        }
    }
    codes.sort_unstable();
    codes.dedup();
    assert_eq!(codes.len(), 3, "another turn is another print");
    // The back reaches past the cut by the bleed and by what turning may be off.
    let colour = Layer { side: Side::Back, ..Layer::colour("l3", "#445566") };
    job.pieces[0].face.as_mut().unwrap().layers.push(colour);
    job.sheet.spacing = 10.0;
    let prepared = prepare(&job, &workshop()).unwrap();
    let bleeds =
        (prepared.first().arts[0].bleed, prepared.first().back.as_ref().unwrap().arts[0].bleed);
    assert_eq!(bleeds, (1.0, 2.0));
    let check = |prepared: &Prepared| {
        let found = prepared.checks.iter().find(|check| check.id == "back-bleed").unwrap();
        let changes = found.remedies.first().map(|remedy| remedy.changes.clone());
        (found.state, changes.unwrap_or_default())
    };
    assert_eq!(check(&prepared).0, State::Fits);
    job.sheet.spacing = 1.0;
    let (state, changes) = check(&prepare(&job, &workshop()).unwrap());
    assert_eq!(state, State::Attention);
    let mended = with_changes(&job, &changes).unwrap();
    assert_eq!(check(&prepare(&mended, &workshop()).unwrap()).0, State::Fits);
}

/// What is transferred is printed as a mirror shows it.
#[test]
fn what_is_transferred_is_printed_mirrored() {
    let mut hand = Hand::default();
    let [red, blue] = [[180, 40, 30], [30, 60, 180]];
    let half = |x: u32| if x < 15 { red } else { blue };
    let pixels = RgbaImage::from_fn(30, 20, |x, _| {
        let [r, g, b] = half(x);
        Rgba([r, g, b, 255])
    });
    let placed = hand.keep(&coded(&pixels.into(), ImageFormat::Png));
    let lying = Lying { x: 12.0, y: -6.0, ..placed.lying.clone() };
    let placed = PlacedPicture { size: PictureSize::Width(24.0), lying, ..placed };
    let (mut job, _) = tags(vec![picture(placed)], None, 1);
    job.sheet.size = SheetSize { name: "own".into(), width: 100.0, height: 90.0 };
    (job.sheet.marks, job.sheet.cutter) = (None, None);
    let mut workshop = workshop();
    workshop.stocks.get_mut(&job.pieces[0].stock).unwrap().mirrored = true;
    let prepared = prepare(&job, &workshop).unwrap();
    let pages = printed(&job, &prepared, &hand);
    let copy = prepared.layout.each_sheet().next().unwrap()[0];
    let middle = prepared.blanks().next().unwrap().part.bounds.center();
    // Right of the middle as it is drawn, left of it in the mirror, and its own left half on the right.
    let on = |x: f64| Rect::from_center_size(middle + Vec2::new(x, -6.0), (12.0, 16.0));
    let lies = |own: Rect| copy.transform().transform_rect_bbox(own);
    let corner = |own: Rect| at(&pages[0], lies(own).center());
    assert_eq!((corner(on(-18.0)), corner(on(-6.0))), (blue, red));
    let svg = sheet_svg(&job, &prepared, 1, Side::Front, &hand).unwrap();
    let drawn =
        image::load_from_memory(&png(&svg, FINE * 25.4, true).unwrap()).unwrap().into_rgba8();
    assert_eq!(at(&drawn, lies(on(-18.0)).center()), blue);
    // The art alone is as it was drawn.
    let art = art_svg(prepared.first(), Side::Front, &hand);
    let bleed = prepared.first().arts[0].bleed;
    let alone =
        image::load_from_memory(&png(&art, FINE * 25.4, true).unwrap()).unwrap().into_rgba8();
    assert_eq!(at(&alone, on(6.0).center() + Vec2::new(bleed, bleed)), red);
}

/// Each ink is a separation of its own, and a page of its own where that is asked for, all with the same marks.
#[test]
fn each_ink_is_a_separation_and_a_plate() {
    let mut hand = Hand::default();
    // Half of it is clear.
    let pixels = RgbaImage::from_fn(40, 20, |x, _| Rgba([9, 9, 9, if x < 20 { 255 } else { 0 }]));
    let placed = hand.keep(&coded(&pixels.into(), ImageFormat::Png));
    let lying = Lying { y: 10.0, ..placed.lying.clone() };
    let spot = PlacedPicture { size: PictureSize::Width(20.0), lying, ..placed };
    let square = |sides: [f64; 2]| {
        let lying = Lying { panels: vec!["Tag".into()], y: -8.0, ..Lying::default() };
        let size = ShapeSize::Sides(sides);
        let shape = Shape { lying, size, ..Shape::filled("#336699") };
        LayerKind::Shape(shape)
    };
    let layers = vec![
        Layer::new("l1", square([30.0, 12.0])),
        Layer { finish: Finish::Varnish, ..picture(spot) },
        Layer { finish: Finish::Raised { passes: 3 }, ..Layer::new("l3", square([6.0, 6.0])) },
    ];
    let layers = layers.into_iter().enumerate();
    let layers = layers.map(|(at, layer)| Layer { id: format!("l{at}").as_str().into(), ..layer });
    let (mut job, _) = tags(layers.collect(), None, 1);
    job.sheet.size = SheetSize { name: "own".into(), width: 130.0, height: 120.0 };
    let white = &mut job.pieces[0].face.as_mut().unwrap().white;
    (white.on, white.choke, white.under_marks) = (true, 0.5, true);
    let prepared = prepare(&job, &workshop()).unwrap();
    let mut print = Vec::new();
    print_pdf(&job, &prepared, &hand, &mut print).unwrap();
    let print = lopdf::Document::load_mem(&print).unwrap();
    let mut spots: Vec<String> = print
        .objects
        .values()
        .filter_map(|object| object.as_array().ok())
        .filter(|array| {
            array.first().is_some_and(|own| own.as_name().is_ok_and(|n| n == b"Separation"))
        })
        .map(|array| String::from_utf8(array[1].as_name().unwrap().to_vec()).unwrap())
        .collect();
    spots.sort_unstable();
    assert_eq!(spots, ["Raised varnish", "Varnish", "White"]);

    let mut bytes = Vec::new();
    plates_pdf(&job, &prepared, &hand, &mut bytes).unwrap();
    let pages = pages(&bytes);
    assert_eq!((pages.len(), plates(&prepared), prepared.layout.laid), (4, 4, 1));
    let part = prepared.blanks().next().unwrap().part;
    let on = |x: f64, y: f64, width: f64, height: f64| {
        Rect::from_center_size(part.bounds.center() + Vec2::new(x, y), (width, height))
    };
    let black = [0, 0, 0];
    for copy in prepared.layout.each_sheet().next().unwrap() {
        let lies = |own: Rect| copy.transform().transform_rect_bbox(own);
        assert!(is_just(&pages[0], black, lies(on(0.0, -8.0, 29.0, 11.0))), "choked by half a mm");
        assert!(is_just(&pages[1], [0x33, 0x66, 0x99], lies(on(0.0, -8.0, 30.0, 12.0))));
        // What the picture covers: its left half.
        assert!(is_just(&pages[2], black, lies(on(-5.0, 10.0, 10.0, 10.0))));
        assert!(is_just(&pages[3], black, lies(on(0.0, -8.0, 6.0, 6.0))));
    }
    for mark in prepared.marks.marks.iter().skip(1) {
        let bounds = kurbo::Shape::bounding_box(&mark.ink);
        let near = |page: &RgbaImage| -> Vec<[u8; 3]> {
            let steps = (0..20).flat_map(|x| (0..20).map(move |y| (f64::from(x), f64::from(y))));
            steps
                .map(|(x, y)| {
                    let share = Vec2::new(x * bounds.width(), y * bounds.height()) / 20.0;
                    at(page, bounds.origin() + share)
                })
                .collect()
        };
        assert!(near(&pages[0]).iter().all(|pixel| *pixel == black), "white beneath it");
        assert_eq!(near(&pages[1]), near(&pages[2]));
        assert_eq!(near(&pages[2]), near(&pages[3]));
        assert!(near(&pages[1]).contains(&[255; 3]));
    }
}

/// A row's picture and colour is on its own copy and on no other, in the PDF and in the PNG of the sheet.
#[test]
fn each_copy_wears_its_row() {
    let mut hand = Hand::default();
    let colours: Vec<[u8; 3]> =
        (0..30u8).map(|k| [k * 8, 255 - k * 7, k.wrapping_mul(53) / 2]).collect();
    let mut list = List {
        name: "thirty.csv".into(),
        columns: vec!["File".into(), "Word".into()],
        ..List::default()
    };
    let mut placed = None;
    for (at, colour) in colours.iter().enumerate() {
        let own = hand.keep(&one_colour(*colour, 8, 8));
        let (blob, pixels) = (own.blob.clone(), own.pixels);
        list.pictures.push(NamedPicture {
            name: format!("{at}.png"),
            blob,
            pixels,
            drawn: false,
            cover: KnownCover::default(),
        });
        list.rows.push(vec![format!("{at}.png"), format!("word {at}")]);
        placed.get_or_insert(own);
    }
    let placed = PlacedPicture {
        size: PictureSize::Height(10.0),
        column: Some("File".into()),
        ..placed.unwrap()
    };
    let lying = Lying { panels: vec!["Tag".into()], y: 14.0, ..Lying::default() };
    let words = Text { lying, size: TextSize::Points(9.0), ..Text::new("{Word}") };
    let layers = vec![picture(placed), Layer::new("l2", LayerKind::Text(words))];
    let (job, prepared) = tags(layers, Some(list), 30);
    let pages = printed(&job, &prepared, &hand);
    assert_eq!(pages.len(), prepared.layout.sheets() as usize);
    let middle = prepared.blanks().next().unwrap().part.bounds.center();
    let mut worn = Vec::new();
    let mut number = 0;
    for run in &prepared.layout.runs {
        for sheet in 0..run.sheets {
            number += 1;
            let svg = sheet_svg(&job, &prepared, number, Side::Front, &hand).unwrap();
            let coarse =
                image::load_from_memory(&png(&svg, 127.0, true).unwrap()).unwrap().to_rgb8();
            for place in &run.placements {
                let copy = run.copy(place, sheet) as usize;
                let point = place.transform() * middle;
                if copy > 30 {
                    continue;
                }
                assert_eq!(
                    at(&pages[number as usize - 1], point),
                    colours[copy - 1],
                    "copy {copy}"
                );
                #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)]
                let pixel = coarse.get_pixel((point.x * 5.0) as u32, (point.y * 5.0) as u32);
                assert_eq!(pixel.0, colours[copy - 1], "copy {copy} in the PNG");
                worn.push(copy);
            }
        }
    }
    worn.sort_unstable();
    assert_eq!(worn, (1..=30).collect::<Vec<_>>());
}

/// Cut away, mirrored and drawn out, a picture shows what it should on both sides of its edge.
#[test]
fn a_picture_is_cut_mirrored_and_drawn_out() {
    let mut hand = Hand::default();
    // Four quarters: red, green, blue, black.
    let quarters = RgbaImage::from_fn(80, 80, |x, y| match (x < 40, y < 40) {
        (true, true) => Rgba([220, 0, 0, 255]),
        (false, true) => Rgba([0, 200, 0, 255]),
        (true, false) => Rgba([0, 0, 210, 255]),
        (false, false) => Rgba([9, 9, 9, 255]),
    });
    let whole = hand.keep(&coded(&quarters.into(), ImageFormat::Png));
    let seen = |placed: PlacedPicture, points: &[(f64, f64)]| -> Vec<[u8; 3]> {
        let (_, prepared) = tags(vec![picture(placed)], None, 1);
        let mut pdf = Vec::new();
        art_pdf(prepared.first(), &hand, &mut pdf).unwrap();
        let page = pages(&pdf).remove(0);
        let middle = Point::new(31.0, 21.0);
        points.iter().map(|(x, y)| at(&page, middle + Vec2::new(*x, *y))).collect()
    };
    let (red, green, blue) = ([220, 0, 0], [0, 200, 0], [0, 0, 210]);
    let (black, white) = ([9, 9, 9], [255, 255, 255]);
    let square = PlacedPicture { size: PictureSize::Width(20.0), ..whole.clone() };
    let corners = [(-6.0, -6.0), (6.0, -6.0), (-6.0, 6.0), (6.0, 6.0)];
    assert_eq!(seen(square.clone(), &corners), [red, green, blue, black]);
    let mirrored = PlacedPicture { mirrored: true, ..square.clone() };
    assert_eq!(seen(mirrored, &corners), [green, red, black, blue]);
    let right_half = PlacedPicture { crop: [0.5, 0.0, 0.0, 0.0], ..square.clone() };
    assert_eq!(seen(right_half, &[(-6.0, -6.0), (6.0, 15.0), (-11.0, 0.5)]), [green, black, white]);
    let beyond = [(-12.0, -6.0), (12.0, -6.0), (-6.0, -12.0), (-26.0, 5.0)];
    let none = PlacedPicture { ..square.clone() };
    assert_eq!(seen(none, &beyond), [white; 4]);
    let turned_over = PlacedPicture { beyond: Beyond::Mirrored, ..square.clone() };
    // Twelve out lies as far beyond the edge as eight in; 26 lies six beyond the mirrored picture’s middle.
    assert_eq!(seen(turned_over, &beyond), [red, green, red, black]);
    let drawn_out = PlacedPicture { beyond: Beyond::Repeated, ..square.clone() };
    assert_eq!(seen(drawn_out, &beyond), [red, green, red, blue]);
    let coloured = PlacedPicture { beyond: Beyond::Colour("#112233".into()), ..square };
    assert_eq!(seen(coloured, &beyond)[0], [0x11, 0x22, 0x33]);
    let covering = PlacedPicture { size: PictureSize::Covering, ..whole };
    assert_eq!(seen(covering, &[(-30.8, -20.8), (30.8, 20.8)]), [red, black], "into the bleed");
}

const DRAWING: &str = r##"<svg xmlns="http://www.w3.org/2000/svg" width="120" height="80">
    <defs><linearGradient id="g"><stop offset="0" stop-color="#d33"/><stop offset="1" stop-color="#33d"/></linearGradient>
    <clipPath id="c"><circle cx="90" cy="40" r="25"/></clipPath></defs>
    <rect x="5" y="5" width="50" height="70" rx="8" fill="url(#g)" stroke="#222" stroke-width="3"/>
    <g clip-path="url(#c)" opacity="0.8"><rect x="60" y="10" width="60" height="60" fill="#2a7"/>
    <path d="M60 70 L120 10" stroke="#fff" stroke-width="9" stroke-dasharray="12 5"/></g>
    <text x="12" y="45" font-size="14" font-family="serif">Fennel</text></svg>"##;

/// A drawing stays lines and areas in the print file, and looks as resvg draws the original.
#[test]
fn a_drawing_is_printed_as_it_was_drawn() {
    let mut hand = Hand::default();
    let kept = brought(DRAWING.as_bytes(), DrawingFile::Svg, 1).unwrap();
    let placed = hand.keep(kept.svg.as_bytes());
    let placed = PlacedPicture { size: PictureSize::Width(48.0), drawn: true, ..placed };
    let (_, prepared) = tags(vec![picture(placed)], None, 1);
    let mut pdf = Vec::new();
    art_pdf(prepared.first(), &hand, &mut pdf).unwrap();
    let file = lopdf::Document::load_mem(&pdf).unwrap();
    let is_image = |object: &lopdf::Object| {
        let stream = object.as_stream().ok();
        stream
            .and_then(|own| own.dict.get(b"Subtype").ok())
            .is_some_and(|kind| *kind == lopdf::Object::Name(b"Image".to_vec()))
    };
    assert!(!file.objects.values().any(is_image), "vectors stay vectors");
    let ours = pages(&pdf).remove(0);
    let tree = aptum_formats::drawing::tree(DRAWING).unwrap();
    #[allow(clippy::cast_possible_truncation)]
    let scale = (48.0 * FINE / 120.0) as f32;
    let mut theirs = resvg::tiny_skia::Pixmap::new(ours.width(), ours.height()).unwrap();
    theirs.fill(resvg::tiny_skia::Color::WHITE);
    #[allow(clippy::cast_possible_truncation)]
    let (left, top) = ((7.0 * FINE) as f32, (5.0 * FINE) as f32);
    let place = resvg::tiny_skia::Transform::from_row(scale, 0.0, 0.0, scale, left, top);
    resvg::render(&tree, place, &mut theirs.as_mut());
    let mut apart = 0usize;
    for (x, y, own) in ours.enumerate_pixels() {
        let other = theirs.pixel(x, y).unwrap();
        let other = [other.red(), other.green(), other.blue()];
        let most = (0..3).map(|at| own[at].abs_diff(other[at])).max().unwrap();
        apart += usize::from(most > 24);
    }
    let share = apart as f64 / f64::from(ours.width() * ours.height());
    assert!(share < 0.002, "{share} of the pixels differ");
}

/// A page of a PDF becomes a drawing of the same look.
#[test]
fn a_page_of_a_pdf_is_brought_in() {
    let hand = Hand::default();
    let shape = Shape {
        lying: Lying { panels: vec!["Tag".into()], ..Lying::default() },
        size: ShapeSize::Sides([40.0, 20.0]),
        runs: Some(Runs { colour: "#3333dd".into(), turn: 0.0 }),
        ..Shape::filled("#dd3333")
    };
    let (_, prepared) = tags(vec![Layer::new("l1", LayerKind::Shape(shape))], None, 1);
    let mut pdf = Vec::new();
    art_pdf(prepared.first(), &hand, &mut pdf).unwrap();
    let page = pages(&pdf).remove(0);
    // A colour runs evenly from end to end (ISO 32000-1, 8.7.4.5.3).
    let (quarter, half) = (at(&page, Point::new(21.0, 21.0)), at(&page, Point::new(31.0, 21.0)));
    let near = |own: [u8; 3], wanted: [u8; 3]| (0..3).all(|k| own[k].abs_diff(wanted[k]) < 5);
    assert!(
        near(quarter, [0xb2, 0x33, 0x5d]) && near(half, [0x88, 0x33, 0x88]),
        "{quarter:?} {half:?}"
    );
    // So it does in the SVG.
    let svg = art_svg(prepared.first(), Side::Front, &hand);
    let drawn = image::load_from_memory(&png(&svg, 254.0, true).unwrap()).unwrap().to_rgb8();
    assert!(near(drawn.get_pixel(210, 210).0, quarter), "{:?}", drawn.get_pixel(210, 210));
    let kept = brought(&pdf, DrawingFile::Pdf, 1).unwrap();
    let [width, height] = kept.sides.map(f64::from);
    assert!((width / height - 62.0 / 42.0).abs() < 1e-3);
    let again = image::load_from_memory(&png(&kept.svg, 96.0, true).unwrap()).unwrap().to_rgb8();
    let (across, along) = again.dimensions();
    let middle = again.get_pixel(across / 2, along / 2).0;
    assert!(near(middle, half), "{middle:?}");
    assert!(
        brought(&pdf, DrawingFile::Pdf, 2).unwrap_err().to_string().contains("no page 2: it has 1")
    );
}
