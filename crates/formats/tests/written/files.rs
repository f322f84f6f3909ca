//! The files, read back by other libraries.

use std::sync::Arc;

use crate::pictures::coded;
use crate::reading::{bounds, ink, open, page_box};
use aptum_core::blob::{BlobId, Blobs, NoBlobs};
use aptum_core::face::{Coverage, LayerKind};
use aptum_core::geometry::{BezPath, Rect, Shape};
use aptum_core::memory::Forgetful;
use aptum_core::returned::lines_on_page;
use aptum_core::sheet::nest::ToTheEnd;
use aptum_core::sheet::{Likeness, find_marks};
use aptum_core::sheet::{Orientation, standard_sizes};
use aptum_core::{Job, LineKind, Prepared, Workshop, nest_job, prepare};
use aptum_formats::art::png;
use aptum_formats::dxf::sheet_dxf;
use aptum_formats::lines;
use aptum_formats::lines::brought;
use aptum_formats::marks::marks_svg;
use aptum_formats::pdf::marks_pdf;
use aptum_formats::pdf::{hand_cut_pdf, print_pdf};
use aptum_formats::svg::{MarksInCut, SvgUnits, cut_svg};
use aptum_formats::trace::{dark_in, furnished, is_of_pixels};
use image::{DynamicImage, ImageFormat, RgbImage};
use proptest::prelude::*;
use sha2::{Digest, Sha256};

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

fn job(text: &str) -> Job {
    serde_json::from_str(text).unwrap()
}

fn tomato() -> Job {
    job(include_str!("../../../../demo/jobs/tomato-carton.json"))
}

/// Letter with angles of practice: ¼ in from the edges, small pieces inside.
fn letter_with_angles() -> (Job, Prepared) {
    let mut job = job(include_str!("../../../../demo/jobs/runner-bean-carton.json"));
    job.pieces[0].form = aptum_core::form::Form::new(
        "straight-tuck",
        &[("length", 40.0), ("width", 20.0), ("height", 60.0)],
    );
    let prepared = prepare(&job, &workshop()).unwrap();
    (job, prepared)
}

fn print_of(job: &Job, prepared: &Prepared) -> Vec<u8> {
    let mut bytes = Vec::new();
    print_pdf(job, prepared, &NoBlobs, &mut bytes).unwrap();
    bytes
}

fn hand_cut_of(job: &Job, prepared: &Prepared) -> Vec<u8> {
    let mut bytes = Vec::new();
    hand_cut_pdf(job, prepared, &NoBlobs, &mut bytes).unwrap();
    bytes
}

fn near(got: f64, want: f64, tolerance: f64) {
    assert!((got - want).abs() <= tolerance, "{got} instead of {want}");
}

/// Common practice: corner angles on Letter span 8 × 10.5 in (203.2 × 266.7 mm).
/// The marks alone lie where those of the print do, whichever file they come from.
#[test]
fn marks_alone_are_found_again_in_every_file() {
    let (job, prepared) = letter_with_angles();
    let svg = marks_svg(&job, &prepared).into_bytes();
    let mut pdf = Vec::new();
    marks_pdf(&job, &prepared, &mut pdf).unwrap();
    for file in [&svg, &pdf] {
        let lines = brought(file, 1).unwrap();
        let found = find_marks(&prepared.marks, &lines, Likeness::DRAWN).unwrap();
        near(found.scale, 1.0, 1e-5);
        near(found.as_it_is.unwrap(), 0.0, 0.002);
        assert_eq!(lines_on_page(&lines, &found).lines.len(), 0, "nothing but marks");
    }
    let picture = image::load_from_memory(&png(&marks_svg(&job, &prepared), 300.0, true).unwrap());
    let picture = picture.unwrap().into_luma8();
    let dark = picture.enumerate_pixels().filter(|(.., pixel)| pixel.0[0] < 128);
    let left = dark.map(|(x, ..)| x).min().unwrap();
    // 6.35 mm at 300 pixels to the inch.
    assert!((74..=76).contains(&left), "{left}");
}

