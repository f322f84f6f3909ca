//! Pictures in and out: what is taken, what is refused in words, and what the print file holds of them.

#![allow(clippy::cast_possible_truncation, reason = "small pictures")]

use std::collections::BTreeMap;
use std::io::{Cursor, Write};
use std::sync::Arc;

use aptum_core::blob::{BlobId, Blobs};
use aptum_core::face::{Layer, LayerKind, Lying, PictureSize, PlacedPicture, Text, TextSize};
use aptum_core::geometry::{Affine, Rect, Region};
use aptum_core::job::with_field;
use aptum_core::{Job, Prepared, Workshop, prepare};
use aptum_formats::archive::{ArchiveError, JobFile, blob_id};
use aptum_formats::pdf::print_pdf;
use aptum_formats::picture::{Coding, LARGEST, Picture, PictureError};
use image::{DynamicImage, ImageFormat, RgbImage, RgbaImage};
use lopdf::{Document, Object, Stream};

/// Pictures at hand.
#[derive(Default)]
pub struct Hand(pub BTreeMap<BlobId, Arc<[u8]>>);

impl Blobs for Hand {
    fn holds(&self, id: &BlobId) -> bool {
        self.0.contains_key(id)
    }

    fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>> {
        self.0.get(id).cloned()
    }
}

/// Every pixel another.
fn colours(width: u32, height: u32) -> RgbImage {
    RgbImage::from_fn(width, height, |x, y| {
        image::Rgb([(x * 7 % 256) as u8, (y * 11 % 256) as u8, ((x * y) % 256) as u8])
    })
}

pub fn coded(picture: &DynamicImage, format: ImageFormat) -> Vec<u8> {
    let mut bytes = Cursor::new(Vec::new());
    picture.write_to(&mut bytes, format).unwrap();
    bytes.into_inner()
}

pub fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap()
}

/// The tomato carton, 40 copies, with a picture on its front.
pub fn with_picture(bytes: &[u8], size: PictureSize) -> (Job, Prepared, Hand) {
    let mut job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let picture = Picture::of(bytes).unwrap();
    let blob = blob_id(bytes);
    let lying = Lying { panels: vec!["Front".into()], x: 2.0, y: -3.0, ..Lying::default() };
    let placed = PlacedPicture::new(blob.clone(), picture.pixels, lying);
    let kind = LayerKind::Picture(PlacedPicture { size, ..placed });
    job.pieces[0].face.as_mut().unwrap().layers.push(Layer::new("l9", kind));
    let prepared = prepare(&job, &workshop()).unwrap();
    (job, prepared, Hand(BTreeMap::from([(blob, bytes.into())])))
}

fn printed(job: &Job, prepared: &Prepared, hand: &Hand) -> Document {
    let mut bytes = Vec::new();
    print_pdf(job, prepared, hand, &mut bytes).unwrap();
    Document::load_mem(&bytes).unwrap()
}

/// Every picture of a file that is not another's mask.
fn images(pdf: &Document) -> Vec<&Stream> {
    let is_image = |stream: &&Stream| {
        stream.dict.get(b"Subtype").is_ok_and(|kind| *kind == Object::Name(b"Image".to_vec()))
    };
    let all = pdf.objects.values().filter_map(|object| object.as_stream().ok()).filter(is_image);
    let masks: Vec<_> = all
        .clone()
        .filter_map(|image| image.dict.get(b"SMask").ok()?.as_reference().ok())
        .collect();
    let is_mask = |image: &&Stream| {
        masks.iter().any(|id| pdf.get_object(*id).unwrap().as_stream().unwrap() == *image)
    };
    all.filter(|image| !is_mask(image)).collect()
}

fn integer(stream: &Stream, name: &[u8]) -> i64 {
    stream.dict.get(name).unwrap().as_i64().unwrap()
}

#[test]
fn a_jpeg_is_in_the_print_file_once_and_byte_for_byte() {
    let bytes = coded(&colours(300, 200).into(), ImageFormat::Jpeg);
    let (job, prepared, hand) = with_picture(&bytes, PictureSize::Width(30.0));
    assert!(prepared.layout.laid >= 40);
    let pdf = printed(&job, &prepared, &hand);
    let found = images(&pdf);
    assert_eq!(found.len(), 1, "once for forty copies");
    assert_eq!(found[0].content, bytes);
    assert_eq!(found[0].dict.get(b"Filter").unwrap().as_name().unwrap(), b"DCTDecode");
    assert_eq!((integer(found[0], b"Width"), integer(found[0], b"Height")), (300, 200));
}

