//! Writing files from a prepared job.
#![allow(clippy::unwrap_used, missing_docs, reason = "a bench")]

use aptum_core::blob::NoBlobs;
use aptum_core::{Job, Prepared, Workshop, prepare};
use aptum_formats::pdf::{hand_cut_pdf, print_pdf};
use aptum_formats::svg::{MarksInCut, cut_svg};
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
    bencher.bench_local(|| black_box(cut_svg(&job, &prepared, 1, MarksInCut::LeftOut)));
}
