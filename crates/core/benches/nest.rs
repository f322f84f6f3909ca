//! Nesting, marks and ways to fit.
#![allow(clippy::unwrap_used, missing_docs, reason = "a bench")]

use std::f64::consts::TAU;
use std::sync::atomic::{AtomicBool, Ordering};

use aptum_core::geometry::{Point, Rect, Region, polygon};
use aptum_core::memory::Forgetful;
use aptum_core::sheet::nest::{Found, NestAsk, NestBlank, Turns, Watch, nest};
use aptum_core::sheet::{
    Amount, Machines, Marks, Orientation, Piece, all_ways, best_marks, rows_and_columns,
};
use aptum_core::{Job, Workshop};
use divan::{Bencher, black_box};

fn main() {
    divan::main();
}

const QUARTERS: [f64; 4] = [0.0, 90.0, 180.0, 270.0];

/// A closed outline whose radius waves between `least` and `most` mm, `waves` times round.
fn wavy(nodes: u32, waves: f64, least: f64, most: f64) -> Piece {
    let point = |node: u32| {
        let angle = TAU * f64::from(node) / f64::from(nodes);
        let radius = f64::midpoint(least, most) + (most - least) / 2.0 * (waves * angle).cos();
        Point::new(radius * angle.cos(), radius * angle.sin())
    };
    let points: Vec<Point> = (0..nodes).map(point).collect();
    Piece::new(&polygon(&points), &Region::empty()).unwrap()
}

/// Ends the search as soon as there is a first layout.
#[derive(Default)]
struct ToTheFirst(AtomicBool);

impl Watch for ToTheFirst {
    fn go_on(&self) -> bool {
        !self.0.load(Ordering::Relaxed)
    }

    fn found(&self, _: &Found<'_>) {
        self.0.store(true, Ordering::Relaxed);
    }
}

fn first_layout(bencher: Bencher<'_, '_>, pieces: &[(Piece, u32)]) {
    let page = Rect::new(0.0, 0.0, 297.0, 420.0);
    let windows = Machines::default().windows(page, Orientation::Portrait, &Marks::default());
    bencher.bench_local(|| {
        let blanks = pieces.iter().enumerate().map(|(number, (piece, wanted))| NestBlank {
            number,
            piece,
            turns: Turns::These(QUARTERS.to_vec()),
            wanted: *wanted,
        });
        let ask = NestAsk {
            blanks: blanks.collect(),
            windows: &windows,
            spacing: 2.0,
            locked: Vec::new(),
            amount: Amount::Wanted,
            seed: 1,
            effort: u64::MAX,
        };
        black_box(nest(&ask, &ToTheFirst::default()))
    });
}

/// Figure to reach: under 2 ms.
#[divan::bench]
fn rows_of_an_outline_of_60_nodes(bencher: Bencher<'_, '_>) {
    let piece = wavy(60, 3.0, 12.0, 24.0);
    let page = Rect::new(0.0, 0.0, 297.0, 420.0);
    let windows = Machines::default().windows(page, Orientation::Portrait, &Marks::default());
    bencher.bench_local(|| black_box(rows_and_columns(&piece, &windows, &QUARTERS, 2.0, 1000)));
}

/// Figure to reach: under 300 ms.
#[divan::bench(sample_count = 10)]
fn lattice_of_an_outline_of_60_nodes(bencher: Bencher<'_, '_>) {
    first_layout(bencher, &[(wavy(60, 3.0, 12.0, 24.0), 1000)]);
}

/// Figure to reach: under 200 ms.
#[divan::bench(sample_count = 10)]
fn first_layout_of_40_mixed_pieces(bencher: Bencher<'_, '_>) {
    let pieces: Vec<(Piece, u32)> = (0..10)
        .map(|kind| {
            let size = 14.0 + 3.0 * f64::from(kind);
            (wavy(24 + 4 * kind, f64::from(2 + kind % 4), 0.5 * size, size), 4)
        })
        .collect();
    first_layout(bencher, &pieces);
}

fn workshop() -> Workshop {
    serde_json::from_str(include_str!("../../../demo/workshop.json")).unwrap()
}

fn job(text: &str) -> Job {
    serde_json::from_str(text).unwrap()
}

/// Figure to reach: under 3 s.
#[divan::bench(sample_count = 3)]
fn best_marks_for_a_job(bencher: Bencher<'_, '_>) {
    let (job, workshop) = (job(include_str!("../../../demo/jobs/tomato-carton.json")), workshop());
    bencher.bench_local(|| black_box(best_marks(&job, &workshop, &Forgetful, |_| true)));
}

/// Figure to reach: under 3 s.
#[divan::bench(sample_count = 3)]
fn every_way_to_fit(bencher: Bencher<'_, '_>) {
    let (job, workshop) =
        (job(include_str!("../../../demo/jobs/runner-bean-carton.json")), workshop());
    bencher.bench_local(|| black_box(all_ways(&job, &workshop, &Forgetful, |_| true)));
}