#[test]
fn a_png_is_in_the_print_file_without_loss_its_transparency_too() {
    let soft = RgbaImage::from_fn(60, 40, |x, y| image::Rgba([x as u8, y as u8, 9, (x * 4) as u8]));
    let grey = image::GrayImage::from_fn(50, 30, |x, y| image::Luma([(x * y % 256) as u8]));
    let fine = image::ImageBuffer::<image::Luma<u16>, _>::from_fn(20, 10, |x, y| {
        image::Luma([(x * 3000 + y) as u16])
    });
    for picture in [
        DynamicImage::from(soft),
        DynamicImage::from(grey),
        DynamicImage::from(fine),
        DynamicImage::from(colours(70, 20)),
    ] {
        let bytes = coded(&picture, ImageFormat::Png);
        let (job, prepared, hand) = with_picture(&bytes, PictureSize::Panel);
        let pdf = printed(&job, &prepared, &hand);
        let found = images(&pdf);
        assert_eq!(found.len(), 1);
        let raw = found[0].decompressed_content().unwrap();
        let colour = picture.color();
        let (count, bytes_each) =
            (colour.channel_count(), colour.bytes_per_pixel() / colour.channel_count());
        assert_eq!(integer(found[0], b"BitsPerComponent"), i64::from(bytes_each) * 8);
        let own = usize::from(count) - usize::from(colour.has_alpha());
        let samples =
            picture.as_bytes().chunks(usize::from(bytes_each)).map(|sample| match sample {
                // Sixteen bits lie in a PDF with the higher byte first.
                [low, high] => u16::from_le_bytes([*low, *high]).to_be_bytes().to_vec(),
                one => one.to_vec(),
            });
        let samples: Vec<Vec<u8>> = samples.collect();
        let pick = |from: usize, to: usize| -> Vec<u8> {
            samples.chunks(usize::from(count)).flat_map(|pixel| pixel[from..to].concat()).collect()
        };
        assert!(raw == pick(0, own), "{colour:?}");
        let mask = found[0].dict.get(b"SMask").ok().map(|mask| mask.as_reference().unwrap());
        assert_eq!(mask.is_some(), colour.has_alpha());
        if let Some(mask) = mask {
            let mask = pdf.get_object(mask).unwrap().as_stream().unwrap();
            assert!(mask.decompressed_content().unwrap() == pick(own, own + 1));
        }
    }
}

/// Where the unit square of each picture on a page comes to lie, mm, and the area that it is clipped to, mm².
fn places(pdf: &Document, prepared: &Prepared) -> Vec<(Affine, f64)> {
    use lopdf::content::Content;
    let mut found = Vec::new();
    let forms = pdf.objects.values().filter_map(|object| object.as_stream().ok());
    for form in forms.filter(|stream| stream.dict.get(b"BBox").is_ok()) {
        let mut state = vec![Affine::IDENTITY];
        let (mut path, mut clip) = (aptum_core::geometry::BezPath::new(), 0.0);
        let content = Content::decode(&form.decompressed_content().unwrap()).unwrap();
        for operation in content.operations {
            let n: Vec<f64> = operation
                .operands
                .iter()
                .filter_map(|o| o.as_float().ok().map(f64::from))
                .collect();
            match operation.operator.as_str() {
                "q" => state.push(*state.last().unwrap()),
                "Q" => drop(state.pop()),
                "cm" => {
                    let own = Affine::new([n[0], n[1], n[2], n[3], n[4], n[5]]);
                    *state.last_mut().unwrap() = *state.last().unwrap() * own;
                }
                "m" => path.move_to((n[0], n[1])),
                "l" => path.line_to((n[0], n[1])),
                "c" => path.curve_to((n[0], n[1]), (n[2], n[3]), (n[4], n[5])),
                "h" => path.close_path(),
                "f" => path = aptum_core::geometry::BezPath::new(),
                "W" => clip = Region::inside(&std::mem::take(&mut path)).area(),
                "Do" => found.push((*state.last().unwrap(), clip)),
                _ => {}
            }
        }
    }
    assert!(!prepared.layout.runs.is_empty());
    found
}