/// The marks' own picture with art of somebody's on it, turned, and coded as pictures are, says where it lies.
/// 1 inch = 25.4 mm.
#[test]
fn marks_are_found_again_in_pictures() {
    let (job, prepared) = letter_with_angles();
    let svg = marks_svg(&job, &prepared);
    let marks = svg.split_once('>').and_then(|(_, rest)| rest.rsplit_once("</svg>")).unwrap().0;
    for (ppi, turn, format) in [
        (300.0, 0.0, ImageFormat::Png),
        (300.0, 1.3, ImageFormat::Jpeg),
        (200.0, -2.0, ImageFormat::WebP),
        (150.0, 0.4, ImageFormat::Jpeg),
        (600.0, 0.0, ImageFormat::Png),
    ] {
        let drawn = format!(
            r##"<svg xmlns="http://www.w3.org/2000/svg" width="215.9mm" height="279.4mm" viewBox="0 0 215.9 279.4">
            <g transform="rotate({turn} 107.95 139.7)">{marks}
            <circle cx="90" cy="120" r="40" fill="#7a2048"/><path d="M60 180h90v20h-60z" fill="#203040"/>
            <path d="M70 210h60" stroke="#000" stroke-width="1"/></g></svg>"##
        );
        let picture = image::load_from_memory(&png(&drawn, ppi, true).unwrap()).unwrap();
        let bytes = coded(&DynamicImage::ImageRgb8(picture.to_rgb8()), format);
        let (lines, frame) = dark_in(&bytes).unwrap();
        near(frame.width(), 8.5 * ppi, 1.0);
        let found = find_marks(&prepared.marks, &lines, Likeness::SEEN).unwrap();
        near(25.4 / found.scale / ppi, 1.0, 5e-4);
        near(found.turn, turn, 0.01);
        assert!(found.worst < 0.05, "{} at {ppi}", found.worst);
        let middle = found.to_page * frame.center();
        near(middle.x, 107.95, 0.1);
        near(middle.y, 139.7, 0.1);
    }
    assert!(!is_of_pixels(svg.as_bytes()), "a drawing has lines of its own");
    // Pure noise has shapes by the thousand, one of them nearly all of it.
    let noise = RgbImage::from_fn(700, 500, |x, y| {
        let own = (x * 7919 + y * 104_729).wrapping_mul(2_654_435_761) >> 24;
        image::Rgb([own as u8; 3])
    });
    let noise = coded(&DynamicImage::ImageRgb8(noise), ImageFormat::Png);
    let (lines, _) = dark_in(&noise).unwrap();
    assert!(find_marks(&prepared.marks, &lines, Likeness::SEEN).is_err());
}

/// A cut file of bare units is as many times larger as an inch has of them for its millimetres.
#[test]
fn bare_units_are_the_millimetres_times_their_number_to_the_inch() {
    let (job, prepared) = letter_with_angles();
    let in_mm = cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).unwrap();
    let bounds = |svg: &str| {
        let document = roxmltree::Document::parse(svg).unwrap();
        let width = document.root_element().attribute("width").unwrap().to_owned();
        let cuts =
            group(&document, "cut").iter().map(BezPath::bounding_box).reduce(|a, b| a.union(b));
        (width, cuts.unwrap())
    };
    let (_, mm) = bounds(&in_mm);
    for count in [72.0, 90.0, 96.0, 300.0] {
        let svg =
            cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::PerInch(count)).unwrap();
        let (width, own) = bounds(&svg);
        near(width.parse().unwrap(), 8.5 * count, 1e-3);
        near(own.x1 * 25.4 / count, mm.x1, 1e-3);
        near(own.y1 * 25.4 / count, mm.y1, 1e-3);
    }
}

#[test]
fn angles_of_practice_come_back_from_the_pdf_and_from_the_svg() {
    let (job, prepared) = letter_with_angles();
    let pdf = open(&print_of(&job, &prepared));
    // One-ink fills as large as an angle: figures of the scale and the “1” are smaller.
    let angle =
        |rect: &Rect| (rect.width() - 10.0).abs() < 0.01 && (rect.height() - 10.0).abs() < 0.01;
    let span = bounds(&ink(&pdf, 1), "g", angle);
    near(span.width(), 203.2, 0.01);
    near(span.height(), 266.7, 0.01);
    near(span.x0, 6.35, 0.01);
    near(span.y0, 6.35, 0.01);

    let svg = cut_svg(&job, &prepared, 1, MarksInCut::Included, SvgUnits::Mm).unwrap();
    let document = roxmltree::Document::parse(&svg).unwrap();
    let span = group(&document, "marks")
        .iter()
        .map(BezPath::bounding_box)
        .reduce(|a, b| a.union(b))
        .unwrap();
    near(span.width(), 203.2, 0.01);
    near(span.height(), 266.7, 0.01);
}

