//! Clean-up of large pictures.

#![allow(
    clippy::cast_possible_truncation,
    clippy::unwrap_used,
    missing_docs,
    reason = "a bench of a made-up picture"
)]

use aptum_core::face::{Reach, Rework};
use aptum_core::geometry::{Join, Point, Region, fine_region, polygon, redrawn};
use aptum_core::pixels::Pixels;
use aptum_core::trace::{InsideBy, Seen, Trace, Tracing, View};
use divan::{Bencher, black_box};

fn main() {
    divan::main();
}

/// Twelve megapixels: a blot in the middle of a light ground with a grain.
fn twelve_megapixels() -> Pixels {
    let (width, height) = (4000, 3000);
    let pixel = |at: usize| {
        let (x, y) = ((at % width) as f64 - 2000.0, (at / width) as f64 - 1500.0);
        let grain = ((at.wrapping_mul(2_654_435_761) >> 7) & 7) as u8;
        let is_blot = (x / 1400.0).powi(2) + (y / 1000.0).powi(2) < 1.0 + 0.1 * (x / 90.0).sin();
        if is_blot { [40, 110 + grain, 60, 255] } else { [244 + grain, 240 + grain, 232, 255] }
    };
    Pixels::new(width, height, (0..width * height).flat_map(pixel).collect()).unwrap()
}

fn cleaned(bencher: Bencher<'_, '_>, act: &Rework) {
    bencher.with_inputs(twelve_megapixels).bench_local_values(|mut pixels| {
        pixels.clean([black_box(act)].into_iter()).unwrap();
        pixels
    });
}

#[divan::bench(sample_count = 12)]
fn background_dropped(bencher: Bencher<'_, '_>) {
    let (from, tolerance) = (Reach::Edges, 8.0);
    cleaned(bencher, &Rework::Background { from, colour: None, tolerance, soft: 0.0 });
}

#[divan::bench(sample_count = 12)]
fn background_dropped_with_a_soft_edge(bencher: Bencher<'_, '_>) {
    let (from, tolerance) = (Reach::Edges, 8.0);
    cleaned(bencher, &Rework::Background { from, colour: None, tolerance, soft: 4.0 });
}

#[divan::bench(sample_count = 12)]
fn specks_erased(bencher: Bencher<'_, '_>) {
    cleaned(bencher, &Rework::Specks { under: 60 });
}

fn traced(bencher: Bencher<'_, '_>, most: Option<usize>) {
    let pixels = twelve_megapixels();
    let how = Trace { by: InsideBy::Background { colour: None }, ..Trace::default() };
    let sides = pixels.sides().map(|side| u32::try_from(side).unwrap());
    bencher.bench_local(|| {
        let view = View::of(sides, &how, 60.0, most);
        let seen = Seen::new(black_box(&pixels), &how.by, view).unwrap();
        Tracing::of(&seen, &how, 60.0).unwrap()
    });
}

#[divan::bench(sample_count = 12)]
fn outline_traced(bencher: Bencher<'_, '_>) {
    traced(bencher, None);
}

#[divan::bench(sample_count = 12)]
fn outline_traced_roughly(bencher: Bencher<'_, '_>) {
    traced(bencher, Some(200_000));
}

/// An outline of ten thousand nodes, 100 mm across.
fn ten_thousand_nodes(jag: impl Fn(u32) -> f64) -> Region {
    let points = (0..10_000).map(|at| {
        let angle = f64::from(at) / 10_000.0 * std::f64::consts::TAU;
        let reach = 45.0 + 3.0 * (9.0 * angle).sin() + 0.2 * (140.0 * angle).sin() + jag(at);
        Point::new(50.0 + reach * angle.cos(), 50.0 + reach * angle.sin())
    });
    let outline = polygon(&points.collect::<Vec<_>>());
    fine_region([[&outline]])
}

#[divan::bench(sample_count = 12)]
fn border_of_ten_thousand_nodes(bencher: Bencher<'_, '_>) {
    let area = ten_thousand_nodes(|_| 0.0);
    bencher.bench_local(|| redrawn(&black_box(&area).bordered(2.0, Join::Round)));
}

/// Every node is a corner.
#[divan::bench(sample_count = 12)]
fn border_of_ten_thousand_jagged_nodes(bencher: Bencher<'_, '_>) {
    let grain = |at: u32| f64::from((at.wrapping_mul(2_654_435_761) >> 7) & 7) / 10.0;
    let area = ten_thousand_nodes(grain);
    bencher.bench_local(|| redrawn(&black_box(&area).bordered(2.0, Join::Round)));
}