#[test]
fn a_picture_lies_where_it_was_put_and_is_clipped_to_its_panel_with_its_bleed() {
    let bytes = coded(&colours(300, 200).into(), ImageFormat::Jpeg);
    let (job, prepared, hand) = with_picture(&bytes, PictureSize::Width(60.0));
    let pdf = printed(&job, &prepared, &hand);
    let [(place, clip)] = places(&pdf, &prepared)[..] else { panic!("one picture in one drawing") };
    let flat = &prepared.first().flat;
    let front = flat.parts[0].panels.iter().find(|panel| panel.name == "Front").unwrap();
    let panel = aptum_core::geometry::Shape::bounding_box(&front.outline);
    let middle = panel.center() + aptum_core::geometry::Vec2::new(2.0, -3.0);
    let lies = place.transform_rect_bbox(Rect::new(0.0, 0.0, 1.0, 1.0));
    let want = Rect::from_center_size(middle, (60.0, 40.0));
    for (got, want) in
        [(lies.x0, want.x0), (lies.y0, want.y0), (lies.x1, want.x1), (lies.y1, want.y1)]
    {
        assert!((got - want).abs() < 1e-3, "{lies:?} {want:?}");
    }
    // Its upper edge is up: the unit square's y = 1 lies nearer to the top.
    assert!((place * aptum_core::geometry::Point::new(0.0, 1.0)).y < lies.center().y);
    // A front has cuts nowhere but at the corners of its flaps: what of its bleed lies beyond the blank is little.
    let own = Region::inside(&front.outline).area();
    assert!(clip >= own - 0.1 && clip < own * 1.05, "{clip} of {own}");
}

#[test]
fn a_turned_picture_keeps_its_middle_and_its_sides() {
    let bytes = coded(&colours(300, 200).into(), ImageFormat::Jpeg);
    let (job, prepared, hand) = with_picture(&bytes, PictureSize::Width(30.0));
    let straight = places(&printed(&job, &prepared, &hand), &prepared)[0].0;
    let turned = with_field(&job, "pieces.p1.face.layers.l9.turn", 30.into()).unwrap();
    let prepared = prepare(&turned, &workshop()).unwrap();
    let place = places(&printed(&turned, &prepared, &hand), &prepared)[0].0;
    let middle = aptum_core::geometry::Point::new(0.5, 0.5);
    assert!((place * middle).distance(straight * middle) < 1e-3);
    let side = |way: Affine, x: f64, y: f64| {
        way * aptum_core::geometry::Point::new(x, y) - way * aptum_core::geometry::Point::ZERO
    };
    for (x, y, long) in [(1.0, 0.0, 30.0), (0.0, 1.0, 20.0)] {
        let (own, before) = (side(place, x, y), side(straight, x, y));
        assert!((own.hypot() - long).abs() < 1e-3);
        // Clockwise where y points down.
        let angle = before.cross(own).atan2(before.dot(own)).to_degrees();
        assert!((angle - 30.0).abs() < 1e-3, "{angle}");
    }
}

/// ISO 32000-1, 11.6.4.4: `ca` is the constant alpha of what is filled.
#[test]
fn layers_are_printed_as_opaque_as_they_are_and_those_that_are_only_shown_are_not() {
    let bytes = coded(&colours(30, 20).into(), ImageFormat::Jpeg);
    let (job, prepared, hand) = with_picture(&bytes, PictureSize::Width(20.0));
    let alphas = |pdf: &Document| -> Vec<f32> {
        let forms = pdf.objects.values().filter_map(|object| object.as_stream().ok());
        let states = forms.filter_map(|form| {
            let resources = form.dict.get(b"Resources").ok()?.as_dict().ok()?;
            resources.get(b"ExtGState").ok()?.as_dict().ok()
        });
        let alpha =
            |state: &Object| state.as_dict().unwrap().get(b"ca").unwrap().as_float().unwrap();
        states.flat_map(|states| states.iter().map(|(_, state)| alpha(state))).collect()
    };
    assert!(alphas(&printed(&job, &prepared, &hand)).is_empty());
    let faint = with_field(&job, "pieces.p1.face.layers.l9.opacity", 0.25.into()).unwrap();
    let pdf = printed(&faint, &prepare(&faint, &workshop()).unwrap(), &hand);
    assert_eq!(alphas(&pdf), [0.25]);
    assert_eq!(images(&pdf).len(), 1);
    let shown = with_field(&faint, "pieces.p1.face.layers.l9.only_shown", true.into()).unwrap();
    let pdf = printed(&shown, &prepare(&shown, &workshop()).unwrap(), &hand);
    assert!(alphas(&pdf).is_empty() && images(&pdf).is_empty());
}