/// The paths of the group with that id.
fn group(document: &roxmltree::Document<'_>, id: &str) -> Vec<BezPath> {
    let Some(group) = document.descendants().find(|node| node.attribute("id") == Some(id)) else {
        return Vec::new();
    };
    group
        .children()
        .filter_map(|node| node.attribute("d"))
        .map(|d| BezPath::from_svg(d).unwrap())
        .collect()
}

/// ISO 216 and ANSI/ASME Y14.1: pages to 0.01 mm in both files, either way round.
#[test]
fn pages_have_their_published_sizes() {
    for (name, width, height) in [
        ("A5", 148.0, 210.0),
        ("A4", 210.0, 297.0),
        ("A3", 297.0, 420.0),
        ("Letter", 215.9, 279.4),
        ("Tabloid", 279.4, 431.8),
    ] {
        for orientation in [Orientation::Portrait, Orientation::Landscape] {
            let mut job = tomato();
            job.sheet.size = standard_sizes().into_iter().find(|size| size.name == name).unwrap();
            job.sheet.orientation = orientation;
            job.pieces[0].copies = 1;
            let prepared = prepare(&job, &workshop()).unwrap();
            let (width, height) = if orientation == Orientation::Portrait {
                (width, height)
            } else {
                (height, width)
            };
            for pdf in [print_of(&job, &prepared), hand_cut_of(&job, &prepared)] {
                let media = page_box(&open(&pdf), 1, b"MediaBox");
                near(media.width(), width, 0.01);
                near(media.height(), height, 0.01);
            }
            let Some(svg) = cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm) else {
                continue;
            };
            let document = roxmltree::Document::parse(&svg).unwrap();
            let root = document.root_element();
            let mm =
                |name| root.attribute(name).unwrap().trim_end_matches("mm").parse::<f64>().unwrap();
            near(mm("width"), width, 0.01);
            near(mm("height"), height, 0.01);
            assert_eq!(
                root.attribute("viewBox").unwrap(),
                format!("0 0 {} {}", mm("width"), mm("height"))
            );
        }
    }
}

#[test]
fn the_print_file_is_told_not_to_scale_and_has_a_page_per_sheet() {
    let (job, prepared) = (tomato(), prepare(&tomato(), &workshop()).unwrap());
    let pdf = open(&print_of(&job, &prepared));
    let preferences = pdf.catalog().unwrap().get(b"ViewerPreferences").unwrap().as_dict().unwrap();
    assert_eq!(preferences.get(b"PrintScaling").unwrap().as_name().unwrap(), b"None");
    assert_eq!(pdf.get_pages().len(), prepared.layout.sheets() as usize);
    assert_eq!(page_box(&pdf, 1, b"TrimBox"), page_box(&pdf, 1, b"MediaBox"));
    // No lines: nothing is stroked but the check scale, which is 100 mm long and outside the pieces.
    let page = ink(&pdf, 1);
    let strokes: Vec<_> = page.iter().filter(|ink| ink.how == "S").collect();
    assert_eq!(strokes.len(), 1);
    let scale = strokes[0].path.bounding_box();
    near(scale.width(), 100.0, 0.001);
    for placement in &prepared.layout.runs[0].placements {
        let copy = placement.transform().transform_rect_bbox(prepared.first().flat.bounds);
        assert_eq!(copy.intersect(scale).area(), 0.0);
    }
    // As many copies as were laid: the colour is the first fill of each.
    let is_colour = |path: &BezPath| path.area().abs() > 1000.0;
    let fills = page.iter().filter(|ink| ink.how == "rg" && is_colour(&ink.path)).count();
    assert_eq!(fills, prepared.layout.runs[0].placements.len());
}

