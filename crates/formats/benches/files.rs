//! Writing files from a prepared job.
#![allow(clippy::unwrap_used, missing_docs, reason = "a bench")]

use std::sync::Arc;

use aptum_core::blob::{BlobId, Blobs, NoBlobs};
use aptum_core::face::{Layer, LayerKind, Lying, PlacedPicture};
use aptum_core::{Job, Prepared, Workshop, prepare};
use aptum_formats::archive::blob_id;
use aptum_formats::pdf::{hand_cut_pdf, print_pdf};
use aptum_formats::svg::{MarksInCut, SvgUnits, cut_svg};
use divan::{Bencher, black_box};

fn main() {
    divan::main();
}

/// One full sheet.
fn sheet() -> (Job, Prepared) {
    let workshop: Workshop =
        serde_json::from_str(include_str!("../../../demo/workshop.json")).unwrap();
    let mut job: Job =
        serde_json::from_str(include_str!("../../../demo/jobs/tomato-carton.json")).unwrap();
    job.pieces[0].copies = 6;
    let prepared = prepare(&job, &workshop).unwrap();
    (job, prepared)
}

/// Figure to reach: under 20 ms.
#[divan::bench]
fn print_pdf_of_a_full_sheet(bencher: Bencher<'_, '_>) {
    let (job, prepared) = sheet();
    bencher.bench_local(|| {
        let mut bytes = Vec::new();
        print_pdf(&job, &prepared, &NoBlobs, &mut bytes).unwrap();
        black_box(bytes)
    });
}

#[divan::bench]
fn hand_cut_pdf_of_a_full_sheet(bencher: Bencher<'_, '_>) {
    let (job, prepared) = sheet();
    bencher.bench_local(|| {
        let mut bytes = Vec::new();
        hand_cut_pdf(&job, &prepared, &NoBlobs, &mut bytes).unwrap();
        black_box(bytes)
    });
}

#[divan::bench]
fn cut_svg_of_a_full_sheet(bencher: Bencher<'_, '_>) {
    let (job, prepared) = sheet();
    bencher
        .bench_local(|| black_box(cut_svg(&job, &prepared, 1, MarksInCut::LeftOut, SvgUnits::Mm)));
}

/// The plant tags with 500 rows, a word each.
fn merge() -> (Job, Workshop) {
    let workshop: Workshop =
        serde_json::from_str(include_str!("../../../demo/workshop.json")).unwrap();
    let mut job: Job =
        serde_json::from_str(include_str!("../../../demo/jobs/thirty-plant-tags.json")).unwrap();
    let piece = &mut job.pieces[0];
    let list = piece.list.as_mut().unwrap();
    list.rows = (0..500).map(|at| list.rows[at % 30].clone()).collect();
    piece.copies = 500;
    (job, workshop)
}

/// Figure to reach: under 2 s, with what prepares it.
#[divan::bench(sample_count = 5)]
fn print_pdf_of_a_merge_of_500_rows(bencher: Bencher<'_, '_>) {
    let (job, workshop) = merge();
    bencher.bench_local(|| {
        let prepared = prepare(&job, &workshop).unwrap();
        let mut bytes = Vec::new();
        print_pdf(&job, &prepared, &NoBlobs, &mut bytes).unwrap();
        black_box(bytes)
    });
}

/// Twelve copies of a JPEG of 24 megapixels. Figure to reach: under 1 s, and the file no larger than the picture and
/// 50 kB.
#[divan::bench(sample_count = 5)]
fn print_pdf_of_twelve_copies_of_24_megapixels(bencher: Bencher<'_, '_>) {
    let pixels = image::RgbImage::from_fn(6000, 4000, |x, y| {
        #[expect(clippy::cast_possible_truncation, reason = "a pattern")]
        let [r, g] = [(x * 7) as u8, (y * 11) as u8];
        image::Rgb([r, g, r ^ g])
    });
    let mut jpeg = std::io::Cursor::new(Vec::new());
    pixels.write_to(&mut jpeg, image::ImageFormat::Jpeg).unwrap();
    let jpeg: Arc<[u8]> = jpeg.into_inner().into();
    let blob = blob_id(&jpeg);
    let (mut job, _) = sheet();
    let placed = PlacedPicture::new(blob.clone(), [6000, 4000], Lying::on("Front"));
    let layer = Layer::new("l9", LayerKind::Picture(placed));
    job.pieces[0].face.as_mut().unwrap().layers.push(layer);
    job.pieces[0].copies = 12;
    let workshop: Workshop =
        serde_json::from_str(include_str!("../../../demo/workshop.json")).unwrap();
    let prepared = prepare(&job, &workshop).unwrap();
    let held = One(blob, Arc::clone(&jpeg));
    bencher.bench_local(|| {
        let mut bytes = Vec::new();
        print_pdf(&job, &prepared, &held, &mut bytes).unwrap();
        assert!(bytes.len() < jpeg.len() + 50_000);
        black_box(bytes)
    });
}

struct One(BlobId, Arc<[u8]>);

impl Blobs for One {
    fn holds(&self, id: &BlobId) -> bool {
        *id == self.0
    }

    fn bytes(&self, id: &BlobId) -> Option<Arc<[u8]>> {
        (*id == self.0).then(|| Arc::clone(&self.1))
    }
}