/// Words are outlines in every file: the print file names no font.
#[test]
fn words_are_printed_as_outlines() {
    let bytes = coded(&colours(30, 20).into(), ImageFormat::Jpeg);
    let (mut job, prepared, hand) = with_picture(&bytes, PictureSize::Width(20.0));
    let fills = |pdf: &Document| -> usize {
        let forms = pdf.objects.values().filter_map(|object| object.as_stream().ok());
        let drawn = forms.filter(|form| form.dict.get(b"BBox").is_ok()).map(|form| {
            let content = form.decompressed_content().unwrap();
            let content = lopdf::content::Content::decode(&content).unwrap();
            content.operations.iter().filter(|operation| operation.operator == "c").count()
        });
        drawn.sum()
    };
    let before = fills(&printed(&job, &prepared, &hand));
    let words =
        Text { size: TextSize::Points(18.0), lying: Lying::on("Front"), ..Text::new("Bean") };
    job.pieces[0].face.as_mut().unwrap().layers.push(Layer::new("l8", LayerKind::Text(words)));
    let pdf = printed(&job, &prepare(&job, &workshop()).unwrap(), &hand);
    assert!(fills(&pdf) > before + 20);
    let is_font = |object: &Object| {
        let kind = object.as_dict().and_then(|dict| dict.get(b"Type")).and_then(Object::as_name);
        kind.is_ok_and(|name| name == b"Font")
    };
    assert!(!pdf.objects.values().any(is_font));
}

/// Exif 2.32, tag 274: 6 is shown turned a quarter clockwise, 3 upside down.
#[test]
fn a_photograph_that_says_it_is_turned_is_the_right_way_up() {
    let plain = coded(&colours(300, 200).into(), ImageFormat::Jpeg);
    let turned = |orientation: u8| {
        let mut exif = b"Exif\0\0MM\0*\0\0\0\x08\0\x01\x01\x12\0\x03\0\0\0\x01\0".to_vec();
        exif.extend([orientation, 0, 0, 0, 0, 0, 0]);
        let mut bytes = plain[..2].to_vec();
        bytes.extend([0xff, 0xe1]);
        bytes.extend(u16::try_from(exif.len() + 2).unwrap().to_be_bytes());
        bytes.extend(exif);
        bytes.extend(&plain[2..]);
        bytes
    };
    // Where the stored picture's upper left corner goes, as a share of the place from its upper left.
    for (orientation, pixels, corner) in [
        (1, [300, 200], (0.0, 0.0)),
        (3, [300, 200], (1.0, 1.0)),
        (6, [200, 300], (1.0, 0.0)),
        (8, [200, 300], (0.0, 1.0)),
    ] {
        let bytes = turned(orientation);
        assert_eq!(Picture::of(&bytes).unwrap().pixels, pixels, "{orientation}");
        let (job, prepared, hand) = with_picture(&bytes, PictureSize::Height(20.0));
        let pdf = printed(&job, &prepared, &hand);
        let (place, _) = places(&pdf, &prepared)[0];
        let lies = place.transform_rect_bbox(Rect::new(0.0, 0.0, 1.0, 1.0));
        assert!((lies.height() - 20.0).abs() < 1e-3);
        let at = place * aptum_core::geometry::Point::new(0.0, 1.0);
        let share = ((at.x - lies.x0) / lies.width(), (at.y - lies.y0) / lies.height());
        assert!(
            (share.0 - corner.0).abs() < 1e-3 && (share.1 - corner.1).abs() < 1e-3,
            "{orientation}: {share:?}"
        );
    }
}