#[test]
fn one_piece_alone_is_trimmed_to_its_blank_with_the_bleed_around_it() {
    let mut job = tomato();
    job.pieces[0].copies = 1;
    let prepared = prepare(&job, &workshop()).unwrap();
    let pdf = open(&print_of(&job, &prepared));
    let (trim, bleed) = (page_box(&pdf, 1, b"TrimBox"), page_box(&pdf, 1, b"BleedBox"));
    let placement = prepared.layout.runs[0].placements[0];
    let blank = placement.transform().transform_rect_bbox(prepared.first().flat.bounds);
    near(trim.width(), blank.width(), 0.01);
    near(trim.x0, blank.x0, 0.01);
    near(bleed.width(), trim.width() + 2.0, 0.01);
}

#[test]
fn the_cut_file_has_a_group_per_kind_with_creases_first() {
    let (job, prepared) = letter_with_angles();
    let svg = cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).unwrap();
    let document = roxmltree::Document::parse(&svg).unwrap();
    let groups: Vec<_> = document
        .root_element()
        .children()
        .filter(|node| node.has_tag_name("g"))
        .map(|node| (node.attribute("id").unwrap(), node.attribute("data-iso19593-1")))
        .collect();
    assert_eq!(groups, [("guide", None), ("crease", Some("Creasing")), ("cut", Some("Cutting"))]);
    for node in document.descendants().filter(roxmltree::Node::is_element) {
        let plain = ["svg", "title", "g", "rect", "path"].contains(&node.tag_name().name());
        assert!(plain && node.attribute("transform").is_none(), "{node:?}");
    }
    // Every copy's closed outline is there, where the sheet has it.
    let closed: Vec<_> = group(&document, "cut")
        .into_iter()
        .filter(|path| path.elements().last() == Some(&kurbo::PathEl::ClosePath))
        .collect();
    let placements = &prepared.layout.runs[0].placements;
    assert_eq!(closed.len(), placements.len());
    for (path, placement) in closed.iter().zip(placements) {
        let want = placement.transform().transform_rect_bbox(prepared.first().flat.bounds);
        let got = path.bounding_box();
        near(got.x0, want.x0, 0.001);
        near(got.y1, want.y1, 0.001);
        near(path.area().abs(), prepared.first().flat.area(), 0.1);
    }
    assert!(cut_svg(&job, &prepared, 0, MarksInCut::LeftOut, SvgUnits::Mm).is_none());
    assert!(cut_svg(&job, &prepared, 99, MarksInCut::LeftOut, SvgUnits::Mm).is_none());
}

/// A whole small cut file, to be read in review.
#[test]
fn the_cut_file_of_one_carton() {
    let mut job = job(include_str!("../../../../demo/jobs/dibber-carton.json"));
    job.name = "A <small> & plain one".into();
    job.pieces[0].copies = 1;
    let prepared = prepare(&job, &workshop()).unwrap();
    insta::assert_snapshot!(
        cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).unwrap()
    );
}

fn long(path: &aptum_core::geometry::BezPath) -> f64 {
    use aptum_core::geometry::Shape;
    path.perimeter(1e-6)
}

#[test]
fn the_hand_cut_file_shows_lines_by_kind_a_legend_and_no_marks() {
    let (job, prepared) = letter_with_angles();
    let pdf = open(&hand_cut_of(&job, &prepared));
    assert_eq!(pdf.get_pages().len(), prepared.layout.sheets() as usize);
    let page = ink(&pdf, 1);
    let angle = |ink: &&crate::reading::Ink| {
        ink.how == "g" && (ink.path.bounding_box().width() - 10.0).abs() < 0.01
    };
    assert!(!page.iter().any(|ink| angle(&ink)));
    // Two kinds of line, a sample of each in the legend, and the scale.
    let strokes: Vec<_> = page.iter().filter(|ink| ink.how == "S").collect();
    assert_eq!(strokes.len(), 2 + 2 + 1);
    // Every copy has all of its cuts: they lie apart, so none is shared.
    let copies = prepared.layout.runs[0].placements.len();
    let part = &prepared.first().flat.parts[0];
    let cuts = part.strokes.iter().filter(|stroke| stroke.kind == LineKind::Cut);
    let one: f64 = cuts.map(|stroke| &stroke.path).chain([&part.outline]).map(long).sum();
    let longest = strokes.iter().map(|ink| long(&ink.path)).fold(0.0, f64::max);
    assert!((longest - one * f64::from(u32::try_from(copies).unwrap())).abs() < 0.1, "{longest}");
    let kinds: Vec<_> = prepared.first().flat.strokes().iter().map(|line| line.kind).collect();
    assert!(kinds.contains(&LineKind::Crease));
}

