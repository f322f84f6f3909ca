//! Cut against print over many rehearsals, beside what the best affine fit to the printer's true distortion leaves:
//! `rehearsals SHEETS SAMPLED` writes a table. The first are printed and cut by the machines, through the eye; the others are reckoned
//! from the printer's model with the errors that the eye showed.

use std::error::Error;
use std::time::Instant;

use aptum::rehearsing::Stage;
use aptum_core::blob::NoBlobs;
use aptum_core::geometry::{Affine, Point, Rect, Vec2};
use aptum_core::rehearsal::{Day, Loading, Printing, fit, normal, verdict};
use aptum_core::{Job, Prepared, Workshop, prepare};

/// Jobs of the demo, one with three marks, one with four.
const JOBS: [(&str, &str, &str); 2] = [
    ("three dots", include_str!("../../../demo/jobs/tomato-carton.json"), "three-dots"),
    ("four angles", include_str!("../../../demo/jobs/onion-set-header.json"), "four-angles"),
];

fn main() -> Result<(), Box<dyn Error>> {
    let told: Vec<u32> = std::env::args().skip(1).filter_map(|own| own.parse().ok()).collect();
    let (sheets, sampled) = match told.as_slice() {
        [sheets, sampled] => (*sheets, *sampled),
        _ => (100, 10_000),
    };
    println!(
        "| marks | day | sheets | how | cut to print, 99 of 100 places within, mm | best affine leaves, mm | more by, mm | s a sheet |"
    );
    println!("|---|---|---|---|---|---|---|---|");
    let workshop: Workshop = serde_json::from_str(include_str!("../../../demo/workshop.json"))?;
    for (name, job, marks) in JOBS {
        let mut job: Job = serde_json::from_str(job)?;
        job.sheet.marks = Some(marks.into());
        let prepared = prepare(&job, &workshop).map_err(|errors| format!("{errors:?}"))?;
        let blobs = &NoBlobs;
        let stage = Stage { job: &job, prepared: &prepared, workshop: &workshop, blobs, sheet: 1 };
        for day in [Day::Usual, Day::Bad] {
            let own = through_the_eye(&stage, day, sheets)?;
            row(name, day, "through the eye", &own);
            row(name, day, "reckoned", &reckoned(&stage, day, sampled, own.eye)?);
        }
    }
    Ok(())
}

/// What was measured over sheets.
#[derive(Default)]
struct Measured {
    sheets: u32,
    /// Places, how far the cut fell from the print, mm.
    off: Vec<f64>,
    /// The same, had the sheet been found as well as an affine map can.
    left: Vec<f64>,
    /// Root mean square of where marks were found off where they lay, each way, mm.
    eye: f64,
    seconds: f64,
}

fn row(name: &str, day: Day, how: &str, own: &Measured) {
    let (off, left) = (within(&own.off), within(&own.left));
    println!(
        "| {name} | {} | {} | {how} | {off:.3} | {left:.3} | {:.3} | {:.4} |",
        day.name(),
        own.sheets,
        off - left,
        own.seconds / f64::from(own.sheets.max(1)),
    );
}

fn within(all: &[f64]) -> f64 {
    let mut all = all.to_vec();
    all.sort_by(f64::total_cmp);
    all.get((all.len().max(1) - 1) * 99 / 100).copied().unwrap_or(f64::NAN)
}

/// The best affine map of places to where they were printed, by least squares over all of them.
fn best(places: &[Point], print: &dyn Fn(Point) -> Point) -> Affine {
    let pairs: Vec<(Point, Point)> = places.iter().map(|at| (*at, print(*at))).collect();
    fit(&pairs).map_or(Affine::IDENTITY, |own| own.affine)
}

/// Places of the sheet's outlines, as far as they are cut.
fn places(stage: &Stage<'_>) -> Result<Vec<Point>, Box<dyn Error>> {
    let lines = stage.on_sheet()?.meant();
    Ok(lines.into_iter().filter(|own| own.is_edge).flat_map(|own| own.meant).collect())
}

fn through_the_eye(stage: &Stage<'_>, day: Day, sheets: u32) -> Result<Measured, Box<dyn Error>> {
    let mut own = Measured::default();
    let (mut squares, mut seen) = (0.0, 0_u32);
    let began = Instant::now();
    let run = stage.on_sheet()?.run;
    let copies = stage.worn(run);
    let all = places(stage)?;
    for seed in 0..sheets {
        let mut random = fastrand::Rng::with_seed(u64::from(seed));
        let mut by = |most: f64| (random.f64() * 2.0 - 1.0) * most;
        let loading = Loading {
            shift: [by(2.0), by(2.0)],
            turn: by(1.0),
            start: [by(1.0), by(1.0)],
            ..Loading::default()
        };
        let done = stage.rehearse(day, u64::from(seed), &loading, 300.0)?;
        if let Some(why) = &done.refused {
            eprintln!("seed {seed}: refused, {why}");
            continue;
        }
        let (printing, page, place) = (done.printed.printing, done.printed.page, done.place);
        let print = |at: Point| place * printing.place(at, page);
        let told = verdict(&done.lines, &copies, &print);
        own.off.extend(told.samples.iter().map(|own| own.off.hypot()));
        own.left.extend(left(&all, &print));
        own.sheets += 1;
        if let Some(found) = &done.found {
            for (mark, at) in stage.prepared.marks.marks.iter().zip(&found.seen) {
                squares += (print(mark.reference) - *at).hypot2();
                seen += 2;
            }
        }
    }
    own.eye = (squares / f64::from(seen.max(1))).sqrt();
    own.seconds = began.elapsed().as_secs_f64();
    Ok(own)
}

/// What the best affine map leaves at each place.
fn left(all: &[Point], print: &dyn Fn(Point) -> Point) -> Vec<f64> {
    let map = best(all, print);
    all.iter().map(|at| (map * *at).distance(print(*at))).collect()
}

fn reckoned(
    stage: &Stage<'_>,
    day: Day,
    sheets: u32,
    eye: f64,
) -> Result<Measured, Box<dyn Error>> {
    let prepared: &Prepared = stage.prepared;
    let page: Rect = prepared.windows.page;
    // Twenty places of the outlines tell enough of ten thousand sheets.
    let all = places(stage)?;
    let all: Vec<Point> = all.iter().copied().step_by((all.len() / 20).max(1)).collect();
    let mut own = Measured { sheets, ..Measured::default() };
    let began = Instant::now();
    for seed in 0..sheets {
        let mut random = fastrand::Rng::with_seed(u64::from(seed) ^ 0x5eed);
        let printing: Printing = day.print(page, &stage.margins(), u64::from(seed));
        let print = |at: Point| printing.place(at, page);
        let pairs: Vec<(Point, Point)> = prepared
            .marks
            .marks
            .iter()
            .map(|mark| {
                let off = Vec2::new(normal(&mut random), normal(&mut random)) * eye;
                (mark.reference, print(mark.reference) + off)
            })
            .collect();
        let cut = fit(&pairs).map_or(Affine::IDENTITY, |own| own.affine);
        own.off.extend(all.iter().map(|at| (cut * *at).distance(print(*at))));
        own.left.extend(left(&all, &print));
    }
    own.seconds = began.elapsed().as_secs_f64();
    Ok(own)
}