#[test]
fn a_missing_picture_is_left_out_and_the_rest_is_printed() {
    let bytes = coded(&colours(30, 20).into(), ImageFormat::Png);
    let (job, prepared, _) = with_picture(&bytes, PictureSize::Panel);
    let pdf = printed(&job, &prepared, &Hand(BTreeMap::new()));
    assert!(images(&pdf).is_empty());
    assert_eq!(pdf.get_pages().len(), prepared.layout.sheets() as usize);
}

#[test]
fn what_is_no_picture_is_refused_in_words() {
    let png = coded(&colours(40, 30).into(), ImageFormat::Png);
    let jpeg = coded(&colours(40, 30).into(), ImageFormat::Jpeg);
    assert_eq!(Picture::of(&png).unwrap().coding, Coding::Png);
    assert_eq!(Picture::of(b""), Err(PictureError::Empty));
    assert_eq!(Picture::of(b"<svg xmlns='http://www.w3.org/2000/svg'/>"), Err(PictureError::Other));
    assert_eq!(Picture::of(b"GIF89a\x01\0\x01\0"), Err(PictureError::Other));
    assert!(matches!(Picture::of(&vec![0x89; LARGEST + 1]), Err(PictureError::TooLarge(_))));
    for cut in [9, 20, 33, 40, png.len() / 2, png.len() - 20] {
        assert!(
            matches!(Picture::of(&png[..cut]), Err(PictureError::Damaged(_))),
            "PNG cut at {cut}"
        );
    }
    for cut in [3, 20, 100, jpeg.len() / 4, jpeg.len() - 10] {
        assert!(
            matches!(Picture::of(&jpeg[..cut]), Err(PictureError::Damaged(_))),
            "JPEG cut at {cut}"
        );
    }
    // A head that promises 60,000 × 60,000.
    let mut huge = png.clone();
    huge[16..20].copy_from_slice(&60_000u32.to_be_bytes());
    huge[20..24].copy_from_slice(&60_000u32.to_be_bytes());
    let crc = crc32(&huge[12..29]);
    huge[29..33].copy_from_slice(&crc.to_be_bytes());
    assert_eq!(Picture::of(&huge), Err(PictureError::TooManyPixels([60_000, 60_000])));
    let said = Picture::of(&huge).unwrap_err().to_string();
    assert!(said.contains("60000 × 60000") && said.contains("save it smaller"), "{said}");
}

/// PNG's checksum (ISO/IEC 15948, annex D).
fn crc32(bytes: &[u8]) -> u32 {
    !bytes.iter().fold(!0u32, |crc, byte| {
        (0..8).fold(crc ^ u32::from(*byte), |crc, _| {
            if crc & 1 == 1 { (crc >> 1) ^ 0xedb8_8320 } else { crc >> 1 }
        })
    })
}

#[test]
fn an_archive_carries_its_pictures_and_one_that_lies_is_refused() {
    let bytes = coded(&colours(64, 48).into(), ImageFormat::Png);
    let (job, _, hand) = with_picture(&bytes, PictureSize::Width(20.0));
    let archive = JobFile::new(&job, &workshop()).to_archive(&hand).unwrap();
    let read = JobFile::read(&archive).unwrap();
    assert_eq!(read.job, job);
    let id = blob_id(&bytes);
    assert_eq!(read.assets.len(), 1);
    assert_eq!(read.assets[&id].bytes, bytes);
    // FIPS 180-4, its first example: the digest of “abc”.
    let abc = "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad";
    assert_eq!(blob_id(b"abc").0, abc);

    let other = coded(&colours(65, 48).into(), ImageFormat::Png);
    let zipped = |content: &[u8]| {
        let mut zip = zip::ZipWriter::new(Cursor::new(Vec::new()));
        let options = zip::write::SimpleFileOptions::default();
        zip.start_file("job.json", options).unwrap();
        zip.write_all(JobFile::new(&job, &workshop()).to_json().as_bytes()).unwrap();
        zip.start_file(format!("assets/{id}.png"), options).unwrap();
        zip.write_all(content).unwrap();
        zip.finish().unwrap().into_inner()
    };
    assert!(JobFile::read(&zipped(&bytes)).is_ok());
    assert!(matches!(JobFile::read(&zipped(&other)), Err(ArchiveError::Changed(_))));
    assert!(matches!(JobFile::read(&zipped(b"")), Err(ArchiveError::Changed(_))));
}