#[test]
fn a_job_that_is_only_cut_has_no_print_file() {
    let job = job(include_str!("../../../../demo/jobs/dibber-carton.json"));
    let prepared = prepare(&job, &workshop()).unwrap();
    assert!(!prepared.is_printed());
    assert!(cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).is_some());
}

#[test]
fn each_page_names_its_sheet_and_the_art_is_in_the_file_once() {
    let (job, prepared) = (tomato(), prepare(&tomato(), &workshop()).unwrap());
    let bytes = print_of(&job, &prepared);
    let pdf = open(&bytes);
    let shared = pdf.objects.values().filter(|object| {
        let stream = object.as_stream().ok();
        stream.and_then(|s| s.dict.get(b"Subtype").ok()?.as_name().ok()) == Some(b"Form".as_slice())
    });
    assert_eq!(shared.count(), 1, "one drawing for forty copies");
    // The pages differ in the figure that says which sheet this is, and in nothing else of the first six.
    let page = |number| {
        let ink = ink(&pdf, number);
        ink.iter().map(|ink| aptum_core::geometry::path_text(&ink.path)).collect::<Vec<_>>()
    };
    let (first, second, last) = (page(1), page(2), page(7));
    let differing = first.iter().zip(&second).filter(|(a, b)| a != b).count();
    assert_eq!((first.len(), differing), (second.len(), 1));
    assert!(last.len() < first.len(), "the remainder has fewer copies");
}

#[test]
fn a_sheet_that_no_copy_fits_prints_its_marks_alone() {
    let job = job(include_str!("../../../../demo/jobs/runner-bean-carton.json"));
    let prepared = prepare(&job, &workshop()).unwrap();
    assert_eq!(prepared.layout.laid, 0);
    let pdf = open(&print_of(&job, &prepared));
    let page = ink(&pdf, 1);
    assert_eq!(page.len(), 4 + 1, "four angles and the figure beside the first");
    assert!(page.iter().all(|ink| ink.how == "g"));
    assert!(cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).is_none());
}

#[test]
fn the_sign_beside_the_first_mark_is_printed_where_the_window_leaves_room() {
    let (job, prepared) = letter_with_angles();
    let place = prepared.marks.sign.as_ref().unwrap().place;
    let page = ink(&open(&print_of(&job, &prepared)), 1);
    let inside = |rect: Rect| place.inflate(0.1, 0.1).contains_rect(rect);
    assert!(page.iter().any(|ink| ink.how == "g" && inside(ink.path.bounding_box())));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Whatever is made: ink stays on what prints, each copy's cut is where the sheet has it, and
    /// the print and the cut file agree on every place.
    #[test]
    fn print_and_cut_agree_for_any_carton(
        length in 15.0..90.0f64, width in 12.0..50.0f64, height in 15.0..120.0f64,
        copies in 1..9u32, spacing in 0.5..6.0f64, landscape: bool, whole: bool,
    ) {
        let mut job = tomato();
        job.pieces[0].form = aptum_core::form::Form::new("straight-tuck", &[("length", length), ("width", width), ("height", height)]);
        job.pieces[0].copies = copies;
        job.sheet.spacing = spacing;
        let face = job.pieces[0].face.as_mut().unwrap();
        face.layers.truncate(1);
        if let LayerKind::Colour { coverage, .. } = &mut face.layers[0].kind
            && whole
        {
            *coverage = Coverage::Flaps;
        }
        if landscape { job.sheet.orientation = Orientation::Landscape; }
        let prepared = prepare(&job, &workshop()).unwrap();
        prop_assume!(prepared.layout.laid > 0);

        let page = ink(&open(&print_of(&job, &prepared)), 1);
        let printable = prepared.windows.printable.inflate(0.01, 0.01);
        for ink in &page {
            prop_assert!(printable.contains_rect(ink.path.bounding_box()), "{:?}", ink.path.bounding_box());
        }
        let svg = cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).unwrap();
        let document = roxmltree::Document::parse(&svg).unwrap();
        let cuts: Vec<BezPath> = group(&document, "cut")
            .into_iter()
            .filter(|path| path.elements().last() == Some(&kurbo::PathEl::ClosePath))
            .collect();
        let art: Vec<Rect> =
            page.iter().filter(|ink| ink.how == "rg").map(|ink| ink.path.bounding_box()).collect();
        prop_assert_eq!(cuts.len(), art.len());
        let bleed = prepared.first().arts[0].bleed;
        for (cut, art) in cuts.iter().zip(&art) {
            // Colour lies on the piece, and past its cut by no more than the bleed.
            let reach = cut.bounding_box().inflate(bleed + 0.01, bleed + 0.01);
            prop_assert!(reach.contains_rect(*art), "{art:?} {reach:?}");
            prop_assert!((cut.area().abs() - prepared.first().flat.area()).abs() < 0.01 * prepared.first().flat.area());
        }
    }
}

#[test]
fn edges_that_touching_tags_share_are_cut_once() {
    let mut job = tomato();
    job.pieces[0].form =
        aptum_core::form::Form::new("tag", &[("width", 40.0), ("height", 60.0), ("hole", 0.0)]);
    job.pieces[0].face = None;
    job.pieces[0].copies = 6;
    let length = |spacing: f64| -> (usize, f64) {
        let mut job = job.clone();
        job.sheet.spacing = spacing;
        let prepared = prepare(&job, &workshop()).unwrap();
        let svg = cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).unwrap();
        let strokes = group(&roxmltree::Document::parse(&svg).unwrap(), "cut");
        (strokes.len(), strokes.iter().map(|stroke| stroke.perimeter(1e-6)).sum())
    };
    let apart = length(2.0);
    assert_eq!(apart.0, 6);
    near(apart.1, 6.0 * 200.0, 0.01);
    let (_, touching) = length(0.0);
    // In one row of six: five edges of one side or the other are shared; in two rows of three, seven are.
    let shared = apart.1 - touching;
    assert!(
        [5.0 * 40.0, 5.0 * 60.0, 4.0 * 60.0 + 3.0 * 40.0, 4.0 * 40.0 + 3.0 * 60.0]
            .iter()
            .any(|sum| (shared - sum).abs() < 0.01),
        "{shared}"
    );
}

/// Whatever way round and on whichever sheet a copy lies, its cuts and creases are in that sheet’s file once, in the
/// cut window; and a page is printed for each sheet. Gives the number of blanks.
fn goes_out_as_it_lies(job: &Job, prepared: &Prepared) -> usize {
    let name = &job.name;
    let blanks: Vec<_> = prepared.blanks().collect();
    let sheets: Vec<_> = prepared.layout.each_sheet().collect();
    let mut laid = 0;
    for (number, placements) in sheets.iter().enumerate() {
        let sheet = u32::try_from(number + 1).unwrap();
        let svg = cut_svg(job, prepared, sheet, MarksInCut::LeftOut, SvgUnits::Mm).unwrap();
        let document = roxmltree::Document::parse(&svg).unwrap();
        for (kind, id) in [(LineKind::Cut, "cut"), (LineKind::Crease, "crease")] {
            let paths = group(&document, id);
            let length: f64 = paths.iter().map(|path| path.perimeter(1e-6)).sum();
            let of_blank = |part: &aptum_core::form::Part| -> f64 {
                let lines = part.strokes.iter().filter(|line| line.kind == kind);
                let inside: f64 = lines.map(|line| line.path.perimeter(1e-6)).sum();
                let around = if kind == LineKind::Cut { part.outline.perimeter(1e-6) } else { 0.0 };
                let nicks = job.tooling.nicks.filter(|_| kind == LineKind::Cut);
                let open = nicks.map_or(0.0, |own| own.width * f64::from(own.count));
                inside + around - open
            };
            let wanted: f64 = placements.iter().map(|at| of_blank(blanks[at.part].part)).sum();
            assert!((length - wanted).abs() <= 0.001 * wanted, "{name}: {id} {length} of {wanted}");
            let window = prepared.windows.cut.base.inflate(0.02, 0.02);
            let inside = paths.iter().all(|path| window.contains_rect(path.bounding_box()));
            assert!(inside, "{name}: {id} leaves the window");
        }
        laid += placements.len();
    }
    if prepared.is_printed() {
        // Without a copy the marks are printed alone.
        let pages = sheets.len().max(1) * if prepared.has_backs() { 2 } else { 1 };
        assert_eq!(open(&print_of(job, prepared)).get_pages().len(), pages, "{name}");
    }
    let pages = open(&hand_cut_of(job, prepared)).get_pages().len();
    assert_eq!(pages, prepared.hand_cut_pages() as usize, "{name}");
    laid
}

#[test]
fn a_nested_layout_goes_out_as_it_lies() {
    let mut job = job(include_str!("../../../../demo/jobs/spring-table-set.json"));
    job.sheet.turning = aptum_core::sheet::Turning::Free;
    job.sheet.search.budget = 1.0;
    let nested = nest_job(&job, &workshop(), &Forgetful, &ToTheEnd).unwrap();
    job.sheet.kept = Some(nested.kept);
    let prepared = prepare(&job, &workshop()).unwrap();
    assert_eq!(goes_out_as_it_lies(&job, &prepared), 20);
}

/// The pictures that jobs of the demo are traced from.
pub struct DemoPictures;

impl Blobs for DemoPictures {
    fn holds(&self, id: &BlobId) -> bool {
        self.bytes(id).is_some()
    }

    fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>> {
        let demo = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
        let within = |folder: &str| {
            let files = std::fs::read_dir(format!("{demo}/{folder}")).unwrap();
            files.map(|file| std::fs::read(file.unwrap().path()).unwrap())
        };
        let lines =
            within("drawings").map(|bytes| lines::kept(&lines::brought(&bytes, 1).unwrap()));
        within("pictures")
            .chain(lines)
            .find_map(|bytes| (hex::encode(Sha256::digest(&bytes)) == id.0).then(|| bytes.into()))
    }
}

#[test]
fn every_job_of_the_demo_goes_out_as_it_lies() {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/jobs");
    let mut jobs = 0;
    for file in std::fs::read_dir(folder).unwrap() {
        let job = job(&std::fs::read_to_string(file.unwrap().path()).unwrap());
        let job = furnished(&job, &DemoPictures, &Forgetful).into_owned();
        let prepared = prepare(&job, &workshop()).unwrap();
        let blanks = prepared.blanks().count();
        let laid = goes_out_as_it_lies(&job, &prepared);
        assert!(laid == 0 || laid >= blanks, "{}: {laid} of {blanks}", job.name);
        assert_eq!(laid == 0, job.name == "Runner bean carton", "{} has no copy", job.name);
        jobs += 1;
    }
    assert_eq!(jobs, 26);
}

/// The pages that are announced are those of the file, with and without room for the legend.
#[test]
fn the_hand_cut_file_has_the_pages_that_are_announced() {
    let mut counts = Vec::new();
    for (width, height) in [(60.0, 180.0), (40.0, 60.0)] {
        let mut job = tomato();
        job.pieces[0].face = None;
        job.pieces[0].form =
            aptum_core::form::Form::new("bookmark", &[("width", width), ("height", height)]);
        (job.sheet.marks, job.sheet.cutter, job.sheet.printer) = (None, None, None);
        job.pieces[0].copies = 3;
        job.sheet.size =
            aptum_core::sheet::SheetSize { name: "Own".into(), width: 62.0, height: 182.0 };
        let prepared = prepare(&job, &workshop()).unwrap();
        let pages = open(&hand_cut_of(&job, &prepared)).get_pages().len();
        assert_eq!(pages, prepared.hand_cut_pages() as usize);
        counts.push((prepared.layout.sheets(), pages));
    }
    assert_eq!(counts[0], (3, 4), "a page for the legend");
    assert_eq!(counts[1].0 as usize, counts[1].1);
}

/// On stock with a liner cuts go through the face only, unless the piece says otherwise; each piece for itself.
#[test]
fn on_a_liner_outlines_are_kissed_unless_through_is_chosen() {
    let workshop = workshop();
    let mut tag = job(include_str!("../../../../demo/jobs/plant-tag.json"));
    tag.pieces[0].form.backing = None;
    let groups = |job: &Job| {
        let prepared = prepare(job, &workshop).unwrap();
        let svg = cut_svg(job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).unwrap();
        let count = |kind: &str| {
            let file = roxmltree::Document::parse(&svg).unwrap();
            let group = file.descendants().find(|node| node.attribute("id") == Some(kind));
            group.map_or(0, |group| group.children().filter(|node| node.is_element()).count())
        };
        [count("kiss-cut"), count("cut")]
    };
    let [kissed, through] = groups(&tag);
    assert!(kissed == 0 && through > 0, "card without a liner is cut through");
    tag.pieces[0].stock =
        workshop.stocks.iter().find(|(_, stock)| stock.liner.is_some()).unwrap().0.clone();
    let [kissed, left] = groups(&tag);
    assert!(kissed > 0 && left == 0, "outline and hole");
    tag.pieces[0].form.through = true;
    let [kissed, through] = groups(&tag);
    assert!(kissed == 0 && through > 0);
}

/// The DXF of a sheet has what its SVG has: the same strokes by kind, `y` up. Read by a general library.
#[test]
fn the_dxf_of_a_sheet_says_what_its_svg_says() {
    let job = job(include_str!("../../../../demo/jobs/spring-table-set.json"));
    let prepared = prepare(&job, &workshop()).unwrap();
    let mut bytes = Vec::new();
    sheet_dxf(&job, &prepared, 1, &mut bytes).unwrap().unwrap();
    let drawing = dxf::Drawing::load(&mut bytes.as_slice()).unwrap();
    let svg = cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm).unwrap();
    let file = roxmltree::Document::parse(&svg).unwrap();
    let height = prepared.windows.page.height();
    for kind in [LineKind::Crease, LineKind::Cut] {
        let group =
            file.descendants().find(|node| node.attribute("id") == Some(kind.id())).unwrap();
        let paths = group.descendants().filter_map(|node| node.attribute("d"));
        let lines = paths.map(|path| BezPath::from_svg(path).unwrap().bounding_box());
        let want = lines.reduce(|all, next| all.union(next)).unwrap();
        let mut got: Option<Rect> = None;
        for entity in drawing.entities().filter(|entity| entity.common.layer == kind.id()) {
            let points: Vec<(f64, f64)> = match &entity.specific {
                dxf::entities::EntityType::LwPolyline(line) => {
                    // A bulge is how far an arc rises over half of its chord.
                    let next = line.vertices.iter().cycle().skip(1);
                    let rises = line.vertices.iter().zip(next).map(|(from, to)| {
                        let (x, y) = (to.x - from.x, to.y - from.y);
                        let half = (f64::midpoint(from.x, to.x), f64::midpoint(from.y, to.y));
                        (half.0 + y * from.bulge / 2.0, half.1 - x * from.bulge / 2.0)
                    });
                    let count = line.vertices.len() - usize::from(!line.is_closed());
                    let ends = line.vertices.iter().map(|vertex| (vertex.x, vertex.y));
                    ends.chain(rises.take(count)).collect()
                }
                dxf::entities::EntityType::Spline(curve) => {
                    let ends = curve.control_points.iter().step_by(3);
                    ends.map(|point| (point.x, point.y)).collect()
                }
                other => panic!("{other:?}"),
            };
            for (x, y) in points {
                let at = Rect::new(x, height - y, x, height - y);
                got = Some(got.map_or(at, |all| all.union(at)));
            }
        }
        let got = got.unwrap();
        for (a, b) in [(got.x0, want.x0), (got.y0, want.y0), (got.x1, want.x1), (got.y1, want.y1)] {
            near(a, b, 0.05);
        }
    }
    assert!(sheet_dxf(&job, &prepared, 99, &mut Vec::new()).is_none());
}
